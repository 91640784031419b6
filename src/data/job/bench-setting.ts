import * as z from "zod";
import { isInTravel, settingOf, viewSet, withSettings } from "@/core/job/bench/set-up";
import { heightEndOf, unitSheetOf } from "@/core/machine";
import { sideProblems, stanceOf } from "@/core/physics/reel";
import { getMachine, writeSheet } from "@/data/machine/machines";
import { once } from "@/data/projections/context";
import { insertEvent } from "@/data/service/events";
import type { Doing } from "@/data/store/audit";
import type { Db } from "@/data/store/db";
import { AppError, type Issue } from "@/data/store/errors";

const place = z.number().min(-2).max(2);
const settingSchema = z.object({ frontZMetres: place, rearZMetres: place });
type Setting = z.output<typeof settingSchema>;

export const benchSettingSchema = z.object({
  basedOnVersion: z.number().int(),
  /** By unit, where its rollers' centres stand in the frame of its side view. */
  settings: z.record(z.string().max(60), settingSchema),
  reason: z.string().trim().min(1, "say-why").max(300),
});

/** Less than this is no move. */
const MOVED_METRES = 1e-7;
const isMoved = (a: Setting, b: Setting): boolean =>
  Math.abs(a.frontZMetres - b.frontZMetres) > MOVED_METRES || Math.abs(a.rearZMetres - b.rearZMetres) > MOVED_METRES;

/** No reel is benched higher: a slip of a decimal point. Estimate. */
const HIGHEST_METRES = 0.1;

type Machine = ReturnType<typeof getMachine>["machine"];

/** Whether the roller that the height screws do not move stays where it is. */
function isOnlyHeight(machine: Machine, unit: string, setting: Setting | undefined): boolean {
  const { sideView } = unitSheetOf(machine, unit);
  if (!sideView || !setting) return false;
  const other = heightEndOf({ machine, unit }) === "front" ? "rearZMetres" : "frontZMetres";
  return Math.abs(settingOf(sideView)[other] - setting[other]) <= MOVED_METRES;
}

function issuesOf(machine: Machine, settings: Readonly<Record<string, Setting>>): Issue[] {
  return Object.entries(settings).flatMap(([unit, setting]): Issue[] => {
    const path = ["settings", unit];
    if (!machine.units.some(({ id }) => id === unit)) return [{ code: "unknown-part", path, place: unit }];
    const { sideView } = unitSheetOf(machine, unit);
    if (!sideView) return [{ code: "no-side-view", path, place: unit }];
    const view = viewSet(sideView, setting);
    const [problem] = sideProblems(view);
    if (problem) return [{ code: problem, path }];
    const { heightMetres = 0 } = stanceOf(view) ?? {};
    if (heightMetres <= 0) return [{ code: "rollers-above-knife", path }];
    if (heightMetres > HIGHEST_METRES) return [{ code: "height-not-credible", path, heightMetres }];
    if (!isInTravel({ machine, unit, view })) return [{ code: "out-of-travel", path, place: unit }];
    const { heelMetres = 0, toeMetres = 0 } = stanceOf(view) ?? {};
    // A heel or toe in the plate is what it would stand on, not on its rollers.
    if (Math.min(heelMetres, toeMetres) < -MOVED_METRES) return [{ code: "stands-on-knife", path, place: unit }];
    return [];
  });
}

/**
 * Keeps where the rollers of these units are to stand: a new version of the sheet, and at each unit that changed the event that makes its later steps
 * again: another height where only its height screws' roller moved, else another place of its rollers. Where all stand so already nothing is written.
 * Throws `changed-since`; `invalid` with `unknown-part`, `no-side-view`, `rollers-overlap`, `rollers-above-knife`, `height-not-credible`, `stands-on-knife`, `out-of-travel`.
 */
export function keepBenchSetting(
  db: Db,
  doing: Doing,
  args: { machineId: string } & z.output<typeof benchSettingSchema>,
): { sheetVersion: number; moved: string[] } {
  return once(db, doing, "bench-setting-kept", () => {
    const { machineId, basedOnVersion, settings, reason } = args;
    const { machine } = getMachine(db, machineId);
    const issues = issuesOf(machine, settings);
    if (issues.length > 0) throw new AppError("invalid", { issues });
    if (Object.keys(settings).length === 0) throw new AppError("invalid", { issues: [{ code: "nothing-set", path: ["settings"] }] });
    const moved = machine.units
      .map(({ id }) => id)
      .filter((unit) => {
        const { sideView } = unitSheetOf(machine, unit);
        const setting = settings[unit];
        return sideView !== undefined && setting !== undefined && isMoved(settingOf(sideView), setting);
      });
    // Where it stands so already there is nothing to write, and nothing wrong with having asked.
    if (moved.length === 0) return { sheetVersion: getMachine(db, machineId).sheetVersion, moved };
    const sheet = writeSheet(db, doing, { machineId, basedOnVersion, machine: withSettings(machine, settings), reason });
    for (const unit of moved)
      insertEvent(db, doing, {
        machineId,
        event: isOnlyHeight(machine, unit, settings[unit]) ? "bench-height-set" : "roller-moved",
        place: unit,
        data: { words: reason },
      });
    return { ...sheet, moved };
  });
}
