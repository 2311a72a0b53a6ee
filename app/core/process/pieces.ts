/** How many pieces a job begins with (M15). Apart from the context: a list of jobs asks it too, and loads nothing of a plan. */
import { route } from "../catalogue/routes";
import { PRIOR_PIECES, piecesToBegin, type Spares } from "../models/spares/spares";
import type { Choices, Job } from "../records/job";

/** What of a job says how many pieces it begins with. */
export interface Begins extends Pick<Job, "quantity" | "route"> {
  choices: Pick<Choices, "begin" | "lossShare" | "lossOn">;
  begun?: { pieces?: number };
  wrapUp: { closedAt: string | null };
}

export interface Enough extends Spares {
  loss: number;
  /** pieces that share counts as much as */
  worth: number;
  /** typed as this shop has seen it; else the route's prior */
  seen: boolean;
}
/** the last ones worked out: a plan is made many times over for one job */
const enough = new Map<string, Spares | null>();
const ENOUGH_KEPT = 200;

/** M15 for a job: pieces to begin with, from the share lost as seen here or the route's prior; null: no route yet. */
export function toBegin({ quantity, choices, route: id }: Begins): Enough | null {
  const seen = choices.lossShare !== undefined;
  const loss = choices.lossShare ?? (id ? route(id).loss : null);
  if (loss === null) return null;
  const worth = (seen ? choices.lossOn : undefined) ?? PRIOR_PIECES;
  const key = `${quantity}|${loss}|${worth}`;
  let got = enough.get(key);
  if (got === undefined) {
    if (enough.size > ENOUGH_KEPT) enough.clear();
    enough.set(key, (got = piecesToBegin(quantity, loss, worth)));
  }
  return got && { ...got, loss, worth, seen };
}

/** Pieces begun: as typed; as it was begun; else enough for those ordered. Never fewer than are ordered. */
export function piecesOf(job: Begins): number {
  const was = job.begun ? (job.begun.pieces ?? job.quantity) : job.wrapUp.closedAt !== null ? job.quantity : null;
  return Math.max(job.quantity, job.choices.begin ?? was ?? toBegin(job)?.pieces ?? job.quantity);
}
