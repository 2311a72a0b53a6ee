/** How one list of steps differs from another, in a maker's words: for a fix that is looked at before it is pressed. */
import { own, type Step } from "../process/kinds";

export interface Differences {
  /** names of steps that come, go, or stand elsewhere in the order */
  added: string[];
  removed: string[];
  moved: string[];
  /** steps that stay and change in themselves: before and after, by name and what differs */
  changed: { title: string; what: string; before: string; after: string }[];
}

/** A figure rounded, with its unit; “none” where there is none. */
const figure = (v: number | null | undefined, unit: string, per = 1): string =>
  v == null ? "none" : `${Math.round(v * per) / per}${unit}`;

const SHOWN: [string, (s: Step) => string][] = [
  ["name", (s) => s.title],
  ["film", (s) => figure(own(s, "dryUm"), " µm", 10)],
  ["depth", (s) => figure(own(s, "depthMm"), " mm", 100)],
  ["sanded off", (s) => figure(own(s, "sandUm"), " µm")],
  ["passes", (s) => String(own(s, "laser")?.passes ?? "none")],
  ["power", (s) => figure(share(own(s, "laser")?.power), " %", 10)],
  ["speed", (s) => figure(own(s, "laser")?.speed, " mm/s")],
  ["interval", (s) => figure(own(s, "laser")?.interval, " mm", 1e6)],
  ["wait after it", (s) => (s.waitMin === null ? "by its state" : `${s.waitMin} min`)],
  ["dried at", (s) => (own(s, "roomC") === null ? "shop’s air" : `${own(s, "roomC")} °C`)],
  ["can", (s) => (own(s, "canWarmed") ? "warmed" : "as it is")],
  ["loads", (s) => (own(s, "byLoad") ? "day by day" : "in one go")],
];
const share = (x: number | undefined): number | undefined => (x === undefined ? x : x * 100);

/** Steps that come, go, change place or change in themselves between two plans. */
export function differences(before: Step[], after: Step[]): Differences {
  const was = new Map(before.map((s) => [s.id, s]));
  const is = new Map(after.map((s) => [s.id, s]));
  const common = after.filter((s) => was.has(s.id)).map((s) => s.id);
  const order = new Map(before.filter((s) => is.has(s.id)).map((s, i) => [s.id, i]));
  // Out of place is what has to be taken out so that the rest stands in its old order: all but a longest rising run.
  const best: { length: number; back: number }[] = [];
  common.forEach((id, i) => {
    let [length, back] = [1, -1];
    for (let k = 0; k < i; k++)
      if (order.get(common[k])! < order.get(id)! && best[k].length + 1 > length)
        [length, back] = [best[k].length + 1, k];
    best.push({ length, back });
  });
  const stay = new Set<string>();
  for (let i = best.reduce((m, b, k) => (m < 0 || b.length > best[m].length ? k : m), -1); i >= 0; i = best[i].back)
    stay.add(common[i]);
  return {
    added: after.filter((s) => !was.has(s.id)).map((s) => s.title),
    removed: before.filter((s) => !is.has(s.id)).map((s) => s.title),
    moved: common.filter((id) => !stay.has(id)).map((id) => is.get(id)!.title),
    changed: common.flatMap((id) => {
      const [a, b] = [was.get(id)!, is.get(id)!];
      return SHOWN.flatMap(([what, of]) =>
        of(a) === of(b) ? [] : [{ title: a.title, what, before: of(a), after: of(b) }],
      );
    }),
  };
}
