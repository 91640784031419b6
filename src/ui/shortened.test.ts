import { describe, expect, it } from "vitest";
import { LINES_SHOWN, shortened } from "./shortened";

const list = (n: number) => Array.from({ length: n }, (_, k) => k);

describe("a long list on a page", () => {
  it("shows its first lines and says how many are left; all where they are asked for", () => {
    expect(shortened(list(100))).toEqual({ shown: list(LINES_SHOWN), left: 100 - LINES_SHOWN });
    expect(shortened(list(100), { isAll: true })).toEqual({ shown: list(100), left: 0 });
    expect(shortened(list(40), { most: 12 }).left).toBe(28);
  });

  it("hides no single line behind a touch that costs as much", () => {
    expect(shortened(list(LINES_SHOWN + 1)).left).toBe(0);
    expect(shortened([])).toEqual({ shown: [], left: 0 });
  });
});
