import jsQR from "jsqr";
import QRCode from "qrcode";
import { renderToStaticMarkup } from "react-dom/server";
import { beforeEach, describe, expect, it } from "vitest";
import { GET as cardRoute } from "@/app/api/v1/jobs/[id]/card/route";
import { cardOf } from "@/app/jobs/[id]/job-card";
import { cardDocument, cardPdf } from "@/app/paper/card-pdf";
import { QrCode } from "@/app/paper/qr";
import { recordTake } from "@/data/checks/takes";
import { closeJob, recordAnswer, recordFix, recordHandover, recordHold, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { getMachine } from "@/data/machine/machines";
import { listOwed } from "@/data/service/owed";
import type { Db } from "@/data/store/db";
import { type Clock, cutWith, emptyDepot, LEDGE_INCHES, LEVEL_INCHES, makeReady, makeSafe, openJob, tips, tyres } from "./helpers";

const NOW = "2026-05-05T08:00:00.000Z";
let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const card = (jobId: number, system: "us" | "metric" = "us") => {
  const view = getJobView(db, jobId, NOW);
  const owed = listOwed(db, view.machine.id).filter((one) => one.jobId === jobId);
  return cardOf({ view, owed, system, zone: "UTC", now: NOW });
};

/** A ledge mended by its hangers, and proved. */
function wholeJob(): number {
  const jobId = openJob(db, clock);
  recordAnswer(db, clock.doing(), { jobId, symptoms: { "torn-tips": "present" }, contexts: {} });
  makeSafe(db, clock, jobId);
  const take = (checkId: string, readings: unknown) => recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {} });
  take("tyre-pressure", tyres([12, 18, 18, 12]));
  take("deck-level", tips(LEDGE_INCHES));
  const turns = (getMachine(db, "zt-1").machine.deck?.hangers ?? []).slice(0, 1).map(({ id }) => ({ hangerId: id, turns: 1.5 }));
  recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "locknuts tight", turns });
  take("deck-level", tips(LEVEL_INCHES));
  makeReady(db, clock, jobId);
  cutWith(db, clock, jobId);
  closeJob(db, clock.doing(), { jobId, causes: ["deck-out-of-level"], words: "", unprovedReason: "closed on the cut" });
  return jobId;
}

describe("a job on paper", () => {
  it("holds the complaint, what was found, every step with its figures in the reader's units, and what is owed by when", () => {
    const jobId = wholeJob();
    const [us, metric] = [card(jobId), card(jobId, "metric")];
    expect([us.fleetNumber, us.complaints[0]?.words, us.causes]).toEqual(["ZT-1", "a ledge", ["Deck out of level side to side"]]);
    const level = (one: typeof us) => one.steps.filter(({ words }) => words.startsWith("Deck level")).map(({ lines }) => lines.join(" "));
    expect(level(us)).toHaveLength(2);
    expect(level(us)[0]).toMatch(/\bin\b/);
    expect(level(metric)[0]).toMatch(/\bmm\b/);
    expect(us.steps.flatMap(({ lines }) => lines).join(" ")).toContain("locknuts tight");
    expect(us.warnings.join(" ")).toMatch(/Owed by \d+ May 2026: second look for browning/);
    expect(us.gaps).toEqual([]);
  });

  it("of an open job says what is missing and claims no cause; taken back stands struck out", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const { stepId } = recordFix(db, clock.doing(), { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" });
    undoStep(db, clock.doing(), { jobId, stepId, reason: "wrong job" });
    const open = card(jobId);
    expect([open.causes, open.state.startsWith("Open since"), open.gaps.length > 0]).toEqual([[], true, true]);
    expect(open.steps.filter(({ isUndone }) => isUndone)).toHaveLength(1);
    expect(open.steps.at(-1)?.words).toContain("wrong job");
  });

  it("held, it says so first, and that a card clears nothing; a part handed over stands on it with what is owed", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    recordHandover(db, clock.doing(), { jobId, what: "left gearbox", to: "the shop in town", owes: ["oil"], dueAt: "2026-06-01" });
    recordHold(db, clock.doing(), { jobId, reason: "shaft bent" });
    const [first, ...rest] = card(jobId).warnings;
    expect(first).toMatch(/^HELD: not to be run\..*clears nothing/);
    expect(rest.join(" ")).toContain("Owed by 1 Jun 2026: left gearbox, with the shop in town: oil.");
  });
});

describe("its PDF", () => {
  /** ISO 216 and ANSI: 210 × 297 mm and 8.5 × 11 in, in points of 1/72 in. */
  it.each([
    ["a4", 595.28, 841.89],
    ["letter", 612, 792],
  ] as const)("%s is as large as its paper, and leads back to the job", async (size, width, height) => {
    const url = "http://127.0.0.1:3000/jobs/1";
    const file = (await cardPdf(card(wholeJob()), { url, size })).toString("latin1");
    expect(file.startsWith("%PDF-1.")).toBe(true);
    const [, w, h] = /\/MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(file) ?? [];
    expect([Number(w), Number(h)]).toEqual([expect.closeTo(width, 1), expect.closeTo(height, 1)]);
    expect(JSON.stringify(cardDocument(card(1), { url, size }))).toContain(`"qr":"${url}"`);
  });

  it("writes initials of other alphabets, and a long job over as many pages as it takes", async () => {
    const one = card(wholeJob());
    const long = { ...one, steps: Array.from({ length: 120 }, () => ({ ...(one.steps[0] as (typeof one.steps)[number]), who: "ЖΩ" })) };
    const file = (await cardPdf(long, { url: "http://x/jobs/1", size: "a4" })).toString("latin1");
    expect((file.match(/\/Type \/Page\b/g) ?? []).length).toBeGreaterThan(2);
  });

  it("is answered by the API, and refused for a job or a size nobody has", async () => {
    const host = "127.0.0.1:3000";
    const ask = async (id: string, query = "") =>
      cardRoute(new Request(`http://${host}/api/v1/jobs/${id}/card${query}`, { headers: { host, origin: `http://${host}` } }), {
        params: Promise.resolve({ id }),
      });
    expect((await ask("x1")).status).toBe(404);
    expect((await ask("999999")).status).toBe(404);
    const odd = await ask("1", "?size=a3");
    expect([odd.status, (await odd.json()).issues[0].path]).toEqual([422, ["size"]]);
  });
});

/** Read by another library than the one that wrote it. */
describe("a code on paper", () => {
  it.each(["http://127.0.0.1:3000/jobs/49", "https://mowers.example/complaint?machine=rt-1"])("%s is read as it was written", (text) => {
    const { modules } = QRCode.create(text, { errorCorrectionLevel: "M" });
    const markup = renderToStaticMarkup(QrCode({ text, size: "26mm", label: text }));
    const dark = [...markup.matchAll(/M(\d+) (\d+)h1v1h-1z/g)].map(([, x, y]) => `${x},${y}`);
    expect(dark).toHaveLength([...modules.data].filter(Boolean).length);
    const [scale, side] = [4, modules.size + 8];
    const pixels = new Uint8ClampedArray((side * scale) ** 2 * 4).fill(255);
    for (const at of dark) {
      const [x = 0, y = 0] = at.split(",").map(Number);
      for (let dy = 0; dy < scale; dy++)
        for (let dx = 0; dx < scale; dx++) {
          const k = ((y * scale + dy) * side * scale + x * scale + dx) * 4;
          pixels.fill(0, k, k + 3);
        }
    }
    expect(jsQR(pixels, side * scale, side * scale)?.data).toBe(text);
  });
});
