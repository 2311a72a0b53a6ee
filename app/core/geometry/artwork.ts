/** Artwork as part of a job: zones found in a drawing joined to the finishes already chosen, and scaled to size. */
import { difference, linear } from "../models/film/colour";
import type { Job, Zone } from "../records/job";
import type { FoundArtwork } from "../vector/zones";

/** What makers call colours: the nearest by CIEDE2000 is taken. */
const NAMES: readonly (readonly [string, string])[] = [
  ["White", "#ffffff"],
  ["Ivory", "#f6efdc"],
  ["Pale grey", "#d5d5d5"],
  ["Grey", "#8f8f8f"],
  ["Dark grey", "#4c4c4c"],
  ["Black", "#0d0d0d"],
  ["Pink", "#f2a0bd"],
  ["Rose", "#e2557f"],
  ["Magenta", "#d0168c"],
  ["Crimson", "#a8143f"],
  ["Red", "#d4221f"],
  ["Brick", "#a33b26"],
  ["Maroon", "#5e1420"],
  ["Coral", "#f47a5f"],
  ["Peach", "#f7c6a3"],
  ["Orange", "#f0791b"],
  ["Amber", "#f0a020"],
  ["Gold", "#cf9f2c"],
  ["Yellow", "#f6d92c"],
  ["Lemon", "#f6ef8c"],
  ["Beige", "#d8c49c"],
  ["Tan", "#b58c5a"],
  ["Brown", "#7a4a26"],
  ["Dark brown", "#3d2414"],
  ["Olive", "#7c7a2a"],
  ["Lime", "#a9cf38"],
  ["Green", "#3f9a3a"],
  ["Green", "#12d91a"],
  ["Dark green", "#1c4d2b"],
  ["Pale green", "#b4dba6"],
  ["Mint", "#7fd1ac"],
  ["Teal", "#148078"],
  ["Turquoise", "#2fb8c4"],
  ["Sky blue", "#86c2ea"],
  ["Blue", "#2663b4"],
  ["Blue", "#1a2fe0"],
  ["Navy", "#16264f"],
  ["Slate blue", "#5d7590"],
  ["Lavender", "#bfb0e0"],
  ["Violet", "#6b3fa8"],
  ["Plum", "#5f2a57"],
  ["Mauve", "#a3799b"],
];

/** A plain word for a colour, until the maker names the zone. */
export function colourWord(hex: string): string {
  const own = linear(hex);
  const off = NAMES.map(([, at]) => difference(own, linear(at)));
  return NAMES[off.indexOf(Math.min(...off))][0];
}

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
    };
  });
  return { artwork: { name, svg, w: found.widthMm, h: found.heightMm }, zones };
}

/** Artwork and all its measures scaled by k. */
export function scaleArtwork(job: Job, k: number): Pick<Job, "artwork" | "zones"> {
  const times = (v: number | null, by: number): number | null => (v === null ? null : v * by);
  return {
    artwork: job.artwork && { ...job.artwork, w: job.artwork.w * k, h: job.artwork.h * k },
    zones: job.zones.map((z) => ({
      ...z,
      areaMm2: z.areaMm2 * k * k,
      perimeterMm: times(z.perimeterMm, k),
      narrowestMm: times(z.narrowestMm, k),
      smallestMm2: times(z.smallestMm2, k * k),
      outline: z.outline.replace(/-?\d+(?:\.\d+)?/g, (n) => String(Math.round(Number(n) * k * 1000) / 1000)),
      rows: z.rows.map((v, i) =>
        i >= 2 && z.rows[2 + 2 * Math.floor((i - 2) / 2)] > z.rows[3 + 2 * Math.floor((i - 2) / 2)] ? v : v * k,
      ),
    })),
  };
}
