## Ciò che va in un impasto
flour = farina
water = acqua
salt = sale
oil = olio
sugar = zucchero
what-else = di ciò che altro entra
ripe-seed = madre matura
yeast-fresh = lievito fresco
yeast-active-dry = lievito secco attivo
yeast-instant = lievito istantaneo
yeast-fresh-handling = sbriciola il lievito nell’acqua
yeast-active-dry-handling = prima bagna il lievito in poca acqua a { $c }
yeast-instant-handling = il lievito può andare secco con la farina
poolish = poolish
biga = biga
levain = lievito madre
old-dough = pasta di riporto
preferment = prefermento
honey = miele
syrup = sciroppo
malt-active = malto attivo
malt-plain = malto semplice
milk-powder = latte in polvere
milk = latte
butter = burro
fat = strutto o grasso
seeds = semi
dried-mother = madre essiccata
other-ingredient = altro

## Fasi di un impasto
leg-frozen = congelato
leg-cold-bulk = massa al freddo
leg-cold = al freddo
leg-bulk = puntata
leg-balls = panetti
leg-pans = in teglia
dough = impasto
starter = madre
flour-wholemeal = integrale
flour-semolina = semola
flour-spelt = farro
flour-rye = segale

## Come si dice una misura
mode-balls = panetti
mode-discs = dischi
mode-pans = teglie
mode-total = totale
mode-flour = farina
path-hours-frozen = { $time } congelato
path-hours-cold = { $time } al freddo
so-long-leg = { $time } { $leg }
