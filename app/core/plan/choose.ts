/** Routes for a job, best first: those that can be planned, weighed by the shop's route rules, each with what speaks for and against it. */
import { weigh, type Asked, type OwnRules } from "../catalogue/route-rules";
import type { Shop } from "../records/shop";
import { paintless, ROUTES, type Route } from "../catalogue/routes";
import { against, type No } from "../catalogue/support";
import { context, type Context } from "../process/context";
import { byRoute } from "./goes";
import { linear, luminance } from "../models/film/colour";
import { ovenOf } from "../process/kinds/melt";

export interface Choice {
  route: Route;
  /** the job as it would go by it */
  on: Context;
  /** empty: it can be planned */
  no: No[];
  points: number;
  reasons: string[];
}

/** luminance under which a colour is as good as black */
const DARK = 0.03;

export function asked(c: Context): Asked {
  const oven = ovenOf(c);
  const { w, h } = c.job.substrate;
  const narrow = (paintless(c.route) ? c.uncovered : c.filled)
    .map((z) => z.narrowestMm)
    .filter((x): x is number => x !== null);
  const wanted = c.job.zones
    .filter((z) => !z.bare)
    .map((z) => z.wanted ?? c.paint(z.productId)?.product.colour ?? z.colour);
  return {
    body: c.substrate.name,
    clear: c.substrate.id === "acrylic-clear",
    dark: wanted.length > 0 && wanted.every((hex) => luminance(linear(hex)) < DARK),
    family: c.substrate.family,
    grain: c.substrate.grain,
    veneer: c.substrate.veneerMm !== null,
    beam: c.machine?.beam ?? null,
    quantity: c.job.quantity,
    colours: new Set(c.filled.map((z) => z.productId)).size,
    use: c.job.use as Asked["use"],
    ovenFits:
      oven?.trayW != null &&
      oven.trayH != null &&
      ((w <= oven.trayW && h <= oven.trayH) || (h <= oven.trayW && w <= oven.trayH)),
    picture: c.job.picture !== undefined,
    narrowestMm: narrow.length ? Math.min(...narrow) : null,
  };
}

/** How many colours are wanted. */
const tones = (c: Context): number =>
  new Set(c.job.zones.filter((z) => !z.bare).map((z) => z.wanted ?? z.productId)).size;

/** What stands against a route for a job that goes by it. */
export function standsAgainst(route: Route, c: Context): No[] {
  return against(route, {
    substrate: c.substrate.id,
    beam: c.machine?.beam ?? null,
    // a mark has one tone, however many paints would do
    colours: route.shows === "mark" ? tones(c) : asked(c).colours,
    shape: c.job.substrate.shape ?? (c.substrate.family === "glass" ? "ball" : "flat"),
    finishes: [...new Set(c.filled.map((z) => c.paintOf(z.productId as string).finish.id))],
    picture: c.job.picture !== undefined,
    bare: c.job.zones.length > 0 && c.job.zones.every((z) => z.bare && !(z.burn && paintless(route))),
  });
}

/** How a shop weighs the questions that choose a route. */
export const ownRules = (shop: Shop): OwnRules => ({ off: shop.routeRulesOff, weights: shop.routeWeights });

/** Every route for this job, those that can be planned first, the best advised of them on top; each with its own paints. */
export const chooseRoutes = (c: Context): Choice[] =>
  ROUTES.map((route) => {
    const on = route.id === c.job.route ? c : context(byRoute(c.world, route.id));
    return {
      route,
      on,
      no: standsAgainst(route, on),
      ...weigh(route, asked(on), ownRules(c.world.shop)),
    };
  }).sort((x, y) => Number(x.no.length > 0) - Number(y.no.length > 0) || y.points - x.points);
