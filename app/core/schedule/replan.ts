/**
 * After a tap that came late, early or not at all: what is done or under way is pinned, all else stays where it stood unless something
 * pushes it. A few lists are laid in the old order, nothing earlier than before, so that little moves and the answer is there at once; a
 * search may go on from it.
 */
import { boundsOf, answerOf } from "./solve";
import { Builder, PUSH, REOPEN, SOONER } from "./build";
import { pathsOf } from "./bounds/path";
import { compare, compile, inside, objectiveOf, type Objective } from "./model";
import type { Answer, Problem } from "./problem";
import { jobsOf } from "./search";

/** lists laid at most, either way */
const ROUNDS = 8;
/** share of the work still to come that shall stay where it stood */
const STAY = 0.93;

/** A problem with tasks pinned to where they really began; waits between two of them are past and ask nothing any more. */
export function pin(p: Problem, at: ReadonlyMap<string, number>): Problem {
  return {
    ...p,
    tasks: p.tasks.map((t) => (at.has(t.id) ? { ...t, fixedStart: at.get(t.id)! } : t)),
    lags: p.lags.filter((l) => !at.has(l.from) || !at.has(l.to)),
  };
}

/**
 * @param p the problem as it is now, what is done pinned
 * @param before where tasks stood
 * @returns null where the old order leads to nothing: it has to be searched anew
 */
export function replan(p: Problem, before: Pick<Answer, "tasks">): Answer | null {
  const stood = new Map(before.tasks.map((t) => [t.id, t.start]));
  const problem: Problem = { ...p, tasks: p.tasks.map((t) => ({ ...t, preferStart: stood.get(t.id) ?? null })) };
  const m = compile(problem);
  const builder = new Builder(m);
  const paths = pathsOf(m);
  const was = Float64Array.from({ length: m.n }, (_, i) => (m.prefer[i] >= 0 ? m.prefer[i] : paths.head[i]));
  const key = Float64Array.from(builder.blocks.tasks, (list) => Math.min(...list.map((i) => was[i])));
  // a window that was let shut then is let shut now; one that was kept is kept for as long as that is sooner
  const ways = Uint8Array.from(m.lags, (l) =>
    l.max === Infinity
      ? PUSH
      : stood.has(m.ids[l.from]) && stood.has(m.ids[l.to]) && within(m, l.index, was)
        ? SOONER
        : REOPEN,
  );
  const job = jobsOf(m);
  const free = m.ids.filter((_id, i) => m.fixed[i] < 0).length;
  const moves = (list: number[], laid: Float64Array): boolean => list.some((i) => m.fixed[i] < 0 && laid[i] !== was[i]);
  let best: { start: Float64Array; stay: number; objective: Objective } | null = null;
  const consider = (laid: Float64Array): void => {
    const stay = laid.reduce((n, s, i) => n + Number(m.fixed[i] < 0 && s === was[i]), 0);
    const objective = objectiveOf(m, laid);
    const [good, kept] = [stay >= STAY * free, best !== null && best.stay >= STAY * free];
    if (!best || (good !== kept ? good : good ? compare(m, objective, best.objective) < 0 : stay > best.stay))
      best = { start: Float64Array.from(laid), stay, objective };
  };
  // What is pushed first, by the tap itself, is laid last, into the gaps between what stays; then what that pushes, and so on. And once
  // with the job of the tap in its place, so that all else gives way to it: it may have a window to keep.
  for (const yielding of [true, false]) {
    const yields = new Set<number>();
    let tapped = -1;
    for (let k = 0; k < ROUNDS; k++) {
      const keys = Float64Array.from(key, (x, b) => (yields.has(b) ? x + m.horizon : x));
      const laid = builder.lay({ key: keys, reopen: ways, floor: was });
      let first = -1;
      if (laid) {
        consider(laid);
        builder.blocks.tasks.forEach((list, b) => {
          if (
            !yields.has(b) &&
            (yielding || job[list[0]] !== tapped) &&
            moves(list, laid) &&
            (first < 0 || key[b] < key[first])
          )
            first = b;
        });
      } else first = builder.stuck.find((b) => !yields.has(b)) ?? -1;
      if (first < 0) break;
      const own = job[builder.blocks.tasks[first][0]];
      if (tapped < 0) {
        tapped = own;
        if (!yielding) continue;
      }
      builder.blocks.tasks.forEach((list, b) => job[list[0]] === own && key[b] >= key[first] && yields.add(b));
    }
  }
  const { start } = (best as { start: Float64Array } | null) ?? { start: null };
  if (!start) return null;
  const bounds = boundsOf(m, paths);
  return answerOf(m, start, { bounds, proved: false, provedFor: "all", decides: [], seconds: 0, iterations: 1 });
}

/**
 * The problem laid in the order in which its tasks stood: for a problem that is a little another one. What is laid together takes its
 * turn with the first of its tasks, and once with the last.
 * @param loose tasks that may begin sooner than they stood; the others never do; absent: all of them
 * @param bounds below which no answer can come, where they are known; absent: worked out
 * @returns null: that order leads to nothing
 */
export function laidInOrder(
  p: Problem,
  before: ReadonlyMap<string, number>,
  loose: ((id: string) => boolean) | null = null,
  bounds: Answer["bounds"] | null = null,
): Answer | null {
  const m = compile(p);
  const builder = new Builder(m);
  const paths = pathsOf(m);
  const was = Float64Array.from(m.ids, (id, i) => before.get(id) ?? paths.head[i]);
  const reopen = new Uint8Array(m.lags.length).fill(SOONER);
  // where all of them may not, it is tried so once
  const floors = loose ? [was.map((s, i) => (loose(m.ids[i]) ? 0 : s)), was] : [null];
  let best: { start: Float64Array; objective: Objective } | null = null;
  for (const [pick, floor] of [Math.min, Math.max].flatMap((f) => floors.map((x) => [f, x] as const))) {
    const key = Float64Array.from(builder.blocks.tasks, (list) => pick(...list.map((i) => was[i])));
    const laid = builder.lay({ key, reopen, floor });
    const objective = laid && objectiveOf(m, laid);
    if (laid && objective && (!best || compare(m, objective, best.objective) < 0))
      best = { start: Float64Array.from(laid), objective };
  }
  return (
    best &&
    answerOf(m, best.start, {
      bounds: bounds ?? boundsOf(m, paths),
      proved: false,
      provedFor: "all",
      decides: [],
      seconds: 0,
      iterations: 1,
    })
  );
}

/** Below which no answer of a problem can come. */
export function boundsFor(p: Problem): Answer["bounds"] {
  const m = compile(p);
  return boundsOf(m, pathsOf(m));
}

/** Did the second task of a lag come before the closing, and not after the reopening? */
function within(m: ReturnType<typeof compile>, lag: number, start: Float64Array): boolean {
  const l = { ...m.lags[lag], reopens: Infinity };
  return inside(m, l, start[l.from], start[l.to]);
}
