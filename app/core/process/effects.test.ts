/** Waits follow from what a step does: whatever is put straight behind a wet coat, it waits as its effect asks. */
import { brief } from "../testing/briefs";
import { many } from "../testing/worlds";
import type { World } from "../records/world";
import { makePlan, type Plan } from "../plan/plan";
import { ALL_KINDS, kindOf, own, type KindId } from "./kinds";
import { effectNeeds } from "./effects";
import { reached } from "./ready";

/** A step of a kind put straight behind another. */
const behind = (w: World, kind: KindId, after: string): World => ({
  ...w,
  job: {
    ...w.job,
    edits: [...w.job.edits, { id: "put", op: "add", step: `put.${kind}`, after, field: kind, value: null }],
  },
});
const HANDS: KindId[] = ["edge-black", "feet", "oil-back", "label", "pre-flight", "dust", "wash", "inspect-blank"];

test("no hand comes to a piece before its last film is touch dry, whatever the step is called", () => {
  let held = 0;
  for (let n = 0; n < many(47) || (held <= 5 && n < 94); n++) {
    const w = brief(n * 5);
    const coat = makePlan(w, null, true).placed.find(
      (p) => p.step.kind === "coat" && own(p.step, "role") !== "barrier",
    );
    if (!coat) continue;
    const kind = HANDS[n % HANDS.length];
    const p = makePlan(behind(w, kind, coat.step.id), null, true);
    const x = p.placed.find((y) => y.step.id === `put.${kind}`)!;
    if (x.start === null) continue;
    for (const z of x.before.zones)
      for (const r of reached(z.films.slice(-1), "touch", p.context)) {
        expect([w.job.id, kind, r.at !== null && x.start! >= r.at - 1e-6]).toEqual([w.job.id, kind, true]);
        if (x.start! - p.placed[x.index - 1].end! > 5) held++;
      }
  }
  expect(held).toBeGreaterThan(5);
});

test("the beam on films waits until they are laser-safe, through and through, or touch dry where the shop's school says so", () => {
  let met = 0;
  for (let n = 0; n < many(47); n++) {
    const w = brief(n * 5 + 1);
    for (const schools of [[], ["before-laser:touch"]]) {
      const p: Plan = makePlan({ ...w, job: { ...w.job, choices: { ...w.job.choices, schools } } }, null, true);
      for (const x of p.placed) {
        const { beam, tries, on } = kindOf(x.step.kind);
        if (!beam || tries || x.start === null) continue;
        const zones = on === "zones" ? x.step.zones : p.context.allZones;
        for (const z of x.before.zones.filter((y) => zones.includes(y.zone)))
          for (const r of reached(
            z.films.filter((f) => f.left > 0 && f.phase === undefined),
            schools.length ? "touch" : "laser-safe",
            p.context,
          )) {
            met++;
            expect([w.job.id, x.step.id, r.at !== null && x.start! >= r.at - 1e-6]).toEqual([
              w.job.id,
              x.step.id,
              true,
            ]);
          }
      }
    }
  }
  expect(met).toBeGreaterThan(20);
});

test("nothing is done to a piece that is hot, but to heat it again or to fill what is open once it is cold", () => {
  let met = 0;
  for (let n = 0; n < many(120) || (met <= 20 && n < 240); n++) {
    const p = makePlan(brief(n * 2), null, true);
    for (const x of p.placed) {
      if (!x.before.warm || x.start === null || kindOf(x.step.kind).rests) continue;
      const { c, at, tauMin, roomC } = x.before.warm;
      const now = roomC + (c - roomC) * Math.exp(-Math.max(0, x.start - at!) / tauMin);
      met++;
      expect([p.context.job.id, x.step.id, now <= 40.5]).toEqual([p.context.job.id, x.step.id, true]);
    }
  }
  expect(met).toBeGreaterThan(20);
});

test("every kind of step says the same of a bare, cold piece: nothing to wait for", () => {
  const p = makePlan(brief(3), null, true);
  const blank = p.placed[0].before;
  for (const k of ALL_KINDS) {
    const step = { ...p.placed[0].step, kind: k.id, zones: p.context.allZones } as (typeof p.placed)[number]["step"];
    expect([k.id, effectNeeds(step, blank, p.context)]).toEqual([k.id, []]);
  }
});
