/** What laser steps share: extents and minutes of a burn, M4’s cuts of a stack, settings within the machine’s reach, waits. */
import { absorption } from "../../catalogue/beams";
import { cuts, type Cut } from "../../models/film/reveal";
import { ripple } from "../../models/laser/energy";
import { rasterTime, travel, vectorTime } from "../../models/laser/runtime";
import { topDown, zoneOf, type Piece, type ZoneState } from "../../piece/state";
import { COLD_C } from "../../models/powder/heat";
import type { Beam } from "../../records/ids";
import type { Zone } from "../../records/job";
import type { Machine } from "../../records/machine";
import type { Picture } from "../../records/picture";
import { SLICES } from "../../vector/measure";
import { eyewearFor, topSpeed } from "../beam";
import type { Context } from "../context";
import { blankOf } from "../../geometry/blank";
import { asOn, named } from "../../geometry/names";
import { origin, pageBox } from "../../geometry/origin";
import { pictureFile, pictureRows } from "../../geometry/picture";
import { dotMaker } from "../../tone/kernels";
import { coldNeed } from "../needs";
import { loadsOn } from "../on-bed";
import type { LaserSetting, Need } from "../step";
import { showLength } from "../../units/show";
import { dampNeed } from "./damp";

/** What of a step the laser asks for. */
export interface LaserWork {
  zones: string[];
  laser: LaserSetting | null;
}

/** minutes to change a load on the bed */
export const LOAD_MIN = 2;
export const SETUP_MIN = 5;
/** Minutes to set a machine up for another job: its own, else the default. */
export const setupMin = (m: Pick<Machine, "setupMin">): number => m.setupMin ?? SETUP_MIN;
const PATCHY = { can: 0.12, low: 0.25 };
/** share of a can below which it spits */
export const LOW_CAN = 0.2;

/** Mean burnt length of a row and the height of all rows for these zones burnt in one go, mm. */
export function rasterExtent(zones: Zone[]): { rowMm: number; heightMm: number } {
  const known = zones.filter((z) => z.rows.length === 2 + 2 * SLICES);
  const blind = zones.filter((z) => z.rows.length !== 2 + 2 * SLICES);
  let burnt = 0;
  let heightMm = 0;
  if (known.length) {
    const y0 = Math.min(...known.map((z) => z.rows[0]));
    const y1 = Math.max(...known.map((z) => z.rows[1]));
    const N = 128;
    const slice = (y1 - y0) / N;
    for (let k = 0; k < N; k++) {
      const y = y0 + (k + 0.5) * slice;
      let from = Infinity;
      let to = -Infinity;
      for (const z of known) {
        const i = Math.floor(((y - z.rows[0]) / (z.rows[1] - z.rows[0])) * SLICES);
        if (i < 0 || i >= SLICES) continue;
        const [a, b] = [z.rows[2 + 2 * i], z.rows[3 + 2 * i]];
        if (b < a) continue;
        from = Math.min(from, a);
        to = Math.max(to, b);
      }
      if (to > from) {
        burnt += (to - from) * slice;
        heightMm += slice;
      }
    }
  }
  // Only the area is known: as a square of that area.
  for (const z of blind) {
    burnt += z.areaMm2;
    heightMm += Math.sqrt(z.areaMm2);
  }
  return { rowMm: heightMm > 0 ? burnt / heightMm : 0, heightMm };
}

/** Are tones made by power and not by dots: of the picture as it says, else as the school has it. */
export const greyTones = (c: Context): boolean =>
  c.picture ? c.picture.render === "grey" : c.school("shading") === "grey";
/** How its tones are made, in words. */
const dotsOf = (p: Picture): string =>
  p.render === "grey"
    ? p.dig
      ? "colours of the stack by power"
      : "power by tone"
    : `dots: ${dotMaker(p.render).name}${p.plain ? ", not corrected for the spot" : ""}`;
/** What the maker is told of the picture at the laser: which file, how large, what the program must not do to it; none without one. */
export const pictureCues = (c: Context): string[] =>
  c.picture
    ? [
        `Picture “${c.picture.name}”: the PNG of this job, ${showLength(c.picture.w)} × ${showLength(c.picture.h)}, ` +
          `${showLength(c.intervalMm ?? 0)} between lines, ${dotsOf(c.picture)}`,
        `Its file is called “${pictureFile(c.job, c.picture, c.intervalMm ?? 0)}…”`,
        "In the program leave alone: turning over, mirroring, tone, dots",
      ]
    : [];

/** What a zone that the beam has been over is besides, where it draws a picture. */
export const drawnOver = (c: Context): { pictured?: true } => (c.picture ? { pictured: true } : {});

/** The same where a picture is drawn over the zones: its own rows, as far as they lie over these. */
function pictureExtent(zones: Zone[], p: Picture, c: Context): { rowMm: number; heightMm: number } {
  const rows = pictureRows(p, c.job, origin(c.job));
  if (!rows.length) return { rowMm: 0, heightMm: 0 };
  const all = { ...zones[0], rows };
  if (zones.length === c.job.zones.length) return rasterExtent([all]);
  const [y0, y1, x0, x1] = rows;
  const within = (z: Zone): Zone => {
    if (z.rows.length !== 2 + 2 * SLICES) return z;
    const slice = (z.rows[1] - z.rows[0]) / SLICES;
    const own = z.rows.slice(2).map((v, i) => {
      const y = z.rows[0] + (Math.floor(i / 2) + 0.5) * slice;
      // an empty row ends before it begins
      return y < y0 || y > y1 ? (i % 2 ? -1 : 0) : Math.min(x1, Math.max(x0, v));
    });
    return { ...z, rows: [z.rows[0], z.rows[1], ...own] };
  };
  return rasterExtent(zones.map(within));
}

/** Outlines of a zone as closed runs of mm, from its path; its perimeter as one straight where only that is known. */
function outlines(z: Zone): [number, number][][] {
  const runs = z.outline
    .split("M")
    .filter(Boolean)
    .map((part): [number, number][] =>
      part
        .replace("Z", "")
        .split("L")
        .map(
          (p) =>
            p
              .trim()
              .split(/[\s,]+/)
              .map(Number) as [number, number],
        ),
    );
  if (runs.length) return runs.map((r) => [...r, r[0]]);
  return z.perimeterMm === null
    ? []
    : [
        [
          [0, 0],
          [z.perimeterMm, 0],
        ],
      ];
}

/** The outlines that a piece is cut out along: its holes, and itself. */
export const blankOutline = (c: Context): [number, number][][] =>
  [...blankOf(c.job.substrate).rings].reverse().map((r) => [...r, r[0]]);

/** Seconds along lines, travel between them at rapid speed (M2); null: no machine or setting. */
export function lineSeconds(runs: [number, number][][], s: LaserWork, c: Context): number | null {
  const m = c.machine;
  if (!m || !s.laser) return null;
  const { speed, passes } = s.laser;
  const rapid = m.rapid ?? topSpeed(m);
  let at: [number, number] = [0, 0];
  let sum = 0;
  for (const r of runs) {
    sum += m.galvo
      ? (passes * r.slice(1).reduce((a, p, i) => a + Math.hypot(p[0] - r[i][0], p[1] - r[i][1]), 0)) / speed
      : vectorTime(r, speed, m.accel, passes);
    sum += m.galvo ? m.jumpMs / 1000 : travel(Math.hypot(r[0][0] - at[0], r[0][1] - at[1]), rapid, m.accel);
    at = r[r.length - 1];
  }
  return sum;
}
/** The outlines of some zones. */
export const linesOf = (zones: string[], c: Pick<Context, "job">): [number, number][][] =>
  c.job.zones.filter((z) => zones.includes(z.id) && (z.outline || !z.onPieces)).flatMap(outlines);

/** Seconds for one piece, filled row by row; null without a machine or setting. */
export function pieceSeconds(s: LaserWork, c: Context): number | null {
  const m = c.machine;
  if (!m || !s.laser) return null;
  const zones = c.job.zones.filter((z) => s.zones.includes(z.id));
  const e = c.picture ? pictureExtent(zones, c.picture, c) : rasterExtent(zones);
  const page = c.picture ? c.picture.w : c.job.artwork ? pageBox(c.job.artwork)[0] : 0;
  return rasterTime({
    rowMm: m.trimsRows || e.heightMm === 0 ? e.rowMm : Math.max(e.rowMm, page),
    rows: Math.ceil(e.heightMm / s.laser.interval),
    speed: s.laser.speed,
    accel: m.accel,
    overscanMm: m.overscanMm,
    intervalMm: s.laser.interval,
    bothWays: m.bothWays,
    rapid: m.rapid,
    galvo: m.galvo,
    jumpS: m.jumpMs / 1000,
    passes: s.laser.passes,
  });
}

/** Patchiness of a product as it will be sprayed: a nearly empty can spits. */
export function patchiness(c: Context, productId: string): number {
  const p = c.paintOf(productId);
  if (p.finish.by !== "spray") return p.finish.patchiness;
  const known = p.product.cans.filter((k) => k.leftMl !== null);
  const low = known.length > 0 && known.every((k) => (k.leftMl as number) < LOW_CAN * k.fullMl);
  return low ? PATCHY.low : p.finish.patchiness;
}

/** Share of a beam that a product takes up. */
export const absorbs = (c: Context, beam: Beam, productId: string): number =>
  absorption(beam, c.paintOf(productId).product.colour, c.paintOf(productId));

/** M4's cuts for a zone's films as they lie. */
export function cutsOf(z: ZoneState, c: Context, interval: number, passes: number): Cut[] {
  if (!c.machine || c.spotMm === null) return [];
  const beam = c.machine.beam;
  return cuts(
    topDown(z).map((f) => ({
      um: f.um,
      patchiness: patchiness(c, f.productId),
      absorbs: absorbs(c, beam, f.productId),
    })),
    c.substrate.e0,
    passes,
    ripple(c.spotMm, interval),
  );
}

export const filmsNeed = (p: Piece, zones: string[], state: Need["state"], why: string): Need[] => {
  const stacks = zones
    .map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined) }))
    .filter((s) => s.films.length);
  return stacks.length ? [{ state, stacks, why }] : [];
};
/** What a laser step waits for. */
export const laserNeeds = (s: LaserWork, p: Piece, c: Context): Need[] => [
  ...dampNeed(p),
  ...coldNeed(p, COLD_C, "a warm fill is still soft", c),
  ...filmsNeed(
    p,
    s.zones,
    c.school("before-laser") === "touch" ? "touch" : "laser-safe",
    "soft paint melts and smears instead of lifting",
  ),
];
export const eyewear = (c: Context): string => eyewearFor(c.machine);

/** Minutes of a batch, filled row by row or along the zones' outlines. */
export const batch = (s: LaserWork, c: Context): { setup: number; perPiece: number } | null =>
  byLoads(pieceSeconds(s, c), c);
export const lineBatch = (s: LaserWork, c: Context): { setup: number; perPiece: number } | null =>
  byLoads(meanLineSeconds(s, c), c);
/** pieces of a list of names whose lines are run through one by one; of more, as many spread over all */
const RUN_THROUGH = 40;
/** Seconds along the lines of a piece: the mean of all where they differ. */
function meanLineSeconds(s: LaserWork, c: Context): number | null {
  const all = s.zones.flatMap((id) => c.job.zones.find((z) => z.id === id)?.onPieces ?? []);
  if (!all.length) return lineSeconds(linesOf(s.zones, c), s, c);
  const n = named(c.job.zones);
  const some = Math.min(n, RUN_THROUGH);
  let sum = 0;
  for (let i = 0; i < some; i++) {
    const piece = 1 + Math.floor(((i + 0.5) * n) / some);
    const one = lineSeconds(linesOf(s.zones, { job: { ...c.job, zones: asOn(c.job.zones, piece) } }), s, c);
    if (one === null) return null;
    sum += one;
  }
  return sum / some;
}
export function byLoads(sec: number | null, c: Context): { setup: number; perPiece: number } | null {
  if (sec === null || !c.machine) return null;
  const { loads } = loadsOn(c, c.pieces);
  return { setup: setupMin(c.machine) + LOAD_MIN * Math.max(1, loads), perPiece: sec / 60 };
}

/** to the digit that a panel takes */
export const tenth = (x: number): number => Math.round(x * 10) / 10;
/** A setting as it is typed into a machine, to the digits that it was reckoned with; along lines there is no interval. */
export const setting = (s: Pick<LaserWork, "laser">, runs: "rows" | "lines" = "rows"): string =>
  s.laser
    ? [
        `${tenth(s.laser.power * 100)} % power`,
        `${tenth(s.laser.speed)} mm/s`,
        ...(runs === "rows" ? [`${s.laser.interval} mm`] : []),
        `${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"}`,
      ].join(", ")
    : "No setting yet: choose a machine";
