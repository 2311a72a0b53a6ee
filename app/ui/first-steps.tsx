/** A new shop's first steps: three short screens, each to be passed over, then what is still open as a list that goes away. */
import { Check, Circle } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import { NewJobForm } from "../core/records/forms";
import type { Shop } from "../core/records/shop";
import { showTemp } from "../core/units/show";
import type { FirstStep } from "../views/first-steps";
import { AddMachine } from "./forms";
import { AskForm, AskText } from "./kit/ask";
import { PickField, TextField } from "./kit/field";

const ASKED = ["machine", "shop", "job"] as const;
type Asked = (typeof ASKED)[number];
const TITLES: Record<Asked, [string, string]> = {
  machine: ["The laser", "What burns decides which ways there are, how deep a pass goes and how long it takes."],
  shop: ["The air", "Paint dries by the air it lies in: a cold or damp room makes every wait longer."],
  job: ["The first job", "Who it is for and what it is called; the rest is asked for where it is needed."],
};
/** screens passed over, kept for this browser */
const KEY = "richlayer.first-steps";
const passedBefore = (): string[] => (localStorage.getItem(KEY) ?? "").split(" ").filter(Boolean);

export default function FirstSteps({ steps, shop }: { steps: readonly FirstStep[]; shop: Shop }) {
  const [passed, setPassed] = useState(passedBefore);
  const pass = (id: string): void => {
    const next = [...passed, id];
    localStorage.setItem(KEY, next.join(" "));
    setPassed(next);
  };
  const isDone = (id: string): boolean => steps.some((s) => s.id === id && s.done);
  const now = ASKED.find((id) => !passed.includes(id) && (!isDone(id) || id === "shop"));
  if (passed.includes("all")) return null;
  return (
    <section
      aria-labelledby="first"
      className="mt-6 max-w-3xl border-t border-line pt-4"
      data-first-steps={now ?? "list"}
    >
      {now ? (
        <>
          <p className="text-muted">
            First steps, {ASKED.indexOf(now) + 1} of {ASKED.length}
          </p>
          <h2 id="first">{TITLES[now][0]}</h2>
          <p className="mb-3 text-muted">{TITLES[now][1]}</p>
          {now === "machine" && <AddMachine intent="machine-add" action="/workshop" />}
          {now === "shop" && <Air shop={shop} />}
          {now === "job" && (
            <AskForm
              form={NewJobForm}
              intent="new-job"
              action="/jobs/new"
              start={{ title: "", client: "" }}
              className="flex max-w-md flex-col gap-3"
            >
              <AskText name="title" label="What is it called?" maxLength={120} />
              <AskText name="client" label="Who is it for?" maxLength={120} />
              <button className="btn self-start">Begin the job</button>
            </AskForm>
          )}
          <p className="mt-4 flex gap-3">
            {now === "shop" && (
              <button type="button" className="btn" onClick={() => pass("shop")}>
                Next
              </button>
            )}
            <button type="button" className="btn btn-quiet" onClick={() => pass(now)}>
              Later
            </button>
          </p>
        </>
      ) : (
        <>
          <h2 id="first">First steps</h2>
          <ul className="mt-2">
            {steps.map((s) => (
              <li key={s.id} className="flex min-h-line items-center gap-2 max-lg:min-h-touch">
                {s.done ? (
                  <Check size={18} className="text-ready" aria-label="done" />
                ) : (
                  <Circle size={18} className="text-muted" aria-label="open" />
                )}
                {s.done ? (
                  s.name
                ) : (
                  <Link className="text alone" to={s.to}>
                    {s.name}
                  </Link>
                )}
              </li>
            ))}
          </ul>
          <button type="button" className="btn btn-quiet mt-2" onClick={() => pass("all")}>
            Put this list away
          </button>
        </>
      )}
    </section>
  );
}

function Air({ shop }: { shop: Shop }) {
  const constant = shop.climate.kind === "constant";
  return (
    <div className="grid max-w-xl gap-3 sm:grid-cols-3">
      <PickField
        action="/workshop"
        name="units"
        label="Units"
        value={shop.units}
        options={[
          { value: "metric", label: "mm, °C" },
          { value: "inch", label: "inch, °F" },
        ]}
      />
      {constant && (
        <>
          <TextField
            action="/workshop"
            name="c"
            label="Temperature"
            value={showTemp(shop.climate.c, shop.units)}
            from={shop.climate.measured ? undefined : "default"}
            extra={{ intent: "climate" }}
          />
          <TextField
            action="/workshop"
            name="rh"
            label="Humidity"
            value={`${Math.round(shop.climate.rh * 100)} %`}
            from={shop.climate.measured ? undefined : "default"}
            extra={{ intent: "climate" }}
          />
        </>
      )}
    </div>
  );
}
