/**
 * Damaged files, with a fixed seed: each is refused in a sentence that names what and where, or it is taken in, goes out the same
 * again and is planned without a throw. None hangs; nothing in any of them takes effect.
 */
import { readdirSync, readFileSync } from "node:fs";
import { strToU8, unzipSync, zipSync } from "fflate";
import { a1, e1, seeded, SHELF, shop, stocked, zone } from "../core/testing/worlds";
import { NASTY, randomShop } from "../testing/random-shop";
import { makePlan } from "../core/plan/plan";
import { LogEntry } from "../core/records/log";
import { sayFaults } from "../core/records/parse";
import type { Clip } from "../core/vector/clip";
import { SvgError } from "../core/vector/svg";
import { readZones } from "../core/vector/zones";
import { zonedClock } from "../core/time/zoned";
import { loadClip } from "../door/kernel";
import { readLogCsv, readShelfCsv, writeLogCsv, writeShelfCsv } from "./csv";
import { shopFile, writeFile, type ShopRecords } from "./export/job-file";
import { readJobFile, worldOf, type FileRead } from "./import/job-file";
import { readAnyFile, readZip, writeZip } from "./zip";

/** files of each of 29 kinds of damage; `npm run fuzz` makes ten thousand and more in all */
const CASES = 50 * Math.max(1, Number(process.env.FUZZ ?? 1));
const HANG_MS = 10_000;
type Rnd = () => number;
const pick = <T>(rnd: Rnd, list: readonly T[]): T => list[Math.floor(rnd() * list.length)];

const w = e1();
const records: ShopRecords = {
  shop: shop(),
  machines: w.machines,
  products: SHELF(),
  jobs: [
    {
      ...w.job,
      edits: [{ id: "e1", op: "set", step: "coat.seal.1", after: null, field: "minutes", value: 20 }],
      due: "2027-01-20T16:00",
    },
    { ...a1().job, id: "tiles" },
  ],
  log: [
    { ...new LogEntry(), id: "l1", jobId: "job", kind: "start", step: "inspect-blank", at: 29993400 },
    { ...new LogEntry(), id: "l2", jobId: "job", kind: "done", step: "inspect-blank", at: 29993410 },
  ],
  photos: [
    {
      version: 1,
      id: "p1",
      jobId: "job",
      at: 29993400,
      caption: "",
      data: Buffer.from([0xff, 0xd8, 0xff, 1, 2, 3, 4, 5]).toString("base64"),
    },
  ],
};
const TEXT = writeFile(shopFile(records));
const fresh = (): Record<string, unknown> => JSON.parse(TEXT) as Record<string, unknown>;

/** Every place in a value that holds something, as [holder, key]. */
function places(v: unknown, out: [Record<string, unknown>, string][] = []): [Record<string, unknown>, string][] {
  if (v && typeof v === "object")
    for (const k of Object.keys(v)) {
      out.push([v as Record<string, unknown>, k]);
      places((v as Record<string, unknown>)[k], out);
    }
  return out;
}
const changed = (
  rnd: Rnd,
  change: (holder: Record<string, unknown>, key: string) => void,
  only: (v: unknown) => boolean = () => true,
): string => {
  const f = fresh();
  const [h, k] = pick(
    rnd,
    places(f).filter(([a, b]) => only(a[b])),
  );
  change(h, k);
  return JSON.stringify(f);
};

const JOB_DAMAGE: Record<string, (rnd: Rnd) => string> = {
  "cut short": (r) => TEXT.slice(0, Math.floor(r() * TEXT.length)),
  "a byte flipped": (r) =>
    ((i) => TEXT.slice(0, i) + String.fromCharCode(32 + Math.floor(r() * 90)) + TEXT.slice(i + 1))(
      Math.floor(r() * TEXT.length),
    ),
  "a value of another type": (r) =>
    changed(r, (h, k) => (h[k] = pick(r, [{}, [], "text", 7, true, [[]], "2027-99-99T00:00"]))),
  "a number out of bounds": (r) =>
    changed(
      r,
      (h, k) => (h[k] = pick(r, [-1, 1e300, 0.5, -1e-9, 9e15])),
      (v) => typeof v === "number",
    ),
  "a key missing": (r) => changed(r, (h, k) => delete h[k]),
  "a key too many": (r) => changed(r, (h, k) => (Array.isArray(h) ? h.push(1) : (h[`${k}2`] = 1))),
  "a reserved key": (r) =>
    changed(r, (h, k) =>
      Array.isArray(h)
        ? h.push({ constructor: 1 })
        : Object.defineProperty(h, pick(r, ["__proto__", "constructor", "prototype"]), {
            value: { hit: k },
            enumerable: true,
            configurable: true,
          }),
    ),
  "a record twice": (r) =>
    ((f) => (
      ((list) => list.push(pick(r, list)))(f[pick(r, ["jobs", "products", "log", "machines"])] as unknown[]),
      JSON.stringify(f)
    ))(fresh()),
  "a reference to nothing": (r) =>
    ((f) => (((f.log as Record<string, unknown>[])[0].jobId = pick(r, ["ghost", "", "JOB"])), JSON.stringify(f)))(
      fresh(),
    ),
  "nested too deep": (r) =>
    ((n) => TEXT.replace('"tools": []', `"tools": ${"[".repeat(n)}${"]".repeat(n)}`))(45 + Math.floor(r() * 4000)),
  "text grown huge": (r) =>
    changed(
      r,
      (h, k) => (h[k] = "x".repeat(5000 + Math.floor(r() * 400000))),
      (v) => typeof v === "string",
    ),
  "nasty text": (r) =>
    changed(
      r,
      (h, k) => (h[k] = pick(r, NASTY)),
      (v) => typeof v === "string",
    ),
  "a photo that is none": (r) =>
    ((f) => (
      ((f.photos as Record<string, unknown>[])[0].data = pick(r, [
        "",
        "AAAA",
        "data:image/svg+xml,<svg onload=hit=1>",
        Buffer.from("<svg/>").toString("base64"),
        "/9j/é",
      ])),
      JSON.stringify(f)
    ))(fresh()),
  "keys in another order": (r) =>
    JSON.stringify(
      fresh(),
      Object.keys(Object.fromEntries(places(fresh()).map(([, k]) => [k, 0]))).sort(() => r() - 0.5),
    ),
};

/** Taken in soundly: out, in and out again the same, and every job planned. */
function soundly(read: FileRead): void {
  if (!read.ok) throw new Error("not sound");
  const out = writeFile(read.file);
  const again = readJobFile(out);
  if (!again.ok) throw new Error(`goes out but not in again: ${sayFaults(again.faults)}`);
  expect(writeFile(again.file)).toBe(out);
  for (const j of read.file.jobs) makePlan(worldOf(read.file, j.id)!);
}
const sentence = (read: FileRead): string => (read.ok ? "" : sayFaults(read.faults));
let refused = 0;
let all = 0;
function judge(what: string, began: number, say: string, ok: boolean): void {
  all++;
  if (!ok) {
    refused++;
    expect([
      what,
      say.length > 8 && say.length < 900 && !/undefined(?! entity)|\[object|TypeError|at .*\.ts/.test(say),
    ]).toEqual([what, true]);
  }
  expect([what, Date.now() - began < HANG_MS]).toEqual([what, true]);
  expect((globalThis as Record<string, unknown>).hit).toBeUndefined();
  expect(({} as Record<string, unknown>).hit).toBeUndefined();
}

describe("job files", () => {
  test.each(Object.keys(JOB_DAMAGE))("%s", (kind) => {
    const rnd = seeded(kind.length * 977);
    for (let i = 0; i < CASES; i++) {
      const text = JOB_DAMAGE[kind](rnd);
      const began = Date.now();
      const read = readJobFile(text);
      if (read.ok) soundly(read);
      judge(`${kind} ${i}`, began, sentence(read), read.ok);
    }
  });
});

describe("zips", () => {
  const DAMAGE: Record<string, (rnd: Rnd, zip: Uint8Array) => Uint8Array> = {
    "cut short": (r, z) => z.slice(0, Math.floor(r() * z.length)),
    "bytes flipped": (r, z) =>
      ((c) => (Array.from({ length: 4 }, () => (c[Math.floor(r() * c.length)] ^= 1 + Math.floor(r() * 255))), c))(
        z.slice(),
      ),
    "a photo gone or changed": (r, z) =>
      ((p, n) => (r() < 0.5 ? delete p[n] : (p[n] = strToU8(`x${r()}`)), zipSync(p)))(
        ...((p) => [p, Object.keys(p).find((k) => k.startsWith("photos/"))!] as const)(unzipSync(z)),
      ),
    "entries that do not belong": (r, z) =>
      zipSync({
        ...unzipSync(z),
        [pick(r, ["../../evil", "/etc/x", "photos/../x", "a.html", "shop.richlayer.json/x"])]: strToU8(pick(r, NASTY)),
      }),
  };
  test.each(Object.keys(DAMAGE))("%s", async (kind) => {
    const zip = await writeZip(shopFile(records));
    const rnd = seeded(kind.length * 31);
    for (let i = 0; i < CASES; i++) {
      const bytes = DAMAGE[kind](rnd, zip);
      const began = Date.now();
      const read = bytes[0] === 0x50 ? await readZip(bytes) : await readAnyFile(bytes);
      if (read.ok) soundly(read);
      judge(`${kind} ${i}`, began, sentence(read), read.ok);
    }
  });
});

describe("drawings", () => {
  const BODY =
    '<style>.a{fill:#a8235a}</style><defs><path id="p" d="M10 10h20v20h-20z"/></defs><g transform="translate(2 ' +
    '3)"><use href="#p" class="a"/><circle cx="50" cy="50" r="20" fill="#2f6b3a" stroke="#000" stroke-width="2"/></g><path ' +
    'd="M5 80C20 60 40 95 60 80z" fill="#f3b61f"/>';
  const svg = (body: string, head = ""): string =>
    `${head}<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" ` +
    `height="100mm" viewBox="0 0 100 100">${body}</svg>`;
  const put = (r: Rnd, extra: string): string =>
    ((at) => svg(BODY.slice(0, at) + extra + BODY.slice(at)))(pick(r, [0, BODY.indexOf("<g "), BODY.length]));
  const DAMAGE: Record<string, (rnd: Rnd) => string> = {
    "cut short": (r) => svg(BODY).slice(0, Math.floor(r() * svg(BODY).length)),
    "scripts and events": (r) =>
      put(
        r,
        pick(r, [
          "<script>globalThis.hit=1</script>",
          '<circle cx="5" cy="5" r="3" fill="#123456" onload="hit=1" onclick="hit=1"/>',
          '<a href="javascript:hit=1"><rect width="5" height="5" fill="#123456"/></a>',
          "<foreignObject><body onload='hit=1'/></foreignObject>",
          "<handler>hit=1</handler>",
        ]),
      ),
    "entities and doctypes": (r) =>
      svg(
        BODY,
        pick(r, [
          '<!DOCTYPE svg [<!ENTITY a "b">]>',
          '<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>',
          '<!DOCTYPE svg [<!ENTITY a "aa"><!ENTITY b "&a;&a;&a;">]>',
          "<!DOCTYPE svg PUBLIC '-//x' 'http://example.invalid/x.dtd'>",
        ]),
      ).replace("</svg>", `<title>${pick(r, ["&a;", "&x;", "&b;", "t"])}</title></svg>`),
    "references to outside": (r) =>
      put(
        r,
        pick(r, [
          '<image href="http://example.invalid/a.png" width="9" height="9"/>',
          '<use href="http://example.invalid/a.svg#x"/>',
          "<style>@import url(http://example.invalid/a.css);.z{fill:url(http://example.invalid/#g)}</style>",
          '<rect class="z" width="9" height="9" fill="url(http://example.invalid/#g)"/>',
          '<?xml-stylesheet href="http://example.invalid/a.css"?>',
        ]),
      ),
    "numbers that are none": (r) =>
      svg(
        BODY.replace(/\d+/g, (n) =>
          r() < 0.15 ? pick(r, ["NaN", "1e999", "-", "1e-400", "9".repeat(30), "0", ""]) : n,
        ),
      ),
    "what paint cannot follow": (r) =>
      put(
        r,
        pick(r, [
          "<text>x</text>",
          '<rect width="5" height="5" opacity=".5"/>',
          '<rect width="5" height="5" fill="url(#no)"/>',
          '<g filter="url(#f)"><rect width="5" height="5"/></g>',
          '<rect width="5" height="5" fill-opacity="0.3"/>',
          '<rect width="5" height="5" clip-path="url(#none)"/>',
        ]),
      ),
    "nested or looped": (r) =>
      ((n) =>
        pick(r, [
          svg("<g>".repeat(n) + BODY + "</g>".repeat(n)),
          svg(`${BODY}<g id="l"><use href="#l"/></g>`),
          svg(`<defs><g id="m"><use href="#n"/></g><g id="n"><use href="#m"/></g></defs>${BODY}<use href="#m"/>`),
        ]))(200 + Math.floor(r() * 4000)),
  };
  let clip: Clip;
  beforeAll(async () => void (clip = await loadClip()));
  test.each(Object.keys(DAMAGE))("%s", (kind) => {
    const rnd = seeded(kind.length * 1009);
    for (let i = 0; i < CASES; i++) {
      const text = DAMAGE[kind](rnd);
      const began = Date.now();
      let say = "";
      let ok = true;
      try {
        const found = readZones(clip, text);
        for (const z of found.zones) {
          expect(z.outline).toMatch(/^[MLZ0-9 .-]*$/);
          expect([z.areaMm2, z.perimeterMm, z.narrowestMm].every((n) => Number.isFinite(n) && n >= 0)).toBe(true);
        }
        const job = {
          ...e1().job,
          artwork: { name: "x", svg: text.slice(0, 100), w: found.widthMm, h: found.heightMm },
          zones: found.zones.map((z) => zone(z.id, "beet", z)),
        };
        // measured, it is planned, goes out and comes in again
        soundly(readJobFile(writeFile(shopFile({ ...records, jobs: [job], log: [], photos: [] }))));
      } catch (e) {
        if (!(e instanceof SvgError)) throw e;
        ok = false;
        say = e.message;
      }
      judge(`${kind} ${i}`, began, say, ok);
    }
  });
});

describe("CSV", () => {
  const shelf = [...SHELF(), stocked("two", "Two cans", "spray-enamel", "#123456")];
  const csv = writeShelfCsv(shelf);
  const log = writeLogCsv(
    Array.from({ length: 12 }, (_, i) => ({
      ...new LogEntry(),
      id: `l${i}`,
      jobId: "job",
      kind: "note" as const,
      step: "dust",
      at: 1000 + i,
      note: "n",
    })),
    zonedClock("UTC"),
  );
  const cells = (rnd: Rnd, text: string, change: (cell: string) => string): string =>
    ((lines) =>
      ((i) => (
        (lines[i] = ((c) => ((k) => ((c[k] = change(c[k])), c.join(",")))(Math.floor(rnd() * c.length)))(
          lines[i].split(","),
        )),
        lines.join("\r\n")
      ))(1 + Math.floor(rnd() * (lines.length - 2))))(text.split("\r\n"));
  const DAMAGE: Record<string, (rnd: Rnd) => [string, "shelf" | "log"]> = {
    "cut short": (r) => [csv.slice(0, Math.floor(r() * csv.length)), "shelf"],
    "a cell of something else": (r) =>
      r() < 0.5
        ? [cells(r, csv, () => pick(r, ["perhaps", "-5e9", "2027", "#zzz", "NaN"])), "shelf"]
        : [cells(r, log, () => pick(r, ["perhaps", "-5e9", "2027", "#zzz", "NaN"])), "log"],
    "formulas and quotes": (r) => [
      cells(r, log, () => pick(r, ['"=1+1"', '"a', '"a""b"', "=hyperlink(1)", "@x"])),
      "log",
    ],
    "cells too few or many": (r) => [
      cells(r, csv, (c) => (r() < 0.5 ? `${c},` : "")).replace(/,,/, r() < 0.3 ? "," : ",,"),
      "shelf",
    ],
  };
  test.each(Object.keys(DAMAGE))("%s", (kind) => {
    const rnd = seeded(kind.length * 77);
    for (let i = 0; i < CASES; i++) {
      const [text, what] = DAMAGE[kind](rnd);
      const began = Date.now();
      const read = what === "shelf" ? readShelfCsv(text) : readLogCsv(text, new Set(["job"]));
      if (read.ok) {
        const out =
          what === "shelf"
            ? writeShelfCsv(read.rows as ReturnType<typeof SHELF>)
            : writeLogCsv(read.rows as LogEntry[], zonedClock("UTC"));
        expect(what === "shelf" ? readShelfCsv(out) : readLogCsv(out, new Set(["job"]))).toEqual(read);
        if (what === "shelf") makePlan({ ...e1(), products: read.rows as ReturnType<typeof SHELF> });
      }
      judge(`${kind} ${i}`, began, read.ok ? "" : sayFaults(read.faults), read.ok);
    }
  });
});

test("of all damage between two and nine in ten are refused", () => {
  console.log(`${all} damaged files, ${Math.round((100 * refused) / all)} % refused`);
  expect(all).toBe(CASES * 29);
  expect(refused / all).toBeGreaterThan(0.4);
  expect(refused / all).toBeLessThan(0.9);
});

describe("out, in and out again", () => {
  test("a hundred generated shops: the same bytes", () => {
    for (let k = 0; k < 100; k++) {
      const f = shopFile(randomShop(k + 1));
      const out = writeFile(f);
      const read = readJobFile(out);
      if (!read.ok) throw new Error(`shop ${k}: ${sayFaults(read.faults)}`);
      expect(writeFile(read.file)).toBe(out);
    }
  });
  test("every frozen file is still taken in and planned", () => {
    for (const v of ["v0", "v1"]) {
      const dir = new URL(`../../fixtures/${v}/`, import.meta.url);
      for (const name of readdirSync(dir)) {
        const read = readJobFile(readFileSync(new URL(name, dir), "utf8"));
        expect([name, sentence(read)]).toEqual([name, ""]);
        soundly(read);
      }
    }
  });
});
