/** What a plan is made from: one job and the shop it is made in. Plain data, nothing else is read. */
import type { Climate } from "./shop";
import type { Job } from "./job";
import type { LogEntry } from "./log";
import { asSafeAs, type Machine } from "./machine";
import type { Product } from "./product";
import type { Shop } from "./shop";

/** A shop without its jobs. */
export interface ShopFacts {
  shop: Shop;
  machines: Machine[];
  products: Product[];
}

export interface World extends ShopFacts {
  job: Job;
  /** entries of this job, in order */
  log: LogEntry[];
  /** a job that has begun: the shop as it is by now, of which nothing reaches the job unasked; absent: it is the one above */
  elsewhere?: ShopFacts;
  /** of a world that a change makes: jobs that come beside this one */
  beside?: Job[];
  /** ml of each product that other open jobs will still take; absent: nobody has asked */
  drawn?: Record<string, number>;
}

/** The air as it was when the job began, and what has been read of it since. */
function heldClimate(held: Climate, now: Climate, since: number): Climate {
  const later = (now.readings ?? []).filter((r) => r.at > since);
  if (!later.length) return held;
  const readings = [...(held.readings ?? []).filter((r) => r.at <= since), ...later];
  return { ...held, measured: true, readings };
}

/**
 * The world that a job is made in: the shop as it is, until its first tap; from then on the one that was kept with it, with the cans as
 * they are by now and the air as it has been read since. A job that is wrapped up reads none of that either.
 */
export function worldAround(facts: ShopFacts, job: Job, log: LogEntry[]): World {
  const w = around(facts, job, log);
  // A job is read and typed in the units that it was begun in, whatever the shop has changed to; clocks are written as the shop writes
  // them by now.
  const { clockFace } = facts.shop;
  if (w.shop.units === job.units && w.shop.clockFace === clockFace) return w;
  return { ...w, shop: { ...w.shop, units: job.units, clockFace } };
}

function around(facts: ShopFacts, job: Job, log: LogEntry[]): World {
  const { begun } = job;
  if (!begun) return { ...facts, job, log };
  const closed = job.wrapUp.closedAt !== null;
  const now = new Map(facts.products.map((p) => [p.id, p]));
  const machines = new Map(facts.machines.map((m) => [m.id, m]));
  const kept = new Set(begun.products.map((p) => p.id));
  const keptMachines = new Set(begun.machines.map((m) => m.id));
  return {
    shop: closed
      ? begun.shop
      : { ...begun.shop, climate: heldClimate(begun.shop.climate, facts.shop.climate, begun.at) },
    // whether a laser is safe to stand beside is as it is by now, whatever was said when the job began
    machines: [
      ...begun.machines.map((m) => (closed ? m : asSafeAs(m, machines.get(m.id) ?? m))),
      ...facts.machines.filter((m) => !keptMachines.has(m.id)),
    ],
    products: [
      ...begun.products.map((p) => (closed ? p : { ...p, cans: now.get(p.id)?.cans ?? p.cans })),
      ...facts.products.filter((p) => !kept.has(p.id)),
    ],
    job,
    log,
    elsewhere: facts,
  };
}
