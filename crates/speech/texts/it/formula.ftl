## formula

## Farine
flour-soft-fine = grano tenero fine (00, 0)
flour-bread = farina da pane, grano forte
flour-type-1-2 = tipo 1 o 2
flour-gluten = glutine di grano
flours-at-most = Al massimo { $most } farine.
no-flour-with-figure = Nessuna farina in dispensa ha quella cifra; prima inseriscila dal sacco.
target-reached = { $target } si raggiunge con { $flours }.
target-not-reached = { $target } non si può raggiungere: { $flours } ci va più vicino, a { $off }.
target-protein = proteine { $share }
target-w = W { $w }
target-absorption = assorbimento { $share }
share-of-flour = { $share } { $name }
differs-weaker = W più basso di { $w }: più molle e finito prima; meno ore o meno acqua.
differs-stronger = W più alto di { $w }: più teso, si ritira; più riposo o più acqua.
differs-less-water = Prende il { $share } d’acqua in meno: più appiccicoso a pari idratazione.
differs-more-water = Prende il { $share } d’acqua in più: più sodo a pari idratazione.
differs-more-protein = Più proteine: colora di più, morso più sodo.
differs-less-protein = Meno proteine: più pallida, morso più tenero.
differs-more-bran = Più crusca: più sapore, fermenta più in fretta, tiene meno gas.
differs-less-bran = Meno crusca: più delicata, tiene più gas.
differs-hardly = Si lavora quasi come la farina che sostituisce.

## Che cosa una ricetta non può essere
toppings-at-most = Al massimo { $most } condimenti su una scheda.
needs-flour-named = Un impasto vuole farina: dinne almeno una.
blend-at-most = Al massimo { $most } farine in un taglio.
flours-sum = Le farine fanno { $sum }, non 100.
extras-at-most = Al massimo { $most } ingredienti oltre a farina, acqua, sale, olio, zucchero e lievito; qui sono { $n }.
preferments-at-most = Al massimo { $most } prefermenti in un impasto.
name-too-long = Un nome tiene fino a { $most } lettere; qui ce ne sono { $letters }.
weight-from-0 = Un peso è un numero da 0 in su, in grammi.
no-such-flour = Sulla scheda non c’è una farina così.
needs-flour = Un impasto vuole farina.
whole-dough-weighs = Tutto l’impasto pesa { $weight }.
preferments-hold-too-much = I prefermenti contengono il { $share } della farina: più di tutto l’impasto. Riducili a 100 % in tutto.
preferment-too-wet = { $name }: porta più acqua di quanta ne voglia la ricetta: { $brings } della farina contro { $wanted }. Prendine meno, rendilo più asciutto, o alza l’acqua.
preferments-too-salty = Già i prefermenti portano il { $share } di sale.
preferments-take-more = I prefermenti prendono il { $share } di { $name } in più di quanto ne abbia il taglio.
too-wet-in-all = Contando tutto è il { $share } d’acqua: non è un impasto.
flour-in = farina in { $name }
water-in = acqua in { $name }
salt-in = sale in { $name }
warm-of = { $name }, al caldo
cold-of = { $name }, al freddo
preferment-half-hour = { $name }: ci vuole almeno mezz’ora.
stands-at = { $name }: sta a
off-the-bowl = { $name } a fine impasto
levain-no-yeast = Un lievito madre cresce dal suo seme; non prende lievito.
say-feeding = Di’ come si rinfresca la madre: parti di farina per una parte di madre.
one-share-each = { $name }: per ogni farina una quota da 0 a 100 %.
flours-of-sum = Le farine di { $name } fanno { $sum }, non 100.
pieces-1-1000 = Da 1 a 1000 pezzi.
pans-plan-anew = Teglie di più tipi: pianificale di nuovo sulla scheda.
pan-own-weight = Una teglia vuole il suo peso: lasciane una, o riempine un’altra.
pan-or-balls = Di’ almeno una teglia, o dei panetti.
pans-at-most = Al massimo { $most } tipi di teglie su una scheda.
sheet-300-kg = Una scheda tiene fino a { $most } d’impasto; qui sono { $weight }. Dividila.
one-dose-each = Una dose per ogni prefermento.

## Che cosa è insolito in una ricetta
spoon-eighth = un ottavo di cucchiaino raso
spoon-quarter = un quarto di cucchiaino raso
spoon-half = mezzo cucchiaino raso
spoon-three-quarters = tre quarti di cucchiaino rasi
spoon-one = un cucchiaino raso
spoon-one-and-half = un cucchiaino e mezzo, raso
spoon-two = due cucchiaini rasi
w-guess = W { $w } è una stima, ±{ $spread }
w-guess-why = Le proteine sono solo un indizio della forza: farine dello stesso W differiscono di 1,5 punti.
w-guess-todo = Se il sacco o il mulino dice W, inseriscilo in dispensa.
oil-as-water = Il { $oil } d’olio è contato nell’acqua?
oil-as-water-why = { $water } è bagnato per questo stile, { $usual } sarebbe il solito; l’olio non è acqua.
set-percent = Imposta { $share }
takes-up = {" "}Assorbe { $takes }: è come { $feels }.
wet-for-w = { $water } d’acqua è bagnato per W { $w }
wet-for-w-why = Questa forza regge circa { $carries }; oltre, l’impasto appiccica.{ $because }
stiff-for-flour = { $water } d’acqua è poco per questa farina
stiff-for-flour-why = Qui il solito si sente come { $usual }.{ $because }
water-suits = { $water } va bene a questa farina
water-suits-whole = W { $w } regge circa { $carries }.{ $because } L’integrale beve prima: per dieci minuti sembra sodo.
water-suits-why = W { $w } regge circa { $carries }.{ $because }
true-hydration = Dichiarata { $stated }, in verità { $real }
true-hydration-why = Si contano farina e acqua della madre, e l’acqua di miele o latte.
opens-tight = P/L { $pl }: si ritirerà
opens-tight-why = Da 0,4 a 0,8 si stende bene; sopra è teso, per quanto forte.
opens-tight-todo = Lascia riposare di più i panetti prima di stendere, o taglia con una farina dal P/L più basso.
opens-slack = P/L { $pl }: correrà e si strapperà facilmente
opens-slack-why = Da 0,4 a 0,8 si stende bene; sotto, l’impasto si allarga da sé.
opens-slack-todo = Forma stretto, stendi più freddo, o taglia con una farina dal P/L più alto.
from-volumes = I pesi da tazze e cucchiai sono grossolani
from-volumes-why = Una tazza di farina pesa { $range }, secondo come si riempie.
from-volumes-todo = Pesala una volta mentre misuri, poi correggi qui i grammi.
in-column = {" "}in { $name }
yeast-below-scale = { $dose } di lievito{ $where } è troppo poco per questa bilancia
yeast-below-scale-why = Legge a passi di { $step }: la dose può sbagliare del { $off }.
dilute = Sciogli { $yeast } di lievito in { $water } d’acqua, prendine { $take } e versa { $less } d’acqua in meno. { $ways }
pocket-scale-or-throw = { $spoon }Una bilancina che legge { $fine } risolve; scioglierlo ne butta { $thrown }. { $ways }
pocket-scale = { $spoon }Una bilancina che legge { $fine } risolve. { $ways }
by-the-spoon = A cucchiaino, { $spoon }: { $range }.{" "}
salt-why = { $range } porta sapore, tende il glutine e calma il lievito.
mixer-too-small = L’impastatrice tiene { $holds }, qui sono { $weight }
mixer-too-small-why = Troppo piena sale sul gancio, scalda l’impasto e sforza il motore.
mix-in-batches = Impasta in { $n } volte da { $weight }.
make-so-many = Fanne { $n }
usual-is = Il solito è { $range }.
outside-style = { $what } { $share } è fuori da questo stile
lean-is-hot = Un impasto magro gonfia e si macchia in un forno molto caldo; l’olio lo fa croccante e scuro.
sugar-burns = Sotto un cielo caldo lo zucchero brucia prima che la base sia cotta.
sweet-under-dome = { $name } con un cielo a { $c }
sweet-under-dome-why = { $share } colora presto il cornicione; qui è più sicuro sotto { $most }.
malt-much = { $share } di malto attivo è molto
malt-much-why = Troppo fa una mollica gommosa che colora troppo in fretta.
usual-density = Il solito è { $range }.
set-density = Imposta { $density }
ball-opens-to = Un panetto da { $weight } si stende a { $width }
ball-opens-to-why = Allo spessore di questo stile; il solito è { $range }.
set-weight = Imposta { $weight }
preferment-water = { $name } al { $share } d’acqua
preferment-water-why = Il solito è { $range } della sua farina.
preferment-share = { $name } con il { $share } della farina

## Nomi degli spessori
thick-paper = sottile come carta
thick-thin-round = tonda sottile
thick-thin-pan = teglia sottile
thick-deep-pan = teglia alta
thick-round = tonda
thick-pan = teglia

## Che cosa è cambiato fra due ricette
diff-style = Stile
diff-changed = cambiato
diff-size = Misura
diff-double = doppia
diff-single = singola
diff-bake = Cottura
diff-mixed = Impastato
diff-nominal = { $share } nominale
diff-of-flour = { $share } della farina
diff-water = { $share } d’acqua
diff-cold = { $time } al freddo
diff-off-bowl = a fine impasto a { $c }
diff-salt = { $share } di sale
diff-fed = rinfresco 1 : { $parts }
diff-kept-back = { $weight } da parte
diff-flours = farine { $shares }
diff-style-data = Dati propri dello stile
diff-as-it-was = com’era
diff-flour = { $share }, W { $w }
diff-flour-guessed = { $share }, W { $w } (stimato)
diff-topping-after = { $weight }, dopo la cottura
diff-yeast-solved = { $yeast }, calcolato per le ore
diff-none-added = niente aggiunto
diff-yeast-given = { $yeast } { $share }
diff-balls = { $n ->
    [one] { $n } panetto
   *[other] { $n } panetti
 } da { $weight }
diff-discs = { $n } dischi di { $width } a { $density }
diff-total = { $weight } in tutto, { $n } pezzi
diff-flour-total = { $weight } di farina, { $n } pezzi
diff-pans = { $n ->
    [one] { $n } teglia
   *[other] { $n } teglie
 } { $pan } a { $density }

## Impastare
mixer-hand = a mano
mixer-stand = planetaria
mixer-spiral = spirale
mixer-fork = forcella
mixer-processor = robot da cucina
colder-than-tap = Acqua a { $c }, più fredda del rubinetto
colder-than-tap-why = Il rubinetto dà { $c }.
colder-than-tap-todo = Raffreddala, o metti { $ice } di ghiaccio in { $water } d’acqua del rubinetto.
dough-warm = { $c } è caldo per un impasto
dough-warm-why = Oltre { $c } il glutine soffre e tutto corre avanti.
no-water-to-pour = Non resta acqua per regolare la temperatura dell’impasto: arriva a { $c }
no-water-to-pour-why = È tutta nel prefermento.
no-water-to-pour-todo = Tieni il prefermento alla temperatura che deve avere l’impasto.
ice = { $ice } dell’acqua come ghiaccio
ice-why = La sola acqua dovrebbe essere a { $c }; sciogliendosi il ghiaccio porta via il calore.
ice-todo = Ghiaccio tritato in { $water } d’acqua a { $c }.
ice-not-enough = Anche { $share } di ghiaccio lascia l’impasto a { $c }
ice-not-enough-why = Più ghiaccio di così non si scioglie mentre impasti.
chill-flour-to = Raffredda la farina a { $c }, o impasta per meno tempo.
chill-flour = Raffredda farina e vasca, impasta per meno tempo, o punta a un impasto più caldo.
water-too-hot = L’acqua dovrebbe essere a { $c }
water-too-hot-why = Oltre { $most } danneggia il lievito; a { $most } l’impasto arriva a { $c }.
warm-flour-to = Scalda invece la farina a { $c }, o accetta l’impasto più fresco.
warm-flour = Scalda farina e vasca, porta un prefermento a temperatura ambiente, o accetta l’impasto più fresco.

## Dispensa
letters-200 = Fino a 200 lettere.
bags-at-most = Al massimo { $most } sacchi di una farina.
say-starter-wet = Di’ quanto è bagnata la madre, { $range } della sua farina.
boxes-needed = { $balls } panetti vogliono { $need } di { $have } × { $name }
boxes-needed-why = In una ce ne stanno { $n } con posto per allargarsi; le cassette in pila seguono piano il loro luogo.
boxes-needed-todo = Forma più tardi, o fatti prestare cassette.
olive-oil = olio d’oliva

## Stili
style-name-80 = Uno stile ha un nome fino a 80 lettere.
style-range = Un intervallo fra { $low } e { $high }, prima l’estremo basso.
style-oven-range = Un intervallo entro { $range }, prima l’estremo basso.

## Adattare una ricetta a un forno
fit-wood-dome = cupola a legna
fit-gas-dome = cupola a gas
fit-portable = portatile, gas o legna
fit-deck = elettrico a piani
fit-home-stone = casa, acciaio o pietra
fit-home-tray = casa, teglia sottile
fits-oven = { $style } va bene così com’è per un forno a { $c }.
fits-with = Per { $c }: { $n ->
    [one] { $n } cambiamento
   *[other] { $n } cambiamenti
 }.
fit-sugar = zucchero { $share }
fit-sugar-why = Un forno più fresco secca la crosta prima di colorarla; lo zucchero porta presto il colore.
fit-oil = olio { $share }
fit-oil-why = L’olio tiene morbida la crosta in una cottura di minuti.
fit-malt = malto attivo { $share }
fit-malt-why = I suoi enzimi fanno zucchero durante la lievitazione: colore sotto { $c }.
fit-double = Doppia cottura
fit-double-why = Solo la salsa finché il cornicione prende colore, fuori, formaggio e aromi, di nuovo dentro per circa 1,5 min: il formaggio non si separa.
fit-water = acqua { $share }
fit-water-why = Una cottura di minuti asciuga più di una di secondi.
fit-aged = Mozzarella asciutta al posto della fresca
fit-aged-why = In minuti il formaggio fresco lascia andare l’acqua e bagna il centro.
fit-basil = Basilico dopo la cottura
fit-basil-why = In un forno lento annerisce.
fit-no-sugar = Niente zucchero
chars-above = Sopra { $c } brucia prima che la base sia cotta.
fit-no-malt = Niente malto
fit-no-oil = Niente olio nell’impasto
fit-no-oil-why = In una cottura di 90 s l’olio fa la crosta croccante e scura invece che morbida.
fit-one-bake = Una cottura sola
fit-one-bake-why = Sotto un cielo caldo formaggio e cornicione finiscono insieme.

## Il disciplinare tradizionale
rule-not-known = non si sa
rule-protein = Proteine della farina
rule-water = Acqua da versare
rule-dough = Impasto a fine impastamento
rule-oil = Olio sopra
rule-fine-wheat = grano tenero fine, 00 o 0
rule-fine-wheat-here = grano tenero fine
rule-also = anche { $others }
rule-in-dough = Nell’impasto
rule-only-four = farina, acqua, sale, lievito
rule-only-these = solo questi
rule-wood-fired = a legna, platea { $range }
rule-flour = Farina
rule-ball = Panetto
rule-disc = Disco
rule-sauce = Salsa
rule-bake = Cottura
rule-oven = Forno

## Condimenti
cook-as-it-is = così com’è
cook-raw-meat = carne cruda
cook-hard-vegetable = verdura dura
toppings-wet = { $weight } di condimenti bagnati su un disco di { $width }
toppings-wet-why = Una cottura di { $time } ne asciuga circa { $carries }; di più lascia bagnato il centro.
toppings-wet-todo = Mettine meno, scolali, o mettine una parte dopo la cottura.
cook-first = Cuoci prima: { $names }
cook-first-why = Una cottura di { $time } non li cuoce fino in fondo.
cook-first-todo = La carne alla sua temperatura sicura al cuore; tieni i deperibili a { $c } o meno finché non vanno sopra.

## Ricette incollate
paste-no-flour = In questo testo non si è trovata farina; nominala con il suo peso, per esempio 500 g di farina.
paste-starter = { $weight } di madre si prendono come matura al { $share } d’acqua.
paste-three-preferments = Si sono letti più di tre prefermenti; un impasto qui ne prende tre.
paste-no-yeast = Non si è trovato lievito: si calcola per le ore.
paste-fridge-hours = { $time } in frigo, come dice il testo; le altre ore sono di questo stile.
paste-hours = Le ore sono di questo stile, non del testo: impostale su Lievitazione.
paste-unweighed = Non nella ricetta, perché senza peso: { $things }. Pesalo e aggiungilo.
paste-no-water = In questo testo non si è trovata acqua; nominala con il suo peso, per esempio 325 g di acqua.
paste-no-salt = Non si è trovato sale.
paste-rough = I pesi da volumi, intervalli e pizzichi sono grossolani; sono segnati.
paste-not-understood = Alcune righe non si sono capite; sono segnate. Niente di loro è nella ricetta.
paste-percentages = Il testo parla in percentuali; la misura è quella solita di questo stile.
paste-strength = { $name }: il testo non dice quanto forte; si prende W { $w }.
paste-too-long = Una ricetta ha fino a { $most } lettere; questa ne ha { $letters }.
paste-empty = Incolla una ricetta: un ingrediente per riga, o testo continuo.
weighs-from = Si pesa onestamente da { $n } pezzi in su.
weighs-from-or-preferment = Si pesa onestamente da { $n } pezzi in su; un poolish o un lievito madre lo fa crescere senza.
salt-little = { $share } di sale è poco
salt-much = { $share } di sale è molto
disc-thick = { $weight } su { $width } è spesso per questo stile
disc-thin = { $weight } su { $width } è sottile per questo stile
rule-oven-here = { $oven }, platea { $floor }
