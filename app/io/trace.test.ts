/** A flat logo as zones: measured as a drawing is, areas true to its pixels, what is too small told, what is clear left away. */
import { loadClip } from "../door/kernel";
import { readZones } from "../core/vector/zones";
import type { Pixels } from "../core/tone/source";
import { traceSvg } from "./import/trace";
import { zonesApi } from "../workers/zones-api";

/** A ring round a disc on white, a speck, and a clear rim. */
function logo(w: number, h: number): Pixels {
  const at = (x: number, y: number): number[] => {
    const r = Math.hypot(x - w / 2, y - h / 2) / (w / 2);
    if (x < 6) return [0, 0, 0, 0];
    if (Math.hypot(x - w * 0.9, y - h * 0.1) < 1.5) return [20, 20, 20, 255];
    return r < 0.3 ? [243, 182, 31, 255] : r < 0.6 ? [43, 111, 166, 255] : [255, 255, 255, 255];
  };
  const rows = Array.from({ length: h }, (_r, y) =>
    Uint8Array.from(Array.from({ length: w }, (_c, x) => at(x, y)).flat()),
  );
  return { w, h, channels: 4, max: 255, row: (y) => rows[y] };
}

test("zones of a logo have the areas that its pixels have, and fill what is not clear", async () => {
  const [w, h] = [300, 240];
  const made = traceSvg(logo(w, h), 1, { colours: 3, widthMm: 90, leastMm2: 2 });
  expect(made).toMatchObject({ colours: 3, clear: true, lost: { parts: 1 } });
  expect(made.lost.mm2).toBeGreaterThan(0.3);
  const found = readZones(await loadClip(), made.svg);
  expect([found.widthMm, found.heightMm]).toEqual([90, 72]);
  const of = (c: string) => found.zones.find((z) => z.colour === c)!;
  const disc = Math.PI * (0.3 * 45) ** 2;
  expect(Math.abs(of("#f3b61f").areaMm2 / disc - 1)).toBeLessThan(0.01);
  expect(Math.abs(of("#2b6fa6").areaMm2 / (3 * disc) - 1)).toBeLessThan(0.01);
  expect(of("#2b6fa6").holes).toBe(1);
  // six of three hundred pixels are clear at the left
  expect(found.zones.reduce((s, z) => s + z.areaMm2, 0)).toBeCloseTo(90 * 72 * (294 / 300), 0);
});
test("a colour that is kept stays to the digit; one that goes with another is one area with it", () => {
  const ask = { colours: 3, widthMm: 90, leastMm2: 2 };
  const [w, h] = [300, 240];
  const kept = traceSvg(logo(w, h), 1, { ...ask, locked: ["#2a70a0"] });
  expect(kept.palette.map((c) => c.colour)).toContain("#2a70a0");
  const found = traceSvg(logo(w, h), 1, { ...ask, locked: ["#f3b61f", "#2b6fa6"], merged: [["#f3b61f", "#2b6fa6"]] });
  expect(found.colours).toBe(2);
  expect(found.svg).not.toContain("#f3b61f");
  // the ring has no hole any more
  expect(/fill="#2b6fa6"[^>]*d="([^"]*)"/.exec(found.svg)![1].split("M")).toHaveLength(2);
  // a colour that is not there is no fault
  expect(traceSvg(logo(w, h), 1, { ...ask, merged: [["#123456", "#2b6fa6"]] }).colours).toBe(3);
  const shares = found.palette.reduce((a, c) => a + c.share, 0);
  expect(shares).toBeCloseTo(294 / 300, 2);
});
test("what is finer than the spot is told, marked, and holds at the size that is told", () => {
  // a hair across a field
  const hair: Pixels = {
    w: 300,
    h: 200,
    channels: 1,
    max: 255,
    row: (y) =>
      Uint8Array.from({ length: 300 }, (_v, x) => (x >= 200 && x < 203 && y > 20 && y < 180 ? 0 : x < 80 ? 40 : 255)),
  };
  const at = (widthMm: number) => traceSvg(hair, 1, { colours: 3, widthMm, leastMm2: 0, spotMm: 0.6 });
  const small = at(30);
  expect(small.fine!.enlarge).toBe(2);
  expect(small.fine!.share).toBeCloseTo((3 * 159) / 60_000, 3);
  expect(at(60).fine).toEqual({ share: 0, enlarge: 1 });
  const { data, w } = small.preview;
  const red = [...data.keys()]
    .filter((i) => i % 4 === 0 && data[i] === 181 && data[i + 1] === 51)
    .map((i) => (i >> 2) % w);
  expect([...new Set(red)]).toEqual([200, 201, 202]);
  expect(traceSvg(hair, 1, { colours: 3, widthMm: 30, leastMm2: 0 }).fine).toBeNull();
});
test("as many colours as it seems to have, where none are asked for; none of them in a clear one", () => {
  expect(traceSvg(logo(120, 96), 1, { colours: null, widthMm: 40, leastMm2: 0.5 }).colours).toBe(3);
  const clear: Pixels = { w: 4, h: 4, channels: 4, max: 255, row: () => new Uint8Array(16) };
  expect(() => traceSvg(clear, 1, { colours: null, widthMm: 40, leastMm2: 0 })).toThrow(/All of the picture is clear/);
});
test("turned in its file it stands upright, and a very large one is taken more coarsely", () => {
  const big: Pixels = {
    w: 3000,
    h: 1500,
    channels: 1,
    max: 255,
    row: (y) => new Uint8Array(3000).fill(y < 750 ? 0 : 255),
  };
  const made = traceSvg(big, 6, { colours: 2, widthMm: 60, leastMm2: 0 });
  // a quarter clockwise: upper half to the right
  expect(made.svg).toMatch(/width="60mm" height="120mm"/);
  expect(made.svg).toMatch(/fill="#000000" fill-rule="evenodd" d="M375 0L/);
});
test("the worker's own way: unpacked, traced, measured", async () => {
  const api = zonesApi(loadClip, () => Promise.resolve(logo(120, 96)));
  const head = new Uint8Array(64);
  head.set([137, 80, 78, 71, 13, 10, 26, 10]);
  await expect(api.trace(head, { colours: 3, widthMm: 40, leastMm2: 0 })).rejects.toThrow(/cut off/);
});
