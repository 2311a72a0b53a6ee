/** Outlines out of files: SVG of lines only, DXF of lines, arcs and polylines with bulges, in the units that they say. */
import { BadOutline, faceMm2 } from "../../core/geometry/blank";
import { Substrate } from "../../core/records/job";
import { blankFromFile } from "./blank";

const svg = (inner: string, size = `width="200mm" height="100mm" viewBox="0 0 200 100"`): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" ${size}>${inner}</svg>`;
const dxf = (entities: (string | number)[][], units = 4): string =>
  [
    ["0", "SECTION", "2", "HEADER", "9", "$INSUNITS", "70", units, "0", "ENDSEC", "0", "SECTION", "2", "ENTITIES"],
    ...entities,
    ["0", "ENDSEC", "0", "EOF"],
  ]
    .flat()
    .join("\n");
const line = (x1: number, y1: number, x2: number, y2: number) => [
  "0",
  "LINE",
  "8",
  "0",
  "10",
  x1,
  "20",
  y1,
  "11",
  x2,
  "21",
  y2,
];
const arcOf = (x: number, y: number, r: number, from: number, to: number) => [
  "0",
  "ARC",
  "8",
  "0",
  "10",
  x,
  "20",
  y,
  "40",
  r,
  "50",
  from,
  "51",
  to,
];
const circle = (x: number, y: number, r: number) => ["0", "CIRCLE", "8", "0", "10", x, "20", y, "40", r];
const area = async (name: string, text: string): Promise<[number, number, number]> => {
  const got = await blankFromFile(name, text);
  return [got.w, got.h, faceMm2({ ...new Substrate(), ...got })];
};
const close = (v: number, digits = 1): unknown => expect.closeTo(v, digits);

test("SVG: hairlines without fill, holes within, transforms and nested sizes; colour and fill say nothing", async () => {
  const board = `<rect x="20" y="10" width="120" height="60" fill="none" stroke="#f00" stroke-width="0.01"/>`;
  const holes =
    `<g transform="translate(20 10)"><circle cx="10" cy="10" r="2"/><use href="#k"/></g>` +
    `<defs><circle id="k" cx="110" cy="10" r="2"/></defs>`;
  expect(await area("b.svg", svg(board))).toEqual([120, 60, 7200]);
  expect(await area("b.svg", svg(board + holes))).toEqual([120, 60, close(7200 - Math.PI * 8, 0)]);
  const oval = `<ellipse cx="60" cy="50" rx="50" ry="30" fill="none"/>`;
  expect(await area("b.svg", svg(oval))).toEqual([close(100), close(60), close(Math.PI * 1500, -1)]);
});

test("DXF: four lines and round corners in any order; inches; a polyline with bulges; a hole", async () => {
  const rounded = [
    line(10, 0, 90, 0),
    arcOf(90, 10, 10, 270, 360),
    line(100, 10, 100, 50),
    arcOf(90, 50, 10, 0, 90),
    line(90, 60, 10, 60),
    arcOf(10, 50, 10, 90, 180),
    line(0, 50, 0, 10),
    arcOf(10, 10, 10, 180, 270),
  ];
  const want = 6000 - (4 - Math.PI) * 100;
  expect(await area("b.dxf", dxf(rounded))).toEqual([close(100), close(60), close(want, 0)]);
  expect(await area("b.DXF", dxf([...rounded].reverse()))).toEqual([close(100), close(60), close(want, 0)]);
  expect(await area("b.dxf", dxf([...rounded, circle(50, 30, 5)]))).toEqual([
    close(100),
    close(60),
    close(want - 25 * Math.PI, 0),
  ]);
  const inch = await area("b.dxf", dxf(rounded, 1));
  expect(inch[0]).toBeCloseTo(2540, 0);
  // a slot: two straight sides, half circles at the ends (bulge 1)
  const slot = [
    "0",
    "LWPOLYLINE",
    "8",
    "0",
    "90",
    4,
    "70",
    1,
    "10",
    20,
    "20",
    0,
    "10",
    80,
    "20",
    0,
    "42",
    1,
    "10",
    80,
    "20",
    40,
    "10",
    20,
    "20",
    40,
    "42",
    1,
  ];
  expect(await area("s.dxf", dxf([slot]))).toEqual([close(100), close(40), close(60 * 40 + Math.PI * 400, 0)]);
});

test("what is no outline is refused in a sentence that says why", async () => {
  for (const [name, text, why] of [
    ["a.svg", svg(`<line x1="0" y1="0" x2="50" y2="50" stroke="#000"/>`), /no line that comes round/],
    [
      "a.svg",
      svg(`<rect width="20" height="20"/><rect x="50" width="20" height="20"/>`),
      /two shapes beside each other/,
    ],
    ["a.svg", "not a drawing", /./],
    ["a.svg", svg(`<text>Q</text>`), /is text/],
    ["a.dxf", "AutoSomething binary\u0000\u0001", /./],
    ["a.dxf", dxf([line(0, 0, 10, 0), line(10, 0, 10, 10)]), /One line in it does not come round/],
  ] as const) {
    const told = await blankFromFile(name, text).then(
      () => null,
      (e: unknown) => e,
    );
    expect(told).toBeInstanceOf(BadOutline);
    expect((told as Error).message).toMatch(why);
    expect((told as Error).message).toMatch(/^[A-Z“<].*\.$/);
  }
});
