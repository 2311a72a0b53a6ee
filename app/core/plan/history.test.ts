/** A hundred running jobs over all routes and materials, and twenty changes elsewhere for each: what is done stays, the rest asks. */
import { own } from "../process/kinds";
import { Begun } from "../records/begun";
import { LogEntry } from "../records/log";
import { check } from "../records/parse";
import { worldAround, type ShopFacts, type World } from "../records/world";
import { brief } from "../testing/briefs";
import { e1, many, seeded, swing } from "../testing/worlds";
import { changesElsewhere, declined, keptWith } from "./begun";
import { fold } from "./fold";
import { unkept } from "./history";
import { makePlan, type Plan } from "./plan";

const facts = (w: World): ShopFacts => w.elsewhere ?? { shop: w.shop, machines: w.machines, products: w.products };
/** A tap as the bench makes it: what is to be kept is kept with it. */
function tapped(w: World, kind: "start" | "done", step: string, at: number): World {
  const { actuals } = fold(w.log);
  const kept = unkept(w.job.begun, step, actuals) ? keptWith(makePlan(w, at, true), step, at) : w.job.begun;
  return logged({ ...w, job: { ...w.job, begun: kept } }, kind, step, at);
}
function logged(w: World, kind: "start" | "done", step: string, at: number): World {
  const entry = { ...new LogEntry(), id: `t${w.log.length}`, jobId: w.job.id, kind, step, at };
  return worldAround(facts(w), w.job, [...w.log, entry]);
}
/** The first k steps done at their planned times, tap by tap. */
function run(w: World, k: number): World {
  for (const p of makePlan(w, null, true).placed.slice(0, k))
    if (p.start !== null) w = tapped(tapped(w, "start", p.step.id, p.start), "done", p.step.id, p.end);
  return w;
}
/** The same, kept in one go. */
function ran(w: World, k: number): World {
  const plan = makePlan(w, null, true);
  for (const p of plan.placed.slice(0, k))
    if (p.start !== null) w = logged(logged(w, "start", p.step.id, p.start), "done", p.step.id, p.end);
  const begun = keptWith(makePlan(w, null, true), null, plan.placed[0].start!);
  return worldAround(facts(w), { ...w.job, begun }, w.log);
}
test("kept tap by tap is what is kept in one go", () => {
  for (const n of [3, 31, 59]) {
    const [a, b] = [run(brief(n), 6).job.begun, ran(brief(n), 6).job.begun];
    expect({ ...a, at: 0 }).toEqual({ ...b, at: 0 });
  }
});

type Change = [string, (f: ShopFacts, w: World, n: number) => ShopFacts];
const shop =
  (more: (s: ShopFacts["shop"]) => Partial<ShopFacts["shop"]>): Change[1] =>
  (f) => ({
    ...f,
    shop: { ...f.shop, ...more(f.shop) },
  });
const products =
  (of: (p: ShopFacts["products"][number], n: number) => ShopFacts["products"][number]): Change[1] =>
  (f, _w, n) => ({
    ...f,
    products: f.products.map((p) => of(p, n)),
  });
const machine =
  (more: object): Change[1] =>
  (f) => ({ ...f, machines: f.machines.map((m) => ({ ...m, ...more })) });
const NEW = ["white", "clear", "black", "shellac"];
const CHANGES: Change[] = [
  [
    "another white, clear, black or sealer is bought",
    (f, _w, n) => {
      const like = f.products.find((p) => p.id === NEW[n % NEW.length])!;
      return { ...f, products: [{ ...like, id: `new-${like.id}`, name: "Bought today", coats: 1 }, ...f.products] };
    },
  ],
  ["a paint hides less", products((p) => ({ ...p, hideUm: 400 }))],
  ["coats are thinner", products((p) => ({ ...p, coatUm: 4 }))],
  ["a paint dries slower", products((p) => ({ ...p, times: { ...p.times, touch: 900, recoat: 1900, laser: 9000 } }))],
  ["a colour is measured anew", products((p) => ({ ...p, colour: "#808080" }))],
  ["a finish was another", products((p) => (p.finish === "spray-enamel" ? { ...p, finish: "spray-lacquer" } : p))],
  ["the Shelf is emptied", (f) => ({ ...f, products: [] })],
  ["the laser is weaker", machine({ watts: 3, powerPoints: [] })],
  ["a wider spot", machine({ spotMm: 0.4 })],
  ["another bed and speed", machine({ maxSpeed: 20, bedW: 60, bedH: 60 })],
  ["all machines are sold", (f) => ({ ...f, machines: [] })],
  ["a colder shop", shop(() => ({ climate: swing(4, 12, 0.8) }))],
  ["other hours", shop((s) => ({ hours: { ...s.hours, mon: ["13:00", "15:00"], tue: null, wed: null } }))],
  ["spraying only at noon", shop(() => ({ sprayHours: ["12:00", "13:00"] }))],
  ["days off", shop(() => ({ daysOff: ["2027-01-12", "2027-01-13", "2027-01-14"] }))],
  ["a stricter eye", shop(() => ({ tolerance: 0.5 }))],
  ["other schools", shop(() => ({ schools: ["undercoat:always", "seal:twice", "wait:cured"] }))],
  [
    "everything takes three times as long",
    shop(() => ({
      learned: [
        { kind: "coat", factor: 3, n: 9 },
        { kind: "engrave", factor: 3, n: 9 },
      ],
    })),
  ],
  ["the oven is gone", shop(() => ({ gear: [] }))],
  ["a clock elsewhere", shop(() => ({ zone: "Pacific/Auckland", units: "inch" }))],
];
const effect = (p: Plan, k: number): string => JSON.stringify(p.placed.slice(0, k).map((x) => x.after));
const steps = (p: Plan, k = p.placed.length): unknown[] => p.placed.slice(0, k).map((x) => [x.step, x.start, x.end]);
const whole = (p: Plan): unknown[] => [...steps(p), p.ready, p.amounts.map((x) => [x.product, x.ml])];

test("twenty changes elsewhere leave what is done, and say of the rest what they would change", () => {
  expect(CHANGES).toHaveLength(20);
  let asked = 0;
  for (let j = 0; j < many(100); j++) {
    const r = seeded(j + 5);
    const fresh = brief(j * 7 + 3);
    const w = ran(fresh, 1 + Math.floor(r() * Math.max(1, makePlan(fresh, null, true).placed.length - 1)));
    const before = makePlan(w, null, true);
    const k = before.placed.filter((p) => p.actual).length;
    const [was, end] = [whole(before), effect(before, k)];
    for (const [n, [what, change]] of CHANGES.entries()) {
      // every change of a tenth of the jobs, and three of every other: all of all hold too, and take three minutes
      if (j % 10 && (n + j) % 7) continue;
      const later = worldAround(change(facts(w), w, j), w.job, w.log);
      const after = makePlan(later, null, true);
      expect([what, whole(after)]).toEqual([what, was]);
      let next: Plan | null = null;
      const told = changesElsewhere(after, 0, (x) => (next = makePlan(x, null, true)));
      const over = next as Plan | null;
      if (!over) continue;
      // what is done stays even then; and whatever is different of the rest was told
      const bare = (p: Plan): unknown[] =>
        p.placed.slice(0, k).map((x) => [{ ...x.step, waitMin: null }, x.start, x.end]);
      expect([what, bare(over)]).toEqual([what, bare(before)]);
      const rest = (p: Plan): string =>
        JSON.stringify([p.placed.slice(k).map((x) => [x.step.id, x.step.title]), p.ready]);
      if (rest(over) !== rest(after)) expect([what, told]).not.toEqual([what, null]);
      if (!told) continue;
      asked++;
      if (n !== j % 20) continue;
      // looked at and left: it is not asked again
      const left = worldAround(facts(later), { ...later.job, begun: declined(later)! }, later.log);
      expect(changesElsewhere(makePlan(left, null, true), 0, (x) => makePlan(x, null, true))).toBeNull();
      expect(effect(after, k)).toBe(end);
      // wrapped up: not even the cans and the air reach it
      const closed = { ...w.job, wrapUp: { ...w.job.wrapUp, closedAt: "2027-03-01T12:00" } };
      const of = (f: ShopFacts): unknown[] => whole(makePlan(worldAround(f, closed, w.log), null, true));
      expect(of(change(facts(w), w, j))).toEqual(of(facts(w)));
    }
    if (j < 20) expect(check(Begun, w.job.begun!)).toMatchObject({ ok: true });
  }
  expect(asked).toBeGreaterThan(many(100));
});

test("what today's Shelf wants before what is done comes too late and is named; what is done stays where it is", () => {
  const w = run(e1({ choices: { undercoat: false } }), 6);
  const plan = makePlan(w);
  expect(plan.placed[5].actual).not.toBeNull();
  const white = makePlan({ ...w, job: { ...w.job, choices: { ...w.job.choices, undercoat: true } } });
  const done = (p: Plan): string[] => p.placed.filter((x) => x.actual).map((x) => x.step.id);
  expect(done(white)).toEqual(done(plan));
  const lateOrAhead = [...white.late, ...white.placed.slice(6).map((p) => p.step)].filter(
    (s) => own(s, "role") === "white",
  );
  expect(lateOrAhead.length).toBeGreaterThan(0);
});

test("a drawing changed on the way: what covered the face covers its new zones, and what is gone breaks nothing", () => {
  const w = ran(e1(), 9);
  const plan = makePlan(w);
  const sealed = plan.placed.find((p) => own(p.step, "role") === "seal")!;
  expect(sealed.actual).not.toBeNull();
  const [one] = w.job.zones;
  const other = makePlan({ ...w, job: { ...w.job, zones: [{ ...one, id: "fresh" }] } });
  const now = other.placed.find((p) => p.step.id === sealed.step.id)!;
  expect([...now.step.zones].sort()).toEqual(["fresh", "ground"]);
  expect(now.after.zones.map((z) => z.films.length)).toEqual([1, 1]);
  expect(other.placed.filter((p) => p.actual).map((p) => p.step.title)).toEqual(
    plan.placed.filter((p) => p.actual).map((p) => p.step.title),
  );
});

test("a tap taken back frees its step; the next tap keeps it as it is by then", () => {
  const w = run(e1(), 2);
  const [, second] = makePlan(w).placed;
  const back: World = { ...w, log: w.log.filter((e) => e.step !== second.step.id) };
  const edited: World = {
    ...back,
    job: {
      ...back.job,
      edits: [{ id: "e", op: "set", step: second.step.id, after: null, field: "minutes", value: 77 }],
    },
  };
  expect(makePlan(edited).placed[1].step.minutes).toBe(77);
  const again = tapped(edited, "start", second.step.id, second.start!);
  expect(again.job.begun!.done.find((s) => s.id === second.step.id)!.minutes).toBe(77);
  // and as long as it stands, an edit of it does nothing
  expect(makePlan({ ...again, job: { ...again.job, edits: [] } }).placed[1].step.minutes).toBe(77);
});

test("air that is read at the bench reaches a running job; a curve that is drawn anew does not", () => {
  const w = run(e1(), 3);
  const at = w.job.begun!.at + 1;
  const f = facts(w);
  const read = {
    ...f,
    shop: { ...f.shop, climate: { ...f.shop.climate, readings: [{ at: at + 60, c: 3, rh: 0.9 }] } },
  };
  expect(worldAround(read, w.job, w.log).shop.climate.readings).toEqual([{ at: at + 60, c: 3, rh: 0.9 }]);
  const early = {
    ...f,
    shop: { ...f.shop, climate: { ...f.shop.climate, readings: [{ at: at - 60, c: 3, rh: 0.9 }] } },
  };
  expect(worldAround(early, w.job, w.log).shop.climate.readings ?? []).toEqual([]);
  const drawn = { ...f, shop: { ...f.shop, climate: swing(4, 9) } };
  expect(worldAround(drawn, w.job, w.log).shop.climate).toEqual(w.shop.climate);
});
