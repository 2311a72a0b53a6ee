/** A setting carried over to another machine: equal energy on the surface and lines as wide against the spot, capped by what it does. */
export interface CarryFrom {
  /** J/mm² of one pass */
  e: number;
  interval: number;
  spotMm: number | null;
  passes: number;
}
export interface CarryTo {
  wattsAt(share: number): number | null;
  shareOf(watts: number): number;
  topSpeed: number;
  /** is the top speed known, or a default? */
  topKnown: boolean;
  spotMm: number | null;
}
export interface Carried {
  power: number;
  speed: number;
  interval: number;
  passes: number;
  /** what holds it back or makes it unsure, in words */
  notes: string[];
}
/** share of the panel that a carried setting begins with */
const BEGIN_AT = 0.6;
/** share of the top speed that is kept to */
const KEPT = 0.8;

/** null: the other machine’s watts are not known at any power. */
export function carry(from: CarryFrom, to: CarryTo): Carried | null {
  const notes: string[] = [];
  const same = from.spotMm !== null && to.spotMm !== null;
  const interval = same ? (from.interval * to.spotMm!) / from.spotMm! : from.interval;
  if (!same) notes.push("the spot of one of them is not known: the interval is taken as it was");
  let power = BEGIN_AT;
  let w = to.wattsAt(power);
  if (w === null) return null;
  let speed = w / (from.e * interval);
  const most = KEPT * to.topSpeed;
  if (speed > most) {
    // too strong for its speed: turned down
    speed = most;
    power = to.shareOf(from.e * speed * interval);
    w = to.wattsAt(power);
    if (w === null) return null;
    speed = Math.min(most, w / (from.e * interval));
    notes.push("turned down: at more power it would have to run faster than it can");
  }
  if (!to.topKnown) notes.push("its top speed is a default: look whether it keeps it");
  if (Math.abs((w as number) / (speed * interval) / from.e - 1) > 0.02)
    notes.push("it does not come to the same energy: begin with a plate");
  notes.push("a start only: another spot, lens and air burn otherwise; make a plate round it");
  return { power, speed, interval: Math.round(interval * 1000) / 1000, passes: from.passes, notes };
}
