/** What acts on a job have in common: the job with its world, and its change. */
import type { Begun } from "../../core/records/begun";
import type { Job } from "../../core/records/job";
import type { ShopFacts, World } from "../../core/records/world";
import { change, Refused, type Put } from "../../store/acts";
import { readWorld } from "../../store/queries";
import { settled } from "../../core/geometry/areas";

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

/** Areas that are made and not drawn follow the blank, whatever changed it. */
export const changeJob = (id: string, label: string, recipe: (j: Job) => Job): Promise<void> =>
  change<Job>(label, "jobs", id, (j) => followed(j, recipe(j)));
const followed = (before: Job, after: Job): Job =>
  after.areas && (after.substrate !== before.substrate || after.areas !== before.areas) ? settled(after) : after;
/** @param what of the job is changed, in words that its title follows */
export const changed = ({ id, world }: OnJob, what: string, recipe: (j: Job) => Partial<Job>): Promise<void> =>
  changeJob(id, `${what} “${world.job.title}”`, (j) => ({ ...j, ...recipe(j) }));

/** Records of the shop that a change of the world touches. */
function shopPuts(before: ShopFacts, after: ShopFacts): Put[] {
  const puts: Put[] = [];
  if (after.shop !== before.shop) puts.push({ table: "shop", id: "shop", next: after.shop, base: before.shop });
  for (const m of after.machines)
    if (!before.machines.includes(m))
      puts.push({ table: "machines", id: m.id, next: m, base: before.machines.find((x) => x.id === m.id) ?? null });
  for (const p of after.products)
    if (!before.products.includes(p))
      puts.push({ table: "products", id: p.id, next: p, base: before.products.find((x) => x.id === p.id) ?? null });
  return puts;
}

/** What is kept with a job, with what a change of its world was about. */
function keptChanged(begun: Begun, before: World, after: World): Begun {
  const climate = after.shop.climate === before.shop.climate ? begun.shop.climate : after.shop.climate;
  const kept = <T extends { id: string }>(was: T[], old: T[], now: T[]): T[] => [
    ...was.map((x) => {
      const next = now.find((y) => y.id === x.id);
      return next && !old.includes(next) ? next : x;
    }),
    ...now.filter((y) => !old.some((x) => x.id === y.id)),
  ];
  return {
    ...begun,
    shop: after.shop === before.shop ? begun.shop : { ...after.shop, climate },
    machines: kept(begun.machines, before.machines, after.machines),
    products: kept(begun.products, before.products, after.products),
  };
}

/**
 * Records that differ from the stored ones after a change of a job's world. A job that has begun is made by what was kept with it: the
 * change goes there, and to the shop as it is.
 */
export function putsOf(w: World, way: { apply(w: World): World }): Put[] {
  const changedTo = way.apply(w);
  const after = { ...changedTo, job: followed(w.job, changedTo.job) };
  const { begun } = w.job;
  const now: ShopFacts = w.elsewhere ?? w;
  const puts = shopPuts(now, w.elsewhere ? way.apply({ ...w, ...w.elsewhere }) : after);
  const job = begun && puts.length ? { ...after.job, begun: keptChanged(begun, w, after) } : after.job;
  if (job !== w.job) puts.push({ table: "jobs", id: job.id, next: job, base: w.job });
  for (const made of after.beside ?? []) puts.push({ table: "jobs", id: made.id, next: made, base: null });
  return puts;
}
