/** Figures of a model where a maker looks for them: rows with their origin, and a scale where there is a window. */
import type { Figures } from "../core/explain/figures";
import type { WhyAsk } from "../workers/why-api";
import { Fold } from "./kit/fold";
import { Moves } from "./kit/moves";

export function FigurePanel({ f, ask }: { f: Figures; ask: WhyAsk | null }) {
  return (
    <Fold data-figures={f.id} summary={f.title} className="border-t border-line py-1" inside="">
      {f.scale && <Scale s={f.scale} />}
      <dl className="mb-2">
        {f.rows.map((r, i) => (
          <div key={`${r.name}${i}`} className="flex justify-between gap-3 border-b border-line py-1 text-[0.93rem]">
            <dt className="text-muted">{r.name}</dt>
            <dd className="text-right">
              {r.value}
              {r.from && <span className="tag block">{r.from}</span>}
            </dd>
          </div>
        ))}
      </dl>
      {f.helps && <p className="mb-2 text-[0.93rem]">{f.helps}</p>}
      {ask && f.leads && (
        <div className="mb-2">
          <p className="text-[0.93rem] text-muted">{f.leads.name}:</p>
          <Moves ask={ask} />
        </div>
      )}
    </Fold>
  );
}

/** One line with the window hatched open, films as ticks, the setting as a mark. */
function Scale({ s }: { s: NonNullable<Figures["scale"]> }) {
  const W = 260;
  const x = (v: number): number => 6 + ((v - s.from) / Math.max(1e-9, s.to - s.from)) * (W - 12);
  const range = s.lo !== null && s.hi !== null ? `${s.lo.toFixed(2)} to ${s.hi.toFixed(2)} ${s.unit}` : null;
  const say = `${range ? `Window ${range}. ` : "No window to show. "}${s.at !== null ? `Setting ${s.at.toFixed(2)}.` : ""}`;
  return (
    <svg viewBox={`0 0 ${W} 54`} className="my-2 w-full max-w-[300px]" role="img" aria-label={say}>
      <line x1="6" x2={W - 6} y1="26" y2="26" className="stroke-strong" strokeWidth="1.5" />
      {s.lo !== null && s.hi !== null && (
        <rect x={x(s.lo)} width={Math.max(1, x(s.hi) - x(s.lo))} y="20" height="12" className="fill-ready" />
      )}
      {s.marks.map((m, i) => (
        <g key={i}>
          <line x1={x(m.at)} x2={x(m.at)} y1="16" y2="36" className="stroke-ink" strokeWidth="1" />
          <text
            x={Math.min(W - 22, x(m.at))}
            y={i % 2 ? 12 : 48}
            fontSize="11"
            textAnchor="middle"
            className="fill-ink"
          >
            {m.name}
          </text>
        </g>
      ))}
      {s.at !== null && <path d={`M${x(s.at)} 18l-5-9h10z`} className="fill-act" />}
    </svg>
  );
}
