"use client";

import { Camera } from "lucide-react";
import { useState } from "react";
import type { JobView } from "@/data/job-view";
import type { Act } from "./act";
import { shrunkPicture } from "./picture";

/** Takes a photograph into the job, and shows those it has. */
export function Photographs({ view, act, about }: { view: JobView; act: Act; about: string }) {
  const [trouble, setTrouble] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    const dataUrl = await shrunkPicture(file);
    if (!dataUrl) {
      setTrouble("That is no picture this browser can read.");
      return;
    }
    setTrouble("");
    await act.send("photographs", { about, dataUrl });
  };
  return (
    <div className="mt-2">
      <label className="btn w-full cursor-pointer gap-2">
        <Camera size={20} aria-hidden="true" />
        Photograph it
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(event) => {
            take(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <Pictures view={view} />
    </div>
  );
}

export function Pictures({ view }: { view: JobView }) {
  if (view.photographs.length === 0) return null;
  return (
    <ul className="mt-2 flex gap-2 overflow-x-auto" aria-label="Photographs">
      {view.photographs.map(({ stepId, about }) => (
        <li key={stepId}>
          <a href={`/api/v1/photographs/${stepId}`} target="_blank" rel="noreferrer">
            {/* biome-ignore lint/performance/noImgElement: a picture of the shop's own database, of unknown size */}
            <img src={`/api/v1/photographs/${stepId}`} alt={about} className="h-24 border border-rule object-cover" />
          </a>
        </li>
      ))}
    </ul>
  );
}
