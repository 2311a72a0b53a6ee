/** A job once more: the same plan, and nothing of what happened to the first. */
import { Job } from "../records/job";
import { check } from "../records/parse";
import { brief } from "../testing/briefs";
import { e1, many } from "../testing/worlds";
import { inSize, onceMore } from "./again";
import { makePlan } from "./plan";
import { keptWith } from "./begun";

const edit = (id: string, step: string) => ({ id, op: "remove" as const, step, after: null, field: "", value: null });

test("the same number of pieces makes the same plan; a wrapped-up one leaves its past behind", () => {
  for (let n = 0; n < many(60); n++) {
    const w = brief(n * 13);
    const plan = makePlan(w, null, true);
    const past: Job = {
      ...w.job,
      note: "walnut drinks more",
      edits: [edit("a", "dust"), edit("b", "scuff-film.m1")],
      order: { ...w.job.order, text: "for the gate", delivered: "2027-02-01T10:00" },
      begun: keptWith(plan, plan.placed[0].step.id, plan.start!),
      wrapUp: { ...w.job.wrapUp, good: 3, closedAt: "2027-02-01T12:00" },
      acknowledged: [71],
      waivers: [{ rule: 40, where: "engrave", reason: "tried" }],
    };
    const made = { ...w.job, id: "again", edits: [], note: "", plate: null, acknowledged: [], waivers: [] };
    const again = onceMore(past, made, w.job.quantity, "2027-03-14T17:00");
    expect(check(Job, again).ok).toBe(true);
    expect([again.begun, again.wrapUp.closedAt, again.order.delivered, again.acknowledged, again.waivers]).toEqual([
      undefined,
      null,
      null,
      [],
      [],
    ]);
    expect([again.due, again.note, again.order.text, again.edits]).toEqual([
      "2027-03-14T17:00",
      "walnut drinks more",
      "for the gate",
      [edit("a", "dust")],
    ]);
    const twin = makePlan({ ...w, job: { ...again, edits: [], due: null } }, null, true);
    const told = (p: typeof plan) => p.placed.map((x) => [x.step.id, x.step.title, x.minutes, x.start]);
    expect([n, told(twin)]).toEqual([n, told(plan)]);
  }
});

test("a paint that is gone is followed by the nearest; another number of pieces is another plan", () => {
  const w = brief(4);
  const again = onceMore(w.job, { ...w.job, id: "again" }, 40, null);
  const gone = { ...w, job: again, products: w.products.filter((p) => p.id !== w.job.zones[0].productId) };
  const plan = makePlan(gone, null, true);
  expect([plan.missing, plan.context.pieces >= 40]).toEqual([[], true]);
  expect(plan.context.job.zones[0].productId).not.toBe(w.job.zones[0].productId);
});
test("in another size the drawing grows as far as it fits, holes with each side; bands follow the blank anew", () => {
  const w = e1({ job: { substrate: { id: "hard-maple", w: 120, h: 60, t: 8, holes: [{ x: 12, y: 6, d: 4 }] } } });
  const art = { name: "a.svg", svg: "", w: 80, h: 40, dx: 5 };
  const old = { ...w.job, artwork: art, zones: w.job.zones.map((z) => ({ ...z, outline: "M0 0L20 0L20 10Z" })) };
  const made = inSize(old, { id: "big", title: "Big", set: "job" }, 3, 240, 180);
  expect(made).toMatchObject({
    id: "big",
    set: "job",
    quantity: 3,
    route: old.route,
    substrate: { w: 240, h: 180, t: 8 },
  });
  expect(made.artwork).toMatchObject({ w: 160, h: 80, dx: 10 });
  expect(made.zones[0].areaMm2).toBe(4 * old.zones[0].areaMm2);
  expect(made.zones[0].outline).toBe("M0 0L40 0L40 20Z");
  expect(made.substrate.holes).toEqual([{ x: 24, y: 18, d: 4 }]);
  expect(made.begun).toBeUndefined();
  expect(made.wrapUp.closedAt).toBeNull();
});
