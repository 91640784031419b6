import type { Machine } from "@/core/machine";
import { sheetPlaces } from "@/core/machine/specification";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { bookAddress } from "../book/book";

const SIZE = { width: 420, height: 420 };
/** A finger is no finer than this. */
const TOUCH_PIXELS = 22;

/** The machine from above as the index of its book: a place that is touched shows what was read, mended and struck there. */
export function PlanIndex({
  machine,
  machineId,
  label,
  here,
}: {
  machine: Machine;
  machineId: string;
  label: string;
  here: string | undefined;
}) {
  const scene = planScene(machine, "behind");
  const fit = fitInto({ bounds: scene.bounds, ...SIZE, margin: 30 });
  const places = sheetPlaces(machine).filter(({ sort }) => sort !== "gearboxes");
  return (
    <nav aria-label={label}>
      <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} className="dye w-full">
        <MachinePlan scene={scene} fit={fit} />
        {places.map(({ id, label: name, xMetres, yMetres }) => {
          const { x, y } = fit.toPage({ x: xMetres, y: yMetres });
          const isHere = id === here;
          return (
            <a
              key={id}
              href={bookAddress(machineId, { place: id })}
              aria-label={`${name}: its book`}
              aria-current={isHere ? "true" : undefined}
            >
              <circle cx={x} cy={y} r={TOUCH_PIXELS} fill="transparent" />
              <circle cx={x} cy={y} r={isHere ? 9 : 4} fill={isHere ? "var(--out-chalk)" : "var(--chalk-soft)"} />
              <title>{name}</title>
            </a>
          );
        })}
      </svg>
    </nav>
  );
}
