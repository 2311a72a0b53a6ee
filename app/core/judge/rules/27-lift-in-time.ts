/** Rule 27: the mask is lifted too early (strings) or between soft and firm (tears). */
import { inWindow } from "../../plan/placed";
import type { Rule } from "../snag";
import { showMinutes } from "../../units/show";
import type { Readiness } from "../../process/ready";
import { idBefore, round } from "../ask";
import { setFix } from "../fixes";
/** When it may be lifted whole. */
function times(r: Readiness): string {
  const after = (m: number): string => showMinutes(m - r.from);
  const until = r.closes === null ? null : `done within ${after(r.closes)}`;
  const again = r.reopens === null ? null : `begun from ${after(r.reopens)} on`;
  return `All of it ${[until, again].filter(Boolean).join(", or ")}.`;
}

export const rule27: Rule = {
  id: 27,
  severity: "risk",
  title: "The mask is lifted in its time",
  find: (f) => {
    const c = f.context;
    return f.placed.flatMap((p, i) => {
      const r = p.needs.find((n) => n.state === "lift");
      if (!r || p.start === null || r.opens === null || !r.productId) return [];
      const l = c.paintOf(r.productId).finish.lift;
      const since = p.start - r.from;
      const early = p.start < r.opens;
      const late = !early && r.reopens === null;
      const between = !early && !inWindow(r, p.start, p.minutes ?? 0);
      if (!early && !between) return [];
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { minutes: round(since), from: l?.from ?? null, to: l?.to ?? null, again: l?.again ?? null },
          why: early
            ? `The mask comes off ${showMinutes(since)} after ${c.paintOf(r.productId).product.name}: too soon, it pulls strings.`
            : late
              ? `The mask comes off ${showMinutes(since)} after ${c.paintOf(r.productId).product.name}: too late to lift ` +
                `clean, its edge is brittle. Cut along it first. ${times(r)}`
              : `The mask comes off ${showMinutes(since)} after ${c.paintOf(r.productId).product.name}: neither soft ` +
                `nor firm, its edge tears. ${times(r)}`,
          fixes: p.actual
            ? []
            : [setFix("in-time", "Go by the film’s own time", idBefore(f, i) ?? p.step.id, { waitMin: null })],
        },
      ];
    });
  },
};
