-- One way for everything that is to be done: grease of spindles and what is owed are done, put off and gone round with like any other task; a rule may be of one
-- place of one machine.
DROP TRIGGER spindle_log_kept;
ALTER TABLE spindle_log ADD COLUMN seq INTEGER NOT NULL DEFAULT 0 CONSTRAINT spindle_log_seq_counted CHECK (seq >= 0);
ALTER TABLE spindle_log ADD COLUMN service_entry_id INTEGER CONSTRAINT spindle_log_service_fk REFERENCES service_log (id);
-- What stands here already goes after everything written by its hour; of two it is the later one by its number, as before.
UPDATE spindle_log SET seq = max(
  coalesce((SELECT max(s.seq) FROM steps s WHERE s.at <= spindle_log.at), 0),
  coalesce((SELECT max(e.seq) FROM events e WHERE e.at <= spindle_log.at), 0),
  coalesce((SELECT max(l.seq) FROM service_log l WHERE l.at <= spindle_log.at), 0)
);
CREATE INDEX spindle_log_by_seq ON spindle_log (seq);
CREATE INDEX spindle_log_by_service ON spindle_log (service_entry_id) WHERE service_entry_id IS NOT NULL;
CREATE TRIGGER spindle_log_kept BEFORE UPDATE ON spindle_log BEGIN SELECT RAISE(ABORT, 'the spindle log is only added to'); END;

ALTER TABLE service_log ADD COLUMN places_json TEXT CONSTRAINT service_log_places_valid CHECK (places_json IS NULL OR json_valid(places_json));
ALTER TABLE service_log ADD COLUMN owed_id INTEGER CONSTRAINT service_log_owed_fk REFERENCES owed (id);
CREATE INDEX service_log_by_owed ON service_log (owed_id, id) WHERE owed_id IS NOT NULL;

CREATE TABLE service_rules_next (
  id INTEGER NOT NULL CONSTRAINT service_rules_pk PRIMARY KEY AUTOINCREMENT,
  what TEXT NOT NULL CONSTRAINT service_rules_what_form CHECK (what GLOB '[a-z]*' AND length(what) <= 40),
  scope TEXT NOT NULL CONSTRAINT service_rules_scope_known CHECK (scope IN ('fleet', 'kind', 'machine', 'place')),
  kind TEXT,
  machine_id TEXT CONSTRAINT service_rules_machine_fk REFERENCES machines (id),
  place TEXT,
  is_off INTEGER NOT NULL CONSTRAINT service_rules_off_known CHECK (is_off IN (0, 1)),
  every_hours REAL CONSTRAINT service_rules_hours_positive CHECK (every_hours > 0),
  every_days REAL CONSTRAINT service_rules_days_positive CHECK (every_days > 0),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT service_rules_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT service_rules_scope_named CHECK (
    (scope = 'kind') = (kind IS NOT NULL) AND (scope IN ('machine', 'place')) = (machine_id IS NOT NULL) AND (scope = 'place') = (place IS NOT NULL)
  ),
  CONSTRAINT service_rules_says_when CHECK (is_off = 1 OR every_hours IS NOT NULL OR every_days IS NOT NULL)
) STRICT;
INSERT INTO service_rules_next (id, what, scope, kind, machine_id, is_off, every_hours, every_days, reason, who, at)
  SELECT id, what, scope, kind, machine_id, is_off, every_hours, every_days, reason, who, at FROM service_rules;
DROP TRIGGER service_rules_not_erased;
DROP TABLE service_rules;
ALTER TABLE service_rules_next RENAME TO service_rules;
CREATE INDEX service_rules_by_machine ON service_rules (machine_id, what, id);
CREATE TRIGGER service_rules_kept BEFORE UPDATE ON service_rules BEGIN SELECT RAISE(ABORT, 'a rule is replaced by a later one'); END;
CREATE TRIGGER service_rules_not_erased BEFORE DELETE ON service_rules BEGIN SELECT RAISE(ABORT, 'rules are never erased'); END;
CREATE TRIGGER service_rules_stamp_insert AFTER INSERT ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_rules_stamp_update AFTER UPDATE ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_rules_stamp_delete AFTER DELETE ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
