/**
 * What a step waits for because of what it does, whatever it is called: the beam meets a film, a hand meets wet paint, heat meets solvent,
 * sanding meets a soft film. A kind may ask for more, or for the same thing in words of its own.
 */
import { COLD_C } from "../models/powder/heat";
import { zoneOf, type Film, type Piece } from "../piece/state";
import type { Context } from "./context";
import { kindOf, type Step } from "./kinds";
import { filmsNeed } from "./kinds/laser-work";
import { coldNeed, needOf } from "./needs";
import type { Need } from "./step";

/** minutes until poured epoxy may be handled (M8) */
const EPOXY_HANDLED_MIN = 24 * 60;

/** Is it laid, lifted or stripped by what the kind itself says about wet films, or no more than a pause? */
const ownWays = (k: ReturnType<typeof kindOf>): boolean =>
  k.lays !== undefined || k.lifts !== undefined || k.strips === true || k.rests === true || k.packs === true;
/** Is the piece taken in hand as a whole? */
const handles = (k: ReturnType<typeof kindOf>): boolean =>
  !ownWays(k) &&
  k.tries !== "setting" &&
  (k.on !== "zones" || k.cleans !== undefined || k.sands !== undefined || k.tries === "piece" || k.beam !== undefined);

const epoxy = (f: Film, c: Context): boolean => f.left > 0 && c.paintOf(f.productId).finish.family === "epoxy";
/** Poured epoxy that still takes every print. */
function epoxyNeed(p: Piece, c: Context): Need[] {
  const last = p.zones
    .flatMap((z) => z.films.filter((f) => epoxy(f, c)))
    .sort((a, b) => (b.laidAt ?? 0) - (a.laidAt ?? 0))[0];
  return !last || last.laidAt === null
    ? []
    : [
        {
          state: "set-time",
          stacks: [],
          why: "epoxy that was poured takes every print for a day",
          fixed: { at: last.laidAt, refMin: EPOXY_HANDLED_MIN, waterBorne: false },
        },
      ];
}

/** The needs that follow from effects alone. */
export function effectNeeds(s: Step, p: Piece, c: Context): Need[] {
  const k = kindOf(s.kind);
  const all = p.zones.map((z) => z.zone);
  const out: Need[] = [];
  const burns = k.beam !== undefined && k.tries === undefined;
  if (!k.rests && k.tries !== "setting") out.push(...coldNeed(p, COLD_C, "nothing is done to it while it is hot", c));
  if (handles(k)) {
    out.push(...needOf(all, p, "touch", "fingers print into wet paint"));
    out.push(...epoxyNeed(p, c));
  }
  if (burns) {
    const where = k.on === "zones" ? s.zones : all;
    out.push(
      ...filmsNeed(
        p,
        where,
        c.school("before-laser") === "touch" ? "touch" : "laser-safe",
        "the beam sets wet paint alight or smears it",
      ),
    );
  }
  if (k.sands && k.on !== "zones")
    out.push(...needOf(k.on === "face" ? s.zones : all, p, "sandable", "a soft film swallows dust and tears"));
  if (k.heats) {
    const wet = s.zones.filter((z) => zoneOf(p, z).films.some((f) => f.phase === undefined && f.left > 0));
    out.push(...needOf(wet, p, "sandable", "what is still in the paint beneath boils in the heat"));
  }
  return out;
}

/** All that a step waits for: what its kind says, and what follows from its effects and is not said there yet. */
export function needsOf(s: Step, p: Piece, c: Context): Need[] {
  const own = kindOf(s.kind).needs(s, p, c);
  return [...own, ...effectNeeds(s, p, c).filter((n) => !own.some((o) => o.state === n.state))];
}
