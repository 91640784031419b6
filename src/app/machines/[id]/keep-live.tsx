"use client";

import { LineLost } from "@/ui/line-lost";
import { useMachineFeed } from "@/ui/machine-feed";

/** Keeps the machine's page at what others write in any job of it, and says when the line is lost. */
export function KeepLive({ machineId }: { machineId: string }) {
  return useMachineFeed(machineId) ? null : <LineLost />;
}
