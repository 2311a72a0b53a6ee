/** What the worker that plans all ways of a job does: each way is told as soon as it is planned. */
import { waysInTurn, type Way } from "../core/explain/ways";
import { saidAll } from "../core/units/said";
import type { World } from "../core/records/world";

/** @param now the moment the plan on screen was made at */
export interface WaysAsk {
  world: World;
  now: number | null;
}

export const waysApi = {
  /** @param found told of each way on the way; @returns all of them, since word on the way may come in after the answer */
  ways(ask: WaysAsk, found: (way: Way) => void): Way[] {
    const all: Way[] = [];
    try {
      for (const w of waysInTurn(ask.world, ask.now)) {
        const way = saidAll(w, ask.world.shop.units);
        all.push(way);
        found(way);
      }
      return all;
    } catch (e) {
      throw new Error(`The ways could not all be planned: ${(e as Error).message}`, { cause: e });
    }
  },
};
export type WaysApi = typeof waysApi;
