/** A step tried at another time: what is said beforehand is what planning it so gives. */
import { makePlan } from "../plan/plan";
import { lanesOf } from "../plan/schedule";
import { brief } from "../testing/briefs";
import { a1 } from "../testing/worlds";
import { shiftOf } from "./shift";

const startsOf = (p: ReturnType<typeof makePlan>): [string, number][] =>
  p.placed.flatMap((x): [string, number][] => (x.start === null ? [] : [[x.step.id, x.start]]));

test("later by days: it begins then, what follows is pushed, the ready time that is told is that of planning it so", () => {
  let shut = 0;
  for (let n = 0; n < 120; n += 7) {
    const w = { ...brief(n), job: { ...brief(n).job, due: null } };
    const plan = makePlan(w, null, true);
    if (plan.stuck || plan.missing.length) continue;
    const now = plan.placed[0].start!;
    const starts = startsOf(makePlan(w, now, true));
    const p = plan.placed[Math.floor(plan.placed.length / 2)];
    const [day] = [Math.max(now, p.start!) + 3 * 1440];
    const got = shiftOf(w, now, starts, p.step.id, day, []);
    expect(got.begins).toBeGreaterThanOrEqual(day);
    const i = starts.findIndex(([id]) => id === p.step.id);
    const by = makePlan(w, now, true, new Map(starts.map(([id, at], k) => [id, k === i ? day : at])));
    expect(got.begins).toBe(by.placed.find((x) => x.step.id === p.step.id)!.start);
    // a little behind the shutting of its window: told that it misses it, or until when it waits
    for (const x of plan.placed) {
      const closes = Math.min(...x.needs.flatMap((r) => r.closes ?? []));
      if (!Number.isFinite(closes) || x.start === null || x.start > closes) continue;
      const late = shiftOf(w, now, starts, x.step.id, Math.ceil(closes) + 20, []);
      if (late.begins === null || late.begins < closes) continue;
      const moved = makePlan(
        w,
        now,
        true,
        new Map([...starts.filter(([id]) => id !== x.step.id), [x.step.id, Math.ceil(closes) + 20]]),
      );
      const its = moved.placed.find((y) => y.step.id === x.step.id)!;
      // what dries slower behind another wait may be open still
      if (its.needs.every((r) => r.closes === null || its.start! <= r.closes)) continue;
      expect([x.step.id, late.breaks.some((b) => /window/.test(b))]).toEqual([x.step.id, true]);
      shut++;
    }
  }
  expect(shut).toBeGreaterThan(1);
});
test("sooner than it can be is told with when it could; a due date that breaks too; who has the hands then gives way", () => {
  const w = a1();
  const now = makePlan(w, null, true).placed[0].start!;
  // as the shop's calendar has it: placed by its own beginnings nothing moves
  const once = startsOf(makePlan(w, now, true));
  const plan = makePlan(w, now, true, new Map(once));
  const starts = startsOf(plan);
  const late = plan.placed.find((p) => p.step.kind === "reveal")!;
  const soon = shiftOf(w, now, starts, late.step.id, late.start! - 600, []);
  expect(soon.breaks[0]).toMatch(/^it begins .*(not ready sooner|window)/);
  const c = plan.context;
  const due = { ...w, job: { ...w.job, due: c.clock.toLocal(plan.ready! + 30) } };
  const over = shiftOf(due, now, starts, late.step.id, late.start! + 2880, []);
  expect(over.breaks.some((b) => /after it is due/.test(b))).toBe(true);
  const there = { from: late.start! + 1440, to: late.start! + 1440 + 9999, job: { id: "other", title: "Gate board" } };
  const met = shiftOf(w, now, starts, late.step.id, late.start! + 2880, [
    { id: lanesOf(late, plan.context)[0], name: "Hands", bars: [there] },
  ]);
  expect(met.moves.some((m) => /“Gate board” is there until/.test(m))).toBe(true);
  // where it stands nothing breaks and nothing moves
  expect(shiftOf(w, now, starts, late.step.id, late.start!, [])).toEqual({ begins: late.start, breaks: [], moves: [] });
  expect(shiftOf(w, now, starts, "no-such", late.start!, []).begins).toBeNull();
});
