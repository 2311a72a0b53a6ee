/** Something that the core draws: shapes in a box. */
import { useId } from "react";
import type { Drawing } from "../core/practice/exercise";

export function DrawingView({ of: p, className }: { of: Drawing; className?: string }) {
  const id = useId();
  const blurs = [...new Set(p.shapes.flatMap((s) => (s.blur ? [s.blur] : [])))];
  return (
    <svg
      role="img"
      aria-label={p.label}
      viewBox={`0 0 ${p.w} ${p.h}`}
      className={className ?? "max-h-72 w-full"}
      preserveAspectRatio="xMidYMid meet"
    >
      <defs>
        {blurs.map((b) => (
          <filter key={b} id={`${id}b${String(b).replace(".", "-")}`} x="-50%" y="-50%" width="200%" height="200%">
            <feGaussianBlur stdDeviation={b} />
          </filter>
        ))}
        <clipPath id={`${id}c`}>
          <rect width={p.w} height={p.h} />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}c)`}>
        {p.shapes.map((s, i) => (
          <path
            key={i}
            d={s.d}
            fill={s.fill}
            stroke={s.stroke}
            strokeWidth={s.line}
            opacity={s.opacity}
            filter={s.blur ? `url(#${id}b${String(s.blur).replace(".", "-")})` : undefined}
          />
        ))}
      </g>
    </svg>
  );
}
