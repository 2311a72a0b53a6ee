/**
 * Seeded scheduling problems with every kind of lag, clock, closed time, batch and hold; and all schedules of a small
 * one, tried one by one.
 */
import { readProblem, type Problem, type ProblemInput } from "../schedule/problem";
import { randomOf, type Random } from "../units/random";

export interface Size {
  minutes: number;
  wait: number;
  closed: number;
  pieces: number;
  /** hard windows may be so tight that nothing fits */
  tight: boolean;
}
export const SMALL: Size = { minutes: 4, wait: 5, closed: 6, pieces: 3, tight: true };
export const LARGE: Size = { minutes: 40, wait: 90, closed: 300, pieces: 6, tight: false };

/** @param n tasks */
export function seededProblem(seed: number, n: number, size: Size): Problem {
  const r: Random = randomOf(seed * 7919 + n);
  const one = <T>(list: T[]): T => list[r.below(list.length)];
  const span = (): [number, number] => {
    const a = r.below(size.closed * 3);
    return [a, a + 1 + r.below(size.closed)];
  };
  const resources = [
    { id: "hands", capacity: 1, closed: r.below(2) ? Array.from({ length: 1 + r.below(2) }, span) : [] },
    { id: "machine", capacity: 1, closed: r.below(4) ? [] : [span()] },
    { id: "rack", capacity: (size.tight ? 2 : 9) + r.below(3), closed: [] as [number, number][] },
  ];
  const clocks = [
    {
      id: "water",
      rates: [
        [0, 1],
        [2 + r.below(size.wait * 2), one([0, 0.4, 0.5])],
        [size.wait * 2 + 3 + r.below(size.wait), one([0.8, 1, 2])],
      ] as [number, number][],
    },
    {
      id: "warm",
      rates: [
        [0, one([1, 1.5])],
        [3 + r.below(size.wait * 3), one([0.7, 1.25, 2])],
      ] as [number, number][],
    },
  ];
  const batch = 1 + r.below(size.pieces);
  const tasks = Array.from({ length: n }, (_, i) => {
    const perPiece = r.below(3) === 0;
    const uses = one([["hands"], ["hands"], ["machine"], ["hands", "machine"], ["rack"], []]).map((resource) => ({
      resource,
      amount: resource === "rack" ? 1 + r.below(2) : 1,
    }));
    return {
      id: `t${i}`,
      minutes: perPiece ? 1 + r.below(Math.max(1, Math.ceil(size.minutes / 2))) : r.below(size.minutes + 1),
      uses,
      pieces: perPiece ? batch : 1,
      perPiece,
      pausable: r.below(3) === 0,
      earliest: r.below(3) ? 0 : r.below(size.wait),
      due: r.below(3) ? null : 3 + r.below(n * size.minutes),
      weight: 1 + r.below(3),
      fixedStart: null as number | null,
      preferStart: r.below(4) ? null : r.below(n * size.minutes),
    };
  });
  const lags: NonNullable<ProblemInput["lags"]> = [];
  for (let j = 1; j < n; j++) {
    if (r.below(5) === 0) continue;
    const i = j - 1 - (r.below(3) ? 0 : r.below(j));
    const min = r.below(size.wait);
    const max = r.below(2) ? null : min + r.below(size.wait);
    const clock = r.below(2) ? null : one(["water", "warm"]);
    const soft = r.below(3) === 0;
    const reopens = max === null || (r.below(2) && (size.tight || soft)) ? null : max + 1 + r.below(size.wait);
    lags.push({
      from: `t${i}`,
      to: `t${j}`,
      min,
      max,
      reopens,
      soft,
      clock,
      closeClock: max === null || r.below(2) ? null : "warm",
      perPiece: r.below(2) === 0 && (!tasks[i].perPiece || !tasks[j].perPiece || tasks[i].pieces === tasks[j].pieces),
      holds: r.below(3) ? [] : [{ resource: "rack", amount: 1 + r.below(2) }],
    });
  }
  return readProblem({
    name: `seeded ${seed}`,
    seed,
    limitIterations: 400,
    resources,
    clocks,
    tasks,
    lags,
    trip: r.below(2) ? { resource: "hands", gap: r.below(3) } : null,
    finishBucket: one([1, 1, 5]),
  });
}

/**
 * The objective of the best of all schedules that end within so many minutes, by trying every start of every task; null: none does.
 * Knows the file format only, and counts minute by minute.
 */
export function exhaustive(p: Problem, within: number): [number, number, number, number, number] | null {
  const closed = new Map(p.resources.map((r) => [r.id, r.closed]));
  const speed = (clock: string | null): Float64Array => {
    const read = new Float64Array(within + 2);
    const rates = clock === null ? null : p.clocks.find((c) => c.id === clock)!.rates;
    for (let t = 0; t <= within; t++) {
      let v = 1;
      if (rates) {
        v = rates[0][1];
        for (const [from, s] of rates) if (from <= t) v = s;
      }
      read[t + 1] = read[t] + v;
    }
    return read;
  };
  const reads = new Map<string | null, Float64Array>([null, ...p.clocks.map((c) => c.id)].map((c) => [c, speed(c)]));
  // every way in which a task can run: its minutes of work, one by one
  const runs = p.tasks.map((t) => {
    const shut = (m: number): boolean => t.uses.some((u) => closed.get(u.resource)!.some(([a, b]) => a <= m && m < b));
    const work = t.minutes * (t.perPiece ? t.pieces : 1);
    const list: { start: number; end: number; at: number[] }[] = [];
    for (let s = t.fixedStart ?? t.earliest; s <= (t.fixedStart ?? within); s++) {
      const at: number[] = [];
      let m = s;
      for (; at.length < work && m < within; m++) {
        if (!shut(m)) at.push(m);
        else if (!t.pausable || !at.length) break;
      }
      if (at.length === work) list.push({ start: s, end: work ? at[work - 1] + 1 : s, at });
    }
    return list;
  });
  const number = new Map(p.tasks.map((t, i) => [t.id, i]));
  const EPS = 1e-6;
  /** 0: not allowed, 1: kept, 2: soft and broken */
  const judge = (
    l: Problem["lags"][number],
    a: { end: number; start: number; at: number[] },
    b: { end: number; start: number; at: number[] },
  ): 0 | 1 | 2 => {
    const [x, y] = [p.tasks[number.get(l.from)!], p.tasks[number.get(l.to)!]];
    const pieces = !l.perPiece ? 1 : x.perPiece ? x.pieces : y.perPiece ? y.pieces : 1;
    const [open, close] = [reads.get(l.clock)!, reads.get(l.closeClock)!];
    let all: 1 | 2 = 1;
    for (let k = 0; k < pieces; k++) {
      const e = l.perPiece && x.perPiece ? (x.minutes ? a.at[x.minutes * (k + 1) - 1] + 1 : a.start) : a.end;
      const s = l.perPiece && y.perPiece && y.minutes ? b.at[y.minutes * k] : b.start;
      if (s < e) return 0;
      const waited = open[s] - open[e];
      if (waited < l.min - EPS) return 0;
      if (l.max !== null && close[s] - close[e] > l.max + EPS && (l.reopens === null || waited < l.reopens - EPS)) {
        if (!l.soft) return 0;
        all = 2;
      }
    }
    return all;
  };
  let best: [number, number, number, number, number] | null = null;
  const less = (a: number[], b: number[]): boolean => {
    for (let k = 0; k < a.length; k++) if (Math.abs(a[k] - b[k]) > EPS) return a[k] < b[k];
    return false;
  };
  const pick: { start: number; end: number; at: number[] }[] = [];
  const use = p.resources.map(() => new Int32Array(within + 2));
  const rIndex = new Map(p.resources.map((r, i) => [r.id, i]));
  const add = (resource: string, a: number, b: number, amount: number): boolean => {
    const row = use[rIndex.get(resource)!];
    let fits = true;
    for (let m = a; m < b; m++) {
      row[m] += amount;
      if (row[m] > p.resources[rIndex.get(resource)!].capacity) fits = false;
    }
    return fits;
  };
  const holdOf = (l: Problem["lags"][number]): [number, number] => {
    const [x, y] = [p.tasks[number.get(l.from)!], p.tasks[number.get(l.to)!]];
    const [a, b] = [pick[number.get(l.from)!], pick[number.get(l.to)!]];
    if (!l.perPiece) return [a.end, b.start];
    const pieces = x.perPiece ? x.pieces : y.perPiece ? y.pieces : 1;
    return [
      x.perPiece ? (x.minutes ? a.at[x.minutes - 1] + 1 : a.start) : a.end,
      y.perPiece && y.minutes ? b.at[y.minutes * (pieces - 1)] : b.start,
    ];
  };
  /** fewest trips that any schedule has, so that minutes moved can cut a branch as well */
  const least = p.trip && p.tasks.some((t) => t.uses.some((u) => u.resource === p.trip!.resource)) ? 1 : 0;
  const down = (i: number, broken: number, late: number, finish: number): void => {
    // nothing that is laid later makes any of these smaller
    const so = [
      broken,
      late,
      Math.ceil(finish / p.finishBucket),
      least,
      p.tasks
        .slice(0, i)
        .reduce((x, t, k) => x + (t.preferStart === null ? 0 : Math.abs(pick[k].start - t.preferStart)), 0),
    ];
    if (best && !less(so, best)) return;
    if (i === p.tasks.length) {
      let trips = 0;
      if (p.trip) {
        let until = -Infinity;
        for (const [a, b] of p.tasks
          .map((t, k): [number, number, boolean] => [
            pick[k].start,
            pick[k].end,
            t.uses.some((u) => u.resource === p.trip!.resource),
          ])
          .filter((x) => x[2])
          .sort((x, y) => x[0] - y[0])) {
          if (a > until + p.trip.gap) trips++;
          until = Math.max(until, b);
        }
      }
      const o: [number, number, number, number, number] = [
        broken,
        late,
        Math.ceil(finish / p.finishBucket),
        trips,
        p.tasks.reduce((x, t, k) => x + (t.preferStart === null ? 0 : Math.abs(pick[k].start - t.preferStart)), 0),
      ];
      if (!best || less(o, best)) best = o;
      return;
    }
    const t = p.tasks[i];
    const into = p.lags
      .filter((l) => l.to === t.id || l.from === t.id)
      .filter((l) => number.get(l.to)! <= i && number.get(l.from)! <= i);
    for (const run of runs[i]) {
      pick[i] = run;
      let soft = 0;
      let good = true;
      for (const l of into) {
        const j = judge(l, pick[number.get(l.from)!], pick[number.get(l.to)!]);
        if (j === 0) {
          good = false;
          break;
        }
        soft += Number(j === 2);
      }
      if (!good) continue;
      // resources are held from the first minute to the last, pauses among them
      for (const u of t.uses) if (!add(u.resource, run.start, run.end, u.amount)) good = false;
      for (const l of into) for (const u of l.holds) if (!add(u.resource, ...holdOf(l), u.amount)) good = false;
      if (good)
        down(
          i + 1,
          broken + soft,
          late + (t.due === null ? 0 : t.weight * Math.max(0, run.end - t.due)),
          Math.max(finish, run.end),
        );
      for (const u of t.uses) add(u.resource, run.start, run.end, -u.amount);
      for (const l of into) for (const u of l.holds) add(u.resource, ...holdOf(l), -u.amount);
    }
  };
  down(0, 0, 0, 0);
  return best;
}
