import { Job, Zone } from "../records/job";
import { randomOf } from "../units/random";
import { thumbOf } from "./thumb";

const zone = (id: string, outline: string, more: Partial<Zone> = {}): Zone =>
  ({ ...new Zone(), id, name: id, colour: "#a8235a", areaMm2: 100, perimeterMm: 40, outline, ...more }) as Zone;
const job = (zones: Zone[], w = 120, h = 60): Job => ({
  ...new Job(),
  id: "j",
  title: "J",
  start: "2027-01-11T09:00",
  substrate: { ...new Job().substrate, w, h },
  artwork: { name: "a", svg: "", w: 100, h: 40 },
  zones,
});
const square = (x: number, y: number, s: number): string => `M${x} ${y}L${x + s} ${y}L${x + s} ${y + s}L${x} ${y + s}Z`;

test("on the grid of the blank, moved to where the artwork lies; a corner on the way of a line is none", () => {
  const t = thumbOf(job([zone("a", "M0 0L10 0L20 0L20 20L0 20Z"), zone("b", "", { bare: true })]))!;
  // 120 mm are 96 cells; the artwork lies 10 mm from left and top
  expect([t.w, t.h]).toEqual([96, 48]);
  expect(t.zones).toEqual([{ colour: "#a8235a", productId: null, bare: false, path: "M8 8L24 8L24 24L8 24Z" }]);
  expect(thumbOf(job([zone("a", square(0, 0, 20))], 60, 120))!.w).toBe(48);
  expect(thumbOf(job([zone("a", "")]))).toBeNull();
});

test("the picture stays small whatever is drawn: what is finer goes first, holes stay where they can be seen", () => {
  const dots = Array.from({ length: 4000 }, (_, i) => square((i % 100) * 1, Math.floor(i / 100), 0.3)).join("");
  const ring = Array.from({ length: 20000 }, (_, i) => {
    const a = (i / 20000) * 2 * Math.PI;
    return `${i ? "L" : "M"}${50 + 30 * Math.cos(a)} ${20 + 18 * Math.sin(a)}`;
  }).join("");
  const t = thumbOf(job([zone("a", `${ring}Z${square(45, 15, 10)}`), zone("b", dots)]))!;
  expect(JSON.stringify(t).length).toBeLessThan(5000);
  expect(t.zones[0].path.split("M")).toHaveLength(3);
  expect(t.zones[1].path).toBe("");
  // squares of 2 mm, more than find room: some from every part of the face
  const squares = Array.from({ length: 900 }, (_, i) => square((i % 30) * 3.3, Math.floor(i / 30) * 1.3, 2)).join("");
  const rows = [...thumbOf(job([zone("a", squares)]))!.zones[0].path.matchAll(/M\d+ (\d+)/g)].map((m) => Number(m[1]));
  for (const part of [0, 1, 2, 3])
    expect(rows.filter((y) => Math.floor((y - 8) / 8) === part).length).toBeGreaterThan(15);
});

test("kept on while the drawing and the blank are the same, with the paints as they are by now; drawn anew after that", () => {
  const one = job([zone("a", square(0, 0, 20))]);
  const first = thumbOf(one)!;
  const kept = { ...first, zones: first.zones.map((z) => ({ ...z, path: "M1 1Z" })) };
  const painted = job([zone("a", square(0, 0, 20), { productId: "beet" })]);
  expect(thumbOf(painted, kept)!.zones).toEqual([{ ...kept.zones[0], productId: "beet" }]);
  for (const other of [
    job([zone("a", square(0, 0, 21), { areaMm2: 441 })]),
    job([zone("a", square(0, 0, 20))], 121),
    job([zone("b", square(0, 0, 20))]),
  ])
    expect(thumbOf(other, kept)).toEqual(thumbOf(other));
});

test("of stars and flowers by chance: whole cells, few enough characters for a list, nothing twice", () => {
  const rnd = randomOf(7);
  for (let n = 0; n < 60; n++) {
    const [w, h] = [10 + rnd.next() * 900, 10 + rnd.next() * 900];
    const stars = Array.from({ length: 1 + Math.floor(rnd.next() * 40) }, (_, k) => {
      const [x, y, r, points] = [
        rnd.next() * w,
        rnd.next() * h,
        rnd.next() * w * 0.3,
        3 + Math.floor(rnd.next() * 200),
      ];
      const at = (i: number): string => {
        const [a, d] = [(i / points) * 2 * Math.PI, i % 2 ? r : r * rnd.next()];
        return `${(x + d * Math.cos(a)).toFixed(5)} ${(y + d * Math.sin(a)).toFixed(5)}`;
      };
      return zone(`z${k}`, `M${Array.from({ length: points }, (_, i) => at(i)).join("L")}Z`);
    });
    const t = thumbOf(job(stars, w, h))!;
    expect(Math.max(t.w, t.h)).toBe(96);
    expect(t.zones).toHaveLength(stars.length);
    expect(t.zones.map((z) => z.path).join("").length).toBeLessThan(4500);
    expect(t.zones.every((z) => /^(M-?\d+ -?\d+(L-?\d+ -?\d+)+Z)*$/.test(z.path))).toBe(true);
    expect(t.zones.every((z) => !/(?:^|L|M)(-?\d+ -?\d+)L\1(?:L|Z)/.test(z.path))).toBe(true);
  }
});
