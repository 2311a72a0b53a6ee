/** Reads, as loaders want them. */
import type { World } from "../core/records/world";
import type { Job } from "../core/records/job";
import type { LogEntry, Photo } from "../core/records/log";
import type { Machine } from "../core/records/machine";
import type { Product } from "../core/records/product";
import type { Shop } from "../core/records/shop";
import { liveQuery } from "dexie";
import { noteSeen, type Eyes } from "./acts";
import { db } from "./db";

export interface ShopData {
  shop: Shop;
  machines: Machine[];
  products: Product[];
}

/** Null until a shop has been opened or begun. */
export async function readShop(): Promise<ShopData | null> {
  const [shop, machines, products] = await Promise.all([db().shop.get("shop"), db().machines.toArray(), db().products.toArray()]);
  return shop ? { shop, machines, products } : null;
}

export const sortLog = (log: LogEntry[]): LogEntry[] => log.sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));

/** What a screen shows is at least as new as the newest act stored before it was read: asked first by the loaders that frame every page. */
export async function noteRead(eyes?: Eyes): Promise<void> {
  noteSeen(((await db().history.orderBy("seq").lastKey()) as number | undefined) ?? 0, eyes);
}

export async function readWorld(jobId: string): Promise<World | null> {
  const [base, job, log] = await Promise.all([readShop(), db().jobs.get(jobId), db().log.where("jobId").equals(jobId).toArray()]);
  return base && job ? { ...base, job, log: sortLog(log) } : null;
}

export async function readWorlds(): Promise<World[]> {
  const [base, jobs, log] = await Promise.all([readShop(), db().jobs.toArray(), db().log.toArray()]);
  if (!base) return [];
  const byJob = new Map<string, LogEntry[]>();
  for (const e of sortLog(log)) (byJob.get(e.jobId) ?? byJob.set(e.jobId, []).get(e.jobId)!).push(e);
  return jobs.map((job) => ({ ...base, job, log: byJob.get(job.id) ?? [] }));
}

/** Worlds of the jobs that are under way, begun at the bench and not wrapped up, but for one. */
export async function readRunning(but: string | null): Promise<World[]> {
  const [base, jobs] = await Promise.all([readShop(), db().jobs.toArray()]);
  if (!base) return [];
  const open = jobs.filter((j) => j.wrapUp.closedAt === null && j.id !== but);
  const logs = await Promise.all(open.map((j) => db().log.where("jobId").equals(j.id).toArray()));
  return open.map((job, i) => ({ ...base, job, log: sortLog(logs[i]) })).filter((w) => w.log.length > 0);
}

export const readJobs = (): Promise<Job[]> => db().jobs.toArray();
export const readLog = async (): Promise<LogEntry[]> => sortLog(await db().log.toArray());
export const readPhotos = (jobId: string): Promise<Photo[]> => db().photos.where("jobId").equals(jobId).toArray();

export async function readAll(): Promise<{ shop: Shop; machines: Machine[]; products: Product[]; jobs: Job[]; log: LogEntry[]; photos: Photo[] } | null> {
  const base = await readShop();
  if (!base) return null;
  return { ...base, jobs: await db().jobs.toArray(), log: await db().log.toArray(), photos: await db().photos.toArray() };
}

/** What undo and redo would do, for their buttons. */
export async function historyEnds(): Promise<{ undo: string | null; redo: string | null }> {
  const d = db();
  const [u, r] = await Promise.all([d.history.where("undone").equals(0).last(), d.history.where("undone").equals(1).first()]);
  return { undo: u?.label ?? null, redo: r?.label ?? null };
}

/** Calls back when any tab has stored something; used only to run loaders again. */
export function watch(changed: () => void): () => void {
  let first = true;
  const sub = liveQuery(async () => [await db().history.orderBy("seq").lastKey(), await db().history.where("undone").equals(1).count(), await db().log.count()]).subscribe({
    next: () => {
      if (!first) changed();
      first = false;
    },
    error: () => {},
  });
  return () => sub.unsubscribe();
}

/** When the whole shop was last saved as a file from this browser, ms since 1970; null: never. */
export const readLastSaved = async (): Promise<number | null> => (await db().meta.get("lastSaved"))?.value ?? null;
