import { changing } from "@/app/api/answer";
import { benchSettingSchema, keepBenchSetting } from "@/data/job/bench-setting";

export async function POST(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, benchSettingSchema, (db, doing, input) => keepBenchSetting(db, doing, { machineId: id, ...input }));
}
