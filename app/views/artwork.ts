/** What the Artwork page shows: zones with the paints that come near them, visits, round work, how fine lettering may be. */
import { saidAll } from "../core/units/said";
import { smallestStroke } from "../core/explain/letters";
import { FACE_GAP_MM, facesRound } from "../core/geometry/on-blank";
import { overhang } from "../core/geometry/blank";
import { difference, hex, linear } from "../core/models/film/colour";
import { circumference, DOF_MM, inFocus } from "../core/models/round/round";
import { GROUND, picturedIn, seen, shown, zoneOf } from "../core/piece/state";
import type { Plan } from "../core/plan/plan";
import type { Job } from "../core/records/job";
import { placementOf, visitsOf } from "../core/plan/visits";
import { finishNamed } from "../core/catalogue/finishes";
import { takes } from "../core/catalogue/routes";
import { weedingOf } from "../core/explain/weeding";
import type { Placed } from "../core/plan/placed";
import type { Context } from "../core/process/context";
import { showMinutes } from "../core/units/show";
import { nearest } from "../core/process/pick";
import { meantColour } from "../core/process/meant";
import { isStandIn } from "../core/process/wanted";

/** mm² under which a piece of mask is hard to lift */
const TINY_MM2 = 3;
const counted = (n: number, one: string, more: string): string => `${n} ${n === 1 ? one : more}`;
/** What there is to lift at a visit; null: nothing is. */
function weedingWords(p: Placed, c: Context): string | null {
  const w = weedingOf(p, c);
  if (!w) return null;
  const small = w.smallestMm2 !== null && w.smallestMm2 < TINY_MM2;
  return [
    w.pieces === null ? "how many pieces of mask is not known" : counted(w.pieces, "piece of mask", "pieces of mask"),
    ...(w.islands ? [`${counted(w.islands, "island stays", "islands stay")} within`] : []),
    ...(small ? [`the smallest ${w.smallestMm2!.toFixed(1)} mm², hard to lift under ${TINY_MM2} mm²`] : []),
    ...(w.minutes === null ? [] : [`about ${showMinutes(w.minutes)}`]),
  ].join("; ");
}

function visitRows(plan: Plan) {
  const c = plan.context;
  const names = new Map([["ground", "the rest of the face"], ...c.job.zones.map((z) => [z.id, z.name] as const)]);
  const named = (ids: string[]): string[] => ids.map((z) => names.get(z) ?? z);
  return visitsOf(plan).map((v) => {
    const unmasked = plan.placed[v.index].after.zones.map((z) => ({ ...z, mask: undefined }));
    return {
      ...v,
      weeding: weedingWords(plan.placed[v.index], c),
      names: { artwork: named(v.artwork), opens: named(v.opens), covers: named(v.covers), stays: named(v.stays) },
      pictured: picturedIn(plan.placed[v.index].after),
      colours: Object.fromEntries(unmasked.map((z) => [z.zone, hex(seen(z, c.substrate.colour, c.paintOf))])),
    };
  });
}

/** How far each zone's paint stands off the bare face, CIEDE2000: what is near can hardly be told from it. */
function contrasts(plan: Plan): Record<string, number> {
  const c = plan.context;
  const bare = linear(c.substrate.colour);
  return Object.fromEntries(
    c.filled.map((z) => [z.id, Math.round(difference(linear(c.paintOf(z.productId as string).product.colour), bare))]),
  );
}

/** How wide each face round a body is, and whether the drawing goes over it; null without faces. */
function facesHint({ artwork, substrate }: Job, boxes: ReturnType<typeof facesRound>): string | null {
  if (!boxes || !substrate.diameter) return null;
  const round = circumference(substrate.diameter).toFixed(1);
  const each = `each ${boxes.widthMm.toFixed(1)} mm of ${round} mm, ${FACE_GAP_MM} mm between`;
  const over = artwork && artwork.w / boxes.starts.length > boxes.widthMm;
  return over ? `${each}; the drawing is wider than its faces` : each;
}

/** How far the artwork hangs over its piece, and which zones do. */
function lies(job: Job): { mm: number | null; zones: string[] } {
  const { mm, zones } = overhang(job);
  return {
    mm: Number.isFinite(mm) ? mm : null,
    zones: zones.map((id) => job.zones.find((z) => z.id === id)?.name ?? id),
  };
}

function between(plan: Plan): string | null {
  const last = plan.placed[plan.placed.length - 1];
  const c = plan.context;
  return c.picture && last ? hex(shown(last.after, zoneOf(last.after, GROUND), c.substrate.colour, c.paintOf)) : null;
}

/** What each zone wants and gets: the paint that was picked, the one that follows, and how far that is from what is wanted. */
function zoneRows(plan: Plan) {
  const c = plan.context;
  const raw = new Map(c.world.job.zones.map((z) => [z.id, z]));
  return Object.fromEntries(
    c.job.zones.map((z) => {
      const own = raw.get(z.id)!;
      const got = c.paint(z.productId)?.product ?? null;
      const picked = c.world.products.find((p) => p.id === own.productId) ?? null;
      const wanted = own.wanted ?? own.colour;
      return [
        z.id,
        {
          picked: own.burn ? "burn" : own.bare ? "bare" : (own.productId ?? ""),
          wanted,
          meant: own.burn ? meantColour(own, c) : null,
          follows: own.wanted !== undefined,
          got: got && {
            name: got.name,
            colour: got.colour,
            off: Math.round(difference(linear(got.colour), linear(wanted))),
            toBuy: isStandIn(got.id),
          },
          // picked for another way than the one that is gone by now
          instead: picked && got && picked.id !== got.id ? picked.name : null,
        },
      ];
    }),
  );
}

export const artworkView = (plan: Plan) => saidAll(artworkViewIn(plan), plan.context.world.shop.units);
function artworkViewIn(plan: Plan) {
  const c = plan.context;
  const { job, world } = c;
  const { shape, diameter } = job.substrate;
  const round = shape && diameter ? diameter : null;
  const visits = visitRows(plan);
  const boxes = facesRound(job);
  return {
    visits,
    place: visits.length ? placementOf(plan) : null,
    band: shape === "ball" && round ? inFocus(round / 2, DOF_MM).mid : null,
    gear: world.shop.gear ?? [],
    round,
    boxes,
    facesHint: facesHint(job, boxes),
    lies: lies(job),
    /** what is seen between the dots of a picture, as the piece ends up; null: nothing is drawn over its zones */
    between: between(plan),
    stroke: smallestStroke(plan),
    contrast: contrasts(plan),
    job,
    units: world.shop.units,
    spotMm: c.spotMm,
    products: c.shelf,
    wants: zoneRows(plan),
    near: Object.fromEntries(job.zones.map((z) => [z.id, nearest(world.products, z.wanted ?? z.colour)])),
    takes: world.products.filter((p) => !c.route || takes(c.route, finishNamed(p.finish))).map((p) => p.id),
  };
}
