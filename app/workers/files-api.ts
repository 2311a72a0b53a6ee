/** What the worker that reads and writes whole files does: unpacking, reading, checking, and the same back. */
import type { RichLayerFile } from "../core/records/file";
import type { Fault } from "../core/records/parse";
import { readLogCsv, readShelfCsv } from "../io/csv";
import { writeFile } from "../io/export/job-file";
import { readJobFile, type FileRead } from "../io/import/job-file";
import { readAnyFile, readZip, writeZip } from "../io/zip";

/** A shop as a file, and what reading it again comes to. */
export interface Written {
  content: string | Uint8Array<ArrayBuffer>;
  read: FileRead;
}

/** Rows of a CSV file, or what is wrong with it. */
export type Rows = { ok: true; of: "log" | "shelf"; rows: number } | { ok: false; faults: Fault[] };

/** Is a CSV a bench log, and not a Shelf? A log says which tap another takes back. */
const isLog = (text: string): boolean => /takes back/.test(text.slice(0, 2000));

export const filesApi = {
  /** @param jobs ids that a log may speak of */
  csv(bytes: Uint8Array, jobs: readonly string[], stage: (word: string) => void): Rows & { text: string } {
    stage("Reading the rows");
    const text = new TextDecoder().decode(bytes);
    const log = isLog(text);
    const read = log ? readLogCsv(text, new Set(jobs)) : readShelfCsv(text);
    return read.ok
      ? { ok: true, of: log ? "log" : "shelf", rows: read.rows.length, text }
      : { ok: false, faults: read.faults, text: "" };
  },
  /** @param bytes of a zip or of JSON @param stage told what is being done, in a word or two */
  async read(bytes: Uint8Array, stage: (word: string) => void): Promise<FileRead> {
    return readAnyFile(bytes, stage);
  },
  /** A spare copy that can't be read is none: what was made is read back. @param zip photos lie beside the records */
  async write(f: RichLayerFile, zip: boolean, stage: (word: string) => void): Promise<Written> {
    stage("Writing");
    if (zip) {
      const content = (await writeZip(f)) as Uint8Array<ArrayBuffer>;
      return { content, read: await readZip(content, stage) };
    }
    const content = writeFile(f);
    return { content, read: readJobFile(content, false, stage) };
  },
};
export type FilesApi = typeof filesApi;
