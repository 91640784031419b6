import { CAUSES, type CauseRow } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { isPlaceOf, type Machine, type SheetProblem, sheetProblems } from "@/core/machine";
import { AppError, type Issue } from "@/data/store/errors";

const causes: readonly CauseRow[] = CAUSES;

type Named = { id: string | undefined; path: (string | number)[] };

/** What a machine does not have is not named on its log. Throws `invalid` with `unknown-part`. */
export function requirePlaces(machine: Machine, places: readonly Named[]): void {
  refuse(places.flatMap(({ id, path }) => (id === undefined || isPlaceOf(machine, id) ? [] : [{ code: "unknown-part", path, place: id }])));
}

/** Causes of the table that this kind of machine can have. Throws `invalid` with `unknown-cause` or `cause-of-another-kind`. */
export function requireCauses(machine: Machine, named: readonly Named[]): void {
  const { cutsWith } = kindById(machine.kind);
  refuse(
    named.flatMap(({ id, path }): Issue[] => {
      const row = causes.find((cause) => cause.id === id);
      if (!row) return [{ code: "unknown-cause", path, cause: id }];
      return row.on.includes(cutsWith) ? [] : [{ code: "cause-of-another-kind", path, cause: id }];
    }),
  );
}

/** A sheet that contradicts itself is not taken from outside. Throws `invalid` with every contradiction. */
export function requireSound(machine: Machine): void {
  refuseProblems(sheetProblems(machine));
}

/** Throws `invalid` with every contradiction that was found. */
export function refuseProblems(problems: readonly SheetProblem[]): void {
  refuse(problems.map((problem) => ({ ...problem, path: ["machine", ...problem.path] })));
}

function refuse(issues: Issue[]): void {
  if (issues.length > 0) throw new AppError("invalid", { issues });
}
