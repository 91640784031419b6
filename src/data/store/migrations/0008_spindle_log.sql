-- A spindle is greased, purged, given bearings or moved to another place by hours: its own log, apart from what makes readings stale.
-- And what a machine's belt looks like when it is right is kept with the machine, not with the job it was taken in.
CREATE TABLE spindle_log (
  id INTEGER NOT NULL CONSTRAINT spindle_log_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT spindle_log_machine_fk REFERENCES machines (id),
  kind TEXT NOT NULL CONSTRAINT spindle_log_kind_known CHECK (kind IN ('topped-up', 'purged', 'bearings-new', 'moved', 'taken-back')),
  place TEXT,
  moves_json TEXT CONSTRAINT spindle_log_moves_valid CHECK (moves_json IS NULL OR json_valid(moves_json)),
  takes_back_id INTEGER CONSTRAINT spindle_log_takes_back_fk REFERENCES spindle_log (id) CONSTRAINT spindle_log_taken_back_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT spindle_log_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT spindle_log_moved_has_moves CHECK ((kind = 'moved') = (moves_json IS NOT NULL)),
  CONSTRAINT spindle_log_one_has_place CHECK ((kind IN ('moved', 'taken-back')) = (place IS NULL)),
  CONSTRAINT spindle_log_taken_back_names CHECK ((kind = 'taken-back') = (takes_back_id IS NOT NULL))
) STRICT;
CREATE INDEX spindle_log_by_machine ON spindle_log (machine_id, at);
CREATE TRIGGER spindle_log_kept BEFORE UPDATE ON spindle_log BEGIN SELECT RAISE(ABORT, 'the spindle log is only added to'); END;
CREATE TRIGGER spindle_log_not_erased BEFORE DELETE ON spindle_log BEGIN SELECT RAISE(ABORT, 'the spindle log is never erased'); END;

CREATE TABLE machine_photographs (
  id INTEGER NOT NULL CONSTRAINT machine_photographs_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT machine_photographs_machine_fk REFERENCES machines (id),
  about TEXT NOT NULL CONSTRAINT machine_photographs_about_known CHECK (about IN ('belt-path', 'timing', 'washer-stack')),
  mime TEXT NOT NULL CONSTRAINT machine_photographs_mime_known CHECK (mime IN ('image/jpeg', 'image/png', 'image/webp')),
  bytes BLOB NOT NULL CONSTRAINT machine_photographs_not_empty CHECK (length(bytes) > 0),
  who TEXT NOT NULL CONSTRAINT machine_photographs_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX machine_photographs_by_machine ON machine_photographs (machine_id, about, id);
CREATE TRIGGER machine_photographs_kept BEFORE UPDATE ON machine_photographs BEGIN SELECT RAISE(ABORT, 'a photograph is kept as it was taken'); END;
CREATE TRIGGER machine_photographs_not_erased BEFORE DELETE ON machine_photographs BEGIN SELECT RAISE(ABORT, 'photographs are never erased'); END;

-- A gearbox is rebuilt in a guided order like a deck's: its moves are steps of the job.
CREATE TABLE steps_next (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'answer', 'confirmation', 'take', 'skip', 'fix', 'deck', 'rebuild', 'photograph', 'test-cut', 'note', 'event', 'hold',
     'release', 'close', 'undo')),
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
