/** The wire between screens and workers: one union a direction, errors as values. */
import type { FoundArtwork } from "../core/vector/zones";

export type Ask = { id: number; do: "zones"; svg: string; widthMm: number | null };
export type Reply =
  | { id: number; is: "progress"; share: number }
  | { id: number; is: "done"; found: FoundArtwork }
  | { id: number; is: "refused"; message: string };
