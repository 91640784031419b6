import { mkdtempSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { beforeAll, describe, expect, it, vi } from "vitest";
import { seededRandom } from "@/core/basics/random";
import { getMachineView } from "@/data/fleet/machine-view";
import { getJobView } from "@/data/job/job-view";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { databaseFile, recordId } from "@/data/store/connection";
import type { Db } from "@/data/store/db";
import { spoil } from "../fuzz/mutate";
import { type Depot, statefulTargets, type Target, targetsFor } from "../fuzz/targets";
import { emptyDepot, openJob } from "./helpers";

const HOST = "127.0.0.1:3000";
const SEED = 20_261_126;
const BODIES = 1200;

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
type Module = Partial<Record<"GET" | "POST" | "PUT" | "PATCH", Handler>>;
const modules = import.meta.glob<Module>("../../src/app/api/**/route.ts", { eager: true });

/** Every route of the application, with the pattern its address has. */
const ROUTES = Object.entries(modules).map(([file, module]) => {
  const pattern = file.replace("../../src/app", "").replace("/route.ts", "");
  const names = [...pattern.matchAll(/\[(\w+)\]/g)].map(([, name]) => name as string);
  return { pattern, names, module, matches: new RegExp(`^${pattern.replaceAll(/\[\w+\]/g, "([^/]+)")}$`) };
});

/** As the framework does it: the route whose address it is, a named one before one with an id, the ids decoded. */
async function ask(method: string, address: string, text?: string): Promise<{ status: number; body: string; pattern: string }> {
  const found = ROUTES.flatMap((route) => {
    const match = route.matches.exec(address);
    return match ? [{ route, match }] : [];
  }).sort((a, b) => a.match.length - b.match.length)[0];
  const handler = found?.route.module[method as keyof Module];
  if (!found || !handler) return { status: 404, body: "", pattern: "" };
  const params: Record<string, string> = {};
  try {
    for (const [index, name] of found.route.names.entries()) params[name] = decodeURIComponent(found.match[index + 1] ?? "");
  } catch {
    return { status: 404, body: "", pattern: "" };
  }
  const request = new Request(`http://${HOST}${address}`, {
    method,
    headers: { host: HOST, origin: `http://${HOST}`, "content-type": "application/json" },
    ...(text === undefined ? {} : { body: text }),
  });
  const response = await handler(request, { params: Promise.resolve(params) });
  return { status: response.status, body: await response.text(), pattern: found.route.pattern };
}

let db: Db;
let depot: Depot;

beforeAll(() => {
  process.env.ZYGOMETER_DATA = mkdtempSync(path.join(tmpdir(), "zygometer-borders-"));
  const { db: first, clock } = emptyDepot(databaseFile());
  const jobId = openJob(first, clock);
  depot = { machineId: "zt-1", otherId: "zt-2", jobId, secondJobId: openJob(first, clock) };
  first.close();
  db = database();
});

describe("every border", () => {
  const reached = new Set<string>();

  it("takes a sound body of every way the record is written, in its order", async () => {
    for (const target of targetsFor(db, depot)) {
      const { status, body, pattern } = await ask(target.method, target.path, JSON.stringify(target.body));
      expect(status, `${target.name}: ${body.slice(0, 300)}`).toBe(target.isReckoning ? 200 : 201);
      reached.add(`${target.method} ${pattern}`);
    }
  });

  it(`answers ${BODIES} spoilt bodies with a refusal in words, never with a fault of its own, and takes nothing it must not`, async () => {
    vi.spyOn(console, "error").mockImplementation(() => undefined);
    const random = seededRandom(SEED);
    const targets: Target[] = [...targetsFor(db, depot), ...statefulTargets(db, depot)];
    const wrong: string[] = [];
    for (let k = 0; k < BODIES; k++) {
      const target = targets[k % targets.length] as Target;
      const spoilt = spoil(target, random);
      const { status, body, pattern } = await ask(target.method, spoilt.path, spoilt.text);
      if (pattern) reached.add(`${target.method} ${pattern}`);
      const isTaken = status >= 200 && status < 300;
      if (status >= 500 || (isTaken && spoilt.mustRefuse)) wrong.push(`${status} ${target.name}, ${spoilt.how}: ${body.slice(0, 160)}`);
      if (!isTaken && status !== 404 && status < 500) expect(JSON.parse(body)).toHaveProperty("error");
    }
    expect(wrong, `seed ${SEED}`).toEqual([]);
  });

  it.each(["constructor", "__proto__", "toString", "hasOwnProperty", "valueOf", "takes "])(
    "knows no action “%s” of a job",
    async (name) => {
      expect((await ask("POST", `/api/v1/jobs/${depot.jobId}/${name}`, '{"who":"AK"}')).status).toBe(404);
      expect((await ask("POST", `/api/v1/checks/${name}/assess`, "{}")).status).toBe(404);
    },
  );

  it("refuses what a page opened on another record sends", async () => {
    const send = async (record: string) => {
      const route = ROUTES.find(({ pattern }) => pattern === "/api/v1/complaints");
      const body = { who: "AK", machineId: "zt-1", words: "said", saidBy: "TV", looks: {} };
      const headers = { host: HOST, origin: `http://${HOST}`, "x-zygometer-record": record, "content-type": "application/json" };
      const request = new Request(`http://${HOST}/api/v1/complaints`, { method: "POST", headers, body: JSON.stringify(body) });
      return (await route?.module.POST?.(request, { params: Promise.resolve({}) }))?.status;
    };
    expect(await send("0123456789abcdef")).toBe(409);
    expect(await send(recordId(db))).toBe(201);
  });

  it("leaves every page whole", () => {
    for (const { id } of listMachines(db)) expect(getMachineView(db, id, { now: new Date().toISOString() }).record.id).toBe(id);
    for (const { id } of db.prepare("SELECT id FROM jobs").all() as { id: number }[]) expect(getJobView(db, id).id).toBe(id);
  });

  it("is among those that were tried: a new route joins the list", () => {
    // Taken back by the number of an entry, which a spoilt body does not have.
    const byNumber = ["/owed/[id]/done", "/places/[id]/back", "/void", "/take-back"];
    const writing = ROUTES.flatMap(({ pattern, module }) =>
      (["POST", "PUT", "PATCH"] as const).flatMap((method) => (module[method] ? [`${method} ${pattern}`] : [])),
    ).filter((route) => !byNumber.some((end) => route.endsWith(end)));
    expect(writing.filter((route) => !reached.has(route))).toEqual([]);
  });

  it.each(["%", "%00", "constructor", "__proto__", "-1", "1e3", "999999999999", "a".repeat(300)])(
    "reads nothing under the id “%s”",
    async (id) => {
      for (const { pattern, module, names } of ROUTES) {
        if (!module.GET || names.length === 0) continue;
        const address = pattern.replaceAll(/\[\w+\]/g, encodeURIComponent(id));
        const { status } = await ask("GET", address);
        expect([404, 422], `${address}`).toContain(status);
      }
    },
  );
});
