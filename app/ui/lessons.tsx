/** Lessons of the shop: one written down, all of them to be changed, made a rule, taken out; those told at a step, to be put away. */
import { ALL_KINDS as KINDS } from "../core/process/kinds";
import { LessonForm } from "../core/records/forms";
import type { Lesson } from "../core/records/shop";
import { substrateNamed } from "../core/catalogue/substrates";
import { route } from "../core/catalogue/routes";
import { AskButton, AskForm, AskPick, AskText } from "./kit/ask";
import { ActButton, TextField, TickField } from "./kit/field";
import { Fold } from "./kit/fold";
import { When } from "./kit/when";

const kindName = (id: string): string => KINDS.find((k) => k.id === id)?.name ?? id;

/** @param job what a lesson may be tied to; null: it is written down at no job */
export function AddLesson({
  job,
  text = "",
}: {
  job: {
    id: string;
    substrate: string;
    route: string | null;
    products: { id: string; name: string }[];
    kinds: string[];
  } | null;
  text?: string;
}) {
  const kinds = job ? KINDS.filter((k) => job.kinds.includes(k.id)) : KINDS;
  const way = job?.route
    ? [{ value: job.route, label: `only by: ${route(job.route as never).name.toLowerCase()}` }]
    : [];
  return (
    <AskForm
      form={LessonForm}
      intent="lesson-add"
      action="/bench-log"
      start={{ text, kind: kinds[0]?.id ?? "coat", substrate: "", route: "", productId: "" }}
      extra={{ jobId: job?.id ?? "" }}
    >
      <AskText name="text" label="What is to be done otherwise" className="min-w-72 flex-1" />
      <AskPick name="kind" label="Told at" options={kinds.map((k) => ({ value: k.id, label: k.name }))} />
      {job && (
        <>
          <AskPick
            name="substrate"
            label="On"
            options={[
              { value: "", label: "any material" },
              { value: job.substrate, label: `only ${substrateNamed(job.substrate).name.toLowerCase()}` },
            ]}
          />
          <AskPick name="route" label="By" options={[{ value: "", label: "any way" }, ...way]} />
          <AskPick
            name="productId"
            label="With"
            options={[
              { value: "", label: "any product" },
              ...job.products.map((p) => ({ value: p.id, label: `only ${p.name}` })),
            ]}
          />
        </>
      )}
      <AskButton>Keep this lesson</AskButton>
    </AskForm>
  );
}

const whereOf = (l: Lesson): string =>
  [
    `at “${kindName(l.kind)}”`,
    ...(l.substrate ? [`on ${substrateNamed(l.substrate).name.toLowerCase()}`] : []),
    ...(l.route ? [`by “${route(l.route).name.toLowerCase()}”`] : []),
    ...(l.productId ? ["with one product"] : []),
  ].join(", ");

export function Lessons({ lessons }: { lessons: readonly Lesson[] }) {
  return (
    <section aria-labelledby="les">
      <h2 id="les">Lessons</h2>
      <p className="text-muted">
        {lessons.length
          ? "Told at the step where they matter, on the next job that has it."
          : "None is written down yet. What a job taught is told again at the step where it matters."}
      </p>
      <ul>
        {[...lessons].reverse().map((l) => (
          <li key={l.id} data-lesson={l.id} className="border-t border-line py-2">
            <TextField
              action="/bench-log"
              name="text"
              label={`Lesson of ${l.at}`}
              hideLabel
              value={l.text}
              extra={{ intent: "lesson", id: l.id }}
            />
            <div className="flex flex-wrap items-center justify-between gap-x-4">
              <span className="text-small text-muted">
                {whereOf(l)}; <When at={l.at} />
              </span>
              <TickField
                action="/bench-log"
                name="rule"
                label="A rule: among the snags of every such plan"
                value={l.rule === true}
                extra={{ intent: "lesson", id: l.id }}
              />
              <ActButton
                action="/bench-log"
                className="link-act"
                act={{ intent: "lesson-remove", id: l.id }}
                label={`Take it out: ${l.text}`}
              >
                Take it out
              </ActButton>
            </div>
          </li>
        ))}
      </ul>
      <Fold summary="Write one down" className="">
        <AddLesson job={null} />
      </Fold>
    </section>
  );
}

/** Lessons told at a step, each to be put away for this job. */
export const ToldHere = ({ lessons, action }: { lessons: { id: string; text: string }[]; action?: string }) =>
  lessons.length === 0 ? null : (
    <ul aria-label="Learned here" className="mt-2">
      {lessons.map((l) => (
        <li key={l.id} data-told={l.id} data-words className="border-l-3 border-waiting py-1 pl-2">
          <strong>Learned here:</strong> {l.text}{" "}
          <ActButton
            action={action}
            className="link-act"
            act={{ intent: "lesson-off", id: l.id }}
            label={`Not on this job: ${l.text}`}
          >
            Not on this job
          </ActButton>
        </li>
      ))}
    </ul>
  );
