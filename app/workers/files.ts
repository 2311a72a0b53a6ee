/** Ask the worker to read or write a whole file; where there are no workers it is done here. */
import type { RichLayerFile } from "../core/records/file";
import type { FileRead } from "../io/import/job-file";
import { Cancelled, inWorker } from "./call";
import type { FilesApi, Written } from "./files-api";

export { Cancelled };
const quiet = (): void => {};
const make = (): Worker => new Worker(new URL("./files.worker.ts", import.meta.url), { type: "module" });
const here = async (): Promise<FilesApi> => (await import("./files-api")).filesApi;

/** @throws Error when the worker can't be started; Cancelled when the signal fired */
export const readWhole = async (
  bytes: Uint8Array,
  stage: (word: string) => void = quiet,
  signal?: AbortSignal,
): Promise<FileRead> =>
  typeof Worker === "undefined"
    ? (await here()).read(bytes, stage)
    : inWorker<FilesApi, FileRead>({
        make,
        does: "reads files",
        signal,
        run: (api, heard) => api.read(bytes, heard(stage)),
      });

/** @throws Error when the worker can't be started; Cancelled when the signal fired */
export const writeWhole = async (
  f: RichLayerFile,
  zip: boolean,
  stage: (word: string) => void = quiet,
  signal?: AbortSignal,
): Promise<Written> =>
  typeof Worker === "undefined"
    ? (await here()).write(f, zip, stage)
    : inWorker<FilesApi, Written>({
        make,
        does: "writes files",
        signal,
        run: (api, heard) => api.write(f, zip, heard(stage)),
      });

/** A CSV file looked at: a bench log or a Shelf, how many rows, and its text. @throws as {@link readWhole} does */
export const readRows = async (
  bytes: Uint8Array,
  jobs: readonly string[],
  stage: (word: string) => void = quiet,
  signal?: AbortSignal,
): Promise<ReturnType<FilesApi["csv"]>> =>
  typeof Worker === "undefined"
    ? (await here()).csv(bytes, jobs, stage)
    : inWorker<FilesApi, ReturnType<FilesApi["csv"]>>({
        make,
        does: "reads files",
        signal,
        run: (api, heard) => api.csv(bytes, jobs, heard(stage)),
      });
