/**
 * Which way round the artwork goes to the laser: what of it is burnt. One truth table, quoted by card, pre-flight, rule, face and guide.
 *
 * | artwork | the beam darkens or digs | the beam lifts a dark top |
 * |---|---|---|
 * | a drawing: its areas are what the beam works on | as drawn | as drawn |
 * | a picture: its dark tones are what is to be dark | as it is | inverted: the light tones are burnt free |
 */
import type { Route } from "../catalogue/routes";

export type Source = "drawing" | "picture";

/** What a job gives to the beam: its drawing, or the picture that is drawn over its areas. */
export const sourceOf = (c: { picture: unknown }): Source => (c.picture ? "picture" : "drawing");

/** What of the artwork the beam is given. */
export interface Burnt {
  inverted: boolean;
  /** what is burnt, as the end of a sentence */
  says: string;
}

/** @param r null: none chosen yet, as drawn */
export function burntOf(source: Source, r: Pick<Route, "lifts"> | null): Burnt {
  if (source === "drawing") return { inverted: false, says: "as drawn, not inverted: what is drawn is burnt" };
  return r?.lifts
    ? { inverted: true, says: "inverted: the light tones are burnt free of the dark top" }
    : { inverted: false, says: "as it is, not inverted: the dark tones are burnt" };
}
