/** What comes of beginning one step at another time, before anything is stored: can it be then, which windows shut, whom it meets. */
import { makePlan } from "../plan/plan";
import { breaksWindow, inTurn, type Placed } from "../plan/placed";
import { lanesOf } from "../plan/schedule";
import type { World } from "../records/world";
import { showWhen } from "../time/zoned";
import { showMinutes } from "../units/show";

/** Work of other jobs on a lane. */
export interface LaneBars {
  id: string;
  name: string;
  bars: readonly { from: number; to: number; job: { id: string; title: string } }[];
}
export interface Shift {
  /** when it would really begin; null: it could not be planned */
  begins: number | null;
  /** what of it is bad */
  breaks: string[];
  /** what else moves */
  moves: string[];
}
/** minutes that are not told */
const MINOR = 2;
/** titles that are named of one kind */
const NAMED = 2;

const missed = (placed: readonly Placed[]): Map<string, Placed> => {
  const line = inTurn([...placed]);
  return new Map(
    line.filter((p, i) => breaksWindow(p, i === 0 ? null : line[i - 1].step.waitMin)).map((p) => [p.step.id, p]),
  );
};

/**
 * @param starts beginnings that the job goes by on the shop's calendar @param at the moment that is tried
 * @param lanes what hands and machines do for all jobs as it stands
 */
export function shiftOf(
  world: World,
  now: number,
  starts: readonly (readonly [string, number])[],
  step: string,
  at: number,
  lanes: readonly LaneBars[],
): Shift {
  const was = makePlan(world, now, true, new Map(starts));
  const line = inTurn(was.placed).map((p) => p.step.id);
  const k = line.indexOf(step);
  const before = was.placed.find((p) => p.step.id === step) ?? null;
  // what comes behind follows: later it is pushed, sooner it may come along
  const kept = starts.filter(
    ([id]) => line.indexOf(id) < k || (before?.start != null && at > before.start && id !== step),
  );
  const is = makePlan(world, now, true, new Map([...kept, [step, at]]));
  const { clock } = is.context;
  const p = is.placed.find((x) => x.step.id === step);
  if (!p || p.start === null) return { begins: null, breaks: [p?.blocked ?? "it could not be done then"], moves: [] };
  const breaks: string[] = [];
  const shut = p.needs.some((n) => n.closes !== null && n.closes < p.start! - MINOR);
  if (p.start > at + MINOR)
    breaks.push(
      `it begins ${showWhen(clock, p.start)}: ` +
        (shut ? "its window is shut until then" : "what it waits for, or the shop, is not ready sooner"),
    );
  const [old, fresh] = [missed(was.placed), missed(is.placed)];
  const lost = [...fresh].filter(([id]) => !old.has(id)).map(([, x]) => x);
  for (const x of lost.slice(0, NAMED)) {
    const shuts = Math.min(...x.needs.flatMap((n) => n.closes ?? []));
    breaks.push(
      `“${x.step.title}” misses its window${Number.isFinite(shuts) ? `, which shuts ${showWhen(clock, shuts)}` : ""}`,
    );
  }
  if (lost.length > NAMED) breaks.push(`${lost.length - NAMED} more windows are missed`);
  const { due } = is.context.job;
  const dueAt = due === null ? null : clock.fromLocal(due);
  const moves: string[] = [];
  if (is.ready !== null && was.ready !== null && Math.abs(is.ready - was.ready) > MINOR) {
    const late = dueAt !== null && is.ready > dueAt;
    const said = `ready ${showWhen(clock, is.ready)} instead of ${showWhen(clock, was.ready)}`;
    if (late) breaks.push(`${said}: ${showMinutes(is.ready - dueAt)} after it is due`);
    else moves.push(said);
  }
  const mine = new Set(lanesOf(p, is.context));
  const met = new Set<string>();
  for (const lane of lanes)
    for (const b of lane.bars)
      if (mine.has(lane.id) && b.job.id !== world.job.id && b.from < p.end! - MINOR && b.to > p.start + MINOR)
        met.add(`${lane.name}: “${b.job.title}” is there until ${showWhen(clock, b.to)} and gives way`);
  moves.push(...[...met].slice(0, NAMED + 1));
  return { begins: p.start, breaks, moves };
}
