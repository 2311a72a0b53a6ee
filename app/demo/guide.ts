/** A small job of each route, for the field guide: planned and simulated like any other, with default figures throughout. */
import { allSafe } from "../core/records/machine";
import { route } from "../core/catalogue/routes";
import { cells } from "../core/catalogue/support";
import { finishNamed } from "../core/catalogue/finishes";
import { substrateNamed } from "../core/catalogue/substrates";
import { defaultMachine, defaultProduct, STARTER } from "../core/catalogue/starter";
import { Choices, Job, Order, Substrate, WrapUp, type Zone } from "../core/records/job";
import { Climate, Gear, Hours, Shop } from "../core/records/shop";
import type { World } from "../core/records/world";

const COLOURS = ["#a8235a", "#e0a23a", "#2b6fa6"];
/** what a paint of that kind is called in a step */
const WORD: Record<string, string> = {
  spray: "enamel",
  brush: "paint",
  airbrush: "acrylic",
  marker: "marker",
  powder: "powder",
  pour: "paint",
  wipe: "dye",
  tape: "tape",
};
const NAMES = ["Petal", "Heart", "Leaf"];
/** what most makers of a route begin with */
const USUAL: Record<string, string> = {
  A1: "tile-glazed",
  A2: "mdf",
  A3: "mdf",
  A4: "mdf",
  D1: "hard-maple",
  D2: "aluminium-bare",
  D3: "hard-maple",
  D4: "hard-maple",
  E1: "hard-maple",
  E2: "hard-maple",
  F: "hard-maple",
  G: "hard-maple",
  H: "mdf",
};

export function guideWorld(routeId: string): World {
  const r = route(routeId);
  const all = cells().filter((c) => c.route.id === r.id);
  const cell = all.find((c) => c.substrate.id === USUAL[r.id]) ?? all[0];
  const fill = r.usual ?? "spray-enamel";
  const n = Math.min(r.maxColours, ["A2", "G"].includes(r.id) ? 2 : 3);
  const paints = COLOURS.slice(0, n).map((c, i) =>
    defaultProduct(
      `guide-${i}`,
      `${NAMES[i]} ${WORD[finishNamed(fill).by]}`,
      fill,
      fill === "titanium-white" ? "#f6f6f2" : c,
    ),
  );
  const zones: Zone[] = paints.map((p, i) => ({
    id: `g${i}`,
    name: NAMES[i],
    colour: COLOURS[i],
    areaMm2: 900 - 250 * i,
    perimeterMm: 160,
    narrowestMm: 2.5,
    pieces: 2,
    holes: 0,
    smallestMm2: 60,
    outline: `M${12 + i * 30} 10L${34 + i * 30} 10L${34 + i * 30} 46L${12 + i * 30} 46Z`,
    rows: [],
    productId: r.usual ? p.id : null,
    bare: false,
  }));
  const watts = { co2: 40, blue: 10, um1: 20, uv: 5 }[cell.beam];
  const machine = allSafe(defaultMachine(cell.beam, watts));
  return {
    shop: {
      ...new Shop(),
      hours: { ...new Hours() },
      hoursSet: true,
      climate: { ...new Climate(), measured: true },
      daysOff: [],
      tools: [],
      learned: [],
      gear: [
        { ...new Gear(), id: "oven", kind: "oven", name: "Oven", maxC: 230, trayW: 360, trayH: 300, notForFood: true },
        { ...new Gear(), id: "gun", kind: "gun", name: "Heat gun", maxC: 550, lowFan: true },
      ],
    },
    machines: [machine],
    products: [...(r.usual ? paints : []), ...STARTER.map((s) => defaultProduct(s.id, s.name, s.finish, s.colour))],
    job: {
      ...new Job(),
      id: `guide-${r.id.toLowerCase()}`,
      title: r.name,
      start: "2027-01-11T09:00",
      quantity: 2,
      substrate: {
        ...new Substrate(),
        id: substrateNamed(cell.substrate.id).id,
        w: 110,
        h: 60,
        t: 6,
        ...(cell.shape === "flat" ? {} : { shape: cell.shape, diameter: 80 }),
      },
      machineId: machine.id,
      route: r.id,
      artwork: { name: "three leaves", svg: "", w: 110, h: 60 },
      zones,
      choices: { ...new Choices(), maskChlorinated: false },
      order: { ...new Order() },
      wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
    },
    log: [],
  };
}
