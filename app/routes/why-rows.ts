/** What figures are made of and where each input came from: shown wherever the figure is. */
import { latestStart } from "../core/plan/backward";
import { stateWords } from "../core/plan/decides";
import { waitAfter, type ZoneLayers } from "../core/plan/report";
import { showWhen } from "../core/time/zoned";
import { byBeam } from "../core/plan/kinds";
import type { Plan } from "../core/plan/plan";
import { showMinutes, showMl, showShare, showUm } from "../core/units/show";
import type { WhyRow } from "../ui/kit/why";

/** Minutes of a step. */
export function timeWhy(plan: Plan, index: number): WhyRow[] {
  const c = plan.context;
  const p = plan.placed[index];
  if (p.step.minutes !== null) return [{ name: "Typed in", value: showMinutes(p.step.minutes), from: "by hand" }];
  const laser = byBeam(p.step);
  const k = c.learned(p.step.kind);
  return [
    { name: "Setting up", value: showMinutes(p.setupMin), from: laser ? "machine and loads" : "default" },
    { name: "A piece", value: showMinutes(p.perPieceMin), from: laser ? "area, speed, interval, ramps" : "default" },
    { name: "Pieces", value: String(c.job.quantity), from: "brief" },
    ...(k !== 1 ? [{ name: "From your log", value: `× ${Math.round(k * 100) / 100}`, from: "measured here" }] : []),
  ];
}

/** Paint of one coat; empty where nothing is laid. */
export function loadWhy(plan: Plan, index: number): WhyRow[] {
  const s = plan.placed[index].step;
  const use = plan.uses[index];
  if (!use || !plan.context.hasPaint(s.productId)) return [];
  const paint = plan.context.paintOf(s.productId);
  return [
    { name: "Film, dry", value: showUm(s.dryUm), from: s.edited.includes("dryUm") ? "by hand" : paint.coatUm.from },
    { name: "Film, wet", value: showUm(use.wetUm), from: "dry film ÷ volume solids" },
    { name: "Volume solids", value: showShare(paint.solids.value), from: paint.solids.from },
    { name: "Stays on the pieces", value: showMl(use.laidMl), from: "area × wet film" },
    { name: "Lost beside them", value: showMl(use.lostMl), from: "spray fan or brush" },
    { name: "Pieces", value: String(plan.context.job.quantity), from: "brief" },
  ];
}

/** Thickness of one layer in a section. */
export function layerWhy(plan: Plan, l: ZoneLayers["layers"][number]): WhyRow[] {
  if (l.kind === "skin") return [{ name: "As it came", value: showUm(l.bottomUm - l.topUm), from: "default for this material" }];
  if (l.kind === "mask") return [{ name: "Thick", value: showUm(l.bottomUm - l.topUm), from: plan.context.hasPaint(l.product) ? plan.context.paintOf(l.product).coatUm.from : "default" }];
  if (l.kind === "char" || !plan.context.hasPaint(l.product)) return [{ name: "Char", value: showUm(l.bottomUm - l.topUm), from: "default for this wood" }];
  const step = plan.placed.find((p) => p.step.id === l.step)?.step;
  const paint = plan.context.paintOf(l.product);
  return [
    { name: "As laid, dry", value: showUm(step?.dryUm ?? null), from: step?.edited.includes("dryUm") ? "by hand" : paint.coatUm.from },
    { name: "Still there", value: showShare(l.left), from: l.left < 1 ? "after laser or sanding" : "nothing has been taken off" },
    { name: "Wet", value: showUm(l.wetUm), from: "dry film ÷ volume solids" },
    { name: "Volume solids", value: showShare(paint.solids.value), from: paint.solids.from },
  ];
}

/** The wait behind a step; empty where there is none. */
export function waitWhy(plan: Plan, index: number): WhyRow[] {
  const c = plan.context;
  const w = waitAfter(plan, index);
  if (!w) return [];
  if (w.for === "cold") return [{ name: "Cools in", value: showMinutes(w.refMin), from: "thickness and material, still air at 20 °C" }, { name: "Counted from", value: showWhen(c.clock, w.from), from: "the melt before it" }];
  const product = w.film ? plan.placed.find((x) => x.step.id === w.film)?.step.productId : null;
  const paint = product && c.hasPaint(product) ? c.paintOf(product) : null;
  return [
    { name: "At 20 °C, 50 % humidity", value: showMinutes(w.refMin), from: w.typed ? "by hand" : paint ? paint.times[w.for === "laser-safe" ? "laserSafe" : (w.for as "recoat")]?.from : "default" },
    { name: "In your shop’s air", value: showMinutes(w.min), from: c.world.shop.climate.measured ? "your climate" : "default climate" },
    ...(paint ? [{ name: "Least temperature", value: paint.minC.value === null ? "unknown" : `${paint.minC.value} °C`, from: paint.minC.from }] : []),
  ];
}
export const WAIT_MOVES = "Temperature moves it most: ten degrees halve or double it. Film thickness comes next.";

/** What decides when a step begins; empty where it has no time. */
export function startWhy(plan: Plan, index: number): WhyRow[] {
  const c = plan.context;
  const p = plan.placed[index];
  if (p.start === null) return [];
  if (p.actual) return [{ name: "Begun", value: showWhen(c.clock, p.start), from: "bench log" }];
  const prev = plan.placed[index - 1];
  const free = prev?.end ?? c.clock.fromLocal(c.job.start);
  const typed = prev?.step.waitMin ?? null;
  const dry = p.waited?.opens ?? null;
  const may = Math.max(free, plan.now ?? -Infinity, typed !== null ? free + typed : (dry ?? -Infinity));
  const shut = c.calendar.closedBetween(may, p.start);
  return [
    { name: prev ? "The step before it ends" : "The job begins", value: showWhen(c.clock, free), from: prev?.actual ? "bench log" : prev ? "plan" : "brief" },
    ...(typed !== null ? [{ name: "Wait", value: showMinutes(typed), from: "by hand" }] : dry !== null && p.waited ? [{ name: `${stateWords(p.waited.state)[0].toUpperCase()}${stateWords(p.waited.state).slice(1)}`, value: showWhen(c.clock, dry), from: "drying clock" }] : []),
    ...(plan.now !== null && may === plan.now ? [{ name: "Not before now", value: showWhen(c.clock, plan.now), from: "the clock" }] : []),
    ...(shut > 0 ? [{ name: "The shop is shut for", value: showMinutes(shut), from: "your hours" }] : []),
    ...(p.start - may - shut > 0 ? [{ name: "Held back, to fit what follows", value: showMinutes(p.start - may - shut), from: "a window that would shut, or an unbroken run" }] : []),
  ];
}

/** The latest beginning that keeps the due date and what it was counted back from; null: done, none due, or it can't be kept. */
export function latestOf(plan: Plan, index: number): { at: number; slack: number; why: WhyRow[] } | null {
  const c = plan.context;
  const start = plan.placed[index].start;
  if (c.job.due === null || start === null) return null;
  const due = c.clock.fromLocal(c.job.due);
  const at = latestStart(plan, index, due, plan.ready === null ? 0 : due - plan.ready);
  return at === null ? null : { at, slack: at - start, why: latestWhy(plan, start, at) };
}

/** Rows for a latest beginning that is known already. */
export function latestWhy(plan: Plan, start: number, at: number): WhyRow[] {
  const c = plan.context;
  return [
    { name: "Due", value: c.job.due === null ? "not said" : showWhen(c.clock, c.clock.fromLocal(c.job.due)), from: "brief" },
    { name: "As planned it is ready", value: plan.ready === null ? "no time yet" : showWhen(c.clock, plan.ready), from: "plan" },
    { name: "Begins as planned", value: showWhen(c.clock, start), from: "plan" },
    { name: "Slack", value: showMinutes(at - start), from: "the rest planned again from a later beginning, until the date, a window or the hours break" },
  ];
}
