/** A laser's setting in words: one wording for card, paper and bench. */
import type { LaserSetting } from "../process/step";
import { showInterval, showShare, showSpeed } from "../units/show";

export const passesWords = (n: number): string => `${n} ${n === 1 ? "pass" : "passes"}`;
export const settingParts = (s: LaserSetting): string[] => [
  `${showShare(s.power)} power`,
  showSpeed(s.speed),
  showInterval(s.interval),
  passesWords(s.passes),
];
