import { afterAll, describe, expect, it } from "vitest";
import { DEED_IDS, GateDepot, newTally, walkGate } from "../fuzz/gate-walk";

const DEEDS_A_WALK = 100;
const WALKS = 100;
const DEPOTS = 10;

describe("what keeps a machine from running", () => {
  const tally = newTally();
  it.each(Array.from({ length: DEPOTS }, (_, k) => k))(
    "goes by the deed that clears it, by its owner, or by another with a reason that is kept and owed: a thousand deeds by three people, %i",
    (k) => {
      const depot = new GateDepot();
      for (let walk = 0; walk < WALKS / DEPOTS; walk++)
        walkGate(depot, { seed: k * (WALKS / DEPOTS) + walk + 1, deeds: DEEDS_A_WALK, tally });
    },
    180_000,
  );

  it("and the walks got somewhere: every deed the record knows was tried, most were done, reasons went and were let go", () => {
    expect(DEED_IDS.filter((deed) => !tally.byDeed.has(deed))).toEqual([]);
    expect(tally.deeds).toBeGreaterThan(9_000);
    expect(tally.done).toBeGreaterThan(2_000);
    expect(tally.gone).toBeGreaterThan(500);
    expect(tally.letGo).toBeGreaterThan(20);
    expect(tally.kept).toBeGreaterThan(500);
    expect(tally.rested).toBeGreaterThan(100);
  });
  afterAll(() => {
    if (process.env.GATE_TALLY) console.log(tally);
  });
});
