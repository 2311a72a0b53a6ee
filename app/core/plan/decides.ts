/** What decides the date, in words: the longest waits and closed stretches on the way, each with what leaving it out would gain. */
import { showMinutes } from "../units/show";
import type { Placed } from "./place";
import { stateWords } from "./words";

export { stateWords } from "./words";

export interface Decider {
  kind: "wait" | "closed" | "work";
  /** the step it comes before, or is */
  step: string;
  minutes: number;
  /** minutes sooner without it; null: not worked out */
  gain: number | null;
  why: string;
}

/** @param without plans again with the wait before a step left out and gives the ready time */
export function decides(placed: Placed[], ready: number | null, without: (index: number) => number | null): Decider[] {
  const out: (Decider & { index: number })[] = [];
  placed.forEach((p, i) => {
    const prev = placed[i - 1];
    if (i === 0 || p.start === null || !prev || prev.end === null || p.actual) return;
    const gap = p.start - prev.end;
    if (gap <= 0) return;
    const wait = p.waited && p.waited.opens !== null ? Math.max(0, Math.min(gap, p.waited.opens - prev.end)) : 0;
    if (wait > 0 && p.waited) out.push({ kind: "wait", index: i, step: p.step.id, minutes: wait, gain: null, why: `${showMinutes(wait)} until it is ${stateWords(p.waited.state)}, before “${p.step.title}”` });
    const shut = gap - wait;
    if (shut > 0) out.push({ kind: "closed", index: i, step: p.step.id, minutes: shut, gain: null, why: `${showMinutes(shut)} shut before “${p.step.title}”` });
  });
  const work = placed.filter((p) => p.minutes !== null && !p.actual).reduce((a, p) => a + (p.minutes as number), 0);
  const top = out.sort((a, b) => b.minutes - a.minutes).slice(0, 4);
  for (const d of top) {
    if (d.kind !== "wait" || ready === null) continue;
    const sooner = without(d.index);
    d.gain = sooner === null ? null : Math.max(0, ready - sooner);
    if (d.gain !== null) d.why += d.gain > 0 ? `; without it ${showMinutes(d.gain)} sooner` : "; but the hours after it decide";
  }
  const list: Decider[] = top.map(({ index: _i, ...d }) => d);
  if (work > 0) list.push({ kind: "work", step: placed[placed.length - 1].step.id, minutes: Math.round(work), gain: null, why: `${showMinutes(work)} of work at the bench` });
  return list;
}
