/**
 * A batch under the beam or in the oven: how many lie there at once, how long a load runs, what a piece takes with laying and taking it
 * away, and when somebody has to be there to change loads.
 */
import { bedLoads } from "../models/laser/runtime";
import type { Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { byBeam, has, kindOf } from "../process/kinds";
import { LOAD_MIN, SETUP_MIN } from "../process/kinds/laser-work";
import { heatOf, ovenRun, TRAY_MIN } from "../process/kinds/melt";
import { shapeOf } from "../process/setup";

export interface Loads {
  /** pieces at once, and how often that is filled */
  perLoad: number;
  loads: number;
  /** minutes that a full load runs, and what changing it takes */
  runMin: number;
  changeMin: number;
  /** minutes a piece, laying and taking away included */
  cycleMin: number;
  /** moments at which each load begins to run; empty: no time is planned for it */
  begins: number[];
  /** where they lie: what it is called, mm; null: its size is not known */
  on: { name: string; w: number | null; h: number | null };
}

/** A moment so many working minutes after the step began, its pauses left out. */
function after(p: Placed, min: number): number | null {
  if (p.start === null) return null;
  let at = p.start + min;
  for (const [from, to] of p.pauses) if (at > from + 1e-9) at += to - from;
  return at;
}

/** null: it is no such step, or something is not known. */
export function loadsOf(p: Placed, c: Context): Loads | null {
  const { w, h } = c.job.substrate;
  // what the shop has learned of its minutes holds for each load
  const factor = p.minutes !== null && p.uncorrected ? p.minutes / p.uncorrected : 1;
  const begun = (first: number, each: number, loads: number): number[] =>
    Array.from({ length: loads }, (_v, k) => after(p, factor * (first + k * each))).filter(
      (x): x is number => x !== null,
    );
  if (has(p.step, "method") && heatOf(p.step) === "oven") {
    const run = ovenRun(p.step, c);
    if (!run) return null;
    const perLoad = Math.min(run.perTray, p.pieces);
    const runMin = run.warmMin + run.holdMin;
    const changeMin = TRAY_MIN * perLoad;
    return {
      perLoad,
      loads: Math.ceil(p.pieces / perLoad),
      runMin,
      changeMin,
      cycleMin: factor * ((runMin + changeMin) / perLoad),
      begins: begun(changeMin, runMin + changeMin, Math.ceil(p.pieces / perLoad)),
      on: { name: "Tray", w: null, h: null },
    };
  }
  const m = c.machine;
  if (!m || !byBeam(p.step) || kindOf(p.step.kind).tries === "setting" || p.perPieceMin === null) return null;
  const flat = shapeOf(c) === "flat";
  const fit = flat ? bedLoads(p.pieces, w, h, m.bedW, m.bedH).perLoad : 1;
  if (!fit) return null;
  const perLoad = Math.min(fit, p.pieces);
  const loads = Math.ceil(p.pieces / perLoad);
  // minutes that were typed for all of it are shared out evenly
  const typed = p.step.minutes !== null;
  const runMin = perLoad * (typed ? p.step.minutes! / p.pieces : p.perPieceMin / (factor || 1));
  if (typed)
    return {
      perLoad,
      loads,
      runMin,
      changeMin: 0,
      cycleMin: runMin / perLoad,
      begins: begun(0, runMin, loads),
      on: { name: flat ? "Bed" : "Chuck", w: flat ? m.bedW : null, h: flat ? m.bedH : null },
    };
  // round pieces are put into the chuck in a step of their own
  const change = flat ? LOAD_MIN : 0;
  return {
    perLoad,
    loads,
    runMin: factor * runMin,
    changeMin: factor * change,
    cycleMin: factor * ((runMin + change) / perLoad),
    begins: begun(SETUP_MIN + LOAD_MIN, runMin + change, loads),
    on: { name: flat ? "Bed" : "Chuck", w: flat ? m.bedW : null, h: flat ? m.bedH : null },
  };
}
