-- Pages at five years of three hundred machines: what is asked for by what is open, owed or corrected is found without reading it all.
CREATE INDEX hours_by_correction ON hours (corrects_id) WHERE corrects_id IS NOT NULL;
CREATE INDEX owed_due ON owed (due_at) WHERE done_at IS NULL;
CREATE INDEX owed_by_machine ON owed (machine_id, due_at) WHERE done_at IS NULL;
DROP INDEX jobs_by_state;
CREATE INDEX jobs_open ON jobs (opened_at) WHERE state <> 'closed';
CREATE INDEX machines_by_site ON machines (site);
-- A machine that was given another kind by its sheet kept the old one in the list.
UPDATE machines SET kind = (SELECT json_extract(s.sheet_json, '$.kind') FROM machine_sheets s
  WHERE s.machine_id = machines.id ORDER BY s.version DESC LIMIT 1)
  WHERE EXISTS (SELECT 1 FROM machine_sheets s WHERE s.machine_id = machines.id);
-- Answers to submissions are kept so that one sent again is answered the same; whole assessments stand with their takes already.
UPDATE submissions SET answer_json = json_remove(answer_json, '$.assessment') WHERE action = 'take';
CREATE INDEX submissions_by_age ON submissions (at);
