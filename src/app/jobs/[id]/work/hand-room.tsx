"use client";

import dynamic from "next/dynamic";
import type { ReactNode } from "react";
import { table } from "@/core/basics/tables";
import { type Assessment, checkRow } from "@/core/checks";
import type { WorkUp } from "@/core/diagnosis";
import type { Standpoint } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { labelOfCause } from "@/ui/words/diagnosis";
import type { Act } from "../act";
import type { Desk } from "../case/use-diagnosis";
import { MachineView } from "../close/machine-view";
import type { PanelId } from "../panel-id";
import { hasSheet, stateWanted } from "../steps";
import type { PanelInHand } from "../use-panel";

// Each panel comes when it is opened: the first load is what the worksheet needs.
const SafePanel = dynamic(() => import("../safe/safe-panel").then((module) => module.SafePanel));
const FixPanel = dynamic(() => import("../fix/fix-panel").then((module) => module.FixPanel));
const PutBackPanel = dynamic(() => import("../safe/put-back-panel").then((module) => module.PutBackPanel));
const HeldPanel = dynamic(() => import("../safe/held-panel").then((module) => module.HeldPanel));
const HandoverPanel = dynamic(() => import("../close/handover-panel").then((module) => module.HandoverPanel));
const CutPanel = dynamic(() => import("../close/cut-panel").then((module) => module.CutPanel));
const ClosePanel = dynamic(() => import("../close/close-panel").then((module) => module.ClosePanel));
const FormDesk = dynamic(() => import("./form-desk").then((module) => module.FormDesk), { loading: () => <DeskComing /> });
const LookPanel = dynamic(() => import("../case/look-panel").then((module) => module.LookPanel));
const CausePanel = dynamic(() => import("../case/cause-panel").then((module) => module.CausePanel));
const BringPanel = dynamic(() => import("./bring-panel").then((module) => module.BringPanel));
const DeckPanel = dynamic(() => import("./deck-panel").then((module) => module.DeckPanel));
const GuidedPanel = dynamic(() => import("./guided-panel").then((module) => module.GuidedPanel));
const RebuildPanel = dynamic(() => import("./rebuild-panel").then((module) => module.RebuildPanel));
const LinksPanel = dynamic(() => import("../case/links-panel").then((module) => module.LinksPanel));
const PhonePanel = dynamic(() => import("../close/phone-panel").then((module) => module.PhonePanel));
const ComplaintPanel = dynamic(() => import("../case/complaint-panel").then((module) => module.ComplaintPanel));

type Args = {
  view: JobView;
  now: string;
  hand: PanelInHand;
  desk: Desk;
  /** The diagnosis of what is saved. */
  settled: WorkUp | undefined;
  act: Act;
  standpoint: Standpoint;
  onStandpoint: (standpoint: Standpoint) => void;
  onLive: (live: { checkId: string; assessment: Assessment } | undefined) => void;
  timeOf: (iso: string) => string;
};

/** What is in hand: in the middle what it is about, at the right what to read, do and write down. */
export function HandRoom(args: Args) {
  const { view, hand, settled, act, standpoint, onStandpoint, timeOf } = args;
  const { panel, open, begin, beginAt } = hand;
  const row = panel.startsWith("check:") ? checkRow(panel.slice(6)) : undefined;
  return (
    <div className="contents" onInput={begin} onClickCapture={beginAt}>
      {row && hasSheet(view, row.id) ? (
        <FormDesk
          key={row.id}
          view={view}
          workUp={settled}
          row={row}
          standpoint={standpoint}
          onStandpoint={onStandpoint}
          act={act}
          open={open}
          onLive={args.onLive}
          timeOf={timeOf}
        />
      ) : (
        <>
          <MachineView view={view} standpoint={standpoint} onStandpoint={onStandpoint} timeOf={timeOf} />
          <section
            id="in-hand"
            aria-label="In hand"
            className="relative min-h-0 overflow-y-auto bg-sheet p-4 lg:border-l lg:border-rule"
            tabIndex={0}
          >
            <h2 className="text-xl">{panelTitle(panel)}</h2>
            <Panel {...args} />
          </section>
        </>
      )}
    </div>
  );
}

/** A panel by its name; none where what it needs is not there yet. */
function Panel({ view, now, hand, desk, settled, act, timeOf }: Args): ReactNode {
  const { panel, open, lastOwn, cameFrom, needs } = hand;
  const { workUp } = desk;
  const from = cameFrom?.startsWith("check:") ? checkRow(cameFrom.slice(6)) : undefined;
  if (panel.startsWith("cause:"))
    return workUp && <CausePanel view={view} workUp={workUp} causeId={panel.slice(6)} act={act} open={open} />;
  if (panel.startsWith("check:")) {
    const row = checkRow(panel.slice(6));
    return (
      row && (
        <LookPanel
          key={`${row.id} ${lastOwn("take", "undo")}`}
          view={view}
          workUp={settled}
          row={row}
          act={act}
          open={open}
          timeOf={timeOf}
        />
      )
    );
  }
  switch (panel) {
    case "complaint":
      return <ComplaintPanel view={view} now={now} act={act} open={open} />;
    case "safe":
      return <SafePanel view={view} act={act} wanted={needs ?? from?.state ?? stateWanted(view, settled)} open={open} timeOf={timeOf} />;
    case "put-back":
      return <PutBackPanel view={view} act={act} open={open} timeOf={timeOf} />;
    case "held":
      return <HeldPanel view={view} act={act} open={open} timeOf={timeOf} />;
    case "handover":
      return <HandoverPanel view={view} act={act} />;
    case "phone":
      return workUp && <PhonePanel view={view} workUp={workUp} input={desk.input} act={act} />;
    case "bring":
      return <BringPanel view={view} workUp={settled} />;
    case "deck":
      return <DeckPanel view={view} act={act} open={open} />;
    case "box":
      return <RebuildPanel view={view} act={act} open={open} />;
    case "blade":
    case "spindle":
      return <GuidedPanel view={view} act={act} open={open} round={panel} />;
    case "links":
      return workUp && <LinksPanel workUp={workUp} open={open} />;
    case "fix":
      return <FixPanel key={lastOwn("fix", "take", "undo")} view={view} workUp={settled} act={act} open={open} />;
    case "cut":
      return <CutPanel key={lastOwn("test-cut", "undo")} view={view} act={act} open={open} timeOf={timeOf} />;
    case "close":
      return <ClosePanel key={lastOwn("close", "undo")} view={view} act={act} open={open} timeOf={timeOf} />;
  }
  return null;
}

/** Keeps the places of drawing and panel while a form is fetched. */
function DeskComing() {
  return (
    <>
      <section aria-label="Drawing" className="dye min-h-0" />
      <section aria-label="In hand" className="min-h-0 bg-sheet p-4 lg:border-l lg:border-rule" aria-busy="true" />
    </>
  );
}

const TITLES: Record<string, string> = table({
  complaint: "Complaint",
  safe: "Make it safe",
  fix: "Fix",
  "put-back": "Put back",
  held: "What keeps it from running",
  handover: "Hand a part over",
  cut: "Test cut",
  close: "Close",
  phone: "Over the telephone",
  links: "What shows what",
  bring: "Tools to bring",
  deck: "Deck off and on",
  box: "Gearbox apart and together",
  blade: "Blade off and on",
  spindle: "Spindle service",
});

export function panelTitle(panel: PanelId): string {
  if (panel.startsWith("check:")) return checkRow(panel.slice(6))?.label ?? "Check";
  if (panel.startsWith("cause:")) return labelOfCause(panel.slice(6));
  return TITLES[panel] ?? "";
}
