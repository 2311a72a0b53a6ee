/** Acts on the Workshop and on what the log has taught it. */
import type { Outcome } from "../../core/records/outcome";
import type { UnitSystem } from "../../core/units/show";
import { perform } from "../act";
import { blankActs } from "./blanks";
import { gearActs } from "./gear";
import { lessonActs } from "./lessons";
import { machineActs } from "./machines";
import { practiceActs } from "./practice";
import { learnedActs, settingActs } from "./settings";
import { inShop, type InShop } from "./shop";

const units = (c: InShop): UnitSystem => c.shop.units;
export const shopAct = (form: Record<string, string>): Promise<Outcome> =>
  perform([settingActs, machineActs, gearActs, blankActs], form, inShop, units);
export const learnedAct = (form: Record<string, string>): Promise<Outcome> =>
  perform([learnedActs, lessonActs, practiceActs], form, inShop, units);
