/** Ask the worker to lay the whole shop; what it finds is there for whoever listens, the best so far while it searches. */
import type { WholeRows } from "../core/explain/whole";
import type { Asked, WhatIf } from "../core/plan/promise";
import type { Progress } from "../core/schedule/solve";
import { Cancelled, inWorker, Stays } from "./call";
import type { PromiseRows, ShopApi, ShopAsk } from "./shop-api";

export type { PromiseRows };
export interface ShopSoFar {
  rows: WholeRows | null;
  /** what the search knows by now; null: it is over */
  searching: Progress | null;
  done: boolean;
  error: string | null;
}
export interface ShopRun {
  subscribe(heard: () => void): () => void;
  get(): ShopSoFar;
  /** ends the search with the best so far */
  stop(): void;
}

const make = (): Worker => new Worker(new URL("./shop.worker.ts", import.meta.url), { type: "module" });
const DOES = "lays the whole shop";
/** it knows the jobs as they were: laid again, only what has changed is worked out */
const stays = new Stays<ShopApi>();
/** a shop is laid anew for a moment so much later, min */
const STALE_MIN = 5;
/** the newest run: the same wish is it */
let newest: { key: string; run: ShopRun; left: AbortController } | null = null;

/** @param stamp another one whenever anything that a plan may read has been stored */
export function startShop(ask: ShopAsk, stamp: string): ShopRun {
  const key = JSON.stringify([stamp, Math.floor(ask.now / STALE_MIN), ask.seconds, ask.anew]);
  if (newest?.key === key && newest.run.get().error === null) return newest.run;
  newest?.left.abort();
  const left = new AbortController();
  const heard = new Set<() => void>();
  let soFar: ShopSoFar = { rows: newest?.run.get().rows ?? null, searching: null, done: false, error: null };
  let stop = (): void => undefined;
  const start = performance.now();
  let heardSoon: ReturnType<typeof setTimeout> | undefined;
  const tell = (next: Partial<ShopSoFar>): void => {
    if (next.rows) performance.measure(next.done ? "shop laid" : "shop found", { start });
    soFar = { ...soFar, ...next };
    // drawn in a turn of its own: what came over is large
    if (!heardSoon) heardSoon = setTimeout(() => ((heardSoon = undefined), heard.forEach((f) => f())));
  };
  inWorker<ShopApi, WholeRows>({
    make,
    does: DOES,
    signal: left.signal,
    stays,
    run: (api, hears) => {
      stop = () => void api.stop();
      return api.lay(
        ask,
        hears((searching: Progress) => tell({ searching })),
        hears((rows: WholeRows) => tell({ rows })),
      );
    },
  }).then(
    (rows) => tell({ rows, searching: null, done: true }),
    (e: Error) => e instanceof Cancelled || tell({ searching: null, done: true, error: e.message }),
  );
  const run: ShopRun = {
    get: () => soFar,
    subscribe: (f) => {
      heard.add(f);
      return () => heard.delete(f);
    },
    stop: () => stop(),
  };
  newest = { key, run, left };
  return run;
}

/** What may be promised for a further order. @throws Error with one sentence; Cancelled when the signal fired */
export const askPromise = (
  ask: Pick<ShopAsk, "worlds" | "now">,
  asked: Asked,
  local: string,
  signal: AbortSignal,
): Promise<PromiseRows> =>
  inWorker<ShopApi, PromiseRows>({ make, does: DOES, signal, run: (api) => api.promise(ask, asked, local) });

/** What would help. @param found told of each as it is reckoned */
export const askWhatIf = (
  ask: Pick<ShopAsk, "worlds" | "now">,
  found: (row: WhatIf) => void,
  signal: AbortSignal,
): Promise<WhatIf[]> =>
  inWorker<ShopApi, WhatIf[]>({ make, does: DOES, signal, run: (api, hears) => api.whatIf(ask, hears(found)) });
