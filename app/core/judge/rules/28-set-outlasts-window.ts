/** Rule 28: a set so large that its coats outlast the window they fall into, so that each waits until the film beneath takes one again. */
import { makePlan } from "../../plan/plan";
import { byBeam } from "../../process/kinds";
import type { Facts } from "../../plan/facts";
import { inTurn, type Scheduled } from "../../plan/placed";
import type { Job } from "../../records/job";
import type { World } from "../../records/world";
import { showMinutes } from "../../units/show";
import { round } from "../ask";
import type { Fix, Rule } from "../snag";

const DAY = 1440;
/** more lots than this are no longer one job */
const MOST_LOTS = 6;

interface Outlasting {
  p: Scheduled;
  /** minutes of the window that it was too long for */
  windowMin: number;
  /** minutes between its shutting and the reopening */
  waitMin: number;
  /** pieces that the window holds, one at least */
  holds: number;
}

/** Coats that could have followed in their window but for the number of pieces, and wait for a reopening a day away or more. */
function outlasting(f: Pick<Facts, "placed">): Outlasting[] {
  return f.placed.flatMap((p, i) => {
    if (p.start === null || p.actual || p.minutes === null || !p.perPieceMin) return [];
    const r = p.needs.find((n) => n.state === "recoat" && n.closes !== null && n.reopens !== null);
    const first = r?.stretches[0];
    if (!r || !first || first.to === null || r.reopens === null || p.start < r.reopens) return [];
    const before = (i > 0 ? f.placed[i - 1].end : null) ?? first.from;
    const from = Math.max(first.from, before, ...p.needs.map((n) => n.opens ?? Infinity));
    const [windowMin, waitMin] = [first.to - from, r.reopens - first.to];
    const holds = Math.floor((windowMin - (p.setupMin ?? 0)) / p.perPieceMin);
    return windowMin >= Math.ceil(p.minutes) || waitMin < DAY || holds < 1 ? [] : [{ p, windowMin, waitMin, holds }];
  });
}

/** A number shared out as evenly as it goes, the larger shares first. */
const shared = (n: number, lots: number): number[] =>
  Array.from({ length: lots }, (_, i) => Math.floor(n / lots) + (i < n % lots ? 1 : 0));

/** When the next lot may begin: these coats are laid, and the laser is free. Two lots never want it at once. */
function free(w: World, coats: ReadonlySet<string>): string | null {
  const plan = makePlan(w, null, true);
  const ends = inTurn(plan.placed).flatMap((p) =>
    p.end !== null && (byBeam(p.step) || coats.has(p.step.id)) ? p.end : [],
  );
  return ends.length ? plan.context.clock.toLocal(Math.max(...ends)) : null;
}

/** The job with the first lot, and a job for each other: begun when the lot before has left the laser, with no proof of its own. */
function inLots(w: World, lots: number, begin: number, coats: ReadonlySet<string>): World {
  const [pieces, begun] = [shared(w.job.quantity, lots), shared(begin, lots)];
  const of = (i: number, start: string): Job => ({
    ...w.job,
    title: `${w.job.title.slice(0, 150)}, lot ${i + 1} of ${lots}`,
    quantity: pieces[i],
    start,
    choices: { ...w.job.choices, begin: Math.max(begun[i], pieces[i]), ...(i > 0 ? { proof: false } : {}) },
  });
  const job = of(0, w.job.start);
  const beside: Job[] = [];
  for (let i = 1, last = job; i < lots; i++) {
    const start = free({ ...w, job: last }, coats) ?? w.job.start;
    last = { ...of(i, start), id: `${w.job.id.slice(0, 80)}-lot-${i + 1}` };
    beside.push(last);
  }
  return { ...w, job, beside };
}

export const rule28: Rule = {
  id: 28,
  severity: "advice",
  title: "A set no larger than its windows",
  find: (f) => {
    const found = outlasting(f);
    if (!found.length) return [];
    const worst = found.reduce((a, b) => (b.holds < a.holds ? b : a));
    const { p, windowMin, waitMin, holds } = worst;
    const { pieces, world } = f.context;
    const lots = Math.ceil(pieces / holds);
    const can = lots <= Math.min(MOST_LOTS, world.job.quantity) && !world.log.length && !world.job.begun;
    const each = Math.ceil(pieces / lots);
    const others = found.length - 1;
    const fix: Fix = {
      id: "lots",
      label: `Make it ${lots} lots of ${each}, a job each: coat follows coat`,
      apply: (w) => inLots(w, lots, pieces, new Set(found.map((x) => x.p.step.id))),
    };
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: {
          pieces,
          holds,
          windowMin: round(windowMin),
          takesMin: round(p.minutes as number),
          coats: found.length,
        },
        why:
          `“${p.step.title}” on ${pieces} pieces takes ${showMinutes(p.minutes as number)}, and the window that it should fall ` +
          `into lasts ${showMinutes(windowMin)}: it waits ${showMinutes(waitMin)} until the coat beneath takes another` +
          `${others ? `, and so ${others > 1 ? "do" : "does"} ${others} more` : ""}. The window holds ${holds} pieces.`,
        fixes: can ? [fix] : [],
      },
    ];
  },
};
