/** Where there is more to do, or the air is worse, nothing is promised sooner. */
import { constant, many } from "../testing/worlds";
import { brief } from "../testing/briefs";
import { brokenWindows } from "./placed";
import { makePlan, type Plan } from "./plan";
import type { World } from "../records/world";

const plan = (w: World, pieces: number, air = w.shop.climate): Plan =>
  makePlan(
    {
      ...w,
      shop: { ...w.shop, climate: air },
      job: { ...w.job, quantity: pieces, due: null, choices: { ...w.job.choices, begin: pieces, proof: false } },
    },
    null,
    true,
  );
const SETS = Array.from({ length: many(47) }, (_, k) => brief(k * 17));

test("more pieces are not ready sooner, but for some hours now and then", () => {
  let steps = 0;
  let sooner = 0;
  for (const w of SETS) {
    const plans = [2, 5, 12, 30, 60].map((n) => plan(w, n));
    plans.slice(1).forEach((p, i) => {
      const was = plans[i];
      expect(brokenWindows(p.placed)).toBe(0);
      if (p.ready === null || was.ready === null) return;
      steps++;
      if (p.ready < was.ready) sooner++;
      // what the next film buries hangs on where coats fall in the day, and may win some hours
      expect([w.job.route, w.job.substrate.id, p.context.pieces, was.ready - p.ready <= 6 * 60]).toEqual([
        w.job.route,
        w.job.substrate.id,
        p.context.pieces,
        true,
      ]);
    });
  }
  expect(steps).toBeGreaterThan(SETS.length);
  expect(sooner / steps).toBeLessThan(0.015);
});

test("damper air is never sooner, nor is a room that is colder by much", () => {
  for (const w of SETS) {
    const ready = [0.45, 0.6, 0.8].map((rh) => plan(w, 3, constant(20, rh)).ready ?? Infinity);
    expect([w.job.route, ready]).toEqual([w.job.route, [...ready].sort((a, b) => a - b)]);
    const [warm, cold] = [21, 11].map((c) => plan(w, 3, constant(c, 0.5)).ready ?? Infinity);
    // what is hot cools sooner in a cold room: minutes, never an hour
    expect(cold).toBeGreaterThan(warm - 60);
  }
});

test("coats that the evening does not hold are begun in the morning, though what follows them outlasts its window", () => {
  const p = plan(brief(117), 40);
  const coats = p.placed.filter((x) => x.step.id.startsWith("coat.colour.e-sun"));
  expect(coats.length).toBeGreaterThan(4);
  const days = new Set(coats.map((x) => p.context.clock.toLocal(x.start!).slice(0, 10)));
  expect(days.size).toBe(1);
  const lift = p.placed.find((x) => x.step.id === "mask-lift")!;
  const window = lift.needs.find((n) => n.state === "lift")!;
  expect(lift.minutes!).toBeGreaterThan(window.closes! - window.opens!);
  // openly: it waits for the reopening, which is the same day
  expect(lift.start).toBe(window.reopens);
});
