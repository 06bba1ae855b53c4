-- Mix: mixers of a kitchen's own.
ALTER TABLE pantry_item
  MODIFY kind ENUM('flour', 'leaven', 'scale', 'pan', 'box', 'good', 'style', 'place', 'method', 'oven', 'mixer') NOT NULL;
