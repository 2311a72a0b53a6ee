/** What acts on a job have in common: the job with its world, and its change. */
import type { Job } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { change, Refused, type Put } from "../../store/acts";
import { readWorld } from "../../store/queries";

export interface OnJob {
  id: string;
  world: World;
}

/** @throws Refused when the job is gone */
export async function onJob(id: string): Promise<OnJob> {
  const world = await readWorld(id);
  if (!world) throw new Refused("This job is no longer there; it may have been deleted in another tab.");
  return { id, world };
}

export const changeJob = (id: string, label: string, recipe: (j: Job) => Job): Promise<void> =>
  change<Job>(label, "jobs", id, recipe);
/** @param what of the job is changed, in words that its title follows */
export const changed = ({ id, world }: OnJob, what: string, recipe: (j: Job) => Partial<Job>): Promise<void> =>
  changeJob(id, `${what} “${world.job.title}”`, (j) => ({ ...j, ...recipe(j) }));

/** Records of a changed world that differ from the stored ones. */
export function putsOf(before: World, after: World): Put[] {
  const puts: Put[] = [];
  if (after.shop !== before.shop) puts.push({ table: "shop", id: "shop", next: after.shop, base: before.shop });
  for (const m of after.machines)
    if (!before.machines.includes(m))
      puts.push({ table: "machines", id: m.id, next: m, base: before.machines.find((x) => x.id === m.id) ?? null });
  for (const p of after.products)
    if (!before.products.includes(p))
      puts.push({ table: "products", id: p.id, next: p, base: before.products.find((x) => x.id === p.id) ?? null });
  if (after.job !== before.job) puts.push({ table: "jobs", id: after.job.id, next: after.job, base: before.job });
  return puts;
}
