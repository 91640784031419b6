import { spawn } from "node:child_process";
import { availableParallelism } from "node:os";
import { GateDepot, newTally, walkGate } from "../tests/fuzz/gate-walk";

/**
 * `npm run soak:gate [DEEDS] [SEED]`: walks of every deed the record knows, by three people in three jobs on a machine of each walk's own, on all processors;
 * each reason that went is held against what explains it. Ends with a plain line; stops at the first that nothing explains.
 */
const [deeds = 1_000_000, seed = 1, part = -1] = process.argv.slice(2).map(Number);
const DEEDS_A_WALK = 100;
/** A record is begun anew every so many walks, or asking for its machines takes the time. */
const WALKS_A_DEPOT = 20;
const TOLD_EVERY = 10_000;
/** Walks of different parts never share a seed. */
const SEEDS_A_PART = 10_000_000;

function walkPart(): void {
  const tally = newTally();
  let [depot, told] = [new GateDepot(), 0];
  for (let walk = 0; tally.deeds < deeds; walk++) {
    if (walk > 0 && walk % WALKS_A_DEPOT === 0) depot = new GateDepot();
    walkGate(depot, { seed: seed + part * SEEDS_A_PART + walk, deeds: DEEDS_A_WALK, tally });
    if (tally.deeds - told >= TOLD_EVERY) {
      told = tally.deeds;
      console.error(`part ${part}: ${tally.deeds} deeds, ${tally.gone} reasons went`);
    }
  }
  const { done, refused, gone, letGo, byDeed } = tally;
  console.log(JSON.stringify({ deeds: tally.deeds, done, refused, gone, letGo, kinds: byDeed.size }));
}

type Told = { deeds: number; done: number; refused: number; gone: number; letGo: number; kinds: number };

async function allParts(): Promise<void> {
  const parts = availableParallelism();
  const began = performance.now();
  const told = await Promise.all(Array.from({ length: parts }, (_, k) => partOf(k, Math.ceil(deeds / parts))));
  const sum = (of: keyof Told) => told.reduce((all, one) => all + one[of], 0);
  const minutes = ((performance.now() - began) / 60_000).toFixed(1);
  console.log(
    `${sum("deeds")} deeds of ${Math.max(...told.map(({ kinds }) => kinds))} kinds (${sum("done")} done, ${sum("refused")} refused): ${sum("gone")} reasons went, ${sum("letGo")} of them let go by another and owed, 0 unexplained (seed ${seed}, ${minutes} min)`,
  );
}

function partOf(k: number, share: number): Promise<Told> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [process.argv[1] ?? "", String(share), String(seed), String(k)], {
      stdio: ["ignore", "pipe", "inherit"],
    });
    let out = "";
    child.stdout.on("data", (chunk) => {
      out += chunk;
    });
    child.on("close", (code) => (code === 0 ? resolve(JSON.parse(out)) : reject(new Error(`part ${k} ended with ${code}`))));
  });
}

if (part >= 0) walkPart();
else
  allParts().catch((error) => {
    console.error(error);
    process.exitCode = 1;
  });
