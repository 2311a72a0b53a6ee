/** Drawings of many shapes: the same as worked out one after another, and told when they are too much. */
import { loadClip } from "../../door/kernel";
import { seeded, many } from "../testing/worlds";
import { area, perimeter, pieces, type Clip, type Point, type Region, type Ring } from "./clip";
import { narrowest } from "./narrow";
import { visible, type Layer } from "./visible";
import { crossings, Meter, TooMuch } from "./work";
import { readZones } from "./zones";

let clip: Clip;
beforeAll(async () => {
  clip = await loadClip();
});
const ring = (x: number, y: number, r: number, n: number, turn = 0): Ring =>
  Array.from({ length: n }, (_, i): Point => {
    const a = turn + (i / n) * 2 * Math.PI;
    return [x + r * Math.cos(a), y + r * Math.sin(a)];
  });
const svg = (body: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">${body}</svg>`;

/** One after another from the top, each cut by all above it. */
function plainly(layers: Layer[]): Map<string, Region> {
  const seen = new Map<string, Region>();
  let covered: Region = [];
  for (const { colour, region } of [...layers].reverse()) {
    const left = clip.subtract(region, covered);
    if (left.length) seen.set(colour, clip.union(seen.get(colour) ?? [], left));
    covered = clip.union(covered, region);
  }
  return seen;
}

test("what is seen of each colour is what is left when the layers are taken one after another", () => {
  for (let k = 0; k < many(40); k++) {
    const r = seeded(k + 1);
    const colours = ["#111111", "#222222", "#333333", "#444444"].slice(0, 1 + (k % 4));
    const layers = Array.from({ length: 3 + Math.floor(r() * 40) }, (): Layer => {
      const [x, y, size] = [r() * 100, r() * 100, 2 + r() * (k % 3 ? 12 : 45)];
      const outer = ring(x, y, size, 3 + Math.floor(r() * 30), r() * 6);
      const hole = r() < 0.3 ? [ring(x, y, size * 0.4, 12).reverse()] : [];
      return { colour: colours[Math.floor(r() * colours.length)], region: clip.fill([outer, ...hole], "nonzero") };
    });
    const shares: number[] = [];
    const halves = visible(clip, layers, (s) => shares.push(s));
    const plain = plainly(layers);
    expect([...halves.keys()].sort()).toEqual([...plain.keys()].sort());
    for (const [colour, parts] of halves) {
      const whole = plain.get(colour)!;
      expect(area(parts.flat())).toBeCloseTo(area(whole), 3);
      // what only rounding keeps apart is one piece
      const closed = (r: Region): number => pieces(clip.grow(r, 0.002)).filter((p) => area(p) > 0.1).length;
      expect(closed(parts.flat())).toBe(closed(whole));
    }
    expect(shares.every((s, i) => s <= 1 && s >= (shares[i - 1] ?? 0))).toBe(true);
  }
});

describe("narrowest width", () => {
  /** by shrinking alone, in small steps */
  const shrunk = (p: Region): number => {
    const [whole, corners] = [area(p), p.reduce((n, x) => n + turns(x), 0)];
    for (let rho = 0.02; ; rho += 0.02) {
      const s = clip.grow(p, -rho);
      const left = area(s);
      const parts = pieces(s).filter((x) => area(x) > 0.002 * left);
      if (parts.length !== 1 || parts[0].length < p.length) return 2 * rho;
      const lost = whole - area(clip.grow(s, rho));
      if (lost > 0.01 * whole + (1 - Math.PI / 4) * rho * rho * corners) return 2 * rho;
    }
  };
  const turns = (x: Ring): number =>
    x.filter((_p, i) => {
      const [a, b, c] = [x[(i + x.length - 1) % x.length], x[i], x[(i + 1) % x.length]];
      const [u, v] = [Math.atan2(b[1] - a[1], b[0] - a[0]), Math.atan2(c[1] - b[1], c[0] - b[0])];
      const turn = Math.atan2(Math.sin(v - u), Math.cos(v - u));
      return turn > (25 * Math.PI) / 180;
    }).length;
  test("of bars, rings, necks and notches: what their edges vouch for is what shrinking finds", () => {
    for (let k = 0; k < many(30); k++) {
      const r = seeded(100 + k);
      const size = 4 + r() * 8;
      const base = ring(0, 0, size, 4 + Math.floor(r() * 40), r());
      const parts: Ring[][] = [
        [base],
        [base, ring(size * 0.3, 0, size * 0.35, 16).reverse()],
        [base, ring(size * (1.2 + r() * 0.6), 0, size * 0.7, 20)],
        [
          base,
          [
            [0, -0.3 - r()],
            [size * 2, -0.3 - r()],
            [size * 2, 0.3 + r()],
            [0, 0.3 + r()],
          ],
        ],
      ];
      for (const rings of parts) {
        const [piece] = pieces(clip.fill(rings, "nonzero")).reverse();
        expect(Math.abs(narrowest(clip, [piece]) - shrunk(piece))).toBeLessThan(0.12);
      }
    }
  });
  test("of many pieces it is that of the narrowest, wherever it lies and however often its shape comes", () => {
    const bar = (x: number, w: number): Ring => [
      [x, 0],
      [x + w, 0],
      [x + w, 30],
      [x, 30],
    ];
    const far = [bar(0, 4), bar(10, 4), bar(20, 0.8), bar(30, 6)].map((b) => [b]);
    expect(narrowest(clip, far)).toBeCloseTo(0.8, 1);
    expect(narrowest(clip, [...far].reverse())).toBeCloseTo(0.8, 1);
    expect(narrowest(clip, [[bar(0, 4)], [bar(50, 4)]])).toBeCloseTo(4, 1);
    expect(narrowest(clip, [])).toBe(Infinity);
  });
  test("of an outline with many corners, large and small", () => {
    const wavy = (n: number): Ring =>
      Array.from({ length: n }, (_, i): Point => {
        const a = (i / n) * 2 * Math.PI;
        return [(40 + Math.sin(a * 9)) * Math.cos(a), (40 + Math.sin(a * 9)) * Math.sin(a)];
      });
    const [few, lots] = [wavy(300), wavy(6000)].map((x) => narrowest(clip, [[x]]));
    expect(Math.abs(lots - few)).toBeLessThan(0.02 * few);
    expect(perimeter([wavy(6000)])).toBeGreaterThan(2 * Math.PI * 40);
  });
});

describe("drawings that take long", () => {
  test("crossings are guessed from a sample: none in a plain outline, about as many as there are in a tangle", () => {
    expect(crossings([ring(0, 0, 50, 4000)])).toBe(0);
    const r = seeded(5);
    const tangle = Array.from({ length: 900 }, (): Point => [r() * 100, r() * 100]);
    let met = 0;
    for (let i = 0; i < tangle.length; i++)
      for (let j = i + 2; j < tangle.length; j++) {
        const [a, b, c, d] = [tangle[i], tangle[(i + 1) % 900], tangle[j], tangle[(j + 1) % 900]];
        const side = (p: Point, q: Point, x: Point) => (q[0] - p[0]) * (x[1] - p[1]) - (q[1] - p[1]) * (x[0] - p[0]);
        if (side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0) met++;
      }
    const guess = crossings([tangle]);
    expect(guess).toBeGreaterThan(met * 0.8);
    expect(guess).toBeLessThan(met * 1.25);
    expect(crossings([tangle.slice(0, 100)])).toBe(0);
  });
  test("an outline that crosses itself millions of times is told before it is begun, with how long it takes", () => {
    const r = seeded(9);
    const points = Array.from({ length: 30000 }, () => `${(r() * 200).toFixed(1)} ${(r() * 200).toFixed(1)}`);
    const read = () => readZones(clip, svg(`<path d="M${points.join("L")}Z"/>`));
    expect(read).toThrow(TooMuch);
    expect(read).toThrow(
      /30,000 corners crosses itself about \d+ million times: that takes about \d+ (s|min)\. Unite it with itself/,
    );
  });
  test("what is spent is counted, and told with the shapes and the whole; without a limit all is taken", () => {
    const body = Array.from(
      { length: 120 },
      (_, i) => `<circle cx="${40 + i}" cy="100" r="${30 + (i % 7)}" fill="#${i % 2 ? "a00" : "0a0"}"/>`,
    );
    const all = readZones(clip, svg(body.join("")), null, undefined, Infinity);
    expect(all.zones).toHaveLength(2);
    expect(() => readZones(clip, svg(body.join("")), null, undefined, 0.06)).toThrow(
      /It holds 120 shapes that lie over one another: that takes (about|more than) \d+ s\. Unite them/,
    );
    // and what is well within it is the same
    expect(readZones(clip, svg(body.join("")))).toEqual(all);
    const meter = new Meter(1);
    const counted = meter.over(clip);
    expect(counted.union([ring(0, 0, 1, 9)], [ring(5, 5, 1, 9)])).toEqual(
      clip.union([ring(0, 0, 1, 9)], [ring(5, 5, 1, 9)]),
    );
  });
});
