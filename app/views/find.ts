/** Jobs found by anything: words, material, beam, product, flaw, outcome; a row each. */
import { BEAM_KINDS } from "../core/catalogue/beams";
import { FLAW_KINDS } from "../core/catalogue/flaws";
import { ROUTES } from "../core/catalogue/routes";
import { substrateNamed } from "../core/catalogue/substrates";
import type { Job } from "../core/records/job";
import type { ShopFacts } from "../core/records/world";

export interface FoundJob {
  id: string;
  title: string;
  client: string;
  substrate: string;
  way: string;
  machine: string;
  beam: string;
  paints: string;
  flaws: string;
  flawIds: string[];
  /** good, lost; null: nobody has said */
  good: number | null;
  lost: number | null;
  score: number | null;
  closed: string | null;
  outcome: "open" | "good" | "some lost" | "not said";
  words: string;
}

const named = new Map<string, string>(FLAW_KINDS.map((f) => [f.id, f.name]));
export function foundJobs(jobs: readonly Job[], base: ShopFacts): FoundJob[] {
  return jobs.map((j) => {
    const m = [...base.machines, ...(j.begun?.machines ?? [])].find((x) => x.id === j.machineId);
    const products = new Map([...(j.begun?.products ?? []), ...base.products].map((p) => [p.id, p.name]));
    const used = [...j.zones.map((z) => z.productId), j.choices.topId, j.choices.clearId, j.choices.sealerId];
    const paints = [...new Set(used.flatMap((id) => (id ? (products.get(id) ?? []) : [])))].join(", ");
    const w = j.wrapUp;
    const flawIds = [...new Set(w.flaws.map((f) => f.flaw as string))];
    const flaws = flawIds.map((f) => named.get(f) ?? f).join(", ");
    return {
      id: j.id,
      title: j.title,
      client: j.client,
      substrate: substrateNamed(j.substrate.id).name,
      way: ROUTES.find((r) => r.id === j.route)?.name ?? "",
      machine: m?.name ?? "",
      beam: m ? BEAM_KINDS[m.beam].name : "",
      paints,
      flaws,
      flawIds,
      good: w.good,
      lost: w.lost,
      score: w.score,
      closed: w.closedAt?.slice(0, 10) ?? null,
      outcome: w.closedAt === null ? "open" : w.lost ? "some lost" : w.good !== null ? "good" : "not said",
      words: [j.title, j.client, j.note, j.order.text, w.note, ...w.flaws.map((f) => f.note)].join(" "),
    };
  });
}
