/** Blanks that lie here, lot by lot: what came, was turned away and why, what jobs took, what is free; cans that are nearly empty. */
import { lotOf, rejected, toOrder, yieldOf } from "../core/catalogue/blanks";
import { paint } from "../core/catalogue/properties";
import { substrateNamed } from "../core/catalogue/substrates";
import { transfer, wetUm } from "../core/models/film/build";
import { onShelf } from "../core/plan/amounts";
import { piecesOf, type Begins } from "../core/process/pieces";
import type { Product } from "../core/records/product";
import type { BlankLot, Shop } from "../core/records/shop";
import { showMoney } from "../core/units/money";
import { listWords, MM_PER_INCH, showLength, showMl, showShare } from "../core/units/show";

/** What of a job its blanks are told by. */
export interface Wants {
  title: string;
  open: 0 | 1;
  blanks?: {
    id: string;
    w: number;
    h: number;
    t: number;
    shape?: "flat" | "ball" | "cylinder";
    diameter?: number;
    begins: Begins;
    lot: string | null;
    begun: boolean;
  };
}
export interface LotRow {
  lot: BlankLot;
  what: string;
  turnedAway: number;
  reasons: string;
  yield: string | null;
  used: number;
  usedBy: string;
  left: number;
  reserved: number;
  reservedBy: string;
  free: number;
  each: string;
  /** to order for ten good ones; null: nothing was turned away */
  forTen: number | null;
}

/** Does a job that has not begun yet mean to take a lot? */
const means = (lot: BlankLot, lots: readonly BlankLot[], { blanks: b, open }: Wants): boolean =>
  b !== undefined && !b.begun && open === 1 && lotOf(lots, b, b.lot)?.id === lot.id;

/** @param jobs all jobs of the shop, wrapped up or not */
export function lotRows(shop: Shop, jobs: readonly Wants[]): LotRow[] {
  const lots = shop.blanks ?? [];
  return lots.map((lot) => {
    const users = jobs.filter((j) => j.blanks?.begun && j.blanks.lot === lot.id);
    const waiting = jobs.filter((j) => means(lot, lots, j));
    const sum = (list: readonly Wants[]): number =>
      list.reduce((a, j) => a + (j.blanks ? piecesOf(j.blanks.begins) : 0), 0);
    const away = rejected(lot);
    const used = sum(users) + (lot.otherwise ?? 0);
    const left = Math.max(0, lot.came - away - used);
    const reserved = sum(waiting);
    const why = new Map<string, number>();
    for (const r of lot.rejects ?? []) why.set(r.why, (why.get(r.why) ?? 0) + r.n);
    const share = yieldOf(lot);
    const size = [lot.w, lot.h, lot.t].map((mm) => showLength(mm, shop.units)).join(" × ");
    return {
      lot,
      what:
        `${substrateNamed(lot.substrate).name}, ${size}` +
        (lot.diameter === undefined ? "" : `, ${showLength(lot.diameter, shop.units)} across`),
      turnedAway: away,
      reasons: listWords([...why].sort((a, b) => b[1] - a[1]).map(([w, n]) => `${n} × ${w}`)),
      yield: share === null ? null : showShare(share),
      used,
      usedBy: listWords(users.map((j) => j.title)),
      left,
      reserved,
      reservedBy: listWords(waiting.map((j) => j.title)),
      free: left - reserved,
      each: lot.eachMinor === undefined ? "" : showMoney(lot.eachMinor, shop.currency, shop.language),
      forTen: share === null || away === 0 ? null : toOrder(10, share),
    };
  });
}
/** Blanks of each lot that no job has begun with. */
export const freeBlanks = (rows: readonly LotRow[]): Record<string, number> =>
  Object.fromEntries(rows.map((r) => [r.lot.id, r.left]));

export interface Leftover {
  id: string;
  name: string;
  colour: string;
  left: string;
  /** what one coat of it would cover, in words; null: its film is not known */
  covers: string | null;
}
/** share of its cans from which a paint counts as a leftover */
const NEARLY = 0.2;
/** mm, side of the piece that a leftover is thought to go on */
const SMALL_MM = 100;

/** Paints that are nearly empty, with what they would still do. */
export const leftovers = (products: readonly Product[], units: Shop["units"]): Leftover[] =>
  products.flatMap((p) => {
    const has = p.cans.length ? onShelf(p.cans) : null;
    const full = p.cans.reduce((a, k) => a + k.fullMl, 0);
    if (has === null || has <= 0 || has >= NEARLY * full) return [];
    const f = paint(p);
    const wet = wetUm(f.coatUm.value, f.solids.value);
    const lands = transfer(f.finish.by, SMALL_MM ** 2, SMALL_MM, SMALL_MM);
    const cm2 = wet === null || wet <= 0 ? null : (has * lands * 1e4) / wet;
    const area =
      cm2 === null
        ? null
        : units === "inch"
          ? `${Math.round((cm2 * 100) / MM_PER_INCH ** 2)} sq in`
          : `${Math.round(cm2)} cm²`;
    return [
      {
        id: p.id,
        name: p.name,
        colour: p.colour,
        left: showMl(has),
        covers: area === null ? null : `one coat over about ${area}`,
      },
    ];
  });
