/** A plan as visits: at each turn what the laser is given, what is opened, lifted and covered, what stays masked to the end. */
import { mirrored } from "../process/setup";
import { GROUND } from "../piece/state";
import { byBeam, kindOf, type KindId } from "../process/kinds";
import { placement, type Placement } from "./placement";
import type { Plan } from "./plan";

export interface Visit {
  step: string;
  index: number;
  title: string;
  kind: KindId;
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

export function visitsOf(plan: Plan): Visit[] {
  return plan.placed
    .filter((p) => kindOf(p.step.kind).turns || (kindOf(p.step.kind).heats && byBeam(p.step)))
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
        mirrored: beam && mirrored(plan.context),
      };
    });
}

export const placementOf = (plan: Plan): Placement =>
  placement(
    plan.context,
    plan.placed.map((p) => p.step),
  );
