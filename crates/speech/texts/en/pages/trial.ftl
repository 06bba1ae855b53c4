# Trials and late entry.
page-no-trial-of-that-code = No trial of that code
page-no-trial-in-this-kitchen = Nothing in this kitchen is called { $code }.
trial-a-tasting = a tasting
trial-trial = Trial
trial-so-many = { $n ->
    [0] No trial yet,
    [one] One trial,
   *[other] { $word } trials,
}
trial-tasted-blind = tasted blind
trial-list-one = One thing varied, all else held equal.
trial-list-two = The answer says what chance alone would do.
trial-new = New trial
trial-arms-head = What is compared
trial-made = Made
trial-none-yet = Vary one thing of a dough, let people taste without knowing, and see whether it is more than chance.
trial-new-head = One thing varied,
trial-new-core = all else held equal
trial-new-one = What follows from it, as the dose of yeast, is worked out for each.
trial-new-two = Bake them alike, or each at its best: decide before.
trial-way-there = These bakes
trial-way-sisters = Sister doughs
trial-way-sisters-why = each a batch of its own, for one and the same hour
trial-way-split = One dough, split
trial-way-split-why = its pieces baked, topped or opened in two to four ways
trial-dough-head = The dough
trial-of = Of which
trial-varied = Varied
trial-values = Its values
trial-values-why = Two to four, parted by commas. For flours their names as in the pantry:
trial-each = Pieces each
trial-served = Served
trial-part = Part { $n }
trial-table-head = The table
trial-name = Name
trial-how-many-taste = Tasters
trial-tasters-why = Fewer than { $two } who agree show nothing between two, whatever they say; of three it takes { $three }, of four { $four }.
trial-make = Make the trial
trial-a-whole-number = A whole number, 1 to 1000.
trial-say-what-is-varied = Say what is varied.
trial-say-the-values = Say its values as numbers: 24, 40, 64.
trial-flours-of-the-pantry = One of these is no flour of the pantry.
trial-say-of-which-dough = Say of which dough.
trial-value-not-possible = { $value }: { $why }
trial-arms-so-many = { $word } arms,
trial-nobody-tasted = nobody has tasted yet
trial-fewest = { $n } who all agree are the fewest that show anything.
trial-too-few-planned = { $n } are planned: whatever they say, it will show nothing. Ask more people.
trial-enough-planned = { $n } are planned. Who serves should not be who tastes.
trial-no-score-differs = No score differs beyond chance.
trial-scores-differ = { $n ->
    [one] One score differs beyond chance.
   *[other] { $n } scores differ beyond chance.
}
trial-liked-better = is liked better
trial-by-chance = Chance alone does that { $chance }.
trial-no-winner = No winner
trial-beyond-chance = beyond chance
trial-lead-is-chance = { $k } of { $n } like { $arm } better; chance alone does that { $chance }.
trial-nobody-compared = Nobody leads.
trial-chance-nearly-always = at nearly every table
trial-chance-every-other = at every other table
trial-chance-one-in = at one table in { $n }
trial-liking = Liked better
trial-even = even
trial-found-same = { $n } found them the same
trial-so-many-like = { $k } of { $n } like { $arm } better
trial-so-many-more = { $k } of { $n } find more in { $arm }
trial-middle-difference = by { $by } of 5 in the middle
trial-shown = Shown: by chance { $chance }
trial-not-shown = Not shown: by chance { $chance }
trial-bar-says = { $b } against { $a }: { $mid } % for { $a }, the true share between { $low } and { $high } %
trial-bar-how = share of those who told them apart; the bar holds the true one 19 times of 20
trial-what-it-shows = What it shows
trial-nothing-yet = Nothing yet: the first tap of a taster begins it.
trial-next-head = What would tell most next
trial-plan-it = Plan it
trial-next-taste = Let the table taste.
trial-next-taste-why = { $n } tasters or more; each gets the plates in an order of its own.
trial-next-again = { $a } against { $b } once more, with { $n } tasters in all.
trial-next-again-why = If the lead is real, so many would show it four times of five. Fewer would leave it open.
trial-next-larger = The same with a larger step.
trial-next-larger-why = A difference as small as this one, if there is any, no table is large enough to show.
trial-next-between = Between { $a } and { $b }.
trial-next-between-why = The best one has others on both sides: a finer step finds where it is.
trial-next-beyond = Beyond { $a }.
trial-next-beyond-why = The best one stands at the edge of what was tried: nobody knows yet where it turns.
trial-next-another = { $a } against something new.
trial-next-another-why = What was varied has no order, so there is no between.
trial-liked-best = liked best
trial-was-plate = plate { $letter }
trial-scores-why = The middle of the scores, 1 to 5: how much there is of it, not how good it is.
trial-parts-of-one = Parts of one dough
trial-split-equal = The dough itself is one: all of it is equal.
trial-table = The table
trial-table-why = One seat after the other. Plates are under letters; this page names them only after somebody tasted.
trial-taster = Taster { $n }
trial-taste-in-order = taste { $order } in this order
trial-taste-one = A tap says it, a second one takes it back.
trial-taste-two = Leave out what you cannot tell.
trial-taster-before = Taster before
trial-taster-next = Next taster
trial-which-better = Of { $a } and { $b } I like better
trial-plate = Plate { $letter }
trial-score-label = Plate { $plate }, { $what }: { $score } of 5
trial-nothing-of-this-table = That is nothing that this table can say.

late-cell = { $column }, line { $line }
late-col-date = Day
late-col-time = Served
late-col-formula = Dough
late-col-pieces = Pieces
late-col-yeast = Yeast
late-col-cold = Cold
late-col-dough = Dough at
late-col-fridge = Fridge
late-col-stood = Opened
late-col-bake = Baked
late-col-base = Base
late-col-top = Top
late-col-remark = Said
late-head = What was baked,
late-core = written down afterwards
late-not-kept = Nothing is kept yet:
late-cells-wrong = { $n ->
    [one] one thing cannot be read
   *[other] { $n } things cannot be read
}
late-line-one = A day and how it opened are enough for a line.
late-line-two = Dough, hour, pieces, yeast and cold are as in the line above where nothing is said.
late-what-is-wrong = What cannot be read
late-line = Line { $n }
late-line-column = Line { $n }, { $column }
late-grid = A dozen bakes
late-number = Line
late-keep = Keep them
late-as-above = All lines are kept, or none. A table from a spreadsheet can be pasted into any cell.
late-csv-head = Many at once, as CSV
late-csv-why = The first line names the columns: { $known }. At most { $most } bakes; temperatures as your kitchen reads them.
late-csv-keep = Keep the table
trial-at-the-bench = At the bench
trial-kept-before = This page was kept before, as { $code }, with another trial. Yours stands here and is not kept yet: make it now as one of its own.
late-so-many-kept = { $n ->
    [one] One bake is kept.
   *[other] { $n } bakes are kept.
}
trial-evenings = Served on { $n } evenings: the air, the fire and the hands of each are in what differs, too.
