/**
 * M9 Heat: how long a piece takes to warm in an oven and to cool again, how many loads. Lumped body with a correction for
 * what lags inside: τ = ρ·c·L·(1/h + L/3k); warm-up = −τ·ln((To−Tg)/(To−T0)). Wood takes half as long again:
 * it dries on the way.
 */

/** What takes up heat: kg/m³, J/kgK, W/mK, and of what family it is. */
export interface Body {
  thermal: { rho: number; c: number; k: number };
  family: string;
}

/** W/m²K: in an oven; in the air of a room, where bright metal gives off little by shining */
const H = 20;
const [H_ROOM, H_ROOM_METAL] = [12, 7];
const WOOD = 1.5;
/** K that the oven must be above what is wanted */
const MARGIN_K = 3;
/** °C at which a piece is cold enough to handle a mask, and to lift one from a melted fill (M8) */
export const COLD_C = 40;
export const LIFT_C = 35;

/** Seconds in which the difference to the air falls to 1/e. @param onRack warmed from both sides */
export function tau(s: Pick<Body, "thermal">, thickMm: number, onRack = true, h = H): number {
  const L = (onRack ? thickMm / 2 : thickMm) / 1000;
  const { rho, c, k } = s.thermal;
  return rho * c * L * (1 / h + L / (3 * k));
}
const slow = (s: Pick<Body, "family">): number => (s.family === "wood" || s.family === "mdf" ? WOOD : 1);

/** Minutes until a piece has a temperature; null: it never gets there. */
export function warmUp(
  s: Body,
  thickMm: number,
  ovenC: number,
  wantC: number,
  fromC = 20,
  onRack = true,
): number | null {
  if (!(thickMm > 0) || wantC > ovenC - MARGIN_K) return null;
  if (wantC <= fromC) return 0;
  return (-tau(s, thickMm, onRack) * Math.log((ovenC - wantC) / (ovenC - fromC)) * slow(s)) / 60;
}

/** Minutes in which the difference to the room falls to 1/e. @param onRack air on both sides; on a bench top it takes longer */
export const coolTau = (s: Body, thickMm: number, onRack = true): number =>
  Math.max(0.2, (tau(s, Math.max(0.1, thickMm), onRack, s.family === "metal" ? H_ROOM_METAL : H_ROOM) * slow(s)) / 60);

/** Minutes from one temperature down to another in a room; null: the room is too warm. */
export function coolDown(tauMin: number, fromC: number, toC: number, roomC = 20): number | null {
  if (fromC <= toC) return 0;
  if (toC <= roomC) return null;
  return tauMin * Math.log((fromC - roomC) / (toC - roomC));
}

/** days that are looked ahead for a room to cool down */
const ROOM_DAYS = 3;
/**
 * The same in a room whose own temperature changes. @param room °C so many minutes on @returns minutes; null: not within three days
 */
export function coolDownIn(tauMin: number, fromC: number, toC: number, room: (min: number) => number): number | null {
  const keeps = Math.exp(-1 / tauMin);
  for (let min = 0, c = fromC; min <= ROOM_DAYS * 1440; min++) {
    if (c <= toC) return min;
    const r = room(min);
    c = r + (c - r) * keeps;
  }
  return null;
}

/** Trays: pieces on one and how many loads that makes; null when a piece does not fit. */
export function ovenLoads(
  n: number,
  w: number,
  h: number,
  trayW: number,
  trayH: number,
): { perTray: number; loads: number } | null {
  const gap = 10;
  const fit = (a: number, b: number): number =>
    Math.floor((trayW + gap) / (a + gap)) * Math.floor((trayH + gap) / (b + gap));
  const perTray = Math.max(fit(w, h), fit(h, w));
  return perTray < 1 ? null : { perTray, loads: Math.ceil(n / perTray) };
}
