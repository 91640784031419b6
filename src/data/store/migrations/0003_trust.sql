-- Who did what when, and what was already answered: a submission sent twice is answered twice and done once.
CREATE TABLE audit (
  id INTEGER NOT NULL CONSTRAINT audit_pk PRIMARY KEY AUTOINCREMENT,
  at TEXT NOT NULL,
  who TEXT NOT NULL,
  action TEXT NOT NULL,
  subject TEXT NOT NULL,
  detail_json TEXT NOT NULL CONSTRAINT audit_detail_valid CHECK (json_valid(detail_json))
) STRICT;
CREATE INDEX audit_by_subject ON audit (subject, id);

CREATE TABLE submissions (
  id TEXT NOT NULL CONSTRAINT submissions_pk PRIMARY KEY,
  action TEXT NOT NULL,
  answer_json TEXT NOT NULL CONSTRAINT submissions_answer_valid CHECK (json_valid(answer_json)),
  at TEXT NOT NULL
) STRICT;

CREATE TRIGGER audit_kept BEFORE UPDATE ON audit BEGIN SELECT RAISE(ABORT, 'the audit trail is only added to'); END;
CREATE TRIGGER audit_not_erased BEFORE DELETE ON audit BEGIN SELECT RAISE(ABORT, 'the audit trail is never erased'); END;
