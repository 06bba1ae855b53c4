## fire

## Cautions: what can hurt, said where it applies
manual-decides = Your oven's manual and local fire, gas and food codes decide.

## What a fire burns
feed-light = light it
feed-full-flame = full flame
feed-low = low, back up for each pizza
feed-on-at = on at { $c }
feed-top-bottom = top { $top }, bottom { $bottom }
feed-more = feed
feed-hold = hold

## During a service
pace-so-far = At the pace so far; the window closes { SHORT($closes) }.
last-out-by = Last one out by { SHORT($at) }
last-out-after-window = Last one out by { SHORT($at) }, after the window
not-ready-yet = Ready from { $from }
not-ready-yet-why = Baked before that, the crumb is tight.
floor-cold = Floor { SHORT($c) }: the oven is cold
floor-cold-why = Launch at { SHORT($band) }. Its lighting is not logged.
floor-heating-ready = Floor { SHORT($c) }, still heating: ready about { SHORT($at) }
floor-heating = Floor { SHORT($c) }, still heating
launch-read-at = Launch at { SHORT($band) }; read at { SHORT($at) }.
forgotten = Pizza { $n } went in at { SHORT($at) } and nobody took it out
forgotten-why = It counts in no figure until it is out.
floor-unread = Floor { SHORT($c) } at { SHORT($at) }, { $n } baked on it since
floor-unread-why = Launch at { SHORT($band) }: read it before the next one.
floor-back = Floor should be back since { SHORT($at) }
floor-back-why = It read { SHORT($c) } at { SHORT($at) }. Launch at { SHORT($band) }: read it again.
floor-wait-moment = Floor { SHORT($c) }, wait a moment
floor-wait-to = Floor { SHORT($c) }, wait to { SHORT($at) }
floor-short = Floor { SHORT($c) }, { SHORT($by) } short
floor-short-why = Launch at { SHORT($band) }; on it now the base would need { $time }.
floor-over = Floor { SHORT($c) }, { SHORT($by) } over
floor-over-why = Launch at { SHORT($band) }: bases run ahead of the tops.
floor-over-todo = Rake back, turn down or wait with the mouth open.
floor-right = Floor { SHORT($c) }, right to launch
nothing-mends = Next one: nothing here mends it
surety-guess = a guess, one pizza
surety-sure = sure
surety-likely = likely
next-one = Next one: { $what }
next-one-why = { $sure }. { $said } { $model }
next-or = Or: { $what }.
time-as-planned = { $time } as planned
time-instead-of = { $time } instead of { $planned }
longer-than-rest = longer than the rest can wait

## What to change before the next one
act-wait-coals = wait two minutes, coals over the floor
act-wait = wait for the floor
act-rake-back = rake back, let the floor bare
act-cooler = floor or setting { SHORT($by) } down
act-coals = coals over the floor until it reads { SHORT($by) } more
act-hotter = floor or setting { SHORT($by) } up, and let it soak
act-planned-time = give it the time that was planned
act-flame-up = lay on, flame up
act-more-top = more top heat
act-flame-down = flame down
act-less-top = less top heat
act-turn-sooner = turn sooner
act-shelf-up = one shelf up, nearer the grill
act-shelf-down = one shelf down
act-longer = leave it in a tenth longer
act-sooner = out a tenth sooner
act-less-topping = less topping
of-the-last = { $same } of the last { $of }: { $verdict }.
nothing-helps-next = { $said } None of { $n } changes tried on this oven as it stands, alone or two together, brings base and top nearer to right: each helps one and harms the other. Read the floor before the next one, or bake on another.
act-to-time = give it { $time }, as planned: the last came out at { $was }
act-and = { $all }, and { $more }
model-expects = The model expects base { $base }, top { $top }.
verdict = base { $base }, top { $top }
shade-pale = pale
shade-right = right
shade-dark = dark
off-base-pale = base pale
off-base-dark = base dark
off-top-pale = top pale
off-top-dark = top dark

## Ovens and floors
floor-cordierite = cordierite stone
floor-terracotta = soft terracotta
floor-stainless = stainless steel
floor-cast-iron = cast iron
oven-wood-dome = wood-fired dome
oven-gas-dome = gas dome
oven-portable = portable, open flame
oven-deck = electric deck, top and bottom apart
oven-stone-deck = stone-lined deck
oven-home = home oven
shelf-top = top shelf
shelf-middle = middle shelf
shelf-low = lowest shelf
oven-name = A name of 1 to 80 letters.
floor-above-most = The usual floor lies above what the oven may reach.
no-grill = This oven has no grill.
no-fan = This oven has no fan.

## The race
dead-heat = dead heat, { $time }
near-level = near level, { $time }
spread-of = spread { $time }
too-much-from = the { $item } is too much from { $time }
ready-last = The { $item } is ready last
ready-last-then = { $last }; { $burns }.
ready-last-nothing = { $last }; nothing spoils while it was followed.
and-longer = { $time } and longer
bake-window = All of it right from { $from } to { $to }
too-dark = too dark
not-set = not set
not-melted = not melted
pale = pale
wet = wet
dry = dry
never-right = At { $time } it is the best this fire gives, and the { $item } never comes right.
right-too-early = It is right at { $time } and too much before the { $last } is done.
right-too-late = It takes { $time }; the rest cannot wait so long.
no-bake-window = { $item } { $word } when the rest is right
most-one-change = { $what }: the most that one change does.
outside-checked-why = The model was checked below that; take its seconds as a rough guide.
turn-already = Turn at { $time } already
turn-already-why = By then the side at the fire is near its limit; evenness alone would wait longer.
spots-many = Many leopard spots
spots-some = Some leopard spots
spots-few = Hardly any leopard spots
spots-why = Strong heat from above in the first minute, on a dough that fermented cold, chars thin blisters. A tendency, no count.
uneven-rim = One side of the rim comes out darker
uneven-rim-why = Evenness { $evenness } of 100 with these turns.

## The firing
of-readings = By { $n ->
    [one] { $n } reading
   *[other] { $n } readings
 }, the oven warms at { $pace } of the book's pace.
never-charged-feed = Feed more and read again, or launch on a cooler floor.
never-charged-hotter = Set it hotter, or launch on a cooler floor.
never-charged = This floor does not get there within 4 h
never-charged-why = So its core comes to { SHORT($c) } by then.{ $more }
charged-late = Ready at { SHORT($at) }, { $time } after the serve time
charged-late-why = Face and core must both be charged.{ $more }
charged-late-todo = Feed more now, or serve later.
charged-in-time = Ready at { SHORT($at) }
charged-in-time-why = Face and core charged.{ $more }
short-preheat = { $time } leave the core at { SHORT($c) }
short-preheat-why = Its face then is { SHORT($c) }; charged is { $time } later. The race is run on that floor.
light-now-why = Every minute from here moves the serve time: { $time } so far.
face-ahead = Let the face even out before the first one: launch at { SHORT($band) }
face-ahead-why = When the core is charged its face is at { SHORT($c) }, { SHORT($by) } over.
face-ahead-todo = Push the fire aside some ten minutes before, then read five points.
floor-ahead = Floor is { SHORT($by) } ahead
read-at-launch-at = Read { SHORT($c) } at { SHORT($at) }; launch at { SHORT($band) }.
floor-ahead-todo = Rake back or turn down, and read again in five minutes.
floor-behind = Floor is { SHORT($by) } short
core-behind = The core is only { SHORT($c) } at the serve time
core-behind-why = The first pizzas take more than the floor can give back.
launch-test = Read five points, the middle and four corners: all in { SHORT($band) }, no more than { SHORT($by) } apart.
switch-on-at = Switch it on at { SHORT($at) } for a charged floor.
light-at = Light it at { SHORT($at) } for a charged floor.
switch-on-now = Switch it on now: it was due at { SHORT($at) }
light-now = Light it now: it was due at { SHORT($at) }
also = {" "}{ $what }

## A plan and its turns
no-such-turning = There is no such way to turn.
turns-in-order = Turns come one after the other, from the first second on.
bake-too-short = The bake is too short to be followed.
plan-why-set = { $oven }: floor { $floor }, set to { $dome }, { $ball } on { $disc }. Times are good to about a fifth.
plan-why-dome = { $oven }: floor { $floor }, dome { $dome }, { $ball } on { $disc }. Times are good to about a fifth.
cue-back = to the back of the oven
cue-cheese = out, cheese on, back in
cue-under-flame = close under the flame
cue-quarter = a quarter turn
cue-half = half way round
cue-onto-steel = out of the tray, onto the bare steel
turns-before-out = Turns come one after the other, before Out.
bake-20s-2h = A bake is done after 20 s to 2 h, and chars after that.
f-base-colour = The base's colour
f-rim-colour = The rim's colour
f-topping-loss = What the topping may dry
f-the-hour = The hour
readings-at-most = { $most } readings at most.

## What one change would do
change-grill = grill on, top shelf
change-fan = fan on
change-below = bottom element on, lowest shelf
change-floor = bake on { $mm } { $floor }
change-steel-and-grill = { $mm } steel, grill on, top shelf
change-setting = oven { $by }
change-floor-by = floor { $by }
change-dome = dome { $by }
change-sugar = { $share } more sugar in the dough
change-malt = { $share } more active malt in the dough
change-oil = { $share } more oil in the dough
change-sauce = a third less sauce
change-ball = balls 15 % smaller
change-cheese = cheese for the last 90 s only
cooler-by = { $by } cooler
hotter-by = { $by } hotter

## The run
own-tray = No floor to wait for
own-tray-why = Each goes in on a cold tray of its own.
floor-never-back = The floor does not come back between { $many }
floor-never-back-why = Even with 25 min between them a base stays under { $base } of 3.
floor-never-back-todo = A thicker or denser floor, more heat below, or the grill.
floor-turns = Take turns over { $n } places of the floor
floor-turns-why = Each takes { SHORT($by) } off its place, which then rests while the others bake.
floor-gap-pale = Then it is back to its launch. One after the other, base { $n } is pale: { $base } of 3.
floor-takes = Each takes { SHORT($by) } off the floor.
floor-keeps-up = The floor keeps up without a pause
floor-keeps-up-why = Each takes { SHORT($by) } off it and it comes back while the next is opened.
run-why = With bases that just reach their colour the floor allows one every { $floor }, { $hands ->
    [one] { $hands } person opens
   *[other] { $hands } people open
 } one every { $time }.
run-last-out = { $n } { $many }, last one out by { SHORT($at) }
more-hands = One more pair of hands, or start earlier.
another-spot = Another spot, a hotter floor below, or a second dough some hours later.
spares = { $n ->
    [one] { $n } spare ball
   *[other] { $n } spare balls
 } beside { $pieces }
spares-why = A torn disc or a burnt one: 5 to 8 % more.

## Styles of bake, and what is outside what was checked
aim-hot = hot and short, spotted
aim-thin = thin and crisp
aim-home = home oven, even brown
aim-deck = deck, even brown
aim-pan = in a pan
rim-too-wide = The rim is too wide for the disc: less than a third of it.
middle-carries = The middle would carry { $density } kg of dough per m²; 1 to 20 can be baked. Change the ball or the disc.
rim-carries = The rim would carry { $density } kg of dough per m²; 1 to 15 can be baked. Change its width or its share.
floor-outside = A floor over { $c } is outside anything checked.
steel-outside = Steel above { $c } is outside anything checked.
dome-below-floor = The dome is more than { $by } below the floor: bases burn before tops brown.
cheese-after = The cheese goes on after the bake: it never melts.
work-open = opening one
work-top = topping one
work-load = loading one
work-turn = a turn
work-pull = taking one out
work-cut = cutting one

## Words of the fire
item-base = base
item-rim = rim
item-crumb = crumb
item-topping = topping
item-cheese = cheese
trays = trays
pizzas = pizzas
paced = { $range }, likely { $likely }
floor-gap = Leave { $time } between { $many }
floor-gap-spot = Leave { $time } between { $many } of a spot
run-after-window = { $n } { $many }, last one out by { SHORT($at) }, after the dough's window
caution-monoxide = Carbon monoxide
caution-monoxide-say = Never fire wood or portable gas indoors, in a garage, a tent or under a closed awning. A fixed oven needs an approved flue, fresh air and a working alarm. Headache or nausea: out into the air, call for help.
caution-gas = Gas
caution-gas-say = Check hose and fittings, light it with the mouth open, stand aside. A smell of gas: close the valve, no flame, no switch.
caution-embers = Fire and embers
caution-embers-say = Nothing that burns within reach, mind the wind, an extinguisher at hand. Ash into a lidded metal can until it is cold, for days.
caution-burns = Burns
caution-burns-say = Floor, steel and pans stay hot for an hour and more. Long dry gloves; children and pets away.
caution-shock = Stone cracks
caution-shock-say = Heat it from cold, slowly when new or wet. No water and nothing frozen on a hot stone.
caution-oil = Hot oil
caution-oil-say = Shallow oil, a level pan, a lid at hand. Smoke means too hot; never water on burning oil.
caution-grill = Grill
caution-grill-say = Keep clear of the element and stay with it. Baking paper scorches above { $c }.
caution-steel = Weight
caution-steel-say = Steel is heavy: check what the rack carries.
floor-firebrick = firebrick
floor-steel = steel
floor-aluminium = aluminium
fuel-wood = wood
fuel-gas = gas
fuel-electric = electric
cue-short-turn = Turn
cue-short-bare = Bare
cue-short-back = Back
cue-short-cheese = Cheese
cue-short-flame = Flame
limit-top = The top of this oven is at its limit: this is the nearest it comes. See what to change.
limit-floor = The floor of this oven is at its limit: this is the nearest it comes. See what to change.
skin-meets = Where { $floor } of { $c } and dough touch, both would ideally take { $skin } at once; { $stays }
skin-on-metal = on metal the skin rides on steam and flour, and stays far below.
skin-on-stone = steam and poor contact keep the skin { $by } below.
fuel-wood-in-all = { $weight } of dry wood in all, as a guide; readings correct it.
fuel-gas-in-all = { $weight } of gas in all, as a guide.

## How a style is baked
bake-why-dome = Flame at one side: first look at 20 to 30 s, then every 15 to 30 s; floor { $floor }.
bake-why-home-steel = Steel at { $c } under the grill: 3 to 8 min, one turn at 0.7 of the bake.
bake-why-tray = Tray on steel at { $c }: 14 to 18 min, turned half way, 2 to 3 min bare to crisp.
bake-why-big-rim = As a lean round, a little longer: 70 to 110 s for the thick rim.
bake-why-small = Small oven, flame at the back: quarter turns every 20 to 30 s.
bake-why-deck = Deck at { $c }: 3 to 7 min, one turn at 0.7 of the bake.
bake-why-thin = Thin and dry: 3 to 4 min at { $c }, one turn at 0.7 of the bake.
bake-why-board = Bare deck at { $c }: 8 to 12 min, turned at 0.7 of the bake.
bake-why-phases = Phases: front, turn, back, turn; 16 to 20 min until the wall is brown.
bake-why-skillet = 10 to 15 min at { $c }, turned half way; rest 5 to 10 min before cutting.
bake-why-bottom-first = Bottom heat first, then top: 15 to 20 min.
bake-why-bread = 18 to 24 min at { $c }, turned half way.

## Methods, in one line
method-biga-room = Biga 18 h at { $c }, second dose, 1 h bulk, 6 h balls
method-biga-alone = Biga 18 h at { $c } raises it alone, 2 h bulk, 6 h balls
method-levain-day = Levain 5 h at { $c }, 4 h bulk with folds, 5 h balls
method-levain-cold = Levain 5 h at { $c }, 4 h bulk with folds, balls 24 h cold, 5 h out

# Photos of pizzas.
photo-base = Base
photo-rim = Rim
photo-crumb = Crumb
photo-none = Choose a photo first.
photo-no-picture = This cannot be read as a photo: a JPEG, PNG or WebP is, up to 8,000 pixels wide.
photo-too-large = A photo may be sent with { $kb } kB. With scripts on, the browser makes it small by itself.
photo-too-many = { $n } photos of a batch are kept, and they are there.
photo-of-what = Say what it shows: base, rim or crumb.
photo-no-such-pizza = Say of which pizza it is: this batch has { $n }.
