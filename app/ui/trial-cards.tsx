/** A few treatments side by side, to be made on scraps and voted out: what is varied, and a card for each combination. */
import { mattersHere, trialCards } from "../core/plan/trials";
import type { World } from "../core/records/world";
import { route } from "../core/catalogue/routes";
import { SCHOOLS } from "../core/catalogue/schools";
import { showMinutes } from "../core/units/show";
import { ActButton, TickField } from "./kit/field";

export function TrialCards({ world, routes }: { world: World; routes: string[] }) {
  const { trialOf: of = [], trialOut = [] } = world.job.choices;
  const matters = mattersHere(world);
  const cards = trialCards(world, of, trialOut);
  const left = cards.filter((c) => !c.out).length;
  return (
    <div>
      <fieldset>
        <legend className="text-muted">What is varied</legend>
        <div className="grid grid-cols-1 gap-x-6 sm:grid-cols-2">
          {routes.map((r) => (
            <TickField
              key={r}
              name={`trial:route:${r}`}
              label={`by ${r}, ${route(r).name.toLowerCase()}`}
              value={of.includes(`route:${r}`)}
              extra={{ intent: "choice" }}
            />
          ))}
          {SCHOOLS.filter((s) => matters.includes(s.id)).flatMap((s) =>
            s.picks
              .filter((p) => p.id !== s.standard)
              .slice(0, 1)
              .map((p) => (
                <TickField
                  key={s.id}
                  name={`trial:school:${s.id}:${p.id}`}
                  label={`${s.matter.toLowerCase()}: also ${p.name.toLowerCase()}`}
                  value={of.includes(`school:${s.id}:${p.id}`)}
                  extra={{ intent: "choice" }}
                />
              )),
          )}
        </div>
      </fieldset>
      {cards.length > 0 && (
        <p className="my-2">
          {cards.length} {cards.length === 1 ? "card" : "cards"}, {left} still in. Print this page to lay one beside
          each scrap.
        </p>
      )}
      <ol className="grid gap-4 sm:grid-cols-2">
        {cards.map((c) => (
          <li
            key={c.key}
            data-trial={c.key}
            className={`border border-strong p-3 ${c.out ? "text-muted line-through" : ""}`}
          >
            <p className="font-semibold">
              Card {c.n}. {c.name}
            </p>
            <p className="tag">
              {c.minutes === null ? "minutes unknown" : `${showMinutes(c.minutes)} of work`}, {c.steps.length} steps
            </p>
            <ol className="my-1 list-decimal pl-5 text-small">
              {c.steps.map((s, i) => (
                <li key={i}>{s}</li>
              ))}
            </ol>
            <ActButton
              className="link-act"
              act={{ intent: "choice", field: `out:${c.key}`, value: String(!c.out) }}
              label={`${c.out ? "Take back in" : "Vote out"} card ${c.n}`}
            >
              {c.out ? "Take back in" : "Vote it out"}
            </ActButton>
          </li>
        ))}
      </ol>
    </div>
  );
}
