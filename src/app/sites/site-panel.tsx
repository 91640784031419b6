"use client";

import { useState } from "react";
import type { GonePlace, Hazards, SitePlace } from "@/data/machine/site-places";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { TakePicture } from "@/ui/pictures";
import { ReasonForm } from "@/ui/reason-form";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";

type Point = { x: number; y: number };

/** One site: its picture with its points, its places by name, what is no danger any more, and what was struck there. */
export function SitePanel(args: { site: string; hazards: Hazards; gone: readonly GonePlace[]; pictureId: number | undefined }) {
  const { site, gone, pictureId } = args;
  const { places, strikes } = args.hazards;
  const { post, isBusy, trouble, troubleAt } = usePost();
  const { value, set, clear, ticket } = useDraft(`site:${site}`, { name: "", words: "" });
  const [point, setPoint] = useState<Point>();
  const add = async () => {
    const sent = await post(
      "/api/v1/sites/places",
      { site, ...value, ...(point && pictureId !== undefined ? { xShare: point.x, yShare: point.y } : {}) },
      { ticket },
    );
    if (!sent) return;
    clear();
    setPoint(undefined);
  };
  return (
    <div className="grid gap-x-8 lg:grid-cols-2">
      <section aria-label="Places">
        <p className="py-1 text-2xl font-bold">
          {places.length === 0
            ? "No danger is known here."
            : `${places.length} ${places.length === 1 ? "place" : "places"} to look out for.`}
        </p>
        <ul className="ruled">
          {places.map((place) => (
            <PlaceLine key={place.id} place={place} />
          ))}
        </ul>
        <form
          className="mt-2 border-t-2 border-ink"
          onSubmit={(event) => {
            event.preventDefault();
            add();
          }}
        >
          <TextField
            id="place-name"
            label="A place where something lies in wait"
            value={value.name}
            trouble={troubleAt("name")}
            onChange={(name) => set({ ...value, name })}
          />
          <TextField
            id="place-words"
            label="What it is, and what to do about it"
            value={value.words}
            onChange={(words) => set({ ...value, words })}
          />
          {pictureId !== undefined && (
            <p className="text-sm text-soft">{point ? "It stands on the picture." : "Touch the picture where it is."}</p>
          )}
          {trouble && (
            <p className="trouble" role="alert">
              {trouble}
            </p>
          )}
          <button type="submit" className="btn btn-go my-1" disabled={isBusy || value.name.trim() === ""}>
            Write it down
          </button>
        </form>
        <Gone gone={gone} />
        <h2 className="mt-3 border-b-2 border-ink text-xl">Struck here</h2>
        <ul className="ruled">
          {strikes.map(({ machineId, fleetNumber, where, words, at, who }) => (
            <li key={`${machineId} ${at}`} className="flex flex-wrap gap-x-3 py-1">
              <span className="num w-16 font-bold">{fleetNumber}</span>
              <span className="grow">
                {where ? `${where}: ` : ""}
                {words || "struck something"}
              </span>
              <span className="text-sm text-soft">
                {dateOnly(at)}, {who}
              </span>
              {where && !places.some(({ name }) => name.toLowerCase() === where.toLowerCase()) && (
                <button type="button" className="btn btn-quiet" onClick={() => set({ name: where, words })}>
                  Make it a place
                </button>
              )}
            </li>
          ))}
          {strikes.length === 0 && <li className="py-1 text-soft">Nothing that was told.</li>}
        </ul>
      </section>
      <section aria-label="Picture">
        {pictureId !== undefined && (
          <button
            type="button"
            className="relative block w-full"
            aria-label="Picture of the site: touch where the place is"
            onClick={(event) => {
              const box = event.currentTarget.getBoundingClientRect();
              if (event.clientX === 0 && event.clientY === 0) return;
              setPoint({ x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height });
            }}
          >
            {/* biome-ignore lint/performance/noImgElement: the shop's own picture, as it was taken */}
            <img
              src={`/api/v1/sites/pictures/${pictureId}`}
              alt={`${site} from above, or as it was photographed`}
              className="w-full border border-rule"
            />
            {places.map(
              (place) =>
                place.xShare !== undefined &&
                place.yShare !== undefined && <Pin key={place.id} at={{ x: place.xShare, y: place.yShare }} words={place.name} />,
            )}
            {point && <Pin at={point} words="new" isNew />}
          </button>
        )}
        <div className="py-2">
          <TakePicture
            words={pictureId === undefined ? "A picture of the site" : "Another picture of the site"}
            draftKey={`site:${site}`}
            onPicture={async (dataUrl, pictureTicket) =>
              (await post("/api/v1/sites/pictures", { site, dataUrl }, { ticket: pictureTicket })) !== undefined
            }
          />
        </div>
      </section>
    </div>
  );
}

/** What was said to be gone, with why: a slip is put right here, and what comes back is not typed again. */
function Gone({ gone }: { gone: readonly GonePlace[] }) {
  const { post, isBusy, trouble } = usePost();
  if (gone.length === 0) return null;
  return (
    <details className="mt-2">
      <summary className="min-h-11 cursor-pointer py-2">No danger any more: {gone.length}</summary>
      <ul className="ruled">
        {gone.map(({ id, name, words, reason, who, at }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-3 py-1">
            <span className="grow">
              <span className="font-semibold">{name}</span>
              {words && `: ${words}`}
              <span className="block text-sm text-soft">
                {dateOnly(at)}, {who}: {reason}
              </span>
            </span>
            <button
              type="button"
              className="btn btn-quiet"
              aria-label={`A danger still: ${name}`}
              disabled={isBusy}
              onClick={() => post(`/api/v1/sites/places/${id}/back`, {})}
            >
              A danger still
            </button>
          </li>
        ))}
      </ul>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </details>
  );
}

function Pin({ at, words, isNew }: { at: Point; words: string; isNew?: boolean }) {
  return (
    <span className="absolute -translate-x-1/2 -translate-y-full" style={{ left: `${at.x * 100}%`, top: `${at.y * 100}%` }}>
      <span className={`num block rounded-[3px] px-1 text-sm font-bold ${isNew ? "bg-dye text-white" : "bg-mark text-white"}`}>
        {words}
      </span>
      <span className={`mx-auto block h-3 w-0.5 ${isNew ? "bg-dye" : "bg-mark"}`} />
    </span>
  );
}

function PlaceLine({ place }: { place: SitePlace }) {
  const { post, isBusy, trouble } = usePost();
  const [isAsking, setAsking] = useState(false);
  return (
    <li className="py-1">
      <div className="flex flex-wrap items-center gap-x-3">
        <span className="grow">
          <span className="text-lg font-semibold">{place.name}</span>
          {place.words && <span className="block">{place.words}</span>}
          <span className="block text-sm text-soft">
            {dateOnly(place.at)}, {place.who}
          </span>
        </span>
        <button type="button" className="btn btn-quiet" aria-expanded={isAsking} onClick={() => setAsking(!isAsking)}>
          No danger any more
        </button>
      </div>
      {isAsking && (
        <ReasonForm
          keep={`gone:${place.id}`}
          label="Because"
          button="It is gone"
          isBusy={isBusy}
          onSend={async (reason) => {
            const sent = await post(`/api/v1/sites/places/${place.id}/gone`, { reason });
            if (sent) setAsking(false);
            return sent;
          }}
        />
      )}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}
