import type { Field } from "./form";

/** A distance, and the time for it run by run. */
export const timedRun = (group: string): Field[] => [
  {
    kind: "quantity",
    path: ["distanceMetres"],
    group,
    label: "Distance",
    dimension: "distance",
    instrument: "gauge",
    range: { least: 2, most: 2000, usualLeast: 8, usualMost: 400 },
  },
  {
    kind: "list",
    path: ["seconds"],
    group,
    label: "Time for it, run by run",
    wanted: 2,
    dimension: "seconds",
    instrument: "gauge",
    range: { least: 0.5, most: 3600, usualLeast: 2, usualMost: 300 },
  },
];
