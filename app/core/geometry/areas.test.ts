/** Areas that are made: they follow the blank's outline, and thin places between bands are found where they are. */
import { a1 } from "../testing/worlds";
import { faceMm2 } from "./blank";
import { axisOf, evenBands, settled, thinPlaces, wholeFace } from "./areas";
import { lostByFit, overrunOf, pictureBox, pixelsPerMm, runOver, shortOf } from "./picture";
import type { Job } from "../records/job";
import type { Picture } from "../records/picture";

const job = (more: Partial<Job["substrate"]> = {}): Job => {
  const j = a1().job;
  return { ...j, substrate: { ...j.substrate, w: 120, h: 80, ...more } };
};
const COLOURS = ["#2f4a7d", "#c9577a", "#f0a23c"].map((colour, i) => ({ colour, name: `B${i + 1}` }));

test("one colour covers the blank as it is cut, holes aside, and follows it", () => {
  const heart = job({ blank: { form: "oval" }, holes: [{ x: 60, y: 20, d: 6 }] });
  const made = wholeFace(heart, "#abcdef");
  expect(made.zones).toHaveLength(1);
  expect(made.zones[0]).toMatchObject({ wanted: "#abcdef", pieces: 1, holes: 1 });
  expect(made.zones[0].areaMm2).toBeCloseTo(faceMm2(heart.substrate), 6);
  expect(made.zones[0].areaMm2).toBeCloseTo(Math.PI * 60 * 40 - Math.PI * 9, -1);
  const wider = settled({ ...made, substrate: { ...made.substrate, w: 240, holes: undefined } });
  expect(wider.zones[0].areaMm2).toBeCloseTo(Math.PI * 120 * 40, -1);
  expect(wider.zones[0].wanted).toBe("#abcdef");
  expect(wider.artwork).toMatchObject({ w: 240, h: 80 });
});

test("what a drawing says is left alone", () => {
  const drawn = job();
  expect(settled(drawn)).toBe(drawn);
});

describe("bands", () => {
  test("share the blank evenly, lie over one another, and their areas are those of the strips", () => {
    const made = evenBands(job(), COLOURS, 0);
    expect(made.areas!.strips!.map((s) => [s.from, s.to])).toEqual([
      [0, 26.7],
      [26.7, 53.3],
      [53.3, 80],
    ]);
    const over = made.areas!.overlapMm!;
    expect(over).toBeGreaterThan(made.areas!.fadeMm!);
    expect(made.zones[1].areaMm2).toBeCloseTo(120 * (26.6 + over), 6);
    expect(made.zones[0].areaMm2).toBeCloseTo(120 * (26.7 + over / 2), 6);
    expect(thinPlaces(made.areas!, made.substrate)).toEqual([]);
  });
  test.each([
    [0, 80],
    [90, 120],
    [45, 200 * Math.SQRT1_2],
    [-90, 120],
  ])("at %i° they follow one another over %f mm, and no place of the blank is left out", (angle, length) => {
    const j = job();
    expect(axisOf(j.substrate, angle).length).toBeCloseTo(length, 9);
    const made = evenBands(j, COLOURS, angle);
    const sum = made.zones.reduce((s, z) => s + z.areaMm2, 0);
    // what lies twice is counted twice
    expect(sum).toBeGreaterThan(120 * 80);
    const bare = settled({ ...made, areas: { ...made.areas!, overlapMm: 0 } });
    expect(bare.zones.reduce((s, z) => s + z.areaMm2, 0)).toBeCloseTo(120 * 80, -1);
  });
  test("on a round blank with a hole they are what of it lies between their borders", () => {
    const made = evenBands(
      job({ w: 100, h: 100, blank: { form: "oval" }, holes: [{ x: 50, y: 50, d: 10 }] }),
      COLOURS.slice(0, 2),
      0,
    );
    const half = settled({ ...made, areas: { ...made.areas!, overlapMm: 0, fadeMm: 0 } });
    expect(half.zones[0].areaMm2).toBeCloseTo((Math.PI * 2500 - Math.PI * 25) / 2, 0);
    expect(half.zones[1].areaMm2).toBeCloseTo(half.zones[0].areaMm2, 0);
  });
  const bands = (strips: [number, number][], overlapMm: number, fadeMm: number): Job => {
    const made = evenBands(job(), COLOURS, 0);
    return settled({
      ...made,
      areas: {
        kind: "bands",
        overlapMm,
        fadeMm,
        strips: strips.map(([from, to], i) => ({ zone: `area-${i + 1}`, from, to })),
      },
    });
  };
  const thin = (j: Job) => thinPlaces(j.areas!, j.substrate);
  test("a gap is found where it is, to a tenth of a mm", () => {
    expect(
      thin(
        bands(
          [
            [0, 20],
            [24.5, 50],
            [50, 80],
          ],
          2,
          0,
        ),
      ),
    ).toEqual([{ from: 21, to: 23.5, least: 0 }]);
    expect(
      thin(
        bands(
          [
            [0, 20],
            [20.3, 50],
            [50, 80],
          ],
          0,
          0,
        ),
      ),
    ).toEqual([{ from: 20, to: 20.3, least: 0 }]);
  });
  test("an edge that no band reaches is a gap too", () => {
    expect(
      thin(
        bands(
          [
            [3, 20],
            [20, 50],
            [50, 78],
          ],
          0,
          0,
        ),
      ),
    ).toEqual([
      { from: 0, to: 3, least: 0 },
      { from: 78, to: 80, least: 0 },
    ]);
  });
  test("borders that thin out over more than they lie over one another leave less than a coat, by just so much", () => {
    const [a, b] = thin(
      bands(
        [
          [0, 20],
          [20, 50],
          [50, 80],
        ],
        4,
        8,
      ),
    );
    // whole up to 14, nothing from 22; the other from 18 to 26: at 18 to 22 half a coat
    expect(a.from).toBeCloseTo(14, 9);
    expect(a.to).toBeCloseTo(26, 9);
    expect(a.least).toBeCloseTo(0.5, 9);
    expect(b.from).toBeCloseTo(44, 9);
    expect(
      thin(
        bands(
          [
            [0, 20],
            [20, 50],
            [50, 80],
          ],
          8,
          8,
        ),
      ),
    ).toEqual([]);
  });
  test("as counted place by place", () => {
    const j = bands(
      [
        [0, 18],
        [21, 47],
        [46, 79],
      ],
      5,
      7,
    );
    const { areas } = j;
    const cover = (x: number): number =>
      areas!.strips!.reduce((n, s) => {
        const [from, to] = [s.from - 2.5, s.to + 2.5];
        const a = from <= 0 ? 1 : (x - from) / 7;
        const b = to >= 80 ? 1 : (to - x) / 7;
        return n + Math.max(0, Math.min(1, a, b));
      }, 0);
    const found = thin(j);
    for (let x = 0.05; x < 80; x += 0.1) {
      if (Math.abs(cover(x) - 1) < 0.02) continue;
      expect([x.toFixed(2), found.some((t) => x > t.from && x < t.to)]).toEqual([x.toFixed(2), cover(x) < 1]);
    }
    expect(found.length).toBeGreaterThan(0);
  });
});

describe("the picture on its blank", () => {
  const picture = (more: Partial<Picture> = {}): Picture => ({
    name: "p.png",
    photo: "picture.x",
    pxW: 1200,
    pxH: 900,
    small: "",
    smallW: 0,
    w: 122,
    h: 82,
    fit: "cover",
    tone: [],
    render: "stucki",
    ...more,
  });
  test("how far it runs over, and what that hides", () => {
    const o = overrunOf(picture({ dx: 0.5 }), job());
    expect(o).toMatchObject({ left: 0.5, right: 1.5, top: 1, bottom: 1, least: 0.5 });
    expect(o.degrees).toBeGreaterThan(0);
    expect(overrunOf(picture({ w: 100, h: 60 }), job())).toMatchObject({ least: -10, degrees: 0 });
    expect(pictureBox(picture(), job())).toEqual({ x0: -1, y0: -1, x1: 121, y1: 81 });
  });
  test("it lacks what the placing wants, unless it ends well within or a margin stays free", () => {
    expect(shortOf(picture(), job(), 1)).toBeNull();
    expect(shortOf(picture({ w: 120, h: 80 }), job(), 1)).toBeCloseTo(1, 9);
    expect(shortOf(picture({ w: 119 }), job(), 1)).toBeCloseTo(1.5, 9);
    expect(shortOf(picture({ w: 60, h: 40 }), job(), 1)).toBeNull();
    expect(shortOf(picture({ w: 118, h: 78 }), job({ keepMm: 1 }), 1)).toBeNull();
    expect(shortOf(runOver(picture({ w: 50, dx: 3 }), job(), 1), job(), 1)).toBeNull();
  });
  test("a fit costs what is cut off, or draws it out", () => {
    expect(lostByFit(picture({ w: 90, h: 90 })).share).toBeCloseTo(0.25, 9);
    expect(lostByFit(picture({ w: 90, h: 90, fit: "contain" })).share).toBeCloseTo(0, 9);
    expect(lostByFit(picture({ w: 90, h: 90, fit: "stretch" })).stretched).toBeCloseTo(1 / 3, 9);
    expect(lostByFit(picture({ w: 90, h: 120, quarters: 1 })).share).toBeCloseTo(0, 9);
    expect(lostByFit(picture({ w: 120, h: 90, crop: { x: 0, y: 0, w: 0.5, h: 0.5 } })).share).toBeCloseTo(0.75, 9);
  });
  test("pixels a mm, by the side that has fewer", () => {
    expect(pixelsPerMm(picture({ w: 120, h: 90 }))).toBeCloseTo(10, 9);
    expect(pixelsPerMm(picture({ w: 120, h: 60 }))).toBeCloseTo(10, 9);
    expect(pixelsPerMm(picture({ w: 60, h: 90 }))).toBeCloseTo(10, 9);
    expect(pixelsPerMm(picture({ w: 120, h: 90, crop: { x: 0, y: 0, w: 0.5, h: 0.5 } }))).toBeCloseTo(5, 9);
  });
});
