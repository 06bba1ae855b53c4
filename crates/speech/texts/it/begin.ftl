## Il primo avvio: che cosa sta sullo scaffale finché qualcuno non mette il suo.
generic-soft = Farina di grano tenero, W 200
generic-medium = Farina per pizza, W 270
generic-strong = Farina forte, W 340
generic-whole = Farina integrale di grano
generic-semolina = Semola rimacinata
good-salt = Sale
good-oil = Olio d’oliva
good-sugar = Zucchero
good-tomatoes = Pomodori pelati
good-mozzarella = Mozzarella
good-hard-cheese = Formaggio stagionato, grattugiato
good-basil = Basilico
good-ham = Prosciutto cotto
no-pieces-to-begin-with = Questo stile non dice nulla dei suoi pezzi; scegline un altro.
