/**
 * What decides the finish: from the task that ends last back along what each had to wait for (work before it, a wait, closed time,
 * something else on the same resource), and for each link how much sooner all would be done without it, found by laying the schedule
 * again with that link relaxed.
 */
import { pathsOf } from "./bounds/path";
import { Builder } from "./build";
import { compile, endOf, opens, type Model } from "./model";
import type { Decide, Problem } from "./problem";

/** longest links whose gain is worked out */
const GAINS = 10;

interface Link extends Decide {
  relax: ((p: Problem) => Problem) | null;
}

/** The chain, from the beginning to the finish. */
export function chain(p: Problem, m: Model, start: Float64Array): Link[] {
  const links: Link[] = [];
  if (!m.n) return links;
  const ends = m.ids.map((_id, i) => endOf(m, i, start[i]));
  let i = ends.indexOf(Math.max(...ends));
  const seen = new Set<number>();
  const edit =
    (f: (q: Problem) => void) =>
    (q: Problem): Problem => {
      const copy = JSON.parse(JSON.stringify(q)) as Problem;
      f(copy);
      return copy;
    };
  const shut = (a: number, b: number, of: number): void => {
    const closed = m.open[of].closed.filter(([x, y]) => x < b && a < y);
    if (!closed.length) return;
    const [x, y] = [Math.max(a, closed[0][0]), Math.min(b, closed[closed.length - 1][1])];
    const names = m.uses[of]
      .map((u) => p.resources[u.r])
      .filter((r) => r.closed.some(([c, d]) => c < y && x < d))
      .map((r) => r.id);
    links.unshift({
      kind: "closed",
      id: names[0] ?? "",
      from: x,
      to: y,
      why: `“${names.join("”, “")}” shut before “${m.ids[of]}” can go on`,
      gain: null,
      relax: edit((q) =>
        q.resources.forEach(
          (r) =>
            names.includes(r.id) &&
            (r.closed = r.closed.flatMap(([c, d]): [number, number][] =>
              c < y && x < d
                ? [...(c < x ? [[c, x] as [number, number]] : []), ...(d > y ? [[y, d] as [number, number]] : [])]
                : [[c, d]],
            )),
        ),
      ),
    });
  };
  while (!seen.has(i)) {
    seen.add(i);
    const [s, e] = [start[i], ends[i]];
    const k = i;
    if (m.pausable[i]) shut(s, e, i);
    links.unshift({
      kind: "task",
      id: m.ids[i],
      from: s,
      to: e,
      why: `“${m.ids[i]}” takes ${m.work[i]} min`,
      gain: null,
      relax: m.work[i] > 0 && m.fixed[i] < 0 ? edit((q) => (q.tasks[k].minutes = 0)) : null,
    });
    if (m.fixed[i] >= 0) break;
    // what it had to wait for at the latest
    let from = m.earliest[i];
    let by: { lag: number } | { task: number; resource: number } | null = null;
    for (const l of m.into[i]) {
      const at = opens(m, l, start[l.from]);
      if (at > from || (at === from && by === null && at > 0)) {
        from = at;
        by = { lag: l.index };
      }
    }
    if (from < s) {
      // free of its lags, yet not begun: shut, or taken by something that ended where it begins
      const open = m.open[i].slot(from, m.work[i], m.pausable[i]).start;
      if (open < s) {
        let [last, task, resource] = [-1, -1, -1];
        for (const u of m.uses[i])
          for (let j = 0; j < m.n; j++)
            if (j !== i && ends[j] <= s && ends[j] > last && ends[j] > from && m.uses[j].some((v) => v.r === u.r))
              [last, task, resource] = [ends[j], j, u.r];
        if (task >= 0) {
          if (last < s) shut(last, s, i);
          by = { task, resource };
          from = last;
        } else {
          // no work was in the way: a window further on, or a place that was held, has it begin no earlier
          const behind = m.out[i].find((l) => l.max !== Infinity);
          if (behind)
            links.unshift({
              kind: "wait",
              id: `${m.ids[behind.from]}>${m.ids[behind.to]}`,
              from,
              to: s,
              why: `begun no earlier, so that “${m.ids[behind.to]}” comes before the window shuts`,
              gain: null,
              relax: edit((q) => ((q.lags[behind.index].max = null), (q.lags[behind.index].reopens = null))),
            });
          else shut(from, s, i);
        }
      } else shut(from, s, i);
    }
    if (!by) break;
    if ("task" in by) {
      const { task, resource } = by;
      links.unshift({
        kind: "resource",
        id: p.resources[resource].id,
        from: ends[task],
        to: s,
        why: `“${p.resources[resource].id}” is taken by “${m.ids[task]}” until then`,
        gain: null,
        relax: edit((q) => (q.resources[resource].capacity *= 2)),
      });
      i = task;
    } else {
      const l = m.lags[by.lag];
      if (opens(m, l, start[l.from]) > ends[l.from] || l.min > 0)
        links.unshift({
          kind: "wait",
          id: `${m.ids[l.from]}>${m.ids[l.to]}`,
          from: ends[l.from],
          to: Math.max(ends[l.from], from),
          why: `${Math.max(0, Math.round(from - ends[l.from]))} min to wait after “${m.ids[l.from]}” before “${m.ids[l.to]}”`,
          gain: null,
          relax: edit((q) => (q.lags[by.lag].min = 0)),
        });
      i = l.from;
    }
  }
  return links;
}

/**
 * One gain worked out between two yields; what is left out by then has none.
 * @param start a schedule; the gains are against its finish
 * @param out what is known so far
 */
export function* explain(
  p: Problem,
  m: Model,
  builder: Builder,
  start: Float64Array,
  out: Decide[],
): Generator<void, void> {
  const links = chain(p, m, start);
  const keyed = (x: Model, b: Builder, rule: number): Float64Array => {
    const paths = pathsOf(x);
    return Float64Array.from(b.blocks.tasks, (list) =>
      Math.min(...list.map((i) => (rule === 0 ? start[i] : rule === 1 ? paths.head[i] : -paths.tail[i] - x.work[i]))),
    );
  };
  const finish = (x: Model, b: Builder): number => {
    let best = Infinity;
    for (let rule = 0; rule < 3; rule++)
      for (const reopen of [0, 1]) {
        const got = b.lay({ key: keyed(x, b, rule), reopen: new Uint8Array(x.lags.length).fill(reopen), floor: null });
        if (got)
          best = Math.min(
            best,
            got.reduce((a, s, i) => Math.max(a, endOf(x, i, s)), 0),
          );
      }
    return best;
  };
  let now = 0;
  for (let i = 0; i < m.n; i++) now = Math.max(now, endOf(m, i, start[i]));
  const told = links.map(({ relax: _relax, ...d }): Decide => d);
  out.push(...told);
  const late = m.ids
    .map((_id, i) => i)
    .filter((i) => m.due[i] < Infinity && endOf(m, i, start[i]) > m.due[i])
    .sort((a, b) => endOf(m, b, start[b]) - m.due[b] - endOf(m, a, start[a]) + m.due[a])[0];
  if (late !== undefined)
    out.push({
      kind: "due",
      id: m.ids[late],
      from: m.due[late],
      to: endOf(m, late, start[late]),
      why: `“${m.ids[late]}” was due ${endOf(m, late, start[late]) - m.due[late]} min before it ends`,
      gain: null,
    });
  const top = links
    .filter((l) => (l.relax && l.to > l.from) || l.kind === "resource")
    .sort((a, b) => b.to - b.from - (a.to - a.from))
    .slice(0, GAINS);
  for (const l of top) {
    yield;
    const x = compile(l.relax!(p));
    const without = finish(
      x,
      new Builder(x, x.lags.length === m.lags.length && l.kind !== "wait" ? builder.blocks : undefined),
    );
    told[links.indexOf(l)].gain = Number.isFinite(without) ? Math.max(0, now - without) : null;
  }
}
