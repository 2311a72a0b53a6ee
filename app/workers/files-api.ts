/** What the worker that reads and writes whole files does: unpacking, reading, checking, and the same back. */
import type { RichLayerFile } from "../core/records/file";
import type { LogEntry } from "../core/records/log";
import type { Product } from "../core/records/product";
import { readLogCsv, readShelfCsv, type CsvRead } from "../io/csv";
import { writeFile } from "../io/export/job-file";
import { readJobFile, type FileRead } from "../io/import/job-file";
import { readAnyFile, readZip, writeZip } from "../io/zip";

/** A shop as a file, and what reading it again comes to. */
export interface Written {
  content: string | Uint8Array<ArrayBuffer>;
  read: FileRead;
}

const textOf = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

export const filesApi = {
  /** A bench log as CSV. @param jobs ids that it may speak of */
  log(bytes: Uint8Array, jobs: readonly string[], stage: (word: string) => void): CsvRead<LogEntry> {
    stage("Reading the rows");
    return readLogCsv(textOf(bytes), new Set(jobs));
  },
  /** A Shelf as CSV. */
  shelf(bytes: Uint8Array, stage: (word: string) => void): CsvRead<Product> {
    stage("Reading the rows");
    return readShelfCsv(textOf(bytes));
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
