/** What there is to lift at a visit (M13): pieces of mask, islands that stay within what is opened, the smallest, and how long it takes. */
import { GROUND, zoneOf } from "../piece/state";
import type { Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { kindOf } from "../process/kinds";

export interface Weeding {
  /** pieces of mask that come off one of the batch; null: the drawing was not measured */
  pieces: number | null;
  /** islands of mask that stay within what is opened */
  islands: number | null;
  /** mm², the smallest of the pieces that is known */
  smallestMm2: number | null;
  /** minutes a piece of the batch */
  minutes: number | null;
}

const sum = (list: (number | null)[]): number | null =>
  list.reduce<number | null>((a, n) => (a === null || n === null ? null : a + n), 0);

/** null: it lifts no mask. */
export function weedingOf(p: Placed, c: Context): Weeding | null {
  const kind = kindOf(p.step.kind);
  if (kind.lifts !== "mask") return null;
  const off = p.before.zones.filter((z) => z.mask && !zoneOf(p.after, z.zone).mask).map((z) => z.zone);
  const zones = c.job.zones.filter((z) => off.includes(z.id));
  // the rest of the face comes off as one, and with it what stood within areas that are open by then
  const rest = off.includes(GROUND);
  const within = rest ? c.job.zones.filter((z) => !off.includes(z.id)).map((z) => z.holes) : [];
  const smallest = zones.map((z) => z.smallestMm2).filter((x): x is number => x !== null);
  return {
    pieces: sum([...zones.map((z) => z.pieces), ...within, rest ? 1 : 0]),
    islands: rest ? 0 : sum(zones.map((z) => z.holes)),
    smallestMm2: smallest.length ? Math.min(...smallest) : null,
    minutes: kind.minutes(p.step, c)?.perPiece ?? null,
  };
}
