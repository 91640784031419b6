-- Each worksheet brings quantities of its own, parsed by its schema: the table keeps their form, not their list. A CHECK cannot be altered.
CREATE TABLE readings_next (
  id INTEGER NOT NULL CONSTRAINT readings_pk PRIMARY KEY AUTOINCREMENT,
  step_id INTEGER NOT NULL CONSTRAINT readings_take_fk REFERENCES takes (step_id),
  place TEXT NOT NULL,
  quantity TEXT NOT NULL CONSTRAINT readings_quantity_form CHECK (quantity GLOB '[a-z]*' AND quantity NOT GLOB '*[^a-z_0-9]*'),
  value REAL NOT NULL,
  as_typed TEXT,
  corrects_id INTEGER CONSTRAINT readings_corrects_fk REFERENCES readings (id),
  CONSTRAINT readings_one_a_place UNIQUE (step_id, place, quantity)
) STRICT;
INSERT INTO readings_next SELECT * FROM readings;
DROP TABLE readings;
ALTER TABLE readings_next RENAME TO readings;
CREATE TRIGGER readings_kept BEFORE UPDATE ON readings BEGIN SELECT RAISE(ABORT, 'a reading is corrected by a new one'); END;
CREATE TRIGGER readings_not_erased BEFORE DELETE ON readings BEGIN SELECT RAISE(ABORT, 'readings are never erased'); END;
