/**
 * A picture on every way that draws one, from the plan to the bytes for the laser and back through areas and spot to what is seen, on jobs
 * of no demo. What runs in the worker runs here as it is.
 */
import { decode } from "fast-png";
import { PNG } from "pngjs";
import { ROUTES } from "../core/catalogue/routes";
import { defaultMachine } from "../core/catalogue/starter";
import { pictureWork, type PictureWork } from "../core/explain/picture";
import { tonesHeld } from "../core/explain/tones";
import { evenBands, stacked, wholeFace } from "../core/geometry/areas";
import { difference, lab, linear } from "../core/models/film/colour";
import type { RouteId } from "../core/records/ids";
import type { Job } from "../core/records/job";
import type { Picture } from "../core/records/picture";
import type { World } from "../core/records/world";
import { openShares } from "../core/models/film/reveal";
import { makePlan } from "../core/plan/plan";
import { dose } from "../core/process/beam";
import { own } from "../core/process/kinds";
import { cutsOf } from "../core/process/kinds/laser-work";
import { GROUND, zoneOf } from "../core/piece/state";
import { snagsOf } from "../core/judge/judge";
import { scene, wedge } from "../core/testing/pictures";
import { a1, stocked, SHELF } from "../core/testing/worlds";
import { lightness, ofLightness, toLight } from "../core/tone/light";
import { samplesOf } from "../core/tone/samples";
import type { Pixels } from "../core/tone/source";
import { pictureApi, type Made } from "./picture-api";

const picture = (more: Partial<Picture> = {}): Picture => ({
  name: "heron.png",
  photo: "picture.a",
  pxW: 1600,
  pxH: 1200,
  small: "",
  smallW: 0,
  w: 62,
  h: 47,
  fit: "stretch",
  tone: [],
  render: "stucki",
  ...more,
});
/** J/mm² at which a mark is deepest: blue on wood; pigment, of which 1 is aimed at just before its knee */
const WOOD_KNEE = 0.8;
const BURN_KNEE = Math.exp(Math.sqrt(0.02) * Math.log(4));
const COLOURS = ["#2f4a7d", "#c9577a", "#f0a23c"].map((colour, i) => ({ colour, name: `Band ${i + 1}` }));
interface Way {
  route: RouteId;
  body: string;
  beam: "co2" | "blue" | "uv";
  areas: (j: Job) => Job;
}
const WAYS: Way[] = [
  { route: "A1", body: "slate", beam: "co2", areas: (j) => wholeFace(j, "#d8432f") },
  { route: "A1", body: "mdf", beam: "blue", areas: (j) => wholeFace(j, "#f4f2ee") },
  { route: "A3", body: "tile-glazed", beam: "co2", areas: (j) => evenBands(j, COLOURS, 90) },
  { route: "A4", body: "canvas", beam: "blue", areas: (j) => evenBands(j, COLOURS, 0) },
  { route: "B", body: "tile-glazed", beam: "co2", areas: (j) => wholeFace(j, "#1d1c1c") },
  { route: "C1", body: "tile-glazed", beam: "co2", areas: (j) => wholeFace(j, "#2d5d8a") },
  { route: "N", body: "slate", beam: "co2", areas: (j) => wholeFace(j, "#f4f2ee") },
  { route: "N", body: "metal-coated", beam: "uv", areas: (j) => wholeFace(j, "#f4f2ee") },
  { route: "N", body: "acrylic-two-layer", beam: "co2", areas: (j) => wholeFace(j, "#f4f2ee") },
  { route: "N", body: "cherry", beam: "blue", areas: (j) => wholeFace(j, "#3a2a1a") },
];
function worldOf({ route, body, beam, areas }: Way, p = picture()): World {
  const w = a1();
  const job = { ...w.job, substrate: { ...w.job.substrate, id: body, w: 60, h: 45, t: 6 }, zones: [] };
  // a finer spot would make 20 million pixels of it, and no other picture
  const spotMm = beam === "uv" ? 0.1 : null;
  const machine = { ...defaultMachine(beam, beam === "uv" ? 5 : 40, "m"), accel: 3000, maxSpeed: 400, spotMm };
  return {
    ...w,
    machines: [machine],
    products: [
      ...SHELF(),
      stocked("ti", "Titanium white", "titanium-white", "#f7f6f0"),
      stocked("dye", "Dye", "ceramic-dye", "#2d5d8a"),
    ],
    job: { ...areas(job), route, machineId: "m", quantity: 2, picture: p },
  };
}
const made = async (
  work: PictureWork,
  p: Pixels,
): Promise<{ made: Made; png: Uint8Array<ArrayBuffer>; api: ReturnType<typeof pictureApi> }> => {
  const api = pictureApi(() => Promise.resolve(p));
  await api.open(new Uint8Array(0));
  const m = api.make({ work, watched: null, px: 400 }, () => undefined);
  return { made: m, png: api.save()!, api };
};

test.each(WAYS)("$route on $body: one pass draws the whole picture, and the piece says so", async (way) => {
  const plan = makePlan(worldOf(way));
  expect(plan.missing).toEqual([]);
  const works = pictureWork(plan);
  expect(works).toHaveLength(1);
  const [work] = works;
  const at = plan.placed.find((p) => p.step.id === work.step)!;
  // every area was drawn over, the rest of the face was not
  for (const z of plan.context.job.zones) expect([z.id, zoneOf(at.after, z.id).pictured]).toEqual([z.id, true]);
  expect(zoneOf(at.after, GROUND).pictured).toBeUndefined();
  // burnt it shows other than left
  for (const a of work.areas) expect(difference(linear(a.burnt), linear(work.left))).toBeGreaterThan(15);
  const { made: m, png } = await made(work, scene(400, 300, 3));
  const set = work.recipe.intervalMm;
  expect([m.w, m.h]).toEqual([Math.round(62 / set), Math.round(47 / set)]);
  const back = decode(png, { checkCrc: true });
  expect([back.width, back.height, back.depth]).toEqual([m.w, m.h, 1]);
  expect(back.resolution).toEqual({ x: Math.round(1000 / set), y: Math.round(1000 / set), unit: 1 });
  expect(m.burnt).toBeGreaterThan(0.05);
  expect(m.burnt).toBeLessThan(0.95);
  // a decoder that is not the one it was written with reads the same dots
  const other = PNG.sync.read(Buffer.from(png), { checkCRC: true });
  expect([other.width, other.height]).toEqual([m.w, m.h]);
  const line = Math.ceil(m.w / 8);
  let unlike = 0;
  for (let y = 0; y < m.h; y++)
    for (let x = 0; x < m.w; x++) {
      const bit = (back.data[y * line + (x >> 3)] >> (7 - (x & 7))) & 1;
      if (other.data[4 * (y * m.w + x)] !== 255 * bit) unlike++;
    }
  expect(unlike).toBe(0);
});

test.each(WAYS)(
  "$route on $body: a wedge made, burnt and looked at is its own lightness within 2, in its own paints",
  async (way) => {
    const N = 9;
    const plan = makePlan(worldOf(way, picture({ w: 60, h: 45, render: "floyd-steinberg" })));
    const [work] = pictureWork(plan);
    const one = { ...work, areas: work.areas.slice(0, 1), keepMm: 0 };
    const p = wedge(900, 60, N, (k) => ofLightness((100 * (k + 0.5)) / N));
    const api = pictureApi(() => Promise.resolve(p));
    await api.open(new Uint8Array(0));
    api.make({ work: one, watched: null, px: 300 }, () => undefined);
    const [a, b] = [lightness(one.recipe.topY), lightness(one.recipe.colourY)];
    const [dark, light] = [Math.min(a, b), Math.max(a, b)];
    const off: number[] = [];
    for (let k = 0; k < N; k++) {
      // read from single dots as the spot leaves them, within one step of the wedge
      const seen = api.lens((k + 0.5) / N, 0.5, 48)!.now;
      let sum = 0;
      let n = 0;
      for (let y = 24; y < seen.h - 24; y++)
        for (let x = 24; x < seen.w - 24; x++, n++) {
          const o = (y * seen.w + x) * 4;
          const [r, g, bl] = [0, 1, 2].map((q) => toLight(seen.data[o + q] / 255));
          sum += 0.2126 * r + 0.7152 * g + 0.0722 * bl;
        }
      const aim = dark + ((light - dark) * (k + 0.5)) / N;
      off.push(Math.abs(lightness(sum / n) - aim));
    }
    expect([way.route, off.reduce((s, v) => s + v, 0) / N <= 2]).toEqual([way.route, true]);
  },
);

test("what one setting can’t open goes in passes of their own, each a file that burns over its own areas alone", async () => {
  const plan = makePlan(worldOf({ route: "A2", body: "slate", beam: "co2", areas: (j) => evenBands(j, COLOURS, 0) }));
  const works = pictureWork(plan);
  expect(works.length).toBeGreaterThan(1);
  expect(works.flatMap((w) => w.only ?? []).sort()).toEqual(plan.context.job.zones.map((z) => z.id).sort());
  const light: Pixels = { w: 8, h: 8, channels: 1, max: 255, row: () => new Uint8Array(8).fill(255) };
  for (const w of works) {
    const { png } = await made(w, light);
    const d = decode(png);
    const y = (ring: [number, number][]): number =>
      (Math.min(...ring.map((p) => p[1])) + Math.max(...ring.map((p) => p[1]))) / 2;
    // the middle of each band of this pass is burnt, that of the others is not
    for (const other of works.flatMap((o) => o.areas)) {
      const row = Math.round(y(other.rings[0]) / w.recipe.intervalMm);
      const at = row * Math.ceil(d.width / 8) + (d.width >> 4);
      expect([w.step, other.id, d.data[at] !== 255]).toEqual([w.step, other.id, w.only!.includes(other.id)]);
    }
  }
});

test("areas of other colours get other shares for the same tone, each by its own paint", async () => {
  const plan = makePlan(worldOf(WAYS[3], picture({ w: 60, h: 45 })));
  const [work] = pictureWork(plan);
  expect(work.areas.length).toBe(3);
  const flat: Pixels = { w: 8, h: 8, channels: 1, max: 255, row: () => new Uint8Array(8).fill(130) };
  const { made: m } = await made({ ...work, recipe: { ...work.recipe, layOn: false } }, flat);
  const { burnt: b } = m.looks;
  const row = (at: number): number => {
    const y = Math.round(at * b.h);
    return Array.from({ length: b.w }, (_v, x) => 1 - b.data[(y * b.w + x) * 4] / 255).reduce((s, v) => s + v, 0) / b.w;
  };
  const shares = [0.15, 0.5, 0.85].map(row);
  // the lighter the paint beneath, the less of it shows the same tone
  const light = work.areas.map((a) => lab(linear(a.burnt))[0]);
  expect(light[0]).toBeLessThan(light[1]);
  expect(shares[0]).toBeGreaterThan(shares[1]);
  expect(shares[1]).toBeGreaterThan(shares[2]);
});

test("nothing is burnt beyond the blank and what it may lie off, in holes, or in the margin", async () => {
  const w = worldOf(WAYS[0], picture({ w: 70, h: 55 }));
  const round = (more: Partial<Job["substrate"]>): World => ({
    ...w,
    job: { ...w.job, substrate: { ...w.job.substrate, blank: { form: "oval" }, ...more } },
  });
  const light: Pixels = { w: 8, h: 8, channels: 1, max: 255, row: () => new Uint8Array(8).fill(255) };
  const burntAt = async (world: World, x: number, y: number): Promise<boolean> => {
    const [work] = pictureWork(makePlan(world));
    const { png } = await made(work, light);
    const d = decode(png);
    const px = Math.round((x + 5) / work.recipe.intervalMm);
    const py = Math.round((y + 5) / work.recipe.intervalMm);
    return ((d.data[py * Math.ceil(d.width / 8) + (px >> 3)] >> (7 - (px & 7))) & 1) === 0;
  };
  expect(await burntAt(round({}), 30, 22)).toBe(true);
  expect(await burntAt(round({}), 2, 2)).toBe(false);
  expect(await burntAt(round({}), -0.8, 22.5)).toBe(true);
  expect(await burntAt(round({}), -2, 22.5)).toBe(false);
  expect(await burntAt(round({ holes: [{ x: 30, y: 22.5, d: 8 }] }), 30, 22.5)).toBe(false);
  expect(await burntAt(round({ keepMm: 3 }), 30, 1.5)).toBe(false);
  expect(await burntAt(round({ keepMm: 3 }), 30, 4.5)).toBe(true);
});

test("time, rows and width are the picture’s, not those of the colours beneath", () => {
  const small = makePlan(worldOf(WAYS[0], picture({ w: 30, h: 20 })));
  const whole = makePlan(worldOf(WAYS[0], picture({ w: 60, h: 45 })));
  const [a, b] = [small, whole].map((p) => pictureWork(p)[0].seconds!);
  expect(a).toBeLessThan(b / 2);
  const step = (p: typeof small) => p.placed.find((x) => x.step.kind === "reveal")!;
  expect(step(small).minutes).toBeLessThan(step(whole).minutes!);
});

test("ways that fill areas draw no picture, and say so with what would help", () => {
  const w = worldOf(WAYS[0]);
  for (const r of ROUTES.filter((x) => !x.pictures)) {
    const plan = makePlan({ ...w, job: { ...w.job, route: r.id } });
    expect([r.id, plan.context.picture, pictureWork(plan)]).toEqual([r.id, null, []]);
  }
});

test("power by tone: a grey file, and how many tones this stack can hold", async () => {
  const plan = makePlan(worldOf(WAYS[0], picture({ render: "grey" })));
  const [work] = pictureWork(plan);
  const { png } = await made(work, scene(400, 300, 5));
  expect(decode(png).depth).toBe(8);
  const held = tonesHeld(plan)!;
  expect(held).toBeGreaterThan(2);
  expect(held).toBeLessThan(60);
  expect(snagsOf(plan).some((s) => s.rule === 41)).toBe(true);
  expect(snagsOf(makePlan(worldOf(WAYS[0]))).some((s) => s.rule === 41)).toBe(false);
});

describe("power by tone is power, not tone", () => {
  // a stack, wood, and a tile: what a power leaves is no straight line on any
  test.each([WAYS[0], WAYS[9], WAYS[4]])("$route on $body: a wedge reads its own lightness", async (way) => {
    const N = 9;
    const plan = makePlan(worldOf(way, picture({ w: 60, h: 45, render: "grey" })));
    const [work] = pictureWork(plan);
    const p = wedge(900, 60, N, (k) => ofLightness((100 * (k + 0.5)) / N));
    const { api, png } = await made({ ...work, keepMm: 0 }, p);
    const { data, width } = decode(png);
    const at = plan.placed.find((x) => x.step.id === work.step)!;
    const { machine } = plan.context;
    const set = own(at.step, "laser")!;
    const [a, b] = [lightness(work.recipe.topY), lightness(work.recipe.colourY)];
    const [dark, light] = [Math.min(a, b), Math.max(a, b)];
    const left = linear(work.left);
    const burnt = linear(work.areas[0].burnt);
    for (let k = 0; k < N; k++) {
      const x = Math.round(((k + 0.5) / N) * width);
      const demand = 1 - data[10 * width + x] / 255;
      // the same from the very model of what lies there, by the watts that this share of the power gives
      const e = demand > 0 ? dose(machine!, { ...set, power: set.power * demand }) : 0;
      const full = dose(machine!, set)!;
      const zone = zoneOf(at.before, "area-1");
      const leaves = (j: number): number =>
        way.route === "A1"
          ? openShares(cutsOf(zone, plan.context, set.interval, set.passes), j)[0]
          : Math.min(1, (1 - (Math.log(j / (way.route === "B" ? BURN_KNEE : WOOD_KNEE)) / Math.log(4)) ** 2) / 0.98);
      const share = e === null || e === 0 ? 0 : leaves(e) / leaves(full);
      const y = (c: readonly number[]): number => 0.2126 * c[0] + 0.7152 * c[1] + 0.0722 * c[2];
      const got = lightness(share * y(burnt) + (1 - share) * y(left));
      expect([k, Math.abs(got - (dark + ((light - dark) * (k + 0.5)) / N)) < 2]).toEqual([k, true]);
      // and the lens shows just that
      const seen = api.lens((k + 0.5) / N, 0.5, 16)!.now.data;
      expect(
        Math.abs(
          lightness(y([seen[4 * 700], seen[4 * 700 + 1], seen[4 * 700 + 2]].map((v) => toLight(v / 255)))) - got,
        ),
      ).toBeLessThan(2);
    }
  });
});

describe("colours dug out of a stack", () => {
  const STACK = ["#f0e4c8", "#c98a4b", "#7a3f24"].map((colour, i) => ({ colour, name: `Colour ${i + 1}` }));
  const way: Way = { route: "A2", body: "mdf", beam: "co2", areas: (j) => stacked(j, STACK) };
  const world = (p: Partial<Picture> = {}): World =>
    worldOf(way, picture({ w: 60, h: 45, render: "grey", dig: true, ...p }));
  const plan = makePlan(world());
  const [work] = pictureWork(plan);

  test("one pass digs to all of them, each by its own share of the power, and every zone shows its colour", () => {
    expect(pictureWork(plan)).toHaveLength(1);
    expect(work.dug!.map((l) => l.demand)).toEqual([...work.dug!.map((l) => l.demand)].sort((a, b) => a - b));
    expect(work.dug![2].demand).toBeCloseTo(1, 2);
    const at = plan.placed.find((p) => p.step.id === work.step)!;
    const set = own(at.step, "laser")!;
    const m = plan.context.machine!;
    const all = cutsOf(zoneOf(at.before, "area-1"), plan.context, set.interval, set.passes);
    work.dug!.forEach((l, i) => {
      const z = plan.context.job.zones.find((x) => x.id === l.zone)!;
      expect(difference(linear(l.colour), linear(plan.context.paintOf(z.productId!).product.colour))).toBeLessThan(4);
      // by hand: that share of the watts opens just so many films
      const e = dose(m, { ...set, power: set.power * l.demand })!;
      expect(e).toBeCloseTo(l.e!, 3);
      const open = openShares(all, e);
      expect([open[i] > 0.95, (open[i + 1] ?? 0) < 0.05]).toEqual([true, true]);
    });
    expect(snagsOf(plan).filter((s) => s.rule === 16)).toEqual([]);
  });
  test("a setting typed too low names the colour that stays hidden; too high, nothing deeper is dug than the file asks", () => {
    const { power } = own(plan.placed.find((p) => p.step.id === work.step)!.step, "laser")!;
    const at = (value: number): World => {
      const w = world();
      const edit = { op: "set", step: work.step, field: "power", value, id: "e", after: null } as const;
      return { ...w, job: { ...w.job, edits: [edit] } };
    };
    const low = makePlan(at(power * 0.6));
    const hidden = snagsOf(low)
      .filter((s) => s.rule === 16)
      .map((s) => s.zone);
    expect(hidden).toContain(work.dug![2].zone);
    expect(hidden).not.toContain(work.dug![0].zone);
    const high = makePlan(at(Math.min(1, power * 1.2)));
    expect(snagsOf(high).filter((s) => s.rule === 16)).toEqual([]);
    expect(pictureWork(high)[0].dug![2].demand).toBeLessThan(1);
  });
  test("the file holds a grey for each level, the lens shows their colours, mixed they keep the picture's lightness", async () => {
    const N = 9;
    const p = wedge(900, 60, N, (k) => ofLightness((100 * (k + 0.5)) / N));
    const { api, png, made: m } = await made(work, p);
    const { data } = decode(png);
    const codes = new Set(data);
    const want = [255, ...work.dug!.map((l) => 255 - Math.round(255 * l.demand))];
    expect([...codes].sort((a, b) => a - b)).toEqual([...new Set(want)].sort((a, b) => a - b));
    const lights = [work.left, ...work.dug!.map((l) => l.colour)].map((c) => lab(linear(c))[0]);
    const [dark, light] = [Math.min(...lights), Math.max(...lights)];
    const off: number[] = [];
    for (let k = 0; k < N; k++) {
      const seen = api.lens((k + 0.5) / N, 0.5, 40)!.now;
      let sum = 0;
      for (let i = 0; i < seen.w * seen.h; i++)
        sum += [0.2126, 0.7152, 0.0722].reduce((s, q, j) => s + q * toLight(seen.data[4 * i + j] / 255), 0);
      off.push(Math.abs(lightness(sum / (seen.w * seen.h)) - (dark + ((light - dark) * (k + 0.5)) / N)));
    }
    expect(off.reduce((s, v) => s + v, 0) / N).toBeLessThan(2);
    expect(m.beyond).not.toBeNull();
  });
  test("a blue that no brown makes is told with how far off it stays; the stack's own colours are not", async () => {
    const flat = (hex: string): Pixels => ({
      w: 40,
      h: 30,
      channels: 3,
      max: 255,
      row: () => Uint8Array.from({ length: 120 }, (_v, i) => parseInt(hex.slice(1 + 2 * (i % 3), 3 + 2 * (i % 3)), 16)),
    });
    const unlaid = pictureWork(makePlan(world({ unlaid: true })))[0];
    const blue = (await made(unlaid, flat("#3050c0"))).made.beyond!;
    expect(blue).toHaveLength(1);
    expect(blue[0].off).toBeGreaterThan(25);
    expect(blue[0].share).toBe(1);
    expect((await made(unlaid, flat(work.dug![1].colour))).made.beyond).toEqual([]);
  });
  test("neighbours not mixed: each place has the nearest level alone", async () => {
    const flat = pictureWork(makePlan(world({ plain: true })))[0];
    const p = wedge(300, 60, 3, (k) => ofLightness(20 + 25 * k));
    const { png } = await made(flat, p);
    const { data, width } = decode(png);
    for (const k of [0, 1, 2]) {
      const [x0, x1] = [k, k + 1].map((v) => Math.round((v / 3) * width));
      expect(new Set(data.slice(20 * width + x0 + 3, 20 * width + x1 - 3)).size).toBe(1);
    }
  });
});

test("a file with too few pixels, and one that does not run over, are told with what mends them", () => {
  const coarse = makePlan(worldOf(WAYS[0], picture({ pxW: 300, pxH: 225 })));
  const soft = snagsOf(coarse).find((s) => s.rule === 42)!;
  expect(soft.why).toMatch(/4\.8 pixels a mm/);
  const short = snagsOf(makePlan(worldOf(WAYS[0], picture({ w: 60, h: 45 })))).find((s) => s.rule === 46)!;
  expect(short.why).toMatch(/only 0 mm over an edge/);
  for (const [plan, s] of [
    [coarse, soft],
    [makePlan(worldOf(WAYS[0], picture({ w: 60, h: 45 }))), short],
  ] as const) {
    const after = makePlan(s.fixes[0].apply(plan.context.world));
    expect(snagsOf(after).filter((x) => x.rule === s.rule)).toEqual([]);
  }
});

test("turned over by hand it is the other way round, and the rule says so", () => {
  const w = worldOf(WAYS[0]);
  const plan = makePlan({ ...w, job: { ...w.job, choices: { ...w.job.choices, inverted: false } } });
  expect(pictureWork(plan)[0].recipe.invert).toBe(false);
  expect(snagsOf(plan).some((s) => s.rule === 43)).toBe(true);
  expect(snagsOf(makePlan(w)).some((s) => s.rule === 43)).toBe(false);
});

describe("looked at more closely", () => {
  const opened = async (p: Partial<Picture>, px: Pixels): Promise<ReturnType<typeof pictureApi>> => {
    const [work] = pictureWork(makePlan(worldOf(WAYS[0], picture(p))));
    const api = pictureApi(() => Promise.resolve(px));
    await api.open(new Uint8Array(0));
    api.make({ work, watched: null, px: 300 }, () => undefined);
    return api;
  };
  const bright = ({ data }: { data: Uint8ClampedArray }): number => {
    let sum = 0;
    for (let i = 0; i < data.length; i += 4) sum += data[i] + data[i + 1] + data[i + 2];
    return sum / (data.length / 4) / 3;
  };

  test("a place made in another way is the same place: the way in force equals what was made, others keep its lightness", async () => {
    const api = await opened(
      { w: 60, h: 45 },
      wedge(900, 60, 9, (k) => ofLightness((100 * (k + 0.5)) / 9)),
    );
    const [work] = pictureWork(makePlan(worldOf(WAYS[0], picture({ w: 60, h: 45 }))));
    // a fifth step of the wedge, well within it
    const [x, size] = [4.5 / 9, 48];
    const now = api.lens(x, 0.5, size)!.now;
    for (const s of samplesOf("dots", work.recipe, work.spotMm)) {
      const seen = api.sample(s, x, 0.5, size)!;
      expect([s.name, seen.w, seen.h]).toEqual([s.name, 4 * size, 4 * size]);
      expect(Math.abs(bright(seen) - bright(now))).toBeLessThan(14);
    }
    // half the interval: the same place in twice the pixels
    const half = samplesOf("interval", work.recipe, work.spotMm)[0];
    expect(api.sample(half, x, 0.5, size)!.w).toBe(8 * size);
    // lines up and down: dots drawn out the other way, as much of it open
    const [across, upright] = samplesOf("lines", work.recipe, work.spotMm).map((s) => api.sample(s, x, 0.5, size)!);
    expect(Buffer.compare(Buffer.from(across.data), Buffer.from(upright.data))).not.toBe(0);
    expect(Math.abs(bright(across) - bright(upright))).toBeLessThan(6);
  });
  test("the lens shows the tones of before beside; other light changes the finished face alone", async () => {
    const api = await opened(
      { tone: [{ do: "invert" }] },
      wedge(900, 60, 2, (k) => (k ? 1 : 0)),
    );
    const dark = api.lens(0.2, 0.5, 32)!;
    const light = api.lens(0.8, 0.5, 32)!;
    expect(bright(dark.before)).toBe(0);
    expect(bright(light.before)).toBe(255);
    // turned over, the dark half is the one that is uncovered
    expect(bright(dark.now)).not.toBe(bright(light.now));
    const plain = bright(api.see(300, { sealed: false, lamp: false })!);
    expect(bright(api.see(300, { sealed: true, lamp: false })!)).toBeLessThan(plain);
    expect(bright(api.see(300, { sealed: false, lamp: true })!)).toBeLessThan(plain);
  });
  test("two tones tell what they lose, with the threshold that keeps it; too fine is marked where it is", async () => {
    // a faint square at the left, a hair of ink at the right
    const px: Pixels = {
      w: 600,
      h: 450,
      channels: 1,
      max: 255,
      row: (y) =>
        Uint8Array.from({ length: 600 }, (_v, x) =>
          x > 60 && x < 120 && y > 100 && y < 160
            ? 190
            : x === 500
              ? 0
              : x > 300 && x < 360 && y > 60 && y < 400
                ? 10
                : 255,
        ),
    };
    const tone = [{ do: "threshold" as const, at: 0.6 }];
    const work = { ...pictureWork(makePlan(worldOf(WAYS[0], picture({ tone }))))[0], spotMm: 0.25 };
    const api = pictureApi(() => Promise.resolve(px));
    await api.open(new Uint8Array(0));
    const { lost } = api.make({ work, watched: null, px: 300 }, () => undefined);
    expect([lost!.n, lost!.light]).toEqual([1, null]);
    const [x0, y0, x1, y1] = lost!.boxes[0];
    expect([x0, y0, x1, y1].map((v) => Math.round(v * 20))).toEqual([2, 4, 4, 7]);
    const again = { ...work, recipe: { ...work.recipe, tone: [{ do: "threshold" as const, at: lost!.dark! }] } };
    expect(api.make({ work: again, watched: null, px: 300 }, () => undefined).lost!.n).toBe(0);
    const { found, marks } = api.fine(null, 300)!;
    expect(found.burnt + found.left).toBeGreaterThan(0);
    expect(found.enlarge).toBeGreaterThan(1);
    const at = [...marks.data.keys()]
      .filter((i) => i % 4 === 3 && marks.data[i] > 0)
      .map((i) => ((i >> 2) % marks.w) / marks.w);
    expect(Math.min(...at)).toBeGreaterThan(0.82);
    expect(Math.max(...at)).toBeLessThan(0.85);
    // a part without the hair has nothing too fine
    expect(api.fine([0, 0, 0.7, 0, 0.7, 1, 0, 1], 300)!.found.enlarge).toBe(1);
  });
});
