import type { cuttingHeight } from "@/core/checks/cutting-height";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, sayMarks, show, worst } from "../shared";
import { noSuchUnit } from "../unit-words";

type Found = ReturnType<typeof cuttingHeight.assess>;

/** What this worksheet says. */
export const face: Face<typeof cuttingHeight> = {
  answer: sayHeight,
  actions: {
    "set-height": (a, t) =>
      `Set ${length(a.settingMetres, t.system, "gauge")} to cut ${length(a.wantedMetres, t.system, "gauge")}, ± ${length(a.plusMinusMetres, t.system, "gauge")} from ${a.visits} ${a.visits === 1 ? "visit" : "visits"}`,
  },
  warnings: {
    "rake-cuts-lower": (w, t) => `The blades are raked: they cut ${length(w.byMetres, t.system, "gauge")} lower than their middle stands.`,
  },
  provisional: {
    "few-pricks": (r) => `${r.count} readings only, ${r.wanted} are wanted`,
    "soft-ground": () => "read on soft ground",
    "wanted-not-told": () => "height that is wanted not told",
  },
  problems: { "unknown-unit": noSuchUnit },
  states: {
    "over-the-setting": "off the setting",
    "bench-off": "set to another height than is wanted",
    "bench-as-wanted": "set as wanted",
    "unit-off": "cuts off its sisters",
    "unit-like": "cuts like its sisters",
  },
  figures: {
    "stubble-mean": "Stubble, mean",
    "stubble-95": "Mean is sure to ±, 95 %",
    "stubble-spread": "Spread of the readings",
    "over-the-setting": "Over the setting",
    "bench-over-wanted": "Bench over what is wanted",
    "unit-stubble": "Stubble",
    "learnt-offset": "Offset learnt here",
  },
  parts: {
    machine: "The machine",
    bench: "The bench",
  },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

function sayHeight({ detail, verdict, figures, marks }: Found, { machine, system }: Told): string {
  if (!detail.stubble) return "Read the stubble in ten places.";
  const instrument = figures.find(({ id }) => id === "stubble-mean")?.instrument ?? "gauge";
  const mean = `${show(detail.stubble.meanMetres, "length", system, instrument)} ± ${show(detail.stubble.plusMinusMetres, "length", system, instrument)}`;
  if (detail.offsetMetres === undefined) return `Stubble ${mean}.`;
  const elsewhere = worst(marks).filter(({ place }) => place !== "machine");
  if (elsewhere.length > 0) return sayMarks(face, { marks: elsewhere }, { machine, system }, "");
  if (verdict === "in-tolerance") return `Cuts as set: ${mean}.`;
  const by = show(Math.abs(detail.offsetMetres), "length", system, instrument);
  return `Cuts ${by} ${detail.offsetMetres > 0 ? "higher" : "lower"} than set: ${mean}${verdict === "watch" ? ", too close to call" : ""}.`;
}
