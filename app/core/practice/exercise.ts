/**
 * Exercises on the core’s own models: a seed and a level make a task with controls; what was chosen is judged by the model, which says at
 * which point it went wrong, why, and what would do better.
 */
import type { World } from "../records/world";

export type Answer = Record<string, number | string>;
export type Control =
  | { id: string; label: string; kind: "number"; min: number; max: number; step: number; unit: string; start: number }
  /** a hand that goes over a face of w × h mm: text of {@link samplesOf}, at the distance of another control */
  | { id: string; label: string; kind: "path"; w: number; h: number; wanted: number; distance: string; start: string }
  | { id: string; label: string; kind: "choice"; options: { value: string; label: string }[]; start: string };

/** Something drawn: shapes in a box, no interface code. */
export interface Shape {
  d: string;
  fill: string;
  stroke?: string;
  /** width of the stroke */
  line?: number;
  opacity?: number;
  /** turned soft at its rim, in units of the box */
  blur?: number;
}
export interface Drawing {
  w: number;
  h: number;
  label: string;
  shapes: Shape[];
}

export interface Task {
  says: string;
  facts: string[];
  controls: Control[];
  picture: Drawing | null;
}
export interface Verdict {
  /** 0 to 1 */
  score: number;
  good: boolean;
  says: string;
  /** at which moment or place it went wrong; null: it did not */
  wrongAt: string | null;
  /** figures of the model */
  figures: [name: string, value: string][];
  picture: Drawing | null;
  /** what would do better, as far as one mistake goes: followed again and again it comes right */
  next: Answer;
}
export interface Exercise {
  id: string;
  name: string;
  about: string;
  /** page of the field guide */
  guide: string;
  /** kinds of step that it is about */
  kinds: readonly string[];
  levels: number;
  /** what it takes of the maker’s own shop; absent: it goes by no shop */
  own?: { of: string; has(shop: World): boolean };
  /** @param shop the maker’s own, for the level of that name; null: made up */
  task(seed: number, level: number, shop: World | null): Task;
  judge(seed: number, level: number, answer: Answer, shop: World | null): Verdict;
}

/** Where a hand was, ms since it began, mm on the face, and whether the can was open from there on. */
export interface Sample {
  ms: number;
  x: number;
  y: number;
  open: boolean;
}
/** Samples of a hand’s way, out of text: `ms x y 0|1` each, parted by commas. What can’t be read is left out. */
export const samplesOf = (text: string): Sample[] =>
  text.split(",").flatMap((part) => {
    const [ms, x, y, open] = part.trim().split(" ").map(Number);
    return [ms, x, y, open].every(Number.isFinite) ? [{ ms, x, y, open: open === 1 }] : [];
  });
export const pathText = (all: readonly Sample[]): string =>
  all
    .map((s) => `${Math.round(s.ms)} ${Math.round(s.x * 10) / 10} ${Math.round(s.y * 10) / 10} ${Number(s.open)}`)
    .join(",");

export const rect = (x: number, y: number, w: number, h: number): string =>
  `M${x} ${y}L${x + w} ${y}L${x + w} ${y + h}L${x} ${y + h}Z`;
export const num = (a: Answer, id: string): number => Number(a[id]);
export const clamp = (v: number, lo: number, hi: number): number => Math.min(hi, Math.max(lo, v));
/** A score out of how far off something is, and how far it may be. */
export const near = (off: number, may: number): number => clamp(1 - Math.abs(off) / (3 * may), 0, 1);
export const r1 = (v: number): number => Math.round(v * 10) / 10;
export const r2 = (v: number): number => Math.round(v * 100) / 100;
/** Values as a control takes them. */
export const onStep = (c: Extract<Control, { kind: "number" }>, v: number): number =>
  clamp(Math.round((v - c.min) / c.step) * c.step + c.min, c.min, c.max);
/** Half of the way from one value to another, by the control's steps; all of it where they lie close. */
export function towards(c: Control, from: number, to: number): number {
  if (c.kind !== "number") return to;
  const half = onStep(c, from + (to - from) * 0.7);
  return half === onStep(c, from) ? onStep(c, to) : half;
}
export const start = (t: Task): Answer => Object.fromEntries(t.controls.map((c) => [c.id, c.start]));
export const pickOf = <T>(list: readonly T[], r: { below(n: number): number }): T => list[r.below(list.length)];
