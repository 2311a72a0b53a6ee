/** Where the picture lies on the blank, what it covers and hides, and how long its rows are. mm, from the blank's upper left corner. */
import type { Job } from "../records/job";
import type { Picture } from "../records/picture";
import { SLICES } from "../vector/measure";
import { rotationHidden } from "./registration";

export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}
type OnBlank = Pick<Job, "substrate">;

/** The box that a picture fills; upright, as quarters turn it within its size. */
export function pictureBox(p: Picture, { substrate: s }: OnBlank): Box {
  const [cx, cy] = [s.w / 2 + (p.dx ?? 0), s.h / 2 + (p.dy ?? 0)];
  return { x0: cx - p.w / 2, y0: cy - p.h / 2, x1: cx + p.w / 2, y1: cy + p.h / 2 };
}

export interface Overrun {
  /** mm that it reaches over each side; below 0: it ends within by so much */
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** the least of them, and as a share of the blank’s width */
  least: number;
  share: number;
  /** ° that the piece may lie turned until a rim shows; 0 where it does not run over */
  degrees: number;
}
/** How far a picture runs over its blank (A15), and what of a shift or turn that still hides (A16). */
export function overrunOf(p: Picture, job: OnBlank): Overrun {
  const b = pictureBox(p, job);
  const { w, h } = job.substrate;
  const [left, top, right, bottom] = [-b.x0, -b.y0, b.x1 - w, b.y1 - h];
  const least = Math.min(left, top, right, bottom);
  return { left, top, right, bottom, least, share: least / w, degrees: least > 0 ? rotationHidden(w, h, least) : 0 };
}

/** mm inside the blank from which on every side a picture is meant to end there */
const MEANT_WITHIN_MM = 5;
/**
 * How much a picture that is to cover its blank lacks of running over it (A15), mm; null: it does, or it is meant to end within.
 * @param meantMm that it is to run over each edge, as the piece may lie off
 */
export function shortOf(p: Picture, job: OnBlank, meantMm: number): number | null {
  if (job.substrate.keepMm) return null;
  const { left, top, right, bottom, least } = overrunOf(p, job);
  const within = Math.min(left, top, right, bottom) < -MEANT_WITHIN_MM;
  return within || least >= meantMm - 1e-6 ? null : meantMm - least;
}
/** The picture in the middle of its blank, running over each edge by so much, mm. */
export function runOver(p: Picture, { substrate: { w, h } }: OnBlank, mm: number): Picture {
  const size = (v: number): number => Math.max(0.1, Math.round((v + 2 * mm) * 100) / 100);
  return { ...p, w: size(w), h: size(h), dx: undefined, dy: undefined };
}

/** Share of the picture that a fit leaves away (A17): what hangs over when it covers, none when it is contained or stretched. */
export function lostByFit(p: Picture): { share: number; stretched: number } {
  const turned = (p.quarters ?? 0) % 2 === 1;
  const [cw, ch] = [(p.crop?.w ?? 1) * p.pxW, (p.crop?.h ?? 1) * p.pxH];
  const [w, h] = turned ? [ch, cw] : [cw, ch];
  const [own, box] = [w / h, p.w / p.h];
  const k = own > box ? box / own : own / box;
  const kept = (p.crop ? p.crop.w * p.crop.h : 1) * (p.fit === "cover" ? k : 1);
  return { share: 1 - kept, stretched: p.fit === "stretch" ? 1 / k - 1 : 0 };
}

/** Pixels of the file a mm of the piece. */
export function pixelsPerMm(p: Picture): number {
  const turned = (p.quarters ?? 0) % 2 === 1;
  const [cw, ch] = [(p.crop?.w ?? 1) * p.pxW, (p.crop?.h ?? 1) * p.pxH];
  const [w, h] = turned ? [ch, cw] : [cw, ch];
  const [a, b] = [w / p.w, h / p.h];
  // contained it is smaller than its frame; else the side that has fewer tells
  return p.fit === "contain" ? Math.max(a, b) : Math.min(a, b);
}

/** Rows of a picture as the beam runs them, within the blank: as row extents of a zone whose corner lies at `origin`. */
export function pictureRows(p: Picture, job: OnBlank, [ox, oy]: [number, number]): number[] {
  const b = pictureBox(p, job);
  const { w, h } = job.substrate;
  const [x0, x1] = [Math.max(0, b.x0) - ox, Math.min(w, b.x1) - ox];
  const [y0, y1] = [Math.max(0, b.y0) - oy, Math.min(h, b.y1) - oy];
  if (x1 <= x0 || y1 <= y0) return [];
  return [y0, y1, ...Array.from({ length: SLICES }, () => [x0, x1]).flat()];
}

/** What the file for the laser is called, without its ending: job, size, interval, how its tones are made; it is found again by that. */
export function pictureFile(
  job: Pick<Job, "title">,
  p: Pick<Picture, "w" | "h" | "render" | "dig">,
  intervalMm: number,
): string {
  const slug = job.title
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "");
  return `${slug || "picture"}_${Math.round(p.w)}x${Math.round(p.h)}mm_${intervalMm}mm_${p.dig ? "levels" : p.render}`;
}
