import { loadClip } from "../../door/kernel";
import { bedMarker, poppies } from "../../demo/drawings";
import { area, perimeter, pieces, type Clip } from "./clip";
import { ink, parseSheet } from "./css";
import { apply, multiply, parseTransform } from "./matrix";
import { readZones, type FoundZone } from "./zones";
import { readSvg, SvgError } from "./svg";

let clip: Clip;
beforeAll(async () => {
  clip = await loadClip();
});

const PAGE = 'width="100mm" height="100mm" viewBox="0 0 100 100"';
const svg = (body: string, head = PAGE): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${body}</svg>`;
const zones = (body: string, head = PAGE): FoundZone[] => readZones(clip, svg(body, head)).zones;
const only = (body: string, head = PAGE): FoundZone => {
  const z = zones(body, head);
  expect(z).toHaveLength(1);
  return z[0];
};
const refusal = (body: string, head = PAGE): string => {
  try {
    zones(body, head);
  } catch (e) {
    expect(e).toBeInstanceOf(SvgError);
    return (e as Error).message;
  }
  throw new Error("was not refused");
};

/** area ± 0.1 %, perimeter ± 0.5 %, narrowest ± 0.05 mm */
function near(z: FoundZone, a: number, p: number, n: number | null = null): void {
  expect(Math.abs(z.areaMm2 / a - 1)).toBeLessThan(0.001);
  expect(Math.abs(z.perimeterMm / p - 1)).toBeLessThan(0.005);
  if (n !== null) expect(Math.abs(z.narrowestMm - n)).toBeLessThan(0.05);
}

describe("measures against closed forms", () => {
  test("annulus by the even-odd rule", () => {
    const z = only(
      '<path fill="#a8235a" fill-rule="evenodd" d="M10 50a40 40 0 1 0 80 0a40 40 0 1 0 -80 0ZM30 50a20 20 0 1 0 40 0a20 20 0 1 0 -40 0Z"/>',
    );
    near(z, Math.PI * 1200, 2 * Math.PI * 60, 20);
    expect([z.pieces, z.holes, z.colour, z.id]).toEqual([1, 1, "#a8235a", "z-a8235a"]);
  });
  test("the same rings by the nonzero rule fill the hole", () =>
    near(
      only('<path d="M10 50a40 40 0 1 0 80 0a40 40 0 1 0 -80 0ZM30 50a20 20 0 1 0 40 0a20 20 0 1 0 -40 0Z"/>'),
      Math.PI * 1600,
      80 * Math.PI,
    ));
  test.each([
    ["an S of two", '<path d="M10 50C30 10 60 90 90 50" fill="none" stroke="#a8235a" stroke-width="2"/>', 2, 0],
    [
      "an S of three with round ends",
      '<path d="M10 50C30 10 60 90 90 50" fill="none" stroke="#a8235a" stroke-width="3" stroke-linecap="round"/>',
      3,
      0,
    ],
    ["a ring", '<circle cx="50" cy="50" r="30" fill="none" stroke="#a8235a" stroke-width="2.2"/>', 2.2, 1],
    [
      "an arc of one with bevels",
      '<path d="M10 10a40 40 0 0 1 60 40" fill="none" stroke="#a8235a" stroke-width="1" stroke-linejoin="bevel"/>',
      1,
      0,
    ],
  ])("a curved stroke is one piece as wide as its line: %s", (_n, body, width, holes) => {
    const z = only(body);
    expect([z.pieces, z.holes]).toEqual([1, holes]);
    expect(Math.abs(z.narrowestMm - width)).toBeLessThan(0.05);
  });
  test("the dashes of a rounded rectangle are counted from the end of its top left corner", () => {
    // One dash of 20 along the top edge, then a gap longer than the rest of the way round.
    const z = only(
      '<rect x="10" y="10" width="60" height="40" rx="5" fill="none" stroke="#a8235a" stroke-width="2" stroke-dasharray="20 500"/>',
    );
    near(z, 40, 44, 2);
    expect(z.outline).toContain("15 9");
    expect(z.outline).toContain("35 11");
  });
  test("a five-pointed star that crosses itself", () => {
    const R = 40;
    const pts = Array.from({ length: 5 }, (_, k) => [
      50 + R * Math.sin((4 * Math.PI * k) / 5),
      50 - R * Math.cos((4 * Math.PI * k) / 5),
    ]);
    const d = pts.map((p) => p.join(" ")).join(" ");
    const r = (R * Math.cos((2 * Math.PI) / 5)) / Math.cos(Math.PI / 5);
    const outline = (10 * R * r * Math.sin(Math.PI / 5)) / 2; // ten triangles from the middle
    const edge = Math.sqrt(R * R + r * r - 2 * R * r * Math.cos(Math.PI / 5));
    near(only(`<polygon points="${d}"/>`), outline, 10 * edge);
    const pentagon = (5 / 2) * r * r * Math.sin((2 * Math.PI) / 5);
    expect(only(`<polygon fill-rule="evenodd" points="${d}"/>`).areaMm2).toBeCloseTo(outline - pentagon, 1);
  });
  test("a 1 mm neck between 10 mm squares: 1.0", () =>
    near(only('<path d="M10 10H20V14.5H25V10H35V20H25V15.5H20V20H10Z"/>'), 205, 88, 1));
  test("a bar is as narrow as it is wide", () => near(only('<rect x="5" y="5" width="60" height="4"/>'), 240, 128, 4));
  test("nested transforms: rotated, scaled, shifted, skewed", () => {
    near(
      only(
        '<g transform="translate(50 50) rotate(30)"><g transform="scale(2 3)"><rect x="-5" y="-2" width="10" height="4"/></g></g>',
      ),
      240,
      2 * (20 + 12),
    );
    expect(only('<g transform="skewX(30)"><rect x="5" y="5" width="20" height="10"/></g>').areaMm2).toBeCloseTo(200, 3);
    expect(only('<g transform="matrix(0 1 -1 0 60 10)"><rect width="20" height="10"/></g>').areaMm2).toBeCloseTo(
      200,
      3,
    );
  });
  test("overlapping squares: later paint covers earlier", () => {
    const [blue, lime] = zones(
      '<rect width="30" height="30" fill="blue"/><rect x="10" y="10" width="30" height="30" fill="lime"/>',
    );
    near(blue, 500, 120, 10);
    near(lime, 900, 120, 30);
  });
  test("paint of one colour in several shapes is one zone, and what is covered counts nowhere", () => {
    const [red] = zones(
      '<rect width="20" height="20" fill="red"/><rect x="40" width="20" height="20" fill="#f00"/><rect ' +
        'x="40" width="20" height="20" fill="rgb(255,0,0)"/>',
    );
    expect([red.areaMm2, red.pieces]).toEqual([800, 2]);
    expect(zones('<rect width="20" height="20" fill="red"/><rect width="30" height="30" fill="navy"/>')).toHaveLength(
      1,
    );
  });
  test("use, symbol, xlink and defs", () => {
    const z = only(
      '<defs><rect id="a" width="10" height="10"/></defs><use href="#a" x="5" y="5"/><g transform="scale(2)"><use ' +
        'xlink:href="#a" x="20" y="20"/></g>',
    );
    expect(z.areaMm2).toBeCloseTo(500, 6);
    expect(
      only(
        '<symbol id="s" viewBox="0 0 10 10"><circle cx="5" cy="5" r="5"/></symbol><use href="#s" x="10" y="10" width="40" height="40"/>',
      ).areaMm2,
    ).toBeCloseTo(Math.PI * 400, 0);
  });
  test("classes, ids, descendants, inheritance, inline style, named colours", () => {
    const found = zones(
      "<style>.k{fill:#102030} #i{fill:teal} g.w rect{fill:orange} rect.n{fill:none;stroke:none}</style><rect " +
        'class="k" width="5" height="5"/><rect id="i" class="k" x="10" width="5" height="5"/><g class="w"><rect ' +
        'x="20" width="5" height="5"/></g><g fill="maroon"><rect x="30" width="5" height="5"/><rect x="40" ' +
        'width="5" height="5" style="fill:gold"/></g><rect class="n" x="50" width="5" height="5"/><g color="plum"><rect ' +
        'fill="currentColor" x="60" width="5" height="5"/></g>',
    );
    expect(found.map((z) => z.colour)).toEqual(["#102030", "#008080", "#ffa500", "#800000", "#ffd700", "#dda0dd"]);
  });
  test("an inch-sized file", () => {
    const f = readZones(
      clip,
      svg('<circle cx="50" cy="50" r="25"/>', 'width="2in" height="2in" viewBox="0 0 100 100"'),
    );
    expect([f.widthMm, f.heightMm, f.size]).toEqual([50.8, 50.8, "file"]);
    near(f.zones[0], Math.PI * 12.7 ** 2, 2 * Math.PI * 12.7, 25.4);
  });
  test("bare pixels are 96 to the inch and said so; a typed width rules", () => {
    const f = readZones(clip, svg('<rect width="96" height="96"/>', 'width="96" height="96"'));
    expect([f.size, f.zones[0].areaMm2]).toEqual(["pixels", expect.closeTo(645.16, 2)]);
    const t = readZones(clip, svg('<rect width="96" height="96"/>', 'width="96" height="48" viewBox="0 0 96 48"'), {
      widthMm: 50,
    });
    expect([t.widthMm, t.heightMm, t.size]).toEqual([50, 25, "typed"]);
    expect(t.zones[0].areaMm2).toBeCloseTo(1250, 6);
  });
});

describe("strokes are expanded", () => {
  const line = (attrs: string): number =>
    only(`<path d="M20 50H60" fill="none" stroke="#123456" stroke-width="4" ${attrs}/>`).areaMm2;
  test("butt, square and round ends", () => {
    expect(line("")).toBeCloseTo(160, 6);
    expect(line('stroke-linecap="square"')).toBeCloseTo(176, 6);
    expect(line('stroke-linecap="round"')).toBeCloseTo(160 + Math.PI * 4, 1);
  });
  const corner = (attrs: string): number =>
    only(`<path d="M20 60V20H60" fill="none" stroke="#123456" stroke-width="4" ${attrs}/>`).areaMm2;
  test("mitre, bevel and round corners", () => {
    expect(corner("")).toBeCloseTo(320, 6);
    expect(corner('stroke-linejoin="bevel"')).toBeCloseTo(318, 6);
    expect(corner('stroke-linejoin="round"')).toBeCloseTo(316 + Math.PI, 1);
  });
  test("a mitre past its limit is a bevel", () => {
    const d = '<path d="M20 50L60 50L20 52" fill="none" stroke="#123456" stroke-width="2"';
    expect(only(`${d}/>`).areaMm2).toBeLessThan(only(`${d} stroke-miterlimit="100"/>`).areaMm2 - 5);
  });
  test("a framed square: fill beneath, stroke above, each its own zone", () => {
    const [fill, stroke] = zones(
      '<rect x="10" y="10" width="30" height="30" fill="gold" stroke="navy" stroke-width="2"/>',
    );
    near(fill, 28 * 28, 112);
    near(stroke, 32 * 32 - 28 * 28, 4 * 60, 2);
    expect(stroke.holes).toBe(1);
  });
  test("dashes", () => expect(line('stroke-dasharray="5 5"')).toBeCloseTo(80, 6));
  test("a stroke scales with the drawing, unevenly too", () => {
    expect(
      only('<g transform="scale(1 2)"><path d="M20 20H60" fill="none" stroke="#123" stroke-width="4"/></g>').areaMm2,
    ).toBeCloseTo(320, 6);
  });
});

describe("clip paths and the page", () => {
  test("a half disc", () =>
    near(
      only(
        '<clipPath id="c"><circle cx="50" cy="50" r="20"/></clipPath><rect clip-path="url(#c)" width="50" height="100"/>',
      ),
      Math.PI * 200,
      20 * Math.PI + 40,
    ));
  test("a clip in units of the shape's own box", () =>
    expect(
      only(
        '<clipPath id="c" clipPathUnits="objectBoundingBox"><rect width="0.5" height="0.5"/></clipPath><rect ' +
          'x="10" y="10" clip-path="url(#c)" width="40" height="40"/>',
      ).areaMm2,
    ).toBeCloseTo(400, 6));
  test("a clipped group, clipped again", () =>
    expect(
      only(
        '<clipPath id="a"><rect width="20" height="100"/></clipPath><clipPath id="b"><rect width="100" height="20"/></clipPath><g ' +
          'clip-path="url(#a)"><rect clip-path="url(#b)" width="90" height="90"/></g>',
      ).areaMm2,
    ).toBeCloseTo(400, 6));
  test("what hangs over the page is cut off", () =>
    expect(only('<rect x="-50" y="-50" width="100" height="100"/>').areaMm2).toBeCloseTo(2500, 6));
  test("hidden and undrawn things do not count", () =>
    expect(
      only(
        '<rect width="10" height="10"/><rect x="20" width="9" height="9" display="none"/><rect x="40" width="9" ' +
          'height="9" visibility="hidden"/>',
      ).areaMm2,
    ).toBe(100));
});

describe("refusals name the element and what to do", () => {
  test.each([
    ["a gradient", '<linearGradient id="g"/><rect id="petal" fill="url(#g)" width="9" height="9"/>', /petal.*gradient/],
    ["a pattern", '<pattern id="g"/><circle id="seed" fill="url(#g)" r="9"/>', /seed.*pattern/],
    ["a picture", '<image id="photo" width="9" height="9"/>', /<image id="photo">.*trace/],
    ["text", '<text x="5" y="5">Beet</text>', /<text>.*paths/],
    ["opacity", '<rect id="veil" opacity="0.5" width="9" height="9"/>', /veil.*see-through/],
    ["fill opacity", '<rect id="veil" fill-opacity="50%" width="9" height="9"/>', /veil.*see-through/],
    ["a see-through colour", '<rect id="veil" fill="#ff000080" width="9" height="9"/>', /veil.*see-through/],
    ["a mask", '<rect id="m" mask="url(#x)" width="9" height="9"/>', /"m".*mask/],
    ["a filter", '<g id="blur" filter="url(#f)"><rect width="9" height="9"/></g>', /blur.*filter/],
    ["a reference to nothing", '<use href="#none"/>', /#none/],
    ["a circle of references", '<g id="a"><use href="#a"/></g>', /itself/],
    ["nothing painted", "<g/>", /no zone/],
    ["a colour that is none", '<rect id="r" fill="beetroot-ish" width="9" height="9"/>', /beetroot-ish.*not a colour/],
    ["a length that is none", '<rect id="r" width="wide" height="9"/>', /width="wide"/],
  ])("%s", (_name, body, says) => expect(refusal(body)).toMatch(says));
  test("not XML, not SVG, entities, too deep", () => {
    expect(() => readSvg("<svg><rect></svg>")).toThrow(SvgError);
    expect(() => readSvg("<html/>")).toThrow(/not <svg>/);
    expect(() => readSvg('<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg/>')).toThrow(/entities/);
    expect(() => readSvg(`<svg>${"<g>".repeat(300)}${"</g>".repeat(300)}</svg>`)).toThrow(/256 deep/);
    expect(() => readSvg("x".repeat(9_000_000))).toThrow(/limit/);
  });
  test("scripts, events, links and outside references are dropped", () => {
    const z = only(
      '<script>boom()</script><a href="https://nowhere.invalid"><rect onload="boom()" width="9" height="9"/></a><use href="other.svg#x"/>',
    );
    expect(z.areaMm2).toBe(81);
    expect(z.outline).toMatch(/^[MLZ\d .-]+$/);
  });
});

describe("parts", () => {
  test("transforms compose left to right", () => {
    expect(apply(parseTransform("translate(10,0) scale(2)"), 3, 4)).toEqual([16, 8]);
    const turned = apply(parseTransform("rotate(90 10 10)"), 20, 10);
    expect(turned[0]).toBeCloseTo(10, 9);
    expect(turned[1]).toBeCloseTo(20, 9);
    expect(() => parseTransform("wobble(3)")).toThrow(/wobble/);
    expect(multiply([1, 0, 0, 1, 5, 5], [2, 0, 0, 2, 0, 0])).toEqual([2, 0, 0, 2, 5, 5]);
  });
  test("colours of any spelling", () => {
    expect(ink("hsl(120, 100%, 25%)")).toEqual({ hex: "#008000", alpha: 1 });
    expect(ink("#abc")).toEqual({ hex: "#aabbcc", alpha: 1 });
    expect(ink("nonsense")).toBeNull();
  });
  test("style sheets that depend on conditions are refused", () =>
    expect(() => parseSheet("@media print {.a{fill:red}}")).toThrow(/conditions/));
  test("pieces keep their own holes", () => {
    const rings = clip.fill(
      [
        [
          [0, 0],
          [30, 0],
          [30, 30],
          [0, 30],
        ],
        [
          [10, 10],
          [20, 10],
          [20, 20],
          [10, 20],
        ],
        [
          [13, 13],
          [17, 13],
          [17, 17],
          [13, 17],
        ],
      ],
      "evenodd",
    );
    const parts = pieces(rings);
    expect(parts.map((p) => [Math.round(area(p)), p.length])).toEqual([
      [16, 1],
      [800, 2],
    ]);
    expect(perimeter(rings)).toBeCloseTo(120 + 40 + 16, 6);
  });
  test("the sample's drawings measure as drawn", () => {
    const marker = readZones(clip, bedMarker("BEET", "#a8235a", "#5d9a3c"));
    expect([marker.widthMm, marker.heightMm, marker.zones.map((z) => z.colour)]).toEqual([
      100,
      44,
      ["#5d9a3c", "#a8235a"],
    ]);
    expect(readZones(clip, poppies("#d8432f")).zones).toHaveLength(1);
  });
});
