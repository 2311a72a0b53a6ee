/** Ask the worker what a job costs by how many are made. */
import { inWorker } from "./call";
import type { CostApi, CostAsk, CostRun } from "./cost-api";

/** @throws Error with one sentence when the worker can't be started or breaks */
export const askCost = (ask: CostAsk): Promise<CostRun> =>
  inWorker<CostApi, CostRun>({
    make: () => new Worker(new URL("./cost.worker.ts", import.meta.url), { type: "module" }),
    does: "reckons what a job costs",
    run: (api) => api.run(ask),
  });
