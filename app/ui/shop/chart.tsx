/** The whole shop over some days: what hands, machines, oven and spray corner do, and every job with its work and waits. */
import clsx from "clsx";
import { Link } from "react-router";
import type { Drawn, DrawnWait, Stretch } from "../../views/shop-calendar";

const share = (v: number): string => `${(v * 100).toFixed(3)}%`;
const NAME = "grid grid-cols-[--spacing(44)_minmax(0,1fr)] max-lg:grid-cols-[--spacing(26)_minmax(0,1fr)]";

export function Chart({ of, onStep }: { of: Stretch; onStep: (job: string, step: string) => void }) {
  return (
    <div data-chart={of.days.length}>
      <div className={`${NAME} text-small`}>
        <span />
        <div className="relative h-7 max-lg:h-11">
          {of.days.map((d) => (
            <span
              key={d.day}
              className={clsx(
                "absolute top-0 truncate border-l max-lg:px-0.5 border-line px-1",
                d.today ? "font-semibold" : "text-muted",
              )}
              style={{ left: share(d.left), width: share(d.width) }}
            >
              <span className="max-lg:hidden">{d.today ? `Today, ${d.label}` : d.label}</span>
              <span className="text-wrap lg:hidden">{d.short}</span>
            </span>
          ))}
        </div>
      </div>
      <ul aria-label="Hands and machines" className="border-t border-line">
        {of.lanes.map((l) => (
          <li key={l.id} data-lane={l.id} className={`${NAME} items-center border-b border-line`}>
            <span className="truncate py-1 pr-2 text-small font-semibold">{l.name}</span>
            <div className="relative h-8 bg-line/40" role="img" aria-label={`${l.name}: ${laneWords(l.bars)}`}>
              <Ground of={of} />
              {l.bars.map((b) => (
                <span
                  key={b.key}
                  title={`${b.job}: ${b.title}`}
                  className={clsx("absolute inset-y-1 border border-ink/50", b.done && "opacity-40")}
                  style={{ left: share(b.left), width: `max(3px, ${share(b.width)})`, background: b.colour }}
                />
              ))}
              <Now of={of} />
            </div>
          </li>
        ))}
      </ul>
      <ul aria-label="Jobs" className="mt-4 border-t border-line">
        {of.jobs.map((j) => (
          <li
            key={j.id}
            data-job={j.id}
            className={`${NAME} items-center border-b border-line [contain-intrinsic-size:auto_44px] [content-visibility:auto]`}
          >
            <span className="min-w-0 py-1 pr-2">
              <Link
                className="block truncate font-semibold hover:underline"
                to={`/jobs/${j.id}/calendar`}
                title={j.title}
              >
                {j.title}
              </Link>
              <span
                className={clsx(
                  "block truncate text-fine",
                  j.slack !== null && j.slack < 0 ? "text-wrong" : "text-muted",
                )}
              >
                {j.ready ?? "no ready time"}
              </span>
            </span>
            <div className="relative h-11">
              <Ground of={of} />
              {j.waits.map((w) => (
                <WaitBar key={w.key} of={w} />
              ))}
              {j.drawn.map((b) => (
                <button
                  key={b.key}
                  type="button"
                  title={b.title}
                  aria-label={`${j.title}: ${b.title}`}
                  onClick={() => onStep(j.id, b.step)}
                  className={clsx(
                    "absolute top-1.5 h-6 border border-ink/60",
                    b.done && "opacity-40",
                    b.pinned && "outline-2 outline-offset-1 outline-act",
                  )}
                  style={{ left: share(b.left), width: `max(5px, ${share(b.width)})`, background: j.colour }}
                />
              ))}
              {j.dueAtShare !== null && (
                <span
                  className="absolute inset-y-0 border-r-3 border-double border-wrong"
                  style={{ left: share(j.dueAtShare) }}
                  title={`due ${j.due}`}
                />
              )}
              <Now of={of} />
            </div>
          </li>
        ))}
      </ul>
      <p className="tag mt-2">
        Each job in its own paint. Hatched: waiting, with a mark where its window shuts. Nights are narrow, shut days
        grey. Double line: due. Red line: now. A bar opens its step below.
      </p>
    </div>
  );
}
const laneWords = (bars: (Drawn & { job: string })[]): string =>
  bars.length ? `${bars.length} pieces of work, ${bars[0].job} first` : "free";

function Ground({ of }: { of: Stretch }) {
  return of.days.map((d) => (
    <span
      key={d.day}
      className="absolute inset-y-0 border-l border-line bg-line/50"
      style={{ left: share(d.left), width: share(d.width) }}
    >
      {d.open && (
        <span
          className="absolute inset-y-0 bg-lifted"
          style={{ left: share((d.open.left - d.left) / d.width), width: share(d.open.width / d.width) }}
        />
      )}
    </span>
  ));
}
const Now = ({ of }: { of: Stretch }) =>
  of.now !== null && <span className="absolute -inset-y-px w-0.75 bg-wrong" style={{ left: share(of.now) }} />;

function WaitBar({ of: w }: { of: DrawnWait }) {
  return (
    <>
      <span
        className="hatch absolute top-3.5 h-2.5"
        title={w.words}
        style={{ left: share(w.left), width: share(w.width) }}
      />
      {w.shuts !== null && (
        <span
          className="absolute top-1 h-8 border-r-2 border-dashed border-waiting"
          title="its window shuts"
          style={{ left: share(w.shuts) }}
        />
      )}
    </>
  );
}
