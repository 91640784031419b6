import { failure, requireOwnOrigin } from "@/app/api/answer";
import { openFeed } from "@/app/api/feed";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";

export const dynamic = "force-dynamic";

/**
 * Server-sent events: `moved` each time anything is written about this machine, with the sorts of what (`log`, `hours`, `service`, `sets`, `owed`, …; `rules` and
 * `sites` are every machine's).
 */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  try {
    requireOwnOrigin(request);
    const { id } = await params;
    getMachine(database(), id);
    return openFeed({ machineId: id, signal: request.signal });
  } catch (error) {
    return failure(error);
  }
}
