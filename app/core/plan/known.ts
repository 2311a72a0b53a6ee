/**
 * Plans of a shop's jobs as they were last worked out, each as if it were alone: made anew where the job, its log or what it is made in
 * has changed. What is asked for the shop is asked of them over and over.
 */
import type { World } from "../records/world";
import { ALONE, makePlan, standsAt, type Plan } from "./plan";

/** of a job as many are kept: with what it does together with others, and without */
const KEPT = 3;

export class Known {
  private readonly texts = new WeakMap<object, string>();
  private jobs = new Map<string, { text: string; plan: Plan; asked: number }[]>();
  private round = 0;

  /** A laying of the shop begins: what was not asked for in the one before is let go. */
  begins(): void {
    const last = this.round++;
    for (const [job, list] of this.jobs) {
      const still = list.filter((x) => x.asked >= last);
      if (still.length) this.jobs.set(job, still);
      else this.jobs.delete(job);
    }
  }

  /**
   * The plan of a job that is alone in its shop, lean.
   * @param now min since 1970
   * @param stale minutes that a plan may be older and do all the same; 0: it is just as it would be made now
   */
  alone(world: World, now: number, stale = 0): Plan {
    const text = this.textOf(world);
    const list = this.jobs.get(world.job.id) ?? [];
    const found = list.find((x) => x.text === text);
    if (found && (fresh(found.plan, now, stale) || standsAt(found.plan, now))) {
      found.asked = this.round;
      return found.plan;
    }
    const plan = makePlan(world, now, true, ALONE);
    const rest = list.filter((x) => x !== found).slice(-(KEPT - 1));
    this.jobs.set(world.job.id, [...rest, { text, plan, asked: this.round }]);
    return plan;
  }

  /** Everything that a plan is made from, as text; what several jobs share is written once. */
  private textOf(world: World): string {
    const known = this.texts.get(world);
    if (known !== undefined) return known;
    const text = JSON.stringify(
      Object.entries(world)
        .filter(([, x]) => x !== undefined)
        .map(([key, x]: [string, object]) => [key, this.written(x)]),
    );
    this.texts.set(world, text);
    return text;
  }
  private written(x: object): string {
    const known = this.texts.get(x);
    if (known !== undefined) return known;
    const text = JSON.stringify(x);
    this.texts.set(x, text);
    return text;
  }
}
const fresh = (p: Plan, now: number, stale: number): boolean => p.now !== null && p.now <= now && now - p.now <= stale;
