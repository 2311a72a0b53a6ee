/** Works of several jobs done as one: what may be shared, what it wins, that nothing is worse for it, that each job's plan has it so. */
import { brief } from "../testing/briefs";
import { a1, e1, many } from "../testing/worlds";
import { ovenRun, TRAY_MIN } from "../process/kinds/melt";
import { SETUP_MIN } from "../process/kinds/laser-work";
import type { Job } from "../records/job";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { ALONE, makePlan, type Plan } from "./plan";
import { inTurn, sharedOf, type Placed } from "./placed";
import { isFirst } from "./proof";
import { carried, type Session } from "./sessions";
import { clashesBy } from "./settle";
import { layShop, type WholeShop } from "./whole";

const NOW = 30_000_480;
const job = (w: World, id: string, more: Partial<Job> = {}): World => ({
  ...w,
  job: {
    ...w.job,
    id,
    title: `Job ${id}`,
    start: "2027-01-11T08:00",
    choices: { ...w.job.choices, proof: false },
    ...more,
  },
});
const lay = (worlds: World[], more: Partial<Parameters<typeof layShop>[1]> = {}): WholeShop =>
  layShop(worlds, { now: NOW, seconds: 0, clock: () => 0, iterations: 30, together: true, ...more });
const planOf = (s: WholeShop, id: string): Plan => s.jobs.find((q) => q.plan.context.job.id === id)!.plan;
const stepIn = (p: Plan, id: string): Placed => inTurn(p.placed).find((x) => x.step.id === id)!;
const members = (s: WholeShop, x: Session): Placed[] => x.members.map((m) => stepIn(planOf(s, m.job), m.step));
/** Jobs as they are stored when one goes by a calendar. */
const gone = (worlds: World[], s: WholeShop): World[] =>
  worlds.map((w) => {
    const q = s.jobs.find((x) => x.plan.context.job.id === w.job.id)!;
    const queue = { ...q.plan.context.job.queue, laid: [...q.starts].map(([step, at]) => ({ step, at })) };
    return { ...w, job: { ...w.job, queue } };
  });
/** All steps up to one done as planned, that one from a moment to another. */
function logged(plan: Plan, step: string, from: number, to: number): LogEntry[] {
  const line = inTurn(plan.placed);
  return line.slice(0, line.findIndex((x) => x.step.id === step) + 1).flatMap((x) => {
    const [start, end] = x.step.id === step ? [from, to] : [x.start!, x.end!];
    return (["start", "done"] as const).map((kind) => ({
      ...new LogEntry(),
      id: `${x.step.id}.${kind}`,
      jobId: plan.context.job.id,
      kind,
      step: x.step.id,
      at: kind === "start" ? start : end,
    }));
  });
}
const of = (s: WholeShop, as: string): Session[] => s.together.map((x) => x.session).filter((x) => x.as === as);

/** Two orders of powder in slate for one oven, small enough for one tray. */
const powder = (): World[] => {
  const w = brief(157);
  const [one] = w.job.zones;
  const small = { substrate: { ...w.job.substrate, w: 90, h: 70 }, zones: [one] };
  return [job(w, "one", { ...small, quantity: 4 }), job(w, "two", { ...small, quantity: 3 })];
};

describe("one load of the oven", () => {
  const worlds = powder();
  const s = lay(worlds);
  const [load] = of(s, "oven");
  test("both lie in it at once; it is heated once, for all pieces", () => {
    expect(load.members.map((m) => m.job).sort()).toEqual(["one", "two"]);
    const [a, b] = members(s, load);
    expect(a.start).toBe(b.start);
    expect(Math.ceil(a.minutes!)).toBe(Math.ceil(b.minutes!));
    const run = ovenRun(a.step as Parameters<typeof ovenRun>[0], planOf(s, load.members[0].job).context)!;
    // by hand: one run of the oven, and every piece of both laid in
    expect(a.minutes).toBeCloseTo(Math.round(run.warmMin + run.holdMin) + TRAY_MIN * (a.pieces + b.pieces), 9);
    expect(s.together.find((x) => x.session === load)!.wins).toBeCloseTo(Math.round(run.warmMin + run.holdMin), 0);
    expect(clashesBy(s.jobs, Infinity)).toBe(0);
  });
  test("each job's own plan says so, and laid again nothing moves", () => {
    const stands = gone(worlds, s);
    for (const w of stands) {
      const mine = makePlan(w, NOW, true);
      expect(mine.placed.map((p) => [p.step.id, p.start, p.end])).toEqual(
        planOf(s, w.job.id).placed.map((p) => [p.step.id, p.start, p.end]),
      );
      const { step } = load.members.find((m) => m.job === w.job.id)!;
      expect(sharedOf({ id: step }, mine.context)!.with).toEqual([w.job.id === "one" ? "Job two" : "Job one"]);
    }
    const again = lay(stands);
    expect(again.kept).toBe(true);
    expect(again.together.map((x) => x.session)).toEqual(s.together.map((x) => x.session));
    expect(again.jobs.map((q) => q.plan.ready)).toEqual(s.jobs.map((q) => q.plan.ready));
  });
  test("what the maker wants apart, what does not fit one tray, what is held or of another heat is done apart", () => {
    const melt = load.members[0];
    const apart = worlds.map((w) => (w.job.id === melt.job ? job(w, w.job.id, { queue: { apart: [melt.step] } }) : w));
    expect(of(lay(apart), "oven").flatMap((x) => x.members)).not.toContainEqual(melt);
    const wide = worlds.map((w) =>
      job(w, w.job.id, { substrate: { ...w.job.substrate, w: 300, h: 300 }, quantity: 1 }),
    );
    expect(of(lay(wide), "oven")).toEqual([]);
    const held = gone(worlds, s).map((w) =>
      w.job.id === "two" ? job(w, "two", { queue: { ...w.job.queue, hold: true } }) : w,
    );
    const one = lay(held);
    expect(one.together).toEqual([]);
    // and the one that is left has its own minutes again
    expect(planOf(one, "one").placed.every((p) => sharedOf(p.step, planOf(one, "one").context) === undefined)).toBe(
      true,
    );
  });
});

test("sprayed with one can one behind the other, burnt on one set-up: the second has no need of it", () => {
  const worlds = [job(a1(), "one"), job(a1({ job: { quantity: 9 } }), "two"), job(e1(), "three")];
  const s = lay(worlds);
  expect(s.together.length).toBeGreaterThan(1);
  for (const { session, wins } of s.together) {
    const all = members(s, session);
    all.forEach((p, i) => {
      if (i) expect(p.start! - all[i - 1].end!).toBeGreaterThanOrEqual(-1);
      if (i) expect(p.start! - all[i - 1].end!).toBeLessThanOrEqual(30);
      const alone = stepIn(
        makePlan(
          worlds.find((w) => w.job.id === session.members[i].job)!,
          NOW,
          true,
          ALONE,
        ),
        p.step.id,
      );
      const less = i === 0 ? 0 : session.as === "beam" ? SETUP_MIN : alone.setupMin! - 2;
      expect([session.as, alone.minutes! - p.minutes!]).toEqual([session.as, expect.closeTo(less, 6)]);
    });
    expect(wins).toBeGreaterThan(0);
  }
});

test("with the first of them begun or done the next still has its set-up; half an hour later it has none", () => {
  const worlds = [job(a1(), "one"), job(a1({ job: { quantity: 9 } }), "two")];
  const s = lay(worlds);
  const { session } = s.together.find((x) => x.session.as === "spray")!;
  const [a, b] = session.members;
  const [p] = members(s, session);
  const stands = gone(worlds, s).map((w) =>
    w.job.id === a.job ? { ...w, log: logged(planOf(s, a.job), a.step, p.start!, p.end!) } : w,
  );
  const less = (t: WholeShop): number => sharedOf({ id: b.step }, planOf(t, b.job).context)?.by ?? 0;
  const now = p.end!;
  expect(less(lay(stands, { now }))).toBeLessThan(0);
  expect(less(lay(stands, { now: now + 31 }))).toBe(0);
});

test("the machine's own minutes to set it up count, alone and together", () => {
  const slow = (w: World): World => ({ ...w, machines: w.machines.map((m) => ({ ...m, setupMin: 25 })) });
  const burn = (p: Plan): Placed => p.placed.find((x) => x.step.kind === "reveal")!;
  const [plain, longer] = [makePlan(a1(), null, true), makePlan(slow(a1()), null, true)];
  const at = burn(plain).step.id;
  expect(stepIn(longer, at).minutes! - stepIn(plain, at).minutes!).toBeCloseTo(20, 6);
  const s = lay([job(slow(a1()), "one"), job(slow(a1()), "two")]);
  const beams = s.together.filter((x) => x.session.as === "beam");
  expect(beams.length).toBeGreaterThan(0);
  for (const x of beams) expect(x.wins).toBeCloseTo(25 * (x.session.members.length - 1), 6);
});

test("over seeded shops: nothing shuts and nobody is later by more than an hour and what it wins; no first piece is shared", () => {
  let won = 0;
  for (let seed = 1; seed <= many(8); seed++) {
    const list = Array.from({ length: 4 }, (_v, k) => brief(seed * 31 + Math.floor(k / 2) * 7));
    const worlds = list.map((w, k) =>
      job({ ...w, shop: list[0].shop, machines: list[0].machines }, `j${k}`, {
        machineId: w.job.machineId && list[0].job.machineId,
        quantity: 1 + ((seed + k) % 5),
      }),
    );
    const [apart, s] = [lay(worlds, { together: false }), lay(worlds)];
    expect([seed, clashesBy(s.jobs, Infinity)]).toEqual([seed, 0]);
    expect(s.answer!.windowsBroken).toBeLessThanOrEqual(apart.answer!.windowsBroken);
    // as good as done in the same half hour
    expect(s.answer!.finish).toBeLessThanOrEqual(apart.answer!.finish + 30);
    for (const { session, wins } of s.together) {
      won += wins;
      expect(session.members.some((m) => isFirst(m.step))).toBe(false);
      expect(new Set(session.members.map((m) => m.job)).size).toBe(session.members.length);
      // what one job says of it, the others say too
      expect(carried(s.jobs.map((q) => q.plan.context.world)).map((x) => x.id)).toContain(session.id);
    }
  }
  expect(won).toBeGreaterThan(0);
});
