/**
 * Slips put right: the newest tap taken back, or set to when it really was. Nothing of the log is ever changed: a
 * further entry says so.
 */
import { context } from "../../core/process/context";
import { standing } from "../../core/plan/fold";
import { LocalTime } from "../../core/records/fields";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act, Bare } from "../act";
import { countDown, tap, type AtBench } from "./tap";
import { showLocal } from "../../core/time/typed";

class EarlierForm {
  @LocalTime() at!: string;
}

export const backActs = [
  act("earlier", EarlierForm, async (f, { world: w, state }: AtBench) => {
    const { last } = state;
    if (!last) throw new Refused("There is no tap to put right.");
    const clock = shopClock(w.shop);
    const at = clock.fromLocal(f.at);
    const before = standing(w.log)
      .filter((e) => e.id !== last.id)
      .pop();
    if (at > nowMinutes()) throw new Refused("That moment is still to come.");
    if (before && at < Math.floor(before.at)) {
      const was = showLocal(clock.toLocal(Math.floor(before.at)), clock.face);
      throw new Refused(`That is before the tap that went before it, ${was}. Take back further first.`);
    }
    // The correction keeps everything but the time; the slip stays in the log as taken back.
    const started = state.steps.get(last.step)?.startedAt ?? null;
    const took =
      last.kind === "done" && started !== null ? context(w).calendar.workedBetween(started, at) : last.actual;
    const id = `${last.id.slice(0, 100)}.at${w.log.length.toString(36)}`;
    await tap(w, "back", last.step, { entry: { of: last.id }, instead: { ...last, id, at, actual: took } });
    return "Put right";
  }),
  act("back", Bare, async (_f, { world: w, state }: AtBench) => {
    const { last } = state;
    if (!last) throw new Refused("There is nothing to take back.");
    const used = last.kind === "done" ? countDown(w, last.productId, last.ml, -1) : [];
    await tap(w, "back", last.step, { entry: { of: last.id }, used });
    return "Taken back";
  }),
];
