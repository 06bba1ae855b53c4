## Perché un tocco dell'infornata non è salvato
tap-still-in = La pizza { $n } è ancora in forno. Tocca prima Sforna.
tap-full = Tutti i { $n } posti sono occupati. Tocca prima Sforna.
tap-went-in = La pizza { $n } è già entrata, da un altro tablet. Tocca di nuovo Inforna per la prossima.
tap-nothing-to-undo = Della pizza { $n } non c’è niente da annullare.
tap-none-in = Nessuna pizza è in forno. Tocca prima Inforna.
tap-already-out = La pizza { $n } è già fuori.
tap-unknown = La pizza { $n } non è ancora stata cotta.
tap-before-in = Quel momento è prima che entrasse la pizza { $n }. Controlla l’orologio di questo dispositivo.
tap-double = Due tocchi entro un secondo contano una volta.
tap-closed = Questo impasto è chiuso. Riaprilo per continuare.

## Perché un dato non è salvato
entry-to-come = { $at } deve ancora venire: annotalo quando è successo.
entry-moment-to-come = Quel momento deve ancora venire: annotalo quando è successo.
entry-long-before = { $at } è più di due settimane prima che questo impasto dovesse cominciare. Guarda la data.
entry-no-cut = Una mancanza di corrente finisce dopo che comincia, entro tre giorni, e non nel futuro.
entry-too-many = Questo impasto tiene { $n } dati, e altri non ci stanno. Chiudilo e comincia un altro per ciò che viene.
entry-too-many-taps = Questa infornata tiene { $n } tocchi, e altri non ci stanno.
entry-no-such-pizza = Le pizze di questo impasto contano fino a { $n }.

## File che arrivano
file-too-large = Il file ha { $kb } kB; una ricetta ne ha al massimo { $most }.
file-not-formula = Questo non è il file di una ricetta: la riga { $line }, colonna { $column } non si legge.
file-no-format = Questo non è il file di una ricetta: non dice "format": "{ $format }".
file-other-version = Il file ha la versione { $said }; questo programma legge la versione { $version }.
file-name = Un nome ha da 1 a 80 lettere; questo ne ha { $letters }.
file-why = Che cosa è cambiato, in al massimo 1000 lettere.
recipe-too-large = Il file ha { $kb } kB; una ricetta ne ha al massimo { $most }.
recipe-not-json = Questo non è JSON: la riga { $line }, colonna { $column } non si legge.
recipe-none = In questo file non c’è una Recipe di schema.org.
allergen-milk = latte
allergen-seeds = semi, può contenere sesamo
allergen-gluten = glutine
batch-cancelled = Questo impasto è stato annullato. Prima riprendilo.
batch-closed = Questo impasto è chiuso. Prima riaprilo.
batch-gone = Questo impasto non c’è più.
tap-other-key = Sotto la chiave di questo tocco ne è stato salvato un altro: tocca di nuovo.
batch-closed-already = Questo impasto è già chiuso.
batch-under-way = Questo impasto è in corso.
entry-taken-back = Era già stato annullato.
entry-none-to-take-back = Non c’è un dato così da annullare.
keep-cold = Tieni i deperibili a { $c } o meno.
plan-hours = ore cambiate
plan-fire = forno pianificato
plan-fire-dough = forno e impasto cambiati
plan-pieces = { $n ->
    [one] un pezzo
   *[other] { $n } pezzi
} invece di { $was }
plan-weight = da { $g } invece di { $was }
plan-both = { $number }, { $weight }
plan-freezer = { $n ->
    [one] un pezzo
   *[other] { $n } pezzi
} in congelatore
plan-apart = { $n ->
    [one] un pezzo
   *[other] { $n } pezzi
} per un’altra ora
