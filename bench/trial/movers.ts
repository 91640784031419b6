import { namedRandom } from "@/core/basics/random";
import type { CauseId, CheckId } from "@/core/catalogue";
import { kindById } from "@/core/catalogue/kinds";
import { worksheetsFor } from "@/core/checks";
import { spokenFor } from "@/core/job/jobs";
import { machineSchema } from "@/core/machine";
import { FLEET } from "@/core/machine/examples/fleet";
import { CAREFUL, drawSeverity, MODELLED } from "@/core/simulator";
import { machineWith, make } from "./hidden-case";
import { knowledgeFor } from "./worksheets";

/** `npm run trial:movers [each] [rotary|reel]`: on machines with one fault alone, how often each worksheet points at another cause than it. Where `MOVED_BY` comes from. */
const EACH = Number(process.argv[2] ?? 10);
const CUTS_WITH = process.argv[3] === "reel" ? "reel" : "rotary";
const SOUND_TIMES = 6;
const LEAST_SHARE = 0.05;

type Counted = { read: number; accused: Map<string, number> };
/** By worksheet and fault; the sound machine's under an empty name. */
const counts = new Map<string, Counted>();
const machines = FLEET.map(({ machine }) => machineSchema.parse(machine)).filter(({ kind }) => kindById(kind).cutsWith === CUTS_WITH);

function count(check: CheckId, fault: string, accused: readonly string[]): void {
  const own = counts.get(`${check} ${fault}`) ?? { read: 0, accused: new Map() };
  counts.set(`${check} ${fault}`, own);
  own.read++;
  for (const cause of new Set(accused)) own.accused.set(cause, (own.accused.get(cause) ?? 0) + 1);
}

for (const [m, machine] of machines.entries()) {
  const known = knowledgeFor(machine).causes.map(({ id }) => id);
  for (const fault of ["", ...known.filter((id) => MODELLED.includes(id))]) {
    for (let k = 0; k < EACH * (fault === "" ? SOUND_TIMES : 1); k++) {
      const key = `movers:${m}:${fault}:${k}`;
      const severity = drawSeverity(namedRandom(`${key}:severity`));
      const state = machineWith({ machine, key, faults: fault === "" ? [] : [{ cause: fault as CauseId, severity }] });
      for (const { id } of worksheetsFor(machine)) {
        const made = make({ of: { key, machine, state }, checkId: id, hand: CAREFUL, made: [] });
        if (made.verdict !== "refused") count(id, fault, spokenFor(made.evidence));
      }
    }
  }
}

const rate = (check: string, fault: string, cause: string): number => {
  const own = counts.get(`${check} ${fault}`);
  return own ? (own.accused.get(cause) ?? 0) / own.read : 0;
};
console.log("| worksheet | points at | with it alone | with another alone |\n| --- | --- | --- | --- |");
const checks = [...new Set([...counts.keys()].map((key) => key.split(" ")[0] as string))].sort();
for (const check of checks) {
  const faults = [...counts.keys()].filter((key) => key.startsWith(`${check} `)).map((key) => key.split(" ")[1] as string);
  const accused = [...new Set(faults.flatMap((fault) => [...(counts.get(`${check} ${fault}`)?.accused.keys() ?? [])]))].sort();
  for (const cause of accused) {
    const sound = rate(check, "", cause);
    const share = (fault: string) => (rate(check, fault, cause) - sound) / (1 - sound);
    const others = faults
      .filter((fault) => fault !== "" && fault !== cause && share(fault) >= LEAST_SHARE)
      .sort((a, b) => share(b) - share(a));
    console.log(
      `| ${check} | ${cause} | ${share(cause).toFixed(2)} | ${others.map((one) => `${one} ${share(one).toFixed(2)}`).join(", ")} |`,
    );
  }
}
