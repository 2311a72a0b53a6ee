/** The brief: what is made, of what, for whom, by when, on which machine, by which route. */
import { isSubstrate } from "../../core/catalogue/substrates";
import { USES, type RouteId } from "../../core/records/ids";
import type { Job } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { gaugeToMm, readGauge } from "../../core/units/gauge";
import { goesBy } from "../../core/plan/goes";
import { Refused } from "../../store/acts";
import { act, FieldForm, readField, type Readers } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

const local = (t: string): string | null => (t.trim() === "" ? null : t.trim().slice(0, 16));
type Of = { j: Job; w: World };

/** Thickness typed as a length or as a sheet's gauge. */
function thickness(v: string, { j, w }: Of): number {
  const gauge = readGauge(v);
  if (gauge === null) return typed.length(v, w.shop.units);
  const t = gaugeToMm(gauge, j.substrate.id.startsWith("steel") ? "steel" : "other");
  if (t === null) throw new Refused(`There is no sheet of ${gauge} gauge.`);
  return Math.round(t * 1000) / 1000;
}

const FIELDS: Readers<Job, Of> = {
  title: (v) => ({ title: v.trim() || "Untitled" }),
  client: (v) => ({ client: v.trim() }),
  quantity: (v) => ({ quantity: typed.whole(v) }),
  due: (v) => ({ due: local(v) }),
  start: (v) => {
    const t = local(v);
    if (!t) throw new Refused("Say from when work may begin.");
    return { start: t };
  },
  "substrate.id": (v, { j }) => {
    if (!isSubstrate(v)) throw new Refused(`There is no substrate “${v}”.`);
    return { substrate: { ...j.substrate, id: v } };
  },
  "substrate.w": (v, { j, w }) => ({ substrate: { ...j.substrate, w: typed.length(v, w.shop.units) } }),
  "substrate.h": (v, { j, w }) => ({ substrate: { ...j.substrate, h: typed.length(v, w.shop.units) } }),
  "substrate.t": (v, of) => ({ substrate: { ...of.j.substrate, t: thickness(v, of) } }),
  "substrate.shape": (v, { j }) => ({
    substrate: { ...j.substrate, shape: v === "ball" || v === "cylinder" ? v : undefined },
  }),
  "substrate.diameter": (v, { j, w }) => ({
    substrate: { ...j.substrate, diameter: v.trim() ? typed.length(v, w.shop.units) : undefined },
  }),
  note: (v) => ({ note: v }),
  units: (v) => ({ units: v as Job["units"] }),
  credit: (v) => ({ credit: v.trim() || undefined }),
  machineId: (v) => ({ machineId: v || null }),
  route: (v, { j }) => goesBy(j, (v || null) as RouteId | null),
  "order.text": (v, { j }) => ({ order: { ...j.order, text: v } }),
  "order.proofSent": (v, { j }) => ({ order: { ...j.order, proofSent: local(v) } }),
  "order.proofAccepted": (v, { j }) => ({ order: { ...j.order, proofAccepted: local(v) } }),
  "order.delivered": (v, { j }) => ({ order: { ...j.order, delivered: local(v) } }),
};
/** what a field is called in the history */
const LABEL: Record<string, string> = {
  title: "name",
  due: "due date",
  "substrate.id": "substrate",
  machineId: "machine",
};

export const briefActs = [
  act("set", FieldForm, (f, c: OnJob) =>
    changed(c, `${LABEL[f.field] ?? f.field.split(".").pop()} of`, (j) => readField(FIELDS, f, { j, w: c.world })),
  ),
  act("use", FieldForm, (f, c: OnJob) =>
    changed(c, "use of", (j) => ({
      use: USES.filter((u) => (u === f.field ? f.value === "true" : j.use.includes(u))),
    })),
  ),
];
