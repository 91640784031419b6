"use client";

import { RadioGroup } from "radix-ui";

/** One of a few, as buttons the size of a thumb. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string;
  value: T | "";
  options: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
}) {
  return (
    <fieldset className="py-1">
      <legend className="caps mb-1">{label}</legend>
      <RadioGroup.Root value={value} onValueChange={(next) => onChange(next as T)} className="flex flex-wrap gap-1" aria-label={label}>
        {options.map(([id, words]) => (
          <RadioGroup.Item key={id} value={id} className="btn px-3 data-[state=checked]:bg-ink data-[state=checked]:text-paper">
            {words}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </fieldset>
  );
}

export function TextField({
  id,
  label,
  value,
  onChange,
  trouble,
  rows,
  ...rest
}: {
  id: string;
  label: string;
  value: string;
  onChange: (value: string) => void;
  trouble?: string | undefined;
  rows?: number;
  list?: string;
  placeholder?: string;
}) {
  const shared = {
    id,
    className: "input",
    value,
    "aria-invalid": trouble !== undefined,
    "aria-describedby": trouble ? `${id}-trouble` : undefined,
    ...rest,
  };
  return (
    <div className="py-1">
      <label htmlFor={id} className="caps mb-1 block">
        {label}
      </label>
      {rows ? (
        <textarea {...shared} rows={rows} onChange={(event) => onChange(event.target.value)} />
      ) : (
        <input {...shared} autoComplete="off" onChange={(event) => onChange(event.target.value)} />
      )}
      {trouble && (
        <p id={`${id}-trouble`} className="trouble mt-1" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
