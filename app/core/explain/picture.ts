/**
 * What the beam is given of a picture, for each step that draws it: the recipe by the setting in force and by the paints as they end up,
 * the blank that it must keep to, and the areas that lie under it.
 */
import { axisOf, painted } from "../geometry/areas";
import { blankOf } from "../geometry/blank";
import { onBlank } from "../geometry/on-blank";
import { pictureBox } from "../geometry/picture";
import { ringsOf, type Point, type Ring } from "../geometry/outline";
import { hex, linear, luminance } from "../models/film/colour";
import { energyForMark } from "../models/laser/mark";
import { GROUND, shown, zoneOf } from "../piece/state";
import type { Placed } from "../plan/placed";
import type { Plan } from "../plan/plan";
import { placementOf } from "../plan/visits";
import { dose } from "../process/beam";
import type { Context } from "../process/context";
import { meantColour } from "../process/meant";
import { kindOf, own } from "../process/kinds";
import { cutsOf, pieceSeconds } from "../process/kinds/laser-work";
import { burntBy } from "../process/polarity";
import { BURN_E, demandOn, digsColours, energyOn, ENOUGH, filmsOver, kneeOf, skinEnergy } from "../process/settings";
import { mirrored } from "../process/setup";
import { EDGE_AS_DRAWN, held } from "../tone/gain";
import { SCREEN } from "../tone/kernels";
import type { Recipe } from "../tone/render";
import { filledIn } from "../tone/steps";
import { LUMINANCE } from "../tone/source";
import { powerTable, shadeOf } from "./shade";

/** A band that thins out at its borders: mm along its way, measured in the picture’s own corner. */
export interface Band {
  u: Point;
  from: number;
  to: number;
  fadeMm: number;
}
/** A colour that is dug to: its zone, and with what. */
export interface Dug {
  zone: string;
  name: string;
  colour: string;
  /** share of the power that is set */
  demand: number;
  e: number | null;
}
export interface PictureWork {
  step: string;
  title: string;
  recipe: Recipe;
  /** rings in mm from the upper left corner of the picture: burnt only within them, and so far from their edge; below 0: so far beyond */
  blank: Ring[];
  keepMm: number;
  /** what lies under it: id, outline as the blank’s, what is seen where it is burnt; the first is the whole face */
  areas: { id: string; name: string; rings: Ring[]; burnt: string; band?: Band }[];
  /** what is seen where it is not burnt */
  left: string;
  /** colours that are dug out of the stack, shallowest first; null: tones of one colour are drawn */
  dug: Dug[] | null;
  /** zones that this step draws over; null: all of the picture in one go */
  only: string[] | null;
  /** no setting is known: what is burnt is shown as it is meant */
  assumed: boolean;
  /** seconds a piece; and with lines twice as far apart */
  seconds: number | null;
  halvedSeconds: number | null;
  spotMm: number | null;
}

const HALF = 0.5;
/**
 * J/mm² at which half of what a step takes off, opens or burns in is done: the films over what its first zone shows (M4), the skin, the
 * pigment; null: not known.
 */
function opensAt({ step: s, before }: Placed, c: Context): number | null {
  const { beam } = kindOf(s.kind);
  if (beam === "skin") return ENOUGH * skinEnergy(c);
  if (beam === "pigment") return ENOUGH * BURN_E;
  if (beam === "face") {
    const knee = kneeOf(c);
    return knee && energyForMark(HALF, knee);
  }
  const set = own(s, "laser");
  const zone = c.job.zones.find((z) => z.id === s.zones[0]);
  if (!set || !zone) return null;
  const lies = zoneOf(before, zone.id);
  const over = Math.max(1, filmsOver(lies, zone.bare ? null : zone.productId));
  return cutsOf(lies, c, set.interval, set.passes)[over - 1]?.c ?? null;
}

const DRAWS = ["film", "pigment", "skin", "face"];
/** Steps of a plan that draw its picture. */
export const drawing = (plan: Plan): Placed[] =>
  plan.context.picture
    ? plan.placed.filter((p) => DRAWS.includes(kindOf(p.step.kind).beam ?? "") && !kindOf(p.step.kind).tries)
    : [];

/** The colours that a step digs to, by how much of its power; without a setting evenly. */
function dugBy({ step: s, before }: Placed, c: Context, colour: (zone: string) => string): Dug[] {
  const set = own(s, "laser");
  const zones = s.zones.filter((z) => z !== GROUND);
  const deep = (id: string): number => {
    const z = c.job.zones.find((x) => x.id === id);
    return filmsOver(zoneOf(before, id), z && !z.bare ? z.productId : null);
  };
  return [...zones]
    .sort((a, b) => deep(a) - deep(b))
    .map((zone, i) => ({
      zone,
      name: c.job.zones.find((z) => z.id === zone)?.name ?? zone,
      colour: colour(zone),
      demand: (set && demandOn(c, zoneOf(before, zone), set)) ?? (i + 1) / zones.length,
      e: set && energyOn(c, zoneOf(before, zone), set),
    }));
}

/** Everything that the beam is to be given of a job’s picture, a step each; empty: it has none, or no step draws it yet. */
export function pictureWork(plan: Plan): PictureWork[] {
  const c = plan.context;
  const p = c.picture;
  const last = plan.placed[plan.placed.length - 1];
  if (!p || !last) return [];
  const box = pictureBox(p, c.job);
  const at = (r: Ring): Ring => r.map(([x, y]): Point => [x - box.x0, y - box.y0]);
  const colour = (zone: string): string =>
    hex(shown(last.after, zoneOf(last.after, zone), c.substrate.colour, c.paintOf));
  const meant = (zone: string): string | null => {
    const z = c.job.zones.find((x) => x.id === zone);
    return z ? meantColour(z, c) : c.substrate.colour;
  };
  const { areas } = c.job;
  const axis = areas?.kind === "bands" ? axisOf(c.job.substrate, areas.angle ?? 0) : null;
  const bandOf = (id: string): { band?: Band } => {
    const strip = areas?.strips?.find((x) => x.zone === id);
    if (!axis || !areas || !strip) return {};
    const [from, to] = painted(areas, strip);
    // where the picture’s corner lies along the way of the bands
    const corner = box.x0 * axis.u[0] + box.y0 * axis.u[1];
    const place = (mm: number): number => axis.from + mm - corner;
    // beyond the edge of the blank a band goes on
    const far = axis.length;
    return {
      band: {
        u: axis.u,
        from: place(from <= 1e-9 ? -far : from),
        to: place(to >= far - 1e-9 ? 2 * far : to),
        fadeMm: areas.fadeMm ?? 0,
      },
    };
  };
  const outlines = new Map(onBlank(c.job).map((z) => [z.id, ringsOf(z.path)]));
  const over = placementOf(plan).overrunMm;
  const want = burntBy(c).inverted;
  const turnedOver = c.job.choices.inverted !== null && c.job.choices.inverted !== want;
  return drawing(plan).map((s) => {
    const step = s.step;
    const set = own(step, "laser");
    const zones = step.zones.filter((z) => z !== GROUND);
    const [first] = zones;
    // without a setting it is taken to do what it is there for
    const burnt = (id: string): string => (set ? colour(id) : (meant(id) ?? colour(id)));
    const e = set && c.machine ? dose(c.machine, set) : null;
    const opens = first ? opensAt(s, c) : null;
    const ratio = e && opens ? opens / e : EDGE_AS_DRAWN;
    const intervalMm = set?.interval ?? c.intervalMm ?? 0.1;
    const shade = p.render === "grey" ? shadeOf(s, c) : null;
    const dug = digsColours(c) ? dugBy(s, c, burnt) : null;
    const toned = dug && {
      levels: [{ colour: colour(GROUND), demand: 0 }, ...dug.map(({ colour: k, demand }) => ({ colour: k, demand }))],
      diffuse: !p.plain,
    };
    return {
      step: step.id,
      title: step.title,
      blank: blankOf(c.job.substrate).rings.map(at),
      // beyond the edge it is burnt as far as the piece may lie off, and no farther
      keepMm: c.job.substrate.keepMm || -over,
      areas: zones.map((id) => ({
        id,
        name: c.job.zones.find((z) => z.id === id)?.name ?? id,
        rings: (outlines.get(id) ?? []).map(at),
        burnt: burnt(id),
        ...bandOf(id),
      })),
      left: colour(GROUND),
      dug,
      only: zones.length === c.job.zones.length ? null : zones,
      assumed: set === null,
      seconds: pieceSeconds({ zones: step.zones, laser: set }, c),
      halvedSeconds: pieceSeconds({ zones: step.zones, laser: set && { ...set, interval: 2 * set.interval } }, c),
      spotMm: c.spotMm,
      recipe: {
        widthMm: p.w,
        heightMm: p.h,
        intervalMm,
        fit: p.fit,
        quarters: p.quarters ?? 0,
        exif: p.exif ?? 1,
        flip: p.flip ?? false,
        crop: p.crop ?? null,
        mix: p.mix?.length === 3 ? (p.mix as unknown as Recipe["mix"]) : LUMINANCE,
        ground: luminance(linear(colour(GROUND))),
        tone: p.tone.map(filledIn),
        render: p.render,
        dots: { serpentine: p.serpentine ?? false, perCm: p.perCm ?? SCREEN.perCm, angle: p.angle ?? SCREEN.angle },
        // what burning shows is the colour, what is left is the top, whichever of them is the lighter
        invert: !turnedOver,
        mirror: mirrored(c),
        spot: p.plain || c.spotMm === null || p.render === "grey" ? null : { mm: c.spotMm, threshold: held(ratio) },
        colourY: first ? luminance(linear(burnt(first))) : 1,
        topY: luminance(linear(colour(GROUND))),
        layOn: !p.unlaid,
        ...(shade && !dug ? { power: powerTable(shade) } : {}),
        ...toned,
      },
    };
  });
}
