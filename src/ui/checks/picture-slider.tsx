/** A slider under a drawing. `ends`: what stands over its ends; `said`: its value in words. */
export function PictureSlider(args: {
  label: string;
  ends: readonly [string, string];
  /** Between the ends, where they do not say what is slid. */
  title?: string;
  value: number;
  least: number;
  most: number;
  step: number;
  said: string;
  onChange: (value: number) => void;
}) {
  const { label, ends, title, value } = args;
  return (
    <label className="block text-sm text-[var(--chalk)]">
      <span className="flex justify-between gap-2">
        <span>{ends[0]}</span>
        {title && <strong>{title}</strong>}
        <span className="num">{ends[1]}</span>
      </span>
      <input
        type="range"
        className="h-11 w-full accent-[var(--chalk)]"
        min={args.least}
        max={args.most}
        step={args.step}
        value={value}
        aria-label={label}
        aria-valuetext={args.said}
        onChange={(event) => args.onChange(Number(event.target.value))}
      />
    </label>
  );
}
