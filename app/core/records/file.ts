/** The `*.richlayer.json` file: one job with what its plan needs, or the whole shop. */
import { OneOf, Sub, SubList, Whole } from "./fields";
import { RECORD_VERSION } from "./ids";
import { Job, JOB } from "./job";
import { LOG_ENTRY, LogEntry, PHOTO, Photo } from "./log";
import { MACHINE, Machine } from "./machine";
import { PRODUCT, Product } from "./product";
import type { Fault } from "./parse";
import { SHOP, Shop } from "./shop";
import { broughtUp, type Raw, type RecordKind, stamped } from "./version";

export class RichLayerFile {
  @Whole(1, 1) richlayer: number = 1;
  @OneOf(["job", "shop"]) kind!: "job" | "shop";
  @Sub(() => Shop) shop!: Shop;
  @SubList(() => Machine, 200) machines!: Machine[];
  @SubList(() => Product, 2000) products!: Product[];
  @SubList(() => Job, 20000) jobs!: Job[];
  @SubList(() => LogEntry, 500000) log!: LogEntry[];
  @SubList(() => Photo, 5000) photos!: Photo[];
}

/** The kinds of record that a file holds, by the list that holds them. */
const LISTS = { machines: MACHINE, products: PRODUCT, jobs: JOB, log: LOG_ENTRY, photos: PHOTO } as const;
/** All kinds of record, for what looks at every one. */
export const RECORDS: readonly RecordKind[] = [SHOP, ...Object.values(LISTS)];

/**
 * A file's content with every record brought up to today's version; what is wrong with fields is left to the validators.
 * @returns the content and the faults that stop it: a newer Rich Layer wrote it, or its own version lacks what it needs
 */
export function fileBroughtUp(content: Raw): { content: Raw; faults: Fault[] } {
  const faults: Fault[] = [];
  const from = content.richlayer;
  if (!Number.isInteger(from) || (from as number) < 0)
    return { content, faults: [{ path: "richlayer", message: "must be the version number of the file" }] };
  if ((from as number) > RECORD_VERSION) {
    const message =
      `the file was written by a newer Rich Layer (version ${String(from)}; this one reads up to ${RECORD_VERSION}). ` +
      "Update this one and try again";
    return { content, faults: [{ path: "richlayer", message }] };
  }
  const up = (kind: RecordKind, v: unknown, at: string): unknown => {
    if (v === null || typeof v !== "object" || Array.isArray(v)) return v;
    try {
      return broughtUp(kind, v as Raw, from as number, (f) =>
        faults.push({ path: `${at}.${f}`, message: "is missing" }),
      );
    } catch (e) {
      faults.push({ path: at, message: (e as Error).message });
      return v;
    }
  };
  const now: Raw = { ...content, richlayer: RECORD_VERSION };
  if (now.shop !== undefined) now.shop = up(SHOP, now.shop, "shop");
  for (const [key, kind] of Object.entries(LISTS)) {
    const held = now[key];
    if (Array.isArray(held)) now[key] = held.map((r, i) => up(kind, r, `${key}[${i}]`));
  }
  return { content: now, faults };
}

/** A file as it is written: every record with the minor version that it needs. */
export const fileStamped = (f: RichLayerFile): RichLayerFile => ({
  ...f,
  shop: stamped(SHOP, f.shop),
  machines: f.machines.map((r) => stamped(MACHINE, r)),
  products: f.products.map((r) => stamped(PRODUCT, r)),
  jobs: f.jobs.map((r) => stamped(JOB, r)),
  log: f.log.map((r) => stamped(LOG_ENTRY, r)),
  photos: f.photos.map((r) => stamped(PHOTO, r)),
});
