/**
 * Error diffusion: each pixel is burnt or not, and what that is off by is handed to those not yet decided. Weights as published:
 * Floyd & Steinberg 1976, Jarvis, Judice & Ninke 1976, Stucki 1981, Burkes 1988, Sierra 1989; Atkinson hands on six eighths.
 */
export interface Diffusion {
  id: string;
  name: string;
  /** what it is good at, for the choice */
  says: string;
  /** of how many parts the weights are */
  of: number;
  /** same row: one, two to the right; next row: two left to two right; the row after that likewise */
  row0: readonly [number, number];
  row1: readonly [number, number, number, number, number];
  row2: readonly [number, number, number, number, number];
}
const NONE = [0, 0, 0, 0, 0] as const;

export const DIFFUSIONS = [
  {
    id: "floyd-steinberg",
    name: "Floyd-Steinberg",
    says: "Fine and quick; the usual one.",
    of: 16,
    row0: [7, 0],
    row1: [0, 3, 5, 1, 0],
    row2: NONE,
  },
  {
    id: "jarvis-judice-ninke",
    name: "Jarvis-Judice-Ninke",
    says: "Spreads wide: few worms in smooth skies, a coarser grain.",
    of: 48,
    row0: [7, 5],
    row1: [3, 5, 7, 5, 3],
    row2: [1, 3, 5, 3, 1],
  },
  {
    id: "stucki",
    name: "Stucki",
    says: "As wide, with crisper edges.",
    of: 42,
    row0: [8, 4],
    row1: [2, 4, 8, 4, 2],
    row2: [1, 2, 4, 2, 1],
  },
  {
    id: "atkinson",
    name: "Atkinson",
    says: "Hands on three quarters only: more contrast, pure lights and darks.",
    of: 8,
    row0: [1, 1],
    row1: [0, 1, 1, 1, 0],
    row2: [0, 0, 1, 0, 0],
  },
  {
    id: "sierra",
    name: "Sierra",
    says: "Even grain in the middle tones.",
    of: 32,
    row0: [5, 3],
    row1: [2, 4, 5, 4, 2],
    row2: [0, 2, 3, 2, 0],
  },
  {
    id: "sierra-lite",
    name: "Sierra-lite",
    says: "The least work; a plain, even grain.",
    of: 4,
    row0: [2, 0],
    row1: [0, 1, 1, 0, 0],
    row2: NONE,
  },
  {
    id: "burkes",
    name: "Burkes",
    says: "Two rows instead of three: between fine and smooth.",
    of: 32,
    row0: [8, 4],
    row1: [2, 4, 8, 4, 2],
    row2: NONE,
  },
] as const satisfies readonly Diffusion[];

/** Takes the wanted share of one row after another, from the top, and says what is burnt. */
export type RowMaker = (share: Float64Array, out: Uint8Array) => void;

/** Weights as shares, by name: what a tight loop keeps at hand. */
interface Weights {
  a1: number;
  a2: number;
  b: readonly number[];
  c: readonly number[];
}

/**
 * One row of a kernel that reaches into one row below. Five cells of the next row slide along with the pixel: each is written once, when
 * no more comes to it.
 */
function shallow(
  share: Float64Array,
  out: Uint8Array,
  now: Float64Array,
  next: Float64Array,
  d: 1 | -1,
  k: Weights,
): void {
  const w = out.length;
  const { a1, a2 } = k;
  const [b0, b1, b2, b3, b4] = k.b;
  let r1 = 0;
  let r2 = 0;
  let p1 = 0;
  let p2 = 0;
  let p3 = 0;
  let p4 = 0;
  let x = d > 0 ? 0 : w - 1;
  for (let n = 0; n < w; n++) {
    let e = share[x] + now[x + 2] + r1;
    if (e >= 0.5) {
      e -= 1;
      out[x] = 1;
    } else out[x] = 0;
    r1 = r2 + e * a1;
    r2 = e * a2;
    next[x + 2 - 2 * d] = p1 + e * b0;
    p1 = p2 + e * b1;
    p2 = p3 + e * b2;
    p3 = p4 + e * b3;
    p4 = e * b4;
    x += d;
  }
  // what still slides belongs to the last two cells
  next[x + 2 - 2 * d] = p1;
  next[x + 2 - d] = p2;
}

/** One row of a kernel that reaches into two. @param may 1 where it may be burnt; null: everywhere */
function deep(
  share: Float64Array,
  out: Uint8Array,
  now: Float64Array,
  next: Float64Array,
  after: Float64Array,
  d: 1 | -1,
  k: Weights,
  may: Uint8Array | null,
): void {
  const w = out.length;
  const { a1, a2 } = k;
  const [b0, b1, b2, b3, b4] = k.b;
  const [c0, c1, c2, c3, c4] = k.c;
  let r1 = 0;
  let r2 = 0;
  let p1 = 0;
  let p2 = 0;
  let p3 = 0;
  let p4 = 0;
  let s1 = 0;
  let s2 = 0;
  let s3 = 0;
  let s4 = 0;
  let x = d > 0 ? 0 : w - 1;
  for (let n = 0; n < w; n++) {
    let e = 0;
    let bit = 0;
    // what is handed to a pixel that is never burnt is dropped there
    if (may === null || may[x] === 1) {
      e = share[x] + now[x + 2] + r1;
      if (e >= 0.5) {
        e -= 1;
        bit = 1;
      }
    } else r2 = 0;
    out[x] = bit;
    r1 = r2 + e * a1;
    r2 = e * a2;
    const i = x + 2 - 2 * d;
    next[i] += p1 + e * b0;
    p1 = p2 + e * b1;
    p2 = p3 + e * b2;
    p3 = p4 + e * b3;
    p4 = e * b4;
    after[i] = s1 + e * c0;
    s1 = s2 + e * c1;
    s2 = s3 + e * c2;
    s3 = s4 + e * c3;
    s4 = e * c4;
    x += d;
  }
  next[x + 2 - 2 * d] += p1;
  next[x + 2 - d] += p2;
  after[x + 2 - 2 * d] = s1;
  after[x + 2 - d] = s2;
}

/**
 * Rows of a kernel, from the top; error beyond the edge is dropped.
 * @param allowed of a row, 1 where it may be burnt: errors go nowhere beyond; null: everywhere
 * @param serpentine every second row from right to left
 */
export function diffuser(
  k: Diffusion,
  w: number,
  serpentine: boolean,
  allowed: ((y: number) => Uint8Array | null) | null = null,
): RowMaker {
  const f = (n: number): number => n / k.of;
  const weights: Weights = { a1: f(k.row0[0]), a2: f(k.row0[1]), b: k.row1.map(f), c: k.row2.map(f) };
  const two = allowed !== null || k.row2.some((n) => n > 0);
  // two cells beside the row on either side take what is dropped
  let now = new Float64Array(w + 4);
  let next = new Float64Array(w + 4);
  let after = new Float64Array(w + 4);
  let y = 0;
  return (share, out) => {
    const d = serpentine && y % 2 === 1 ? -1 : 1;
    if (two) deep(share, out, now, next, after, d, weights, allowed?.(y) ?? null);
    else shallow(share, out, now, next, d, weights);
    y++;
    [now, next, after] = [next, after, now];
    for (const row of [now, next]) row[0] = row[1] = row[w + 2] = row[w + 3] = 0;
  };
}
