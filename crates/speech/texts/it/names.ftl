names-this-language = Italiano
names-weekdays = lunedì martedì mercoledì giovedì venerdì sabato domenica
names-weekdays-short = lun mar mer gio ven sab dom
names-months = gennaio febbraio marzo aprile maggio giugno luglio agosto settembre ottobre novembre dicembre
names-months-short = gen feb mar apr mag giu lug ago set ott nov dic
names-per-kg = al kg
names-per-lb = alla lb
