"use client";

import type { JobView } from "@/data/job/job-view";
import { TakePicture } from "@/ui/pictures";
import type { Act } from "../act";

const TURF_BEFORE = "turf, before";

const TURF_AFTER = "turf, after";

/** The turf before and after, beside each other where both were taken. */
export function BeforeAfter({ view, act }: { view: JobView; act: Act }) {
  const last = (about: string) => view.photographs.findLast((one) => one.about === about);
  const isOpen = view.state !== "closed";
  if (!isOpen && !last(TURF_BEFORE) && !last(TURF_AFTER)) return null;
  return (
    <fieldset className="py-1">
      <legend className="caps mb-1">The turf, before and after</legend>
      <div className="grid grid-cols-2 gap-2">
        {[TURF_BEFORE, TURF_AFTER].map((about) => {
          const taken = last(about);
          return (
            <figure key={about}>
              {taken && (
                // biome-ignore lint/performance/noImgElement: a kept photograph is served as it was taken
                <img
                  src={`/api/v1/photographs/${taken.stepId}`}
                  alt={about}
                  className="aspect-[4/3] w-full border border-rule object-cover"
                />
              )}
              {isOpen && (
                <TakePicture
                  words={about === TURF_BEFORE ? "Before" : "After"}
                  draftKey={`job:${view.id}:${about}`}
                  onPicture={async (dataUrl, ticket) => (await act.send("photographs", { about, dataUrl }, ticket)) !== undefined}
                />
              )}
            </figure>
          );
        })}
      </div>
    </fieldset>
  );
}
