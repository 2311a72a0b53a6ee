/** Acts on a job that its tabs share: fields set, steps edited, fixes applied, things added where the job lacks them. */
import { defaultMachine, defaultProduct } from "../core/catalogue/starter";
import { isSubstrate } from "../core/catalogue/substrates";
import { addEdit } from "../core/plan/edits";
import { FIELDS } from "../core/plan/fields";
import { makePlan } from "../core/plan/plan";
import { findFix } from "../core/judge/judge";
import { waysOut } from "../core/plan/rescue";
import { withArtwork } from "../core/geometry/artwork";
import { freshId } from "../core/judge/fixes";
import { withPick } from "../core/catalogue/schools";
import { USES, type Beam, type RouteId } from "../core/records/ids";
import type { Job, PlanEdit } from "../core/records/job";
import { LogEntry, type Photo } from "../core/records/log";
import { standing } from "../core/bench/next";
import { waysOutOf } from "../core/bench/missed";
import type { World } from "../core/records/world";
import type { FoundArtwork } from "../core/vector/zones";
import { gaugeToMm, readGauge } from "../core/units/gauge";
import { nowMinutes } from "../clock";
import { commit, Refused, type Put } from "../store/acts";
import { readWorld } from "../store/queries";
import { answer, typed } from "./answer";
import { changeJob } from "./job-data";
import type { Outcome } from "../ui/kit/field";

type Form = Record<string, string>;
const local = (t: string): string | null => (t.trim() === "" ? null : t.trim().slice(0, 16));
const tri = (t: string): boolean | null => (t === "" ? null : t === "true");

/** Fields of the brief and of the choices, each with how its text is read. */
const SET: Record<string, (j: Job, v: string, w: World) => Partial<Job>> = {
  title: (_j, v) => ({ title: v.trim() || "Untitled" }),
  client: (_j, v) => ({ client: v.trim() }),
  quantity: (_j, v) => ({ quantity: typed.whole(v) }),
  due: (_j, v) => ({ due: local(v) }),
  start: (_j, v) => {
    const t = local(v);
    if (!t) throw new Refused("Say from when work may begin.");
    return { start: t };
  },
  "substrate.id": (j, v) => {
    if (!isSubstrate(v)) throw new Refused(`There is no substrate “${v}”.`);
    return { substrate: { ...j.substrate, id: v } };
  },
  "substrate.w": (j, v, w) => ({ substrate: { ...j.substrate, w: typed.length(v, w.shop.units) } }),
  "substrate.h": (j, v, w) => ({ substrate: { ...j.substrate, h: typed.length(v, w.shop.units) } }),
  "substrate.t": (j, v, w) => {
    const gauge = readGauge(v);
    if (gauge === null) return { substrate: { ...j.substrate, t: typed.length(v, w.shop.units) } };
    const t = gaugeToMm(gauge, j.substrate.id.startsWith("steel") ? "steel" : "other");
    if (t === null) throw new Refused(`There is no sheet of ${gauge} gauge.`);
    return { substrate: { ...j.substrate, t: Math.round(t * 1000) / 1000 } };
  },
  "substrate.shape": (j, v) => ({
    substrate: { ...j.substrate, shape: v === "ball" || v === "cylinder" ? v : undefined },
  }),
  "substrate.diameter": (j, v, w) => ({
    substrate: { ...j.substrate, diameter: v.trim() ? typed.length(v, w.shop.units) : undefined },
  }),
  note: (_j, v) => ({ note: v }),
  credit: (_j, v) => ({ credit: v.trim() || undefined }),
  machineId: (_j, v) => ({ machineId: v || null }),
  route: (_j, v) => ({ route: (v || null) as RouteId | null }),
  "order.text": (j, v) => ({ order: { ...j.order, text: v } }),
  "order.proofSent": (j, v) => ({ order: { ...j.order, proofSent: local(v) } }),
  "order.proofAccepted": (j, v) => ({ order: { ...j.order, proofAccepted: local(v) } }),
  "order.delivered": (j, v) => ({ order: { ...j.order, delivered: local(v) } }),
};

const CHOICE: Record<string, (v: string, w: World) => Partial<Job["choices"]>> = {
  topId: (v) => ({ topId: v || null }),
  sealerId: (v) => ({ sealerId: v || null }),
  whiteId: (v) => ({ whiteId: v || null }),
  clearId: (v) => ({ clearId: v || null }),
  undercoat: (v) => ({ undercoat: tri(v) }),
  noClear: (v) => ({ noClear: v === "true" }),
  depthMm: (v, w) => ({ depthMm: typed.lengthOrNull(v, w.shop.units) }),
  intervalMm: (v) => ({ intervalMm: typed.intervalOrNull(v) }),
  tolerance: (v) => ({ tolerance: typed.numberOrNull(v) }),
  proof: (v) => ({ proof: tri(v) }),
  handover: (v) => ({ handover: (v || null) as "touch" | "cured" | null }),
  cleaner: (v) => ({ cleaner: v as Job["choices"]["cleaner"] }),
  toolMm: (v) => ({ toolMm: typed.lengthOrNull(v) }),
  inverted: (v) => ({ inverted: tri(v) }),
  mask: (v) => ({ mask: v === "true" }),
  maskChlorinated: (v) => ({ maskChlorinated: tri(v) }),
  oldPaint: (v) => ({ oldPaint: v === "true" }),
  sunOrHotAir: (v) => ({ sunOrHotAir: v === "true" }),
  driedInEnclosure: (v) => ({ driedInEnclosure: v === "true" ? true : undefined }),
  attended: (v) => ({ attended: v === "true" }),
  maskId: (v) => ({ maskId: v || undefined }),
  placedBy: (v) => ({ placedBy: v || undefined }),
  mirrored: (v) => ({ mirrored: v === "" ? undefined : v === "true" }),
  airStaysOn: (v) => ({ airStaysOn: v === "true" ? true : undefined }),
  onBareBed: (v) => ({ onBareBed: v === "true" ? true : undefined }),
  faces: (v) => ({ faces: v.trim() ? typed.whole(v) : undefined }),
  trap: (v) => ({ trap: v === "true" ? true : undefined }),
  lossShare: (v) => ({ lossShare: v.trim() ? typed.share(v) : undefined }),
};

/** A choice by name: a field, a finishing move switched on or off, or a pick where makers disagree. */
function choose(field: string, v: string, w: World): Partial<Job["choices"]> {
  const now = w.job.choices;
  if (field.startsWith("school:")) return { schools: withPick(now.schools, field.slice(7), v) };
  if (field.startsWith("move:")) {
    const id = field.slice(5);
    const rest = (now.finishing ?? []).filter((x) => x !== id);
    const next = v === "true" ? [...rest, id] : rest;
    return { finishing: next.length ? next : undefined };
  }
  for (const [prefix, list] of [
    ["trial:", "trialOf"],
    ["out:", "trialOut"],
  ] as const)
    if (field.startsWith(prefix)) {
      const id = field.slice(prefix.length);
      const rest = (now[list] ?? []).filter((x) => x !== id);
      const next = v === "true" ? [...rest, id] : rest;
      return { [list]: next.length ? next : undefined };
    }
  if (!Object.hasOwn(CHOICE, field)) throw new Refused(`There is nothing called “${field}” to choose.`);
  return CHOICE[field](v, w);
}

const LABEL: Record<string, string> = {
  title: "name",
  quantity: "quantity",
  due: "due date",
  "substrate.id": "substrate",
  route: "route",
  machineId: "machine",
};

/** How a step field's text is read. Empty goes back to the plan's own. */
function stepValue(field: string, v: string, w: World): PlanEdit["value"] {
  if (!Object.hasOwn(FIELDS, field)) throw new Refused(`There is nothing called “${field}” to change.`);
  if (v.trim() === "") return null;
  const max = w.machines.find((m) => m.id === w.job.machineId)?.maxSpeed ?? null;
  switch (field) {
    case "minutes":
    case "waitMin":
      return typed.minutesOrNull(v);
    case "speed":
      return typed.speed(v, max);
    case "interval":
      return typed.interval(v);
    case "power":
      return typed.percent(v);
    case "roomRh":
      return typed.share(v);
    case "depthMm":
      return typed.length(v, w.shop.units);
    case "roomC":
      return typed.temperature(v);
    case "passes":
      return typed.whole(v);
    case "dryUm":
    case "sandUm":
      return typed.number(v.replace(/\s*[µμu]m\s*$/, ""));
    case "canWarmed":
    case "byLoad":
      return v === "true" ? true : null;
    default:
      return v;
  }
}

const edit = (j: Job, e: Omit<PlanEdit, "id">): Job => ({
  ...j,
  edits: addEdit(j.edits, { ...e, id: freshId("e", j) }),
});

/** Records of a changed world that differ from the stored ones. */
export function putsOf(before: World, after: World): Put[] {
  const puts: Put[] = [];
  if (after.shop !== before.shop) puts.push({ table: "shop", id: "shop", next: after.shop, base: before.shop });
  for (const m of after.machines)
    if (!before.machines.includes(m))
      puts.push({ table: "machines", id: m.id, next: m, base: before.machines.find((x) => x.id === m.id) ?? null });
  for (const p of after.products)
    if (!before.products.includes(p))
      puts.push({ table: "products", id: p.id, next: p, base: before.products.find((x) => x.id === p.id) ?? null });
  if (after.job !== before.job) puts.push({ table: "jobs", id: after.job.id, next: after.job, base: before.job });
  return puts;
}

async function world(id: string): Promise<World> {
  const w = await readWorld(id);
  if (!w) throw new Refused("This job is no longer there; it may have been deleted in another tab.");
  return w;
}

/** The stage a photo was taken at stands in its name: `photo.<step>.<when>`. */
const photoId = (step: string | undefined, at: number, n: number): string =>
  `photo.${(step || "any").slice(0, 70)}.${Math.round(at * 60000).toString(36)}.${n}`;

const freeId = (want: string, taken: { id: string }[]): string => {
  const base =
    want
      .toLowerCase()
      .normalize("NFKD")
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 60) || "thing";
  let id = base;
  for (let n = 2; taken.some((t) => t.id === id); n++) id = `${base}-${n}`;
  return id;
};
const colourOf = (v: string): string => {
  const c = v.trim().toLowerCase();
  if (!/^#[0-9a-f]{6}$/.test(c)) throw new Refused(`“${v}” is not a colour such as #a1b2c3.`);
  return c;
};

/** One act on a job. Every tab's action comes here. */
export async function jobAct(id: string, f: Form): Promise<Outcome> {
  return answer(f.field, async () => {
    const w = await world(id);
    switch (f.intent) {
      case "set": {
        const s = SET[f.field];
        if (!s) throw new Refused(`There is nothing called “${f.field}” to change.`);
        return changeJob(id, `${LABEL[f.field] ?? f.field.split(".").pop()} of “${w.job.title}”`, (j) => ({
          ...j,
          ...s(j, f.value, w),
        }));
      }
      case "choice":
        return changeJob(id, `choice for “${w.job.title}”`, (j) => ({
          ...j,
          choices: { ...j.choices, ...choose(f.field, f.value, w) },
        }));
      case "use": {
        const use = USES.filter((u) => (u === f.field ? f.value === "true" : w.job.use.includes(u)));
        return changeJob(id, `use of “${w.job.title}”`, (j) => ({ ...j, use }));
      }
      case "zone":
        return changeJob(id, `zone of “${w.job.title}”`, (j) => ({
          ...j,
          zones: j.zones.map((z) =>
            z.id !== f.zone
              ? z
              : f.field === "name"
                ? { ...z, name: f.value.trim() || z.name }
                : f.field === "bare"
                  ? { ...z, bare: f.value === "true", productId: f.value === "true" ? null : z.productId }
                  : f.value === "bare"
                    ? { ...z, bare: true, productId: null }
                    : { ...z, bare: false, productId: f.value || null },
          ),
        }));
      case "artwork": {
        const found = JSON.parse(f.found) as FoundArtwork;
        return changeJob(id, `artwork of “${w.job.title}”`, (j) => ({ ...j, ...withArtwork(j, f.name, f.svg, found) }));
      }
      case "step-set":
        return changeJob(id, `change of a step in “${w.job.title}”`, (j) =>
          edit(j, { op: "set", step: f.step, after: null, field: f.field, value: stepValue(f.field, f.value, w) }),
        );
      case "step-remove":
        return changeJob(id, `removal of a step from “${w.job.title}”`, (j) =>
          edit(j, { op: "remove", step: f.step, after: null, field: "", value: null }),
        );
      case "step-move":
        return changeJob(id, `order of steps in “${w.job.title}”`, (j) =>
          edit(j, { op: "move", step: f.step, after: f.after || null, field: "", value: null }),
        );
      case "step-duplicate":
        return changeJob(id, `copy of a step in “${w.job.title}”`, (j) =>
          edit(j, { op: "duplicate", step: f.step, after: f.step, field: freshId(f.step, j), value: null }),
        );
      case "step-add":
        return changeJob(id, `further step in “${w.job.title}”`, (j) =>
          edit(j, { op: "add", step: freshId(f.kind, j), after: f.after || null, field: f.kind, value: null }),
        );
      case "edit-forget":
        return changeJob(id, `hand-made change of “${w.job.title}”`, (j) => ({
          ...j,
          edits: j.edits.filter((e) => e.id !== f.edit),
        }));
      case "edits-forget":
        return changeJob(id, `all hand-made changes of “${w.job.title}”`, (j) => ({ ...j, edits: [] }));
      case "fix": {
        const now = Math.floor(nowMinutes());
        const fix = findFix(makePlan(w, now), Number(f.rule), f.where, f.fix);
        if (!fix) throw new Refused("That snag is gone already.");
        await commit(`fix “${fix.label}”`, putsOf(w, fix.apply(w)));
        return fix.label;
      }
      case "way": {
        const now = Math.floor(nowMinutes());
        const plan = makePlan(w, now);
        const st = standing(plan, now);
        const way = st.is === "missed" ? waysOutOf(w, plan, st.step, now).find((x) => x.id === f.way) : undefined;
        if (!way) throw new Refused("The window is no longer shut; nothing had to be done.");
        await commit(`“${way.label}” in “${w.job.title}”`, putsOf(w, way.apply(w)));
        return way.label;
      }
      case "way-out": {
        const now = Math.floor(nowMinutes());
        const due = w.job.due === null ? null : makePlan(w, now).context.clock.fromLocal(w.job.due);
        const out = due === null ? undefined : waysOut(w, due, now).find((x) => x.label === f.label);
        if (!out) throw new Refused("The due date can be kept by now; nothing was changed.");
        await commit(`“${out.label}”`, putsOf(w, out.apply(w)));
        return out.label;
      }
      case "photo": {
        const at = nowMinutes();
        const photo: Photo = {
          version: 1,
          id: photoId(f.step, at, w.job.wrapUp.photos.length),
          jobId: id,
          at,
          caption: (f.caption ?? "").slice(0, 200),
          data: f.data,
        };
        await commit(`photo for “${w.job.title}”`, [
          { table: "photos", id: photo.id, next: photo, base: null },
          {
            table: "jobs",
            id,
            next: { ...w.job, wrapUp: { ...w.job.wrapUp, photos: [...w.job.wrapUp.photos, photo.id] } },
            base: w.job,
          },
        ]);
        return "Photo kept";
      }
      case "waive":
        if (!f.reason.trim()) throw new Refused("Write down why; the reason is kept with the job.");
        return changeJob(id, `waiver in “${w.job.title}”`, (j) => ({
          ...j,
          waivers: [
            ...j.waivers.filter((x) => !(x.rule === Number(f.rule) && x.where === f.where)),
            { rule: Number(f.rule), where: f.where, reason: f.reason.trim() },
          ],
        }));
      case "unwaive":
        return changeJob(id, `waiver in “${w.job.title}”`, (j) => ({
          ...j,
          waivers: j.waivers.filter((x) => !(x.rule === Number(f.rule) && x.where === f.where)),
          acknowledged: j.acknowledged.filter((r) => r !== Number(f.rule)),
        }));
      case "plate": {
        const machine = w.machines.find((m) => m.id === w.job.machineId);
        if (!machine) throw new Refused("Choose a machine first: a setting belongs to one.");
        const plate = {
          power: typed.percent(f.power),
          speed: typed.speed(f.speed, machine.maxSpeed),
          interval: typed.interval(f.interval),
          passes: typed.whole(f.passes || "1"),
          at: f.at,
          machineId: machine.id,
          note: f.note ?? "",
        };
        const at = nowMinutes();
        const step = makePlan(w, Math.floor(at)).placed.find((p) => p.step.kind === "plate")?.step.id ?? "plate";
        const said = `${Math.round(plate.power * 1000) / 10} %, ${plate.speed} mm/s, ${Math.round(plate.interval * 1000) / 1000} mm, ${plate.passes} ${plate.passes === 1 ? "pass" : "passes"}${plate.note ? `: ${plate.note}` : ""}`;
        const entry = {
          ...new LogEntry(),
          id: `${id}.${Math.round(at * 60000).toString(36)}.plate`,
          jobId: id,
          kind: "plate" as const,
          step,
          at,
          note: said,
        };
        // The setting and its line in the log are one act: undo takes both back.
        return commit(`setting found for “${w.job.title}”`, [
          { table: "jobs", id, next: { ...w.job, plate }, base: w.job },
          { table: "log", id: entry.id, next: entry },
        ]);
      }
      case "add-machine": {
        const m = defaultMachine(f.beam as Beam, typed.number(f.watts), freeId(`${f.beam}-${f.watts}`, w.machines));
        const named = f.name?.trim() ? { ...m, name: f.name.trim() } : m;
        return commit(`machine “${named.name}”`, [
          { table: "machines", id: m.id, next: named, base: null },
          { table: "jobs", id, next: { ...w.job, machineId: m.id }, base: w.job },
        ]);
      }
      case "add-product": {
        const name = f.name.trim();
        if (!name) throw new Refused("Give the paint a name that you find on its can.");
        const p = defaultProduct(freeId(name, w.products), name, f.finish, colourOf(f.colour));
        const job = f.zone
          ? { ...w.job, zones: w.job.zones.map((z) => (z.id === f.zone ? { ...z, productId: p.id, bare: false } : z)) }
          : w.job;
        return commit(`“${name}” on the Shelf`, [
          { table: "products", id: p.id, next: p, base: null },
          { table: "jobs", id, next: job, base: w.job },
        ]);
      }
      default:
        throw new Refused(`There is no act “${f.intent}”.`);
    }
  });
}
