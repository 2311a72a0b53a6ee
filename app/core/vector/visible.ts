/**
 * What is seen of each colour once later paint has covered earlier. The layers are halved again and again: of each half it is known
 * what is seen and what it covers, and the lower half loses what the upper one covers. So every outline is cut a few times by what lies
 * near it, and never by all that was drawn before; what meets nothing never goes to the kernel at all.
 */
import { bounds, finder, pieces, type Box, type Clip, type Region } from "./clip";

export interface Layer {
  colour: string;
  region: Region;
}
/** One connected piece, its holes with it, and the box round it. */
interface Patch {
  rings: Region;
  box: Box;
}
interface Half {
  seen: Map<string, Patch[]>;
  covered: Patch[];
}

const patches = (r: Region): Patch[] => pieces(r).map((rings) => ({ rings, box: bounds(rings)! }));
/** Those of two lists that meet one of the other, and those of the first that don't. */
function meeting(a: Patch[], b: Patch[]): { mine: Patch[]; theirs: Patch[]; apart: Patch[]; others: Patch[] } {
  const find = finder(b.map((p) => p.box));
  const met = new Set<number>();
  const mine: Patch[] = [];
  const apart: Patch[] = [];
  for (const p of a) {
    const hits = find(p.box);
    for (const i of hits) met.add(i);
    (hits.length ? mine : apart).push(p);
  }
  return { mine, apart, theirs: b.filter((_p, i) => met.has(i)), others: b.filter((_p, i) => !met.has(i)) };
}
const flat = (list: Patch[]): Region => list.flatMap((p) => p.rings);

/** Two areas as one. */
function joined(clip: Clip, a: Patch[], b: Patch[]): Patch[] {
  if (!a.length || !b.length) return a.length ? a : b;
  const { mine, theirs, apart, others } = meeting(a, b);
  return mine.length ? [...apart, ...others, ...patches(clip.union(flat(mine), flat(theirs)))] : [...a, ...b];
}
/** One area without another. */
function without(clip: Clip, a: Patch[], b: Patch[]): Patch[] {
  if (!a.length || !b.length) return a;
  const { mine, theirs, apart } = meeting(a, b);
  return mine.length ? [...apart, ...patches(clip.subtract(flat(mine), flat(theirs)))] : a;
}

/**
 * @param layers in the order they are painted
 * @param progress share done
 * @returns separate pieces by colour, in no order that means anything
 */
export function visible(clip: Clip, layers: Layer[], progress: (share: number) => void): Map<string, Region[]> {
  let done = 0;
  /** @param covers is it asked what these layers cover? */
  const half = (from: number, to: number, covers: boolean): Half => {
    if (to - from === 1) {
      const { colour, region } = layers[from];
      const covered = patches(region);
      return { seen: new Map([[colour, covered]]), covered };
    }
    const mid = (from + to) >> 1;
    const [low, up] = [half(from, mid, covers), half(mid, to, true)];
    const seen = new Map(up.seen);
    for (const [colour, area] of low.seen) {
      const left = without(clip, area, up.covered);
      if (left.length) seen.set(colour, joined(clip, seen.get(colour) ?? [], left));
    }
    progress(++done / layers.length);
    return { seen, covered: covers ? joined(clip, low.covered, up.covered) : [] };
  };
  const { seen } = layers.length ? half(0, layers.length, false) : { seen: new Map<string, Patch[]>() };
  return new Map([...seen].map(([colour, area]) => [colour, area.map((p) => p.rings)]));
}
