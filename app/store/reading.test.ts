/** What is read, told before it is done, heard and told apart: each answer against one reckoned by hand from the records themselves. */
import Dexie from "dexie";
import { LogEntry } from "../core/records/log";
import type { RichLayerFile } from "../core/records/file";
import { e1, many, shop } from "../core/testing/worlds";
import { shopFile } from "../io/export/job-file";
import { randomShop } from "../testing/random-shop";
import { change, commit, historyEnds, logTap, newEyes, noteSaved, redo, undo, type Put } from "./acts";
import { db, DB_VERSION, RichLayerDb, TABLES, useDb } from "./db";
import { diff, patched, sameRecord } from "./diff";
import { deleteJob, importFile, previewImport } from "./import";
import {
  noteRead,
  readDone,
  readLastSaved,
  readLogPage,
  readPhotos,
  readRunning,
  readTakenBack,
  readWorldsOf,
  watch,
  readUse,
} from "./queries";
import { sortLog } from "./sort";
import { livingTabs } from "./tabs";
import { overlap, touched } from "./touched";
import { rawExport, troubleOf, waiting } from "./trouble";

let n = 0;
const job = (id: string, more: object = {}): Put => ({
  table: "jobs",
  id,
  next: { ...e1().job, id, title: `Title of ${id}`, ...more },
});
beforeEach(async () => {
  useDb(new RichLayerDb(`reading-${n++}`));
  await commit("beginning", [{ table: "shop", id: "shop", next: shop() }, job("a"), job("b"), job("c")]);
});
afterEach(() => db().close());

const entry = (id: string, more: Partial<LogEntry>): LogEntry =>
  Object.assign(new LogEntry(), { id, jobId: "a", kind: "done", step: "engrave", at: 100, ...more });
/** Taps in this order, each decided by what was there. */
async function tap(...entries: LogEntry[]): Promise<void> {
  for (const e of entries) await logTap([e], await db().log.where("jobId").equals(e.jobId).count());
}
const ids = (list: { id: string }[]): string => list.map((x) => x.id).join(" ");

describe("a file is told before it is taken in", () => {
  const everything = async (): Promise<Map<string, Map<string, object>>> => {
    const out = new Map<string, Map<string, object>>();
    for (const t of TABLES)
      out.set(t, new Map(((await db().table(t).toArray()) as { id: string }[]).map((r) => [r.id, r])));
    return out;
  };
  test.each(["merge", "replace"] as const)("%s: told is what then happens, over shops of chance", async (mode) => {
    const met = { fresh: 0, replaced: 0, same: 0, gone: 0 };
    for (let seed = 1; seed <= many(24); seed++) {
      useDb(new RichLayerDb(`told-${mode}-${n++}`));
      const [own, other] = [shopFile(randomShop(seed)), shopFile(randomShop(seed + 1000))];
      // some of what comes in is here already, just as it is
      const file: RichLayerFile = {
        ...other,
        products: [...other.products.slice(1), ...own.products.filter((p, i) => i % 2 && p.id !== "none")].filter(
          (p, i, all) => all.findIndex((x) => x.id === p.id) === i,
        ),
        shop: seed % 3 ? other.shop : own.shop,
      };
      if (seed % 4) await importFile(own, "merge");
      const before = await everything();
      const told = await previewImport(file, mode);
      await importFile(file, mode);
      const after = await everything();
      for (const row of told.rows) {
        const [was, is] = [before.get(row.table)!, after.get(row.table)!];
        const brought = new Map(
          (row.table === "shop" ? [file.shop] : (file[row.table] as { id: string }[])).map((r) => [r.id, r]),
        );
        const counted = { fresh: 0, replaced: 0, same: 0, gone: 0 };
        for (const id of is.keys()) if (!was.has(id)) counted.fresh++;
        for (const [id, r] of was)
          if (!is.has(id)) counted.gone++;
          else if (JSON.stringify(r) !== JSON.stringify(is.get(id))) counted.replaced++;
          else if (brought.has(id) && !(row.table === "shop" && mode === "merge")) counted.same++;
        expect([seed, row]).toEqual([seed, { table: row.table, ...counted }]);
        for (const k of Object.keys(met) as (keyof typeof met)[]) met[k] += counted[k];
      }
      expect(told.clash).toEqual(file.jobs.filter((j) => before.get("jobs")!.has(j.id)).map((j) => j.title));
    }
    expect(met.fresh && met.replaced && met.same).toBeTruthy();
    expect(met.gone > 0).toBe(mode === "replace");
  });
  test("a job is deleted with its own log and photos, and no other's", async () => {
    await tap(entry("x", {}), entry("y", { jobId: "b" }));
    const photo = (id: string, jobId: string): Put => ({
      table: "photos",
      id,
      next: { version: 1, id, jobId, at: 1, caption: "", data: "" },
    });
    await commit("photos", [photo("p", "a"), photo("q", "b")]);
    expect(ids(await readPhotos("a"))).toBe("p");
    await deleteJob("a");
    expect([ids(await db().log.toArray()), ids(await db().photos.toArray())]).toEqual(["y", "q"]);
    expect((await historyEnds()).undo).toBe("deletion of “Title of a”");
  });
});

describe("the log", () => {
  test("is read by time, and at one time by id", () => {
    const list = [entry("b", { at: 5 }), entry("c", { at: 4 }), entry("a", { at: 5 }), entry("d", { at: 6 })];
    expect(ids(sortLog(list))).toBe("c a b d");
    expect(ids(sortLog([...list].reverse()))).toBe("c a b d");
  });
  test("finished steps: the newest, so many, without those that were taken back", async () => {
    await tap(
      entry("d1", { at: 10 }),
      entry("s1", { at: 11, kind: "start" }),
      entry("d2", { at: 20, step: "mask" }),
      entry("d3", { at: 30, jobId: "b" }),
      entry("x2", { at: 40, kind: "back", of: "d2" }),
      entry("x1", { at: 40, kind: "back", of: "s1" }),
      entry("n", { at: 41, kind: "back", of: null }),
    );
    expect(ids(await readDone(9))).toBe("d3 d1");
    expect(ids(await readDone(2))).toBe("d3");
    expect(ids(await readDone(1))).toBe("d3");
    const of = async (list: LogEntry[]): Promise<string[]> => [...(await readTakenBack(list))];
    const all = await db().log.toArray();
    expect(await of(all.filter((e) => e.id === "d2" || e.id === "d3"))).toEqual(["d2"]);
    expect(await of(all.filter((e) => e.id === "d1"))).toEqual([]);
    expect(await of([])).toEqual([]);
  });
  test("of one piece: what was done to it and what was done to all; of one job, its own", async () => {
    await tap(
      entry("all", { at: 1 }),
      entry("one", { at: 2, piece: 1, kind: "piece" }),
      entry("two", { at: 3, piece: 2, kind: "piece" }),
      entry("other", { at: 4, piece: 1, kind: "piece", jobId: "b" }),
    );
    const page = async (job: string, piece: number | null, at = 1, size = 9): Promise<string> => {
      const p = await readLogPage(job, piece, at, size);
      return `${ids(p.entries)} of ${p.total}`;
    };
    expect(await page("a", null)).toBe("two one all of 3");
    expect(await page("a", 1)).toBe("one all of 2");
    expect(await page("a", 2)).toBe("two all of 2");
    expect(await page("", 1)).toBe("other one all of 3");
    expect(await page("", null)).toBe("other two one all of 4");
    expect(await page("", null, 2, 3)).toBe("all of 4");
    expect(await page("a", null, 2, 2)).toBe("all of 3");
    expect(await page("nobody", null)).toBe(" of 0");
  });
  test("jobs under way are those with a log and not wrapped up, but for the one that asks", async () => {
    await commit("closed", [job("c", { wrapUp: { ...e1().job.wrapUp, closedAt: "2027-01-12T10:00" } })]);
    await tap(entry("x", {}), entry("y", { jobId: "b" }), entry("z", { jobId: "c" }));
    const running = async (but: string | null): Promise<string> =>
      (await readRunning(but))
        .map((w) => w.job.id)
        .sort()
        .join(" ");
    expect(await running(null)).toBe("a b");
    expect(await running("a")).toBe("b");
  });
  test("worlds come in the order asked for, each with its own log by time, without those that are gone", async () => {
    await tap(entry("late", { at: 9, jobId: "b" }), entry("soon", { at: 2, jobId: "b" }), entry("x", {}));
    const worlds = await readWorldsOf(["b", "gone", "a"], false);
    expect(worlds.map((w) => `${w.job.id}: ${ids(w.log)}`)).toEqual(["b: soon late", "a: x"]);
  });
  test("what was used of a product: from that minute on, amounts that are known, without what was taken back", async () => {
    const beet = { productId: "beet", ml: 1 };
    await tap(
      entry("u1", { at: 99, ...beet }),
      entry("u2", { at: 100, ...beet }),
      entry("u3", { at: 120, ...beet }),
      entry("u4", { at: 130, productId: "kale", ml: 1 }),
      entry("u5", { at: 140, productId: "beet", ml: null }),
      entry("u6", { at: 150, kind: "back", of: "u3" }),
    );
    expect((await readUse("beet", 100)).map((e) => e.id)).toEqual(["u2"]);
  });
  test("when the shop was saved is kept, and not known before", async () => {
    expect(await readLastSaved()).toBeNull();
    await noteSaved(123456);
    expect(await readLastSaved()).toBe(123456);
  });
});

describe("what is stored elsewhere is heard", () => {
  const settle = () => new Promise((on) => setTimeout(on, 40));
  test("each act and each tap once, undo and redo too; nothing once it is no longer asked for", async () => {
    await noteRead(newEyes());
    let told = 0;
    const stop = watch(
      () => void told++,
      (e) => {
        throw e;
      },
    );
    await settle();
    expect(told).toBe(0);
    /** How often it was told of an act: waited for as long as a busy machine needs, and then a moment for one too many. */
    const after = async (act: () => Promise<unknown>, wanted: number): Promise<number> => {
      const was = told;
      await act();
      for (let n = 0; n < 250 && told - was < wanted; n++) await settle();
      await settle();
      return told - was;
    };
    const retitled = () => change("title", "jobs", "a", (j) => ({ ...j, title: "Other" }));
    expect(await after(retitled, 1)).toBe(1);
    expect(await after(undo, 1)).toBe(1);
    expect(await after(redo, 1)).toBe(1);
    expect(await after(() => tap(entry("t", {})), 1)).toBe(1);
    expect(await after(() => noteSaved(1), 0)).toBe(0);
    stop();
    expect(await after(() => tap(entry("u", { at: 200 })), 0)).toBe(0);
  });
  test("pages that are open are known by their locks; where a browser has none or won’t tell, none is", async () => {
    const had = Object.getOwnPropertyDescriptor(globalThis, "navigator");
    const living = async (locks: unknown): Promise<string[]> => {
      Object.defineProperty(globalThis, "navigator", { value: locks && { locks }, configurable: true });
      return [...(await livingTabs())];
    };
    const held = ["richlayer.tab.1-2", "other.richlayer.tab.3", undefined, "richlayer.tab.4"].map((name) => ({ name }));
    expect(await living({ query: async () => ({ held }) })).toEqual(["1-2", "4"]);
    expect(await living({ query: async () => ({}) })).toEqual([]);
    expect(await living({ query: async () => undefined })).toEqual([]);
    expect(await living({ query: () => Promise.reject(new Error("not allowed")) })).toEqual([]);
    expect(await living(undefined)).toEqual([]);
    if (had) Object.defineProperty(globalThis, "navigator", had);
    else delete (globalThis as { navigator?: unknown }).navigator;
  });
  test("what the open store waits for is told to whoever listens, until they no longer do", () => {
    const told: unknown[] = [];
    const off = waiting.on((s) => told.push(s));
    waiting.set("blocked");
    expect(waiting.get()).toBe("blocked");
    waiting.set(null);
    off();
    waiting.set("superseded");
    expect(told).toEqual(["blocked", null]);
    waiting.set(null);
  });
  test("a store of a newer shape is not opened, not written and can be saved as it lies", async () => {
    const newer = new Dexie("rich-layer");
    const same = Object.fromEntries(
      db().tables.map((t) => [t.name, [t.schema.primKey.src, ...t.schema.indexes.map((x) => x.src)].join()]),
    );
    newer.version(DB_VERSION + 1).stores({ ...same, odd: "id" });
    await newer.open();
    await newer.table("odd").put({ id: "kept" });
    newer.close();
    useDb(null as unknown as RichLayerDb); // as a page begins
    const own = db();
    expect(db()).toBe(own);
    const e = await own.meta.count().catch((x: unknown) => x);
    expect(troubleOf(e)!.kind).toBe("newer");
    expect(own.isOpen()).toBe(false);
    await expect(noteSaved(1)).rejects.toThrow();
    const raw = JSON.parse(await rawExport()) as { version: number; stores: Record<string, unknown[]> };
    expect([raw.version, raw.stores.odd, raw.stores.meta]).toEqual([(DB_VERSION + 1) * 10, [{ id: "kept" }], []]);
    await Dexie.delete("rich-layer");
  });
  test("a page that another overtakes lets go of the store and says so; one that overtakes it waits", async () => {
    await Dexie.delete("rich-layer");
    useDb(null as unknown as RichLayerDb);
    const own = db();
    await own.open();
    expect(waiting.get()).toBeNull();
    const newer = new Dexie("rich-layer");
    newer.version(9).stores({ jobs: "id" });
    await newer.open();
    expect([waiting.get(), own.isOpen()]).toEqual(["superseded", false]);
    newer.close();
    waiting.set(null);
    await Dexie.delete("rich-layer");
  });
});

describe("what is alike, what was touched", () => {
  test("records are alike whatever the order of their keys, and not when one thing differs", () => {
    const a = { x: 1, y: [1, { z: null }], s: { b: 2, a: 1 } };
    expect(sameRecord(a, { s: { a: 1, b: 2 }, y: [1, { z: null }], x: 1 })).toBe(true);
    for (const b of [
      { ...a, x: 2 },
      { ...a, y: [1, { z: 0 }] },
      { ...a, y: [1] },
      { ...a, s: { a: 1 } },
      { ...a, s: [2, 1] },
      { ...a, s: null },
    ])
      expect([b, sameRecord(a, b), sameRecord(b, a)]).toEqual([b, false, false]);
    expect([sameRecord(null, null), sameRecord(a, null), sameRecord(null, a)]).toEqual([true, false, false]);
  });
  test("a patch goes as deep as both sides are of one build", () => {
    const paths = (a: unknown, b: unknown): string => {
      const list = diff(a, b);
      if (a && typeof a === "object") {
        expect(patched(a, list, "after")).toEqual(b);
        expect(patched(b, list, "before")).toEqual(a);
      }
      return list.map((p) => p.path.join("/")).join(" ");
    };
    expect(paths({ a: { b: [1, 2], c: 3 } }, { a: { b: [1, 4], c: 3 } })).toBe("a/b/1");
    expect(paths({ a: [1, 2] }, { a: [1, 2, 3] })).toBe("a");
    expect(paths({ a: [1] }, { a: { 0: 1 } })).toBe("a");
    expect(paths({ a: { 0: 1 } }, { a: [1] })).toBe("a");
    expect(paths({ a: null, b: 1 }, { a: { c: 1 }, b: 2 })).toBe("a b");
    expect(paths({ a: 1 }, { b: 1 })).toBe("");
    expect(paths({ a: { x: 1 } }, { a: { x: 1, y: 2 } })).toBe("a");
    expect(paths({ a: { x: 1, y: 2 } }, { a: { y: 2, x: 1 } })).toBe("");
    // a list written anew, alike in all: no difference
    expect(paths({ a: [{ x: 1 }] }, { a: [{ x: 1 }] })).toBe("");
  });
  test("places are told apart by their members, where both sides name them all", () => {
    const places = (path: string[], before: unknown, after: unknown): string =>
      touched({ table: "jobs", id: "j", whole: null, patches: [{ path, before, after }] })
        .map((p) => p.replace("jobs/j/", ""))
        .join(" ");
    const z = (id: string, w = 1) => ({ id, w });
    expect(places(["zones"], [z("a"), z("b")], [z("a"), z("b", 2), z("c")])).toBe("zones/b zones/c");
    expect(places(["zones"], [z("a"), z("b")], [z("b")])).toBe("zones/a");
    expect(places(["zones"], [z("a")], null)).toBe("zones");
    expect(places(["zones"], null, [z("a")])).toBe("zones");
    expect(places(["zones"], [z("a")], [{ w: 1 }])).toBe("zones");
    expect(places(["zones"], [{ w: 1 }], [z("a")])).toBe("zones");
    expect(places(["days"], [1, 2], [1, 2, 3])).toBe("days");
    expect(places(["days"], [[1]], [[1], [2]])).toBe("days");
    expect(places(["waived"], [{ rule: 4, where: "x" }], [{ rule: 4, where: "y" }])).toBe("waived/4:x waived/4:y");
    const edit = (step: string, op: string, field: string, value: number) => ({
      id: `${value}`,
      step,
      op,
      field,
      value,
    });
    const [one, two] = [edit("s", "set", "dry", 1), edit("s", "set", "wait", 2)];
    expect(places(["edits"], [one], [one, two])).toBe("edits/s:set:wait");
    expect(places(["edits"], [one], [edit("s", "set", "dry", 3)])).toBe("edits/s:set:dry");
    expect(touched({ table: "log", id: "e", whole: { before: null, after: {} }, patches: [] })).toEqual(["log/e"]);
  });
  test("two acts meet where one place lies in the other, and not where a name only begins alike", () => {
    expect(overlap(["jobs/a/title"], ["jobs/a/title"])).toBe("jobs/a/title");
    expect(overlap(["jobs/a"], ["jobs/a/title"])).toBe("jobs/a");
    expect(overlap(["jobs/b", "jobs/a/title"], ["jobs/a"])).toBe("jobs/a/title");
    expect(overlap(["jobs/a"], ["jobs/ab", "jobs/ab/title"])).toBeNull();
    expect(overlap(["jobs/ab/title"], ["jobs/a"])).toBeNull();
    expect(overlap(["jobs/a/title"], ["jobs/a/due"])).toBeNull();
    expect(overlap(["x/title"], ["title/"])).toBeNull();
    expect(overlap([], ["a"])).toBeNull();
  });
});
