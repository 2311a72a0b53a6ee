/**
 * A small picture of a piece for lists: each zone's outline on a coarse grid, small enough to be kept beside the job's title. What is
 * finer than the grid is left out, and the smallest shapes first where there are too many.
 */
import type { Job } from "../records/job";
import { blankOf } from "./blank";
import { origin } from "./origin";
import type { Point, Ring } from "./outline";

/** cells along the longer side */
const GRID = 96;
/** corners of the whole picture, at most */
const MOST_CORNERS = 500;
/** cells that a shape must measure to be seen */
const LEAST = 1;
/** turns that never come round to the same place: what is taken by them lies spread out */
const GOLDEN = 0.6180339887;

export interface Thumb {
  /** of the blank, in cells */
  w: number;
  h: number;
  /** its outline where it is no plain rectangle */
  blank?: string;
  zones: { colour: string; productId: string | null; bare: boolean; burn?: boolean; path: string }[];
  /** of what it was drawn: another one is drawn when this no longer fits */
  of: string;
}

type Drawn = Pick<Job, "artwork" | "substrate" | "zones">;
/** Two jobs with the same mark have the same picture, as far as outlines go: their sizes are compared, not their every corner. */
const markOf = ({ artwork: a, substrate: s, zones }: Drawn): string =>
  [
    s.w,
    s.h,
    a?.w,
    a?.h,
    a?.dx,
    a?.dy,
    a?.turn,
    JSON.stringify([s.blank, s.holes]),
    ...zones.flatMap((z) => [z.id, z.outline.length, z.areaMm2, z.perimeterMm]),
  ].join();

/** Corners of an outline of straight lines, on the grid; runs along one line are one. */
function coarse(outline: string, cell: number, [dx, dy]: Point): { ring: Ring; w: number; h: number }[] {
  const on = (mm: number, d: number): number => Math.round((mm + d) / cell);
  return outline
    .split("M")
    .slice(1)
    .map((part) => {
      const v = part.match(/-?\d*\.?\d+(?:e-?\d+)?/g) ?? [];
      const ring: Ring = [];
      const box = [Infinity, -Infinity, Infinity, -Infinity];
      for (let i = 0; i + 1 < v.length; i += 2) {
        const [x, y] = [Number(v[i]), Number(v[i + 1])];
        [box[0], box[1], box[2], box[3]] = [
          Math.min(box[0], x),
          Math.max(box[1], x),
          Math.min(box[2], y),
          Math.max(box[3], y),
        ];
        const at: Point = [on(x, dx), on(y, dy)];
        const [a, b] = [ring[ring.length - 2], ring[ring.length - 1]];
        const straight = a && b && (b[0] - a[0]) * (at[1] - b[1]) === (b[1] - a[1]) * (at[0] - b[0]);
        if (straight) ring.pop();
        const last = ring[ring.length - 1];
        if (!last || last[0] !== at[0] || last[1] !== at[1]) ring.push(at);
      }
      return { ring, w: (box[1] - box[0]) / cell, h: (box[3] - box[2]) / cell };
    });
}

const coarsePath = (rings: { ring: Ring }[]): string =>
  rings.map((r) => `M${r.ring.map((p) => p.join(" ")).join("L")}Z`).join("");

/** @param before the picture that was kept; it is kept on where it still fits @returns null: only areas are known */
export function thumbOf(job: Drawn, before: Thumb | null = null): Thumb | null {
  const zones = job.zones.filter((z) => z.outline);
  if (!zones.length) return null;
  const of = markOf(job);
  const { w, h } = job.substrate;
  const cell = Math.max(w, h) / GRID;
  const look = (z: (typeof zones)[number]) => ({
    colour: z.wanted ?? z.colour,
    productId: z.productId,
    bare: z.bare,
    ...(z.burn ? { burn: true } : {}),
  });
  if (before?.of === of) return { ...before, zones: zones.map((z, i) => ({ ...look(z), path: before.zones[i].path })) };
  const at = origin(job);
  const own = blankOf(job.substrate);
  const rings = zones.flatMap((z, zone) => coarse(z.outline, cell, at).map((r) => ({ zone, ...r })));
  let left = MOST_CORNERS;
  const kept = new Set(
    rings
      .filter((r) => Math.max(r.w, r.h) >= LEAST && r.ring.length > 2)
      // of many like ones that do not all find room, some from everywhere
      .map((r, i) => ({ r, area: r.w * r.h, turn: (i * GOLDEN) % 1 }))
      .sort((a, b) => b.area - a.area || a.turn - b.turn)
      .map(({ r }) => r)
      .filter((r) => (left -= r.ring.length) >= 0),
  );
  const pathOf = (zone: number): string => coarsePath(rings.filter((r) => r.zone === zone && kept.has(r)));
  return {
    w: Math.max(1, Math.round(w / cell)),
    h: Math.max(1, Math.round(h / cell)),
    ...(own.plain ? {} : { blank: coarsePath(coarse(own.path, cell, [0, 0])) }),
    zones: zones.map((z, i) => ({ ...look(z), path: pathOf(i) })),
    of,
  };
}
