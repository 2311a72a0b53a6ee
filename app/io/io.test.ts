import { readdirSync, readFileSync } from "node:fs";
import { a1, e1, SHELF, shop } from "../core/testing/worlds";
import { loadClip } from "../door/kernel";
import { buildSample } from "../demo/build";
import { makePlan } from "../core/plan/plan";
import { open } from "../core/judge/judge";
import { standing } from "../core/bench/next";
import { check, must, sayFaults } from "../core/records/parse";
import { Job } from "../core/records/job";
import { Product } from "../core/records/product";
import { zonedClock } from "../core/time/zoned";
import { readZones, type FoundArtwork } from "../core/vector/zones";
import { fileName, jobFile, shopFile, writeFile } from "./export/job-file";
import { BadInput, jobFromBrief, NoAnswer } from "./import/brief";
import { readJobFile, worldOf, type FileRead } from "./import/job-file";

const sound = () =>
  JSON.parse(
    writeFile(
      shopFile({
        shop: shop(),
        machines: e1().machines,
        products: SHELF(),
        jobs: [e1().job],
        log: [],
        photos: [],
      }),
    ),
  ) as Record<string, unknown>;
const faults = (r: FileRead): string => (r.ok ? "" : sayFaults(r.faults));
/** A sound file with one thing at a path changed. */
function broken(path: string, value: unknown): string {
  const f = sound();
  const keys = path.split(".");
  let at = f as Record<string, unknown>;
  for (const k of keys.slice(0, -1)) at = at[k] as Record<string, unknown>;
  if (value === undefined) delete at[keys[keys.length - 1]];
  else at[keys[keys.length - 1]] = value;
  return JSON.stringify(f);
}

describe("job files in", () => {
  test("a sound one", () => expect(readJobFile(JSON.stringify(sound())).ok).toBe(true));
  test.each([
    ["not JSON", "{", /not sound JSON/],
    ["cut off", JSON.stringify(sound()).slice(0, 400), /not sound JSON/],
    ["something else", '{"hello":1}', /not a Rich Layer file/],
    ["a list", "[]", /not a Rich Layer file/],
    [
      "a version from the future",
      broken("richlayer", 99),
      /richlayer the file was written by a newer Rich Layer \(version 99; this one reads up to 1\)/,
    ],
    ["a version that is none", broken("richlayer", "one"), /version number/],
    ["a job of no quantity", broken("jobs.0.quantity", 0), /jobs\[0\]\.quantity must be at least 1/],
    ["a width in words", broken("jobs.0.substrate.w", "wide"), /jobs\[0\]\.substrate\.w must be a number/],
    ["a colour that is none", broken("jobs.0.zones.1.colour", "red"), /jobs\[0\]\.zones\[1\]\.colour must be a colour/],
    ["a field missing", broken("jobs.0.title", undefined), /^jobs\[0\]\.title is missing$/],
    ["a field too many", broken("jobs.0.haste", 1), /jobs\[0\]\.haste is not a field/],
    [
      "an unknown substrate",
      broken("jobs.0.substrate.id", "cheese"),
      /jobs\[0\]\.substrate\.id “cheese” is not a substrate/,
    ],
    ["an unknown finish", broken("products.2.finish", "glitter"), /products\[2\]\.finish “glitter”/],
    ["an unknown zone of time", broken("shop.zone", "Middle/Nowhere"), /shop\.zone/],
    ["hours the wrong way", broken("shop.hours.mon", ["morning", "noon"]), /shop\.hours\.mon/],
    [
      "a climate of 23 hours",
      broken("shop.climate", {
        kind: "hourly",
        c: 20,
        rh: 0.5,
        hourly: Array.from({ length: 23 }, () => ({ c: 1, rh: 0.5 })),
        air: "still",
        measured: true,
      }),
      /must hold 24 points, has 23/,
    ],
    ["damp of 140 %", broken("shop.climate.rh", 1.4), /shop\.climate\.rh must be at most 1/],
    ["no number", broken("machines.0.watts", null), /machines\[0\]\.watts must be/],
    ["an outline in words", broken("jobs.0.zones.1.outline", "round"), /zones\[1\]\.outline must be an outline of/],
    ["an outline of half a corner", broken("jobs.0.zones.1.outline", "M0 0L5"), /zones\[1\]\.outline must be an/],
    ["an outline with no beginning", broken("jobs.0.zones.1.outline", "L0 0L5 5Z"), /zones\[1\]\.outline must be an/],
    ["a day that there is not", broken("jobs.0.due", "2027-02-30T10:00"), /jobs\[0\]\.due must be a day that there is/],
    ["a year of long ago", broken("jobs.0.start", "0027-02-03T10:00"), /start must be a day .* 1990 to 2199/],
    ["a holiday that never was", broken("shop.daysOff", ["2027-06-31"]), /shop\.daysOff must be a day that there is/],
    [
      "a name of a million letters",
      broken(`jobs.0.${"q".repeat(1e6)}`, 1),
      /^jobs\[0\]\.q{60}… is not a field of this record$/,
    ],
    ["a due date in words", broken("jobs.0.due", "soon"), /jobs\[0\]\.due must be a local time/],
    ["a reserved key", `${JSON.stringify(sound()).slice(0, -1)},"__proto__":{"x":1}}`, /__proto__/],
  ])("%s is refused with its place", (_name, text, says) => expect(faults(readJobFile(text))).toMatch(says));
  test("the same id twice, a log entry of no job, two jobs in a file of one", () => {
    const f = sound() as { jobs: object[]; log: object[]; kind: string };
    expect(faults(readJobFile(JSON.stringify({ ...f, jobs: [f.jobs[0], f.jobs[0]] })))).toMatch(
      /jobs\[1\]\.id “job” is there twice/,
    );
    expect(
      faults(readJobFile(JSON.stringify({ ...f, kind: "job", jobs: [f.jobs[0], { ...f.jobs[0], id: "b" }] }))),
    ).toMatch(/holds one job/);
    const entry = {
      version: 1,
      id: "l",
      jobId: "nobody",
      kind: "start",
      step: "label",
      at: 1,
      piece: null,
      answer: null,
      of: null,
      predicted: null,
      actual: null,
      stepKind: "",
      ml: null,
      productId: null,
      c: null,
      rh: null,
      note: "",
    };
    expect(faults(readJobFile(JSON.stringify({ ...f, log: [entry] })))).toMatch(
      /log\[0\]\.jobId points to the job “nobody”/,
    );
  });
  test("a list far too long is told before anything in it is looked at, and faults without end are not counted to the last", () => {
    const f = sound();
    const many = (n: number): FileRead =>
      readJobFile(JSON.stringify({ ...f, jobs: Array.from({ length: n }, () => ({})) }));
    expect(faults(many(100_000))).toMatch(/^jobs must hold at most \d+ records$/);
    const some = many(4000);
    expect(some.ok ? 0 : some.faults.length).toBeLessThan(600);
    expect(faults(some)).toMatch(/^jobs\[0\]\.version is missing; .*; and \d+ more$/);
  });
  test("every fault is told at once", () => {
    const f = sound() as { jobs: Record<string, unknown>[] };
    f.jobs[0].quantity = 0;
    f.jobs[0].title = 5;
    const r = readJobFile(JSON.stringify(f));
    expect(r.ok ? 0 : r.faults.length).toBe(2);
  });
});

describe("files out", () => {
  test("out, in, out: the same bytes, whatever the order of keys and records", () => {
    const text = writeFile(
      shopFile({
        shop: shop(),
        machines: e1().machines,
        products: [...SHELF()].reverse(),
        jobs: [{ ...a1().job, id: "z" }, e1().job],
        log: [],
        photos: [],
      }),
    );
    const r = readJobFile(text);
    expect(r.ok && writeFile(r.file)).toBe(text);
    expect(text).not.toMatch(/2026-11|exportedAt/);
  });
  test("a job's file plans alike elsewhere", () => {
    const w = e1();
    const text = writeFile(
      jobFile(
        {
          shop: w.shop,
          machines: w.machines,
          products: w.products,
          jobs: [w.job, { ...a1().job, id: "other" }],
          log: [],
          photos: [],
        },
        "job",
      ),
    );
    const r = readJobFile(text);
    if (!r.ok) throw new Error(faults(r));
    expect(r.file.jobs).toHaveLength(1);
    expect(makePlan(worldOf(r.file)!).ready).toBe(makePlan(w).ready);
  });
  test("names that can be found again", () => {
    expect(fileName("Quillmoor Seed Library Bed märkers!", "2027-01-11", ".richlayer.json")).toBe(
      "quillmoor-seed-library-bed-ma-rkers-2027-01-11.richlayer.json",
    );
    expect(fileName("…", "2027-01-11", ".ics")).toBe("rich-layer-2027-01-11.ics");
  });
});

describe("frozen exports", () => {
  const files = readdirSync(new URL("../../fixtures/v1/", import.meta.url));
  test("there are at least five", () => expect(files.length).toBeGreaterThanOrEqual(5));
  test.each(files)("%s imports, goes out identically and is planned", (name) => {
    const text = readFileSync(new URL(`../../fixtures/v1/${name}`, import.meta.url), "utf8");
    const r = readJobFile(text);
    if (!r.ok) throw new Error(faults(r));
    expect(writeFile(r.file)).toBe(text);
    const plan = makePlan(worldOf(r.file)!);
    expect(plan.placed.length + plan.missing.length).toBeGreaterThan(0);
  });
});

describe("the sample shop", () => {
  /** the drawings are the same whatever the day: each is measured once */
  const measured = new Map<string, FoundArtwork>();
  test.each(["2026-11-24T09:10", "2027-03-27T16:00", "2026-10-25T11:00"])(
    "is sound and tells true stories at %s",
    async (local) => {
      const clip = await loadClip();
      const clock = zonedClock("Europe/Lisbon");
      const now = clock.fromLocal(local);
      const kept = new Map(
        (JSON.parse(readFileSync("app/demo/drawings.json", "utf8")) as { svg: string; found: FoundArtwork }[]).map(
          (d) => [d.svg, d.found],
        ),
      );
      const f = await buildSample(now, "Europe/Lisbon", async (svg) => {
        const found = measured.get(svg) ?? readZones(clip, svg);
        measured.set(svg, found);
        return found;
      });
      // what ships with the sample is what measuring gives (npm run fixtures writes it)
      expect([...measured]).toEqual([...kept]);
      expect(readJobFile(writeFile(f)).ok).toBe(true);
      const by = (id: string) => worldOf(f, id)!;
      for (const id of ["bed-markers", "splash-tiles"]) {
        const s = standing(makePlan(by(id), now), now);
        expect(["ready", "waiting", "done"]).toContain(s.is);
      }
      expect(standing(makePlan(by("first-markers"), now), now).is).toBe("closed");
      expect(makePlan(by("kale-markers"), now).missing.map((m) => m.what)).toEqual(["route"]);
      expect(open(makePlan(by("blue-tiles"), now)).map((s) => s.rule)).toContain(32);
      for (const e of f.log) expect(e.at).toBeLessThanOrEqual(now + 1);
    },
  );
});

describe("records", () => {
  test("what is stored is what the validator returned: plain, with nothing else in it", () => {
    const r = check(Product, { ...SHELF()[0] });
    expect(r.ok && Object.getPrototypeOf(r.value)).toBe(Object.prototype);
    expect(check(Product, null).ok).toBe(false);
    expect(check(Product, []).ok).toBe(false);
    expect(() => must(Job, {})).toThrow(/Job/);
  });
  test("very deep input is refused before anything walks it", () => {
    let deep: unknown = 1;
    for (let i = 0; i < 60; i++) deep = { a: deep };
    const r = check(Job, deep);
    expect(r.ok ? "" : sayFaults(r.faults)).toMatch(/too deeply/);
  });
  test("a long list of faults is cut with its count", () =>
    expect(sayFaults(Array.from({ length: 9 }, (_, i) => ({ path: `p${i}`, message: "is wrong" })))).toMatch(
      /and 4 more$/,
    ));
});

describe("briefs", () => {
  const brief = (more: object = {}) => ({
    brief: 1,
    route: "E1",
    quantity: 3,
    substrate: { id: "hard-maple", w: 120, h: 60, t: 8 },
    beam: { id: "co2", watts: 40 },
    zones: [
      {
        id: "word",
        areaMm2: 500,
        perimeterMm: 200,
        narrowestMm: 2,
        finish: "craft-acrylic",
        colour: "#a8235a",
      },
    ],
    now: "2027-01-11T08:00",
    zone: "Europe/Lisbon",
    hours: { mon: ["08:00", "20:00"] },
    climate: { c: 18, rh: 0.6 },
    ...more,
  });
  const made = (more: object = {}) => worldOf(jobFromBrief(brief(more), null))!;
  test("becomes a job that plans", () => {
    const w = made();
    expect(makePlan(w).ready).not.toBeNull();
    expect(w.shop.climate).toMatchObject({ kind: "constant", c: 18, rh: 0.6, measured: true });
    expect(w.shop.hours).toMatchObject({ mon: ["08:00", "20:00"], tue: null });
  });
  test("no route: one that fits is chosen; none fits: said so", () => {
    expect(made({ route: null }).job.route).toBe("E1");
    expect(made({ route: null, substrate: { id: "slate", w: 100, h: 100, t: 5 } }).job.route).toBe("A1");
    expect(() => made({ route: null, substrate: { id: "acrylic-clear", w: 100, h: 100, t: 3 } })).toThrow(NoAnswer);
    expect(() => made({ route: "A1" })).toThrow(/does not go on hard maple/);
  });
  test("hourly climates and drawings", async () => {
    const w = made({ climate: { hourly: Array.from({ length: 24 }, (_, h) => [10 + h / 2, 0.5]) } });
    expect(w.shop.climate.hourly[4]).toEqual({ c: 12, rh: 0.5 });
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" width="50mm" height="20mm" viewBox="0 0 50 20"><rect width="20" ' +
      'height="10" fill="#a8235a"/></svg>';
    const drawn = worldOf(jobFromBrief(brief({ zones: undefined, svg }), await loadClip()))!;
    expect(drawn.job.zones[0]).toMatchObject({
      areaMm2: expect.closeTo(200, 6),
      productId: "craft-acrylic-a8235a",
    });
  });
  test.each([
    [{ brief: 2 }, /brief/],
    [{ substrate: { id: "cheese", w: 1, h: 1, t: 1 } }, /cheese/],
    [{ zones: [] }, /at least one zone/],
    [{ zones: [{ id: "a" }] }, /zones\[0\]\.areaMm2 is missing/],
    [{ zones: [{ id: "a", areaMm2: -1 }] }, /areaMm2/],
    [{ zones: [{ id: "a", areaMm2: 5, finish: "glitter" }] }, /glitter/],
    [{ climate: { hourly: [[1, 1]] } }, /24 points, has 1/],
    [{ zone: "Middle/Nowhere" }, /Middle\/Nowhere/],
    [{ use: ["flying"] }, /flying/],
    [{ beam: { id: "plasma", watts: 5 } }, /beam/],
    [{ route: "Q7" }, /Q7/],
    [{ extra: 1 }, /extra is not a field/],
  ])("refuses %j in a sentence", (more, says) => {
    expect(() => made(more)).toThrow(BadInput);
    expect(() => made(more)).toThrow(says);
  });
});
