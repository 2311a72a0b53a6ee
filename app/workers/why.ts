/** Ask the worker what moves a figure most; the worker is gone with its answer, or when nobody waits for it any more. */
import type { Moved } from "../core/explain/why/moves";
import type { WhyAsk, WhyReply } from "./protocol";

/**
 * @param signal fired: the worker is ended and nothing comes back
 * @throws Error with one sentence when the worker can't be started or breaks
 */
export function moves(ask: WhyAsk, signal: AbortSignal, progress: (share: number) => void): Promise<Moved | null> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./why.worker.ts", import.meta.url), { type: "module" });
    const end = (f: () => void): void => {
      worker.terminate();
      f();
    };
    signal.addEventListener("abort", () => worker.terminate(), { once: true });
    worker.onerror = () =>
      end(() =>
        reject(
          new Error(
            "The part of the app that tries what moves a figure could not be started; reload the page and try again.",
          ),
        ),
      );
    worker.onmessage = (e: MessageEvent<WhyReply>) => {
      const r = e.data;
      if (r.is === "progress") progress(r.share);
      else if (r.is === "done") end(() => resolve(r.moved));
      else end(() => reject(new Error(r.message)));
    };
    worker.postMessage(ask);
  });
}
