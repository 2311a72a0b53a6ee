/** What the worker does that reckons what a job costs by how many are made, and by other tools. */
import { curveInTurn, toolTries, type CurvePoint, type ToolTry } from "../core/explain/curve";
import type { World } from "../core/records/world";

export interface CostAsk {
  world: World;
  /** a piece; null: none is said */
  priceMinor: number | null;
}
export interface CostRun {
  points: CurvePoint[];
  /** least pieces that the price pays for; null: none is said, or it never does */
  pays: number | null;
  tools: ToolTry[];
}
export const costApi = {
  run({ world, priceMinor }: CostAsk): CostRun {
    const points: CurvePoint[] = [];
    const turns = curveInTurn(world, priceMinor);
    for (;;) {
      const r = turns.next();
      if (r.done) return { points, pays: r.value.pays, tools: toolTries(world) };
      points.push(r.value);
    }
  },
};
export type CostApi = typeof costApi;
