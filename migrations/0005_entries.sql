-- Trust: one table for everything that is entered, one row for every form that made something.
-- Every statement may be run again: a migration that was cut off in the middle goes on from its beginning.

-- The kind is an open word and what it says is JSON: a program that does not know a kind passes over it.
CREATE TABLE IF NOT EXISTS entry (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  batch_id BIGINT UNSIGNED NOT NULL,
  entry_key VARCHAR(36) NOT NULL,
  kind VARCHAR(24) NOT NULL,
  facts JSON NOT NULL,
  -- Said of a place of the kitchen: it counts for every batch that lies there.
  place VARCHAR(80) NULL,
  -- On this server's clock; what the device's own clock said stands beside it.
  at DATETIME(3) NOT NULL,
  device_at DATETIME(3) NULL,
  recorded_at DATETIME(3) NOT NULL,
  UNIQUE KEY entry_once (kitchen_id, entry_key),
  KEY entry_batch (kitchen_id, batch_id, at, id),
  KEY entry_place (kitchen_id, place, at),
  CONSTRAINT entry_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT entry_of FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

INSERT IGNORE INTO entry (kitchen_id, batch_id, entry_key, kind, place, facts, at, recorded_at)
SELECT kitchen_id, batch_id, entry_key, kind, IF(kind = 'reading' AND subject IN ('room', 'fridge'), subject, NULL),
       CASE WHEN kind IN ('step_done', 'step_undone', 'step_skipped') THEN JSON_OBJECT('step_position', step_position)
            WHEN kind = 'reading' THEN JSON_OBJECT('subject', subject, 'celsius', celsius)
            WHEN kind = 'grown' THEN JSON_OBJECT('times', times)
            WHEN kind = 'remark' THEN JSON_OBJECT('remark', remark)
            ELSE JSON_OBJECT() END,
       at, recorded_at
FROM observation ORDER BY id;

-- A key that a tap and an observation shared by chance: the tap gets one of its own.
INSERT IGNORE INTO entry (kitchen_id, batch_id, entry_key, kind, facts, at, recorded_at)
SELECT t.kitchen_id, t.batch_id, IF(o.id IS NULL, t.entry_key, CONCAT('tap-', t.id)), t.kind,
       IF(t.kind = 'verdict', JSON_OBJECT('pizza', t.pizza, 'base', t.base, 'top', t.top), JSON_OBJECT('pizza', t.pizza)),
       t.at, t.recorded_at
FROM tap t LEFT JOIN observation o ON o.kitchen_id = t.kitchen_id AND o.entry_key = t.entry_key
ORDER BY t.id;

-- What a form made: the same form sent again finds it, another content under its key is told.
CREATE TABLE IF NOT EXISTS made (
  kitchen_id BIGINT UNSIGNED NOT NULL,
  -- "batch", "version", a kind of the pantry: one form may make one of each.
  what VARCHAR(24) NOT NULL,
  form_key VARCHAR(36) NOT NULL,
  content BINARY(32) NOT NULL,
  -- Where it leads: a batch's code, a formula's id and number, an item's id.
  leads_to VARCHAR(200) NOT NULL,
  made_at DATETIME(3) NOT NULL,
  PRIMARY KEY (kitchen_id, what, form_key),
  CONSTRAINT made_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Which epoch of the database this is: a restore begins another, and whoever holds copies throws them away.
CREATE TABLE IF NOT EXISTS site (
  id TINYINT UNSIGNED NOT NULL PRIMARY KEY,
  epoch VARCHAR(36) NOT NULL
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
INSERT IGNORE INTO site (id, epoch) VALUES (1, UUID());

-- A batch that was never mixed is cancelled, not finished: it leaves no bake.
ALTER TABLE batch
  ADD COLUMN IF NOT EXISTS cancelled_at DATETIME(3) NULL AFTER finished_at,
  ADD KEY IF NOT EXISTS batch_done (kitchen_id, finished_at, id);

-- The feed's key is kept as what it hashes to.
ALTER TABLE kitchen
  ADD COLUMN IF NOT EXISTS feed_hash VARBINARY(32) NULL AFTER feed_key;
UPDATE kitchen SET feed_hash = UNHEX(SHA2(feed_key, 256)) WHERE feed_key <> '' AND feed_hash IS NULL;
UPDATE kitchen SET feed_key = '' WHERE feed_hash IS NOT NULL;

-- Kinds of the pantry are an open word, too.
ALTER TABLE pantry_item MODIFY kind VARCHAR(24) NOT NULL;
