"use client";

import { Camera } from "lucide-react";
import { useState } from "react";
import { shrunkPicture } from "./picture";

/** Takes a photograph, or picks one, and hands it on made small enough to keep. */
export function TakePicture({ words, onPicture }: { words: string; onPicture: (dataUrl: string) => unknown }) {
  const [trouble, setTrouble] = useState("");
  const take = async (file: File | undefined) => {
    if (!file) return;
    const dataUrl = await shrunkPicture(file);
    setTrouble(dataUrl ? "" : "That is no picture this browser can read.");
    if (dataUrl) await onPicture(dataUrl);
  };
  return (
    <>
      <label className="btn w-full cursor-pointer gap-2">
        <Camera size={20} aria-hidden="true" />
        {words}
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
    </>
  );
}

export function PictureStrip({ label, pictures }: { label: string; pictures: readonly { href: string; alt: string }[] }) {
  if (pictures.length === 0) return null;
  return (
    <ul className="mt-2 flex gap-2 overflow-x-auto" aria-label={label}>
      {pictures.map(({ href, alt }) => (
        <li key={href}>
          <a href={href} target="_blank" rel="noreferrer">
            {/* biome-ignore lint/performance/noImgElement: a picture of the shop's own database, of unknown size */}
            <img src={href} alt={alt} className="h-24 border border-rule object-cover" />
          </a>
        </li>
      ))}
    </ul>
  );
}
