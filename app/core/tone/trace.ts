/**
 * Areas of few colours as outlines whose borders are shared: each border between two areas is followed and smoothed once, and both have the
 * same, so that neighbours leave no gap and do not overlap. Within half a pixel; corners stay.
 */
import { CLEAR, type Flat } from "./quantise";

export type Point = [number, number];
export type Ring = Point[];

/** right, down, left, up */
const DX = [1, 0, -1, 0];
const DY = [0, 1, 0, -1];
/** pixels that a border runs straight on both sides of a corner for the corner to be meant */
const STRAIGHT = 3;
/** pixels that a smoothed border may stray from the middle of its steps */
const STRAY = 0.3;

interface Chain {
  /** grid corners from end to end */
  at: Point[];
  shut: boolean;
}

/** Furthest from a straight line is kept, again and again (Ramer 1972, Douglas & Peucker 1973). */
function simplified(p: Ring, most: number): Ring {
  if (p.length < 3) return p;
  const keep = new Uint8Array(p.length);
  keep[0] = keep[p.length - 1] = 1;
  const stack: [number, number][] = [[0, p.length - 1]];
  while (stack.length) {
    const [a, b] = stack.pop()!;
    const [ax, ay] = p[a];
    const [dx, dy] = [p[b][0] - ax, p[b][1] - ay];
    const length = Math.hypot(dx, dy);
    let [at, far] = [-1, most];
    for (let i = a + 1; i < b; i++) {
      const [x, y] = [p[i][0] - ax, p[i][1] - ay];
      const d = length > 0 ? Math.abs(x * dy - y * dx) / length : Math.hypot(x, y);
      if (d > far) [at, far] = [i, d];
    }
    if (at < 0) continue;
    keep[at] = 1;
    stack.push([a, at], [at, b]);
  }
  return p.filter((_q, i) => keep[i]);
}

/** A border in steps as it was meant: through the middles of its steps, and through its corners. */
function smooth({ at, shut }: Chain, w: number, h: number): Ring {
  const n = at.length - 1;
  /** how far it runs straight from a corner, forwards or back */
  const run = (i: number, d: 1 | -1): number => {
    const from = (k: number): Point => at[shut ? ((k % n) + n) % n : k];
    const has = (k: number): boolean => shut || (k >= 0 && k <= n);
    if (!has(i + d)) return 0;
    const [sx, sy] = [from(i + d)[0] - from(i)[0], from(i + d)[1] - from(i)[1]];
    let k = 1;
    while (k < STRAIGHT && has(i + d * (k + 1))) {
      const [p, q] = [from(i + d * k), from(i + d * (k + 1))];
      if (q[0] - p[0] !== sx || q[1] - p[1] !== sy) break;
      k++;
    }
    return k;
  };
  const turns = (i: number): boolean => {
    const [p, q, r] = [at[shut ? (i - 1 + n) % n : i - 1], at[i], at[shut ? (i + 1) % n : i + 1]];
    return (q[0] - p[0]) * (r[1] - q[1]) !== (q[1] - p[1]) * (r[0] - q[0]);
  };
  const frame = ([x, y]: Point): boolean => (x === 0 || x === w) && (y === 0 || y === h);
  const corner = (i: number): boolean =>
    turns(i) && (frame(at[i]) || (run(i, 1) >= STRAIGHT && run(i, -1) >= STRAIGHT));
  const out: Ring = shut ? [] : [at[0]];
  const breaks: number[] = [];
  for (let i = 0; i < n; i++) {
    if ((i > 0 || shut) && corner(i)) {
      breaks.push(out.length);
      out.push(at[i]);
    }
    out.push([(at[i][0] + at[i + 1][0]) / 2, (at[i][1] + at[i + 1][1]) / 2]);
  }
  if (!shut) out.push(at[n]);
  // a shut one begins at a corner, or at two places far from one another
  if (shut) {
    const first = breaks[0] ?? 0;
    const round = [...out.slice(first), ...out.slice(0, first), out[first]];
    const cuts = breaks.length > 1 ? breaks.map((b) => b - first) : [0, Math.floor(round.length / 2)];
    return pieces(round, [...cuts, round.length - 1]).slice(0, -1);
  }
  return pieces(out, [0, ...breaks, out.length - 1]);
}
/** Simplified between places that stay. */
function pieces(p: Ring, cuts: number[]): Ring {
  const out: Ring = [p[0]];
  for (let i = 0; i + 1 < cuts.length; i++) out.push(...simplified(p.slice(cuts[i], cuts[i + 1] + 1), STRAY).slice(1));
  return out;
}

export interface Traced {
  colour: string;
  /** in pixels of the picture, each shut; inside by even and odd */
  rings: Ring[];
  pixels: number;
}

/** Outlines of each colour of a flat picture; clear pixels have none. */
export function traced(f: Flat): Traced[] {
  const { w, h, label } = f;
  const at = (x: number, y: number): number => (x < 0 || y < 0 || x >= w || y >= h ? CLEAR : label[y * w + x]);
  const W = w + 1;
  /** is there a border from a grid corner in one of the four ways */
  const border = (x: number, y: number, d: number): boolean =>
    d === 0
      ? at(x, y - 1) !== at(x, y)
      : d === 1
        ? at(x - 1, y) !== at(x, y)
        : d === 2
          ? at(x - 1, y - 1) !== at(x - 1, y)
          : at(x - 1, y - 1) !== at(x, y - 1);
  const ways = (x: number, y: number): number[] => [0, 1, 2, 3].filter((d) => border(x, y, d));
  // where not just two borders meet, chains end
  const node = (x: number, y: number): boolean => ways(x, y).length !== 2;
  const chains: Chain[] = [];
  /** of each border from its upper or left corner: its chain, and its place in it; across, and down */
  const mine = new Int32Array(2 * W * (h + 1)).fill(-1);
  const key = (x: number, y: number, d: number): number =>
    d === 0
      ? 2 * (y * W + x)
      : d === 2
        ? 2 * (y * W + x - 1)
        : d === 1
          ? 2 * (y * W + x) + 1
          : 2 * ((y - 1) * W + x) + 1;
  const follow = (x0: number, y0: number, d0: number): void => {
    const id = chains.length;
    const path: Point[] = [[x0, y0]];
    let [x, y, d] = [x0, y0, d0];
    for (;;) {
      mine[key(x, y, d)] = id;
      [x, y] = [x + DX[d], y + DY[d]];
      path.push([x, y]);
      if ((x === x0 && y === y0) || node(x, y)) break;
      const back = (d + 2) % 4;
      d = ways(x, y).find((v) => v !== back)!;
    }
    const shut = x === x0 && y === y0 && !node(x0, y0);
    chains.push({ at: path, shut });
  };
  for (let y = 0; y <= h; y++)
    for (let x = 0; x <= w; x++)
      if (node(x, y)) for (const d of ways(x, y)) if (mine[key(x, y, d)] < 0) follow(x, y, d);
  for (let y = 0; y <= h; y++)
    for (let x = 0; x <= w; x++) for (const d of ways(x, y)) if (mine[key(x, y, d)] < 0) follow(x, y, d);
  const lines = chains.map((c) => smooth(c, w, h));

  const out: Traced[] = f.colours.map((colour, i) => ({ colour, rings: [], pixels: f.pixels[i] }));
  // round each area with it on the left, border by border
  const done = new Uint8Array(4 * W * (h + 1));
  const leftOf = (x: number, y: number, d: number): number =>
    d === 0 ? at(x, y - 1) : d === 1 ? at(x, y) : d === 2 ? at(x - 1, y) : at(x - 1, y - 1);
  const round = (x0: number, y0: number, d0: number): void => {
    const l = leftOf(x0, y0, d0);
    if (l === CLEAR || done[4 * (y0 * W + x0) + d0]) return;
    const ring: Ring = [];
    let [x, y, d] = [x0, y0, d0];
    do {
      done[4 * (y * W + x) + d] = 1;
      const id = mine[key(x, y, d)];
      const { at: corners, shut } = chains[id];
      const next: Point = [x + DX[d], y + DY[d]];
      // a chain is put down whole where it is met: at its end, or where the way round a shut one begins
      if (shut ? ring.length === 0 : node(x, y)) {
        const k = shut ? corners.findIndex((q) => q[0] === x && q[1] === y) : 0;
        const forward =
          corners[k][0] === x && corners[k][1] === y && corners[k + 1][0] === next[0] && corners[k + 1][1] === next[1];
        const line = forward ? lines[id] : [...lines[id]].reverse();
        ring.push(...(shut ? line : line.slice(0, -1)));
      }
      [x, y] = next;
      // keep to the area: left where it ends ahead, right where it goes on beyond, else straight
      d = [(d + 3) % 4, d, (d + 1) % 4].find((v) => border(x, y, v) && leftOf(x, y, v) === l)!;
    } while (x !== x0 || y !== y0 || d !== d0);
    if (ring.length > 2) out[l].rings.push(ring);
  };
  for (let y = 0; y <= h; y++) for (let x = 0; x <= w; x++) if (node(x, y)) for (const d of ways(x, y)) round(x, y, d);
  for (let y = 0; y <= h; y++) for (let x = 0; x <= w; x++) for (const d of ways(x, y)) round(x, y, d);
  return out;
}
