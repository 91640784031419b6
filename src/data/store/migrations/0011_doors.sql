-- What is sent twice is told from what is sent under a used id: by whom it was and what it said. The record has an identity of its own, so that
-- what a browser kept for another record with the same numbers is not taken up. A machine's photograph can be taken back. Nothing is put in
-- order by the wall clock any more.
ALTER TABLE submissions ADD COLUMN who TEXT;
ALTER TABLE submissions ADD COLUMN digest TEXT;

CREATE TABLE record (
  one INTEGER NOT NULL CONSTRAINT record_pk PRIMARY KEY CONSTRAINT record_only_one CHECK (one = 1),
  id TEXT NOT NULL
) STRICT;
INSERT INTO record (one, id) VALUES (1, lower(hex(randomblob(8))));

CREATE TABLE machine_photographs_taken_back (
  photograph_id INTEGER NOT NULL CONSTRAINT machine_photographs_taken_back_pk PRIMARY KEY
    CONSTRAINT machine_photographs_taken_back_fk REFERENCES machine_photographs (id),
  who TEXT NOT NULL CONSTRAINT machine_photographs_taken_back_who_fk REFERENCES people (initials),
  at TEXT NOT NULL
) STRICT;

DROP INDEX jobs_open;
CREATE INDEX jobs_open ON jobs (id) WHERE state <> 'closed';
CREATE INDEX jobs_of_machine ON jobs (machine_id, id);
CREATE INDEX hours_of_machine ON hours (machine_id, id);
