-- The diagnosis asks, and a check may be left out with a reason: two more kinds of step. A CHECK cannot be altered, so the table is made anew;
-- the foreign keys that name it are looked at again before the transaction ends.
CREATE TABLE steps_next (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'answer', 'confirmation', 'take', 'skip', 'fix', 'test-cut', 'note', 'event', 'hold', 'release', 'close', 'undo')),
  data_json TEXT NOT NULL CONSTRAINT steps_data_valid CHECK (json_valid(data_json)),
  undoes_id INTEGER CONSTRAINT steps_undoes_fk REFERENCES steps (id) CONSTRAINT steps_undone_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT steps_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT steps_undo_names_step CHECK ((kind = 'undo') = (undoes_id IS NOT NULL))
) STRICT;
INSERT INTO steps_next SELECT * FROM steps;
DROP TABLE steps;
ALTER TABLE steps_next RENAME TO steps;
CREATE INDEX steps_by_job ON steps (job_id, id);
CREATE TRIGGER steps_kept BEFORE UPDATE ON steps BEGIN SELECT RAISE(ABORT, 'steps are only added'); END;
CREATE TRIGGER steps_not_erased BEFORE DELETE ON steps BEGIN SELECT RAISE(ABORT, 'steps are never erased'); END;
