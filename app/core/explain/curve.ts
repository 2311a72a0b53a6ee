/** What a piece costs by how many are made, from which on a price pays, and what another tool would save: each planned whole. */
import { SCHOOLS } from "../catalogue/schools";
import { breakEven } from "../models/money/money";
import { makePlan } from "../plan/plan";
import { context } from "../process/context";
import { heatOf } from "../process/kinds/melt";
import type { PlanEdit } from "../records/job";
import { finishNamed } from "../catalogue/finishes";
import { takes } from "../catalogue/routes";
import type { World } from "../records/world";
import { costOf, type Cost } from "./cost";

export interface CurvePoint {
  n: number;
  eachMinor: number;
  totalMinor: number;
  /** pieces begun for them */
  begun: number;
  atLeast: boolean;
}
/** numbers that are tried */
export const TRIED = [1, 2, 3, 5, 8, 12, 20, 30, 50, 100] as const;
/** beyond which nobody asks when a price begins to pay */
const MOST = 400;

/** The job made so many times: nothing of it is begun, and spares are worked out anew. */
const ofMany = (w: World, n: number): World => {
  const job = { ...w.job, quantity: n, choices: { ...w.job.choices, begin: undefined } };
  delete job.begun;
  delete job.queue;
  return { ...w, log: [], job };
};
const costAt = (w: World, n: number): Cost => costOf(makePlan(ofMany(w, n), null, true));

/** @param priceMinor a piece; null: none is said */
export function* curveInTurn(w: World, priceMinor: number | null): Generator<CurvePoint, { pays: number | null }> {
  for (const n of TRIED) {
    const c = costAt(w, n);
    yield { n, eachMinor: c.eachMinor, totalMinor: c.totalMinor, begun: c.pieces, atLeast: c.atLeast };
  }
  return { pays: priceMinor === null ? null : breakEven((n) => costAt(w, n).totalMinor, priceMinor, MOST) };
}

/** Another tool for the same job. */
export interface ToolTry {
  id: string;
  name: string;
  /** a piece; null: it can’t be planned so */
  eachMinor: number | null;
  atLeast: boolean;
  /** the way it is done now */
  now: boolean;
  hands: number | null;
}

const toolOf = (w: World, id: string, name: string, now: boolean): ToolTry => {
  const plan = makePlan(w, null, true);
  const sound = plan.placed.length > 0 && !plan.missing.length;
  const cost = sound ? costOf(plan) : null;
  const minutes = plan.placed.map((p) => p.minutes);
  return {
    id,
    name,
    now,
    eachMinor: cost?.eachMinor ?? null,
    atLeast: cost?.atLeast ?? false,
    hands: sound && minutes.every((m) => m !== null) ? minutes.reduce<number>((a, m) => a + (m ?? 0), 0) : null,
  };
};

/** The same job by each way of melting, and with an airbrush in place of cans, where that is another way at all. */
export function toolTries(world: World): ToolTry[] {
  const w = ofMany(world, world.job.quantity);
  const plan = makePlan(w, null, true);
  const out: ToolTry[] = [];
  const melts = plan.placed.map((p) => p.step).filter((x) => x.kind === "melt");
  if (melts.length) {
    const now = heatOf(melts[0]);
    for (const p of SCHOOLS.find((x) => x.id === "melt")!.picks) {
      const edits = melts.map((m, i): PlanEdit => {
        const all = w.job.edits.length + i + 1;
        return { id: `try.${all}`, op: "set", step: m.id, after: null, field: "method", value: p.id };
      });
      const there = p.id === now ? w : { ...w, job: { ...w.job, edits: [...w.job.edits, ...edits] } };
      out.push(toolOf(there, `melt:${p.id}`, `Melted by ${p.name.toLowerCase()}`, p.id === now));
    }
  }
  const c = context(w);
  const brush = w.products.find(
    (p) => p.finish === "airbrush-acrylic" && c.route && takes(c.route, finishNamed(p.finish)),
  );
  const cans = w.job.zones.some((z) => {
    const p = c.job.zones.find((x) => x.id === z.id)?.productId ?? null;
    return c.paint(p)?.finish.by === "spray";
  });
  if (brush && cans) {
    const zones = w.job.zones.map((z) => (z.bare ? z : { ...z, productId: brush.id }));
    out.push(toolOf(w, "cans", "Sprayed from cans", true));
    out.push(toolOf({ ...w, job: { ...w.job, zones } }, "airbrush", `Airbrushed, as ${brush.name} is`, false));
  }
  return out;
}
