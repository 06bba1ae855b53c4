-- Every row belongs to a kitchen. Instants are UTC. What was observed is only ever added.
CREATE TABLE kitchen (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(80) NOT NULL,
  time_zone VARCHAR(64) NOT NULL,
  altitude_m DOUBLE NOT NULL,
  temperature_unit ENUM('celsius', 'fahrenheit') NOT NULL DEFAULT 'celsius',
  weight_unit ENUM('grams', 'ounces') NOT NULL DEFAULT 'grams',
  room_c DOUBLE NOT NULL,
  fridge_c DOUBLE NOT NULL,
  tap_water_c DOUBLE NOT NULL,
  kitchen_scale_g DOUBLE NOT NULL,
  fine_scale_g DOUBLE NOT NULL,
  created_at DATETIME(3) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- A batch keeps what was asked and what was worked out; neither is ever changed.
CREATE TABLE batch (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  code VARCHAR(12) NOT NULL,
  -- The form it came from: a second save of the same form finds the first.
  form_key VARCHAR(36) NOT NULL,
  name VARCHAR(80) NOT NULL,
  style VARCHAR(32) NOT NULL,
  serve_at DATETIME(3) NOT NULL,
  request JSON NOT NULL,
  result JSON NOT NULL,
  -- Counts what was entered about it: whoever holds a copy sees by this number whether it is still true.
  revision BIGINT UNSIGNED NOT NULL DEFAULT 0,
  -- Demo batches may be made anew; as soon as a maker enters something they are the maker's.
  origin ENUM('maker', 'demo') NOT NULL,
  created_at DATETIME(3) NOT NULL,
  finished_at DATETIME(3) NULL,
  UNIQUE KEY batch_code (kitchen_id, code),
  UNIQUE KEY batch_form (kitchen_id, form_key),
  KEY batch_live (kitchen_id, finished_at, serve_at),
  CONSTRAINT batch_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE observation (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  batch_id BIGINT UNSIGNED NOT NULL,
  entry_key VARCHAR(36) NOT NULL,
  kind ENUM('step_done', 'step_undone', 'reading', 'remark') NOT NULL,
  step_position SMALLINT UNSIGNED NULL,
  subject ENUM('dough', 'room', 'fridge', 'water', 'floor') NULL,
  celsius DOUBLE NULL,
  remark VARCHAR(2000) NULL,
  at DATETIME(3) NOT NULL,
  recorded_at DATETIME(3) NOT NULL,
  UNIQUE KEY observation_entry (kitchen_id, entry_key),
  KEY observation_batch (kitchen_id, batch_id, at),
  KEY observation_reading (kitchen_id, kind, at),
  CONSTRAINT observation_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT observation_of FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE tap (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  batch_id BIGINT UNSIGNED NOT NULL,
  entry_key VARCHAR(36) NOT NULL,
  pizza INT UNSIGNED NOT NULL,
  kind ENUM('in', 'turned', 'out', 'verdict') NOT NULL,
  base ENUM('pale', 'right', 'dark') NULL,
  top ENUM('pale', 'right', 'dark') NULL,
  at DATETIME(3) NOT NULL,
  recorded_at DATETIME(3) NOT NULL,
  UNIQUE KEY tap_entry (kitchen_id, entry_key),
  KEY tap_batch (kitchen_id, batch_id, at),
  CONSTRAINT tap_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT tap_of FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
