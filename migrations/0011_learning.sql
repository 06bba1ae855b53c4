-- Whether a kitchen plans by the book alone, whatever its log says.
ALTER TABLE kitchen ADD COLUMN IF NOT EXISTS uses_book BOOLEAN NOT NULL DEFAULT FALSE;
