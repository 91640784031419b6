import { useEffect, useRef } from "react";
import type { PanelId } from "./panel-id";
import type { ListedStep } from "./steps";

type Keys = { steps: readonly ListedStep[]; open: (panel: PanelId) => void; undo: () => void; turn: () => void };

/** Alt and a digit opens what is listed, Alt Z undoes, Alt V walks round the machine. */
export function useKeys(keys: Keys): void {
  const held = useRef(keys);
  held.current = keys;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!event.altKey || event.ctrlKey) return;
      const { steps, open, undo, turn } = held.current;
      const digit = /^Digit([1-9])$/.exec(event.code)?.[1];
      const wanted = digit ? steps[Number(digit) - 1] : undefined;
      if (wanted === undefined && event.code !== "KeyZ" && event.code !== "KeyV") return;
      event.preventDefault();
      if (wanted) open(wanted.panel);
      else if (event.code === "KeyZ") undo();
      else turn();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
