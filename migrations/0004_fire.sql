-- Fire: ovens of a kitchen's own, readings of the dome, taps taken back, and what was acknowledged before a fire.
ALTER TABLE pantry_item
  MODIFY kind ENUM('flour', 'leaven', 'scale', 'pan', 'box', 'good', 'style', 'place', 'method', 'oven') NOT NULL;

ALTER TABLE tap
  MODIFY kind ENUM('in', 'turned', 'out', 'verdict', 'undone') NOT NULL;

ALTER TABLE observation
  MODIFY subject ENUM('dough', 'room', 'fridge', 'water', 'floor', 'dome') NULL,
  MODIFY kind ENUM('step_done', 'step_undone', 'reading', 'remark', 'step_skipped', 'grown', 'cautioned') NOT NULL;
