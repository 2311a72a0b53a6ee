/** A few treatments side by side, to be made on scraps, looked at and voted on: what is varied, and a card for each combination. */
import { useState } from "react";
import { useFetcher } from "react-router";
import { cardsOf, mattersHere, MOST_CARDS, trialCards, type TrialCard } from "../core/explain/trials";
import type { World } from "../core/records/world";
import type { Outcome } from "../core/records/outcome";
import { route } from "../core/catalogue/routes";
import { SCHOOLS } from "../core/catalogue/schools";
import { plural, showMinutes } from "../core/units/show";
import { shrinkPhoto } from "./files";
import { ActButton, TickField } from "./kit/field";

/** what the caption of a card's photo begins with */
export const TRIAL_PHOTO = "Trial card: ";
export interface CardPhoto {
  id: string;
  caption: string;
  data: string;
}

function Card({ c, photos, onPhoto }: { c: TrialCard; photos: CardPhoto[]; onPhoto: (file: File) => void }) {
  const gone = c.out || c.lost !== null;
  const { keep, drop } = c.votes;
  return (
    <li data-trial={c.key} data-lost={c.lost === null ? undefined : ""} className="border border-strong p-3">
      <p className={`font-semibold ${gone ? "text-muted line-through" : ""}`}>
        Card {c.n}. {c.name}
      </p>
      {c.lost !== null && <p className="text-small text-waiting">Not worth a scrap: {c.lost}</p>}
      <p className="tag">
        {c.minutes === null ? "minutes unknown" : `${showMinutes(c.minutes)} of work`}, {c.steps.length} steps
        {keep + drop > 0 ? `; ${keep} would keep it, ${drop} would not` : "; nobody has voted yet"}
        {!photos.length && "; no photo yet"}
      </p>
      <ol className="my-1 list-decimal pl-5 text-small">
        {c.steps.map((s, i) => (
          <li key={i}>{s}</li>
        ))}
      </ol>
      {photos.length > 0 && (
        <ul className="my-2 flex flex-wrap gap-2">
          {photos.map((p) => (
            <li key={p.id}>
              <img
                src={`data:image/jpeg;base64,${p.data}`}
                alt={`Card ${c.n} as it came out`}
                className="h-24 rounded border border-line"
              />
              <ActButton
                className="link-act"
                act={{ intent: "photo-forget", id: p.id }}
                label={`Remove photo of card ${c.n}`}
              >
                Remove
              </ActButton>
            </li>
          ))}
        </ul>
      )}
      <div className="screen-only flex flex-wrap items-center gap-x-4">
        <ActButton className="link-act" act={{ intent: "vote", key: c.key, as: "keep" }} label={`Keep card ${c.n}`}>
          Keep it
        </ActButton>
        <ActButton className="link-act" act={{ intent: "vote", key: c.key, as: "drop" }} label={`Drop card ${c.n}`}>
          Drop it
        </ActButton>
        <label className="link-act cursor-pointer">
          Photo
          <input
            type="file"
            accept="image/*"
            className="sr-only"
            aria-label={`Photo of card ${c.n}`}
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) onPhoto(file);
              e.target.value = "";
            }}
          />
        </label>
        <ActButton
          className="link-act"
          act={{ intent: "choice", field: `out:${c.key}`, value: String(!c.out) }}
          label={`${c.out ? "Take back in" : "Vote out"} card ${c.n}`}
        >
          {c.out ? "Take back in" : "Vote it out"}
        </ActButton>
        {!gone && (
          <ActButton className="link-act" act={{ intent: "winner", key: c.key }} label={`Card ${c.n} wins`}>
            It wins: the shop’s way from now on
          </ActButton>
        )}
      </div>
    </li>
  );
}

export function TrialCards({ world, routes, photos }: { world: World; routes: string[]; photos: CardPhoto[] }) {
  const { trialOf: of = [], trialOut = [], trialVotes } = world.job.choices;
  const fetcher = useFetcher<Outcome>();
  const [error, setError] = useState<string | null>(null);
  const matters = mattersHere(world);
  const cards = trialCards(world, of, trialOut);
  const all = cardsOf(world, of);
  const left = cards.filter((c) => !c.out && c.lost === null).length;
  const unseen = cards.filter((c) => !c.out && c.lost === null && c.votes.keep + c.votes.drop === 0).length;
  const photo = async (key: string, file: File): Promise<void> => {
    try {
      setError(null);
      const data = await shrinkPhoto(file);
      await fetcher.submit({ intent: "photo", step: "trial", data, caption: TRIAL_PHOTO + key }, { method: "post" });
    } catch (e) {
      setError(`“${file.name}” was not taken in: ${(e as Error).message}`);
    }
  };
  return (
    <div>
      <fieldset className="screen-only">
        <legend className="text-muted">What is varied</legend>
        <div className="grid grid-cols-1 gap-x-6 sm:grid-cols-2">
          {routes.map((r) => (
            <TickField
              key={r}
              name={`trial:route:${r}`}
              label={route(r).name}
              value={of.includes(`route:${r}`)}
              extra={{ intent: "choice" }}
            />
          ))}
          {world.machines.length > 1 &&
            world.machines.map((m) => (
              <TickField
                key={m.id}
                name={`trial:machine:${m.id}`}
                label={`with ${m.name}`}
                value={of.includes(`machine:${m.id}`)}
                extra={{ intent: "choice" }}
              />
            ))}
          {SCHOOLS.filter((s) => matters.includes(s.id)).flatMap((s) =>
            s.picks
              .filter((p) => p.id !== s.standard)
              .map((p) => (
                <TickField
                  key={`${s.id}:${p.id}`}
                  name={`trial:school:${s.id}:${p.id}`}
                  label={`${s.matter}: also ${p.name.toLowerCase()}`}
                  value={of.includes(`school:${s.id}:${p.id}`)}
                  extra={{ intent: "choice" }}
                />
              )),
          )}
        </div>
      </fieldset>
      {cards.length > 0 && (
        <p className="my-2" data-cards={cards.length} data-cards-left={left}>
          {plural(cards.length, "card")}, {left} still in{unseen > 0 && `, ${unseen} nobody has voted on`}.
          {all > MOST_CARDS && ` ${all - MOST_CARDS} more combinations are left out: vary less at once.`} Print this
          page to lay one beside each scrap.{" "}
          {(trialVotes?.length || trialOut.length > 0) && (
            <ActButton className="link-act" act={{ intent: "votes-clear" }}>
              Begin the vote anew
            </ActButton>
          )}
        </p>
      )}
      {(error ?? fetcher.data?.error) && (
        <p role="alert" className="text-wrong">
          {error ?? fetcher.data?.error}
        </p>
      )}
      <ol className="grid gap-4 sm:grid-cols-2">
        {cards.map((c) => (
          <Card
            key={c.key}
            c={c}
            photos={photos.filter((p) => p.caption === TRIAL_PHOTO + c.key)}
            onPhoto={(file) => void photo(c.key, file)}
          />
        ))}
      </ol>
    </div>
  );
}
