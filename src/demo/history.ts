import { seededRandom } from "@/core/basics/random";
import type { CauseId } from "@/core/catalogue";
import type { Db } from "@/data/store/db";
import type { Story } from "@/stories/story";
import { Teller } from "@/stories/teller";
import { REEL_STORIES } from "./reel-stories";
import { STORIES as OTHERS } from "./stories";

const STORIES = [...OTHERS, ...REEL_STORIES];

const SEED = 20_261;
const DAY = 86_400_000;

/** What half of the older jobs were thought to be before anything was read: now and then something else than was found. */
function guessed(story: Story, index: number): Story {
  const { fault } = story;
  if (story.stop !== undefined || index % 2 === 1 || !("cause" in fault)) return story;
  const other = fault.kind === "deck" ? "tyres-unequal" : "blade-dull";
  const isReel = story.fleetNumber.startsWith("R");
  return { ...story, guess: index % 6 === 4 && !isReel ? other : (fault.cause as CauseId) };
}

/**
 * Plays every story through the same functions the screens use, hidden fault in, readings with gauge noise out; `before` writes down what else was done by
 * the hour a story begins. Returns how many.
 */
export function seedHistory(db: Db, now: string, before: (at: string) => void = () => undefined): number {
  const random = seededRandom(SEED);
  // Told in the order they happened: a machine that was run since is not safe any more.
  [...STORIES]
    .sort((a, b) => b.daysAgo - a.daysAgo)
    .forEach((told, index) => {
      const story = guessed(told, index);
      before(new Date(Date.parse(now) - story.daysAgo * DAY).toISOString());
      new Teller(db, story, Date.parse(now) - story.daysAgo * DAY, random, index).tell();
    });
  return STORIES.length;
}
