import { plusMinus95 } from "@/core/basics/findings";
import { kindById } from "@/core/catalogue/kinds";
import type { cuttingHeight } from "@/core/checks/cutting-height";
import { coming } from "../coming";
import type { Face, Told } from "../face";
import { length, placeName, sayMarks, show, worst } from "../shared";
import { noSuchUnit } from "../unit-words";

type Found = ReturnType<typeof cuttingHeight.assess>;

/** What this worksheet says. */
export const face: Face<typeof cuttingHeight> = {
  answer: sayHeight,
  actions: {
    "set-height": (a, t) => `Set ${saySetting(a, t)}`,
    "set-unit-height": (a, t) => `${placeName(t.machine, a.place)}: set ${saySetting(a, t)}`,
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
    "over-wanted": "off the height that is wanted",
    "bench-near-wanted": "set to another height than is wanted, and cuts as wanted",
    "bench-off": "set to another height than is wanted",
    "bench-as-wanted": "set as wanted",
    "unit-near-off": "may cut unlike its sisters: prick more",
    "unit-off": "cuts off its sisters",
    "unit-like": "cuts like its sisters",
  },
  figures: {
    "stubble-mean": "Stubble, mean",
    "stubble-95": "Mean is sure to ±, 95 %",
    "stubble-spread": "Spread of the readings",
    "over-the-setting": "Over the setting",
    "over-wanted": "Over the height that is wanted",
    "bench-over-wanted": "Bench over what is wanted",
    "unit-stubble": "Stubble",
    "learnt-offset": "Offset learnt here",
  },
  parts: {
    machine: "The machine",
    bench: "The bench",
  },
  trend: { title: "Stubble over the setting", lines: { machine: "all of it" } },
  picture: coming(() => import("./picture").then(({ Picture }) => Picture)),
};

type Setting = { settingMetres: number; wantedMetres: number; plusMinusMetres: number; visits: number };

function saySetting({ settingMetres, wantedMetres, plusMinusMetres, visits }: Setting, { machine, system }: Told): string {
  const size = (metres: number) => length(metres, system, kindById(machine.kind).cutsWith === "reel" ? "fine" : "gauge");
  return `${size(settingMetres)} to cut ${size(wantedMetres)}, ± ${size(plusMinus95(plusMinusMetres))} from ${visits} ${visits === 1 ? "visit" : "visits"}`;
}

function sayHeight({ detail, verdict, figures, marks }: Found, { machine, system }: Told): string {
  if (!detail.stubble) return "Read the stubble in ten places.";
  const instrument = figures.find(({ id }) => id === "stubble-mean")?.instrument ?? "gauge";
  const mean = `${show(detail.stubble.meanMetres, "length", system, instrument)} ± ${show(detail.stubble.plusMinusMetres, "length", system, instrument)}`;
  if (detail.offsetMetres === undefined) return `Stubble ${mean}.`;
  const elsewhere = worst(marks).filter(({ place }) => place !== "machine");
  if (elsewhere.length > 0) return sayMarks(face, { marks: elsewhere }, { machine, system }, "");
  const wanted = figures.find(({ id }) => id === "over-wanted");
  const meant = wanted ? "wanted" : "set";
  if (verdict === "in-tolerance") return `Cuts as ${meant}: ${mean}.`;
  const over = wanted?.value ?? detail.offsetMetres;
  const by = show(Math.abs(over), "length", system, instrument);
  return `Cuts ${by} ${over > 0 ? "higher" : "lower"} than ${meant}: ${mean}${verdict === "watch" ? ", too close to call" : ""}.`;
}
