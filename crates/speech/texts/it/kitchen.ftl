## Why a tap of the run is not kept
tap-still-in = Pizza { $n } is still in the oven. Tap Out first.
tap-full = All { $n } spots are taken. Tap Out first.
tap-went-in = Pizza { $n } went in already, on another tablet. Tap In again for the next one.
tap-nothing-to-undo = There is nothing of pizza { $n } to take back.
tap-none-in = No pizza is in the oven. Tap In first.
tap-already-out = Pizza { $n } is already out.
tap-unknown = Pizza { $n } has not been baked yet.
tap-before-in = That moment lies before pizza { $n } went in. Check the clock of this device.
tap-double = Two taps within a second count once.
tap-closed = This batch is closed. Reopen it to go on.

## Why an entry is not kept
entry-to-come = { $at } is still to come: log it when it has happened.
entry-moment-to-come = That moment is still to come: log it when it has happened.
entry-long-before = { $at } is more than two weeks before this batch was to begin. Look at the date.
entry-no-cut = A power cut ends after it begins, within three days, and not in the future.
entry-too-many = This batch holds { $n } entries, and no more fit. Close it and begin another for what comes.
entry-too-many-taps = This run holds { $n } taps, and no more fit.
entry-no-such-pizza = Pizzas of this batch count to { $n }.

## Files that come in
file-too-large = The file has { $kb } kB; a formula has at most { $most } kB.
file-not-formula = This is not a formula file: line { $line }, column { $column } cannot be read.
file-no-format = This is not a formula file: it does not say "format": "{ $format }".
file-other-version = The file has version { $said }; this program reads version { $version }.
file-name = A name has 1 to 80 letters; this has { $letters }.
file-why = What was changed, in up to 1000 letters.
recipe-too-large = The file has { $kb } kB; a recipe has at most { $most } kB.
recipe-not-json = This is not JSON: line { $line }, column { $column } cannot be read.
recipe-none = There is no schema.org Recipe in this file.
allergen-milk = milk
allergen-seeds = seeds, may hold sesame
allergen-gluten = gluten
batch-cancelled = This batch was cancelled. Take it up again first.
batch-closed = This batch is closed. Reopen it first.
batch-gone = This batch is gone.
tap-other-key = Another tap was kept under this one's key: tap again.
batch-closed-already = This batch is closed already.
batch-under-way = This batch is under way.
entry-taken-back = That was taken back before.
entry-none-to-take-back = There is no such entry to take back.
keep-cold = Keep perishables at { $c } or below.
plan-hours = hours changed
plan-fire = fire planned
plan-fire-dough = fire and dough changed
plan-pieces = { $n ->
    [one] one piece
   *[other] { $n } pieces
} instead of { $was }
plan-weight = of { $g } instead of { $was }
plan-both = { $number }, { $weight }
plan-freezer = { $n ->
    [one] one piece
   *[other] { $n } pieces
} into the freezer
plan-apart = { $n ->
    [one] one piece
   *[other] { $n } pieces
} for another hour
