import { describe, expect, it } from "vitest";
import { asker } from "./asking";

type Question = { kind: "double"; number: number; value: number };
type Answer = { kind: "doubled"; number: number; result: number };
type Heard = (event: { data: unknown }) => void;

/** A worker that is a few lines: it answers what it is told to, and dies when asked. */
class Pretended {
  readonly heard = new Map<string, Heard[]>();
  readonly asked: Question[] = [];
  isDead = false;
  addEventListener(kind: string, hear: Heard) {
    this.heard.set(kind, [...(this.heard.get(kind) ?? []), hear]);
  }
  postMessage(question: Question) {
    this.asked.push(question);
  }
  terminate() {
    this.isDead = true;
  }
  tell(kind: string, data?: unknown) {
    for (const hear of this.heard.get(kind) ?? []) hear({ data });
  }
  answer(index: number) {
    const { number = -1, value = 0 } = this.asked[index] ?? {};
    this.tell("message", { kind: "doubled", number, result: 2 * value });
  }
}

function started() {
  const workers: Pretended[] = [];
  const ask = asker<Question, Answer>(() => {
    const worker = new Pretended();
    workers.push(worker);
    return worker as unknown as Worker;
  });
  return { ask, workers };
}

describe("asking a worker", () => {
  it("gives each question its own answer, whatever the order they come in", async () => {
    const { ask, workers } = started();
    const [one, two] = [ask({ kind: "double", value: 3 }), ask({ kind: "double", value: 5 })];
    workers[0]?.answer(1);
    workers[0]?.answer(0);
    expect([await one, await two]).toMatchObject([{ result: 6 }, { result: 10 }]);
    expect(workers).toHaveLength(1);
  });

  it.each(["error", "messageerror"])(
    "one that dies (%s) answers all it was asked with failed, and the next question starts another",
    async (how) => {
      const { ask, workers } = started();
      const lost = [ask({ kind: "double", value: 1 }), ask({ kind: "double", value: 2 })];
      workers[0]?.tell(how);
      expect((await Promise.all(lost)).map(({ kind }) => kind)).toEqual(["failed", "failed"]);
      expect(workers[0]?.isDead).toBe(true);
      const next = ask({ kind: "double", value: 4 });
      workers[1]?.answer(0);
      expect(await next).toMatchObject({ kind: "doubled", result: 8 });
    },
  );

  it("an answer nobody waits for any more does nothing", () => {
    const { ask, workers } = started();
    ask({ kind: "double", value: 1 });
    expect(() => workers[0]?.tell("message", { kind: "doubled", number: 99, result: 0 })).not.toThrow();
  });
});
