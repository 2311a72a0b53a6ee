/** What other open jobs will still take out of the cans on the Shelf: stock is counted over all of them, not for each alone. */
import { ALONE, makePlan } from "../core/plan/plan";
import { worldAround, type ShopFacts, type World } from "../core/records/world";
import { db } from "./db";
import { sortLog } from "./sort";

/** ml by product */
export type Draws = Record<string, number>;

/** most jobs whose draws are counted: those under way and due soonest */
export const MOST_COUNTED = 60;
/** jobs planned between two breaths of the page */
const BREATH = 5;
/** what jobs draw, as long as neither they nor the shop have changed */
const known = { shop: "", jobs: new Map<string, { key: string; draws: Draws }>() };

/** moments before which nothing begins: none. A plan with some is placed step by step, and not laid round its windows */
/** What a plan still takes of each product, whenever that will be. */
export function drawsOf(w: World): Draws {
  const out: Draws = {};
  for (const a of makePlan(w, null, true, ALONE).amounts) if (a.toComeMl !== null) out[a.product] = a.toComeMl;
  return out;
}

/** What of a job its draws hang on, without drawings and outlines: their areas and edges say all. */
const readOf = ({ job, log }: World): string =>
  JSON.stringify([
    { ...job, artwork: null, zones: [], begun: null },
    job.artwork && [job.artwork.w, job.artwork.h],
    job.zones.map((z) => [z.id, z.productId, z.wanted, z.bare, z.areaMm2, z.perimeterMm, z.narrowestMm, z.rows.length]),
    job.begun && [job.begun.at, job.begun.pieces, job.begun.done.map((s) => [s.id, s.productId, s.dryUm])],
    log.map((e) => e.id),
  ]);

/** What each open job with a route will still take, and all of them together. */
export interface AllDraws {
  all: Draws;
  of: ReadonlyMap<string, Draws>;
}

/** @param base the shop as it is by now */
export async function readDraws(base: ShopFacts): Promise<AllDraws> {
  const d = db();
  const heads = (await d.heads.where("open").equals(1).toArray())
    .filter((h) => h.route !== null)
    .sort((a, b) => Number(b.entries > 0) - Number(a.entries > 0) || (a.due ?? "9").localeCompare(b.due ?? "9"))
    .slice(0, MOST_COUNTED);
  const [jobs, logs] = await Promise.all([
    d.jobs.bulkGet(heads.map((h) => h.id)),
    Promise.all(heads.map((h) => (h.entries ? d.log.where("jobId").equals(h.id).toArray() : []))),
  ]);
  const shop = JSON.stringify([base.shop, base.machines, base.products.map((p) => ({ ...p, cans: [] }))]);
  if (shop !== known.shop) {
    known.shop = shop;
    known.jobs.clear();
  }
  const all: Draws = {};
  const of = new Map<string, Draws>();
  let planned = 0;
  for (const [i, job] of jobs.entries()) {
    if (!job) continue;
    const w = worldAround(base, job, sortLog(logs[i]));
    const key = readOf(w);
    const was = known.jobs.get(job.id);
    const same = was?.key === key;
    if (!same && ++planned % BREATH === 0) await new Promise((on) => setTimeout(on));
    const draws = same ? was.draws : drawsOf(w);
    known.jobs.set(job.id, { key, draws });
    of.set(job.id, draws);
    for (const [product, ml] of Object.entries(draws)) all[product] = (all[product] ?? 0) + ml;
  }
  return { all, of };
}

/** A world with what the other open jobs will take of its paints. */
export function withDraws(w: World, { all, of }: AllDraws): World {
  if (w.job.route === null || w.job.wrapUp.closedAt !== null) return w;
  const own = of.get(w.job.id) ?? {};
  const rest = Object.entries(all).map(([product, ml]) => [product, ml - (own[product] ?? 0)] as const);
  return { ...w, drawn: Object.fromEntries(rest.filter(([, ml]) => ml > 1e-6)) };
}
