/** M7 over a whole plan: paint per coat and per product, what to buy, and the balance bought = laid + lost + left. */
import { extentOf, extentOfAll } from "../geometry/extent";
import { kindOf, own, usesUp } from "../process/kinds";
import { coatUse, nest, recessArea, transfer, wetUm } from "../models/film/build";
import { shapeOf } from "../process/setup";
import { insideCylinderDose, insideDose } from "../models/round/round";
import type { Finish } from "../catalogue/finishes";
import type { Paint } from "../catalogue/properties";
import { GROUND, zoneOf } from "../piece/state";
import { openUm } from "../process/kinds/powder-fill";
import { faceMm2 } from "../geometry/blank";
import type { Zone } from "../records/job";
import type { Context } from "../process/context";
import { contextAt, type Placed } from "./placed";

export interface StepUse {
  wetUm: number | null;
  /** out of the can, all pieces */
  ml: number | null;
  laidMl: number | null;
  lostMl: number | null;
  /** powder is weighed: g that stay in all pieces; null: no powder */
  g: number | null;
}

export interface Amount {
  product: string;
  /** what the plan takes out of cans */
  ml: number | null;
  /** g of powder; null: none */
  g: number | null;
  laidMl: number | null;
  lostMl: number | null;
  /** ml that steps not yet done will take; null: unknown */
  toComeMl: number | null;
  /** ml of the Shelf’s that other open jobs will take */
  othersMl: number;
  /** on the Shelf now; null: some can was never weighed */
  onShelfMl: number | null;
  /** full cans to buy; null: unknown */
  cans: number | null;
  /** ml of one can that would be bought */
  canMl: number | null;
  /** on the Shelf and bought, less what is used */
  leftMl: number | null;
  boughtMl: number | null;
}

/** Powder that lies loose after a fill, as it will weigh when it has melted. */
function powderUse(p: Placed, paint: Paint, c: Context): StepUse {
  const density = paint.powder?.density.value ?? null;
  const phi = paint.powder?.packing.value ?? null;
  const looseUm = (zone: string): number =>
    zoneOf(p.after, zone)
      .films.filter((f) => f.step === p.step.id && f.phase === "loose")
      .reduce((um, f) => um + f.dryUm, 0);
  const mine = c.job.zones.filter((z) => p.step.zones.includes(z.id));
  const mm3 = mine.reduce((a, z) => a + (z.areaMm2 * looseUm(z.id)) / 1000, 0);
  const g = density === null || phi === null ? null : (mm3 * phi * density * c.pieces) / 1000;
  return { wetUm: null, ml: null, laidMl: null, lostMl: null, g };
}

/** share that is swirled round in a glass and drained */
const DRAINED = 1.1;
function pourUse(wet: number | null, c: Context): StepUse {
  const d = c.job.substrate.diameter ?? null;
  const dose =
    d === null ? null : shapeOf(c) === "cylinder" ? insideCylinderDose(d, c.job.substrate.h, wet) : insideDose(d, wet);
  if (dose === null) return { wetUm: wet, ml: null, laidMl: null, lostMl: null, g: null };
  const n = c.pieces;
  return { wetUm: wet, ml: dose * n, laidMl: (dose / DRAINED) * n, lostMl: (dose - dose / DRAINED) * n, g: null };
}

/** Width and height of the box round some zones, mm; from their areas where that is all that is known. */
function boxOf(zones: Zone[]): { w: number; h: number } {
  const blind = Math.sqrt(zones.filter((z) => !extentOf(z)).reduce((a, z) => a + z.areaMm2, 0));
  const e = extentOfAll(zones);
  return e ? { w: Math.max(e.x1 - e.x0, blind), h: Math.max(e.y1 - e.y0, blind) } : { w: blind, h: blind };
}

/**
 * Share that stays where a can is aimed at what is open of each piece, or an airbrush goes round each zone; 0 where the whole face is
 * coated. @param area mm² coated of one piece
 */
function aimed(p: Placed, by: string, area: number, c: Context): number {
  if (p.step.zones.includes(GROUND)) return 0;
  const mine = c.job.zones.filter((z) => p.step.zones.includes(z.id));
  if (by !== "airbrush") {
    const box = boxOf(mine);
    return transfer(by, area, box.w, box.h);
  }
  const all = mine.map((z) => ({ area: z.areaMm2, ...boxOf([z]) }));
  const out = all.reduce((a, z) => a + z.area / transfer(by, z.area, z.w, z.h), 0);
  return out > 0 ? all.reduce((a, z) => a + z.area, 0) / out : 0;
}

/** Epoxy finds its own level: its film over the face, and what the recesses still hold open. */
function floodUse(p: Placed, wet: number | null, c: Context): StepUse {
  const n = c.pieces;
  const open = c.job.zones.reduce((a, z) => a + z.areaMm2 * openUm(zoneOf(p.before, z.id), p.before.sandedUm), 0);
  const face = faceMm2(c.job.substrate);
  const use = wet === null ? coatUse(1, null, 1) : coatUse((face + open / wet) * n, wet, transfer("brush", 1, 1, 1));
  return { wetUm: wet, ml: use.boughtMl, laidMl: use.laidMl, lostMl: use.lostMl, g: null };
}

/** A coat over floors and walls of zones, or over the whole face with the walls in it. */
function coatOf(p: Placed, paint: Paint, wet: number | null, c: Context): StepUse {
  const { w, h } = c.job.substrate;
  const n = c.pieces;
  let area = 0;
  let walls = 0;
  for (const z of c.job.zones) {
    if (!p.step.zones.includes(z.id)) continue;
    const depth = Math.max(0, zoneOf(p.before, z.id).depthUm) / 1000;
    const own = recessArea(z.areaMm2, z.perimeterMm, depth);
    area += own;
    walls += own - z.areaMm2;
  }
  if (p.step.zones.includes(GROUND)) area = faceMm2(c.job.substrate) + walls;
  const box = nest(n, w, h);
  const together = transfer(paint.finish.by, area * n, box.w, box.h);
  const use = coatUse(area * n, wet, Math.max(together, aimed(p, paint.finish.by, area, c)));
  return { wetUm: wet, ml: use.boughtMl, laidMl: use.laidMl, lostMl: use.lostMl, g: null };
}

/** What a step takes of its product, all pieces; null: it uses nothing up. */
export function stepUse(p: Placed, whole: Context): StepUse | null {
  const c = contextAt(p, whole);
  const s = p.step;
  const paint = usesUp(s) ? c.paint(own(s, "productId")) : null;
  if (!paint) return null;
  if (kindOf(s.kind).lays === "powder") return powderUse(p, paint, c);
  const wet = wetUm(own(s, "dryUm"), paint.solids.value);
  const use =
    paint.finish.family === "epoxy"
      ? floodUse(p, wet, c)
      : paint.finish.by === "pour" && p.after.side === "inside"
        ? pourUse(wet, c)
        : coatOf(p, paint, wet, c);
  // out of the can it is thinner than what lies on the piece
  return { ...use, wetUm: wetUm(own(s, "dryUm"), paint.lands.value) };
}

/** ml left in a product's cans, by weight where they are weighed; null when one was never measured. */
export function onShelf(
  cans: { fullMl: number; leftMl: number | null; fullG: number | null; emptyG: number | null; nowG: number | null }[],
): number | null {
  let sum = 0;
  for (const k of cans) {
    const byWeight =
      k.fullG !== null && k.emptyG !== null && k.nowG !== null && k.fullG > k.emptyG
        ? k.fullMl * Math.min(1, Math.max(0, (k.nowG - k.emptyG) / (k.fullG - k.emptyG)))
        : null;
    const left = k.leftMl ?? byWeight;
    if (left === null) return null;
    sum += left;
  }
  return sum;
}

const DEFAULT_CAN_ML: Record<Finish["by"], number> = {
  spray: 400,
  airbrush: 60,
  brush: 60,
  marker: 6,
  powder: 200,
  pour: 250,
  wipe: 60,
  tape: 1000,
};

/** ml of one can of a paint: as it stands on the Shelf, else as it is usually sold. */
export const canMl = (paint: Paint): number => paint.product.cans[0]?.fullMl ?? DEFAULT_CAN_ML[paint.finish.by];

export function amounts(placed: Placed[], uses: (StepUse | null)[], c: Context): Amount[] {
  const laid = placed.map((p) => (usesUp(p.step) ? own(p.step, "productId") : null));
  const order = [...new Set(laid)].filter((id) => c.hasPaint(id));
  return order.map((product) => {
    const mine = uses.filter((u, i): u is StepUse => u !== null && own(placed[i].step, "productId") === product);
    const grams = mine.filter((u) => u.g !== null).reduce((a, u) => a + (u.g as number), 0);
    const sum = (k: "ml" | "laidMl" | "lostMl"): number | null =>
      mine.some((u) => u[k] === null) ? null : mine.reduce((a, u) => a + (u[k] as number), 0);
    const ml = sum("ml");
    const paint = c.paintOf(product);
    const shelf = onShelf(paint.product.cans);
    const full = canMl(paint);
    // Paint already poured out in finished steps is off the shelf's count, so only what is to come is needed.
    const toCome = mine.length
      ? placed.reduce(
          (a, p, i) =>
            own(p.step, "productId") === product && p.actual?.end == null
              ? a === null || uses[i]?.ml == null
                ? null
                : a + (uses[i] as StepUse).ml!
              : a,
          0 as number | null,
        )
      : 0;
    // what other jobs will take is not there for this one
    const others = c.world.drawn?.[product] ?? 0;
    const free = shelf === null ? null : Math.max(0, shelf - others);
    const cans = toCome === null || free === null ? null : Math.max(0, Math.ceil((toCome - free) / full - 1e-9));
    const boughtMl =
      cans === null || shelf === null || ml === null || toCome === null ? null : shelf + cans * full + (ml - toCome);
    return {
      product,
      g: paint.powder ? grams : null,
      ml,
      laidMl: sum("laidMl"),
      lostMl: sum("lostMl"),
      toComeMl: toCome,
      othersMl: others,
      onShelfMl: shelf,
      cans,
      canMl: full,
      boughtMl,
      leftMl: boughtMl === null || ml === null ? null : boughtMl - ml,
    };
  });
}
