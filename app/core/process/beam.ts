/**
 * What a beam does, from the machine's own figures: watts of a panel setting, energy on the surface, speeds that it keeps, depth that it
 * digs, thickness that it cuts through. Everybody who asks what a setting does asks here.
 */
import { BEAM_KINDS, defaultCutE, defaultDepthPerJ } from "../catalogue/beams";
import type { SubstrateKind } from "../catalogue/substrates";
import { depthPerPass } from "../models/depth/depth";
import { energy } from "../models/laser/energy";
import { wattsAt } from "../models/laser/runtime";
import type { Machine } from "../records/machine";
import type { LaserSetting } from "./step";

/** panel readings up to here are milliamperes, above it per cent */
const MOST_MA = 60;
/** share of the panel below which a glass tube's watts are not its per cent */
export const DC_LEAST = 0.12;
/** share of the top speed that a computed setting keeps to */
const KEEPS = 0.8;
/** mm/s that is planned with where a machine's top speed is not known */
const SPEED: Record<"mirrors" | Machine["beam"], number> = { mirrors: 2000, blue: 150, co2: 400, um1: 400, uv: 400 };

/** Is it a glass tube, whose watts are not its per cent at the low end? */
export const isTube = (m: Machine): boolean => m.beam === "co2" && !m.galvo;

/** A share of the panel as its readings are written: per cent, or mA of the most that was read. */
function panel(m: Machine, share: number): number {
  const most = Math.max(...m.powerPoints.map((p) => p.set));
  return most > MOST_MA ? share * 100 : share * most;
}

/** Watts at a share of the panel: by the machine's own readings, else by its rating. Null: outside what was read, or a tube turned low. */
export function wattsOf(m: Machine, share: number): number | null {
  if (m.powerPoints.length >= 2) return wattsAt(m.powerPoints, Math.round(panel(m, share) * 1e9) / 1e9);
  return isTube(m) && share < DC_LEAST - 1e-9 ? null : m.watts * share;
}

/** Share of the panel that gives so many watts, as near as the machine gets. */
export function shareOf(m: Machine, watts: number): number {
  const least = m.powerPoints.length >= 2 ? Math.min(...m.powerPoints.map((p) => p.set)) / panel(m, 1) : DC_LEAST;
  let [lo, hi] = [m.powerPoints.length >= 2 || isTube(m) ? least : 0, 1];
  if (m.powerPoints.length < 2) return Math.min(hi, Math.max(lo, watts / m.watts));
  const most = Math.max(...m.powerPoints.map((p) => p.set)) / panel(m, 1);
  hi = Math.min(1, most);
  for (let i = 0; i < 50; i++) {
    const mid = (lo + hi) / 2;
    if ((wattsOf(m, mid) ?? 0) < watts) lo = mid;
    else hi = mid;
  }
  return (lo + hi) / 2;
}

/** J/mm² that one pass of a filled run puts on the surface; null: its watts are not known. */
export function perPass(m: Machine, s: LaserSetting): number | null {
  const w = wattsOf(m, s.power);
  return w === null ? null : energy(w, 1, s.speed, s.interval);
}
/** J/mm² of all passes. */
export function dose(m: Machine, s: LaserSetting): number | null {
  const e = perPass(m, s);
  return e === null ? null : e * s.passes;
}
/** J/mm² that one pass along a line puts on its width: watts by speed and spot. */
export function alongLine(m: Machine, s: LaserSetting, spotMm: number): number | null {
  const w = wattsOf(m, s.power);
  return w === null ? null : energy(w, 1, s.speed, spotMm);
}

/** Top speed, mm/s; a default where it is not known, never without end. */
export const topSpeed = (m: Machine): number => m.maxSpeed ?? SPEED[m.galvo ? "mirrors" : m.beam];
/** Speed that a computed setting keeps to over rows of a length: 0.8 of the top, or the quickest over such a row (√(a·L/2)). */
export const keptSpeed = (m: Machine, rowMm: number | null): number =>
  Math.min(
    KEEPS * topSpeed(m),
    m.galvo || rowMm === null || !(rowMm > 0) ? Infinity : Math.sqrt((m.accel * rowMm) / 2),
  );

/** mm per J/mm² above the threshold: measured with this machine in this material, else the beam's default. Null: not known. */
export const kappaFor = (m: Machine, s: SubstrateKind): number | null =>
  m.depths?.find((d) => d.substrate === s.id)?.perJ ??
  (s.family === "wood" && m.depthPerJ !== null ? m.depthPerJ : defaultDepthPerJ(m.beam, s));
export const kappaMeasured = (m: Machine, s: SubstrateKind): boolean =>
  (m.depths ?? []).some((d) => d.substrate === s.id) || (s.family === "wood" && m.depthPerJ !== null);

/** mm that a filled run digs into a bare body; null: not known. */
export function digs(m: Machine, s: LaserSetting, body: SubstrateKind): number | null {
  const [kappa, e] = [kappaFor(m, body), perPass(m, s)];
  return kappa === null || e === null ? null : s.passes * depthPerPass(kappa, e);
}

/** J/mm² of kerf wall; null: not known for this beam and material. */
export const cutE = (m: Machine, s: SubstrateKind): number | null => defaultCutE(m.beam, s.family);
/** mm that a setting cuts through along a line (P·p = e_c·t·v a pass); null: not known. */
export function cutsThrough(m: Machine, s: LaserSetting, body: SubstrateKind): number | null {
  const [e, w] = [cutE(m, body), wattsOf(m, s.power)];
  return e === null || w === null ? null : (s.passes * w) / (e * s.speed);
}

/** What of the beam a person must be shielded from. */
export const eyewearFor = (m: Machine | null): string => (m ? BEAM_KINDS[m.beam].eyewear : "rated for the beam");
