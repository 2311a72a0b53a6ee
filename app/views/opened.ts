/** A figure of a plan as a screen opens it: its inputs at once, what moves it most when somebody asks. */
import { makePlan, type Plan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import type { FigureRef } from "../core/explain/why/figure";
import { inputs, latestInputs, layerInputs, type Input } from "../core/explain/why/inputs";
import { said, saidAll } from "../core/units/said";
import { titleOf } from "../core/explain/why/title";
import { indexOf } from "../core/explain/why/figure";
import type { WhyAsk } from "../workers/why-api";
import type { ZoneLayers } from "../core/explain/report";

/** What a figure on a screen carries so that it can be opened. */
export interface Opened {
  title: string;
  /** inputs with where each came from, asked for when the panel opens */
  rows(): Input[];
  /** what the worker needs to try what moves it; null: it was measured, logged or typed, and nothing can be varied */
  ask: WhyAsk | null;
}

const unitsOf = (plan: Plan): World["shop"]["units"] => plan.context.world.shop.units;

export const opened = (plan: Plan, figure: FigureRef): Opened => ({
  title: said(titleOf(plan, figure), unitsOf(plan)),
  rows: () => saidAll(inputs(plan, figure), unitsOf(plan)),
  ask: { world: plan.context.world, now: plan.now, figure },
});

/** A figure of another world than the one on screen, or of a plan that was made lean: its plan is made when somebody asks. */
export const openedIn = (world: World, now: number | null, figure: FigureRef, title: string): Opened => ({
  title,
  rows: () => saidAll(inputs(makePlan(world, now), figure), world.shop.units),
  ask: { world, now, figure },
});

/** A latest beginning, or its slack, that is known already. */
export const openedLatest = (plan: Plan, of: "latest" | "slack", step: string, at: number): Opened => ({
  ...opened(plan, { of, step }),
  rows: () => saidAll(latestInputs(plan, indexOf(plan, step), at), unitsOf(plan)),
});

/** One layer of a section; what was not laid by a step has nothing to vary. */
export const openedLayer = (
  plan: Plan,
  step: string,
  zone: string,
  l: ZoneLayers["layers"][number],
  name: string,
): Opened => ({
  title: `Thickness of ${name}`,
  rows: () => saidAll(layerInputs(plan, l), unitsOf(plan)),
  ask: l.step === null || l.kind === "mask" ? null : opened(plan, { of: "layer", step, zone, film: l.step }).ask,
});

/** A figure that is measured, logged or typed in: its origin and nothing to vary. */
export const asLogged = (title: string, rows: Opened["rows"]): Opened => ({ title, rows, ask: null });
