import { describe, expect, it } from "vitest";
import { addressOf, dropAt, type Kept, keepAt, keptAt, keptIn, NOBODY, othersAt, pruneKept, type Store } from "./kept";

class Memory implements Store {
  private readonly texts = new Map<string, string>();
  constructor(private readonly most = Number.POSITIVE_INFINITY) {}
  get length(): number {
    return this.texts.size;
  }
  key(index: number): string | null {
    return [...this.texts.keys()][index] ?? null;
  }
  getItem(address: string): string | null {
    return this.texts.get(address) ?? null;
  }
  setItem(address: string, text: string): void {
    if (text.length > this.most) throw new Error("full");
    this.texts.set(address, text);
  }
  removeItem(address: string): void {
    this.texts.delete(address);
  }
}

const AT = "2026-11-26T08:00:00.000Z";
const KEPT: Kept = { value: { text: "a thought" }, id: "11111111-1111-4111-8111-111111111111", system: "us", at: AT };
const AK = { recordId: "0a", who: "AK" };

describe("what a browser keeps", () => {
  it("comes back as it was, under its record, its person and its key only", () => {
    const store = new Memory();
    expect(keepAt(addressOf(AK, "job:1:note"), KEPT, store)).toBe(true);
    expect(keptAt(addressOf(AK, "job:1:note"), store)).toEqual(KEPT);
    for (const other of [
      addressOf({ ...AK, recordId: "0b" }, "job:1:note"),
      addressOf({ ...AK, who: "JM" }, "job:1:note"),
      addressOf(AK, "job:2:note"),
    ])
      expect(keptAt(other, store), other).toBeUndefined();
    dropAt(addressOf(AK, "job:1:note"), store);
    expect(store.length).toBe(0);
  });

  it.each([
    ["no JSON", "{"],
    ["an older program's", '{"text":{},"sure":{}}'],
    ["no id", JSON.stringify({ ...KEPT, id: "7" })],
    ["other units", JSON.stringify({ ...KEPT, system: "furlongs" })],
    ["a bare word", '"text"'],
    ["nothing", "null"],
  ])("%s is set aside once, out of the way, and not thrown away", (_, text) => {
    const store = new Memory();
    const address = addressOf(AK, "job:1:note");
    store.setItem(address, text);
    expect(keptIn(text)).toBeUndefined();
    expect(keptAt(address, store)).toBeUndefined();
    expect(store.getItem(address)).toBeNull();
    expect(store.getItem(`zygometer-aside/${address}`)).toBe(text);
  });

  it("of others is found under the same key of the same record", () => {
    const store = new Memory();
    for (const [recordId, who, key] of [
      ["0a", "JM", "job:1:note"],
      ["0a", NOBODY, "job:1:note"],
      ["0a", "AK", "job:1:note"],
      ["0b", "RSO", "job:1:note"],
      ["0a", "RSO", "job:11:note"],
    ] as const)
      keepAt(addressOf({ recordId, who }, key), KEPT, store);
    expect(othersAt(AK, "job:1:note", store).map(({ who }) => who)).toEqual(["JM", NOBODY]);
  });

  it("says when a store is full, and lets go of what nobody came back to for sixty days, whatever record it was of", () => {
    expect(keepAt("x", KEPT, new Memory(10))).toBe(false);
    const store = new Memory();
    keepAt(addressOf(AK, "new"), KEPT, store);
    keepAt(addressOf({ ...AK, recordId: "0b" }, "old"), { ...KEPT, at: "2026-09-01T00:00:00.000Z" }, store);
    store.setItem("somebody-elses", "stays");
    pruneKept(AT, store);
    expect(store.length).toBe(2);
    expect(keptAt(addressOf(AK, "new"), store)).toEqual(KEPT);
  });
});
