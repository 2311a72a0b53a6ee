/** The field guide's job of every route, carried to its end at the bench: each step when it is ready, each wait sat out. */
import { standing } from "../core/bench/next";
import { ROUTES } from "../core/catalogue/routes";
import { meantColour } from "../core/process/meant";
import { difference, linear } from "../core/models/film/colour";
import { shown, zoneOf } from "../core/piece/state";
import { makePlan } from "../core/plan/plan";
import { LogEntry } from "../core/records/log";
import { guideWorld } from "./guide";

test.each(ROUTES.map((r) => r.id))("%s, step by step to the end", (id) => {
  const w = guideWorld(id);
  const log: LogEntry[] = [];
  const put = (kind: LogEntry["kind"], step: string, at: number): void =>
    void log.push({
      ...new LogEntry(),
      id: `g.${String(log.length).padStart(5, "0")}`,
      jobId: w.job.id,
      kind,
      step,
      at,
    });
  let now = makePlan(w).start!;
  const said: string[] = [];
  for (let guard = 0; guard < 400; guard++) {
    const plan = makePlan({ ...w, log }, now, true);
    const s = standing(plan, now);
    if (s.is === "done") break;
    // A long wait before (a cure, a rinse) may have shut a window; where the film reopens, that is sat out too.
    if (s.is === "missed" && s.reopens !== null && s.reopens > now) {
      now = s.reopens;
      continue;
    }
    if (s.is !== "ready" && s.is !== "waiting") {
      said.push(`${s.is} at ${log.length}`);
      break;
    }
    if (s.is === "waiting") {
      if (s.opens === null || s.opens <= now) {
        said.push(`“${s.step.step.title}” waits for ever`);
        break;
      }
      now = s.opens;
      continue;
    }
    if (s.step.refused) said.push(`“${s.step.step.title}”: ${s.step.refused}`);
    put("start", s.step.step.id, now);
    now += Math.ceil(s.step.minutes ?? 1);
    put("done", s.step.step.id, now);
  }
  expect(said).toEqual([]);
  const plan = makePlan({ ...w, log }, now);
  expect(standing(plan, now).is).toBe("done");
  const end = plan.placed[plan.placed.length - 1].after;
  for (const z of [...plan.context.filled, ...plan.context.uncovered]) {
    const wanted = meantColour(z, plan.context)!;
    expect([
      z.id,
      difference(shown(end, zoneOf(end, z.id), plan.context.substrate.colour, plan.context.paintOf), linear(wanted)) <
        plan.context.tolerance + 1,
    ]).toEqual([z.id, true]);
  }
  expect(end.zones.every((z) => !z.mask && z.films.every((f) => !f.wrinkled && !f.torn && f.phase !== "loose"))).toBe(
    true,
  );
});
