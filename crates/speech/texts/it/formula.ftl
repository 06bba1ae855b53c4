## formula

## Flours
flour-soft-fine = fine, soft wheat (00, 0)
flour-bread = bread flour, hard wheat
flour-type-1-2 = type 1 or 2
flour-gluten = vital wheat gluten
flours-at-most = At most { $most } flours.
no-flour-with-figure = No flour in the pantry has that figure; enter it from the bag first.
target-reached = { $target } reached by { $flours }.
target-not-reached = { $target } cannot be reached: { $flours } comes nearest, { $off } off.
target-protein = protein { $share }
target-w = W { $w }
target-absorption = absorption { $share }
share-of-flour = { $share } { $name }
differs-weaker = W { $w } lower: slacker and quicker spent; fewer hours or less water.
differs-stronger = W { $w } higher: tighter, springs back; more rest or more water.
differs-less-water = Takes { $share } less water: stickier at the same hydration.
differs-more-water = Takes { $share } more water: firmer at the same hydration.
differs-more-protein = More protein: browns more, firmer bite.
differs-less-protein = Less protein: paler, softer bite.
differs-more-bran = More bran: more flavour, ferments faster, holds less gas.
differs-less-bran = Less bran: milder, holds more gas.
differs-hardly = Handles much like the flour it stands in for.

## What a formula may not be
toppings-at-most = At most { $most } toppings on one sheet.
needs-flour-named = A dough needs flour: name at least one.
blend-at-most = At most { $most } flours in one blend.
flours-sum = The flours sum to { $sum }, not 100.
extras-at-most = At most { $most } ingredients besides flour, water, salt, oil, sugar and yeast; these are { $n }.
preferments-at-most = At most { $most } preferments in one dough.
name-too-long = A name holds up to { $most } letters; this has { $letters }.
weight-from-0 = A weight is a number from 0 up, in grams.
no-such-flour = There is no such flour on the sheet.
needs-flour = A dough needs flour.
whole-dough-weighs = The whole dough weighs { $weight }.
preferments-hold-too-much = The preferments hold { $share } of the flour: more than the whole dough. Bring them down to 100 % in all.
preferment-too-wet = The { $name } brings more water than the formula wants: { $brings } of the flour against { $wanted }. Take less of it, make it stiffer, or raise the water.
preferments-too-salty = The preferments alone bring { $share } salt.
preferments-take-more = The preferments take { $share } more of { $name } than the blend has.
too-wet-in-all = With everything counted that is { $share } water: no dough.
flour-in = flour in the { $name }
water-in = water in the { $name }
salt-in = salt in the { $name }
warm-of = the { $name }, warm
cold-of = the { $name }, cold
preferment-half-hour = The { $name } needs at least half an hour.
stands-at = the { $name } stands at
off-the-bowl = the { $name } off the bowl
levain-no-yeast = A levain is raised by its seed; it takes no yeast.
say-feeding = Say how the levain is fed: parts of flour to one part of seed.
one-share-each = The { $name }: one share from 0 to 100 % for each flour.
flours-of-sum = The flours of the { $name } sum to { $sum }, not 100.
pieces-1-1000 = 1 to 1000 pieces.
pans-plan-anew = Pans of several kinds: plan them anew on the sheet.
pan-own-weight = A pan asks for its own weight: leave one over, or fill another.
pan-or-balls = Say at least one pan, or some balls.
pans-at-most = At most { $most } kinds of pans on one sheet.
sheet-300-kg = One sheet holds up to { $most } of dough; this is { $weight }. Split it.
one-dose-each = One dose for each preferment.

## What is unusual of a formula
spoon-eighth = a level eighth of a teaspoon
spoon-quarter = a level quarter teaspoon
spoon-half = a level half teaspoon
spoon-three-quarters = three level quarter teaspoons
spoon-one = a level teaspoon
spoon-one-and-half = a teaspoon and a half, level
spoon-two = two level teaspoons
w-guess = W { $w } is a guess, ±{ $spread }
w-guess-why = Protein is only a hint of strength: flours of one W differ by 1.5 points.
w-guess-todo = If the bag or the mill says W, enter it in the pantry.
oil-as-water = Is the { $oil } oil counted in the water?
oil-as-water-why = { $water } is wet for this style, { $usual } would be usual; oil is not water.
set-percent = Set { $share }
takes-up = {" "}It takes up { $takes }: that feels like { $feels }.
wet-for-w = { $water } water is wet for W { $w }
wet-for-w-why = This strength carries about { $carries }; beyond it the dough sticks.{ $because }
stiff-for-flour = { $water } water is little for this flour
stiff-for-flour-why = Usual here feel { $usual }.{ $because }
water-suits = { $water } suits this flour
water-suits-whole = W { $w } carries about { $carries }.{ $because } Whole grain drinks first: it feels firm for ten minutes.
water-suits-why = W { $w } carries about { $carries }.{ $because }
true-hydration = Stated { $stated }, in truth { $real }
true-hydration-why = The starter's own flour and water, and water in honey or milk, are counted in.
opens-tight = P/L { $pl }: it will spring back
opens-tight-why = 0.4 to 0.8 opens well; above it the dough is tight, however strong it is.
opens-tight-todo = Rest the balls longer before opening, or blend in a flour of a lower P/L.
opens-slack = P/L { $pl }: it will run and tear easily
opens-slack-why = 0.4 to 0.8 opens well; below it the dough stretches by itself.
opens-slack-todo = Ball it tight, open it cooler, or blend in a flour of a higher P/L.
from-volumes = Weights from cups and spoons are rough
from-volumes-why = A cup of flour weighs { $range }, by how it is filled.
from-volumes-todo = Weigh it once while you measure, then correct the grams here.
in-column = {" "}in the { $name }
yeast-below-scale = { $dose } of yeast{ $where } is too little for this scale
yeast-below-scale-why = It reads in steps of { $step }: the dose may be { $off } off.
dilute = Stir { $yeast } yeast into { $water } water, take { $take } of it and pour { $less } less water. { $ways }
pocket-scale-or-throw = { $spoon }A pocket scale that reads { $fine } settles it; dissolving it throws { $thrown } away. { $ways }
pocket-scale = { $spoon }A pocket scale that reads { $fine } settles it. { $ways }
by-the-spoon = By the spoon, { $spoon }: { $range }.{" "}
salt-why = { $range } carries flavour, tightens the gluten and steadies the yeast.
mixer-too-small = The mixer holds { $holds }, this is { $weight }
mixer-too-small-why = Overfilled it climbs the hook, warms the dough and strains the motor.
mix-in-batches = Mix in { $n } batches of { $weight }.
make-so-many = Make { $n }
usual-is = Usual is { $range }.
outside-style = { $what } { $share } is outside this style
lean-is-hot = A lean dough puffs and spots in a very hot oven; oil makes it crisp and dark.
sugar-burns = Under a hot dome sugar burns before the base is done.
sweet-under-dome = { $name } with a dome of { $c }
sweet-under-dome-why = { $share } colours the rim early; under { $most } is safer here.
malt-much = { $share } active malt is much
malt-much-why = Too much makes a gummy crumb that browns too fast.
usual-density = Usual is { $range }.
set-density = Set { $density }
ball-opens-to = A ball of { $weight } opens to { $width }
ball-opens-to-why = At this style's thickness; { $range } are usual.
set-weight = Set { $weight }
preferment-water = { $name } at { $share } water
preferment-water-why = Usual is { $range } of its own flour.
preferment-share = { $name } with { $share } of the flour

## Names of thicknesses
thick-paper = paper thin
thick-thin-round = thin round
thick-thin-pan = thin pan
thick-deep-pan = deep pan
thick-round = round
thick-pan = pan

## What changed between two formulas
diff-style = Style
diff-changed = changed
diff-size = Size
diff-double = double
diff-single = single
diff-bake = Bake
diff-mixed = Mixed
diff-nominal = { $share } nominal
diff-of-flour = { $share } of the flour
diff-water = { $share } water
diff-cold = { $time } cold
diff-off-bowl = off the bowl at { $c }
diff-salt = { $share } salt
diff-fed = fed 1 : { $parts }
diff-kept-back = { $weight } kept back
diff-flours = flours { $shares }
diff-style-data = Style's own data
diff-as-it-was = as it was
diff-flour = { $share }, W { $w }
diff-flour-guessed = { $share }, W { $w } (guessed)
diff-topping-after = { $weight }, after the bake
diff-yeast-solved = { $yeast }, solved for the hours
diff-none-added = none added
diff-yeast-given = { $yeast } { $share }
diff-balls = { $n ->
    [one] { $n } ball
   *[other] { $n } balls
 } of { $weight }
diff-discs = { $n } discs of { $width } at { $density }
diff-total = { $weight } in all, { $n } pieces
diff-flour-total = { $weight } of flour, { $n } pieces
diff-pans = { $n ->
    [one] { $n } pan
   *[other] { $n } pans
 } { $pan } at { $density }

## Mixing
mixer-hand = by hand
mixer-stand = stand mixer
mixer-spiral = spiral mixer
mixer-fork = fork mixer
mixer-processor = food processor
colder-than-tap = Water at { $c }, colder than the tap
colder-than-tap-why = The tap gives { $c }.
colder-than-tap-todo = Chill it, or put { $ice } of ice in { $water } of tap water.
dough-warm = { $c } is warm for a dough
dough-warm-why = Over { $c } the gluten suffers and everything runs early.
no-water-to-pour = No water is left to set the dough's temperature: it comes to { $c }
no-water-to-pour-why = All of it is in the preferment.
no-water-to-pour-todo = Keep the preferment at the temperature that the dough should have.
ice = { $ice } of the water as ice
ice-why = Water alone would have to be { $c }; melting takes the heat away.
ice-todo = Crushed ice in { $water } of water at { $c }.
ice-not-enough = Even { $share } ice leaves the dough at { $c }
ice-not-enough-why = More ice than that does not melt while you mix.
chill-flour-to = Chill the flour to { $c }, or mix for a shorter time.
chill-flour = Chill flour and bowl, mix for a shorter time, or aim for a warmer dough.
water-too-hot = Water would have to be { $c }
water-too-hot-why = Above { $most } it harms the yeast; at { $most } the dough comes to { $c }.
warm-flour-to = Warm the flour to { $c } instead, or accept the cooler dough.
warm-flour = Warm flour and bowl, let a preferment come to the room, or accept the cooler dough.

## Pantry
letters-200 = Up to 200 letters.
bags-at-most = At most { $most } bags of one flour.
say-starter-wet = Say how wet the starter is, { $range } of its flour.
boxes-needed = { $balls } balls need { $need } of { $have } × { $name }
boxes-needed-why = { $n } lie in one with room to spread; stacked boxes follow their place slowly.
boxes-needed-todo = Ball later, or borrow boxes.
olive-oil = olive oil

## Styles
style-name-80 = A style has a name of up to 80 letters.
style-range = A range within { $low } to { $high }, the lower end first.
style-oven-range = A range within { $range }, the lower end first.

## Fitting a formula to an oven
fit-wood-dome = wood-fired dome
fit-gas-dome = gas dome
fit-portable = portable, gas or wood
fit-deck = electric deck
fit-home-stone = home, steel or stone
fit-home-tray = home, thin tray
fits-oven = { $style } fits an oven of { $c } as it is.
fits-with = For { $c }: { $n ->
    [one] { $n } change
   *[other] { $n } changes
 }.
fit-sugar = sugar { $share }
fit-sugar-why = A cool oven dries the crust before it browns; sugar brings the colour early.
fit-oil = oil { $share }
fit-oil-why = Oil keeps the crust supple through a bake of minutes.
fit-malt = active malt { $share }
fit-malt-why = Its enzymes make sugar during the rise: colour below { $c }.
fit-double = Double bake
fit-double-why = Sauce alone until the rim takes colour, out, cheese and herbs on, back for about 1.5 min: the cheese does not split.
fit-water = water { $share }
fit-water-why = A bake of minutes dries more than one of seconds.
fit-aged = Aged mozzarella for fresh
fit-aged-why = In minutes fresh cheese lets its water go and soaks the centre.
fit-basil = Basil after the bake
fit-basil-why = In a slow oven it turns black.
fit-no-sugar = No sugar
chars-above = Above { $c } it chars before the base is done.
fit-no-malt = No malt
fit-no-oil = No oil in the dough
fit-no-oil-why = In a bake of 90 s oil makes the crust crisp and dark instead of soft.
fit-one-bake = One bake
fit-one-bake-why = Under a dome cheese and rim are done together.

## The traditional rule sheet
rule-not-known = not known
rule-protein = Protein of the flour
rule-water = Water to pour
rule-dough = Dough off the mixer
rule-oil = Oil on top
rule-fine-wheat = fine soft wheat, 00 or 0
rule-fine-wheat-here = fine soft wheat
rule-also = also { $others }
rule-in-dough = In the dough
rule-only-four = flour, water, salt, yeast
rule-only-these = only these
rule-wood-fired = wood-fired, floor { $range }
rule-flour = Flour
rule-ball = Ball
rule-disc = Disc
rule-sauce = Sauce
rule-bake = Bake
rule-oven = Oven

## Toppings
cook-as-it-is = as it is
cook-raw-meat = raw meat
cook-hard-vegetable = hard vegetable
toppings-wet = { $weight } of wet toppings on a disc of { $width }
toppings-wet-why = A bake of { $time } dries off about { $carries }; more leaves the centre wet.
toppings-wet-todo = Take less, drain it, or put some on after the bake.
cook-first = Cook first: { $names }
cook-first-why = A bake of { $time } does not cook them through.
cook-first-todo = Meat to its safe core temperature; keep perishables at { $c } or below until they go on.

## Pasted recipes
paste-no-flour = No flour was found in this text; name it with its weight, such as 500 g flour.
paste-starter = { $weight } of starter is taken as ripe at { $share } water.
paste-three-preferments = More than three preferments were read; a dough here takes three.
paste-no-yeast = No yeast was found: it is solved for the hours instead.
paste-fridge-hours = { $time } in the fridge, as the text says; the other hours are this style's.
paste-hours = The hours are this style's, not the text's: set them on Rise.
paste-unweighed = Not in the formula, for want of a weight: { $things }. Weigh it and add it.
paste-no-water = No water was found in this text; name it with its weight, such as 325 g water.
paste-no-salt = No salt was found.
paste-rough = Weights from volumes, ranges and pinches are rough; they are marked.
paste-not-understood = Some lines were not understood; they are marked. Nothing of them is in the formula.
paste-percentages = The text speaks in percentages; the size is this style's usual one.
paste-strength = { $name }: the text does not say how strong; W { $w } is taken.
paste-too-long = A recipe has up to { $most } letters; this has { $letters }.
paste-empty = Paste a recipe: one ingredient a line, or running text.
weighs-from = It weighs honestly from { $n } pieces on.
weighs-from-or-preferment = It weighs honestly from { $n } pieces on; a poolish or a levain raises it without.
salt-little = { $share } salt is little
salt-much = { $share } salt is much
disc-thick = { $weight } on { $width } is thick for this style
disc-thin = { $weight } on { $width } is thin for this style
rule-oven-here = { $oven }, floor { $floor }
