/** The blank's true outline: area, edge and what hangs over it, against figures of one's own. */
import { context } from "../process/context";
import { makePlan } from "../plan/plan";
import { snagsOf } from "../judge/judge";
import { Substrate, type Job } from "../records/job";
import { worldAround } from "../records/world";
import { e1, seeded } from "../testing/worlds";
import { scaleArtwork, turnedTo } from "./artwork";
import {
  BadOutline,
  blankOf,
  blankWords,
  faceMm2,
  holds,
  insideOf,
  joined,
  outlineFrom,
  overhang,
  resized,
} from "./blank";
import { pathOf, ringsOf, type Point, type Ring } from "./outline";

const sheet = (more: Partial<Substrate>): Substrate => ({ ...new Substrate(), w: 120, h: 80, t: 6, ...more });
const heart = (): Ring =>
  Array.from({ length: 200 }, (_, i): Point => {
    const t = (i / 200) * 2 * Math.PI;
    return [16 * Math.sin(t) ** 3, -(13 * Math.cos(t) - 5 * Math.cos(2 * t) - 2 * Math.cos(3 * t) - Math.cos(4 * t))];
  });
/** By Simpson's eye: the share of points of a fine grid that lie inside. */
const counted = (s: Substrate): number => {
  const { rings } = blankOf(s);
  const step = 0.8;
  let n = 0;
  for (let x = step / 2; x < s.w; x += step)
    for (let y = step / 2; y < s.h; y += step) if (insideOf(rings, [x, y])) n++;
  return n * step * step;
};

describe("area and edge", () => {
  test("a rectangle, rounded, oval and round; a hole takes its area and adds its edge", () => {
    expect(faceMm2(sheet({}))).toBe(9600);
    expect(blankOf(sheet({})).edgeMm).toBe(400);
    const r = sheet({ blank: { form: "rounded", cornerMm: 10 } });
    expect(faceMm2(r)).toBeCloseTo(9600 - (4 - Math.PI) * 100, 0);
    expect(blankOf(r).edgeMm).toBeCloseTo(400 - 80 + 20 * Math.PI, 1);
    // more than fits is half of the shorter side: a slot
    expect(faceMm2(sheet({ blank: { form: "rounded", cornerMm: 500 } }))).toBeCloseTo(40 * 80 + Math.PI * 1600, -1);
    expect(faceMm2(sheet({ blank: { form: "oval" } })) / (Math.PI * 60 * 40)).toBeCloseTo(1, 3);
    const holed = sheet({
      holes: [
        { x: 10, y: 10, d: 5 },
        { x: 110, y: 10, d: 5 },
      ],
    });
    expect(faceMm2(holed)).toBeCloseTo(9600 - 2 * Math.PI * 6.25, 0);
    expect(blankOf(holed).edgeMm).toBeCloseTo(400 + 2 * Math.PI * 5, 1);
    for (const s of [r, holed, sheet({ blank: { form: "oval" } })]) expect(faceMm2(s)).toBeCloseTo(counted(s), -1.5);
  });
  test("a hole that a later outline leaves outside, or cuts, is none of it", () => {
    const holes = [
      { x: 4, y: 4, d: 3 },
      { x: 60, y: 40, d: 4 },
    ];
    const oval = sheet({ blank: { form: "oval" }, holes });
    expect(faceMm2(oval)).toBeCloseTo(Math.PI * (60 * 40 - 4), -1);
    expect(blankOf(oval).rings).toHaveLength(2);
    expect(blankOf(sheet({ holes })).rings).toHaveLength(3);
    expect(holes.map((k) => holds(oval, k))).toEqual([false, true]);
  });
  test("a heart of its own, and one with a hole; a ball knows none of it", () => {
    const { w, h, blank } = outlineFrom([{ points: heart(), closed: true }]);
    expect([w, h]).toEqual([expect.closeTo(32, 1), expect.closeTo(28.9, 0)]);
    const s = sheet({ w, h, blank });
    // the curve's own area: 180 π by Green's theorem
    expect(faceMm2(s)).toBeCloseTo(180 * Math.PI, 0);
    const ring: Ring = Array.from({ length: 60 }, (_, i): Point => [
      3 * Math.cos(i / 9.549),
      3 * Math.sin(i / 9.549) - 2,
    ]);
    const holed = sheet(
      outlineFrom([
        { points: ring, closed: true },
        { points: heart(), closed: true },
      ]),
    );
    expect(faceMm2(holed)).toBeCloseTo(180 * Math.PI - 9 * Math.PI, 0);
    expect(faceMm2({ ...s, shape: "ball" })).toBeCloseTo(w * h, 9);
    expect(faceMm2(resized(s, 2 * w, 2 * h)) / faceMm2(s)).toBeCloseTo(4, 6);
  });
  test("in words", () => {
    const mm = (x: number): string => `${x} mm`;
    expect(blankWords(sheet({}), mm)).toBe("");
    expect(blankWords(sheet({ blank: { form: "rounded", cornerMm: 6 } }), mm)).toBe("corners rounded by 6 mm");
    expect(blankWords(sheet({ blank: { form: "oval" } }), mm)).toBe("oval");
    expect(blankWords(sheet({ h: 120, blank: { form: "oval" } }), mm)).toBe("round");
    expect(blankWords(sheet({ holes: [{ x: 10, y: 10, d: 4 }] }), mm)).toBe("1 hole");
    expect(blankWords(sheet({ shape: "ball", holes: [{ x: 10, y: 10, d: 4 }] }), mm)).toBe("");
  });
});

describe("lines of a file", () => {
  const side = (a: Point, b: Point) => ({ points: [a, b], closed: false });
  const square = [side([0, 0], [50, 0]), side([50, 40], [50, 0]), side([50, 40], [0, 40]), side([0, 40.02], [0, 0])];
  test("ends that meet are one line, in whatever order and direction; what does not come round is counted", () => {
    expect(joined(square)).toMatchObject({ open: 0 });
    expect(joined(square).rings).toHaveLength(1);
    const got = outlineFrom([...square].reverse());
    expect([got.w, got.h]).toEqual([50, expect.closeTo(40, 1)]);
    expect(joined([...square, side([100, 0], [120, 0])])).toMatchObject({ open: 1 });
  });
  test("two pieces, nothing that comes round, and too much are refused in words", () => {
    expect(() => outlineFrom([side([0, 0], [9, 9])])).toThrow(/no line that comes round.*One line in it does not/);
    const off = heart().map(([x, y]): Point => [x + 100, y]);
    expect(() =>
      outlineFrom([
        { points: heart(), closed: true },
        { points: off, closed: true },
      ]),
    ).toThrow(/two shapes beside each other/);
    const many = Array.from({ length: 20_001 }, (_, i): Point => [Math.cos(i / 3183) * 50, Math.sin(i / 3183) * 50]);
    expect(() => outlineFrom([{ points: many, closed: true }])).toThrow(BadOutline);
  });
});

/** A job with one square zone of so many mm in the middle of its page. */
function squareOn(substrate: Substrate, mm: number, at: { dx?: number; dy?: number } = {}): Job {
  const w = e1().job;
  const outline = pathOf([
    [
      [0, 0],
      [mm, 0],
      [mm, mm],
      [0, mm],
    ],
  ]);
  const zone = { ...w.zones[0], outline, areaMm2: mm * mm, perimeterMm: 4 * mm, narrowestMm: mm };
  return { ...w, substrate, zones: [zone], artwork: { name: "s", svg: "", w: mm, h: mm, ...at } };
}

describe("what hangs over", () => {
  test("on a disc it is the corners, not the page's sides; moved it hangs by so much more", () => {
    const disc = sheet({ w: 100, h: 100, blank: { form: "oval" } });
    expect(overhang(squareOn(disc, 70)).mm).toBeCloseTo(35 * Math.SQRT2 - 50, 1);
    expect(overhang(squareOn(disc, 72)).mm).toBeCloseTo(36 * Math.SQRT2 - 50, 1);
    expect(overhang(squareOn(disc, 72)).zones).toHaveLength(1);
    expect(overhang(squareOn(disc, 60, { dx: 10 })).mm).toBeCloseTo(Math.hypot(40, 30) - 50, 1);
    expect(overhang(squareOn(sheet({ w: 100, h: 100 }), 72)).mm).toBe(-14);
    expect(overhang(squareOn(sheet({ w: 100, h: 100 }), 72, { dx: 20, dy: -3 })).mm).toBe(6);
  });
  test("a hole beneath a zone, and a margin", () => {
    const holed = sheet({ w: 100, h: 100, holes: [{ x: 50, y: 50, d: 6 }] });
    expect(overhang(squareOn(holed, 40)).mm).toBeCloseTo(6, 1);
    expect(overhang(squareOn(holed, 4)).mm).toBeGreaterThan(0);
    expect(overhang(squareOn(holed, 40, { dx: 30 })).mm).toBeCloseTo(0, 6);
    expect(overhang(squareOn(holed, 20, { dx: 30 })).mm).toBeLessThan(0);
    const kept = sheet({ w: 100, h: 100, keepMm: 15 });
    expect(overhang(squareOn(kept, 70)).mm).toBeCloseTo(0, 6);
    expect(overhang(squareOn(kept, 71)).mm).toBeCloseTo(0.5, 6);
  });
  test("rule 46 says which zone and by how much; each press mends it", () => {
    const disc = sheet({ id: "hard-maple", w: 100, h: 100, blank: { form: "oval" } });
    for (const job of [squareOn(disc, 90), squareOn(disc, 60, { dx: 30 }), squareOn({ ...disc, keepMm: 8 }, 66)]) {
      const w = worldAround(e1(), job, []);
      const snag = snagsOf(makePlan(w)).find((s) => s.rule === 46)!;
      expect(snag.zone).toBe(job.zones[0].id);
      expect(snag.why).toContain(job.zones[0].name);
      expect(snag.why).toMatch(/round/);
      expect(snag.fixes.length).toBeGreaterThan(0);
      for (const f of snag.fixes) expect(overhang(f.apply(w).job).mm).toBeLessThanOrEqual(0.31);
    }
    expect(snagsOf(makePlan(worldAround(e1(), squareOn(disc, 70), []))).some((s) => s.rule === 46)).toBe(false);
  });
});

test("turned and back is as it was; areas stay, and the rows that are burnt are those of the turned shape", () => {
  const job = squareOn(sheet({}), 30, { dx: 5 });
  const turned = turnedTo(job, 45);
  expect(turned.artwork).toMatchObject({ w: 30, h: 30, dx: 5, turn: 45 });
  const [ring] = ringsOf(turned.zones[0].outline);
  const half = 15 * Math.SQRT2;
  expect(Math.max(...ring.map((p) => p[0])) - 15).toBeCloseTo(half, 4);
  expect(turned.zones[0].rows[1] - turned.zones[0].rows[0]).toBeCloseTo(2 * half, 2);
  expect(turned.zones[0].areaMm2).toBe(900);
  const back = turnedTo(turned, 0);
  expect(back.artwork).not.toHaveProperty("turn");
  ringsOf(back.zones[0].outline)[0].forEach((p, i) =>
    p.forEach((v, k) => expect(v).toBeCloseTo(ringsOf(job.zones[0].outline)[0][i][k], 4)),
  );
  expect(turnedTo(job, 270).artwork!.turn).toBe(-90);
  expect(turnedTo(job, 0)).toEqual({ artwork: job.artwork, zones: job.zones });
  // turned, a square on a square blank hangs over by its corners
  expect(
    overhang({ ...squareOn(sheet({ w: 32, h: 32 }), 30), ...turned, artwork: { ...turned.artwork!, dx: 0 } }).mm,
  ).toBeCloseTo(half - 16, 4);
  expect(scaleArtwork({ ...job, ...turned }, 2).artwork).toMatchObject({ w: 60, turn: 45 });
});

test("paint, strokes and cut follow the outline: over seeded blanks, as the face and the edge that they have", () => {
  const rnd = seeded(15);
  for (let k = 0; k < 12; k++) {
    const blank: Substrate["blank"] =
      k % 3 ? { form: k % 3 === 1 ? "oval" : "rounded", cornerMm: 5 + 20 * rnd() } : undefined;
    const s = sheet({ id: "hard-maple", w: 90 + 60 * rnd(), h: 70 + 40 * rnd(), ...(blank ? { blank } : {}) });
    const of = (substrate: Substrate) => makePlan({ ...e1(), job: { ...e1().job, substrate } }, null, true);
    const [shaped, plain] = [of(s), of({ ...s, blank: undefined })];
    const seal = (p: typeof shaped) => p.uses[p.placed.findIndex((x) => x.step.id === "coat.seal.1")]!.laidMl!;
    expect(seal(shaped) / seal(plain)).toBeCloseTo(faceMm2(s) / (s.w * s.h), 1);
    expect(context({ ...e1(), job: { ...e1().job, substrate: s } }).job.substrate).toBe(s);
  }
});
