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
import { livingTabs, thisTab } from "./tabs";
import { overlap, touched } from "./touched";

const TYPES: Record<TableName, new () => object> = {
  shop: Shop,
  machines: Machine,
  products: Product,
  jobs: Job,
  log: LogEntry,
  photos: Photo,
};

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
  /** its id; null: asked for when it is first needed */
  tab: string | null;
}
export const newEyes = (tab: string | null = null): Eyes => ({ seen: null, own: new Set(), tab });
const tabOf = (eyes: Eyes): string => (eyes.tab ??= thisTab());
/** This tab's. */
const mine = newEyes();
/** Screens were read from a store whose newest act was this one. */
export const noteSeen = (seq: number, eyes: Eyes = mine): void => void (eyes.seen = seq);

/** @throws Conflict when an act that is not ours and was not seen touches what these changes touch */
async function refuseConflict(changes: Change[], eyes: Eyes): Promise<void> {
  if (eyes.seen === null) return;
  const places = changes.flatMap(touched);
  const unseen = (await db().history.where("seq").above(eyes.seen).toArray()).filter(
    (a) => a.undone === 0 && !eyes.own.has(a.seq),
  );
  const theirs = unseen.find((a) => overlap(a.changes.flatMap(touched), places));
  if (theirs)
    throw new Conflict(
      `Another tab has changed this meanwhile: ${theirs.label}. Yours was not stored; look at theirs, and ` +
        "do yours again if it still holds.",
    );
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
  const sound = await checked(puts);
  const d = db();
  const tab = tabOf(eyes);
  const living = await livingTabs(); // asked before the transaction, which ends when it is left waiting
  await d.transaction("rw", written(), async () => {
    const all = await withTheirs(sound);
    const stored = await storedOf(all);
    const changes: Change[] = [];
    for (const p of all) {
      const before = stored.now(p);
      if (p.base !== undefined && !sameRecord(before, p.base)) throw new Stale(`${p.table} ${p.id}`);
      if (before && p.next) {
        const patches = diff(before, p.next);
        if (!patches.length) continue;
        changes.push({ table: p.table, id: p.id, whole: null, patches });
      } else if (before || p.next)
        changes.push(light({ table: p.table, id: p.id, whole: { before, after: p.next }, patches: [] }, "after"));
      stored.put(p, p.next);
    }
    if (!changes.length) return;
    await refuseConflict(changes, eyes);
    await stored.write();
    // What this tab has taken back can't be done again now; what another has taken back is still its own to do again.
    await d.history
      .where("undone")
      .equals(1)
      .and((a) => ours(a, tab, living))
      .delete();
    eyes.own.add((await d.history.add({ label, at: nowMinutes(), changes, undone: 0, by: tab } as Act)) as number);
  });
}

/** A job that goes takes its log and photos along: all that there is of them by now, whoever has tapped meanwhile. */
async function withTheirs(puts: Put[]): Promise<Put[]> {
  const gone = puts.filter((p) => p.table === "jobs" && p.next === null);
  if (!gone.length) return puts;
  const named = new Set(puts.map(keyOf));
  const out = [...puts];
  for (const table of ["log", "photos"] as const)
    for (const job of gone)
      for (const id of (await db().table(table).where("jobId").equals(job.id).primaryKeys()) as string[])
        if (!named.has(keyOf({ table, id }))) out.push({ table, id, next: null });
  return out;
}

/** records checked between two breaths of the page */
const BREATH = 20;
/** @throws Refused with the faults of the first record that is not sound */
async function checked(puts: Put[]): Promise<Put[]> {
  const out: Put[] = [];
  for (const [i, p] of puts.entries()) {
    if (i % BREATH === BREATH - 1) await new Promise((on) => setTimeout(on));
    if (p.next === null) {
      out.push(p);
      continue;
    }
    const r = check(TYPES[p.table], p.next);
    if (!r.ok) throw new Refused(`${sayFaults(r.faults)}.`);
    out.push({ ...p, next: r.value });
  }
  return out;
}

/** Change one record by a function of what is stored now, whoever else writes meanwhile. @throws Refused when it is gone */
export function change<T extends object>(
  label: string,
  table: TableName,
  id: string,
  recipe: (r: T) => T,
  eyes: Eyes = mine,
): Promise<void> {
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
const more = (jobId: string, n: number): PromiseLike<unknown> =>
  db()
    .heads.where("id")
    .equals(jobId)
    .modify((h) => void (h.entries += n));

/** records that go over to the store at once: each is copied whole, and the page waits for it */
const LOT = 50;
const lots = <T>(all: T[]): T[][] =>
  Array.from({ length: Math.ceil(all.length / LOT) }, (_, i) => all.slice(i * LOT, (i + 1) * LOT));

type At = Pick<Put, "table" | "id">;
const keyOf = ({ table, id }: At): string => `${table}/${id}`;

/** Records as they lie in the store, read at once, changed here, and written at once, the heads of their jobs with them. */
class Stored {
  private readonly is = new Map<string, object | null>();
  private readonly to = new Map<string, At & { record: object | null }>();
  constructor(private readonly was: ReadonlyMap<string, object>) {}

  /** The record as it is by now; null: there is none. */
  now(at: At): object | null {
    const key = keyOf(at);
    return this.is.has(key) ? this.is.get(key)! : (this.was.get(key) ?? null);
  }
  put(at: At, record: object | null): void {
    this.is.set(keyOf(at), record);
    this.to.set(keyOf(at), { table: at.table, id: at.id, record });
  }

  /** Entries that a job's log gains or loses. */
  private gains(): Map<string, number> {
    const out = new Map<string, number>();
    for (const { table, id, record } of this.to.values()) {
      const was = table === "log" ? (this.was.get(keyOf({ table, id })) ?? null) : null;
      if (table !== "log" || !was === !record) continue;
      const { jobId } = (record ?? was) as LogEntry;
      out.set(jobId, (out.get(jobId) ?? 0) + (record ? 1 : -1));
    }
    return out;
  }

  async write(): Promise<void> {
    const d = db();
    const gains = this.gains();
    const jobs = [...this.to.values()].filter((x) => x.table === "jobs");
    const ids = [...new Set([...jobs.map((x) => x.id), ...gains.keys()])];
    const heads = await d.heads.bulkGet(ids);
    const known = new Map(ids.map((id, i) => [id, heads[i]]));
    // counted where no head says so; before anything is written
    const entries = new Map<string, number>();
    for (const { id, record } of jobs)
      if (record) entries.set(id, known.get(id)?.entries ?? (await d.log.where("jobId").equals(id).count()));
    for (const table of TABLES) {
      const mine = [...this.to.values()].filter((x) => x.table === table);
      const [put, gone] = [mine.filter((x) => x.record), mine.filter((x) => !x.record)];
      for (const some of lots(put)) await d.table(table).bulkPut(some.map((x) => x.record));
      if (gone.length) await d.table(table).bulkDelete(gone.map((x) => x.id));
    }
    const made = jobs.flatMap(({ id, record }) =>
      record ? [headOf(record as Job, entries.get(id)! + (gains.get(id) ?? 0), known.get(id))] : [],
    );
    const kept = [...gains].flatMap(([id, n]) => {
      const head = jobs.some((j) => j.id === id) ? undefined : known.get(id);
      return head ? [{ ...head, entries: head.entries + n }] : [];
    });
    if (made.length + kept.length) await d.heads.bulkPut([...made, ...kept]);
    const gone = jobs.filter((j) => !j.record);
    if (gone.length) await d.heads.bulkDelete(gone.map((j) => j.id));
  }
}
/** Inside a transaction over {@link written}. */
async function storedOf(all: readonly At[]): Promise<Stored> {
  const was = new Map<string, object>();
  for (const table of TABLES) {
    const ids = [...new Set(all.filter((x) => x.table === table).map((x) => x.id))];
    for (const some of lots(ids)) {
      const found = (await db().table(table).bulkGet(some)) as (object | undefined)[];
      found.forEach((r, i) => r && was.set(keyOf({ table, id: some[i] }), r));
    }
  }
  return new Stored(was);
}

/** A photo's bytes, left out where the store holds them anyway: the history keeps them only while the photo itself is gone. */
const bare = (record: unknown): unknown => ({ ...(record as Photo), data: "" });
/** A change without the photo bytes of the side that is in the store. */
const light = (c: Change, there: "before" | "after"): Change =>
  c.table === "photos" && c.whole?.[there] ? { ...c, whole: { ...c.whole, [there]: bare(c.whole[there]) } } : c;

/** Lays one side of an act on the store. @returns its changes as the history is to keep them from now on */
async function lay(act: Act, to: "before" | "after"): Promise<Change[]> {
  const from = to === "before" ? "after" : "before";
  const kept = new Map<Change, Change>();
  const stored = await storedOf(act.changes);
  for (const c of to === "before" ? [...act.changes].reverse() : act.changes) {
    const now = stored.now(c);
    if (c.whole) {
      // a photo that goes leaves its bytes here
      const back = c.table === "photos" && now && c.whole[from] ? { ...c, whole: { ...c.whole, [from]: now } } : c;
      stored.put(c, c.whole[to] as object | null);
      kept.set(c, light(back, to));
    } else if (now) stored.put(c, patched(now, c.patches, to) as object | null);
  }
  await stored.write();
  return act.changes.map((c) => kept.get(c) ?? c);
}

/** May this tab take an act back, or do it again: its own, or of a page that is open no more? */
const ours = (a: Act, tab: string, living: ReadonlySet<string>): boolean =>
  a.by === undefined || a.by === tab || !living.has(a.by);
/** Places as patches name them, lists by position: coarser than `touched`, since a patch is laid by position. */
const places = (a: Act): string[] =>
  a.changes.flatMap((c) =>
    c.whole ? [`${c.table}/${c.id}`] : c.patches.map((p) => [c.table, c.id, ...p.path].join("/")),
  );

/** The act that undo takes back, or redo does again, and what stands on top of it by now: another tab's, since one's own come first. */
async function nextAct(
  way: "undo" | "redo",
  tab: string,
  living: ReadonlySet<string>,
): Promise<{ act: Act; over: Act | null } | null> {
  const d = db();
  const list = d.history.where("undone").equals(way === "undo" ? 0 : 1);
  const act = await (way === "undo" ? list.reverse() : list).filter((a) => ours(a, tab, living)).first();
  if (!act) return null;
  const mine = places(act);
  const over = await d.history
    .where("seq")
    .above(act.seq)
    .filter((a) => a.undone === 0 && overlap(places(a), mine) !== null)
    .last();
  return { act, over: over ?? null };
}

/** @throws Refused when a job would go that has been worked on since: taps are no part of undo, and none is dropped in silence */
async function refuseWorkedOn(act: Act, way: "undo" | "redo"): Promise<void> {
  const to = way === "undo" ? "before" : "after";
  const goes = (c: Change): boolean => c.whole !== null && c.whole[to] === null;
  const entries = new Set(act.changes.filter((c) => c.table === "log" && goes(c)).map((c) => c.id));
  for (const c of act.changes.filter((x) => x.table === "jobs" && goes(x))) {
    const own = (await db().log.where("jobId").equals(c.id).primaryKeys()) as string[];
    const since = own.filter((id) => !entries.has(id)).length;
    if (since)
      throw new Refused(
        `“${act.label}” was not ${way === "undo" ? "taken back" : "done again"}: a job would go with it that has been ` +
          `worked on at the bench since (${since} ${since === 1 ? "entry" : "entries"}). Delete the job itself, which can be undone.`,
      );
  }
}

/** @throws Conflict when another open tab has since changed the same; Refused when a job would go that has been worked on since */
async function go(way: "undo" | "redo", eyes: Eyes): Promise<string | null> {
  const d = db();
  const living = await livingTabs();
  return d.transaction("rw", written(), async () => {
    const next = await nextAct(way, tabOf(eyes), living);
    if (!next) return null;
    const { act, over } = next;
    if (over)
      throw new Conflict(
        `“${act.label}” was not ${way === "undo" ? "taken back" : "done again"}: another open tab has changed ` +
          `the same since (${over.label}). Take that back there first.`,
      );
    await refuseWorkedOn(act, way);
    const changes = await lay(act, way === "undo" ? "before" : "after");
    await d.history.update(act.seq, { undone: way === "undo" ? 1 : 0, changes });
    return act.label;
  });
}

/** Take back the newest act of this tab, or of a page that is open no more. @returns its label, or null when there is nothing */
export const undo = (eyes: Eyes = mine): Promise<string | null> => go("undo", eyes);

/** Do again what this tab took back last. */
export const redo = (eyes: Eyes = mine): Promise<string | null> => go("redo", eyes);

/** What undo and redo would do from this tab, by name, for their buttons. */
export async function historyEnds(eyes: Eyes = mine): Promise<{ undo: string | null; redo: string | null }> {
  const living = await livingTabs();
  const [u, r] = await Promise.all((["undo", "redo"] as const).map((way) => nextAct(way, tabOf(eyes), living)));
  return { undo: u?.act.label ?? null, redo: r?.act.label ?? null };
}

export interface TapStores {
  /** cans as they are after it */
  used?: { next: Product; base: Product }[];
  /** the job with what is kept of it from now on */
  kept?: { next: Job; base: Job } | null;
}

/**
 * Taps at the bench, with what they took out of cans and what is kept with the job: stored at once, together and for good; one is
 * taken back by a further entry, not by undo.
 * @param seen entries of the job that the tap was decided by
 * @throws Stale when another tab has tapped since; Refused when the job is gone
 */
export async function logTap(
  entries: LogEntry[],
  seen: number,
  { used = [], kept = null }: TapStores = {},
): Promise<void> {
  const sound = entries.map((e) => must(LogEntry, e));
  const products = used.map((u) => ({ ...u, next: must(Product, u.next) }));
  const job = kept && { ...kept, next: must(Job, kept.next) };
  const d = db();
  await d.transaction("rw", d.log, d.products, d.heads, d.jobs, async () => {
    if ((await d.log.where("jobId").equals(entries[0].jobId).count()) !== seen) throw new Stale("log");
    if (!(await d.heads.where("id").equals(entries[0].jobId).count()))
      throw new Refused("This job is no longer there; it may have been deleted in another tab.");
    for (const u of products)
      if (!sameRecord((await d.products.get(u.next.id)) ?? null, u.base)) throw new Stale(`products ${u.next.id}`);
    if (job && !sameRecord((await d.jobs.get(job.next.id)) ?? null, job.base)) throw new Stale(`jobs ${job.next.id}`);
    await d.log.bulkAdd(sound);
    await more(entries[0].jobId, sound.length);
    for (const u of products) await d.products.put(u.next);
    if (job) {
      await d.jobs.put(job.next);
      // its line is told anew: what it is made of has begun, or is free again
      const line = await d.heads.get(job.next.id);
      await d.heads.put(headOf(job.next, line?.entries ?? 0, line));
    }
  });
}

/** The whole shop was saved as a file. */
export const noteSaved = async (at: number): Promise<void> =>
  void (await db().meta.put({ key: "lastSaved", value: at }));
