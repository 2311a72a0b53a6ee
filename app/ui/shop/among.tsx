/** Jobs among one another, works done together, a step that was pressed: what stands beside the chart of the whole shop. */
import { useState } from "react";
import { Link } from "react-router";
import type { WholeRows as Rows } from "../../core/explain/whole";
import { showMinutes } from "../../core/units/show";
import { ActButton, TextField, TickField } from "../kit/field";
import { Fold } from "../kit/fold";
import { dayFirst } from "../kit/locale";

/** lines of a list that stand there before it is asked for whole */
const SOME = 40;
/** A list that may be very long: its beginning, and all of it at a press. @param lines that an entry takes; absent: one */
export function Long<T>({
  of,
  what,
  all = false,
  lines = () => 1,
  children,
}: {
  of: T[];
  what: string;
  all?: boolean;
  lines?: (entry: T) => number;
  children: (shown: T[]) => React.ReactNode;
}) {
  const [whole, show] = useState(false);
  let room = SOME;
  const some = of.filter((x, i) => i === 0 || (room > 0 && ((room -= lines(x)), true)));
  const rest = !whole && !all && some.length < of.length;
  return (
    <>
      {children(rest ? some : of)}
      {rest && (
        <button type="button" className="btn mt-3" onClick={() => show(true)}>
          Show all {of.length} {what}
        </button>
      )}
    </>
  );
}

/** Works of several jobs that are done as one, what that wins, and the press that has them done apart. */
export function DoneTogether({ list }: { list: Rows["together"] }) {
  if (!list.length) return null;
  return (
    <ul className="divide-y divide-line border-y border-line">
      {list.map((s) => (
        <li key={s.id} data-session={s.id} className="py-2">
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <strong>{s.name}</strong>
            <span className="text-muted">
              {s.at}, saves {s.wins}
            </span>
          </div>
          <ol className="text-small">
            {s.members.map((m) => (
              <li key={m.job} className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4">
                <span>
                  {m.name}, {m.title}, {m.pieces} {m.pieces === 1 ? "piece" : "pieces"}
                </span>
                <ActButton
                  className="link-act"
                  label={`Do it apart: ${m.title}`}
                  act={{ intent: "queue", id: m.job, field: "apart", step: m.step, value: "" }}
                >
                  Do it apart
                </ActButton>
              </li>
            ))}
          </ol>
        </li>
      ))}
    </ul>
  );
}

/** The order of the jobs: what each has to spare, what pushes it, how much it weighs, whether it is held. */
export function JobsAmong({ jobs, held }: { jobs: Rows["jobs"]; held: Rows["left"] }) {
  return (
    <ul className="divide-y divide-line border-y border-line">
      {jobs.map((j) => (
        <li key={j.id} data-among={j.id} className="skipped py-2">
          <div className="flex flex-wrap items-baseline justify-between gap-x-4">
            <strong>{j.title}</strong>
            <span className={j.slack !== null && j.slack < 0 ? "text-wrong" : "text-muted"}>
              {j.ready ?? "no ready time"}
              {j.slack !== null &&
                (j.slack < 0 ? `, ${showMinutes(-j.slack)} late` : `, ${showMinutes(j.slack)} to spare`)}
            </span>
          </div>
          {j.why && <p className="text-small">{j.why}</p>}
          <Fold
            summary={j.pins ? `Its place (${j.pins} pinned)` : "Its place"}
            className=""
            inside="my-2 flex flex-wrap items-end gap-4"
          >
            <TextField
              name="weight"
              label="Being late weighs"
              value={String(j.weight)}
              hint="1: as others; 0.1 to 10"
              extra={{ intent: "queue", id: j.id }}
              className="w-32"
            />
            <TickField name="hold" label="Held for now" value={false} extra={{ intent: "queue", id: j.id }} />
          </Fold>
        </li>
      ))}
      {held.map((l) => (
        <li key={l.job} className="flex items-center justify-between gap-4 py-2">
          <strong>{l.title}</strong>
          <ActButton act={{ intent: "queue", id: l.job, field: "hold", value: "" }}>Hold it no longer</ActButton>
        </li>
      ))}
    </ul>
  );
}

/** minutes that a press moves a step by */
const NUDGE = 30;
/** A step that was pressed in the chart: when it is, and pinned to another time. */
export function StepFold({ rows, at, onShut }: { rows: Rows; at: { job: string; step: string }; onShut: () => void }) {
  const job = rows.jobs.find((j) => j.id === at.job);
  const bar = job?.bars.find((b) => b.step === at.step);
  const trip = rows.trips
    .flatMap((t) => t.items.map((x) => ({ t, x })))
    .find(({ x }) => x.job === at.job && x.step === at.step);
  if (!job || !bar) return null;
  return (
    <section
      aria-label="The step"
      className="mt-3 flex flex-wrap items-end gap-4 border-y border-line py-3"
      data-step-open={at.step}
    >
      <p className="min-w-0 flex-1">
        <strong>{bar.title}</strong>, {job.title}
        {trip && `: ${trip.t.day}, ${trip.x.at}, ${trip.x.takes}`}
        {bar.done && ": done"}
      </p>
      {!bar.done && (
        <TextField
          name="pin"
          label="Begins at"
          value=""
          hint={bar.pinned ? "pinned; another moment moves the pin" : "pins it: fri 14:00, in 2 days"}
          extra={{ intent: "queue", id: at.job, step: at.step, dayFirst: String(dayFirst()) }}
        />
      )}
      {!bar.done && bar.apart && (
        <ActButton act={{ intent: "queue", id: at.job, field: "with", step: at.step, value: "" }}>
          May be done with other jobs again
        </ActButton>
      )}
      {!bar.done &&
        [-NUDGE, NUDGE].map((by) => (
          <ActButton
            key={by}
            act={{
              intent: "queue",
              id: at.job,
              field: "pin-at",
              value: String(Math.round(bar.from) + by),
              step: at.step,
            }}
          >
            {by < 0 ? "Half an hour sooner" : "Half an hour later"}
          </ActButton>
        ))}
      {bar.pinned && (
        <ActButton act={{ intent: "queue", id: at.job, field: "pin", value: "", step: at.step }}>
          Pin it no longer
        </ActButton>
      )}
      <Link className="btn" to={`/jobs/${at.job}/layers?step=${encodeURIComponent(at.step)}`}>
        Look at it
      </Link>
      <button type="button" className="btn" onClick={onShut}>
        Shut
      </button>
    </section>
  );
}
