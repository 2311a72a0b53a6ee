import type { Route } from "./+types/practice";
import { Link } from "react-router";
import { EXERCISES } from "../core/practice";
import { readShop } from "../store/queries";
import { showShare } from "../core/units/show";

export async function clientLoader() {
  const base = await readShop();
  return { practised: base?.shop.practised ?? [] };
}

export default function Practice({ loaderData: d }: Route.ComponentProps) {
  const done = new Map(d.practised.map((p) => [`${p.exercise} ${p.level}`, p]));
  return (
    <main id="main" data-view="practice" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Practice · Rich Layer</title>
      <h1>Practice</h1>
      <p className="text-muted">
        Each exercise is reckoned by the same models as a plan. It takes its time from nobody; what went wrong is said,
        with where and why, and no piece is lost.
      </p>
      <ul className="mt-3 border-b border-line">
        {EXERCISES.map((e) => (
          <li
            key={e.id}
            data-exercise={e.id}
            className="grid gap-x-6 border-t border-line py-3 md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]"
          >
            <div>
              <h2 className="text-lead">
                <Link className="text" to={`/practice/${e.id}?level=1`}>
                  {e.name}
                </Link>
              </h2>
              <p>{e.about}</p>
            </div>
            <ul className="flex flex-wrap items-center gap-x-5">
              {Array.from({ length: e.levels }, (_v, i) => i + 1).map((level) => {
                const p = done.get(`${e.id} ${level}`);
                return (
                  <li key={level} data-level-of={level}>
                    <Link
                      className="text alone"
                      to={`/practice/${e.id}?level=${level}`}
                      aria-label={`${e.name}, level ${level}`}
                    >
                      Level {level}
                    </Link>{" "}
                    <span className="tag">
                      {p ? `${p.good} of ${p.tries} good, best ${showShare(p.best)}` : "not tried"}
                    </span>
                  </li>
                );
              })}
            </ul>
          </li>
        ))}
      </ul>
    </main>
  );
}
