"use client";

export function FigureInput({
  id,
  label,
  unit,
  value,
  trouble,
  onChange,
}: {
  id: string;
  label: string;
  unit: string;
  value: string;
  trouble?: string | undefined;
  onChange: (text: string) => void;
}) {
  return (
    <div className="py-0.5">
      <div className="grid grid-cols-[1fr_9rem] items-center gap-2">
        <label htmlFor={id}>{label}</label>
        <div className="relative">
          <input
            id={id}
            className="input num pr-12 text-right"
            value={value}
            autoComplete="off"
            aria-invalid={trouble !== undefined}
            aria-describedby={trouble ? `${id}-trouble` : undefined}
            onChange={(event) => onChange(event.target.value)}
          />
          <span className="pointer-events-none absolute inset-y-0 right-2 flex items-center text-sm text-soft">{unit}</span>
        </div>
      </div>
      {trouble && (
        <p id={`${id}-trouble`} className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </div>
  );
}
