/** Outlines on the grid of the laser, row by row: what of a row lies inside, and what lies too near to an edge. */

type Ring = readonly (readonly [number, number])[];
/** A row's inside: 1 for each pixel whose middle lies in it. Rows are cheapest asked for from the top. */
export type RowScan = (y: number) => Uint8Array;

interface Edge {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Edges that a row meets, found without looking at all of them each time. @param reach pixels that an edge is felt beyond its ends */
function sweep(rings: readonly Ring[], reach: number): (y: number) => Edge[] {
  const edges: Edge[] = rings
    .flatMap((r) =>
      r.map(([x, y], i): Edge => {
        const [a, b] = r[(i + 1) % r.length];
        return y <= b ? { x0: x, y0: y, x1: a, y1: b } : { x0: a, y0: b, x1: x, y1: y };
      }),
    )
    .sort((p, q) => p.y0 - q.y0);
  let next = 0;
  let live: Edge[] = [];
  let last = -Infinity;
  return (y) => {
    const at = y + 0.5;
    if (y < last) {
      next = 0;
      live = [];
    }
    last = y;
    while (next < edges.length && edges[next].y0 - reach <= at) live.push(edges[next++]);
    live = live.filter((e) => e.y1 + reach >= at);
    return live;
  };
}

/**
 * Inside by even and odd.
 * @param rings in pixels @param w pixels of a row
 */
export function scan(rings: readonly Ring[], w: number): RowScan {
  const meets = sweep(rings, 0);
  const row = new Uint8Array(w);
  return (y) => {
    const at = y + 0.5;
    const cuts: number[] = [];
    for (const e of meets(y))
      if (e.y0 <= at && e.y1 > at) cuts.push(e.x0 + ((at - e.y0) / (e.y1 - e.y0)) * (e.x1 - e.x0));
    cuts.sort((a, b) => a - b);
    row.fill(0);
    for (let i = 0; i + 1 < cuts.length; i += 2) {
      const [a, b] = [Math.max(0, Math.ceil(cuts[i] - 0.5)), Math.min(w, Math.ceil(cuts[i + 1] - 0.5))];
      if (b > a) row.fill(1, a, b);
    }
    return row;
  };
}

/** From where to where a row lies within a distance of an edge; null: nowhere. */
function near(e: Edge, y: number, k: number): [number, number] | null {
  let [lo, hi] = [Infinity, -Infinity];
  const cap = (px: number, py: number): void => {
    const d = k * k - (y - py) ** 2;
    if (d < 0) return;
    lo = Math.min(lo, px - Math.sqrt(d));
    hi = Math.max(hi, px + Math.sqrt(d));
  };
  cap(e.x0, e.y0);
  cap(e.x1, e.y1);
  // the straight sides between the two caps
  const length = Math.hypot(e.x1 - e.x0, e.y1 - e.y0);
  if (length > 0) {
    const [nx, ny] = [(-(e.y1 - e.y0) / length) * k, ((e.x1 - e.x0) / length) * k];
    const box = [
      [e.x0 + nx, e.y0 + ny],
      [e.x1 + nx, e.y1 + ny],
      [e.x1 - nx, e.y1 - ny],
      [e.x0 - nx, e.y0 - ny],
    ];
    box.forEach(([ax, ay], i) => {
      const [bx, by] = box[(i + 1) % 4];
      if (ay <= y === by <= y) return;
      const x = ax + ((y - ay) / (by - ay)) * (bx - ax);
      lo = Math.min(lo, x);
      hi = Math.max(hi, x);
    });
  }
  return hi > lo ? [lo, hi] : null;
}

/** Inside, and farther than so many pixels from every edge; below 0: inside, or no farther than so many beyond. */
export function scanWithin(rings: readonly Ring[], w: number, keep: number): RowScan {
  const inside = scan(rings, w);
  if (keep === 0) return inside;
  const reach = Math.abs(keep);
  const meets = sweep(rings, reach);
  return (y) => {
    const row = inside(y);
    for (const e of meets(y)) {
      const span = near(e, y + 0.5, reach);
      if (!span) continue;
      const [a, b] = [Math.max(0, Math.ceil(span[0] - 0.5)), Math.min(w, Math.ceil(span[1] - 0.5))];
      if (b > a) row.fill(keep > 0 ? 0 : 1, a, b);
    }
    return row;
  };
}
