/**
 * Changes made to a plan by hand, as data. They are laid on whatever the engine makes of today's brief; one that no longer
 * fits is listed and kept, never dropped. What can be changed of a step is in fields.ts.
 */
import { isMist } from "../process/kinds/coat";
import type { PlanEdit } from "../records/job";
import type { Context } from "../process/context";
import { isKind, kindOf, newStep, type KindId, type Step } from "../process/kinds";
import { suited } from "../process/suits";
import { coatName } from "./builder";
import { FIELDS } from "./fields";
import { batchOf } from "./proof";

export interface Unfit {
  edit: PlanEdit;
  why: string;
}

/** µm that sanding put in by hand begins with */
const ADDED_SAND_UM = { face: 40, residue: 20 };

const indexAfter = (steps: Step[], after: string | null): number | null => {
  if (after === null) return 0;
  const i = steps.findIndex((s) => s.id === after);
  return i < 0 ? null : i + 1;
};

type Said = (why: string) => void;
/** One edit laid on; says what of it does not fit. */
type Lay = (steps: Step[], edit: PlanEdit, c: Context, no: Said) => Step[];

/** A step put in by hand, with what suits it of the Shelf. */
function added(edit: PlanEdit, kind: KindId, c: Context): Step {
  const k = kindOf(kind);
  const named = typeof edit.value === "string" ? edit.value : null;
  const id = named ?? suited(kind, c)?.id ?? null;
  const paint = c.paint(id);
  const more: Record<string, unknown> = {
    origin: "edit",
    zones: k.on === "face" ? c.allZones : c.filled.map((z) => z.id),
  };
  if (k.sands === "face" || k.sands === "residue") more.sandUm = ADDED_SAND_UM[k.sands];
  if (paint && k.has.includes("productId")) more.productId = id;
  if (paint && k.has.includes("dryUm")) more.dryUm = paint.coatUm.value;
  if (k.has.includes("role")) more.role = paint?.finish.family === "epoxy" ? "clear" : "colour";
  const title = paint && kind === "coat" ? coatName(paint.product.name, 1) : k.name;
  return newStep(edit.step, kind, title, more as object);
}

const add: Lay = (steps, edit, c, no) => {
  if (!isKind(edit.field)) no(`there is no step kind “${edit.field}”`);
  else if (steps.some((s) => s.id === edit.step)) no("there is a step of this id already");
  else {
    const at = indexAfter(steps, edit.after);
    if (at === null) no("the step it stood behind is gone; it stands at the end");
    return steps.toSpliced(at ?? steps.length, 0, added(edit, edit.field, c));
  }
  return steps;
};

/** Edits of a step that is there. */
const OF_STEP: Record<Exclude<PlanEdit["op"], "add">, (i: number) => Lay> = {
  remove: (i) => (steps) => steps.toSpliced(i, 1),
  move: (i) => (steps, edit, _c, no) => {
    const rest = steps.toSpliced(i, 1);
    const at = indexAfter(rest, edit.after);
    if (at === null) no("the step it was put behind is gone");
    return rest.toSpliced(at ?? i, 0, steps[i]);
  },
  duplicate: (i) => (steps, edit, _c, no) => {
    const id = edit.field;
    if (!id || steps.some((s) => s.id === id)) {
      no("there is a step of this id already");
      return steps;
    }
    const at = indexAfter(steps, edit.after ?? edit.step) ?? i + 1;
    return steps.toSpliced(at, 0, { ...steps[i], id, origin: "edit", edited: [...steps[i].edited] });
  },
  set: (i) => (steps, edit, c, no) => {
    const field = Object.hasOwn(FIELDS, edit.field) ? FIELDS[edit.field] : null;
    if (!field) {
      no(`there is nothing called “${edit.field}” to change`);
      return steps;
    }
    const was = steps[i];
    const set = field.set(was, edit.value, c);
    if (typeof set === "string") {
      no(`${field.label} of “${was.title}” ${set}`);
      return steps;
    }
    const others = was.edited.filter((f) => f !== edit.field);
    const edited =
      edit.value === null ? others : was.edited.includes(edit.field) ? was.edited : [...others, edit.field];
    return steps.with(i, { ...was, ...set, edited } as Step);
  },
};

/** Lay edits on generated steps. Neither list is changed. */
export function applyEdits(generated: Step[], edits: PlanEdit[], c: Context): { steps: Step[]; unfit: Unfit[] } {
  let steps = generated;
  const unfit: Unfit[] = [];
  for (const edit of edits) {
    const no: Said = (why) => void unfit.push({ edit, why });
    if (edit.op === "add") {
      steps = add(steps, edit, c, no);
      continue;
    }
    const i = steps.findIndex((s) => s.id === edit.step);
    if (i < 0) no(`the plan no longer has the step “${edit.step}”`);
    else steps = OF_STEP[edit.op](i)(steps, edit, c, no);
  }
  return { steps: renumber(steps, c), unfit };
}

/** Coats are counted in the order they are laid now. */
function renumber(steps: Step[], c: Context): Step[] {
  const count = new Map<string, number>();
  return steps.map((s) => {
    const paint = s.kind === "coat" ? c.paint(s.productId) : null;
    if (s.kind !== "coat" || !paint) return s;
    const as = isMist(s) ? "mist" : s.role === "barrier" ? "barrier" : null;
    // what is laid light into one cut after another is no second coat
    const key = `${s.role}|${s.productId}|${as}|${as === "barrier" ? s.zones.join() : ""}`;
    const n = (count.get(key) ?? 0) + 1;
    count.set(key, n);
    return { ...s, coat: n, title: s.edited.includes("title") ? s.title : coatName(paint.product.name, n, as) };
  });
}

/** Merge a fresh edit into a list: setting the same field of the same step again replaces the older setting. */
export function addEdit(edits: PlanEdit[], of: PlanEdit): PlanEdit[] {
  // what is changed of a step that piece 1 goes through alone is changed of the batch’s
  const fresh = { ...of, step: batchOf(of.step), after: of.after === null ? null : batchOf(of.after) };
  if (fresh.op !== "set") return [...edits, fresh];
  const rest = edits.filter((e) => !(e.op === "set" && e.step === fresh.step && e.field === fresh.field));
  return fresh.value === null ? rest : [...rest, fresh];
}
