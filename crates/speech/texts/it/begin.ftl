## The first start: what stands on the shelf until somebody enters their own.
generic-soft = Soft wheat flour, W 200
generic-medium = Pizza flour, W 270
generic-strong = Strong flour, W 340
generic-whole = Wholemeal wheat
generic-semolina = Durum semolina, twice milled
good-salt = Salt
good-oil = Olive oil
good-sugar = Sugar
good-tomatoes = Tomatoes, peeled
good-mozzarella = Mozzarella
good-hard-cheese = Hard cheese, grated
good-basil = Basil
good-ham = Cooked ham
no-pieces-to-begin-with = This style says nothing of its pieces; choose another one.
