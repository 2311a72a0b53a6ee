/**
 * What is kept with a job from its first tap on, and what has changed elsewhere since: looked at as a difference, and taken over for the
 * rest when the maker says so.
 */
import { inTurn } from "./placed";
import type { Begun } from "../records/begun";
import type { BlankLot, Climate } from "../records/shop";
import type { Product } from "../records/product";
import { worldAround, type ShopFacts, type World } from "../records/world";
import { differences, type Differences } from "./differences";
import { kept } from "./history";
import type { Plan } from "./plan";

/**
 * What is to be kept with a job after a tap on a step: the shop as it was when the first one fell, and the steps that are done as
 * they are in force.
 * @param plan as it was when the tap fell @param step the one tapped, begun by it; null: none is @param at min since 1970
 */
export function keptWith(plan: Plan, step: string | null, at: number): Begun {
  const { world } = plan.context;
  const shop = { ...world.shop };
  // what lies here and what was learned is asked of the shop as it is
  delete shop.blanks;
  delete shop.lessons;
  delete shop.practised;
  const now: ShopFacts = { shop, machines: world.machines, products: world.products };
  const { begun } = world.job;
  const basis = begun ?? { at: Math.floor(at), ...now };
  const done = inTurn(plan.placed)
    .filter((p) => p.actual !== null || p.step.id === step)
    .map((p) => kept(p.step));
  return {
    at: basis.at,
    shop: basis.shop,
    machines: basis.machines,
    products: basis.products,
    done,
    steps: begun?.steps ?? plan.placed.map((p) => p.step.id),
    pieces: begun ? begun.pieces : plan.context.pieces,
  };
}

/**
 * What is kept with a job, with what things cost by now: prices are not what a job is made by, and count as they are when it is wrapped
 * up. @param lots the lot that its blanks came from, if any
 */
export function withPrices(kept: Begun, now: ShopFacts, lots: BlankLot[]): Begun {
  const priced = new Map(now.products.map((p) => [p.id, p]));
  const run = new Map(now.machines.map((m) => [m.id, m]));
  const gear = new Map((now.shop.gear ?? []).map((g) => [g.id, g]));
  return {
    ...kept,
    shop: {
      ...kept.shop,
      currency: now.shop.currency,
      ...(now.shop.rates ? { rates: now.shop.rates } : {}),
      ...(lots.length ? { blanks: lots } : {}),
      ...(kept.shop.gear ? { gear: kept.shop.gear.map((g) => ({ ...g, ...hourly(gear.get(g.id)) })) } : {}),
    },
    machines: kept.machines.map((m) => ({ ...m, ...hourly(run.get(m.id)) })),
    products: kept.products.map((p) => ({ ...p, ...packed(priced.get(p.id)) })),
  };
}
const hourly = (x: { minorPerHour?: number } | undefined): { minorPerHour?: number } =>
  x?.minorPerHour === undefined ? {} : { minorPerHour: x.minorPerHour };
const packed = (p: Product | undefined): Partial<Product> => ({
  ...(p?.priceMinor === undefined ? {} : { priceMinor: p.priceMinor }),
  ...(p?.pack === undefined ? {} : { pack: p.pack }),
});

/** The same job in the shop as it is by now; null: nothing is kept with it, or the shop is the same. */
export function takenOver(w: World, at: number): World | null {
  const { begun } = w.job;
  if (!begun || !w.elsewhere || !differs(begun, w.elsewhere)) return null;
  const { shop, machines, products } = w.elsewhere;
  const job = { ...w.job, begun: { ...begun, at: Math.floor(at), shop, machines, products } };
  return worldAround(w.elsewhere, job, w.log);
}

/** The kept facts with the changes elsewhere left out for good; null: there are none. */
export function declined(w: World): Begun | null {
  const { begun } = w.job;
  return begun && w.elsewhere && differs(begun, w.elsewhere) ? { ...begun, left: markOf(w.elsewhere) } : null;
}

/** Were the changes elsewhere, as they are by now, looked at and left? */
export const leftOut = (w: World): boolean =>
  w.job.begun?.left !== undefined && w.elsewhere !== undefined && w.job.begun.left === markOf(w.elsewhere);

const still = (c: Climate): Climate => ({ ...c, readings: [] });
/** what of a product a plan goes by: cans are counted as they are */
const bare = ({ priceMinor: _cost, pack: _holds, ...p }: Product): Product => ({ ...p, cans: [] });
/** an hour of it, whatever it costs */
const run = <T extends { minorPerHour?: number }>({ minorPerHour: _cost, ...m }: T): Omit<T, "minorPerHour"> => m;
const byId = <T extends { id: string }>(list: T[]): T[] => [...list].sort((a, b) => (a.id < b.id ? -1 : 1));
/** What of a shop plans go by, as text. */
const read = (f: ShopFacts): string =>
  JSON.stringify([
    {
      ...f.shop,
      climate: still(f.shop.climate),
      name: "",
      demo: null,
      units: "metric",
      currency: "",
      gear: f.shop.gear?.map(run),
      // what things cost and what lies here is not what a job is made by
      rates: undefined,
      blanks: undefined,
      lessons: undefined,
      practised: undefined,
      // for how many there is room is asked of the shop as it is
      rackPlaces: undefined,
    },
    byId(f.machines).map(run),
    byId(f.products).map(bare),
  ]);
const differs = (kept: ShopFacts, now: ShopFacts): boolean => read(kept) !== read(now);
/** A short mark of a shop: another one whenever a plan could read something else. */
function markOf(f: ShopFacts): string {
  let [a, b] = [0x811c9dc5, 0x1505];
  for (const ch of read(f)) {
    const k = ch.codePointAt(0)!;
    a = Math.imul(a ^ k, 0x01000193) >>> 0;
    b = (Math.imul(b, 33) + k) >>> 0;
  }
  return `${a.toString(36)}-${b.toString(36)}`;
}

/** What taking over the shop as it is by now would change of the rest of a job. */
export interface Elsewhere extends Differences {
  ready: [number | null, number | null];
}

/**
 * What has changed elsewhere since a job began, as far as its rest would change; null: nothing, or it was looked at and left.
 * @param plan its plan as it is @param now min since 1970
 */
export function changesElsewhere(plan: Plan, now: number, planOf: (w: World) => Plan): Elsewhere | null {
  const { world } = plan.context;
  if (world.job.wrapUp.closedAt !== null || leftOut(world)) return null;
  const w = takenOver(world, now);
  if (!w) return null;
  const next = planOf(w);
  const d = differences(
    plan.placed.map((p) => p.step),
    next.placed.map((p) => p.step),
  );
  const same = [d.added, d.removed, d.moved, d.changed].every((l) => !l.length) && plan.ready === next.ready;
  return same ? null : { ...d, ready: [plan.ready, next.ready] };
}
