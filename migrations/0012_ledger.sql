-- By what a bake is found in the ledger: style, formula, flours, oven, how its sides came out, who worked on it, what was said. It
-- follows from the plan and the entries, and is written anew whenever they change.
CREATE TABLE IF NOT EXISTS batch_word (
  batch_id BIGINT UNSIGNED NOT NULL,
  kind VARCHAR(8) NOT NULL,
  word VARCHAR(190) NOT NULL,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  PRIMARY KEY (batch_id, kind, word),
  KEY word_of_kitchen (kitchen_id, kind, word),
  CONSTRAINT batch_word_batch FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE,
  CONSTRAINT batch_word_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Trials: what is varied, the bakes or pieces that are its arms (by their codes), and how many taste. What was tasted stands among
-- the entries of those bakes.
CREATE TABLE IF NOT EXISTS trial (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  code VARCHAR(12) NOT NULL,
  trial_key CHAR(36) NOT NULL,
  name VARCHAR(80) NOT NULL,
  design LONGTEXT NOT NULL,
  created_at DATETIME(3) NOT NULL,
  by_person BIGINT UNSIGNED NULL,
  by_name VARCHAR(60) NOT NULL DEFAULT '',
  UNIQUE KEY trial_code (kitchen_id, code),
  CONSTRAINT trial_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- What was practised: cases are numbered for each hand, so that none comes twice.
CREATE TABLE IF NOT EXISTS practised (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  who VARCHAR(60) NOT NULL,
  level TINYINT UNSIGNED NOT NULL,
  next_case INT UNSIGNED NOT NULL,
  answered INT UNSIGNED NOT NULL,
  hit INT UNSIGNED NOT NULL,
  UNIQUE KEY practised_by (kitchen_id, who, level),
  CONSTRAINT practised_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
