import type { Metadata } from "next";
import { jobsBy, listProcedures } from "@/data/catalogue/procedures";
import { schoolStandings } from "@/data/machine/schools";
import { database } from "@/data/open";
import { ProcedurePanel } from "./procedure-panel";
import { SchoolsPanel } from "./schools-panel";

export const metadata: Metadata = { title: "Procedures and schools" };

/** How it is done here, as versions; and which school the depot follows where practitioners disagree. */
export default function Procedures() {
  const db = database();
  const versions = listProcedures(db);
  const slugs = [...new Set(versions.map(({ slug }) => slug))];
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="text-2xl">Procedures and schools</h1>
      <SchoolsPanel schools={schoolStandings(db)} />
      <h2 className="mt-4 border-b-2 border-ink text-xl">Procedures</h2>
      <p className="max-w-[55rem] py-1 text-sm text-soft">
        The shop’s own way of doing it. A reading names the version it was taken by; when a version turns out wrong and is withdrawn, the
        jobs that went by it are listed. Its own manual, the employer’s lock-out rules and local law come first.
      </p>
      <ul className="ruled">
        {slugs.map((slug) => (
          <ProcedurePanel
            key={slug}
            versions={versions.filter((one) => one.slug === slug).map((one) => ({ ...one, jobs: jobsBy(db, slug, one.version) }))}
          />
        ))}
      </ul>
      {slugs.length === 0 && <p className="py-2 text-soft">None is written down yet.</p>}
      <ProcedurePanel versions={[]} />
    </main>
  );
}
