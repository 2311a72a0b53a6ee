import { readdirSync, readFileSync } from "node:fs";
import Dexie from "dexie";
import { a1, e1, many, seeded, SHELF, shop } from "../core/testing/worlds";
import { randomShop } from "../testing/random-shop";
import { makePlan } from "../core/plan/plan";
import { RECORDS } from "../core/records/file";
import { ran } from "../core/records/version";
import { LogEntry } from "../core/records/log";
import type { Job } from "../core/records/job";
import { readJobFile, worldOf } from "../io/import/job-file";
import { shopFile, writeFile } from "../io/export/job-file";
import {
  change,
  commit,
  Conflict,
  historyEnds,
  logTap,
  newEyes,
  redo,
  Refused,
  settled,
  Stale,
  undo,
  type Eyes,
} from "./acts";
import { db, RichLayerDb, TABLES, useDb } from "./db";
import { diff, patched } from "./diff";
import { overlap, touched } from "./touched";
import { rawExport, troubleOf } from "./trouble";
import { headOf } from "./heads";
import { deleteJob, importFile } from "./import";
import { noteRead, readAll, readDay, readHeads, readLogPage, readRunning, readWorld, watch } from "./queries";

let n = 0;
let name = "";
beforeEach(async () => {
  name = `test-${n++}`;
  useDb(new RichLayerDb(name));
  const w = e1();
  await commit("beginning", [
    { table: "shop", id: "shop", next: shop() },
    { table: "machines", id: w.machines[0].id, next: w.machines[0] },
    ...SHELF().map((p) => ({ table: "products" as const, id: p.id, next: p })),
    { table: "jobs", id: "job", next: w.job },
  ]);
});
afterEach(() => db().close());

/** Everything but the history, as plain data in a fixed order. */
async function contents(): Promise<string> {
  const out: Record<string, unknown> = {};
  for (const t of TABLES) out[t] = await db().table(t).orderBy("id").toArray();
  return JSON.stringify(out);
}
/** The heads say what the jobs say, whatever was done. */
async function headsAgree(): Promise<void> {
  const log = await db().log.toArray();
  const want = (await db().jobs.toArray())
    .map((j) => headOf(j, log.filter((e) => e.jobId === j.id).length))
    .sort((a, b) => (a.id < b.id ? -1 : 1));
  expect((await readHeads()).sort((a, b) => (a.id < b.id ? -1 : 1))).toEqual(want);
}
/** As a reload of the page would: the database is closed and opened anew. */
function reload(): void {
  db().close();
  useDb(new RichLayerDb(name));
}

const error = (name: string, message = "", inner?: unknown) => Object.assign(new Error(message), { name, inner });

describe("acts and their undoing", () => {
  test("a hundred random edits, a reload in the middle, undo all, redo all: equal to the last byte", async () => {
    const rnd = seeded(20270111);
    const pick = <T>(list: T[]): T => list[Math.floor(rnd() * list.length)];
    const states = [await contents()];
    const ways: ((k: number) => Promise<void>)[] = [
      (k) => change<Job>(`title ${k}`, "jobs", "job", (j) => ({ ...j, title: `Markers ${k}` })),
      (k) =>
        change<Job>(`quantity ${k}`, "jobs", "job", (j) => ({
          ...j,
          quantity: 1 + Math.floor(rnd() * 60) + k,
        })),
      (k) =>
        change<Job>(`edit ${k}`, "jobs", "job", (j) => ({
          ...j,
          edits: [
            ...j.edits,
            { id: `e${k}`, op: "set", step: "engrave", after: null, field: "depthMm", value: rnd() * 3 },
          ],
        })),
      (k) =>
        change<Job>(`zone ${k}`, "jobs", "job", (j) => ({
          ...j,
          zones: j.zones.map((z, i) =>
            i === k % 2 ? { ...z, productId: pick(["beet", "marigold", "white"]), name: `z${k}` } : z,
          ),
        })),
      (k) =>
        change<Job>(`choice ${k}`, "jobs", "job", (j) => ({
          ...j,
          choices: { ...j.choices, depthMm: 1 + k / 100, undercoat: pick([true, false, null]) },
        })),
      (k) =>
        commit(`paint ${k}`, [
          { table: "products", id: `p${k}`, next: { ...SHELF()[0], id: `p${k}`, name: `Paint ${k}` } },
        ]),
      (k) =>
        commit(`two at once ${k}`, [
          { table: "products", id: "beet", next: { ...SHELF()[2], coatUm: 10 + k } },
          { table: "shop", id: "shop", next: shop({ name: `Shop ${k}` }) },
        ]),
      (k) =>
        commit(`job ${k}`, [{ table: "jobs", id: `j${k}`, next: { ...a1().job, id: `j${k}`, title: `Tile ${k}` } }]),
    ];
    for (let k = 0; k < many(100); k++) {
      await pick(ways)(k);
      const now = await contents();
      if (now !== states[states.length - 1]) states.push(now);
      if (k === 50) reload();
    }
    expect(states.length).toBeGreaterThan(0.9 * many(100));
    for (let i = states.length - 2; i >= 0; i--) {
      expect(await undo()).not.toBeNull();
      expect(await contents()).toBe(states[i]);
      if (i === 40) reload();
    }
    for (let i = 1; i < states.length; i++) {
      expect(await redo()).not.toBeNull();
      expect(await contents()).toBe(states[i]);
    }
    expect(await redo()).toBeNull();
  });
  test("acts are taken back from the last to the first, and done again from the first to the last", async () => {
    const titled = (t: string): Promise<unknown> => change<Job>(t, "jobs", "job", (j) => ({ ...j, title: t }));
    const title = async (): Promise<string> => ((await db().jobs.get("job")) as Job).title;
    const first = await title();
    for (const t of ["one", "two", "three", "four"]) await titled(t);
    const back: [string | null, string][] = [];
    for (let k = 0; k < 4; k++) back.push([await undo(), await title()]);
    expect(back).toEqual([
      ["four", "three"],
      ["three", "two"],
      ["two", "one"],
      ["one", first],
    ]);
    const again: [string | null, string][] = [];
    for (let k = 0; k < 4; k++) again.push([await redo(), await title()]);
    expect(again).toEqual([
      ["one", "one"],
      ["two", "two"],
      ["three", "three"],
      ["four", "four"],
    ]);
    expect(await redo()).toBeNull();
  });
  test("undo reaches the beginning and stops there", async () => {
    await change<Job>("x", "jobs", "job", (j) => ({ ...j, title: "x" }));
    expect(await undo()).toBe("x");
    expect(await undo()).toBe("beginning");
    expect(await undo()).toBeNull();
    expect((await db().jobs.toArray()).length).toBe(0);
  });
  test("a fresh act drops what could have been done again", async () => {
    await change<Job>("a", "jobs", "job", (j) => ({ ...j, title: "a" }));
    await undo();
    expect((await historyEnds()).redo).toBe("a");
    await change<Job>("b", "jobs", "job", (j) => ({ ...j, title: "b" }));
    expect(await historyEnds()).toEqual({ undo: "b", redo: null });
  });
  test("an unsound record is refused in words, and nothing of the act is stored", async () => {
    const before = await contents();
    await expect(
      commit("bad", [
        { table: "shop", id: "shop", next: shop({ name: "other" }) },
        { table: "jobs", id: "job", next: { ...e1().job, quantity: -2 } },
      ]),
    ).rejects.toThrow(/quantity must be at least 1/);
    expect(await contents()).toBe(before);
    await expect(change<Job>("gone", "jobs", "nowhere", (j) => j)).rejects.toBeInstanceOf(Refused);
  });
  test("an act that changes nothing leaves no trace in the history", async () => {
    await change<Job>("same", "jobs", "job", (j) => ({ ...j }));
    expect((await historyEnds()).undo).toBe("beginning");
  });
  test("deleting a job takes its log along, and undo brings both back", async () => {
    await logTap([{ ...new LogEntry(), id: "l1", jobId: "job", kind: "start", step: "label", at: 1 }], 0);
    const before = await contents();
    await deleteJob("job");
    expect(await readWorld("job")).toBeNull();
    expect(await db().log.count()).toBe(0);
    await undo();
    expect(await contents()).toBe(before);
  });
  test("taps are stored one by one and are not part of undo", async () => {
    await logTap(
      [
        {
          ...new LogEntry(),
          id: "l2",
          jobId: "job",
          kind: "piece",
          step: "label",
          at: 2,
          piece: 1,
        },
      ],
      0,
    );
    await logTap([{ ...new LogEntry(), id: "l1", jobId: "job", kind: "start", step: "label", at: 1 }], 1);
    expect((await readWorld("job"))!.log.map((e) => e.id)).toEqual(["l1", "l2"]);
    expect((await historyEnds()).undo).toBe("beginning");
    await expect(
      logTap([{ ...new LogEntry(), id: "l3", jobId: "job", kind: "piece", step: "label", at: -1 }], 2),
    ).rejects.toThrow(/at must be/);
  });

  test("a tap decided by an older log is not stored, nor what it took out of a can", async () => {
    const tap = (id: string, n: number) => ({
      ...new LogEntry(),
      id,
      jobId: "job",
      kind: "piece" as const,
      step: "label",
      at: n,
      piece: n,
    });
    await logTap([tap("l1", 1)], 0);
    const base = (await db().products.get("beet"))!;
    await expect(logTap([tap("l2", 2)], 0, { used: [{ next: { ...base, note: "less" }, base }] })).rejects.toThrow(
      Stale,
    );
    expect(await db().log.count()).toBe(1);
    expect(await db().products.get("beet")).toEqual(base);
    await logTap([tap("l2", 2)], 1, { used: [{ next: { ...base, note: "less" }, base }] });
    expect((await db().products.get("beet"))!.note).toBe("less");
    await expect(logTap([tap("l3", 3)], 2, { used: [{ next: base, base }] })).rejects.toThrow(Stale);
    expect(await db().log.count()).toBe(2);
  });

  test("an act that read an older record stores nothing; done again it keeps what the other tab wrote", async () => {
    const seen = (await db().jobs.get("job"))!;
    await change<Job>("other tab", "jobs", "job", (j) => ({ ...j, note: "theirs" }));
    const mine = { ...seen, client: "mine" };
    await expect(commit("mine", [{ table: "jobs", id: "job", next: mine, base: seen }])).rejects.toThrow(Stale);
    expect((await db().jobs.get("job"))!.client).not.toBe("mine");
    let turns = 0;
    await settled(async () => {
      const now = turns++ === 0 ? seen : (await db().jobs.get("job"))!;
      await commit("mine", [{ table: "jobs", id: "job", next: { ...now, client: "mine" }, base: now }]);
    });
    expect(turns).toBe(2);
    expect(await db().jobs.get("job")).toMatchObject({ client: "mine", note: "theirs" });
    await expect(settled(() => Promise.reject(new Stale("never")))).rejects.toThrow(/Another tab/);
    await expect(change<Job>("gone", "jobs", "nobody", (j) => j)).rejects.toThrow(
      "This record is no longer there; it may have been deleted in another tab.",
    );
  });

  test("eight writers at once, each to a field of its own: none is lost", async () => {
    await Promise.all(
      Array.from({ length: 8 }, (_, i) =>
        change<Job>(`w${i}`, "jobs", "job", (j) => ({
          ...j,
          waivers: [...j.waivers, { rule: i + 1, where: "/", reason: `r${i}` }],
        })),
      ),
    );
    expect((await db().jobs.get("job"))!.waivers.map((w) => w.rule).sort()).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  });
});

describe("heads and pages, so that a large shop stays quick", () => {
  const entry = (n: number, more: Partial<LogEntry> = {}): LogEntry => ({
    ...new LogEntry(),
    id: `l${String(n).padStart(4, "0")}`,
    jobId: "job",
    kind: "piece",
    step: "dust",
    at: 1000 + n,
    piece: (n % 7) + 1,
    ...more,
  });
  test("a head follows its job through change, tap, undo, redo, deletion and import", async () => {
    await headsAgree();
    await change<Job>("x", "jobs", "job", (j) => ({
      ...j,
      title: "Other",
      wrapUp: { ...j.wrapUp, closedAt: "2027-01-12T09:00", good: 3 },
    }));
    await headsAgree();
    expect((await readHeads())[0]).toMatchObject({ title: "Other", open: 0, good: 3, entries: 0 });
    await undo();
    await logTap([entry(1)], 0);
    expect((await readHeads())[0]).toMatchObject({ open: 1, entries: 1 });
    await headsAgree();
    const all = (await readAll())!;
    await deleteJob("job");
    expect(await readHeads()).toEqual([]);
    await undo();
    await headsAgree();
    await redo();
    await undo();
    await importFile(
      shopFile({
        ...all,
        jobs: [{ ...all.jobs[0], id: "other", title: "From a file" }],
        log: [entry(5, { id: "o1", jobId: "other" })],
      }),
      "replace",
    );
    await headsAgree();
    expect((await readHeads()).map((h) => [h.id, h.entries])).toEqual([["other", 1]]);
  });
  test("a head counts the entries that there are: a new one raises it, one written anew does not, one taken away lowers it", async () => {
    const all = (await readAll())!;
    const entries = async (): Promise<number> => (await readHeads()).find((h) => h.id === "job")!.entries;
    const file = (log: LogEntry[]) => shopFile({ ...all, log });
    await importFile(file([entry(1), entry(2)]), "merge");
    expect(await entries()).toBe(2);
    await importFile(file([entry(1, { note: "told later" }), entry(2), entry(3)]), "merge");
    expect(await entries()).toBe(3);
    await headsAgree();
    await importFile(file([entry(3)]), "replace");
    expect(await entries()).toBe(1);
    await headsAgree();
    for (const left of [3, 2, 0]) {
      await undo();
      expect(await entries()).toBe(left);
      await headsAgree();
    }
    for (const left of [2, 3, 1]) {
      await redo();
      expect(await entries()).toBe(left);
    }
    // a record of another table that happens to have an entry's id is none of the log's
    await commit("a machine", [{ table: "machines", id: "l0003", next: { ...all.machines[0], id: "l0003" } }]);
    expect(await entries()).toBe(1);
    await commit("none", [{ table: "machines", id: "l0003", next: null }]);
    expect(await entries()).toBe(1);
  });
  test("the day: under way first, then soonest due; what is left out is counted", async () => {
    const job = (await db().jobs.get("job"))!;
    for (const [id, due] of [
      ["late", "2027-03-01T10:00"],
      ["soon", "2027-01-14T10:00"],
      ["none", null],
      ["shut", "2027-01-12T10:00"],
    ] as const)
      await commit(id, [
        {
          table: "jobs",
          id,
          next: {
            ...job,
            id,
            title: id,
            due,
            wrapUp: { ...job.wrapUp, closedAt: id === "shut" ? "2027-01-13T10:00" : null },
          },
        },
      ]);
    await logTap([entry(1, { jobId: "late", id: "x1" })], 0);
    const day = await readDay(3);
    expect(day.heads.slice(0, 2).map((h) => h.id)).toEqual(["late", "soon"]);
    expect(day.heads).toHaveLength(3);
    expect(day.more).toBe(1);
    // The same as long as nothing is stored; another one after a change that no list shows, a tap, an undo.
    const stamps = [day.stamp];
    expect((await readDay(3)).stamp).toBe(day.stamp);
    await commit("a choice", [
      { table: "jobs", id: "job", next: { ...job, choices: { ...job.choices, placedBy: "eye" } } },
    ]);
    stamps.push((await readDay(3)).stamp);
    await logTap([entry(2, { jobId: "late", id: "x2" })], 1);
    stamps.push((await readDay(3)).stamp);
    await undo();
    stamps.push((await readDay(3)).stamp);
    expect(new Set(stamps).size).toBe(4);
    expect((await readRunning(null)).map((w) => w.job.id)).toEqual(["late"]);
    expect(await readRunning("late")).toEqual([]);
  });
  test("the third page of a piece's log begins where the second ended", async () => {
    for (let k = 0; k < 23; k++)
      await logTap([entry(k, { id: `p${String(k).padStart(2, "0")}`, piece: 1, at: 1000 + k })], k);
    const pages = await Promise.all([1, 2, 3, 4].map((page) => readLogPage("", 1, page, 10)));
    expect(pages.map((p) => p.entries.length)).toEqual([10, 10, 3, 0]);
    expect(pages.map((p) => p.total)).toEqual([23, 23, 23, 23]);
    expect(pages.flatMap((p) => p.entries.map((e) => e.at))).toEqual(Array.from({ length: 23 }, (_, k) => 1022 - k));
  });
  test("pages of the log, newest first, are the whole log in order; by job and piece too", async () => {
    const rnd = seeded(9);
    for (let n = 0; n < 90; n++) await logTap([entry(n, { at: 1000 + Math.floor(rnd() * 1e5) })], n);
    const whole = (await db().log.toArray()).sort((a, b) => b.at - a.at);
    const pages = await Promise.all([1, 2, 3, 4].map((k) => readLogPage("", null, k, 25)));
    expect(pages.flatMap((p) => p.entries.map((e) => e.at))).toEqual(whole.map((e) => e.at));
    expect(pages.every((p) => p.total === 90)).toBe(true);
    const one = await readLogPage("job", 3, 1, 100);
    expect(one.entries.every((e) => e.piece === 3)).toBe(true);
    expect(one.total).toBe(whole.filter((e) => e.piece === 3).length);
    expect((await readLogPage("", 3, 1, 100)).total).toBe(one.total);
  });
});

describe("two tabs at one step", () => {
  const set = (eyes: Eyes, field: string, value: number): Promise<"stored" | "told"> =>
    change<Job>(
      `${field} ${value}`,
      "jobs",
      "job",
      (j) => ({
        ...j,
        edits: [
          ...j.edits.filter((e) => e.field !== field),
          { id: `e.${field.toLowerCase()}.${value}`, op: "set", step: "coat.seal.1", after: null, field, value },
        ],
      }),
      eyes,
    ).then(
      () => "stored" as const,
      (e: Error) => (e instanceof Conflict ? ("told" as const) : Promise.reject(e)),
    );
  const stored = async (): Promise<Record<string, number>> =>
    Object.fromEntries((await readWorld("job"))!.job.edits.map((e) => [e.field, e.value as number]));

  test("200 seeded interleavings: every edit either stands or its maker is told, and done again it stands", async () => {
    const tabs = [newEyes(), newEyes()];
    for (const t of tabs) await noteRead(t);
    const rnd = seeded(2027);
    let [stands, told] = [0, 0];
    /** what each tab has on its screen, and what really was stored last, by field */
    const truth: Record<string, { value: number; by: number }> = {};
    for (let k = 0; k < many(200); k++) {
      const fields = ["dryUm", "minutes", "waitMin"];
      // sometimes a tab's screen is brought up to date first, sometimes not
      for (const t of tabs) if (rnd() < 0.4) await noteRead(t);
      const moves = [0, 1]
        .filter(() => rnd() < 0.8)
        .map((who) => ({ who, field: fields[Math.floor(rnd() * 3)], value: 1000 + 2 * k + who }));
      const said = await Promise.all(moves.map((m) => set(tabs[m.who], m.field, m.value)));
      moves.forEach((m, i) => {
        if (said[i] === "stored") {
          stands++;
          truth[m.field] = { value: m.value, by: m.who };
        } else told++;
      });
      // Both at one field in one turn: exactly one of them stands unless the other had nothing left to overlook.
      const now = await stored();
      for (const m of moves)
        expect(
          moves.some((x, i) => x.field === m.field && said[i] === "stored" && now[m.field] === x.value) ||
            said[moves.indexOf(m)] === "told",
        ).toBe(true);
      for (const [i, m] of moves.entries())
        if (said[i] === "told") {
          await noteRead(tabs[m.who]);
          expect(await set(tabs[m.who], m.field, m.value)).toBe("stored");
          expect((await stored())[m.field]).toBe(m.value);
          truth[m.field] = { value: m.value, by: m.who };
        }
    }
    expect(stands).toBeGreaterThan(many(200) / 2);
    expect(told).toBeGreaterThan(many(200) / 20);
    // The history is the record of every edit that stood: none is missing.
    const history = await db().history.toArray();
    for (const [field, t] of Object.entries(truth)) {
      expect(history.some((h) => h.label === `${field} ${t.value}`)).toBe(true);
      expect((await stored())[field]).toBe(t.value);
    }
  });

  test("what another tab stores between the loaders' reading and the watching is not missed", async () => {
    const told = async (between: () => Promise<unknown>): Promise<number> => {
      await noteRead(newEyes());
      await between();
      let n = 0;
      const stop = watch(
        () => void n++,
        (e) => {
          throw e;
        },
      );
      await new Promise((on) => setTimeout(on, 60));
      stop();
      return n;
    };
    expect(await told(async () => {})).toBe(0);
    expect(await told(() => set(newEyes(), "minutes", 77))).toBe(1);
  });

  test("a watch that can hear no more says so, once", async () => {
    const broken = new RichLayerDb(`broken-${n++}`);
    Object.defineProperty(broken, "history", {
      get: () => {
        throw error("UnknownError", "Internal error");
      },
    });
    useDb(broken);
    const told: unknown[] = [];
    const stop = watch(
      () => {},
      (e) => told.push(e),
    );
    await new Promise((on) => setTimeout(on, 60));
    stop();
    expect(told.map((e) => (e as Error).name)).toEqual(["UnknownError"]);
  });

  test("different fields of one record never stand in each other's way", async () => {
    const [a, b] = [newEyes(), newEyes()];
    await noteRead(a);
    await noteRead(b);
    await change<Job>("client", "jobs", "job", (j) => ({ ...j, client: "A" }), a);
    await change<Job>("note", "jobs", "job", (j) => ({ ...j, note: "B" }), b);
    expect((await readWorld("job"))!.job).toMatchObject({ client: "A", note: "B" });
    await expect(change<Job>("client", "jobs", "job", (j) => ({ ...j, client: "B" }), b)).rejects.toThrow(
      /Another tab has changed this meanwhile: client/,
    );
    expect((await readWorld("job"))!.job.client).toBe("A");
  });

  test("places that acts touch: list members by their id, edits by step and field, whole records all over", () => {
    const change = (before: object, after: object) => ({
      table: "jobs" as const,
      id: "j",
      whole: null,
      patches: diff(before, after),
    });
    const edit = (field: string, value: number) => ({
      id: `e${value}`,
      op: "set",
      step: "s",
      after: null,
      field,
      value,
    });
    expect(touched(change({ a: { w: 1, h: 2 } }, { a: { w: 3, h: 2 } }))).toEqual(["jobs/j/a/w"]);
    expect(touched(change({ edits: [edit("x", 1)] }, { edits: [edit("x", 1), edit("y", 2)] }))).toEqual([
      "jobs/j/edits/s:set:y",
    ]);
    expect(touched({ table: "jobs", id: "j", whole: { before: null, after: {} }, patches: [] })).toEqual(["jobs/j"]);
    expect(overlap(["jobs/j"], ["jobs/j/a/w"])).toBe("jobs/j");
    expect(overlap(["jobs/j/a"], ["jobs/j/ab"])).toBeNull();
    expect(overlap(["jobs/j/edits/s:set:x"], ["jobs/j/edits/s:set:y"])).toBeNull();
  });
});

test("a job that has been worked on since does not go by undo, nor by redo; told; deletion takes it, and brings all back", async () => {
  const tapped = async (id: string, seen: number): Promise<void> =>
    logTap([{ ...new LogEntry(), id, jobId: "new", kind: "note", step: "dust", at: 1 }], seen);
  await commit("new job", [{ table: "jobs", id: "new", next: { ...e1().job, id: "new" } }]);
  await tapped("n1", 0);
  await expect(undo()).rejects.toThrow(/^“new job” was not taken back: a job would go with it .* \(1 entry\)\./);
  await deleteJob("new");
  expect([await db().jobs.get("new"), await db().log.where("jobId").equals("new").count()]).toEqual([undefined, 0]);
  await undo();
  expect(await db().log.where("jobId").equals("new").count()).toBe(1);
  // done again it would take what has come since
  await tapped("n2", 1);
  await expect(redo()).rejects.toThrow(/was not done again: .* \(1 entry\)/);
  expect(await db().log.where("jobId").equals("new").count()).toBe(2);
  // a tap on a job that is gone is told, the first one of all too
  await deleteJob("new");
  await expect(tapped("n3", 0)).rejects.toThrow(/no longer there/);
});

describe("three tabs at once", () => {
  /** Heads as the jobs are, and each entry of a job that is there. */
  async function whole(): Promise<void> {
    await headsAgree();
    const [jobs, log] = await Promise.all([db().jobs.toArray(), db().log.toArray()]);
    expect(log.filter((e) => !jobs.some((j) => j.id === e.jobId))).toEqual([]);
    expect(new Set(log.map((e) => e.id)).size).toBe(log.length);
  }

  test("one deletes, one puts a file in place of everything, one taps: 500 seeded interleavings, and the store stays whole", async () => {
    const file = shopFile((await readAll())!);
    const rnd = seeded(31);
    const tabs = [newEyes("one"), newEyes("two")];
    let n = 0;
    const met = { tapped: 0, refused: 0, deleted: 0, restored: 0, undone: 0 };
    const later = (): Promise<void> => new Promise((on) => setTimeout(on, Math.floor(rnd() * 3)));
    /** As the bench does it: read, decide, store; read again where another was quicker. */
    const tap = async (): Promise<void> => {
      await later();
      const id = `tap${n++}`;
      await settled(async () => {
        const w = await readWorld("job");
        if (!w) throw new Refused("gone");
        await later();
        const e = { ...new LogEntry(), id, jobId: "job", kind: "piece" as const, step: "dust", piece: 1, at: n };
        await logTap([e], w.log.length);
      });
      met.tapped++;
    };
    const moves: (() => Promise<unknown>)[] = [
      tap,
      tap,
      () => later().then(() => deleteJob("job").then(() => met.deleted++)),
      () => later().then(() => importFile(file, "replace").then(() => met.restored++)),
      () => later().then(() => undo(tabs[Math.floor(rnd() * 2)]).then(() => met.undone++)),
    ];
    for (let k = 0; k < many(500); k++) {
      const now = moves.filter(() => rnd() < 0.5);
      for (const r of await Promise.allSettled(now.map((m) => m())))
        if (r.status === "rejected") {
          // told, each in its sentence; nothing else is ever thrown
          expect(r.reason).toBeInstanceOf(Refused);
          met.refused++;
        }
      await whole();
      if (!(await db().jobs.get("job"))) await importFile(file, "merge");
    }
    for (const many of Object.values(met)) expect(many).toBeGreaterThan(0);
  });
});

describe("undo with two tabs open", () => {
  /** pages that the browser says are open */
  let open: string[] = [];
  beforeEach(() => {
    open = ["a", "b"];
    (globalThis as { navigator?: unknown }).navigator = {
      locks: {
        query: () =>
          Promise.resolve({ held: [...open.map((t) => ({ name: `richlayer.tab.${t}` })), { name: "another lock" }] }),
        request: () => new Promise(() => {}),
      },
    };
  });
  afterEach(() => void delete (globalThis as { navigator?: unknown }).navigator);
  const set = (eyes: Eyes, field: "title" | "client" | "note", value: string): Promise<void> =>
    change<Job>(`${field} ${value}`, "jobs", "job", (j) => ({ ...j, [field]: value }), eyes);
  const job = async (): Promise<Job> => (await readWorld("job"))!.job;

  test("each takes back its own, whatever the other did last; a page that is gone leaves its acts to all", async () => {
    const [a, b] = [newEyes("a"), newEyes("b")];
    await set(a, "client", "A");
    await set(b, "note", "B");
    expect(await historyEnds(a)).toEqual({ undo: "client A", redo: null });
    expect(await historyEnds(b)).toEqual({ undo: "note B", redo: null });
    expect(await undo(a)).toBe("client A");
    expect(await job()).toMatchObject({ client: "", note: "B" });
    expect(await redo(b)).toBeNull();
    expect(await redo(a)).toBe("client A");
    expect(await job()).toMatchObject({ client: "A", note: "B" });
    // b is closed: what it did last is taken back here
    open = ["a"];
    expect(await undo(a)).toBe("note B");
    expect(await undo(a)).toBe("client A");
  });
  test("what another tab has built upon is not pulled from under it: told whose, and nothing is changed", async () => {
    const [a, b] = [newEyes("a"), newEyes("b")];
    await set(a, "client", "A");
    await noteRead(b);
    await set(b, "client", "B");
    const before = await contents();
    await expect(undo(a)).rejects.toThrow(
      "“client A” was not taken back: another open tab has changed the same since (client B). Take that back there first.",
    );
    expect(await contents()).toBe(before);
    expect(await undo(b)).toBe("client B");
    expect(await undo(a)).toBe("client A");
    expect((await job()).client).toBe("");
    // done again, the other has something there meanwhile
    await noteRead(b);
    await set(b, "client", "B again");
    await expect(redo(a)).rejects.toThrow(
      /“client A” was not done again: another open tab has changed the same since \(client B again\)/,
    );
  });
  test("what another tab has done and taken back again stands in nobody's way", async () => {
    const [a, b] = [newEyes("a"), newEyes("b")];
    await noteRead(b);
    await set(a, "client", "A");
    await expect(set(b, "client", "B")).rejects.toThrow(Conflict);
    expect(await undo(a)).toBe("client A");
    await set(b, "client", "B");
    expect((await job()).client).toBe("B");
  });
  test("a browser that does not let a page ask who is open still stores and undoes", async () => {
    (globalThis as { navigator?: unknown }).navigator = {
      locks: {
        query: () => Promise.reject(new DOMException("not here", "SecurityError")),
        request: () => Promise.reject(new DOMException("not here", "SecurityError")),
      },
    };
    const [a, b] = [newEyes("a"), newEyes("b")];
    await set(a, "client", "A");
    await set(b, "note", "B");
    expect(await undo(a)).toBe("note B");
    expect(await undo(a)).toBe("client A");
  });
  test("a new act ends one's own redo, not the other's", async () => {
    const [a, b] = [newEyes("a"), newEyes("b")];
    await set(a, "client", "A");
    await set(b, "note", "B");
    await undo(b);
    await undo(a);
    await set(a, "title", "T");
    expect(await redo(a)).toBeNull();
    expect((await historyEnds(b)).redo).toBe("note B");
    expect(await redo(b)).toBe("note B");
    expect(await job()).toMatchObject({ title: "T", client: "", note: "B" });
  });
  test("400 seeded edits, undos and redos of two tabs: the store is always what the acts that stand make of the beginning", async () => {
    const rnd = seeded(77);
    const tabs = [newEyes("a"), newEyes("b")];
    let [undone, refused] = [0, 0];
    const first = await job();
    const born = (await db().history.toArray())[0].seq;
    for (let k = 0; k < many(400); k++) {
      const who = tabs[Math.floor(rnd() * 2)];
      const way = rnd();
      const told = async (what: Promise<unknown>): Promise<boolean> =>
        what.then(
          (x) => x !== null,
          (e: Error) => (e instanceof Conflict ? (refused++, false) : Promise.reject(e)),
        );
      if (way < 0.5) {
        await noteRead(who);
        const field = (["title", "client", "note"] as const)[Math.floor(rnd() * 3)];
        if (rnd() < 0.3)
          await change<Job>(
            `edit ${k}`,
            "jobs",
            "job",
            (j) => ({
              ...j,
              edits: [
                ...j.edits,
                { id: `e${k}`, op: "set" as const, step: "coat.seal.1", after: null, field: "minutes", value: k + 1 },
              ].slice(-4),
            }),
            who,
          );
        else await set(who, field, `${field} ${k}`);
      } else {
        const top = (await historyEnds(who)).undo;
        if (way < 0.8 && top === "beginning") continue;
        if ((await told(way < 0.8 ? undo(who) : redo(who))) && way < 0.8) undone++;
      }
      const stand = (await db().history.toArray()).filter((x) => x.undone === 0 && x.seq > born);
      expect(await job()).toEqual(
        stand.reduce((j, x) => x.changes.reduce((r, c) => patched(r, c.patches, "after"), j), first),
      );
    }
    expect(undone).toBeGreaterThan(many(400) / 10);
    expect(refused).toBeGreaterThan(many(400) / 20);
  });
});

describe("photos and undo", () => {
  const photo = (id: string, data: string): object => ({ version: 1, id, jobId: "job", at: 1000, caption: "", data });
  const BIG = "x".repeat(50_000);
  const weight = async (): Promise<number> => JSON.stringify(await db().history.toArray()).length;

  test("a photo's bytes are kept once: in the store while it is there, in the history while it is not", async () => {
    const empty = await weight();
    await commit("photo", [{ table: "photos", id: "p", next: photo("p", BIG) }]);
    expect(await weight()).toBeLessThan(empty + 2000);
    await commit("photo removed", [{ table: "photos", id: "p", next: null }]);
    expect(await db().photos.count()).toBe(0);
    const gone = await weight();
    expect(gone).toBeGreaterThan(50_000);
    expect(gone).toBeLessThan(empty + 55_000);
    const there = async (): Promise<string | undefined> => (await db().photos.get("p"))?.data;
    for (let k = 0; k < 2; k++) {
      expect(await undo()).toBe("photo removed");
      expect(await there()).toBe(BIG);
      expect(await weight()).toBeLessThan(empty + 2000);
      expect(await undo()).toBe("photo");
      expect(await there()).toBeUndefined();
      expect(await weight()).toBeLessThan(empty + 55_000);
      reload();
      expect(await redo()).toBe("photo");
      expect(await there()).toBe(BIG);
      expect(await redo()).toBe("photo removed");
      expect(await there()).toBeUndefined();
    }
  });
  test("a job deleted with its photos comes back with them; a whole shop replaced too", async () => {
    await commit(
      "photos",
      ["p", "q"].map((id, k) => ({ table: "photos" as const, id, next: photo(id, BIG.slice(k)) })),
    );
    const before = await contents();
    await deleteJob("job");
    expect(await db().photos.count()).toBe(0);
    await undo();
    expect(await contents()).toBe(before);
    const file = shopFile((await readAll())!);
    await importFile({ ...file, photos: [] }, "replace");
    expect(await db().photos.count()).toBe(0);
    await undo();
    expect(await contents()).toBe(before);
  });
});

describe("what is wrong with the storage, in words", () => {
  test.each([
    [error("AbortError", "", error("QuotaExceededError")), "full"],
    [
      error(
        "OpenFailedError",
        "",
        error("VersionError", "The requested version (20) is less than the existing version (990)"),
      ),
      "newer",
    ],
    [error("MissingAPIError"), "closed"],
    [error("AbortError", "Transaction aborted", new DOMException("", "AbortError")), "broken-off"],
    [error("OpenFailedError", "", error("UnknownError", "Internal error opening backing store")), "unreadable"],
  ])("%s", (e, kind) => expect(troubleOf(e)!.kind).toBe(kind));
  test("an error of another kind is none of the storage's", () => {
    expect(troubleOf(new RangeError("speed must be above 0"))).toBeNull();
    expect(troubleOf(null)).toBeNull();
    // what somebody called off: a lock, a wait, a worker
    expect(troubleOf(new DOMException("signal is aborted without reason", "AbortError"))).toBeNull();
    expect(troubleOf(error("AbortError", "called off"))).toBeNull();
  });
  test("a raw export holds every store as it lies there, whatever its version", async () => {
    const text = await rawExport(name);
    const out = JSON.parse(text) as { version: number; stores: Record<string, unknown[]>; lost: object };
    expect(Object.keys(out.stores)).toEqual(expect.arrayContaining([...TABLES, "history"]));
    expect(out.stores.jobs).toEqual([(await readWorld("job"))!.job]);
    expect(out.lost).toEqual({});
  });
});

describe("patches", () => {
  test("forth and back over every kind of change", () => {
    const a = { n: 1, list: [1, 2, 3], o: { x: null, y: [{ z: 1 }] }, s: "a" };
    const b = { n: 2, list: [1, 2], o: { x: 0, y: [{ z: 5 }] }, s: "a" };
    const p = diff(a, b);
    expect(patched(a, p, "after")).toEqual(b);
    expect(patched(b, p, "before")).toEqual(a);
    expect(p.map((x) => x.path.join("."))).toEqual(["n", "list", "o.x", "o.y.0.z"]);
    expect(diff(a, structuredClone(a))).toEqual([]);
  });
  test("five hundred random pairs", () => {
    const rnd = seeded(3);
    const value = (d: number): unknown =>
      rnd() < 0.3 || d > 3
        ? [null, true, "x", rnd(), Math.floor(rnd() * 4)][Math.floor(rnd() * 5)]
        : rnd() < 0.5
          ? Array.from({ length: Math.floor(rnd() * 4) }, () => value(d + 1))
          : Object.fromEntries(["a", "b", "c"].filter(() => rnd() < 0.7).map((k) => [k, value(d + 1)]));
    for (let k = 0; k < 500; k++) {
      const [a, b] = [{ v: value(0) }, { v: value(0) }];
      const p = diff(a, b);
      expect(patched(a, p, "after")).toEqual(b);
      expect(patched(b, p, "before")).toEqual(a);
    }
  });
});

describe("files and the store", () => {
  test("whole shop out, into an empty one, out again: the same bytes; a job planned alike", async () => {
    const text = writeFile(shopFile((await readAll())!));
    const plan = makePlan((await readWorld("job"))!);
    db().close();
    useDb(new RichLayerDb(`other-${n++}`));
    const read = readJobFile(text);
    if (!read.ok) throw new Error(JSON.stringify(read.faults));
    await importFile(read.file, "replace");
    expect(writeFile(shopFile((await readAll())!))).toBe(text);
    expect(makePlan((await readWorld("job"))!).ready).toBe(plan.ready);
  });
  test("a hundred generated shops: out, into an empty one, out again, the same bytes; damaged, nothing changes", async () => {
    for (let k = 1; k <= many(100); k++) {
      db().close();
      useDb(new RichLayerDb(`${name}-${k}`));
      const out = writeFile(shopFile(randomShop(k)));
      const damaged = readJobFile(out.replace('"richlayer": 1', '"richlayer": 1, "x": 1'));
      expect(damaged.ok).toBe(false);
      expect(await db().shop.count()).toBe(0);
      const read = readJobFile(out);
      if (!read.ok) throw new Error(`shop ${k} is not sound`);
      await importFile(read.file, "replace");
      expect(writeFile(shopFile((await readAll())!))).toBe(out);
    }
  });
  test("merge keeps the own shop and adds; replace takes the place of all; both can be undone", async () => {
    const other = shopFile({
      shop: shop({ name: "Other" }),
      machines: [],
      products: SHELF().slice(0, 1),
      jobs: [{ ...a1().job, id: "tile" }],
      log: [],
      photos: [],
    });
    const before = await contents();
    await importFile(other, "merge");
    expect((await readHeads()).map((h) => h.id).sort()).toEqual(["job", "tile"]);
    expect((await db().shop.get("shop"))!.name).toBe("My shop");
    await undo();
    expect(await contents()).toBe(before);
    await importFile(other, "replace");
    expect((await readHeads()).map((h) => h.id)).toEqual(["tile"]);
    expect((await db().shop.get("shop"))!.name).toBe("Other");
    await undo();
    expect(await contents()).toBe(before);
  });
  test("the history says what came in, and a job that is not there is not deleted", async () => {
    const all = (await readAll())!;
    const last = async (): Promise<string | null> => (await historyEnds()).undo;
    const tile = { ...a1().job, id: "tile", title: "A tile" };
    await importFile({ ...shopFile({ ...all, jobs: [tile] }), kind: "job" }, "merge");
    expect(await last()).toBe("import of “A tile”");
    await importFile(shopFile({ ...all, jobs: [tile, { ...tile, id: "two" }] }), "merge");
    expect(await last()).toBe("import of a shop");
    await importFile(shopFile({ ...all, jobs: [] }), "replace");
    expect(await last()).toBe("restore of a whole shop");
    expect(await readHeads()).toEqual([]);
    const before = await contents();
    await deleteJob("tile");
    expect([await last(), await contents()]).toEqual(["restore of a whole shop", before]);
  });
  test("one job cannot take the place of a whole shop", async () => {
    const one = { ...shopFile((await readAll())!), kind: "job" as const };
    await expect(importFile(one, "replace")).rejects.toThrow(/whole shop/);
  });
});

describe("older databases", () => {
  test("a frozen database of version 0 is brought up by the same migrations as files, and nothing is lost", async () => {
    const old = JSON.parse(readFileSync(new URL("../../fixtures/v0/shop.richlayer.json", import.meta.url), "utf8"));
    const v0name = `v0-${n++}`;
    const v0 = new Dexie(v0name);
    v0.version(1).stores({
      shop: "id",
      machines: "id",
      products: "id",
      jobs: "id",
      log: "id, jobId",
      photos: "id, jobId",
    });
    await v0.open();
    await v0.table("shop").put({ ...old.shop, id: "shop" });
    for (const t of ["machines", "products", "jobs", "log"] as const) await v0.table(t).bulkPut(old[t]);
    v0.close();
    db().close();
    useDb(new RichLayerDb(v0name));
    const all = (await readAll())!;
    const fromFile = readJobFile(JSON.stringify(old));
    if (!fromFile.ok) throw new Error(JSON.stringify(fromFile.faults));
    expect(readJobFile(writeFile(shopFile(all))).ok).toBe(true);
    expect(writeFile(shopFile(all))).toBe(writeFile(fromFile.file));
    expect(all.jobs[0].title).toBe(old.jobs[0].name);
    expect(all.shop.hours.mon).toEqual([old.shop.open, old.shop.close]);
    expect(worldOf(fromFile.file)).not.toBeNull();
    expect(makePlan(worldOf(fromFile.file)!).ready).not.toBeNull();
  });
  const V1 = {
    ...{ shop: "id", machines: "id", products: "id", jobs: "id" },
    ...{ log: "id, jobId", photos: "id, jobId" },
  };
  type Records = Record<"machines" | "products" | "jobs" | "log" | "photos", { id: string }[]> & { shop: object };
  /** The records laid into a database of an older shape, which is then opened as it is by now. @returns it as a file */
  async function raised(version: 1 | 2, f: Records): Promise<string> {
    name = `older-${n++}`;
    const old = new Dexie(name);
    old.version(1).stores(V1);
    if (version === 2) old.version(2).stores({ history: "++seq, undone" });
    await old.open();
    await old.table("shop").put({ ...f.shop, id: "shop" });
    for (const t of ["machines", "products", "jobs", "log", "photos"] as const) await old.table(t).bulkPut(f[t] ?? []);
    old.close();
    reload();
    await headsAgree();
    return writeFile(shopFile((await readAll())!));
  }
  test("every frozen export, and what chance makes of the oldest: raised in the store it is what the same file comes to", async () => {
    const frozen = (path: string): Records =>
      JSON.parse(readFileSync(new URL(`../../fixtures/${path}`, import.meta.url), "utf8")) as Records;
    const read = (f: Records): string | null => {
      const r = readJobFile(JSON.stringify(f));
      return r.ok ? writeFile({ ...r.file, kind: "shop" }) : null;
    };
    for (const path of readdirSync(new URL("../../fixtures/v1/", import.meta.url))) {
      const file = readJobFile(JSON.stringify(frozen(`v1/${path}`)));
      if (!file.ok) throw new Error(path);
      expect([path, await raised(2, file.file)]).toEqual([path, writeFile({ ...file.file, kind: "shop" })]);
    }
    const rnd = seeded(8);
    const pick = <T>(list: readonly T[]): T => list[Math.floor(rnd() * list.length)];
    let taken = 0;
    for (let k = 0; k < many(80); k++) {
      const f = frozen("v0/shop.richlayer.json");
      for (const job of [...f.jobs]) if (rnd() < 0.5) f.jobs.push({ ...job, id: `${job.id}-more` });
      for (const e of [...f.log]) if (rnd() < 0.3) f.log.push({ ...e, id: `${e.id}-more` });
      for (let times = 1 + Math.floor(rnd() * 4); times > 0; times--) {
        const r = pick([f.shop, ...f.jobs, ...f.products, ...f.machines, ...f.log]) as Record<string, unknown>;
        const key = pick(Object.keys(r).filter((x) => !/id$/i.test(x)));
        const was = r[key];
        if (typeof was === "number") r[key] = pick([was + 1, was * 2, 1, 0.5]);
        else if (typeof was === "string") r[key] = pick([`${was} `, "other", was]);
        else if (typeof was === "boolean") r[key] = !was;
        else delete r[key];
      }
      const file = read(f);
      if (file === null) continue;
      taken++;
      expect(await raised(1, f)).toBe(file);
    }
    expect(taken).toBeGreaterThan(many(80) / 10);
  });
  test("every registered migration ran in this suite", () => {
    const names = RECORDS.flatMap((k) => k.migrations.map((m) => m.name));
    expect(names.length).toBeGreaterThan(0);
    for (const name of names) expect([name, (ran.get(name) ?? 0) > 0]).toEqual([name, true]);
  });
});
