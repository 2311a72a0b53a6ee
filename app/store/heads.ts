/**
 * A line about each job, kept beside the jobs so that lists and the palette need not load drawings and outlines. Written in the
 * same transaction as the job itself, never on its own.
 */
import { thumbOf, type Thumb } from "../core/geometry/thumb";
import type { Begins } from "../core/process/pieces";
import type { Job, Substrate } from "../core/records/job";

export interface Head {
  id: string;
  title: string;
  client: string;
  quantity: number;
  substrateId: string;
  /** what of its sheet is not as is usual for the material */
  body?: { colour?: string; beneath?: string };
  route: string | null;
  /** the dark top that was chosen */
  topId: string | null;
  due: string | null;
  closedAt: string | null;
  good: number | null;
  machineId: string | null;
  products: string[];
  /** 1: not wrapped up. A number, so that it can be an index. */
  open: 0 | 1;
  /** entries in its log: counting a large log takes longer than reading a page of it */
  entries: number;
  /** the piece drawn small; null: only areas are known */
  thumb: Thumb | null;
  /** mark that it shares with the other sizes of its order */
  set?: string;
  /** its blanks: material and size, how many, from which lot, whether it has begun */
  blanks: Pick<Substrate, "id" | "w" | "h" | "t" | "shape" | "diameter"> & {
    /** how many pieces of them are begun is worked out from this: what it takes is not for the first view */
    begins: Begins;
    lot: string | null;
    begun: boolean;
  };
}
const beginsOf = (j: Job): Begins => ({
  quantity: j.quantity,
  route: j.route,
  choices: { begin: j.choices.begin, lossShare: j.choices.lossShare, lossOn: j.choices.lossOn },
  ...(j.begun ? { begun: { pieces: j.begun.pieces } } : {}),
  wrapUp: { closedAt: j.wrapUp.closedAt },
});
const blanksOf = (j: Job): Head["blanks"] => {
  const { id, w, h, t, shape, diameter } = j.substrate;
  const begun = j.begun !== undefined || j.wrapUp.closedAt !== null;
  return { id, w, h, t, shape, diameter, begins: beginsOf(j), lot: j.blankLot ?? null, begun };
};

/** @param before the head that was kept: its picture is kept on where it still fits */
export const headOf = (j: Job, entries: number, before?: Head): Head => ({
  id: j.id,
  title: j.title,
  client: j.client,
  quantity: j.quantity,
  substrateId: j.substrate.id,
  ...(j.substrate.colour || j.substrate.beneath
    ? { body: { colour: j.substrate.colour, beneath: j.substrate.beneath } }
    : {}),
  route: j.route,
  topId: j.choices.topId,
  due: j.due,
  closedAt: j.wrapUp.closedAt,
  good: j.wrapUp.good,
  machineId: j.machineId,
  products: j.zones.flatMap((z) => z.productId ?? []),
  open: j.wrapUp.closedAt === null ? 1 : 0,
  entries,
  thumb: thumbOf(j, before?.thumb),
  ...(j.set ? { set: j.set } : {}),
  blanks: blanksOf(j),
});

/** Entries by job. */
export function countByJob(jobIds: string[]): Map<string, number> {
  const n = new Map<string, number>();
  for (const id of jobIds) n.set(id, (n.get(id) ?? 0) + 1);
  return n;
}
