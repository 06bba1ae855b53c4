-- How a kitchen reads weights and lengths, what it pays in, what its mixer holds. The revision tells whether
-- somebody else changed it meanwhile.
ALTER TABLE kitchen
  MODIFY weight_unit ENUM('grams', 'ounces', 'kilograms', 'pounds') NOT NULL DEFAULT 'grams',
  ADD COLUMN length_unit ENUM('centimetres', 'inches') NOT NULL DEFAULT 'centimetres' AFTER weight_unit,
  ADD COLUMN currency VARCHAR(8) NOT NULL DEFAULT '€' AFTER length_unit,
  ADD COLUMN mixer_holds_g DOUBLE NULL AFTER fine_scale_g,
  ADD COLUMN revision BIGINT UNSIGNED NOT NULL DEFAULT 0;

-- A formula is a row of versions; a version is never changed and never goes.
CREATE TABLE formula (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  name VARCHAR(80) NOT NULL,
  style_key VARCHAR(64) NOT NULL,
  style_name VARCHAR(80) NOT NULL,
  -- The number of its latest version.
  head INT UNSIGNED NOT NULL,
  archived_at DATETIME(3) NULL,
  origin ENUM('maker', 'demo') NOT NULL,
  created_at DATETIME(3) NOT NULL,
  changed_at DATETIME(3) NOT NULL,
  KEY formula_list (kitchen_id, archived_at, changed_at),
  CONSTRAINT formula_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

CREATE TABLE formula_version (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  formula_id BIGINT UNSIGNED NOT NULL,
  number INT UNSIGNED NOT NULL,
  -- The form it came from: a second save of the same form finds the first.
  form_key VARCHAR(36) NOT NULL,
  name VARCHAR(80) NOT NULL,
  why VARCHAR(1000) NOT NULL,
  formula JSON NOT NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY formula_version_number (formula_id, number),
  UNIQUE KEY formula_version_form (kitchen_id, form_key),
  CONSTRAINT formula_version_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT formula_version_of FOREIGN KEY (formula_id) REFERENCES formula (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- A batch points to the version that it was made from.
ALTER TABLE batch
  MODIFY style VARCHAR(64) NOT NULL,
  ADD COLUMN formula_version_id BIGINT UNSIGNED NULL,
  ADD CONSTRAINT batch_formula FOREIGN KEY (formula_version_id) REFERENCES formula_version (id);

-- What a kitchen has: facts as they were entered. Formulas and batches hold copies of what they use.
CREATE TABLE pantry_item (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  kind ENUM('flour', 'leaven', 'scale', 'pan', 'box', 'good', 'style') NOT NULL,
  name VARCHAR(80) NOT NULL,
  facts JSON NOT NULL,
  -- Counts its changes: a save that began from an older one is refused.
  revision BIGINT UNSIGNED NOT NULL DEFAULT 1,
  archived_at DATETIME(3) NULL,
  created_at DATETIME(3) NOT NULL,
  KEY pantry_list (kitchen_id, kind, archived_at, name),
  CONSTRAINT pantry_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
