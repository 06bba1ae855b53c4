## People: roles, names, passwords, what was given away.
role-owner = owner
role-planner = planner
role-cook = cook
role-looker = looker
role-device = tablet
role-crew-taps = crew, taps
role-crew-looks = crew, looks on
role-program-reports = thermometer or scale
role-program-looks = program, looks on
role-program-taps = program, enters

right-own = everything, people too
right-plan = plans, formulas, pantry, and taps
right-tap = steps, readings and taps at the oven
right-look = sees everything, changes nothing
right-report = readings and weights; sees nothing

name-unreadable = A name has letters that can be read.
password-short = A password has { $least } letters or more; this one has { $letters }.
password-long = A password has at most { $most } letters.
password-common = This is one of the passwords that are tried first. Several words that do not belong together are good.
