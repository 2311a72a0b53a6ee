/**
 * Settings that a plan begins with, where nobody has found one yet: the energy that a piece of laser work wants, put on the surface
 * within the machine's reach. All are starts for a test.
 */
import { absorption, defaultDepthPerJ } from "../catalogue/beams";
import { depthPerPass, passesFor } from "../models/depth/depth";
import { PLAIN_RATIO, Q_DEFAULT, window } from "../models/film/reveal";
import { energy } from "../models/laser/energy";
import { topDown, type ZoneState } from "../piece/state";
import type { Context } from "./context";
import { cutsOf, settingFor } from "./kinds/laser-work";
import type { LaserSetting } from "./step";

/** J/mm² a pass for cutting wood */
const CUT_E = 2;
/** J/mm² to start a test plate from when no window can be worked out */
const BLIND_E = 0.7;
/** J/mm² to begin a test with when glaze is to be opened, and when titanium white is to be burnt in; coatings by M4. */
const GLAZE_E = 3;
const BURN_E = 1;
/** J/mm² that cuts tape of ordinary thickness and not what lies beneath it: a start for a try on an offcut */
const SCORE_E = 0.5;
/** share above the middle at which a coating goes without leaving specks */
const MARGIN = 1.3;
/** share of rated power to begin with: uncovering and marking, and cutting */
const MARK_POWER = 0.5;
const CUT_POWER = 0.8;

/** mm per J/mm² in this material, measured here or by default; null: unknown. */
export const kappaOf = (c: Context): number | null =>
  !c.machine ? null : (c.machine.depthPerJ ?? defaultDepthPerJ(c.machine.beam, c.substrate.family));

/** Depth that a setting reaches in this material, mm; null when unknown. */
export function depthReached(c: Context, s: LaserSetting): number | null {
  const kappa = kappaOf(c);
  return kappa === null || !c.machine
    ? null
    : s.passes * depthPerPass(kappa, energy(c.machine.watts, s.power, s.speed, s.interval));
}

/** For a depth (M10): a speed for about 2 J/mm² a pass, and the passes that makes. */
export function engraveSetting(c: Context, depthMm: number): LaserSetting | null {
  const kappa = kappaOf(c);
  const s = settingFor(c, CUT_E, CUT_POWER, 1);
  if (!s || !c.machine || kappa === null) return null;
  const e = energy(c.machine.watts, s.power, s.speed, s.interval);
  return { ...s, passes: passesFor(depthMm, kappa, e) ?? 1 };
}

/** J/mm² to take the maker’s skin off: glaze by test, a coating by its thickness and colour, silvering at a touch. */
export function skinEnergy(c: Context): number {
  const s = c.substrate.skin;
  if (!s || s.kind === "glaze" || !c.machine) return GLAZE_E;
  const takes = Math.max(0.2, absorption(c.machine.beam, c.substrate.colour, false));
  return c.substrate.e0 + ((Q_DEFAULT * s.um) / takes) * MARGIN;
}
export const skinSetting = (c: Context): LaserSetting | null => settingFor(c, skinEnergy(c), MARK_POWER, 1);
export const burnInSetting = (c: Context): LaserSetting | null => settingFor(c, BURN_E, MARK_POWER, 1);
export const scoreSetting = (c: Context): LaserSetting | null => settingFor(c, SCORE_E, MARK_POWER, 1);

/** For uncovering the film beneath the top of a zone. A shut window still needs a place to start: its geometric middle. */
export function topSetting(c: Context, z: ZoneState | null): LaserSetting | null {
  const w = z && c.intervalMm !== null ? window(cutsOf(z, c, c.intervalMm, 1)) : null;
  return settingFor(c, w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : BLIND_E, MARK_POWER, 1);
}

/** For uncovering a product in a stack of films. Under the last film lies the piece itself: nothing shuts that window from above. */
export function uncoverSetting(c: Context, z: ZoneState, productId: string): LaserSetting | null {
  if (c.intervalMm === null) return null;
  const cuts = cutsOf(z, c, c.intervalMm, 1);
  const over = topDown(z).findIndex((f) => f.productId === productId && f.role !== "top");
  const w = window(cuts, over);
  const blind = over > 0 && cuts[over - 1] ? cuts[over - 1].c * PLAIN_RATIO : BLIND_E;
  return settingFor(c, w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : blind, MARK_POWER, 1);
}
