/** Paper, calendar, CSV and zip, each read back by something that is not ours where there is one. */
import { own } from "../core/process/kinds";
import { execFileSync } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { a1, e1, seeded, SHELF, shop, stocked, zone } from "../core/testing/worlds";
import { workCard } from "../core/explain/card";
import { makePlan, type Plan } from "../core/plan/plan";
import { open } from "../core/judge/judge";
import { trips } from "../core/plan/trips";
import { LogEntry, type Photo } from "../core/records/log";
import { zonedClock } from "../core/time/zoned";
import { movesOf } from "../core/explain/why/moves";
import type { World } from "../core/records/world";
import { readLogCsv, readShelfCsv, writeLogCsv, writeShelfCsv } from "./csv";
import { writeCalendar } from "./export/ics";
import { jobFile, shopFile, writeFile } from "./export/job-file";
import { readJobFile, type FileRead } from "./import/job-file";
import { labelsPdf } from "./export/pdf/labels";
import type { FontFiles } from "./export/pdf/page";
import { workCardPdf } from "./export/pdf/work-card";
import { testWith } from "../testing/readers";
import { isZip, readZip, writeZip } from "./zip";

const font = (family: string, file: string): Uint8Array =>
  new Uint8Array(readFileSync(new URL(`../../node_modules/@fontsource/${family}/files/${file}.woff`, import.meta.url)));
const FONTS: FontFiles = {
  regular: font("atkinson-hyperlegible-next", "atkinson-hyperlegible-next-latin-400-normal"),
  bold: font("atkinson-hyperlegible-next", "atkinson-hyperlegible-next-latin-700-normal"),
  more: [
    font("atkinson-hyperlegible-next", "atkinson-hyperlegible-next-latin-ext-400-normal"),
    font("bricolage-grotesque", "bricolage-grotesque-latin-400-normal"),
  ],
};
const MADE = Date.parse("2027-01-11T09:00:00Z");
let dir = "";
beforeAll(() => (dir = mkdtempSync(join(tmpdir(), "richlayer-away-"))));
afterAll(() => rmSync(dir, { recursive: true, force: true }));

/** The words of a PDF as another reader finds them, and whether a third finds its structure clean. */
function readPdf(bytes: Uint8Array): { words: string; clean: string; pages: number } {
  const path = join(dir, "x.pdf");
  writeFileSync(path, bytes);
  const words = execFileSync("pdftotext", ["-layout", path, "-"], { encoding: "utf8" });
  return {
    words: words.replace(/\s+/g, " "),
    clean: execFileSync("qpdf", ["--check", path], { encoding: "utf8" }),
    pages: words.split("\f").length - 1,
  };
}
/** Wrapped lines break words apart by spaces only. */
const inWords = (words: string, text: string): boolean => words.replace(/\s+/g, "").includes(text.replace(/\s+/g, ""));

const waived = (w: World): World => {
  const s = open(makePlan(w)).find((x) => x.severity !== "hazard" && x.severity !== "never");
  return s
    ? {
        ...w,
        job: {
          ...w.job,
          waivers: [{ rule: s.rule, where: `${s.step ?? ""}/${s.zone ?? ""}`, reason: "only a trial, 20 µm at most" }],
        },
      }
    : w;
};
const WORLDS: [string, World][] = [
  [
    "E1, with a waiver and a caution",
    waived(
      e1({
        job: {
          title: "Bed märkers",
          client: "Quillmoor Seed Library",
          due: "2027-01-20T16:00",
          zones: [
            zone("z-fine", "beet", { name: "Fine line", narrowestMm: 0.5 }),
            zone("z-leaf", "marigold", { name: "Leaf", narrowestMm: 0.6 }),
          ],
        },
      }),
    ),
  ],
  ["A1", a1({ job: { title: "Splash tiles", due: "2027-01-22T12:00" } })],
  ["E1 in a cold shop", e1({ shop: { climate: { ...shop().climate, c: 12, rh: 0.7 } } })],
];

const paper = testWith("pdftotext", "qpdf");
const dates = testWith("icalendar");

describe("the work card", () => {
  paper.each(WORLDS)(
    "%s: every step, amount, wait, caution and waiver is on paper, and the file is sound",
    async (_n, w) => {
      const plan = makePlan(w);
      const moved = movesOf(plan, { of: "ready" });
      const card = workCard(plan, plan.start ?? 0, moved);
      const pdf = await workCardPdf(card, FONTS, MADE);
      const { words, clean } = readPdf(pdf);
      expect(clean).toContain("No syntax or stream encoding errors found");
      const must = [
        card.title,
        ...card.steps.flatMap((s) => [
          `${s.n}. ${s.title}`,
          s.takes,
          ...s.lines,
          s.lookFor,
          ...(s.wait ? [s.wait] : []),
          ...s.cautions,
        ]),
        ...card.amounts.flatMap((a) => [a.product, `${a.ml}, ${a.stock}`]),
        ...card.hazards,
        ...card.waivers,
        ...card.moves,
        ...card.origins.flatMap((o) => [`${o.of}: ${o.says}.`]),
      ];
      expect(card.moves.length).toBeGreaterThan(0);
      // every paint and the air, each with an origin
      for (const a of card.amounts)
        expect(card.origins.find((o) => o.of === a.product)?.says).toMatch(/\((default|data sheet|measured here)\)/);
      expect(card.origins.find((o) => o.of === "Air")?.says).toMatch(/climate\)$/);
      for (const text of must) expect([text, inWords(words, text)]).toEqual([text, true]);
      expect(card.steps).toHaveLength(plan.placed.length);
      expect(words.match(/good mend stop/g)!.length).toBe(plan.placed.length);
    },
  );
  test("the waiver of the first is really there", () =>
    expect(workCard(makePlan(WORLDS[0][1]), 0).waivers[0]).toContain("only a trial, 20 µm at most"));
  paper("the same card makes the same bytes; what no font has becomes a question mark", async () => {
    const card = workCard(makePlan(e1({ job: { title: "Ünïcode ł 茶 ok" } })), 0);
    const a = await workCardPdf(card, FONTS, MADE);
    expect(Buffer.from(await workCardPdf(card, FONTS, MADE)).equals(Buffer.from(a))).toBe(true);
    expect(inWords(readPdf(a).words, "Ünïcode ł ? ok")).toBe(true);
  });
  paper("labels: every piece has one, with its number, and they fill as many sheets as they need", async () => {
    const pdf = await labelsPdf(
      {
        jobId: "bed-markers",
        title: "Bed markers with a rather long name that wraps",
        client: "Quillmoor",
        due: "Wed 20 Jan, 16:00",
        pieces: 50,
      },
      FONTS,
      MADE,
    );
    const { words, clean, pages } = readPdf(pdf);
    expect(clean).toContain("No syntax or stream encoding errors found");
    expect(pages).toBe(3);
    for (let n = 1; n <= 50; n++) expect(words).toContain(`${n} of 50`);
  });
});

/** Events as an independent reader finds them: uid, start and end in UTC, alarms as seconds or moments. */
function readIcs(text: string): { uid: string; start: string; end: string; alarms: string[] }[] {
  const py = `
import sys, json, icalendar, datetime
cal = icalendar.Calendar.from_ical(sys.stdin.read())
out = []
for e in cal.walk("VEVENT"):
    t = lambda k: e.decoded(k).astimezone(datetime.timezone.utc).strftime("%Y-%m-%dT%H:%M")
    al = []
    at = lambda d: d.astimezone(datetime.timezone.utc).strftime("%Y-%m-%dT%H:%M")
    for a in e.walk("VALARM"):
        d = a.decoded("TRIGGER")
        al.append(at(d) if hasattr(d, "astimezone") else str(int(d.total_seconds())))
    out.append({"uid": str(e["UID"]), "start": t("DTSTART"), "end": t("DTEND"), "alarms": al})
print(json.dumps(out))`;
  return JSON.parse(execFileSync("/usr/bin/python3", ["-c", py], { input: text, encoding: "utf8" })) as ReturnType<
    typeof readIcs
  >;
}
const utc = zonedClock("UTC");

describe("the calendar file", () => {
  dates.each(WORLDS)("%s: one event a visit, at its true times, twice the same names", (_n, w) => {
    const plan = makePlan(w);
    const events = readIcs(writeCalendar(plan, MADE));
    expect(events.map((e) => [e.start, e.end])).toEqual(
      trips(plan).map((t) => [utc.toLocal(t.from), utc.toLocal(Math.max(t.to, t.from + 1))]),
    );
    expect(new Set(events.map((e) => e.uid)).size).toBe(events.length);
    for (const e of events) expect(e.uid).toMatch(/^[a-z0-9.-]+\.job@richlayer\.invalid$/);
    // exported again later, and after a change of a minute: the same names
    expect(readIcs(writeCalendar(plan, MADE + 3_600_000)).map((e) => e.uid)).toEqual(events.map((e) => e.uid));
    for (const e of events) expect(e.alarms[0]).toBe("0");
  });
  dates("a window that shuts rings before it does", () => {
    const plan = makePlan(WORLDS[1][1]);
    const closing = trips(plan).flatMap((t) => t.closing.map((c) => utc.toLocal(c.at - 10)));
    expect(closing.length).toBeGreaterThan(0);
    expect(readIcs(writeCalendar(plan, MADE)).flatMap((e) => e.alarms.filter((a) => a !== "0"))).toEqual(closing);
  });
  dates.each([
    ["2027-03-27T15:00", "spring"],
    ["2027-10-30T15:00", "autumn"],
  ])("a night on which the clock changes (%s): eleven hours of drying are eleven elapsed hours", (start) => {
    const slow = stocked("slow", "Slow", "craft-acrylic", "#a8235a", {
      times: { ...stocked("x", "x", "craft-acrylic", "#000000").times, recoat: 660 },
    });
    const all = { ...shop().hours, sat: ["00:00", "24:00"], sun: ["00:00", "24:00"] } as ReturnType<
      typeof shop
    >["hours"];
    const w = e1({
      job: { start, zones: [zone("z", "slow")] },
      choices: { proof: false },
      products: [...SHELF().filter((p) => p.id !== "white"), slow],
      shop: { zone: "Europe/Lisbon", hours: all },
    });
    const plan: Plan = makePlan(w);
    const coats = plan.placed.filter((p) => own(p.step, "productId") === "slow");
    expect(coats.length).toBeGreaterThan(1);
    expect(coats[1].start! - coats[0].end!).toBe(660);
    const events = readIcs(writeCalendar(plan, MADE));
    const [one, two] = coats
      .slice(0, 2)
      .map((c) => events.find((e) => e.start <= utc.toLocal(c.start!) && e.end >= utc.toLocal(c.end!))!);
    expect((Date.parse(`${two.start}Z`) - Date.parse(`${one.end}Z`)) / 3_600_000).toBe(11);
  });
});

describe("CSV", () => {
  const nasty = [
    "=1+1",
    "+x",
    "-y",
    "@z",
    "'quoted",
    "''",
    "a,b",
    'say "hi"',
    "two\nlines",
    "\tcell",
    "ünï ł 茶",
    "",
    "   ",
    "0012",
  ];
  test("a log out and in is the same log, formulas are kept as text, units stand in the headers", () => {
    const rnd = seeded(5);
    const log = Array.from({ length: 300 }, (_, i) => ({
      ...new LogEntry(),
      id: `job.${i}`,
      jobId: "job",
      kind: (["note", "piece", "done", "check"] as const)[i % 4],
      step: "dust",
      at: Math.round(rnd() * 1e8) / 100 + 3e7,
      piece: i % 3 ? i + 1 : null,
      answer: i % 5 ? null : ("mend" as const),
      actual: i % 7 ? null : -0 + rnd() * 10,
      note: nasty[i % nasty.length],
      c: i % 2 ? -4.5 : null,
    }));
    const text = writeLogCsv(log, utc);
    expect(text.split("\r\n")[0]).toContain("used (ml)");
    expect(text).not.toMatch(/(^|,)"?[=+@]/m);
    const read = readLogCsv(text, new Set(["job"]));
    expect(read).toEqual({ ok: true, rows: log });
    expect(readLogCsv(`\uFEFF${text}`, new Set(["job"]))).toEqual({ ok: true, rows: log });
  });
  test("a Shelf out and in is the same Shelf, cans and all", () => {
    const shelf = [
      ...SHELF(),
      ...nasty
        .filter((n) => n.trim())
        .map((n, i) =>
          stocked(`n${i}`, n, "spray-enamel", "#123456", {
            note: n,
            minC: -5,
            hideUm: i % 2 ? null : 33.3,
            chlorinated: i % 3 === 0 ? null : i % 3 === 1,
            cans:
              i % 2
                ? []
                : stocked("q", "q", "craft-acrylic", "#000000").cans.flatMap((c) => [
                    c,
                    { ...c, id: "second", leftMl: null, openedOn: "2027-01-02", lot: n },
                  ]),
          }),
        ),
    ];
    expect(readShelfCsv(writeShelfCsv(shelf))).toEqual({ ok: true, rows: shelf });
  });
  test("faults are named with their line and column", () => {
    const text = writeShelfCsv(SHELF().slice(0, 2));
    const say = (t: string): string =>
      ((r) => (r.ok ? "" : r.faults.map((f) => `${f.path} ${f.message}`).join("; ")))(readShelfCsv(t));
    expect(say(text.replace("#e8c27a", "beige"))).toBe("line 2.colour must be a colour such as #a1b2c3");
    expect(say(text.replace("shellac-spray", "no-such"))).toBe("line 2, finish “no-such” is not a finish");
    expect(say(text.replace("volume solids (0-1)", "solids"))).toMatch(/the column “volume solids \(0-1\)” is missing/);
    expect(say("")).toMatch(/columns .* are missing/);
    expect(say(text.replace(/,false,/, ",perhaps,"))).toMatch(/line 2, clear must be true or false/);
    const log = writeLogCsv([{ ...new LogEntry(), id: "a", jobId: "other", kind: "note", step: "dust", at: 1 }], utc);
    expect(readLogCsv(log, new Set(["job"]))).toEqual({
      ok: false,
      faults: [{ path: "line 2, job", message: "there is no job “other” here" }],
    });
  });
});

describe("the zip", () => {
  /** bytes that begin as a JPEG does */
  const photo = (id: string, bytes: number[]): Photo => ({
    version: 1,
    id,
    jobId: "job",
    at: 3e7,
    caption: "",
    data: Buffer.from([0xff, 0xd8, 0xff, ...bytes]).toString("base64"),
  });
  const w = e1();
  const file = shopFile({
    shop: w.shop,
    machines: w.machines,
    products: w.products,
    jobs: [{ ...w.job, id: "job" }],
    log: [],
    photos: [
      photo("p1", [1, 2, 3]),
      photo("p2", [1, 2, 3]),
      photo(
        "p3",
        Array.from({ length: 5000 }, (_, i) => i % 251),
      ),
    ],
  });
  testWith("zipfile")(
    "out and in is the same file; a photo used twice is kept once; the same bytes each time",
    async () => {
      const zip = await writeZip(file);
      expect(isZip(zip)).toBe(true);
      expect(Buffer.from(await writeZip(file)).equals(Buffer.from(zip))).toBe(true);
      const read = await readZip(zip);
      if (!read.ok) throw new Error(JSON.stringify(read.faults));
      expect(writeFile(read.file)).toBe(writeFile(file));
      writeFileSync(join(dir, "x.zip"), zip);
      const names = execFileSync(
        "/usr/bin/python3",
        [
          "-c",
          `import zipfile,sys\nz=zipfile.ZipFile(sys.argv[1])\nassert z.testzip() is None\nprint("\\n".join(z.namelist()))`,
          join(dir, "x.zip"),
        ],
        { encoding: "utf8" },
      )
        .trim()
        .split("\n");
      expect(names[0]).toBe("shop.richlayer.json");
      expect(names.slice(1)).toHaveLength(2);
      for (const n of names.slice(1)) expect(n).toMatch(/^photos\/[0-9a-f]{64}$/);
    },
  );
  test("a photo that is missing or changed is named; a zip of something else is refused", async () => {
    const { zipSync, unzipSync, strToU8 } = await import("fflate");
    const parts = unzipSync(await writeZip(file));
    const name = Object.keys(parts).find((n) => n.startsWith("photos/"))!;
    const say = async (p: Record<string, Uint8Array>): Promise<string> =>
      ((r) => (r.ok ? "ok" : r.faults.map((f) => `${f.path} ${f.message}`).join("; ")))(await readZip(zipSync(p)));
    expect(await say({ ...parts, [name]: new Uint8Array([9]) })).toMatch(/is not the picture its name says/);
    const less = Object.fromEntries(Object.entries(parts).filter(([n]) => n !== name));
    expect(await say(less)).toMatch(/which is not in the zip/);
    expect(await say({ "readme.txt": strToU8("hello") })).toMatch(/shop.richlayer.json is missing in the zip/);
    expect(await say({ ...parts, "../../evil": strToU8("x"), "photos/evil.svg": strToU8("<svg/>") })).toBe("ok");
    expect((await readZip(new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]))).ok).toBe(false);
  });
  test("a picture that could not be written out again is not taken in; a mark without its zip neither", async () => {
    const { zipSync, unzipSync, strToU8, strFromU8 } = await import("fflate");
    const { createHash } = await import("node:crypto");
    const parts = unzipSync(await writeZip(file));
    const json = strFromU8(parts["shop.richlayer.json"]);
    const mark = /sha256:([0-9a-f]{64})/.exec(json)![1];
    /** the zip with another picture in place of one */
    const withPicture = (bytes: Uint8Array): Promise<FileRead> => {
      const own = createHash("sha256").update(bytes).digest("hex");
      const rest = Object.fromEntries(Object.entries(parts).filter(([n]) => n !== `photos/${mark}`));
      return readZip(
        zipSync({
          ...rest,
          "shop.richlayer.json": strToU8(json.replaceAll(mark, own)),
          [`photos/${own}`]: [bytes, { level: 0 }],
        }),
      );
    };
    const jpeg = (n: number): Uint8Array => {
      const b = new Uint8Array(n);
      b.set([0xff, 0xd8, 0xff, 0xe0]);
      return b;
    };
    const told = (r: FileRead): string => (r.ok ? "ok" : r.faults.map((f) => f.message).join("; "));
    expect(told(await withPicture(jpeg(4_500_000)))).toBe("ok");
    expect(told(await withPicture(jpeg(4_500_001)))).toMatch(/is larger than 4.5 MB/);
    expect(told(await withPicture(strToU8("<script>1</script>")))).toMatch(/is not a JPEG, PNG or WebP picture/);
    expect(told(await withPicture(new Uint8Array(0)))).toMatch(/is not a JPEG, PNG or WebP picture/);
    // by itself the JSON of a zip has no pictures
    expect(told(readJobFile(json))).toMatch(/is not a JPEG, PNG or WebP picture/);
  });
  test("what unpacks to a thousand times its size is refused before it is unpacked", async () => {
    const { zipSync } = await import("fflate");
    const say = async (name: string, n: number): Promise<string> => {
      const r = await readZip(zipSync({ [name]: new Uint8Array(n).fill(32) }, { level: 9 }));
      return r.ok ? "ok" : r.faults[0].message;
    };
    expect(await say("shop.richlayer.json", 61_000_000)).toMatch(/far more than it should/);
    expect(await say("shop.richlayer.json", 30_000_000)).toMatch(/far more than it should/);
    expect(await say(`photos/${"0".repeat(64)}`, 30_000_000)).toMatch(/far more than it should/);
    expect(await say("shop.richlayer.json", 3_000_000)).toMatch(/not sound JSON/);
  });
  test("one job in a zip is one job", async () => {
    const read = await readZip(await writeZip(jobFile({ ...file }, "job")));
    expect(read.ok && read.file.kind).toBe("job");
  });
});
