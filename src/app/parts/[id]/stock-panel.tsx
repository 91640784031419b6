"use client";

import type { PartMove, PartRecord } from "@/data/service/parts";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { money } from "@/ui/words/parts";

const WHY = [
  ["bought", "Bought"],
  ["fitted", "Fitted"],
  ["counted", "Counted"],
  ["thrown-out", "Thrown out"],
] as const;
type Why = (typeof WHY)[number][0];
const WHY_WORDS: Record<string, string> = Object.fromEntries(WHY.map(([id, words]) => [id, words]));

/** How many lie there, by lot, and what comes in and goes out. */
export function StockPanel(args: {
  record: PartRecord;
  moves: readonly PartMove[];
  machines: readonly { id: string; fleetNumber: string }[];
  isLow: boolean;
  stock: number;
}) {
  const { record, moves, machines } = args;
  const { part, byLot } = record;
  const { post, isBusy, trouble } = usePost();
  const { value, set, clear, ticket } = useDraft(`stock:${record.id}`, { why: "bought", count: "", lot: "", machineId: "" });
  const count = Number(value.count.trim());
  const isCount = /^\d{1,5}$/.test(value.count.trim()) && (count > 0 || value.why === "counted");
  const send = async () => {
    const lot = value.lot.trim();
    const sent = await post(
      `/api/v1/parts/${record.id}/moves`,
      {
        why: value.why,
        count,
        ...(lot ? { lot } : {}),
        ...(value.why === "fitted" && value.machineId ? { machineId: value.machineId } : {}),
      },
      { ticket },
    );
    if (sent) clear();
  };
  return (
    <section aria-label="Stock" className="py-2">
      <p className={`text-4xl font-bold ${args.isLow ? "text-mark" : ""}`}>
        <span className="num">{args.stock}</span> <span className="text-xl">in stock{args.isLow ? `, ${part.lowMark} wanted` : ""}</span>
      </p>
      <p className="text-soft">
        {[
          part.price === undefined ? "" : `${money(part.price, part.currency)} each`,
          part.supplier,
          ...byLot.map((one) => `lot ${one.lot ?? "none"}: ${one.stock}`),
        ]
          .filter(Boolean)
          .join(" · ")}
      </p>
      <Choice
        label="Write down"
        value={value.why as Why}
        options={WHY.map(([id, words]) => [id, words])}
        onChange={(why) => set({ ...value, why })}
      />
      <div className="grid grid-cols-2 gap-2">
        <label>
          <span className="caps">{value.why === "counted" ? "Lie there" : "How many"}</span>
          <input
            className="input num text-right text-lg"
            inputMode="numeric"
            value={value.count}
            aria-invalid={value.count !== "" && !isCount}
            onChange={(event) => set({ ...value, count: event.target.value })}
          />
        </label>
        <label>
          <span className="caps">Lot</span>
          <input
            className="input"
            list="lots"
            value={value.lot}
            maxLength={40}
            onChange={(event) => set({ ...value, lot: event.target.value })}
          />
        </label>
        <datalist id="lots">{byLot.map(({ lot }) => lot && <option key={lot} value={lot} />)}</datalist>
      </div>
      {value.count !== "" && !isCount && <p className="trouble">A whole number.</p>}
      {value.why === "fitted" && (
        <label className="block py-1">
          <span className="caps">On</span>
          <select className="input" value={value.machineId} onChange={(event) => set({ ...value, machineId: event.target.value })}>
            <option value="">no machine named</option>
            {machines.map(({ id, fleetNumber }) => (
              <option key={id} value={id}>
                {fleetNumber}
              </option>
            ))}
          </select>
        </label>
      )}
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <button type="button" className="btn btn-go mt-1 w-full" disabled={isBusy || !isCount} onClick={send}>
        Write it down
      </button>
      <h2 className="mt-3 border-b border-ink text-lg">Came and went</h2>
      <ul className="ruled">
        {moves.slice(0, 20).map(({ id, change, lot, why, machineId, who, at }) => (
          <li key={id} className="flex items-center gap-2 py-1">
            <span className={`num w-12 shrink-0 text-right text-lg font-bold ${change < 0 ? "" : "text-good"}`}>
              {change > 0 ? "+" : "−"}
              {Math.abs(change)}
            </span>
            <span className="grow leading-tight">
              {WHY_WORDS[why] ?? why}
              {machineId ? ` on ${machineId.toUpperCase()}` : ""}
              {lot ? `, lot ${lot}` : ""}
              <span className="block text-sm text-soft">
                {dateOnly(at)}, {who}
              </span>
            </span>
            <button
              type="button"
              className="btn btn-quiet"
              disabled={isBusy}
              onClick={() => post(`/api/v1/parts/${record.id}/moves/${id}/take-back`, {})}
            >
              Undo
            </button>
          </li>
        ))}
        {moves.length === 0 && <li className="py-1 text-soft">Nothing yet.</li>}
      </ul>
    </section>
  );
}
