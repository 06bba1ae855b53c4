## Fasi: che cosa fare (un titolo), e come (una o due frasi).
step-mix = pesa e impasta
step-mix-how = { $all }; { $handling }. Punta a { $aim }.
step-mix-how-plain = { $all }. Punta a { $aim }.
step-feed = rinfresca: { $name }
step-feed-how = { $all }; { $place }{ $keep }.{ $aim }
step-mix-preferment = prepara: { $name }
step-preferment-how = { $all }; { $place }.{ $aim }
step-preferment-cold = { $name } in frigo
step-rest = riposo
step-rest-how = { $time } coperto; misura l’impasto adesso.
step-fold = piega
step-fold-of = piega { $n } di { $of }
step-fold-how = Solleva e gira una volta tutto intorno, mani bagnate.
step-tub = nella vasca
step-tub-how = { $n ->
    [one] Una vasca di almeno { $litres }
   *[other] { $n } vasche di almeno { $litres } ciascuna
 }, coperchio, { $place }; { $grows }.
step-ball = staglio e formatura
step-ball-how = { $pieces }, { $goes }.
step-ball-again = riforma i panetti
step-ball-again-how = Con dolcezza, su un banco infarinato; { $goes }.
step-press = sgonfia
step-press-how = Premi fuori il gas e arrotonda; { $time } { $place }.
step-pan = nelle teglie
step-pan-how = Olia { $n ->
    [one] la teglia
   *[other] le teglie
 }: { $pieces }; stendi premendo, { $time } { $place }.
step-freeze = { $thing } in congelatore
step-freeze-how = Ben chiuso: una pelle secca si strappa quando si stende.
step-out-of-freezer = fuori dal congelatore
step-fridge = { $thing } in frigo
step-cold = { $thing } al freddo
step-out-of-fridge = fuori dal frigo
step-move = { $thing } in un altro luogo
step-move-how = { $time } { $place }.
step-lid-on = { $time } { $place }, con il coperchio.
step-lids-on = { $time } { $place }, con i coperchi.
step-light = accendi il forno
step-switch-on = accendi il forno
step-light-style-how = { $oven }, platea { $floor }; { $time } per caricare la platea.
step-light-how = { $oven }; { $time } per caricare la platea.
step-bake = cuoci
step-bake-trays = { $n ->
    [one] { $n } teglia
   *[other] { $n } teglie
 }, { $each }.{ $twice }
step-bake-rounds = { $n ->
    [one] { $n } tonda
   *[other] { $n } tonde
 }, { $each }.{ $twice }

## Le loro parti
aim-for = {" "}Punta a { $c }.
keep-back = ; tieni da parte { $weight }
so-much-of = { $weight } { $what }
the = { $name }
water-at = { $weight } d’acqua a { $c }
water-and-ice = { $weight } d’acqua a { $c } con { $ice } di ghiaccio
yeast-water = { $weight } dell’acqua col lievito
so-long-at = { $time } a { $c }
straight-into-fridge = subito in frigo a { $c }
at-degrees = a { $c }
at-place = a { $c }, { $name }
pieces-of = { $n } × { $weight }
pans-of = { $n } × { $pan } da { $weight }
pan-rectangle = { SHORT($length) } × { $width }
pan-round = { $diameter } tonda
boxed-into-freezer = in cassetta, chiuse, in congelatore
boxed-into-fridge = in cassetta, chiuse, in frigo { $place }
boxed-into-cold = in cassetta, chiuse, al freddo { $place }
boxed-in-room = in cassetta, chiuse, { $time } in stanza
boxed-elsewhere = in cassetta, chiuse, { $time } { $place }
hardly-grows = cresce appena
grows-to = cresce fino a { $times } volte
about-each = circa { $time } ciascuna
by-the-style-each = { $time } ciascuna secondo lo stile; pianifica il forno per il tuo
twice-by-the-clock = {" "}Prima solo la salsa; fuori a { $out }, formaggio, e di nuovo dentro per { $back }.
twice-by-the-eye = {" "}Prima solo la salsa; fuori quando il cornicione prende colore, formaggio, e di nuovo dentro.
flours-of = { $weight } di farina ({ $each })
the-tub = vasca
the-boxes = cassette

## Una fase come voce attraverso la cucina, con il nome dell'impasto
call-preferment = Avvia { $name }
call-preferment-cold = Metti in frigo il prefermento di { $name }
call-mix = Impasta { $name }
call-rest = Lascia riposare { $name }
call-fold = Piega { $name }
call-bulk = Metti { $name } nella vasca
call-ball = Forma { $name }
call-reball = Riforma { $name }
call-degas = Sgonfia { $name }
call-cold = Metti { $name } al freddo
call-freeze = Congela { $name }
call-thaw = Tira { $name } fuori dal congelatore
call-move = Sposta { $name }
call-pan = Stendi { $name } nelle teglie
call-light-oven = Accendi il forno per { $name }
call-temper = Tira { $name } fuori dal frigo
call-bake = Cuoci { $name }
