"use client";

import { likelihoodOf, type RankedCause, type WorkUp } from "@/core/diagnosis";
import { LIKELIHOOD_WORDS, labelOfCause, labelOfSymptom, percent } from "@/ui/words/diagnosis";
import type { PanelId } from "../panel-id";

const ROW = 30;
const LEFT = 150;
const RIGHT = 210;
const WIDTH = 368;
/** Thinner links would be a web and no picture. */
const LEAST_DRAWN = 0.03;
const MOST_CAUSES = 10;

/** Which cause has shown which symptom, as lines as thick as it is likely; and every cause as a list. */
export function LinksPanel({ workUp, open }: { workUp: WorkUp; open: (panel: PanelId) => void }) {
  const { symptoms, causes, alsoWorthALook } = workUp.diagnosis;
  const drawn = causes.slice(0, MOST_CAUSES);
  const height = ROW * Math.max(symptoms.length, drawn.length);
  const y = (index: number, of: number) => (height * (index + 0.5)) / of;
  return (
    <div>
      <svg viewBox={`0 0 ${WIDTH} ${height}`} className="w-full" role="img" aria-label="What shows what: the same is in the list below">
        {symptoms.flatMap(({ id, shownBy }, s) =>
          shownBy
            .filter(({ probability, cause }) => probability >= LEAST_DRAWN && drawn.some((one) => one.id === cause))
            .map(({ cause, probability }) => (
              <line
                key={`${id} ${cause}`}
                x1={LEFT}
                x2={RIGHT}
                y1={y(s, symptoms.length)}
                y2={y(
                  drawn.findIndex((one) => one.id === cause),
                  drawn.length,
                )}
                stroke="var(--dye-text)"
                strokeWidth={1 + 8 * probability}
                opacity={0.35 + 0.65 * probability}
              />
            )),
        )}
        {symptoms.map(({ id, status }, s) => (
          <text
            key={id}
            x={LEFT - 6}
            y={y(s, symptoms.length) + 4}
            textAnchor="end"
            fontSize="12.5"
            fill={status === "nothing-explains" ? "var(--mark)" : "var(--ink)"}
            fontWeight={600}
          >
            {fitted(labelOfSymptom(id), 22)}
          </text>
        ))}
        {drawn.map(({ id, label }, c) => (
          <text key={id} x={RIGHT + 6} y={y(c, drawn.length) + 4} fontSize="12.5" fill="var(--ink)">
            {fitted(label, 25)}
          </text>
        ))}
      </svg>
      <section aria-label="Symptoms" className="mt-3">
        <h3 className="caps">What explains each of it</h3>
        <ul className="ruled">
          {symptoms.map(({ id, shownBy, nothing, status }) => (
            <li key={id} className="py-1 leading-snug">
              <span className="font-semibold">{labelOfSymptom(id)}</span>:{" "}
              {status === "nothing-explains" ? (
                <span className="font-semibold text-mark">nothing on the list explains it ({percent(nothing)})</span>
              ) : (
                shownBy
                  .slice(0, 3)
                  .map(({ cause, probability }) => `${labelOfCause(cause)} ${percent(probability)}`)
                  .join(", ")
              )}
            </li>
          ))}
        </ul>
      </section>
      {alsoWorthALook.length > 0 && (
        <section aria-label="Also worth a look" className="mt-3">
          <h3 className="caps">Also worth a look: likely, but it shows none of this</h3>
          <CauseList causes={alsoWorthALook} open={open} />
        </section>
      )}
      <section aria-label="Every cause" className="mt-3">
        <h3 className="caps">Every cause that can show it</h3>
        <CauseList causes={causes} open={open} />
      </section>
    </div>
  );
}

const fitted = (label: string, most: number) => (label.length > most ? `${label.slice(0, most - 1)}…` : label);

function CauseList({ causes, open }: { causes: readonly RankedCause[]; open: (panel: PanelId) => void }) {
  return (
    <ol className="ruled">
      {causes.map(({ id, label, probability }) => (
        <li key={id}>
          <button type="button" className="flex min-h-11 w-full items-center gap-2 text-left" onClick={() => open(`cause:${id}`)}>
            <span className="grow">{label}</span>
            <span className="text-sm text-soft">{LIKELIHOOD_WORDS[likelihoodOf(probability)]}</span>
            <span className="w-20 text-right tabular-nums">{percent(probability)}</span>
          </button>
        </li>
      ))}
    </ol>
  );
}
