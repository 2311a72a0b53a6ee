/** What the worker that lays the whole shop does, one turn after another, so that it hears when it shall stop. */
import { readyBefore, wholeRows, type WholeRows } from "../core/explain/whole";
import { Known } from "../core/plan/known";
import { laidOf, placedAgain } from "../core/plan/plan";
import { promise, whatIfInTurn, type Asked, type WhatIf } from "../core/plan/promise";
import { layShop, layShopInTurn, STALE_MIN, type WholeShop } from "../core/plan/whole";
import type { Progress } from "../core/schedule/solve";
import { showMinutes } from "../core/units/show";
import { showWhen } from "../core/time/zoned";
import type { World } from "../core/records/world";

export interface ShopAsk {
  worlds: World[];
  now: number;
  /** seconds of search beyond the first answer */
  seconds: number;
  /** where jobs stand counts for nothing */
  anew: boolean;
}
export interface PromiseRows {
  ready: string | null;
  evenings: string | null;
  surely: string | null;
  soonest: string | null;
  pushes: { job: string; title: string; later: string }[];
  /** how much work is taken to scatter, a share, and of how many logged steps */
  scatter: { work: number; n: number };
  why: string | null;
}
const rest = (): Promise<void> => new Promise((on) => setTimeout(on, 0));
const clock = (): number => performance.now() / 1000;
const words = (e: unknown): Error => new Error(`The shop could not be laid: ${(e as Error).message}`, { cause: e });

export function shopApi() {
  let stopped = false;
  const known = new Known();
  const lay = (a: Pick<ShopAsk, "worlds" | "now">): WholeShop => layShop(a.worlds, { now: a.now, seconds: 0, clock });
  return {
    /** the best found by then comes back */
    stop(): void {
      stopped = true;
    },
    /** @param searching told how far it is @param found told of each better one on the way; @returns the last */
    async lay(ask: ShopAsk, searching: (p: Progress) => void, found: (rows: WholeRows) => void): Promise<WholeRows> {
      try {
        stopped = false;
        const before = readyBefore(ask.worlds, (w) => {
          const laid = laidOf(w.job);
          return laid && placedAgain(known.alone(w, ask.now, STALE_MIN), ask.now, laid).ready;
        });
        const told = (shop: WholeShop): WholeRows => wholeRows(shop, ask.worlds, ask.now, before);
        const turns = layShopInTurn(ask.worlds, {
          now: ask.now,
          seconds: ask.seconds,
          anew: ask.anew,
          together: true,
          known,
          clock,
          stop: () => stopped,
        });
        for (;;) {
          const r = turns.next();
          if (r.done) return told(r.value);
          if (r.value.is === "searching") searching(r.value.progress);
          else if (r.value.is === "found") found(told(r.value.shop));
          await rest();
        }
      } catch (e) {
        throw words(e);
      }
    },
    promise(ask: Pick<ShopAsk, "worlds" | "now">, asked: Asked, local: string): PromiseRows {
      try {
        const standing = lay(ask);
        const p = promise(ask.worlds, asked, local, standing, { now: ask.now, seconds: 0, clock });
        const at = standing.jobs[0]?.plan.context.clock;
        const when = (m: number | null): string | null => (m === null || !at ? null : showWhen(at, m));
        return {
          ready: when(p.ready),
          evenings: when(p.evenings),
          surely: when(p.surely),
          soonest: when(p.soonest),
          pushes: p.pushes.map((x) => ({ ...x, later: showMinutes(x.later) })),
          scatter: p.scatter,
          why: p.why,
        };
      } catch (e) {
        throw words(e);
      }
    },
    async whatIf(ask: Pick<ShopAsk, "worlds" | "now">, found: (row: WhatIf) => void): Promise<WhatIf[]> {
      const turns = whatIfInTurn(ask.worlds, { now: ask.now, seconds: 0, clock });
      for (;;) {
        const r = turns.next();
        if (r.done) return r.value;
        found(r.value);
        await rest();
      }
    },
  };
}
export type ShopApi = ReturnType<typeof shopApi>;
