/** Reads, as loaders want them. */
import { worldAround, type ShopFacts, type World } from "../core/records/world";
import type { Job } from "../core/records/job";
import type { LogEntry, Photo } from "../core/records/log";
import { PICTURE_IDS } from "../core/records/log";
import type { Machine } from "../core/records/machine";
import type { Product } from "../core/records/product";
import type { Shop } from "../core/records/shop";
import Dexie, { liveQuery } from "dexie";
import { noteSeen, type Eyes } from "./acts";
import { db } from "./db";
import { sortLog } from "./sort";
import type { Head } from "./heads";

/** Null until a shop has been opened or begun. */
export async function readShop(): Promise<ShopFacts | null> {
  const [shop, machines, products] = await Promise.all([
    db().shop.get("shop"),
    db().machines.toArray(),
    db().products.toArray(),
  ]);
  return shop ? { shop, machines, products } : null;
}

/** What tells that something was stored: the newest act, acts undone, the newest entry of the log. */
const newest = async (): Promise<unknown[]> => [
  await db().history.orderBy("seq").lastKey(),
  await db().history.where("undone").equals(1).count(),
  await db().log.orderBy("at").lastKey(),
  await db().log.orderBy("id").lastKey(),
];
/** as it was when the loaders began to read */
let read: string | null = null;

/** What a screen shows is at least as new as the newest act stored before it was read: asked first by the loaders that frame every page. */
export async function noteRead(eyes?: Eyes): Promise<void> {
  read = (await newest()).join();
  noteSeen(((await db().history.orderBy("seq").lastKey()) as number | undefined) ?? 0, eyes);
}

/** What puts the draws of other open jobs into a world. Planning is loaded when it is first asked for: the first view does without. */
async function stocked(base: ShopFacts): Promise<(w: World) => World> {
  const { readDraws, withDraws } = await import("./draws");
  const draws = await readDraws(base);
  return (w) => withDraws(w, draws);
}

/** @param stock with what other open jobs will take; a tap at the bench does not ask */
export async function readWorld(jobId: string, stock = true): Promise<World | null> {
  const [base, job, log] = await Promise.all([
    readShop(),
    db().jobs.get(jobId),
    db().log.where("jobId").equals(jobId).toArray(),
  ]);
  if (!base || !job) return null;
  const world = worldAround(base, job, sortLog(log));
  return stock ? (await stocked(base))(world) : world;
}

/** Worlds of these jobs, in this order; those that are gone are left out. @param stock with what other open jobs will take */
export async function readWorldsOf(ids: string[], stock = true): Promise<World[]> {
  const [base, jobs] = await Promise.all([readShop(), db().jobs.bulkGet(ids)]);
  if (!base) return [];
  const there = jobs.filter((j) => j !== undefined);
  // One question a job: each is answered in one stroke, where asking for any of many goes entry by entry.
  const logs = await Promise.all(there.map((j) => db().log.where("jobId").equals(j.id).toArray()));
  const withStock = stock ? await stocked(base) : (w: World) => w;
  return there.map((job, i) => withStock(worldAround(base, job, sortLog(logs[i]))));
}

export const readHeads = (): Promise<Head[]> => db().heads.toArray();

/**
 * Lines of the jobs that are of the day: under way first, then what is due soonest; and how many open ones are left out. The stamp is
 * another one whenever anything that a plan may read has been stored since; the newest act stored has this number.
 */
export async function readDay(most: number): Promise<{ heads: Head[]; more: number; stamp: string; newest: number }> {
  const [newest, undone] = await Promise.all([
    db().history.orderBy("seq").lastKey(),
    db().history.where("undone").equals(1).count(),
  ]);
  const open = await db().heads.where("open").equals(1).toArray();
  open.sort(
    (a, b) =>
      Number(b.entries > 0) - Number(a.entries > 0) ||
      (a.due ?? "9").localeCompare(b.due ?? "9") ||
      a.title.localeCompare(b.title),
  );
  return {
    heads: open.slice(0, most),
    more: Math.max(0, open.length - most),
    newest: (newest as number | undefined) ?? 0,
    stamp: JSON.stringify([newest, undone, open.map((h) => ({ ...h, thumb: null }))]),
  };
}

/** Lines of the jobs that are under way, begun at the bench and not wrapped up, but for one. */
export async function readRunningHeads(but: string | null): Promise<Head[]> {
  const heads = await db().heads.where("open").equals(1).toArray();
  return heads.filter((h) => h.entries > 0 && h.id !== but);
}
/** Their worlds. */
export const readRunning = async (but: string | null): Promise<World[]> =>
  readWorldsOf(
    (await readRunningHeads(but)).map((h) => h.id),
    false,
  );

export interface LogPage {
  entries: LogEntry[];
  total: number;
}
/**
 * A page of the log, newest first; of one job, and of one piece of it, when they are named.
 * @param known the heads, where they are being read already
 */
export async function readLogPage(
  jobId: string,
  piece: number | null,
  page: number,
  size: number,
  known?: Promise<Head[]>,
): Promise<LogPage> {
  const d = db();
  if (!jobId && piece === null) {
    const [entries, heads] = await Promise.all([
      d.log
        .orderBy("at")
        .reverse()
        .offset((page - 1) * size)
        .limit(size)
        .toArray(),
      known ?? d.heads.toArray(),
    ]);
    return { entries, total: heads.reduce((n, h) => n + h.entries, 0) };
  }
  const rows = (
    jobId
      ? await d.log.where("jobId").equals(jobId).toArray()
      : await d.log
          .orderBy("at")
          .filter((e) => e.piece === null || e.piece === piece)
          .toArray()
  ).filter((e) => piece === null || e.piece === null || e.piece === piece);
  const sorted = sortLog(rows).reverse();
  return { entries: sorted.slice((page - 1) * size, page * size), total: sorted.length };
}

/** The newest finished steps, so many at most, without those that were taken back. */
export async function readDone(most: number): Promise<LogEntry[]> {
  const done = await db()
    .log.where("[kind+at]")
    .between(["done", Dexie.minKey], ["done", Dexie.maxKey])
    .reverse()
    .limit(most)
    .toArray();
  const gone = await readTakenBack(done);
  return done.filter((e) => !gone.has(e.id));
}

/** Finished steps since a minute that used a product, without those that were taken back. */
export async function readUse(productId: string, since: number): Promise<LogEntry[]> {
  const done = await db()
    .log.where("[kind+at]")
    .between(["done", since], ["done", Dexie.maxKey])
    .filter((e) => e.productId === productId && e.ml !== null)
    .toArray();
  const gone = await readTakenBack(done);
  return done.filter((e) => !gone.has(e.id));
}

/** Ids that were taken back, among these. */
export async function readTakenBack(entries: LogEntry[]): Promise<Set<string>> {
  if (!entries.length) return new Set();
  const ids = new Set(entries.map((e) => e.id));
  const d = db();
  // Few are ever taken back: all of them since the oldest of these, rather than a question an entry.
  const oldest = entries.reduce((m, e) => Math.min(m, e.at), Infinity);
  const back = await d.log.where("[kind+at]").between(["back", oldest], ["back", Dexie.maxKey]).toArray();
  return new Set(back.flatMap((e) => (e.of !== null && ids.has(e.of) ? [e.of] : [])));
}

/** Photos of a job’s stages; the originals of its picture stand among them and are none. */
export const readPhotos = async (jobId: string): Promise<Photo[]> =>
  (await db().photos.where("jobId").equals(jobId).toArray()).filter((p) => !p.id.startsWith(PICTURE_IDS));
export const readPhoto = (id: string): Promise<Photo | undefined> => db().photos.get(id);

export async function readAll(): Promise<{
  shop: Shop;
  machines: Machine[];
  products: Product[];
  jobs: Job[];
  log: LogEntry[];
  photos: Photo[];
} | null> {
  const base = await readShop();
  if (!base) return null;
  return {
    ...base,
    jobs: await db().jobs.toArray(),
    log: await db().log.toArray(),
    photos: await db().photos.toArray(),
  };
}

/** Every job of the shop with its records, for what looks over all of them. */
export const readJobs = (): Promise<Job[]> => db().jobs.toArray();

/**
 * Calls back when any tab has stored something; used only to run loaders again.
 * @param failed called once when that can no longer be heard
 */
export function watch(changed: () => void, failed: (e: unknown) => void): () => void {
  let first = true;
  const sub = liveQuery(newest).subscribe({
    next: (now) => {
      // what was stored between the loaders' reading and this is not missed
      if (!first || (read !== null && now.join() !== read)) changed();
      first = false;
    },
    error: failed,
  });
  return () => sub.unsubscribe();
}

/** When the whole shop was last saved as a file from this browser, ms since 1970; null: never. */
export const readLastSaved = async (): Promise<number | null> => (await db().meta.get("lastSaved"))?.value ?? null;
