/**
 * Longest paths (critical path method, Kelley and Walker 1959, here through calendars and clocks): below its head no task begins,
 * and behind its end at least its tail still follows. Resources are taken as unlimited.
 */
import { endOf, inside, opens, type Lag, type Model } from "../model";

export interface Paths {
  /** earliest start of each task; Infinity: a clock never gets that far */
  head: Float64Array;
  /** least minutes between the end of a task and the finish */
  tail: Float64Array;
}

/** Pushes starts to where lags, calendars and pins have them at the earliest. */
export function pushHeads(m: Model, head: Float64Array): void {
  for (const i of m.order) {
    let s = Math.max(head[i], m.earliest[i]);
    if (m.fixed[i] >= 0) {
      head[i] = m.fixed[i];
      continue;
    }
    for (const l of m.into[i]) s = Math.max(s, head[l.from] === Infinity ? Infinity : opens(m, l, head[l.from]));
    head[i] = s === Infinity ? s : m.open[i].slot(s, m.work[i], m.pausable[i]).start;
  }
}

/** Least minutes from the end of a lag's first task to the end of its second, whenever they come. */
export function leastSpan(m: Model, l: Lag): number {
  const wait = l.min <= 0 ? 0 : l.clock.most > 0 ? l.min / l.clock.most : Infinity;
  const rest = (k: number): number => (m.piece[l.to] ? m.work[l.to] - m.piece[l.to] * k : m.work[l.to]);
  if (l.pieces < 2) return wait + m.work[l.to];
  let most = wait + rest(l.pieces - 1);
  if (!m.pausable[l.from] && m.piece[l.from])
    for (let k = 0; k < l.pieces; k++) most = Math.max(most, wait - m.piece[l.from] * (l.pieces - 1 - k) + rest(k));
  return Math.ceil(most - 1e-6);
}

export function pathsOf(m: Model): Paths {
  const head = new Float64Array(m.n);
  pushHeads(m, head);
  const tail = new Float64Array(m.n);
  for (let k = m.n - 1; k >= 0; k--) {
    const i = m.order[k];
    for (const l of m.out[i]) tail[i] = Math.max(tail[i], Math.max(0, leastSpan(m, l)) + tail[l.to]);
  }
  return { head, tail };
}

/** Finish, lateness and broken windows that no schedule comes below, by paths alone. */
export function pathBound(m: Model, { head }: Paths): { finish: number; lateness: number; windowsBroken: number } {
  let [finish, lateness] = [0, 0];
  for (let i = 0; i < m.n; i++) {
    const end = endOf(m, i, head[i]);
    finish = Math.max(finish, end);
    if (end > m.due[i]) lateness += m.weight[i] * (end - m.due[i]);
  }
  // A window between two pinned tasks is broken or it is not.
  const windowsBroken = m.lags.filter(
    (l) => l.soft && m.fixed[l.from] >= 0 && m.fixed[l.to] >= 0 && !inside(m, l, m.fixed[l.from], m.fixed[l.to]),
  ).length;
  return { finish, lateness, windowsBroken };
}
