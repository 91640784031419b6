"use client";

import type { MachinePhotograph } from "@/data/machine/machine-photographs";
import { PictureStrip, TakePicture } from "@/ui/pictures";
import { usePost } from "@/ui/use-post";

const WORDS: Record<MachinePhotograph["about"], string> = {
  "belt-path": "Photograph the belt's path",
  timing: "Photograph the timing marks",
  "washer-stack": "Photograph the washer stack",
  damage: "Photograph damage",
  turf: "Photograph the turf",
  lifting: "Photograph where it is lifted",
  isolation: "Photograph where it is isolated",
};

/** Photographs of a machine as it is when it is right; the newest comes first, none is ever written over. */
export function KeptPictures(args: { machineId: string; about: MachinePhotograph["about"]; pictures: readonly MachinePhotograph[] }) {
  const { machineId, about } = args;
  const { post, trouble } = usePost();
  const own = args.pictures.filter((one) => one.about === about);
  const path = `/api/v1/machines/${machineId}/photographs`;
  return (
    <div className="mt-2">
      <TakePicture
        words={WORDS[about]}
        draftKey={`machine:${machineId}:${about}`}
        onPicture={async (dataUrl, ticket) => (await post(path, { about, dataUrl }, { ticket })) !== undefined}
      />
      <PictureStrip
        label="Kept with the machine"
        pictures={own.map(({ id }) => ({
          href: `${path}/${id}`,
          alt: about.replaceAll("-", " "),
          takeBack: () => post(`${path}/${id}/take-back`, {}),
        }))}
      />
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
