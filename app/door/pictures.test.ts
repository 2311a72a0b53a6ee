/** The door's verbs for pictures: bytes in, bytes or zones out, one sentence where something is wrong. */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { decode, encode } from "fast-png";
import { knock } from "../../scripts/door.mjs";

const door = (input: Uint8Array, ...args: string[]) => {
  const r = knock(input, args);
  return { code: r.status, out: r.stdout, err: r.stderr.toString().trim() };
};
let dir = "";
beforeAll(() => void (dir = mkdtempSync(join(tmpdir(), "richlayer-recipe-"))));
afterAll(() => rmSync(dir, { recursive: true, force: true }));
const recipe = (more: object): string => {
  const path = join(dir, `${Math.abs(JSON.stringify(more).length)}-${Object.keys(more).join("")}.json`);
  writeFileSync(path, JSON.stringify({ picture: 1, widthMm: 20, heightMm: 10, intervalMm: 0.1, ...more }));
  return path;
};
const ramp = encode({
  width: 64,
  height: 32,
  data: Uint8Array.from({ length: 2048 }, (_v, i) => (i % 64) * 4),
  channels: 1,
});

test("a picture by its recipe: size, density, black where it burns", () => {
  const at = recipe({ render: "stucki", fit: "stretch" });
  const r = door(ramp, "picture", "--recipe", at);
  expect([r.code, r.err]).toEqual([0, ""]);
  const out = decode(r.out, { checkCrc: true });
  expect([out.width, out.height, out.depth, out.resolution]).toEqual([200, 100, 1, { x: 10000, y: 10000, unit: 1 }]);
  const burnt = (x: number): number =>
    Array.from({ length: 100 }, (_v, y) => 1 - ((out.data[y * 25 + (x >> 3)] >> (7 - (x & 7))) & 1)).reduce(
      (a, b) => a + b,
      0,
    );
  // not inverted the dark is burnt: more of it on the left
  expect(burnt(4)).toBeGreaterThan(80);
  expect(burnt(195)).toBeLessThan(25);
});
test("a flat logo as zones with outlines", () => {
  const data = Uint8Array.from(
    { length: 60 * 40 * 3 },
    (_v, i) => ((i / 3) % 60 < 30 ? [216, 67, 47] : [244, 242, 238])[i % 3],
  );
  const r = door(encode({ width: 60, height: 40, data, channels: 3 }), "trace", "--colours", "2", "--width-mm", "30");
  expect([r.code, r.err]).toEqual([0, ""]);
  const found = JSON.parse(r.out.toString()) as {
    widthMm: number;
    heightMm: number;
    zones: { id: string; areaMm2: number; outline: string }[];
  };
  expect([found.widthMm, found.heightMm]).toEqual([30, 20]);
  expect(found.zones.map((z) => [z.id, Math.round(z.areaMm2)])).toEqual(
    expect.arrayContaining([
      ["z-d8432f", 300],
      ["z-f4f2ee", 300],
    ]),
  );
  expect(found.zones.every((z) => z.outline.startsWith("M"))).toBe(true);
});
test.each([
  ["picture", ["WRONG"], "ramp", /render must be one of/],
  ["trace", [], "ramp", /--width-mm says it/],
])("%s %j with %s: exit 2 and one sentence", (verb, args, input, says) => {
  const more = args.flatMap((a) =>
    a === "RECIPE" ? ["--recipe", recipe({})] : a === "WRONG" ? ["--recipe", recipe({ render: "woven" })] : [a],
  );
  const r = door(input === "ramp" ? ramp : new TextEncoder().encode("no picture"), verb, ...more);
  expect([r.code, r.out.length]).toEqual([2, 0]);
  expect(r.err).toMatch(says);
  expect(r.err.split("\n")).toHaveLength(1);
});
