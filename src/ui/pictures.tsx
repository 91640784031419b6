"use client";

import { Camera } from "lucide-react";
import { useState } from "react";
import { type Ticket, useDraft } from "./draft";
import { shrunkPicture } from "./picture";

/**
 * Takes a photograph, or picks one, and hands it on made small enough to keep. It stands here until `onPicture` says that it was written
 * down: a lost line or a reload loses none.
 */
export function TakePicture(args: { words: string; draftKey: string; onPicture: (dataUrl: string, ticket: Ticket) => Promise<boolean> }) {
  const { words, onPicture } = args;
  const { value, set, clear, ticket, isUnkept } = useDraft(`picture:${args.draftKey}`, { dataUrl: "" });
  const [trouble, setTrouble] = useState("");
  const [isSending, setSending] = useState(false);
  const sendIt = async (dataUrl: string) => {
    setSending(true);
    if (await onPicture(dataUrl, ticket)) clear();
    setSending(false);
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    const dataUrl = await shrunkPicture(file);
    setTrouble(dataUrl ? "" : "That is no picture this browser can read.");
    if (!dataUrl) return;
    set({ dataUrl });
    await sendIt(dataUrl);
  };
  if (value.dataUrl !== "" && !isSending)
    return (
      <div className="border-2 border-mark p-2">
        {/* biome-ignore lint/performance/noImgElement: it stands in this browser only */}
        <img src={value.dataUrl} alt="Not sent yet" className="h-24 border border-rule object-cover" />
        <p className="trouble" role="status">
          Not written down yet. {isUnkept ? "This browser has no room to keep it: send it before you leave this page." : "It is kept here."}
        </p>
        <div className="mt-1 flex gap-1">
          <button type="button" className="btn btn-go grow" onClick={() => sendIt(value.dataUrl)}>
            Send the photograph
          </button>
          <button type="button" className="btn" onClick={clear}>
            Throw it away
          </button>
        </div>
      </div>
    );
  return (
    <>
      <label className="btn w-full cursor-pointer gap-2">
        <Camera size={20} aria-hidden="true" />
        {isSending ? "Sending …" : words}
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          disabled={isSending}
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

export function PictureStrip({
  label,
  pictures,
}: {
  label: string;
  pictures: readonly { href: string; alt: string; takeBack?: (() => void) | undefined }[];
}) {
  if (pictures.length === 0) return null;
  return (
    <ul className="mt-2 flex gap-2 overflow-x-auto" aria-label={label}>
      {pictures.map(({ href, alt, takeBack }) => (
        <li key={href} className="shrink-0">
          <a href={href} target="_blank" rel="noreferrer">
            {/* biome-ignore lint/performance/noImgElement: a picture of the shop's own database, of unknown size */}
            <img src={href} alt={alt} className="h-24 border border-rule object-cover" />
          </a>
          {takeBack && (
            <button type="button" className="btn btn-quiet block w-full text-sm" aria-label={`Take back: ${alt}`} onClick={takeBack}>
              Take back
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
