/** A level of a dug picture in words. */
import type { Dug } from "../../core/explain/picture";

/** What of the power that is set it takes, the grey that stands for it in the file, and its energy where that is known. */
export const tonesOf = (l: Dug): string =>
  [
    `${(l.demand * 100).toFixed(1)} % of the power that is set`,
    `grey ${255 - Math.round(255 * l.demand)}`,
    ...(l.e === null ? [] : [`${l.e.toFixed(2)} J/mm²`]),
  ].join(", ");
