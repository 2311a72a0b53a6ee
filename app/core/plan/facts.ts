/** What rules look at: a plan placed in time, before it is judged. */
import type { Amount, StepUse } from "./amounts";
import type { Context } from "../process/context";
import type { Unfit } from "./edits";
import type { Generated, Hiding } from "./builder";
import type { Placed } from "./placed";

export interface Facts {
  context: Context;
  placed: Placed[];
  uses: (StepUse | null)[];
  amounts: Amount[];
  hiding: Hiding[];
  depth: Generated["depth"];
  unfit: Unfit[];
}
