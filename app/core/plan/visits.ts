/** A plan as visits: at each turn what the laser is given, what is opened, lifted and covered, what stays masked to the end. */
import { GROUND } from "../piece/state";
import { byBeam } from "../process/kinds";
import { placement, type Placement } from "./placement";
import type { Plan } from "./plan";

export interface Visit {
  step: string;
  index: number;
  title: string;
  kind: string;
  /** zones whose artwork the laser is given; empty: no visit to the laser */
  artwork: string[];
  /** zones that lie open after it, and did not before */
  opens: string[];
  /** zones covered by it */
  covers: string[];
  /** zones still masked after it */
  stays: string[];
  /** the file goes to the laser mirrored */
  mirrored: boolean;
}

const TURNS = ["mask-lay", "score-mask", "engrave", "open-skin", "burn-in", "reveal", "mask-lift", "cover", "cut-out"];

export function visitsOf(plan: Plan): Visit[] {
  return plan.placed
    .filter((p) => TURNS.includes(p.step.kind) || (p.step.kind === "melt" && byBeam(p.step)))
    .map((p) => {
      const masked = (at: typeof p.before): string[] => at.zones.filter((z) => z.mask).map((z) => z.zone);
      const [was, is] = [masked(p.before), masked(p.after)];
      const beam = byBeam(p.step);
      return {
        step: p.step.id,
        index: p.index,
        title: p.step.title,
        kind: p.step.kind,
        artwork: beam ? p.step.zones.filter((z) => z !== GROUND) : [],
        opens: was.filter((z) => !is.includes(z)),
        covers: is.filter((z) => !was.includes(z)),
        stays: is,
        mirrored: beam && (plan.context.job.choices.mirrored ?? plan.context.route?.mirrored ?? false),
      };
    });
}

export const placementOf = (plan: Plan): Placement =>
  placement(
    plan.context,
    plan.placed.map((p) => p.step),
  );
