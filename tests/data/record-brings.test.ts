import fc from "fast-check";
import { beforeAll, describe, expect, it } from "vitest";
import { worksheetById, worksheetsFor } from "@/core/checks";
import { pricks } from "@/core/checks/sound-basics";
import { checkContexts, contextOf } from "@/data/checks/check-context";
import { recordTake } from "@/data/checks/takes";
import { listMachines } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import type { Db } from "@/data/store/db";
import { seedDepot } from "@/demo/depot";
import { type Clock, emptyDepot, makeSafe, openJob } from "./helpers";

const SEED = 20_261_126;
const NOW = "2026-09-01T00:00:00.000Z";

let db: Db;
let clock: Clock;
beforeAll(() => {
  ({ db, clock } = emptyDepot());
});

/** What nobody typed must never be what a save is refused for. */
describe("what the record brings", () => {
  it("of every machine, to every worksheet, is taken by that worksheet's own schema", () => {
    const depot = openDatabase(":memory:");
    seedDepot(depot, NOW);
    let brought = 0;
    for (const { id, machine } of listMachines(depot)) {
      const contexts = checkContexts(depot, { machineId: id, now: NOW });
      for (const check of worksheetsFor(machine)) {
        const context = contexts[check.id];
        if (!context) continue;
        brought++;
        expect([id, check.id, check.readingsSchema.safeParse(context).error?.issues]).toEqual([id, check.id, undefined]);
      }
    }
    expect(brought).toBeGreaterThan(10);
  });

  it("whatever was pricked at an earlier visit, the next one can be saved (a stubble of 0.3 m came back and poisoned every save)", () => {
    const check = worksheetById("cutting-height");
    if (!check) throw new Error("no such check");
    const heights = fc.array(fc.double({ min: 0.001, max: 0.399, noNaN: true }), { minLength: 2, maxLength: 6 });
    fc.assert(
      fc.property(heights, fc.double({ min: 0.001, max: 0.399, noNaN: true }), (heightsMetres, settingMetres) => {
        const first = openJob(db, clock, "bd-1");
        makeSafe(db, clock, first, "parked");
        recordTake(db, clock.doing(), { jobId: first, checkId: "cutting-height", readings: { settingMetres, heightsMetres }, asTyped: {} });
        const next = openJob(db, clock, "bd-1");
        const context = contextOf(db, { jobId: next, check, now: clock.doing().now });
        expect(check.readingsSchema.safeParse(context).success).toBe(true);
        makeSafe(db, clock, next, "parked");
        const readings = pricks({ settingMetres: 0.06, offsetMetres: 0, spreadMetres: 0.002, random: () => 0.5, turf: "Verge" });
        expect(() => recordTake(db, clock.doing(), { jobId: next, checkId: "cutting-height", readings, asTyped: {} })).not.toThrow();
      }),
      { seed: SEED, numRuns: 25 },
    );
  });
});
