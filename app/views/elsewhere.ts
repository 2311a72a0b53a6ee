/** What has changed in Workshop and Shelf since a job began, in lines that can be read before it counts. */
import { saidAll } from "../core/units/said";
import { changesElsewhere } from "../core/plan/begun";
import { makePlan, type Plan } from "../core/plan/plan";
import { showWhen } from "../core/time/zoned";

export interface ElsewhereView {
  lines: string[];
  /** how many more there are */
  more: number;
}
const SHOWN = 8;

/** @returns null where nothing of it would change the rest of this job */
export function elsewhereView(plan: Plan, now: number): ElsewhereView | null {
  const d = changesElsewhere(plan, now, (w) => makePlan(w, now, true));
  if (!d) return null;
  const { clock } = plan.context;
  const when = (m: number | null): string => (m === null ? "no time yet" : showWhen(clock, m));
  const lines = [
    ...d.added.map((t) => `comes: ${t}`),
    ...d.removed.map((t) => `goes: ${t}`),
    ...d.moved.map((t) => `another place: ${t}`),
    ...d.changed.map((c) => `${c.title}: ${c.what} ${c.before} → ${c.after}`),
    ...(d.ready[0] === d.ready[1] ? [] : [`ready: ${when(d.ready[0])} → ${when(d.ready[1])}`]),
  ];
  const told = saidAll(lines.slice(0, SHOWN), plan.context.world.shop.units);
  return { lines: told, more: Math.max(0, lines.length - SHOWN) };
}
