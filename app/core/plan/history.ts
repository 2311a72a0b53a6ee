/**
 * A plan that has begun stays put: what is done is kept as it was done, and stands first. What is kept with a job: begun.ts.
 */
import { GROUND } from "../piece/state";
import { isKind, newStep, type Step } from "../process/kinds";
import type { Begun, DoneStep } from "../records/begun";
import type { Actual } from "./placed";

/** A step as the record keeps it, and as a plan reads it again; null: this Rich Layer has no such kind. */
export const kept = (s: Step): DoneStep => ({ ...s }) as unknown as DoneStep;
const readAgain = ({ kind, ...rest }: DoneStep): Step | null =>
  isKind(kind) ? (newStep(rest.id, kind, rest.title, rest as object) as Step) : null;

export interface Merged {
  steps: Step[];
  /** ids of steps that are done, or begun: they are what they were */
  fixed: ReadonlySet<string>;
  /** steps that today's brief and Shelf would have wanted before what is done by now */
  late: Step[];
}

/**
 * Steps as they are planned by now behind those that are done: what is done stands first, as it was done; what would have belonged
 * before it, and was not in the plan that it was begun by, comes too late and is left out.
 */
export function withHistory(
  planned: Step[],
  begun: Begun | undefined,
  actuals: ReadonlyMap<string, Actual>,
  allZones: string[],
): Merged {
  const kept = (begun?.done ?? []).filter((s) => actuals.has(s.id)).flatMap((s) => readAgain(s) ?? []);
  // A drawing that was changed meanwhile: what covered the whole face covers the new zones too; a zone that is gone is nowhere.
  const were = new Set([GROUND, ...kept.flatMap((s) => s.zones)]);
  const now = (zones: string[]): string[] =>
    [...were].every((z) => zones.includes(z)) ? allZones : zones.filter((z) => allZones.includes(z));
  const done = kept.map((s) => ({ ...s, zones: now(s.zones) }));
  const fixed = new Set(done.map((s) => s.id));
  if (!begun || !done.length) return { steps: planned, fixed, late: [] };
  const known = new Set(begun.steps);
  const lastDone = planned.reduce((k, s, i) => (fixed.has(s.id) ? i : k), -1);
  const late = planned.filter((s, i) => i < lastDone && !known.has(s.id) && !fixed.has(s.id) && s.origin === "plan");
  // The wait behind what is done belongs to what comes next.
  const waits = new Map(planned.map((s) => [s.id, s.waitMin]));
  const first = done.map((s) => ({ ...s, waitMin: waits.get(s.id) ?? null }));
  return { steps: [...first, ...planned.filter((s) => !fixed.has(s.id) && !late.includes(s))], fixed, late };
}

/** Does what was kept lack this step, or hold it as it was before it was taken back? */
export const unkept = (begun: Begun | undefined, step: string, actuals: ReadonlyMap<string, Actual>): boolean =>
  !begun?.done.some((s) => s.id === step) || !actuals.has(step);
