/** Artwork as part of a job: zones found in a drawing joined to the finishes already chosen, and scaled to size. */
import { colourWord } from "../models/film/words";
import type { Job, NameBlock, Zone } from "../records/job";
import type { FoundArtwork } from "../vector/zones";
import { named, reshaped } from "./names";
import type { Point } from "./outline";

/** The job's artwork replaced; a zone whose colour was there before keeps its name and finish. */
export function withArtwork(job: Job, name: string, svg: string, found: FoundArtwork): Pick<Job, "artwork" | "zones"> {
  const used = new Set<string>();
  const zones = found.zones.map((z): Zone => {
    const old = job.zones.find((x) => x.id === z.id);
    let label = old?.name ?? colourWord(z.colour);
    for (let n = 2; used.has(label); n++) label = `${old?.name ?? colourWord(z.colour)} ${n}`;
    used.add(label);
    return {
      id: z.id,
      name: label,
      colour: z.colour,
      areaMm2: z.areaMm2,
      perimeterMm: z.perimeterMm,
      narrowestMm: z.narrowestMm,
      pieces: z.pieces,
      holes: z.holes,
      smallestMm2: z.smallestMm2,
      outline: z.outline,
      rows: z.rows,
      productId: old?.productId ?? null,
      bare: old?.bare ?? false,
      ...(old?.burn ? { burn: true } : {}),
      // what was chosen before wanted colours were kept stays as it was chosen
      ...(old && old.wanted === undefined && (old.productId !== null || old.bare)
        ? {}
        : { wanted: old?.wanted ?? z.colour }),
    };
  });
  // names stay where they were
  zones.push(...job.zones.filter((z) => z.onPieces && !zones.some((x) => x.id === z.id)));
  const artwork = { name, svg, w: found.widthMm, h: found.heightMm };
  // the same file in another size stays where it was put, and as it was turned
  const was = job.artwork?.svg === svg ? job.artwork : null;
  if (!was) return { artwork, zones };
  const { dx, dy, turn } = was;
  const put = { ...artwork, ...(dx ? { dx } : {}), ...(dy ? { dy } : {}) };
  return turn ? turnedTo({ artwork: put, zones }, turn) : { artwork: put, zones };
}

type Drawn = Pick<Job, "artwork" | "zones">;
/** The artwork turned to so many degrees from how its file has it, about its own middle, clockwise as it is looked at. */
export function turnedTo({ artwork: a, zones }: Drawn, degrees: number): Drawn {
  if (!a) return { artwork: a, zones };
  const to = ((((degrees + 180) % 360) + 360) % 360) - 180;
  const by = ((to - (a.turn ?? 0)) * Math.PI) / 180;
  if (by === 0) return { artwork: a, zones };
  const [cos, sin] = [Math.cos(by), Math.sin(by)].map((v) => (Math.abs(v) < 1e-12 ? 0 : v));
  const turned = (p: Point): Point => {
    const [x, y] = [p[0] - a.w / 2, p[1] - a.h / 2];
    return [x * cos - y * sin + a.w / 2, x * sin + y * cos + a.h / 2];
  };
  const { turn: _, ...rest } = a;
  return {
    artwork: { ...rest, ...(to ? { turn: to } : {}) },
    zones: zones.map((z) => reshaped(z, (rings) => rings.map((r) => r.map(turned)), named(zones))),
  };
}

const scaled = (outline: string, k: number): string =>
  outline.replace(/-?\d+(?:\.\d+)?/g, (n) => String(Math.round(Number(n) * k * 1000) / 1000));
const blockTimes = (b: NameBlock, k: number): NameBlock => ({ ...b, x: b.x * k, y: b.y * k, w: b.w * k, h: b.h * k });
/** Artwork and all its measures scaled by k. */
export function scaleArtwork(job: Job, k: number): Pick<Job, "artwork" | "zones" | "names"> {
  const times = (v: number | null, by: number): number | null => (v === null ? null : v * by);
  return {
    artwork: job.artwork && { ...job.artwork, w: job.artwork.w * k, h: job.artwork.h * k },
    ...(job.names ? { names: blockTimes(job.names, k) } : {}),
    zones: job.zones.map((z) => ({
      ...z,
      areaMm2: z.areaMm2 * k * k,
      perimeterMm: times(z.perimeterMm, k),
      narrowestMm: times(z.narrowestMm, k),
      smallestMm2: times(z.smallestMm2, k * k),
      outline: scaled(z.outline, k),
      ...(z.onPieces ? { onPieces: z.onPieces.map((p) => ({ ...p, outline: scaled(p.outline, k) })) } : {}),
      rows: z.rows.map((v, i) =>
        i >= 2 && z.rows[2 + 2 * Math.floor((i - 2) / 2)] > z.rows[3 + 2 * Math.floor((i - 2) / 2)] ? v : v * k,
      ),
    })),
  };
}
