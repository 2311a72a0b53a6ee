/** Ask the worker to plan all ways of a job; they are there one by one, for whoever listens. */
import type { Way } from "../core/explain/ways";
import { Cancelled, inWorker } from "./call";
import type { WaysApi, WaysAsk } from "./ways-api";

export interface WaysSoFar {
  ways: readonly Way[];
  /** all of them are planned anew */
  done: boolean;
  /** a sentence where planning broke off */
  error: string | null;
}
export interface WaysRun {
  subscribe(heard: () => void): () => void;
  get(): WaysSoFar;
}

/** the newest run: another one of the same job begins with what it found, one of the same world is it */
let newest: { key: string; job: string; run: WaysRun; stop: AbortController } | null = null;
/** a plan is made anew for a moment so much later, min */
const STALE_MIN = 30;

const keyOf = ({ world, now }: WaysAsk): string =>
  JSON.stringify([
    now === null ? null : Math.floor(now / STALE_MIN),
    { ...world, job: { ...world.job, artwork: world.job.artwork && { ...world.job.artwork, svg: "" } } },
  ]);

/** Ways of a job, planned from now on. What was asked before and is not done is left. */
export function startWays(ask: WaysAsk): WaysRun {
  const key = keyOf(ask);
  if (newest?.key === key && newest.run.get().error === null) return newest.run;
  const before = newest?.job === ask.world.job.id ? newest.run.get().ways : [];
  newest?.stop.abort();
  const stop = new AbortController();
  const heard = new Set<() => void>();
  let soFar: WaysSoFar = { ways: before, done: false, error: null };
  const tell = (next: WaysSoFar): void => {
    soFar = next;
    heard.forEach((f) => f());
  };
  const fresh: Way[] = [];
  inWorker<WaysApi, Way[]>({
    make: () => new Worker(new URL("./ways.worker.ts", import.meta.url), { type: "module" }),
    does: "plans the ways of a job",
    signal: stop.signal,
    run: (api, hears) =>
      api.ways(
        ask,
        hears((way: Way) => {
          fresh.push(way);
          const old = soFar.ways.filter((w) => !fresh.some((f) => f.id === w.id));
          tell({ ...soFar, ways: [...fresh, ...old] });
        }),
      ),
  }).then(
    (ways) => tell({ ways, done: true, error: null }),
    (e: Error) => e instanceof Cancelled || tell({ ...soFar, done: true, error: e.message }),
  );
  const run: WaysRun = {
    get: () => soFar,
    subscribe: (f) => {
      heard.add(f);
      return () => heard.delete(f);
    },
  };
  newest = { key, job: ask.world.job.id, run, stop };
  return run;
}
