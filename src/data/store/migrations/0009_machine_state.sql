-- What is unsafe belongs to the machine: one sequence over steps and events orders its log whatever the clock says, steps of putting back, of
-- lifting another's lock-out and of handing a part over, and how each machine stands kept beside its log so that the bay need not fold every one.
CREATE TEMP TABLE log_order AS
  SELECT kind, id, row_number() OVER (ORDER BY after_step, turn, id) AS seq FROM (
    SELECT 'step' AS kind, s.id, s.id AS after_step, 0 AS turn FROM steps s
    UNION ALL
    SELECT 'event', e.id,
      coalesce(e.step_id, (SELECT max(s.id) FROM jobs j JOIN steps s ON s.job_id = j.id WHERE j.machine_id = e.machine_id AND s.at <= e.at), 0),
      CASE WHEN e.step_id IS NULL THEN 2 ELSE 1 END
    FROM events e);

CREATE TABLE steps_next (
  id INTEGER NOT NULL CONSTRAINT steps_pk PRIMARY KEY AUTOINCREMENT,
  job_id INTEGER NOT NULL CONSTRAINT steps_job_fk REFERENCES jobs (id),
  kind TEXT NOT NULL CONSTRAINT steps_kind_known CHECK (kind IN
    ('complaint', 'guess', 'answer', 'confirmation', 'take', 'skip', 'fix', 'deck', 'rebuild', 'photograph', 'put-back', 'lift', 'handover',
     'test-cut', 'note', 'event', 'hold', 'release', 'close', 'undo')),
  data_json TEXT NOT NULL CONSTRAINT steps_data_valid CHECK (json_valid(data_json)),
  undoes_id INTEGER CONSTRAINT steps_undoes_fk REFERENCES steps (id) CONSTRAINT steps_undone_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT steps_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  seq INTEGER NOT NULL CONSTRAINT steps_one_a_place UNIQUE,
  CONSTRAINT steps_undo_names_step CHECK ((kind = 'undo') = (undoes_id IS NOT NULL))
) STRICT;
INSERT INTO steps_next SELECT s.id, s.job_id, s.kind, s.data_json, s.undoes_id, s.who, s.at, o.seq
  FROM steps s JOIN log_order o ON o.kind = 'step' AND o.id = s.id ORDER BY s.id;
DROP TABLE steps;
ALTER TABLE steps_next RENAME TO steps;
CREATE INDEX steps_by_job ON steps (job_id, id);
CREATE TRIGGER steps_kept BEFORE UPDATE ON steps BEGIN SELECT RAISE(ABORT, 'steps are only added'); END;
CREATE TRIGGER steps_not_erased BEFORE DELETE ON steps BEGIN SELECT RAISE(ABORT, 'steps are never erased'); END;

CREATE TABLE events_next (
  id INTEGER NOT NULL CONSTRAINT events_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT events_machine_fk REFERENCES machines (id),
  event TEXT NOT NULL,
  place TEXT,
  data_json TEXT NOT NULL CONSTRAINT events_data_valid CHECK (json_valid(data_json)),
  step_id INTEGER CONSTRAINT events_step_fk REFERENCES steps (id),
  voids_id INTEGER CONSTRAINT events_voids_fk REFERENCES events (id) CONSTRAINT events_voided_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT events_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  seq INTEGER NOT NULL CONSTRAINT events_one_a_place UNIQUE
) STRICT;
INSERT INTO events_next SELECT e.id, e.machine_id, e.event, e.place, e.data_json, e.step_id, e.voids_id, e.who, e.at, o.seq
  FROM events e JOIN log_order o ON o.kind = 'event' AND o.id = e.id ORDER BY e.id;
DROP TABLE events;
ALTER TABLE events_next RENAME TO events;
CREATE INDEX events_by_machine ON events (machine_id, seq);
CREATE INDEX events_by_step ON events (step_id);
CREATE TRIGGER events_kept BEFORE UPDATE ON events BEGIN SELECT RAISE(ABORT, 'events are only added'); END;
CREATE TRIGGER events_not_erased BEFORE DELETE ON events BEGIN SELECT RAISE(ABORT, 'events are never erased'); END;
DROP TABLE log_order;

CREATE INDEX takes_by_job ON takes (job_id, step_id);
CREATE INDEX takes_by_correction ON takes (corrects_step_id) WHERE corrects_step_id IS NOT NULL;

-- A job is not held: its machine is.
UPDATE jobs SET state = CASE
  WHEN EXISTS (SELECT 1 FROM steps s WHERE s.job_id = jobs.id AND s.kind = 'fix' AND NOT EXISTS (SELECT 1 FROM steps u WHERE u.undoes_id = s.id))
  THEN 'awaiting-proof' ELSE 'in-work' END
  WHERE state = 'held-out';

CREATE TABLE machine_states (
  machine_id TEXT NOT NULL CONSTRAINT machine_states_pk PRIMARY KEY CONSTRAINT machine_states_machine_fk REFERENCES machines (id),
  -- The reckoning it was folded with: another one folds it again.
  fold_version INTEGER NOT NULL,
  is_held INTEGER NOT NULL CONSTRAINT machine_states_held_known CHECK (is_held IN (0, 1)),
  state_json TEXT NOT NULL CONSTRAINT machine_states_state_valid CHECK (json_valid(state_json))
) STRICT;

-- What exactly is owed, where its code alone does not say.
ALTER TABLE owed ADD COLUMN detail_json TEXT CONSTRAINT owed_detail_valid CHECK (detail_json IS NULL OR json_valid(detail_json));
