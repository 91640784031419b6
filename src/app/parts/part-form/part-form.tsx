"use client";

import { useRouter } from "next/navigation";
import { PART_KINDS, type Part, type PartKind, partFields } from "@/core/fleet/parts";
import type { FieldSpec, SheetField } from "@/core/machine/specification";
import { Choice, TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { FieldRow } from "@/ui/sheet-field/field-row";
import { readText, writeValue } from "@/ui/sheet-field/read-text";
import { usePost } from "@/ui/use-post";
import { PART_WORDS } from "@/ui/words/parts";

type Typed = { kind: string; label: string; texts: Record<string, string>; sure: Record<string, string> };

const asField = (spec: FieldSpec): SheetField => ({ ...spec, key: spec.path.join("."), at: "part" });

/** A part as it is typed: a new one, or a new version of one that is kept. */
export function PartForm({ id, version, part }: { id?: number; version?: number; part?: Part }) {
  const { system } = useSeat();
  const router = useRouter();
  const { post, isBusy, trouble, troubleAt } = usePost();
  const first: Typed = { kind: part?.kind ?? "blade", label: part?.label ?? "", texts: {}, sure: {} };
  const { value: typed, set, clear, ticket } = useDraft<Typed>(`part:${id ?? "new"}:${version ?? 0}:${system}`, first);
  const kind = (PART_KINDS as readonly string[]).includes(typed.kind) ? (typed.kind as PartKind) : "blade";
  const { sizes, stock } = partFields(kind);
  const textOf = (field: SheetField) => typed.texts[field.key] ?? (part ? writeValue(part[field.key as keyof Part], field, system) : "");
  const read = [...sizes, ...stock]
    .map(asField)
    .map((field) => ({ field, ...readText(field, textOf(field), system, typed.sure[field.key]) }));
  const isReadable = read.every((one) => one.trouble === undefined);
  const row = (field: SheetField) => (
    <FieldRow
      key={field.key}
      field={field}
      text={textOf(field)}
      sure={typed.sure[field.key]}
      word="sheet"
      trouble={read.find((one) => one.field.key === field.key)?.trouble}
      onText={(text, sure) =>
        set({
          ...typed,
          texts: { ...typed.texts, [field.key]: text },
          sure: sure === undefined ? typed.sure : { ...typed.sure, [field.key]: sure },
        })
      }
    />
  );
  const save = async () => {
    const values = Object.fromEntries(read.flatMap(({ field, value }) => (value === undefined ? [] : [[field.key, value]])));
    const body = { part: { kind, label: typed.label, ...values } };
    const sent = await post<{ partId?: number }>(
      id === undefined ? "/api/v1/parts" : `/api/v1/parts/${id}`,
      id === undefined ? body : { ...body, basedOnVersion: version },
      { method: id === undefined ? "POST" : "PUT", ticket },
    );
    if (!sent) return;
    clear();
    router.push(`/parts/${id ?? sent.partId}`);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        save();
      }}
    >
      {id === undefined && (
        <Choice
          label="What it is"
          value={kind}
          options={PART_KINDS.map((one) => [one, PART_WORDS[one]])}
          onChange={(next) => set({ ...typed, kind: next })}
        />
      )}
      <TextField
        id="part-label"
        label="Called"
        value={typed.label}
        trouble={troubleAt("part", "label")}
        onChange={(label) => set({ ...typed, label })}
      />
      <div className="grid gap-x-8 md:grid-cols-2">
        <section aria-label="Sizes">
          <h2 className="border-b border-ink text-lg">What decides whether it fits</h2>
          {sizes.length === 0 && <p className="py-2 text-soft">Nothing of it is on a machine's sheet: it is kept by its name.</p>}
          {sizes.map(asField).map(row)}
        </section>
        <section aria-label="Stock">
          <h2 className="border-b border-ink text-lg">Buying and money</h2>
          {stock.map(asField).map(row)}
        </section>
      </div>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <button type="submit" className="btn btn-go my-2" disabled={isBusy || !isReadable || typed.label.trim() === ""}>
        {id === undefined ? "Put it on the shelf" : "Keep it as a new version"}
      </button>
    </form>
  );
}
