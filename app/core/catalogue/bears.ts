/**
 * What a way of colouring bears in use, as makers know it: by itself, only under a sound clear coat, or not. A default; a shop's own
 * pieces know better, and food contact is the paint maker's to say.
 */
import { cuts, route as routeOf } from "./routes";
import type { RouteId, Use } from "../records/ids";

export type Bears = "yes" | "sealed" | "no";
type Row = Record<Exclude<Use, "display">, Bears>;

const FACE_PAINT: Row = { handled: "sealed", wet: "sealed", outdoors: "sealed", food: "no" };
const IN_WOOD: Row = { handled: "yes", wet: "sealed", outdoors: "sealed", food: "no" };
const IN_METAL: Row = { handled: "yes", wet: "yes", outdoors: "yes", food: "no" };
const OPENED_GLAZE: Row = { handled: "yes", wet: "sealed", outdoors: "sealed", food: "no" };

/** what is known of a way; one that is not here bears what its paint does on the face, or in a cut */
const ROWS: Partial<Record<RouteId, Row>> = {
  B: { handled: "yes", wet: "yes", outdoors: "yes", food: "no" },
  C1: OPENED_GLAZE,
  C2: OPENED_GLAZE,
  C3: OPENED_GLAZE,
  D1: { ...FACE_PAINT, handled: "yes" },
  D2: IN_METAL,
  D5: { handled: "yes", wet: "sealed", outdoors: "sealed", food: "no" },
  F: { ...IN_WOOD, handled: "sealed" },
  I: { handled: "yes", wet: "sealed", outdoors: "sealed", food: "no" },
  J: { handled: "no", wet: "no", outdoors: "no", food: "no" },
};
/** powder in metal needs nothing over it */
const POWDER_IN_METAL: ReadonlySet<RouteId> = new Set(["D3", "D4"]);

/** What a route on a body bears of a use. */
export function bears(route: RouteId, use: Use, onMetal: boolean): Bears {
  if (use === "display") return "yes";
  if (onMetal && POWDER_IN_METAL.has(route)) return IN_METAL[use];
  return (ROWS[route] ?? (cuts(routeOf(route)) ? IN_WOOD : FACE_PAINT))[use];
}

const OF: Record<Exclude<Use, "display">, string> = {
  handled: "handling",
  wet: "the wet",
  outdoors: "the weather",
  food: "food",
};
/** In words, as a table says it. */
export const bearsWords = (use: Use, b: Bears): string =>
  use === "display"
    ? "to be looked at"
    : b === "yes"
      ? `bears ${OF[use]}`
      : b === "sealed"
        ? `${OF[use]}: only under a clear coat`
        : use === "food"
          ? "not for food, unless its maker rates it"
          : `does not bear ${OF[use]}`;
