/** What a maker carries off: whatever a job can be exported as, and the page itself. */
import { useState } from "react";
import { nowMs } from "../clock";
import type { Plan } from "../core/plan/plan";
import { type ExportAsk, JOB_EXPORTS, type JobExport } from "../io/export/exports";
import { fileName } from "../io/export/job-file";
import { readAll } from "../store/queries";
import { saveFile } from "../ui/files";
import { setPaper } from "../workers/paper";
import { moves } from "../workers/why";

const askOf = (plan: Plan, made: number): ExportAsk => ({
  plan,
  made,
  paper: setPaper,
  records: async () => {
    const all = await readAll();
    if (!all) throw new Error("There is no shop here any more.");
    return all;
  },
  moved: () => {
    const ask = { world: plan.context.world, now: plan.now, figure: { of: "ready" as const } };
    return moves(ask, new AbortController().signal, () => {}).catch(() => null);
  },
});

/** @param only the exports that are offered, by id; absent: all but papers for who ordered it, and printing */
export function TakeAway({ plan, only, title = "Take it away" }: { plan: Plan; only?: string[]; title?: string }) {
  const { clock, job } = plan.context;
  const [busy, setBusy] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const take = async (x: JobExport): Promise<void> => {
    setBusy(x.busy);
    setError(null);
    try {
      const made = nowMs();
      const content = await x.write(askOf(plan, made));
      const day = clock.toLocal(Math.floor(made / 60000)).slice(0, 10);
      saveFile(fileName(`${job.client} ${job.title}`, day, x.ending), content, x.type);
    } catch (e) {
      setError(`${(e as Error).message} Nothing was changed.`);
    }
    setBusy(null);
  };
  return (
    <section aria-labelledby="away" className="screen-only mt-6 border-t border-line pt-3">
      <h2 id="away" className="mb-2">
        {title}
      </h2>
      <ul className="flex flex-col gap-1.5">
        {JOB_EXPORTS.filter((x) => (only ? only.includes(x.id) : !x.letter) && (x.for?.(job) ?? true)).map((x) => (
          <li key={x.id} data-export={x.id}>
            <button type="button" className="link-act" onClick={() => void take(x)}>
              {x.name}
            </button>{" "}
            {x.tells && <span className="tag">{x.tells(job)}</span>}
          </li>
        ))}
        {!only && (
          <li>
            <button type="button" className="link-act" onClick={() => window.print()}>
              Print this page
            </button>
          </li>
        )}
      </ul>
      {busy && (
        <p role="status" className="text-waiting">
          {busy}
        </p>
      )}
      {error && (
        <p role="alert" className="text-wrong">
          {error}
        </p>
      )}
    </section>
  );
}
