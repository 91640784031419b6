import { DIGEST } from "@/core/basics/validation";

/** Every failure that reaches a person or the API, with its HTTP status. One table, one translation. */
export const ERROR_STATUS = {
  "bad-json": 400,
  "unknown-person": 401,
  "foreign-origin": 403,
  "not-yours": 403,
  "machine-not-found": 404,
  "job-not-found": 404,
  "check-not-found": 404,
  "take-not-found": 404,
  "owed-not-found": 404,
  "photograph-not-found": 404,
  "part-not-found": 404,
  "set-not-found": 404,
  "round-not-found": 404,
  "place-not-found": 404,
  "place-stands": 409,
  "procedure-not-found": 404,
  "submission-not-found": 404,
  "request-too-slow": 408,
  "job-closed": 409,
  "job-not-closed": 409,
  "not-proved": 409,
  "not-safe": 409,
  "nothing-to-undo": 409,
  "hold-stands": 409,
  "reason-stands": 409,
  "changed-since": 409,
  "read-since": 409,
  "initials-taken": 409,
  "fleet-number-taken": 409,
  "machine-retired": 409,
  "submission-reused": 409,
  "another-record": 409,
  "too-many-people": 409,
  "photographs-full": 409,
  "body-too-large": 413,
  "not-reached-here": 421,
  invalid: 422,
  "too-many-requests": 429,
  "sheet-spoilt": 500,
  "database-newer": 500,
  "record-spoilt": 500,
  "record-unreadable": 500,
  "no-room": 507,
  internal: 500,
  "json-only": 415,
  "reckoning-too-long": 503,
  "record-busy": 503,
  "folder-in-use": 503,
} as const;

export type ErrorCode = keyof typeof ERROR_STATUS;

export type Issue = { code: string; path: (string | number)[]; [detail: string]: unknown };

export class AppError extends Error {
  readonly code: ErrorCode;
  readonly issues: Issue[];
  /** What a page that fails hands on to its error page; the framework takes it as it is. */
  readonly digest: string;

  constructor(code: ErrorCode, { issues = [], cause }: { issues?: Issue[]; cause?: unknown } = {}) {
    super(code, { cause });
    this.name = "AppError";
    this.code = code;
    this.issues = issues;
    this.digest = `${DIGEST}${code}`;
  }

  get status(): number {
    return ERROR_STATUS[this.code];
  }
}

/** What the database driver and the file system throw, by the start of their codes: spoilt pages, no access, another program's lock, no room left. */
const OF_DRIVER: readonly [RegExp, ErrorCode][] = [
  [/^SQLITE_(CORRUPT|NOTADB)/, "record-spoilt"],
  [/^SQLITE_(BUSY|LOCKED)/, "record-busy"],
  [/^SQLITE_(CANTOPEN|PERM|READONLY|AUTH|IOERR)/, "record-unreadable"],
  [/^(EACCES|EROFS|EPERM|ENOTDIR|EEXIST)$/, "record-unreadable"],
  [/^(SQLITE_FULL|ENOSPC)/, "no-room"],
];

/** A failure of the driver as one of ours; anything else as it is. */
export function ofDriver(error: unknown): unknown {
  const { code } = (error ?? {}) as { code?: unknown };
  if (error instanceof AppError || typeof code !== "string") return error;
  const known = OF_DRIVER.find(([pattern]) => pattern.test(code));
  return known ? new AppError(known[1], { cause: error }) : error;
}
