import { describe, expect, it } from "vitest";
import { initialsSchema, lookOf } from "./initials";

const read = (text: string) => initialsSchema.safeParse(text);

describe("initials", () => {
  it.each([
    ["ab", "AB"],
    [" äö ", "ÄÖ"],
    ["ＡＫ", "AK"],
    ["жш", "ЖШ"],
    ["山田", "山田"],
    ["straße".slice(4), undefined],
  ])("%s is read as %s", (typed, wanted) => {
    expect(read(typed).data).toBe(wanted ?? "SSE");
  });

  it.each(["A", "ABCDE", "A1", "", "A B", "A\u200bB", "__proto__", "ab-c"])("“%s” is none", (typed) => {
    expect(read(typed).success).toBe(false);
  });

  it.each([
    ["Latin A and Cyrillic К", "AК"],
    ["Greek Α and Latin K", "ΑK"],
    ["a click that looks like I", "ǀB"],
    ["Cherokee", "ᎪᏦ"],
    ["Lisu", "ꓮꓗ"],
  ])("of more than one alphabet, or of one made to look like another, are none: %s", (_, typed) => {
    expect(read(typed).success).toBe(false);
  });

  it("of another alphabet look like those they are printed like, letter by letter", () => {
    expect(lookOf("АК")).toBe("AK");
    expect(lookOf("ΑΚ")).toBe("AK");
    expect(lookOf("РМ")).toBe(lookOf("PM"));
    expect(lookOf("ЖШ")).toBe("ЖШ");
    expect(lookOf("ÄK")).not.toBe(lookOf("AK"));
  });
});
