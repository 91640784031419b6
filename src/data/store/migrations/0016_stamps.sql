-- What moved, and when: a number a subject that goes up with every row that is written of it, whoever writes it. What is kept of a read goes by the numbers of what it
-- was read from, in this process and in any other. A subject is a sort and a machine (`log:zt-1`), or what the shop has once (`parts`).
CREATE TABLE stamps (
  subject TEXT NOT NULL CONSTRAINT stamps_pk PRIMARY KEY,
  n INTEGER NOT NULL CONSTRAINT stamps_counted CHECK (n > 0)
) STRICT, WITHOUT ROWID;
CREATE INDEX stamps_by_n ON stamps (n);

CREATE TRIGGER machine_sheets_stamp_insert AFTER INSERT ON machine_sheets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_sheets_stamp_update AFTER UPDATE ON machine_sheets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_sheets_stamp_delete AFTER DELETE ON machine_sheets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('log:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machines_stamp_insert AFTER INSERT ON machines BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machines_stamp_update AFTER UPDATE ON machines BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machines_stamp_delete AFTER DELETE ON machines BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || OLD.id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_standing_stamp_insert AFTER INSERT ON machine_standing BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_standing_stamp_update AFTER UPDATE ON machine_standing BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_standing_stamp_delete AFTER DELETE ON machine_standing BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sheet:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) VALUES ('fleet', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER hours_stamp_insert AFTER INSERT ON hours BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER hours_stamp_update AFTER UPDATE ON hours BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER hours_stamp_delete AFTER DELETE ON hours BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_stamp_insert AFTER INSERT ON meter_swaps BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_stamp_update AFTER UPDATE ON meter_swaps BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_stamp_delete AFTER DELETE ON meter_swaps BEGIN
  INSERT INTO stamps (subject, n) VALUES ('hours:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_taken_back_stamp_insert AFTER INSERT ON meter_swaps_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'hours:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM meter_swaps WHERE id = NEW.swap_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_taken_back_stamp_update AFTER UPDATE ON meter_swaps_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'hours:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM meter_swaps WHERE id = NEW.swap_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER meter_swaps_taken_back_stamp_delete AFTER DELETE ON meter_swaps_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'hours:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM meter_swaps WHERE id = OLD.swap_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER jobs_stamp_insert AFTER INSERT ON jobs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER jobs_stamp_update AFTER UPDATE ON jobs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER jobs_stamp_delete AFTER DELETE ON jobs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER complaints_stamp_insert AFTER INSERT ON complaints BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER complaints_stamp_update AFTER UPDATE ON complaints BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER complaints_stamp_delete AFTER DELETE ON complaints BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER steps_stamp_insert AFTER INSERT ON steps BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = NEW.job_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER steps_stamp_update AFTER UPDATE ON steps BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = NEW.job_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER steps_stamp_delete AFTER DELETE ON steps BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = OLD.job_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER takes_stamp_insert AFTER INSERT ON takes BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER takes_stamp_update AFTER UPDATE ON takes BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER takes_stamp_delete AFTER DELETE ON takes BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER photographs_stamp_insert AFTER INSERT ON photographs BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = (SELECT job_id FROM steps WHERE id = NEW.step_id) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER photographs_stamp_update AFTER UPDATE ON photographs BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = (SELECT job_id FROM steps WHERE id = NEW.step_id) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER photographs_stamp_delete AFTER DELETE ON photographs BEGIN
  INSERT INTO stamps (subject, n) SELECT 'log:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM jobs WHERE id = (SELECT job_id FROM steps WHERE id = OLD.step_id) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER events_stamp_insert AFTER INSERT ON events BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER events_stamp_update AFTER UPDATE ON events BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER events_stamp_delete AFTER DELETE ON events BEGIN
  INSERT INTO stamps (subject, n) VALUES ('log:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER owed_stamp_insert AFTER INSERT ON owed BEGIN
  INSERT INTO stamps (subject, n) VALUES ('owed:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER owed_stamp_update AFTER UPDATE ON owed BEGIN
  INSERT INTO stamps (subject, n) VALUES ('owed:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER owed_stamp_delete AFTER DELETE ON owed BEGIN
  INSERT INTO stamps (subject, n) VALUES ('owed:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER spindle_log_stamp_insert AFTER INSERT ON spindle_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('spindles:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER spindle_log_stamp_update AFTER UPDATE ON spindle_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('spindles:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER spindle_log_stamp_delete AFTER DELETE ON spindle_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('spindles:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_log_stamp_insert AFTER INSERT ON service_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('service:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_log_stamp_update AFTER UPDATE ON service_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('service:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_log_stamp_delete AFTER DELETE ON service_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('service:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_stamp_insert AFTER INSERT ON machine_photographs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('photographs:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_stamp_update AFTER UPDATE ON machine_photographs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('photographs:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_stamp_delete AFTER DELETE ON machine_photographs BEGIN
  INSERT INTO stamps (subject, n) VALUES ('photographs:' || OLD.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_taken_back_stamp_insert AFTER INSERT ON machine_photographs_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'photographs:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM machine_photographs WHERE id = NEW.photograph_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_taken_back_stamp_update AFTER UPDATE ON machine_photographs_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'photographs:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM machine_photographs WHERE id = NEW.photograph_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER machine_photographs_taken_back_stamp_delete AFTER DELETE ON machine_photographs_taken_back BEGIN
  INSERT INTO stamps (subject, n) SELECT 'photographs:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM machine_photographs WHERE id = OLD.photograph_id ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER people_stamp_insert AFTER INSERT ON people BEGIN
  INSERT INTO stamps (subject, n) VALUES ('people', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER people_stamp_update AFTER UPDATE ON people BEGIN
  INSERT INTO stamps (subject, n) VALUES ('people', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER people_stamp_delete AFTER DELETE ON people BEGIN
  INSERT INTO stamps (subject, n) VALUES ('people', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_rules_stamp_insert AFTER INSERT ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_rules_stamp_update AFTER UPDATE ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER service_rules_stamp_delete AFTER DELETE ON service_rules BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rules', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER rounds_stamp_insert AFTER INSERT ON rounds BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rounds', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER rounds_stamp_update AFTER UPDATE ON rounds BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rounds', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER rounds_stamp_delete AFTER DELETE ON rounds BEGIN
  INSERT INTO stamps (subject, n) VALUES ('rounds', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER parts_stamp_insert AFTER INSERT ON parts BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER parts_stamp_update AFTER UPDATE ON parts BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER parts_stamp_delete AFTER DELETE ON parts BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_versions_stamp_insert AFTER INSERT ON part_versions BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_versions_stamp_update AFTER UPDATE ON part_versions BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_versions_stamp_delete AFTER DELETE ON part_versions BEGIN
  INSERT INTO stamps (subject, n) VALUES ('parts', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_moves_stamp_insert AFTER INSERT ON part_moves BEGIN
  INSERT INTO stamps (subject, n) VALUES ('stock', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_moves_stamp_update AFTER UPDATE ON part_moves BEGIN
  INSERT INTO stamps (subject, n) VALUES ('stock', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_moves_stamp_delete AFTER DELETE ON part_moves BEGIN
  INSERT INTO stamps (subject, n) VALUES ('stock', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_sets_stamp_insert AFTER INSERT ON part_sets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_sets_stamp_update AFTER UPDATE ON part_sets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER part_sets_stamp_delete AFTER DELETE ON part_sets BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_stamp_insert AFTER INSERT ON procedures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_stamp_update AFTER UPDATE ON procedures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_stamp_delete AFTER DELETE ON procedures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_withdrawn_stamp_insert AFTER INSERT ON procedures_withdrawn BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_withdrawn_stamp_update AFTER UPDATE ON procedures_withdrawn BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER procedures_withdrawn_stamp_delete AFTER DELETE ON procedures_withdrawn BEGIN
  INSERT INTO stamps (subject, n) VALUES ('procedures', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_stamp_insert AFTER INSERT ON site_places BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_stamp_update AFTER UPDATE ON site_places BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_stamp_delete AFTER DELETE ON site_places BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_gone_stamp_insert AFTER INSERT ON site_places_gone BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_gone_stamp_update AFTER UPDATE ON site_places_gone BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_places_gone_stamp_delete AFTER DELETE ON site_places_gone BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_pictures_stamp_insert AFTER INSERT ON site_pictures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_pictures_stamp_update AFTER UPDATE ON site_pictures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER site_pictures_stamp_delete AFTER DELETE ON site_pictures BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sites', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;

-- A job that was closed, or opened again: what became of fixes goes by closed jobs alone.
CREATE TRIGGER jobs_stamp_closed AFTER UPDATE ON jobs WHEN OLD.state = 'closed' OR NEW.state = 'closed' BEGIN
  INSERT INTO stamps (subject, n) VALUES ('closed:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER jobs_stamp_told_closed AFTER INSERT ON jobs WHEN NEW.state = 'closed' BEGIN
  INSERT INTO stamps (subject, n) VALUES ('closed:' || NEW.machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;

-- What is told of a set is told of every machine it was ever on.
CREATE TRIGGER set_log_stamp_insert AFTER INSERT ON set_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) SELECT 'sets:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM set_log WHERE set_id = NEW.set_id AND machine_id IS NOT NULL GROUP BY machine_id
    ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER set_log_stamp_update AFTER UPDATE ON set_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) SELECT 'sets:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM set_log WHERE set_id = NEW.set_id AND machine_id IS NOT NULL GROUP BY machine_id
    ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;
CREATE TRIGGER set_log_stamp_delete AFTER DELETE ON set_log BEGIN
  INSERT INTO stamps (subject, n) VALUES ('sets', (SELECT coalesce(max(n), 0) + 1 FROM stamps)) ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
  INSERT INTO stamps (subject, n) SELECT 'sets:' || machine_id, (SELECT coalesce(max(n), 0) + 1 FROM stamps) FROM set_log WHERE set_id = OLD.set_id AND machine_id IS NOT NULL GROUP BY machine_id
    ON CONFLICT (subject) DO UPDATE SET n = excluded.n;
END;

-- Deck, gearbox, blade and spindle, part by part: what is apart is asked with every such step, among years of others.
CREATE INDEX steps_of_moves ON steps (job_id, seq) WHERE kind IN ('deck', 'rebuild', 'guided', 'own-list');
CREATE INDEX steps_by_job_and_seq ON steps (job_id, seq);

-- Where the log of a machine was last at rest, and what it showed last there: a change is folded from there on, and not from the first line.
ALTER TABLE machine_states ADD COLUMN rest_json TEXT CONSTRAINT machine_states_rest_valid CHECK (rest_json IS NULL OR json_valid(rest_json));
-- How far the machine's log had come when it was folded: a state that is behind its log is no state.
ALTER TABLE machine_states ADD COLUMN log_n INTEGER;
-- Of what stands in the row, to find one that was changed by another hand.
ALTER TABLE machine_states ADD COLUMN hash TEXT;
