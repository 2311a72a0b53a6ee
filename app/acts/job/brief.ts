/** The brief: what is made, of what, for whom, by when, on which machine, by which route. */
import { isSubstrate, substrateNamed } from "../../core/catalogue/substrates";
import { USES, type RouteId } from "../../core/records/ids";
import { BadOutline, holds, resized } from "../../core/geometry/blank";
import { Text } from "../../core/records/fields";
import type { Hole, Job } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { inSize } from "../../core/plan/again";
import { SizeForm } from "../../core/records/forms";
import { showLength } from "../../core/units/show";
import { readHeads } from "../../store/queries";
import { ownOriginal } from "./picture";
import { gaugeToMm, readGauge } from "../../core/units/gauge";
import { goesBy } from "../../core/plan/goes";
import { commit, Refused } from "../../store/acts";
import { blankFromFile } from "../../io/import/blank";
import { act, colourOf, FieldForm, freeId, HUGE, readField, type Readers } from "../act";
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

/** mm, default of rounded corners */
const CORNER_MM = 6;
/** A width or height; nothing is less wide than a hair. */
function sized(v: string, w: World): number {
  const mm = typed.length(v, w.shop.units);
  if (!(mm > 0)) throw new Refused("A piece has some width and height.");
  return mm;
}

/** Round holes as they are typed: how wide, and where their middle lies from the left and the upper edge; one after another by “;”. */
function holesOf(v: string, { j, w }: Of): Hole[] {
  const parts = v.split(/[;\n]/).filter((x) => x.trim());
  return parts.map((part): Hole => {
    const [wide, where = ""] = part.split(/\s+at\s+/i);
    const at = where.split(/,\s+|\s+and\s+/i);
    if (at.length !== 2)
      throw new Refused(
        `“${part.trim()}” is no hole. Say how wide, and from the left and the top where: 4 mm at 10 mm, 12 mm.`,
      );
    const [d, x, y] = [wide, ...at].map((t) => typed.length(t, w.shop.units));
    if (!(d > 0)) throw new Refused(`The hole “${part.trim()}” needs some width.`);
    if (!holds(j.substrate, { x, y, d })) throw new Refused(`The hole “${part.trim()}” does not lie within the piece.`);
    return { x, y, d };
  });
}

/** Share of a price, as a maker types it: 35, 35 %. */
export function margin(v: string): number {
  const share = typed.percent(v);
  if (!(share >= 0 && share <= 0.95)) throw new Refused("A margin lies between 0 and 95 %.");
  return share;
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
    // what was said of the other sheet is not true of this one
    const other = { colour: undefined, beneath: undefined, skinUm: undefined };
    return { substrate: { ...j.substrate, ...(v === j.substrate.id ? {} : other), id: v } };
  },
  "substrate.colour": (v, { j }) => ({ substrate: { ...j.substrate, colour: ownColour(v, j, "colour") } }),
  "substrate.beneath": (v, { j }) => ({ substrate: { ...j.substrate, beneath: ownColour(v, j, "beneath") } }),
  "substrate.skinUm": (v, { j }) => ({ substrate: { ...j.substrate, skinUm: skinUm(v, j) } }),
  "substrate.w": (v, { j, w }) => ({ substrate: resized(j.substrate, sized(v, w), j.substrate.h) }),
  "substrate.h": (v, { j, w }) => ({ substrate: resized(j.substrate, j.substrate.w, sized(v, w)) }),
  "substrate.blank": (v, { j }) => {
    if (v === "path" && !j.substrate.blank?.path) throw new Refused("Give the file with its outline first.");
    const form = v === "rounded" || v === "oval" || v === "path" ? v : null;
    const { blank } = j.substrate;
    // corners that nobody has measured yet are rounded by a common router bit
    const cornerMm = form === "rounded" ? (blank?.cornerMm ?? CORNER_MM) : blank?.cornerMm;
    return { substrate: { ...j.substrate, blank: form ? { ...blank, form, cornerMm } : undefined } };
  },
  "substrate.cornerMm": (v, { j, w }) => ({
    substrate: {
      ...j.substrate,
      blank: { ...j.substrate.blank, form: "rounded", cornerMm: typed.length(v, w.shop.units) },
    },
  }),
  "substrate.holes": (v, of) => {
    const holes = holesOf(v, of);
    return { substrate: { ...of.j.substrate, holes: holes.length ? holes : undefined } };
  },
  "substrate.keepMm": (v, { j, w }) => {
    const keepMm = typed.lengthOrNull(v, w.shop.units);
    return { substrate: { ...j.substrate, keepMm: keepMm || undefined } };
  },
  "substrate.t": (v, of) => ({ substrate: { ...of.j.substrate, t: thickness(v, of) } }),
  "substrate.shape": (v, { j }) => ({
    substrate: { ...j.substrate, shape: v === "ball" || v === "cylinder" ? v : undefined },
  }),
  "substrate.diameter": (v, { j, w }) => ({
    substrate: { ...j.substrate, diameter: v.trim() ? typed.length(v, w.shop.units) : undefined },
  }),
  "price.eachMinor": (v, { j, w }) => ({
    price: { ...j.price, eachMinor: typed.money(v, (w.elsewhere ?? w).shop.currency) },
  }),
  "price.margin": (v, { j }) => ({ price: { ...j.price, margin: v.trim() ? margin(v) : undefined } }),
  blankLot: (v) => ({ blankLot: v || undefined }),
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
  "substrate.blank": "outline",
  "substrate.cornerMm": "corners",
  "substrate.keepMm": "margin",
  "substrate.colour": "colour",
  "substrate.beneath": "what lies beneath",
  "substrate.skinUm": "skin",
};

/** A colour of this very sheet; absent where it is the material's own. */
function ownColour(v: string, j: Job, of: "colour" | "beneath"): string | undefined {
  const hex = colourOf(v);
  const row = substrateNamed(j.substrate.id);
  return hex === (of === "colour" ? row.colour : row.skin?.beneath) ? undefined : hex;
}
/** µm, or a length with its unit. */
function skinUm(v: string, j: Job): number | undefined {
  if (!v.trim()) return undefined;
  const plain = /^[\d.,\s]+(µm|um)?$/i.test(v.trim());
  const um = plain ? typed.number(v.replace(/\s*(µm|um)$/i, "")) : typed.length(v, j.units) * 1000;
  if (!(um >= 1 && um <= 3000)) throw new Refused("A skin is between 1 and 3000 µm thick: 25 µm, 0.1 mm.");
  return um;
}

class OutlineForm {
  @Text(200) name!: string;
  @Text(HUGE) text!: string;
}

export const briefActs = [
  act("size-add", SizeForm, async (f, c: OnJob) => {
    const { job, shop } = c.world;
    const [w, h] = [sized(f.w, c.world), sized(f.h, c.world)];
    const ids = (await readHeads()).map((x) => x.id);
    const size = [w, h].map((mm) => showLength(mm, shop.units)).join(" × ");
    const fresh = {
      id: freeId(`${job.title} ${size}`, ids, "job"),
      title: `${job.title}, ${size}`.slice(0, 120),
    };
    const set = job.set ?? job.id;
    const own = await ownOriginal(inSize(job, { ...fresh, set }, typed.whole(f.pieces), w, h));
    await commit(`“${fresh.title}”, of the same order`, [
      { table: "jobs", id: own.made.id, next: own.made, base: null },
      ...(job.set ? [] : [{ table: "jobs" as const, id: job.id, next: { ...job, set }, base: job }]),
      ...own.puts,
    ]);
    return `“${fresh.title}” stands beside it`;
  }),
  act("blank-file", OutlineForm, async (f, c: OnJob) => {
    const got = await blankFromFile(f.name, f.text).catch((e: unknown) => {
      throw e instanceof BadOutline ? new Refused(`“${f.name}”: ${e.message}`) : e;
    });
    return changed(c, "outline of", (j) => ({ substrate: { ...j.substrate, ...got, holes: undefined } }));
  }),
  act("set", FieldForm, (f, c: OnJob) =>
    changed(c, `${LABEL[f.field] ?? f.field.split(".").pop()} of`, (j) => readField(FIELDS, f, { j, w: c.world })),
  ),
  act("use", FieldForm, (f, c: OnJob) =>
    changed(c, "use of", (j) => ({
      use: USES.filter((u) => (u === f.field ? f.value === "true" : j.use.includes(u))),
    })),
  ),
];
