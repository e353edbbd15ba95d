ALTER TABLE layouts
  DROP COLUMN doing;
