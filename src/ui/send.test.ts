import { expect, it } from "vitest";
import * as z from "zod";
import { newSubmissionId } from "./kept";

it("makes ids that every border takes for one, none of them twice, where a browser gives no randomUUID", () => {
  const ids = Array.from({ length: 2000 }, newSubmissionId);
  for (const id of ids) expect(z.uuidv4().safeParse(id).success, id).toBe(true);
  expect(new Set(ids).size).toBe(ids.length);
  // Every digit that is not fixed takes every value: nothing of the randomness is lost in writing it down.
  for (let place = 0; place < 36; place++) {
    const seen = new Set(ids.map((id) => id[place]));
    if ([8, 13, 18, 23, 14].includes(place)) expect(seen.size).toBe(1);
    else expect(seen.size).toBe(place === 19 ? 4 : 16);
  }
});
