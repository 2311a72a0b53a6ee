/** A name a piece, each set as outlines in one block. */
import { combine, type Shaped } from "../core/geometry/shapes";
import { meanMeasures, type NameRow } from "../core/geometry/names";
import { pathOf, ringsOf, type Point } from "../core/geometry/outline";
import type { NameBlock } from "../core/records/job";
import { bounds, type Box, type Clip } from "../core/vector/clip";
import type { Measures } from "../core/vector/measure";
import { letter, type Lettered } from "./lettering";

export interface NameSet {
  lines: string[];
  key: string;
  outline: string;
  capMm: number;
  narrowestMm: number;
  areaMm2: number;
  /** signs that the font does not have */
  lacks: string[];
}
export interface NamesFound {
  list: NameSet[];
  /** what plans count with, by colour; the outline is that of the first piece that has it */
  zones: Record<string, Measures & { outline: string }>;
}

/** Lines set so large that what is drawn of them, feet of a g and all, lies within the block. @param most mm of an em at most */
function inside(font: Uint8Array, lines: readonly string[], block: NameBlock, most?: number): Lettered {
  const { tracking, w, h } = block;
  const set = (size?: number): Lettered => letter(font, lines, w, h, undefined, { tracking, most: size });
  const full = set(most);
  const drawn = bounds(full.rings);
  if (!drawn) return full;
  const k = Math.min(1, w / (drawn.x1 - drawn.x0), h / (drawn.y1 - drawn.y0));
  const made = k < 1 ? set(full.size * k) : full;
  const { x0, y0, x1, y1 } = bounds(made.rings) as Box;
  // no further from the middle than it has to lie
  const [dx, dy] = [Math.max(-x0, 0) + Math.min(w - x1, 0), Math.max(-y0, 0) + Math.min(h - y1, 0)];
  return { ...made, rings: made.rings.map((r) => r.map(([x, y]): [number, number] => [x + dx, y + dy])) };
}

/**
 * Every name as outlines, in the middle of the block, mm from the corner of the artwork.
 * @throws Error with the name that can’t be set
 */
export function setNames(
  font: Uint8Array,
  rows: readonly NameRow[],
  block: NameBlock,
  clip: Clip,
  progress: (share: number) => void = () => {},
): NamesFound {
  const setOne = (r: NameRow, most?: number): Lettered => {
    try {
      return inside(font, r.lines, block, most);
    } catch (e) {
      throw new Error(`“${r.lines.join(", ")}” could not be set: ${(e as Error).message}`, { cause: e });
    }
  };
  const most = block.oneSize ? Math.min(...rows.map((r) => setOne(r).size)) : undefined;
  const shapes = rows.map((r, i): { set: NameSet; shape: Shaped | null } => {
    const { rings, capMm, lacks } = setOne(r, most);
    const { shape } = combine("join", pathOf(clip.fill(rings, "nonzero")), "", 0, clip);
    const put = ([x, y]: Point): Point => [thousandth(x + block.x), thousandth(y + block.y)];
    const at = shape && { ...shape, outline: pathOf(ringsOf(shape.outline).map((ring) => ring.map(put))) };
    const rowsAt = at?.rows.map((v, k) => (k < 2 ? v + block.y : lies(at.rows, k) ? v + block.x : v)) ?? [];
    progress((i + 1) / rows.length);
    return {
      set: {
        lines: [...r.lines],
        key: r.colour.trim().toLowerCase(),
        outline: at?.outline ?? "",
        capMm,
        narrowestMm: at?.narrowestMm ?? 0,
        areaMm2: at?.areaMm2 ?? 0,
        lacks,
      },
      shape: at && { ...at, rows: rowsAt },
    };
  });
  const blank = shapes.find((s) => !s.shape);
  if (blank) throw new Error(`“${blank.set.lines.join(", ")}” leaves nothing to be drawn.`);
  const zones: NamesFound["zones"] = {};
  for (const key of new Set(shapes.map((s) => s.set.key))) {
    const mine = shapes.filter((s) => s.set.key === key).map((s) => s.shape!);
    zones[key] = { ...meanMeasures(mine, rows.length), outline: mine[0].outline };
  }
  return { list: shapes.map((s) => s.set), zones };
}
/** mm, as finely as a name is kept */
const thousandth = (v: number): number => Math.round(v * 1000) / 1000;
/** Is a slice of rows filled? An empty one is written from 1 to 0. */
const lies = (rows: readonly number[], k: number): boolean => {
  const at = 2 + 2 * Math.floor((k - 2) / 2);
  return rows[at] <= rows[at + 1];
};
