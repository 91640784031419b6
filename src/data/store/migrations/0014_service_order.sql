-- Service and what happened to sets, written down outside a job, take their place in the one log: under a clock that was set back "done since" is told by order.
DROP TRIGGER service_log_kept;
DROP TRIGGER set_log_kept;
ALTER TABLE service_log ADD COLUMN seq INTEGER NOT NULL DEFAULT 0 CONSTRAINT service_log_seq_counted CHECK (seq >= 0);
ALTER TABLE set_log ADD COLUMN seq INTEGER NOT NULL DEFAULT 0 CONSTRAINT set_log_seq_counted CHECK (seq >= 0);
-- What stands here already goes after everything written by its hour.
UPDATE service_log SET seq = max(
  coalesce((SELECT max(s.seq) FROM steps s WHERE s.at <= service_log.at), 0),
  coalesce((SELECT max(e.seq) FROM events e WHERE e.at <= service_log.at), 0)
);
UPDATE set_log SET seq = max(
  coalesce((SELECT max(s.seq) FROM steps s WHERE s.at <= set_log.at), 0),
  coalesce((SELECT max(e.seq) FROM events e WHERE e.at <= set_log.at), 0)
);
CREATE INDEX service_log_by_seq ON service_log (seq);
CREATE INDEX set_log_by_seq ON set_log (seq);
CREATE TRIGGER service_log_kept BEFORE UPDATE ON service_log BEGIN SELECT RAISE(ABORT, 'the service log is only added to'); END;
CREATE TRIGGER set_log_kept BEFORE UPDATE ON set_log BEGIN SELECT RAISE(ABORT, 'the log of a set is only added to'); END;
