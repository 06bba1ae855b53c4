words-what-the-words = Che cosa vogliono
words-mean = dire le parole
words-how-sure = Quanto è sicuro
words-yeasts-flours-and-fridges-differ = Lieviti, farine e frighi sono diversi. Una dose è giusta entro un fattore 1,6; una finestra al meglio entro un quarto d’ora. Un frigo appena più caldo del previsto rende molto più svelto un impasto al freddo. Misura il frigo e l’impasto, e annota le letture sull’impasto.
words-what-is-not-here = Che cosa non c’è
words-slow-rise-gives-planning-figures = Slow Rise dà cifre per pianificare. Decidono le norme locali su fuoco, gas, alimenti ed elettricità, i manuali dei costruttori e gli abilitati.
words-back-to-the-bench = Torna al Banco
