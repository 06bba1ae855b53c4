figures-as-it-goes = as it goes, { $now }
figures-as-planned = as planned, { $now }
figures-for-dough-warmer-by-mixing = for { $dough_c }° dough; { $full } warmer by mixing
figures-not-met = not met
figures-not-known = not known
figures-without-a-price = Without a price: { $join }.
figures-things-have-no-price-yet = { $n } things have no price yet.
figures-cost-the-flour-has-no = Cost: the flour has no price; and shopping
figures-cost-a-and-shopping = Cost { $per_ball } a { $piece }, and shopping
figures-a-with-toppings-in-all = { $per_ball } a { $piece }, { $per_pizza } with toppings; { $toppings } in all.{ $missing }
figures-cook-first = cook first
figures-after-the-bake = after the bake
figures-as-you-set-it-for = { $percent } % as you set it, for { $h } h.
figures-none-in-the-dough-the = None in the dough: the preferment raises it.
figures-for-h-good-to-a = { $percent } % for { $h } h; good to a factor of 1.6.
figures-from-pieces-on-it-weighs = From { $n } pieces on it weighs without.
figures-a-poolish-or-a-levain = { $larger } A poolish or a levain raises it without, too.
figures-for-the = for the { $name }
figures-a-pocket-scale-that-reads = { $s }A pocket scale that reads 0.01 g spares the { $thrown_g } that are left over.
figures-is-too-small-to-weigh = { $dose }{ $of } is too small to weigh
figures-scale-reads-g-it-holds = Scale reads { $dose } g. It holds { $dose2 } of yeast; pour { $water } water besides. Make it fresh each time.{ $pays } { $columns }
figures-and = { $p } and { $to_lowercase }
figures-flour-water = { $flour } flour, { $water } water
figures-begin-the = Begin the { $name } { $start }.
figures-begin-mixing = Begin mixing { $start }.
figures-never-ready-see-the-judgement = Never ready: see the judgement.
figures-does-not-fit = does not fit
figures-ready-serve = Ready { $span }. Serve { $serve } { $fit }.
figures-all-of-the = All of the { $name }
figures-stay-in-the-jar = ; { $kept } stay in the jar
figures-feed-the-ripe-seed-water = Feed the { $name }: { $seed_g } ripe seed, { $flour_fact }, { $water_g } water make { $makes_g }; { $goes_in } go in{ $keep }. Its column above is what is in it then, the seed counted as of the same flours.
figures-true-hydration-nominal-starter-old = True hydration { $t } %, nominal { $n } %: starter, old dough, honey and milk bring flour and water of their own.
figures-in = in { $name }
figures-rounding-puts-yeast-than-computed = Rounding puts { $worst } % { $value } yeast{ $of } than computed.
figures-salt = Salt
figures-oil = Oil
figures-sugar = Sugar
figures-and-for-bowl-and-hands = { $portions } and { $loss_percent } % for bowl and hands; one percent is { $sum_percent }.
figures-in-it = in it, { $at }
figures-word-more = more
figures-word-less = less
figures-word-met = met
figures-word-pan = pan
figures-word-ball = ball
figures-n-balls = { $word } { $n ->
    [one] ball
   *[other] balls
 }
figures-n-pans = { $word } { $n ->
    [one] pan
   *[other] pans
 }
figures-takes = { $what } { $n ->
    [one] takes
   *[other] take
 }
figures-fits = fits
figures-yours-from-bakes = { $percent } %, for { $h } h: yours, from { $n } bakes, good to ×/÷ { $good }; ready when served { $met }. The book says { $book } %.
