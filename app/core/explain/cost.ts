/**
 * M16 What a job costs: blanks, paint by volume, powder by weight, mask by area, small things, machine by the hour, hands by the hour,
 * opened to its parts; as planned, and as it was by the bench log. A part without a price is unknown and the sum is “at least”.
 */
import { lotOf } from "../catalogue/blanks";
import { canMl, type StepUse } from "../plan/amounts";
import type { Placed } from "../plan/placed";
import { isFirst } from "../plan/proof";
import { FIRST } from "../records/log";
import { findStep, turns, type Plan } from "../plan/plan";
import type { Context } from "../process/context";
import { byBeam, has, kindOf, own } from "../process/kinds";
import { heatOf, ovenOf } from "../process/kinds/melt";
import { minorDigits, showMoney } from "../units/money";
import { showAmount, showMinutes } from "../units/show";
import type { Job } from "../records/job";
import type { Product } from "../records/product";
import type { BlankLot, Shop } from "../records/shop";
import type { ShopFacts } from "../records/world";

/** where a price that is lacking is typed in */
export interface PriceAt {
  of: "product" | "machine" | "gear" | "rates" | "blanks";
  id: string;
}
export interface CostPart {
  id: string;
  name: string;
  /** how it comes about, in words */
  how: string;
  /** minor units; null: not known */
  minor: number | null;
  /** what has to be said before it is known; null: it is known */
  lacks: string | null;
  at: PriceAt;
}
export interface Cost {
  parts: CostPart[];
  /** of the parts that are known */
  totalMinor: number;
  /** some part is unknown */
  atLeast: boolean;
  /** pieces begun, and those that it is shared by: ordered, or good */
  pieces: number;
  shared: number;
  /** a piece of those, rounded up */
  eachMinor: number;
}

/** mm that a mask is cut larger than the piece on every side */
const MASK_OVER_MM = 10;
const HOUR = 60;

/** The lot that a job’s blanks come from; null: none lies here. */
export const lotFor = (job: Job, shop: Shop): BlankLot | null => lotOf(shop.blanks ?? [], job.substrate, job.blankLot);

/** What a pack of a product holds and in what; null: nobody has said. */
export function packOf(p: Product, c: Context): { holds: number; unit: "ml" | "g" | "m²" } | null {
  const paint = c.paintOf(p.id);
  const unit = paint.finish.by === "powder" ? "g" : paint.finish.by === "tape" ? "m²" : "ml";
  const holds = p.pack ?? (unit === "ml" ? canMl(paint) : null);
  return holds === null ? null : { holds, unit };
}

/**
 * Whose prices count: the shop’s as they are by now while a job is open; those kept with it once it is wrapped up, as `world` has them.
 */
const pricesOf = (c: Context): ShopFacts => c.world.elsewhere ?? c.world;
const priced = (p: Product, c: Context): Product => pricesOf(c).products.find((x) => x.id === p.id) ?? p;

/** A step with what it took: minutes of work, and of its product. */
interface Took {
  p: Placed;
  minutes: number | null;
  use: StepUse | null;
}

/** m² of mask or film of one piece. */
function maskM2(c: Context): number {
  const { w, h, diameter, shape } = c.job.substrate;
  const round = shape && shape !== "flat" && diameter ? Math.PI * diameter : w;
  return ((round + 2 * MASK_OVER_MM) * (h + 2 * MASK_OVER_MM)) / 1e6;
}

/** What went of a product, in the unit that its pack is counted in; null: not known. */
function takenOf(id: string, took: readonly Took[], c: Context): number | null {
  const by = c.paintOf(id).finish.by;
  const mine = took.filter((t) => own(t.p.step, "productId") === id);
  if (by === "tape") {
    const laid = mine.filter((t) => kindOf(t.p.step.kind).lays === "mask");
    return laid.reduce((a, t) => a + maskM2(c) * t.p.pieces, 0);
  }
  const key = by === "powder" ? "g" : "ml";
  return mine.some((t) => t.use !== null && t.use[key] === null)
    ? null
    : mine.reduce((a, t) => a + (t.use?.[key] ?? 0), 0);
}

function productPart(id: string, took: readonly Took[], c: Context): CostPart | null {
  const product = priced(c.paintOf(id).product, c);
  const amount = takenOf(id, took, c);
  if (amount === 0) return null;
  const pack = packOf(product, c);
  const at: PriceAt = { of: "product", id };
  const { currency, language } = c.world.shop;
  const unit = pack?.unit ?? (c.paintOf(id).finish.by === "powder" ? "g" : "m²");
  const words =
    amount === null
      ? "amount unknown"
      : unit === "m²"
        ? `${amount.toFixed(2)} m²`
        : showAmount(unit === "ml" ? amount : null, unit === "g" ? amount : null);
  const lacks =
    amount === null
      ? `how much ${product.name} goes is not known`
      : product.priceMinor === undefined
        ? `what a pack of ${product.name} costs`
        : pack === null
          ? `how much a pack of ${product.name} holds`
          : null;
  const known = lacks === null && amount !== null && pack !== null;
  return {
    id: `product.${id}`,
    name: product.name,
    how: known
      ? `${words} of a pack of ${pack.holds} ${pack.unit} at ${showMoney(product.priceMinor!, currency, language)}`
      : words,
    minor: known ? Math.round((amount / pack.holds) * product.priceMinor!) : null,
    lacks,
    at,
  };
}

/** Minutes times a rate an hour. */
function byTheHour(
  base: Pick<CostPart, "id" | "name" | "at">,
  minutes: number | null,
  rate: number | undefined,
  whose: string,
  c: Context,
): CostPart | null {
  if (minutes === 0) return null;
  const { currency, language } = c.world.shop;
  const lacks =
    minutes === null ? "the minutes of some step" : rate === undefined ? `what an hour of ${whose} is worth` : null;
  return {
    ...base,
    how:
      minutes === null
        ? "minutes unknown"
        : `${showMinutes(minutes)}${rate === undefined ? "" : ` at ${showMoney(rate, currency, language)} an hour`}`,
    minor: lacks === null ? Math.round(((minutes as number) / HOUR) * (rate as number)) : null,
    lacks,
    at: base.at,
  };
}

const minutesOf = (took: readonly Took[]): number | null =>
  took.some((t) => t.minutes === null) ? null : took.reduce((a, t) => a + (t.minutes as number), 0);
const inOven = (p: Placed): boolean => has(p.step, "method") && heatOf(p.step) === "oven";

/** @param shared pieces that the sum is shared by */
function costFrom(took: readonly Took[], c: Context, pieces: number, shared: number): Cost {
  const { shop, machines } = pricesOf(c);
  const { currency, language, rates } = shop;
  const products = [...new Set(took.map((t) => own(t.p.step, "productId")))].filter((id) => c.hasPaint(id));
  const lot = lotFor(c.job, shop);
  const body = c.substrate.name.toLowerCase();
  const blank: CostPart = {
    id: "blanks",
    name: "Blanks",
    how:
      lot?.eachMinor === undefined
        ? `${pieces} of ${body}`
        : `${pieces} of ${lot.name} at ${showMoney(lot.eachMinor, currency, language)}`,
    minor: lot?.eachMinor === undefined ? null : pieces * lot.eachMinor,
    lacks: lot?.eachMinor === undefined ? `what a blank of ${body} costs` : null,
    at: { of: "blanks", id: lot?.id ?? "" },
  };
  const m = machines.find((x) => x.id === c.machine?.id) ?? c.machine;
  const made = ovenOf(c);
  const oven = (shop.gear ?? []).find((g) => g.id === made?.id) ?? made;
  const small: CostPart | null =
    rates?.pieceMinor === undefined
      ? null
      : {
          id: "small",
          name: "Small things",
          how: `${pieces} × ${showMoney(rates.pieceMinor, currency, language)}: sandpaper, gloves, tips, wipes`,
          minor: pieces * rates.pieceMinor,
          lacks: null,
          at: { of: "rates", id: "piece" },
        };
  const parts = [
    blank,
    ...products.map((id) => productPart(id as string, took, c)),
    small,
    byTheHour(
      { id: "laser", name: m?.name ?? "Laser", at: { of: "machine", id: m?.id ?? "" } },
      minutesOf(took.filter((t) => byBeam(t.p.step))),
      m?.minorPerHour,
      m?.name ?? "the laser",
      c,
    ),
    byTheHour(
      { id: "oven", name: oven?.name ?? "Oven", at: { of: "gear", id: oven?.id ?? "" } },
      minutesOf(took.filter((t) => inOven(t.p))),
      oven?.minorPerHour,
      oven?.name ?? "the oven",
      c,
    ),
    byTheHour(
      { id: "hands", name: "Hands", at: { of: "rates", id: "hands" } },
      minutesOf(took),
      rates?.handsMinor,
      "hands",
      c,
    ),
  ].filter((p): p is CostPart => p !== null);
  const totalMinor = parts.reduce((a, p) => a + (p.minor ?? 0), 0);
  return {
    parts,
    totalMinor,
    atLeast: parts.some((p) => p.minor === null),
    pieces,
    shared,
    eachMinor: shared > 0 ? Math.ceil(totalMinor / shared) : 0,
  };
}

const plannedTook = (plan: Plan): Took[] =>
  turns(plan).map((t) => ({ p: t.p, minutes: t.p.minutes, use: t.plan.uses[t.p.index] ?? null }));

/** As planned: all pieces begun are paid for by those that are ordered. */
export const costOf = (plan: Plan): Cost =>
  costFrom(plannedTook(plan), plan.context, plan.context.pieces, plan.context.job.quantity);

/** As it was by the log, so far; null: no step is done yet. */
export function costSoFar(plan: Plan): Cost | null {
  const c = plan.context;
  const took = turns(plan).flatMap((t): Took[] => {
    const run = plan.bench.steps.get(t.p.step.id);
    if (run?.startedAt == null || run.doneAt == null) return [];
    return [
      {
        p: t.p,
        minutes: c.calendar.workedBetween(run.startedAt, run.doneAt),
        use: t.plan.uses[t.p.index] ?? null,
      },
    ];
  });
  if (!took.length) return null;
  const lost = plan.bench.aside.size;
  const good = c.job.wrapUp.good ?? Math.min(c.job.quantity, c.pieces - lost);
  return costFrom(took, c, c.pieces, Math.max(0, good));
}

/** Does a piece go through a step: the first alone through its own, and no more through those of the batch that it has been through? */
const goesThrough = (step: string, piece: number, all: readonly Took[]): boolean =>
  isFirst(step) ? piece === 1 : piece !== 1 || !all.some((x) => x.p.step.id === FIRST + step);

export interface LostPiece {
  piece: number;
  /** the step at which it was put aside */
  step: string;
  minor: number;
  atLeast: boolean;
}
/** What each piece that was put aside had cost by then: its blank, and its share of every step up to the one where it was lost. */
export function lostPieces(plan: Plan): LostPiece[] {
  const c = plan.context;
  const all = plannedTook(plan);
  const lost: LostPiece[] = [];
  for (const t of all)
    for (const piece of plan.bench.steps.get(t.p.step.id)?.aside ?? []) {
      const upTo = all.slice(0, all.indexOf(t) + 1).filter((x) => goesThrough(x.p.step.id, piece, all));
      const shares = upTo.map((x) => ({
        ...x,
        minutes: x.minutes === null ? null : x.minutes / x.p.pieces,
        p: { ...x.p, pieces: 1 },
        use: x.use && {
          ...x.use,
          ml: x.use.ml === null ? null : x.use.ml / x.p.pieces,
          g: x.use.g === null ? null : x.use.g / x.p.pieces,
        },
      }));
      const cost = costFrom(shares, c, 1, 1);
      const title = findStep(plan, t.p.step.id)?.step.title ?? t.p.step.id;
      lost.push({ piece, step: title, minor: cost.totalMinor, atLeast: cost.atLeast });
    }
  return lost.sort((a, b) => a.piece - b.piece);
}

/** A sum in words: “at least” where some part is unknown. */
export const sumWords = (x: Pick<Cost, "totalMinor" | "atLeast">, { currency, language }: Shop): string =>
  `${x.atLeast ? "at least " : ""}${showMoney(x.totalMinor, currency, language)}`;

/** A cost as the door answers it. */
export const costReport = (plan: Plan): object => {
  const cost = costOf(plan);
  const { currency } = pricesOf(plan.context).shop;
  return {
    currency,
    minorDigits: minorDigits(currency),
    totalMinor: cost.totalMinor,
    atLeast: cost.atLeast,
    pieces: cost.pieces,
    ordered: cost.shared,
    eachMinor: cost.eachMinor,
    parts: cost.parts.map(({ id, name, how, minor, lacks }) => ({ id, name, how, minor, lacks })),
  };
};
