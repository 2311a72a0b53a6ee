/** What plates of the same stack on other cans say of the can at hand: edges of the window with wider intervals, no bare number. */
import { pooled } from "../models/laser/pool";
import type { Interval } from "../models/laser/plate";
import type { Job, TestPlate } from "../records/job";
import type { Plan } from "../plan/plan";
import { firstOf, fitPlate, foundFor } from "./plate";

/** parts of a line of work before its films: machine, beam, interval, body, what the beam does */
const HEAD = 5;
/** A line of work without its cans: the same for every can of a stack. */
const stackOf = (work: string): string =>
  work
    .split("|")
    .map((part, i) => (i < HEAD ? part : part.split(" ").slice(0, 2).join(" ")))
    .join("|");

export interface Pooled {
  /** where the top is gone, where what lies beneath begins to be touched; J/mm² */
  lo: Interval;
  hi: Interval | null;
  /** plates on other cans, and on this one */
  others: number;
  own: number;
  /** jobs that they come from */
  from: string[];
  says: string;
}
const r2 = (v: number): string => v.toFixed(2);

/** @param jobs all that have plates, this one among them; null: no plate on another can says anything */
export function pooledFor(plan: Plan, jobs: readonly Pick<Job, "id" | "title" | "tests">[]): Pooled | null {
  const work = foundFor(plan);
  if (!work) return null;
  const stack = stackOf(work);
  const read = jobs.flatMap((j) =>
    (j.tests ?? [])
      .filter((t) => t.question === "window" && t.work !== undefined && stackOf(t.work) === stack)
      .flatMap((t: TestPlate) => {
        const m = plan.context.world.machines.find((x) => x.id === t.machineId) ?? null;
        const { window } = fitPlate(t, m, firstOf(plan));
        return window ? [{ job: j.title, mine: t.work === work, at: t.at, window }] : [];
      }),
  );
  const others = read.filter((x) => !x.mine);
  if (!others.length) return null;
  const own = read.filter((x) => x.mine).sort((a, b) => (a.at < b.at ? 1 : -1));
  const lo = pooled(
    others.map((x) => x.window.lo),
    own[0]?.window.lo ?? null,
  )!;
  const his = others.flatMap((x) => x.window.hi ?? []);
  const hi = pooled(his, own[0]?.window.hi ?? null);
  const open = hi === null || lo.high < hi.low;
  const cans = others.length === 1 ? "one plate" : `${others.length} plates`;
  const says =
    `By ${cans} on other cans${own.length ? " and this can’s own" : ""}: gone from ${r2(lo.low)} to ${r2(lo.high)} J/mm²` +
    `${hi ? `, what lies beneath touched from ${r2(hi.low)} to ${r2(hi.high)}` : ""}, nine in ten. ` +
    (open
      ? hi
        ? `${r2(Math.sqrt(lo.high * hi.low))} lies between on today’s can too.`
        : "What lies beneath was read on none of them."
      : "That is too wide to go by: a plate on today’s can settles it.");
  return { lo, hi, others: others.length, own: own.length, from: [...new Set(others.map((x) => x.job))], says };
}
