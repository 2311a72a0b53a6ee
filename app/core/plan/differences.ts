/** How one list of steps differs from another, in a maker's words: for a fix that is looked at before it is pressed. */
import type { Step } from "../process/step";

export interface Differences {
  /** names of steps that come, go, or stand elsewhere in the order */
  added: string[];
  removed: string[];
  moved: string[];
  /** steps that stay and change in themselves: before and after, by name and what differs */
  changed: { title: string; what: string; before: string; after: string }[];
}

const SHOWN: [string, (s: Step) => string][] = [
  ["name", (s) => s.title],
  ["film", (s) => (s.dryUm === null ? "none" : `${Math.round(s.dryUm * 10) / 10} µm`)],
  ["depth", (s) => (s.depthMm === null ? "none" : `${Math.round(s.depthMm * 100) / 100} mm`)],
  ["sanded off", (s) => (s.sandUm === null ? "none" : `${Math.round(s.sandUm)} µm`)],
  ["passes", (s) => String(s.laser?.passes ?? "none")],
  ["power", (s) => (s.laser ? `${Math.round(s.laser.power * 1000) / 10} %` : "none")],
  ["speed", (s) => (s.laser ? `${Math.round(s.laser.speed)} mm/s` : "none")],
  ["interval", (s) => (s.laser ? `${s.laser.interval} mm` : "none")],
  ["wait after it", (s) => (s.waitMin === null ? "by its state" : `${s.waitMin} min`)],
  ["dried at", (s) => (s.roomC === null ? "shop’s air" : `${s.roomC} °C`)],
  ["can", (s) => (s.canWarmed ? "warmed" : "as it is")],
  ["loads", (s) => (s.byLoad ? "day by day" : "in one go")],
];

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
