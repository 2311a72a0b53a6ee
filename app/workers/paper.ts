/** Ask the worker to set a card or labels. */
import { inWorker } from "./call";
import type { PaperAsk } from "../io/export/exports";
import type { PaperApi } from "./paper-api";

/** @returns the PDF's bytes @throws Error with one sentence */
export const setPaper = (ask: PaperAsk): Promise<Uint8Array<ArrayBuffer>> =>
  inWorker<PaperApi, Uint8Array<ArrayBuffer>>({
    make: () => new Worker(new URL("./paper.worker.ts", import.meta.url), { type: "module" }),
    does: "sets paper",
    run: (api) => api.set(ask),
  });
