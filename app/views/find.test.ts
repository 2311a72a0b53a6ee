import { a1, e1, many } from "../core/testing/worlds";
import type { Job } from "../core/records/job";
import { compareView } from "./compare";
import { foundJobs } from "./find";

const base = e1();
const facts = { shop: base.shop, machines: base.machines, products: base.products };
const closed = (j: Job, good: number, lost: number): Job => ({
  ...j,
  wrapUp: {
    ...j.wrapUp,
    good,
    lost,
    closedAt: "2027-01-20T10:00",
    note: "Brush it under water",
    flaws: [{ id: "f", flaw: "peel", zone: null, piece: 1, severity: 3, note: "at the rim" }],
  },
});

test("a job is found by its words, material, way, machine, paints, flaws and outcome", () => {
  const [r] = foundJobs([closed(base.job, 5, 1)], facts);
  expect(r).toMatchObject({
    substrate: "Hard maple",
    outcome: "some lost",
    flaws: "Peeling",
    good: 5,
    lost: 1,
    closed: "2027-01-20",
  });
  expect(r.paints).toMatch(/Beet, Marigold/);
  for (const word of ["under water", "at the rim", "A job"]) expect(r.words).toContain(word);
  expect(foundJobs([base.job], facts)[0].outcome).toBe("open");
  expect(foundJobs([closed(base.job, 6, 0)], facts)[0].outcome).toBe("good");
});
test("many jobs, machines and paints that are gone: each row stands, and nothing is made up", () => {
  const jobs = Array.from({ length: many(500) }, (_v, i) => ({ ...a1().job, id: `j${i}`, machineId: "gone" }));
  const rows = foundJobs(jobs, { ...facts, machines: [], products: [] });
  expect(rows).toHaveLength(jobs.length);
  expect(rows[0]).toMatchObject({ machine: "", beam: "", paints: "" });
});
test("two jobs beside each other: only what differs is marked; a job beside itself differs in nothing", () => {
  const v = compareView(e1(), a1());
  const row = (n: string) => v.rows.find((r) => r.name === n)!;
  expect(row("Material").same).toBe(false);
  expect(row("Machine").same).toBe(true);
  expect(row("Coats").a).toMatch(/× Beet/);
  expect(v.a.colours.lettering).toMatch(/^#[0-9a-f]{6}$/);
  expect(compareView(e1(), e1()).rows.every((r) => r.same)).toBe(true);
});
