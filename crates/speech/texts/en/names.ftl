names-this-language = English
names-weekdays = Monday Tuesday Wednesday Thursday Friday Saturday Sunday
names-weekdays-short = Mon Tue Wed Thu Fri Sat Sun
names-months = January February March April May June July August September October November December
names-months-short = Jan Feb Mar Apr May Jun Jul Aug Sep Oct Nov Dec
names-per-kg = per kg
names-per-lb = per lb
