import { useEffect, useState } from "react";
import type { Intake } from "@/data/fleet/intake";

type Asked = { intake: Intake | undefined; isLost: boolean };

/** The sheet of the machine that was picked, asked for when it is: a page that brought three hundred would be slow on a phone. */
export function useIntake(machineId: string, startWith: Intake | undefined): Asked {
  const [found, setFound] = useState<Intake | undefined>(startWith);
  const [lostId, setLostId] = useState("");
  const isThere = found?.machineId === machineId;
  useEffect(() => {
    if (machineId === "" || isThere) return;
    let isWanted = true;
    const ask = async () => {
      try {
        const answer = await fetch(`/api/v1/machines/${encodeURIComponent(machineId)}/intake`);
        if (!answer.ok) throw new Error(String(answer.status));
        const intake = (await answer.json()) as Intake;
        if (isWanted) setFound(intake);
      } catch {
        if (isWanted) setLostId(machineId);
      }
    };
    ask();
    // With the line back it is asked for again.
    window.addEventListener("online", ask);
    return () => {
      isWanted = false;
      window.removeEventListener("online", ask);
    };
  }, [machineId, isThere]);
  return { intake: isThere ? found : undefined, isLost: !isThere && lostId === machineId && machineId !== "" };
}
