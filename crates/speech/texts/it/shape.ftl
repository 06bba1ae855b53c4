## Places and signs.
spot-room = room
spot-fridge = fridge
spot-freezer = freezer
press-springs = springs back
press-holds = holds
press-flows = flows
f-box-height = Height of the box

## The log of the scale and the boxes.
shapelog-whole = whole dough on the scale: { $g }
shapelog-divided = divided into { $n } of { $g }
shapelog-boxed = into boxes: { $name }
shapelog-piece = a piece of { $g }
shapelog-piece-unweighed = a piece, not weighed
shapelog-pressed = a ball of box { $n } { $sign }
shapelog-moved = box { $n } to: { $place }
shapelog-stacked = box { $n } stands in a stack
shapelog-unstacked = box { $n } stands alone
shapelog-tray = tray { $n } { $did }
tray-oiled = oiled
tray-stretched = stretched as far as it goes
tray-corners = reaches the corners
shapelog-skin = box { $n } has a skin
shapelog-reballed = box { $n } balled again

## Why a tap is not kept.
shapetap-all-made = { $n ->
    [one] The only piece is made.
   *[other] All { $n } pieces are made. One more? Say so under pieces first.
}
shapetap-more-than-the-whole = The pieces would weigh more than the whole: { $left } are left.
shapetap-fewer-than-made = { $n ->
    [one] One piece is made already.
   *[other] { $n } pieces are made already.
}
shapetap-no-such-box = There is no box { $n }.
shapetap-empty-box = Box { $n } is still empty.
shapetap-frozen = Box { $n } is frozen: it is thawed first, and then it is another dough.
shapetap-in-their-boxes = Balls lie in these boxes already. Take them back first, or go on.
shapetap-at-the-corners = The dough of tray { $n } is in its corners already.
shapetap-no-trays = These balls lie in boxes: there is no tray to stretch in.
shapetap-there-already = Box { $n } is there already.

## What is proposed for a dough that is lighter or heavier than planned.
divide-spread = Make all of them a little smaller or larger.
divide-one-smaller = Keep the weight, the last one is smaller.
divide-spread-fewer = Make fewer, with all of it.
divide-keep-and-bread = Keep the weight; the rest is bread, sticks or a tester.
divide-one-more = There is one more in it.
divide-one-smaller-more = There is one more in it, a smaller one.

## How a ball opens.
open-reball = ball it again gently, or put it into a tray
open-wait = wait
open-press-only = press only, top at once, launch
open-press-rest = press, rest 5 min, press again
open-press-lift = press, then lift it over the hands once
open-table = stretch it on the table
open-knuckles = press, then knuckles
open-to = { $how }, to { $wide }. { $flour } flour.
open-tray-now = Oiled fingers: dimple it out to the corners.
open-tray-wait = Oiled fingers: dimple it as far as it goes, lid on, rest { $time }, go on to the corners.
flour-relaxes-slower = This flour relaxes { $share } slower than its strength says
flour-relaxes-faster = This flour relaxes { $share } faster than its strength says
flour-relaxes-so = This flour relaxes as its strength says
flour-lasts-longer = and its gluten lasts { $share } longer
flour-lasts-shorter = and its gluten lasts { $share } less long

## Judgements of a dough that is divided.
shape-short = The dough is { $percent } short: all of them would come to { $ball }
shape-short-why = Two percent of a ball nobody sees, more is seen if only some have it.
shape-loss-high = { $percent } stayed on bowl and hands
shape-loss-high-why = Usually it is { $usual }.
shape-loss-high-todo = Scrape bowl and hook. Was everything weighed?
shape-uneven = { $n } pieces are off
shape-uneven-why = Balls { $balls } differ by more than one sees on a plate.
shape-uneven-todo = Cut from the seam, or add one piece there; weigh it anew.
piece-a-slip = { $g } for a piece of { $ball }: was it { $meant }?
piece-unlike = { $g } is no piece of { $ball }.
shape-nothing-left = Nothing is left for the last { $n }
shape-nothing-left-why = The pieces weigh all of it already.
shape-nothing-left-todo = Divide it into fewer, or take back a weight that was mistyped.
shape-several-why = { $all }
shape-so-are = { $n ->
    [one] So it is with box { $boxes }.
   *[other] So it is with boxes { $boxes }.
}
shape-box-past = Box { $n } is past before its turn
shape-box-past-why = It closes at { $at }, its first ball is used at { $used }.
shape-box-past-todo = Into the cold now, or use it first; balled again it takes hours.
shape-last-ones = The last ones come to { $g }
shape-last-ones-why = Wanted were { $ball }; those before took more or less.
shape-last-ones-todo = Watch the next ones; a smaller last one is a tester.
shape-does-not-sum = { $g } are unaccounted for
shape-does-not-sum-why = A piece was not weighed, or the scale drifted.
shape-too-warm = The dough is { $c }: cool it before balling
shape-too-wet = A wet dough for this flour: ball it cold
shape-ball-it-cold-why = Cold balls hold their shape and take less flour.
shape-ball-it-cold-todo = 30 to 60 min in the fridge first.
shape-crowded = Ripe balls of { $wide } will touch
shape-crowded-why = From middle to middle there are { $pitch }.
shape-crowded-todo = Fewer in a box, or cut them apart with a wet scraper.
shape-low = Ripe balls stand { $high } high and meet the lid
shape-low-why = The box is { $inside } high inside.
shape-low-todo = A higher box, or fewer hours.
shape-box-late = Box { $n } stands at { $rise } only
shape-box-late-why = It is used at { $at }, and even out now it does not get there.
shape-box-late-todo = Out now, to a warmer place, or use it last.
shape-box-early = Box { $n } is ripe before it is warm: { $rise } at its use
shape-box-early-why = It is used at { $at }.
shape-box-warm = Box { $n } in the room is past ready by its turn: { $rise } at its use
shape-box-warm-why = It is used at { $at }.
shape-box-warm-todo = Back into the cold now, out again at { $at }.
shape-box-early-todo = Use it sooner, or leave it in the cold until an hour before.
shape-reball-late = Box { $n } opens from { $at } only
shape-reball-late-why = It was balled again and is used at { $at }.
shape-reball-late-todo = Do not ball again now: press only, and smaller.
shape-reball-twice = Box { $n } was balled again more than once
shape-reball-twice-why = Each time the gluten has less left, and the crumb gets denser.
shape-reball-twice-todo = Not again: press only, or into a tray.
shape-tight = Box { $n } is still tight at { $at }
shape-tight-why = It opens from { $at }.
shape-tight-never-why = It does not relax within twelve hours where it lies.
shape-tight-todo = Let it rest until then; else press only, and smaller by a tenth.
shape-flows = Box { $n } flows
shape-flows-seen = So the finger says.
shape-flows-likely = Its gluten is nearly spent.
shape-flows-todo = Press only, a little smaller, launch at once; use this box first.
shape-skin = Box { $n } has a skin
shape-skin-why = Air reached it.
shape-skin-todo = Lid or film, a film of oil; press with the skin downward.
shape-cold-ball = Box { $n } is at { $c }
shape-cold-ball-why = Below { $c } a ball is stiff and blisters.
shape-cold-ball-todo = { $time } more in the room.
shape-cold-ball-todo-elsewhere = A warmer place: this one is too cold for it.
shape-apart = The boxes are apart: { $low } to { $high } at their use
shape-apart-why = They lay in different places or for different times.
shape-apart-todo = Unstack them, swap inner and outer ones, take them out one after the other.


## Shape: what is refused.
f-piece = Piece
f-box-volume = Growth of a ball
f-box-gap = Gap between balls
f-box-side = Side of the box
f-dough-in-the-bowl = Dough put into the bowl
f-dough-weighed = Dough on the scale
f-pieces-divided = Pieces
f-scale-step = Step of the scale
box-no-ball-fits = No ball of { $ball } fits { $length } × { $width } with { $gap } between.
divide-more-than-went-in = Weighed more than 105 % of what went in: was the tub on the scale?
divide-is-this-all = Is this all of it? More than a third is missing.
divide-less-than-a-ball = That is less than one ball.

## Hazards at the divider.
hazard-scraper = A scraper is sharp: cut away from the hand that holds the dough.
hazard-heavy-boxes = The boxes weigh { $kg } together: carry them in two goes, or lift as two.
