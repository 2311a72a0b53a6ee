/** What laser steps share: extents and minutes of a burn, M4’s cuts of a stack, settings within the machine’s reach, waits. */
import { absorption, BEAM_KINDS } from "../../catalogue/beams";
import { route } from "../../catalogue/routes";
import { cuts, type Cut } from "../../models/film/reveal";
import { ripple } from "../../models/laser/energy";
import { bedLoads, rasterTime } from "../../models/laser/runtime";
import { topDown, zoneOf, type Piece, type ZoneState } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import type { Zone } from "../../records/job";
import { SLICES } from "../../vector/measure";
import type { Context } from "../context";
import { coldNeed } from "../needs";
import type { LaserSetting, Need } from "../step";
import { dampNeed } from "./damp";

/** What of a step the laser asks for. */
export interface LaserWork {
  zones: string[];
  laser: LaserSetting | null;
}

/** minutes to change a load on the bed */
const LOAD_MIN = 2;
const SETUP_MIN = 5;
const PATCHY = { can: 0.12, low: 0.25 };
/** share of a can below which it spits */
export const LOW_CAN = 0.2;

/** Mean burnt length of a row and the height of all rows for these zones burnt in one go, mm. */
export function rasterExtent(zones: Zone[]): { rowMm: number; heightMm: number } {
  const known = zones.filter((z) => z.rows.length === 2 + 2 * SLICES);
  const blind = zones.filter((z) => z.rows.length !== 2 + 2 * SLICES);
  let burnt = 0;
  let heightMm = 0;
  if (known.length) {
    const y0 = Math.min(...known.map((z) => z.rows[0]));
    const y1 = Math.max(...known.map((z) => z.rows[1]));
    const N = 128;
    const slice = (y1 - y0) / N;
    for (let k = 0; k < N; k++) {
      const y = y0 + (k + 0.5) * slice;
      let from = Infinity;
      let to = -Infinity;
      for (const z of known) {
        const i = Math.floor(((y - z.rows[0]) / (z.rows[1] - z.rows[0])) * SLICES);
        if (i < 0 || i >= SLICES) continue;
        const [a, b] = [z.rows[2 + 2 * i], z.rows[3 + 2 * i]];
        if (b < a) continue;
        from = Math.min(from, a);
        to = Math.max(to, b);
      }
      if (to > from) {
        burnt += (to - from) * slice;
        heightMm += slice;
      }
    }
  }
  // Only the area is known: as a square of that area.
  for (const z of blind) {
    burnt += z.areaMm2;
    heightMm += Math.sqrt(z.areaMm2);
  }
  return { rowMm: heightMm > 0 ? burnt / heightMm : 0, heightMm };
}

/** Seconds for one piece; null without a machine or setting. */
export function pieceSeconds(s: LaserWork, c: Context): number | null {
  const m = c.machine;
  if (!m || !s.laser) return null;
  const e = rasterExtent(c.job.zones.filter((z) => s.zones.includes(z.id)));
  return rasterTime({
    rowMm: m.trimsRows ? e.rowMm : Math.max(e.rowMm, c.job.artwork?.w ?? e.rowMm),
    rows: Math.ceil(e.heightMm / s.laser.interval),
    speed: s.laser.speed,
    accel: m.accel,
    overscanMm: m.overscanMm,
    intervalMm: s.laser.interval,
    bothWays: m.bothWays,
    rapid: m.rapid,
    galvo: m.galvo,
    jumpS: m.jumpMs / 1000,
    passes: s.laser.passes,
  });
}

/** Patchiness of a product as it will be sprayed: a nearly empty can spits. */
export function patchiness(c: Context, productId: string): number {
  const p = c.paintOf(productId);
  if (p.finish.by !== "spray") return p.finish.patchiness;
  const known = p.product.cans.filter((k) => k.leftMl !== null);
  const low = known.length > 0 && known.every((k) => (k.leftMl as number) < LOW_CAN * k.fullMl);
  return low ? PATCHY.low : p.finish.patchiness;
}

/** M4's cuts for a zone's films as they lie. */
export function cutsOf(z: ZoneState, c: Context, interval: number, passes: number): Cut[] {
  if (!c.machine || c.spotMm === null) return [];
  const beam = c.machine.beam;
  return cuts(
    topDown(z).map((f) => ({
      um: f.um,
      patchiness: patchiness(c, f.productId),
      absorbs: absorption(beam, c.paintOf(f.productId).product.colour, c.paintOf(f.productId).clear),
    })),
    c.substrate.e0,
    passes,
    ripple(c.spotMm, interval),
  );
}

/** A setting that puts E J/mm² a pass on the surface within the machine's reach. */
export function settingFor(c: Context, e: number, power: number, passes: number): LaserSetting | null {
  if (!c.machine || c.intervalMm === null || !(e > 0)) return null;
  const top = c.machine.maxSpeed === null ? Infinity : 0.8 * c.machine.maxSpeed;
  let p = power;
  let speed = (c.machine.watts * p) / (e * c.intervalMm);
  if (speed > top) {
    p *= top / speed;
    speed = top;
  }
  return {
    power: Math.round(p * 1000) / 1000,
    speed: Math.round(speed * 10) / 10,
    interval: c.intervalMm,
    passes,
    from: "computed",
  };
}

export const filmsNeed = (p: Piece, zones: string[], state: Need["state"], why: string): Need[] => {
  const stacks = zones
    .map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined) }))
    .filter((s) => s.films.length);
  return stacks.length ? [{ state, stacks, why }] : [];
};
/** What a laser step waits for. */
export const laserNeeds = (s: LaserWork, p: Piece, c: Context): Need[] => [
  ...dampNeed(p),
  ...coldNeed(p, COLD_C, "a warm fill is still soft"),
  ...filmsNeed(
    p,
    s.zones,
    c.school("before-laser") === "touch" ? "touch" : "laser-safe",
    "soft paint melts and smears instead of lifting",
  ),
];
export const eyewear = (c: Context): string => (c.machine ? BEAM_KINDS[c.machine.beam].eyewear : "rated for the beam");

export const batch = (s: LaserWork, c: Context): { setup: number; perPiece: number } | null => {
  const sec = pieceSeconds(s, c);
  if (sec === null || !c.machine) return null;
  const { loads } = bedLoads(c.job.quantity, c.job.substrate.w, c.job.substrate.h, c.machine.bedW, c.machine.bedH);
  return { setup: SETUP_MIN + LOAD_MIN * Math.max(1, loads), perPiece: sec / 60 };
};

/** Polarity: dark tops are burnt away where the picture is to be light. One home for it. */
export const wantsInverted = (c: Context): boolean => c.job.route !== null && route(c.job.route).inverted;

export const setting = (s: Pick<LaserWork, "laser">): string =>
  s.laser
    ? `${Math.round(s.laser.power * 100)} % power, ${Math.round(s.laser.speed)} mm/s, ${s.laser.interval} ` +
      `mm, ${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"}`
    : "No setting yet: choose a machine";
