/**
 * Colour areas that are made and not drawn: one colour over the whole blank, or bands that follow one another across it. They are zones as
 * any other, made anew when the blank changes.
 */
import type { Areas, Job, Strip, Substrate, Zone } from "../records/job";
import { perimeter } from "../vector/clip";
import { rowExtents } from "../vector/measure";
import { blankOf, ringsArea } from "./blank";
import { pathOf, type Point, type Ring } from "./outline";

/** ways that bands begin with: mm, of the blank's own length the bands follow one another in */
const OVERLAP_SHARE = 0.12;
const FADE_SHARE = 0.08;
/** of a zone that is made, by its number */
export const areaId = (n: number): string => `area-${n}`;

interface Axis {
  /** unit vector of the way that bands follow one another in */
  u: Point;
  /** of the blank along it, mm: bands are measured from `from` */
  from: number;
  length: number;
}
/** How a blank lies along the way of its bands. */
export function axisOf(s: Substrate, angle: number): Axis {
  const a = (angle * Math.PI) / 180;
  const clean = (v: number): number => (Math.abs(v) < 1e-12 ? 0 : v);
  const u: Point = [clean(-Math.sin(a)), clean(Math.cos(a))];
  const at = blankOf(s).rings.flatMap((r) => r.map(([x, y]) => x * u[0] + y * u[1]));
  const from = Math.min(...at);
  return { u, from, length: Math.max(...at) - from };
}

/** The part of a ring on one side of a straight line: where x·u ≥ d (Sutherland & Hodgman). */
function cutAt(ring: Ring, u: Point, d: number): Ring {
  const out: Ring = [];
  const side = (p: Point): number => p[0] * u[0] + p[1] * u[1] - d;
  ring.forEach((p, i) => {
    const q = ring[(i + 1) % ring.length];
    const [a, b] = [side(p), side(q)];
    if (a >= 0) out.push(p);
    if (a >= 0 !== b >= 0) {
      const t = a / (a - b);
      out.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
    }
  });
  return out;
}
/** The part of a blank between two places along an axis. */
export function between(rings: Ring[], axis: Axis, from: number, to: number): Ring[] {
  const back: Point = [-axis.u[0], -axis.u[1]];
  return rings
    .map((r) => cutAt(cutAt(r, axis.u, axis.from + from), back, -(axis.from + to)))
    .filter((r) => r.length > 2 && ringsArea([r]) > 1e-6);
}

/** mm of a band with what it lies over its neighbours. */
export const painted = (a: Areas, s: Strip): [from: number, to: number] => {
  const half = (a.overlapMm ?? 0) / 2;
  return [s.from - half, s.to + half];
};

function zoneOver(old: Zone | undefined, id: string, rings: Ring[], widthMm: number): Zone {
  const area = ringsArea(rings);
  return {
    productId: null,
    bare: false,
    wanted: "#f4f2ee",
    colour: "#f4f2ee",
    name: "Whole face",
    ...old,
    id,
    areaMm2: area,
    perimeterMm: perimeter(rings),
    narrowestMm: widthMm,
    pieces: 1,
    holes: Math.max(0, rings.length - 1),
    smallestMm2: area,
    outline: pathOf(rings),
    rows: rowExtents(rings),
  };
}

/** The job with its areas made anew, for the blank as it is; as it is where they are drawn. */
export function settled(job: Job): Job {
  const { areas, substrate } = job;
  if (!areas) return job;
  const shape = blankOf(substrate);
  const old = (id: string): Zone | undefined => job.zones.find((z) => z.id === id);
  const artwork = { name: "", svg: "", w: substrate.w, h: substrate.h };
  if (areas.kind === "whole" && areas.over) {
    const least = Math.min(substrate.w, substrate.h);
    return { ...job, artwork, zones: job.zones.map((z) => zoneOver(z, z.id, shape.rings, least)) };
  }
  if (areas.kind === "whole") {
    const id = job.zones[0]?.id ?? areaId(1);
    const zones = [zoneOver(old(id), id, shape.rings, Math.min(substrate.w, substrate.h))];
    return { ...job, artwork, zones };
  }
  const axis = axisOf(substrate, areas.angle ?? 0);
  const zones = (areas.strips ?? []).flatMap((s) => {
    const [from, to] = painted(areas, s);
    const rings = between(shape.rings, axis, from, to);
    // a band that lies beside the blank stays, so that it can be pulled back
    return [zoneOver(old(s.zone), s.zone, rings, Math.max(0, to - from))];
  });
  return { ...job, artwork, zones };
}

/** One colour over the whole blank. @param colour wanted */
export function wholeFace(job: Job, colour: string): Job {
  const zone = { ...zoneOver(undefined, areaId(1), blankOf(job.substrate).rings, 1), colour, wanted: colour };
  return settled({ ...job, areas: { kind: "whole" }, zones: [zone] });
}

/** Colours over one another all over the blank, to be dug to. */
export function stacked(job: Job, colours: readonly { colour: string; name: string }[]): Job {
  const zones = colours.map((c, i) => ({
    ...zoneOver(undefined, areaId(i + 1), [], 1),
    name: c.name,
    colour: c.colour,
    wanted: c.colour,
  }));
  return settled({ ...job, areas: { kind: "whole", over: true }, zones });
}

/** Bands of these colours, evenly, one after another. @param angle ° as in {@link Areas} */
export function evenBands(job: Job, colours: readonly { colour: string; name: string }[], angle: number): Job {
  const { length } = axisOf(job.substrate, angle);
  const each = length / colours.length;
  const tenth = (v: number): number => Math.round(v * 10) / 10;
  const strips = colours.map((_c, i) => ({ zone: areaId(i + 1), from: tenth(i * each), to: tenth((i + 1) * each) }));
  const zones = colours.map((c, i) => ({
    ...zoneOver(undefined, areaId(i + 1), [], each),
    name: c.name,
    colour: c.colour,
    wanted: c.colour,
  }));
  return settled({
    ...job,
    zones,
    areas: {
      kind: "bands",
      ...(angle ? { angle } : {}),
      overlapMm: tenth(each * OVERLAP_SHARE * 2),
      fadeMm: tenth(each * FADE_SHARE * 2),
      strips,
    },
  });
}

export interface Thin {
  /** mm along the bands, from the edge of the blank */
  from: number;
  to: number;
  /** share of a full coat at the thinnest place */
  least: number;
}
/**
 * Where bands leave less than a full coat: each is whole but for its border, in which it thins out evenly to nothing; where two lie over
 * one another what they leave adds up. Exact: the sum runs straight between the ends of borders.
 */
export function thinPlaces(areas: Areas, s: Substrate): Thin[] {
  const { length } = axisOf(s, areas.angle ?? 0);
  const fade = areas.fadeMm ?? 0;
  const bands = (areas.strips ?? []).map((b) => painted(areas, b));
  const one = ([from, to]: [number, number], x: number, side: 1 | -1): number => {
    if (fade <= 0)
      return side > 0 ? Number(x >= from - 1e-9 && x < to - 1e-9) : Number(x > from + 1e-9 && x <= to + 1e-9);
    // a band goes on beyond the edge of the blank: it does not thin out there
    const a = from <= 1e-9 ? 1 : (x - from) / fade;
    const b = to >= length - 1e-9 ? 1 : (to - x) / fade;
    return Math.max(0, Math.min(1, a, b));
  };
  const sum = (x: number, side: 1 | -1): number => bands.reduce((n, b) => n + one(b, x, side), 0);
  const at = [...new Set([0, length, ...bands.flatMap(([a, b]) => [a, a + fade, b - fade, b])])]
    .filter((x) => x >= 0 && x <= length)
    .sort((a, b) => a - b);
  const out: Thin[] = [];
  const add = (from: number, to: number, least: number): void => {
    const last = out[out.length - 1];
    if (to - from < 1e-6) return;
    if (last && from - last.to < 1e-6) {
      last.to = to;
      last.least = Math.min(last.least, least);
    } else out.push({ from, to, least });
  };
  for (let i = 0; i + 1 < at.length; i++) {
    const [x, y] = [at[i], at[i + 1]];
    const [p, q] = [sum(x, 1), sum(y, -1)];
    if (p >= 1 - 1e-9 && q >= 1 - 1e-9) continue;
    const cross = p === q ? y : x + ((1 - p) / (q - p)) * (y - x);
    if (p < 1 - 1e-9 && q < 1 - 1e-9) add(x, y, Math.min(p, q));
    else if (p < 1 - 1e-9) add(x, cross, p);
    else add(cross, y, q);
  }
  return out;
}
