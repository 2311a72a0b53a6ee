/** What the Test page shows: plates with their cells, what they say, and where a further one would begin. */
import {
  cellsOf,
  firstPlate,
  firstOf,
  fitOf,
  guardsOf,
  perJOf,
  plateMinutes,
  questionOf,
  sizeOf,
  type PlateFit,
} from "../core/explain/plate";
import type { Plan } from "../core/plan/plan";
import { stackHex, type StackHex } from "../core/explain/plate-photo";
import { pooledFor } from "../core/explain/pooled";
import type { Job, TestPlate, Zone } from "../core/records/job";
import type { Machine } from "../core/records/machine";
import { saidAll } from "../core/units/said";
import { showMinutes } from "../core/units/show";

const r1 = (v: number): number => Math.round(v * 10) / 10;
export interface PlateShown {
  t: TestPlate;
  machine: string;
  cells: ReturnType<typeof cellsOf>;
  fit: PlateFit;
  size: { w: number; h: number };
  minutes: string;
  guards: string[];
  /** it was made on other work than the job does now */
  other: boolean;
  used: boolean;
  /** the drawing that may stand in its cells */
  zones: Zone[];
  /** the machine that it was made on; null: it is gone */
  made: Machine | null;
  /** what a photo of it is read by: colours of the stack, J/mm² at which the top is thought to go */
  stack: StackHex | null;
  first: number | null;
}

/** @param jobs all that have plates: what they say of the same stack counts here too */
export const testView = (plan: Plan, jobs: readonly Job[] = []) =>
  saidAll(testViewIn(plan, jobs), plan.context.world.shop.units);
function testViewIn(plan: Plan, jobs: readonly Job[]) {
  const c = plan.context;
  const { job, world } = c;
  const begin = firstPlate(plan);
  const [stack, first] = [stackHex(plan), firstOf(plan)];
  return {
    job,
    units: world.shop.units,
    machine: c.machine?.name ?? null,
    question: questionOf(c),
    begin: begin && {
      powers: `${r1(100 * begin.powers[0])} to ${r1(100 * begin.powers[1])} %`,
      speeds: `${r1(begin.speeds[0])} to ${r1(begin.speeds[1])} mm/s`,
      interval: `${begin.interval} mm`,
    },
    pooled: pooledFor(plan, jobs),
    // what stays free at the edge of this blank, and is sawn off: a strip of cells fits it
    margin: job.substrate.keepMm ? [job.substrate.keepMm, Math.max(job.substrate.w, job.substrate.h)] : null,
    drawn: job.zones.some((z) => !z.bare && z.outline),
    plates: (job.tests ?? [])
      .map((t): PlateShown => {
        const m = world.machines.find((x) => x.id === t.machineId) ?? null;
        const fit = fitOf(t, plan);
        return {
          t,
          machine: m?.name ?? t.machineId,
          cells: cellsOf(t, m),
          zones: t.shows === "drawing" ? job.zones : [],
          made: m,
          stack,
          first,
          fit,
          size: sizeOf(t),
          minutes: showMinutes(plateMinutes(t, m)),
          guards: m ? guardsOf(t, { ...c, machine: m }).map((g) => g.say) : [],
          other: m !== null && c.machine !== null && m.id !== c.machine.id,
          used: fit.depth
            ? m?.depths?.find((x) => x.substrate === job.substrate.id)?.perJ === perJOf(fit.depth)
            : job.plate !== null && fit.advice !== null && job.plate.note === fit.advice.says.slice(0, 400),
        };
      })
      .reverse(),
  };
}
