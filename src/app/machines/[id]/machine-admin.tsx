"use client";

import type { MeterSwap } from "@/data/machine/hours";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";

const hoursIn = (text: string) => {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && value >= 0 ? value : undefined;
};

/** What a lead does to a machine as a whole: its name and site, another hour meter, out of the fleet and back. */
export function MachineAdmin(args: {
  machineId: string;
  name: string;
  site: string;
  meterHours: number | undefined;
  isRetired: boolean;
  /** The last swap of its meter that stands. */
  swap: MeterSwap | undefined;
}) {
  const { machineId, isRetired } = args;
  return (
    <details className="my-4 border-t-2 border-ink">
      <summary className="min-h-11 cursor-pointer py-2 text-xl font-semibold">Name, site, hour meter, retire</summary>
      <div className="grid gap-x-8 md:grid-cols-3">
        <Rename machineId={machineId} name={args.name} site={args.site} />
        <Swap machineId={machineId} meterHours={args.meterHours} swap={args.swap} />
        <Retire machineId={machineId} isRetired={isRetired} />
      </div>
    </details>
  );
}

const Trouble = ({ words }: { words: string }) =>
  words ? (
    <p className="trouble" role="alert">
      {words}
    </p>
  ) : null;

function Rename({ machineId, name, site }: { machineId: string; name: string; site: string }) {
  const { post, isBusy, trouble } = usePost();
  const { value, set, clear, ticket } = useDraft(`machine:${machineId}:name:${name}:${site}`, { name, site });
  return (
    <form
      onSubmit={async (event) => {
        event.preventDefault();
        if (await post(`/api/v1/machines/${machineId}/name`, value, { method: "PUT", ticket })) clear();
      }}
    >
      <TextField id="rename-name" label="Called" value={value.name} onChange={(next) => set({ ...value, name: next })} />
      <TextField id="rename-site" label="Mows at" value={value.site} onChange={(next) => set({ ...value, site: next })} />
      <Trouble words={trouble} />
      <button
        type="submit"
        className="btn"
        disabled={isBusy || value.name.trim() === "" || value.site.trim() === "" || (value.name === name && value.site === site)}
      >
        Change it
      </button>
    </form>
  );
}

function Swap({ machineId, meterHours, swap }: { machineId: string; meterHours: number | undefined; swap: MeterSwap | undefined }) {
  const { post, isBusy, trouble, issues, troubleAt } = usePost();
  const { value, set, clear, ticket } = useDraft(`machine:${machineId}:meter-swap`, {
    old: meterHours === undefined ? "" : String(meterHours),
    fresh: "0",
  });
  const [oldHours, newHours] = [hoursIn(value.old), hoursIn(value.fresh)];
  const { timeZone } = useSeat();
  const isTooFast = issues.some(({ code }) => code === "hours-run-too-fast");
  const twice = issues.find(({ code }) => code === "meter-swapped-already");
  const path = `/api/v1/machines/${machineId}/meter-swap`;
  const send = async (more: { isSure?: boolean; seenSwapId?: number } = {}) => {
    if (oldHours === undefined || newHours === undefined) return;
    if (await post(path, { oldHours, newHours, ...more }, { ticket })) clear();
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      {swap && (
        <p className="py-1 text-sm">
          Swapped at {swap.oldHours} h, the new one went in at {swap.newHours} h: {swap.who}, {dateOnly(swap.at, timeZone)}.{" "}
          <button type="button" className="btn btn-quiet" disabled={isBusy} onClick={() => post(`${path}/${swap.id}/take-back`, {})}>
            Take it back
          </button>
        </p>
      )}
      <TextField
        id="swap-old"
        label="The old meter came out at, h"
        value={value.old}
        trouble={troubleAt("oldHours")}
        onChange={(old) => set({ ...value, old })}
      />
      <TextField id="swap-new" label="The new one went in at, h" value={value.fresh} onChange={(fresh) => set({ ...value, fresh })} />
      {!troubleAt("oldHours") && <Trouble words={trouble} />}
      <button type="submit" className="btn" disabled={isBusy || oldHours === undefined || newHours === undefined}>
        Another meter was fitted
      </button>
      {isTooFast && (
        <button type="button" className="btn my-1 w-full" disabled={isBusy} onClick={() => send({ isSure: true })}>
          {value.old} h is right
        </button>
      )}
      {twice && (
        <button
          type="button"
          className="btn my-1 w-full"
          disabled={isBusy}
          onClick={() => send({ seenSwapId: Number(twice.swapId), isSure: true })}
        >
          It was swapped once more
        </button>
      )}
    </form>
  );
}

function Retire({ machineId, isRetired }: { machineId: string; isRetired: boolean }) {
  const { post, isBusy, trouble } = usePost();
  const { value, set, clear } = useDraft(`retire:${machineId}:${isRetired}`, { reason: "" });
  const { reason } = value;
  return (
    <form
      onSubmit={async (event) => {
        event.preventDefault();
        if (await post(`/api/v1/machines/${machineId}/standing`, { kind: isRetired ? "back" : "retired", reason })) clear();
      }}
    >
      <TextField
        id="retire-reason"
        label={isRetired ? "Why it comes back" : "Why it leaves the fleet"}
        value={reason}
        onChange={(text) => set({ reason: text })}
      />
      <p className="text-sm text-soft">Its book stays whole; it is in no list, no round and nothing falls due on it.</p>
      <Trouble words={trouble} />
      <button type="submit" className={`btn ${isRetired ? "" : "btn-stop"}`} disabled={isBusy || reason.trim() === ""}>
        {isRetired ? "Back into the fleet" : "Retire it"}
      </button>
    </form>
  );
}
