/** The whole shop: seeded jobs of every way laid together, laid again as they stand, and told; growth with their number. */
import { wholeRows } from "../app/core/explain/whole";
import { layShop, type WholeShop } from "../app/core/plan/whole";
import type { World } from "../app/core/records/world";
import { brief } from "../app/core/testing/briefs";

const NOW = 30_000_480;
const SIZES = [10, 20, 40];
const clock = (): number => performance.now() / 1000;

/** Jobs of any way in one shop. */
function shopOf(n: number): World[] {
  const list = Array.from({ length: n }, (_v, k) => brief(k * 7 + 3));
  const [first] = list;
  return list.map((w, k) => ({
    ...w,
    shop: first.shop,
    machines: first.machines,
    job: {
      ...w.job,
      id: `j${k}`,
      title: `Job ${k}`,
      start: "2027-01-11T08:00",
      machineId: w.job.machineId && first.job.machineId,
    },
  }));
}
const kept = (worlds: World[], s: WholeShop): World[] =>
  worlds.map((w) => {
    const q = s.jobs.find((x) => x.plan.context.job.id === w.job.id);
    return q ? { ...w, job: { ...w.job, queue: { laid: [...q.starts].map(([step, at]) => ({ step, at })) } } } : w;
  });

export function shopRows(): { name: string; n: number; value: number; unit: string }[] {
  return SIZES.flatMap((n) => {
    const worlds = shopOf(n);
    const lay = (of: World[], now: number): [WholeShop, number] => {
      const at = performance.now();
      return [layShop(of, { now, seconds: 0, clock }), Math.round(performance.now() - at)];
    };
    const [first, ms] = lay(worlds, NOW);
    const stands = kept(worlds, first);
    const [, again] = lay(stands, NOW + 20);
    const at = performance.now();
    wholeRows(first, worlds, NOW, new Map());
    return [
      { name: "shop: jobs laid together", n: first.answer?.tasks.length ?? 0, value: ms, unit: "ms" },
      { name: "shop: laid again as they stand", n: first.jobs.length, value: again, unit: "ms" },
      { name: "shop: told", n: first.jobs.length, value: Math.round(performance.now() - at), unit: "ms" },
    ];
  });
}
