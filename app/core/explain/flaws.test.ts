import { FLAW_KINDS, flawKind, type Story } from "../catalogue/flaws";
import { FLAWS } from "../records/ids";
import { ALL_KINDS, isKind } from "../process/kinds";
import { LogEntry } from "../records/log";
import { doneUpTo } from "../testing/done";
import { a1, e1, many, seeded } from "../testing/worlds";
import { makePlan } from "../plan/plan";
import { causesOf, flawCounts, storyOf } from "./flaws";

const GOOD: Story = {
  coldest: 21,
  dampest: 0.45,
  cut: { laser: false, recoat: false, mask: false, lift: false, sand: false, cold: false },
  windowMissed: false,
  canLeft: 0.8,
  plated: true,
  wide: false,
  attacked: false,
  sanded: 0.2,
  passes: 2,
  tapeHot: false,
  forced: false,
  wetSolvent: false,
  airOn: false,
};
/** One gate of a job broken: what goes wrong then, and what has to be named first. */
const MISHAPS: { broken: Partial<Story>; flaw: (typeof FLAWS)[number]; cause: string }[] = [
  { broken: { cut: { ...GOOD.cut, laser: true } }, flaw: "smear-melt", cause: "soft" },
  { broken: { cut: { ...GOOD.cut, recoat: true } }, flaw: "wrinkle-craze", cause: "window" },
  { broken: { windowMissed: true }, flaw: "wrinkle-craze", cause: "window" },
  { broken: { attacked: true }, flaw: "wrinkle-craze", cause: "attack" },
  { broken: { cut: { ...GOOD.cut, mask: true } }, flaw: "peel", cause: "early-mask" },
  { broken: { coldest: 8 }, flaw: "peel", cause: "cold" },
  { broken: { plated: false }, flaw: "colour-eaten-through", cause: "unplated" },
  { broken: { wide: true }, flaw: "uneven-bands", cause: "interval" },
  { broken: { sanded: 1.4 }, flaw: "sanded-out", cause: "deep" },
  { broken: { cut: { ...GOOD.cut, sand: true } }, flaw: "sanded-out", cause: "soft" },
  { broken: { dampest: 0.85 }, flaw: "cloudy-clear", cause: "damp" },
  { broken: { coldest: 9 }, flaw: "cloudy-clear", cause: "cold" },
  { broken: { wetSolvent: true }, flaw: "fisheyes", cause: "solvent" },
  { broken: { cut: { ...GOOD.cut, lift: true } }, flaw: "overspray", cause: "open-early" },
  { broken: { coldest: 7 }, flaw: "bubbles-at-edges", cause: "cold" },
  { broken: { coldest: 7 }, flaw: "drips-sags", cause: "cold" },
  { broken: { forced: true }, flaw: "dust-in-paint", cause: "air" },
];

test("every flaw that can be noted has causes, a way to save the piece, and what is done otherwise at a kind of step that there is", () => {
  expect(FLAW_KINDS.map((f) => f.id).sort()).toEqual([...FLAWS].sort());
  for (const f of FLAW_KINDS) {
    expect(f.causes.length).toBeGreaterThan(1);
    expect(f.rescue.length).toBeGreaterThan(0);
    expect(isKind(f.next.kind)).toBe(true);
    expect(new Set(f.causes.map((c) => c.id)).size).toBe(f.causes.length);
  }
  expect(ALL_KINDS.length).toBeGreaterThan(0);
});
test("mishaps made by breaking one gate of a job that is else as it should be: the broken one comes first in four of five at least", () => {
  const rnd = seeded(4);
  let right = 0;
  const n = many(500);
  for (let k = 0; k < n; k++) {
    const m = MISHAPS[k % MISHAPS.length];
    // what has no bearing on it wanders; what nobody read stays unknown
    const story: Story = {
      ...GOOD,
      coldest: rnd() < 0.2 ? null : 17 + 6 * rnd(),
      dampest: rnd() < 0.2 ? null : 0.3 + 0.3 * rnd(),
      canLeft: rnd() < 0.2 ? null : 0.25 + 0.7 * rnd(),
      passes: 1 + Math.floor(3 * rnd()),
      ...m.broken,
    };
    if (causesOf(m.flaw, story)[0].cause.id === m.cause) right++;
  }
  expect(right / n).toBeGreaterThanOrEqual(0.8);
});
test("shares of a flaw’s causes are a whole, whatever is known", () => {
  for (const f of FLAW_KINDS)
    for (const s of [
      GOOD,
      { ...GOOD, coldest: null, dampest: null, canLeft: null, plated: null, sanded: null, passes: null },
    ]) {
      const all = causesOf(f.id, s);
      expect(all.reduce((a, x) => a + x.share, 0)).toBeCloseTo(1, 9);
      expect(all.every((x, i) => i === 0 || x.share <= all[i - 1].share)).toBe(true);
    }
});
test("the story is read from the log: a wait ended as a risk, air at the coats, a plate of this work or none", () => {
  const w = a1();
  const plan = makePlan(w, null);
  const at = plan.placed.findIndex((p) => p.step.kind === "reveal");
  const done = doneUpTo(w, plan, at + 1);
  const step = plan.placed[at].step.id;
  const early = {
    ...new LogEntry(),
    id: "job.early",
    jobId: "job",
    kind: "early" as const,
    step,
    at: plan.placed[at].start! - 1,
    note: "in a hurry",
  };
  const told = done.log.map((e) => ({ ...e, c: 9, rh: 0.8 }));
  const story = storyOf(makePlan({ ...done, log: [...told, early] }, plan.placed[at].end!));
  expect(story.cut.laser).toBe(true);
  expect(story.coldest).toBe(9);
  expect(story.dampest).toBe(0.8);
  expect(story.plated).toBe(false);
  const sound = storyOf(makePlan(done, plan.placed[at].end!));
  expect(sound.cut.laser).toBe(false);
  expect(sound.coldest).toBeNull();
  expect(causesOf("smear-melt", story)[0].cause.id).toBe("soft");
  expect(storyOf(makePlan(e1(), null)).plated).toBeNull();
});
test("flaws are counted over jobs, the costliest first; before and after a lesson about them", () => {
  const job = (id: string, closedAt: string, flaws: [(typeof FLAWS)[number], number][]) => {
    const w = e1({ job: { id, quantity: 10 } });
    const noted = flaws.map(([flaw, severity], i) => ({
      id: `${id}.${i}`,
      flaw,
      zone: null,
      piece: null,
      severity,
      note: "",
    }));
    return { ...w.job, wrapUp: { ...w.job.wrapUp, closedAt, flaws: noted } };
  };
  const jobs = [
    job("a", "2026-10-01T10:00", [["peel", 3], ["peel", 1], ["dust-in-paint", 1]]), // prettier-ignore
    job("b", "2026-12-01T10:00", [["peel", 3]]),
    job("c", "2026-12-05T10:00", []),
  ];
  const rows = flawCounts(jobs, new Map([[flawKind("peel").next.kind, "2026-11-01"]]));
  expect(rows.map((r) => [r.id, r.noted, r.spoilt, r.jobs.length])).toEqual([
    ["peel", 3, 2, 2],
    ["dust-in-paint", 1, 0, 1],
  ]);
  expect(rows[0].before).toEqual({ pieces: 10, had: 2 });
  expect(rows[0].after).toEqual({ pieces: 20, had: 1 });
  expect(rows[1].before).toBeNull();
  // zone by zone on one piece it is one piece; never more than were made
  const onOne = jobs.map((j) => ({
    ...j,
    wrapUp: { ...j.wrapUp, flaws: j.wrapUp.flaws.map((f) => ({ ...f, piece: 4, severity: 3 })) },
  }));
  const [peel] = flawCounts(onOne, new Map([[flawKind("peel").next.kind, "2026-11-01"]]));
  expect([peel.noted, peel.spoilt, peel.before!.had, peel.after!.had]).toEqual([3, 2, 1, 1]);
  const many = {
    ...jobs[0],
    quantity: 2,
    wrapUp: { ...jobs[0].wrapUp, flaws: Array(5).fill(jobs[0].wrapUp.flaws[0]) },
  };
  expect(flawCounts([many], new Map())[0]).toMatchObject({ noted: 5, spoilt: 2 });
});
