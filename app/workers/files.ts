/** Ask the worker to read or write a whole file; where there are no workers it is done here. */
import type { Remote } from "comlink";
import type { RichLayerFile } from "../core/records/file";
import type { LogEntry } from "../core/records/log";
import type { Product } from "../core/records/product";
import type { CsvRead } from "../io/csv";
import type { FileRead } from "../io/import/job-file";
import { Cancelled, inWorker } from "./call";
import type { FilesApi, Written } from "./files-api";

export { Cancelled };
export type Stage = (word: string) => void;
const quiet: Stage = () => {};

/** @throws Error when the worker can't be started; Cancelled when the signal fired */
async function ask<R>(
  run: (api: Remote<FilesApi> | FilesApi, stage: Stage) => Promise<R> | R,
  stage: Stage = quiet,
  signal?: AbortSignal,
): Promise<R> {
  if (typeof Worker === "undefined") return run((await import("./files-api")).filesApi, stage);
  return inWorker<FilesApi, R>({
    make: () => new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" }),
    does: "reads and writes files",
    signal,
    run: async (api, heard) => run(api, heard(stage)),
  });
}

/** A zip or JSON, by its bytes. @throws as {@link ask} does */
export const readWhole = (bytes: Uint8Array, stage?: Stage, signal?: AbortSignal): Promise<FileRead> =>
  ask((api, told) => api.read(bytes, told), stage, signal);

/** The shop as a file, read back at once. @throws as {@link ask} does */
export const writeWhole = (f: RichLayerFile, zip: boolean, stage?: Stage, signal?: AbortSignal): Promise<Written> =>
  ask((api, told) => api.write(f, zip, told), stage, signal);

/** A bench log as CSV. @param jobs ids that it may speak of @throws as {@link ask} does */
export const readLog = (
  bytes: Uint8Array,
  jobs: readonly string[],
  stage?: Stage,
  signal?: AbortSignal,
): Promise<CsvRead<LogEntry>> => ask((api, told) => api.log(bytes, jobs, told), stage, signal);

/** A Shelf as CSV. @throws as {@link ask} does */
export const readShelf = (bytes: Uint8Array, stage?: Stage, signal?: AbortSignal): Promise<CsvRead<Product>> =>
  ask((api, told) => api.shelf(bytes, told), stage, signal);
