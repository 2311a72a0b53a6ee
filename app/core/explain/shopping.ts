/** What has to be bought for open jobs: paints by product less what stands on the Shelf, rounded up to cans; blanks by kind and size. */
import { blankMatches, rejected, toOrder } from "../catalogue/blanks";
import type { BlankLot } from "../records/shop";
import { canMl, onShelf } from "../plan/amounts";
import { ALONE, makePlan } from "../plan/plan";
import { blankWords } from "../geometry/blank";
import { isStandIn } from "../process/wanted";
import { own } from "../process/kinds";
import { listWords, showAmount, showLength, showMl } from "../units/show";
import { saidAll } from "../units/said";
import type { World } from "../records/world";

export interface PaintToBuy {
  id: string;
  name: string;
  finish: string;
  colour: string;
  /** not on the Shelf at all */
  unknown: boolean;
  /** what the jobs still take */
  takes: string;
  /** what is left on the Shelf; null: nobody has measured it */
  has: string | null;
  /** full cans; null: it can't be said */
  cans: number | null;
  can: string;
  jobs: string;
}
export interface BlanksToBuy {
  key: string;
  name: string;
  /** begun with, and those of them that are ordered */
  pieces: number;
  ordered: number;
  /** of that size free on the Shelf; null: nobody counts them */
  has: number | null;
  /** to be bought: what is lacking, with what is usually turned away of such a lot */
  buy: number;
  jobs: string;
}
export interface ToBuy {
  paints: PaintToBuy[];
  blanks: BlanksToBuy[];
  /** jobs of which nothing can be said yet, with why */
  left: { title: string; why: string }[];
}

type Asked = Omit<BlanksToBuy, "has" | "buy"> & { titles: string[]; lots: BlankLot[] };
const NONE = { pieces: 0, ordered: 0, jobs: "", titles: [], lots: [] };
/** What of a kind of blanks has to be bought, less what lies here. */
function blanksToBuy({ titles, lots, ...b }: Asked, free: Readonly<Record<string, number>>): BlanksToBuy {
  const has = lots.length ? lots.reduce((a, l) => a + (free[l.id] ?? l.came), 0) : null;
  const lacking = Math.max(0, b.pieces - (has ?? 0));
  const came = lots.reduce((a, l) => a + l.came, 0);
  const good = came > 0 ? lots.reduce((a, l) => a + l.came - rejected(l), 0) / came : 1;
  return { ...b, has, buy: toOrder(lacking, good) ?? lacking, jobs: listWords(titles) };
}

interface Sum {
  ml: number | null;
  g: number;
  jobs: string[];
}

/** @param worlds open jobs of one shop, those that are bought for @param free blanks of each lot that no job has begun with, by id */
export function shopping(worlds: readonly World[], free: Readonly<Record<string, number>> = {}): ToBuy {
  const sums = new Map<string, Sum & { plan: ReturnType<typeof makePlan> }>();
  const blanks = new Map<string, Asked>();
  const left: ToBuy["left"] = [];
  for (const w of worlds) {
    const { job } = w;
    const plan = makePlan(w, null, true, ALONE);
    if (!job.route || !plan.placed.length) {
      left.push({ title: job.title, why: plan.missing[0]?.say ?? "It has no steps yet." });
      continue;
    }
    for (const a of plan.amounts) {
      const g = plan.placed.reduce(
        (sum, p, i) =>
          own(p.step, "productId") === a.product && p.actual?.end == null ? sum + (plan.uses[i]?.g ?? 0) : sum,
        0,
      );
      const ml = g > 0 ? 0 : a.toComeMl;
      if (ml === 0 && g === 0) continue;
      const had = sums.get(a.product) ?? { ml: 0, g: 0, jobs: [], plan };
      sums.set(a.product, {
        plan: had.plan,
        ml: had.ml === null || ml === null ? null : had.ml + ml,
        g: had.g + g,
        jobs: [...had.jobs, job.title],
      });
    }
    if (plan.bench.actuals.size === 0) {
      const { substrate: s } = job;
      const units = w.shop.units;
      const size = [s.w, s.h, s.t].map((mm) => showLength(mm, units)).join(" × ");
      const name = [`${plan.context.substrate.name}, ${size}`, blankWords(s, (mm) => showLength(mm, units))]
        .filter(Boolean)
        .join(", ");
      const had = blanks.get(name) ?? { ...NONE, key: name, name };
      blanks.set(name, {
        ...had,
        pieces: had.pieces + plan.context.pieces,
        ordered: had.ordered + job.quantity,
        lots: (w.shop.blanks ?? []).filter((l) => blankMatches(l, s)),
        titles: [...had.titles, job.title],
      });
    }
  }
  const paints = [...sums].map(([id, s]): PaintToBuy => {
    const paint = s.plan.context.paintOf(id);
    const { product, finish } = paint;
    const standIn = isStandIn(id);
    const has = standIn || !product.cans.length ? 0 : onShelf(product.cans);
    const full = canMl(paint);
    // powder is weighed, its cans are counted by what they hold: how much that is nobody has said
    const weighed = s.g > 0;
    const cans = weighed || s.ml === null || has === null ? null : Math.max(0, Math.ceil((s.ml - has) / full - 1e-9));
    return {
      id,
      name: product.name,
      finish: finish.name,
      colour: product.colour,
      unknown: standIn,
      takes: s.ml === null ? "amount unknown" : showAmount(weighed ? null : s.ml, weighed ? s.g : null),
      has: !product.cans.length ? "no can of it" : has === null ? null : weighed ? "some of it" : showMl(has),
      cans: weighed && (standIn || has === 0) ? 1 : cans,
      can: weighed ? "a pack" : showMl(full),
      jobs: listWords(s.jobs),
    };
  });
  const made: ToBuy = {
    paints: paints.sort(
      (a, b) => Number((b.cans ?? 1) > 0) - Number((a.cans ?? 1) > 0) || a.name.localeCompare(b.name),
    ),
    blanks: [...blanks.values()].map((b) => blanksToBuy(b, free)),
    left,
  };
  return worlds.length ? saidAll(made, worlds[0].shop.units) : made;
}
