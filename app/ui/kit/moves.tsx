/** What moves a figure most, found by trying: a worker makes the plan anew for each input turned both ways. */
import { useEffect, useState } from "react";
import { Link } from "react-router";
import type { Place } from "../../core/explain/why/levers";
import type { Moved } from "../../core/explain/why/moves";
import type { WhyAsk } from "../../workers/why-api";
import { moves } from "../../workers/why";

type Tried = { is: "trying"; share: number } | { is: "done"; moved: Moved | null } | { is: "failed"; why: string };

const where = (p: Place, job: string): string =>
  p.at === "shelf"
    ? `/shelf?product=${p.product}`
    : p.at === "workshop"
      ? `/workshop/${p.part}`
      : p.at === "brief" || p.at === "route"
        ? `/jobs/${job}/${p.at}`
        : `/jobs/${job}/layers?step=${p.step}`;

function useTried(ask: WhyAsk): Tried {
  const [state, setState] = useState<Tried>({ is: "trying", share: 0 });
  // Asked once, when the panel opens: a page that reads itself anew every minute does not begin again.
  const [mine] = useState(ask);
  useEffect(() => {
    const left = new AbortController();
    const on = (next: Tried): void => {
      if (!left.signal.aborted) setState(next);
    };
    moves(mine, left.signal, (share) => on({ is: "trying", share })).then(
      (moved) => on({ is: "done", moved }),
      (e: Error) => on({ is: "failed", why: e.message }),
    );
    return () => left.abort();
  }, [mine]);
  return state;
}

function headline(t: Tried): string {
  if (t.is === "failed") return t.why;
  if (t.is === "trying") return `Trying what moves it most… ${Math.round(t.share * 100)} %`;
  const first = t.moved?.moves[0];
  if (first) return `Moved most by: ${first.name[0].toLowerCase()}${first.name.slice(1)}.`;
  return t.moved?.tried
    ? `Nothing moves it: ${t.moved.tried} ${t.moved.tried === 1 ? "input" : "inputs"} tried, each as far as is likely.`
    : "Nothing to vary: it is as it was typed, logged or measured.";
}

/** The answer first, in a line; then what the panel shows; then how far each input moves it. */
export function Moves({ ask, children }: { ask: WhyAsk; children?: React.ReactNode }) {
  const tried = useTried(ask);
  const found = tried.is === "done" ? (tried.moved?.moves ?? []) : [];
  return (
    <>
      <p
        data-moves={tried.is === "done" ? found.length : undefined}
        role={tried.is === "failed" ? "alert" : "status"}
        className={tried.is === "failed" ? "text-wrong" : tried.is === "trying" ? "text-waiting" : "font-semibold"}
      >
        {headline(tried)}
      </p>
      {children}
      {tried.is === "done" && found.length > 0 && (
        <section aria-label="What moves it most" className="mt-3">
          <h4 className="font-semibold">What moves it, most first</h4>
          <ol>
            {found.map((m) => (
              <li key={m.lever} data-lever={m.lever} className="border-t border-line py-1.5">
                <p className="flex justify-between gap-3">
                  <Link className="text alone" to={where(m.place, ask.world.job.id)}>
                    {m.name}
                  </Link>
                  <span className="tag text-right">{m.from}</span>
                </p>
                <ul className="text-small">
                  {m.ends.map((e) => (
                    <li key={e.input} className="flex justify-between gap-3">
                      <span className="text-muted">{e.input}</span>
                      <span className="text-right">{e.text}</span>
                    </li>
                  ))}
                </ul>
              </li>
            ))}
          </ol>
          <p className="tag">Each tried as far as is likely for where it comes from; now {tried.moved?.now}.</p>
        </section>
      )}
    </>
  );
}
