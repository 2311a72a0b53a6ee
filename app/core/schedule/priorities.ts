/**
 * The shape of a schedule of many jobs: every block has its latest beginning, by its due date and by a finish near the bound, as its
 * priority, and every job an offset of its own that moves it up or lets it wait (priority rules with searched-for parameters, as in
 * Storer, Wu and Vaccari 1992). What is searched for is a number a job and a way a window, not a place a task.
 */
import type { Paths } from "./bounds/path";
import { SOONER, type Builder } from "./build";
import { compare, endOf, inside, objectiveOf, type Model } from "./model";
import type { Random } from "../units/random";
import { jobsOf, latestStarts, type Found } from "./search";

/** the finish aimed at, as a share of the bound */
const AIM = 1.03;
/** a broken window and a weighted minute of lateness, in minutes behind the finish aimed at */
const BROKEN = 1e7;
const LATE = 20;
/** temperature at the beginning and at the end, as a share of the finish aimed at */
const HOT = 0.02;
const COLD = 0.002;

/** rounds before it begins again, and how much longer each time */
const CYCLE = 350;
const LONGER = 1.2;

export interface Shape extends Found {
  /** ways round its windows, by lag */
  ways: Uint8Array;
}
export interface Priorities {
  best: Shape | null;
  /** @param over how much of the search is over, 0 to 1; @returns is it the best so far? */
  round(over: number): boolean;
}

/** @param bound a finish that no schedule comes below */
export function prioritySearch(m: Model, builder: Builder, paths: Paths, bound: number, random: Random): Priorities {
  const { blocks } = builder;
  const job = jobsOf(m);
  const count = Math.max(-1, ...job) + 1;
  const late = latestStarts(m, paths);
  const aim = Math.ceil(bound * AIM);
  const base = Float64Array.from(blocks.tasks, (list) =>
    Math.min(...list.map((i) => Math.min(late[i], aim - paths.tail[i] - m.work[i]))),
  );
  const windows: number[][] = Array.from({ length: count }, () => []);
  for (const l of m.lags) if (l.max !== Infinity && l.reopens !== Infinity) windows[job[l.from]].push(l.index);
  const top = new Float64Array(count).fill(Infinity);
  blocks.tasks.forEach((list, b) => (top[job[list[0]]] = Math.min(top[job[list[0]]], base[b])));
  const key = new Float64Array(base.length);
  const search: Priorities = { best: null, round: () => false };
  let offset = new Float64Array(count);
  let reopen = new Uint8Array(m.lags.length);
  const ends = new Float64Array(count);
  const lateness = new Float64Array(count);
  const read = (start: Float64Array): number => {
    ends.fill(0);
    lateness.fill(0);
    for (let i = 0; i < m.n; i++) {
      const e = endOf(m, i, start[i]);
      if (e > ends[job[i]]) ends[job[i]] = e;
      if (e > m.due[i]) lateness[job[i]] += m.weight[i] * (e - m.due[i]);
    }
    let cost = 0;
    for (const l of m.lags) if (l.soft && !inside(m, l, start[l.from], start[l.to])) cost += BROKEN;
    for (let j = 0; j < count; j++) cost += LATE * lateness[j] + Math.max(0, ends[j] - aim);
    return cost;
  };
  const lay = (): { start: Float64Array; cost: number } | null => {
    for (let b = 0; b < key.length; b++) key[b] = base[b] + offset[job[blocks.tasks[b][0]]];
    const start = builder.lay({ key, reopen, floor: null });
    return start ? { start, cost: read(start) } : null;
  };
  let cost = Infinity;
  let bad: number[] = [];
  let worst: number[] = [];
  /** windows that were let shut, a job */
  let missed: number[][] = windows;
  const take = (laid: { start: Float64Array; cost: number }): boolean => {
    cost = laid.cost;
    worst = [];
    bad = [];
    for (let j = 0; j < count; j++) {
      if (lateness[j]) worst.push(j);
      if (ends[j] > aim) bad.push(j);
    }
    missed = windows.map((list) =>
      list.filter(
        (k) =>
          reopen[k] &&
          !inside(m, { ...m.lags[k], reopens: Infinity }, laid.start[m.lags[k].from], laid.start[m.lags[k].to]),
      ),
    );
    const objective = objectiveOf(m, laid.start, builder.trips());
    if (search.best && compare(m, objective, search.best.objective) >= 0) return false;
    search.best = { start: Float64Array.from(laid.start), objective, ways: Uint8Array.from(reopen) };
    return true;
  };
  let first = 0;
  let round = 0;
  let cycle = CYCLE;
  search.round = (over) => {
    if (round >= cycle) {
      // from the beginning again, for longer: what it settles on depends on its first moves
      round = first = 0;
      cycle = Math.ceil(cycle * LONGER);
      offset = new Float64Array(count);
      cost = Infinity;
    }
    const progress = Math.max(over, round++ / cycle);
    if (first < 3) {
      const was = reopen;
      reopen = new Uint8Array(m.lags.length).fill(first++);
      const laid = lay();
      if (laid && laid.cost < cost) return take(laid);
      reopen = was;
      return false;
    }
    const wasOffset = offset;
    const wasReopen = reopen;
    offset = Float64Array.from(offset);
    reopen = Uint8Array.from(reopen);
    const list = worst.length && (!bad.length || random.below(2)) ? worst : bad;
    for (let times = 1 + random.below(2); times > 0; times--) {
      const j = list.length && random.below(4) ? list[random.below(list.length)] : random.below(count);
      const kind = random.below(10);
      if (kind < 2) {
        // before another job, any that is ahead of it or the first of all
        const at = top[j] + offset[j];
        let x = -1;
        if (random.below(3) === 0)
          for (let q = 0; q < count; q++) x = q !== j && (x < 0 || top[q] + offset[q] < top[x] + offset[x]) ? q : x;
        else
          for (let tries = 0; x < 0 && tries < 8; tries++) {
            const q = random.below(count);
            if (q !== j && top[q] + offset[q] < at) x = q;
          }
        if (x >= 0) offset[j] = Math.min(offset[j], top[x] + offset[x] - top[j] - 1);
      } else if (kind < 4 || !windows[j].length)
        offset[j] += (list.includes(j) ? -1 : random.below(2) ? 1 : -1) * random.next() ** 2 * aim * 0.5;
      else if (kind < 7 && missed[j].length) {
        reopen[missed[j][random.below(missed[j].length)]] = SOONER;
        if (random.below(2)) offset[j] -= random.next() ** 2 * aim * 0.3;
      } else if (kind < 9) {
        const way = random.below(3);
        for (const l of windows[j]) reopen[l] = way;
      } else reopen[windows[j][random.below(windows[j].length)]] = random.below(3);
    }
    const laid = lay();
    if (
      laid &&
      (laid.cost <= cost ||
        random.next() < Math.exp((cost - laid.cost) / (aim * HOT * (COLD / HOT) ** Math.min(1, progress))))
    )
      return take(laid);
    offset = wasOffset;
    reopen = wasReopen;
    return false;
  };
  return search;
}
