/** What the wrap-up shows: planned beside what really happened, photos that are still wanted, the piece as it was meant. */
import { saidAll } from "../core/units/said";
import { RULES } from "../core/judge/rules";
import { hasPhoto, photoStages } from "../core/bench/stages";
import type { StepRun } from "../core/plan/fold";
import type { Placed } from "../core/plan/placed";
import { turns, type Plan } from "../core/plan/plan";
import { titleIn } from "../core/plan/proof";
import { hex } from "../core/models/film/colour";
import { GROUND, shown, zoneOf } from "../core/piece/state";
import { own } from "../core/process/kinds";
import { causesOf, storyOf, type Likely } from "../core/explain/flaws";
import { meantColour } from "../core/process/meant";
import { showWhen } from "../core/time/zoned";
import { asLogged, opened, type Opened } from "./opened";

/** What the log says of a step's minutes; null: it is not ended. */
function loggedWhy(plan: Plan, p: Placed, run: StepRun | undefined): Opened | null {
  const [begun, done] = [run?.startedAt ?? null, run?.doneAt ?? null];
  if (begun === null || done === null) return null;
  const { clock } = plan.context;
  return asLogged(`Minutes of “${p.step.title}” as logged`, () => [
    { name: "Begun", value: showWhen(clock, begun), from: "bench log" },
    { name: "Done", value: showWhen(clock, done), from: "bench log" },
  ]);
}

function stepRow(plan: Plan, p: Placed) {
  const run = plan.bench.steps.get(p.step.id);
  const took =
    run?.startedAt != null && run.doneAt != null
      ? plan.context.calendar.workedBetween(run.startedAt, run.doneAt)
      : null;
  return {
    id: p.step.id,
    title: titleIn(p.step),
    plannedWhy: opened(plan, { of: "modelled", step: p.step.id }),
    actualWhy: loggedWhy(plan, p, run),
    mlWhy: opened(plan, { of: "load", step: p.step.id }),
    planned: p.uncorrected,
    actual: took,
    ml: plan.uses[p.index]?.ml ?? null,
    answer: run?.answer ?? null,
    early: run?.early ?? null,
    notes: [
      ...(run?.risk ? [`Begun before its time: ${run.risk.text}`] : []),
      ...(run?.against.map((a) => `Went on after a stop: ${a.text}`) ?? []),
      ...(run?.notes.map((n) => n.text) ?? []),
    ],
  };
}

/** Colours as they were meant: each zone's paint, the bare material where it is left, the drawing's where none is chosen. */
function meant(plan: Plan): Record<string, string> {
  const c = plan.context;
  const of = (z: (typeof c.job.zones)[number]): string =>
    z.bare
      ? ((z.burn ? meantColour(z, c) : null) ?? c.substrate.colour)
      : (c.paint(z.productId)?.product.colour ?? z.wanted ?? z.colour);
  // between the dots of a picture the rest of the face is seen, as it ends up
  const last = plan.placed[plan.placed.length - 1];
  const ground =
    c.picture && last
      ? hex(shown(last.after, zoneOf(last.after, GROUND), c.substrate.colour, c.paintOf))
      : c.substrate.colour;
  return Object.fromEntries([["ground", ground], ...c.job.zones.map((z) => [z.id, of(z)])]);
}

export const wrapUpView = <P>(plan: Plan, now: number, photos: P) => ({
  ...saidAll(wrapUpIn(plan, now), plan.context.world.shop.units),
  photos,
});
function causesIn(plan: Plan): Record<string, Likely[]> {
  const { flaws } = plan.context.job.wrapUp;
  if (!flaws.length) return {};
  const story = storyOf(plan);
  return Object.fromEntries(flaws.map((f) => [f.flaw, causesOf(f.flaw, story)]));
}
function wrapUpIn(plan: Plan, now: number) {
  const { job } = plan.context;
  const rows = turns(plan).map((t) => stepRow(t.plan, t.p));
  const wanted = photoStages(plan.placed).filter((p) => !hasPhoto(job.wrapUp.photos, p.step.id));
  return {
    job,
    /** pieces begun, spares with them */
    pieces: plan.context.pieces,
    rows,
    left: rows.filter((r) => r.actual === null).length,
    aside: plan.bench.aside.size,
    zones: job.zones,
    /** causes of each flaw that was noted, by what really happened */
    causes: causesIn(plan),
    /** what a lesson of this job may be tied to */
    teaches: {
      id: job.id,
      substrate: job.substrate.id,
      route: job.route,
      products: [...new Set(plan.placed.map((p) => own(p.step, "productId")))].flatMap((id) => {
        const paint = plan.context.paint(id);
        return paint ? [{ id: paint.product.id, name: paint.product.name }] : [];
      }),
      kinds: [...new Set(plan.placed.map((p): string => p.step.kind))],
    },
    today: plan.context.clock.toLocal(now),
    waivers: job.waivers.map((w) => ({ ...w, title: RULES.find((r) => r.id === w.rule)?.title ?? "A snag of before" })),
    noPhoto: wanted.map((p) => p.step.title),
    colours: meant(plan),
    pictured: plan.context.picture ? job.zones.map((z) => z.id) : [],
    grain: plan.context.substrate.family === "wood",
  };
}
