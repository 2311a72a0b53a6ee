/**
 * Problems that are all order and no windows (job shops and what is like them): tabu search over the order on each machine. A move
 * takes one task of a critical block before or behind others of it (Balas and Vazacopoulos 1998, with the moves of Zhang and others
 * 2007 from the ends inward); what a move gives is estimated from the segment it touches, and the best that was not undone lately is
 * made (Nowicki and Smutnicki 1996). Where nothing has come for long, it goes back to a good order kept, shaken a little.
 */
import type { Model } from "./model";
import type { Random } from "../units/random";

/** May this problem be searched by machine orders alone? */
export function isShop(m: Model): boolean {
  return (
    m.n > 0 &&
    m.lags.every(
      (l) => l.max === Infinity && l.holds.length === 0 && l.pieces === 1 && l.ends && Number.isInteger(l.min),
    ) &&
    m.uses.every(
      (u) => u.length <= 1 && u.every((x) => 2 * x.amount > m.capacity[x.r] && x.amount <= m.capacity[x.r]),
    ) &&
    m.closedOf.every((c) => c.closed.length === 0) &&
    m.due.every((d) => d === Infinity) &&
    m.fixed.every((f) => f < 0) &&
    m.work.every((w) => w > 0)
  );
}

interface Move {
  /** machine, place on it, and the order that its segment would have from there */
  r: number;
  from: number;
  order: number[];
  value: number;
}

/** rounds without a better finish after which it goes back to a kept order */
const PATIENCE = 4000;
const ELITE = 12;

export interface ShopSearch {
  /** one round of the search; true: it has found a better one */
  round(): boolean;
  best: Float64Array;
  finish: number;
}

/** @param first starts of a valid schedule: it gives the first order */
export function shopSearch(m: Model, first: Float64Array, random: Random): ShopSearch {
  const { n } = m;
  const p = m.work;
  const machine = m.uses.map((u) => (u.length ? u[0].r : -1));
  let seq: number[][] = m.capacity.map(() => []);
  for (let i = 0; i < n; i++) if (machine[i] >= 0) seq[machine[i]].push(i);
  for (const s of seq) s.sort((a, b) => first[a] - first[b]);
  const pos = new Int32Array(n);
  const [head, tail, jobHead, jobTail] = [0, 0, 0, 0].map(() => new Float64Array(n));
  const into = m.into.map((list) => list.map((l) => [l.from, l.min] as const));
  const out = m.out.map((list) => list.map((l) => [l.to, l.min] as const));
  const queue = new Int32Array(n);
  const left = new Int32Array(n);
  const mp = (i: number): number => (machine[i] < 0 || pos[i] === 0 ? -1 : seq[machine[i]][pos[i] - 1]);
  const ms = (i: number): number =>
    machine[i] < 0 || pos[i] + 1 >= seq[machine[i]].length ? -1 : seq[machine[i]][pos[i] + 1];

  /** Heads and tails along all arcs; the finish, or Infinity where the orders go in a circle. */
  const evaluate = (): number => {
    for (const s of seq) for (let k = 0; k < s.length; k++) pos[s[k]] = k;
    let tailAt = 0;
    for (let i = 0; i < n; i++) {
      left[i] = into[i].length + (mp(i) >= 0 ? 1 : 0);
      if (!left[i]) queue[tailAt++] = i;
    }
    for (let k = 0; k < tailAt; k++) {
      const i = queue[k];
      let r = m.earliest[i];
      for (const [j, min] of into[i]) r = Math.max(r, head[j] + p[j] + min);
      jobHead[i] = r;
      const before = mp(i);
      head[i] = before >= 0 ? Math.max(r, head[before] + p[before]) : r;
      for (const [j] of out[i]) if (!--left[j]) queue[tailAt++] = j;
      const next = ms(i);
      if (next >= 0 && !--left[next]) queue[tailAt++] = next;
    }
    if (tailAt < n) return Infinity;
    let finish = 0;
    for (let k = n - 1; k >= 0; k--) {
      const i = queue[k];
      let q = 0;
      for (const [j, min] of out[i]) q = Math.max(q, min + tail[j]);
      jobTail[i] = q;
      const next = ms(i);
      tail[i] = p[i] + (next >= 0 ? Math.max(q, tail[next]) : q);
      finish = Math.max(finish, head[i] + tail[i]);
    }
    return finish;
  };

  let now = evaluate();
  let best = now;
  const bestStart = Float64Array.from(head);
  const tabu = new Map<number, number>();
  let it = 0;
  let since = 0;
  let elite: { seq: number[][]; finish: number }[] = [];
  const copy = (s: number[][]): number[][] => s.map((x) => x.slice());
  const machines = Math.max(1, seq.filter((s) => s.length > 1).length);
  const base = 10 + Math.floor(n / machines / machines);

  /** One critical path, picked at random, as its blocks on machines. */
  const blocks = (): number[][] => {
    const starts: number[] = [];
    for (let i = 0; i < n; i++) if (head[i] + tail[i] === now && head[i] === m.earliest[i]) starts.push(i);
    const list: number[][] = [];
    let i = starts[random.below(starts.length)];
    let block = [i];
    while (tail[i] > p[i]) {
      const end = head[i] + p[i];
      const next: number[] = [];
      const k = ms(i);
      if (k >= 0 && head[k] === end && head[k] + tail[k] === now) next.push(k);
      for (const [j, min] of out[i]) if (head[j] === end + min && head[j] + tail[j] === now && j !== k) next.push(j);
      if (!next.length) break;
      const to = next[random.below(next.length)];
      if (to === k) block.push(to);
      else {
        list.push(block);
        block = [to];
      }
      i = to;
    }
    list.push(block);
    return list.filter((b) => b.length > 1);
  };

  const newHead = new Float64Array(n);
  const newTail = new Float64Array(n);
  /** Finish at least, were the segment of a machine put in this order. */
  const estimate = (r: number, from: number, order: number[]): number => {
    const s = seq[r];
    let last = from > 0 ? head[s[from - 1]] + p[s[from - 1]] : 0;
    for (const i of order) {
      newHead[i] = Math.max(jobHead[i], last);
      last = newHead[i] + p[i];
    }
    const end = from + order.length;
    let behind = end < s.length ? tail[s[end]] : 0;
    let most = 0;
    for (let k = order.length - 1; k >= 0; k--) {
      const i = order[k];
      newTail[i] = p[i] + Math.max(jobTail[i], behind);
      behind = newTail[i];
      most = Math.max(most, newHead[i] + newTail[i]);
    }
    return most;
  };
  const arc = (a: number, b: number): number => a * n + b;

  const round = (): boolean => {
    it++;
    let pick: Move | null = null;
    let ties = 0;
    let any: Move | null = null;
    const offer = (r: number, a: number, b: number, forward: boolean): void => {
      const s = seq[r];
      const [u, v] = [s[a], s[b]];
      // it may go there if nothing that follows its own job leads back
      if (forward) {
        for (const [j, min] of out[u]) if (min + tail[j] > tail[v]) return;
      } else for (const [j, min] of into[v]) if (head[j] + p[j] + min > head[u] + p[u]) return;
      const seg = s.slice(a, b + 1);
      const order = forward ? [...seg.slice(1), u] : [v, ...seg.slice(0, -1)];
      const value = estimate(r, a, order);
      let taboo = false;
      for (let k = 0; k < seg.length && !taboo; k++) {
        if (forward && k > 0) taboo = (tabu.get(arc(seg[k], u)) ?? 0) > it;
        if (!forward && k < seg.length - 1) taboo = (tabu.get(arc(v, seg[k])) ?? 0) > it;
      }
      const move: Move = { r, from: a, order, value };
      if (random.below(4) === 0 || !any) any = move;
      if (taboo && value >= best) return;
      const most = pick as Move | null;
      if (!most || value < most.value) {
        pick = move;
        ties = 1;
      } else if (value === most.value && random.below(++ties) === 0) pick = move;
    };
    for (const b of blocks()) {
      const r = machine[b[0]];
      const [lo, hi] = [pos[b[0]], pos[b[b.length - 1]]];
      for (let k = lo; k < hi; k++) offer(r, k, hi, true);
      for (let k = lo + 1; k < hi; k++) offer(r, lo, k, true);
      if (hi > lo + 1) {
        for (let k = lo + 1; k <= hi; k++) offer(r, lo, k, false);
        for (let k = lo + 1; k < hi; k++) offer(r, k, hi, false);
      }
    }
    const move = (pick ?? any) as Move | null;
    if (!move) return false;
    const s = seq[move.r];
    const old = s.slice(move.from, move.from + move.order.length);
    const tenure = base + random.below(Math.max(2, Math.floor(base * 0.6)));
    for (let x = 0; x < old.length; x++)
      for (let y = x + 1; y < old.length; y++)
        if (move.order.indexOf(old[x]) > move.order.indexOf(old[y])) tabu.set(arc(old[x], old[y]), it + tenure);
    s.splice(move.from, move.order.length, ...move.order);
    const value = evaluate();
    if (value === Infinity) {
      s.splice(move.from, old.length, ...old);
      now = evaluate();
      since++;
      return false;
    }
    now = value;
    if (now < best) {
      best = now;
      bestStart.set(head);
      since = 0;
      elite.push({ seq: copy(seq), finish: best });
      elite = elite.sort((a, b) => a.finish - b.finish).slice(0, ELITE);
      search.finish = best;
      return true;
    }
    if (++since > PATIENCE) {
      since = 0;
      tabu.clear();
      // back to a kept order, the newest best most often, with a few neighbours on critical blocks exchanged
      const from = elite.length ? elite[Math.min(random.below(ELITE), random.below(ELITE), elite.length - 1)] : null;
      if (from) {
        const kept = { seq: copy(seq), finish: now };
        seq = copy(from.seq);
        now = evaluate();
        if (kept.finish < best * 1.02 && elite.length < ELITE) elite.push(kept);
      }
      for (let k = 0, times = 4 + random.below(12); k < times; k++) {
        const list = blocks();
        if (!list.length) break;
        const b = list[random.below(list.length)];
        const at = pos[b[0]] + random.below(b.length - 1);
        const line = seq[machine[b[0]]];
        [line[at], line[at + 1]] = [line[at + 1], line[at]];
        const shaken = evaluate();
        if (shaken === Infinity) {
          [line[at], line[at + 1]] = [line[at + 1], line[at]];
          now = evaluate();
        } else now = shaken;
      }
    }
    if (it % 5000 === 0) for (const [k, until] of tabu) if (until <= it) tabu.delete(k);
    return false;
  };
  elite.push({ seq: copy(seq), finish: best });
  const search: ShopSearch = { round, best: bestStart, finish: best };
  return search;
}
