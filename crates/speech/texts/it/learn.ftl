# Imparare: che cosa ha visto chi fa la pizza, e che cosa dice il registro.
departs-too-far = Nessuna cucina si scosta così tanto dal manuale.
f-reading-against-the-plan = Una lettura rispetto al piano
f-week = La settimana
f-deviation = Quanto bene è previsto
log-500 = Si può imparare da 500 impasti al massimo alla volta.
spread-by-log-met = Da { $n ->
    [one] una infornata
   *[other] { $n } infornate
} di questa cucina; quattro volte su cinque sta lì in mezzo. Pronto e non passato quando si serve: { $met }.
spread-by-log-book-from = Da { $n ->
    [one] una infornata
   *[other] { $n } infornate
} di questa cucina; quattro volte su cinque sta lì in mezzo. Pronto e non passato quando si serve: { $met }. Secondo il manuale questo impasto è pronto da { $from }.
spread-by-log-book = Da { $n ->
    [one] una infornata
   *[other] { $n } infornate
} di questa cucina; quattro volte su cinque sta lì in mezzo. Pronto e non passato quando si serve: { $met }. Secondo il manuale questo impasto è pronto da { $from } a { $to }.

stood-much-under = molto indietro
stood-under = un po’ indietro
stood-right = giusto
stood-over = un po’ oltre
stood-much-over = molto oltre

notice-tight = si ritira
notice-slack = molle
notice-sticky = appiccicoso
notice-sour = acido
notice-torn = si strappa
notice-pale-below = chiaro sotto
notice-dark-below = scuro sotto
notice-pale-above = chiaro sopra
notice-dark-above = scuro sopra
notice-wet-centre = centro umido
notice-flat-rim = bordo piatto
notice-blisters = bolle nere

not-mixed-yet = Questo impasto non è ancora fatto: non c’è niente da dirne.
noticed-already = «{ $what }» è già notato.
notice-excluded = «{ $what }» e «{ $other }» non stanno insieme: prima togli l’altro.

## Che cosa dice un registro di una cucina.
taught-fridge-warm = Il tuo frigo sembra stare { $k } più caldo di quanto pianifichi, ± { $sd }.
taught-fridge-cold = Il tuo frigo sembra stare { $k } più freddo di quanto pianifichi, ± { $sd }.
taught-room-warm = La tua stanza sembra { $k } più calda di quanto pianifichi, ± { $sd }.
taught-room-cold = La tua stanza sembra { $k } più fredda di quanto pianifichi, ± { $sd }.
taught-dough-warm = I tuoi impasti sembrano finire { $k } più caldi del previsto, ± { $sd }.
taught-dough-cold = I tuoi impasti sembrano finire { $k } più freddi del previsto, ± { $sd }.
taught-yeast-lively = Il tuo lievito sembra { $by } più vivace di quello del manuale, ± { $off }.
taught-yeast-slow = Il tuo lievito sembra { $by } più lento di quello del manuale, ± { $off }.
taught-leaven-lively = La tua madre sembra { $by } più vivace di quella del manuale, ± { $off }.
taught-leaven-slow = La tua madre sembra { $by } più lenta di quella del manuale, ± { $off }.
taught-cold-fast = Gli impasti al freddo qui sembrano andare { $by } più svelti, ± { $off }.
taught-cold-slow = Gli impasti al freddo qui sembrano andare { $by } più lenti, ± { $off }.
taught-long-fast = Gli impasti lunghi qui sembrano prendere { $by } di velocità in più, ± { $off }.
taught-long-slow = Gli impasti lunghi qui sembrano prendere { $by } di velocità in meno, ± { $off }.
taught-flour-strong = La tua farina sembra durare { $by } più di quanto dice il suo W, ± { $off }.
taught-flour-weak = La tua farina sembra durare { $by } meno di quanto dice il suo W, ± { $off }.
taught-relaxes-late = I tuoi panetti sembrano volere { $by } di tempo in più per rilassarsi, ± { $off }.
taught-relaxes-soon = I tuoi panetti sembrano rilassarsi { $by } prima, ± { $off }.
taught-ready-sooner = Chiami pronto un impasto un po’ prima: verso { $n } dove il manuale dice 100, ± { $off }.
taught-ready-later = Chiami pronto un impasto un po’ dopo: verso { $n } dove il manuale dice 100, ± { $off }.
taught-path-ahead = Impasti di questo tipo qui vanno { $by } più avanti del manuale, ± { $off }.
taught-path-behind = Impasti di questo tipo qui restano { $by } indietro rispetto al manuale, ± { $off }.
taught-fridge-thermometer = Il termometro del frigo sembra sbagliare di { $k }.
taught-room-thermometer = Il termometro della stanza sembra sbagliare di { $k }.
taught-probe = La sonda sembra sbagliare di { $k }.

chance-nearly-always = quasi sempre
chance-nine-in-ten = nove volte su dieci
chance-four-in-five = quattro volte su cinque
chance-two-in-three = due volte su tre
chance-one-in-two = circa una volta su due
chance-one-in-three = una volta su tre
chance-one-in-five = una volta su cinque
chance-one-in-ten = una volta su dieci
chance-hardly-ever = quasi mai

## Cause, come vanno d’accordo.
cause-fridge-warm = un frigo { $k } più caldo del previsto
cause-fridge-cold = un frigo { $k } più freddo del previsto
cause-room-warm = una stanza { $k } più calda del previsto
cause-room-cold = una stanza { $k } più fredda del previsto
cause-yeast-much = { $by } di lievito in più
cause-yeast-little = { $by } di lievito in meno, o una confezione stanca
cause-leaven-strong = una madre { $by } più vivace
cause-leaven-weak = una madre { $by } più debole
cause-dough-warm = un impasto finito { $k } più caldo
cause-dough-cold = un impasto finito { $k } più freddo
cause-flour-weak = una farina più debole del suo W
cause-flour-strong = una farina più forte del suo W
cause-balled-late = staglio tardivo, o panetti stretti
cause-late = steso { $time } in ritardo
cause-early = steso { $time } in anticipo
cause-stages-longer = fasi più lunghe di { $time }
cause-stages-shorter = fasi più corte di { $time }
cause-dose-more = { $by } di lievito pesato in più
cause-dose-less = { $by } di lievito pesato in meno
cause-floor-cold = una platea { $k } più fredda dell’impostato
cause-floor-hot = una platea { $k } più calda dell’impostato
cause-top-cold = { $k } in meno dall’alto
cause-top-hot = { $k } in più dall’alto
cause-thin-tray = una teglia sottile al posto della platea
cause-topping-much = { $by } di condimento in più
cause-sugar-little = zucchero dimenticato
cause-sugar-much = troppo zucchero
cause-short = uscita { $by } prima di quanto annotato
cause-long = uscita { $by } dopo quanto annotato
cause-thick = un disco più piccolo e spesso
cause-thin = un disco più largo e sottile
cause-spent = zuccheri finiti nell’impasto
cause-ordinary = il caso
share-nearly-all = quasi tutto
share-most = la maggior parte
share-half = circa metà
share-third = circa uno su tre
share-fourth = circa uno su quattro
share-fifth = circa uno su cinque
share-seventh = circa uno su sette
share-tenth = uno su dieci, o meno
group-ahead = è andato avanti: più caldo o più vivace del previsto
group-behind = è rimasto indietro: più freddo o più debole del previsto
group-gluten = il glutine si è esaurito presto
group-strong = era troppo forte, o non si era rilassato
group-below-less = troppo poco calore da sotto
group-below-more = troppo calore da sotto
group-above-less = troppo poco calore da sopra
group-above-more = troppo calore da sopra
group-wet = troppa acqua per il tempo
group-pale = si è colorito troppo poco
group-dark = si è colorito troppo
group-thin = era troppo sottile
look-fridge = Un termometro in un bicchiere d’acqua nel frigo, ripiano di mezzo, due ore.
look-room = Un termometro accanto alla cassetta.
look-yeast = La bilancia, e la data della confezione.
look-jar = In quanto il vasetto raddoppia.
look-dough = Una sonda nell’impasto quando esce dall’impastatrice.
look-flour = Il W sul sacco.
look-hour = Tocca quando lo stendi.
look-floor = Leggi la platea a ogni infornata.
look-top = Il calore dall’alto, col termometro dove sta la pizza.
look-topping = Pesa il condimento di una.
look-seconds = Tocca dentro e fuori per ognuna.
look-disc = Misura un disco da parte a parte.
look-sugar = Lo zucchero della ricetta, contro il sacco.
fits-yes = va d’accordo
fits-partly = in parte
fits-not = no
