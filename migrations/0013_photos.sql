-- Photos of pizzas, made small before they come. What each shows, of which pizza, when and by whom, says its entry.
CREATE TABLE IF NOT EXISTS photo (
  id BIGINT UNSIGNED NOT NULL AUTO_INCREMENT PRIMARY KEY,
  kitchen_id BIGINT UNSIGNED NOT NULL,
  batch_id BIGINT UNSIGNED NOT NULL,
  entry_key VARCHAR(36) NOT NULL,
  width SMALLINT UNSIGNED NOT NULL,
  height SMALLINT UNSIGNED NOT NULL,
  picture MEDIUMBLOB NOT NULL,
  small MEDIUMBLOB NOT NULL,
  UNIQUE KEY photo_entry (kitchen_id, entry_key),
  KEY photo_batch (batch_id),
  CONSTRAINT photo_kitchen FOREIGN KEY (kitchen_id) REFERENCES kitchen (id),
  CONSTRAINT photo_of FOREIGN KEY (kitchen_id, entry_key) REFERENCES entry (kitchen_id, entry_key) ON DELETE CASCADE,
  CONSTRAINT photo_batch_of FOREIGN KEY (batch_id) REFERENCES batch (id) ON DELETE CASCADE
) ENGINE=InnoDB DEFAULT CHARSET=utf8mb4 COLLATE=utf8mb4_unicode_520_ci;
