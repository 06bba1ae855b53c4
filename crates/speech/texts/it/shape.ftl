## Luoghi e segni.
spot-room = stanza
spot-fridge = frigo
spot-freezer = congelatore
press-springs = torna su
press-holds = tiene
press-flows = cede
f-box-height = Altezza della cassetta

## Il diario della bilancia e delle cassette.
shapelog-whole = tutto l’impasto sulla bilancia: { $g }
shapelog-divided = diviso in { $n } da { $g }
shapelog-boxed = in cassette: { $name }
shapelog-piece = un pezzo da { $g }
shapelog-piece-unweighed = un pezzo, non pesato
shapelog-pressed = un panetto della cassetta { $n } { $sign }
shapelog-moved = cassetta { $n } in: { $place }
shapelog-stacked = la cassetta { $n } sta in pila
shapelog-unstacked = la cassetta { $n } sta da sola
shapelog-tray = teglia { $n } { $did }
tray-oiled = oliata
tray-stretched = stesa finché va
tray-corners = arriva agli angoli
shapelog-skin = la cassetta { $n } ha la pelle
shapelog-reballed = cassetta { $n } riformata

## Perché un tocco non è salvato.
shapetap-all-made = { $n ->
    [one] L’unico pezzo è fatto.
   *[other] Tutti e { $n } i pezzi sono fatti. Uno in più? Dillo prima in Pezzi.
}
shapetap-more-than-the-whole = I pezzi peserebbero più del tutto: restano { $left }.
shapetap-fewer-than-made = { $n ->
    [one] Un pezzo è già fatto.
   *[other] { $n } pezzi sono già fatti.
}
shapetap-no-such-box = Non c’è una cassetta { $n }.
shapetap-empty-box = La cassetta { $n } è ancora vuota.
shapetap-frozen = La cassetta { $n } è congelata: prima si scongela, e poi è un altro impasto.
shapetap-in-their-boxes = In queste cassette ci sono già panetti. Prima annullali, o va’ avanti.
shapetap-at-the-corners = L’impasto della teglia { $n } è già negli angoli.
shapetap-no-trays = Questi panetti stanno in cassette: non c’è una teglia in cui stendere.
shapetap-there-already = La cassetta { $n } è già lì.

## Che cosa si propone per un impasto più leggero o più pesante del previsto.
divide-spread = Falli tutti un po’ più piccoli o più grandi.
divide-one-smaller = Tieni il peso, l’ultimo è più piccolo.
divide-spread-fewer = Fanne meno, con tutto.
divide-keep-and-bread = Tieni il peso; il resto è pane, grissini o una prova.
divide-one-more = Ce n’è ancora uno.
divide-one-smaller-more = Ce n’è ancora uno, più piccolo.

## Come si stende un panetto.
open-reball = riformalo con dolcezza, o mettilo in una teglia
open-wait = aspetta
open-press-only = solo premere, condire subito, infornare
open-press-rest = premi, riposo 5 min, premi ancora
open-press-lift = premi, poi sollevalo una volta sulle mani
open-table = stendilo sul tavolo
open-knuckles = premi, poi sulle nocche
open-to = { $how }, fino a { $wide }. { $flour } di farina.
open-tray-now = Dita oliate: affondale fino agli angoli.
open-tray-wait = Dita oliate: affondale finché va, coperchio, riposo { $time }, poi fino agli angoli.
flour-relaxes-slower = Questa farina si rilassa il { $share } più piano di quanto dica la sua forza
flour-relaxes-faster = Questa farina si rilassa il { $share } più in fretta di quanto dica la sua forza
flour-relaxes-so = Questa farina si rilassa come dice la sua forza
flour-lasts-longer = e il suo glutine dura il { $share } in più
flour-lasts-shorter = e il suo glutine dura il { $share } in meno

## Giudizi di un impasto diviso.
shape-short = L’impasto manca del { $percent }: tutti verrebbero da { $ball }
shape-short-why = Il due per cento di un panetto non lo vede nessuno, di più si vede se solo alcuni ce l’hanno.
shape-loss-high = Il { $percent } è rimasto su vasca e mani
shape-loss-high-why = Di solito è il { $usual }.
shape-loss-high-todo = Raschia vasca e gancio. È stato pesato tutto?
shape-uneven = { $n } pezzi sono fuori
shape-uneven-why = I panetti { $balls } differiscono più di quanto si veda su un piatto.
shape-uneven-todo = Taglia dalla chiusura, o aggiungi lì un pezzo; ripesalo.
piece-a-slip = { $g } per un pezzo da { $ball }: era { $meant }?
piece-unlike = { $g } non è un pezzo da { $ball }.
shape-nothing-left = Per gli ultimi { $n } non resta niente
shape-nothing-left-why = I pezzi pesano già tutto.
shape-nothing-left-todo = Dividilo in meno pezzi, o annulla un peso scritto male.
shape-several-why = { $all }
shape-so-are = { $n ->
    [one] Così anche la cassetta { $boxes }.
   *[other] Così anche le cassette { $boxes }.
}
shape-box-past = La cassetta { $n } passa prima del suo turno
shape-box-past-why = Si chiude { $at }, il suo primo panetto si usa { $used }.
shape-box-past-todo = Al freddo adesso, o usala per prima; riformata vuole ore.
shape-last-ones = Agli ultimi toccano { $g }
shape-last-ones-why = Si volevano { $ball }; quelli di prima hanno preso di più o di meno.
shape-last-ones-todo = Attento ai prossimi; un ultimo più piccolo è una prova.
shape-does-not-sum = { $g } non si sa dove siano
shape-does-not-sum-why = Un pezzo non è stato pesato, o la bilancia si è spostata.
shape-too-warm = L’impasto è a { $c }: raffreddalo prima di formare
shape-too-wet = Un impasto bagnato per questa farina: formalo freddo
shape-ball-it-cold-why = I panetti freddi tengono la forma e prendono meno farina.
shape-ball-it-cold-todo = Prima 30 – 60 min in frigo.
shape-crowded = Panetti maturi di { $wide } si toccheranno
shape-crowded-why = Da centro a centro ci sono { $pitch }.
shape-crowded-todo = Meno per cassetta, o staccali con una spatola bagnata.
shape-low = I panetti maturi arrivano a { $high } e toccano il coperchio
shape-low-why = La cassetta dentro è alta { $inside }.
shape-low-todo = Una cassetta più alta, o meno ore.
shape-box-late = La cassetta { $n } è solo a { $rise }
shape-box-late-why = Si usa { $at }, e anche fuori adesso non ci arriva.
shape-box-late-todo = Fuori adesso, in un luogo più caldo, o usala per ultima.
shape-box-early = La cassetta { $n } è matura prima di essere calda: { $rise } all’uso
shape-box-early-why = Si usa { $at }.
shape-box-warm = La cassetta { $n } in stanza al suo turno ha passato il pronto: { $rise } all’uso
shape-box-warm-why = Si usa { $at }.
shape-box-warm-todo = Di nuovo al freddo adesso, fuori { $at }.
shape-box-early-todo = Usala prima, o lasciala al freddo fino a un’ora prima.
shape-reball-late = La cassetta { $n } si stende solo { $at }
shape-reball-late-why = È stata riformata e si usa { $at }.
shape-reball-late-todo = Non riformare ora: solo premere, e più piccola.
shape-reball-twice = La cassetta { $n } è stata riformata più di una volta
shape-reball-twice-why = Ogni volta al glutine resta meno, e la mollica si fa più fitta.
shape-reball-twice-todo = Non ancora: solo premere, o in teglia.
shape-tight = La cassetta { $n } è ancora tesa { $at }
shape-tight-why = Si stende da { $at }.
shape-tight-never-why = Dove sta non si rilassa entro dodici ore.
shape-tight-todo = Lasciala riposare fino ad allora; se no solo premere, e più piccola di un decimo.
shape-flows = La cassetta { $n } cede
shape-flows-seen = Così dice il dito.
shape-flows-likely = Il suo glutine è quasi finito.
shape-flows-todo = Solo premere, un po’ più piccola, infornare subito; usa prima questa cassetta.
shape-skin = La cassetta { $n } ha la pelle
shape-skin-why = Ci è arrivata l’aria.
shape-skin-todo = Coperchio o pellicola, un velo d’olio; premi con la pelle in giù.
shape-cold-ball = La cassetta { $n } è a { $c }
shape-cold-ball-why = Sotto { $c } un panetto è rigido e fa bolle.
shape-cold-ball-todo = { $time } in più in stanza.
shape-cold-ball-todo-elsewhere = Un luogo più caldo: questo è troppo freddo per lei.
shape-apart = Le cassette sono lontane fra loro: da { $low } a { $high } all’uso
shape-apart-why = Sono state in luoghi diversi o per tempi diversi.
shape-apart-todo = Togli la pila, scambia interne ed esterne, tirale fuori una dopo l’altra.


## Staglio: che cosa si rifiuta.
f-piece = Pezzo
f-box-volume = Crescita di un panetto
f-box-gap = Distanza fra i panetti
f-box-side = Lato della cassetta
f-dough-in-the-bowl = Impasto messo nella vasca
f-dough-weighed = Impasto sulla bilancia
f-pieces-divided = Pezzi
f-scale-step = Passo della bilancia
box-no-ball-fits = Nessun panetto da { $ball } sta in { $length } × { $width } con { $gap } fra l’uno e l’altro.
divide-more-than-went-in = Pesato più del 105 % di ciò che è entrato: c’era la vasca sulla bilancia?
divide-is-this-all = È tutto qui? Manca più di un terzo.
divide-less-than-a-ball = È meno di un panetto.

## Pericoli allo staglio.
hazard-scraper = Una spatola taglia: taglia lontano dalla mano che tiene l’impasto.
hazard-heavy-boxes = Le cassette insieme pesano { $kg }: portale in due volte, o sollevale in due.
