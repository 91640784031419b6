import { holdFolder } from "@/data/hold";

/** Holds a data folder until it is killed: `holder.ts FOLDER`. */
holdFolder(process.argv[2] ?? "");
console.log("held");
setInterval(() => undefined, 1000);
