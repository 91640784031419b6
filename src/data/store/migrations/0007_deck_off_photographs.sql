-- A deck comes off and on in counted steps, and is photographed first: two more kinds of step, and the pictures. A CHECK cannot be altered.
CREATE TABLE steps_next (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'answer', 'confirmation', 'take', 'skip', 'fix', 'deck', 'photograph', 'test-cut', 'note', 'event', 'hold', 'release',
     'close', 'undo')),
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

CREATE TABLE photographs (
  step_id INTEGER NOT NULL CONSTRAINT photographs_pk PRIMARY KEY CONSTRAINT photographs_step_fk REFERENCES steps (id),
  about TEXT NOT NULL CONSTRAINT photographs_about_length CHECK (length(about) BETWEEN 1 AND 200),
  mime TEXT NOT NULL CONSTRAINT photographs_mime_known CHECK (mime IN ('image/jpeg', 'image/png', 'image/webp')),
  bytes BLOB NOT NULL CONSTRAINT photographs_not_empty CHECK (length(bytes) > 0)
) STRICT;
CREATE TRIGGER photographs_kept BEFORE UPDATE ON photographs BEGIN SELECT RAISE(ABORT, 'a photograph is kept as it was taken'); END;
CREATE TRIGGER photographs_not_erased BEFORE DELETE ON photographs BEGIN SELECT RAISE(ABORT, 'photographs are never erased'); END;
