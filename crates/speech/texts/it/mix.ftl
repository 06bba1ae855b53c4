# Impasto: programmi, con le loro fasi e i loro segni.

mixway-by-hand = A mano
mixway-preferment = Mescolato a mano
mixway-coil-folds-half-an-hour-apart = Pieghe in vasca, ogni mezz’ora
mixway-food-processor = Robot da cucina
mixway-fork-mixer = Impastatrice a forcella
mixway-four-rounds-of-folds-five-minutes = Quattro giri di pieghe, ogni cinque minuti
mixway-no-kneading = Senza impastare
mixway-slap-and-fold = Sbatti e piega
mixway-spiral-all-at-once = Spirale, tutto insieme
mixway-spiral-ripe-biga-with-staged-water = Spirale, biga matura con acqua a riprese
mixway-spiral-water-in-six-parts = Spirale, acqua in sei riprese
mixway-stand-mixer-a-quarter-of-the = Planetaria, un quarto della farina dopo
mixway-stand-mixer-all-at-once = Planetaria, tutto insieme

mixstep-biga-in-pieces-and-half-of = Biga a pezzi e metà dell’acqua finale
mixstep-coil-fold-round = Piega in vasca, giro { $n }
mixstep-cover-and-leave = Copri e lascia
mixstep-flour-and-most-of-the-water = Farina e quasi tutta l’acqua, lenta
mixstep-flour-and-water-slow = Farina e acqua, lenta
mixstep-flour-yeast-water-run = Farina, lievito, acqua, avvia
mixstep-folds-round = Pieghe, giro { $n }
mixstep-hook = Gancio
mixstep-knead = Impasta
mixstep-medium = Media
mixstep-one-round-of-folds = Un giro di pieghe
mixstep-paddle-three-quarters-of-the-flour = Foglia: tre quarti della farina
mixstep-rest-covered = Riposo, coperto
mixstep-rest-in-the-bowl = Riposo nella vasca
mixstep-salt-and-the-rest-of-the = Sale e il resto dell’acqua, lenta
mixstep-salt-knead = Sale, impasta
mixstep-salt-run = Sale, avvia
mixstep-salt-slap-and-fold = Sale; sbatti e piega
mixstep-salt-slow = Sale, lenta
mixstep-salt-work-in = Sale, fallo entrare
mixstep-slap-and-fold = Sbatti e piega
mixstep-stand-in-the-bowl = Sosta nella vasca
mixstep-stir-everything = Mescola tutto
mixstep-stir-flour-and-water = Mescola farina e acqua
mixstep-stir-together = Mescola insieme
mixstep-take-the-temperature = Prendi la temperatura
mixstep-the-other-quarter-of-the-flour = L’altro quarto della farina, a cucchiai
mixstep-the-rest-of-the-flour-over = Il resto della farina in dieci minuti, con il lievito
mixstep-three-short-turns = Tre giri brevi
mixstep-water-part = Acqua, ripresa { $part } di { $of }
mixstep-water-salt-a-tenth-of-the = Acqua, sale, un decimo della farina
mixstep-work = Lavora
mixstep-preferment = Mescola tutto insieme

mixcue-a-ball-rides-on-the-blade = una palla gira sulla lama
mixcue-a-poke-springs-back-slowly = il dito torna su piano
mixcue-batter-has-thickened = la pastella si è addensata
mixcue-bowl-wall-clean-gathered-round-the = parete pulita, raccolto intorno al gancio
mixcue-bubbles-all-over-at-least-doubled = bolle ovunque; almeno raddoppiato
mixcue-dough-has-gathered = l’impasto si è raccolto
mixcue-gathered-again-only-then-the-next = di nuovo raccolto; solo allora la prossima
mixcue-holds-together = sta insieme
mixcue-keeps-its-edges = tiene i bordi
mixcue-leaves-the-bench-cleanly = si stacca pulito dal banco
mixcue-lid-on = coperchio
mixcue-lumps-gone-dough-has-gathered = niente grumi, l’impasto si è raccolto
mixcue-no-dry-flour-dough-forms = niente farina asciutta; si forma l’impasto
mixcue-no-dry-flour-left = niente più farina asciutta
mixcue-point-of-dough-smooth-dry-to = punto pasta: liscio, asciutto al tatto, elastico
mixcue-popping-windowpane = schiocca; velo
mixcue-salt-dissolved = sale sciolto
mixcue-salt-is-in = il sale è dentro
mixcue-salt-is-in-dough-gathers = il sale è dentro, l’impasto si raccoglie
mixcue-ragged = grumi irregolari, niente farina asciutta; appena mescolata
mixcue-no-lumps = niente più grumi
mixcue-satin = satinato; ferma a { $c }
mixcue-slacker = più morbido
mixcue-smooth = liscio
mixcue-smooth-a-poke-springs-back = liscio; il dito torna su
mixcue-smooth-batter = pastella liscia
mixcue-smooth-no-longer-sticks-to-the = liscio, non attacca più al banco
mixcue-smooth-skin-a-poke-springs-back = pelle liscia; il dito torna su
mixcue-smooth-skin-windowpane = pelle liscia; velo
mixcue-smooth-to-the-touch = liscio al tatto
mixcue-softer-when-you-come-back = più morbido quando torni
mixcue-spread-again = di nuovo disteso
mixcue-stop-centre = ferma; al centro dell’impasto, sonda dentro { $deep }
mixcue-strands-on-the-hook = fili sul gancio
mixcue-surface-has-slackened = la superficie si è allentata
mixcue-tight-smooth-mass = massa tesa e liscia
mixcue-tighter-than-the-round-before = più teso del giro prima
mixcue-wall-clean-gathered-round-the-hook = parete pulita, raccolto intorno al gancio; schiocca
mixcue-wall-comes-clean = la parete si pulisce
mixcue-water-is-taken-up = l’acqua è assorbita

## Che cosa si rifiuta.
f-bowl = Vasca
f-mixer-capacity = Capienza, impasto
mix-part-weight = Parte dell’impasto
mix-part-temperature = Parte dell’impasto
mix-steps-count = Un impastamento ha da 1 a { $most } fasi.
mix-most-machine = { $most } di lavoro a macchina sono il massimo.
mix-nothing-in-the-bowl = Niente nella vasca: da 50 g a 300 kg.
mix-two-of-one-name = Due parti si chiamano «{ $name }».
mix-work-without-flour = Una fase lavora, ma nella vasca non c’è farina.
mix-nothing-to-pour = Non resta acqua da versare.
mix-shares-add-up = Le quote di farina, acqua e sale fanno ognuna 1 in tutte le fasi.
mixer-figures-odd = Queste cifre di attrito non sono di nessuna impastatrice.

## Strumenti, ingressi, segni, guai.
mixin-wanted = Impasto voluto
mixin-flour = Farina
mixin-room = Stanza
mixin-bowl = Vasca
mixin-preferment = Prefermento
mixin-tap = Rubinetto
mixin-kettle = Bollitore
mixin-chilled = Acqua di frigo
mixin-water = Acqua, misurata
sign-wall-clean = parete pulita
sign-gathered = raccolto
sign-popping = schiocca
sign-smooth = liscio
sign-poke = il dito torna su
sign-window = velo
trouble-dry-flour = farina asciutta
trouble-tears = si strappa
trouble-climbs = sale sul gancio
trouble-wet-again = di nuovo bagnato e lucido
gluten-done = velo visto: fatto
gluten-begun = appena cominciato
gluten-a-third = un terzo della strada
gluten-half-way = circa a metà
gluten-most = quasi tutta la strada
gluten-look = cerca il velo
gluten-should-be-done = dovrebbe esserci: fidati dell’impasto

## Pericoli.
hazard-turning-bowl = Fermala prima di metterci una mano, una spatola o la sonda. Protezione chiusa, maniche e capelli lontani.
hazard-blade = Stacca la spina prima di metterci la mano; via la lama prima dell’impasto.
hazard-motor-heat = Odore di caldo: ferma, e lascia raffreddare il motore 10 min.
hazard-walks-off = Resta lì: un impasto duro la fa camminare.
hazard-splash = Versa piano lungo la parete, a bassa velocità.
hazard-flour-dust = Mettila a cucchiai, piano.
hazard-lifting = Oltre 25 kg: dividi prima di sollevare, o sollevate in due.
hazard-scald = Dal bollitore nell’acqua fredda, lontano da te.
hazard-wrists = Cambia mano, o riposa e piega.
hazard-raw-flour = L’impasto crudo non si assaggia.
hazard-crushed-ice = Solo ghiaccio tritato: un pezzo rompe ganci e lame.

## Tocchi rifiutati.
mixtap-not-begun = Una lettura vuole impasto nella vasca: inizia la prima fase.
mixtap-begun = È in corso: impastatrice e programma restano.
mixtap-ended = Questa carica è finita.
mixtap-on-already = La fase { $n } è già in corso, o passata.
mixtap-out-of-order = { $n ->
    [one] La fase prima non è ancora fatta.
   *[other] Le { $n } fasi prima non sono ancora fatte.
}
mixtap-before-the-last = È prima che cominciasse l’ultima fase.
mixtap-in-already = La ripresa { $n } dell’acqua è già dentro.
mixtap-no-such-part = Non c’è una ripresa { $n } dell’acqua.
mixtap-no-such-run = Non c’è una carica { $n } di questo impastamento.
mixtap-run-before = La carica { $n } non è ancora fuori dalla vasca.
mixtap-too-long = Una fase dura al massimo un giorno.

## Giudizi di una carica.
mix-dough-hot = L’impasto legge { $c }: ferma
mix-dough-hot-why = Si volevano { $wanted }; il glutine caldo si strappa, e tutto corre avanti.
mix-dough-hot-todo = Disteso in una teglia fredda per 15 min, poi rimisura. La lievitazione conta da ciò che leggi.
mix-ends-warm = Finisce a { $end }
mix-ends-warm-why = { $off } sopra i { $wanted } che vuoi.
mix-ends-cold = Finisce a { $end }
mix-ends-cold-why = { $off } sotto i { $wanted } che vuoi.
mix-remedies = { $all }
mix-last-water = L’acqua che manca a { $c }: finisce a { $end }.
mix-less-work = { $less } di lavoro in meno e { $rest } di riposo: finisce a { $end }.
mix-on-ice = La vasca sul ghiaccio per { $on_ice }: finisce a { $end }.
mix-shorter-bulk = O una puntata più corta e più fresca: Lievitazione dice quando è pronto.
mix-a-minute-more = Un minuto o due in più lo scaldano e fanno bene al glutine.
mix-warmer-place = Ora più lavoro non aiuta: un luogo più caldo, e Lievitazione dice le ore.
mix-last-water-cannot = Acqua a { $c } dà { $end } alla fine
mix-last-water-cannot-why = L’acqua tardiva è una leva debole: un suo grado muove l’impasto di { $per }.
mix-minutes-left = Ancora { $left }, poi { $c }
mix-minutes-left-why = Il lavoro lo scalda: oltre è un grado troppo caldo.
mix-minute-adds = Ogni minuto in più aggiunge { $k }
mix-minute-takes = Ogni minuto in più toglie { $k }
mix-minute-more-why = { $most } oltre il piano cadono ancora entro un grado.
mix-no-piece-fits = Questa impastatrice è troppo piccola per un pezzo da { $piece }
mix-no-piece-fits-todo = Impastalo a mano, o in una più grande.
mix-over-capacity = { $kg } sono più di quanto l’impastatrice regga
mix-over-capacity-why = Di un impasto così duro ne lavora { $bears } alla volta.
mix-over-capacity-todo = Impastalo in { $runs } cariche, divise in parti uguali.
mix-small-batch = La vasca è piena al { $share }
mix-small-batch-why = Con così poco impasto il gancio gira a vuoto, e quanto scalda è una stima.
mix-small-batch-todo = A mano, o con le pieghe.
mix-not-hydrated = La farina non è bagnata del tutto
mix-not-hydrated-why = La farina asciutta sotto il gancio resta asciutta: la bagna il riposo, non il lavoro.
mix-not-hydrated-todo = Riposo 15 – 20 min prima del sale; bagna la mano, non la vasca.
mix-forced = Fa resistenza
mix-forced-why = Un impasto che si strappa o sale è lavorato più in fretta di quanto segua.
mix-forced-todo = Riposo 10 – 20 min, mai forzarlo.
mix-poured-early = L’acqua è entrata prima che si raccogliesse
mix-poured-early-why = L’acqua su un impasto non raccolto gli impedisce di raccogliersi.
mix-poured-early-todo = Lenta finché si raccoglie; la prossima ripresa più piccola.
mix-wet-again = Di nuovo bagnato e lucido: ferma
mix-over-mixed = È stato lavorato a lungo
mix-over-mixed-why = Oltre un certo punto il lavoro disfa il glutine.
mix-over-minutes-why = { $most } di lavoro sono il massimo per questo modo di impastare.
mix-over-by-hand-todo = Riposo 15 min: il riposo fa più del lavoro.
mix-over-mixed-todo = Riposo 20 min, poi pieghe; usalo presto.
mix-no-window = Ancora nessun velo
mix-no-window-why = Dopo tanto lavoro dovrebbe esserci: farina debole, o troppa acqua.
mix-no-window-todo = Riposo 20 min, poi due giri di pieghe.
mix-reading-doubtful = Una lettura non torna
mix-reading-doubtful-why = È a più di { $off } dal suo andamento; si conserva e conta poco.
mix-reading-doubtful-todo = Rimisura: al centro dell’impasto, profondo { $deep }, macchina ferma.
mix-rises-in-the-bowl = I suoi riposi sono parte della lievitazione
mix-rises-in-the-bowl-why = Le ore del piano contano dalla fine della prima fase; le altre vanno avanti nella vasca.
mix-friction-guess = Quanto scalda questa impastatrice è una stima dal suo tipo
mix-friction-guess-why = Annota la temperatura due o tre volte, e il prossimo impasto è più sicuro.

## Il diario della vasca.
mixlog-chosen = impastato con: { $programme }
mixlog-measured = { $what } { $c }
mixlog-weighed = riga { $n } pesata
mixlog-not-weighed = riga { $n } non pesata, in fondo
mixlog-step = impastamento, fase { $n }
mixlog-more = altri { $more } per la fase { $n }
mixlog-poured = acqua, ripresa { $n }
mixlog-poured-at = acqua, ripresa { $n }, a { $c }
mixlog-read = impasto { $c } in impastatrice
mixlog-seen = visto in impastatrice: { $sign }
mixlog-dough = impasto in impastatrice

## Che cosa ha insegnato un'impastatrice.
speed-off = riposo
speed-slow = lenta
speed-medium = media
speed-fast = veloce
speed-hand = a mano
speed-fold = pieghe
mixer-adds = Questa impastatrice aggiunge { $k } ± { $sd } al minuto a velocità { $speed }
mixer-sure-guess = una stima dal suo tipo
mixer-sure-still-guess = { $n ->
    [one] ancora grossolana, da un impasto
   *[other] ancora grossolana, da { $n } impasti
}
mixer-sure-fair = { $n ->
    [one] discreta, da un impasto
   *[other] discreta, da { $n } impasti
}
mixer-sure-known = { $n ->
    [one] nota, da un impasto
   *[other] nota, da { $n } impasti
}
mixitem-water = acqua
mixitem-ice = ghiaccio
mixitem-yeast = lievito
mixitem-preferment = prefermento

# I programmi di una cucina.
stepwork-stir = mescola
stepwork-knead = impasta
stepwork-slap = sbatti e piega
mixcue-by-the-clock = a orologio
mixway-preferment-slow = Appena mescolato, lento
mixstep-preferment-slow = Tutto insieme, lento
programme-no-machine = Le mani non hanno velocità: mescola, impasta, sbatti o piega; o impastalo a macchina.
programme-no-hands = Una macchina impasta con le sue velocità; pieghe e riposi le vanno insieme.
programme-share = Una quota da 0 a 100 %.
programme-words = Fino a 120 lettere; qui ce ne sono { $letters }.
programme-no-work = Niente si lavora: almeno una fase mescola, impasta o gira.
programme-adds-up = In tutte le fasi viene { $percent }; 100 % è tutto.
