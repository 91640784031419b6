"use client";

import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { usePost } from "@/ui/use-post";

const hoursIn = (text: string) => {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && value >= 0 ? value : undefined;
};

/** What a lead does to a machine as a whole: its name and site, another hour meter, out of the fleet and back. */
export function MachineAdmin(args: { machineId: string; name: string; site: string; meterHours: number | undefined; isRetired: boolean }) {
  const { machineId, isRetired } = args;
  return (
    <details className="my-4 border-t-2 border-ink">
      <summary className="min-h-11 cursor-pointer py-2 text-xl font-semibold">Name, site, hour meter, retire</summary>
      <div className="grid gap-x-8 md:grid-cols-3">
        <Rename machineId={machineId} name={args.name} site={args.site} />
        <Swap machineId={machineId} meterHours={args.meterHours} />
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

function Swap({ machineId, meterHours }: { machineId: string; meterHours: number | undefined }) {
  const { post, isBusy, trouble, troubleAt } = usePost();
  const { value, set, clear, ticket } = useDraft(`machine:${machineId}:meter-swap`, {
    old: meterHours === undefined ? "" : String(meterHours),
    fresh: "0",
  });
  const [oldHours, newHours] = [hoursIn(value.old), hoursIn(value.fresh)];
  return (
    <form
      onSubmit={async (event) => {
        event.preventDefault();
        if (
          oldHours !== undefined &&
          newHours !== undefined &&
          (await post(`/api/v1/machines/${machineId}/meter-swap`, { oldHours, newHours }, { ticket }))
        )
          clear();
      }}
    >
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
