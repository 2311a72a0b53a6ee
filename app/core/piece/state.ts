/**
 * The symbolic state of one piece: for every zone, and for the ground between them, how deep it is cut and which layers lie
 * on it. 0 is the original face, down is positive, all in µm. Steps turn one state into the next; nothing is drawn, judged
 * or scheduled from anything else.
 */
import type { Paint } from "../catalogue/properties";
import { linear, mix, type Rgb } from "../film/colour";
import { over, scatter } from "../film/hide";
import { CHAR } from "../catalogue/substrates";

/** the rest of the face, between the zones */
export const GROUND = "ground";

export type CoatRole = "seal" | "white" | "colour" | "top" | "clear" | "barrier" | "touch-up";

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
}

export interface ZoneState {
  zone: string;
  /** engraved depth of the floor below the original face, µm */
  depthUm: number;
  /** charred skin beneath the floor, µm */
  charUm: number;
  /** bottom to top */
  films: Film[];
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
}

export const blank = (zoneIds: string[]): Piece => ({
  zones: [...zoneIds, GROUND].map((zone) => ({ zone, depthUm: 0, charUm: 0, films: [] })),
  labelled: false,
  scuffed: false,
  clean: false,
  soot: false,
  damp: null,
  proofed: false,
  plated: false,
  sandedUm: 0,
});

export const zoneOf = (p: Piece, id: string): ZoneState => {
  const z = p.zones.find((x) => x.zone === id);
  if (!z) throw new Error(`The piece has no zone “${id}”.`);
  return z;
};

/** A piece with some zones changed. */
export const mapZones = (p: Piece, ids: readonly string[], change: (z: ZoneState) => ZoneState): Piece => ({ ...p, zones: p.zones.map((z) => (ids.includes(z.zone) ? change(z) : z)) });

export interface LayerView {
  kind: "char" | "film";
  finish: string | null;
  productId: string | null;
  step: string | null;
  role: CoatRole | "char";
  coat: number | null;
  topUm: number;
  bottomUm: number;
  film: Film | null;
}

/** Layers of a zone with their top and bottom, from the char up. The face is at 0. */
export function layersOf(z: ZoneState, paintOf: (id: string) => Paint): LayerView[] {
  const out: LayerView[] = [];
  if (z.charUm > 0) out.push({ kind: "char", finish: null, productId: null, step: null, role: "char", coat: null, topUm: z.depthUm, bottomUm: z.depthUm + z.charUm, film: null });
  let level = z.depthUm;
  for (const f of z.films) {
    const um = f.dryUm * f.left;
    if (um <= 0) continue;
    out.push({ kind: "film", finish: paintOf(f.productId).finish.id, productId: f.productId, step: f.step, role: f.role, coat: f.coat, topUm: level - um, bottomUm: level, film: f });
    level -= um;
  }
  return out;
}

/** Level of the topmost surface of a zone, µm. */
export const surfaceUm = (z: ZoneState): number => z.films.reduce((level, f) => level - f.dryUm * f.left, z.depthUm);

/** What an onlooker sees of a zone: each film over what lies beneath it, a film in part gone showing in that share. */
export function seen(z: ZoneState, groundHex: string, paintOf: (id: string) => Paint): Rgb {
  let c = linear(z.charUm > 0 ? CHAR.colour : groundHex);
  for (const f of z.films) {
    const p = paintOf(f.productId);
    if (p.clear || f.left <= 0) continue;
    const body = linear(p.product.colour);
    const s = scatter(body, p.hideUm.value);
    const covered = s === null ? body : over(body, c, s * f.dryUm);
    c = f.left >= 1 ? covered : mix(c, covered, f.left);
  }
  return c;
}

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
