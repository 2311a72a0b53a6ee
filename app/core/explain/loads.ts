/**
 * A batch under the beam or in the oven: how many lie there at once, how long a load runs, what a piece takes with laying and taking it
 * away, and when somebody has to be there to change loads.
 */
import type { Placed } from "../plan/placed";
import type { Context } from "../process/context";
import { byBeam, has, kindOf } from "../process/kinds";
import { LOAD_MIN, setupMin } from "../process/kinds/laser-work";
import { heatOf, ovenRun, TRAY_MIN } from "../process/kinds/melt";
import { loadsOn, pocketed } from "../process/on-bed";
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

/** How a step is done load by load, in minutes of the model; null: it is no such step, or something is not known. */
function runOf(
  p: Placed,
  c: Context,
): { at: Loads["on"]; holds: number; first: number; run(n: number): number; change(n: number): number } | null {
  if (has(p.step, "method") && heatOf(p.step) === "oven") {
    const oven = ovenRun(p.step, c);
    const change = (n: number): number => TRAY_MIN * n;
    return (
      oven && {
        at: { name: "Tray", w: null, h: null },
        holds: oven.perTray,
        first: change(Math.min(oven.perTray, p.pieces)),
        run: () => oven.warmMin + oven.holdMin,
        change,
      }
    );
  }
  const m = c.machine;
  if (!m || !byBeam(p.step) || kindOf(p.step.kind).tries === "setting" || p.perPieceMin === null) return null;
  const flat = shapeOf(c) === "flat";
  const jig = flat ? pocketed(c) : null;
  const at = { name: jig?.name ?? (flat ? "Bed" : "Chuck"), w: flat ? m.bedW : null, h: flat ? m.bedH : null };
  const holds = flat ? loadsOn(c, p.pieces).perLoad : 1;
  if (!holds) return null;
  // minutes that were typed for all of it are shared out evenly
  if (p.step.minutes !== null) {
    const each = p.step.minutes / p.pieces;
    return { at, holds, first: 0, run: (n) => n * each, change: () => 0 };
  }
  const each = p.perPieceMin / taught(p);
  // round pieces are put into the chuck in a step of their own
  return { at, holds, first: setupMin(m) + LOAD_MIN, run: (n) => n * each, change: () => (flat ? LOAD_MIN : 0) };
}
/** What the shop has learned of its minutes holds for each load. */
const taught = (p: Placed): number => (p.minutes && p.uncorrected ? p.minutes / p.uncorrected : 1);

/** null: it is no such step, or something is not known. */
export function loadsOf(p: Placed, c: Context): Loads | null {
  const by = runOf(p, c);
  if (!by) return null;
  const k = taught(p);
  const perLoad = Math.min(by.holds, p.pieces);
  const loads = Math.ceil(p.pieces / perLoad);
  const [runMin, changeMin] = [k * by.run(perLoad), k * by.change(perLoad)];
  return {
    perLoad,
    loads,
    runMin,
    changeMin,
    cycleMin: (runMin + changeMin) / perLoad,
    begins: Array.from({ length: loads }, (_v, i) => after(p, k * by.first + i * (runMin + changeMin))).flatMap(
      (x) => x ?? [],
    ),
    on: by.at,
  };
}
