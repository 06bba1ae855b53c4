-- How long the hands of this kitchen take for one pizza; what it usually takes where nothing is said. A kitchen may have
-- no fine scale.
ALTER TABLE kitchen
  ADD COLUMN work JSON NULL AFTER room_off_c,
  MODIFY fine_scale_g DOUBLE NULL;

-- Since when the figures of a pantry item are what stood there: what was taken later comes off them.
ALTER TABLE pantry_item
  ADD COLUMN counted_at DATETIME(3) NULL AFTER created_at;
UPDATE pantry_item SET counted_at = UTC_TIMESTAMP(3) WHERE counted_at IS NULL;

-- What batches take of the pantry, a row for each ingredient of each stage: reserved while `used_at` is empty, taken from then
-- on. Written anew whenever the plan or what happened changes it.
CREATE TABLE stock_use (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  batch_id BIGINT UNSIGNED NOT NULL,
  row_no SMALLINT UNSIGNED NOT NULL,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  item_id BIGINT UNSIGNED NULL,
  name VARCHAR(80) NOT NULL,
  grams DOUBLE NOT NULL,
  used_at DATETIME(3) NULL,
  UNIQUE KEY stock_of_batch (batch_id, row_no),
  KEY stock_of_item (kitchen_id, item_id, used_at),
  CONSTRAINT stock_use_batch FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE,
  CONSTRAINT stock_use_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id)
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;

-- Counts what was said of a kitchen's places, so that whoever holds a copy knows whether it is the last.
CREATE TABLE place_said (
  kitchen_id BIGINT UNSIGNED NOT NULL PRIMARY KEY,
  revision BIGINT UNSIGNED NOT NULL
) ENGINE=InnoDB;
