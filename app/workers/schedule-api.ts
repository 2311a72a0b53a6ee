/** What the worker that schedules does, one turn after another, so that it hears when it shall stop. */
import type { Problem } from "../core/schedule/problem";
import { solveInTurn, type Progress, type Solved } from "../core/schedule/solve";

const rest = (): Promise<void> => new Promise((on) => setTimeout(on, 0));

export function scheduleApi() {
  let stopped = false;
  return {
    /** the best schedule found by now comes back from {@link solve} */
    stop(): void {
      stopped = true;
    },
    async solve(problem: Problem, progress: (p: Progress) => void): Promise<Solved> {
      try {
        const turns = solveInTurn(problem, { now: () => performance.now() / 1000, stop: () => stopped });
        for (;;) {
          const r = turns.next();
          if (r.done) return r.value;
          progress(r.value);
          await rest();
        }
      } catch (e) {
        throw new Error(`The schedule could not be worked out: ${(e as Error).message}`, { cause: e });
      }
    },
  };
}
export type ScheduleApi = ReturnType<typeof scheduleApi>;
