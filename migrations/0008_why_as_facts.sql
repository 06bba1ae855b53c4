-- Why a plan was left is a fact, as JSON; what was kept before stays as it was written.
ALTER TABLE batch_plan
  MODIFY why TEXT NOT NULL;
