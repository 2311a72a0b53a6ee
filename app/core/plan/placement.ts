/** M12 for a job: how its pieces are put back, what colours overlap by, which zones can't be kept apart. mm. */
import { colourWay } from "../catalogue/routes";
import { gapBetween } from "../geometry/gap";
import { extentOf } from "../geometry/extent";
import { origin } from "../geometry/origin";
import {
  betweenSetUps,
  errorAt,
  isPlacedBy,
  overrunMm,
  RETURN_MM,
  rotationHidden,
  trapMm,
} from "../geometry/registration";
import type { Context } from "../process/context";
import { errorIn, jigOf } from "../process/on-bed";
import type { Zone } from "../records/job";
import { kindOf, own, type Step } from "../process/kinds";

export interface Placement {
  /** how it is put back, in words */
  by: string;
  /** return error, mm */
  errorMm: number;
  /** it leaves the bed and comes back for a further visit */
  replaced: boolean;
  /** mm that a colour painted later runs under the one before it */
  trapMm: number;
  /** mm that the picture runs over the piece */
  overrunMm: number;
  /** degrees of rotation still hidden by that overrun */
  degrees: number;
  pairs: {
    a: string;
    b: string;
    nameA: string;
    nameB: string;
    gapMm: number | null;
    betweenMm: number;
    apart: boolean | null;
  }[];
}

/** How often the beam is given the piece itself, films aside: each time it is laid in place anew. */
const visitsOf = (steps: Step[]): number =>
  steps.filter(
    (s) => own(s, "laser") && ["body", "mask", "skin", "face", "pigment"].includes(kindOf(s.kind).beam ?? ""),
  ).length + (steps.some((s) => own(s, "method") === "laser") ? 1 : 0);

/** How a job's pieces are placed and placed again. */
export function placement(c: Context, steps: Step[]): Placement {
  const id = c.job.choices.placedBy ?? "corner";
  const jig = jigOf(c);
  const named = RETURN_MM[isPlacedBy(id) ? id : "corner"];
  const r = errorIn(c) ?? named.mm;
  const visits = visitsOf(steps);
  const over = c.school("overrun") === "exact" ? 0 : overrunMm(r);
  const apart = visits >= 2 || ["beside", "stencil", "reverse"].includes(colourWay(c.route) ?? "");
  // two colours of names are never on one piece
  const others = (i: number) =>
    c.filled.slice(i + 1).filter((b) => b.productId !== c.filled[i].productId && !(b.onPieces && c.filled[i].onPieces));
  const { w, h } = c.job.substrate;
  const [x0, y0] = origin(c.job);
  // as far from the stop as the zone reaches; the whole piece where its shape is not known
  const reach = (z: Zone): number => {
    const e = extentOf(z);
    return e ? Math.hypot(Math.max(0, x0 + e.x1), Math.max(0, y0 + e.y1)) : Math.hypot(w, h);
  };
  const between = (a: Zone, b: Zone): number =>
    betweenSetUps(errorAt(r, Math.max(reach(a), reach(b)), Math.max(w, h)), visits);
  const pairs = !apart
    ? []
    : c.filled.flatMap((a, i) =>
        others(i).map((b) => {
          const gapMm = gapBetween(a, b);
          const betweenMm = between(a, b);
          const open = visits < 2 || gapMm === null || c.job.choices.trap;
          const kept = open ? null : gapMm >= betweenMm;
          return { a: a.id, b: b.id, nameA: a.name, nameB: b.name, gapMm, betweenMm, apart: kept };
        }),
      );
  return {
    by: jig?.name ?? named.name,
    errorMm: r,
    replaced: visits > 1,
    trapMm: trapMm(visits > 1 ? Math.max(r, ...pairs.map((p) => p.betweenMm)) : r),
    overrunMm: over,
    degrees: rotationHidden(c.job.substrate.w, c.job.substrate.h, over),
    pairs,
  };
}
