import { EVENTS } from "@/core/catalogue";
import type { DueState, ServiceStanding } from "@/core/fleet/service/standings";
import { type ServiceRule, type TaskId, taskRow } from "@/core/fleet/service/tasks";
import { dateOnly, sinceWords } from "../time";

export const STATE_LABELS: Record<DueState, string> = {
  overdue: "Overdue",
  due: "Due",
  soon: "Soon",
  postponed: "Put off",
  unknown: "Not known",
  good: "Good",
};
export const STATE_MARKS: Record<DueState, string> = {
  overdue: "▲",
  due: "▲",
  soon: "△",
  postponed: "▷",
  unknown: "○",
  good: "●",
};
export const STATE_TONES: Record<DueState, string> = {
  overdue: "text-mark",
  due: "text-mark",
  soon: "text-watch",
  postponed: "text-watch",
  unknown: "text-soft",
  good: "text-good",
};

export const taskLabel = (what: TaskId | string): string => (what === "owed" ? "Owed" : (taskRow(what)?.label ?? what));

const SCOPES: Record<ServiceRule["scope"], string> = {
  usual: "common practice",
  looks: "by what edges of its kind looked like, on an estimate",
  sheet: "its own sheet",
  fleet: "the shop's rule",
  kind: "the shop's rule for its kind",
  machine: "the shop's rule for this machine",
  place: "the shop's rule for this place",
};

const round = (value: number) => String(Number(value < 10 ? value.toFixed(1) : value.toFixed(0)));

/** How often, and whose rule that is. */
export function sayRule(rule: ServiceRule | undefined): string {
  if (!rule) return "only when something raises it";
  if (taskRow(rule.what)?.goesBy) return "by what is left of it";
  const often = [
    ...(rule.everyHours === undefined ? [] : [`every ${round(rule.everyHours)} h`]),
    ...(rule.everyDays === undefined ? [] : [`every ${round(rule.everyDays)} days`]),
  ].join(" or ");
  return `${often}, ${SCOPES[rule.scope]}`;
}

export const SAY_AHEAD = "done under a clock ahead of this one: how long ago cannot be told";

/** When it falls due, with 80 % within. */
export function sayDay(
  { day, hoursLeft, state, isAhead }: Pick<ServiceStanding, "day" | "hoursLeft" | "state" | "isAhead">,
  now: string,
): string {
  if (isAhead) return SAY_AHEAD;
  if (hoursLeft !== undefined && Math.round(hoursLeft) === 0 && hoursLeft <= 0) return "";
  if (hoursLeft !== undefined && hoursLeft <= 0) return `${round(-hoursLeft)} h over`;
  if (state === "overdue" || state === "due") return day?.on && day.on < now ? `${sinceWords(day.on, now)} over` : "";
  if (!day?.on) return "";
  const range = day.early && day.late && day.early !== day.late ? ` (${dateOnly(day.early)} to ${dateOnly(day.late)})` : "";
  return `${hoursLeft === undefined ? "" : `${round(hoursLeft)} h left, `}${dateOnly(day.on)}${range}`;
}

/** Why it presses although the hours do not say so. */
export function sayRaised({ raisedBy }: Pick<ServiceStanding, "raisedBy">): string | undefined {
  if (!raisedBy) return undefined;
  return `${EVENTS.find(({ id }) => id === raisedBy.event)?.label.toLowerCase() ?? raisedBy.event}, ${dateOnly(raisedBy.at)}`;
}
