/** What the worker that tries what moves a figure does: each input turned both ways is a plan of its own. */
import type { FigureRef } from "../core/explain/why/figure";
import { movesInTurn, type Moved } from "../core/explain/why/moves";
import { makePlan } from "../core/plan/plan";
import { saidAll } from "../core/units/said";
import type { World } from "../core/records/world";

/** @param now the moment the plan on screen was made at */
export interface WhyAsk {
  world: World;
  now: number | null;
  figure: FigureRef;
}

export const whyApi = {
  moves(ask: WhyAsk, progress: (share: number) => void): Moved | null {
    try {
      const turns = movesInTurn(makePlan(ask.world, ask.now, true), ask.figure);
      for (;;) {
        const r = turns.next();
        if (r.done) return saidAll(r.value, ask.world.shop.units);
        progress(r.value);
      }
    } catch (e) {
      throw new Error(`What moves this figure could not be worked out: ${(e as Error).message}`, { cause: e });
    }
  },
};
export type WhyApi = typeof whyApi;
