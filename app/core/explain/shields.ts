/**
 * Shields for colours that are sprayed beside one another: for each turn what is covered and what lies open, as a sheet that sits in a jig
 * with its piece, and as covers that are laid by hand. A cover never opens what must stay, wherever the piece may lie within its error.
 */
import { blankOf } from "../geometry/blank";
import { nestOf } from "../geometry/bed";
import { ellipse } from "../vector/outline";
import { onBlank } from "../geometry/on-blank";
import { ringsOf, type Point, type Ring } from "../geometry/outline";
import { inRunningOrder, withoutHairs, type Path } from "../geometry/travel";
import { GROUND } from "../piece/state";
import type { Plan } from "../plan/plan";
import { inTurn, sprayed, type Placed } from "../plan/placed";
import { placementOf } from "../plan/visits";
import { kindOf, own } from "../process/kinds";
import { shapeOf } from "../process/setup";
import { area, pieces, type Clip, type Region } from "../vector/clip";

/** mm that a spray reaches under the edge of what keeps it off: default, from 80 mm high with a narrow fan, in a jig */
export const REACH_MM = 8;
/** the same where a cover is laid by hand */
export const HAND_REACH_MM = 15;
/** mm of sheet all round the piece */
const MARGIN_MM = 30;
/** mm across: pins that the jig and its sheets share */
const PIN_MM = 4;
const FLAT_MM = 0.01;
/** mm from the edge of a piece at which a zone counts as reaching it */
const EDGE_MM = 0.5;
/** slivers are smaller than this, mm² */
const SLIVER_MM2 = 0.05;

export interface Shield {
  /** the step that it is laid at, or the first that sprays through it */
  step: string;
  title: string;
  opens: string[];
  covers: string[];
  /** the sheet: what stays of it, in the jig’s own mm; open within */
  sheet: Region;
  /** parts of it that nothing holds: they are laid by hand, as covers */
  islands: number;
  /** covers that are laid by hand, as they lie in the jig’s mm; empty: nothing of this colour’s neighbours must be kept */
  handLaid: Region;
  weights: number;
}
export interface ShieldSet {
  /** sheets and jig, mm */
  w: number;
  h: number;
  /** where the piece’s upper left corner lies in it */
  at: Point;
  jig: Region;
  shields: Shield[];
  reachMm: number;
  errorMm: number;
}

/** A turn: zones that are sprayed, and the zones that must not get any of it. */
interface Turn {
  p: Placed;
  open: string[];
  keep: string[];
}

/** Turns of colour, in order: from a shield on until it comes off, or each colour of a blend. */
function turnsOf(plan: Plan): Turn[] {
  const c = plan.context;
  const out: Turn[] = [];
  const bands = bandsOf(plan);
  let on: Turn | null = null;
  for (const p of inTurn(plan.placed)) {
    const kind = kindOf(p.step.kind);
    const masks = p.after.zones.filter((z) => z.mask?.step === p.step.id && z.mask.loose).map((z) => z.zone);
    if (masks.length) {
      on = { p, open: [], keep: masks };
      out.push(on);
    } else if (kind.lifts === "mask") on = null;
    if (!sprayed(p.step, c) || own(p.step, "role") !== "colour") continue;
    const zones = p.step.zones.filter((z) => z !== GROUND);
    if (on) on.open.push(...zones.filter((z) => !on!.open.includes(z)));
    // a blend: each band through an area of its own
    else if (bands && !out.some((t) => same(t.open, zones))) out.push({ p, open: [...zones], keep: [] });
  }
  // the same shield serves the proof and the set
  return out.filter(
    (t, i) => t.open.length && !out.slice(0, i).some((x) => same(x.open, t.open) && same(x.keep, t.keep)),
  );
}
const same = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((x) => b.includes(x));
const bandsOf = (plan: Plan): boolean =>
  plan.placed.some((p) => own(p.step, "wetInWet") === true && sprayed(p.step, plan.context));

/** null: nothing is sprayed beside anything else, the piece is round, or no outline is known. */
export function shields(plan: Plan, clip: Clip): ShieldSet | null {
  const c = plan.context;
  const { job } = c;
  if (shapeOf(c) !== "flat") return null;
  const turns = turnsOf(plan);
  const outlines = new Map(onBlank(job).map((z) => [z.id, ringsOf(z.path)]));
  if (!turns.length || turns.some((t) => !t.open.some((z) => outlines.has(z)))) return null;
  const m = MARGIN_MM;
  const at: Point = [m, m];
  const [w, h] = [job.substrate.w + 2 * m, job.substrate.h + 2 * m];
  const put = (rings: Ring[]): Ring[] => rings.map((r) => r.map(([x, y]): Point => [x + m, y + m]));
  const regionOf = (ids: readonly string[]): Region =>
    ids.reduce<Region>((r, id) => {
      const own = outlines.get(id);
      return own ? clip.union(r, clip.fill(put(own), "evenodd")) : r;
    }, []);
  const box: Region = clip.fill([[[0, 0], [w, 0], [w, h], [0, h]]], "nonzero"); // prettier-ignore
  const pins: Region = [
    [m / 2, m / 2],
    [w - m / 2, h - m / 2],
  ].map(([x, y]) => ellipse(x, y, PIN_MM / 2, PIN_MM / 2, FLAT_MM));
  const plain = clip.subtract(box, clip.fill(pins, "nonzero"));
  const { errorMm } = placementOf(plan);
  const nameOf = (id: string): string => job.zones.find((z) => z.id === id)?.name ?? id;
  const face = clip.fill(put(blankOf(job.substrate).rings), "evenodd");
  return {
    w,
    h,
    at,
    jig: clip.subtract(plain, clip.fill(put(nestOf(job.substrate, clip)), "nonzero")),
    reachMm: REACH_MM,
    errorMm,
    shields: turns.map((t): Shield => {
      const [open, keep] = [regionOf(t.open), regionOf(t.keep)];
      const held = keep.length ? clip.grow(keep, errorMm) : [];
      // what is painted to the edge is painted over it, so that the very edge gets its colour
      const edge = clip.intersect(open, clip.grow(clip.subtract(box, face), errorMm + EDGE_MM));
      const over = clip.subtract(clip.grow(edge, REACH_MM), face);
      const wide = clip.union(clip.grow(open, errorMm), over);
      const opening = held.length ? clip.subtract(wide, held) : wide;
      const all = pieces(clip.subtract(plain, opening)).filter((p) => area(p) > SLIVER_MM2);
      const frame = all.filter((p) =>
        p.some((r) => r.some(([x, y]) => x < 0.01 || y < 0.01 || x > w - 0.01 || y > h - 0.01)),
      );
      const islands = all.length - frame.length;
      const covers = keep.length
        ? clip.union(clip.subtract(clip.grow(keep, HAND_REACH_MM), clip.grow(open, errorMm)), held)
        : [];
      return {
        step: t.p.step.id,
        title: t.p.step.title,
        opens: t.open.map(nameOf),
        covers: t.keep.filter((z) => z !== GROUND).map(nameOf),
        sheet: frame.flat(),
        islands,
        handLaid: covers,
        weights: 4 + (islands ? pieces(covers).length : 0),
      };
    }),
  };
}

/** A region as lines to be cut, inner ones first. */
export const cutLines = (r: Region): Path[] =>
  inRunningOrder(r.map(withoutHairs).flatMap((ring) => (ring ? [{ points: ring, closed: true }] : [])));
