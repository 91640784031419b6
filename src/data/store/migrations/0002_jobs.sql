-- A job is a row of steps that are only ever added: undo and correction are steps too, so nothing measured is overwritten.
CREATE TABLE jobs (
  id INTEGER NOT NULL CONSTRAINT jobs_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT jobs_machine_fk REFERENCES machines (id),
  opened_at TEXT NOT NULL,
  -- Kept beside the steps so that the bay need not fold every job; written in the same transaction as the step.
  state TEXT NOT NULL CONSTRAINT jobs_state_known CHECK (state IN ('waiting', 'in-work', 'awaiting-proof', 'held-out', 'closed')),
  closed_at TEXT,
  CONSTRAINT jobs_closed_has_time CHECK ((state = 'closed') = (closed_at IS NOT NULL))
) STRICT;
CREATE INDEX jobs_by_machine ON jobs (machine_id, opened_at);
CREATE INDEX jobs_by_state ON jobs (state);

CREATE TABLE complaints (
  id INTEGER NOT NULL CONSTRAINT complaints_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT complaints_job_fk REFERENCES jobs (id),
  machine_id TEXT NOT NULL CONSTRAINT complaints_machine_fk REFERENCES machines (id),
  words TEXT NOT NULL CONSTRAINT complaints_words_length CHECK (length(words) <= 1000),
  said_by TEXT NOT NULL,
  place TEXT NOT NULL,
  since TEXT,
  looks_json TEXT NOT NULL CONSTRAINT complaints_looks_valid CHECK (json_valid(looks_json)),
  who TEXT NOT NULL CONSTRAINT complaints_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX complaints_by_job ON complaints (job_id);

CREATE TABLE steps (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'confirmation', 'take', 'fix', 'test-cut', 'note', 'event', 'hold', 'release', 'close', 'undo')),
  data_json TEXT NOT NULL CONSTRAINT steps_data_valid CHECK (json_valid(data_json)),
  undoes_id INTEGER CONSTRAINT steps_undoes_fk REFERENCES steps (id) CONSTRAINT steps_undone_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT steps_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT steps_undo_names_step CHECK ((kind = 'undo') = (undoes_id IS NOT NULL))
) STRICT;
CREATE INDEX steps_by_job ON steps (job_id, id);

CREATE TABLE takes (
  step_id INTEGER NOT NULL CONSTRAINT takes_pk PRIMARY KEY CONSTRAINT takes_step_fk REFERENCES steps (id),
  job_id INTEGER NOT NULL CONSTRAINT takes_job_fk REFERENCES jobs (id),
  machine_id TEXT NOT NULL CONSTRAINT takes_machine_fk REFERENCES machines (id),
  check_id TEXT NOT NULL,
  corrects_step_id INTEGER CONSTRAINT takes_corrects_fk REFERENCES takes (step_id),
  -- What the verdict rests on: inputs, tolerances, the sheet and the version of the rule.
  input_json TEXT NOT NULL CONSTRAINT takes_input_valid CHECK (json_valid(input_json)),
  sheet_version INTEGER NOT NULL,
  rule_version INTEGER NOT NULL,
  tolerances_json TEXT NOT NULL CONSTRAINT takes_tolerances_valid CHECK (json_valid(tolerances_json)),
  verdict TEXT NOT NULL CONSTRAINT takes_verdict_known CHECK (verdict IN ('in-tolerance', 'watch', 'out', 'stop', 'not-enough-readings')),
  result_json TEXT NOT NULL CONSTRAINT takes_result_valid CHECK (json_valid(result_json)),
  at TEXT NOT NULL,
  CONSTRAINT takes_sheet_fk FOREIGN KEY (machine_id, sheet_version) REFERENCES machine_sheets (machine_id, version)
) STRICT;
CREATE INDEX takes_by_machine ON takes (machine_id, check_id, at);

CREATE TABLE readings (
  id INTEGER NOT NULL CONSTRAINT readings_pk PRIMARY KEY AUTOINCREMENT,
  step_id INTEGER NOT NULL CONSTRAINT readings_take_fk REFERENCES takes (step_id),
  place TEXT NOT NULL,
  quantity TEXT NOT NULL CONSTRAINT readings_quantity_known CHECK (quantity IN ('pressure_pascals', 'height_metres', 'floor_metres', 'temperature_kelvin')),
  value REAL NOT NULL,
  as_typed TEXT,
  corrects_id INTEGER CONSTRAINT readings_corrects_fk REFERENCES readings (id),
  CONSTRAINT readings_one_a_place UNIQUE (step_id, place, quantity)
) STRICT;

CREATE TABLE events (
  id INTEGER NOT NULL CONSTRAINT events_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT events_machine_fk REFERENCES machines (id),
  event TEXT NOT NULL,
  place TEXT,
  data_json TEXT NOT NULL CONSTRAINT events_data_valid CHECK (json_valid(data_json)),
  -- The step that brought it about, if any: undone with it.
  step_id INTEGER CONSTRAINT events_step_fk REFERENCES steps (id),
  voids_id INTEGER CONSTRAINT events_voids_fk REFERENCES events (id) CONSTRAINT events_voided_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT events_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX events_by_machine ON events (machine_id, at);

CREATE TABLE owed (
  id INTEGER NOT NULL CONSTRAINT owed_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT owed_machine_fk REFERENCES machines (id),
  job_id INTEGER NOT NULL CONSTRAINT owed_job_fk REFERENCES jobs (id),
  step_id INTEGER NOT NULL CONSTRAINT owed_step_fk REFERENCES steps (id),
  code TEXT NOT NULL,
  due_at TEXT NOT NULL,
  done_at TEXT,
  done_by TEXT CONSTRAINT owed_done_by_fk REFERENCES people (initials),
  CONSTRAINT owed_done_has_both CHECK ((done_at IS NULL) = (done_by IS NULL))
) STRICT;

CREATE TRIGGER steps_kept BEFORE UPDATE ON steps BEGIN SELECT RAISE(ABORT, 'steps are only added'); END;
CREATE TRIGGER steps_not_erased BEFORE DELETE ON steps BEGIN SELECT RAISE(ABORT, 'steps are never erased'); END;
CREATE TRIGGER takes_kept BEFORE UPDATE ON takes BEGIN SELECT RAISE(ABORT, 'a take is corrected by a new one'); END;
CREATE TRIGGER takes_not_erased BEFORE DELETE ON takes BEGIN SELECT RAISE(ABORT, 'takes are never erased'); END;
CREATE TRIGGER readings_kept BEFORE UPDATE ON readings BEGIN SELECT RAISE(ABORT, 'a reading is corrected by a new one'); END;
CREATE TRIGGER readings_not_erased BEFORE DELETE ON readings BEGIN SELECT RAISE(ABORT, 'readings are never erased'); END;
CREATE TRIGGER events_kept BEFORE UPDATE ON events BEGIN SELECT RAISE(ABORT, 'events are only added'); END;
CREATE TRIGGER events_not_erased BEFORE DELETE ON events BEGIN SELECT RAISE(ABORT, 'events are never erased'); END;
