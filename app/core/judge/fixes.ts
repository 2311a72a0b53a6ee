/** Ways in which a fix changes the world: plan edits, the brief, the Shelf, the shop. All pure. */
import type { Job, PlanEdit } from "../records/job";
import type { Machine } from "../records/machine";
import { Can, DryTimes, Product } from "../records/product";
import type { Shop } from "../records/shop";
import type { World } from "../records/world";
import { addEdit } from "../plan/edits";
import type { KindId } from "../process/kinds";
import type { Fix } from "./snag";

export type Draft = Omit<PlanEdit, "id" | "after" | "field" | "value"> &
  Partial<Pick<PlanEdit, "after" | "field" | "value">>;

/** A step of a kind put behind another; `value`: the product that it lays. */
export const addStep = (kind: KindId, step: string, after: string | null, value: PlanEdit["value"] = null): Draft => ({
  op: "add",
  step,
  after,
  field: kind,
  value,
});

/** Ids count up with the edits there are, so that the same fix on the same job is the same edit. */
export const freshId = (prefix: string, job: Job): string => {
  for (let n = job.edits.length + 1; ; n++) {
    const id = `${prefix}.x${n}`;
    if (!job.edits.some((e) => e.id === id || e.step === id || e.field === id)) return id;
  }
};

export const withEdits = (w: World, edits: Draft[]): World => ({
  ...w,
  job: edits.reduce<Job>(
    (job, e) => ({
      ...job,
      edits: addEdit(job.edits, { after: null, field: "", value: null, ...e, id: freshId("e", job) }),
    }),
    w.job,
  ),
});
export const editFix = (id: string, label: string, edits: (job: Job) => Draft[]): Fix => ({
  id,
  label,
  apply: (w) => withEdits(w, edits(w.job)),
});
export const setFix = (id: string, label: string, step: string, fields: Record<string, PlanEdit["value"]>): Fix =>
  editFix(id, label, () => Object.entries(fields).map(([field, value]) => ({ op: "set", step, field, value })));
export const jobFix = (id: string, label: string, change: (j: Job) => Partial<Job>): Fix => ({
  id,
  label,
  apply: (w) => ({ ...w, job: { ...w.job, ...change(w.job) } }),
});
export const choiceFix = (id: string, label: string, change: Partial<Job["choices"]>): Fix =>
  jobFix(id, label, (j) => ({ choices: { ...j.choices, ...change } }));
export const shopFix = (id: string, label: string, change: (s: Shop) => Partial<Shop>): Fix => ({
  id,
  label,
  apply: (w) => ({ ...w, shop: { ...w.shop, ...change(w.shop) } }),
});
export const productFix = (
  id: string,
  label: string,
  productId: string,
  change: (p: Product) => Partial<Product>,
): Fix => ({
  id,
  label,
  apply: (w) => ({ ...w, products: w.products.map((p) => (p.id === productId ? { ...p, ...change(p) } : p)) }),
});
export const machineFix = (id: string, label: string, machine: Machine): Fix => ({
  id,
  label,
  apply: (w) => ({
    ...w,
    machines: w.machines.some((m) => m.id === machine.id) ? w.machines : [...w.machines, machine],
    job: { ...w.job, machineId: machine.id, plate: null },
  }),
});

/** Put a step back that an edit took out; else add one of the kind behind `after`. */
export const restoreOrAdd = (
  id: string,
  label: string,
  removed: (e: PlanEdit) => boolean,
  add: (job: Job) => Draft[],
): Fix => ({
  id,
  label,
  apply: (w) => {
    const gone = w.job.edits.filter((e) => e.op === "remove" && removed(e));
    return gone.length
      ? { ...w, job: { ...w.job, edits: w.job.edits.filter((e) => !gone.includes(e)) } }
      : withEdits(w, add(w.job));
  },
});

/** A full can, the size of the ones already there. */
export function fullCan(p: Product, n: number, ml: number): Can {
  return {
    ...new Can(),
    id: `${p.id}.can${p.cans.length + n}`.slice(0, 100),
    label: `Can ${p.cans.length + n}`,
    fullMl: ml,
    leftMl: ml,
  };
}

/** A product made from a finish's defaults. */
export const plainProduct = (
  id: string,
  name: string,
  finish: string,
  colour: string,
  more: Partial<Product> = {},
): Product => ({ ...new Product(), times: { ...new DryTimes() }, cans: [], id, name, finish, colour, ...more });

/** what takes back the figures of a setting that were typed */
export const AS_COMPUTED = { power: null, speed: null, interval: null, passes: null };
