/** Small sound worlds for tests: a plain shop, one machine, a shelf with full cans, a job for each route. */
import { allSafe } from "../records/machine";
import { randomOf } from "../units/random";
import { defaultMachine, defaultProduct } from "../catalogue/starter";
import { finishNamed } from "../catalogue/finishes";
import { Choices, Job, Order, Substrate, WrapUp, type Zone } from "../records/job";
import { Can, type Product } from "../records/product";
import { Climate, Hours, Shop } from "../records/shop";
import type { World } from "../records/world";

/** How many of many seeded trials: all of them, or a share of them where fault after fault is tried (`MANY=0.1`). */
export const many = (n: number): number => Math.max(3, Math.round(n * ((globalThis as { MANY?: number }).MANY ?? 1)));

export const stocked = (
  id: string,
  name: string,
  finishId: string,
  colour: string,
  more: Partial<Product> = {},
): Product => {
  const ml = finishNamed(finishId).by === "spray" ? 2000 : 500;
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
  // without spares, so that figures are those of the pieces ordered; with spares: briefs
  choices: Object.assign(new Choices(), { begin: 1 }),
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
  machines: [allSafe(defaultMachine("co2", 40, "co2-40"))],
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
