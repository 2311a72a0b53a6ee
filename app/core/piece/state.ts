/**
 * The symbolic state of one piece: for every zone, and for the ground between them, how deep it is cut and which layers lie
 * on it. 0 is the original face, down is positive, all in µm. Steps turn one state into the next; nothing is drawn, judged
 * or scheduled from anything else.
 */
import type { Paint } from "../catalogue/properties";
import type { CoatRole } from "../records/ids";
import { linear, mix, type Rgb } from "../models/film/colour";
import { over, scatter } from "../models/film/hide";
import { CHAR, type SkinKind, type SubstrateKind } from "../catalogue/substrates";

/** the rest of the face, between the zones */
export const GROUND = "ground";

export interface Film {
  /** the step that laid it */
  step: string;
  productId: string;
  role: CoatRole;
  coat: number;
  /** dry µm as laid */
  dryUm: number;
  /** wet µm as laid; null when unknown */
  wetUm: number | null;
  /** share still there after a laser pass or sanding, 0-1 */
  left: number;
  /** when it was laid (last piece), minutes; null in a plan without times */
  laidAt: number | null;
  /** dried in a room of its own: °C, relative humidity */
  roomC: number | null;
  roomRh: number | null;
  /** scuffed since: it gives the next coat a hold of its own, whatever its recoat window says */
  keyed?: boolean;
  /** coats laid inside each other's flash: they dry as one */
  merged?: number;
  /** powder: lying loose, or melted together */
  phase?: "loose" | "fused";
  /** laid while the film beneath was between its closing and its reopening: it has wrinkled */
  wrinkled?: boolean;
  /** torn by a mask that was lifted warm */
  torn?: boolean;
}

/** Tape, film or shield on a zone, and what was sprayed over it. */
export interface Mask {
  step: string;
  productId: string | null;
  um: number;
  /** its outline is cut through, so that it can be lifted by itself */
  cut: boolean;
  loose: boolean;
  /** hottest it has been, °C */
  hotC: number | null;
  over: Film[];
}

export interface ZoneState {
  zone: string;
  /** engraved depth of the floor below the original face, µm */
  depthUm: number;
  /** charred skin beneath the floor, µm */
  charUm: number;
  /** bottom to top */
  films: Film[];
  /** the maker's own skin: glaze, coating, silvering; `open`: taken off here */
  skin?: { kind: SkinKind; um: number; colour: string; beneath: string; open: boolean };
  /** pigment burnt into the glaze: the colour it shows */
  mark?: string;
  mask?: Mask;
  /** the beam drew a picture here: this is what a burnt place shows, the others are as the rest of the face */
  pictured?: true;
  /** charred beyond its edge: a halo beside pale colours */
  scorched?: boolean;
}

export interface Piece {
  zones: ZoneState[];
  labelled: boolean;
  scuffed: boolean;
  /** free of oil and dust, not touched since */
  clean: boolean;
  soot: boolean;
  /** last solvent wipe or rinse that must dry off before paint or beam */
  damp: { step: string; kind: "solvent" | "rinse"; at: number | null } | null;
  proofed: boolean;
  plated: boolean;
  /** face taken down by sanding, µm */
  sandedUm: number;
  /** the worked face: behind a clear sheet or inside a glass it is seen from the other side */
  side: "front" | "back" | "inside";
  /** the film on the face of a sheet is still on */
  faceFilm: boolean;
  /** cut free of its sheet */
  cutOut: boolean;
  /** heat still in it: °C at a moment, the room’s then, and the minutes in which the difference between them falls to 1/e */
  warm: { step: string; c: number; at: number | null; tauMin: number; roomC: number } | null;
  /** dye or ink smeared over what it should not colour */
  smeared: string | null;
  /** what its surface was last touched with */
  touched: string | null;
}

/** An untouched piece. @param skin what the maker put on it @param side the face that is worked */
export const blank = (
  zoneIds: string[],
  s: Pick<SubstrateKind, "skin" | "colour"> | null = null,
  side: Piece["side"] = "front",
): Piece => ({
  zones: [...zoneIds, GROUND].map((zone) => ({
    zone,
    depthUm: 0,
    charUm: 0,
    films: [],
    ...(s?.skin ? { skin: { ...s.skin, colour: s.colour, open: false } } : {}),
  })),
  labelled: false,
  scuffed: false,
  clean: false,
  soot: false,
  damp: null,
  proofed: false,
  plated: false,
  sandedUm: 0,
  side,
  faceFilm: side === "back",
  cutOut: false,
  warm: null,
  smeared: null,
  touched: null,
});

export const zoneOf = (p: Piece, id: string): ZoneState => {
  const z = p.zones.find((x) => x.zone === id);
  if (!z) throw new Error(`The piece has no zone “${id}”.`);
  return z;
};

/** Zones over which the beam has drawn a picture. */
export const picturedIn = (p: Piece): string[] => p.zones.filter((z) => z.pictured).map((z) => z.zone);

/** A piece with some zones changed. */
export const mapZones = (p: Piece, ids: readonly string[], change: (z: ZoneState) => ZoneState): Piece => ({
  ...p,
  zones: p.zones.map((z) => (ids.includes(z.zone) ? change(z) : z)),
});

export interface LayerView {
  kind: "char" | "film" | "skin" | "mask";
  finish: string | null;
  productId: string | null;
  step: string | null;
  role: CoatRole | "char" | "skin" | "mask";
  coat: number | null;
  topUm: number;
  bottomUm: number;
  film: Film | null;
}

/** Layers of a zone with their top and bottom, from the char up. The face is at 0. */
export function layersOf(z: ZoneState, paintOf: (id: string) => Paint): LayerView[] {
  const out: LayerView[] = [];
  if (z.charUm > 0)
    out.push({
      kind: "char",
      finish: null,
      productId: null,
      step: null,
      role: "char",
      coat: null,
      topUm: z.depthUm,
      bottomUm: z.depthUm + z.charUm,
      film: null,
    });
  if (z.skin && !z.skin.open)
    out.push({
      kind: "skin",
      finish: z.skin.kind,
      productId: null,
      step: null,
      role: "skin",
      coat: null,
      topUm: z.depthUm,
      bottomUm: z.skin.um,
      film: null,
    });
  let level = z.depthUm;
  for (const f of z.films) {
    const um = f.dryUm * f.left;
    if (um <= 0) continue;
    out.push({
      kind: "film",
      finish: paintOf(f.productId).finish.id,
      productId: f.productId,
      step: f.step,
      role: f.role,
      coat: f.coat,
      topUm: level - um,
      bottomUm: level,
      film: f,
    });
    level -= um;
  }
  if (z.mask)
    out.push({
      kind: "mask",
      finish: null,
      productId: z.mask.productId,
      step: z.mask.step,
      role: "mask",
      coat: null,
      topUm: level - z.mask.um,
      bottomUm: level,
      film: null,
    });
  return out;
}

/** Level of the topmost surface of a zone, µm. */
export const surfaceUm = (z: ZoneState): number => z.films.reduce((level, f) => level - f.dryUm * f.left, z.depthUm);

/** Share of its own colour that a stain shows where it has soaked in. */
const STAIN = 0.985;

/** One film over what lies beneath it. */
function laidOver(f: Film, c: Rgb, paintOf: (id: string) => Paint): Rgb {
  const p = paintOf(f.productId);
  if (p.clear || f.left <= 0) return c;
  const body = linear(p.product.colour);
  if (p.finish.stains) return mix(c, body, STAIN * f.left);
  const s = scatter(body, p.hideUm.value);
  const covered = s === null ? body : over(body, c, s * f.dryUm);
  return f.left >= 1 ? covered : mix(c, covered, f.left);
}

/** The bare surface of a zone: char, burnt pigment, skin or what it hides, else the material. */
const bareOf = (z: ZoneState, groundHex: string): Rgb =>
  linear(z.mark ?? (z.charUm > 0 ? CHAR.colour : z.skin ? (z.skin.open ? z.skin.beneath : z.skin.colour) : groundHex));

/**
 * What somebody who looks at the worked face sees of a zone: each film over what lies beneath it, a film in part gone
 * showing in that share.
 */
export function seen(z: ZoneState, groundHex: string, paintOf: (id: string) => Paint): Rgb {
  let c = bareOf(z, groundHex);
  for (const f of z.films) c = laidOver(f, c, paintOf);
  if (z.mask) c = linear(z.mask.productId ? paintOf(z.mask.productId).product.colour : "#d8c79a");
  return c;
}

/** What is seen through a clear sheet or from outside a glass: the film that was laid first is in front. */
export function seenThrough(z: ZoneState, groundHex: string, paintOf: (id: string) => Paint): Rgb {
  if (z.skin && !z.skin.open) return linear(z.skin.colour);
  let c = linear(z.skin ? z.skin.beneath : groundHex);
  for (let i = z.films.length - 1; i >= 0; i--) c = laidOver(z.films[i], c, paintOf);
  return c;
}

/** What an onlooker sees of a zone from the side that is shown. */
export const shown = (p: Piece, z: ZoneState, groundHex: string, paintOf: (id: string) => Paint): Rgb =>
  p.side === "front" ? seen(z, groundHex, paintOf) : seenThrough(z, groundHex, paintOf);

/** °C of a piece at a moment; null: no heat in it that is known of. Newton's law of cooling. */
export const heatAt = (p: Piece, at: number | null): number | null =>
  !p.warm
    ? null
    : p.warm.at === null || at === null
      ? null
      : p.warm.roomC + (p.warm.c - p.warm.roomC) * Math.exp(-Math.max(0, at - p.warm.at) / p.warm.tauMin);

/** Films from the top down, touching coats of one product as one (M4), as thickness and product. */
export function topDown(z: ZoneState): { productId: string; um: number; role: CoatRole }[] {
  const out: { productId: string; um: number; role: CoatRole }[] = [];
  for (let i = z.films.length - 1; i >= 0; i--) {
    const f = z.films[i];
    const um = f.dryUm * f.left;
    const last = out[out.length - 1];
    if (last && last.productId === f.productId) last.um += um;
    else if (um > 0) out.push({ productId: f.productId, um, role: f.role });
  }
  return out;
}
