/** Ask the worker to measure a drawing. */
import type { FoundArtwork } from "../core/vector/zones";
import { Cancelled, inWorker } from "./call";
import type { TraceAsk, TraceFound } from "../io/import/trace";
import type { NameRow } from "../core/geometry/names";
import type { NameBlock } from "../core/records/job";
import type { NamesFound } from "../io/names";
import type { Ring } from "../core/geometry/outline";
import type { ShapeFound, ShapeOp } from "../core/geometry/shapes";
import type { LetterFound, ZonesApi } from "./zones-api";

export { Cancelled };
/** Was a drawing left because it takes long, and not because anything is wrong with it? */
export const takesLong = (e: unknown): boolean => e instanceof Error && e.name === "TooMuch";

/** A flat picture made into a drawing. @throws Error with one sentence; Cancelled when the signal fired */
export const tracePicture = (bytes: Uint8Array<ArrayBuffer>, ask: TraceAsk, signal: AbortSignal): Promise<TraceFound> =>
  inWorker<ZonesApi, TraceFound>({
    make: () => new Worker(new URL("./zones.worker.ts", import.meta.url), { type: "module" }),
    does: "measures drawings",
    signal,
    run: (api) => api.trace(bytes, ask),
  });

/** @throws Error with the reader's own sentence; Cancelled when the signal fired */
export const measureSvg = (
  svg: string,
  widthMm: number | null,
  signal: AbortSignal,
  progress: (share: number) => void,
  /** however long it takes */
  anyway = false,
): Promise<FoundArtwork> =>
  inWorker<ZonesApi, FoundArtwork>({
    make: () => new Worker(new URL("./zones.worker.ts", import.meta.url), { type: "module" }),
    does: "measures drawings",
    signal,
    run: (api, heard) => api.measure(svg, widthMm, heard(progress), anyway),
  });

const make = (): Worker => new Worker(new URL("./zones.worker.ts", import.meta.url), { type: "module" });
/** What comes of two outlines, or of one and a width. @throws Error with one sentence */
export const combineShapes = (op: ShapeOp, a: string, b: string, mm: number): Promise<ShapeFound> =>
  inWorker<ZonesApi, ShapeFound>({ make, does: "reckons with outlines", run: (api) => api.combine(op, a, b, mm) });
/** Lines of text as an outline in a block. @throws Error with one sentence */
export const letterBlock = (lines: string[], w: number, h: number, bold: boolean): Promise<LetterFound> =>
  inWorker<ZonesApi, LetterFound>({ make, does: "sets letters", run: (api) => api.letter(lines, w, h, bold) });
/** A name a piece as outlines. @throws Error with one sentence; Cancelled when the signal fired */
export const setNames = (
  own: Uint8Array | null,
  rows: NameRow[],
  block: NameBlock,
  signal: AbortSignal,
  progress: (share: number) => void,
): Promise<NamesFound> =>
  inWorker<ZonesApi, NamesFound>({
    make,
    does: "sets names",
    signal,
    run: (api, heard) => api.names(own, rows, block, heard(progress)),
  });
/** Labels as outlines. @throws Error with one sentence */
export const labelRings = (texts: string[], capMm: number): Promise<Ring[][]> =>
  inWorker<ZonesApi, Ring[][]>({ make, does: "sets letters", run: (api) => api.labels(texts, capMm) });
