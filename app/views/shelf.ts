/** What the Shelf shows: each product with what is left of it, what open jobs will take and which they are; what attacks what. */
import { finishNamed } from "../core/catalogue/finishes";
import { paint } from "../core/catalogue/properties";
import { attack } from "../core/judge/rules/33-finishes-that-attack";
import { onShelf } from "../core/plan/amounts";
import { context } from "../core/process/context";
import { Job } from "../core/records/job";
import type { LogEntry } from "../core/records/log";
import type { Product } from "../core/records/product";
import type { Shop } from "../core/records/shop";
import { shopClock, showDay } from "../core/time/zoned";
import type { ShopFacts } from "../core/records/world";

/** What a maker looks for a can by. */
export const SHELF_KINDS = {
  colour: "colours",
  powder: "powders",
  sealer: "sealers and primers",
  clear: "clear coats",
  mask: "tapes and masks",
} as const;
export type ShelfKind = keyof typeof SHELF_KINDS;

export interface ShelfRow {
  product: Product;
  finish: string;
  kind: ShelfKind;
  /** ml; null: there is no can, or nobody knows */
  left: number | null;
  full: number;
  /** ml that open jobs will still take */
  drawn: number;
  /** titles of open jobs with it in a zone */
  usedBy: string[];
  low: boolean;
}
/** share of all its cans below which a paint is low */
const LOW = 0.2;

/** @param jobs open jobs by title, with the products in their zones @param drawn ml that open jobs take, by product */
export function shelfRows(
  products: readonly Product[],
  jobs: readonly { title: string; products: readonly string[] }[],
  drawn: Readonly<Record<string, number>>,
): ShelfRow[] {
  return products
    .map((product) => {
      const f = finishNamed(product.finish);
      const left = product.cans.length ? onShelf(product.cans) : null;
      const full = product.cans.reduce((a, c) => a + c.fullMl, 0);
      const takes = drawn[product.id] ?? 0;
      return {
        product,
        finish: f.name,
        kind: f.by === "powder" ? ("powder" as const) : f.role,
        left,
        full,
        drawn: takes,
        usedBy: jobs.filter((j) => j.products.includes(product.id)).map((j) => j.title),
        low: left !== null && (left < LOW * full || takes > left),
      };
    })
    .sort((a, b) => a.product.name.localeCompare(b.product.name));
}

/** What was used of a product in a week. */
export interface WeekUse {
  /** the day that it begins with, in words */
  week: string;
  ml: number;
}
/** weeks that are looked back on, at most */
export const WEEKS_BACK = 26;
const WEEK_MIN = 7 * 1440;
/** days since 1970 of a week's beginning: the first Thursday was day 0 */
const FIRST_DAYS = { mon: 4, sat: 2, sun: 3 } as const;

/**
 * Week by week from the first that it was used in, those of nothing too; empty: it was not used.
 * @param used steps that were done and not taken back @param now minute since 1970
 */
export function usedByWeek(
  used: readonly Pick<LogEntry, "at" | "ml" | "productId">[],
  productId: string,
  shop: Shop,
  now: number,
): WeekUse[] {
  const clock = shopClock(shop);
  const first = FIRST_DAYS[shop.weekStart ?? "mon"];
  const weekOf = (at: number): number => Math.floor((clock.dayNumber(at) - first) / 7);
  const last = weekOf(now);
  const sums = new Map<number, number>();
  for (const e of used) {
    const w = weekOf(Math.floor(e.at));
    if (e.productId === productId && e.ml && w > last - WEEKS_BACK && w <= last) sums.set(w, (sums.get(w) ?? 0) + e.ml);
  }
  if (!sums.size) return [];
  const from = Math.min(...sums.keys());
  const dayOf = (w: number): string => showDay(clock, clock.atDay(w * 7 + first, 12 * 60)).replace(/^\w+ /, "");
  return Array.from({ length: last - from + 1 }, (_, i) => ({ week: dayOf(from + i), ml: sums.get(from + i) ?? 0 }));
}
/** the earliest minute that is looked back on */
export const usedSince = (now: number): number => now - (WEEKS_BACK + 1) * WEEK_MIN;

/** Pairs of finishes on this Shelf of which one harms the other, and how. */
export function attacksOn(base: ShopFacts): { upper: string; lower: string; why: string }[] {
  const c = context({
    ...base,
    job: { ...new Job(), id: "x", title: "x", start: "2027-01-01T00:00", zones: [] },
    log: [],
  });
  const film = {
    step: "",
    productId: "",
    role: "colour" as const,
    coat: 1,
    dryUm: 10,
    wetUm: null,
    left: 1,
    laidAt: 0,
    roomC: null,
    roomRh: null,
  };
  const one = [...new Map(base.products.map((p) => [p.finish, p])).values()];
  return one.flatMap((u) =>
    one.flatMap((l) => {
      const why = u.id === l.id ? null : attack(paint(u), paint(l), { ...film, productId: l.id }, c, 0);
      return why ? [{ upper: finishNamed(u.finish).name, lower: finishNamed(l.finish).name, why }] : [];
    }),
  );
}
