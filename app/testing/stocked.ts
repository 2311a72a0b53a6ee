/** A store with a shop in it: one machine, a whole Shelf, and the jobs that are given. */
import type { Job } from "../core/records/job";
import { e1, shop, SHELF } from "../core/testing/worlds";
import { commit } from "../store/acts";
import { RichLayerDb, useDb } from "../store/db";

/** @param name of a database that nothing else uses @param jobs by the id that each is to have */
export async function stocked(name: string, jobs: Record<string, Job>): Promise<void> {
  useDb(new RichLayerDb(name));
  const machine = e1().machines[0];
  await commit("beginning", [
    { table: "shop", id: "shop", next: shop() },
    { table: "machines", id: machine.id, next: machine },
    ...SHELF().map((p) => ({ table: "products" as const, id: p.id, next: p })),
    ...Object.entries(jobs).map(([id, job]) => ({ table: "jobs" as const, id, next: { ...job, id } })),
  ]);
}
