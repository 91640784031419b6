import { useEffect, useState } from "react";
import type { ContextId, SymptomId } from "@/core/catalogue";
import { featuresOf, kindById } from "@/core/catalogue/kinds";
import type { WorkUpInput } from "@/core/diagnosis";
import type { Machine } from "@/core/machine";

/** Every context there is, so that all of them come back with their chance. */
const ALL = 60;

/** How likely each context is, given what was seen so far: the likely ones are offered first. Empty until reckoned. */
export function useLikelyContexts(args: {
  machine: Machine | undefined;
  symptoms: readonly string[];
  known: readonly string[];
}): Readonly<Record<string, number>> {
  const { machine, symptoms, known } = args;
  const [likely, setLikely] = useState<Record<string, number>>({});
  const key = JSON.stringify([machine?.kind, machine?.features, symptoms, known]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for machine, symptoms and log
  useEffect(() => {
    if (!machine || symptoms.length === 0) {
      setLikely({});
      return;
    }
    let isWanted = true;
    const given = {
      symptoms: Object.fromEntries(symptoms.map((id) => [id, "present"])) as Record<SymptomId, "present">,
      context: known as ContextId[],
      evidence: [],
    };
    const { cutsWith } = kindById(machine.kind);
    const input: WorkUpInput = {
      cutsWith,
      features: [...featuresOf(machine)],
      given,
      state: "parked",
      done: [],
      skipped: [],
      order: "information",
    };
    import("@/workers/diagnosis/client")
      .then(({ questionsInWorker }) => questionsInWorker({ input, answered: [], most: ALL }))
      .then((questions) => {
        if (isWanted) setLikely(Object.fromEntries(questions.flatMap(({ kind, id, yes }) => (kind === "context" ? [[id, yes]] : []))));
      });
    return () => {
      isWanted = false;
    };
  }, [key]);
  return likely;
}
