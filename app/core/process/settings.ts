/**
 * The setting in force of a piece of laser work: typed over found on a plate over computed. A computed setting is a function of the
 * piece as it lies, the machine and what is wanted, and is never kept: a thicker dark top moves it at once. All are starts for a test.
 */
import { absorption } from "../catalogue/beams";
import { colourWay } from "../catalogue/routes";
import { depthPerPass, DEPTH_THRESHOLD } from "../models/depth/depth";
import { markEnergy } from "../models/laser/mark";
import { PLAIN_RATIO, Q_DEFAULT, window } from "../models/film/reveal";
import { topDown, type ZoneState } from "../piece/state";
import { cutE, digs, dose, kappaFor, keptSpeed, shareOf, topSpeed, wattsOf } from "./beam";
import type { Context } from "./context";
import { cutsOf, rasterExtent } from "./kinds/laser-work";
import type { LaserSetting } from "./step";

/** J/mm² of one pass beyond which a body chars or melts more than it gives way; metal takes more */
const PASS_E = 2;
const METAL_PASS_E = 10;
/** passes that nobody runs more of: a depth beyond them is not dug by this machine */
export const MOST_PASSES = 40;
/** J/mm² to start a test plate from when no window can be worked out */
const BLIND_E = 0.7;
/** J/mm² to begin a test with when glaze is to be opened, and when titanium white is to be burnt in; coatings by M4. */
const GLAZE_E = 3;
export const BURN_E = 1;
/** J/mm² along a line that cuts tape of ordinary thickness and not what lies beneath it: a start for a try on an offcut */
export const SCORE_E = 0.5;
/** J/mm² that fuse packed powder by a slow beam, and the watts, lines and spot that do it without blowing it about: starts for a test */
export const MELT_E = 1.5;
const [MELT_W, MELT_INTERVAL_MM] = [6, 0.25];
export const MELT_SPOT_MM = 0.5;
/** share above the middle at which a coating goes without leaving specks */
const MARGIN = 1.3;
/** share of the panel that a computed setting goes to at most */
const MOST_POWER = 0.8;
/** slowest cut, mm/s: below it an edge burns away; and passes that a cut is given at most */
const SLOWEST_CUT = 4;
export const CUT_PASSES = 6;

const figures = (power: number, speed: number, interval: number, passes: number): LaserSetting => ({
  power: Math.round(power * 1000) / 1000,
  // never quicker than it was reckoned for, or it would fall short
  speed: speed < 1 ? speed : Math.floor(speed * 10 + 1e-6) / 10,
  interval,
  passes,
  from: "computed",
});

/** A setting that puts E J/mm² a pass on lines so wide: as quick as the rows let it, then the power, then slower if need be. */
function reach(c: Context, e: number, widthMm: number, speed: number, passes: number): LaserSetting | null {
  const m = c.machine;
  if (!m || c.intervalMm === null || !(e > 0)) return null;
  let v = speed;
  let p = shareOf(m, e * v * widthMm);
  if (p > MOST_POWER) p = MOST_POWER;
  const w = wattsOf(m, Math.round(p * 1000) / 1000);
  if (w === null) return null;
  // the power is rounded to what a panel takes, so the speed has the last word
  v = Math.min(topSpeed(m), w / (e * widthMm));
  return figures(p, v, c.intervalMm, passes);
}

/** A setting for a filled run that puts E J/mm² a pass on these zones. */
export function settingFor(c: Context, e: number, passes: number, zones: readonly string[]): LaserSetting | null {
  if (!c.machine || c.intervalMm === null) return null;
  const { rowMm } = rasterExtent(c.job.zones.filter((z) => zones.includes(z.id)));
  return reach(c, e, c.intervalMm, keptSpeed(c.machine, rowMm), passes);
}

/** Depth that a setting digs into this body, mm; null when unknown. */
export const depthReached = (c: Context, s: LaserSetting): number | null =>
  c.machine ? digs(c.machine, s, c.substrate) : null;

/** For a depth (M10): the least passes of no more energy than the body bears, and the speed that makes them dig just that. */
export function engraveSetting(c: Context, depthMm: number, zones: readonly string[]): LaserSetting | null {
  const kappa = c.machine && kappaFor(c.machine, c.substrate);
  if (!kappa || !(depthMm > 0)) return null;
  const most = depthPerPass(kappa, c.substrate.family === "metal" ? METAL_PASS_E : PASS_E);
  const passes = Math.min(MOST_PASSES, Math.max(1, Math.ceil(depthMm / most - 1e-9)));
  const each = Math.min(depthMm / passes, most);
  return settingFor(c, each / kappa + DEPTH_THRESHOLD, passes, zones);
}

/** J/mm² to take the maker’s skin off: glaze by test, a cap by its depth, a coating by its thickness and colour, silvering at a touch. */
export function skinEnergy(c: Context): number {
  const s = c.substrate.skin;
  if (!s || s.kind === "glaze" || !c.machine) return GLAZE_E;
  // a cap is of the sheet's own stuff: as deep as it is thick (M10)
  const kappa = s.kind === "cap" ? kappaFor(c.machine, c.substrate) : null;
  if (kappa) return (s.um / 1000 / kappa + DEPTH_THRESHOLD) * MARGIN;
  const takes = Math.max(0.2, absorption(c.machine.beam, c.substrate.colour));
  return c.substrate.e0 + ((Q_DEFAULT * s.um) / takes) * MARGIN;
}
/** share of the energy meant from which a skin is open, and pigment burnt in; and above which pigment bleaches again */
export const ENOUGH = 1 / MARGIN;
export const BLEACHES = 2;
export const skinSetting = (c: Context, zones: readonly string[]): LaserSetting | null =>
  settingFor(c, skinEnergy(c), 1, zones);
export const burnInSetting = (c: Context, zones: readonly string[]): LaserSetting | null =>
  settingFor(c, BURN_E, 1, zones);

/** J/mm² at which a beam’s mark on the bare face is deepest; null: not known. */
export const kneeOf = (c: Pick<Context, "machine" | "substrate">): number | null =>
  (c.machine && c.substrate.mark?.knee[c.machine.beam]) ?? null;
export function markSetting(c: Context, zones: readonly string[]): LaserSetting | null {
  const knee = kneeOf(c);
  return knee === null ? null : settingFor(c, markEnergy(knee), 1, zones);
}

/** Powder fused by a weak, slow beam out of focus: few watts, wide lines, the speed by what it takes. */
export function meltSetting(c: Context): LaserSetting | null {
  const m = c.machine;
  if (!m) return null;
  const share = Math.round(Math.min(MOST_POWER, shareOf(m, MELT_W)) * 1000) / 1000;
  const w = wattsOf(m, share);
  return w ? figures(share, Math.min(topSpeed(m), w / (MELT_E * MELT_INTERVAL_MM)), MELT_INTERVAL_MM, 1) : null;
}

/** Along the outlines of a mask. */
export function scoreSetting(c: Context): LaserSetting | null {
  if (!c.machine || c.spotMm === null) return null;
  return reach(c, SCORE_E, c.spotMm, keptSpeed(c.machine, null), 1);
}
/** Through the sheet along the outline: the least passes at which it moves on at all; null: not cut by this machine, or not known. */
export function cutSetting(c: Context): LaserSetting | null {
  const m = c.machine;
  const e = m && cutE(m, c.substrate);
  const w = m && wattsOf(m, MOST_POWER);
  if (!m || !e || !w || c.intervalMm === null) return null;
  const t = c.job.substrate.t;
  const passes = Math.ceil((SLOWEST_CUT * e * t) / w - 1e-9);
  if (passes > CUT_PASSES) return null;
  const n = Math.max(1, passes);
  return figures(MOST_POWER, Math.min(keptSpeed(m, null), Math.floor(((n * w) / (e * t)) * 10) / 10), c.intervalMm, n);
}

/** For uncovering the film beneath the top of a zone. A shut window still needs a place to start: its geometric middle. */
export function topSetting(c: Context, z: ZoneState | null, zones: readonly string[]): LaserSetting | null {
  const w = z && c.intervalMm !== null ? window(cutsOf(z, c, c.intervalMm, 1)) : null;
  return settingFor(c, w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : BLIND_E, 1, zones);
}

/** How many films lie over the one that a zone shows, from the top; all of them over one that shows the body; 0: none does. */
export function filmsOver(z: ZoneState, productId: string | null): number {
  if (productId === null) return topDown(z).length;
  const at = topDown(z).findIndex((f) => f.productId === productId && f.role !== "top");
  return Math.max(0, at);
}

/** what a zone is to show */
const wanted = (c: Context, zone: string): string | null => {
  const z = c.job.zones.find((x) => x.id === zone);
  return !z || z.bare ? null : z.productId;
};

/**
 * J/mm² between which what a zone is to show lies open and whole; null: no film lies over it, or nothing is known. Under the last film
 * lies the piece itself: nothing shuts that window from above.
 */
function opensBetween(
  c: Context,
  z: ZoneState,
  interval = c.intervalMm,
  passes = 1,
): { lo: number; hi: number } | null {
  if (interval === null) return null;
  const cuts = cutsOf(z, c, interval, passes);
  const k = Math.max(1, filmsOver(z, wanted(c, z.zone)));
  return window(cuts, k) ?? (cuts[k - 1] ? { lo: cuts[k - 1].c, hi: Infinity } : null);
}

/** Are the colours of a picture dug out of a stack, each by its own share of the power? */
export const digsColours = (c: Context): boolean =>
  c.picture?.dig === true && c.job.areas?.over === true && colourWay(c.route) === "stack";

/** J/mm² to aim at in a window. */
const aim = ({ lo, hi }: { lo: number; hi: number }): number =>
  hi === Infinity ? lo * PLAIN_RATIO : Math.sqrt(lo * hi);

/**
 * J/mm² that a zone gets by a setting; null: not known. Where colours are dug the setting is that of full power, and each zone gets as
 * much of it as opens its own.
 */
export function energyOn(c: Context, z: ZoneState, set: LaserSetting): number | null {
  const full = c.machine ? dose(c.machine, set) : null;
  if (full === null || !digsColours(c)) return full;
  const w = opensBetween(c, z, set.interval, set.passes);
  return w ? Math.min(full, aim(w)) : full;
}
/** The share of the power that is set by which a zone gets what it gets. */
export function demandOn(c: Context, z: ZoneState, set: LaserSetting): number | null {
  const e = energyOn(c, z, set);
  if (e === null || !c.machine || !(set.power > 0)) return null;
  const share = shareOf(c.machine, (e / set.passes) * set.speed * set.interval) / set.power;
  return Math.min(1, share);
}

/** Does one setting uncover all of these zones, with room to hit it? Without a machine: do as many films lie over each? */
export function opensTogether(c: Context, states: readonly ZoneState[]): boolean {
  // each by its own power, in one pass
  if (digsColours(c)) return true;
  if (!c.machine || c.intervalMm === null)
    return new Set(states.map((z) => filmsOver(z, wanted(c, z.zone)))).size === 1;
  const all = states.map((z) => opensBetween(c, z));
  const lo = Math.max(...all.map((w) => w?.lo ?? Infinity));
  return lo * PLAIN_RATIO <= Math.min(...all.map((w) => w?.hi ?? 0));
}

/** For uncovering what these zones are to show: the middle of the window that all of them have. */
export function uncoverSetting(c: Context, states: readonly ZoneState[]): LaserSetting | null {
  const all = states.flatMap((z) => opensBetween(c, z) ?? []);
  // full power is that of the deepest
  if (digsColours(c) && all.length)
    return settingFor(
      c,
      Math.max(...all.map(aim)),
      1,
      states.map((z) => z.zone),
    );
  const lo = Math.max(...all.map((w) => w.lo));
  const hi = Math.min(...all.map((w) => w.hi));
  const e = !all.length ? BLIND_E : aim({ lo, hi });
  return settingFor(
    c,
    e,
    1,
    states.map((z) => z.zone),
  );
}
