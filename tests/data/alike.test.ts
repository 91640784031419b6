import { beforeEach, describe, expect, it } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { soundReadings, spoiled } from "@/core/checks/sound";
import { withSheet } from "@/core/machine";
import { recordTake } from "@/data/checks/takes";
import { unitsAlike } from "@/data/checks/units-alike";
import { getMachine, replaceSheet } from "@/data/machine/machines";
import { logEvent } from "@/data/service/events";
import type { Db } from "@/data/store/db";
import { type Clock, emptyDepot, makeSafe, openJob, refusedFor } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

function read(machineId: string, changes: Record<string, unknown> = {}): void {
  const jobId = openJob(db, clock, machineId);
  makeSafe(db, clock, jobId, "locked-out", machineId);
  const { machine } = getMachine(db, machineId);
  const sound = soundReadings({ machine, check: "unit-match", random: seededRandom(4), turf: "Square" }) ?? {};
  recordTake(db, clock.doing(), { jobId, checkId: "unit-match", readings: spoiled(sound, changes), asTyped: {} });
}
const alike = (...machines: string[]) => unitsAlike(db, { machines, now: clock.doing().now });
const odd = ({ matrix }: ReturnType<typeof alike>) =>
  matrix.flatMap(({ property, cells }) => Object.entries(cells).flatMap(([key, { isOdd }]) => (isOdd ? [`${key} ${property}`] : [])));

describe("units of several machines side by side", () => {
  it("asked for one it brings those built like it or on its site; asked for several it is those; for none, all reel machines", () => {
    const chosen = (...machines: string[]) => [...new Set(alike(...machines).units.map(({ machineId }) => machineId))];
    expect(chosen("rt-1")).toEqual(["rt-1", "rt-2"]);
    expect(chosen("rf-1", "rw-1")).toEqual(["rf-1", "rw-1"]);
    expect(chosen()).toEqual(["rf-1", "rt-1", "rt-2", "rw-1"]);
    expect(refusedFor(() => alike("zt-1"))).toEqual(["machine-not-found"]);
  });

  it("a unit of one machine that is not as those of both stands out, by what was read last", () => {
    read("rt-1");
    read("rt-2", { "units.right.benchMetres": 0.0124, "units.right.frontRoller": "smooth" });
    expect(odd(alike("rt-1"))).toEqual(["rt-2:right frontRoller", "rt-2:right benchMetres"]);
    read("rt-2");
    expect(odd(alike("rt-1"))).toEqual([]);
  });

  it("machines built otherwise are laid side by side and each compared with its own build alone: another build is no fault", () => {
    for (const id of ["rt-1", "rt-2", "rf-1"]) read(id);
    const all = alike();
    expect(all.builds).toEqual([["rf-1"], ["rt-1", "rt-2"], ["rw-1"]]);
    expect(odd(all)).toEqual([]);
    // Two machines of one build still show what differs, with another build beside them.
    read("rt-2", { "units.right.frontRoller": "smooth" });
    expect(odd(alike("rt-1", "rt-2", "rf-1"))).toEqual(["rt-2:right frontRoller"]);
  });

  it("what nobody read is the sheet's and says so; what only wear decides is left open", () => {
    read("rt-1");
    const { units, matrix } = alike("rt-1");
    const [measured, bySheet] = [units.find(({ key }) => key === "rt-1:left"), units.find(({ key }) => key === "rt-2:left")];
    expect([measured?.bySheet, measured?.readAt !== undefined]).toEqual([[], true]);
    expect([bySheet?.bySheet.includes("blades"), bySheet?.bySheet.includes("diameterMetres"), bySheet?.readAt]).toEqual([
      true,
      false,
      undefined,
    ]);
    expect(matrix.find(({ property }) => property === "diameterMetres")?.cells["rt-2:left"]).toBeUndefined();
  });

  it("knives are compared by name: another machine's “as on the sheet” is another knife", () => {
    for (const id of ["rt-1", "rt-2"]) {
      if (id === "rt-2") {
        const { machine, sheetVersion } = getMachine(db, id);
        const bedknife = { ...machine.sheet.unit?.bedknife, type: "Tournament", thicknessMetres: 0.0035 };
        replaceSheet(db, clock.doing(), {
          machineId: id,
          basedOnVersion: sheetVersion,
          machine: withSheet(machine, { unit: { ...machine.sheet.unit, bedknife } }),
          reason: "other knives",
        });
      }
      read(id, { "units.left.knifeMetres": undefined, "units.middle.knifeMetres": undefined, "units.right.knifeMetres": undefined });
    }
    expect(odd(alike("rt-1")).filter((one) => one.endsWith(" knife"))).toHaveLength(6);
  });

  it("touched since it was read, it says so, of that unit alone", () => {
    read("rt-1");
    logEvent(db, clock.doing(), { machineId: "rt-1", event: "unit-ground", place: "left" });
    expect(
      alike("rt-1")
        .units.map(({ key, isStale }) => [key, isStale])
        .slice(0, 3),
    ).toEqual([
      ["rt-1:left", true],
      ["rt-1:middle", false],
      ["rt-1:right", false],
    ]);
  });
});
