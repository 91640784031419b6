import type { Metadata } from "next";
import Link from "next/link";
import { database } from "@/data/connection";
import { dangersBySite, gonePlaces, hazardsOf, listSites, sitePictureId } from "@/data/site-places";
import { SitePanel } from "./site-panel";

export const metadata: Metadata = { title: "Sites" };

/** Places where something lies in wait for blades, site by site. */
export default async function Sites({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  const db = database();
  const now = new Date().toISOString();
  const sites = listSites(db);
  const asked = (await searchParams).site;
  const dangers = dangersBySite(db);
  // Nobody asked for one: the first where something lies in wait.
  const site = sites.find((one) => one === asked) ?? sites.find((one) => dangers[one]) ?? sites[0];
  const pictureId = site === undefined ? undefined : sitePictureId(db, site);
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="text-2xl">Sites</h1>
      {site === undefined && <p className="py-2 text-lg">No machine mows anywhere yet.</p>}
      <nav aria-label="Which site" className="flex flex-wrap gap-1 py-1">
        {sites.map((one) => (
          <Link
            key={one}
            href={`/sites?site=${encodeURIComponent(one)}`}
            className={`btn ${one === site ? "btn-on" : ""}`}
            aria-current={one === site ? "page" : undefined}
          >
            {one}
            {dangers[one] ? <span className="num font-bold text-mark">{dangers[one]}</span> : null}
          </Link>
        ))}
      </nav>
      {site !== undefined && (
        <SitePanel key={site} site={site} hazards={hazardsOf(db, site, now)} gone={gonePlaces(db, site)} pictureId={pictureId} />
      )}
    </main>
  );
}
