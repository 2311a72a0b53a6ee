/** Small sound worlds for tests: a plain shop, one machine, a shelf with full cans, a job for each route. */
import { randomOf } from "../../app/core/schedule/random";
import { defaultMachine, defaultProduct } from "../../app/core/catalogue/starter";
import { finish } from "../../app/core/catalogue/finishes";
import { Choices, Job, Order, Substrate, WrapUp, type Zone } from "../../app/core/records/job";
import { Can, type Product } from "../../app/core/records/product";
import { Climate, Hours, Shop } from "../../app/core/records/shop";
import type { World } from "../../app/core/records/world";
import { LogEntry } from "../../app/core/records/log";
import type { ShopRecords } from "../../app/io/export/job-file";

export const stocked = (
  id: string,
  name: string,
  finishId: string,
  colour: string,
  more: Partial<Product> = {},
): Product => {
  const ml = finish(finishId).by === "spray" ? 2000 : 500;
  return {
    ...defaultProduct(id, name, finishId, colour),
    cans: [{ ...new Can(), id: `${id}.can1`, label: "Can 1", fullMl: ml, leftMl: ml }],
    ...more,
  };
};

export const SHELF = (): Product[] => [
  stocked("shellac", "Shellac", "shellac-spray", "#e8c27a"),
  stocked("white", "White", "craft-acrylic", "#f0efe9"),
  stocked("beet", "Beet", "craft-acrylic", "#a8235a"),
  stocked("marigold", "Marigold", "craft-acrylic", "#f3b61f"),
  stocked("poppy", "Poppy", "spray-enamel", "#d8432f"),
  stocked("black", "Black", "spray-enamel", "#17161b"),
  stocked("clear", "Clear", "spray-clear", "#f5f5f5"),
];

export const constant = (c: number, rh = 0.5): Climate => ({
  ...new Climate(),
  kind: "constant",
  c,
  rh,
  hourly: [],
  measured: true,
});
/** A day that swings between two temperatures, coldest at three in the morning. */
export const swing = (low: number, high: number, rh = 0.5): Climate => ({
  ...constant((low + high) / 2, rh),
  kind: "hourly",
  hourly: Array.from({ length: 24 }, (_, h) => ({
    c: (low + high) / 2 + ((high - low) / 2) * Math.cos((2 * Math.PI * (h - 15)) / 24),
    rh,
  })),
});

export const shop = (more: Partial<Shop> = {}): Shop => ({
  ...new Shop(),
  zone: "UTC",
  hours: { ...new Hours() },
  hoursSet: true,
  climate: constant(20),
  daysOff: [],
  tools: [],
  learned: [],
  ...more,
});

export const zone = (id: string, productId: string | null, more: Partial<Zone> = {}): Zone => ({
  id,
  name: id,
  colour: "#a8235a",
  areaMm2: 600,
  perimeterMm: 200,
  narrowestMm: 2,
  pieces: 1,
  holes: 0,
  smallestMm2: 600,
  outline: "",
  rows: [],
  productId,
  bare: false,
  ...more,
});

const base = (more: Partial<Job>): Job => ({
  ...new Job(),
  id: "job",
  title: "A job",
  start: "2027-01-11T08:00",
  substrate: { ...new Substrate() },
  use: [],
  zones: [],
  choices: { ...new Choices() },
  edits: [],
  waivers: [],
  acknowledged: [],
  order: { ...new Order() },
  wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
  machineId: "co2-40",
  ...more,
});

export interface Shape {
  job?: Partial<Job>;
  choices?: Partial<Job["choices"]>;
  shop?: Partial<Shop>;
  products?: Product[];
}

const world = (job: Job, s: Shape): World => ({
  shop: shop(s.shop),
  machines: [defaultMachine("co2", 40, "co2-40")],
  products: s.products ?? SHELF(),
  job: { ...job, ...s.job, choices: { ...job.choices, ...s.choices } },
  log: [],
});

/** Engrave, seal, fill, sand back: two zones in maple. */
export const e1 = (s: Shape = {}): World =>
  world(
    base({
      route: "E1",
      quantity: 6,
      substrate: { id: "hard-maple", w: 120, h: 60, t: 8 },
      zones: [zone("lettering", "beet"), zone("leaf", "marigold", { areaMm2: 300, perimeterMm: 120 })],
    }),
    s,
  );

/** Colour under a dark top: one zone on glazed tile. */
export const a1 = (s: Shape = {}): World =>
  world(
    base({
      route: "A1",
      quantity: 4,
      substrate: { id: "tile-glazed", w: 100, h: 100, t: 6 },
      zones: [zone("flower", "poppy", { areaMm2: 1500, perimeterMm: 300 })],
    }),
    s,
  );

/** Numbers with a fixed seed, so that every run draws the same ones. */
export const seeded = (seed: number): (() => number) => randomOf(seed).next;

/** Text that must stay text wherever it goes. */
export const NASTY = [
  "<script>globalThis.hit=1</script>",
  "javascript:hit=1",
  "=cmd()",
  "../../etc",
  "\u0000\u0007",
  "😀茶",
  '"><img onerror=hit=1>',
  "%s%n",
  "{{7*7}}",
  "'; drop --",
];

/** A whole shop of chance, sound in every field; the same for the same seed. */
export function randomShop(seed: number): ShopRecords {
  const r = seeded(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(r() * list.length)];
  const text = (): string => pick(["", "Beet", ...NASTY.filter((x) => !x.includes("\u0000"))]);
  const jobs = Array.from({ length: Math.floor(r() * 4) }, (_, i) => ({
    ...(r() < 0.5 ? e1() : a1()).job,
    id: `job${i}`,
    note: text(),
    client: text(),
    quantity: 1 + Math.floor(r() * 50),
    due: r() < 0.5 ? null : "2027-03-01T12:00",
    edits:
      r() < 0.5
        ? []
        : [
            {
              id: "e",
              op: "set" as const,
              step: "dust",
              after: null,
              field: "minutes",
              value: Math.round(r() * 1e4) / 100,
            },
          ],
    ...(r() < 0.5 ? {} : { credit: text() || "own" }),
  }));
  return {
    shop: shop({
      name: text() || "s",
      tolerance: 1 + Math.round(r() * 50) / 10,
      climate: {
        ...shop().climate,
        ...(r() < 0.5 ? {} : { readings: [{ at: Math.round(r() * 1e6), c: Math.round(r() * 300) / 10, rh: 0.5 }] }),
      },
    }),
    machines: r() < 0.5 ? [] : e1().machines,
    products: SHELF()
      .filter(() => r() < 0.7)
      .map((p) => ({ ...p, note: text(), hideUm: r() < 0.5 ? null : 0.1 + r() * 100 })),
    jobs,
    log: jobs.flatMap((j, i) =>
      Array.from({ length: Math.floor(r() * 5) }, (_, n) => ({
        ...new LogEntry(),
        id: `l${i}.${n}`,
        jobId: j.id,
        kind: "note" as const,
        step: "dust",
        at: r() * 1e8,
        note: text(),
      })),
    ),
    photos: jobs
      .filter(() => r() < 0.3)
      .map((j, i) => ({
        version: 1,
        id: `p${i}`,
        jobId: j.id,
        at: r() * 1e7,
        caption: text(),
        data: Buffer.from([0xff, 0xd8, 0xff, Math.floor(r() * 256)]).toString("base64"),
      })),
  };
}
