/** Things put in where a job lacks them: a machine, a paint. */
import { isFinish } from "../../core/catalogue/finishes";
import { defaultMachine, defaultProduct } from "../../core/catalogue/starter";
import { MachineForm, PaintForm } from "../../core/records/forms";
import { commit, Refused } from "../../store/acts";
import { act, colourOf, freeId } from "../act";
import { typed } from "../answer";
import type { OnJob } from "./job";

export const addActs = [
  act("add-machine", MachineForm, (f, { id, world: w }: OnJob) => {
    const known = w.machines.map((m) => m.id);
    const m = defaultMachine(f.beam, typed.number(f.watts), freeId(`${f.beam}-${f.watts}`, known, f.beam));
    const named = { ...m, name: f.name.trim() || m.name };
    return commit(`machine “${named.name}”`, [
      { table: "machines", id: m.id, next: named, base: null },
      { table: "jobs", id, next: { ...w.job, machineId: m.id }, base: w.job },
    ]);
  }),
  act("add-product", PaintForm, (f, { id, world: w }: OnJob) => {
    const name = f.name.trim();
    if (!isFinish(f.finish)) throw new Refused(`There is no finish “${f.finish}”.`);
    const known = w.products.map((p) => p.id);
    const p = defaultProduct(freeId(name, known, "paint"), name, f.finish, colourOf(f.colour));
    const zones = w.job.zones.map((z) => (z.id === f.zone ? { ...z, productId: p.id, bare: false } : z));
    return commit(`“${name}” on the Shelf`, [
      { table: "products", id: p.id, next: p, base: null },
      { table: "jobs", id, next: f.zone ? { ...w.job, zones } : w.job, base: w.job },
    ]);
  }),
];
