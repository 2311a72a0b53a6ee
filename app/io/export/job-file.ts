/** `*.richlayer.json` out: keys sorted, lists in a fixed order, no export time inside, so that equal shops make equal bytes. */
import { fileStamped, type RichLayerFile } from "../../core/records/file";
import type { Job } from "../../core/records/job";
import type { LogEntry, Photo } from "../../core/records/log";
import type { Machine } from "../../core/records/machine";
import type { Product } from "../../core/records/product";
import type { Shop } from "../../core/records/shop";
import { RECORD_VERSION } from "../../core/records/ids";

const sorted = (v: unknown): unknown =>
  Array.isArray(v)
    ? v.map(sorted)
    : v && typeof v === "object"
      ? Object.fromEntries(
          Object.keys(v)
            .sort()
            .map((k) => [k, sorted((v as Record<string, unknown>)[k])]),
        )
      : v;
const byId = <T extends { id: string }>(list: T[]): T[] =>
  [...list].sort((a, b) => (a.id < b.id ? -1 : a.id > b.id ? 1 : 0));

export function writeFile(file: RichLayerFile): string {
  const f = fileStamped(file);
  return `${JSON.stringify(
    sorted({
      ...f,
      machines: byId(f.machines),
      products: byId(f.products),
      jobs: byId(f.jobs),
      log: byId(f.log),
      photos: byId(f.photos),
    }),
    null,
    1,
  )}\n`;
}

export interface ShopRecords {
  shop: Shop;
  machines: Machine[];
  products: Product[];
  jobs: Job[];
  log: LogEntry[];
  photos: Photo[];
}

export const shopFile = (r: ShopRecords): RichLayerFile => ({ richlayer: RECORD_VERSION, kind: "shop", ...r });

/** One job with the whole Shelf and its machine: the plan may choose any product, so all are needed to plan it alike elsewhere. */
export const jobFile = (r: ShopRecords, jobId: string): RichLayerFile => ({
  richlayer: RECORD_VERSION,
  kind: "job",
  shop: r.shop,
  machines: r.machines,
  products: r.products,
  jobs: r.jobs.filter((j) => j.id === jobId),
  log: r.log.filter((e) => e.jobId === jobId),
  photos: r.photos.filter((p) => p.jobId === jobId),
});

/** A name that sorts and can be found again: client, title, date, and what it is. */
export const fileName = (title: string, date: string, ending: string): string =>
  `${
    title
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 60) || "rich-layer"
  }-${date}${ending}`;
