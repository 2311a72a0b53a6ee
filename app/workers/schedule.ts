/** Ask the worker for a schedule: told how far it is, cut short with the best so far. */
import type { Problem } from "../core/schedule/problem";
import type { Progress, Solved } from "../core/schedule/solve";
import { inWorker } from "./call";
import type { ScheduleApi } from "./schedule-api";

/**
 * @param signal fired: the best schedule found by then comes back
 * @throws Error when the worker can't be started or breaks
 */
export const schedule = (problem: Problem, signal: AbortSignal, progress: (p: Progress) => void): Promise<Solved> =>
  inWorker<ScheduleApi, Solved>({
    make: () => new Worker(new URL("./schedule.worker.ts", import.meta.url), { type: "module" }),
    does: "schedules",
    run: (api, heard) => {
      const stop = (): void => void api.stop();
      if (signal.aborted) stop();
      else signal.addEventListener("abort", stop, { once: true });
      return api.solve(problem, heard(progress));
    },
  });
