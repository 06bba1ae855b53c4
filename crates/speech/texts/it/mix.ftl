# Mix: programmes of mixing, their steps and cues.

mixway-by-hand = By hand
mixway-preferment = Stirred by hand
mixway-coil-folds-half-an-hour-apart = Coil folds, half an hour apart
mixway-food-processor = Food processor
mixway-fork-mixer = Fork mixer
mixway-four-rounds-of-folds-five-minutes = Four rounds of folds, five minutes apart
mixway-no-kneading = No kneading
mixway-slap-and-fold = Slap and fold
mixway-spiral-all-at-once = Spiral, all at once
mixway-spiral-ripe-biga-with-staged-water = Spiral, ripe biga with staged water
mixway-spiral-water-in-six-parts = Spiral, water in six parts
mixway-stand-mixer-a-quarter-of-the = Stand mixer, a quarter of the flour late
mixway-stand-mixer-all-at-once = Stand mixer, all at once

mixstep-biga-in-pieces-and-half-of = Biga in pieces and half of the final water
mixstep-coil-fold-round = Coil fold, round { $n }
mixstep-cover-and-leave = Cover and leave
mixstep-flour-and-most-of-the-water = Flour and most of the water, slow
mixstep-flour-and-water-slow = Flour and water, slow
mixstep-flour-yeast-water-run = Flour, yeast, water, run
mixstep-folds-round = Folds, round { $n }
mixstep-hook = Hook
mixstep-knead = Knead
mixstep-medium = Medium
mixstep-one-round-of-folds = One round of folds
mixstep-paddle-three-quarters-of-the-flour = Paddle: three quarters of the flour
mixstep-rest-covered = Rest, covered
mixstep-rest-in-the-bowl = Rest in the bowl
mixstep-salt-and-the-rest-of-the = Salt and the rest of the water, slow
mixstep-salt-knead = Salt, knead
mixstep-salt-run = Salt, run
mixstep-salt-slap-and-fold = Salt; slap and fold
mixstep-salt-slow = Salt, slow
mixstep-salt-work-in = Salt, work in
mixstep-slap-and-fold = Slap and fold
mixstep-stand-in-the-bowl = Stand in the bowl
mixstep-stir-everything = Stir everything
mixstep-stir-flour-and-water = Stir flour and water
mixstep-stir-together = Stir together
mixstep-take-the-temperature = Take the temperature
mixstep-the-other-quarter-of-the-flour = The other quarter of the flour, by spoons
mixstep-the-rest-of-the-flour-over = The rest of the flour over ten minutes, yeast with it
mixstep-three-short-turns = Three short turns
mixstep-water-part = Water, part { $part } of { $of }
mixstep-water-salt-a-tenth-of-the = Water, salt, a tenth of the flour
mixstep-work = Work
mixstep-preferment = Stir everything together

mixcue-a-ball-rides-on-the-blade = a ball rides on the blade
mixcue-a-poke-springs-back-slowly = a poke springs back slowly
mixcue-batter-has-thickened = batter has thickened
mixcue-bowl-wall-clean-gathered-round-the = bowl wall clean, gathered round the hook
mixcue-bubbles-all-over-at-least-doubled = bubbles all over; at least doubled
mixcue-dough-has-gathered = dough has gathered
mixcue-gathered-again-only-then-the-next = gathered again; only then the next
mixcue-holds-together = holds together
mixcue-keeps-its-edges = keeps its edges
mixcue-leaves-the-bench-cleanly = leaves the bench cleanly
mixcue-lid-on = lid on
mixcue-lumps-gone-dough-has-gathered = lumps gone, dough has gathered
mixcue-no-dry-flour-dough-forms = no dry flour; dough forms
mixcue-no-dry-flour-left = no dry flour left
mixcue-point-of-dough-smooth-dry-to = point of dough: smooth, dry to the touch, elastic
mixcue-popping-windowpane = popping; windowpane
mixcue-salt-dissolved = salt dissolved
mixcue-salt-is-in = salt is in
mixcue-salt-is-in-dough-gathers = salt is in, dough gathers
mixcue-ragged = ragged clumps, no dry flour left; barely mixed
mixcue-no-lumps = no lumps left
mixcue-satin = satin; stop at { $c }
mixcue-slacker = slacker
mixcue-smooth = smooth
mixcue-smooth-a-poke-springs-back = smooth; a poke springs back
mixcue-smooth-batter = smooth batter
mixcue-smooth-no-longer-sticks-to-the = smooth, no longer sticks to the bench
mixcue-smooth-skin-a-poke-springs-back = smooth skin; a poke springs back
mixcue-smooth-skin-windowpane = smooth skin; windowpane
mixcue-smooth-to-the-touch = smooth to the touch
mixcue-softer-when-you-come-back = softer when you come back
mixcue-spread-again = spread again
mixcue-stop-centre = stop; centre of the dough, probe { $deep } in
mixcue-strands-on-the-hook = strands on the hook
mixcue-surface-has-slackened = surface has slackened
mixcue-tight-smooth-mass = tight, smooth mass
mixcue-tighter-than-the-round-before = tighter than the round before
mixcue-wall-clean-gathered-round-the-hook = wall clean, gathered round the hook; popping
mixcue-wall-comes-clean = wall comes clean
mixcue-water-is-taken-up = water is taken up

## What is refused.
f-bowl = Bowl
f-mixer-capacity = Capacity, dough
mix-part-weight = Part of the mixing
mix-part-temperature = Part of the mixing
mix-steps-count = A mixing has 1 to { $most } steps.
mix-most-machine = { $most } of machine work is the most.
mix-nothing-in-the-bowl = Nothing in the bowl: 50 g to 300 kg.
mix-two-of-one-name = Two parts are called “{ $name }”.
mix-work-without-flour = A step works, but no flour is in the bowl.
mix-nothing-to-pour = No water is left to pour.
mix-shares-add-up = The shares of flour, water and salt each come to 1 over the steps.
mixer-figures-odd = These figures of friction belong to no mixer.

## Tools, inputs, signs, troubles.
mixin-wanted = Dough wanted
mixin-flour = Flour
mixin-room = Room
mixin-bowl = Bowl
mixin-preferment = Preferment
mixin-tap = Tap
mixin-kettle = Kettle
mixin-chilled = Fridge water
mixin-water = Water, measured
sign-wall-clean = wall clean
sign-gathered = gathered
sign-popping = popping
sign-smooth = smooth
sign-poke = poke springs back
sign-window = window
trouble-dry-flour = dry flour left
trouble-tears = tears
trouble-climbs = climbs the hook
trouble-wet-again = wet and shiny again
gluten-done = window seen: done
gluten-begun = just begun
gluten-a-third = a third of the way
gluten-half-way = about half way
gluten-most = most of the way
gluten-look = look for the window
gluten-should-be-done = should be done: trust the dough

## Hazards.
hazard-turning-bowl = Stop it before a hand, scraper or probe goes in. Guard closed, sleeves and hair away.
hazard-blade = Unplug before the hand goes in; blade out before the dough.
hazard-motor-heat = Smells hot: stop, and let the motor cool 10 min.
hazard-walks-off = Stay with it: a stiff dough makes it walk.
hazard-splash = Pour slowly at the wall, on slow.
hazard-flour-dust = Spoon it in, slow.
hazard-lifting = Over 25 kg: divide before you lift, or lift as two.
hazard-scald = Kettle into the cold water, away from you.
hazard-wrists = Change hands, or rest and fold.
hazard-raw-flour = Raw dough is not for tasting.
hazard-crushed-ice = Crushed ice only: a lump breaks hooks and blades.

## Taps that are refused.
mixtap-not-begun = A reading needs dough in the bowl: begin the first step.
mixtap-begun = It is under way: mixer and programme stand.
mixtap-ended = This run is over.
mixtap-on-already = Step { $n } is on already, or past.
mixtap-out-of-order = { $n ->
    [one] The step before it is not done yet.
   *[other] { $n } steps before it are not done yet.
}
mixtap-before-the-last = That is before the last step began.
mixtap-in-already = Part { $n } of the water is in already.
mixtap-no-such-part = There is no part { $n } of the water.
mixtap-no-such-run = There is no run { $n } of this mixing.
mixtap-run-before = Run { $n } is not out of the bowl yet.
mixtap-too-long = A step has at most a day.

## Judgements of a run.
mix-dough-hot = The dough reads { $c }: stop
mix-dough-hot-why = { $wanted } was wanted; warm gluten tears, and everything runs early.
mix-dough-hot-todo = Flat in a cold tray for 15 min, then measure again. Rise counts from what you read.
mix-ends-warm = It ends at { $end }
mix-ends-warm-why = { $off } above the { $wanted } that you want.
mix-ends-cold = It ends at { $end }
mix-ends-cold-why = { $off } below the { $wanted } that you want.
mix-remedies = { $all }
mix-last-water = The water to come at { $c }: ends at { $end }.
mix-less-work = { $less } of work less and { $rest } of rest: ends at { $end }.
mix-on-ice = The bowl on ice for { $on_ice }: ends at { $end }.
mix-shorter-bulk = Or a shorter, cooler bulk: Rise says when it is ready.
mix-a-minute-more = A minute or two more warms it and does the gluten good.
mix-warmer-place = More work does not help now: a warmer place, and Rise says the hours.
mix-last-water-cannot = Water at { $c } gives { $end } at the end
mix-last-water-cannot-why = Late water is a weak lever: a degree of it moves the dough by { $per }.
mix-minutes-left = { $left } more, then { $c }
mix-minutes-left-why = Work warms it: beyond that it is a degree too warm.
mix-minute-adds = Each minute more adds { $k }
mix-minute-takes = Each minute more takes { $k }
mix-minute-more-why = { $most } past the plan still land within a degree.
mix-no-piece-fits = This mixer is too small for one piece of { $piece }
mix-no-piece-fits-todo = Mix it by hand, or in a larger one.
mix-over-capacity = { $kg } is more than the mixer bears
mix-over-capacity-why = Of so stiff a dough it works { $bears } at once.
mix-over-capacity-todo = Mix it in { $runs } runs, shared evenly.
mix-small-batch = The bowl is { $share } full
mix-small-batch-why = The hook runs past so little dough, and how much it warms is a guess.
mix-small-batch-todo = By hand, or with folds.
mix-not-hydrated = The flour is not wet through
mix-not-hydrated-why = Dry flour under the hook stays dry: rest wets it, work does not.
mix-not-hydrated-todo = Rest 15 to 20 min before the salt; wet the hand, not the bowl.
mix-forced = It resists
mix-forced-why = A dough that tears or climbs is worked faster than it can follow.
mix-forced-todo = Rest it 10 to 20 min, never force it.
mix-poured-early = Water went in before it had gathered
mix-poured-early-why = Water on a dough that has not gathered keeps it from gathering.
mix-poured-early-todo = Slow until it gathers; the next part smaller.
mix-wet-again = Wet and shiny again: stop
mix-over-mixed = It was worked long
mix-over-mixed-why = Past a point work takes the gluten apart.
mix-over-minutes-why = { $most } of work is the most for this way of mixing.
mix-over-by-hand-todo = Rest it 15 min: the rest does more than the work.
mix-over-mixed-todo = Rest 20 min, then folds; use it soon.
mix-no-window = No window yet
mix-no-window-why = After so much work there should be one: weak flour, or too much water.
mix-no-window-todo = Rest 20 min, then two rounds of folds.
mix-reading-doubtful = A reading does not fit
mix-reading-doubtful-why = It is more than { $off } off its course; it is kept and counts little.
mix-reading-doubtful-todo = Measure again: centre of the dough, { $deep } deep, machine stopped.
mix-rises-in-the-bowl = Its rests are part of the rise
mix-rises-in-the-bowl-why = The hours of the plan count from the end of the first step; the others go on in the bowl.
mix-friction-guess = How much this mixer warms is a guess by its kind
mix-friction-guess-why = Log the temperature two or three times, and the next dough is surer.

## The log of the bowl.
mixlog-chosen = mixed by: { $programme }
mixlog-measured = { $what } { $c }
mixlog-weighed = line { $n } weighed
mixlog-not-weighed = line { $n } not weighed after all
mixlog-step = mixing, step { $n }
mixlog-more = { $more } more for step { $n }
mixlog-poured = water, part { $n }
mixlog-poured-at = water, part { $n }, at { $c }
mixlog-read = dough { $c } at the mixer
mixlog-seen = seen at the mixer: { $sign }
mixlog-dough = dough at the mixer

## What a mixer taught.
speed-off = rest
speed-slow = slow
speed-medium = medium
speed-fast = fast
speed-hand = by hand
speed-fold = folds
mixer-adds = This mixer adds { $k } ± { $sd } a minute on { $speed }
mixer-sure-guess = a guess by its kind
mixer-sure-still-guess = { $n ->
    [one] still rough, from one mix
   *[other] still rough, from { $n } mixes
}
mixer-sure-fair = { $n ->
    [one] fair, from one mix
   *[other] fair, from { $n } mixes
}
mixer-sure-known = { $n ->
    [one] known, from one mix
   *[other] known, from { $n } mixes
}
mixitem-water = water
mixitem-ice = ice
mixitem-yeast = yeast
mixitem-preferment = preferment

# A kitchen's own programmes.
stepwork-stir = stir
stepwork-knead = knead
stepwork-slap = slap and fold
mixcue-by-the-clock = by the clock
mixway-preferment-slow = Barely mixed, on slow
mixstep-preferment-slow = Everything together, on slow
programme-no-machine = Hands know no speeds: stir, knead, slap or fold; or mix it in a machine.
programme-no-hands = A machine kneads by its speeds; folds and rests go with it.
programme-share = A share of 0 to 100 %.
programme-words = Up to 120 letters; this has { $letters }.
programme-no-work = Nothing is worked: one step at least stirs, kneads or runs.
programme-adds-up = Over all steps it comes to { $percent }; 100 % is all of it.
