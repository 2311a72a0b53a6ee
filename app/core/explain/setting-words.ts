/** A laser's setting in words: one wording for card, paper and bench. */
import { tenth } from "../process/kinds/laser-work";
import type { LaserSetting } from "../process/step";
import { showInterval, showSpeed } from "../units/show";

export const passesWords = (n: number): string => `${n} ${n === 1 ? "pass" : "passes"}`;
export const settingParts = (s: LaserSetting): string[] => [
  `${tenth(s.power * 100)} % power`,
  showSpeed(s.speed),
  showInterval(s.interval),
  passesWords(s.passes),
];
