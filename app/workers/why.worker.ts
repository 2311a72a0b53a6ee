/** Tries what moves a figure, off the main thread: each input turned both ways is a plan of its own. */
import { makePlan } from "../core/plan/plan";
import { movesInTurn } from "../core/explain/why/moves";
import type { WhyAsk, WhyReply } from "./protocol";

onmessage = (e: MessageEvent<WhyAsk>) => {
  const say = (r: WhyReply): void => postMessage(r);
  try {
    const turns = movesInTurn(makePlan(e.data.world, e.data.now, true), e.data.figure);
    for (;;) {
      const r = turns.next();
      if (r.done) return say({ is: "done", moved: r.value });
      say({ is: "progress", share: r.value });
    }
  } catch (err) {
    say({ is: "refused", message: `What moves this figure could not be worked out: ${(err as Error).message}` });
  }
};
