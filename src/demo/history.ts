import { seededRandom } from "@/core/random";
import type { Db } from "@/data/connection";
import { Teller } from "@/stories/teller";
import { REEL_STORIES } from "./reel-stories";
import { STORIES as OTHERS } from "./stories";

const STORIES = [...OTHERS, ...REEL_STORIES];

const SEED = 20_261;
const DAY = 86_400_000;

/** Plays every story through the same functions the screens use, hidden fault in, readings with gauge noise out. Returns how many. */
export function seedHistory(db: Db, now: string): number {
  const random = seededRandom(SEED);
  // Told in the order they happened: a machine that was run since is not safe any more.
  [...STORIES]
    .sort((a, b) => b.daysAgo - a.daysAgo)
    .forEach((story, index) => {
      new Teller(db, story, Date.parse(now) - story.daysAgo * DAY, random, index).tell();
    });
  return STORIES.length;
}
