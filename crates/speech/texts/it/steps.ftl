## Steps: what to do (a heading), and how (one or two sentences).
step-mix = weigh and mix
step-mix-how = { $all }; { $handling }. Aim for { $aim }.
step-mix-how-plain = { $all }. Aim for { $aim }.
step-feed = feed the { $name }
step-feed-how = { $all }; { $place }{ $keep }.{ $aim }
step-mix-preferment = mix the { $name }
step-preferment-how = { $all }; { $place }.{ $aim }
step-preferment-cold = { $name } into the fridge
step-rest = rest
step-rest-how = { $time } covered; measure the dough now.
step-fold = fold
step-fold-of = fold { $n } of { $of }
step-fold-how = Lift and turn once round, wet hands.
step-tub = into the tub
step-tub-how = { $n ->
    [one] A tub of at least { $litres }
   *[other] { $n } tubs of at least { $litres } each
 }, lid on, { $place }; { $grows }.
step-ball = divide and ball
step-ball-how = { $pieces }, { $goes }.
step-ball-again = ball again
step-ball-again-how = Gently, on a floured bench; { $goes }.
step-press = press down
step-press-how = Press the gas out and round it up; { $time } { $place }.
step-pan = into the trays
step-pan-how = Oil the { $n ->
    [one] tray
   *[other] trays
 }: { $pieces }; press out, { $time } { $place }.
step-freeze = { $thing } into the freezer
step-freeze-how = Well closed: a dry skin tears when it is opened.
step-out-of-freezer = out of the freezer
step-fridge = { $thing } into the fridge
step-cold = { $thing } into the cold
step-out-of-fridge = out of the fridge
step-move = { $thing } to another place
step-move-how = { $time } { $place }.
step-lid-on = { $time } { $place }, lid on.
step-lids-on = { $time } { $place }, lids on.
step-light = light the oven
step-switch-on = switch the oven on
step-light-style-how = { $oven }, floor { $floor }; { $time } to charge the floor.
step-light-how = { $oven }; { $time } to charge the floor.
step-bake = bake
step-bake-trays = { $n ->
    [one] { $n } tray
   *[other] { $n } trays
 }, { $each }.{ $twice }
step-bake-rounds = { $n ->
    [one] { $n } round
   *[other] { $n } rounds
 }, { $each }.{ $twice }

## Parts of them
aim-for = {" "}Aim for { $c }.
keep-back = ; keep { $weight } back
so-much-of = { $weight } { $what }
the = the { $name }
water-at = { $weight } water at { $c }
water-and-ice = { $weight } water at { $c } with { $ice } of ice
yeast-water = { $weight } of the yeast water
so-long-at = { $time } at { $c }
straight-into-fridge = straight into the fridge at { $c }
at-degrees = at { $c }
at-place = at { $c }, { $name }
pieces-of = { $n } × { $weight }
pans-of = { $n } × { $pan } of { $weight }
pan-rectangle = { SHORT($length) } × { $width }
pan-round = { $diameter } round
boxed-into-freezer = boxed, lids on, into the freezer
boxed-into-fridge = boxed, lids on, into the fridge { $place }
boxed-into-cold = boxed, lids on, into the cold { $place }
boxed-in-room = boxed, lids on, { $time } in the room
boxed-elsewhere = boxed, lids on, { $time } { $place }
hardly-grows = it hardly grows
grows-to = it grows to { $times } times
about-each = about { $time } each
by-the-style-each = { $time } each by the style; plan the fire for your oven
twice-by-the-clock = {" "}Sauce alone first; out at { $out }, cheese on, back for { $back }.
twice-by-the-eye = {" "}Sauce alone first; out when the rim takes colour, cheese on, and back.
flours-of = { $weight } flour ({ $each })
the-tub = tub
the-boxes = boxes

## A step as a call across the kitchen, by the name of the batch
call-preferment = Start { $name }
call-preferment-cold = Put the preferment of { $name } into the fridge
call-mix = Mix { $name }
call-rest = Rest { $name }
call-fold = Fold { $name }
call-bulk = Put { $name } into the tub
call-ball = Ball { $name }
call-reball = Ball { $name } again
call-degas = Press { $name } down
call-cold = Put { $name } into the cold
call-freeze = Freeze { $name }
call-thaw = Take { $name } out of the freezer
call-move = Move { $name }
call-pan = Press { $name } into the trays
call-light-oven = Light the oven for { $name }
call-temper = Take { $name } out of the fridge
call-bake = Bake { $name }
