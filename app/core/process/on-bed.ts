/**
 * How the pieces of a job lie on the bed of its machine: in the pockets of the jig that it is placed by, else in rows. One answer for
 * minutes, loads, files and rules.
 */
import {
  bedLayout,
  filledPockets,
  inPocket,
  jigOnBed,
  looseIn,
  pocketAt,
  pocketLayout,
  type BedLayout,
} from "../geometry/bed";
import { RETURN_MM } from "../geometry/registration";
import { bedLoads } from "../models/laser/runtime";
import type { Gear, Pockets } from "../records/shop";
import type { Context } from "./context";

/** The jig that a job is placed by; null: none of the Workshop’s. */
export const jigOf = (c: Context): Gear | null =>
  (c.world.shop.gear ?? []).find((g) => g.kind === "jig" && g.id === c.job.choices.placedBy) ?? null;
export type Pocketed = Gear & { pockets: Pockets };
/** That jig, where it has pockets. */
export function pocketed(c: Context): Pocketed | null {
  const jig = (c.job.substrate.shape ?? "flat") === "flat" ? jigOf(c) : null;
  return jig?.pockets ? (jig as Pocketed) : null;
}
const emptied = (c: Context): readonly number[] => c.job.choices.emptyPockets ?? [];

/** How many pieces lie there at once, and how many loads all of them make. Zero a load: none lies there at all. */
export function loadsOn(c: Context, pieces: number): { perLoad: number; loads: number } {
  const { machine: m, job } = c;
  if (!m) return { perLoad: 0, loads: 0 };
  const jig = pocketed(c);
  if (!jig) return bedLoads(pieces, job.substrate.w, job.substrate.h, m.bedW, m.bedH);
  const sound = inPocket(job.substrate, jig.pockets) && jigOnBed(jig.pockets, { w: m.bedW, h: m.bedH });
  const perLoad = sound ? filledPockets(jig.pockets, emptied(c)).length : 0;
  return { perLoad, loads: perLoad ? Math.ceil(pieces / perLoad) : 0 };
}
/** Where each piece lies, load by load; null: not one lies there. */
export function layoutOn(c: Context): BedLayout | null {
  const { machine: m, job } = c;
  if (!m) return null;
  const bed = { w: m.bedW, h: m.bedH };
  const jig = pocketed(c);
  return jig
    ? pocketLayout(c.pieces, job.substrate, jig.pockets, emptied(c), bed)
    : bedLayout(c.pieces, job.substrate, bed);
}

/** What keeps the pieces out of the jig that they are placed by, with its figures; null: nothing, or there is no such jig. */
export function keptOut(c: Context): { numbers: Record<string, number>; why: string } | null {
  const { machine: m } = c;
  const jig = pocketed(c);
  if (!m || !jig) return null;
  const { w, h } = c.job.substrate;
  const { pockets: j, name } = jig;
  const r = (v: number): number => Math.round(v * 10) / 10;
  if (!inPocket({ w, h }, j))
    return {
      numbers: { pieceW: r(w), pieceH: r(h), pocketW: r(j.w), pocketH: r(j.h) },
      why: `The piece is ${r(w)} × ${r(h)} mm; a pocket of ${name} holds ${r(j.w)} × ${r(j.h)} mm.`,
    };
  if (!jigOnBed(j, { w: m.bedW, h: m.bedH })) {
    const [x, y] = pocketAt(j, j.across * j.down);
    const [reachesW, reachesH] = [r(x + j.w), r(y + j.h)];
    return {
      numbers: { reachesW, reachesH, bedW: m.bedW, bedH: m.bedH },
      why: `The pockets of ${name} reach to ${reachesW} × ${reachesH} mm; the bed of ${m.name} holds ${m.bedW} × ${m.bedH} mm.`,
    };
  }
  return loadsOn(c, c.pieces).perLoad
    ? null
    : { numbers: { filled: 0 }, why: `All pockets of ${name} are to stay empty: nothing lies in it.` };
}

/** mm that a piece can lie off in its jig: as the shop has measured it; else what its pocket leaves it; null: not known. */
export function errorIn(c: Context): number | null {
  const measured = jigOf(c)?.errorMm ?? null;
  const jig = pocketed(c);
  if (measured !== null || !jig || !inPocket(c.job.substrate, jig.pockets)) return measured;
  return Math.max(RETURN_MM.nest.mm, looseIn(c.job.substrate, jig.pockets));
}
