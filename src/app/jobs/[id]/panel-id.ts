/** What stands open in the middle of a job's screen. */
export type PanelId =
  | "complaint"
  | "safe"
  | "fix"
  | "put-back"
  | "held"
  | "handover"
  | "cut"
  | "close"
  | "phone"
  | "links"
  | "bring"
  | "deck"
  | "box"
  | "blade"
  | "spindle"
  | `check:${string}`
  | `cause:${string}`;
