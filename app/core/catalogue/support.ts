/**
 * What can be planned: route × material × beam × colours × shape. Each “no” names its reason, and the rule where one says it.
 * The table is worked out from the routes' own rows, so that a further route needs no second place.
 */
import type { Beam } from "../records/ids";
import { BEAM_KINDS, beamOn, marksSays } from "./beams";
import { finishNamed, inWords, type Finish } from "./finishes";
import { beamWork, colourWay, cuts, paintless, ROUTES, taken, takes, type Route } from "./routes";
import { SUBSTRATES, substrateNamed, type SubstrateKind } from "./substrates";

export interface Brief {
  substrate: string;
  beam: Beam | null;
  colours: number;
  shape: "flat" | "ball" | "cylinder";
  /** finishes that zones are filled with */
  finishes: string[];
  /** the beam is to draw a picture */
  picture?: boolean;
  /** there are zones, and none of them has a colour */
  bare?: boolean;
}
export interface No {
  rule: number | null;
  why: string;
  /** what of the job it is about */
  of: "body" | "colours" | "bare" | "beam" | "cut" | "shape" | "finish" | "picture";
}

const words = (list: Finish[]): string => list.map((f) => inWords(f.name)).join(", ");
const beamName = (beam: Beam): string => BEAM_KINDS[beam].name.split(",")[0];

/** What stands against cutting this body with this beam, where the route cuts it; null: nothing. */
function againstCut(r: Route, beam: Beam, s: SubstrateKind): string | null {
  if (!cuts(r)) return null;
  if (beam === "um1" && s.family === "acrylic") return "How deep a 1 µm beam cuts acrylic is not known.";
  if (beam === "um1" && ["wood", "mdf", "slate"].includes(s.family))
    return `A 1 µm beam marks ${s.name.toLowerCase()} poorly.`;
  if ((beam === "co2" || beam === "blue") && s.family === "metal" && colourWay(r) === "powder-visits")
    return `A ${beamName(beam)} beam does not mark bare metal.`;
  return beam === "blue" && s.family === "slate" ? "How a blue beam marks slate is not known." : null;
}

/** Everything that stands against a route for a brief; empty: it can be planned. */
export function against(r: Route, b: Brief): No[] {
  const s = substrateNamed(b.substrate);
  const out: No[] = [];
  if (!r.families.includes(s.family) || (r.substrates && !r.substrates.includes(s.id)))
    out.push({ rule: null, of: "body", why: `It does not go on ${s.name.toLowerCase()}.` });
  if (b.colours > r.maxColours) {
    const takesN = `${r.maxColours} ${r.maxColours === 1 ? "colour" : "colours"}`;
    const or = "Give them one, or leave some as they are.";
    out.push({ rule: null, of: "colours", why: `It takes ${takesN}; your zones have ${b.colours}. ${or}` });
  }
  if (b.bare && !r.bareAlone) {
    const [way] = ROUTES.filter((x) => x.bareAlone);
    const why = paintless(r)
      ? "It marks areas; all of yours are left as they are."
      : `It lays colours; your zones have none. “${way.name}” uncovers the bare material.`;
    out.push({ rule: null, of: "bare", why });
  }
  if (b.picture && !r.pictures)
    out.push({ rule: null, of: "picture", why: "It fills areas one by one; it draws no picture in tones." });
  if (b.beam && !r.beams.includes(b.beam))
    out.push({ rule: 40, of: "beam", why: `A ${beamName(b.beam)} beam does not do it.` });
  const on = b.beam && beamWork(r) === "mark" ? beamOn(b.beam, s) : "marks";
  if (b.beam && on !== "marks")
    out.push({ rule: 40, of: "beam", why: `A ${beamName(b.beam)} beam ${marksSays(on, s.name.toLowerCase())}.` });
  const cut = b.beam && againstCut(r, b.beam, s);
  if (cut) out.push({ rule: 40, of: "cut", why: cut });
  if (!r.shapes.includes(b.shape))
    out.push({
      rule: null,
      of: "shape",
      why: b.shape === "flat" ? "It is for round pieces on a rotary." : "It is for flat pieces.",
    });
  const other = [...new Set(b.finishes)].map(finishNamed).filter((f) => !takes(r, f));
  if (other.length)
    out.push({ rule: null, of: "finish", why: `It is filled with ${words(taken(r))}; a zone has ${words(other)}.` });
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
