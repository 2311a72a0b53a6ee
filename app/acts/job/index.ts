/** Acts on a job, all families; every tab's action comes here. */
import type { Outcome } from "../../core/records/outcome";
import type { UnitSystem } from "../../core/units/show";
import { perform } from "../act";
import { addActs } from "./add";
import { briefActs } from "./brief";
import { choiceActs } from "./choices";
import { historyActs } from "./history";
import { onJob, type OnJob } from "./job";
import { photoActs } from "./photos";
import { pictureActs } from "./picture";
import { plateActs } from "./plate";
import { snagActs } from "./snags";
import { stepActs } from "./steps";
import { wrapUpActs } from "./wrap-up";
import { nameActs } from "./names";
import { zoneActs } from "./zones";

const ON_JOB = [
  briefActs,
  choiceActs,
  nameActs,
  zoneActs,
  pictureActs,
  stepActs,
  snagActs,
  plateActs,
  photoActs,
  addActs,
  historyActs,
];

const units = (c: OnJob): UnitSystem => c.world.shop.units;
export const jobAct = (id: string, form: Record<string, string>): Promise<Outcome> =>
  perform(ON_JOB, form, () => onJob(id), units);
export const wrapUpAct = (id: string, form: Record<string, string>): Promise<Outcome> =>
  perform([wrapUpActs, photoActs], form, () => onJob(id), units);
