"use client";

import type { Machine, Standpoint } from "@/core/machine";
import { machineBelt } from "@/core/physics/drive/machine-belt";
import { BeltPath } from "@/drawings/belt-path";
import { beltScene } from "@/drawings/belt-path/scene";
import { fitInto } from "@/drawings/fit";
import { useSeat } from "../person";
import { sayBelt, sayRouteProblem } from "../words/belt";

const WIDTH = 620;
const HEIGHT = 260;

/** This machine's own belt path, as it lies when it is right. */
export function BeltPicture({ machine, standpoint }: { machine: Machine; standpoint: Standpoint }) {
  const { system } = useSeat();
  const pulleys = machine.sheet.belt?.pulleys;
  const found = machineBelt(machine);
  if (!pulleys || !found)
    return (
      <p className="grid flex-1 place-items-center p-4 text-center text-[var(--chalk-soft)]">
        The sheet holds no belt path. Sketch it on the machine's page, or photograph it while it is right
      </p>
    );
  const scene = beltScene(machine, pulleys, standpoint);
  const said = found.ok ? sayBelt(found.belt, machine, pulleys, system) : [sayRouteProblem(found.problem, pulleys)];
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="min-h-0 w-full flex-1" role="img" aria-label={`Belt path. ${said.join(" ")}`}>
        <BeltPath
          scene={scene}
          fit={fitInto({ bounds: scene.bounds, width: WIDTH, height: HEIGHT, margin: 22 })}
          weak={found.ok ? found.belt.slipsFirst?.id : undefined}
        />
      </svg>
      <p className="px-3 pb-1.5 text-center text-sm text-[var(--chalk)]">{said.join(" ")}</p>
    </div>
  );
}
