"use client";

import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { table } from "@/core/basics/tables";

const SHORTCUTS: readonly (readonly [string, string])[] = [
  ["Enter", "Keep this reading, go to the next in measuring order"],
  ["Shift + Enter", "Back to the reading before"],
  ["Ctrl + Enter", "Save the readings"],
  ["Alt + 1 … 9", "Open the step with that place in the job's list"],
  ["Alt + V", "Turn the drawing to the next standpoint"],
  ["Alt + Z", "Undo the last step of the job"],
  ["Alt + B", "The bay"],
  ["Alt + M", "The machines"],
  ["Alt + C", "A new complaint"],
  ["?", "This list"],
];

function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement;
}

const PLACES: Record<string, string> = table({ KeyB: "/", KeyM: "/machines", KeyC: "/complaint" });

/** The list of keys under `?`, and, once on a page, the keys that lead from page to page. */
export function ShortcutsDialog({ isListening = false }: { isListening?: boolean }) {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    if (!isListening) return;
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "?" && !isTyping(event.target)) setOpen(true);
      const place = event.altKey && !event.ctrlKey ? PLACES[event.code] : undefined;
      if (place) {
        event.preventDefault();
        window.location.assign(place);
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [isListening]);
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger className="btn btn-quiet num" aria-label="Keyboard shortcuts">
        ?
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
        <Dialog.Content className="fixed left-1/2 top-1/2 z-50 w-[min(34rem,94vw)] -translate-x-1/2 -translate-y-1/2 border-2 border-ink bg-sheet p-5 text-ink">
          <Dialog.Title className="text-xl">Keys</Dialog.Title>
          <Dialog.Description className="text-soft">
            Everything works without a mouse. Fractions are typed as spoken: 3 1/4 or 3-1/4.
          </Dialog.Description>
          <dl className="ruled mt-3">
            {SHORTCUTS.map(([keys, what]) => (
              <div key={keys} className="grid grid-cols-[9rem_1fr] gap-3 py-1.5">
                <dt className="num">{keys}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="btn mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
