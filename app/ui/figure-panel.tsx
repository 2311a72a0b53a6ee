/** Figures of a model where a maker looks for them: rows with their origin, and a chart where there is a window. */
import { lazy, Suspense } from "react";
import type { Figures } from "../core/explain/figures";
import type { WhyAsk } from "../workers/why-api";
import { Fold } from "./kit/fold";
import { Moves } from "./kit/moves";

const WindowChart = lazy(() => import("./charts/window-chart"));

export function FigurePanel({ f, ask }: { f: Figures; ask: WhyAsk | null }) {
  return (
    <Fold data-figures={f.id} summary={f.title} className="border-t border-line py-1" inside="">
      {f.curves && (
        <Suspense fallback={<p className="h-51 text-muted">Drawing the window…</p>}>
          <WindowChart c={f.curves} />
        </Suspense>
      )}
      <dl className="mb-2">
        {f.rows.map((r, i) => (
          <div key={`${r.name}${i}`} className="flex justify-between gap-3 border-b border-line py-1 text-small">
            <dt className="text-muted">{r.name}</dt>
            <dd className="text-right">
              {r.value}
              {r.from && <span className="tag block">{r.from}</span>}
            </dd>
          </div>
        ))}
      </dl>
      {f.helps && <p className="mb-2 text-small">{f.helps}</p>}
      {ask && f.leads && (
        <div className="mb-2">
          <p className="text-small text-muted">{f.leads.name}:</p>
          <Moves ask={ask} />
        </div>
      )}
    </Fold>
  );
}
