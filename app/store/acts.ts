/** Every write goes through here: validated, stored with its inverse, undone and redone to the beginning. */
import { nowMinutes } from "../clock";
import { Job } from "../core/records/job";
import { LogEntry, Photo } from "../core/records/log";
import { Machine } from "../core/records/machine";
import { check, must, sayFaults } from "../core/records/parse";
import { Product } from "../core/records/product";
import { Shop } from "../core/records/shop";
import type { Table } from "dexie";
import { db, TABLES, type Act, type TableName } from "./db";
import { headOf } from "./heads";
import { diff, patched, sameRecord, type Change } from "./diff";
import { overlap, touched } from "./touched";

const TYPES: Record<TableName, new () => object> = { shop: Shop, machines: Machine, products: Product, jobs: Job, log: LogEntry, photos: Photo };

/** Something about the input is wrong: said in words, nothing was stored. */
export class Refused extends Error {}

export interface Put {
  table: TableName;
  id: string;
  /** null deletes */
  next: object | null;
  /** the record as it was read, null where there was none: when the store holds another by now, nothing is stored */
  base?: object | null;
}

/** Another tab has stored something since this act read; nothing was stored, the act is to be done again. */
export class Stale extends Error {}

/** Another tab has changed the very thing this act changes, and whoever did it has not seen that yet. Nothing was stored. */
export class Conflict extends Refused {}

/** What one tab knows: the newest act its screens have read, and the acts it made itself. */
export interface Eyes {
  seen: number | null;
  own: Set<number>;
}
export const newEyes = (): Eyes => ({ seen: null, own: new Set() });
/** This tab's. */
const mine = newEyes();
/** Screens were read from a store whose newest act was this one. */
export const noteSeen = (seq: number, eyes: Eyes = mine): void => void (eyes.seen = seq);

/** @throws Conflict when an act that is not ours and was not seen touches what these changes touch */
async function refuseConflict(changes: Change[], eyes: Eyes): Promise<void> {
  if (eyes.seen === null) return;
  const places = changes.flatMap(touched);
  const unseen = (await db().history.where("seq").above(eyes.seen).toArray()).filter((a) => a.undone === 0 && !eyes.own.has(a.seq));
  const theirs = unseen.find((a) => overlap(a.changes.flatMap(touched), places));
  if (theirs) throw new Conflict(`Another tab has changed this meanwhile: ${theirs.label}. Yours was not stored; look at theirs, and do yours again if it still holds.`);
}

/** Times an act is done again before it gives up: far more than tabs that take turns ever need. */
const TURNS = 60;

/** Reads and stores until no other tab came in between. @throws Refused after many tries */
export async function settled<T>(body: () => Promise<T>): Promise<T> {
  for (let turn = 0; turn < TURNS; turn++) {
    try {
      return await body();
    } catch (e) {
      if (!(e instanceof Stale)) throw e;
    }
  }
  throw new Refused("Another tab keeps changing the same thing. Nothing was stored; try again.");
}

/**
 * Store records as one act that can be undone.
 * @throws Refused with every fault when a record is not sound; nothing is stored then
 */
export async function commit(label: string, puts: Put[], eyes: Eyes = mine): Promise<void> {
  const sound = puts.map((p) => {
    if (p.next === null) return p;
    const r = check(TYPES[p.table], p.next);
    if (!r.ok) throw new Refused(`${sayFaults(r.faults)}.`);
    return { ...p, next: r.value };
  });
  const d = db();
  await d.transaction("rw", written(), async () => {
    const changes: Change[] = [];
    for (const p of sound) {
      const before = (await d.table(p.table).get(p.id)) as object | undefined;
      if (p.base !== undefined && !sameRecord(before ?? null, p.base)) throw new Stale(`${p.table} ${p.id}`);
      if (before && p.next) {
        const patches = diff(before, p.next);
        if (!patches.length) continue;
        changes.push({ table: p.table, id: p.id, whole: null, patches });
      } else if (before || p.next) changes.push({ table: p.table, id: p.id, whole: { before: before ?? null, after: p.next }, patches: [] });
      await write(p.table, p.id, p.next);
    }
    if (!changes.length) return;
    await refuseConflict(changes, eyes);
    await d.history.where("undone").equals(1).delete();
    eyes.own.add((await d.history.add({ label, at: nowMinutes(), changes, undone: 0 } as Act)) as number);
  });
}

/** Change one record by a function of what is stored now, whoever else writes meanwhile. @throws Refused when it is gone */
export function change<T extends object>(label: string, table: TableName, id: string, recipe: (r: T) => T, eyes: Eyes = mine): Promise<void> {
  return settled(async () => {
    const now = (await db().table(table).get(id)) as T | undefined;
    if (!now) throw new Refused("This record is no longer there; it may have been deleted in another tab.");
    await commit(label, [{ table, id, next: recipe(now), base: now }], eyes);
  });
}

/** Everything that an act may write, the history and the heads with it. */
const written = (): Table[] => {
  const d = db();
  return [...TABLES.map((t) => d.table(t)), d.history, d.heads];
};

/** So many entries more, or fewer, in a job's log. */
const more = (jobId: string, n: number): PromiseLike<unknown> => db().heads.where("id").equals(jobId).modify((h) => void (h.entries += n));

/** One record written or taken away, its job's head with it. Inside a transaction over {@link written}. */
async function write(table: TableName, id: string, record: object | null): Promise<void> {
  const d = db();
  const was = table === "log" ? await d.log.get(id) : undefined;
  if (record) await d.table(table).put(record);
  else await d.table(table).delete(id);
  if (table === "jobs") {
    if (record) await d.heads.put(headOf(record as Job, (await d.heads.get(id))?.entries ?? (await d.log.where("jobId").equals(id).count())));
    else await d.heads.delete(id);
  }
  if (table === "log" && !was !== !record) await more(((record ?? was) as LogEntry).jobId, record ? 1 : -1);
}

async function lay(act: Act, to: "before" | "after"): Promise<void> {
  const d = db();
  const changes = to === "before" ? [...act.changes].reverse() : act.changes;
  for (const c of changes) {
    if (c.whole) {
      await write(c.table, c.id, c.whole[to] as object | null);
      continue;
    }
    const now = (await d.table(c.table).get(c.id)) as object | undefined;
    if (now) await write(c.table, c.id, patched(now, c.patches, to));
  }
}

/** Take back the newest act. @returns its label, or null when there is nothing */
export function undo(): Promise<string | null> {
  const d = db();
  return d.transaction("rw", written(), async () => {
    const act = await d.history.where("undone").equals(0).last();
    if (!act) return null;
    await lay(act, "before");
    await d.history.update(act.seq, { undone: 1 });
    return act.label;
  });
}

/** Do again what was last taken back. */
export function redo(): Promise<string | null> {
  const d = db();
  return d.transaction("rw", written(), async () => {
    const act = await d.history.where("undone").equals(1).first();
    if (!act) return null;
    await lay(act, "after");
    await d.history.update(act.seq, { undone: 0 });
    return act.label;
  });
}

/**
 * Taps at the bench, with what they took out of cans: stored at once, together and for good; one is taken back by a further
 * entry, not by undo.
 * @param seen entries of the job that the tap was decided by @throws Stale when another tab has tapped since
 */
export async function logTap(entries: LogEntry[], seen: number, used: { next: Product; base: Product }[] = []): Promise<void> {
  const sound = entries.map((e) => must(LogEntry, e));
  const products = used.map((u) => ({ ...u, next: must(Product, u.next) }));
  const d = db();
  await d.transaction("rw", d.log, d.products, d.heads, async () => {
    if ((await d.log.where("jobId").equals(entries[0].jobId).count()) !== seen) throw new Stale("log");
    for (const u of products) if (!sameRecord((await d.products.get(u.next.id)) ?? null, u.base)) throw new Stale(`products ${u.next.id}`);
    await d.log.bulkAdd(sound);
    await more(entries[0].jobId, sound.length);
    for (const u of products) await d.products.put(u.next);
  });
}

/** The whole shop was saved as a file. */
export const noteSaved = async (at: number): Promise<void> => void (await db().meta.put({ key: "lastSaved", value: at }));
