"use client";

import { useEffect } from "react";

/** Told once the page has been taken over by the browser: whoever kept what was pressed before may stop. */
export const READY = "zygometer:ready";

export function Ready() {
  useEffect(() => {
    document.documentElement.dataset.ready = "true";
    window.dispatchEvent(new Event(READY));
  }, []);
  return null;
}
