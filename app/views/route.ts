/** What the Route page shows: every route with what speaks for it and a trial plan, what this one lays, how colours hide. */
import { saidAll } from "../core/units/said";
import { FINISHING } from "../core/catalogue/finishing";
import { pathOf } from "../core/catalogue/route-rules";
import { byHand, cuts, overFace, route as routeOf } from "../core/catalogue/routes";
import { isPainting } from "../core/explain/why/figure";
import { asked, ownRules, chooseRoutes } from "../core/plan/choose";
import { makePlan, type Plan } from "../core/plan/plan";
import { picksOf } from "../core/process/context";
import { kindOf, own } from "../core/process/kinds";
import { productFor } from "../core/process/pick";
import { burntBy } from "../core/process/polarity";
import type { Product } from "../core/records/product";
import type { World } from "../core/records/world";
import { showWhen } from "../core/time/zoned";
import { opened, openedIn, type Opened } from "./opened";
import { handsOf } from "./try";

const nameOf = (id: string): string => routeOf(id).name;
const readyOf = (p: Plan): string | null => (p.ready === null ? null : showWhen(p.context.clock, p.ready));

/** What the chosen route lays and turns on: which choices are worth a field. */
function usesOf(plan: Plan) {
  const { route, substrate } = plan.context;
  const phases = route?.phases ?? [];
  const has = (d: string): boolean => phases.some((p) => p.do === d);
  const lays = (role: string): boolean => phases.some((p) => p.do === "coats" && p.role === role);
  const masks = plan.placed.filter((p) => kindOf(p.step.kind).lays === "mask" && kindOf(p.step.kind).on === "face");
  const under = has("undercoat") || overFace(route);
  return {
    seal: lays("seal"),
    top: lays("top"),
    clear: lays("clear") || has("barrier"),
    white: under || lays("backing"),
    undercoat: under,
    mask: masks.length > 0,
    plainMask: masks.some((p) => own(p.step, "productId") === null),
    depth: cuts(route),
    brush: byHand(route),
    powderByLaser: plan.placed.some((p) => own(p.step, "method") === "laser"),
    sheet: substrate.id === "acrylic-clear",
  };
}

export interface HidingWay {
  coats: number;
  hands: string | null;
  ready: string | null;
  whyHands: Opened;
  whyReady: Opened;
}
/** One way of hiding, planned to its end: coats and time are the plan's own, not a rule of thumb. */
function hidingWay(undercoat: boolean, world: World, now: number): HidingWay {
  const there: World = { ...world, job: { ...world.job, choices: { ...world.job.choices, undercoat } } };
  const plan = makePlan(there, now, true);
  const how = undercoat ? "over white" : "straight on";
  const coats = plan.placed.filter(isPainting);
  return {
    whyReady: openedIn(there, now, { of: "ready" }, `When it is ready, ${how}`),
    whyHands: openedIn(there, now, { of: "painting" }, `Painting in all, ${how}`),
    coats: coats.length,
    hands: handsOf(coats),
    ready: readyOf(plan),
  };
}

function hidingRows(plan: Plan) {
  const c = plan.context;
  return plan.hiding.map((h) => ({
    ...h,
    whyStraight: opened(plan, { of: "coats", zone: h.zone, product: h.productId, over: "ground" }),
    whyWhite: opened(plan, { of: "coats", zone: h.zone, product: h.productId, over: "white" }),
    name: c.paintOf(h.productId).product.name,
    colour: c.paintOf(h.productId).product.colour,
    zone: c.job.zones.find((z) => z.id === h.zone)?.name ?? "the whole face",
  }));
}

export const routeView = (world: World, plan: Plan, now: number) =>
  saidAll(routeViewIn(world, plan, now), plan.context.world.shop.units);
function routeViewIn(world: World, plan: Plan, now: number) {
  const c = plan.context;
  const uses = usesOf(plan);
  const pick = (role: "seal" | "white" | "top" | "clear"): Product | null => (uses[role] ? productFor(role, c) : null);
  const white = plan.hiding.some((h) => h.overWhite !== null);
  return {
    ways: white ? { straight: hidingWay(false, world, now), white: hidingWay(true, world, now) } : null,
    job: world.job,
    units: world.shop.units,
    products: world.products,
    /** routes that can be planned */
    can: chooseRoutes(c).flatMap((x) => (x.no.length ? [] : [x.route.id])),
    path: pathOf(asked(c), ownRules(world.shop)).map((q) => ({
      ...q,
      says: q.says.map((s) => ({ ...s, for: s.for.map(nameOf), against: s.against.map(nameOf) })),
    })),
    byHand: byHand(c.route),
    toBuy: plan.toBuy.map(({ id, name, finish, colour }) => ({ id, name, finish, colour })),
    now,
    missing: plan.missing,
    interval: c.intervalMm,
    tolerance: world.shop.tolerance,
    depth: plan.depth,
    burnt: burntBy(c),
    mirror: c.route?.mirrored ?? false,
    uses,
    moves: FINISHING.filter((m) => !m.families || m.families.includes(c.substrate.family)),
    world,
    jobPicks: picksOf(world.job.choices.schools),
    shopPicks: picksOf(world.shop.schools),
    masks: world.products.filter((p) => c.paintOf(p.id).mask),
    picked: c.route ? { seal: pick("seal"), white: pick("white"), top: pick("top"), clear: pick("clear") } : null,
    hiding: hidingRows(plan),
    swatched: world.products.some((p) => p.origin === "measured here"),
  };
}
