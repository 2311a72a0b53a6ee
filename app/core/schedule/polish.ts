/**
 * The last two objectives: nothing is laid so as to please them, so a schedule that is good in all else is gone over once more. Work is
 * moved later, towards where it stood before or up to the hands-on work behind it, as long as no window, lateness or finish suffers.
 */
import { compare, endOf, enters, inside, leaves, objectiveOf, opens, type Lag, type Model } from "./model";
import { Timeline } from "./timeline";

/** tasks above which it is not tried: each try counts the trips anew */
const MOST = 1200;
const ROUNDS = 3;

/** Goes over the starts that it is given, one task between two yields; they stand for a schedule that is no worse whenever it yields. */
export function* polish(m: Model, start: Float64Array): Generator<void, void> {
  if (m.n > MOST || (m.trip < 0 && m.prefer.every((p) => p < 0))) return;
  const lines = m.capacity.map((c) => new Timeline(c));
  const hold = (l: Lag, sign: number): void => {
    const a = leaves(m, l, start[l.from], 0);
    for (const u of l.holds) lines[u.r].add(a, Math.max(a, enters(m, l, start[l.to], l.pieces - 1)), sign * u.amount);
  };
  const lay = (i: number, sign: number): void => {
    for (const u of m.uses[i]) lines[u.r].add(start[i], endOf(m, i, start[i]), sign * u.amount);
    for (const l of m.into[i]) hold(l, sign);
    for (const l of m.out[i]) hold(l, sign);
  };
  for (let i = 0; i < m.n; i++) for (const u of m.uses[i]) lines[u.r].add(start[i], endOf(m, i, start[i]), u.amount);
  for (const l of m.lags) hold(l, 1);
  const fits = (i: number, s: number): boolean => {
    if (s < m.earliest[i] || m.open[i].slot(s, m.work[i], m.pausable[i]).start !== s) return false;
    const was = start[i];
    start[i] = s;
    const ends = [...m.into[i], ...m.out[i]];
    let good = ends.every(
      (l) => opens(m, l, start[l.from]) <= start[l.to] && (l.soft || inside(m, l, start[l.from], start[l.to])),
    );
    // taken one after another, so that what they take together is seen
    const taken: [r: number, from: number, to: number, amount: number][] = [];
    const take = (r: number, from: number, to: number, amount: number): boolean => {
      if (to <= from) return true;
      if (lines[r].blocked(from, to, amount) >= 0) return false;
      lines[r].add(from, to, amount);
      taken.push([r, from, to, amount]);
      return true;
    };
    good &&=
      m.uses[i].every((u) => take(u.r, s, endOf(m, i, s), u.amount)) &&
      ends.every((l) =>
        l.holds.every((u) =>
          take(u.r, leaves(m, l, start[l.from], 0), enters(m, l, start[l.to], l.pieces - 1), u.amount),
        ),
      );
    for (const [r, from, to, amount] of taken) lines[r].add(from, to, -amount);
    start[i] = was;
    return good;
  };
  const hands = m.trip < 0 ? [] : m.ids.map((_id, i) => i).filter((i) => m.uses[i].some((u) => u.r === m.trip));
  let now = objectiveOf(m, start);
  for (let round = 0, better = true; better && round < ROUNDS; round++) {
    better = false;
    const order = m.ids.map((_id, i) => i).sort((a, b) => start[b] - start[a]);
    for (const i of order) {
      yield;
      if (m.fixed[i] >= 0) continue;
      const was = start[i];
      const tries: number[] = [];
      if (m.prefer[i] >= 0 && m.prefer[i] !== was) tries.push(m.prefer[i]);
      if (m.trip >= 0 && hands.includes(i)) {
        // up to the next of the hands’ work, or down to the end of the one before
        let [next, last] = [Infinity, -1];
        for (const j of hands)
          if (j !== i) {
            if (start[j] >= endOf(m, i, was)) next = Math.min(next, start[j]);
            const e = endOf(m, j, start[j]);
            if (e <= was) last = Math.max(last, e);
          }
        if (next < Infinity) tries.push(next - (endOf(m, i, was) - was));
        if (last >= 0) tries.push(last);
      }
      for (const s of tries) {
        if (s === was || s < 0) continue;
        lay(i, -1);
        const good = fits(i, s);
        if (good) start[i] = s;
        const o = good ? objectiveOf(m, start) : now;
        if (good && compare(m, o, now) < 0) {
          now = o;
          better = true;
          lay(i, 1);
          break;
        }
        start[i] = was;
        lay(i, 1);
      }
    }
  }
}
