/** Lessons of the shop that are told at a step: of its kind, and of the material, the way and the product where they name one. */
import { own, type Step } from "../process/kinds";
import type { Lesson } from "../records/shop";
import type { Context } from "../process/context";

/** Does a lesson speak of a step of this job? */
const speaksOf = (l: Lesson, s: Step, c: Context): boolean =>
  l.kind === s.kind &&
  (l.substrate === undefined || l.substrate === c.job.substrate.id) &&
  (l.route === undefined || l.route === c.job.route) &&
  (l.productId === undefined || l.productId === own(s, "productId"));

/** What is told at a step, the newest first; also what was learned since the job began. Those that were put away for it are left out. */
export const lessonsAt = (s: Step, c: Context): Lesson[] =>
  ((c.world.elsewhere ?? c.world).shop.lessons ?? [])
    .filter((l) => !c.job.lessonsOff?.includes(l.id) && speaksOf(l, s, c))
    .sort((a, b) => (a.at < b.at ? 1 : -1));
