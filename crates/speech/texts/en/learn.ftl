# Learning: what a maker saw, and what a log says.
departs-too-far = No kitchen departs from the book by so much.
f-reading-against-the-plan = A reading against the plan
f-week = The week
f-deviation = How well it is foretold
log-500 = At most 500 batches can be learned from at once.
spread-by-log-met = From { $n ->
    [one] one bake
   *[other] { $n } bakes
} of this kitchen; four times of five it lies in between. Ready and not past when it is served: { $met }.
spread-by-log-book-from = From { $n ->
    [one] one bake
   *[other] { $n } bakes
} of this kitchen; four times of five it lies in between. Ready and not past when it is served: { $met }. By the book this dough is ready from { $from }.
spread-by-log-book = From { $n ->
    [one] one bake
   *[other] { $n } bakes
} of this kitchen; four times of five it lies in between. Ready and not past when it is served: { $met }. By the book this dough is ready from { $from } to { $to }.

stood-much-under = much under
stood-under = a little under
stood-right = right
stood-over = a little over
stood-much-over = much over

notice-tight = springs back
notice-slack = slack
notice-sticky = sticky
notice-sour = sour
notice-torn = torn
notice-pale-below = pale below
notice-dark-below = dark below
notice-pale-above = pale above
notice-dark-above = dark above
notice-wet-centre = wet centre
notice-flat-rim = flat rim
notice-blisters = black blisters

not-mixed-yet = This dough is not mixed yet: there is nothing to say of it.
noticed-already = “{ $what }” was noticed already.
notice-excluded = “{ $what }” and “{ $other }” cannot both be: take the other back first.

## What a log says of a kitchen.
taught-fridge-warm = Your fridge seems to stand { $k } warmer than you plan, ± { $sd }.
taught-fridge-cold = Your fridge seems to stand { $k } colder than you plan, ± { $sd }.
taught-room-warm = Your room seems to be { $k } warmer than you plan, ± { $sd }.
taught-room-cold = Your room seems to be { $k } colder than you plan, ± { $sd }.
taught-dough-warm = Your doughs seem to leave the mixer { $k } warmer than planned, ± { $sd }.
taught-dough-cold = Your doughs seem to leave the mixer { $k } colder than planned, ± { $sd }.
taught-yeast-lively = Your yeast seems { $by } livelier than the book’s, ± { $off }.
taught-yeast-slow = Your yeast seems { $by } slower than the book’s, ± { $off }.
taught-leaven-lively = Your starter seems { $by } livelier than the book’s, ± { $off }.
taught-leaven-slow = Your starter seems { $by } slower than the book’s, ± { $off }.
taught-cold-fast = Cold doughs seem to run { $by } faster here, ± { $off }.
taught-cold-slow = Cold doughs seem to run { $by } slower here, ± { $off }.
taught-long-fast = Long doughs seem to gather { $by } more speed here, ± { $off }.
taught-long-slow = Long doughs seem to gather { $by } less speed here, ± { $off }.
taught-flour-strong = Your flour seems to last { $by } longer than its W says, ± { $off }.
taught-flour-weak = Your flour seems to last { $by } less long than its W says, ± { $off }.
taught-relaxes-late = Your balls seem to need { $by } longer to relax, ± { $off }.
taught-relaxes-soon = Your balls seem to relax { $by } sooner, ± { $off }.
taught-ready-sooner = You call a dough ready a little sooner: near { $n } where the book says 100, ± { $off }.
taught-ready-later = You call a dough ready a little later: near { $n } where the book says 100, ± { $off }.
taught-path-ahead = Doughs of this kind run { $by } ahead of the book here, ± { $off }.
taught-path-behind = Doughs of this kind lag { $by } behind the book here, ± { $off }.
taught-fridge-thermometer = The fridge’s thermometer seems off by { $k }.
taught-room-thermometer = The room’s thermometer seems off by { $k }.
taught-probe = The probe seems off by { $k }.

chance-nearly-always = nearly always
chance-nine-in-ten = nine times in ten
chance-four-in-five = four times in five
chance-two-in-three = two times in three
chance-one-in-two = about one time in two
chance-one-in-three = one time in three
chance-one-in-five = one time in five
chance-one-in-ten = one time in ten
chance-hardly-ever = hardly ever

## Causes, as they fit.
cause-fridge-warm = a fridge { $k } warmer than planned
cause-fridge-cold = a fridge { $k } colder than planned
cause-room-warm = a room { $k } warmer than planned
cause-room-cold = a room { $k } colder than planned
cause-yeast-much = { $by } more yeast
cause-yeast-little = { $by } less yeast, or a tired tin
cause-leaven-strong = a starter { $by } livelier
cause-leaven-weak = a starter { $by } weaker
cause-dough-warm = a dough { $k } warmer off the mixer
cause-dough-cold = a dough { $k } colder off the mixer
cause-flour-weak = a flour weaker than its W
cause-flour-strong = a flour stronger than its W
cause-balled-late = balls made late, or tight
cause-late = opened { $time } late
cause-early = opened { $time } early
cause-stages-longer = stages { $time } longer than planned
cause-stages-shorter = stages { $time } shorter than planned
cause-dose-more = { $by } more yeast weighed than planned
cause-dose-less = { $by } less yeast weighed than planned
cause-floor-cold = a floor { $k } colder than set
cause-floor-hot = a floor { $k } hotter than set
cause-top-cold = { $k } less from above
cause-top-hot = { $k } more from above
cause-thin-tray = a thin tray in place of the floor
cause-topping-much = { $by } more topping
cause-sugar-little = sugar left out
cause-sugar-much = too much sugar
cause-short = out { $by } sooner than noted
cause-long = out { $by } later than noted
cause-thick = a smaller, thicker disc
cause-thin = a larger, thinner disc
cause-spent = sugars spent in the dough
cause-ordinary = ordinary scatter
share-nearly-all = nearly all of it
share-most = most of it
share-half = about half
share-third = about one in three
share-fourth = about one in four
share-fifth = about one in five
share-seventh = about one in seven
share-tenth = one in ten, or less
group-ahead = it ran ahead: warmer or livelier than planned
group-behind = it lagged behind: colder or weaker than planned
group-gluten = its gluten was spent early
group-strong = it was too strong, or had not relaxed
group-below-less = too little heat from below
group-below-more = too much heat from below
group-above-less = too little heat from above
group-above-more = too much heat from above
group-wet = too much water for the time
group-pale = it browned too little
group-dark = it browned too much
group-thin = it lay too thin
look-fridge = A thermometer in a glass of water in the fridge, middle shelf, two hours.
look-room = A thermometer beside the box.
look-yeast = The scale, and the date of the tin.
look-jar = How long the jar takes to double.
look-dough = A probe in the dough when it leaves the mixer.
look-flour = The W on the bag.
look-hour = Tap when it is opened.
look-floor = Read the floor as each one goes in.
look-top = The heat above, with the thermometer where the pizza stands.
look-topping = Weigh the toppings of one.
look-seconds = Tap In and Out of each.
look-disc = Measure a disc across.
look-sugar = The sugar in the formula, against the bag.
fits-yes = fits
fits-partly = partly
fits-not = not
