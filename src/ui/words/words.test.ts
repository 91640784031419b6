import { describe, expect, it } from "vitest";
import { INCH_METRES, PSI_PASCALS, parseQuantity, type UnitSystem } from "@/core/basics/units";
import { type Action, assessCheck } from "@/core/checks";
import { type Machine, machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { sayAction, sayAnswer } from "../checks/words";
import { sayError, sayIssue, sayQuantityIssue } from "./issues";
import { placeName, sayMovement, showSize, toleranceWords } from "./quantities";

const machine: Machine = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "ZT-1")?.machine);
const answer = (checkId: string, readings: object, system: UnitSystem = "us") => {
  const outcome = assessCheck(checkId, { machine, readings });
  if (outcome.kind !== "assessed") throw new Error(JSON.stringify(outcome));
  return sayAnswer(outcome.assessment, { machine, system });
};
const tips = (inches: readonly number[]) => ({
  tips: ["left:left", "right:right", "middle:front", "middle:rear"].slice(0, inches.length).map((key, k) => {
    const [spindleId, direction] = key.split(":");
    return { spindleId, direction, heightMetres: (inches[k] ?? 0) * INCH_METRES };
  }),
});
const tyres = (psi: readonly number[]) => ({
  tyres: ["left-drive", "left-caster", "right-caster", "right-drive"].map((wheelId, k) => ({
    wheelId,
    pressurePascals: (psi[k] ?? 0) * PSI_PASCALS,
  })),
});

describe("the answer, as it is said at the machine", () => {
  it("says the level first, then the rake, in the person's own units", () => {
    expect(answer("deck-level", tips([3, 3.31, 3.25, 3.19]))).toBe("Left side 5/16 in low. Nose 5/16 in too high.");
    expect(answer("deck-level", tips([3, 3.31, 3.25, 3.19]), "metric")).toBe("Left side 8 mm low. Nose 9 mm too high.");
    expect(answer("deck-level", tips([3.3, 3, 3.06, 3.31]))).toContain("Right side");
    expect(answer("deck-level", tips([3.25, 3.25, 3.0625, 3.3125]))).toBe("Level side to side. Rake right.");
  });

  it("says how many readings are missing", () => {
    expect(answer("deck-level", tips([3, 3.31]))).toBe("1 more to make a plane.");
  });

  it("says which tyres are low or high and by how much; above its maximum only to let air out", () => {
    expect(answer("tyre-pressure", tyres([8, 18, 18, 12]))).toBe("Left drive 4.0 psi low.");
    expect(answer("tyre-pressure", tyres([12, 18, 21, 12]))).toBe("Right caster 3.0 psi high.");
    expect(answer("tyre-pressure", tyres([23, 18, 18, 12]))).toBe("Let air out of left drive now: above the tyre's own maximum.");
    expect(answer("tyre-pressure", tyres([12, 18, 18, 12]), "metric")).toBe("Tyres right.");
  });
});

describe("what to do", () => {
  const turn = (turns: number): Action => ({
    code: "turn-hanger",
    place: "left-rear",
    turns,
    exactTurns: turns,
    liftMetres: 0,
    endsShort: false,
  });
  const said = (action: Action, standpoint: "behind" | "underneath" = "behind") =>
    sayAction("deck-level", action, { machine, system: "us", standpoint });

  it("names hanger, turns, way up and which way round from where one stands", () => {
    expect(said(turn(6.75))).toBe("Left rear: 6¾ turns up, clockwise seen from above");
    expect(said(turn(-0.25))).toBe("Left rear: ¼ turn down, anticlockwise seen from above");
    expect(said(turn(-0.25), "underneath")).toBe("Left rear: ¼ turn down, clockwise seen from below");
  });

  it("says an adjuster at its end as that, not as nought turns", () => {
    expect(said({ ...turn(0), endsShort: true } as Action)).toBe("Left rear: at its end, cannot go further");
  });

  it("says a predicted movement as a range, smaller first, and that it is an estimate", () => {
    const movement = { spindleId: "left", direction: "left", change: -0.004, least: -0.008, most: -0.002 };
    expect(sayMovement(movement, { machine, system: "metric" })).toBe(
      "left blade, tip to the left reckoned 2.00 mm to 8.00 mm down (estimate)",
    );
  });
});

describe("names and sizes", () => {
  it("calls places by the sheet's own names", () => {
    expect(placeName(machine, "left-drive")).toBe("Left drive");
    expect(placeName(machine, "middle:rear")).toBe("Middle blade, tip to the rear");
    expect(placeName(machine, "middle:rear:B")).toBe("Middle blade, tip to the rear, end B");
  });

  it("never shows a difference that was found as nought", () => {
    expect(showSize(0.0005, "us")).toBe("0.020 in");
    expect(showSize(0.0003, "metric")).toBe("0.30 mm");
    expect(showSize(-0.008, "us")).toBe("5/16 in");
  });

  it("says whose word a limit is", () => {
    const figure = { id: "side", value: 0, dimension: "length", instrument: "tape", standing: "measured" } as const;
    expect(toleranceWords({ kind: "about", target: 0, plusMinus: 0.003, standing: "common-practice" }, figure, "metric")).toBe(
      "0 mm ± 3 mm · common practice",
    );
    expect(toleranceWords({ kind: "between", most: 0.1, standing: "sheet" }, figure, "metric")).toBe("up to 100 mm · machine's sheet");
  });
});

describe("what went wrong", () => {
  const issue = (text: string) => {
    const parsed = parseQuantity({ text, dimension: "pressure", bareUnit: "psi" });
    return parsed.ok ? "" : sayQuantityIssue(parsed.issue);
  };

  it("quotes what was typed and shows how to type it", () => {
    expect(issue("twelve")).toBe("“twelve” cannot be read as a pressure. Type it like 12, 0.83 bar or 83 kPa.");
    expect(issue("3 in")).toBe("“in” does not measure a pressure. Type it like 12, 0.83 bar or 83 kPa.");
    expect(issue("1/0")).toContain("a fraction over zero");
  });

  it("has a sentence for every issue a check can raise, in the person's units", () => {
    expect(sayIssue({ code: "height-above-deck-range", mostMetres: 0.1143 }, "us")).toBe(
      "Higher than this deck can stand: its sheet ends at 4 1/2 in. Read it again.",
    );
    expect(sayIssue({ code: "place-read-twice", place: "left:left" }, "us")).toBe("This place has two readings. Keep one.");
    expect(sayIssue({ code: "state-needed", needs: "locked-out" }, "us")).toContain("locked out first");
  });

  it("tells a lost line from a closed job, and both that nothing typed is lost", () => {
    expect(sayError("offline")).toMatch(/kept here/);
    expect(sayError("job-closed")).toMatch(/still here/);
    expect(sayError("whatever-else")).toMatch(/Nothing was written/);
  });
});
