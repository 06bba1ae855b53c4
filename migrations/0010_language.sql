-- The language that somebody chose; '' as their browser says. Nobody could choose one before.
ALTER TABLE person MODIFY language VARCHAR(8) NOT NULL DEFAULT '';
UPDATE person SET language = '';
