/** The plan changed by hand: a step's figures, its place, a further one, one taken out; changes kept as data and forgotten again. */
import { freshId } from "../../core/judge/fixes";
import { addEdit } from "../../core/plan/edits";
import { FIELDS } from "../../core/plan/fields";
import { fold } from "../../core/plan/fold";
import { Text } from "../../core/records/fields";
import type { Job, PlanEdit } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { Refused } from "../../store/acts";
import { act, Bare, FieldForm } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

class StepForm {
  @Text(120) step!: string;
}
class StepFieldForm extends FieldForm {
  @Text(120) step!: string;
}
class StepMoveForm extends StepForm {
  /** behind which step; empty: first */
  @Text(120) after: string = "";
}
class StepAddForm {
  @Text(60) kind!: string;
  @Text(120) after: string = "";
}
class EditForm {
  @Text(120) edit!: string;
}

/** How a step field's text is read. */
const READ: Record<string, (v: string, w: World) => PlanEdit["value"]> = {
  minutes: (v) => typed.minutesOrNull(v),
  waitMin: (v) => typed.minutesOrNull(v),
  speed: (v, w) => typed.speed(v, w.machines.find((m) => m.id === w.job.machineId)?.maxSpeed ?? null),
  interval: (v) => typed.interval(v),
  power: (v) => typed.percent(v),
  roomRh: (v) => typed.share(v),
  depthMm: (v, w) => typed.length(v, w.shop.units),
  roomC: (v, w) => typed.temperature(v, w.shop.units),
  passes: (v) => typed.whole(v),
  dryUm: (v) => typed.number(v.replace(/\s*[µμu]m\s*$/, "")),
  sandUm: (v) => typed.number(v.replace(/\s*[µμu]m\s*$/, "")),
  canWarmed: (v) => (v === "true" ? true : null),
  byLoad: (v) => (v === "true" ? true : null),
};
/** Empty goes back to the plan's own. */
function stepValue(field: string, v: string, w: World): PlanEdit["value"] {
  if (!Object.hasOwn(FIELDS, field)) throw new Refused(`There is nothing called “${field}” to change.`);
  if (v.trim() === "") return null;
  return Object.hasOwn(READ, field) ? READ[field](v, w) : v;
}

type Draft = Omit<PlanEdit, "id" | "after" | "field" | "value"> & Partial<PlanEdit>;
const edited = (c: OnJob, what: string, draft: (j: Job) => Draft): Promise<void> =>
  changed(c, what, (j) => ({
    edits: addEdit(j.edits, { after: null, field: "", value: null, ...draft(j), id: freshId("e", j) }),
  }));

/** @throws Refused when it is begun or done: what is done is done */
function refuseDone(c: OnJob, step: string): void {
  if (fold(c.world.log).actuals.has(step))
    throw new Refused(
      "This step is begun or done at the bench: it stays as it was. Take the tap back there if that was a slip.",
    );
}

export const stepActs = [
  act("step-set", StepFieldForm, (f, c: OnJob) => {
    if (f.field !== "waitMin") refuseDone(c, f.step);
    return edited(c, "change of a step in", () => ({
      op: "set",
      step: f.step,
      field: f.field,
      value: stepValue(f.field, f.value, c.world),
    }));
  }),
  act("step-remove", StepForm, (f, c: OnJob) => {
    refuseDone(c, f.step);
    return edited(c, "removal of a step from", () => ({ op: "remove", step: f.step }));
  }),
  act("step-move", StepMoveForm, (f, c: OnJob) => {
    refuseDone(c, f.step);
    return edited(c, "order of steps in", () => ({ op: "move", step: f.step, after: f.after || null }));
  }),
  act("step-duplicate", StepForm, (f, c: OnJob) =>
    edited(c, "copy of a step in", (j) => ({
      op: "duplicate",
      step: f.step,
      after: f.step,
      field: freshId(f.step, j),
    })),
  ),
  act("step-add", StepAddForm, (f, c: OnJob) =>
    edited(c, "further step in", (j) => ({
      op: "add",
      step: freshId(f.kind, j),
      after: f.after || null,
      field: f.kind,
    })),
  ),
  act("edit-forget", EditForm, (f, c: OnJob) =>
    changed(c, "hand-made change of", (j) => ({ edits: j.edits.filter((e) => e.id !== f.edit) })),
  ),
  act("edits-forget", Bare, (_f, c: OnJob) => changed(c, "all hand-made changes of", () => ({ edits: [] }))),
];
