/** How many tones power alone can show on a stack or a face: steps that can be told apart, given how evenly the films lie. */
import { hex, lab, labDifference, linear, mix } from "../models/film/colour";
import { GROUND, shown, zoneOf } from "../piece/state";
import type { Plan } from "../plan/plan";
import { drawing } from "./picture";
import { shadeOf } from "./shade";

/** CIEDE2000 that two neighbouring tones must differ by */
const APART = 1.5;
/** share of a setting’s energy that hand and machine repeat: what lies nearer comes out the same */
const REPEAT = 0.05;

/**
 * Tones from “left” to “burnt with all the power that is set” that differ by {@link APART} and lie farther apart in energy than a machine
 * repeats.
 * @returns null: no step draws, or it is not known what it leaves
 */
export function tonesHeld(plan: Plan): number | null {
  const c = plan.context;
  const [at] = drawing(plan);
  const id = at?.step.zones[0];
  const last = plan.placed[plan.placed.length - 1];
  const shade = at && id !== undefined ? shadeOf(at, c) : null;
  if (!shade) return null;
  const [burnt, left] = [id, GROUND].map((z) =>
    linear(hex(shown(last.after, zoneOf(last.after, z), c.substrate.colour, c.paintOf))),
  );
  let n = 1;
  let before = lab(left);
  let from = 0;
  shade.seen.forEach((share, k) => {
    const e = shade.e[k];
    if (e === null) return;
    const here = lab(mix(left, burnt, share));
    if (labDifference(before, here) < APART || (from > 0 && Math.log(e / from) < REPEAT)) return;
    n++;
    before = here;
    from = e;
  });
  return n;
}
