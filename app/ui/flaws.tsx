/** Flaws: what makes one by what really happened, what can still be saved, what is told next time; and which of them cost most. */
import { Link } from "react-router";
import { flawKind, type FlawId } from "../core/catalogue/flaws";
import type { FlawCount, Likely } from "../core/explain/flaws";
import { isKind, kindOf } from "../core/process/kinds";
import { flawDrawing } from "../core/practice/flaw-drawing";
import { DrawingView } from "./drawing";
import { plural, showShare } from "../core/units/show";
import { ActButton } from "./kit/field";
import { Fold } from "./kit/fold";

/** What can be done about a flaw that was noted. */
export function AfterFlaw({
  id,
  causes,
  job,
}: {
  id: FlawId;
  causes: Likely[];
  job: { id: string; substrate: string; route: string | null };
}) {
  const f = flawKind(id);
  const told = isKind(f.next.kind) ? kindOf(f.next.kind).name : f.next.kind;
  return (
    <Fold
      summary={`Why, and what can be saved: ${f.name.toLowerCase()}`}
      className=""
      inside="my-2 flex flex-col gap-2 text-small"
    >
      <div className="grid grid-cols-[--spacing(40)_minmax(0,1fr)] items-center gap-3">
        <DrawingView of={flawDrawing(id, 2, 1)} className="w-full" />
        <p className="text-muted">It looks like this: {f.looks}.</p>
      </div>
      <div>
        <strong>Likely, by what the log says happened</strong>
        <ol className="list-decimal pl-5" data-causes={id}>
          {causes.map(({ cause, share }) => (
            <li key={cause.id} data-cause={cause.id}>
              {cause.says} <span className="text-muted">{showShare(share)}</span>
            </li>
          ))}
        </ol>
      </div>
      <div>
        <strong>For this piece, the gentlest first</strong>
        <ol className="list-decimal pl-5">
          {f.rescue.map((x) => (
            <li key={x}>{x}</li>
          ))}
        </ol>
      </div>
      <p>
        <strong>Next time</strong>, at “{told}”: {f.next.say}.{" "}
        <ActButton
          action="/bench-log"
          className="link-act"
          act={{
            intent: "lesson-add",
            text: f.next.say,
            kind: f.next.kind,
            substrate: job.substrate,
            route: job.route ?? "",
            jobId: job.id,
          }}
        >
          Have it told there
        </ActButton>
      </p>
    </Fold>
  );
}

/** Which flaw costs most, and whether a lesson helped. */
export function FlawDiary({ flaws }: { flaws: FlawCount[] }) {
  return (
    <section aria-labelledby="fd" className="mt-6">
      <h2 id="fd">What went wrong most</h2>
      {!flaws.length && <p className="text-muted">No flaw is noted on any job.</p>}
      <ul>
        {flaws.map((f) => (
          <li key={f.id} data-flaw={f.id} className="border-t border-line py-2">
            <strong>{flawKind(f.id).name}</strong>: noted {f.noted === 1 ? "once" : `${f.noted} times`}
            {f.spoilt > 0 && `, ${plural(f.spoilt, "piece")} spoilt`}.{" "}
            {f.jobs.slice(0, 4).map((j, i) => (
              <span key={j.id}>
                {i > 0 && ", "}
                <Link className="text" to={`/jobs/${j.id}/wrap-up`}>
                  {j.title}
                </Link>
              </span>
            ))}
            {f.jobs.length > 4 && ` and ${f.jobs.length - 4} more`}
            {f.before && f.after && (
              <span className="block text-small text-muted">
                Before its lesson {f.before.had} of {plural(f.before.pieces, "piece")}, since then {f.after.had} of{" "}
                {plural(f.after.pieces, "piece")}.
              </span>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
