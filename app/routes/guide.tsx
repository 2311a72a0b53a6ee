import type { Route } from "./+types/guide";
import { Suspense } from "react";
import { Await, Link } from "react-router";
import { ROUTES } from "../core/catalogue/routes";
import { makePlan } from "../core/plan/plan";
import { guideWorld } from "../demo/guide";
import { SmallSection } from "../ui/small-section";
import { GUIDE, type GuidePage } from "../views/guide";
import { smallSection, type SmallSection as Section } from "../core/explain/small-section";

const known = new Map<string, Promise<Section | null>>();
/** One route after another, each when the page has had its turn: twenty plans are made, and nothing waits for them. */
function sections(): Map<string, Promise<Section | null>> {
  let before: Promise<unknown> = Promise.resolve();
  for (const r of ROUTES)
    if (!known.has(r.id)) {
      const mine = before
        .then(() => new Promise((on) => setTimeout(on)))
        .then(() => smallSection(makePlan(guideWorld(r.id), null, true)));
      known.set(r.id, mine);
      before = mine;
    }
  return known;
}

export function clientLoader() {
  return { sections: sections() };
}

const HEADS: [GuidePage["kind"], string, string][] = [
  ["route", "Routes", "From a bare piece to colour: each with a plan that is simulated in front of you."],
  ["school", "Where makers disagree", "Both sides, what plans do when nobody says, and why."],
  ["idea", "Worth knowing", "Beams and materials, what is filled and what is left, where the burn begins."],
  ["finish", "Paints, powders, tapes", "What each does by default; your own data sheets win."],
  ["flaw", "Flaws", "How each looks, what makes it, what can still be done, what is done otherwise next time."],
  ["step", "Steps", "What each is for, with what, and what to look at."],
];

export default function Guide({ loaderData: d }: Route.ComponentProps) {
  return (
    <main id="main" data-view="guide" className="mx-auto w-full max-w-page px-5 py-5">
      <title>Field guide · Rich Layer</title>
      <h1>Field guide</h1>
      <p className="mt-1">
        To be tried without losing a piece:{" "}
        <Link className="text" to="/practice">
          Practice
        </Link>
      </p>
      {HEADS.map(([kind, name, says]) => (
        <section key={kind} aria-labelledby={`g-${kind}`} className="mt-5">
          <h2 id={`g-${kind}`}>{name}</h2>
          <p className="text-muted">{says}</p>
          <ul className="mt-1 grid gap-x-8 sm:grid-cols-2 lg:grid-cols-3">
            {GUIDE.filter((p) => p.kind === kind).map((p) => (
              <li key={p.id} className="border-t border-line">
                <Link
                  className={
                    "flex items-center gap-3 hover:underline " +
                    (p.kind === "route" ? "min-h-19" : "min-h-9.5 max-lg:min-h-touch")
                  }
                  to={`/guide/${p.id}`}
                >
                  {p.kind === "route" && (
                    <Suspense fallback={<span className="h-14 w-32 flex-none bg-lifted" aria-hidden="true" />}>
                      <Await resolve={d.sections.get(p.id.slice("route-".length))}>
                        {(s) =>
                          s && <SmallSection s={s} label={`Section on ${s.bodyName.toLowerCase()}, not to scale`} />
                        }
                      </Await>
                    </Suspense>
                  )}
                  {p.name}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      ))}
    </main>
  );
}
