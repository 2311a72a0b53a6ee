import { Link } from "react-router";
import { GUIDE, type GuidePage } from "../views/guide";

const HEADS: [GuidePage["kind"], string, string][] = [
  ["route", "Routes", "From a bare piece to colour: each with a plan that is simulated in front of you."],
  ["school", "Where makers disagree", "Both sides, what plans do when nobody says, and why."],
  ["idea", "Worth knowing", "Beams and materials, what is filled and what is left, where the burn begins."],
  ["finish", "Paints, powders, tapes", "What each does by default; your own data sheets win."],
  ["step", "Steps", "What each is for, with what, and what to look at."],
];

export default function Guide() {
  return (
    <main id="main" data-view="guide" className="mx-auto w-full max-w-[1400px] px-5 py-5">
      <title>Field guide · Rich Layer</title>
      <h1>Field guide</h1>
      {HEADS.map(([kind, name, says]) => (
        <section key={kind} aria-labelledby={`g-${kind}`} className="mt-5">
          <h2 id={`g-${kind}`}>{name}</h2>
          <p className="text-muted">{says}</p>
          <ul className="mt-1 grid gap-x-8 sm:grid-cols-2 lg:grid-cols-3">
            {GUIDE.filter((p) => p.kind === kind).map((p) => (
              <li key={p.id} className="border-t border-line">
                <Link
                  className="flex min-h-[36px] items-center hover:underline max-lg:min-h-[44px]"
                  to={`/guide/${p.id}`}
                >
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
