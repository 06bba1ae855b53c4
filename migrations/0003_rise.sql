-- Rise: plans that change, places and methods of a kitchen's own, its life, and its calendar feed.
ALTER TABLE kitchen
  ADD COLUMN life JSON NULL,
  ADD COLUMN fridge_measured BOOLEAN NOT NULL DEFAULT FALSE,
  ADD COLUMN fridge_off_c DOUBLE NOT NULL DEFAULT 1,
  ADD COLUMN room_off_c DOUBLE NOT NULL DEFAULT 2,
  -- The secret part of the feed's address; empty until it is first asked for.
  ADD COLUMN feed_key VARCHAR(64) NOT NULL DEFAULT '';

ALTER TABLE pantry_item
  MODIFY kind ENUM('flour', 'leaven', 'scale', 'pan', 'box', 'good', 'style', 'place', 'method') NOT NULL;

ALTER TABLE observation
  MODIFY kind ENUM('step_done', 'step_undone', 'reading', 'remark', 'step_skipped', 'grown') NOT NULL,
  ADD COLUMN times DOUBLE NULL AFTER celsius;

ALTER TABLE batch
  -- Counts its plans from 0: the calendar's sequence, and what an edit began from.
  ADD COLUMN plan INT UNSIGNED NOT NULL DEFAULT 0,
  ADD COLUMN planned_at DATETIME(3) NULL;

-- Plans that another took the place of.
CREATE TABLE batch_plan (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  batch_id BIGINT UNSIGNED NOT NULL,
  plan INT UNSIGNED NOT NULL,
  request JSON NOT NULL,
  result JSON NOT NULL,
  -- What took its place, and why.
  why VARCHAR(200) NOT NULL,
  replaced_at DATETIME(3) NOT NULL,
  UNIQUE KEY batch_plan_number (batch_id, plan),
  CONSTRAINT batch_plan_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT batch_plan_of FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
