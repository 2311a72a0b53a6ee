/** What a step is for, what goes on, what to look for, and its figures, editable in place. */
import type { StepCardData } from "../views/shown";
import { DropdownMenu } from "radix-ui";
import { Ellipsis } from "lucide-react";
import { Link, useFetcher } from "react-router";
import { ActButton, PickField, TextField, TickField } from "./kit/field";
import type { Outcome } from "../core/records/outcome";
import { Why } from "./kit/why";
import { answerWord } from "./tray";
import { FigurePanel } from "./figure-panel";
import { ToldHere } from "./lessons";
import { Fold } from "./kit/fold";

/** what a lesson begins with among the lines of work */
const TOLD = "Learned here: ";

export function StepCard({ s, plate }: { s: StepCardData; plate: React.ReactNode }) {
  const fetcher = useFetcher<Outcome>();
  const act = (more: Record<string, string>): void => void fetcher.submit({ step: s.id, ...more }, { method: "post" });
  const set = { intent: "step-set", step: s.id };
  return (
    <section aria-labelledby="step-title" className="pb-4">
      <div className="flex items-start justify-between gap-2">
        <h2 id="step-title">{s.title}</h2>
        {!s.first && (
          <DropdownMenu.Root modal={false}>
            <DropdownMenu.Trigger className="btn btn-quiet !min-h-8.5" aria-label={`Acts on ${s.title}`}>
              <Ellipsis size={18} aria-hidden="true" />
            </DropdownMenu.Trigger>
            <DropdownMenu.Content
              align="end"
              sideOffset={4}
              className="z-50 max-h-[60dvh] min-w-59 overflow-auto rounded-lg border border-strong bg-lifted p-1 shadow-xl"
            >
              {s.before && (
                <Item onSelect={() => act({ intent: "step-move", after: s.beforeThat ?? "" })}>Move one earlier</Item>
              )}
              {s.next && <Item onSelect={() => act({ intent: "step-move", after: s.next! })}>Move one later</Item>}
              <Item onSelect={() => act({ intent: "step-duplicate" })}>Duplicate</Item>
              <Item onSelect={() => act({ intent: "step-remove" })}>Remove</Item>
              <DropdownMenu.Separator className="my-1 h-px bg-line" />
              <DropdownMenu.Label className="px-3 py-1 text-small text-muted">Add behind it</DropdownMenu.Label>
              {s.kinds.map((k) => (
                <Item key={k.id} onSelect={() => act({ intent: "step-add", kind: k.id, after: s.id })}>
                  {k.name}
                </Item>
              ))}
            </DropdownMenu.Content>
          </DropdownMenu.Root>
        )}
      </div>
      <p className="text-muted">
        <Why of={s.time.why}>{s.time.text}</Why> · {s.place}
        {s.begins && (
          <>
            ,{" "}
            <Why quiet inline of={s.begins.why}>
              {s.begins.text}
            </Why>
          </>
        )}
      </p>
      {s.first && (
        <p className="text-waiting">
          This piece goes through it alone. What you change here is changed of the batch’s own step.
        </p>
      )}
      {s.blocked && <p className="text-wrong">No time for it yet: {s.blocked}.</p>}
      {fetcher.data?.error && (
        <p role="alert" className="text-wrong">
          {fetcher.data.error}
        </p>
      )}
      <dl className="mt-2 grid grid-cols-[--spacing(20)_1fr] gap-x-2 gap-y-1.5">
        <dt className="text-muted">For</dt>
        <dd data-words>{s.purpose}</dd>
        {s.load && (
          <>
            <dt className="text-muted">Load</dt>
            <dd>
              <Why of={s.load.why}>{s.load.text}</Why>
            </dd>
          </>
        )}
        {s.laser && (
          <>
            <dt className="text-muted">Setting</dt>
            <dd>
              <Why of={s.laser.why}>{s.laser.text}</Why> <span className="tag">{s.laser.from}</span>
            </dd>
          </>
        )}
        {s.depth && (
          <>
            <dt className="text-muted">Level</dt>
            <dd>
              <Why of={s.depth.why}>{s.depth.text}</Why>
            </dd>
          </>
        )}
        <dt className="text-muted">With</dt>
        <dd data-words>{s.tool}</dd>
        <dt className="text-muted">Work</dt>
        <dd data-words>{s.cues.filter((x) => !x.startsWith(TOLD)).join(". ")}.</dd>
        <dt className="text-muted">Look for</dt>
        <dd data-words>
          {s.lookFor.look}: {s.lookFor.how}.{" "}
          <span className="text-muted">
            Against:{" "}
            {s.lookWhy ? (
              <Why quiet inline of={s.lookWhy}>
                {s.lookFor.against}
              </Why>
            ) : (
              s.lookFor.against
            )}
            .
          </span>
          {s.answer && <strong> Answered at the bench: {answerWord(s.answer).toLowerCase()}.</strong>}
        </dd>
        {s.latest && (
          <>
            <dt className="text-muted">Start by</dt>
            <dd>
              <Why of={s.latest.why}>{s.latest.text}</Why>
            </dd>
          </>
        )}
        {s.then && (
          <>
            <dt className="text-muted">Then</dt>
            <dd>
              <Why of={s.then.why}>{s.then.text}</Why>
            </dd>
          </>
        )}
      </dl>
      <ToldHere lessons={s.lessons} />
      {s.figures.map((f) => (
        <FigurePanel key={f.id} f={f} ask={f.ask} />
      ))}
      {plate}
      {s.guide.length > 0 && (
        <p data-words className="mt-2 text-small">
          Field guide:{" "}
          {s.guide.map((g, i) => (
            <span key={g.to}>
              {i > 0 && ", "}
              <Link className="text" to={g.to}>
                {g.name}
              </Link>
            </span>
          ))}
        </p>
      )}
      {s.practice.length > 0 && (
        <p data-words className="mt-1 text-small">
          Practice:{" "}
          {s.practice.map((x, i) => (
            <span key={x.id}>
              {i > 0 && ", "}
              <Link className="text" to={`/practice/${x.id}`}>
                {x.name}
              </Link>
            </span>
          ))}
        </p>
      )}
      <Fold summary="Change this step" className="mt-3">
        <div className="mt-2 flex flex-col gap-2.5">
          {s.product && (
            <PickField
              name="productId"
              label="Product"
              value={s.product.value}
              options={s.product.options}
              extra={set}
            />
          )}
          {s.mask && <PickField name="maskId" label="Mask" value={s.mask.value} options={s.mask.options} extra={set} />}
          {s.method !== null && (
            <PickField
              name="method"
              label="Melted with"
              value={s.method}
              extra={set}
              options={[
                ["gun", "heat gun"],
                ["oven", "oven"],
                ["laser", "the laser, out of focus"],
              ].map(([value, label]) => ({ value, label }))}
            />
          )}
          {s.role !== null && (
            <PickField
              name="role"
              label="Purpose"
              value={s.role}
              extra={set}
              options={[
                ["seal", "sealer"],
                ["white", "white"],
                ["colour", "colour"],
                ["top", "dark top"],
                ["clear", "clear coat"],
                ["barrier", "barrier"],
                ["touch-up", "touch-up"],
                ["backing", "backing"],
              ].map(([value, label]) => ({ value, label }))}
            />
          )}
          <div className="grid grid-cols-2 gap-2.5">
            {s.fields.map((f) => (
              <TextField
                key={f.name}
                name={f.name}
                label={f.unit ? `${f.label}, ${f.unit}` : f.label}
                value={f.value}
                from={f.from}
                extra={set}
              />
            ))}
          </div>
          {s.zones.length > 0 && (
            <fieldset>
              <legend className="text-small text-muted">Where</legend>
              {s.zones.map((z) => (
                <ActButton
                  key={z.id}
                  pressed={z.on}
                  className={`btn mr-1.5 mt-1 ${z.on ? "!border-act underline decoration-2 underline-offset-4" : "!text-muted"}`}
                  act={{
                    ...set,
                    field: "zones",
                    value: s.zones
                      .filter((x) => (x.id === z.id ? !z.on : x.on))
                      .map((x) => x.id)
                      .join(","),
                  }}
                >
                  {z.name}
                </ActButton>
              ))}
            </fieldset>
          )}
          {s.canWarmed !== null && (
            <TickField name="canWarmed" label="Can warmed in hand-warm water" value={s.canWarmed} extra={set} />
          )}
          {s.byLoad !== null && (
            <TickField name="byLoad" label="Load by load, over several days" value={s.byLoad} extra={set} />
          )}
          <p className="tag">Empty a field to go back to the plan’s own figure.</p>
        </div>
      </Fold>
    </section>
  );
}

const Item = ({ onSelect, children }: { onSelect(): void; children: React.ReactNode }) => (
  <DropdownMenu.Item
    onSelect={onSelect}
    className={
      "min-h-line cursor-pointer rounded px-3 py-1.5 outline-none data-[highlighted]:bg-act data-[highlighted]:text-on-act " +
      "max-lg:min-h-touch"
    }
  >
    {children}
  </DropdownMenu.Item>
);
