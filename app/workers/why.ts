/** Ask the worker what moves a figure most. */
import type { Moved } from "../core/explain/why/moves";
import { inWorker } from "./call";
import type { WhyApi, WhyAsk } from "./why-api";

/** @throws Error with one sentence when the worker can't be started or breaks; Cancelled when nobody waits for it any more */
export const moves = (ask: WhyAsk, signal: AbortSignal, progress: (share: number) => void): Promise<Moved | null> =>
  inWorker<WhyApi, Moved | null>({
    make: () => new Worker(new URL("./why.worker.ts", import.meta.url), { type: "module" }),
    does: "tries what moves a figure",
    signal,
    run: (api, heard) => api.moves(ask, heard(progress)),
  });
