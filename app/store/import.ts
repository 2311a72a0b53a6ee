/** Files laid into the store as one act that can be undone: merged record by record, or in place of everything. */
import type { RichLayerFile } from "../core/records/file";
import { commit, Refused, type Put } from "./acts";
import { db, TABLES, type TableName } from "./db";
import { sameRecord } from "./diff";

export type ImportMode = "merge" | "replace";

/** Ids of jobs in a file that are already here. */
export async function clashes(f: RichLayerFile): Promise<string[]> {
  const have = new Set(await db().jobs.toCollection().primaryKeys());
  return f.jobs.filter((j) => have.has(j.id)).map((j) => j.title);
}

export interface ImportPreview {
  /** records by kind: new here, in place of one of the same id, already here and alike, and (replace only) taken away */
  rows: { table: TableName; fresh: number; replaced: number; same: number; gone: number }[];
  /** titles of jobs that the file's would take the place of */
  clash: string[];
}

/** What taking a file in would do, before it is done. */
export async function previewImport(f: RichLayerFile, mode: ImportMode): Promise<ImportPreview> {
  const fresh: Record<TableName, { id: string }[]> = {
    shop: [f.shop],
    machines: f.machines,
    products: f.products,
    jobs: f.jobs,
    log: f.log,
    photos: f.photos,
  };
  const rows: ImportPreview["rows"] = [];
  const hasShop = (await db().shop.count()) > 0;
  for (const table of TABLES) {
    const have = new Map(((await db().table(table).toArray()) as { id: string }[]).map((r) => [r.id, r]));
    const row = { table, fresh: 0, replaced: 0, same: 0, gone: 0 };
    if (!(table === "shop" && mode === "merge" && hasShop))
      for (const r of fresh[table]) {
        const old = have.get(r.id);
        if (!old) row.fresh++;
        else if (sameRecord(old, r)) row.same++;
        else row.replaced++;
      }
    if (mode === "replace") row.gone = [...have.keys()].filter((id) => !fresh[table].some((r) => r.id === id)).length;
    rows.push(row);
  }
  return { rows, clash: await clashes(f) };
}

export async function importFile(f: RichLayerFile, mode: ImportMode): Promise<void> {
  const puts: Put[] = [];
  const fresh = {
    shop: [f.shop],
    machines: f.machines,
    products: f.products,
    jobs: f.jobs,
    log: f.log,
    photos: f.photos,
  };
  if (mode === "replace" && f.kind === "job")
    throw new Refused("A file of one job cannot take the place of the whole shop; choose merge.");
  if (mode === "replace")
    for (const t of TABLES)
      for (const id of (await db().table(t).toCollection().primaryKeys()) as string[])
        if (!fresh[t].some((r) => r.id === id)) puts.push({ table: t, id, next: null });
  const hasShop = (await db().shop.count()) > 0;
  for (const t of TABLES)
    for (const r of fresh[t])
      if (!(t === "shop" && mode === "merge" && hasShop)) puts.push({ table: t, id: r.id, next: r });
  await commit(
    mode === "replace"
      ? "restore of a whole shop"
      : `import of ${f.kind === "job" ? `“${f.jobs[0].title}”` : "a shop"}`,
    puts,
  );
}

/** Delete a job with its log and photos. */
export async function deleteJob(id: string): Promise<void> {
  const job = await db().jobs.get(id);
  if (!job) return;
  await commit(`deletion of “${job.title}”`, [{ table: "jobs", id, next: null }]);
}
