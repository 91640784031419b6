-- The machine's own book: machines retired without loss, meters swapped, service by rules and rounds, parts and the sets made of them, places of a site
-- with what lies in wait there, procedures as versions, and photographs of more than what is right. All of it is only added to.
ALTER TABLE hours ADD COLUMN offset_hours REAL NOT NULL DEFAULT 0;

-- When each fix, check and event was last there, folded with the state.
ALTER TABLE machine_states ADD COLUMN last_json TEXT CONSTRAINT machine_states_last_valid CHECK (last_json IS NULL OR json_valid(last_json));

CREATE TABLE machine_standing (
  id INTEGER NOT NULL CONSTRAINT machine_standing_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT machine_standing_machine_fk REFERENCES machines (id),
  kind TEXT NOT NULL CONSTRAINT machine_standing_kind_known CHECK (kind IN ('retired', 'back')),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT machine_standing_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX machine_standing_by_machine ON machine_standing (machine_id, id);

CREATE TABLE machine_photographs_next (
  id INTEGER NOT NULL CONSTRAINT machine_photographs_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT machine_photographs_machine_fk REFERENCES machines (id),
  about TEXT NOT NULL CONSTRAINT machine_photographs_about_form CHECK (about GLOB '[a-z]*' AND length(about) <= 40),
  mime TEXT NOT NULL CONSTRAINT machine_photographs_mime_known CHECK (mime IN ('image/jpeg', 'image/png', 'image/webp')),
  bytes BLOB NOT NULL CONSTRAINT machine_photographs_not_empty CHECK (length(bytes) > 0),
  who TEXT NOT NULL CONSTRAINT machine_photographs_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
INSERT INTO machine_photographs_next SELECT * FROM machine_photographs;
DROP TABLE machine_photographs;
ALTER TABLE machine_photographs_next RENAME TO machine_photographs;
CREATE INDEX machine_photographs_by_machine ON machine_photographs (machine_id, about, id);
CREATE TRIGGER machine_photographs_kept BEFORE UPDATE ON machine_photographs BEGIN SELECT RAISE(ABORT, 'a photograph is kept as it was taken'); END;
CREATE TRIGGER machine_photographs_not_erased BEFORE DELETE ON machine_photographs BEGIN SELECT RAISE(ABORT, 'photographs are never erased'); END;

-- A rule of service for the whole fleet, a kind or one machine; another one of the same scope and sort takes its place.
CREATE TABLE service_rules (
  id INTEGER NOT NULL CONSTRAINT service_rules_pk PRIMARY KEY AUTOINCREMENT,
  what TEXT NOT NULL CONSTRAINT service_rules_what_form CHECK (what GLOB '[a-z]*' AND length(what) <= 40),
  scope TEXT NOT NULL CONSTRAINT service_rules_scope_known CHECK (scope IN ('fleet', 'kind', 'machine')),
  kind TEXT,
  machine_id TEXT CONSTRAINT service_rules_machine_fk REFERENCES machines (id),
  is_off INTEGER NOT NULL CONSTRAINT service_rules_off_known CHECK (is_off IN (0, 1)),
  every_hours REAL CONSTRAINT service_rules_hours_positive CHECK (every_hours > 0),
  every_days REAL CONSTRAINT service_rules_days_positive CHECK (every_days > 0),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT service_rules_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT service_rules_scope_named CHECK ((scope = 'kind') = (kind IS NOT NULL) AND (scope = 'machine') = (machine_id IS NOT NULL)),
  CONSTRAINT service_rules_says_when CHECK (is_off = 1 OR every_hours IS NOT NULL OR every_days IS NOT NULL)
) STRICT;
CREATE INDEX service_rules_by_machine ON service_rules (machine_id, what, id);

CREATE TABLE rounds (
  id INTEGER NOT NULL CONSTRAINT rounds_pk PRIMARY KEY AUTOINCREMENT,
  what TEXT NOT NULL,
  title TEXT NOT NULL CONSTRAINT rounds_title_length CHECK (length(title) BETWEEN 1 AND 80),
  by_day TEXT NOT NULL CONSTRAINT rounds_by_day_form CHECK (by_day GLOB '[0-9][0-9][0-9][0-9]-[0-9][0-9]-[0-9][0-9]'),
  machines_json TEXT NOT NULL CONSTRAINT rounds_machines_valid CHECK (json_valid(machines_json)),
  recheck_days REAL,
  who TEXT NOT NULL CONSTRAINT rounds_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;

CREATE TABLE service_log (
  id INTEGER NOT NULL CONSTRAINT service_log_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT service_log_machine_fk REFERENCES machines (id),
  kind TEXT NOT NULL CONSTRAINT service_log_kind_known CHECK (kind IN ('done', 'rechecked', 'postponed', 'taken-back')),
  what TEXT NOT NULL,
  until_day TEXT,
  words TEXT NOT NULL DEFAULT '' CONSTRAINT service_log_words_length CHECK (length(words) <= 500),
  round_id INTEGER CONSTRAINT service_log_round_fk REFERENCES rounds (id),
  takes_back_id INTEGER CONSTRAINT service_log_takes_back_fk REFERENCES service_log (id) CONSTRAINT service_log_taken_back_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT service_log_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT service_log_postponed_until CHECK ((kind = 'postponed') = (until_day IS NOT NULL)),
  CONSTRAINT service_log_taken_back_names CHECK ((kind = 'taken-back') = (takes_back_id IS NOT NULL))
) STRICT;
CREATE INDEX service_log_by_machine ON service_log (machine_id, what, id);
CREATE INDEX service_log_by_round ON service_log (round_id, id) WHERE round_id IS NOT NULL;

CREATE TABLE parts (
  id INTEGER NOT NULL CONSTRAINT parts_pk PRIMARY KEY AUTOINCREMENT,
  at TEXT NOT NULL
) STRICT;
CREATE TABLE part_versions (
  part_id INTEGER NOT NULL CONSTRAINT part_versions_part_fk REFERENCES parts (id),
  version INTEGER NOT NULL CONSTRAINT part_versions_positive CHECK (version > 0),
  data_json TEXT NOT NULL CONSTRAINT part_versions_data_valid CHECK (json_valid(data_json)),
  who TEXT NOT NULL CONSTRAINT part_versions_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT part_versions_pk PRIMARY KEY (part_id, version)
) STRICT;
CREATE TABLE part_moves (
  id INTEGER NOT NULL CONSTRAINT part_moves_pk PRIMARY KEY AUTOINCREMENT,
  part_id INTEGER NOT NULL CONSTRAINT part_moves_part_fk REFERENCES parts (id),
  change INTEGER NOT NULL CONSTRAINT part_moves_moves CHECK (change <> 0),
  lot TEXT CONSTRAINT part_moves_lot_length CHECK (length(lot) BETWEEN 1 AND 40),
  why TEXT NOT NULL CONSTRAINT part_moves_why_known CHECK (why IN ('bought', 'fitted', 'counted', 'thrown-out', 'taken-back')),
  machine_id TEXT CONSTRAINT part_moves_machine_fk REFERENCES machines (id),
  takes_back_id INTEGER CONSTRAINT part_moves_takes_back_fk REFERENCES part_moves (id) CONSTRAINT part_moves_taken_back_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT part_moves_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX part_moves_by_part ON part_moves (part_id, id);

-- One physical set: what of, of which lot, and where it has been.
CREATE TABLE part_sets (
  id INTEGER NOT NULL CONSTRAINT part_sets_pk PRIMARY KEY AUTOINCREMENT,
  part_id INTEGER NOT NULL CONSTRAINT part_sets_part_fk REFERENCES parts (id),
  mark TEXT NOT NULL COLLATE NOCASE CONSTRAINT part_sets_mark_once UNIQUE CONSTRAINT part_sets_mark_length CHECK (length(mark) BETWEEN 1 AND 20),
  lot TEXT CONSTRAINT part_sets_lot_length CHECK (length(lot) BETWEEN 1 AND 40),
  who TEXT NOT NULL CONSTRAINT part_sets_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX part_sets_by_part ON part_sets (part_id);
CREATE TABLE set_log (
  id INTEGER NOT NULL CONSTRAINT set_log_pk PRIMARY KEY AUTOINCREMENT,
  set_id INTEGER NOT NULL CONSTRAINT set_log_set_fk REFERENCES part_sets (id),
  kind TEXT NOT NULL CONSTRAINT set_log_kind_known CHECK (kind IN ('fitted', 'came-off', 'sharpened', 'looked', 'finished', 'put', 'taken-back')),
  machine_id TEXT CONSTRAINT set_log_machine_fk REFERENCES machines (id),
  -- Of the machine, all its meters together, as they stood then.
  machine_hours REAL,
  data_json TEXT NOT NULL CONSTRAINT set_log_data_valid CHECK (json_valid(data_json)),
  takes_back_id INTEGER CONSTRAINT set_log_takes_back_fk REFERENCES set_log (id) CONSTRAINT set_log_taken_back_once UNIQUE,
  who TEXT NOT NULL CONSTRAINT set_log_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX set_log_by_set ON set_log (set_id, id);
CREATE INDEX set_log_by_machine ON set_log (machine_id, id) WHERE machine_id IS NOT NULL;

CREATE TABLE site_places (
  id INTEGER NOT NULL CONSTRAINT site_places_pk PRIMARY KEY AUTOINCREMENT,
  site TEXT NOT NULL,
  name TEXT NOT NULL CONSTRAINT site_places_name_length CHECK (length(name) BETWEEN 1 AND 80),
  words TEXT NOT NULL CONSTRAINT site_places_words_length CHECK (length(words) <= 300),
  -- Shares of the site's picture, from its left and from its top.
  x_share REAL CONSTRAINT site_places_x_within CHECK (x_share BETWEEN 0 AND 1),
  y_share REAL CONSTRAINT site_places_y_within CHECK (y_share BETWEEN 0 AND 1),
  who TEXT NOT NULL CONSTRAINT site_places_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT site_places_point_whole CHECK ((x_share IS NULL) = (y_share IS NULL))
) STRICT;
CREATE INDEX site_places_by_site ON site_places (site, id);
CREATE TABLE site_places_gone (
  place_id INTEGER NOT NULL CONSTRAINT site_places_gone_pk PRIMARY KEY CONSTRAINT site_places_gone_fk REFERENCES site_places (id),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT site_places_gone_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE TABLE site_pictures (
  id INTEGER NOT NULL CONSTRAINT site_pictures_pk PRIMARY KEY AUTOINCREMENT,
  site TEXT NOT NULL,
  mime TEXT NOT NULL,
  bytes BLOB NOT NULL CONSTRAINT site_pictures_not_empty CHECK (length(bytes) > 0),
  who TEXT NOT NULL CONSTRAINT site_pictures_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX site_pictures_by_site ON site_pictures (site, id);

-- What the shop does and to which limits, as versions; a take names those it was made under.
CREATE TABLE procedures (
  slug TEXT NOT NULL CONSTRAINT procedures_slug_form CHECK (slug GLOB '[a-z]*' AND length(slug) <= 60),
  version INTEGER NOT NULL CONSTRAINT procedures_version_positive CHECK (version > 0),
  data_json TEXT NOT NULL CONSTRAINT procedures_data_valid CHECK (json_valid(data_json)),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT procedures_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT procedures_pk PRIMARY KEY (slug, version)
) STRICT;
CREATE TABLE procedures_withdrawn (
  slug TEXT NOT NULL,
  version INTEGER NOT NULL,
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT procedures_withdrawn_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT procedures_withdrawn_pk PRIMARY KEY (slug, version),
  CONSTRAINT procedures_withdrawn_fk FOREIGN KEY (slug, version) REFERENCES procedures (slug, version)
) STRICT;
CREATE TABLE step_procedures (
  step_id INTEGER NOT NULL CONSTRAINT step_procedures_step_fk REFERENCES steps (id),
  slug TEXT NOT NULL,
  version INTEGER NOT NULL,
  CONSTRAINT step_procedures_pk PRIMARY KEY (step_id, slug),
  CONSTRAINT step_procedures_fk FOREIGN KEY (slug, version) REFERENCES procedures (slug, version)
) STRICT;
CREATE INDEX step_procedures_by_version ON step_procedures (slug, version);

CREATE TRIGGER machine_standing_kept BEFORE UPDATE ON machine_standing BEGIN SELECT RAISE(ABORT, 'only added to'); END;
CREATE TRIGGER machine_standing_not_erased BEFORE DELETE ON machine_standing BEGIN SELECT RAISE(ABORT, 'never erased'); END;
CREATE TRIGGER service_rules_kept BEFORE UPDATE ON service_rules BEGIN SELECT RAISE(ABORT, 'a rule is replaced by a later one'); END;
CREATE TRIGGER service_rules_not_erased BEFORE DELETE ON service_rules BEGIN SELECT RAISE(ABORT, 'rules are never erased'); END;
CREATE TRIGGER service_log_kept BEFORE UPDATE ON service_log BEGIN SELECT RAISE(ABORT, 'the service log is only added to'); END;
CREATE TRIGGER service_log_not_erased BEFORE DELETE ON service_log BEGIN SELECT RAISE(ABORT, 'the service log is never erased'); END;
CREATE TRIGGER part_versions_kept BEFORE UPDATE ON part_versions BEGIN SELECT RAISE(ABORT, 'a part gets a new version'); END;
CREATE TRIGGER part_versions_not_erased BEFORE DELETE ON part_versions BEGIN SELECT RAISE(ABORT, 'parts are never erased'); END;
CREATE TRIGGER part_moves_kept BEFORE UPDATE ON part_moves BEGIN SELECT RAISE(ABORT, 'stock moves are only added'); END;
CREATE TRIGGER part_moves_not_erased BEFORE DELETE ON part_moves BEGIN SELECT RAISE(ABORT, 'stock moves are never erased'); END;
CREATE TRIGGER set_log_kept BEFORE UPDATE ON set_log BEGIN SELECT RAISE(ABORT, 'the log of a set is only added to'); END;
CREATE TRIGGER set_log_not_erased BEFORE DELETE ON set_log BEGIN SELECT RAISE(ABORT, 'the log of a set is never erased'); END;
CREATE TRIGGER procedures_kept BEFORE UPDATE ON procedures BEGIN SELECT RAISE(ABORT, 'a procedure gets a new version'); END;
CREATE TRIGGER procedures_not_erased BEFORE DELETE ON procedures BEGIN SELECT RAISE(ABORT, 'procedures are never erased'); END;
