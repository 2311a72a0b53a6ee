/** A tap at the bench: an entry of its own, stored before anything on screen changes; and paint counted off the can. */
import { air, airAtMoment } from "../../core/models/drying/climate";
import { lotFor } from "../../core/explain/cost";
import { onShelf } from "../../core/plan/amounts";
import { keptWith } from "../../core/plan/begun";
import { unkept } from "../../core/plan/history";
import { makePlan } from "../../core/plan/plan";
import { fold, type BenchState } from "../../core/plan/fold";
import type { Job } from "../../core/records/job";
import { LogEntry, type LogKind } from "../../core/records/log";
import type { Product } from "../../core/records/product";
import type { World } from "../../core/records/world";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { logTap, Refused } from "../../store/acts";
import { readWorld } from "../../store/queries";

export interface AtBench {
  world: World;
  /** the log folded into what is true now */
  state: BenchState;
}

/** @throws Refused when the job is gone */
export async function atBench(jobId: string): Promise<AtBench> {
  const world = await readWorld(jobId, false);
  if (!world) throw new Refused("This job is no longer there; undo its deletion first.");
  return { world, state: fold(world.log) };
}

let counter = 0;
const base36 = (n: number): string => Math.floor(n).toString(36);
/** Ids sort in time: the second, then a count, then chance against a second tab. */
function tapId(job: string, at: number): string {
  const chance = base36((performance.now() * 1000) % 46656);
  return `${job}.${base36(Math.round(at * 60000))}.${base36(counter++).padStart(3, "0")}${chance}`.slice(0, 118);
}

type Used = { next: Product; base: Product }[];
interface TapMore {
  /** what the entry holds besides */
  entry?: Partial<LogEntry>;
  /** cans as they are after it */
  used?: Used;
  /** an entry that stands in the place of one taken back */
  instead?: LogEntry;
}

/** @returns the world with it, for what is tapped in the same stroke */
export async function tap(
  w: World,
  kind: LogKind,
  step: string,
  { entry, used, instead }: TapMore = {},
): Promise<World> {
  const at = nowMinutes();
  const now = airAtMoment(air((w.elsewhere ?? w).shop.climate), at, shopClock(w.shop).minuteOfDay(Math.floor(at)));
  const made: LogEntry = {
    ...new LogEntry(),
    id: tapId(w.job.id, at),
    jobId: w.job.id,
    kind,
    step,
    at,
    c: now.c,
    rh: now.rh,
    ...entry,
  };
  const entries = instead ? [made, instead] : [made];
  const next = keptAfter(w, entries, at);
  await logTap(entries, w.log.length, { used, kept: next && { next, base: w.job } });
  return { ...w, job: next ?? w.job, log: [...w.log, ...entries] };
}

/** The job with what is kept of it once these are logged; null: that stays as it is. */
function keptAfter(w: World, entries: LogEntry[], at: number): Job | null {
  const was = fold(w.log).actuals;
  const will = fold([...w.log, ...entries]).actuals;
  const { begun, ...free } = w.job;
  // All taken back: it has not begun, and goes by the shop as it is.
  if (!will.size) return begun ? free : null;
  const { step } = entries[0];
  if (!will.has(step) || !unkept(begun, step, was)) return null;
  // the blanks that it is made of are taken from a lot with the first tap
  const lot = begun ? undefined : lotFor(w.job, (w.elsewhere ?? w).shop)?.id;
  return {
    ...w.job,
    ...(lot && !w.job.blankLot ? { blankLot: lot } : {}),
    begun: keptWith(makePlan(w, Math.floor(at), true), step, at),
  };
}

/** Paint that a finished coat took, counted off the can that was opened first; back on when the tap is taken back. */
export function countDown(w: World, productId: string | null, ml: number | null, sign: 1 | -1): Used {
  const p = (w.elsewhere ?? w).products.find((x) => x.id === productId);
  if (!ml || !p?.cans.length || onShelf(p.cans) === null) return [];
  let left = ml;
  const cans = p.cans.map((k) => {
    const has = k.leftMl ?? k.fullMl;
    const d = sign > 0 ? Math.min(has, left) : Math.min(k.fullMl - has, left);
    left -= d;
    return { ...k, leftMl: Math.round((has - sign * d) * 100) / 100 };
  });
  return [{ next: { ...p, cans }, base: p }];
}
