/** Days on which nobody is there: picked on a small calendar, each to be taken out again. */
import { X } from "lucide-react";
import { lazy, Suspense } from "react";
import { useFetcher } from "react-router";
import { nowMinutes } from "../../clock";
import type { Outcome } from "../../core/records/outcome";
import type { Shop } from "../../core/records/shop";
import { showLocal } from "../../core/time/typed";
import { zonedClock } from "../../core/time/zoned";

const DaysSheet = lazy(() => import("../kit/days-sheet"));

export function DaysOff({ shop }: { shop: Shop }) {
  const fetcher = useFetcher<Outcome>();
  const put = (days: string[]): void =>
    void fetcher.submit(
      { intent: "set", field: "daysOff", value: [...days].sort().join(", ") },
      { method: "post", action: "/workshop" },
    );
  const today = zonedClock(shop.zone).toLocal(Math.floor(nowMinutes())).slice(0, 10);
  return (
    <section aria-label="Days off">
      <h3>Days off</h3>
      {!shop.daysOff.length && <p className="text-muted">None: every week is the same. Press a day to have it off.</p>}
      <ul className="mt-1 flex flex-wrap gap-2">
        {[...shop.daysOff].sort().map((d) => (
          <li key={d} className="flex items-center gap-1 border border-line pl-2">
            {showLocal(d)}
            <button
              type="button"
              className="btn btn-quiet"
              aria-label={`Open again on ${showLocal(d)}`}
              onClick={() => put(shop.daysOff.filter((x) => x !== d))}
            >
              <X size={16} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      {fetcher.state === "idle" && fetcher.data?.error && (
        <p role="alert" className="text-wrong">
          {fetcher.data.error}
        </p>
      )}
      <Suspense fallback={<p className="h-80 text-muted">Opening the calendar…</p>}>
        <DaysSheet days={shop.daysOff} today={today} onPick={put} />
      </Suspense>
    </section>
  );
}
