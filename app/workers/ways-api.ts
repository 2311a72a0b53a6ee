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
  ways(ask: WaysAsk, found: (way: Way) => void): void {
    try {
      for (const way of waysInTurn(ask.world, ask.now)) found(saidAll(way, ask.world.shop.units));
    } catch (e) {
      throw new Error(`The ways could not all be planned: ${(e as Error).message}`, { cause: e });
    }
  },
};
export type WaysApi = typeof waysApi;
