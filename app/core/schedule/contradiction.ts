/**
 * Why there is no schedule: a smallest set of tasks and lags that contradict each other. From all of them one after another is left out,
 * and stays out if the rest still has no schedule (deletion filtering, Chinneck and Dravnieks 1991): of what remains, every single one
 * is needed for the contradiction. Contradictions that have nothing to do with each other are found one by one.
 */
import { pathsOf } from "./bounds/path";
import { Builder } from "./build";
import { exact } from "./exact";
import { compile } from "./model";
import type { Problem } from "./problem";

export interface Contradiction {
  tasks: string[];
  /** as `from>to` */
  lags: string[];
  say: string;
}
/**
 * nodes after which a part counts as possible, since nothing has shown the contrary; more where a part is small
 * enough to be looked through
 */
const NODES = 4_000;
const NODES_SMALL = 120_000;
const SMALL = 6;
const ORDERS = 6;

/** A problem with some of its tasks and lags (by index) only. */
export function part(p: Problem, tasks: ReadonlySet<string>, lags: ReadonlySet<number>): Problem {
  return {
    ...p,
    tasks: p.tasks.filter((t) => tasks.has(t.id)),
    lags: p.lags.filter((l, i) => lags.has(i) && tasks.has(l.from) && tasks.has(l.to)),
  };
}

/** false: shown to have no schedule */
function possible(p: Problem, stop?: () => boolean): boolean {
  if (!p.tasks.length) return true;
  const m = compile(p);
  const paths = pathsOf(m);
  if (paths.head.some((h) => !(h <= m.horizon))) return false;
  const builder = new Builder(m);
  const key = new Float64Array(builder.blocks.tasks.length);
  for (let k = 0; k < ORDERS; k++) {
    builder.blocks.tasks.forEach(
      (list, b) => (key[b] = k === 0 ? paths.head[list[0]] : k === 1 ? -paths.tail[list[0]] : (b * 7919 * k) % 101),
    );
    const reopen = Uint8Array.from(m.lags, (l) => (k % 2 && (l.soft || l.reopens !== Infinity) ? 1 : 0));
    if (builder.lay({ key, reopen, floor: null })) return true;
  }
  const all = exact(m, paths, null, m.n <= SMALL ? NODES_SMALL : NODES, stop);
  return all.start !== null || !all.complete;
}

const quoted = (ids: string[]): string => ids.map((x) => `“${x}”`).join(", ");

/** A small part in which the contradiction lies, where a look finds it: a task, the two ends of a wait, a job. */
function near(
  p: Problem,
  tasks: ReadonlySet<string>,
  lags: ReadonlySet<number>,
  stop?: () => boolean,
): string[] | null {
  const fails = (ids: string[]): boolean => !possible(part(p, new Set(ids), lags), stop);
  for (const id of tasks) if (fails([id])) return [id];
  const ties = [...lags].map((i) => p.lags[i]).filter((l) => tasks.has(l.from) && tasks.has(l.to));
  for (const l of ties) if (fails([l.from, l.to])) return [l.from, l.to];
  const next = new Map<string, string[]>([...tasks].map((id) => [id, []]));
  for (const l of ties) {
    next.get(l.from)!.push(l.to);
    next.get(l.to)!.push(l.from);
  }
  const seen = new Set<string>();
  for (const id of tasks) {
    if (seen.has(id)) continue;
    const job = [id];
    seen.add(id);
    for (let k = 0; k < job.length; k++)
      for (const to of next.get(job[k])!)
        if (!seen.has(to)) {
          seen.add(to);
          job.push(to);
        }
    if (job.length < tasks.size && fails(job)) return job;
  }
  return null;
}

/** @returns the sets; null: no contradiction could be shown */
export function contradiction(p: Problem, stop?: () => boolean): Contradiction[] | null {
  const sets: Contradiction[] = [];
  let tasks = new Set(p.tasks.map((t) => t.id));
  let lags = new Set(p.lags.map((_l, i) => i));
  for (;;) {
    if (stop?.() || possible(part(p, tasks, lags), stop)) return sets.length ? sets : null;
    const inL = new Set(lags);
    const inT = new Set(near(p, tasks, lags, stop) ?? tasks);
    // halves first, then one by one: most of a large shop has no part in it
    for (let size = Math.ceil(inT.size / 2); size >= 1; size = size === 1 ? 0 : Math.ceil(size / 2)) {
      const list = [...inT];
      for (let k = 0; k < list.length; k += size) {
        const out = list.slice(k, k + size);
        out.forEach((id) => inT.delete(id));
        if (!inT.size || possible(part(p, inT, inL), stop)) out.forEach((id) => inT.add(id));
      }
    }
    for (const i of [...inL]) {
      inL.delete(i);
      if (!inT.has(p.lags[i].from) || !inT.has(p.lags[i].to)) continue;
      if (possible(part(p, inT, inL), stop)) inL.add(i);
    }
    const named = [...inL].map((i) => p.lags[i]);
    const ids = [...inT];
    sets.push({
      tasks: ids,
      lags: named.map((l) => `${l.from}>${l.to}`),
      say: named.length
        ? `${quoted(ids)} and the waits ${named.map((l) => `“${l.from}” → “${l.to}”`).join(", ")} contradict each other`
        : ids.length === 1
          ? `${quoted(ids)} can’t be done at all`
          : `${quoted(ids)} contradict each other`,
    });
    tasks = new Set([...tasks].filter((id) => !inT.has(id)));
    lags = new Set([...lags].filter((i) => !inL.has(i)));
  }
}
