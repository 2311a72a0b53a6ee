/** What is taken as it was worked out before is what would be worked out anew. */
import { brief } from "../testing/briefs";
import { doneUpTo } from "../testing/done";
import { many, seeded } from "../testing/worlds";
import type { World } from "../records/world";
import { Known } from "./known";
import { ALONE, makePlan, placedAgain, timesAgain, type Plan } from "./plan";
import { inTurn } from "./placed";
import { layShop, layShopInTurn, type WholeShop } from "./whole";

const NOW = 30_000_480;
const times = (p: Pick<Plan, "placed">) => inTurn(p.placed).map((x) => [x.step.id, x.start, x.end, x.blocked]);
const told = (p: Plan) => ({ times: times(p), stuck: p.stuck, ready: p.ready, rests: [...p.rests] });
const begun = (w: World): World => ({ ...w, job: { ...w.job, start: "2027-01-11T08:00" } });

test("placed again and again from other moments, a job lies as it does placed from nothing: later on, half done, pushed, put back", () => {
  let took = 0;
  for (let n = 0; n < many(60); n++) {
    const random = seeded(n + 1);
    const plain = makePlan(begun(brief(n * 13 + 2)), null, true);
    const world = n % 3 ? plain.context.world : doneUpTo(plain.context.world, plain, n % 7);
    const alone = makePlan(world, NOW, true, ALONE);
    let starts: ReadonlyMap<string, number> = new Map();
    let now = NOW;
    const were: ReadonlyMap<string, number>[] = [];
    for (let k = 0; k < 6; k++) {
      const line = inTurn(alone.placed).filter((p) => !p.actual && p.start !== null);
      if (!line.length) break;
      const pick = line[Math.floor(random() * line.length)];
      const back = random() < 0.3 && were.length ? were[Math.floor(random() * were.length)] : null;
      starts = back ?? new Map([...starts, [pick.step.id, pick.start! + Math.round(random() * 2000)] as const]);
      were.push(starts);
      now += random() < 0.5 ? 0 : Math.round(random() * 300);
      const again = placedAgain(alone, now, starts);
      expect([n, k, told(again)]).toEqual([n, k, told(makePlan(structuredClone(world), now, true, starts))]);
      took += Number(again.now !== now);
      expect(times(timesAgain(again, now, starts))).toEqual(times(again));
    }
  }
  expect(took).toBeGreaterThan(0);
});

test("a job's plan is kept until the job, its log or what it is made in is another one, or its first step would begin later", () => {
  const known = new Known();
  const w = begun(brief(5));
  known.begins();
  const first = known.alone(w, NOW);
  expect(known.alone(structuredClone(w), NOW)).toBe(first);
  expect(told(first)).toEqual(told(makePlan(w, NOW, true, ALONE)));
  const later = NOW + 200;
  expect(known.alone(w, later, 360)).toBe(first);
  expect(told(known.alone(w, later))).toEqual(told(makePlan(w, later, true, ALONE)));
  const others: World[] = [
    { ...w, job: { ...w.job, quantity: w.job.quantity + 1 } },
    { ...w, shop: { ...w.shop, climate: { ...w.shop.climate, c: w.shop.climate.c + 5 } } },
    doneUpTo(w, first, 1),
  ];
  for (const other of others) {
    const plan = known.alone(other, later, 360);
    expect(plan).not.toBe(first);
    expect(told(plan)).toEqual(told(makePlan(other, later, true, ALONE)));
  }
});

const shopOf = (seed: number, n: number): World[] => {
  const list = Array.from({ length: n }, (_v, k) => begun(brief(seed * 31 + k * 7)));
  const [{ shop, machines }] = list;
  return list.map((w, k) => ({
    ...w,
    shop,
    machines,
    job: { ...w.job, id: `j${k}`, machineId: w.job.machineId && list[0].job.machineId },
  }));
};
const gone = (worlds: World[], s: WholeShop): World[] =>
  worlds.map((w) => {
    const q = s.jobs.find((x) => x.plan.context.job.id === w.job.id);
    return q ? { ...w, job: { ...w.job, queue: { laid: [...q.starts].map(([step, at]) => ({ step, at })) } } } : w;
  });
const o = { now: NOW, seconds: 0, clock: () => 0, iterations: 10 };

test("a shop that stands is told at once, as it comes out in the end; one tap later too", () => {
  for (let seed = 1; seed <= many(6); seed++) {
    const worlds = shopOf(seed, 5);
    let stands = gone(worlds, layShop(worlds, o));
    const known = new Known();
    for (let k = 0; k < 3; k++) {
      const now = NOW + k;
      const found: WholeShop[] = [];
      for (const word of layShopInTurn(stands, { ...o, now, known, together: true }))
        if (word.is === "found") found.push(word.shop);
      const [first, last] = [found[0], found[found.length - 1]];
      expect(first.answer).toBeNull();
      expect(last.answer).not.toBeNull();
      const of = (s: WholeShop) => s.jobs.map((q) => [q.plan.context.job.id, ...times(q.plan)]);
      expect(of(first)).toEqual(of(last));
      expect(last.left).toEqual(first.left);
      // each lies as its own calendar has it
      for (const q of last.jobs)
        expect(times(q.plan)).toEqual(times(makePlan(q.plan.context.world, now, true, q.starts)));
      stands = gone(stands, last);
      const at = last.jobs.find((q) => inTurn(q.plan.placed).some((p) => !p.actual && p.start === q.plan.start));
      if (at) {
        const w = stands.find((x) => x.job.id === at.plan.context.job.id)!;
        stands = stands.map((x) => (x === w ? doneUpTo(w, at.plan, 1) : x));
      }
    }
  }
});
