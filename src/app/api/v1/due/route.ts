import { reading } from "@/app/api/answer";
import { type DueLine, dueNow } from "@/data/service/due";
import { listOwed } from "@/data/service/owed";

/** As it was answered before everything had one vocabulary; kept for one version. */
const asBefore = ({ machineId, fleetNumber, name, what, places = [], state, day }: DueLine) => {
  const range = day?.early && day.late && day.early !== day.late ? { range: { early: day.early, late: day.late } } : {};
  return {
    ...{ machineId, fleetNumber, name, what, places, state: state === "soon" ? "soon" : "due" },
    ...(state === "overdue" ? { isOver: true } : {}),
    ...(day?.on ? { on: day.on } : {}),
    ...range,
  };
};

/** Everything that is to be done over the whole fleet, `lines`; `due` and `owed` as they were answered before. */
export function GET(request: Request) {
  return reading(request, (db) => {
    const lines = dueNow(db, new Date().toISOString());
    const due = lines.filter(({ state, what }) => what !== "owed" && state !== "postponed").map(asBefore);
    return { lines, due, owed: listOwed(db) };
  });
}
