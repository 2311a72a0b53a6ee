/** A file for the laser as it will be: the bed with what lies on it, lines as they are run, areas as they are filled. */
import type { Sheet } from "../../io/export/vectors";

const d = (p: { points: [number, number][]; closed: boolean }): string =>
  `M${p.points.map(([x, y]) => `${x.toFixed(2)} ${y.toFixed(2)}`).join("L")}${p.closed ? "Z" : ""}`;
/** share of the longer side that a line is drawn wide */
const LINE = 0.0022;

/** @param lit layer that stands out; null: none */
export function SheetView({ sheet, lit, label }: { sheet: Sheet; lit: string | null; label: string }) {
  const line = Math.max(sheet.w, sheet.h) * LINE;
  return (
    <svg
      role="img"
      aria-label={label}
      viewBox={`${-line} ${-line} ${sheet.w + 2 * line} ${sheet.h + 2 * line}`}
      className="max-h-[min(52vh,--spacing(110))] w-full border border-strong bg-lifted"
      preserveAspectRatio="xMidYMid meet"
    >
      <rect width={sheet.w} height={sheet.h} fill="none" stroke="var(--strong-line)" strokeWidth={line} />
      {sheet.layers.map(({ layer, paths }) => {
        const on = lit === layer.id;
        const ink = on ? "var(--act)" : layer.purpose === "frame" ? "var(--strong-line)" : "var(--ink)";
        return (
          <g key={layer.id} data-layer-of={layer.purpose}>
            {layer.how === "fill" ? (
              <path d={paths.map(d).join("")} fill={ink} fillOpacity={on ? 1 : 0.55} fillRule="evenodd" />
            ) : (
              <path
                d={paths.map(d).join("")}
                fill="none"
                stroke={ink}
                strokeWidth={on ? 2 * line : line}
                strokeDasharray={layer.purpose === "frame" ? `${4 * line} ${3 * line}` : undefined}
              />
            )}
          </g>
        );
      })}
    </svg>
  );
}
