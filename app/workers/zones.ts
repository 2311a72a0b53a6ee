/** Ask the worker to measure a drawing. */
import type { FoundArtwork } from "../core/vector/zones";
import { Cancelled, inWorker } from "./call";
import type { TraceAsk, TraceFound } from "../io/import/trace";
import type { ZonesApi } from "./zones-api";

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
