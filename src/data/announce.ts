type Listener = (machineId: string) => void;

/** One list for the whole process: routes may each come with a copy of this module. */
const held = globalThis as typeof globalThis & { zygometerListeners?: Set<Listener> };

function listeners(): Set<Listener> {
  held.zygometerListeners ??= new Set();
  return held.zygometerListeners;
}

/** Tells every open screen that a machine's log moved. After the change is in the record. */
export function announce(machineId: string): void {
  for (const listener of [...listeners()]) listener(machineId);
}

/** Hears of every machine whose log moves, until the answer is called. */
export function listen(listener: Listener): () => void {
  listeners().add(listener);
  return () => listeners().delete(listener);
}
