/** Ask the worker for a schedule: told how far it is, cut short with the best so far, and never left hanging on a worker that is gone. */
import type { Problem } from "../core/schedule/problem";
import type { Progress, Solved } from "../core/schedule/solve";
import type { ScheduleAsk, ScheduleReply } from "./protocol";

/**
 * @param signal fired: the best schedule found by then comes back
 * @throws Error when the worker can't be started or breaks
 */
export function schedule(problem: Problem, signal: AbortSignal, progress: (p: Progress) => void): Promise<Solved> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./schedule.worker.ts", import.meta.url), { type: "module" });
    const ask = (a: ScheduleAsk): void => worker.postMessage(a);
    const end = (f: () => void): void => {
      worker.terminate();
      f();
    };
    worker.onerror = () =>
      end(() =>
        reject(new Error("The part of the app that schedules could not be started; reload the page and try again.")),
      );
    worker.onmessage = (e: MessageEvent<ScheduleReply>) => {
      const r = e.data;
      if (r.is === "progress") progress(r.progress);
      else if (r.is === "done") end(() => resolve(r.solved));
      else end(() => reject(new Error(r.message)));
    };
    ask({ do: "solve", problem });
    const stop = (): void => ask({ do: "stop" });
    if (signal.aborted) stop();
    else signal.addEventListener("abort", stop, { once: true });
  });
}
