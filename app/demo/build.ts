/** Typed builders of the sample shop; the drawings are measured, the bench runs are taken from real plans. */
import { allSafe } from "../core/records/machine";
import { defaultMachine, defaultProduct } from "../core/catalogue/starter";
import { withArtwork } from "../core/geometry/artwork";
import { keptWith } from "../core/plan/begun";
import { makePlan, turns } from "../core/plan/plan";
import { kindOf, own } from "../core/process/kinds";
import { RichLayerFile } from "../core/records/file";
import { Choices, Job, Order, Substrate, WrapUp } from "../core/records/job";
import { LogEntry } from "../core/records/log";
import { must } from "../core/records/parse";
import { Can, type Product } from "../core/records/product";
import { Climate, Gear, Hours, Shop } from "../core/records/shop";
import { zonedClock, type ZonedClock } from "../core/time/zoned";
import type { World } from "../core/records/world";
import type { FoundArtwork } from "../core/vector/zones";
import { evenBands, wholeFace } from "../core/geometry/areas";
import type { Picture, ToneStep } from "../core/records/picture";
import type { Photo } from "../core/records/log";
import { shopFile } from "../io/export/job-file";
import pictures from "./pictures.json";
import { bedMarker, doorSign, drawerTag, globe, poppies, ringAndHeart, seedGlass, sowingPanel } from "./drawings";

export type Measure = (svg: string) => Promise<FoundArtwork>;

const can = (p: string, n: number, fullMl: number, leftMl: number | null, openedOn: string | null): Can => ({
  ...new Can(),
  id: `${p}.can${n}`,
  label: `Can ${n}`,
  fullMl,
  leftMl,
  openedOn,
});

function shelf(day: (ago: number) => string): Product[] {
  const p = (
    id: string,
    name: string,
    finish: string,
    colour: string,
    cans: [number, number | null, number][],
    more: Partial<Product> = {},
  ): Product => ({
    ...defaultProduct(id, name, finish, colour),
    cans: cans.map(([full, left, ago], i) => can(id, i + 1, full, left, day(ago))),
    ...more,
  });
  return [
    p("beet", "Beet", "craft-acrylic", "#a8235a", [[60, 41, 40]], {
      coatUm: 20,
      origin: "measured here",
      note: "Swatched on maple: two coats over white.",
    }),
    p("leaf-green", "Leaf green", "craft-acrylic", "#5d9a3c", [[60, 52, 21]]),
    p("marigold", "Marigold", "craft-acrylic", "#f3b61f", [[60, 18, 90]]),
    p("white-acrylic", "White acrylic", "craft-acrylic", "#f0efe9", [[120, 75, 60]]),
    p("poppy", "Poppy", "spray-enamel", "#d8432f", [[400, 310, 30]], { sheen: "satin" }),
    p("harbour", "Harbour blue", "spray-enamel", "#2b6fa6", [[400, 60, 200]]),
    p("coral", "Coral", "spray-enamel", "#f07a5a", [[400, 400, 3]]),
    p("slate-black", "Slate black", "spray-enamel", "#17161b", [[400, 260, 45]], {
      coatUm: 10,
      origin: "data sheet",
      sheen: "flat",
    }),
    p("shellac", "Shellac", "shellac-spray", "#e8c27a", [[400, 330, 25]]),
    p("clear-acrylic", "Clear acrylic", "spray-clear", "#f5f5f5", [
      [400, 350, 18],
      [400, null, 1],
    ]),
    p("sky", "Sky", "spray-enamel", "#7fb2d9", [[400, 380, 12]]),
    p("meadow", "Meadow", "spray-enamel", "#5d9a3c", [[400, 350, 12]]),
    p("straw", "Straw", "spray-enamel", "#e0a23a", [[400, 300, 40]]),
    p("plum-spray", "Plum", "spray-enamel", "#5a2a52", [[400, 290, 40]]),
    p("white-spray", "White enamel", "spray-enamel", "#f3f2ec", [[400, 400, 9]]),
    p("navy-enamel", "Navy enamel", "brush-enamel", "#22345c", [[50, 44, 30]]),
    p("lagoon", "Lagoon, thinned to pour", "poured-acrylic", "#2b6fa6", [[250, 240, 6]]),
    p("ember-powder", "Ember powder", "powder", "#c4471e", [], {
      chlorinated: false,
      note: "Its sheet: polyester, no chlorine.",
    }),
    p("straw-powder", "Straw powder", "powder-low-cure", "#e0b84a", [], { chlorinated: false }),
    p("titan", "Titanium white", "titanium-white", "#f6f6f2", [[400, 370, 20]]),
    p("rose-marker", "Rose marker", "paint-marker", "#b8476d", [[8, 6, 15]]),
    p("moss-marker", "Moss marker", "paint-marker", "#55743a", [[8, 7, 15]]),
    p("blue-tape", "Blue painter’s tape", "painters-tape", "#6f97b8", [], { chlorinated: false }),
    p("amber-tape", "Amber polyimide tape", "polyimide-tape", "#c98a2b", [], { chlorinated: false }),
    p("shield", "Paper shields", "paper-shield", "#e8dfc8", [], { chlorinated: false }),
    p("fine-lacquer", "Fine lacquer, ivory", "spray-lacquer", "#efe3c4", []),
  ];
}

/** What a pack of it costs, in cents, and what it holds where its cans don’t say. */
function priceOf({ finish }: Product): Pick<Product, "priceMinor" | "pack"> {
  if (/^spray|shellac-spray|titanium/.test(finish)) return { priceMinor: 1090 };
  if (finish.startsWith("powder")) return { priceMinor: 1450, pack: 500 };
  if (/tape|film|shield/.test(finish)) return { priceMinor: 890, pack: 12 };
  return { priceMinor: 480 };
}

/** A shed that cools at night. */
const shed = (): Climate => ({
  ...new Climate(),
  kind: "hourly",
  c: 15.5,
  rh: 0.66,
  measured: true,
  air: "still",
  hourly: Array.from({ length: 24 }, (_, h) => ({
    c: Math.round((15.5 + 3.5 * Math.cos((2 * Math.PI * (h - 15)) / 24)) * 10) / 10,
    rh: Math.round((0.66 - 0.06 * Math.cos((2 * Math.PI * (h - 15)) / 24)) * 100) / 100,
  })),
});

function job(id: string, title: string, more: Partial<Job>): Job {
  return {
    ...new Job(),
    id,
    title,
    client: "Quillmoor Seed Library",
    start: "2027-01-01T09:00",
    substrate: { ...new Substrate() },
    choices: { ...new Choices() },
    order: { ...new Order() },
    wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
    zones: [],
    edits: [],
    waivers: [],
    acknowledged: [71, 72, 86, 87],
    machineId: "co2-45",
    ...more,
  };
}

/** Taps as a careful hand would have made them: the plan's own times, a little off, up to a moment or a number of steps. */
function ran(world: World, c: ZonedClock, until: { before?: number; steps?: number; midway?: boolean }): LogEntry[] {
  const plan = makePlan(world, null);
  const log: LogEntry[] = [];
  let k = 0;
  const put = (kind: LogEntry["kind"], step: string, at: number, more: Partial<LogEntry> = {}): void => {
    const air = plan.context.air;
    const m = c.minuteOfDay(Math.floor(at));
    log.push({
      ...new LogEntry(),
      id: `${world.job.id}.${(k++).toString().padStart(5, "0")}`,
      jobId: world.job.id,
      kind,
      step,
      at,
      c: Math.round(air.c(m) * 10) / 10,
      rh: Math.round(air.rh(m) * 100) / 100,
      ...more,
    });
  };
  for (const [i, { plan: here, p }] of turns(plan).entries()) {
    if (p.start === null || p.end === null) break;
    if (until.steps !== undefined && i > until.steps) break;
    if (until.before !== undefined && p.start > until.before) break;
    put("start", p.step.id, p.start);
    const last = until.steps === i || (until.before !== undefined && p.end > until.before);
    const n =
      last && until.midway
        ? Math.floor(p.pieces / 4)
        : last && until.steps === undefined
          ? Math.floor((p.pieces * ((until.before ?? 0) - p.start)) / (p.end - p.start))
          : p.pieces;
    const setup = Math.min(p.setupMin ?? 0, p.end - p.start);
    // piece 1 has gone first, where one does
    const others = Number(plan.proof?.gone.has(p.step.id) ?? false);
    for (let piece = 1; piece <= n; piece++) {
      const at = p.start + setup + ((p.end - p.start - setup) * piece) / p.pieces;
      // nothing is tapped that has not happened yet
      if ((p.perPieceMin ?? 0) > 0 && !(until.before !== undefined && at > until.before))
        put("piece", p.step.id, at, { piece: piece + others });
    }
    if (last && (until.midway || until.steps === undefined)) break;
    put("check", p.step.id, p.end - 0.2, { answer: i % 7 === 4 ? "mend" : "good" });
    const use = here.uses[p.index];
    const shut = p.pauses.reduce((a, [from, to]) => a + to - from, 0);
    put("done", p.step.id, p.end, {
      stepKind: kindOf(p.step.kind).id,
      predicted: p.uncorrected,
      // minutes of work, as the bench counts them: a night between two pieces is none
      actual: Math.max(0.5, p.end - p.start - shut + ((i * 7) % 5) - 1),
      ml: use?.ml ?? null,
      productId: use ? own(p.step, "productId") : null,
    });
  }
  return log;
}

/**
 * @param now minutes since 1970 @param measure reads a drawing's zones
 */
export async function buildSample(now: number, zone: string, measure: Measure): Promise<RichLayerFile> {
  const c = zonedClock(zone);
  const today = c.dayNumber(now);
  const at = (days: number, hhmm: string): string =>
    c.toLocal(c.atDay(today + days, Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3))));
  const day = (ago: number): string => at(-ago, "12:00").slice(0, 10);
  const shop: Shop = {
    ...new Shop(),
    name: "Sample shop",
    zone,
    hours: { ...new Hours(), sat: ["09:00", "13:00"] },
    hoursSet: true,
    climate: shed(),
    daysOff: [],
    tools: ["small flat brush no. 4", "liner", "heat gun"],
    learned: [],
    rates: { handsMinor: 2600, pieceMinor: 35, margin: 0.45 },
    blanks: [
      {
        id: "maple-winter",
        name: "Maple, winter lot",
        substrate: "hard-maple",
        w: 120,
        h: 60,
        t: 8,
        came: 90,
        eachMinor: 115,
        cameOn: day(40),
        note: "Ask for boards dried to 8 %.",
        rejects: [
          { at: day(38), n: 3, why: "knot" },
          { at: day(38), n: 2, why: "warp" },
        ],
      },
    ],
    gear: [
      {
        ...new Gear(),
        id: "oven",
        kind: "oven",
        name: "Enamel oven, green label",
        maxC: 230,
        trayW: 360,
        trayH: 300,
        notForFood: true,
      },
      { ...new Gear(), id: "gun", kind: "gun", name: "Heat gun", maxC: 550, lowFan: true },
      { ...new Gear(), id: "tag-nest", kind: "jig", name: "Tag nest, cut from ply", errorMm: 0.1 },
      { ...new Gear(), id: "rotary", kind: "rotary", name: "Rotary, four rollers", gripMm: 110 },
    ],
    demo: "quillmoor",
  };
  const machines = [
    {
      ...allSafe(defaultMachine("co2", 45, "co2-45")),
      name: "Tube laser, 45 W",
      minorPerHour: 650,
      depthPerJ: 0.36,
      powerPoints: [
        { set: 12, watts: 3 },
        { set: 50, watts: 22 },
        { set: 100, watts: 45 },
      ],
      airAssist: true,
    },
    {
      ...allSafe(defaultMachine("blue", 10, "blue-10")),
      name: "Diode laser, 10 W",
      minorPerHour: 180,
      enclosed: false,
      bedW: 400,
      bedH: 400,
    },
    {
      ...allSafe(defaultMachine("um1", 20, "um1-20")),
      name: "Fibre laser, 20 W",
      minorPerHour: 520,
      bedW: 150,
      bedH: 150,
    },
  ];
  const products = shelf(day).map((p): Product => ({ ...p, ...priceOf(p) }));
  const draw = async (
    j: Job,
    name: string,
    svg: string,
    finish: Record<string, string>,
    names: Record<string, string> = NAMES,
  ): Promise<Job> => {
    const w = { ...j, ...withArtwork(j, name, svg, await measure(svg)) };
    return {
      ...w,
      zones: w.zones.map((z) => ({ ...z, name: names[z.colour] ?? z.name, productId: finish[z.colour] ?? null })),
    };
  };
  const NAMES: Record<string, string> = {
    "#a8235a": "Lettering",
    "#5d9a3c": "Leaf",
    "#d8432f": "Poppies",
    "#f3b61f": "Lettering",
    "#2b6fa6": "Poppies",
  };
  const maple = { id: "hard-maple", w: 120, h: 60, t: 8 };
  const tile = { id: "tile-glazed", w: 150, h: 150, t: 6 };
  const jobs: Job[] = [];
  const log: LogEntry[] = [];
  const add = (j: Job, until: Parameters<typeof ran>[2] | null): void => {
    if (!until) return void jobs.push(j);
    const fresh: World = { shop, machines, products, job: j, log: [] };
    const mine = ran(fresh, c, until);
    log.push(...mine);
    if (!mine.length) return void jobs.push(j);
    const begun = keptWith(makePlan({ ...fresh, log: mine }, null, true), null, mine[0].at);
    jobs.push({ ...j, begun });
  };
  const beet = { "#a8235a": "beet", "#5d9a3c": "leaf-green" };
  // Under way: begun last evening, in the middle of the engraving.
  add(
    await draw(
      job("bed-markers", "Bed markers", {
        quantity: 24,
        substrate: maple,
        use: ["handled", "outdoors"],
        route: "E1",
        blankLot: "maple-winter",
        start: at(-1, "17:30"),
        due: at(65, "16:00"),
        choices: { ...new Choices(), depthMm: 1.5, proof: false },
        waivers: [{ rule: 13, where: "engrave/", reason: "the same plan as last year’s markers, which all came out" }],
        order: { ...new Order(), text: "24 markers for the root beds, “Beet”, leaf in green" },
      }),
      "bed-marker-beet.svg",
      bedMarker("BEET", "#a8235a", "#5d9a3c"),
      beet,
    ),
    { before: now },
  );
  // Painted, drying towards laser-safe.
  add(
    await draw(
      job("splash-tiles", "Splash tiles", {
        quantity: 6,
        substrate: tile,
        use: ["wet"],
        route: "A1",
        start: at(-1, "10:00"),
        due: at(19, "12:00"),
        order: { ...new Order(), text: "Six tiles behind the seed sink, poppies" },
      }),
      "poppies.svg",
      poppies("#d8432f"),
      { "#d8432f": "poppy" },
    ),
    { before: now },
  );
  // Planned, not begun, with a can that is too empty.
  add(
    await draw(
      job("blue-tiles", "Trial tiles, blue", {
        client: "Hollin Yard Allotments",
        quantity: 2,
        substrate: tile,
        use: ["display"],
        route: "A1",
        start: at(1, "09:00"),
        due: at(20, "12:00"),
        acknowledged: [],
      }),
      "poppies-blue.svg",
      poppies("#2b6fa6"),
      { "#2b6fa6": "harbour" },
    ),
    null,
  );
  // Only a brief and a drawing so far.
  add(
    await draw(
      job("kale-markers", "Kale markers", {
        quantity: 12,
        substrate: maple,
        use: ["outdoors"],
        start: at(2, "09:00"),
        acknowledged: [],
      }),
      "bed-marker-kale.svg",
      bedMarker("KALE", "#f3b61f", "#5d9a3c"),
      { "#5d9a3c": "leaf-green" },
    ),
    null,
  );
  // Planned by further routes: reverse on clear sheet, enamel in metal, blended bands, inside a glass.
  const planned = { acknowledged: [], use: ["handled"] };
  add(
    await draw(
      job("door-sign", "Door sign", {
        ...planned,
        quantity: 1,
        substrate: { id: "acrylic-clear", w: 300, h: 200, t: 3 },
        route: "I",
        start: at(3, "09:00"),
        due: at(18, "12:00"),
      }),
      "door-sign.svg",
      doorSign(),
      { "#5d9a3c": "meadow", "#e0a23a": "straw", "#5a2a52": "plum-spray" },
      { "#5d9a3c": "Leaves", "#e0a23a": "Seed head", "#5a2a52": "Bar" },
    ),
    null,
  );
  add(
    await draw(
      job("drawer-tags", "Drawer tags", {
        ...planned,
        quantity: 40,
        substrate: { id: "aluminium-bare", w: 50, h: 20, t: 1.5 },
        route: "D2",
        machineId: "um1-20",
        start: at(4, "09:00"),
        due: at(78, "12:00"),
        choices: { ...new Choices(), placedBy: "tag-nest" },
      }),
      "drawer-tag.svg",
      drawerTag(),
      { "#22345c": "navy-enamel" },
      { "#22345c": "Pod" },
    ),
    null,
  );
  add(
    await draw(
      job("sowing-panel", "Sowing panel", {
        ...planned,
        use: ["display"],
        quantity: 1,
        substrate: { id: "mdf", w: 300, h: 300, t: 6 },
        route: "A4",
        start: at(5, "09:00"),
        due: at(26, "12:00"),
      }),
      "sowing-panel.svg",
      sowingPanel(),
      { "#7fb2d9": "sky", "#5d9a3c": "meadow", "#f2c230": "straw", "#d8432f": "poppy" },
      { "#7fb2d9": "Winter", "#5d9a3c": "Spring", "#f2c230": "Summer", "#d8432f": "Autumn" },
    ),
    null,
  );
  add(
    await draw(
      job("stake-globes", "Stake globes", {
        ...planned,
        use: ["outdoors"],
        quantity: 12,
        substrate: { id: "glass-coated", w: 126, h: 80, t: 1, shape: "ball", diameter: 80 },
        route: "J",
        machineId: "um1-20",
        start: at(6, "09:00"),
        due: at(30, "12:00"),
      }),
      "globe.svg",
      globe(),
      { "#2b6fa6": "lagoon" },
      { "#2b6fa6": "Leaves" },
    ),
    null,
  );
  // And by those that are left: burnt into glaze, glaze opened and drawn, powder melted by the laser, nested, stencilled.
  const small = { ...tile, w: 100, h: 100 };
  add(
    await draw(
      job("hearth-tiles", "Hearth tiles", {
        ...planned,
        quantity: 2,
        substrate: small,
        use: ["display"],
        route: "B",
        start: at(7, "09:00"),
      }),
      "seed-glass.svg",
      seedGlass("#2c2c2e"),
      { "#2c2c2e": "titan" },
      { "#2c2c2e": "Seed glass" },
    ),
    null,
  );
  add(
    await draw(
      job("marker-tiles", "Marker tiles", {
        ...planned,
        quantity: 4,
        substrate: small,
        use: ["display"],
        route: "C2",
        start: at(8, "09:00"),
      }),
      "ring.svg",
      ringAndHeart("#b8476d", "#55743a"),
      { "#b8476d": "rose-marker", "#55743a": "moss-marker" },
      { "#b8476d": "Ring", "#55743a": "Heart" },
    ),
    null,
  );
  add(
    await draw(
      job("row-tokens", "Row tokens", {
        ...planned,
        quantity: 2,
        substrate: { ...maple, w: 100, h: 100 },
        route: "F",
        start: at(9, "09:00"),
        choices: { ...new Choices(), placedBy: "nest" },
      }),
      "seed-glass.svg",
      seedGlass("#c4471e"),
      { "#c4471e": "ember-powder" },
      { "#c4471e": "Seed glass" },
    ),
    null,
  );
  add(
    await draw(
      job("nested-coasters", "Nested coasters", {
        ...planned,
        quantity: 2,
        substrate: { ...maple, w: 100, h: 100 },
        route: "G",
        start: at(10, "09:00"),
        choices: { ...new Choices(), placedBy: "nest", trap: true },
      }),
      "ring.svg",
      ringAndHeart("#c4471e", "#e0b84a"),
      { "#c4471e": "ember-powder", "#e0b84a": "straw-powder" },
      { "#c4471e": "Ring", "#e0b84a": "Heart" },
    ),
    null,
  );
  add(
    await draw(
      job("gate-board", "Gate board", {
        ...planned,
        quantity: 1,
        use: ["outdoors"],
        substrate: { id: "mdf", w: 100, h: 100, t: 6 },
        route: "H",
        start: at(11, "09:00"),
      }),
      "ring.svg",
      ringAndHeart("#5d9a3c", "#d8432f"),
      { "#5d9a3c": "meadow", "#d8432f": "poppy" },
      { "#5d9a3c": "Ring", "#d8432f": "Heart" },
    ),
    null,
  );
  // Pictures: a head on dark-painted metal, an evening out of blended bands.
  const photos: Photo[] = [];
  const pictured = (j: Job, of: keyof typeof pictures, tone: ToneStep[]): Job => {
    const id = `picture.${j.id}`;
    const kept = pictures[of];
    const name = `${j.id}.png`;
    photos.push({ version: 1, id, jobId: j.id, at: now, caption: name, data: kept.png });
    const picture: Picture = {
      name,
      photo: id,
      pxW: kept.w,
      pxH: kept.h,
      small: kept.small,
      smallW: kept.smallW,
      w: j.substrate.w + 2,
      h: j.substrate.h + 2,
      fit: "cover",
      tone,
      render: "stucki",
    };
    return { ...j, picture };
  };
  add(
    pictured(
      wholeFace(
        job("old-gardener", "The old gardener", {
          ...planned,
          quantity: 1,
          substrate: { id: "aluminium-bare", w: 60, h: 80, t: 2 },
          use: ["display"],
          route: "A1",
          start: at(12, "09:00"),
        }),
        "#f4f2ee",
      ),
      "gardener",
      [
        { do: "light", shadows: 25, highlights: 0, radiusMm: 4 },
        { do: "sharpen", amount: 60, radiusMm: 0.2 },
      ],
    ),
    null,
  );
  add(
    pictured(
      evenBands(
        job("evening-jetty", "Evening at the jetty", {
          ...planned,
          quantity: 1,
          substrate: { id: "canvas", w: 80, h: 60, t: 18 },
          use: ["display"],
          route: "A4",
          start: at(13, "09:00"),
        }),
        [
          { colour: "#2b6fa6", name: "High sky" },
          { colour: "#d8432f", name: "Low sun" },
          { colour: "#f3b61f", name: "Horizon" },
          { colour: "#2b6fa6", name: "Water" },
        ],
        0,
      ),
      "evening",
      [],
    ),
    null,
  );
  // Finished ones.
  const first = await draw(
    job("first-markers", "First bed markers", {
      quantity: 8,
      substrate: maple,
      use: ["handled"],
      route: "E1",
      choices: { ...new Choices(), proof: false },
      start: at(-40, "09:00"),
      due: at(-25, "16:00"),
    }),
    "bed-marker-beet.svg",
    bedMarker("BEET", "#a8235a", "#5d9a3c"),
    beet,
  );
  add(
    {
      ...first,
      wrapUp: {
        good: 7,
        lost: 1,
        score: 4,
        note: "One more wipe of the walls before the first beet coat.",
        flaws: [
          {
            id: "flaw.1",
            flaw: "bare-walls",
            zone: first.zones[0].id,
            piece: 5,
            severity: 2,
            note: "left side of the T",
          },
        ],
        photos: [],
        closedAt: at(-30, "15:00"),
      },
    },
    { steps: 99 },
  );
  const proofTiles = await draw(
    job("proof-tiles", "Proof tiles", {
      quantity: 3,
      substrate: tile,
      use: ["display"],
      route: "A1",
      start: at(-30, "09:00"),
    }),
    "poppies.svg",
    poppies("#d8432f"),
    { "#d8432f": "poppy" },
  );
  add(
    {
      ...proofTiles,
      plate: {
        power: 0.42,
        speed: 300,
        interval: 0.07,
        passes: 1,
        at: at(-27, "10:30"),
        machineId: "co2-45",
        note: "Clean at 42 %, colour whole; 48 % begins to eat it.",
      },
      wrapUp: {
        good: 2,
        lost: 1,
        score: 3,
        note: "Laser-safe wait was cut short on one; it smeared.",
        flaws: [
          {
            id: "flaw.1",
            flaw: "smear-melt",
            zone: proofTiles.zones[0].id,
            piece: 3,
            severity: 3,
            note: "lasered after nine hours",
          },
        ],
        photos: [],
        closedAt: at(-24, "11:00"),
      },
    },
    { steps: 99 },
  );
  return must(RichLayerFile, shopFile({ shop, machines, products, jobs, log, photos }));
}
