/** Density of a file against the lines of the machine: what it holds, and the stripes where they are not the same. */
import { MM_PER_INCH } from "../units/show";

/** Pixels an inch of an interval. */
export const perInch = (intervalMm: number): number => MM_PER_INCH / intervalMm;

/**
 * Lines from one stripe to the next where a file of one density is burnt at another: each time a line is left out or doubled.
 * 300 against 318: every 17.7 lines.
 * @returns null: they agree, to a thousandth
 */
export function beat(file: number, machine: number): number | null {
  const off = Math.abs(file - machine);
  return off <= machine / 1000 ? null : machine / off;
}
