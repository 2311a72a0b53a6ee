/** Every exercise, on many seeds: whoever follows what is said comes right; whoever always answers the same does not; none can’t be won. */
import { FLAW_KINDS } from "../catalogue/flaws";
import { cuts, openShares } from "../models/film/reveal";
import { sprayed, SprayFilm } from "../models/film/spray";
import { isKind } from "../process/kinds";
import { many } from "../testing/worlds";
import { ABOUT } from "./about";
import { EXERCISES } from "./index";
import { samplesOf, start, type Answer, type Exercise, type Task } from "./exercise";
import { flawDrawing } from "./flaw-drawing";

/** tries that a learner has who follows the advice after each failure */
const TRIES = 14;
const levels = (e: Exercise): number[] => Array.from({ length: e.levels }, (_v, i) => i + 1);
const within = (t: Task, a: Answer): boolean =>
  t.controls.every((c) =>
    c.kind === "path"
      ? samplesOf(String(a[c.id])).length === (a[c.id] === "" ? 0 : String(a[c.id]).split(",").length)
      : c.kind === "choice"
        ? c.options.some((o) => o.value === String(a[c.id]))
        : Number(a[c.id]) >= c.min - 1e-9 && Number(a[c.id]) <= c.max + 1e-9,
  );

test.each(EXERCISES.map((e) => [e.id, e] as const))(
  "%s: no seed crashes or can’t be won; advice followed comes right; its controls bear every advice",
  (_id, e) => {
    let [first, last, n] = [0, 0, 0];
    for (const level of levels(e))
      for (let seed = 1; seed <= many(80); seed++) {
        const task = e.task(seed, level, null);
        expect(JSON.stringify(e.task(seed, level, null))).toBe(JSON.stringify(task));
        let a = start(task);
        let v = e.judge(seed, level, a, null);
        first += v.score;
        for (let k = 0; k < TRIES && !v.good; k++) {
          expect(v.wrongAt).not.toBeNull();
          expect([e.id, seed, level, within(task, v.next)]).toEqual([e.id, seed, level, true]);
          a = v.next;
          v = e.judge(seed, level, a, null);
        }
        expect([e.id, level, seed, v.good]).toEqual([e.id, level, seed, true]);
        expect(v.wrongAt).toBeNull();
        expect(v.score).toBeGreaterThanOrEqual(0);
        expect(v.score).toBeLessThanOrEqual(1);
        last += v.score;
        n++;
      }
    expect(last / n).toBeGreaterThan(first / n);
  },
);
test.each(EXERCISES.map((e) => [e.id, e] as const))("%s: no constant answer wins it", (_id, e) => {
  const seeds = Array.from({ length: Math.max(20, many(60)) }, (_v, i) => i + 1);
  for (const level of levels(e)) {
    const tasks = seeds.map((s) => e.task(s, level, null));
    // answers that some task begins with or is won by: the best that anybody could learn by heart
    const tried = new Map<string, Answer>();
    for (const [i, t] of tasks.entries()) {
      let a = start(t);
      let v = e.judge(seeds[i], level, a, null);
      for (let k = 0; k < TRIES && !v.good; k++) [a, v] = [v.next, e.judge(seeds[i], level, v.next, null)];
      if (tried.size < 12) tried.set(JSON.stringify(a), a);
    }
    for (const a of tried.values()) {
      const won = seeds.filter((s, i) => within(tasks[i], a) && e.judge(s, level, a, null).good).length;
      expect([e.id, level, won < 0.75 * seeds.length]).toEqual([e.id, level, true]);
    }
  }
});
test("exercises speak of kinds of step that there are", () => {
  for (const e of EXERCISES) for (const k of e.kinds) expect([e.id, k, isKind(k)]).toEqual([e.id, k, true]);
  expect(EXERCISES.map(({ id, name, kinds }) => ({ id, name, kinds }))).toEqual([...ABOUT]);
  expect(new Set(EXERCISES.map((e) => e.id)).size).toBe(13);
});
test("spray: paint is conserved, a proper pattern is even, a slow hand runs, a far one is dry", () => {
  const base = { distance: 250, speed: 300, overlap: 0.6, triggered: true, crossed: true };
  for (const p of [
    base,
    { ...base, triggered: false },
    { ...base, distance: 400 },
    { ...base, overlap: 0.1, crossed: false },
  ]) {
    const m = sprayed(p, 160, 120);
    expect(m.faceMl + m.besideMl + m.lostMl).toBeCloseTo(m.outMl, 9);
    // what lies on the cells is what the face got
    const cell = (160 / m.across) * (120 / m.down);
    expect(m.um.reduce((a, um) => a + (um * cell) / 1e6, 0)).toBeCloseTo(m.faceMl, 9);
    expect(m.faceMl).toBeLessThan(m.outMl);
  }
  expect(sprayed(base, 160, 120).cv).toBeLessThanOrEqual(0.08);
  expect(sprayed({ ...base, triggered: false }, 160, 120).cv).toBeGreaterThan(sprayed(base, 160, 120).cv);
  expect(sprayed({ ...base, speed: 60 }, 160, 120).mean).toBeGreaterThan(4 * sprayed(base, 160, 120).mean);
  expect(sprayed({ ...base, distance: 460 }, 160, 120).dry).toBeGreaterThan(0.5);
  expect(() => sprayed({ ...base, speed: 0 }, 160, 120)).toThrow(RangeError);
});
test("spray by hand: paint is conserved, a pass moved by hand lays what the model of passes lays", () => {
  const film = new SprayFilm(160, 120);
  for (let k = 0; k < 40; k++)
    film.stroke(
      [(k * 37) % 160, (k * 53) % 120],
      [(k * 91) % 200, ((k * 17) % 140) - 20],
      0.02 + (k % 5) / 50,
      120 + 9 * k,
    );
  const m = film.map();
  expect(m.faceMl + m.besideMl + m.lostMl).toBeCloseTo(m.outMl, 9);
  const cell = (160 / m.across) * (120 / m.down);
  expect(m.um.reduce((a, um) => a + (um * cell) / 1e6, 0)).toBeCloseTo(m.faceMl, 9);
  // passes one way, half a fan beyond both ends, by hand
  const p = { distance: 250, speed: 300, overlap: 0.6, triggered: true, crossed: false };
  const want = sprayed(p, 160, 120);
  const fan = 2 * 250 * Math.tan((14 * Math.PI) / 180);
  const hand = new SprayFilm(160, 120);
  const passes = Math.ceil((120 + fan / 2) / (fan * 0.4)) + 1;
  for (let k = 0; k < passes; k++) {
    const y = -fan / 4 + k * fan * 0.4;
    hand.stroke([-fan / 2, y], [160 + fan / 2, y], (160 + fan) / 300, 250);
  }
  const got = hand.map();
  expect(got.outMl).toBeCloseTo(want.outMl, 9);
  expect(Math.abs(got.mean / want.mean - 1)).toBeLessThan(0.01);
  got.um.forEach((um, i) => expect(Math.abs(um - want.um[i])).toBeLessThan(0.02 * want.mean));
  hand.stroke([0, 0], [10, 0], 0, 250);
  expect(hand.map().outMl).toBe(got.outMl);
  expect(() => hand.stroke([0, 0], [1, 0], 1, 0)).toThrow(RangeError);
});
test("burning: what the exercise says is what the planner’s own model says", () => {
  const e = EXERCISES.find((x) => x.id === "burn")!;
  const v = e.judge(5, 1, { power: 60, speed: 100, interval: 0.05 }, null);
  const left = Number(/(\d+) %/.exec(v.figures[2][1])![1]);
  const j = Number(/([\d.]+) J/.exec(v.figures[0][1])![1]);
  expect(j).toBeGreaterThan(0);
  const [top] = openShares(cuts([{ um: 10, patchiness: 0.1, absorbs: 0.9 }], 0.05, 1, 0), 1e9);
  expect(top).toBe(1);
  expect(left).toBeGreaterThanOrEqual(0);
});
test("flaws are drawn apart: no two kinds draw the same, the same seed draws the same, more severe draws more ink", () => {
  const text = (id: (typeof FLAW_KINDS)[number]["id"] | null, k: number, seed: number) =>
    JSON.stringify(flawDrawing(id, k, seed).shapes);
  const plain = text(null, 2, 3);
  const all = FLAW_KINDS.map((f) => text(f.id, 2, 3));
  expect(new Set([...all, plain]).size).toBe(FLAW_KINDS.length + 1);
  for (const f of FLAW_KINDS) {
    expect(text(f.id, 2, 3)).toBe(text(f.id, 2, 3));
    expect(text(f.id, 3, 3)).not.toBe(text(f.id, 1, 3));
    expect(text(f.id, 2, 4)).not.toBe(text(f.id, 2, 3));
    for (const s of flawDrawing(f.id, 3, 1).shapes) expect(s.d).not.toMatch(/NaN|undefined/);
  }
});
