import type { Metadata } from "next";
import Link from "next/link";
import { redirect } from "next/navigation";
import { dangersBySite, gonePlaces, hazardsOf, listSites, sitePictureId } from "@/data/machine/site-places";
import { database } from "@/data/open";
import { SitePanel } from "./site-panel";

export const metadata: Metadata = { title: "Sites" };

/** Places where something lies in wait for blades, site by site. */
export default async function Sites({ searchParams }: { searchParams: Promise<{ site?: string }> }) {
  const db = database();
  const now = new Date().toISOString();
  const sites = listSites(db);
  const asked = (await searchParams).site;
  const dangers = dangersBySite(db);
  const site = sites.find((one) => one === asked);
  // Nobody asked for one: the first where something lies in wait. In the address it stays the one in hand when its last danger is gone.
  const first = sites.find((one) => dangers.get(one)) ?? sites[0];
  if (site === undefined && first !== undefined) redirect(`/sites?site=${encodeURIComponent(first)}`);
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
            {dangers.get(one) ? <span className={`num font-bold ${one === site ? "" : "text-mark"}`}>{dangers.get(one)}</span> : null}
          </Link>
        ))}
      </nav>
      {site !== undefined && (
        <SitePanel key={site} site={site} hazards={hazardsOf(db, site, now)} gone={gonePlaces(db, site)} pictureId={pictureId} />
      )}
    </main>
  );
}
