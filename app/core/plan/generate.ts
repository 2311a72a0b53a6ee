/** Brief and route to steps: the route's phases, walked by the builder. */
import { route as routeOf } from "../catalogue/routes";
import { Builder, type Generated } from "./builder";
import { COLOUR_WAYS } from "./colours";
import { runPhases } from "./phases";
import type { Context } from "../process/context";

export function generate(c: Context): Generated {
  const b = new Builder(c);
  if (!c.job.route)
    return { steps: [], missing: [{ what: "route", say: "No route is chosen yet." }], hiding: [], depth: null };
  if (!c.job.zones.length)
    return {
      steps: [],
      missing: [{ what: "zones", say: "There is no artwork yet, so there is nothing to fill." }],
      hiding: [],
      depth: null,
    };
  runPhases(b, routeOf(c.job.route).phases, COLOUR_WAYS);
  return { steps: b.steps, missing: b.missing, hiding: b.hiding, depth: b.depth };
}
