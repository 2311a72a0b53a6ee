/** Where a part of the picture lies: from left and top, width and height, in per cent of it. */
const NAMES = { x: "From left, %", y: "From top, %", w: "Wide, %", h: "High, %" } as const;
export const PART = ["x", "y", "w", "h"] as const;

export function PartFields({ start }: { start: readonly number[] }) {
  return PART.map((k, i) => (
    <label key={k} className="flex flex-col gap-0.5 text-small text-muted">
      {NAMES[k]}
      <input name={k} className="field-in text-ink" inputMode="decimal" defaultValue={start[i]} />
    </label>
  ));
}
