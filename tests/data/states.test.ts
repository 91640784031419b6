import { describe, expect, it, vi } from "vitest";
import { foldWhatIsLeft, warmUp } from "@/data/fleet/warm";
import { recordHold, recordNote } from "@/data/job/job-actions";
import { logHours } from "@/data/machine/hours";
import { listMachines } from "@/data/machine/machines";
import { openDatabase, toFold } from "@/data/open";
import { refoldStates, stateOfMachine, statesToFold } from "@/data/projections/machine-state";
import { dueNow, greaseDue } from "@/data/service/due";
import { logService } from "@/data/service/service";
import { announce, listen } from "@/data/store/announce";
import { emptyDepot, openJob, refusedFor, temporaryFile } from "./helpers";

describe("states that are kept beside the log", () => {
  /** A record with one machine held, closed again. */
  function held(): string {
    const file = temporaryFile();
    const { db, clock } = emptyDepot(file);
    recordHold(db, clock.doing(), { jobId: openJob(db, clock), reason: "blade cracked through" });
    db.close();
    return file;
  }
  const isHeld = (db: ReturnType<typeof openDatabase>) => stateOfMachine(db, "zt-1").unsafe.length > 0;

  it.each([
    [
      "changed by another hand",
      "UPDATE machine_states SET state_json = json_set(state_json, '$.unsafe', json('[]')), is_held = 0 WHERE machine_id = 'zt-1'",
    ],
    ["gone", "DELETE FROM machine_states WHERE machine_id = 'zt-1'"],
    ["all of them gone with their table", "DROP TABLE machine_states"],
    ["of another reckoning", "UPDATE machine_states SET fold_version = 3"],
    ["behind their log", "UPDATE machine_states SET log_n = 1"],
  ])("%s: found when the record is opened, and folded anew from the log, at once or beside whoever asks", async (_, damage) => {
    const file = held();
    const raw = openDatabase(file);
    raw.exec(damage);
    raw.close();
    const later = openDatabase(file, undefined, { isFoldedLater: true });
    // Nothing was folded yet: the gate takes none of what is kept, and folds the log.
    expect([toFold(later).has("zt-1"), statesToFold(later).includes("zt-1"), isHeld(later)]).toEqual([true, true, true]);
    later.close();
    const again = openDatabase(file, undefined, { isFoldedLater: true });
    expect(await foldWhatIsLeft(again)).toBeGreaterThan(0);
    expect([toFold(again).size, statesToFold(again)]).toEqual([0, []]);
    again.close();
    const raws = openDatabase(file);
    raws.exec(damage);
    raws.close();
    const db = openDatabase(file);
    expect(statesToFold(db)).toEqual([]);
    expect([isHeld(db), db.prepare("SELECT is_held FROM machine_states WHERE machine_id = 'zt-1'").get()]).toEqual([true, { is_held: 1 }]);
    db.close();
  });

  it("a rebuild that is stopped keeps what it did and goes on from there; what is not built yet is folded where it is asked for", () => {
    const file = held();
    const db = openDatabase(file, undefined, { isFoldedAnew: true, told: (done) => done < 3 });
    const all = listMachines(db).length;
    expect(statesToFold(db)).toHaveLength(all - 3);
    expect(isHeld(db)).toBe(true);
    expect(refoldStates(db)).toBe(all - 3);
    expect(statesToFold(db)).toEqual([]);
    db.close();
  });

  it("a state written behind a log's back is not believed: the gate folds the log", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    db.prepare("INSERT INTO steps (job_id, kind, data_json, who, at, seq) VALUES (?, 'hold', ?, 'AK', ?, 9999)").run(
      jobId,
      JSON.stringify({ reason: "written by another program" }),
      clock.doing().now,
    );
    expect(isHeld(db)).toBe(true);
  });
});

describe("what lists show, read beforehand", () => {
  it("leaves nothing to be read by the first page, stops where it is told to, and goes past a sheet that cannot be read", async () => {
    const { db, clock } = emptyDepot();
    const now = clock.doing().now;
    const machines = listMachines(db).length;
    expect(await warmUp(db, { now, isOver: () => true })).toBe(0);
    expect(await warmUp(db, { now })).toBe(3 * machines);
    const read = vi.spyOn(db, "prepare");
    const asked = () => read.mock.calls.filter(([sql]) => /takes|steps|machine_sheets|FROM hours/.test(String(sql))).length;
    dueNow(db, now);
    expect(asked()).toBe(0);
    // Asked of a day long gone, as a job opened then does, nothing of today is made anew.
    greaseDue(db, "zt-1", "2025-01-04T08:00:00.000Z");
    read.mockClear();
    dueNow(db, now);
    expect(asked()).toBe(0);
    db.exec("DROP TRIGGER IF EXISTS machine_sheets_kept");
    db.prepare("UPDATE machine_sheets SET sheet_json = '{}' WHERE machine_id = 'zt-1'").run();
    expect(await warmUp(db, { now })).toBe(3 * machines);
  });
});

describe("what was written is told", () => {
  it("with what it was written to: hours, service and the log of a machine; what was refused, of nothing", () => {
    const { db, clock } = emptyDepot();
    const jobId = openJob(db, clock);
    const heard: (readonly string[])[] = [];
    const stop = listen((moved) => heard.push(moved));
    logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 2000, isCorrection: false, isSure: true });
    logService(db, clock.doing(), { machineId: "zt-1", what: "wash-deck", kind: "done", words: "" });
    recordNote(db, clock.doing(), { jobId, text: "seen" });
    expect(refusedFor(() => recordNote(db, clock.doing(), { jobId: 999, text: "seen" }))).toEqual(["job-not-found"]);
    stop();
    expect(heard).toEqual([["hours:zt-1"], ["service:zt-1"], ["log:zt-1"]]);
  });

  it("to everybody, whoever's line is dead: the write stands and is answered", () => {
    const { db, clock } = emptyDepot();
    let heard = 0;
    const stops = [
      listen(() => {
        throw new Error("the browser went away");
      }),
      listen(() => heard++),
    ];
    expect(logHours(db, clock.doing(), { machineId: "zt-1", meterHours: 2000, isCorrection: false, isSure: true }).hoursId).toBeGreaterThan(
      0,
    );
    announce([]);
    expect(heard).toBe(1);
    for (const stop of stops) stop();
  });
});
