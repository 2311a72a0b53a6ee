/** What figures are made of and where each input came from: shown wherever the figure is. */
import type { ZoneLayers } from "../core/plan/report";
import { kindOf } from "../core/plan/kinds";
import type { Plan } from "../core/plan/plan";
import { showMinutes, showMl, showShare, showUm } from "../core/units/show";
import type { WhyRow } from "../ui/kit/why";

/** Minutes of a step. */
export function timeWhy(plan: Plan, index: number): WhyRow[] {
  const c = plan.context;
  const p = plan.placed[index];
  if (p.step.minutes !== null) return [{ name: "Typed in", value: showMinutes(p.step.minutes), from: "by hand" }];
  const laser = kindOf(p.step.kind).laser;
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
