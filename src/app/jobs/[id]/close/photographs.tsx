"use client";

import type { JobView } from "@/data/job/job-view";
import { PictureStrip, TakePicture } from "@/ui/pictures";
import type { Act } from "../act";

/** Takes a photograph into the job, and shows those it has. */
export function Photographs({ view, act, about }: { view: JobView; act: Act; about: string }) {
  return (
    <div className="mt-2">
      <TakePicture
        words="Photograph it"
        draftKey={`job:${view.id}:${about}`}
        onPicture={async (dataUrl, ticket) => (await act.send("photographs", { about, dataUrl }, ticket)) !== undefined}
      />
      <Pictures view={view} />
    </div>
  );
}

export function Pictures({ view }: { view: JobView }) {
  return (
    <PictureStrip
      label="Photographs"
      pictures={view.photographs.map(({ stepId, about }) => ({ href: `/api/v1/photographs/${stepId}`, alt: about }))}
    />
  );
}

/** Of the machine as it is when it is right. */
export function KeptPictures({ view, about }: { view: JobView; about: string }) {
  const own = view.kept.filter((one) => one.about === about);
  return (
    <PictureStrip
      label="Kept with the machine"
      pictures={own.map(({ id }) => ({ href: `/api/v1/machines/${view.machine.id}/photographs/${id}`, alt: about.replaceAll("-", " ") }))}
    />
  );
}
