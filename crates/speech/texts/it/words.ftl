## Things that go into a dough
flour = flour
water = water
salt = salt
oil = oil
sugar = sugar
what-else = of what else goes in
ripe-seed = ripe seed
yeast-fresh = fresh yeast
yeast-active-dry = active dry yeast
yeast-instant = instant yeast
yeast-fresh-handling = crumble the yeast into the water
yeast-active-dry-handling = wet the yeast in a little water of { $c } first
yeast-instant-handling = the yeast may go in dry with the flour
poolish = poolish
biga = biga
levain = levain
old-dough = old dough
preferment = preferment
honey = honey
syrup = syrup
malt-active = active malt
malt-plain = plain malt
milk-powder = milk powder
milk = milk
butter = butter
fat = lard or fat
seeds = seeds
dried-mother = dried mother
other-ingredient = other

## Stages of a dough
leg-frozen = frozen
leg-cold-bulk = cold bulk
leg-cold = cold
leg-bulk = bulk
leg-balls = balls
leg-pans = in pans
dough = dough
starter = starter
flour-wholemeal = wholemeal
flour-semolina = semolina
flour-spelt = spelt
flour-rye = rye

## How a size is said
mode-balls = balls
mode-discs = discs
mode-pans = pans
mode-total = total
mode-flour = flour
path-hours-frozen = { $time } frozen
path-hours-cold = { $time } cold
so-long-leg = { $time } { $leg }
