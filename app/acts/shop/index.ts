/** Acts on the Workshop and on what the log has taught it. */
import type { Outcome } from "../../core/records/outcome";
import { perform } from "../act";
import { gearActs } from "./gear";
import { machineActs } from "./machines";
import { learnedActs, settingActs } from "./settings";
import { inShop } from "./shop";

export const shopAct = (form: Record<string, string>): Promise<Outcome> =>
  perform([settingActs, machineActs, gearActs], form, inShop);
export const learnedAct = (form: Record<string, string>): Promise<Outcome> => perform([learnedActs], form, inShop);
