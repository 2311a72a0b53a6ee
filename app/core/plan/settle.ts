/**
 * Jobs of a shop as they came to lie: who takes up which lane when, where two want the same at once and which of them gives way, and
 * whether what is to be done together lies together.
 */
import type { Context } from "../process/context";
import { placedAgain, timesAgain, type Plan, type Times } from "./plan";
import { brokenWindows, inTurn, sharedOf, type Placed } from "./placed";
import { dryingPlaces, lanesOf } from "./schedule";
import { APART_MIN, type Session } from "./sessions";

export interface Queued {
  /** as it would be if it were alone */
  alone: Plan;
  /** among the others */
  plan: Plan;
  starts: ReadonlyMap<string, number>;
}
/** Several of a lane, by its id. */
export type More = Readonly<Record<string, number>>;

/** Beginnings as they came out: laid by them again nothing moves. */
export const asPlaced = (q: Queued): Queued => ({
  ...q,
  starts: new Map(
    inTurn(q.plan.placed).flatMap((p) => (p.actual || p.start === null ? [] : [[p.step.id, p.start] as const])),
  ),
});

/** One job's step that takes up a lane for a while. */
interface Taken {
  job: number;
  step: string;
  /** what it is done together with */
  session: string | null;
  lane: string;
  from: number;
  to: number;
  done: boolean;
}
const takenBy = (placed: Placed[], c: Context, job: number, more: More): Taken[] =>
  inTurn(placed).flatMap((p) =>
    p.start === null || p.end === null || p.end <= p.start
      ? []
      : lanesOf(p, c)
          .filter((lane) => lane !== "present" && !more[lane])
          .map((lane) => ({
            job,
            step: p.step.id,
            session: sharedOf(p.step, c)?.id ?? null,
            lane,
            from: p.start as number,
            to: p.end as number,
            done: p.actual !== null,
          })),
  );
const inOrder = (lists: readonly Taken[][]): Taken[] => lists.flat().sort((a, b) => a.from - b.from || a.to - b.to);
/** The first two that want the same at once. */
function firstClash(list: readonly Taken[]): [Taken, Taken] | null {
  const last = new Map<string, Taken>();
  for (const x of list) {
    const y = last.get(x.lane);
    if (y && y.job !== x.job && x.from < y.to - MINUTE && !(x.done && y.done) && !asOne(x, y)) return [y, x];
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return null;
}
/** In one load of the oven nobody is in another's way. */
const asOne = (x: Taken, y: Taken): boolean => x.session !== null && x.session === y.session && x.lane === "oven";
/** parts of a minute add up to one */
const MINUTE = 1;
/** clashes that are mended at most, a step of all jobs */
const MENDS = 2;
/** minutes that a job may be later for giving way, besides what it gives way by: more, and the other one is asked */
const MEEK = 30;
const DAY = 1440;

/** A job on trial: its times, without all that else is said of a plan. */
interface Trial {
  q: Queued;
  starts: ReadonlyMap<string, number>;
  times: Times;
  /** it does not lie where it lay */
  moved: boolean;
}
/**
 * Placed again a job may need some minutes more or less than the scheduler took it for: where that makes two want the same at once, one
 * of them gives way, whichever costs less.
 * @param most clashes that are mended
 * @param crowd whoever gives way goes to the next free place at once, not step by step
 */
function settled(
  jobs: readonly Queued[],
  now: number,
  more: More,
  most = MENDS * jobs.reduce((n, q) => n + q.plan.placed.length, 0),
  crowd = jobs.length > CROWD,
): Queued[] {
  const list = jobs.map((q): Trial => ({ q, starts: q.starts, times: q.plan, moved: late(q) }));
  const takenOf = (t: Trial, i: number): Taken[] => takenBy(t.times.placed, t.q.plan.context, i, more);
  let taken = inOrder(list.map(takenOf));
  for (let k = 0; k < most; k++) {
    const clash = firstClash(taken);
    if (!clash) break;
    const [a, b] = clash;
    const pushed = (x: Taken, behind: Taken): { of: number; t: Trial; cost: number } | null => {
      if (x.done) return null;
      const { q, starts: were, times: was } = list[x.job];
      const at = Math.ceil(crowd ? freeFrom(taken, x, behind.to) : behind.to);
      const starts = new Map([...were, [x.step, at] as const]);
      const times = timesAgain(q.plan, now, starts);
      const cost =
        (times.ready ?? Infinity) - (was.ready ?? 0) + DAY * (brokenWindows(times.placed) - brokenWindows(was.placed));
      return { of: x.job, t: { q, starts, times, moved: true }, cost };
    };
    // whoever was moved already moves on sooner than one who lies where he lay
    const turn = crowd && list[a.job].moved && !list[b.job].moved;
    const first = turn ? pushed(a, b) : pushed(b, a);
    const second =
      !first || first.cost > (turn ? DAY : a.to - b.from + MEEK) ? (turn ? pushed(b, a) : pushed(a, b)) : null;
    const way = !first || (second && second.cost < first.cost - MINUTE) ? second : first;
    if (!way) break;
    list[way.of] = way.t;
    taken = merged(
      taken.filter((x) => x.job !== way.of),
      inOrder([takenOf(way.t, way.of)]),
    );
  }
  return list.map(({ q, starts }) =>
    starts === q.starts ? q : { ...q, starts, plan: placedAgain(q.alone, now, starts) },
  );
}
/** Does a step to come begin later than the calendar has it? */
const late = (q: Queued): boolean =>
  inTurn(q.plan.placed).some(
    (p) => !p.actual && p.start !== null && p.start > (q.starts.get(p.step.id) ?? p.start) + MINUTE,
  );
/** jobs from which on whoever gives way goes to the next free place at once, not step by step */
const CROWD = 60;
/** The first moment from which on a step has its lanes to itself. @param taken in order */
function freeFrom(taken: readonly Taken[], x: Taken, from: number): number {
  const lanes = new Set(taken.filter((y) => y.job === x.job && y.step === x.step).map((y) => y.lane));
  const long = x.to - x.from;
  let at = from;
  for (const y of taken) {
    if (y.job === x.job || y.to <= at + MINUTE || !lanes.has(y.lane)) continue;
    if (y.from >= at + long - MINUTE) break;
    at = y.to;
  }
  return at;
}
/** Two lists in order as one. */
function merged(a: readonly Taken[], b: readonly Taken[]): Taken[] {
  const out: Taken[] = [];
  let i = 0;
  for (const x of a) {
    while (i < b.length && (b[i].from < x.from || (b[i].from === x.from && b[i].to < x.to))) out.push(b[i++]);
    out.push(x);
  }
  return [...out, ...b.slice(i)];
}

/** Does anybody want what another one has? */
export const clashesIn = (list: readonly Queued[], more: More): boolean =>
  firstClash(inOrder(list.map((q, i) => takenBy(q.plan.placed, q.plan.context, i, more)))) !== null;

/** Does something come to lie at a place to dry that others have by then? @param rack places, one a piece; null: as many as it takes */
export function rackOver(list: readonly Queued[], rack: number | null): boolean {
  if (rack === null) return false;
  const lies = list.flatMap((q) =>
    dryingPlaces(q.plan).flatMap(({ before, p }) =>
      before.end === null || p.start === null || p.start <= before.end
        ? []
        : [
            {
              from: before.end,
              to: p.start,
              pieces: Math.min(rack, q.plan.context.pieces),
              done: before.actual !== null,
            },
          ],
    ),
  );
  // what lies there already is a fact
  return lies.some(
    (x) =>
      !x.done &&
      lies.reduce((n, y) => (y.from <= x.from + MINUTE && y.to > x.from + MINUTE ? n + y.pieces : n), 0) > rack,
  );
}

/** Sessions whose members came to lie at other times than they were found at: they are none. */
export function torn(list: readonly Queued[], sessions: readonly Session[]): Session[] {
  const plans = new Map(list.map((q) => [q.plan.context.job.id, q.plan]));
  return sessions.filter((s) => {
    const all = s.members.map((m) => inTurn(plans.get(m.job)?.placed ?? []).find((p) => p.step.id === m.step));
    return all.some((p, i) => {
      const before = all[i - 1];
      if (!p || p.start === null) return true;
      if (!before || before.start === null) return false;
      return s.as === "oven"
        ? Math.abs(p.start - before.start) > MINUTE
        : p.start < before.end - MINUTE || p.start - before.end > APART_MIN;
    });
  });
}

/** Members of one load that came to lie apart wait for the one that is last ready; what comes behind moves with them. */
function met(jobs: Queued[], apart: readonly Session[], now: number): Queued[] {
  const floors = new Map<string, [string, number][]>();
  for (const s of apart) {
    const at = s.members.map((m) => {
      const q = jobs.find((x) => x.plan.context.job.id === m.job);
      return (q && inTurn(q.plan.placed).find((p) => p.step.id === m.step)?.start) ?? Infinity;
    });
    const last = Math.ceil(Math.max(...at));
    if (Number.isFinite(last))
      for (const m of s.members) (floors.get(m.job) ?? floors.set(m.job, []).get(m.job)!).push([m.step, last]);
  }
  return jobs.map((q) => {
    const mine = floors.get(q.plan.context.job.id);
    if (!mine) return q;
    const starts = new Map([...q.starts, ...mine]);
    return { ...q, starts, plan: placedAgain(q.alone, now, starts) };
  });
}
/** rounds in which members of a load wait for one another */
const MEETS = 4;
/** Nobody in another's way, and loads whole where some waiting does it. */
export function settledTogether(list: Queued[], sessions: readonly Session[], now: number, more: More): Queued[] {
  let jobs = settled(list, now, more).map(asPlaced);
  for (let k = 0; k < MEETS; k++) {
    const apart = torn(jobs, sessions).filter((s) => s.as === "oven");
    if (!apart.length) break;
    jobs = settled(met(jobs, apart, now), now, more).map(asPlaced);
  }
  return jobs;
}

/** clashes that are settled at once, step by step, or by going to the next free place */
const FEW = { steps: 12, places: 40 };
/**
 * Where a few works came to lie over one another the ones that give way do, and all else stays where it is.
 * @returns null: it is more than that, or what is done together would come apart
 */
export function settledSoon(
  list: readonly Queued[],
  sessions: readonly Session[],
  now: number,
  more: More,
): Queued[] | null {
  let jobs = [...list];
  if (clashesIn(jobs, more)) jobs = settled(list, now, more, FEW.steps, false);
  if (clashesIn(jobs, more)) jobs = settled(list, now, more, FEW.places, true);
  jobs = jobs.map(asPlaced);
  return clashesIn(jobs, more) || torn(jobs, sessions).length ? null : jobs;
}

/** Works of different jobs that want the same hands, machine or oven at once, begun by a moment: where each job is planned by itself. */
export function clashesBy(jobs: readonly Queued[], until: number): number {
  const last = new Map<string, Taken>();
  let n = 0;
  for (const x of inOrder(jobs.map((q, i) => takenBy(q.plan.placed, q.plan.context, i, {})))) {
    if (x.done || x.from > until) continue;
    const y = last.get(x.lane);
    if (y && y.job !== x.job && x.from < y.to - MINUTE && !asOne(x, y)) n++;
    if (!y || x.to > y.to) last.set(x.lane, x);
  }
  return n;
}
