/**
 * The database: the only folder that knows Dexie. Version numbers of the database follow the record version; an older database
 * is brought up by the same migrations that older files go through. A new one is made at the newest shape.
 */
import Dexie, { type EntityTable, type Table, type Transaction } from "dexie";
import { type Job, JOB } from "../core/records/job";
import type { LogEntry, Photo } from "../core/records/log";
import type { Machine } from "../core/records/machine";
import type { Product } from "../core/records/product";
import { type Shop, SHOP } from "../core/records/shop";
import { broughtUp, type Raw, type RecordKind } from "../core/records/version";
import type { Change } from "./diff";
import { countByJob, headOf, type Head } from "./heads";
import { waiting } from "./trouble";

export { TABLES, type TableName } from "./diff";

/** One entry of the undo history: everything that one act changed. */
export interface Act {
  seq: number;
  label: string;
  /** minutes since 1970 */
  at: number;
  changes: Change[];
  undone: 0 | 1;
  /** the page that did it; absent: before pages were told apart */
  by?: string;
}

/** One fact about this browser's own copy. */
export interface Meta {
  key: "lastSaved";
  value: number;
}

/** Newest shape of the database that this code knows. */
export const DB_VERSION = 5;

export class RichLayerDb extends Dexie {
  shop!: EntityTable<Shop, "id">;
  machines!: EntityTable<Machine, "id">;
  products!: EntityTable<Product, "id">;
  jobs!: EntityTable<Job, "id">;
  log!: Table<LogEntry, string>;
  photos!: Table<Photo, string>;
  history!: EntityTable<Act, "seq">;
  meta!: Table<Meta, string>;
  heads!: EntityTable<Head, "id">;

  constructor(name = "rich-layer") {
    super(name, { chromeTransactionDurability: "strict" });
    // Record version 0, kept so that a database of that day can be opened.
    this.version(1).stores({
      shop: "id",
      machines: "id",
      products: "id",
      jobs: "id",
      log: "id, jobId",
      photos: "id, jobId",
    });
    this.version(2)
      .stores({ history: "++seq, undone" })
      .upgrade(async (tx) => {
        const every = async (table: string, kind: RecordKind): Promise<void> => {
          const all = (await tx.table(table).toArray()) as Raw[];
          await tx.table(table).bulkPut(all.map((r) => broughtUp(kind, r, 0)));
        };
        await every("shop", SHOP);
        await every("jobs", JOB);
      });
    // What belongs to this browser and goes into no file: when the shop was last saved as one.
    // A line a job for lists; the log by time, and by kind and time, so that a page of it can be read alone.
    this.version(3).stores({ meta: "key", heads: "id, open", log: "id, jobId, at, [kind+at]" });
    const linesAnew = async (tx: Transaction): Promise<void> => {
      const n = countByJob((await tx.table("log").orderBy("jobId").keys()) as string[]);
      await tx
        .table("heads")
        .bulkPut(((await tx.table("jobs").toArray()) as Job[]).map((j) => headOf(j, n.get(j.id) ?? 0)));
    };
    // The line a job has its piece drawn small.
    this.version(4).stores({}).upgrade(linesAnew);
    // … and its blanks.
    this.version(DB_VERSION).stores({}).upgrade(linesAnew);
  }
}

let open: RichLayerDb | null = null;
/** The app's database, opened on first use. */
export const db = (): RichLayerDb => (open ??= watched(new RichLayerDb()));

/** An upgrade that waits for another tab says so; a tab that another has overtaken lets go and says so. */
function watched(d: RichLayerDb): RichLayerDb {
  d.on("blocked", () => waiting.set("blocked"));
  d.on("ready", () => {
    waiting.set(null);
    // The library would go on with a store of a newer shape; we must not write into one.
    if (d.backendDB().version > DB_VERSION * 10) {
      d.close({ disableAutoOpen: true });
      throw new Dexie.VersionError("the store was written by a newer version");
    }
  });
  d.on("versionchange", () => {
    d.close({ disableAutoOpen: true });
    waiting.set("superseded");
  });
  return d;
}
/** Tests bring their own. */
export const useDb = (other: RichLayerDb): void => void (open = other);
