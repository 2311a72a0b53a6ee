/**
 * Local search over the order in which blocks are laid, for problems with windows, calendars, clocks and holds. A solution is a key a
 * block; a move takes a block, or a job with all that it still has, earlier or later among its neighbours in time, or lets a window
 * wait for its reopening. Late acceptance (Burke and Bykov 2017): a new list is kept if it is no worse than the one so many steps ago.
 * Since every list is laid by the builder, every solution looked at keeps all windows, hours and capacities.
 */
import { leastSpan, type Paths } from "./bounds/path";
import type { Builder, Plan } from "./build";
import { compare, endOf, objectiveOf, opens, type Model, type Objective } from "./model";
import type { Random } from "../units/random";

/** times a list is laid anew with what found no place put first */
const UNSTICK = 6;
/** steps back that a new list is held against */
const MEMORY = 40;

export interface Found {
  start: Float64Array;
  objective: Objective;
}
export interface ListSearch {
  best: Found | null;
  /** lays one list; true: it is the best so far */
  round(): boolean;
}

/** Jobs: tasks that lags tie together. */
export function jobsOf(m: Model): Int32Array {
  const job = new Int32Array(m.n).fill(-1);
  let jobs = 0;
  for (let i = 0; i < m.n; i++) {
    if (job[i] >= 0) continue;
    const stack = [i];
    job[i] = jobs;
    while (stack.length) {
      const x = stack.pop()!;
      for (const j of [...m.out[x].map((l) => l.to), ...m.into[x].map((l) => l.from)])
        if (job[j] < 0) {
          job[j] = jobs;
          stack.push(j);
        }
    }
    jobs++;
  }
  return job;
}

/** Latest starts that keep every due date by path alone; where nothing is due, counted from the last finish of the paths. */
export function latestStarts(m: Model, paths: Paths): Float64Array {
  let end = 0;
  for (let i = 0; i < m.n; i++) end = Math.max(end, paths.head[i] + m.work[i] + paths.tail[i]);
  const late = new Float64Array(m.n);
  for (let k = m.n - 1; k >= 0; k--) {
    const i = m.order[k];
    let last = m.due[i] < Infinity ? m.due[i] : Infinity;
    for (const l of m.out[i]) last = Math.min(last, late[l.to] + m.work[l.to] - Math.max(0, leastSpan(m, l)));
    late[i] = (last === Infinity ? end : last) - m.work[i];
  }
  return late;
}

/** lists without a better one after which it begins elsewhere */
const STALE = 250;
/** beginnings kept */
const ROOTS = 6;
/** links walked back from a task that decides */
const WALK = 80;
/** Pairs on the way back from a task: the first could have begun when the second still had what both use. */
function heldUp(m: Model, start: Float64Array, last: number): [number, number][] {
  const pairs: [number, number][] = [];
  const seen = new Set<number>();
  const blocker = (i: number, from: number): number => {
    let [best, end] = [-1, from];
    for (let j = 0; j < m.n; j++) {
      if (j === i || start[j] >= start[i]) continue;
      const e = endOf(m, j, start[j]);
      if (
        e > end &&
        e <= start[i] &&
        m.uses[j].some((u) => m.uses[i].some((v) => v.r === u.r && u.amount + v.amount > m.capacity[u.r]))
      )
        [best, end] = [j, e];
    }
    return best;
  };
  for (let i = last, k = 0; k < WALK && !seen.has(i); k++) {
    seen.add(i);
    let from = m.earliest[i];
    let by = -1;
    for (const l of m.into[i]) {
      const at = opens(m, l, start[l.from]);
      if (at > from || (at === from && by < 0)) [from, by] = [at, l.from];
    }
    let next = by;
    if (m.open[i].slot(from, m.work[i], m.pausable[i]).start < start[i]) {
      const j = blocker(i, from);
      if (j >= 0) {
        pairs.push([i, j]);
        next = j;
      } else {
        // begun late for the sake of a window behind it: what held that up
        const behind = m.out[i].find((l) => l.max !== Infinity);
        const b = behind ? blocker(behind.to, from) : -1;
        if (behind && b >= 0 && b !== i) pairs.push([i, b]);
        if (b >= 0 && b !== i) next = b;
      }
    }
    if (next < 0) break;
    i = next;
  }
  return pairs;
}

/** @param replan begin from where tasks stood before */
export function listSearch(m: Model, builder: Builder, paths: Paths, random: Random, replan: boolean): ListSearch {
  const { blocks } = builder;
  const n = blocks.tasks.length;
  const job = jobsOf(m);
  const jobBlocks = new Map<number, number[]>();
  for (let b = 0; b < n; b++) {
    const j = job[blocks.tasks[b][0]];
    (jobBlocks.get(j) ?? jobBlocks.set(j, []).get(j)!).push(b);
  }
  const jobs = [...jobBlocks.keys()];
  const late = latestStarts(m, paths);
  const of = (f: (i: number) => number): Float64Array =>
    Float64Array.from(blocks.tasks, (list) => Math.min(...list.map(f)));
  const place = new Float64Array(m.n);
  m.order.forEach((i, k) => (place[i] = k / m.n));
  const headKey = of((i) => paths.head[i]);
  const lateKey = of((i) => late[i]);
  const due = new Map<number, number>();
  const ends = new Map<number, number>();
  for (let i = 0; i < m.n; i++) {
    due.set(job[i], Math.min(due.get(job[i]) ?? Infinity, m.due[i]));
    ends.set(job[i], Math.max(ends.get(job[i]) ?? 0, paths.head[i] + m.work[i]));
  }
  const dueOf = (i: number): number => (due.get(job[i])! < Infinity ? due.get(job[i])! : ends.get(job[i])!);
  const starts: Float64Array[] = [
    ...(replan ? [of((i) => (m.prefer[i] >= 0 ? m.prefer[i] : paths.head[i]))] : []),
    // latest start, earliest start, what follows; then whole jobs: by due date, by slack, by both and the way inside the job
    lateKey,
    headKey,
    of((i) => -paths.tail[i] - m.work[i]),
    of((i) => paths.head[i] + 0.5 * late[i]),
    of((i) => paths.head[i] * 0.3 + late[i]),
    of((i) => dueOf(i) * 1e3 + place[i]),
    of((i) => (dueOf(i) - ends.get(job[i])!) * 1e3 + place[i]),
    of((i) => dueOf(i) + paths.head[i]),
    of((i) => dueOf(i) + late[i]),
    of((i) => job[i] + place[i]),
  ];
  // latest starts that keep the due dates and have all of it done by a common end as well: what has long to wait behind it goes early
  let end = 0;
  for (let i = 0; i < m.n; i++) end = Math.max(end, paths.head[i] + m.work[i] + paths.tail[i]);
  for (const share of [1, 1.3]) starts.push(of((i) => Math.min(late[i], end * share - paths.tail[i] - m.work[i])));
  const reopens = m.lags.filter((l) => l.reopens !== Infinity && l.max !== Infinity).map((l) => l.index);
  const before: number[][] = blocks.tasks.map(() => []);
  blocks.next.forEach((list, b) => list.forEach((x) => before[x].push(b)));
  const lay = (plan: Plan): Found | null => {
    let key = plan.key;
    for (let k = 0; ; k++) {
      const start = builder.lay({ ...plan, key });
      if (start) return { start, objective: objectiveOf(m, start) };
      if (!builder.stuck.length || k === UNSTICK) return null;
      // Places are held by work that waits for what can't have one: that goes first, with all that comes before it.
      key = Float64Array.from(key);
      const first = Math.min(...key) - 1;
      const stack = [...builder.stuck];
      const seen = new Set(stack);
      while (stack.length) {
        const b = stack.pop()!;
        key[b] = Math.min(key[b], first);
        for (const x of before[b])
          if (!seen.has(x)) {
            seen.add(x);
            stack.push(x);
          }
      }
    }
  };
  const keep = (f: Found): Found => ({ start: Float64Array.from(f.start), objective: f.objective });

  let current: { found: Found; key: Float64Array; reopen: Uint8Array } | null = null;
  const memory: Objective[] = [];
  let step = 0;
  let since = 0;
  let bestReopen = new Uint8Array(m.lags.length);
  const roots: (Found & { reopen: Uint8Array })[] = [];
  const search: ListSearch = { best: null, round: () => false };
  /** keys that lay a schedule as it stands */
  const keysOf = (start: Float64Array): Float64Array => of((i) => start[i]);

  const consider = (found: Found | null, reopen: Uint8Array): boolean => {
    if (!found) return false;
    const better = !search.best || compare(m, found.objective, search.best.objective) < 0;
    const back = memory.length ? memory[step % memory.length] : null;
    if (
      !current ||
      better ||
      compare(m, found.objective, current.found.objective) <= 0 ||
      (back && compare(m, found.objective, back) <= 0)
    ) {
      const kept = keep(found);
      current = { found: kept, key: keysOf(kept.start), reopen: Uint8Array.from(reopen) };
      if (better) {
        search.best = kept;
        bestReopen = Uint8Array.from(reopen);
        since = 0;
      }
    }
    if (!memory.length) while (memory.length < MEMORY) memory.push(current.found.objective);
    else memory[step % MEMORY] = current.found.objective;
    step++;
    return better;
  };

  let first = 0;
  search.round = () => {
    const none = new Uint8Array(m.lags.length);
    if (first < starts.length * 2) {
      // every rule once as it is, once with every window waiting for its reopening where it has one
      const key = starts[first % starts.length];
      const reopen = first < starts.length ? none : Uint8Array.from(none, (_v, k) => (reopens.includes(k) ? 1 : 0));
      first++;
      if (first > starts.length && !reopens.length) return false;
      const found = lay({ key, reopen, floor: null });
      if (found) {
        roots.push({ ...keep(found), reopen });
        roots.sort((x, y) => compare(m, x.objective, y.objective)).splice(ROOTS);
      }
      if (found && search.best && compare(m, found.objective, search.best.objective) > 0) return false;
      return consider(found, reopen);
    }
    if (!current) {
      // no rule gave anything: any order at all
      return consider(
        lay({
          key: Float64Array.from({ length: n }, () => random.next()),
          reopen: Uint8Array.from(none, (_v, k) => (reopens.includes(k) && random.below(2) ? 1 : 0)),
          floor: null,
        }),
        none,
      );
    }
    let cur = current as { found: Found; key: Float64Array; reopen: Uint8Array };
    if (++since > STALE && search.best) {
      // from the best again, or from what another rule had begun with
      since = 0;
      const from = random.below(2)
        ? { start: search.best.start, objective: search.best.objective, reopen: bestReopen }
        : roots[random.below(roots.length)];
      cur = current = {
        found: { start: from.start, objective: from.objective },
        key: keysOf(from.start),
        reopen: Uint8Array.from(from.reopen),
      };
      memory.fill(from.objective);
    }
    const key = Float64Array.from(cur.key);
    const reopen = Uint8Array.from(cur.reopen);
    const { start, objective } = cur.found;
    const span = Math.max(60, objective.finish);
    const times = 1 + random.below(2);
    // jobs that decide: late ones, or those that end last
    const badTasks: number[] = [];
    for (let i = 0; i < m.n; i++) {
      const end = endOf(m, i, start[i]);
      if (objective.lateness > 0 ? end > m.due[i] && m.weight[i] > 0 : end === objective.finish) badTasks.push(i);
    }
    const bad = badTasks.map((i) => job[i]);
    // and, one time in two, those that stand on the way back from one of them
    if (bad.length && random.below(2))
      for (const [, j] of heldUp(m, start, badTasks[random.below(badTasks.length)])) bad.push(job[j]);
    for (let t = 0; t < times; t++) {
      if (bad.length && random.below(5) === 0) {
        // on the way back from a task that decides: what waited for hands or a machine goes before what had them
        const ends = badTasks[random.below(badTasks.length)];
        const pairs = heldUp(m, start, ends);
        if (pairs.length) {
          const [i, j] = pairs[random.below(Math.min(pairs.length, 1 + random.below(pairs.length)))];
          const [a, b] = [blocks.of[i], blocks.of[j]];
          if (a !== b) {
            const to = key[b] - 1e-3;
            // with what its job has before it, as far as that lies behind
            if (random.below(2))
              for (const x of jobBlocks.get(job[i])!)
                if (key[x] > to && key[x] <= key[a] && x !== a) key[x] = to - 1e-3 * (key[a] - key[x]);
            key[a] = Math.min(key[a], to);
            continue;
          }
        }
      }
      const kind = random.below(12);
      const j =
        kind < 6 && bad.length && random.below(4) ? bad[random.below(bad.length)] : jobs[random.below(jobs.length)];
      const list = jobBlocks.get(j)!;
      if (kind < 2) {
        // first wherever it comes: as early as its own path lets it, from some block on
        const from = key[list[random.below(list.length)]];
        for (const b of list) if (key[b] >= from) key[b] = Math.min(key[b], headKey[b]);
      } else if (kind < 6) {
        // what a job still has from some block on, together
        const from = key[list[random.below(list.length)]];
        const by = -random.next() * span * (random.below(3) ? 0.08 : 0.4);
        for (const b of list) if (key[b] >= from) key[b] += by;
      } else if (kind < 8) {
        // it gives way to others, as far as its due date lets it
        const share = random.next();
        for (const b of list) key[b] += Math.max(0, lateKey[b] - key[b]) * share;
      } else if (kind < 10) {
        const b = list[random.below(list.length)];
        key[b] += (random.next() - 0.5) * (random.below(3) ? 600 : 3000);
      } else if (kind < 11 || !reopens.length) {
        // two blocks that lie near each other change places
        const a = random.below(n);
        let near = -1;
        for (let tries = 0; tries < 12; tries++) {
          const b = random.below(n);
          if (b !== a && (near < 0 || Math.abs(key[b] - key[a]) < Math.abs(key[near] - key[a]))) near = b;
        }
        if (near >= 0) [key[a], key[near]] = [key[near], key[a]];
      } else if (random.below(2)) reopen[reopens[random.below(reopens.length)]] ^= 1;
      else {
        // all windows of a job one way
        const way = random.below(2);
        for (const l of reopens) if (job[m.lags[l].from] === j) reopen[l] = way;
      }
    }
    return consider(lay({ key, reopen, floor: null }), reopen);
  };
  return search;
}
