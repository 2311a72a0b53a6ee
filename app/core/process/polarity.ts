/**
 * Which way round the artwork goes to the laser: what of it is burnt. One truth table, quoted by card, pre-flight, rule, face and guide.
 *
 * | artwork | the beam darkens or digs | the beam lifts a dark top |
 * |---|---|---|
 * | a drawing: its areas are what the beam works on | as drawn | as drawn |
 * | a picture: its dark tones are what is to be dark | as it is | inverted: the light tones are burnt free |
| a picture, where the beam’s own mark is lighter than the body | inverted: the light tones are burnt | - |
 */
import { beamWork, type Route } from "../catalogue/routes";
import type { SubstrateKind } from "../catalogue/substrates";
import { linear, luminance } from "../models/film/colour";

export type Source = "drawing" | "picture";

/** What a job gives to the beam: its drawing, or the picture that is drawn over its areas. */
export const sourceOf = (c: { picture: unknown }): Source => (c.picture ? "picture" : "drawing");

/** What of the artwork the beam is given. */
export interface Burnt {
  inverted: boolean;
  /** what is burnt, as the end of a sentence */
  says: string;
}

/** What the beam leaves of the bare body, no paint on it: its own mark, or what lies beneath its skin; null: not known. */
export const leftBare = (s: SubstrateKind): string | null => s.skin?.beneath ?? s.mark?.colour ?? null;

/** Is what the beam leaves on this body lighter than the body, where the route marks that itself? */
function pales(r: Route | null, body: SubstrateKind | null): boolean {
  const left = beamWork(r) === "mark" && body ? leftBare(body) : null;
  return left !== null && luminance(linear(left)) > luminance(linear(body!.colour));
}

/** What of a job’s artwork the beam is given. */
export const burntBy = (c: { picture: unknown; route: Route | null; substrate: SubstrateKind }): Burnt =>
  burntOf(sourceOf(c), c.route, c.substrate);

/** @param r null: none chosen yet, as drawn @param body what is marked, where the route marks the body itself */
export function burntOf(source: Source, r: Route | null, body: SubstrateKind | null = null): Burnt {
  if (source === "drawing") return { inverted: false, says: "as drawn, not inverted: what is drawn is burnt" };
  if (pales(r, body))
    return { inverted: true, says: "inverted: the light tones are burnt, the beam’s mark is the lighter one" };
  return r?.lifts
    ? { inverted: true, says: "inverted: the light tones are burnt free of the dark top" }
    : { inverted: false, says: "as it is, not inverted: the dark tones are burnt" };
}
