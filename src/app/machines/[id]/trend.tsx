"use client";

import { Chart, Filler, Legend, LinearScale, LineElement, PointElement, TimeScale, Tooltip } from "chart.js";
import "chartjs-adapter-date-fns";
import { useEffect, useState } from "react";
import { Line } from "react-chartjs-2";
import { fromSi, shownUnit, unitById } from "@/core/basics/units";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";

Chart.register(TimeScale, LinearScale, PointElement, LineElement, Filler, Tooltip, Legend);

export type TrendPoint = { at: string; jobId: number; values: Record<string, number>; group?: string };
export type TrendLine = { id: string; label: string };
/** From then on it is another run of figures, and what happened. */
export type TrendBreak = { at: string; label: string };

/** What was read without saying on which turf is a group too: it is not hidden by the others. */
const UNTOLD = "Not told where";

/** Groups by how lately they were read, without regard to the case they were typed in. */
function groupsOf(points: readonly TrendPoint[]): string[] {
  const named = points.map(({ group = UNTOLD }) => group).reverse();
  return named.filter((name, k) => named.findIndex((other) => other.toLowerCase() === name.toLowerCase()) === k);
}

/** Marks of a line beside its colour: told apart without it. */
const STYLES = [
  { dash: [], point: "circle" },
  { dash: [7, 4], point: "rect" },
  { dash: [2, 3], point: "triangle" },
  { dash: [9, 3, 2, 3], point: "rectRot" },
] as const;

const DAY = 86_400_000;
/** Of the whole span on either side, and a few days about a single reading: no empty band round one point. */
const MARGIN = 0.04;

function spanOf(times: readonly number[]): { from: number; to: number } {
  const [first, last] = [Math.min(...times), Math.max(...times)];
  const margin = Math.max(DAY, (last - first) * MARGIN);
  return { from: first - margin, to: last + margin };
}

/** What was read over the jobs, as departures from what is right, with the tolerance as a band; and the same as a table. */
export function Trend(args: {
  title: string;
  points: readonly TrendPoint[];
  lines: readonly TrendLine[];
  breaks?: readonly TrendBreak[];
  dimension: "length" | "pressure";
  toleranceSi: number;
}) {
  const { system, theme, timeZone } = useSeat();
  const [ink, setInk] = useState({
    text: "#474e60",
    rule: "#b4b9ae",
    band: "rgba(28,97,66,0.16)",
    lines: ["#22307f", "#bd2a10", "#7a5200", "#1c6142"],
    family: "sans-serif",
  });
  useEffect(() => {
    const style = getComputedStyle(document.documentElement);
    const of = (name: string) => style.getPropertyValue(name).trim();
    setInk({
      text: of("--soft"),
      rule: of("--rule"),
      band: theme === "dark" ? "rgba(126,211,163,0.18)" : "rgba(28,97,66,0.16)",
      lines: ["--dye-text", "--mark", "--watch", "--good"].map(of),
      family: getComputedStyle(document.body).fontFamily,
    });
  }, [theme]);
  const font = { family: ink.family, size: 13 };
  const id = shownUnit({ dimension: args.dimension, system });
  const unit = unitById(id).symbol;
  const shown = (si: number) => fromSi(si, id);
  const groups = groupsOf(args.points);
  const [chosen, setChosen] = useState<string>();
  const group = chosen ?? groups[0];
  const points = args.points.filter((point) => groups.length < 2 || (point.group ?? UNTOLD).toLowerCase() === group?.toLowerCase());
  const drawn = args.lines.filter((line) => points.some(({ values }) => values[line.id] !== undefined));
  const times = points.map(({ at }) => Date.parse(at));
  const span = spanOf(times);
  const tolerance = shown(args.toleranceSi);
  // Finer than the tolerance by a digit and a half.
  const places = Math.max(2, Math.ceil(1.5 - Math.log10(tolerance)));
  const band = (sign: 1 | -1) => ({
    label: sign === 1 ? "tolerance" : "",
    data: [span.from, span.to].map((x) => ({ x, y: sign * tolerance })),
    borderColor: "transparent",
    backgroundColor: ink.band,
    pointRadius: 0,
    pointHitRadius: 0,
    fill: sign === 1 ? "+1" : false,
  });
  const broken = (args.breaks ?? []).filter(({ at }) => Date.parse(at) > span.from && Date.parse(at) < span.to);
  const all = points.flatMap(({ values }) => drawn.flatMap(({ id: line }) => values[line] ?? [])).map(shown);
  const [low, high] = [Math.min(-tolerance, ...all), Math.max(tolerance, ...all)];
  const breaks = broken.map(({ at, label }) => ({
    label,
    data: [low, high].map((y) => ({ x: Date.parse(at), y })),
    borderColor: ink.text,
    borderDash: [2, 4],
    borderWidth: 2,
    pointRadius: 0,
    pointHitRadius: 0,
  }));
  const lines = drawn.map((line, k) => {
    const style = STYLES[k % STYLES.length] ?? STYLES[0];
    return {
      label: line.label,
      data: points.flatMap(({ at, values }) =>
        values[line.id] === undefined ? [] : [{ x: Date.parse(at), y: shown(values[line.id] as number) }],
      ),
      borderColor: ink.lines[k % ink.lines.length],
      backgroundColor: ink.lines[k % ink.lines.length],
      borderDash: [...style.dash],
      pointStyle: style.point,
      pointRadius: 5,
      borderWidth: 2,
      spanGaps: true,
    };
  });
  if (times.length === 0) return null;
  return (
    <figure>
      <figcaption className="text-lg font-semibold">
        {args.title}, {unit} from where it should be
      </figcaption>
      {groups.length > 1 && (
        <div className="my-1 flex flex-wrap gap-1">
          {groups.map((name) => (
            <button
              key={name}
              type="button"
              className={`btn ${name === group ? "btn-on" : ""}`}
              aria-pressed={name === group}
              onClick={() => setChosen(name)}
            >
              {name}
            </button>
          ))}
        </div>
      )}
      <div className="h-56">
        <Line
          aria-label={`${args.title} over time; the table beneath holds the same figures`}
          data={{ datasets: [band(1), band(-1), ...lines, ...breaks] }}
          options={{
            animation: false,
            responsive: true,
            maintainAspectRatio: false,
            scales: {
              x: {
                type: "time",
                min: span.from,
                max: span.to,
                time: { minUnit: "day" },
                // The shop's own zone, not the computer's.
                ticks: {
                  color: ink.text,
                  font,
                  maxRotation: 0,
                  autoSkip: true,
                  autoSkipPadding: 18,
                  callback: (value) => dateOnly(new Date(value).toISOString(), timeZone),
                },
                grid: { color: ink.rule },
              },
              y: {
                ticks: { color: ink.text, font },
                grid: { color: ink.rule },
                title: { display: true, text: unit, color: ink.text, font },
              },
            },
            plugins: { legend: { labels: { color: ink.text, font, usePointStyle: true, filter: ({ text }) => text !== "" } } },
          }}
        />
      </div>
      <details className="mt-1">
        <summary className="min-h-11 cursor-pointer py-2">As a table</summary>
        <table className="w-full text-sm">
          <thead>
            <tr className="caps text-left">
              <th scope="col">Day</th>
              {drawn.map(({ id: line, label }) => (
                <th key={line} scope="col" className="text-right">
                  {label}, {unit}
                </th>
              ))}
            </tr>
          </thead>
          <tbody className="ruled">
            {points.map(({ at, values, jobId }) => (
              <tr key={at}>
                <td>
                  <a className="underline" href={`/jobs/${jobId}`}>
                    {dateOnly(at, timeZone)}
                  </a>
                </td>
                {drawn.map(({ id: line }) => (
                  <td key={line} className="num text-right">
                    {values[line] === undefined ? "no reading" : shown(values[line]).toFixed(places)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}
