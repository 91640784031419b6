"use client";

import { useState } from "react";
import type { MachinePhotograph } from "@/data/machine-photographs";
import type { Ticket } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { PictureStrip, TakePicture } from "@/ui/pictures";
import { useWriting } from "@/ui/reread";
import { sayError, sayIssue } from "@/ui/words/issues";

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
  const { who, system } = useSeat();
  const { submit, reread } = useWriting();
  const [trouble, setTrouble] = useState("");
  const own = args.pictures.filter((one) => one.about === about);
  const path = `/api/v1/machines/${machineId}/photographs`;
  const post = async (to: string, body: Record<string, unknown>, ticket?: Ticket): Promise<boolean> => {
    const sent = await submit(to, { who: who ?? "", ...body }, ticket ? { ticket } : {});
    if (!sent) return false;
    const first = sent.ok ? undefined : sent.issues[0];
    setTrouble(sent.ok ? "" : first ? sayIssue(first, system) : sayError(who ? sent.error : "unknown-person"));
    if (sent.ok) reread();
    return sent.ok;
  };
  return (
    <div className="mt-2">
      <TakePicture
        words={WORDS[about]}
        draftKey={`machine:${machineId}:${about}`}
        onPicture={(dataUrl, ticket) => post(path, { about, dataUrl }, ticket)}
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
