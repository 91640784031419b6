-- A reading is looked at once more before it is mended; a blade off and on and a spindle's service are guided like a deck's; and what a round really
-- holds on a machine is kept as its own list: further kinds of step.
CREATE TABLE steps_next (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'answer', 'confirmation', 'take', 'second-look', 'skip', 'fix', 'deck', 'rebuild', 'guided', 'own-list', 'photograph', 'put-back', 'lift',
     'handover', 'test-cut', 'note', 'event', 'hold', 'release', 'close', 'undo')),
  data_json TEXT NOT NULL CONSTRAINT steps_data_valid CHECK (json_valid(data_json)),
  undoes_id INTEGER CONSTRAINT steps_undoes_fk REFERENCES steps (id) CONSTRAINT steps_undone_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT steps_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  seq INTEGER NOT NULL CONSTRAINT steps_one_a_place UNIQUE,
  CONSTRAINT steps_undo_names_step CHECK ((kind = 'undo') = (undoes_id IS NOT NULL))
) STRICT;
INSERT INTO steps_next SELECT * FROM steps;
DROP TABLE steps;
ALTER TABLE steps_next RENAME TO steps;
CREATE INDEX steps_by_job ON steps (job_id, id);
CREATE TRIGGER steps_kept BEFORE UPDATE ON steps BEGIN SELECT RAISE(ABORT, 'steps are only added'); END;
CREATE TRIGGER steps_not_erased BEFORE DELETE ON steps BEGIN SELECT RAISE(ABORT, 'steps are never erased'); END;
