/**
 * Large-neighbourhood search for many jobs in one shop: a few jobs are taken out of the schedule, whole or from some moment on, and laid
 * anew, one after another or side by side, into what the others leave free (ruin and recreate, Schrimpf and others 2000; that the jobs
 * taken out lie near each other in time is from slack induction, Christiaens and Vanden Berghe 2020). Whether the result is kept is
 * decided as in simulated annealing (Kirkpatrick and others 1983).
 *
 * A finish is the end of one job, and most changes leave it as it is; so the search is steered by the minutes that all jobs together end
 * behind a target between the bound and the best finish, which moves with the best.
 */
import { Builder, type Blocks } from "./build";
import { compare, endOf, inside, objectiveOf, type Model } from "./model";
import type { Paths } from "./bounds/path";
import type { Random } from "../units/random";
import { jobsOf, latestStarts, type Found } from "./search";

/** a broken window and a weighted minute of lateness, in minutes behind the target */
const BROKEN = 1e7;
const LATE = 40;
/** the target lies there between the bound and the best finish */
const AHEAD = 0.6;
/** temperature at the beginning and at the end, as a share of the finish */
const HOT = 0.002;
const COLD = 0.0001;
/** one round in so many lays all of it anew */
const UP = 16;
/** most jobs taken out at once */
const MOST = 6;

export interface Reinsert {
  best: Found;
  /** tasks laid so far */
  laid: number;
  /** @param progress how much of the search is over, 0 to 1; @returns is it the best so far? */
  round(progress: number): boolean;
}

/**
 * @param from a schedule that holds
 * @param ways ways round its windows, by lag
 * @param bound a finish that no schedule comes below
 */
export function reinsertSearch(
  m: Model,
  blocks: Blocks,
  from: Float64Array,
  ways: Uint8Array,
  paths: Paths,
  bound: number,
  random: Random,
): Reinsert {
  const late = latestStarts(m, paths);
  const { tail } = paths;
  const job = jobsOf(m);
  const count = Math.max(-1, ...job) + 1;
  const builder = new Builder(m, blocks);
  const own: number[][] = Array.from({ length: count }, () => []);
  const tasks: number[][] = Array.from({ length: count }, () => []);
  const windows: number[][] = Array.from({ length: count }, () => []);
  const soft: number[][] = Array.from({ length: count }, () => []);
  blocks.tasks.forEach((list, b) => own[job[list[0]]].push(b));
  for (let i = 0; i < m.n; i++) tasks[job[i]].push(i);
  for (const l of m.lags) {
    if (l.max !== Infinity && l.reopens !== Infinity) windows[job[l.from]].push(l.index);
    if (l.soft) soft[job[l.from]].push(l.index);
  }
  const reopen = Uint8Array.from(ways);
  const key = new Float64Array(blocks.tasks.length);
  const begins = (b: number): number => builder.start[blocks.tasks[b][0]];
  builder.put(from);
  const start = builder.start;

  const ends = new Float64Array(count);
  const lateness = new Float64Array(count);
  const broken = new Float64Array(count);
  const begin = new Float64Array(count);
  const read = (j: number): void => {
    let [end, behind, first] = [0, 0, Infinity];
    for (const i of tasks[j]) {
      const e = endOf(m, i, start[i]);
      if (e > end) end = e;
      if (e > m.due[i]) behind += m.weight[i] * (e - m.due[i]);
      if (start[i] < first) first = start[i];
    }
    ends[j] = end;
    begin[j] = first;
    lateness[j] = behind;
    let n = 0;
    for (const k of soft[j]) n += Number(!inside(m, m.lags[k], start[m.lags[k].from], start[m.lags[k].to]));
    broken[j] = n;
  };
  for (let j = 0; j < count; j++) read(j);
  const keep = (): Found => ({ start: Float64Array.from(start), objective: objectiveOf(m, start) });
  const search: Reinsert = { best: keep(), laid: m.n, round: () => false };
  let target = 0;
  let unit = 1;
  const aim = (): void => {
    const f = search.best.objective.finish;
    target = Math.min(f - m.bucket, bound + Math.round((f - bound) * AHEAD));
    unit = Math.max(1, f);
  };
  aim();
  const costOf = (): number => {
    let sum = 0;
    for (let j = 0; j < count; j++) sum += BROKEN * broken[j] + LATE * lateness[j] + Math.max(0, ends[j] - target);
    return sum;
  };
  const finishOf = (): number => {
    let f = 0;
    for (let j = 0; j < count; j++) if (ends[j] > f) f = ends[j];
    return f;
  };
  let cost = costOf();
  const was = new Float64Array(m.n);
  const wasReopen = new Uint8Array(m.lags.length);
  const noise = (share: number): number => 1 + (random.next() - 0.5) * share;

  /** Decides on what has just been laid anew: true, it stays. */
  const decide = (now: number, progress: number): boolean =>
    now <= cost || random.next() < Math.exp((cost - now) / (unit * HOT * (COLD / HOT) ** Math.min(1, progress)));
  /** Takes what stands as the current schedule; is it the best so far? */
  const take = (now: number): boolean => {
    cost = now;
    const b = search.best.objective;
    let [brokenNow, lateNow] = [0, 0];
    for (let j = 0; j < count; j++) {
      brokenNow += broken[j];
      lateNow += lateness[j];
    }
    if (
      brokenNow > b.windowsBroken ||
      lateNow > b.lateness + 1e-6 ||
      (brokenNow === b.windowsBroken &&
        lateNow > b.lateness - 1e-6 &&
        Math.ceil(finishOf() / m.bucket) > Math.ceil(b.finish / m.bucket))
    )
      return false;
    const found = objectiveOf(m, start, builder.trips());
    if (compare(m, found, b) >= 0) return false;
    search.best = { start: Float64Array.from(start), objective: found };
    if (found.finish < b.finish) {
      aim();
      cost = costOf();
    }
    return true;
  };
  /** Jobs that decide: one time in two, and where there are any, those that break a window or are late; else those behind the target. */
  const deciding = (): number[] => {
    const worst: number[] = [];
    const bad: number[] = [];
    for (let j = 0; j < count; j++) {
      if (broken[j] || lateness[j]) worst.push(j);
      else if (ends[j] > target) bad.push(j);
    }
    return worst.length && (!bad.length || random.below(2)) ? worst : bad;
  };

  /** All of it laid anew, with a job that decides, or what it still has from some moment on, moved up in the order: all others give way. */
  const moveUp = (progress: number): boolean => {
    const bad = deciding();
    const j = bad.length && random.below(4) ? bad[random.below(bad.length)] : random.below(count);
    was.set(start);
    wasReopen.set(reopen);
    for (let b = 0; b < key.length; b++) key[b] = Infinity;
    for (let i = 0; i < m.n; i++) key[blocks.of[i]] = Math.min(key[blocks.of[i]], start[i]);
    const cut = random.below(2) ? -1 : begin[j] + random.next() * (ends[j] - begin[j]);
    const by = random.next() ** 2 * ends[j];
    for (const b of own[j]) if (key[b] >= cut) key[b] -= by;
    search.laid += m.n;
    if (builder.lay({ key, reopen, floor: null })) {
      for (let x = 0; x < count; x++) read(x);
      const now = costOf();
      if (decide(now, progress)) return take(now);
    }
    builder.put(was);
    for (let x = 0; x < count; x++) read(x);
    return false;
  };

  search.round = (progress) => {
    if (random.below(UP) === 0) return moveUp(progress);
    // Jobs: one that is late or ends behind the target, most often, and such as are under way at the same time.
    const bad = deciding();
    const seed = bad.length && random.below(3) ? bad[random.below(bad.length)] : random.below(count);
    const set = [seed];
    const k = Math.min(count, 1 + random.below(MOST));
    for (let tries = 0; set.length < k && tries < 4 * MOST; tries++) {
      const j = random.below(count);
      if (!set.includes(j) && (random.below(3) === 0 || (begin[j] < ends[seed] && begin[seed] < ends[j]))) set.push(j);
    }
    const cut = random.below(2) ? -1 : begin[seed] + random.next() * (ends[seed] - begin[seed]);
    const list: number[] = [];
    for (const j of set) for (const b of own[j]) if (begins(b) >= cut) list.push(b);
    // with all that comes behind them
    if (cut >= 0) {
      const inList = new Set(list);
      for (let q = 0; q < list.length; q++)
        for (const x of blocks.next[list[q]])
          if (!inList.has(x)) {
            inList.add(x);
            list.push(x);
          }
    }
    if (!list.length) {
      search.laid++;
      return false;
    }

    // In which order: job by job, or all side by side.
    const way = random.below(6);
    const turn = new Map<number, number>();
    const by = (f: (j: number) => number): void =>
      set.toSorted((a, b) => f(a) - f(b)).forEach((j, at) => turn.set(j, at));
    if (way === 0) by(() => random.next());
    else if (way === 1) by((j) => -ends[j] * noise(0.1));
    else if (way === 2) by((j) => Math.min(...tasks[j].map((i) => late[i])) * noise(0.2));
    for (const b of list) {
      const first = blocks.tasks[b][0];
      const t = turn.get(job[first]);
      key[b] =
        t !== undefined
          ? t * 1e7 + begins(b)
          : way === 3
            ? begins(b) * noise(0.2)
            : way === 4
              ? late[first] * noise(0.2)
              : -tail[first] * noise(0.2);
    }
    let touched = 0;
    for (const b of list)
      for (const i of blocks.tasks[b]) {
        was[i] = start[i];
        touched++;
      }
    for (const j of set) {
      for (const l of windows[j]) wasReopen[l] = reopen[l];
      if (!windows[j].length) continue;
      const flip = random.below(8);
      const way = random.below(3);
      if (flip < 2) for (const l of windows[j]) reopen[l] = way;
      else if (flip === 2) reopen[windows[j][random.below(windows[j].length)]] = way;
    }
    search.laid += touched;
    builder.lift(list);
    if (builder.insert(list, key, reopen)) {
      for (const j of set) read(j);
      const now = costOf();
      if (decide(now, progress)) return take(now);
    }
    builder.restore(list, was);
    for (const j of set) {
      for (const l of windows[j]) reopen[l] = wasReopen[l];
      read(j);
    }
    return false;
  };
  return search;
}
