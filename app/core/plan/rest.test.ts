/** A coat rests before it is laid where the stack is dry right through sooner so; never to win minutes. */
import { blank } from "../piece/state";
import { LogEntry } from "../records/log";
import { reached } from "../process/ready";
import { brief } from "../testing/briefs";
import { place } from "./place";
import { makePlan, type Plan } from "./plan";
import type { World } from "../records/world";

const HALF_A_DAY = 240;
const of = (n: number, pieces: number): World => {
  const w = brief(n);
  const choices = { ...w.job.choices, begin: pieces, proof: false };
  return { ...w, job: { ...w.job, quantity: pieces, due: null, choices } };
};
/** The same steps, each as soon as it goes. */
const atOnce = (p: Plan): number => {
  const { context: c } = p;
  const steps = p.placed.map((x) => x.step);
  const first = blank(
    c.world.job.zones.map((z) => z.id),
    c.substrate,
    c.route?.side,
  );
  return place(steps, c.clock.fromLocal(c.job.start), first, c, new Map(), null).placed.at(-1)!.end!;
};

test("plans that let a coat rest end sooner by half a working day and more; the coat says what it waits for", () => {
  let rested = 0;
  for (const [n, pieces] of [
    [94, 30],
    [815, 12],
    [955, 5],
    [1053, 60],
    [1291, 12],
    [66, 5],
    [304, 2],
    [122, 2],
  ] as const) {
    const p = makePlan(of(n, pieces), null, true);
    if (!p.rests.size) {
      // the three that would win an hour by days of lying about
      expect([66, 304, 122]).toContain(n);
      expect(p.ready).toBe(atOnce(p));
      continue;
    }
    rested++;
    expect(atOnce(p) - p.ready!).toBeGreaterThanOrEqual(HALF_A_DAY);
    for (const [step, state] of p.rests) {
      const x = p.placed.find((y) => y.step.id === step)!;
      const need = x.needs.find((r) => r.why.startsWith("dry before it is buried"))!;
      expect(need.state).toBe(state);
      expect(x.start!).toBeGreaterThanOrEqual(need.opens!);
      // told by the films as they lie, not by the plan's own word
      for (const z of x.step.zones) {
        const films = x.before.zones.find((y) => y.zone === z)!.films;
        for (const r of reached(films, state, p.context)) expect(r.at!).toBeLessThanOrEqual(x.start!);
      }
    }
  }
  expect(rested).toBe(5);
});

test("a coat that was laid at once is laid: nothing rests any more", () => {
  const p = makePlan(of(955, 5), null, true);
  const [step] = [...p.rests.keys()];
  const i = p.placed.findIndex((x) => x.step.id === step);
  const soon = p.placed[i - 1].end! + 60;
  const log = p.placed.slice(0, i + 1).flatMap((x, k) =>
    (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `${kind}${k}`,
      jobId: p.context.job.id,
      kind,
      step: x.step.id,
      at: (k < i ? x.start! : soon) + (kind === "done" ? 10 : 0),
    })),
  );
  const begun = makePlan({ ...of(955, 5), log }, null, true);
  expect(begun.placed[i].start).toBe(soon);
  expect(begun.rests.has(step)).toBe(false);
});
