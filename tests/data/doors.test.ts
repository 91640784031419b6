import { execFileSync, spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import Database from "better-sqlite3";
import sharp from "sharp";
import { beforeEach, describe, expect, it } from "vitest";
import { spindleLog } from "@/core/fleet/service/spindles";
import { machineSchema, sheetProblems } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { addPerson, findPerson, listPeople, MOST_PEOPLE, setPreferences } from "@/data/catalogue/people";
import { recordFinding, recordTake } from "@/data/checks/takes";
import { getBay, heldMachines, jobsOfMachine } from "@/data/fleet/bay";
import { joinJobs, takeComplaint } from "@/data/job/complaints";
import { newPhotographSchema } from "@/data/job/deck";
import { closeJob, recordAnswer, recordFix, recordGuess, recordHold, recordJobEvent, recordNote, undoStep } from "@/data/job/job-actions";
import { getJobView } from "@/data/job/job-view";
import { logHours, meterReadings } from "@/data/machine/hours";
import { addMachine, getMachine, listMachines, replaceSheet, spoiltMachines } from "@/data/machine/machines";
import { openDatabase } from "@/data/open";
import { spindlesOf } from "@/data/service/due";
import { logEvent } from "@/data/service/events";
import { logSpindles } from "@/data/service/spindle-log";
import { writtenAhead } from "@/data/store/clock";
import { recordId } from "@/data/store/connection";
import type { Db } from "@/data/store/db";
import { type AppError, ofDriver } from "@/data/store/errors";
import { holdFolder, withFolderAlone } from "@/data/store/hold";
import { madeAnew } from "@/data/store/pictures";
import { pruneSubmissions, submissionOf } from "@/data/store/submissions";
import { Clock, emptyDepot, makeSafe, openJob, refusedFor, temporaryFile, tyres } from "./helpers";

let db: Db;
let clock: Clock;
beforeEach(() => {
  ({ db, clock } = emptyDepot());
});

const ID = "11111111-1111-4111-8111-111111111111";
const count = (table: string) => (db.prepare(`SELECT count(*) AS n FROM ${table}`).get() as { n: number }).n;

describe("a submission's id", () => {
  const sent = (jobId: number, text: string, more: object = {}) =>
    recordNote(db, { ...clock.doing(ID), digest: `${jobId} ${text}`, ...more }, { jobId, text });

  it("is bound to person, target and content: the same again is answered the same, anything else is refused and writes nothing", () => {
    const [one, other] = [openJob(db, clock), openJob(db, clock, "bd-1")];
    const first = sent(one, "said once");
    expect(sent(one, "said once")).toEqual(first);
    const before = count("steps");
    expect(refusedFor(() => sent(one, "said otherwise"))[0]).toBe("submission-reused");
    expect(refusedFor(() => sent(other, "said once"))[0]).toBe("submission-reused");
    expect(refusedFor(() => sent(one, "said once", { who: "BL" }))[0]).toBe("submission-reused");
    expect(
      refusedFor(() => recordGuess(db, { ...clock.doing(ID), digest: `${one} said once` }, { jobId: one, cause: "blade-dull" }))[0],
    ).toBe("submission-reused");
    expect(count("steps")).toBe(before);
  });

  it("can be asked after by who sent it, and by nobody else", () => {
    const jobId = openJob(db, clock);
    const { stepId } = sent(jobId, "arrived?");
    expect(submissionOf(db, { id: ID, who: "AK" })).toEqual({ action: "note", answer: { stepId } });
    expect(refusedFor(() => submissionOf(db, { id: ID, who: "BL" }))[0]).toBe("submission-not-found");
    expect(refusedFor(() => submissionOf(db, { id: ID.replace("1", "2"), who: "AK" }))[0]).toBe("submission-not-found");
    pruneSubmissions(db, "2027-01-01T00:00:00.000Z");
    expect(refusedFor(() => submissionOf(db, { id: ID, who: "AK" }))[0]).toBe("submission-not-found");
  });

  it("of what was refused is free again: mended, it is written under the same one", () => {
    const jobId = openJob(db, clock);
    const guess = (cause: string) => recordGuess(db, { ...clock.doing(ID), digest: cause }, { jobId, cause });
    expect(refusedFor(() => guess("gremlins"))[0]).toBe("invalid");
    expect(guess("blade-dull").stepId).toBeGreaterThan(0);
  });
});

describe("people", () => {
  it.each([
    ["АК", "Cyrillic"],
    ["ΑΚ", "Greek"],
  ])("%s, in %s letters, cannot be told from AK on paper and is refused, whichever came first", (alike) => {
    expect(refusedFor(() => addPerson(db, { initials: alike, now: clock.doing().now }))).toEqual(["initials-taken", "initials-look-alike"]);
    const other = openDatabase(":memory:");
    addPerson(other, { initials: alike, now: clock.doing().now });
    expect(refusedFor(() => addPerson(other, { initials: "AK", now: clock.doing().now }))).toEqual([
      "initials-taken",
      "initials-look-alike",
    ]);
  });

  it("are no more than a depot has", () => {
    const letters = [..."ABCDEFGHIJKLMNOPQRSTUVWXYZ"];
    const all = letters.flatMap((a) => letters.map((b) => `${a}${b}Z`)).slice(0, MOST_PEOPLE - listPeople(db).length);
    for (const initials of all) addPerson(db, { initials, now: clock.doing().now });
    expect(refusedFor(() => addPerson(db, { initials: "ZZZZ", now: clock.doing().now }))[0]).toBe("too-many-people");
  });

  it("change how they see things themselves, and where they stand is on the audit trail", () => {
    const set = (who: string) => setPreferences(db, { ...clock.doing(), who }, { initials: "AK", preferences: { standsAt: "underneath" } });
    expect(refusedFor(() => set("BL"))[0]).toBe("not-yours");
    expect(findPerson(db, "AK")?.standsAt).toBe("behind");
    set("AK");
    expect(findPerson(db, "AK")?.standsAt).toBe("underneath");
    expect(db.prepare("SELECT who, detail_json FROM audit WHERE action = 'preferences-set'").all()).toEqual([
      { who: "AK", detail_json: '{"standsAt":"underneath"}' },
    ]);
  });
});

describe("a photograph", () => {
  const urlOf = (bytes: Buffer, kind = "jpeg") => `data:image/${kind};base64,${bytes.toString("base64")}`;
  const drawn = () => sharp({ create: { width: 40, height: 20, channels: 3, background: "teal" } });

  it("is made anew: upright, without where and by what it was taken, whatever was hidden behind it", async () => {
    const taken = await drawn()
      .withExif({ IFD0: { Make: "SECRETMAKER", Orientation: "6" }, IFD3: { GPSLatitudeRef: "N", GPSLatitude: "47/1 3/1 0/1" } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer();
    expect((await sharp(taken).metadata()).exif).toBeDefined();
    const { mime, bytes } = await madeAnew(urlOf(Buffer.concat([taken, Buffer.from("<script>hidden</script>")])));
    const { format, width, height, exif } = await sharp(bytes).metadata();
    expect({ mime, format, width, height, exif }).toEqual({ mime: "image/jpeg", format: "jpeg", width: 20, height: 40, exif: undefined });
    for (const hidden of ["SECRETMAKER", "hidden"]) expect(bytes.includes(hidden), hidden).toBe(false);
  });

  it("of any of three kinds is kept, and made no larger than is looked at", async () => {
    for (const kind of ["png", "webp"] as const)
      expect((await madeAnew(urlOf(await drawn()[kind]().toBuffer(), kind))).mime).toBe("image/jpeg");
    const wide = await sharp({ create: { width: 4000, height: 100, channels: 3, background: "teal" } })
      .jpeg()
      .toBuffer();
    expect((await sharp((await madeAnew(urlOf(wide))).bytes).metadata()).width).toBe(1600);
  });

  it("is looked at, not believed: text, a drawing in words, a picture cut off and one that unfolds beyond all reason are none", async () => {
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>');
    const whole = await drawn().png().toBuffer();
    const huge = await sharp({ create: { width: 9000, height: 9000, channels: 3, background: "teal" } })
      .png()
      .toBuffer();
    for (const bytes of [Buffer.from("picture"), svg, whole.subarray(0, whole.length / 2), huge])
      await expect(madeAnew(urlOf(bytes, "png"))).rejects.toMatchObject({ code: "invalid", issues: [{ code: "not-a-picture" }] });
  });

  it.each([
    "data:image/png;base64,====",
    "data:image/png;base64,",
    "data:image/png;base64,AAA",
    "data:image/svg+xml;base64,AAAA",
    "data:,x",
  ])("%s does not even look like one", (dataUrl) => {
    expect(newPhotographSchema.safeParse({ about: "x", dataUrl }).success).toBe(false);
  });
});

describe("what contradicts the machine", () => {
  const machine = () => machineSchema.parse(FLEET[0]?.machine);
  const reel = machineSchema.parse(FLEET.find(({ fleetNumber }) => fleetNumber === "RT-1")?.machine);
  const codesOf = (change: (one: ReturnType<typeof machine>) => void) => {
    const one = machine();
    change(one);
    return sheetProblems(one).map(({ code, path: at }) => `${code} ${at.join(".")}`);
  };

  it("no sheet of the fleet does", () => {
    for (const { fleetNumber, machine: own } of FLEET) expect(sheetProblems(machineSchema.parse(own)), fleetNumber).toEqual([]);
  });

  it.each<[string, (one: ReturnType<typeof machine>) => void, string]>([
    ["two wheels of one name", ({ wheels }) => wheels.push({ ...(wheels[0] as (typeof wheels)[number]) }), "id-twice wheels.4.id"],
    [
      "two blades of one name",
      ({ spindles }) => spindles.push({ ...(spindles[0] as (typeof spindles)[number]) }),
      "id-twice spindles.3.id",
    ],
    [
      "a least height above the most",
      ({ sheet }) => Object.assign(sheet, { heightLeastMetres: 0.2, heightMostMetres: 0.1 }),
      "least-above-most sheet.heightLeastMetres",
    ],
    [
      "a pressure above the moulded figure",
      ({ wheels }) => Object.assign(wheels[0] as object, { mouldedMaximumPascals: 1000 }),
      "pressure-above-moulded wheels.0.sheetPressurePascals",
    ],
    ["a reel unit on a rotary machine", (one) => Object.assign(one, { units: reel.units }), "cuts-with-another units"],
    ["nothing that cuts", (one) => Object.assign(one, { spindles: [], sheet: {} }), "nothing-to-cut-with spindles"],
    ["another kind than what it cuts with", (one) => Object.assign(one, { kind: "reel-ride-on" }), "cuts-with-another spindles"],
    [
      "an axle without wheels",
      (one) => Object.assign(one, { pivotedAxles: [{ axle: "moon", xMetres: 0, yMetres: 0 }] }),
      "not-on-sheet pivotedAxles.0.axle",
    ],
  ])("a sheet with %s is refused", (_, change, wanted) => {
    expect(codesOf(change)).toContain(wanted);
    const one = machine();
    change(one);
    const codes = refusedFor(() => addMachine(db, clock.doing(), { fleetNumber: "BAD-1", name: "x", site: "x", machine: one }));
    expect(codes).toContain(wanted.split(" ")[0]);
    expect(
      refusedFor(() => replaceSheet(db, clock.doing(), { machineId: "zt-1", basedOnVersion: 1, machine: one, reason: "x" })),
    ).toContain(wanted.split(" ")[0]);
  });

  it("a rotary machine does not become a reel machine by its next sheet: its readings would be of another thing", () => {
    const codes = refusedFor(() => replaceSheet(db, clock.doing(), { machineId: "zt-1", basedOnVersion: 1, machine: reel, reason: "x" }));
    expect(codes).toEqual(["invalid", "cuts-with-another"]);
  });

  it("a sheet that stands in the record and contradicts itself is measured on all the same", () => {
    const odd = machine();
    for (const wheel of odd.wheels) Object.assign(wheel, { mouldedMaximumPascals: 1000 });
    db.prepare(
      "INSERT INTO machine_sheets (machine_id, version, sheet_json, reason, who, at) VALUES ('zt-1', 2, ?, 'older program', 'AK', ?)",
    ).run(JSON.stringify(odd), clock.doing().now);
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId, "parked");
    const readings = tyres([12, 18, 18, 12]);
    expect(recordTake(db, clock.doing(), { jobId, checkId: "tyre-pressure", readings, asTyped: {} }).stepId).toBeGreaterThan(0);
  });

  it("no fix on a wheel or hanger it lacks, no event at a place it lacks, no cause its kind cannot have", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const fix = { jobId, fix: "adjust-hangers", cause: "deck-out-of-level", words: "" };
    const codes = (action: () => unknown) => refusedFor(action)[1];
    expect(codes(() => recordFix(db, clock.doing(), { ...fix, turns: [{ hangerId: "moon", turns: 1 }] }))).toBe("unknown-part");
    const pressures = [{ wheelId: "moon", fromPascals: 1, toPascals: 2 }];
    expect(codes(() => recordFix(db, clock.doing(), { ...fix, fix: "set-pressures", cause: "tyres-unequal", pressures }))).toBe(
      "unknown-part",
    );
    expect(codes(() => recordJobEvent(db, clock.doing(), { jobId, event: "struck", place: "moon" }))).toBe("unknown-part");
    expect(codes(() => logEvent(db, clock.doing(), { machineId: "zt-1", event: "struck", place: "moon" }))).toBe("unknown-part");
    const strike = { words: "kerb", where: "", place: "moon" };
    const told = { machineId: "zt-1", words: "x", saidBy: "TV", place: "", looks: { symptoms: [], denied: [], contexts: [] }, strike };
    expect(codes(() => takeComplaint(db, clock.doing(), told))).toBe("unknown-part");
    expect(codes(() => recordAnswer(db, clock.doing(), { jobId, contexts: { "struck-object": true }, strike }))).toBe("unknown-part");
    expect(codes(() => recordGuess(db, clock.doing(), { jobId, cause: "reel-dull" }))).toBe("cause-of-another-kind");
    expect(codes(() => closeJob(db, clock.doing(), { jobId, causes: ["reel-dull"], words: "", unprovedReason: "sent away" }))).toBe(
      "cause-of-another-kind",
    );
    const look = { jobId, checkId: "tyre-pressure", result: "seen" as const, causes: ["reel-dull"], note: "" };
    expect(codes(() => recordFinding(db, clock.doing(), look))).toBe("cause-of-another-kind");
    expect(count("events")).toBe(0);
  });

  it("tyres read inside another check are nothing of that check's, and a place read twice is none", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    const take = (checkId: string, readings: object) => recordTake(db, clock.doing(), { jobId, checkId, readings, asTyped: {} });
    expect(refusedFor(() => take("deck-level", { ...tyres([12, 12, 12, 12]) }))[0]).toBe("invalid");
    const twice = { tyres: [...tyres([12, 12, 12, 12]).tyres, { wheelId: "left-drive", pressurePascals: 50_000 }] };
    expect(refusedFor(() => take("tyre-pressure", twice))).toContain("place-read-twice");
    expect(refusedFor(() => take("tyre-pressure", { ...tyres([12, 12, 12, 12]), gaugeMaker: "x" }))).toContain("unrecognized-keys");
  });

  it("a look written down for a check that is measured leaves every page whole", () => {
    const jobId = openJob(db, clock);
    makeSafe(db, clock, jobId);
    for (const [checkId, cause] of [
      ["tyre-pressure", "tyres-unequal"],
      ["deck-level", "deck-out-of-level"],
    ] as const)
      recordFinding(db, clock.doing(), { jobId, checkId, result: "seen", causes: [cause], note: "" });
    expect(getJobView(db, jobId).takes).toHaveLength(2);
    expect(getBay(db).jobs.map(({ jobId: id }) => id)).toContain(jobId);
  });
});

describe("order is the log's, whatever the clock says", () => {
  const back = (hours: number) => ({ who: "AK", now: new Date(Date.UTC(2026, 4, 4, 7) - hours * 3_600_000).toISOString() });

  it("the meter shows what was read last, and what was greased last stands last, with a clock set back between", () => {
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 100, isCorrection: false });
    logHours(db, back(30), { machineId: "zt-1", meterHours: 110, isCorrection: false });
    expect(getMachine(db, "zt-1").meterHours).toBe(110);
    expect(meterReadings(db, "zt-1").map(({ meterHours }) => meterHours)).toEqual([100, 110]);
    expect(refusedFor(() => logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 105, isCorrection: false }))).toContain(
      "hours-run-backwards",
    );
    logSpindles(db, clock.doing(), { machineId: "zt-1", kind: "bearings-new", places: ["left"] });
    logSpindles(db, back(40), { machineId: "zt-1", kind: "moved", moves: { left: "middle", middle: "right", right: "left" } });
    expect(spindlesOf(db, "zt-1", back(50).now).find(({ place }) => place === "middle")?.from).toBe("left");
    for (const one of spindlesOf(db, "zt-1", back(50).now)) expect(one.sinceBearingsHours ?? 0).toBeGreaterThanOrEqual(0);
  });

  it("turning entries round in time turns nothing round in the log", () => {
    const { machine } = getMachine(db, "zt-1");
    const moved = { kind: "moved" as const, moves: { left: "right", right: "left" } };
    const entries = [
      { kind: "purged" as const, place: "left", at: "2026-05-02T00:00:00.000Z", seq: 1, who: "AK" },
      { ...moved, at: "2026-05-01T00:00:00.000Z", seq: 2, who: "AK" },
    ];
    const log = spindleLog(machine, entries);
    expect(log.get("right")?.purged?.at).toBe("2026-05-02T00:00:00.000Z");
    expect(log.get("left")?.purged).toBeUndefined();
  });

  it("jobs stand in the order they were opened in", () => {
    const first = openJob(db, clock);
    const second = openJob(db, new Clock("BL"), "zt-1");
    const third = recordHoldEarlier();
    expect(jobsOfMachine(db, "zt-1").map(({ jobId }) => jobId)).toEqual([third, second, first]);
    expect(jobsOfMachine(db, "zt-1", { before: third }).map(({ jobId }) => jobId)).toEqual([second, first]);
    expect(getBay(db).jobs.map(({ jobId }) => jobId)).toEqual([first, second, third]);
  });

  /** A job opened by a clock a day slow. */
  function recordHoldEarlier(): number {
    const slow = { doing: () => back(24) } as unknown as Clock;
    return openJob(db, slow, "zt-1");
  }

  it("a clock behind what is written is said, one a little behind is not", () => {
    openJob(db, clock);
    const last = (db.prepare("SELECT at FROM audit ORDER BY id DESC LIMIT 1").get() as { at: string }).at;
    const earlier = (minutes: number) => new Date(Date.parse(last) - minutes * 60_000).toISOString();
    expect(writtenAhead(db, earlier(5))).toBeUndefined();
    expect(writtenAhead(db, earlier(60))).toBe(last);
  });
});

describe("a join taken back", () => {
  const joined = () => {
    const [kept, gone] = [openJob(db, clock), openJob(db, clock)];
    joinJobs(db, clock.doing(), { jobId: gone, intoJobId: kept });
    return {
      kept,
      gone,
      undo: () => undoStep(db, clock.doing(), { jobId: gone, stepId: getJobView(db, gone).undoableStepId ?? 0, reason: "" }),
    };
  };

  it("brings the complaint home, and both jobs are seen", () => {
    const { kept, gone, undo } = joined();
    expect(getJobView(db, kept).complaints).toHaveLength(2);
    undo();
    expect([kept, gone].map((id) => getJobView(db, id).complaints.length)).toEqual([1, 1]);
    const seen = getBay(db).jobs;
    expect(seen.map(({ jobId }) => jobId)).toEqual([kept, gone]);
    expect(seen.every(({ words }) => words !== "")).toBe(true);
  });

  it("is refused once the other job is closed with it", () => {
    const { kept, undo } = joined();
    closeJob(db, clock.doing(), { jobId: kept, causes: ["nothing-found"], words: "", unprovedReason: "sent away" });
    expect(refusedFor(undo)[0]).toBe("changed-since");
  });

  it("as older programs wrote it leaves a job without a complaint, which is seen all the same", () => {
    const { gone } = joined();
    db.prepare("DELETE FROM complaints WHERE job_id = ?").run(gone);
    db.prepare("UPDATE jobs SET state = 'waiting', closed_at = NULL WHERE id = ?").run(gone);
    expect(getBay(db).jobs.map(({ jobId }) => jobId)).toContain(gone);
    expect(jobsOfMachine(db, "zt-1").map(({ jobId }) => jobId)).toContain(gone);
  });
});

describe("opening the record", () => {
  const digestOf = (file: string) => createHash("sha256").update(readFileSync(file)).digest("hex");
  const openCode = (file: string) => refusedFor(() => openDatabase(file).close())[0];
  const sound = () => {
    const file = temporaryFile();
    emptyDepot(file).db.close();
    return file;
  };

  it("a file that is none, one with a spoilt page, and one of a newer application are told and not touched", () => {
    const [noise, spoilt, newer] = [temporaryFile(), sound(), sound()];
    writeFileSync(noise, "this is no database at all, but long enough to be taken for one ".repeat(200));
    const bytes = readFileSync(spoilt);
    bytes.fill(0xa5, 4096 * 3, 4096 * 9);
    writeFileSync(spoilt, bytes);
    const later = new Database(newer);
    later.prepare("INSERT INTO migrations (version, name, at) VALUES (999, 'later', '2030')").run();
    later.pragma("wal_checkpoint(TRUNCATE)");
    later.close();
    const before = [noise, spoilt, newer].map(digestOf);
    expect([noise, spoilt, newer].map(openCode)).toEqual(["record-spoilt", "record-spoilt", "database-newer"]);
    expect([noise, spoilt, newer].map(digestOf)).toEqual(before);
  });

  it("a folder where the file should be cannot be read", () => {
    const file = temporaryFile();
    mkdirSync(file);
    expect(openCode(file)).toBe("record-unreadable");
  });

  it("another program's lock is told as busy, while opening and while writing, and passes with it", () => {
    const file = sound();
    const own = openDatabase(file);
    const other = new Database(file);
    other.exec("BEGIN IMMEDIATE");
    const busy = () => {
      try {
        openJob(own, clock);
        return undefined;
      } catch (error) {
        return (ofDriver(error) as AppError).code;
      }
    };
    own.pragma("busy_timeout = 50");
    expect(busy()).toBe("record-busy");
    other.exec("ROLLBACK");
    expect(busy()).toBeUndefined();
    own.close();
    other.pragma("locking_mode = EXCLUSIVE");
    other.exec("BEGIN EXCLUSIVE");
    expect(openCode(file)).toBe("record-busy");
    other.close();
    expect(openCode(file)).toBeUndefined();
  });

  it("one spoilt sheet takes no other machine's page with it, and what holds its machine is still said", () => {
    const file = sound();
    const first = openDatabase(file);
    const jobId = openJob(first, clock, "zt-1");
    recordHold(first, clock.doing(), { jobId, reason: "a crack was seen" });
    first.exec("DROP TRIGGER IF EXISTS machine_sheets_kept");
    first.prepare("UPDATE machine_sheets SET sheet_json = '{\"kind\":\"zero-turn\"}' WHERE machine_id = 'zt-1'").run();
    first.prepare("UPDATE machine_states SET fold_version = 0").run();
    first.close();
    const after = openDatabase(file);
    expect(listMachines(after).map(({ id }) => id)).not.toContain("zt-1");
    expect(listMachines(after)).toHaveLength(FLEET.length - 1);
    expect(spoiltMachines(after).map(({ fleetNumber }) => fleetNumber)).toEqual(["ZT-1"]);
    expect(refusedFor(() => getMachine(after, "zt-1"))[0]).toBe("sheet-spoilt");
    expect(getBay(after).jobs).toHaveLength(1);
    expect(heldMachines(after).map(({ machineId }) => machineId)).toEqual(["zt-1"]);
    after.close();
  });

  it("file and folder are their owner's alone, and a folder shared with others is left as it is", () => {
    const folder = path.join(mkdtempSync(path.join(tmpdir(), "zygometer-rights-")), "data");
    openDatabase(path.join(folder, "zygometer.sqlite")).close();
    const rights = (file: string) => (statSync(file).mode & 0o777).toString(8);
    expect([rights(folder), rights(path.join(folder, "zygometer.sqlite"))]).toEqual(["700", "600"]);
    const shared = mkdtempSync(path.join(tmpdir(), "zygometer-shared-"));
    writeFileSync(path.join(shared, "somebody-elses"), "");
    chmodSync(shared, 0o755);
    openDatabase(path.join(shared, "zygometer.sqlite")).close();
    expect([rights(shared), rights(path.join(shared, "zygometer.sqlite"))]).toEqual(["755", "600"]);
  });

  it("each record has an identity of its own that stays", () => {
    const [one, other] = [sound(), sound()];
    const id = (file: string) => {
      const own = openDatabase(file);
      const found = recordId(own);
      own.close();
      return found;
    };
    expect(id(one)).toBe(id(one));
    expect(id(one)).not.toBe(id(other));
  });
});

describe("starting over", () => {
  const load = (folder: string, ...words: string[]) => {
    const env = { ...process.env, ZYGOMETER_DATA: folder };
    try {
      const said = execFileSync(process.execPath, ["--import", "tsx", "src/demo/load.ts", ...words], {
        env,
        encoding: "utf8",
        stdio: "pipe",
      });
      return { status: 0, said };
    } catch (error) {
      const { status, stderr } = error as { status: number; stderr: string };
      return { status, said: stderr };
    }
  };
  const filesOf = (folder: string) => readdirSync(folder).filter((name) => name.endsWith(".sqlite"));

  it("asks where somebody can be asked, wants a yes where not, keeps the old record beside, and refuses while a program works on it", () => {
    const folder = mkdtempSync(path.join(tmpdir(), "zygometer-fresh-"));
    const file = path.join(folder, "zygometer.sqlite");
    openDatabase(file).close();
    const before = readFileSync(file);
    expect(load(folder, "--fresh")).toMatchObject({ status: 2, said: expect.stringContaining("--fresh --yes") });
    expect(readFileSync(file).equals(before)).toBe(true);
    const release = holdFolder(folder);
    expect(load(folder, "--fresh", "--yes")).toMatchObject({
      status: 2,
      said: expect.stringContaining("A server is running on this data"),
    });
    expect(filesOf(folder)).toEqual(["zygometer.sqlite"]);
    release();
    expect(load(folder, "--fresh", "--yes").status).toBe(0);
    const [aside = ""] = filesOf(folder).filter((name) => name !== "zygometer.sqlite");
    expect(readFileSync(path.join(folder, aside)).equals(before)).toBe(true);
    expect(listMachines(openDatabase(file)).length).toBe(FLEET.length);
  });

  it("a spoilt record is told in the terminal with a status of its own, and left as it is", () => {
    const folder = mkdtempSync(path.join(tmpdir(), "zygometer-spoilt-"));
    const file = path.join(folder, "zygometer.sqlite");
    writeFileSync(file, "no database ".repeat(1000));
    expect(load(folder)).toMatchObject({ status: 3, said: expect.stringContaining("damaged") });
    expect(readFileSync(file, "utf8").startsWith("no database")).toBe(true);
  });

  it("a hold ends with the program that had it, however it ends", async () => {
    const folder = mkdtempSync(path.join(tmpdir(), "zygometer-hold-"));
    const holder = path.join(import.meta.dirname, "holder.ts");
    const child = spawn(process.execPath, ["--expose-gc", "--import", "tsx", holder, folder], { stdio: ["ignore", "pipe", "inherit"] });
    expect(String(await new Promise((resolve) => child.stdout.once("data", resolve)))).toBe("held\n");
    expect(refusedFor(() => withFolderAlone(folder, () => 1))[0]).toBe("folder-in-use");
    // As many as like may work on it.
    holdFolder(folder)();
    const ended = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await ended;
    expect(withFolderAlone(folder, () => existsSync(folder))).toBe(true);
  });
});
