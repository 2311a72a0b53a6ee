/** Names on pieces: lists as they are pasted, letters within their block, means that add up, files that have each piece’s own. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import { loadClip } from "../door/kernel";
import { onBed, packets, toldLoads } from "../core/explain/packet";
import { nameSheet } from "../core/explain/names";
import { turnedTo } from "../core/geometry/artwork";
import { asOn, meanRows, named, nameOn, type NameRow } from "../core/geometry/names";
import { ringsArea } from "../core/geometry/blank";
import { ringsOf } from "../core/geometry/outline";
import { makePlan } from "../core/plan/plan";
import { NameBlock, type Zone } from "../core/records/job";
import { many, seeded, a1, zone } from "../core/testing/worlds";
import { bounds } from "../core/vector/clip";
import { rowExtents, SLICES } from "../core/vector/measure";
import { readNames } from "./import/names";
import { setNames } from "./names";

const FONT = new Uint8Array(
  readFileSync(
    createRequire(import.meta.url).resolve(
      "@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-700-normal.woff",
    ),
  ),
);
const block = (more: Partial<NameBlock> = {}): NameBlock => ({
  ...new NameBlock(),
  x: 5,
  y: 30,
  w: 60,
  h: 12,
  ...more,
});
const rowsOf = (...names: string[]): NameRow[] => names.map((n) => ({ lines: [n], colour: "" }));
/** mm² by the rows of slices */
const swept = (rows: number[]): number =>
  ((rows[1] - rows[0]) / SLICES) *
  Array.from({ length: SLICES }, (_v, i) => Math.max(0, rows[3 + 2 * i] - rows[2 + 2 * i])).reduce((a, b) => a + b, 0);

test.each([
  ["Beet\nKale\r\n\n  Leek ", [["Beet"], ["Kale"], ["Leek"]], ["", "", ""]],
  ["Name;Line 2;Colour\nBeet;for Ida;Poppy\nKale;;#112233", [["Beet", "for Ida"], ["Kale"]], ["Poppy", "#112233"]],
  [
    "Beet\tfor Ida\nKale\tfor Bo",
    [
      ["Beet", "for Ida"],
      ["Kale", "for Bo"],
    ],
    ["", ""],
  ],
  ['name,colour\n"Leek, early",red', [["Leek, early"]], ["red"]],
  ["\uFEFFname\nBeet", [["Beet"]], [""]],
])("a list as it is pasted: %j", (text, lines, colours) => {
  const read = readNames(text);
  expect(read.map((r) => r.lines)).toEqual(lines);
  expect(read.map((r) => r.colour)).toEqual(colours);
});
test.each([
  ["", "no name in it"],
  ["name,colour\n,red", "Line 2 has a colour and no name"],
  ['name,colour\n"Beet,red', "Line 2 has a quote that does not end"],
  ["a;b;c;d;e;f;g", "Line 1 has 7 lines of text"],
  ["Beet\n".repeat(501), "501 names are more than the 500"],
])("a list that can’t be read says where: %.20j", (text, why) => expect(() => readNames(text)).toThrow(why));

test("what is drawn of a name lies within its block, as large as it can be; in one size all are as large as the tightest", async () => {
  const clip = await loadClip();
  const rnd = seeded(77);
  const some = ["Beet", "Peggy Quay", "i", "Maximiliane-Josephine", "WWW", "gjpqy", "O"];
  for (let k = 0; k < many(12); k++) {
    const b = block({
      x: rnd() * 20,
      y: rnd() * 20,
      w: 8 + rnd() * 80,
      h: 3 + rnd() * 20,
      tracking: rnd() * 0.3 - 0.05,
    });
    const names = rowsOf(...some.filter(() => rnd() < 0.6), "Kale");
    const each = setNames(FONT, names, b, clip).list;
    for (const x of each) {
      const o = bounds(ringsOf(x.outline))!;
      for (const over of [b.x - o.x0, b.y - o.y0, o.x1 - b.x - b.w, o.y1 - b.y - b.h]) expect(over).toBeLessThan(0.01);
      // and fills half of it one way at least: a lone letter has its own air beside it
      const least = Math.min(1 - (o.x1 - o.x0) / b.w, 1 - (o.y1 - o.y0) / b.h);
      expect(least).toBeLessThan(0.5);
    }
    const one = setNames(FONT, names, { ...b, oneSize: true }, clip).list;
    const least = Math.min(...each.map((x) => x.capMm));
    for (const x of one) expect(x.capMm).toBeCloseTo(least, 6);
  }
});
test("means add up: area, perimeter and the run of rows of all pieces, the narrowest and smallest of any", async () => {
  const clip = await loadClip();
  const rows: NameRow[] = ["Beet", "Marigold", "Leek", "Io"].map((n, i) => ({
    lines: [n],
    colour: i < 3 ? "red" : "",
  }));
  const { list, zones } = setNames(FONT, rows, block(), clip);
  const own = list.map((x) => ({ area: ringsArea(ringsOf(x.outline)), sweep: swept(rowExtents(ringsOf(x.outline))) }));
  const sum = (of: (x: (typeof own)[number]) => number, from: number, to: number): number =>
    own.slice(from, to).reduce((s, x) => s + of(x), 0);
  expect(zones.red.areaMm2 * 4).toBeCloseTo(
    sum((x) => x.area, 0, 3),
    1,
  );
  expect(zones[""].areaMm2 * 4).toBeCloseTo(own[3].area, 1);
  expect(zones.red.narrowestMm).toBe(Math.min(...list.slice(0, 3).map((x) => x.narrowestMm)));
  // rows are cut into slices anew: a slice at an edge of a letter counts for a part
  expect(swept(zones.red.rows) * 4).toBeCloseTo(
    sum((x) => x.sweep, 0, 3),
    0,
  );
  expect(swept(zones.red.rows) * 4).toBeGreaterThan(0.97 * sum((x) => x.sweep, 0, 3));
});
test("rows of two that lie one above the other: as long as they are on average, over both their heights", () => {
  const upper = rowExtents([[[0, 0], [10, 0], [10, 4], [0, 4]]]); // prettier-ignore
  const lower = rowExtents([[[0, 4], [20, 4], [20, 8], [0, 8]]]); // prettier-ignore
  const mean = meanRows([upper, lower], 2);
  expect(mean.slice(0, 2)).toEqual([0, 8]);
  expect(mean.slice(2, 4)).toEqual([2.5, 7.5]);
  expect(mean.slice(-2)).toEqual([5, 15]);
  // of three pieces one has none
  expect(swept(meanRows([upper, lower], 3))).toBeCloseTo(40, 6);
});

/** Six pieces with names over a drawn ground, in the way they are uncovered. */
async function withNames(pieces: number, names: string[]) {
  const clip = await loadClip();
  const { list, zones } = setNames(FONT, rowsOf(...names), block({ x: 10, y: 10 }), clip);
  const ground = "M0 0L80 0L80 30L0 30Z";
  const letters: Zone = {
    ...zone("names-000000", "beet"),
    ...zones[""],
    name: "Names",
    onPieces: list.map((x, i) => ({ n: i + 1, text: x.lines.join(", "), outline: x.outline })),
  };
  const w = a1({
    choices: { proof: false, begin: pieces },
    job: {
      zones: [{ ...zone("ground", "marigold"), outline: ground, areaMm2: 2400 }, letters],
      quantity: names.length,
      artwork: { name: "a", svg: "", w: 80, h: 40 },
    },
  });
  return { clip, w, list };
}
test("files have each piece’s own name, and of what lies beneath only what it leaves; every load is there", async () => {
  const names = ["Beet", "Marigold", "Leek", "Io", "Kale", "Pea"];
  const { clip, w, list } = await withNames(8, names);
  const plan = makePlan(w, null, true);
  let looked = 0;
  for (const v of packets(plan, clip)) {
    expect(toldLoads(v)).toEqual(v.bed!.loads.map((_l, i) => i));
    for (const layer of v.layers.filter((l) => l.zone)) {
      const each = layer.each!;
      expect(each).toHaveLength(8);
      const area = (n: number): number => ringsArea(each[n].map((p) => p.points));
      for (let n = 0; n < 8; n++) {
        const letters = n < 6 ? ringsArea(ringsOf(list[n].outline)) : 0;
        const wanted = layer.zone === "ground" ? 2400 - letters : letters;
        expect(Math.abs(area(n) - wanted)).toBeLessThan(0.02 + wanted / 1000);
        looked++;
      }
    }
    // on the bed each lies at the place of its own piece
    const laid = onBed(v, 0).find((l) => l.layer.zone === "names-000000");
    if (laid) expect(laid.paths.length).toBe(laid.layer.each!.slice(0, v.bed!.loads[0].length).flat().length);
    expect(v.notes.some((t) => t.includes("Pieces 7 to 8 carry no name: they are for those"))).toBe(true);
  }
  expect(looked).toBeGreaterThan(0);
});
test("a name stays with its piece when the artwork is turned; the sheet for who ordered them has all in order", async () => {
  const { w } = await withNames(3, ["Beet", "Marigold", "Leek"]);
  const { zones } = turnedTo(w.job, 90);
  const back = turnedTo({ ...turnedTo(w.job, 90) }, 0).zones;
  for (const [i, p] of zones[1].onPieces!.entries()) {
    expect(ringsArea(ringsOf(p.outline))).toBeCloseTo(ringsArea(ringsOf(w.job.zones[1].onPieces![i].outline)), 3);
    const [a, b] = [bounds(ringsOf(p.outline))!, bounds(ringsOf(w.job.zones[1].onPieces![i].outline))!];
    expect(a.x1 - a.x0).toBeCloseTo(b.y1 - b.y0, 4);
  }
  expect(bounds(ringsOf(back[1].onPieces![2].outline))!.x0).toBeCloseTo(
    bounds(ringsOf(w.job.zones[1].onPieces![2].outline))!.x0,
    3,
  );
  expect([named(zones), nameOn(zones, 2), nameOn(zones, 4)]).toEqual([3, "Marigold", null]);
  expect(asOn(zones, 9)[1].outline).toBe("");
  expect(nameSheet(w.job).names.map((x) => [x.n, x.text])).toEqual([[1, "Beet"], [2, "Marigold"], [3, "Leek"]]); // prettier-ignore
});
test("no font, or one that lacks a sign, is told", async () => {
  const clip = await loadClip();
  expect(() => setNames(new Uint8Array([1, 2, 3]), rowsOf("Beet"), block(), clip)).toThrow(
    "“Beet” could not be set: That file is no font",
  );
  expect(setNames(FONT, rowsOf("Beet ☃"), block(), clip).list[0].lacks).toEqual(["☃"]);
});
