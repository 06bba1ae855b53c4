# Prove e cotture annotate in seguito.
page-no-trial-of-that-code = Nessuna prova con questo codice
page-no-trial-in-this-kitchen = Niente in questa cucina si chiama { $code }.
trial-a-tasting = un assaggio
trial-trial = Prova
trial-so-many = { $n ->
    [0] Ancora nessuna prova,
    [one] Una prova,
   *[other] { $word } prove,
}
trial-tasted-blind = assaggi alla cieca
trial-list-one = Una cosa sola varia, il resto è uguale.
trial-list-two = La risposta dice che cosa farebbe il caso da solo.
trial-new = Nuova prova
trial-arms-head = Che cosa si confronta
trial-made = Fatta
trial-none-yet = Varia una cosa sola dell’impasto, fa’ assaggiare senza dire quale, e guarda se è più del caso.
trial-new-head = Una cosa sola varia,
trial-new-core = il resto è uguale
trial-new-one = Ciò che ne segue, come la dose di lievito, si calcola per ciascuno.
trial-new-two = Cuocerli tutti uguali, o ciascuno al suo meglio: decidere prima.
trial-way-there = Queste cotture
trial-way-sisters = Impasti gemelli
trial-way-sisters-why = ciascuno un lotto a sé, per la stessa ora
trial-way-split = Un impasto, diviso
trial-way-split-why = i pezzi cotti, conditi o stesi in due, tre o quattro modi
trial-dough-head = L’impasto
trial-of = Di quale
trial-varied = Varia
trial-values = I valori
trial-values-why = Da due a quattro, separati da virgole. Per le farine i nomi come in dispensa:
trial-each = Pezzi ciascuno
trial-served = Si serve
trial-part = Parte { $n }
trial-table-head = La tavola
trial-name = Nome
trial-how-many-taste = Assaggiatori
trial-tasters-why = Meno di { $two } concordi non mostrano nulla fra due, qualunque cosa dicano; fra tre ne servono { $three }, fra quattro { $four }.
trial-make = Fare la prova
trial-a-whole-number = Un numero intero, da 1 a 1000.
trial-say-what-is-varied = Dire che cosa varia.
trial-say-the-values = Dire i valori come numeri: 24, 40, 64.
trial-flours-of-the-pantry = Una di queste non è una farina della dispensa.
trial-say-of-which-dough = Dire di quale impasto.
trial-value-not-possible = { $value }: { $why }
trial-arms-so-many = { $word } bracci,
trial-nobody-tasted = nessuno ha ancora assaggiato
trial-fewest = { $n } tutti concordi sono i meno che mostrano qualcosa.
trial-too-few-planned = Ne sono previsti { $n }: qualunque cosa dicano, non mostrerà nulla. Invitare più gente.
trial-enough-planned = Ne sono previsti { $n }. Chi serve non dovrebbe assaggiare.
trial-no-score-differs = Nessun punteggio differisce oltre il caso.
trial-scores-differ = { $n ->
    [one] Un punteggio differisce oltre il caso.
   *[other] { $n } punteggi differiscono oltre il caso.
}
trial-liked-better = piace di più
trial-by-chance = Il caso da solo lo fa { $chance }.
trial-no-winner = Nessun vincitore
trial-beyond-chance = oltre il caso
trial-lead-is-chance = { $k } su { $n } preferiscono { $arm }; il caso da solo lo fa { $chance }.
trial-nobody-compared = Nessuno è in testa.
trial-chance-nearly-always = quasi a ogni tavola
trial-chance-every-other = una tavola sì e una no
trial-chance-one-in = a una tavola su { $n }
trial-liking = Piace di più
trial-even = pari
trial-found-same = { $n } li trovano uguali
trial-so-many-like = { $k } su { $n } preferiscono { $arm }
trial-so-many-more = { $k } su { $n } ne trovano di più in { $arm }
trial-middle-difference = di { $by } su 5 nel mezzo
trial-shown = Mostrato: per caso { $chance }
trial-not-shown = Non mostrato: per caso { $chance }
trial-bar-says = { $b } contro { $a }: { $mid } % per { $a }, la quota vera fra { $low } e { $high } %
trial-bar-how = quota di chi li ha distinti; la barra contiene quella vera 19 volte su 20
trial-what-it-shows = Che cosa mostra
trial-nothing-yet = Ancora nulla: comincia con il primo tocco di chi assaggia.
trial-next-head = Che cosa direbbe di più ora
trial-plan-it = Pianificarla
trial-next-taste = Fare assaggiare.
trial-next-taste-why = { $n } assaggiatori o più; ciascuno riceve i piatti in un ordine suo.
trial-next-again = { $a } contro { $b } ancora una volta, con { $n } assaggiatori in tutto.
trial-next-again-why = Se il vantaggio è vero, tanti lo mostrerebbero quattro volte su cinque. Meno lo lascerebbero aperto.
trial-next-larger = La stessa con un passo più grande.
trial-next-larger-why = Una differenza così piccola, se c’è, nessuna tavola è abbastanza grande da mostrarla.
trial-next-between = Fra { $a } e { $b }.
trial-next-between-why = Il migliore ha altri da ambo le parti: un passo più fine trova dov’è.
trial-next-beyond = Oltre { $a }.
trial-next-beyond-why = Il migliore sta al bordo di ciò che si è provato: nessuno sa ancora dove gira.
trial-next-another = { $a } contro qualcosa di nuovo.
trial-next-another-why = Ciò che variava non ha un ordine, quindi non c’è un mezzo.
trial-liked-best = il preferito
trial-was-plate = piatto { $letter }
trial-scores-why = Il mezzo dei punteggi, da 1 a 5: quanto ce n’è, non quanto è buono.
trial-parts-of-one = Parti di un impasto
trial-split-equal = L’impasto è uno solo: tutto ne è uguale.
trial-table = La tavola
trial-table-why = Un posto dopo l’altro. I piatti hanno lettere; questa pagina le svela solo dopo che qualcuno ha assaggiato.
trial-taster = Assaggiatore { $n }
trial-taste-in-order = assaggiare { $order } in quest’ordine
trial-taste-one = Un tocco lo dice, un secondo lo ritira.
trial-taste-two = Lasciar stare ciò che non si distingue.
trial-taster-before = Assaggiatore prima
trial-taster-next = Assaggiatore dopo
trial-which-better = Fra { $a } e { $b } preferisco
trial-plate = Piatto { $letter }
trial-score-label = Piatto { $plate }, { $what }: { $score } su 5
trial-nothing-of-this-table = Questo a questa tavola non si può dire.

late-cell = { $column }, riga { $line }
late-col-date = Giorno
late-col-time = Servito
late-col-formula = Impasto
late-col-pieces = Pezzi
late-col-yeast = Lievito
late-col-cold = Freddo
late-col-dough = Pasta a
late-col-fridge = Frigo
late-col-stood = Aperto
late-col-bake = Cotto
late-col-base = Fondo
late-col-top = Sopra
late-col-remark = Detto
late-head = Ciò che si è cotto,
late-core = annotato in seguito
late-not-kept = Non è ancora tenuto nulla:
late-cells-wrong = { $n ->
    [one] una cosa non si legge
   *[other] { $n } cose non si leggono
}
late-line-one = Un giorno e come si è aperto bastano per una riga.
late-line-two = Impasto, ora, pezzi, lievito e freddo valgono come nella riga sopra dove non si dice nulla.
late-what-is-wrong = Che cosa non si legge
late-line = Riga { $n }
late-line-column = Riga { $n }, { $column }
late-grid = Una dozzina di cotture
late-number = Riga
late-keep = Tenerle
late-as-above = Si tengono tutte le righe, o nessuna. Una tabella da un foglio di calcolo si può incollare in qualunque cella.
late-csv-head = Molte insieme, come CSV
late-csv-why = La prima riga nomina le colonne: { $known }. Al massimo { $most } cotture; temperature come le legge la cucina.
late-csv-keep = Tenere la tabella
trial-at-the-bench = Al banco
trial-kept-before = Questa pagina è già stata tenuta, come { $code }, con un’altra prova. La tua è qui e non è ancora tenuta: farla ora come prova a sé.
late-so-many-kept = { $n ->
    [one] Una cottura è tenuta.
   *[other] { $n } cotture sono tenute.
}
trial-evenings = Serviti in { $n } sere: l’aria, il fuoco e le mani di ciascuna stanno anche loro nelle differenze.
