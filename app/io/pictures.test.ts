/** Pictures in and out: every kind of PNG and JPEG that comes along, what is broken or beyond reason, and the PNG for the laser. */
import { zlibSync } from "fflate";
import { decode, encode } from "fast-png";
import jpeg from "jpeg-js";
import { recipe } from "../core/testing/pictures";
import { render } from "../core/tone/render";
import { BadInput } from "./import/brief";
import { BadPicture, pictureHead, readPixels } from "./import/pixels";
import { readRecipe } from "./import/recipe";
import { png } from "./export/png";

const bytes = (b64: string): Uint8Array => Uint8Array.from(Buffer.from(b64, "base64"));
const [W, H] = [13, 9];
const tone = (x: number, y: number): number => (x * 19 + y * 7) & 255;
const values = (p: { w: number; h: number; channels: number; row(y: number): ArrayLike<number> }): number[] =>
  Array.from({ length: p.h }, (_r, y) => Array.from(p.row(y))).flat();

describe("PNG", () => {
  test.each([
    [1, 8],
    [2, 8],
    [3, 8],
    [4, 8],
    [1, 16],
    [3, 16],
    [4, 16],
  ] as const)("of %i channels and %i bits, straight and interlaced", (channels, depth) => {
    const n = W * H * channels;
    const data =
      depth === 16
        ? Uint16Array.from({ length: n }, (_v, i) => (i * 4801) & 65535)
        : Uint8Array.from({ length: n }, (_v, i) => (i * 37) & 255);
    for (const interlace of ["null", "Adam7"] as const) {
      const p = readPixels(encode({ width: W, height: H, data, channels, depth }, { interlace }));
      expect([p.w, p.h, p.channels, p.max]).toEqual([W, H, channels, depth === 16 ? 65535 : 255]);
      expect(values(p)).toEqual([...data]);
    }
  });
  test("of one bit, as written for the laser", () => {
    const m = {
      w: W,
      h: H,
      depth: 1 as const,
      stride: 2,
      data: Uint8Array.from({ length: 2 * H }, (_v, i) => (i * 91) & 255),
    };
    const p = readPixels(png(m, 0.1));
    expect(p.channels).toBe(1);
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++) expect(p.row(y)[x]).toBe((m.data[2 * y + (x >> 3)] >> (7 - (x & 7))) & 1 ? 255 : 0);
  });
  test("of a palette, with a clear colour in it", () => {
    const palette = [
      [1, 2, 3, 0],
      [200, 10, 10, 255],
      [0, 0, 250, 255],
    ] as [number, number, number, number][];
    const data = Uint8Array.from({ length: W * H }, (_v, i) => i % 3);
    const p = readPixels(encode({ width: W, height: H, data, palette, channels: 1, depth: 8 }));
    expect(p.channels).toBe(4);
    expect(values(p).slice(0, 12)).toEqual(palette.flat());
  });
  test("size and density for the laser are exact", () => {
    const r = recipe(1, 1, { widthMm: 80, heightMm: 60, intervalMm: 0.07 });
    const out = png(
      render(readPixels(encode({ width: 2, height: 2, data: Uint8Array.of(0, 255, 255, 0), channels: 1 })), r),
      0.07,
    );
    const back = decode(out, { checkCrc: true });
    expect([back.width, back.height, back.depth]).toEqual([1143, 857, 1]);
    expect(back.resolution).toEqual({ x: 14286, y: 14286, unit: 1 });
  });
});

/** An APP1 segment that says how the picture is turned, put behind the start of a JPEG. */
function turnedJpeg(turn: number, small: boolean): Uint8Array {
  const data = new Uint8Array(W * H * 4);
  for (let i = 0; i < W * H; i++) data.set([tone(i % W, 0), 90, 40, 255], i * 4);
  const j = Uint8Array.from(jpeg.encode({ width: W, height: H, data }, 90).data);
  const tiff = new DataView(new ArrayBuffer(26));
  tiff.setUint16(0, small ? 0x4949 : 0x4d4d);
  tiff.setUint16(2, 42, small);
  tiff.setUint32(4, 8, small);
  tiff.setUint16(8, 1, small);
  tiff.setUint16(10, 0x0112, small);
  tiff.setUint16(12, 3, small);
  tiff.setUint32(14, 1, small);
  tiff.setUint16(18, turn, small);
  const head = [0xff, 0xe1, 0, 2 + 6 + 26, 69, 120, 105, 102, 0, 0];
  return Uint8Array.from([...j.subarray(0, 2), ...head, ...new Uint8Array(tiff.buffer), ...j.subarray(2)]);
}

describe("JPEG", () => {
  test.each([1, 2, 3, 4, 5, 6, 7, 8])("says that it is turned by %i, in either order of bytes", (turn) => {
    for (const small of [true, false])
      expect(readPixels(turnedJpeg(turn, small))).toMatchObject({ w: W, h: H, exif: turn, kind: "JPEG" });
  });
  test("a turn that there is not is none", () => expect(readPixels(turnedJpeg(9, true)).exif).toBe(1));
  test("progressive, in colour and in grey", () => {
    const p = readPixels(bytes(PROGRESSIVE));
    expect([p.w, p.h, p.channels]).toEqual([24, 16, 3]);
    // red rises to the right, green downwards
    const at = (x: number, y: number): number[] => Array.from(p.row(y)).slice(3 * x, 3 * x + 3);
    at(0, 0).forEach((v, k) => expect(Math.abs(v - [0, 0, 60][k])).toBeLessThan(30));
    at(23, 15).forEach((v, k) => expect(Math.abs(v - [255, 255, 60][k])).toBeLessThan(30));
    const g = readPixels(bytes(PROGRESSIVE_GREY));
    expect([g.w, g.h]).toEqual([24, 16]);
    expect(g.row(8)[69] - g.row(8)[0]).toBeGreaterThan(200);
  });
});

describe("what is broken or beyond reason is one sentence", () => {
  const good = encode({
    width: W,
    height: H,
    data: Uint8Array.from({ length: W * H }, (_v, i) => i & 255),
    channels: 1,
  });
  const refused = (b: Uint8Array): string => {
    try {
      readPixels(b);
    } catch (e) {
      expect(e).toBeInstanceOf(BadPicture);
      return (e as Error).message;
    }
    throw new Error("it was taken");
  };
  test("cut off anywhere", () => {
    for (let n = 9; n < good.length; n += 7) expect(refused(good.subarray(0, n))).toMatch(/cut off|broken/);
    const j = turnedJpeg(6, true);
    for (let n = 4; n < j.length - 40; n += 61) expect(refused(j.subarray(0, n))).toMatch(/cut off|broken|how large/);
  });
  test("a checksum that is wrong", () => {
    const b = good.slice();
    b[good.length - 14] ^= 1;
    expect(refused(b)).toMatch(/checksum|broken/);
  });
  test("no picture at all", () => {
    expect(refused(new TextEncoder().encode("<svg/>"))).toMatch(/no PNG, JPEG or WebP/);
    expect(refused(new Uint8Array(0))).toMatch(/no PNG, JPEG or WebP/);
  });
  const claims = (w: number, h: number, packed: Uint8Array): Uint8Array => {
    const b = png({ w: 8, h: 1, depth: 8, data: new Uint8Array(8), stride: 8 }, 0.1).slice();
    const v = new DataView(b.buffer);
    v.setUint32(16, w);
    v.setUint32(20, h);
    const idat = [...b.keys()].find((i) => String.fromCharCode(...b.subarray(i, i + 4)) === "IDAT")! - 4;
    const out = new Uint8Array(idat + packed.length + 24);
    out.set(b.subarray(0, idat));
    new DataView(out.buffer).setUint32(idat, packed.length);
    out.set([73, 68, 65, 84], idat + 4);
    out.set(packed, idat + 8);
    out.set(b.subarray(b.length - 12), out.length - 12);
    return out;
  };
  test("100,000 pixels in a row, and more megapixels than are worked on, before anything is unpacked", () => {
    expect(refused(claims(100_000, 1, zlibSync(new Uint8Array(100_001))))).toMatch(/100000 × 1 pixels/);
    expect(refused(claims(20_000, 20_000, new Uint8Array(5)))).toMatch(/400 megapixels/);
  });
  test("what unpacks to far more than it says", () => {
    expect(refused(claims(8, 8, zlibSync(new Uint8Array(60_000_000))))).toMatch(/unpacks to more/);
  });
  test("WebP is known by its head; its size too", () => {
    const b = new Uint8Array(40);
    b.set([82, 73, 70, 70, 0, 0, 0, 0, 87, 69, 66, 80, 86, 80, 56, 88]);
    new DataView(b.buffer).setUint32(24, 639, true);
    new DataView(b.buffer).setUint16(27, 479, true);
    expect(pictureHead(b)).toMatchObject({ kind: "WebP", w: 640, h: 480 });
    expect(refused(b)).toMatch(/WebP/);
  });
});

describe("a recipe", () => {
  const base = { picture: 1, widthMm: 80, heightMm: 60, intervalMm: 0.1 };
  test("what it leaves out is a default; points may come in pairs", () => {
    const r = readRecipe(
      {
        ...base,
        tone: [
          {
            do: "curve",
            points: [
              [0, 0],
              [1, 0.5],
            ],
          },
        ],
        turn: 90,
      },
      6,
    );
    expect(r).toMatchObject({
      fit: "cover",
      render: "floyd-steinberg",
      invert: false,
      quarters: 1,
      exif: 6,
      spot: null,
      colourY: 1,
      topY: 0,
    });
    expect(r.tone[0]).toEqual({
      do: "curve",
      points: [
        [0, 0],
        [1, 0.5],
      ],
    });
  });
  test.each([
    [{ ...base, widthMm: -3 }, /widthMm must be at least/],
    [{ ...base, render: "woven" }, /render must be one of grey/],
    [{ ...base, turn: 45 }, /turn must be one of/],
    [{ ...base, tone: [{ do: "blur" }] }, /tone\[0\]\.do must be one of/],
    [{ ...base, gain: "spot" }, /needs spotMm/],
    [{ ...base, mix: [0, 0, 0] }, /three shares/],
    [{ ...base, colour: 1 }, /is not a field/],
    [null, /must be an object/],
  ])("what is wrong is named with its place: %#", (value, says) => {
    expect(() => readRecipe(value, 1)).toThrow(BadInput);
    expect(() => readRecipe(value, 1)).toThrow(says);
  });
});

const PROGRESSIVE =
  "/9j/4AAQSkZJRgABAQAAAQABAAD/2wBDAAMCAgMCAgMDAwMEAwMEBQgFBQQEBQoHBwYIDAoMDAsKCwsNDhIQDQ4RDgsLEBYQERMU" +
  "FRUVDA8XGBYUGBIUFRT/2wBDAQMEBAUEBQkFBQkUDQsNFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQUFBQU" +
  "FBQUFBQUFBT/wgARCAAQABgDAREAAhEBAxEB/8QAFQABAQAAAAAAAAAAAAAAAAAABgf/xAAYAQEBAAMAAAAAAAAAAAAAAAAFBgME" +
  "CP/aAAwDAQACEAMQAAABjeXRRl3aQu7SF8eoy7tGXd//xAAWEAADAAAAAAAAAAAAAAAAAAAAAwX/2gAIAQEAAQUCRJESREkRJESR" +
  "Ek//xAAXEQADAQAAAAAAAAAAAAAAAAAABAVh/9oACAEDAQE/AU6GiVDROhonQ0SoaJ0NP//EABYRAAMAAAAAAAAAAAAAAAAAAAAD" +
  "BP/aAAgBAgEBPwFloy0ZaMtGWjLT/8QAFRABAQAAAAAAAAAAAAAAAAAAADH/2gAIAQEABj8CiIiI/8QAFRABAQAAAAAAAAAAAAAA" +
  "AAAAADH/2gAIAQEAAT8hmzZs2bN//9oADAMBAAIAAwAAABCQAT//xAAVEQEBAAAAAAAAAAAAAAAAAAAAMf/aAAgBAwEBPxCZEmTI" +
  "kz//xAAVEQEBAAAAAAAAAAAAAAAAAAAAYf/aAAgBAgEBPxCiyyiyz//EABcQAQEBAQAAAAAAAAAAAAAAAADxIcH/2gAIAQEAAT8Q" +
  "iMeCI14JiI//2Q==";
const PROGRESSIVE_GREY =
  "/9j/4AAQSkZJRgABAQAAAQABAAD/2wBDAAMCAgMCAgMDAwMEAwMEBQgFBQQEBQoHBwYIDAoMDAsKCwsNDhIQDQ4RDgsLEBYQERMU" +
  "FRUVDA8XGBYUGBIUFRT/wgALCAAQABgBAREA/8QAFQABAQAAAAAAAAAAAAAAAAAABwj/2gAIAQEAAAABB3Z3hJ2d/wD/xAAVEAEB" +
  "AAAAAAAAAAAAAAAAAAAABf/aAAgBAQABBQKMjIyMjIz/xAAVEAEBAAAAAAAAAAAAAAAAAAAAAf/aAAgBAQAGPwKIiIj/xAAUEAEA" +
  "AAAAAAAAAAAAAAAAAAAg/9oACAEBAAE/IU67/9oACAEBAAAAENv/xAAXEAEBAQEAAAAAAAAAAAAAAAAAwTGB/9oACAEBAAE/EIot" +
  "8oot8v/Z";
