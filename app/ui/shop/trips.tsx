/** The way to the bench and back, visit by visit: what is done, what is laid out for it, which window shuts. */
import clsx from "clsx";
import { Link } from "react-router";
import type { Trip } from "../../core/explain/whole";

/** @param bench the first one has a press to the bench of its first step */
export function Trips({ trips, most, bench = false }: { trips: Trip[]; most?: number; bench?: boolean }) {
  const shown = most ? trips.slice(0, most) : trips;
  return (
    <ol className="divide-y divide-line border-y border-line" aria-label="Trips to the bench">
      {shown.map((t, i) => (
        <li
          key={t.id}
          data-trip={t.id}
          className="grid gap-x-6 gap-y-1 py-3 md:grid-cols-[--spacing(40)_minmax(0,1fr)]"
        >
          <div>
            {(i === 0 || shown[i - 1].day !== t.day) && <strong className="block">{t.day}</strong>}
            <span className="num">{t.span}</span>
            {bench && i === 0 && (
              <Link className="btn btn-main mt-2 table" to={`/jobs/${t.items[0].job}/bench`}>
                To the bench
              </Link>
            )}
          </div>
          <ul className="flex min-w-0 flex-col gap-1.5">
            {t.items.map((x) => (
              <li key={`${x.job}${x.step}`} className="grid grid-cols-[--spacing(4)_minmax(0,1fr)] gap-x-2">
                <span
                  className="mt-1 size-3.5 border border-ink/50"
                  style={{ background: x.colour }}
                  aria-hidden="true"
                />
                <span className="min-w-0">
                  <span className="num text-small">{x.at}</span>{" "}
                  <Link className="hover:underline" to={`/jobs/${x.job}/layers?step=${encodeURIComponent(x.step)}`}>
                    <strong>{x.title}</strong>
                  </Link>
                  , {x.jobTitle} <span className="text-muted">({x.takes})</span>
                  {x.shuts && <span className="text-waiting"> {x.shuts}</span>}
                </span>
              </li>
            ))}
            <li className={clsx("text-small text-muted", !layOut(t).length && "hidden")}>
              Lay out: {layOut(t).join(" · ")}
            </li>
          </ul>
        </li>
      ))}
    </ol>
  );
}
const layOut = (t: Trip): string[] => [...new Set(t.items.flatMap((x) => x.lay))];
