/**
 * What a share of the power that is set leaves to be seen, for a step that draws a picture: the films over what it uncovers (M4), the
 * beam’s own mark (M5), pigment burnt in; a skin is off or on. From it the table that turns a wanted tone into power, and how many tones it
 * holds.
 */
import { markShare, markEnergy } from "../models/laser/mark";
import { openShares } from "../models/film/reveal";
import { zoneOf } from "../piece/state";
import type { Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { dose } from "../process/beam";
import { kindOf, own } from "../process/kinds";
import { cutsOf } from "../process/kinds/laser-work";
import { BURN_E, ENOUGH, filmsOver, kneeOf, skinEnergy } from "../process/settings";

export interface Shade {
  /** share of what is seen at the power that is set, for a share of that power; rises */
  seen: readonly number[];
  /** J/mm² for the same shares of power; null: below what the machine gives */
  e: readonly (number | null)[];
}
const STEPS = 256;

/** What J/mm² leave, 0-1; null: it is not known. */
function leaves({ step: s, before }: Placed, c: Context): ((e: number) => number) | null {
  const { beam } = kindOf(s.kind);
  if (beam === "skin") return (e) => Number(e >= ENOUGH * skinEnergy(c) - 1e-9);
  if (beam === "face" || beam === "pigment") {
    // what is aimed at for burning in lies before its knee, as for a mark
    const knee = beam === "face" ? kneeOf(c) : BURN_E / markEnergy(1);
    return knee === null ? null : (e) => markShare(e, knee);
  }
  const set = own(s, "laser");
  const zone = c.job.zones.find((z) => z.id === s.zones[0]);
  if (beam !== "film" || !set || !zone) return null;
  const lies = zoneOf(before, zone.id);
  const over = Math.max(1, filmsOver(lies, zone.bare ? null : zone.productId));
  const cuts = cutsOf(lies, c, set.interval, set.passes);
  return cuts[over - 1] ? (e) => openShares(cuts, e)[over - 1] : null;
}

/** null: no machine or setting, or not known what it leaves. */
export function shadeOf(at: Placed, c: Context): Shade | null {
  const set = own(at.step, "laser");
  const f = leaves(at, c);
  if (!f || !set || !c.machine) return null;
  const m = c.machine;
  const full = dose(m, set);
  const most = full === null ? 0 : f(full);
  if (!(most > 0)) return null;
  const e = Array.from({ length: STEPS + 1 }, (_v, k) => (k ? dose(m, { ...set, power: (set.power * k) / STEPS }) : 0));
  const seen: number[] = [];
  for (const [k, x] of e.entries())
    // past the knee it pales: such power is not asked for
    seen.push(Math.max(seen[k - 1] ?? 0, x === null ? 0 : Math.min(1, f(x) / most)));
  return { seen, e };
}

/** Share of the power for each of 256 even shares of what is seen. */
export function powerTable({ seen }: Shade): number[] {
  let k = 0;
  return Array.from({ length: STEPS + 1 }, (_v, i) => {
    const want = i / STEPS;
    while (k < STEPS && seen[k] < want - 1e-9) k++;
    if (i === 0 || k === 0) return 0;
    const [a, b] = [seen[k - 1], seen[k]];
    return Math.round((1e4 * (k - 1 + (b > a ? Math.min(1, Math.max(0, (want - a) / (b - a))) : 1))) / STEPS) / 1e4;
  });
}
