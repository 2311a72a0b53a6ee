/**
 * Photos and logos as pixels, without a browser: PNG of every depth, JPEG as it comes from a phone. Sizes are looked at before anything is
 * unpacked, and nothing is unpacked further than its size allows.
 */
import { Unzlib } from "fflate";
import { decode as decodePng } from "fast-png";
import jpeg from "jpeg-js";
import { type Pixels, tooBig } from "../../core/tone/source";

export class BadPicture extends Error {}

export interface Photo extends Pixels {
  /** EXIF orientation 1-8 */
  exif: number;
  /** name of a colour profile other than the screen’s own; null: none */
  profile: string | null;
  /** what it is */
  kind: "PNG" | "JPEG";
}

const starts = (b: Uint8Array, ...head: number[]): boolean => head.every((v, i) => b[i] === v);
/** What the first bytes say it is; null: no picture that is known. */
export function pictureKind(b: Uint8Array): "PNG" | "JPEG" | "WebP" | null {
  if (starts(b, 137, 80, 78, 71, 13, 10, 26, 10)) return "PNG";
  if (starts(b, 255, 216, 255)) return "JPEG";
  if (starts(b, 82, 73, 70, 70) && [87, 69, 66, 80].every((v, i) => b[8 + i] === v)) return "WebP";
  return null;
}
const word = (b: Uint8Array, at: number): string => String.fromCharCode(...b.subarray(at, at + 4));
const viewOf = (b: Uint8Array): DataView => new DataView(b.buffer, b.byteOffset, b.byteLength);
const CUT = "The picture is cut off before its end.";

/** Size, orientation and profile of a picture from its head, without unpacking it. */
export interface Head {
  kind: "PNG" | "JPEG" | "WebP";
  /** as it lies in the file */
  w: number;
  h: number;
  exif: number;
  profile: string | null;
}

interface Chunk {
  type: string;
  at: number;
  length: number;
}
function chunksOf(b: Uint8Array): Chunk[] {
  const v = viewOf(b);
  const out: Chunk[] = [];
  let at = 8;
  for (;;) {
    if (at + 12 > b.length) throw new BadPicture(CUT);
    const [length, type] = [v.getUint32(at), word(b, at + 4)];
    if (at + 12 + length > b.length) throw new BadPicture(CUT);
    out.push({ type, at: at + 8, length });
    if (type === "IEND") return out;
    at += 12 + length;
  }
}
/** bits a pixel of each colour type takes, a channel each */
const PNG_CHANNELS: Record<number, number> = { 0: 1, 2: 3, 3: 1, 4: 2, 6: 4 };

function exifIn(b: Uint8Array, at: number, end: number): number {
  const v = viewOf(b);
  if (at + 14 > end) return 1;
  const small = v.getUint16(at) === 0x4949;
  if (!small && v.getUint16(at) !== 0x4d4d) return 1;
  const dir = at + v.getUint32(at + 4, small);
  if (dir + 2 > end) return 1;
  const n = v.getUint16(dir, small);
  for (let i = 0; i < n; i++) {
    const e = dir + 2 + 12 * i;
    if (e + 12 > end) return 1;
    if (v.getUint16(e, small) === 0x0112) {
      const turn = v.getUint16(e + 8, small);
      return turn >= 1 && turn <= 8 ? turn : 1;
    }
  }
  return 1;
}

const nameIn = (b: Uint8Array, from: number, to: number): string => {
  const zero = b.indexOf(0, from);
  return new TextDecoder("latin1").decode(b.subarray(from, zero > 0 && zero < to ? zero : to)).slice(0, 60);
};
/** name of what an embedded profile describes: its `desc` tag */
function profileName(b: Uint8Array, from: number, to: number): string {
  const text = new TextDecoder("latin1").decode(b.subarray(from, Math.min(to, from + 4000)));
  return /desc\0{4}.{4}([\x20-\x7e]{3,60})/s.exec(text)?.[1] ?? "an embedded profile";
}
/** the screen’s own colours, by whatever name */
const ours = (name: string): boolean => /srgb|iec\s*61966/i.test(name);

function pngHead(b: Uint8Array): Head {
  if (b.length < 33) throw new BadPicture(CUT);
  const v = viewOf(b);
  const chunks = chunksOf(b);
  if (chunks[0].type !== "IHDR") throw new BadPicture("The picture does not begin as a PNG must.");
  const [w, h] = [v.getUint32(16), v.getUint32(20)];
  const exif = chunks.find((c) => c.type === "eXIf");
  const icc = chunks.find((c) => c.type === "iCCP");
  const name = icc ? nameIn(b, icc.at, icc.at + icc.length) : null;
  return {
    kind: "PNG",
    w,
    h,
    exif: exif ? exifIn(b, exif.at, exif.at + exif.length) : 1,
    profile: name !== null && !ours(name) ? name : null,
  };
}

function jpegHead(b: Uint8Array): Head {
  const v = viewOf(b);
  let [exif, profile, at]: [number, string | null, number] = [1, null, 2];
  while (at + 4 <= b.length) {
    if (b[at] !== 255) break;
    const marker = b[at + 1];
    if (marker === 255) {
      at++;
      continue;
    }
    if (marker === 0xd8 || (marker >= 0xd0 && marker <= 0xd7)) {
      at += 2;
      continue;
    }
    const length = v.getUint16(at + 2);
    const [from, end] = [at + 4, at + 2 + length];
    if (end > b.length) throw new BadPicture(CUT);
    if (marker === 0xe1 && word(b, from) === "Exif") exif = exifIn(b, from + 6, end);
    if (marker === 0xe2 && nameIn(b, from, end) === "ICC_PROFILE") {
      const name = profileName(b, from + 14, end);
      if (!ours(name)) profile ??= name;
    }
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
      return { kind: "JPEG", w: v.getUint16(from + 3), h: v.getUint16(from + 1), exif, profile };
    if (marker === 0xda) break;
    at = end;
  }
  throw new BadPicture("The picture says nowhere how large it is.");
}

function webpHead(b: Uint8Array): Head {
  const v = viewOf(b);
  const kind = b.length >= 30 ? word(b, 12) : "";
  const head = { kind: "WebP" as const, exif: 1, profile: null };
  if (kind === "VP8X")
    return {
      ...head,
      w: 1 + (v.getUint32(24, true) & 0xffffff),
      h: 1 + (v.getUint16(27, true) | (b[29] << 16)),
    };
  if (kind === "VP8L") {
    const bits = v.getUint32(21, true);
    return { ...head, w: 1 + (bits & 0x3fff), h: 1 + ((bits >>> 14) & 0x3fff) };
  }
  if (kind === "VP8 ") return { ...head, w: v.getUint16(26, true) & 0x3fff, h: v.getUint16(28, true) & 0x3fff };
  throw new BadPicture(CUT);
}

/**
 * What a file is and how large, before it is unpacked.
 * @throws BadPicture one sentence: no picture, cut off, too large
 */
export function pictureHead(b: Uint8Array): Head {
  const kind = pictureKind(b);
  if (!kind) throw new BadPicture("It is no PNG, JPEG or WebP picture.");
  let head: Head;
  try {
    head = kind === "PNG" ? pngHead(b) : kind === "JPEG" ? jpegHead(b) : webpHead(b);
  } catch (e) {
    if (e instanceof RangeError) throw new BadPicture(CUT);
    throw e;
  }
  const big = tooBig(head.w, head.h);
  if (big) throw new BadPicture(big);
  return head;
}

const LARGER = "The picture unpacks to more than its size says: it is broken, or made to fill the memory.";
/** Counts what is packed, and stops where it is more than the size allows. */
function unpackedSize(b: Uint8Array, chunks: Chunk[], most: number): void {
  let n = 0;
  const z = new Unzlib((d) => {
    n += d.length;
    if (n > most) throw new BadPicture(LARGER);
  });
  const data = chunks.filter((c) => c.type === "IDAT");
  try {
    data.forEach((c, i) => z.push(b.subarray(c.at, c.at + c.length), i === data.length - 1));
  } catch (e) {
    if (e instanceof BadPicture) throw e;
    throw new BadPicture("The picture’s data is broken.");
  }
}
/** Rows and filter bytes of a PNG, with room for the seven passes of an interlaced one. */
const roomFor = (w: number, h: number, bits: number): number => Math.ceil((w * bits) / 8) * h + 8 * (h + w) + 64;

/** A PNG without what does not concern its pixels: profiles and texts are never unpacked. */
function bare(b: Uint8Array, chunks: Chunk[]): Uint8Array {
  const keep = chunks.filter((c) => ["IHDR", "PLTE", "tRNS", "IDAT", "IEND"].includes(c.type));
  const out = new Uint8Array(8 + keep.reduce((n, c) => n + c.length + 12, 0));
  out.set(b.subarray(0, 8));
  let at = 8;
  for (const c of keep) {
    out.set(b.subarray(c.at - 8, c.at + c.length + 4), at);
    at += c.length + 12;
  }
  return out;
}

function readPng(b: Uint8Array, head: Head): Photo {
  const chunks = chunksOf(b);
  const [depth, type] = [b[24], b[25]];
  const channels = PNG_CHANNELS[type];
  if (!channels || ![1, 2, 4, 8, 16].includes(depth)) throw new BadPicture("It is no kind of PNG that there is.");
  if (!chunks.some((c) => c.type === "IDAT")) throw new BadPicture("The PNG holds no picture.");
  unpackedSize(b, chunks, roomFor(head.w, head.h, depth * channels));
  let p: ReturnType<typeof decodePng>;
  try {
    p = decodePng(bare(b, chunks), { checkCrc: true });
  } catch (e) {
    throw new BadPicture(
      /crc/i.test((e as Error).message)
        ? "The picture is damaged: a checksum in it is wrong."
        : "The picture’s data is broken.",
    );
  }
  const base = { w: p.width, h: p.height, exif: head.exif, profile: head.profile, kind: "PNG" as const };
  const { w } = base;
  const packed = Math.ceil((w * depth * p.channels) / 8);
  /** one value of a row that is packed several a byte */
  const at = (y: number, x: number): number =>
    depth >= 8
      ? p.data[y * w + x]
      : (p.data[y * packed + ((x * depth) >> 3)] >> (8 - depth - ((x * depth) & 7))) & (2 ** depth - 1);
  if (p.palette) {
    const { palette } = p;
    const alpha = palette.some((c) => c.length > 3);
    const n = alpha ? 4 : 3;
    const line = new Uint8Array(w * n);
    return {
      ...base,
      channels: n,
      max: 255,
      row: (y) => {
        for (let x = 0; x < w; x++) {
          const c = palette[at(y, x)] ?? [0, 0, 0, 255];
          for (let k = 0; k < n; k++) line[x * n + k] = c[k] ?? 255;
        }
        return line;
      },
    };
  }
  const top = 2 ** depth - 1;
  const clear = p.transparency;
  if (depth < 8 || clear) {
    // one tone or colour may stand for clear
    const n = (p.channels + (clear ? 1 : 0)) as 1 | 2 | 3 | 4;
    const max = depth === 16 ? 65535 : 255;
    const line = new Uint16Array(w * n);
    const value = (y: number, x: number, k: number): number =>
      depth < 8 ? at(y, x) : p.data[(y * w + x) * p.channels + k];
    return {
      ...base,
      channels: n,
      max,
      row: (y) => {
        for (let x = 0; x < w; x++) {
          let same = clear !== undefined;
          for (let k = 0; k < p.channels; k++) {
            const v = value(y, x, k);
            line[x * n + k] = depth < 8 ? Math.round((v * 255) / top) : v;
            if (same && v !== clear?.[k]) same = false;
          }
          if (clear) line[x * n + n - 1] = same ? 0 : max;
        }
        return line;
      },
    };
  }
  const n = p.channels as 1 | 2 | 3 | 4;
  return { ...base, channels: n, max: top, row: (y) => p.data.subarray(y * w * n, (y + 1) * w * n) };
}

/** what the decoder may take for a picture of the largest size, MB */
const JPEG_MEMORY_MB = 2048;
function readJpeg(b: Uint8Array, head: Head): Photo {
  let p: { width: number; height: number; data: Uint8Array };
  try {
    p = jpeg.decode(b, {
      useTArray: true,
      formatAsRGBA: false,
      tolerantDecoding: false,
      maxResolutionInMP: 61,
      maxMemoryUsageInMB: JPEG_MEMORY_MB,
    });
  } catch {
    throw new BadPicture("The picture’s data is broken.");
  }
  const { width: w, height: h, data } = p;
  return {
    w,
    h,
    channels: 3,
    max: 255,
    exif: head.exif,
    profile: head.profile,
    kind: "JPEG",
    row: (y) => data.subarray(y * w * 3, (y + 1) * w * 3),
  };
}

/** @throws BadPicture one sentence on what is wrong with it */
export function readPixels(b: Uint8Array): Photo {
  const head = pictureHead(b);
  if (head.kind === "WebP") throw new BadPicture("WebP is read in the app only; save it as PNG or JPEG.");
  return head.kind === "PNG" ? readPng(b, head) : readJpeg(b, head);
}

/** segments of a JPEG that say how its pixels are to be read; all others (place, camera, previews, notes) are left behind */
const JPEG_KEPT = [0xe0, 0xe2, 0xee];
function bareJpeg(b: Uint8Array): Uint8Array {
  const v = viewOf(b);
  const parts: Uint8Array[] = [b.subarray(0, 2)];
  let at = 2;
  while (at + 4 <= b.length && b[at] === 255) {
    const marker = b[at + 1];
    if (marker === 255) {
      at++;
      continue;
    }
    if (marker === 0xda) break;
    const end = at + 2 + v.getUint16(at + 2);
    const note = (marker >= 0xe0 && marker <= 0xef && !JPEG_KEPT.includes(marker)) || marker === 0xfe;
    if (!note) parts.push(b.subarray(at, end));
    at = end;
  }
  parts.push(b.subarray(at));
  return joinedBytes(parts);
}
function joinedBytes(parts: Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}
/** Chunks of a PNG or WebP that are no notes. */
function barePng(b: Uint8Array): Uint8Array {
  const keep = chunksOf(b).filter((c) => !["tEXt", "zTXt", "iTXt", "eXIf", "tIME"].includes(c.type));
  return joinedBytes([b.subarray(0, 8), ...keep.map((c) => b.subarray(c.at - 8, c.at + c.length + 4))]);
}
function bareWebp(b: Uint8Array): Uint8Array {
  const v = viewOf(b);
  const parts: Uint8Array[] = [];
  for (let at = 12; at + 8 <= b.length;) {
    const length = v.getUint32(at + 4, true);
    const end = Math.min(b.length, at + 8 + length + (length & 1));
    if (!["EXIF", "XMP "].includes(word(b, at))) parts.push(b.subarray(at, end));
    at = end;
  }
  const body = joinedBytes(parts);
  const out = joinedBytes([b.subarray(0, 12), body]);
  new DataView(out.buffer).setUint32(4, out.length - 8, true);
  // flags that say there are notes
  if (word(out, 12) === "VP8X") out[20] &= ~0b1100;
  return out;
}

/** A picture as it is kept: its pixels untouched, and nothing about place, camera or people. How it is turned is said by its head. */
export function withoutNotes(b: Uint8Array): Uint8Array {
  const kind = pictureKind(b);
  return kind === "JPEG" ? bareJpeg(b) : kind === "PNG" ? barePng(b) : kind === "WebP" ? bareWebp(b) : b;
}
