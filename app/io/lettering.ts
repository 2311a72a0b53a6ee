/** Letters as outlines, by a font file: lines fitted into a block, in the middle of it. */
import fontkit from "@cantoo/fontkit";
import { fitLines, type Fitted } from "../core/geometry/shapes";
import type { Ring } from "../core/geometry/outline";
import { pathLines } from "../core/vector/outline";
import svgpath from "svgpath";

interface Glyph {
  path: { toSVG(): string };
  advanceWidth: number;
}
interface Font {
  unitsPerEm: number;
  capHeight: number;
  hasGlyphForCodePoint(code: number): boolean;
  layout(text: string): { glyphs: Glyph[]; positions: { xAdvance: number; xOffset: number; yOffset: number }[] };
}
/** furthest that a flattened curve may stray, mm */
const FLAT_MM = 0.004;
/** where the font does not say how high a capital is, em */
const CAP_EM = 0.7;
/** foot of one line to that of the next, em */
export const SPACING = 1.25;

export interface Lettered extends Fitted {
  rings: Ring[];
  /** signs that the font does not have */
  lacks: string[];
}

export interface Setting {
  /** em between two letters besides what the font has */
  tracking?: number;
  /** mm of an em at most */
  most?: number;
}
/** the font that was read last: a list of names is set in one */
let last: { bytes: Uint8Array; font: Font } | null = null;
/** @throws Error where the file is no font */
function fontOf(bytes: Uint8Array): Font {
  if (last?.bytes === bytes) return last.font;
  let font: Font;
  try {
    font = (fontkit as unknown as { create(b: Uint8Array): Font }).create(bytes);
  } catch (e) {
    throw new Error("That file is no font that can be read: take a TTF, an OTF or a WOFF.", { cause: e });
  }
  if (typeof font.layout !== "function") throw new Error("That file holds several fonts; save one of them by itself.");
  last = { bytes, font };
  return font;
}

/**
 * Lines of text as outlines in a block of w × h mm, from its upper left corner.
 * @param lines empty ones stand for a free line @throws RangeError where there is nothing to set, or no room
 */
export function letter(
  bytes: Uint8Array,
  lines: readonly string[],
  w: number,
  h: number,
  spacing = SPACING,
  { tracking = 0, most = Infinity }: Setting = {},
): Lettered {
  const font = fontOf(bytes);
  const em = font.unitsPerEm;
  if (!lines.some((l) => l.trim())) throw new RangeError("There is nothing to letter yet.");
  const lacks = [...new Set([...lines.join("")].filter((ch) => !font.hasGlyphForCodePoint(ch.codePointAt(0)!)))];
  const set = lines.map((l) => font.layout(l.trim()));
  // nothing stands behind the last letter of a line
  const ems = set.map(
    (l) => l.positions.reduce((a, p) => a + p.xAdvance, 0) / em + tracking * Math.max(0, l.positions.length - 1),
  );
  const cap = font.capHeight > 0 ? font.capHeight / em : CAP_EM;
  const fit = fitLines(ems, cap, spacing, w, h, most);
  const high = fit.capMm + (lines.length - 1) * fit.pitchMm;
  const top = (h - high) / 2;
  const k = fit.size / em;
  const rings: Ring[] = [];
  set.forEach((l, i) => {
    const foot = top + fit.capMm + i * fit.pitchMm;
    let x = (w - fit.widths[i]) / 2;
    l.glyphs.forEach((g, j) => {
      const p = l.positions[j];
      const d = g.path.toSVG();
      if (d) {
        const laid = svgpath(d)
          .scale(k, -k)
          .translate(x + p.xOffset * k, foot - p.yOffset * k)
          .toString();
        for (const line of pathLines(laid, FLAT_MM)) if (line.points.length >= 3) rings.push(line.points);
      }
      x += p.xAdvance * k + tracking * fit.size;
    });
  });
  return { ...fit, rings, lacks };
}

/** Texts as outlines, capitals so high, each from its own upper left corner. */
export function labelsOf(bytes: Uint8Array, texts: readonly string[], capMm: number): Ring[][] {
  return texts.map((t) => {
    // a block so wide that only the height bounds it
    const made = letter(bytes, [t], 1e6, capMm);
    const left = (1e6 - made.widths[0]) / 2;
    return made.rings.map((r) => r.map(([x, y]): [number, number] => [x - left, y]));
  });
}
