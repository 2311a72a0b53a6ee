/** The setting that a test plate gave. */
import { nowMinutes } from "../../clock";
import { makePlan, type Plan } from "../../core/plan/plan";
import { workOf } from "../../core/process/force";
import { kindOf } from "../../core/process/kinds";
import { PlateForm } from "../../core/records/forms";
import type { Plate } from "../../core/records/job";
import { LogEntry } from "../../core/records/log";
import { commit, Refused } from "../../store/acts";
import { act } from "../act";
import { typed } from "../answer";
import type { OnJob } from "./job";

const said = (p: Plate): string => {
  const interval = Math.round(p.interval * 1000) / 1000;
  const passes = `${p.passes} ${p.passes === 1 ? "pass" : "passes"}`;
  const note = p.note ? `: ${p.note}` : "";
  return `${Math.round(p.power * 1000) / 10} %, ${p.speed} mm/s, ${interval} mm, ${passes}${note}`;
};

/** The work of the beam that a plate of this job speaks of: what comes first behind the trial, or first of all. */
function foundFor(plan: Plan): string | null {
  const trial = plan.placed.findIndex((p) => kindOf(p.step.kind).tries === "setting");
  const at = plan.placed.find((p, i) => i > trial && kindOf(p.step.kind).starts !== undefined);
  return at ? workOf(at.step, at.before, plan.context) : null;
}

export const plateActs = [
  act("plate", PlateForm, async (f, { id, world: w }: OnJob) => {
    const machine = w.machines.find((m) => m.id === w.job.machineId);
    if (!machine) throw new Refused("Choose a machine first: a setting belongs to one.");
    const plate: Plate = {
      power: typed.percent(f.power),
      speed: typed.speed(f.speed, machine.maxSpeed),
      interval: typed.interval(f.interval),
      passes: typed.whole(f.passes || "1"),
      at: f.at,
      machineId: machine.id,
      note: f.note,
    };
    const at = nowMinutes();
    const plan = makePlan(w, Math.floor(at));
    const tried = plan.placed.find((p) => kindOf(p.step.kind).tries === "setting");
    const work = foundFor(plan);
    if (work) plate.work = work;
    const entry: LogEntry = {
      ...new LogEntry(),
      id: `${id}.${Math.round(at * 60000).toString(36)}.plate`,
      jobId: id,
      kind: "plate",
      step: tried?.step.id ?? "plate",
      at,
      note: said(plate),
    };
    // The setting and its line in the log are one act: undo takes both back.
    return commit(`setting found for “${w.job.title}”`, [
      { table: "jobs", id, next: { ...w.job, plate }, base: w.job },
      { table: "log", id: entry.id, next: entry },
    ]);
  }),
];
