"use client";

import { useRouter } from "next/navigation";
import { SERVICE_TASKS } from "@/core/fleet/service/tasks";
import { Choice, TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { usePost } from "@/ui/use-post";
import { taskLabel } from "@/ui/words/service";

type Listed = { id: string; fleetNumber: string; name: string; site: string; tasks: string[]; due: string[] };

/** Which task, over which machines, by which day, and whether each is looked at once more. */
export function RoundForm({ machines }: { machines: readonly Listed[] }) {
  const router = useRouter();
  const { post, isBusy, trouble, troubleAt } = usePost();
  const { value, set, clear, ticket } = useDraft("round", { what: "sharpen", title: "", byDay: "", recheck: "", picked: "" });
  const can = machines.filter(({ tasks }) => tasks.includes(value.what));
  const picked = new Set(value.picked.split(" ").filter((id) => can.some((one) => one.id === id)));
  const put = (ids: Iterable<string>) => set({ ...value, picked: [...ids].join(" ") });
  const recheckDays = value.recheck.trim() === "" ? undefined : Number(value.recheck.trim().replace(",", "."));
  const isRecheckBad = recheckDays !== undefined && !(recheckDays >= 0.5 && recheckDays <= 60);
  const save = async () => {
    const sent = await post<{ roundId: number }>(
      "/api/v1/rounds",
      {
        what: value.what,
        title: value.title.trim() || `${taskLabel(value.what)} before ${value.byDay}`,
        byDay: value.byDay,
        machines: can.filter(({ id }) => picked.has(id)).map(({ id }) => id),
        ...(recheckDays === undefined ? {} : { recheckDays }),
      },
      { ticket },
    );
    if (!sent) return;
    clear();
    router.push(`/rounds/${sent.roundId}`);
  };
  const sites = [...new Set(can.map(({ site }) => site))].sort();
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      <Choice
        label="What"
        value={value.what}
        options={SERVICE_TASKS.map(({ id, label }) => [id, label])}
        onChange={(what) => set({ ...value, what })}
      />
      <div className="grid gap-x-4 sm:grid-cols-3">
        <label className="block py-1">
          <span className="caps mb-1 block">To be through by</span>
          <input
            type="date"
            className="input"
            value={value.byDay}
            aria-invalid={troubleAt("byDay") !== undefined}
            onChange={(event) => set({ ...value, byDay: event.target.value })}
          />
          {troubleAt("byDay") && (
            <span className="trouble" role="alert">
              {troubleAt("byDay")}
            </span>
          )}
        </label>
        <TextField
          id="round-title"
          label="Called"
          value={value.title}
          onChange={(title) => set({ ...value, title })}
          placeholder="blades before the 12th"
        />
        <TextField
          id="round-recheck"
          label="Looked at again after, days"
          value={value.recheck}
          trouble={isRecheckBad ? "Half a day to sixty days, or nothing." : undefined}
          onChange={(recheck) => set({ ...value, recheck })}
        />
      </div>
      <div className="flex flex-wrap gap-1 py-1">
        <button type="button" className="btn" onClick={() => put(can.filter(({ due }) => due.includes(value.what)).map(({ id }) => id))}>
          Those that are due
        </button>
        <button type="button" className="btn" onClick={() => put(can.map(({ id }) => id))}>
          All {can.length}
        </button>
        <button type="button" className="btn" onClick={() => put([])}>
          None
        </button>
        {sites.map((site) => (
          <button
            key={site}
            type="button"
            className="btn"
            onClick={() => put(new Set([...picked, ...can.filter((one) => one.site === site).map(({ id }) => id)]))}
          >
            + {site}
          </button>
        ))}
      </div>
      <ul className="grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3" aria-label="Machines">
        {can.map(({ id, fleetNumber, name, due }) => (
          <li key={id}>
            <label className="flex min-h-11 items-center gap-3">
              <input
                type="checkbox"
                className="size-6 accent-ink"
                checked={picked.has(id)}
                onChange={(event) => put(event.target.checked ? [...picked, id] : [...picked].filter((one) => one !== id))}
              />
              <span className="num font-bold">{fleetNumber}</span> <span className="truncate text-soft">{name}</span>
              {due.includes(value.what) && <span className="text-sm font-semibold text-mark">due</span>}
            </label>
          </li>
        ))}
      </ul>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <button type="submit" className="btn btn-go my-2" disabled={isBusy || picked.size === 0 || value.byDay === "" || isRecheckBad}>
        {picked.size === 0
          ? "Pick the machines first"
          : value.byDay === ""
            ? "The day to be through by first"
            : `Begin the round of ${picked.size}`}
      </button>
    </form>
  );
}
