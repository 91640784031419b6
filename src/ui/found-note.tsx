"use client";

import { useEffect, useState } from "react";
import { FOUND } from "./draft";
import { pruneKept } from "./kept";
import { useAskAnew } from "./reread";

const SHOWN_MILLISECONDS = 8000;

/** Says that what was sent before a reload had arrived, and shows it; lets go of drafts nobody came back to. */
export function FoundNote() {
  const askAnew = useAskAnew();
  const [isShown, setShown] = useState(false);
  useEffect(() => {
    pruneKept(new Date().toISOString());
    let hide: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      setShown(true);
      clearTimeout(hide);
      hide = setTimeout(() => setShown(false), SHOWN_MILLISECONDS);
      askAnew();
    };
    window.addEventListener(FOUND, show);
    return () => {
      window.removeEventListener(FOUND, show);
      clearTimeout(hide);
    };
  }, [askAnew]);
  return (
    <div role="status">
      {isShown && (
        <p className="fixed inset-x-0 top-13 z-30 bg-good px-3 py-2 text-center font-bold text-paper">
          What was sent before the line was lost was written down.
        </p>
      )}
    </div>
  );
}
