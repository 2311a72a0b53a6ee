/**
 * Writes the frozen shops for the scheduler once: real plans of seeded briefs, twenty steps a job, on one shop's
 * hands and machines. A file that is there is never written again.
 */
import "reflect-metadata";
import { existsSync, mkdirSync, writeFileSync } from "node:fs";
import { brief } from "../app/core/testing/briefs";
import { seeded, swing } from "../app/core/testing/worlds";
import { pathsOf } from "../app/core/schedule/bounds/path";
import { compile } from "../app/core/schedule/model";
import { readProblem, type ProblemInput } from "../app/core/schedule/problem";
import { makePlan, type Plan } from "../app/core/plan/plan";
import { shopProblem } from "../app/core/plan/schedule";

const STEPS = 20;
const SHOPS = [
  [5, 60, 60, 30],
  [20, 60, 60, 60],
  [40, 90, 60, 90],
  [100, 200, 120, 160],
  [200, 360, 120, 240],
] as const;
/** omit what is the default: the files are read by people too */
const bare = (o: Record<string, unknown>, defaults: Record<string, unknown>): Record<string, unknown> =>
  Object.fromEntries(Object.entries(o).filter(([k, v]) => JSON.stringify(v) !== JSON.stringify(defaults[k])));

mkdirSync("fixtures/schedule", { recursive: true });
for (const [jobs, days, stretch, rack] of SHOPS) {
  const path = `fixtures/schedule/shop-${jobs}.json`;
  if (existsSync(path)) continue;
  const plans: Plan[] = [];
  for (let n = 3; plans.length < jobs; n += 7) {
    const w = brief(n);
    const plan = makePlan({ ...w, shop: { ...w.shop, climate: swing(12, 21, 0.55) } }, null, true);
    if (plan.stuck === null && plan.placed.length >= STEPS) plans.push(plan);
  }
  const shop = shopProblem(plans, { days, stretch, rack });
  const keep = new Set(plans.flatMap((p) => p.placed.slice(0, STEPS).map((s) => `${p.context.job.id}/${s.step.id}`)));
  const p = shop.problem;
  const cut: ProblemInput = {
    ...p,
    name: `${jobs} jobs of ${STEPS} steps`,
    tasks: p.tasks.filter((t) => keep.has(t.id)),
    lags: p.lags.filter((l) => keep.has(l.from) && keep.has(l.to)),
  };
  // due by its own path and its turn in the shop, some days more or less
  const m = compile(readProblem(cut));
  const { head } = pathsOf(m);
  const r = seeded(jobs);
  const hands =
    (m.work.reduce((a, w, i) => a + (m.uses[i].some((u) => p.resources[u.r].id === "hands") ? w : 0), 0) / 540) *
    1440 *
    1.4;
  const last = new Map(plans.map((x) => [`${x.context.job.id}/${x.placed[STEPS - 1].step.id}`, x]));
  const tasks = cut.tasks!.map((t, i) => {
    const due = last.has(t!.id!)
      ? Math.round((head[i] + m.work[i] + hands * (0.15 + 0.95 * r()) + 1440) / 60) * 60
      : null;
    return { ...t, due, weight: due === null ? 1 : 1 + Math.floor(r() * 3) };
  });
  const uses = (list: { resource: string; amount: number }[]): unknown[] =>
    list.map((u) => bare({ ...u }, { amount: 1 }));
  const out = {
    name: cut.name,
    seed: 1,
    limitSeconds: 10,
    finishBucket: p.finishBucket,
    trip: p.trip,
    resources: p.resources.map((x) => bare({ ...x }, { capacity: 1, closed: [] })),
    clocks: p.clocks,
    tasks: tasks.map((t) =>
      bare(
        { ...(t as Record<string, unknown>), uses: uses(t.uses as { resource: string; amount: number }[]) },
        {
          uses: [],
          pieces: 1,
          perPiece: false,
          pausable: false,
          earliest: 0,
          due: null,
          weight: 1,
          fixedStart: null,
          preferStart: null,
        },
      ),
    ),
    lags: (cut.lags as Record<string, unknown>[]).map((l) =>
      bare(
        { ...l, holds: uses(l.holds as { resource: string; amount: number }[]) },
        { min: 0, max: null, reopens: null, soft: false, clock: null, closeClock: null, perPiece: false, holds: [] },
      ),
    ),
  };
  readProblem(out);
  writeFileSync(
    path,
    `${JSON.stringify(out).replaceAll('{"id"', '\n{"id"').replaceAll('{"from"', '\n{"from"').replaceAll('{"min"', '\n{"min"')}\n`,
  );
}
