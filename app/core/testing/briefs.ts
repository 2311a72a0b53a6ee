/** Seeded briefs over everything that can be planned: a job of any route with sensible materials, for tests of the whole engine. */
import { allSafe } from "../records/machine";
import { cells } from "../catalogue/support";
import { defaultMachine } from "../catalogue/starter";
import type { Product } from "../records/product";
import { Gear } from "../records/shop";
import type { World } from "../records/world";
import { a1, seeded, SHELF, stocked, zone } from "./worlds";

/** A Shelf with something for every route: sprays, brush paints, powders, inks, dye, tapes, clear coats. */
export const FULL_SHELF = (): Product[] => [
  ...SHELF(),
  ...[
    ["sky", "#7fb2d9"],
    ["grass", "#4f8f43"],
    ["sun", "#f2c230"],
    ["rust", "#a8481f"],
    ["plum", "#6a2c5a"],
    ["navy", "#22345c"],
  ].flatMap(([id, hex]) => [
    stocked(`e-${id}`, `${id} enamel`, "spray-enamel", hex),
    stocked(`b-${id}`, `${id} brush enamel`, "brush-enamel", hex),
    stocked(`c-${id}`, `${id} acrylic`, "craft-acrylic", hex),
    stocked(`p-${id}`, `${id} powder`, "powder", hex),
    stocked(`q-${id}`, `${id} cool powder`, "powder-low-cure", hex),
    stocked(`m-${id}`, `${id} marker`, "paint-marker", hex),
    stocked(`i-${id}`, `${id} ink`, "alcohol-ink", hex),
    stocked(`d-${id}`, `${id} dye`, "ceramic-dye", hex),
    stocked(`j-${id}`, `${id} poured`, "poured-acrylic", hex),
  ]),
  stocked("white-spray", "White enamel", "spray-enamel", "#f3f2ec"),
  stocked("titan", "Titanium white", "titanium-white", "#f6f6f2"),
  stocked("tape", "Blue tape", "painters-tape", "#6f97b8", { chlorinated: false }),
  stocked("heat-tape", "Amber tape", "polyimide-tape", "#c98a2b", { chlorinated: false }),
  stocked("shield", "Paper shield", "paper-shield", "#e8dfc8", { chlorinated: false }),
  stocked("epoxy", "Epoxy", "table-top-epoxy", "#f7f7f4"),
];
const PREFIX: Record<string, string> = {
  "spray-enamel": "e",
  "brush-enamel": "b",
  powder: "p",
  "paint-marker": "m",
  "alcohol-ink": "i",
  "ceramic-dye": "d",
  "poured-acrylic": "j",
  "craft-acrylic": "c",
  "titanium-white": "titan",
};
const COLOURS = ["sky", "grass", "sun", "rust", "plum", "navy"];

export const GEAR = (): Gear[] => [
  {
    ...new Gear(),
    id: "oven",
    kind: "oven",
    name: "Workshop oven",
    maxC: 230,
    trayW: 380,
    trayH: 320,
    notForFood: true,
  },
  { ...new Gear(), id: "gun", kind: "gun", name: "Heat gun", maxC: 550, lowFan: true },
];

/** one Shelf for all briefs: making and checking its products takes longer than planning with them */
let shelf: Product[] | null = null;
let gear: Gear[] | null = null;
let planned: Record<"first" | "later", ReturnType<typeof cells>> | null = null;

/** routes and bodies that came later have briefs of their own, so that the others stay the ones they were */
export const LATER: ReadonlySet<string> = new Set(["N", "acrylic-two-layer", "mark-face"]);
/** number from which briefs are about those */
export const LATER_FROM = 1_000_000;
/** how many different ones of those there are */
export const laterCells = (): number => split().later.length;
function split(): NonNullable<typeof planned> {
  const isLater = (c: ReturnType<typeof cells>[number]): boolean => LATER.has(c.route.id) || LATER.has(c.substrate.id);
  const all = planned ? [] : cells();
  return (planned ??= { first: all.filter((c) => !isLater(c)), later: all.filter(isLater) });
}

/** Brief number n: route, material, beam, colours, quantity and size drawn from the seed. */
export function brief(n: number): World {
  const r = seeded(n * 7919 + 17);
  const int = (k: number): number => Math.floor(r() * k);
  const all = split()[n >= LATER_FROM ? "later" : "first"];
  const cell = all[(n >= LATER_FROM ? n - LATER_FROM : n) % all.length];
  const { route, substrate, beam, shape } = cell;
  // board bears no oven as hot as ordinary powder wants it
  const finish = route.id === "D4" && substrate.family === "mdf" ? "q" : route.usual && PREFIX[route.usual];
  const k = 1 + int(Math.min(6, route.maxColours));
  const picks = [...COLOURS].sort(() => r() - 0.5).slice(0, k);
  const watts = { co2: 40, blue: 10, um1: 20, uv: 5 }[beam];
  const w = 60 + int(200);
  const h = 40 + int(160);
  const base = a1({ products: (shelf ??= FULL_SHELF()), shop: { gear: (gear ??= GEAR()) } });
  const machine = { ...allSafe(defaultMachine(beam, watts, `${beam}-m`)), airAssist: true };
  return {
    ...base,
    machines: [machine],
    job: {
      ...base.job,
      id: `brief-${n}`,
      route: route.id,
      machineId: machine.id,
      quantity: 1 + int(8),
      substrate: {
        id: substrate.id,
        w,
        h,
        t: [3, 5, 6, 8, 12][int(5)],
        ...(shape === "flat" ? {} : { shape, diameter: 80 }),
      },
      zones: picks.map((c, i) =>
        zone(`z${i}`, finish === null ? null : finish === "titan" ? "titan" : `${finish}-${c}`, {
          areaMm2: 200 + int(2000),
          perimeterMm: 80 + int(300),
          narrowestMm: 1.5 + r() * 3,
        }),
      ),
      choices: { ...base.job.choices, begin: undefined, maskChlorinated: false },
    },
  };
}
