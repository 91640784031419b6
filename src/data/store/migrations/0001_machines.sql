-- Who works here and what they look after; a sheet is never changed in place, so that an old verdict can be explained by the sheet it used.
CREATE TABLE people (
  initials TEXT NOT NULL CONSTRAINT people_pk PRIMARY KEY CONSTRAINT people_initials_form CHECK (length(initials) BETWEEN 2 AND 4),
  unit_system TEXT NOT NULL DEFAULT 'us' CONSTRAINT people_unit_system_known CHECK (unit_system IN ('us', 'metric')),
  theme TEXT NOT NULL DEFAULT 'light' CONSTRAINT people_theme_known CHECK (theme IN ('light', 'dark')),
  check_order TEXT NOT NULL DEFAULT 'information' CONSTRAINT people_check_order_known CHECK (check_order IN ('information', 'walk-round')),
  stands_at TEXT NOT NULL DEFAULT 'behind' CONSTRAINT people_stands_at_known CHECK (stands_at IN ('behind', 'front', 'left', 'right', 'underneath')),
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE machines (
  id TEXT NOT NULL CONSTRAINT machines_pk PRIMARY KEY,
  fleet_number TEXT NOT NULL CONSTRAINT machines_fleet_number_unique UNIQUE,
  name TEXT NOT NULL,
  kind TEXT NOT NULL,
  site TEXT NOT NULL,
  created_at TEXT NOT NULL
) STRICT;

CREATE TABLE machine_sheets (
  machine_id TEXT NOT NULL CONSTRAINT machine_sheets_machine_fk REFERENCES machines (id),
  version INTEGER NOT NULL CONSTRAINT machine_sheets_version_positive CHECK (version > 0),
  sheet_json TEXT NOT NULL CONSTRAINT machine_sheets_json_valid CHECK (json_valid(sheet_json)),
  reason TEXT NOT NULL,
  who TEXT NOT NULL CONSTRAINT machine_sheets_who_fk REFERENCES people (initials),
  at TEXT NOT NULL,
  CONSTRAINT machine_sheets_pk PRIMARY KEY (machine_id, version)
) STRICT;

CREATE TABLE hours (
  id INTEGER NOT NULL CONSTRAINT hours_pk PRIMARY KEY AUTOINCREMENT,
  machine_id TEXT NOT NULL CONSTRAINT hours_machine_fk REFERENCES machines (id),
  meter_hours REAL NOT NULL CONSTRAINT hours_not_negative CHECK (meter_hours >= 0),
  corrects_id INTEGER CONSTRAINT hours_corrects_fk REFERENCES hours (id),
  who TEXT NOT NULL CONSTRAINT hours_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;
CREATE INDEX hours_by_machine ON hours (machine_id, at);

CREATE TRIGGER machine_sheets_kept BEFORE UPDATE ON machine_sheets BEGIN SELECT RAISE(ABORT, 'a sheet is replaced by a new version, never changed'); END;
CREATE TRIGGER machine_sheets_not_erased BEFORE DELETE ON machine_sheets BEGIN SELECT RAISE(ABORT, 'sheets are never erased'); END;
CREATE TRIGGER hours_kept BEFORE UPDATE ON hours BEGIN SELECT RAISE(ABORT, 'an hours entry is corrected by a new one'); END;
CREATE TRIGGER hours_not_erased BEFORE DELETE ON hours BEGIN SELECT RAISE(ABORT, 'hours are never erased'); END;
