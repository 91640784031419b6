import type { ReactNode } from "react";

/** A drawing with room around it. */
export function Framed({ children }: { children: ReactNode }) {
  return <div className="grid min-h-0 flex-1 place-items-center p-2">{children}</div>;
}

/** What will be drawn, and from what. */
export function Waiting({ words }: { words: string }) {
  return <p className="grid flex-1 place-items-center p-4 text-center text-[var(--chalk-soft)]">{words}</p>;
}
