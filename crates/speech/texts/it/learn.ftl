# Imparare: che cosa ha visto chi fa la pizza, e che cosa dice il registro.
departs-too-far = Nessuna cucina si scosta così tanto dal manuale.
f-reading-against-the-plan = Una lettura rispetto al piano
f-week = La settimana
f-deviation = Quanto bene è previsto
log-500 = Si può imparare da 500 impasti al massimo alla volta.
spread-by-log = Da { $n ->
    [one] una infornata
   *[other] { $n } infornate
} di questa cucina; quattro volte su cinque sta lì in mezzo.

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
