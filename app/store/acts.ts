/** Every write goes through here: validated, stored with its inverse, undone and redone to the beginning. */
import { nowMinutes } from "../clock";
import { Job } from "../core/records/job";
import { LogEntry, Photo } from "../core/records/log";
import { Machine } from "../core/records/machine";
import { check, must, sayFaults } from "../core/records/parse";
import { Product } from "../core/records/product";
import { Shop } from "../core/records/shop";
import { db, TABLES, type Act, type TableName } from "./db";
import { diff, patched, type Change } from "./diff";

const TYPES: Record<TableName, new () => object> = { shop: Shop, machines: Machine, products: Product, jobs: Job, log: LogEntry, photos: Photo };

export interface Put {
  table: TableName;
  id: string;
  /** null deletes */
  next: object | null;
}

/** Something about the input is wrong: said in words, nothing was stored. */
export class Refused extends Error {}

/**
 * Store records as one act that can be undone.
 * @throws Refused with every fault when a record is not sound; nothing is stored then
 */
export async function commit(label: string, puts: Put[]): Promise<void> {
  const sound = puts.map((p) => {
    if (p.next === null) return p;
    const r = check(TYPES[p.table], p.next);
    if (!r.ok) throw new Refused(`${sayFaults(r.faults)}.`);
    return { ...p, next: r.value };
  });
  const d = db();
  await d.transaction("rw", [...TABLES.map((t) => d.table(t)), d.history], async () => {
    const changes: Change[] = [];
    for (const p of sound) {
      const before = (await d.table(p.table).get(p.id)) as object | undefined;
      if (before && p.next) {
        const patches = diff(before, p.next);
        if (!patches.length) continue;
        changes.push({ table: p.table, id: p.id, whole: null, patches });
      } else if (before || p.next) changes.push({ table: p.table, id: p.id, whole: { before: before ?? null, after: p.next }, patches: [] });
      if (p.next) await d.table(p.table).put(p.next);
      else await d.table(p.table).delete(p.id);
    }
    if (!changes.length) return;
    await d.history.where("undone").equals(1).delete();
    await d.history.add({ label, at: nowMinutes(), changes, undone: 0 } as Act);
  });
}

/** Change one record by a function. @throws Refused when it is gone */
export async function change<T extends object>(label: string, table: TableName, id: string, recipe: (r: T) => T): Promise<void> {
  const now = (await db().table(table).get(id)) as T | undefined;
  if (!now) throw new Refused("This record is no longer there; it may have been deleted in another tab.");
  await commit(label, [{ table, id, next: recipe(now) }]);
}

async function lay(act: Act, to: "before" | "after"): Promise<void> {
  const d = db();
  const changes = to === "before" ? [...act.changes].reverse() : act.changes;
  for (const c of changes) {
    if (c.whole) {
      const r = c.whole[to] as object | null;
      if (r) await d.table(c.table).put(r);
      else await d.table(c.table).delete(c.id);
      continue;
    }
    const now = (await d.table(c.table).get(c.id)) as object | undefined;
    if (now) await d.table(c.table).put(patched(now, c.patches, to));
  }
}

/** Take back the newest act. @returns its label, or null when there is nothing */
export async function undo(): Promise<string | null> {
  const d = db();
  return d.transaction("rw", [...TABLES.map((t) => d.table(t)), d.history], async () => {
    const act = await d.history.where("undone").equals(0).last();
    if (!act) return null;
    await lay(act, "before");
    await d.history.update(act.seq, { undone: 1 });
    return act.label;
  });
}

/** Do again what was last taken back. */
export async function redo(): Promise<string | null> {
  const d = db();
  return d.transaction("rw", [...TABLES.map((t) => d.table(t)), d.history], async () => {
    const act = await d.history.where("undone").equals(1).first();
    if (!act) return null;
    await lay(act, "after");
    await d.history.update(act.seq, { undone: 0 });
    return act.label;
  });
}

/** A tap at the bench: stored at once and for good; it is taken back by a further entry, not by undo. */
export async function logTap(entry: LogEntry): Promise<void> {
  const sound = must(LogEntry, entry);
  await db().log.put(sound);
}
