import { describe, expect, it } from "vitest";
import { allFeatures, questionsFor, type WorkUpInput, workUp, workUpInputSchema } from "./index";

const ledge: WorkUpInput = {
  cutsWith: "rotary",
  features: allFeatures("rotary"),
  given: { symptoms: { "step-between-passes": "present" }, context: ["deck-dropped"], evidence: [] },
  state: "parked",
  done: [],
  skipped: [],
  order: "information",
};

describe("a job worked up", () => {
  it("brings causes, list, advice and the other school's minutes together", () => {
    const { diagnosis, plan, other, advice, settles } = workUp(ledge);
    expect(diagnosis.causes[0]?.id).toBe("deck-out-of-level");
    expect(plan.checks[0]?.id).toBe("hanger-inspection");
    expect(other.order).toBe("walk-round");
    // A walk round begins where a ledge is looked for; for a shake it comes by late.
    const shake = workUp({ ...ledge, given: { symptoms: { vibration: "present" }, context: [], evidence: [] } });
    expect(shake.other.expectedMinutes).toBeGreaterThan(1.5 * shake.plan.expectedMinutes);
    expect(advice.code).toBe("go-on");
    expect(settles.length).toBeGreaterThan(0);
    for (const cause of settles) expect(plan.checks[0]?.tells).toContain(cause);
  });

  it("without reasons says the same, and why of nothing", () => {
    const [whole, quick] = [workUp(ledge), workUp(ledge, { withReasons: false })];
    const bare = (causes: typeof whole.diagnosis.causes) => causes.map((cause) => ({ ...cause, reasons: [] }));
    expect(whole.diagnosis.causes.some(({ reasons }) => reasons.length > 0)).toBe(true);
    expect(quick).toEqual({
      ...whole,
      diagnosis: {
        ...whole.diagnosis,
        causes: bare(whole.diagnosis.causes),
        alsoWorthALook: bare(whole.diagnosis.alsoWorthALook),
      },
    });
  });

  it("leaves out what was left out, and what is done unless it has gone stale", () => {
    const ids = (input: WorkUpInput) => workUp(input).plan.checks.map(({ id }) => id);
    expect(ids({ ...ledge, skipped: ["hanger-inspection"] })).not.toContain("hanger-inspection");
    expect(ids({ ...ledge, done: ["deck-level"] })).not.toContain("deck-level");
    expect(ids({ ...ledge, done: ["deck-level"], given: { ...ledge.given, stale: ["deck-level"] } })).toContain("deck-level");
  });

  it("counts no evidence of a stale reading, in the causes or in what to check next", () => {
    const evidence = [{ check: "deck-level", cause: "deck-out-of-level", result: "not-found" as const }];
    const stale = workUp({ ...ledge, done: ["deck-level"], given: { ...ledge.given, evidence, stale: ["deck-level"] } });
    expect(stale.diagnosis.causes).toEqual(workUp(ledge).diagnosis.causes);
    expect(stale.plan).toEqual(workUp(ledge).plan);
  });

  it("keeps waiting for what was left out: a check not made puts nothing right", () => {
    const level = workUp({ ...ledge, skipped: ["tyre-pressure"] }).plan.checks.find(({ id }) => id === "deck-level");
    expect(level?.waitsFor).toEqual(["tyre-pressure"]);
  });

  it("offers nothing left out even where a reading of it has gone stale", () => {
    const input = {
      ...ledge,
      done: ["deck-level" as const],
      skipped: ["deck-level" as const],
      given: { ...ledge.given, stale: ["deck-level" as const] },
    };
    expect(workUp(input).plan.checks.map(({ id }) => id)).not.toContain("deck-level");
  });

  it("suggests nothing the machine must not be run for, in either order, to tell two apart or to settle; what is left to look at stays left", () => {
    const shake: WorkUpInput = { ...ledge, given: { symptoms: { vibration: "present" }, context: ["struck-object"], evidence: [] } };
    const barred = ["vibration-reading", "tip-speed"] as const;
    for (const order of ["information", "walk-round"] as const) {
      const ids = (input: WorkUpInput) => workUp(input).plan.checks.map(({ id }) => id);
      expect(ids({ ...shake, order })).toContain("vibration-reading");
      const held = workUp({ ...shake, order, barred: [...barred] });
      for (const id of barred) {
        expect(held.plan.checks.map((check) => check.id)).not.toContain(id);
        expect(held.tie?.check).not.toBe(id);
      }
      // The others keep their order.
      const left = ids({ ...shake, order }).filter((id) => !(barred as readonly string[]).includes(id));
      expect(held.plan.checks.map(({ id }) => id)).toEqual(expect.arrayContaining(left.slice(0, 1)));
    }
    const all = workUp(shake).plan.checks.map(({ id }) => id);
    expect(workUp({ ...shake, skipped: all.filter((id) => id !== "vibration-reading"), barred: [...barred] })).toMatchObject({
      plan: { checks: [] },
      advice: { code: "go-on" },
    });
    expect(workUp({ ...shake, skipped: all }).advice.code).toBe("nothing-left");
  });

  it("is the walk-round when that is asked for, and what fits when minutes are short", () => {
    expect(workUp({ ...ledge, order: "walk-round" }).plan.checks[0]?.id).toBe("turf-condition");
    expect(workUp({ ...ledge, minutesLeft: 8 }).plan.minutes).toBeLessThanOrEqual(8);
    // Nothing fits, yet there is something left to look at.
    expect(workUp({ ...ledge, minutesLeft: 1 })).toMatchObject({ plan: { checks: [] }, advice: { code: "go-on" } });
  });

  it("passes its own schema, which refuses ids nobody knows", () => {
    expect(workUpInputSchema.parse(ledge)).toEqual(ledge);
    expect(workUpInputSchema.safeParse({ ...ledge, done: ["guessing"] }).success).toBe(false);
    expect(workUpInputSchema.safeParse({ ...ledge, given: { ...ledge.given, symptoms: { mohawk: "present" } } }).success).toBe(false);
  });

  it("asks no more questions than wanted, and none that was answered", () => {
    expect(questionsFor(ledge, [], 3)).toHaveLength(3);
    expect(questionsFor(ledge, ["struck-object"], 99).map(({ id }) => id)).not.toContain("struck-object");
  });
});
