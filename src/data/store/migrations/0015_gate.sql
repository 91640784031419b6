-- A specification takes its place in the one log, so that what was opened under one is not judged by the next; what was let go by word stays owed without a job too.
DROP TRIGGER machine_sheets_kept;
ALTER TABLE machine_sheets ADD COLUMN seq INTEGER NOT NULL DEFAULT 0 CONSTRAINT machine_sheets_seq_counted CHECK (seq >= 0);
-- The first stands before everything; a later one that stands here already goes after everything written by its hour.
UPDATE machine_sheets SET seq = max(
  coalesce((SELECT max(s.seq) FROM steps s WHERE s.at <= machine_sheets.at), 0),
  coalesce((SELECT max(e.seq) FROM events e WHERE e.at <= machine_sheets.at), 0)
) WHERE version > 1;
CREATE INDEX machine_sheets_by_seq ON machine_sheets (seq);
CREATE TRIGGER machine_sheets_kept BEFORE UPDATE ON machine_sheets BEGIN SELECT RAISE(ABORT, 'a sheet is replaced by a new version, never changed'); END;

CREATE TABLE owed_anew (
  id INTEGER NOT NULL CONSTRAINT owed_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT owed_machine_fk REFERENCES machines (id),
  job_id INTEGER CONSTRAINT owed_job_fk REFERENCES jobs (id),
  step_id INTEGER CONSTRAINT owed_step_fk REFERENCES steps (id),
  event_id INTEGER CONSTRAINT owed_event_fk REFERENCES events (id),
  code TEXT NOT NULL,
  due_at TEXT NOT NULL,
  done_at TEXT,
  done_by TEXT CONSTRAINT owed_done_by_fk REFERENCES people (initials),
  detail_json TEXT CONSTRAINT owed_detail_valid CHECK (detail_json IS NULL OR json_valid(detail_json)),
  CONSTRAINT owed_done_has_both CHECK ((done_at IS NULL) = (done_by IS NULL)),
  CONSTRAINT owed_of_step_or_event CHECK ((step_id IS NOT NULL AND job_id IS NOT NULL) OR event_id IS NOT NULL)
) STRICT;
INSERT INTO owed_anew (id, machine_id, job_id, step_id, code, due_at, done_at, done_by, detail_json)
  SELECT id, machine_id, job_id, step_id, code, due_at, done_at, done_by, detail_json FROM owed;
DROP TABLE owed;
ALTER TABLE owed_anew RENAME TO owed;
CREATE INDEX owed_due ON owed (due_at) WHERE done_at IS NULL;
CREATE INDEX owed_by_machine ON owed (machine_id, due_at) WHERE done_at IS NULL;

-- A meter swap is one thing with two readings, and can be taken back as one.
CREATE TABLE meter_swaps (
  id INTEGER NOT NULL CONSTRAINT meter_swaps_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT meter_swaps_machine_fk REFERENCES machines (id),
  before_hours_id INTEGER CONSTRAINT meter_swaps_before_fk REFERENCES hours (id),
  old_hours_id INTEGER CONSTRAINT meter_swaps_old_fk REFERENCES hours (id),
  new_hours_id INTEGER NOT NULL CONSTRAINT meter_swaps_new_fk REFERENCES hours (id),
  who TEXT NOT NULL CONSTRAINT meter_swaps_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT meter_swaps_one_a_reading UNIQUE (new_hours_id)
) STRICT;
CREATE INDEX meter_swaps_by_machine ON meter_swaps (machine_id, id);
CREATE TABLE meter_swaps_taken_back (
  swap_id INTEGER NOT NULL CONSTRAINT meter_swaps_taken_back_pk PRIMARY KEY CONSTRAINT meter_swaps_taken_back_fk REFERENCES meter_swaps (id),
  who TEXT NOT NULL CONSTRAINT meter_swaps_taken_back_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE TRIGGER meter_swaps_kept BEFORE UPDATE ON meter_swaps BEGIN SELECT RAISE(ABORT, 'a meter swap is taken back, never changed'); END;
CREATE TRIGGER meter_swaps_not_erased BEFORE DELETE ON meter_swaps BEGIN SELECT RAISE(ABORT, 'meter swaps are never erased'); END;

-- The calendar's key is its own, and is given out anew by one press.
CREATE TABLE feed_keys (
  id INTEGER NOT NULL CONSTRAINT feed_keys_pk PRIMARY KEY AUTOINCREMENT,
  key TEXT NOT NULL CONSTRAINT feed_keys_long CHECK (length(key) >= 32),
  who TEXT CONSTRAINT feed_keys_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
