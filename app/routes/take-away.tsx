/** What a maker carries off: the work card, labels for the backs, calendar alarms, the job as a file with or without its photos. */
import { useState } from "react";
import { nowMs } from "../clock";
import { workCard } from "../core/explain/card";
import type { Plan } from "../core/plan/plan";
import type { Job } from "../core/records/job";
import { showWhen } from "../core/time/zoned";
import { fileName, jobFile, writeFile } from "../io/export/job-file";
import { readAll } from "../store/queries";
import { saveFile } from "../ui/files";
import type { Moved } from "../core/explain/why/moves";
import { setPaper } from "../workers/paper";
import { moves } from "../workers/why";

export function TakeAway({ job, plan }: { job: Job; plan: Plan }) {
  const [busy, setBusy] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const clock = plan.context.clock;
  const name = (ending: string): string =>
    fileName(`${job.client} ${job.title}`, clock.toLocal(Math.floor(nowMs() / 60000)).slice(0, 10), ending);
  const make = (what: string, run: () => Promise<void>) => async (): Promise<void> => {
    setBusy(what);
    setError(null);
    try {
      await run();
    } catch (e) {
      setError(`${(e as Error).message} Nothing was changed.`);
    }
    setBusy(null);
  };
  // Paper can't be opened to ask why, so the card says it beforehand; without an answer it is set all the same.
  const moved = (): Promise<Moved | null> =>
    moves(
      { world: plan.context.world, now: plan.now, figure: { of: "ready" } },
      new AbortController().signal,
      () => {},
    ).catch(() => null);
  const card = make("Setting the card…", async () =>
    saveFile(
      name(".work-card.pdf"),
      await setPaper({ do: "card", card: workCard(plan, Math.floor(nowMs() / 60000), await moved()), made: nowMs() }),
      "application/pdf",
    ),
  );
  const labels = make("Setting the labels…", async () =>
    saveFile(
      name(".labels.pdf"),
      await setPaper({
        do: "labels",
        sheet: {
          jobId: job.id,
          title: job.title,
          client: job.client,
          due: job.due === null ? null : showWhen(clock, clock.fromLocal(job.due)),
          pieces: job.quantity,
        },
        made: nowMs(),
      }),
      "application/pdf",
    ),
  );
  const calendar = make("Writing the calendar…", async () =>
    saveFile(name(".ics"), (await import("../io/export/ics")).writeCalendar(plan, nowMs()), "text/calendar"),
  );
  const file = (photos: boolean) =>
    make("Writing the file…", async () => {
      const all = await readAll();
      if (!all) return;
      const f = jobFile(all, job.id);
      if (photos)
        saveFile(
          name(".richlayer.zip"),
          (await (await import("../io/zip")).writeZip(f)) as Uint8Array<ArrayBuffer>,
          "application/zip",
        );
      else saveFile(name(".richlayer.json"), writeFile(f), "application/json");
    });
  return (
    <section aria-labelledby="away" className="screen-only mt-6 border-t border-line pt-3">
      <h2 id="away" className="mb-2">
        Take it away
      </h2>
      <ul className="flex flex-col gap-1.5">
        <li>
          <button type="button" className="link-act" onClick={() => void card()}>
            Work card, PDF
          </button>{" "}
          <span className="tag">every step with boxes to tick</span>
        </li>
        <li>
          <button type="button" className="link-act" onClick={() => void labels()}>
            Labels for the backs, PDF
          </button>{" "}
          <span className="tag">{job.quantity} with a QR mark</span>
        </li>
        <li>
          <button type="button" className="link-act" onClick={() => void calendar()}>
            Calendar with alarms, .ics
          </button>{" "}
          <span className="tag">saved again, it updates; it rings with this page closed</span>
        </li>
        <li>
          <button type="button" className="link-act" onClick={() => void file(false)()}>
            The job, .richlayer.json
          </button>
        </li>
        <li>
          <button type="button" className="link-act" onClick={() => void file(true)()}>
            The job with its photos, .richlayer.zip
          </button>
        </li>
        <li>
          <button type="button" className="link-act" onClick={() => window.print()}>
            Print this page
          </button>
        </li>
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
