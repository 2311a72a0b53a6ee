/**
 * Trips to the bench: hands-on steps no more than a short gap apart are one visit. What a calendar shows, and what a maker
 * plans a day by.
 */
import { inTurn, type Placed } from "./placed";

/** minutes between two steps that still make one visit */
export const TRIP_GAP_MIN = 15;

export interface Trip {
  /** id of its first step: as long as that step opens a visit, the visit keeps its name */
  id: string;
  from: number;
  to: number;
  steps: { id: string; title: string; start: number; end: number }[];
  /** windows that shut after one of its steps and before the next coat: when, and before which step */
  closing: { at: number; before: string }[];
}

/** Visits still to come or under way, in order; done steps are left out. */
export function trips(plan: { placed: Placed[] }): Trip[] {
  const out: Trip[] = [];
  for (const p of inTurn(plan.placed)) {
    if (p.start === null || p.end === null || p.actual?.end != null) continue;
    const last = out[out.length - 1];
    const step = { id: p.step.id, title: p.step.title, start: p.start, end: p.end };
    const shuts = p.needs
      .filter((n) => n.closes !== null)
      .map((n) => ({ at: n.closes as number, before: p.step.title }));
    if (last && p.start - last.to <= TRIP_GAP_MIN) {
      last.to = Math.max(last.to, p.end);
      last.steps.push(step);
      last.closing.push(...shuts);
    } else out.push({ id: p.step.id, from: p.start, to: p.end, steps: [step], closing: shuts });
  }
  return out;
}
