/**
 * The settings book: every setting of the beam that a job was made by, with what came of it; how far it can be relied on; what it would be
 * on another machine.
 */
import { BEAM_KINDS } from "../catalogue/beams";
import { substrateNamed } from "../catalogue/substrates";
import { carry, type Carried } from "../models/laser/carry";
import { dose, shareOf, topSpeed, wattsOf } from "../process/beam";
import { isKind, kindOf } from "../process/kinds";
import type { LaserSetting } from "../process/step";
import type { Job } from "../records/job";
import { FIRST } from "../records/log";
import type { Machine } from "../records/machine";
import type { Product } from "../records/product";

export interface BookRow {
  id: string;
  jobId: string;
  job: string;
  /** `YYYY-MM-DD`; null: not known */
  on: string | null;
  machineId: string;
  machine: string;
  beam: string;
  substrate: string;
  /** what the beam did, and on what */
  work: string;
  stack: string;
  set: LaserSetting;
  /** J/mm² of all passes; null: the watts are not known, or it runs along lines */
  e: number | null;
  from: string;
  /** pieces good of those tried; null: nobody has said */
  good: number | null;
  tried: number;
}

/** What a stack of films is called: products, top first. */
const stackOf = (work: string | undefined, products: ReadonlyMap<string, Product>): string =>
  (work ?? "")
    .split("|")
    .slice(5)
    .map((part) => products.get(part.split(" ")[0])?.name)
    .filter(Boolean)
    .join(" over ");
/** Products in the zones of a job, where no plate says on what it was found. */
const paintsOf = (j: Job, products: ReadonlyMap<string, Product>): string =>
  [...new Set(j.zones.flatMap((z) => (z.productId ? [products.get(z.productId)?.name ?? ""] : [])))]
    .filter(Boolean)
    .join(", ");

/** @param jobs all of them, closed or not @param machines, products as they are by now: what is gone is told by its id */
export function bookOf(jobs: readonly Job[], machines: readonly Machine[], products: readonly Product[]): BookRow[] {
  const byId = new Map(products.map((p) => [p.id, p]));
  const rows: BookRow[] = [];
  for (const j of jobs) {
    const kept = new Map([...(j.begun?.machines ?? []), ...machines].map((m) => [m.id, m]));
    const w = j.wrapUp;
    const tried = w.good === null && w.lost === null ? 0 : (w.good ?? 0) + (w.lost ?? 0);
    const base = {
      jobId: j.id,
      job: j.title,
      substrate: substrateNamed(j.substrate.id).name,
      good: w.good,
      tried,
    };
    const row = (
      id: string,
      machineId: string,
      work: string,
      set: LaserSetting,
      stack: string,
      on: string | null,
      lines: boolean,
    ): void => {
      const m = kept.get(machineId) ?? null;
      rows.push({
        ...base,
        id: `${j.id}.${id}`,
        on,
        machineId,
        machine: m?.name ?? machineId,
        beam: m ? BEAM_KINDS[m.beam].name.split(",")[0] : "",
        work,
        stack,
        set,
        e: m && !lines ? dose(m, set) : null,
        from: set.from,
      });
    };
    for (const s of j.begun?.done ?? []) {
      if (!s.laser || !j.machineId || !isKind(s.kind)) continue;
      const k = kindOf(s.kind);
      // what the first piece went through alone was burnt as the others were
      const again = s.id.startsWith(FIRST) && (j.begun?.done ?? []).some((x) => FIRST + x.id === s.id);
      if (k.tries === "setting" || again) continue;
      row(s.id, j.machineId, k.name, s.laser, paintsOf(j, byId), w.closedAt?.slice(0, 10) ?? null, k.runs === "lines");
    }
    if (j.plate)
      row(
        "plate",
        j.plate.machineId,
        "Test plate",
        {
          power: j.plate.power,
          speed: j.plate.speed,
          interval: j.plate.interval,
          passes: j.plate.passes,
          from: "test plate",
        },
        stackOf(j.plate.work, byId) || paintsOf(j, byId),
        j.plate.at.slice(0, 10),
        false,
      );
  }
  return rows;
}

/** Share of good pieces that nine in ten such settings have at least (Jeffreys’ prior, normal on the logit); null: none was tried. */
export function reliable(good: number, tried: number): { mid: number; low: number } | null {
  if (tried <= 0) return null;
  const [a, b] = [good + 0.5, tried - good + 0.5];
  const mid = a / (a + b);
  const logit = Math.log(a / b);
  const sd = Math.sqrt(1 / a + 1 / b);
  return { mid, low: 1 / (1 + Math.exp(-(logit - 1.2816 * sd))) };
}

/** A setting of one machine on another; null: watts of one of them are not known. */
export function onMachine(set: LaserSetting, from: Machine, to: Machine): Carried | null {
  const e = dose(from, { ...set, passes: 1 });
  if (e === null) return null;
  return carry(
    { e, interval: set.interval, spotMm: from.spotMm ?? BEAM_KINDS[from.beam].spotMm, passes: set.passes },
    {
      wattsAt: (share) => wattsOf(to, share),
      shareOf: (watts) => shareOf(to, watts),
      topSpeed: topSpeed(to),
      topKnown: to.maxSpeed !== null,
      spotMm: to.spotMm ?? BEAM_KINDS[to.beam].spotMm,
    },
  );
}
/** What another beam does not carry over: paint and body take it up otherwise. */
export const carriesOver = (from: Machine, to: Machine): string | null =>
  from.beam === to.beam
    ? null
    : `${BEAM_KINDS[from.beam].name} and ${BEAM_KINDS[to.beam].name.toLowerCase()} are taken up otherwise by paint and body: ` +
      "equal energy is no start here.";
