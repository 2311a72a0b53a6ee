/**
 * Changes made to a plan by hand, as data. They are laid on whatever the engine makes of today's brief; one that no longer
 * fits is listed and kept, never dropped.
 */
import type { PlanEdit } from "../records/job";
import type { Context } from "../process/context";
import { coatName } from "./builder";
import { isKind, kindOf } from "../process/kinds";
import { LAYS, suited } from "../process/lays";
import { newStep, type Step } from "../process/step";

export interface Unfit {
  edit: PlanEdit;
  why: string;
}

type Value = PlanEdit["value"];
interface Field {
  label: string;
  unit: string;
  set(s: Step, v: Value, c: Context): string | null;
}
const number =
  (
    key: "dryUm" | "depthMm" | "sandUm" | "minutes" | "waitMin" | "roomC" | "roomRh",
    min: number,
    max: number,
    nullable = true,
  ) =>
  (s: Step, v: Value): string | null => {
    if (v === null && nullable) return null;
    if (typeof v !== "number" || v < min || v > max) return `needs a number from ${min} to ${max}`;
    s[key] = v;
    return null;
  };
const laser =
  (key: "power" | "speed" | "interval" | "passes", min: number, max: number) =>
  (s: Step, v: Value): string | null => {
    if (v === null) return null;
    if (typeof v !== "number" || v < min || v > max) return `needs a number from ${min} to ${max}`;
    if (!s.laser) return "has no laser setting";
    s.laser = { ...s.laser, [key]: v, from: "typed" };
    return null;
  };
const flag =
  (key: "canWarmed" | "byLoad") =>
  (s: Step, v: Value): string | null => {
    if (v !== null && typeof v !== "boolean") return "needs true or false";
    s[key] = v === true;
    return null;
  };

/** What can be changed in place, and how it is checked. */
export const FIELDS: Record<string, Field> = {
  title: {
    label: "Name",
    unit: "",
    set: (s, v) =>
      typeof v === "string" && v.trim() ? ((s.title = v.trim()), null) : v === null ? null : "needs a name",
  },
  note: { label: "Note", unit: "", set: (s, v) => ((s.note = typeof v === "string" ? v : ""), null) },
  dryUm: { label: "Film, dry", unit: "µm", set: number("dryUm", 0.1, 5000) },
  depthMm: { label: "Depth", unit: "mm", set: number("depthMm", 0.01, 50) },
  sandUm: { label: "Sanded off", unit: "µm", set: number("sandUm", 0, 20000) },
  minutes: { label: "Minutes", unit: "min", set: number("minutes", 0, 1e5) },
  waitMin: { label: "Wait after it", unit: "min", set: number("waitMin", 0, 1e6) },
  roomC: { label: "Dried at", unit: "°C", set: number("roomC", -20, 40) },
  roomRh: { label: "Humidity there", unit: "", set: number("roomRh", 0, 1) },
  power: { label: "Power", unit: "share", set: laser("power", 0.001, 1) },
  speed: { label: "Speed", unit: "mm/s", set: laser("speed", 0.1, 50000) },
  interval: { label: "Interval", unit: "mm", set: laser("interval", 0.005, 5) },
  passes: { label: "Passes", unit: "", set: laser("passes", 1, 50) },
  canWarmed: { label: "Can warmed", unit: "", set: flag("canWarmed") },
  byLoad: { label: "Load by load", unit: "", set: flag("byLoad") },
  productId: {
    label: "Product",
    unit: "",
    set: (s, v, c) => {
      if (v === null) return null;
      if (typeof v !== "string" || !c.hasPaint(v)) return "names a product that is not on the Shelf";
      s.productId = v;
      s.dryUm = c.paintOf(v).coatUm.value;
      if (s.kind === "coat") s.title = coatName(c.paintOf(v).product.name, s.coat ?? 1);
      return null;
    },
  },
  method: {
    label: "Melted with",
    unit: "",
    set: (s, v) =>
      v === null || v === "gun" || v === "oven" || v === "laser"
        ? ((s.method = v as Step["method"]), null)
        : "names no way of melting",
  },
  maskId: {
    label: "Mask",
    unit: "",
    set: (s, v, c) => {
      if (v === null) return null;
      if (typeof v !== "string" || !c.hasPaint(v) || !c.paintOf(v).mask) return "names a tape that is not on the Shelf";
      s.productId = v;
      return null;
    },
  },
  role: {
    label: "Purpose",
    unit: "",
    set: (s, v) =>
      typeof v === "string" && ["seal", "white", "colour", "top", "clear", "barrier", "touch-up", "backing"].includes(v)
        ? ((s.role = v as Step["role"]), null)
        : "names no purpose of a coat",
  },
  zones: {
    label: "Zones",
    unit: "",
    set: (s, v, c) => {
      if (typeof v !== "string") return "needs zone ids";
      const ids = v
        .split(",")
        .map((x) => x.trim())
        .filter(Boolean);
      const lost = ids.find((z) => !c.allZones.includes(z));
      if (lost) return `names the zone “${lost}”, which the artwork no longer has`;
      s.zones = ids;
      return null;
    },
  },
};

/** kinds that work the whole face when they are added by hand */
const WHOLE_FACE = [
  "sand-back",
  "final-check",
  "scuff-film",
  "strip",
  "mask-lay",
  "mask-lift",
  "peel-film",
  "flood-epoxy",
];

const indexAfter = (steps: Step[], after: string | null): number | null => {
  if (after === null) return 0;
  const i = steps.findIndex((s) => s.id === after);
  return i < 0 ? null : i + 1;
};

/** Lay edits on generated steps. Neither list is changed. */
export function applyEdits(generated: Step[], edits: PlanEdit[], c: Context): { steps: Step[]; unfit: Unfit[] } {
  let steps = generated.map((s) => ({ ...s, edited: [...s.edited] }));
  const unfit: Unfit[] = [];
  for (const edit of edits) {
    const no = (why: string): void => void unfit.push({ edit, why });
    if (edit.op === "add") {
      const at = indexAfter(steps, edit.after);
      const [kind, productId] = [edit.field, typeof edit.value === "string" ? edit.value : null];
      if (!isKind(kind)) no(`there is no step kind “${kind}”`);
      else if (steps.some((s) => s.id === edit.step)) no("there is a step of this id already");
      else {
        if (at === null) no("the step it stood behind is gone; it stands at the end");
        const s = newStep(edit.step, kind, kindOf(kind).name, {
          origin: "edit",
          zones:
            kind === "coat"
              ? c.filled.map((z) => z.id)
              : WHOLE_FACE.includes(kind)
                ? c.allZones
                : c.filled.map((z) => z.id),
          sandUm: kind === "sand-back" ? 40 : kind === "sand-residue" ? 20 : null,
        });
        const id = productId ?? suited(kind, c)?.id ?? null;
        if (c.hasPaint(id))
          Object.assign(s, {
            productId: id,
            dryUm: c.paintOf(id).coatUm.value,
            ...(kind === "coat" ? { title: coatName(c.paintOf(id).product.name, 1) } : {}),
          });
        if (LAYS.includes(kind)) Object.assign(s, { role: kind === "flood-epoxy" ? "clear" : "colour" });
        steps.splice(at ?? steps.length, 0, s);
      }
      continue;
    }
    const i = steps.findIndex((s) => s.id === edit.step);
    if (i < 0) {
      no(`the plan no longer has the step “${edit.step}”`);
      continue;
    }
    if (edit.op === "remove") steps = steps.filter((_s, k) => k !== i);
    else if (edit.op === "move") {
      const [s] = steps.splice(i, 1);
      const at = indexAfter(steps, edit.after);
      if (at === null) no("the step it was put behind is gone");
      steps.splice(at ?? i, 0, s);
    } else if (edit.op === "duplicate") {
      const id = edit.field;
      if (!id || steps.some((s) => s.id === id)) no("there is a step of this id already");
      else {
        const at = indexAfter(steps, edit.after ?? edit.step) ?? i + 1;
        steps.splice(at, 0, { ...steps[i], id, origin: "edit", edited: [...steps[i].edited] });
      }
    } else {
      const field = Object.hasOwn(FIELDS, edit.field) ? FIELDS[edit.field] : null;
      const draft = { ...steps[i] };
      const wrong = field ? field.set(draft, edit.value, c) : `there is nothing called “${edit.field}” to change`;
      if (wrong) no(field ? `${field.label} of “${draft.title}” ${wrong}` : wrong);
      else {
        draft.edited =
          edit.value === null
            ? draft.edited.filter((f) => f !== edit.field)
            : [...new Set([...draft.edited, edit.field])];
        steps[i] = draft;
      }
    }
  }
  return { steps: renumber(steps, c), unfit };
}

/** Coats are counted in the order they are laid now. */
function renumber(steps: Step[], c: Context): Step[] {
  const count = new Map<string, number>();
  return steps.map((s) => {
    if (s.kind !== "coat" || !c.hasPaint(s.productId)) return s;
    const key = `${s.role}|${s.productId}`;
    const n = (count.get(key) ?? 0) + 1;
    count.set(key, n);
    return {
      ...s,
      coat: n,
      title: s.edited.includes("title") ? s.title : coatName(c.paintOf(s.productId).product.name, n),
    };
  });
}

/** Merge a fresh edit into a list: setting the same field of the same step again replaces the older setting. */
export function addEdit(edits: PlanEdit[], fresh: PlanEdit): PlanEdit[] {
  if (fresh.op !== "set") return [...edits, fresh];
  const rest = edits.filter((e) => !(e.op === "set" && e.step === fresh.step && e.field === fresh.field));
  return fresh.value === null ? rest : [...rest, fresh];
}
