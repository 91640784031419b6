import { holdFolder } from "@/data/store/hold";

/** Holds a data folder until it is killed: `holder.ts FOLDER`. */
holdFolder(process.argv[2] ?? "");
// What nothing refers to is gone by now.
for (let turn = 0; turn < 5; turn++) globalThis.gc?.();
setTimeout(() => {
  globalThis.gc?.();
  console.log(globalThis.gc ? "held" : "not swept");
}, 200);
setInterval(() => undefined, 1000);
