import { table } from "@/core/basics/tables";
import type { FixRow } from "@/core/catalogue";
import { offBench } from "@/core/job/status";
import { reelBladesOf, unitSheetOf } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { sayIssue } from "@/ui/words/issues";
import { placeName } from "@/ui/words/quantities";
import type { PanelId } from "../panel-id";
import { latestTake } from "../steps";
import type { ReelKnown } from "./grind-draft";

/** The reel of the one unit that is ground: by its sheet, and as its ends were measured last in this job. */
export function reelKnown(view: JobView, doneOn: readonly string[]): ReelKnown {
  const { machine } = view.machine;
  const unit = doneOn[0] ?? machine.units[0]?.id ?? "";
  const take = latestTake(view, "reel-cone");
  // Ground since, its ends are no longer as they were measured.
  const stands = take?.stale.every(({ place }) => place !== undefined && place !== unit) === true;
  const figures = stands ? take.result.figures : [];
  const read = (id: string) => figures.find((one) => one.id === id && one.place === unit)?.value;
  const [taperMetres, smallestMetres] = [read("taper"), read("smallest-diameter")];
  const scrapMetres = unitSheetOf(machine, unit).reel?.scrapDiameterMetres;
  return {
    blades: reelBladesOf(machine, unit),
    ...(scrapMetres === undefined ? {} : { scrapMetres }),
    ...(taperMetres === undefined ? {} : { taperMetres }),
    ...(smallestMetres === undefined ? {} : { smallestMetres }),
  };
}

/** Why the ticked units cannot be written down so; the server asks the same. */
export function troubleWithUnits(args: { view: JobView; row: FixRow; doneOn: readonly string[]; hasTally: boolean }): string | undefined {
  const { view, row, doneOn, hasTally } = args;
  if (hasTally && doneOn.length !== 1) return sayIssue({ code: "one-knife-a-tally" }, "metric");
  const [off] = row.state === "bench" ? offBench(view.machineState, doneOn) : [];
  return off === undefined
    ? undefined
    : sayIssue({ code: "not-on-bench", place: placeName(view.machine.machine, off).toLowerCase() }, "metric");
}

/** Units at which readings of this job found the cause. */
export function unitsAccused(view: JobView, cause: string): string[] {
  const units = view.machine.machine.units.map(({ id }) => id);
  const places = view.takes
    .filter(({ stale }) => stale.length === 0)
    .flatMap(({ result }) =>
      result.findings.filter(({ causes = [] }) => causes.some((one) => one.cause === cause)).map(({ place }) => place),
    );
  return units.filter((unit) => places.includes(unit));
}

const GUIDES: Readonly<Record<string, PanelId>> = table({
  "rebuild-gearbox": "box",
  "reseal-gearbox": "box",
  "replace-pin": "box",
  "sharpen-blades": "blade",
  "replace-blades": "blade",
  "balance-blades": "blade",
  "refit-blades": "blade",
  "replace-bearings": "spindle",
  "replace-shaft": "spindle",
  "repair-shell": "deck",
});

/** The guided round that a fix is made by, where this machine has one. */
export function guideOf(fix: string, view: JobView): PanelId | undefined {
  const guide = GUIDES[fix];
  if (guide === "box") return view.boxes.length > 0 ? guide : undefined;
  if (guide === "deck") return view.deck.next ? guide : undefined;
  return guide;
}
