/** The way to the bench and back, visit by visit: what is done, what is laid out for it, which window shuts. */
import { Link } from "react-router";
import type { Trip } from "../../core/explain/whole";
import type { Opened } from "../../views/opened";
import { Why } from "../kit/why";

/** What a figure of a step opens to. */
export type OpensTo = (job: string, step: string, of: "begins" | "minutes" | "shuts", title: string) => Opened;

/** @param bench the first one has a press to the bench of its first step */
export function Trips({
  trips,
  most,
  opens,
  bench = false,
}: {
  trips: Trip[];
  most?: number;
  opens: OpensTo;
  bench?: boolean;
}) {
  const shown = most ? trips.slice(0, most) : trips;
  return (
    <ol className="divide-y divide-line border-y border-line" aria-label="Trips to the bench">
      {shown.map((t, i) => (
        <li
          key={t.id}
          data-trip={t.id}
          className="skipped grid gap-x-6 gap-y-1 py-3 print:break-inside-avoid md:grid-cols-[--spacing(34)_minmax(0,1fr)]"
        >
          <div>
            {(i === 0 || shown[i - 1].day !== t.day) && <strong className="block">{t.day}</strong>}
            {bench && i === 0 && (
              <Link className="btn btn-main mt-2 w-fit" to={`/jobs/${t.items[0].job}/bench`}>
                To the bench
              </Link>
            )}
          </div>
          <ul className="flex min-w-0 flex-col gap-1.5">
            {t.items.map((x) => (
              <li key={`${x.job}${x.step}`} className="grid grid-cols-[--spacing(4)_minmax(0,1fr)] gap-x-2">
                <span
                  className="mt-1 size-3.5 border border-ink/50 print:bg-none print:!bg-transparent"
                  style={{ background: x.colour }}
                  aria-hidden="true"
                />
                <span className="min-w-0">
                  <Why quiet inline of={opens(x.job, x.step, "begins", `When “${x.title}” begins`)}>
                    <span className="num text-small">{x.at}</span>
                  </Why>{" "}
                  <Link className="hover:underline" to={`/jobs/${x.job}/layers?step=${encodeURIComponent(x.step)}`}>
                    <strong>{x.title}</strong>
                  </Link>
                  , {x.jobTitle},{" "}
                  <Why quiet inline of={opens(x.job, x.step, "minutes", `How long “${x.title}” takes`)}>
                    <span className="text-muted">{x.takes}</span>
                  </Why>
                  {x.together && (
                    <span className="block text-small text-muted" data-together>
                      {x.together}
                    </span>
                  )}
                  {x.shuts && (
                    <>
                      {" "}
                      <Why quiet inline of={opens(x.job, x.step, "shuts", `When the window of “${x.title}” shuts`)}>
                        <span className="text-waiting">{x.shuts}</span>
                      </Why>
                    </>
                  )}
                </span>
              </li>
            ))}
            {layOut(t).length > 0 && (
              <li className="text-small text-muted">
                Lay out: <span data-words>{layOut(t).join(" · ")}</span>
              </li>
            )}
          </ul>
        </li>
      ))}
    </ol>
  );
}
const layOut = (t: Trip): string[] => [...new Set(t.items.flatMap((x) => x.lay))];
