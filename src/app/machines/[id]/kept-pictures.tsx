"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { MachinePhotograph } from "@/data/machine-photographs";
import { useSeat } from "@/ui/person";
import { PictureStrip, TakePicture } from "@/ui/pictures";
import { useSubmission } from "@/ui/send";
import { sayError, sayIssue } from "@/ui/words/issues";

const WORDS: Record<MachinePhotograph["about"], string> = {
  "belt-path": "Photograph the belt's path",
  timing: "Photograph the timing marks",
  "washer-stack": "Photograph the washer stack",
};

/** Photographs of a machine as it is when it is right; the newest comes first, none is ever written over. */
export function KeptPictures(args: { machineId: string; about: MachinePhotograph["about"]; pictures: readonly MachinePhotograph[] }) {
  const { machineId, about } = args;
  const { who, system } = useSeat();
  const router = useRouter();
  const { submit } = useSubmission();
  const [trouble, setTrouble] = useState("");
  const own = args.pictures.filter((one) => one.about === about);
  return (
    <div className="mt-2">
      <TakePicture
        words={WORDS[about]}
        onPicture={async (dataUrl) => {
          const sent = await submit(`/api/v1/machines/${machineId}/photographs`, { who: who ?? "", about, dataUrl });
          if (!sent) return;
          const first = sent.ok ? undefined : sent.issues[0];
          setTrouble(sent.ok ? "" : first ? sayIssue(first, system) : sayError(who ? sent.error : "unknown-person"));
          if (sent.ok) router.refresh();
        }}
      />
      <PictureStrip
        label="Kept with the machine"
        pictures={own.map(({ id }) => ({ href: `/api/v1/machines/${machineId}/photographs/${id}`, alt: about.replaceAll("-", " ") }))}
      />
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
