/** The documented file format and the files agree: every frozen and generated file fits the schema, and the schema knows every field. */
import { readdirSync, readFileSync } from "node:fs";
import { a1, e1, SHELF, shop, zone } from "../core/testing/worlds";
import { FULL_SHELF, GEAR } from "../core/testing/briefs";
import { Gear } from "../core/records/shop";
import { RichLayerFile } from "../core/records/file";
import { fieldsOf } from "../core/records/fields";
import { readJobFile } from "./import/job-file";
import { jobFile, shopFile, writeFile } from "./export/job-file";

/** fields that every record had when minor versions began */
const FIELDS_OF_1_0 = 269;

interface Schema {
  $ref?: string;
  type?: string | string[];
  properties?: Record<string, Schema>;
  required?: string[];
  items?: Schema;
  additionalProperties?: boolean;
}
const SCHEMA = JSON.parse(readFileSync(new URL("../../docs/richlayer.schema.json", import.meta.url), "utf8")) as Schema;

/** What stands elsewhere in the schema, `#/properties/shop`. */
const found = <S extends { $ref?: string }>(s: S): S =>
  s.$ref === undefined
    ? s
    : (s.$ref
        .split("/")
        .slice(1)
        .reduce<unknown>((o, k) => (o as Record<string, unknown>)[k], SCHEMA) as S);

/** The part of JSON Schema that the format uses; every fault with its path. */
function faults(v: unknown, told: Schema, at = ""): string[] {
  const s = found(told);
  const is = v === null ? "null" : Array.isArray(v) ? "array" : typeof v;
  const types = s.type === undefined ? [] : [s.type].flat();
  if (types.length && !types.includes(is) && !(is === "number" && types.includes("integer")))
    return [`${at} is ${is}, not ${types.join(" or ")}`];
  if (is === "array") return s.items ? (v as unknown[]).flatMap((x, i) => faults(x, s.items!, `${at}[${i}]`)) : [];
  if (is !== "object" || !s.properties) return [];
  const o = v as Record<string, unknown>;
  return [
    ...(s.required ?? []).filter((k) => !(k in o)).map((k) => `${at}.${k} is missing`),
    ...Object.keys(o).flatMap((k) =>
      s.properties![k]
        ? faults(o[k], s.properties![k], `${at}.${k}`)
        : s.additionalProperties === false
          ? [`${at}.${k} is not in the schema`]
          : [],
    ),
  ];
}

test("every frozen file fits", () => {
  const dir = new URL("../../fixtures/v1/", import.meta.url);
  for (const name of readdirSync(dir))
    expect([name, faults(JSON.parse(readFileSync(new URL(name, dir), "utf8")), SCHEMA)]).toEqual([name, []]);
});
test("a shop with everything that may be absent fits", () => {
  const w = e1({
    choices: {
      driedInEnclosure: true,
      maskId: "tape",
      finishing: ["epoxy"],
      schools: ["melt:oven"],
      placedBy: "nest",
      emptyPockets: [2],
      mirrored: false,
      airStaysOn: true,
      onBareBed: true,
      trap: true,
      lossShare: 0.1,
      faces: 4,
      trialOf: ["route:D1"],
      trialOut: ["D1"],
    },
    job: {
      credit: "own drawing",
      due: "2027-01-20T10:00",
      areas: { kind: "bands", angle: 90, overlapMm: 4, fadeMm: 3, strips: [{ zone: "leaf", from: 0, to: 60 }] },
      names: { x: 1, y: 2, w: 30, h: 8, bold: true, oneSize: false, tracking: 0, font: "own.ttf" },
      zones: [{ ...zone("leaf", "beet"), onPieces: [{ n: 1, text: "Leek", outline: "M0 0L1 0L1 1Z" }] }],
      picture: {
        name: "heron.jpg",
        photo: "picture.a",
        pxW: 900,
        pxH: 600,
        exif: 6,
        small: "AAAA",
        smallW: 3,
        w: 122,
        h: 62,
        fit: "cover",
        dx: 1,
        dy: -1,
        quarters: 1,
        flip: true,
        crop: { x: 0, y: 0, w: 0.5, h: 1 },
        mix: [0.5, 0.3, 0.2],
        tone: [
          { do: "levels", off: true, black: 0, white: 1, gamma: 1.2 },
          { do: "curve", points: [0, 0, 1, 1] },
          { do: "light", shadows: 10, highlights: -5, radiusMm: 3 },
          { do: "brighten", amount: 20, region: [0, 0, 1, 0, 1, 1], featherMm: 2 },
          { do: "threshold", at: 0.5 },
          { do: "clean", within: 0.1 },
        ],
        unlaid: true,
        render: "dot-screen",
        serpentine: true,
        perCm: 12,
        angle: 30,
        plain: true,
        watched: { name: "Face", ring: [0, 0, 1, 0, 1, 1] },
      },
      edits: [{ id: "e", op: "set", step: "dust", after: null, field: "minutes", value: 3 }],
    },
  });
  const f = shopFile({
    shop: shop({
      gear: [
        ...GEAR(),
        {
          ...new Gear(),
          id: "tray",
          kind: "jig",
          name: "Tray",
          pockets: { across: 4, down: 2, w: 90, h: 60, gap: 5, x: 10, y: 10 },
        },
      ],
      schools: ["coats:heavy"],
      routeRulesOff: ["veneer"],
      sprayHours: ["10:00", "16:00"],
      loudHours: ["08:00", "20:00"],
      outdoors: { latitude: 45, longitude: 10, coldC: 4, warmC: 16, leastC: 10 },
      rackPlaces: 24,
      clockFace: "12",
      weekStart: "sun",
      climate: { ...shop().climate, readings: [{ at: 1, c: 20, rh: 0.5 }] },
    }),
    machines: [{ ...w.machines[0], changeOver: [] }],
    products: [
      ...SHELF(),
      {
        ...FULL_SHELF().find((p) => p.finish === "powder")!,
        flowC: 120,
        holdC: 180,
        holdMin: 10,
        packing: 0.5,
        density: 1.5,
      },
      {
        ...FULL_SHELF().find((p) => p.id === "tape")!,
        limitC: 150,
        swatches: [
          { id: "swatch.1", over: "#111111", seen: "#444444", um: null, coats: 1, when: "dry" as const, note: "" },
        ],
      },
    ],
    jobs: [
      w.job,
      { ...a1().job, id: "two", substrate: { id: "glass-coated", w: 100, h: 60, t: 1, shape: "ball", diameter: 80 } },
    ],
    log: [],
    photos: [{ version: 1, id: "p", jobId: "job", at: 1, caption: "", data: "/9j/AA==" }],
  });
  expect(faults(JSON.parse(writeFile(f)), SCHEMA)).toEqual([]);
  expect(faults(JSON.parse(writeFile(jobFile(f, "job"))), SCHEMA)).toEqual([]);
});
interface Told {
  $ref?: string;
  properties?: Record<string, Told>;
  items?: Told;
  required?: string[];
  since?: number;
}
/** Every field of a class and of what it holds, and what the schema says of it; what an added field holds is as new as that field. */
function compare(type: new () => object, told: Told, at: string, out: unknown[][], since = 0): unknown[][] {
  for (const [key, f] of fieldsOf(type)) {
    const said = told.properties?.[key];
    const s = said && found(said);
    expect([key, s !== undefined, told.required?.includes(key) ?? false, s?.since ?? 0]).toEqual([
      key,
      true,
      !f.maybe,
      f.since,
    ]);
    out.push([`${at}.${key}`, f.since || since]);
    if (f.holds) compare(f.holds(), s?.items ?? s!, `${at}.${key}`, out, f.since || since);
  }
  return out;
}
test("the schema tells of every field whether it may be absent, and the minor version that added it", () => {
  const all = compare(RichLayerFile, SCHEMA as Told, "", []);
  // A field more than these was added: it says `@Since(n)`, with n one above its record's newest, in the class and in the schema.
  expect(all.filter(([, since]) => since === 0)).toHaveLength(FIELDS_OF_1_0);
});
test("every field that a frozen file must have: without it the file is refused, by its path", () => {
  const text = readFileSync(new URL("../../fixtures/v1/kale-markers.richlayer.json", import.meta.url), "utf8");
  const places: (string | number)[][] = [];
  const walk = (type: new () => object, v: unknown, at: (string | number)[]): void => {
    if (Array.isArray(v)) return v.slice(0, 2).forEach((x, i) => walk(type, x, [...at, i]));
    if (v === null || typeof v !== "object") return;
    for (const [key, f] of fieldsOf(type)) {
      if (!f.maybe) places.push([...at, key]);
      if (f.holds) walk(f.holds(), (v as Record<string, unknown>)[key], [...at, key]);
    }
  };
  walk(RichLayerFile, JSON.parse(text), []);
  expect(places.length).toBeGreaterThan(200);
  for (const at of places) {
    const file = JSON.parse(text) as Record<string, unknown>;
    const holder = at.slice(0, -1).reduce<Record<string, unknown>>((o, k) => o[k] as Record<string, unknown>, file);
    delete holder[at.at(-1)!];
    const path = at.reduce<string>((p, k) => (typeof k === "number" ? `${p}[${k}]` : p ? `${p}.${k}` : k), "");
    const read = readJobFile(JSON.stringify(file));
    const told = read.ok ? [] : read.faults.map((f) => `${f.path} ${f.message}`);
    expect([path, told[0]]).toEqual([path, expect.stringMatching(/ is missing(: this is not a Rich Layer file)?$/)]);
    expect(told[0].startsWith(`${path} `)).toBe(true);
  }
});
test("the checker does find faults", () => {
  const f = JSON.parse(
    writeFile(shopFile({ shop: shop(), machines: [], products: SHELF(), jobs: [e1().job], log: [], photos: [] })),
  ) as { jobs: Record<string, unknown>[] };
  f.jobs[0].quantity = "six";
  delete f.jobs[0].title;
  f.jobs[0].haste = 1;
  expect(faults(f, SCHEMA).sort()).toEqual([
    ".jobs[0].haste is not in the schema",
    ".jobs[0].quantity is string, not number",
    ".jobs[0].title is missing",
  ]);
});
