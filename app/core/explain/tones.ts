/** How many tones power alone can show on a stack: steps that can be told apart, given how evenly the films lie. */
import { hex, lab, labDifference, linear, mix } from "../models/film/colour";
import { openShares } from "../models/film/reveal";
import { GROUND, shown, zoneOf } from "../piece/state";
import type { Plan } from "../plan/plan";
import { own } from "../process/kinds";
import { cutsOf } from "../process/kinds/laser-work";
import { drawing } from "./picture";

/** CIEDE2000 that two neighbouring tones must differ by */
const APART = 1.5;
/** share of a setting’s energy that hand and machine repeat: what lies nearer comes out the same */
const REPEAT = 0.05;

/**
 * Tones between “nothing open” and “all open” that differ by {@link APART} and lie farther apart in energy than a machine repeats.
 * @returns null: no step uncovers, or nothing is known of its films
 */
export function tonesHeld(plan: Plan): number | null {
  const c = plan.context;
  const [at] = drawing(plan);
  const set = at && own(at.step, "laser");
  const id = at?.step.zones[0];
  const last = plan.placed[plan.placed.length - 1];
  if (!set || id === undefined) return null;
  const cuts = cutsOf(zoneOf(at.before, id), c, set.interval, set.passes);
  if (!cuts.length) return null;
  const [burnt, left] = [id, GROUND].map((z) =>
    linear(hex(shown(last.after, zoneOf(last.after, z), c.substrate.colour, c.paintOf))),
  );
  let n = 1;
  let before = lab(left);
  let from = 0;
  const lo = Math.log(cuts[0].c) - 4 * cuts[0].sigma;
  const hi = Math.log(cuts[0].c) + 4 * cuts[0].sigma;
  for (let k = 0; k <= 400; k++) {
    const e = Math.exp(lo + ((hi - lo) * k) / 400);
    const here = lab(mix(left, burnt, openShares(cuts.slice(0, 1), e)[0]));
    if (labDifference(before, here) >= APART && (from === 0 || Math.log(e / from) >= REPEAT)) {
      n++;
      before = here;
      from = e;
    }
  }
  return n;
}
