/**
 * A maker at the bench, by the clock of the simulated shop: one who does exactly what the bench says ends every job with good pieces, on
 * all routes; one who passes over a single thing that the bench holds up for loses them, or is told so.
 */
import { snagsOf } from "../judge/judge";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { makePlan, type Plan } from "../plan/plan";
import { inTurn, type Placed } from "../plan/placed";
import { ROUTES, type Route } from "../catalogue/routes";
import { difference, linear } from "../models/film/colour";
import { over } from "../models/film/hide";
import { shown, zoneOf } from "../piece/state";
import { batchOf } from "../plan/proof";
import { kindOf, own } from "../process/kinds";
import { meantColour } from "../process/meant";
import { brief, LATER_FROM } from "../testing/briefs";
import { gatesOf, type Gate } from "./gates";
import { atBench, standing } from "./next";

/** What somebody does otherwise than the bench says; nothing: all as it says. */
interface Ways {
  /** does not wait for this: begins at once */
  hurries?: (p: Placed) => boolean;
  /** leaves this step out, as if it were done */
  skips?: (p: Placed, plan: Plan) => boolean;
  /** comes so many minutes late to a step */
  late?: (p: Placed) => number;
}

let n = 0;
const tap = (w: World, kind: LogEntry["kind"], step: string, at: number, more: Partial<LogEntry> = {}): World => ({
  ...w,
  log: [
    ...w.log,
    { ...new LogEntry(), id: `m${String(n++).padStart(6, "0")}`, jobId: w.job.id, kind, step, at, ...more },
  ],
});
/** What is held up for is looked at, and answered. */
function answered(w: World, plan: Plan, p: Placed, g: Gate, at: number): World {
  const { job } = w;
  if (g.by === "tick") return tap(w, "check", p.step.id, at, { tick: g.id });
  if (g.by === "accept") return { ...w, job: { ...job, acknowledged: [...job.acknowledged, g.snag!.rule] } };
  if (g.by === "proof")
    return { ...w, job: { ...job, order: { ...job.order, proofAccepted: plan.context.clock.toLocal(at) } } };
  throw new Error(`the bench bars “${p.step.title}”: ${g.say}`);
}

/** The job from the first step to the last, tap by tap. @returns the plan with all of it done */
function worked(start: World, ways: Ways = {}): Plan {
  let w = start;
  let plan = makePlan(w, null, true);
  let now = plan.placed[0].start!;
  for (let guard = 0; guard < 400; guard++) {
    plan = makePlan(w, now, true);
    const s = standing(plan, now);
    if (s.is === "done") return plan;
    if (s.is === "closed" || s.is === "lacking") throw new Error(s.is === "lacking" ? s.say : s.is);
    const { step } = s;
    const id = step.step.id;
    if (ways.skips?.(step, atBench(plan))) {
      // closed without being done: the plan goes on without it
      w = {
        ...w,
        job: {
          ...w.job,
          edits: [
            ...w.job.edits,
            { id: `x${n++}`, op: "remove", step: batchOf(id), after: null, field: "", value: null },
          ],
        },
      };
      continue;
    }
    const hurried = ways.hurries?.(step) ?? false;
    if ((s.is === "waiting" || s.is === "missed") && !hurried) {
      if (s.opens === null) throw new Error(`“${step.step.title}” never opens: ${s.need.why}`);
      now = Math.max(now + 1, s.opens);
      continue;
    }
    if (s.is === "waiting" || s.is === "missed") w = tap(w, "early", id, now, { note: "in a hurry" });
    // the day's hours and windows are the plan's business: it says when this step begins
    const at = hurried ? now : Math.max(now, step.start!) + (ways.late?.(step) ?? 0);
    for (const g of gatesOf(atBench(plan), step)) w = answered(w, plan, step, g, at);
    w = tap(w, "start", id, at);
    const takes = Math.max(1, Math.ceil(step.minutes ?? 1));
    w = tap(w, "done", id, at + takes);
    now = at + takes;
  }
  throw new Error("the job never ends");
}

/** What is wrong with the pieces in the end. */
function flaws(plan: Plan): string[] {
  const c = plan.context;
  const end = plan.placed[plan.placed.length - 1].after;
  const out: string[] = [];
  for (const z of end.zones) {
    if (z.mask) out.push(`a mask is still on ${z.zone}`);
    for (const f of z.films) {
      if (f.wrinkled) out.push(`${f.step} wrinkled`);
      if (f.torn) out.push(`${f.step} torn`);
      if (f.phase === "loose") out.push(`${f.step} loose`);
    }
  }
  if (end.soot || end.smeared) out.push(end.soot ? "sooty" : "smeared");
  for (const z of [...c.filled, ...c.uncovered]) {
    const wanted = meantColour(z, c)!;
    const body = z.bare || !c.route!.takes.length ? linear(wanted) : over(linear(wanted), [0, 0, 0], 1e9);
    const off = difference(shown(end, zoneOf(end, z.id), c.substrate.colour, c.paintOf), body);
    if (off > c.tolerance + 0.01) out.push(`${z.id} is ${off.toFixed(1)} off`);
  }
  // a mask that lifts late is cut along its edge first: that was ticked
  const cut = (step: string | null): boolean => step !== null && plan.bench.steps.get(step)?.ticks.has("edge") === true;
  for (const s of snagsOf(plan).filter((x) => x.rule !== 27 || !cut(x.step)))
    if (s.severity === "stop" || s.severity === "never" || [7, 12, 20, 21, 27, 30, 55, 68].includes(s.rule))
      out.push(`rule ${s.rule}: ${s.why}`);
  return out;
}

/** A sample job of each route, on a material that it takes. */
const SAMPLES: [Route["id"], World][] = ROUTES.map((r) => {
  for (let k = r.takes.length ? 0 : LATER_FROM; ; k++) {
    const w = brief(k);
    const colours = new Set(w.job.zones.map((z) => z.productId)).size;
    if (w.job.route === r.id && colours <= 3 && (colours > 1 || r.maxColours === 1)) return [r.id, w];
  }
});

test.each(SAMPLES)("%s: whoever does what the bench says has good pieces", (_id, w) => {
  const plan = worked(w);
  expect(inTurn(plan.placed).every((p) => p.actual?.end != null)).toBe(true);
  expect(flaws(plan)).toEqual([]);
  // nothing was begun before its state was reached, by what was really tapped
  for (const p of inTurn(plan.placed))
    for (const r of p.needs)
      expect([p.step.id, r.state, r.opens !== null && r.opens <= p.actual!.start]).toEqual([p.step.id, r.state, true]);
});

/** Is it held up by that state when the step before it is done? */
const waitsFor = (plan: Plan, p: Placed, state: string): boolean =>
  p.needs.some((r) => r.state === state && r.opens !== null && r.opens > (plan.placed[p.index - 1]?.end ?? Infinity));
const first = (plan: Plan, test: (p: Placed) => boolean): Placed | undefined => plan.placed.find(test);
/** One thing passed over, where a job has it. */
const PASSED: [string, (plan: Plan) => Ways | null, RegExp][] = [
  [
    "lifting a mask off a fill that is still hot",
    (plan) => {
      const lift = first(plan, (p) => kindOf(p.step.kind).lifts === "mask" && waitsFor(plan, p, "cold"));
      return lift ? { hurries: (p) => p.step.id === lift.step.id } : null;
    },
    /torn|rule 12|rule 27/,
  ],
  [
    "the beam on paint that is still soft",
    (plan) => {
      const held = first(plan, (p) => waitsFor(plan, p, "laser-safe"));
      return held && plan.context.route!.lifts
        ? { hurries: (p) => p.needs.some((r) => r.state === "laser-safe") }
        : null;
    },
    /rule 20/,
  ],
  [
    "the second coat once its window has shut",
    (plan) => {
      const coat = first(
        plan,
        (p) =>
          p.step.kind === "coat" &&
          p.needs.some((r) => r.state === "recoat" && r.closes !== null && r.reopens !== null && p.start! < r.closes),
      );
      return coat
        ? {
            late: (p) => (p.step.id === coat.step.id ? 300 : 0),
          }
        : null;
    },
    /wrinkled|rule 21/,
  ],
  [
    "a coat of colour too few",
    (plan) => {
      // under a dark top the setting follows the films; a flooded cut is filled by the second coat, not hidden
      // behind a clear sheet two are laid whether they hide or not
      const { route, substrate } = plan.context;
      if (route!.lifts || route!.side !== "front" || substrate.family === "metal") return null;
      const last = plan.placed.findLast((p) => own(p.step, "role") === "colour" && (own(p.step, "coat") ?? 1) > 1);
      return last
        ? { skips: (p) => own(p.step, "productId") === own(last.step, "productId") && (own(p.step, "coat") ?? 1) > 1 }
        : null;
    },
    /off|rule 30|rule 31|rule 16|rule 55/,
  ],
  [
    "a zone forgotten before the face is sanded or the mask comes off",
    (plan) => {
      const zone = plan.context.filled[0]?.id;
      const lays = (p: Placed): boolean =>
        own(p.step, "role") === "colour" && p.step.zones.length === 1 && p.step.zones[0] === zone;
      return zone && first(plan, lays) ? { skips: (p) => lays(p) } : null;
    },
    /off|rule 14|rule 16|rule 30/,
  ],
  [
    "sanding before the fill is dry right through",
    (plan) => {
      const sand = first(plan, (p) => kindOf(p.step.kind).sands === "face" && waitsFor(plan, p, "sandable"));
      return sand ? { hurries: (p) => p.step.id === sand.step.id } : null;
    },
    /rule 7|off/,
  ],
  [
    "packing straight after the last coat",
    (plan) => {
      const pack = first(plan, (p) => kindOf(p.step.kind).packs === true && waitsFor(plan, p, "touch"));
      return pack ? { hurries: (p) => p.step.id === pack.step.id } : null;
    },
    /rule 68/,
  ],
];

test.each(PASSED)("whoever passes over %s loses the piece, or is told so", (_what, of, wrong) => {
  let met = 0;
  for (const [id, w] of SAMPLES) {
    const ways = of(makePlan(w, null, true));
    if (!ways) continue;
    let found: string[];
    try {
      const end = worked(w, ways);
      // planned anew on the way, it may no longer have to be waited for
      if (ways.hurries && !inTurn(end.placed).some((p) => p.actual?.early)) continue;
      found = flaws(end);
    } catch (e) {
      // what the bench bars, or what can never be done any more, is told as well
      found = [String(e).match(/the bench bars|never opens/) ? "told at the bench" : String(e)];
    }
    met++;
    expect([id, found.join("; ")]).toEqual([
      id,
      expect.stringMatching(new RegExp(`${wrong.source}|told at the bench`)),
    ]);
  }
  expect(met).toBeGreaterThan(0);
});
