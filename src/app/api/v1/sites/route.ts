import { reading } from "@/app/api/answer";
import { gonePlaces, hazardsOf, listSites } from "@/data/machine/site-places";

export function GET(request: Request) {
  return reading(request, (db) => {
    const now = new Date().toISOString();
    return { sites: listSites(db).map((site) => ({ site, ...hazardsOf(db, site, now), gone: gonePlaces(db, site) })) };
  });
}
