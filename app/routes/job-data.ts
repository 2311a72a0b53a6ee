/** What all tabs of a job read: its world and plan at this minute; and the shape that head and pages share. */
import { data } from "react-router";
import { nowMinutes } from "../clock";
import { makePlan, type Plan } from "../core/plan/plan";
import type { World } from "../core/records/world";
import { readWorld } from "../store/queries";

export interface JobData {
  world: World;
  plan: Plan;
  now: number;
}

/** @throws a 404 page when the job is gone */
export async function readJob(id: string): Promise<JobData> {
  const world = await readWorld(id);
  if (!world) throw data(`There is no job “${id}”. It may have been deleted; undo brings it back.`, { status: 404 });
  const now = Math.floor(nowMinutes());
  return { world, plan: makePlan(world, now), now };
}
