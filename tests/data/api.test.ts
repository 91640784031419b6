import { readFileSync } from "node:fs";
import path from "node:path";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { POST as assess } from "@/app/api/v1/checks/[id]/assess/route";
import { GET as listChecks } from "@/app/api/v1/checks/route";
import { POST as takeComplaint } from "@/app/api/v1/complaints/route";
import { POST as diagnose } from "@/app/api/v1/diagnose/route";
import { POST as jobAction } from "@/app/api/v1/jobs/[id]/[action]/route";
import { GET as getJob } from "@/app/api/v1/jobs/[id]/route";
import { GET as liveOf } from "@/app/api/v1/machines/[id]/live/route";
import { GET as stateOf } from "@/app/api/v1/machines/[id]/state/route";
import { POST as addPerson } from "@/app/api/v1/people/route";
import { CHECKS } from "@/core/catalogue";
import { allYes, itemsFor, type SafeState } from "@/core/job/safety";
import { putBackPoints, type RunReason } from "@/core/job/status";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { stateOfMachine } from "@/data/projections/machine-state";
import { databaseFile } from "@/data/store/connection";
import { emptyDepot, GOOD_CUT, LEVEL_INCHES, temporaryFile, tips, tyres } from "./helpers";

const HOST = "127.0.0.1:3000";
const ORIGIN = `http://${HOST}`;

beforeAll(() => {
  process.env.ZYGOMETER_DATA = path.dirname(temporaryFile());
  emptyDepot(databaseFile()).db.close();
});

function post(body: unknown, { origin = ORIGIN } = {}): Request {
  const text = typeof body === "string" ? body : JSON.stringify(body);
  return new Request(`${ORIGIN}/api`, {
    method: "POST",
    body: text,
    headers: { host: HOST, "content-type": "application/json", ...(origin ? { origin } : {}) },
  });
}

const job = (id: number | string, action: string, body: unknown) =>
  jobAction(post({ who: "AK", ...(body as object) }), { params: Promise.resolve({ id: String(id), action }) });
const check = (id: string, body: unknown, origin = ORIGIN) => assess(post(body, { origin }), { params: Promise.resolve({ id }) });
const complain = (body: object, options?: { origin: string }) =>
  takeComplaint(post({ who: "AK", machineId: "zt-1", words: "a ledge", saidBy: "TV", looks: {}, ...body }, options));

async function answered(promise: Promise<Response>) {
  const response = await promise;
  return {
    status: response.status,
    body: (await response.json()) as Record<string, unknown> & { issues?: { code: string; path: string[] }[] },
  };
}

const YES = { answer: "yes" } as const;
const PARKED = { "level-hard-ground": YES, "blades-stopped": YES, "brake-and-key": YES, "cool-to-touch": YES };

describe("reckoning", () => {
  it("answers the example of docs/api.md as printed there", async () => {
    const [request = "", printed = ""] = [...readFileSync("docs/api.md", "utf8").matchAll(/```json\n([\s\S]*?)```/g)].map(
      (match) => match[1] ?? "",
    );
    const { status, body } = await answered(check("deck-level", JSON.parse(request)));
    expect(status).toBe(200);
    expect(body).toMatchObject(JSON.parse(printed));
  });

  it("diagnoses the example of docs/api.md as printed there", async () => {
    const [request = "", printed = ""] = [...readFileSync("docs/api.md", "utf8").matchAll(/```json\n([\s\S]*?)```/g)]
      .slice(2)
      .map((match) => match[1] ?? "");
    const { status, body } = await answered(diagnose(post(request, { origin: "" })));
    expect(status).toBe(200);
    for (const [field, begins] of Object.entries(JSON.parse(printed) as Record<string, unknown>)) {
      const whole = body[field];
      if (Array.isArray(begins) && Array.isArray(whole)) expect(whole.slice(0, begins.length), field).toMatchObject(begins);
      else expect(whole, field).toEqual(begins);
    }
  });

  it("takes as evidence what assess returns, as it is", async () => {
    const [request = ""] = [...readFileSync("docs/api.md", "utf8").matchAll(/```json\n([\s\S]*?)```/g)].map((match) => match[1] ?? "");
    const { body } = await answered(check("deck-level", JSON.parse(request)));
    const asked = { kind: "rotary", symptoms: { "step-between-passes": "present" }, evidence: body.evidence };
    const { status, body: answer } = await answered(diagnose(post(asked)));
    expect(status).toBe(200);
    expect((answer.causes as { id: string }[])[0]?.id).toBe("deck-out-of-level");
  });

  it("names unknown ids and contradictory contexts of a diagnosis with 422", async () => {
    const bad = { kind: "reel", symptoms: { mohawk: "present", clumps: "maybe" } };
    expect((await answered(diagnose(post(bad)))).status).toBe(422);
    const unknown = { kind: "reel", symptoms: { mohawk: "present" }, context: ["all-machines", "one-machine-only"] };
    const { status, body } = await answered(diagnose(post(unknown)));
    expect(status).toBe(422);
    expect(body.issues).toEqual([
      { code: "unknown-id", path: ["symptoms", "mohawk"], id: "mohawk" },
      { code: "contradictory-contexts", path: ["context"], ids: ["one-machine-only", "all-machines"] },
    ]);
  });

  it("lists every check with its schemas, and needs no Origin", async () => {
    const body = (await (await listChecks()).json()) as {
      checks: { id: string; readingsSchema: { type: string }; kinds: string[]; minutes: number; safeState: string }[];
    };
    expect(body.checks.map(({ id }) => id)).toEqual([
      "turf-condition",
      "tyre-pressure",
      "cutting-height",
      "hanger-inspection",
      "deck-level",
      "anti-scalp-wheels",
      "deck-cleanliness",
      "blade-edge",
      "blade-fit",
      "blade-track",
      "blade-balance",
      "blade-overlap",
      "blade-timing",
      "belt-inspection",
      "spindle-play",
      "gearbox-inspection",
      "tip-speed",
      "vibration-reading",
      "ground-speed",
      "pass-overlap",
      "unit-match",
      "roller-clean",
      "roller-bearing",
      "reel-bearing",
      "arm-play",
      "reel-edge",
      "reel-cone",
      "roller-square",
      "reel-contact",
      "bedknife-attitude",
      "roller-position",
      "groomer-depth",
      "unit-layout",
      "clipping-path",
      "reel-speed",
    ]);
    for (const one of body.checks)
      expect([
        one.readingsSchema.type,
        one.kinds.includes(
          CHECKS.find(({ id }) => id === one.id)?.on.some((on) => on === "rotary")
            ? ["blade-timing", "gearbox-inspection"].includes(one.id)
              ? "geared-rider"
              : "zero-turn"
            : "reel-ride-on",
        ),
        one.minutes > 0,
      ]).toEqual(["object", true, true]);
    expect((await answered(check("deck-level", {}, ""))).status).toBe(422);
  });

  it("answers 422 with issues by path, 404 for an unknown check, 400 for no JSON, 413 for 10 MB", async () => {
    const { status, body } = await answered(
      check("tyre-pressure", { machine: { kind: "hovercraft" }, readings: { tyres: [{ wheelId: "x", pressurePascals: "much" }] } }),
    );
    expect(status).toBe(422);
    expect(body.issues?.map((issue) => issue.path.join("."))).toEqual(
      expect.arrayContaining(["machine.kind", "readings.tyres.x.pressurePascals"]),
    );
    expect((await answered(check("phase-of-moon", {}))).status).toBe(404);
    expect((await answered(check("deck-level", "{"))).status).toBe(400);
    expect((await answered(check("deck-level", `"${"x".repeat(10_000_000)}"`))).status).toBe(413);
  });
});

describe("the record", () => {
  it("refuses a write from elsewhere, from nobody and of nothing", async () => {
    expect((await answered(complain({}, { origin: "http://elsewhere.example" }))).status).toBe(403);
    expect((await answered(complain({}, { origin: "" }))).status).toBe(403);
    expect((await answered(complain({ who: "ZZ" }))).body.error).toBe("unknown-person");
    const nothing = await answered(complain({ words: "" }));
    expect([nothing.status, nothing.body.issues?.[0]?.code]).toEqual([422, "say-or-pick"]);
    expect((await answered(complain({ machineId: "zt-99" }))).status).toBe(404);
    expect((await answered(addPerson(post({ initials: "AK" })))).status).toBe(409);
    expect((await answered(addPerson(post({ initials: "A1" })))).status).toBe(422);
  });

  it("answers each wrong turn of a job with its own status, and keeps nothing of it", async () => {
    const { jobId } = (await answered(complain({}))).body as { jobId: number };
    expect((await answered(job(jobId, "takes", { checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]) }))).status).toBe(409);
    expect(
      (await answered(job(jobId, "confirmations", { state: "parked", answers: { "level-hard-ground": YES } }))).body.issues?.map(
        ({ code }) => code,
      ),
    ).toContain("unanswered");
    expect((await answered(job(jobId, "confirmations", { state: "parked", answers: PARKED }))).status).toBe(201);
    const tooMuch = await answered(job(jobId, "takes", { checkId: "tyre-pressure", readings: tyres([400, 18, 18, 12]) }));
    expect([tooMuch.status, tooMuch.body.issues?.[0]?.path]).toEqual([422, ["readings", "tyres", "left-drive", "pressurePascals"]]);
    const overMaximum = await answered(job(jobId, "takes", { checkId: "tyre-pressure", readings: tyres([24, 18, 18, 12]) }));
    expect([overMaximum.status, (overMaximum.body.assessment as { verdict: string }).verdict]).toEqual([201, "stop"]);
    expect((await answered(job(jobId, "takes", { checkId: "deck-level", readings: tips(LEVEL_INCHES) }))).body.issues?.[0]).toMatchObject({
      code: "state-needed",
      needs: "locked-out",
    });
    // Its own reading is a stop: it holds the machine, and the job with it.
    const held = (await answered(job(jobId, "close", { causes: ["tyres-unequal"], unprovedReason: "no time" }))).body;
    expect([held.error, held.issues?.map(({ code }) => code)]).toEqual(["not-safe", ["unsafe"]]);
    await answered(job(jobId, "takes", { checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]) }));
    expect((await answered(job(jobId, "close", { causes: ["tyres-unequal"] }))).body.error).toBe("not-proved");
    expect((await answered(job(jobId, "constructor", {}))).status).toBe(404);
    expect((await answered(job(99_999, "takes", {}))).status).toBe(422);
    expect((await answered(job(99_999, "notes", { text: "hello" }))).status).toBe(404);
    expect((await answered(job("x", "notes", { text: "hello" }))).status).toBe(404);
    const view = await getJob(new Request(`${ORIGIN}/api`, { headers: { host: HOST, origin: ORIGIN } }), {
      params: Promise.resolve({ id: String(jobId) }),
    });
    expect(((await view.json()) as { steps: { kind: string }[] }).steps.map(({ kind }) => kind)).toEqual([
      "complaint",
      "confirmation",
      "take",
      "take",
    ]);
  });

  it("a close without proof or reason leaves the job open; with a reason it closes, and a stale tab is told", async () => {
    const { jobId } = (await answered(complain({ words: "rattles" }))).body as { jobId: number };
    expect((await answered(job(jobId, "close", { causes: ["nothing-found"], unprovedReason: "could not be made to do it" }))).status).toBe(
      201,
    );
    expect((await answered(job(jobId, "notes", { text: "from a stale tab" }))).body.error).toBe("job-closed");
  });
});

describe("one machine, one state, asked outright", () => {
  const asked = (headers: Record<string, string> = { "sec-fetch-site": "same-origin" }, signal?: AbortSignal) =>
    new Request(`${ORIGIN}/api`, { headers: { host: HOST, ...headers }, ...(signal ? { signal } : {}) });
  const stateAt = async (id: string, headers?: Record<string, string>) =>
    answered(stateOf(asked(headers), { params: Promise.resolve({ id }) }) as Promise<Response>);
  const reasonsAt = async (id: string) => ((await stateAt(id)).body.mayCut as RunReason[]).map(({ code }) => code);
  const newJobOn = async (machineId: string) => ((await answered(complain({ machineId }))).body as { jobId: number }).jobId;
  const confirm = (jobId: number, machineId: string, state: SafeState, who = "AK") =>
    answered(job(jobId, "confirmations", { who, state, answers: allYes(itemsFor(getMachine(database(), machineId).machine, state)) }));
  const putBackOn = (jobId: number, machineId: string, who = "AK") =>
    answered(
      job(jobId, "put-back", {
        who,
        answers: allYes(putBackPoints(getMachine(database(), machineId).machine, stateOfMachine(database(), machineId))),
      }),
    );
  const codes = ({ body }: { body: { issues?: { code: string }[] } }) => body.issues?.map(({ code }) => code) ?? [];

  it("says how a machine stands and what keeps it from being cut with, each with what clears it; of no machine it is 404", async () => {
    const jobId = await newJobOn("wp-1");
    await confirm(jobId, "wp-1", "raised");
    const { status, body } = await stateAt("wp-1");
    expect(status).toBe(200);
    expect(body.state).toMatchObject({ stands: { state: "raised", who: "AK", jobId }, locks: [{ who: "AK" }] });
    expect(body.mayCut).toEqual([
      expect.objectContaining({ code: "not-put-back", clears: { do: "put-back" } }),
      expect.objectContaining({ code: "locked-by", owner: "AK", clears: { do: "lift", owner: "AK" } }),
      expect.objectContaining({ code: "not-ready", clears: { do: "make-ready" } }),
    ]);
    expect((await stateAt("zt-99")).status).toBe(404);
    expect((await stateAt("wp-1", { origin: "http://elsewhere.example" })).status).toBe(403);
    // On plain http a browser names only the page it reads from; its word on the site, where it gives one, counts before that.
    expect((await stateAt("wp-1", { referer: `${ORIGIN}/jobs/1` })).status).toBe(200);
    expect((await stateAt("wp-1", { referer: "http://elsewhere.example/jobs/1" })).status).toBe(403);
    expect((await stateAt("wp-1", { referer: `${ORIGIN}/jobs/1`, "sec-fetch-site": "cross-site" })).status).toBe(403);
    expect((await stateAt("wp-1", { referer: "nonsense" })).status).toBe(403);
    expect((await stateAt("wp-1", {})).status).toBe(403);
  });

  it("no order of calls in two jobs by two people cuts with it past a stop or another's lock-out", async () => {
    const [mine, theirs] = [await newJobOn("wc-1"), await newJobOn("wc-1")];
    await confirm(mine, "wc-1", "raised");
    await answered(job(mine, "findings", { checkId: "blade-fit", result: "seen", causes: ["blade-loose"], note: "" }));
    expect(codes(await confirm(theirs, "wc-1", "running", "BL"))).toEqual(["unsafe", "not-put-back", "locked-by"]);
    expect(codes(await confirm(theirs, "wc-1", "parked", "BL"))).toEqual(["locked-by"]);
    expect(codes(await answered(job(theirs, "test-cuts", { who: "BL", ...GOOD_CUT })))).toContain("unsafe");
    expect(codes(await answered(job(theirs, "lift", { who: "BL", owner: "AK", reason: "ok" })))).toEqual(["reason-of-substance"]);
    expect((await answered(job(theirs, "lift", { who: "BL", owner: "AK", reason: "AK went home, telephoned him" }))).status).toBe(201);
    expect((await putBackOn(theirs, "wc-1")).status).toBe(201);
    expect(codes(await confirm(theirs, "wc-1", "running", "BL"))).toEqual(["unsafe"]);
    const nothing = [{ key: "no such cause", reason: "seen by two people" }];
    expect((await answered(job(theirs, "release", { who: "BL", reasons: nothing }))).body.error).toBe("changed-since");
    expect(codes(await answered(job(mine, "close", { causes: ["blade-loose"], unprovedReason: "no time" })))).toEqual(["unsafe"]);
    expect(await reasonsAt("wc-1")).toEqual(["unsafe", "not-ready"]);
    const { state } = (await stateAt("wc-1")).body as { state: { unsafe: { key: string }[] } };
    const reasons = state.unsafe.map(({ key }) => ({ key, reason: "bolt drawn up, seen by two people" }));
    expect(codes(await answered(job(theirs, "release", { who: "BL", reasons })))).toEqual(["not-by-word"]);
    // Not at one's hands while it is parked: locked out, looked at, put back.
    expect(codes(await confirm(theirs, "wc-1", "raised", "BL"))).toEqual([]);
    const sound = { who: "BL", checkId: "blade-fit", result: "not-found", causes: ["blade-loose"], note: "drawn up by wrench" };
    expect(await answered(job(theirs, "findings", sound))).toMatchObject({ status: 201 });
    expect((await putBackOn(theirs, "wc-1", "BL")).status).toBe(201);
    expect((await confirm(theirs, "wc-1", "running", "BL")).status).toBe(201);
    expect((await answered(job(theirs, "test-cuts", { who: "BL", ...GOOD_CUT }))).status).toBe(201);
    expect(((await stateAt("wc-1")).body.state as { released: object[] }).released).toEqual([]);
  });

  it("tells everybody who listens to a machine that its log moved, and nobody who listens to another; a line let go hears no more", async () => {
    const listen = async (id: string) => {
      const gone = new AbortController();
      // Held: a request that is collected takes the controller with it that hands the abort on, and the line never ends.
      const request = asked({ "sec-fetch-site": "same-origin" }, gone.signal);
      const response = (await liveOf(request, { params: Promise.resolve({ id }) })) as Response;
      const reader = (response.body as ReadableStream<Uint8Array>).getReader();
      const heard: string[] = [];
      const over = (async () => {
        for (;;) {
          const { done, value } = await reader.read();
          if (done) return;
          heard.push(new TextDecoder().decode(value));
        }
      })();
      return { request, response, heard, over, gone };
    };
    const [here, elsewhere] = [await listen("bd-2"), await listen("bd-1")];
    expect(here.response.headers.get("content-type")).toContain("text/event-stream");
    // Quiet for longer than two of its beats, a screen knows that its line is lost.
    vi.useFakeTimers({ toFake: ["setInterval"] });
    const third = await listen("fd-1");
    await vi.advanceTimersByTimeAsync(41_000);
    vi.useRealTimers();
    await expect.poll(() => third.heard.filter((text) => text.startsWith("event: beat")).length).toBe(2);
    third.gone.abort();
    await third.over;
    const moved = ({ heard }: { heard: string[] }) => heard.filter((text) => text.startsWith("event: moved")).length;
    const jobId = await newJobOn("bd-2");
    await expect.poll(() => moved(here)).toBe(1);
    await answered(job(jobId, "notes", { text: "hello" }));
    await expect.poll(() => moved(here)).toBe(2);
    // What was refused moved nothing.
    await answered(job(jobId, "notes", { text: "" }));
    here.gone.abort();
    await here.over;
    await answered(job(jobId, "notes", { text: "hello again" }));
    expect([moved(here), moved(elsewhere)]).toEqual([2, 0]);
    elsewhere.gone.abort();
    await elsewhere.over;
    expect(((await liveOf(asked(), { params: Promise.resolve({ id: "zt-99" }) })) as Response).status).toBe(404);
    expect(
      ((await liveOf(asked({ origin: "http://elsewhere.example" }), { params: Promise.resolve({ id: "bd-2" }) })) as Response).status,
    ).toBe(403);
  });

  it("a take sent twice by a line that dropped is kept once, and one that another overtook is answered with what he read", async () => {
    const jobId = await newJobOn("zt-3");
    await confirm(jobId, "zt-3", "locked-out");
    const submissionId = "6f2d0a4e-8f5c-4b7e-9d3a-2c1b0e9f8a77";
    const sound = { checkId: "tyre-pressure", readings: tyres([12, 18, 18, 12]) };
    const [first, again] = [
      await answered(job(jobId, "takes", { ...sound, submissionId, seenStepId: 0 })),
      await answered(job(jobId, "takes", { ...sound, submissionId, seenStepId: 0 })),
    ];
    expect([first.status, again.body.stepId]).toEqual([201, first.body.stepId]);
    const late = await answered(job(jobId, "takes", { who: "BL", ...sound, seenStepId: 0 }));
    expect([late.status, late.body.error]).toEqual([409, "read-since"]);
    expect((await answered(job(jobId, "takes", { who: "BL", ...sound, seenStepId: first.body.stepId }))).status).toBe(201);
  });
});
