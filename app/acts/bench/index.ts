/** Everything that is tapped at the bench. */
import { air } from "./air";
import { atBench } from "./tap";
import { backActs } from "./back";
import { workActs } from "./work";
import type { Outcome } from "../../core/records/outcome";
import { perform } from "../act";

export const benchAct = (jobId: string, form: Record<string, string>): Promise<Outcome> =>
  perform(
    [workActs, backActs, air],
    form,
    () => atBench(jobId),
    (c) => c.world.shop.units,
  );
