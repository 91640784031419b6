/** Every failure that reaches a person or the API, with its HTTP status. One table, one translation. */
export const ERROR_STATUS = {
  "bad-json": 400,
  "unknown-person": 401,
  "foreign-origin": 403,
  "machine-not-found": 404,
  "job-not-found": 404,
  "check-not-found": 404,
  "take-not-found": 404,
  "owed-not-found": 404,
  "photograph-not-found": 404,
  "job-closed": 409,
  "job-not-closed": 409,
  "not-proved": 409,
  "not-safe": 409,
  "nothing-to-undo": 409,
  "hold-stands": 409,
  "changed-since": 409,
  "read-since": 409,
  "initials-taken": 409,
  "fleet-number-taken": 409,
  "submission-reused": 409,
  "body-too-large": 413,
  invalid: 422,
  "database-newer": 500,
  internal: 500,
} as const;

export type ErrorCode = keyof typeof ERROR_STATUS;

export type Issue = { code: string; path: (string | number)[]; [detail: string]: unknown };

export class AppError extends Error {
  readonly code: ErrorCode;
  readonly issues: Issue[];

  constructor(code: ErrorCode, { issues = [], cause }: { issues?: Issue[]; cause?: unknown } = {}) {
    super(code, { cause });
    this.name = "AppError";
    this.code = code;
    this.issues = issues;
  }

  get status(): number {
    return ERROR_STATUS[this.code];
  }
}
