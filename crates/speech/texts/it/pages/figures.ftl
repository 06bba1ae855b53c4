figures-as-it-goes = come va, { $now }
figures-as-planned = come previsto, { $now }
figures-for-dough-warmer-by-mixing = per un impasto a { $dough_c }°; l’impastamento lo scalda di { $full }
figures-not-met = non rispettata
figures-not-known = non si sa
figures-without-a-price = Senza prezzo: { $join }.
figures-things-have-no-price-yet = { $n } cose non hanno ancora un prezzo.
figures-cost-the-flour-has-no = Costo: la farina non ha prezzo; e spesa
figures-cost-a-and-shopping = Costo { $per_ball } a { $piece }, e spesa
figures-a-with-toppings-in-all = { $per_ball } a { $piece }, { $per_pizza } con i condimenti; { $toppings } in tutto.{ $missing }
figures-cook-first = da cuocere prima
figures-after-the-bake = dopo la cottura
figures-as-you-set-it-for = { $percent } % come l’hai messo tu, per { $h } h.
figures-none-in-the-dough-the = Niente nell’impasto: lo fa crescere il prefermento.
figures-for-h-good-to-a = { $percent } % per { $h } h; giusto entro un fattore 1,6.
figures-from-pieces-on-it-weighs = Da { $n } pezzi in su si pesa senza.
figures-a-poolish-or-a-levain = { $larger } Anche un poolish o un lievito madre lo fa crescere senza.
figures-for-the = per { $name }
figures-a-pocket-scale-that-reads = { $s }Una bilancina che legge 0,01 g risparmia i { $thrown_g } che avanzano.
figures-is-too-small-to-weigh = { $dose }{ $of } è troppo poco da pesare
figures-scale-reads-g-it-holds = La bilancia legge { $dose } g. Contiene { $dose2 } di lievito; versa altri { $water } d’acqua. Preparala fresca ogni volta.{ $pays } { $columns }
figures-and = { $p } e { $to_lowercase }
figures-flour-water = { $flour } di farina, { $water } d’acqua
figures-begin-the = Comincia { $name } { $start }.
figures-begin-mixing = Comincia a impastare { $start }.
figures-never-ready-see-the-judgement = Mai pronto: guarda il giudizio.
figures-does-not-fit = non ci sta
figures-ready-serve = Pronto { $span }. Il servizio delle { $serve } { $fit }.
figures-all-of-the = Tutto { $name }
figures-stay-in-the-jar = ; { $kept } restano nel barattolo
figures-feed-the-ripe-seed-water = Rinfresca { $name }: { $seed_g } di madre matura, { $flour_fact }, { $water_g } d’acqua fanno { $makes_g }; { $goes_in } vanno dentro{ $keep }. La sua colonna qui sopra è ciò che contiene allora, la madre contata come delle stesse farine.
figures-true-hydration-nominal-starter-old = Idratazione vera { $t } %, nominale { $n } %: madre, pasta di riporto, miele e latte portano farina e acqua proprie.
figures-in = in { $name }
figures-rounding-puts-yeast-than-computed = Arrotondando c’è il { $worst } % di lievito in { $value }{ $of } rispetto al calcolo.
figures-salt = Sale
figures-oil = Olio
figures-sugar = Zucchero
figures-and-for-bowl-and-hands = { $portions } e { $loss_percent } % per vasca e mani; un punto percentuale è { $sum_percent }.
figures-in-it = contiene, { $at }
figures-word-more = più
figures-word-less = meno
figures-word-met = rispettata
figures-word-pan = teglia
figures-word-ball = panetto
figures-n-balls = { $word } { $n ->
    [one] panetto
   *[other] panetti
 }
figures-n-pans = { $word } { $n ->
    [one] teglia
   *[other] teglie
 }
figures-takes = { $what } { $n ->
    [one] prende
   *[other] prendono
 }
figures-fits = ci sta
figures-yours-from-bakes = { $percent } %, per { $h } h: la tua, da { $n } infornate, buona a ×/÷ { $good }; pronto quando si serve { $met }. Il manuale dice { $book } %.
