/** The wires between screens and workers: one union a direction and worker, errors as values. */
import type { Card } from "../core/explain/card";
import type { World } from "../core/records/world";
import type { FoundArtwork } from "../core/vector/zones";
import type { LabelSheet } from "../io/export/pdf/labels";
import type { Problem } from "../core/schedule/problem";
import type { Progress, Solved } from "../core/schedule/solve";
import type { FigureRef } from "../core/explain/why/figure";
import type { Moved } from "../core/explain/why/moves";

export type Ask = { id: number; do: "zones"; svg: string; widthMm: number | null };
export type Reply =
  | { id: number; is: "progress"; share: number }
  | { id: number; is: "done"; found: FoundArtwork }
  | { id: number; is: "refused"; message: string };

export type PaperAsk = { do: "card"; card: Card; made: number } | { do: "labels"; sheet: LabelSheet; made: number };
export type PaperReply = { is: "done"; pdf: Uint8Array<ArrayBuffer> } | { is: "refused"; message: string };

export type ScheduleAsk = { do: "solve"; problem: Problem } | { do: "stop" };
export type ScheduleReply =
  { is: "progress"; progress: Progress } | { is: "done"; solved: Solved } | { is: "refused"; message: string };

/** @param now the moment the plan on screen was made at */
export type WhyAsk = { world: World; now: number | null; figure: FigureRef };
export type WhyReply =
  { is: "progress"; share: number } | { is: "done"; moved: Moved | null } | { is: "refused"; message: string };
