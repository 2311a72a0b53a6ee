/** Schedules off the main thread, one turn after another, so that it hears when it shall stop. */
import { solveInTurn } from "../core/schedule/solve";
import type { ScheduleAsk, ScheduleReply } from "./protocol";

let stopped = false;
const say = (r: ScheduleReply): void => postMessage(r);
const rest = (): Promise<void> => new Promise((on) => setTimeout(on, 0));

onmessage = async (e: MessageEvent<ScheduleAsk>) => {
  if (e.data.do === "stop") {
    stopped = true;
    return;
  }
  try {
    const turns = solveInTurn(e.data.problem, { now: () => performance.now() / 1000, stop: () => stopped });
    for (;;) {
      const r = turns.next();
      if (r.done) return say({ is: "done", solved: r.value });
      say({ is: "progress", progress: r.value });
      await rest();
    }
  } catch (err) {
    say({ is: "refused", message: `The schedule could not be worked out: ${(err as Error).message}` });
  }
};
