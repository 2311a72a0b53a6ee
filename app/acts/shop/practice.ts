/** An exercise that was tried: counted, with the best of it. What is judged here is what the page judged. */
import { EXERCISES } from "../../core/practice";
import { Text } from "../../core/records/fields";
import type { Practised } from "../../core/records/shop";
import { shopClock } from "../../core/time/zoned";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act } from "../act";
import { typed } from "../answer";
import { changedShop, type InShop } from "./shop";

class TriedForm {
  @Text(40) exercise!: string;
  @Text(4) level!: string;
  @Text(12) seed!: string;
  /** what was chosen, as JSON */
  @Text(200_000) answer!: string;
  /** “own”: in the maker’s own shop */
  @Text(10) where: string = "";
}

export const practiceActs = [
  act("tried", TriedForm, (f, { shop }: InShop) => {
    const e = EXERCISES.find((x) => x.id === f.exercise);
    const level = typed.whole(f.level);
    if (!e || level < 1 || level > e.levels) throw new Refused("There is no such exercise.");
    const v = e.judge(typed.whole(f.seed), level, JSON.parse(f.answer) as Record<string, number | string>, null);
    const on = shopClock(shop).toLocal(Math.floor(nowMinutes())).slice(0, 10);
    return changedShop("exercise", (s) => {
      const all = s.practised ?? [];
      const was = all.find((x) => x.exercise === e.id && x.level === level);
      const now: Practised = {
        exercise: e.id,
        level,
        tries: (was?.tries ?? 0) + 1,
        good: (was?.good ?? 0) + Number(v.good),
        best: Math.max(was?.best ?? 0, v.score),
        on,
      };
      return { practised: [...all.filter((x) => x !== was), now] };
    });
  }),
];
