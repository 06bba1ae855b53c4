words-what-the-words = What the words
words-mean = mean
words-how-sure = How sure
words-yeasts-flours-and-fridges-differ = Yeasts, flours and fridges differ. A dose is right within a factor of 1.6; a window to about a quarter of an hour at best. A fridge a little warmer than planned makes a cold dough a good deal quicker. Measure the fridge and the dough, and write the readings down on the batch.
words-what-is-not-here = What is not here
words-slow-rise-gives-planning-figures = Slow Rise gives planning figures. Local fire, gas, food and electrical codes, the makers' manuals and licensed trades decide.
words-back-to-the-bench = Back to the Bench
