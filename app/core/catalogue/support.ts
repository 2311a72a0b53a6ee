/**
 * What can be planned: route × material × beam × colours × shape. Each “no” names its reason, and the rule where one says it.
 * The table is worked out from the routes' own rows, so that a further route needs no second place.
 */
import type { Beam } from "../records/ids";
import { BEAM_KINDS } from "./beams";
import { ROUTES, type Route } from "./routes";
import { SUBSTRATES, type SubstrateKind } from "./substrates";
import { finish, inWords } from "./finishes";

export interface Brief {
  substrate: string;
  beam: Beam | null;
  colours: number;
  shape: "flat" | "ball" | "cylinder";
  /** finishes that zones are filled with */
  finishes: string[];
}
export interface No {
  rule: number | null;
  why: string;
}

const words = (ids: string[]): string => ids.map((id) => inWords(finish(id).name)).join(", ");

/** Everything that stands against a route for a brief; empty: it can be planned. */
export function against(r: Route, b: Brief): No[] {
  const s = SUBSTRATES.find((x) => x.id === b.substrate)!;
  const out: No[] = [];
  if (!r.families.includes(s.family) || (r.substrates && !r.substrates.includes(s.id)))
    out.push({ rule: null, why: `It does not go on ${s.name.toLowerCase()}.` });
  if (b.colours > r.maxColours)
    out.push({
      rule: null,
      why: `It takes ${r.maxColours} ${r.maxColours === 1 ? "colour" : "colours"}; your zones have ${b.colours}. Give them one, or leave some as they are.`,
    });
  if (b.beam && !r.beams.includes(b.beam))
    out.push({ rule: 40, why: `A ${BEAM_KINDS[b.beam].name.split(",")[0]} beam does not do it.` });
  if (
    b.beam === "um1" &&
    (s.family === "wood" || s.family === "mdf" || s.family === "slate") &&
    r.phases.some(
      (p) =>
        (p.do === "laser" && p.kind === "engrave") ||
        (p.do === "colours" && (p.how === "powder-visits" || p.how === "nested")),
    )
  )
    out.push({ rule: 40, why: `A 1 µm beam marks ${s.name.toLowerCase()} poorly.` });
  if (
    (b.beam === "co2" || b.beam === "blue") &&
    s.family === "metal" &&
    r.phases.some((p) => p.do === "colours" && p.how === "powder-visits")
  )
    out.push({ rule: 40, why: `A ${BEAM_KINDS[b.beam].name.split(",")[0]} beam does not mark bare metal.` });
  if (
    b.beam === "blue" &&
    s.family === "slate" &&
    r.phases.some(
      (p) => (p.do === "laser" && p.kind === "engrave") || (p.do === "colours" && p.how === "powder-visits"),
    )
  )
    out.push({ rule: 40, why: "How a blue beam marks slate is not known." });
  if (!r.shapes.includes(b.shape))
    out.push({ rule: null, why: b.shape === "flat" ? "It is for round glass on a rotary." : "It is for flat pieces." });
  const other = b.finishes.filter((f) => r.fills.length > 0 && !r.fills.includes(f));
  if (other.length)
    out.push({ rule: null, why: `It is filled with ${words(r.fills)}; a zone has ${words([...new Set(other)])}.` });
  if (!r.fills.length && b.finishes.some((f) => !!finish(f).powder || finish(f).stains))
    out.push({ rule: null, why: "It is filled with paint; a zone has powder, dye or ink." });
  return out;
}

/** All cells that can be planned, for tests and for the guide. */
export function cells(): { route: Route; substrate: SubstrateKind; beam: Beam; shape: Brief["shape"] }[] {
  return ROUTES.flatMap((route) =>
    SUBSTRATES.flatMap((substrate) =>
      route.beams.flatMap((beam) =>
        route.shapes
          .filter((shape) => !against(route, { substrate: substrate.id, beam, colours: 1, shape, finishes: [] }).length)
          .map((shape) => ({ route, substrate, beam, shape })),
      ),
    ),
  );
}
