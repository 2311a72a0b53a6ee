/**
 * A job by another way: what was changed by hand belongs to the route it was changed on and is there again with it; zones say what is to
 * be seen, and their paint follows where the one that was picked does not go.
 */
import type { RouteId } from "../records/ids";
import type { Job, Zone } from "../records/job";
import type { World } from "../records/world";

/** The zone as it goes by any route: from now on its colour is what is wanted, and the paint that was picked holds where it fits. */
export const followed = (z: Zone): Zone => (z.bare || z.wanted !== undefined ? z : { ...z, wanted: z.colour });

/** What of a job is another when it goes by a route; null: by none. */
export function goesBy(job: Job, id: RouteId | null): Partial<Job> {
  if (job.route === id) return {};
  const others = (job.left ?? []).filter((l) => l.route !== id && l.route !== job.route);
  const left = job.route && job.edits.length ? [...others, { route: job.route, edits: job.edits }] : others;
  return {
    route: id,
    edits: job.left?.find((l) => l.route === id)?.edits ?? [],
    left: left.length ? left.sort((a, b) => (a.route < b.route ? -1 : 1)) : undefined,
    zones: id === null ? job.zones : job.zones.map(followed),
  };
}

/** The job by another route, in its shop. */
export const byRoute = (w: World, id: RouteId | null): World =>
  w.job.route === id ? w : { ...w, job: { ...w.job, ...goesBy(w.job, id) } };
