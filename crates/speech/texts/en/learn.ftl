# Learning: what a maker saw, and what a log says.
departs-too-far = No kitchen departs from the book by so much.
f-reading-against-the-plan = A reading against the plan
f-week = The week
f-deviation = How well it is foretold
log-500 = At most 500 batches can be learned from at once.
spread-by-log = From { $n ->
    [one] one bake
   *[other] { $n } bakes
} of this kitchen; four times of five it lies in between.

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
