-- People: who there is, what each may do in which kitchen, where they are signed in, and what was given away by link.
-- Every statement may be run again.

CREATE TABLE IF NOT EXISTS person (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  name VARCHAR(60) NOT NULL,
  -- The name as sign-in looks it up: one name, however it is typed.
  name_key VARCHAR(60) CHARACTER SET utf8mb4 COLLATE utf8mb4_bin NOT NULL,
  initials VARCHAR(4) NOT NULL,
  -- None: nobody can sign in by it yet.
  password_hash VARCHAR(255) NULL,
  password_at DATETIME(3) NULL,
  language VARCHAR(8) NOT NULL DEFAULT 'en',
  -- The kitchen that they were in last.
  kitchen_id BIGINT UNSIGNED NULL,
  made_at DATETIME(3) NOT NULL,
  UNIQUE KEY person_name (name_key),
  CONSTRAINT person_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id) ON DELETE SET NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Roles are data: an open word, so that an older program passes over one that it does not know.
CREATE TABLE IF NOT EXISTS member (
  kitchen_id BIGINT UNSIGNED NOT NULL,
  person_id BIGINT UNSIGNED NOT NULL,
  role VARCHAR(16) NOT NULL,
  since DATETIME(3) NOT NULL,
  PRIMARY KEY (kitchen_id, person_id),
  KEY member_of (person_id),
  CONSTRAINT member_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id) ON DELETE CASCADE,
  CONSTRAINT member_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- What opens something to whoever has its secret, of which only the hash is kept: an invitation, a link for a crew, a tablet on
-- the wall, a new password.
CREATE TABLE IF NOT EXISTS pass (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kind VARCHAR(16) NOT NULL,
  hash BINARY(32) NOT NULL,
  -- A tablet has none before an owner took it in.
  kitchen_id BIGINT UNSIGNED NULL,
  -- Whose password.
  person_id BIGINT UNSIGNED NULL,
  -- What it makes of whoever comes by it.
  role VARCHAR(16) NOT NULL,
  -- The one batch that a crew's link leads to.
  batch_id BIGINT UNSIGNED NULL,
  name VARCHAR(60) NOT NULL,
  made_by VARCHAR(60) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  ends_at DATETIME(3) NOT NULL,
  used_at DATETIME(3) NULL,
  UNIQUE KEY pass_hash (hash),
  KEY pass_kitchen (kitchen_id, kind, ends_at),
  CONSTRAINT pass_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id) ON DELETE CASCADE,
  CONSTRAINT pass_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Where somebody is signed in. The browser's secret is kept as its hash; the number is what a list shows and ends.
CREATE TABLE IF NOT EXISTS session (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  hash BINARY(32) NOT NULL,
  person_id BIGINT UNSIGNED NULL,
  pass_id BIGINT UNSIGNED NULL,
  data LONGTEXT NOT NULL,
  agent VARCHAR(200) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  seen_at DATETIME(3) NOT NULL,
  ends_at DATETIME(3) NOT NULL,
  UNIQUE KEY session_hash (hash),
  KEY session_person (person_id),
  KEY session_ends (ends_at),
  CONSTRAINT session_person FOREIGN KEY (person_id) REFERENCES person (id) ON DELETE CASCADE,
  CONSTRAINT session_pass FOREIGN KEY (pass_id) REFERENCES pass (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Wrong passwords lately, by name and by address, as hashes; kept here so that a restart forgives nobody.
CREATE TABLE IF NOT EXISTS wrong_try (
  hash BINARY(32) NOT NULL PRIMARY KEY,
  tries INT UNSIGNED NOT NULL,
  last_at DATETIME(3) NOT NULL,
  KEY wrong_try_last (last_at)
) ENGINE=InnoDB;

-- Who is asked for where nobody signs in: the person at home.
ALTER TABLE site ADD COLUMN IF NOT EXISTS home_person BIGINT UNSIGNED NULL;

-- Which kitchen is the demo's: it is not looked for by its name, which anybody may change.
ALTER TABLE kitchen ADD COLUMN IF NOT EXISTS origin VARCHAR(8) NOT NULL DEFAULT 'maker';
UPDATE kitchen SET origin = 'demo' WHERE id IN (SELECT kitchen_id FROM batch WHERE origin = 'demo');

-- Who did it stands beside what was entered, made and planned.
ALTER TABLE entry ADD COLUMN IF NOT EXISTS by_person BIGINT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS by_name VARCHAR(60) NOT NULL DEFAULT '';
ALTER TABLE batch ADD COLUMN IF NOT EXISTS by_person BIGINT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS by_name VARCHAR(60) NOT NULL DEFAULT '';
ALTER TABLE batch_plan ADD COLUMN IF NOT EXISTS by_person BIGINT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS by_name VARCHAR(60) NOT NULL DEFAULT '';
ALTER TABLE formula_version ADD COLUMN IF NOT EXISTS by_person BIGINT UNSIGNED NULL, ADD COLUMN IF NOT EXISTS by_name VARCHAR(60) NOT NULL DEFAULT '';

-- What belongs to something belongs to the same kitchen: the database itself refuses a row that reaches across.
ALTER TABLE batch ADD UNIQUE KEY IF NOT EXISTS batch_here (kitchen_id, id);
ALTER TABLE formula ADD UNIQUE KEY IF NOT EXISTS formula_here (kitchen_id, id);
ALTER TABLE formula_version ADD UNIQUE KEY IF NOT EXISTS version_here (kitchen_id, id);
ALTER TABLE pantry_item ADD UNIQUE KEY IF NOT EXISTS item_here (kitchen_id, id);

ALTER TABLE entry DROP FOREIGN KEY IF EXISTS entry_of;
ALTER TABLE entry ADD CONSTRAINT entry_of FOREIGN KEY IF NOT EXISTS (kitchen_id, batch_id) REFERENCES batch (kitchen_id, id) ON DELETE CASCADE;
ALTER TABLE batch_plan DROP FOREIGN KEY IF EXISTS batch_plan_of;
ALTER TABLE batch_plan ADD CONSTRAINT batch_plan_of FOREIGN KEY IF NOT EXISTS (kitchen_id, batch_id) REFERENCES batch (kitchen_id, id) ON DELETE CASCADE;
ALTER TABLE stock_use DROP FOREIGN KEY IF EXISTS stock_use_batch;
ALTER TABLE stock_use ADD CONSTRAINT stock_use_batch FOREIGN KEY IF NOT EXISTS (kitchen_id, batch_id) REFERENCES batch (kitchen_id, id) ON DELETE CASCADE;
ALTER TABLE stock_use ADD CONSTRAINT stock_use_item FOREIGN KEY IF NOT EXISTS (kitchen_id, item_id) REFERENCES pantry_item (kitchen_id, id);
ALTER TABLE formula_version DROP FOREIGN KEY IF EXISTS formula_version_of;
ALTER TABLE formula_version ADD CONSTRAINT formula_version_of FOREIGN KEY IF NOT EXISTS (kitchen_id, formula_id) REFERENCES formula (kitchen_id, id);
ALTER TABLE batch DROP FOREIGN KEY IF EXISTS batch_formula, DROP KEY IF EXISTS batch_formula;
ALTER TABLE batch ADD CONSTRAINT batch_formula_here FOREIGN KEY IF NOT EXISTS (kitchen_id, formula_version_id) REFERENCES formula_version (kitchen_id, id);
ALTER TABLE pass ADD CONSTRAINT pass_batch FOREIGN KEY IF NOT EXISTS (kitchen_id, batch_id) REFERENCES batch (kitchen_id, id) ON DELETE CASCADE;
ALTER TABLE place_said ADD CONSTRAINT place_said_kitchen FOREIGN KEY IF NOT EXISTS (kitchen_id) REFERENCES kitchen (id);
