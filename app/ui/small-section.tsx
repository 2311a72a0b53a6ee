/** A section drawn small, not to scale. */
import type { SmallSection as Section } from "../core/explain/small-section";

const [W, H] = [120, 56];

export function SmallSection({ s, label }: { s: Section; label: string }) {
  const wide = W / s.columns.length;
  return (
    <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={label} className="h-14 w-32 flex-none bg-lifted">
      {s.columns.map((c, i) => (
        <g key={i}>
          <rect x={i * wide} width={wide + 0.3} y={c.cut * H} height={H - c.cut * H} fill={s.body} />
          {c.mark && <rect x={i * wide} width={wide + 0.3} y={c.cut * H} height={H * 0.08} fill={c.mark} />}
          {c.films.map((f, k) => (
            <rect
              key={k}
              x={i * wide}
              width={wide + 0.3}
              y={f.top * H}
              height={(f.bottom - f.top) * H}
              fill={f.clear ? "var(--line)" : f.colour}
              fillOpacity={f.clear ? 0.55 : 1}
            />
          ))}
        </g>
      ))}
    </svg>
  );
}
