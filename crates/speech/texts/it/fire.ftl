## forno

## Avvertenze: che cosa può far male, detto dove vale
manual-decides = Decidono il manuale del tuo forno e le norme locali su fuoco, gas e alimenti.

## Che cosa brucia un fuoco
feed-light = accendi
feed-full-flame = fiamma piena
feed-low = bassa, di nuovo su per ogni pizza
feed-on-at = acceso a { $c }
feed-top-bottom = cielo { $top }, platea { $bottom }
feed-more = alimenta
feed-hold = mantieni

## Durante un servizio
pace-so-far = Al passo tenuto finora; la finestra si chiude { SHORT($closes) }.
last-out-by = L’ultima fuori entro le { SHORT($at) }
last-out-after-window = L’ultima fuori entro le { SHORT($at) }, dopo la finestra
not-ready-yet = Pronto da { $from }
not-ready-yet-why = Cotta prima, la mollica è serrata.
floor-cold = Platea { SHORT($c) }: il forno è freddo
floor-cold-why = Inforna a { SHORT($band) }. La sua accensione non è annotata.
floor-heating-ready = Platea { SHORT($c) }, si scalda ancora: pronta verso le { SHORT($at) }
floor-heating = Platea { SHORT($c) }, si scalda ancora
launch-read-at = Inforna a { SHORT($band) }; letta alle { SHORT($at) }.
forgotten = La pizza { $n } è entrata alle { SHORT($at) } e nessuno l’ha sfornata
forgotten-why = Non conta in nessuna cifra finché non è fuori.
floor-unread = Platea { SHORT($c) } alle { SHORT($at) }, da allora { $n } cotte sopra
floor-unread-why = Inforna a { SHORT($band) }: leggila prima della prossima.
floor-back = La platea dovrebbe essere tornata dalle { SHORT($at) }
floor-back-why = Leggeva { SHORT($c) } alle { SHORT($at) }. Inforna a { SHORT($band) }: rileggila.
floor-wait-moment = Platea { SHORT($c) }, aspetta un momento
floor-wait-to = Platea { SHORT($c) }, aspetta fino alle { SHORT($at) }
floor-short = Platea { SHORT($c) }, mancano { SHORT($by) }
floor-short-why = Inforna a { SHORT($band) }; così la base vorrebbe { $time }.
floor-over = Platea { SHORT($c) }, { SHORT($by) } di troppo
floor-over-why = Inforna a { SHORT($band) }: le basi corrono avanti al sopra.
floor-over-todo = Tira indietro la brace, abbassa o aspetta a bocca aperta.
floor-right = Platea { SHORT($c) }, giusta per infornare
nothing-mends = Prossima: qui niente la corregge
surety-guess = una stima, una pizza
surety-sure = sicuro
surety-likely = probabile
next-one = Prossima: { $what }
next-one-why = { $sure }. { $said } { $model }
next-or = O: { $what }.
time-as-planned = { $time } come previsto
time-instead-of = { $time } invece di { $planned }
longer-than-rest = più di quanto il resto possa aspettare

## Che cosa cambiare prima della prossima
act-wait-coals = aspetta due minuti, brace sulla platea
act-wait = aspetta la platea
act-rake-back = tira indietro la brace, lascia nuda la platea
act-cooler = platea o regolazione { SHORT($by) } in meno
act-coals = brace sulla platea finché legge { SHORT($by) } in più
act-hotter = platea o regolazione { SHORT($by) } in più, e lascia che entri
act-planned-time = dalle il tempo che era previsto
act-flame-up = alimenta, fiamma su
act-more-top = più calore da sopra
act-flame-down = fiamma giù
act-less-top = meno calore da sopra
act-turn-sooner = gira prima
act-shelf-up = un ripiano più su, più vicino al grill
act-shelf-down = un ripiano più giù
act-longer = lasciala dentro un decimo in più
act-sooner = fuori un decimo prima
act-less-topping = meno condimento
of-the-last = { $same } delle ultime { $of }: { $verdict }.
nothing-helps-next = { $said } Nessuno dei { $n } cambiamenti provati su questo forno com’è, da solo o in coppia, avvicina base e sopra al giusto: ognuno aiuta l’una e danneggia l’altro. Leggi la platea prima della prossima, o cuoci su un altro posto.
act-to-time = dalle { $time }, come previsto: l’ultima è uscita a { $was }
act-and = { $all }, e { $more }
model-expects = Il modello si aspetta base { $base }, sopra { $top }.
verdict = base { $base }, sopra { $top }
shade-pale = pallida
shade-right = giusta
shade-dark = scura
off-base-pale = base pallida
off-base-dark = base scura
off-top-pale = sopra pallido
off-top-dark = sopra scuro

## Forni e platee
floor-cordierite = pietra di cordierite
floor-terracotta = terracotta tenera
floor-stainless = acciaio inox
floor-cast-iron = ghisa
oven-wood-dome = cupola a legna
oven-gas-dome = cupola a gas
oven-portable = portatile, fiamma libera
oven-deck = elettrico a piani, cielo e platea separati
oven-stone-deck = a piani rivestito di pietra
oven-home = forno di casa
shelf-top = ripiano alto
shelf-middle = ripiano centrale
shelf-low = ripiano più basso
oven-name = Un nome da 1 a 80 lettere.
floor-above-most = La platea solita sta sopra ciò a cui il forno può arrivare.
no-grill = Questo forno non ha grill.
no-fan = Questo forno non ha ventola.

## La gara
dead-heat = parità perfetta, { $time }
near-level = quasi pari, { $time }
spread-of = scarto { $time }
too-much-from = { $item }: troppo da { $time }
ready-last = Pronta per ultima: { $item }
ready-last-then = { $last }; { $burns }.
ready-last-nothing = { $last }; niente si guasta finché è stato seguito.
and-longer = { $time } e oltre
bake-window = Tutto giusto da { $from } a { $to }
too-dark = troppo scura
not-set = non cotta
not-melted = non fuso
pale = pallida
wet = bagnata
dry = secca
never-right = A { $time } è il meglio che dà questo forno; { $item } non arriva mai al giusto.
right-too-early = È giusta a { $time } e di troppo prima che sia cotto il resto ({ $last }).
right-too-late = Vuole { $time }; il resto non può aspettare tanto.
no-bake-window = { $item } { $word } quando il resto è giusto
most-one-change = { $what }: il massimo che fa un solo cambiamento.
outside-checked-why = Il modello è stato verificato sotto; prendi i suoi secondi come guida di massima.
turn-already = Gira già a { $time }
turn-already-why = A quel punto il lato verso il fuoco è vicino al limite; per la sola uniformità si aspetterebbe di più.
spots-many = Molte macchie di leopardo
spots-some = Qualche macchia di leopardo
spots-few = Quasi nessuna macchia di leopardo
spots-why = Forte calore da sopra nel primo minuto, su un impasto fermentato al freddo, brucia le bolle sottili. Una tendenza, non un conto.
uneven-rim = Un lato del cornicione esce più scuro
uneven-rim-why = Uniformità { $evenness } di 100 con questi giri.

## L'accensione
of-readings = Secondo { $n ->
    [one] { $n } lettura
   *[other] { $n } letture
 }, il forno si scalda a { $pace } del passo da manuale.
never-charged-feed = Alimenta di più e rileggi, o inforna su una platea più fresca.
never-charged-hotter = Regolalo più caldo, o inforna su una platea più fresca.
never-charged = Questa platea non ci arriva entro 4 h
never-charged-why = Così il suo cuore arriva allora a { SHORT($c) }.{ $more }
charged-late = Pronto alle { SHORT($at) }, { $time } dopo l’ora di servizio
charged-late-why = Devono essere carichi faccia e cuore.{ $more }
charged-late-todo = Alimenta di più adesso, o servi più tardi.
charged-in-time = Pronto alle { SHORT($at) }
charged-in-time-why = Faccia e cuore carichi.{ $more }
short-preheat = { $time } lasciano il cuore a { SHORT($c) }
short-preheat-why = La faccia è allora a { SHORT($c) }; carico è { $time } più tardi. La gara si corre su quella platea.
light-now-why = Ogni minuto da qui sposta l’ora di servizio: finora { $time }.
face-ahead = Lascia pareggiare la faccia prima della prima: inforna a { SHORT($band) }
face-ahead-why = Quando il cuore è carico la faccia è a { SHORT($c) }, { SHORT($by) } di troppo.
face-ahead-todo = Sposta il fuoco una decina di minuti prima, poi leggi cinque punti.
floor-ahead = La platea è avanti di { SHORT($by) }
read-at-launch-at = Letti { SHORT($c) } alle { SHORT($at) }; inforna a { SHORT($band) }.
floor-ahead-todo = Tira indietro o abbassa, e rileggi fra cinque minuti.
floor-behind = Alla platea mancano { SHORT($by) }
core-behind = Il cuore è solo a { SHORT($c) } all’ora di servizio
core-behind-why = Le prime pizze prendono più di quanto la platea possa ridare.
launch-test = Leggi cinque punti, il centro e quattro angoli: tutti in { SHORT($band) }, distanti al massimo { SHORT($by) }.
switch-on-at = Accendilo alle { SHORT($at) } per una platea carica.
light-at = Accendilo alle { SHORT($at) } per una platea carica.
switch-on-now = Accendilo adesso: era per le { SHORT($at) }
light-now = Accendilo adesso: era per le { SHORT($at) }
also = {" "}{ $what }

## Un piano e i suoi giri
no-such-turning = Non c’è un modo così di girare.
turns-in-order = I giri vengono uno dopo l’altro, dal primo secondo in poi.
bake-too-short = La cottura è troppo breve per seguirla.
plan-why-set = { $oven }: platea { $floor }, regolato a { $dome }, { $ball } su { $disc }. I tempi valgono a circa un quinto.
plan-why-dome = { $oven }: platea { $floor }, cielo { $dome }, { $ball } su { $disc }. I tempi valgono a circa un quinto.
cue-back = in fondo al forno
cue-cheese = fuori, formaggio, di nuovo dentro
cue-under-flame = vicino sotto la fiamma
cue-quarter = un quarto di giro
cue-half = mezzo giro
cue-onto-steel = fuori dalla teglia, sull’acciaio nudo
turns-before-out = I giri vengono uno dopo l’altro, prima di Sforna.
bake-20s-2h = Una cottura finisce fra 20 s e 2 h, e brucia dopo.
f-base-colour = Il colore della base
f-rim-colour = Il colore del cornicione
f-topping-loss = Quanto può asciugare il condimento
f-the-hour = L’ora
readings-at-most = Al massimo { $most } letture.

## Che cosa farebbe un solo cambiamento
change-grill = grill acceso, ripiano alto
change-fan = ventola accesa
change-below = resistenza sotto accesa, ripiano più basso
change-floor = cuoci su { $mm } di { $floor }
change-steel-and-grill = { $mm } di acciaio, grill acceso, ripiano alto
change-setting = forno { $by }
change-floor-by = platea { $by }
change-dome = cielo { $by }
change-sugar = { $share } di zucchero in più nell’impasto
change-malt = { $share } di malto attivo in più nell’impasto
change-oil = { $share } d’olio in più nell’impasto
change-sauce = un terzo di salsa in meno
change-ball = panetti più piccoli del 15 %
change-cheese = formaggio solo per gli ultimi 90 s
cooler-by = { $by } in meno
hotter-by = { $by } in più

## Il servizio
own-tray = Nessuna platea da aspettare
own-tray-why = Ognuna entra su una sua teglia fredda.
floor-never-back = La platea non torna fra una e l’altra ({ $many })
floor-never-back-why = Anche con 25 min fra loro una base resta sotto { $base } di 3.
floor-never-back-todo = Una platea più spessa o più densa, più calore sotto, o il grill.
floor-turns = Alterna { $n } posti della platea
floor-turns-why = Ognuna toglie { SHORT($by) } al suo posto, che riposa mentre cuociono le altre.
floor-gap-pale = Così è tornata alla sua infornata. Una dopo l’altra, la base { $n } è pallida: { $base } di 3.
floor-takes = Ognuna toglie { SHORT($by) } alla platea.
floor-keeps-up = La platea tiene il passo senza pause
floor-keeps-up-why = Ognuna le toglie { SHORT($by) } e torna mentre si stende la prossima.
run-why = Con basi che arrivano appena al colore la platea ne permette una ogni { $floor }, { $hands ->
    [one] { $hands } persona ne stende
   *[other] { $hands } persone ne stendono
 } una ogni { $time }.
run-last-out = { $n } { $many }, l’ultima fuori entro le { SHORT($at) }
more-hands = Un paio di mani in più, o comincia prima.
another-spot = Un altro posto, una platea più calda sotto, o un secondo impasto ore dopo.
spares = { $n ->
    [one] { $n } panetto di scorta
   *[other] { $n } panetti di scorta
 } oltre ai { $pieces }
spares-why = Un disco strappato o uno bruciato: dal 5 all’8 % in più.

## Stili di cottura, e che cosa è fuori dal verificato
aim-hot = calda e breve, maculata
aim-thin = sottile e croccante
aim-home = forno di casa, bruna uniforme
aim-deck = a piani, bruna uniforme
aim-pan = in teglia
rim-too-wide = Il cornicione è troppo largo per il disco: meno di un terzo.
middle-carries = Il centro porterebbe { $density } kg d’impasto per m²; se ne possono cuocere da 1 a 20. Cambia il panetto o il disco.
rim-carries = Il cornicione porterebbe { $density } kg d’impasto per m²; se ne possono cuocere da 1 a 15. Cambia la sua larghezza o la sua quota.
floor-outside = Una platea oltre { $c } è fuori da ogni verifica.
steel-outside = L’acciaio oltre { $c } è fuori da ogni verifica.
dome-below-floor = Il cielo è più di { $by } sotto la platea: le basi bruciano prima che il sopra colori.
cheese-after = Il formaggio va dopo la cottura: non fonde mai.
work-open = stenderne una
work-top = condirne una
work-load = infornarne una
work-turn = un giro
work-pull = sfornarne una
work-cut = tagliarne una

## Parole del forno
item-base = base
item-rim = cornicione
item-crumb = mollica
item-topping = condimento
item-cheese = formaggio
trays = teglie
pizzas = pizze
paced = { $range }, probabile { $likely }
floor-gap = Lascia { $time } fra una e l’altra ({ $many })
floor-gap-spot = Lascia { $time } fra una e l’altra ({ $many }) dello stesso posto
run-after-window = { $n } { $many }, l’ultima fuori entro le { SHORT($at) }, dopo la finestra dell’impasto
caution-monoxide = Monossido di carbonio
caution-monoxide-say = Mai accendere legna o gas portatile al chiuso, in garage, in tenda o sotto una tenda da sole chiusa. Un forno fisso vuole una canna fumaria a norma, aria fresca e un allarme che funzioni. Mal di testa o nausea: fuori all’aria, chiedi aiuto.
caution-gas = Gas
caution-gas-say = Controlla tubo e raccordi, accendi a bocca aperta, stando di lato. Odore di gas: chiudi la valvola, nessuna fiamma, nessun interruttore.
caution-embers = Fuoco e brace
caution-embers-say = Niente che bruci a portata, attento al vento, un estintore a mano. Cenere in un bidone di metallo con coperchio finché è fredda, per giorni.
caution-burns = Ustioni
caution-burns-say = Platea, acciaio e teglie restano caldi per un’ora e più. Guanti lunghi e asciutti; via bambini e animali.
caution-shock = La pietra si crepa
caution-shock-say = Scaldala da fredda, piano se è nuova o bagnata. Niente acqua e niente di congelato su una pietra calda.
caution-oil = Olio bollente
caution-oil-say = Poco olio, teglia in piano, un coperchio a mano. Il fumo vuol dire troppo caldo; mai acqua su olio che brucia.
caution-grill = Grill
caution-grill-say = Sta’ lontano dalla resistenza e resta lì. La carta da forno brucia oltre { $c }.
caution-steel = Peso
caution-steel-say = L’acciaio pesa: controlla quanto porta la griglia.
floor-firebrick = mattone refrattario
floor-steel = acciaio
floor-aluminium = alluminio
fuel-wood = legna
fuel-gas = gas
fuel-electric = elettrico
cue-short-turn = Giro
cue-short-bare = Nuda
cue-short-back = Fondo
cue-short-cheese = Formaggio
cue-short-flame = Fiamma
limit-top = Il sopra di questo forno è al limite: più vicino non va. Guarda che cosa cambiare.
limit-floor = La platea di questo forno è al limite: più vicino non va. Guarda che cosa cambiare.
skin-meets = Dove la platea ({ $floor }) a { $c } tocca l’impasto, in teoria prenderebbero entrambi subito { $skin }; { $stays }
skin-on-metal = sul metallo la pelle scivola su vapore e farina, e resta molto sotto.
skin-on-stone = vapore e contatto scarso tengono la pelle { $by } sotto.
fuel-wood-in-all = { $weight } di legna secca in tutto, come guida; le letture la correggono.
fuel-gas-in-all = { $weight } di gas in tutto, come guida.

## Come si cuoce uno stile
bake-why-dome = Fiamma da un lato: primo sguardo a 20 – 30 s, poi ogni 15 – 30 s; platea { $floor }.
bake-why-home-steel = Acciaio a { $c } sotto il grill: 3 – 8 min, un giro a 0,7 della cottura.
bake-why-tray = Teglia su acciaio a { $c }: 14 – 18 min, girata a metà, 2 – 3 min nuda per la croccantezza.
bake-why-big-rim = Come una tonda magra, un po’ più a lungo: 70 – 110 s per il cornicione alto.
bake-why-small = Forno piccolo, fiamma in fondo: quarti di giro ogni 20 – 30 s.
bake-why-deck = A piani a { $c }: 3 – 7 min, un giro a 0,7 della cottura.
bake-why-thin = Sottile e asciutta: 3 – 4 min a { $c }, un giro a 0,7 della cottura.
bake-why-board = Piano nudo a { $c }: 8 – 12 min, girata a 0,7 della cottura.
bake-why-phases = A fasi: davanti, giro, fondo, giro; 16 – 20 min finché il bordo è bruno.
bake-why-skillet = 10 – 15 min a { $c }, girata a metà; riposo 5 – 10 min prima del taglio.
bake-why-bottom-first = Prima calore da sotto, poi da sopra: 15 – 20 min.
bake-why-bread = 18 – 24 min a { $c }, girata a metà.

## Metodi, in una riga
method-biga-room = Biga 18 h a { $c }, seconda dose, puntata 1 h, appretto 6 h
method-biga-alone = Biga 18 h a { $c } da sola, puntata 2 h, appretto 6 h
method-levain-day = Lievito madre 5 h a { $c }, puntata 4 h con pieghe, appretto 5 h
method-levain-cold = Lievito madre 5 h a { $c }, puntata 4 h con pieghe, panetti 24 h al freddo, 5 h fuori

# Photos of pizzas.
photo-base = Base
photo-rim = Cornicione
photo-crumb = Mollica
photo-none = Scegli prima una foto.
photo-no-picture = Non si può leggere come foto: vanno bene JPEG, PNG o WebP, larghe al massimo 8.000 pixel.
photo-too-large = Una foto si manda con al massimo { $kb } kB. Con gli script attivi il browser la riduce da sé.
photo-too-many = Di un impasto si tengono { $n } foto, e ci sono già.
photo-of-what = Di' che cosa mostra: base, cornicione o mollica.
photo-no-such-pizza = Di' di quale pizza è: questo impasto ne ha { $n }.
