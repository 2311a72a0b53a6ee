/** Ask the worker to measure a drawing; may be cancelled, and never hangs on a worker that is gone. */
import type { FoundArtwork } from "../core/vector/zones";
import type { Ask, Reply } from "./protocol";

export class Cancelled extends Error {}
let next = 1;

/** @throws Error with the reader's own sentence; Cancelled when the signal fired */
export function measureSvg(
  svg: string,
  widthMm: number | null,
  signal: AbortSignal,
  progress: (share: number) => void,
): Promise<FoundArtwork> {
  return new Promise((resolve, reject) => {
    const worker = new Worker(new URL("./zones.worker.ts", import.meta.url), { type: "module" });
    const end = (f: () => void): void => {
      worker.terminate();
      f();
    };
    if (signal.aborted) return end(() => reject(new Cancelled("cancelled")));
    signal.addEventListener("abort", () => end(() => reject(new Cancelled("cancelled"))), { once: true });
    worker.onerror = () =>
      end(() =>
        reject(
          new Error("The part of the app that measures drawings could not be started; reload the page and try again."),
        ),
      );
    worker.onmessage = (e: MessageEvent<Reply>) => {
      const r = e.data;
      if (r.is === "progress") progress(r.share);
      else if (r.is === "done") end(() => resolve(r.found));
      else end(() => reject(new Error(r.message)));
    };
    worker.postMessage({ id: next++, do: "zones", svg, widthMm } satisfies Ask);
  });
}
