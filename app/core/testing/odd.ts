/**
 * Briefs that something is odd about: what a hurried or unlucky maker asks for, in shops that lack things. For tests that hold the
 * engine's answers to what they were: over several hundred of them every branch of plan and rules is walked.
 */
import { LogEntry } from "../records/log";
import { Can, type Product } from "../records/product";
import { FINISHING } from "../catalogue/finishing";
import { SCHOOLS } from "../catalogue/schools";
import { SUBSTRATES } from "../catalogue/substrates";
import { CHANGE_OVER } from "../records/machine";
import type { Job, PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { ALL_KINDS, type Step } from "../process/kinds";
import { brief, LATER } from "./briefs";
import { constant, seeded, swing } from "./worlds";

/** what came later is tried by tests of its own, so that odd briefs stay the ones they were */
const FIRST_KINDS = ALL_KINDS.filter((k) => !LATER.has(k.id));
const FIRST_SUBSTRATES = SUBSTRATES.filter((s) => !LATER.has(s.id));

interface Draw {
  /** 0 to 1 */
  r(): number;
  int(n: number): number;
  of<T>(list: readonly T[]): T;
}
type Oddity = (w: World, d: Draw, steps: Step[]) => World;

const job = (w: World, more: Partial<Job>): World => ({ ...w, job: { ...w.job, ...more } });
const choose = (w: World, more: Partial<Job["choices"]>): World => job(w, { choices: { ...w.job.choices, ...more } });
const shop = (w: World, more: Partial<World["shop"]>): World => ({ ...w, shop: { ...w.shop, ...more } });
const machine = (w: World, more: Partial<World["machines"][number]>): World => ({
  ...w,
  machines: w.machines.map((m) => ({ ...m, ...more })),
});
const products = (w: World, some: (p: Product) => boolean, more: (p: Product) => Partial<Product>): World => ({
  ...w,
  products: w.products.map((p) => (some(p) ? { ...p, ...more(p) } : p)),
});
const edit = (w: World, e: Partial<PlanEdit> & Pick<PlanEdit, "op" | "step">): World =>
  job(w, { edits: [...w.job.edits, { id: `e${w.job.edits.length}`, after: null, field: "", value: null, ...e }] });
const step = (steps: Step[], d: Draw): string => d.of(steps).id;

/** What can be odd: each is laid on with a chance of its own. */
const ODDITIES: readonly [number, Oddity][] = [
  // the plan changed by hand
  [0.3, (w, d, s) => edit(w, { op: "remove", step: step(s, d) })],
  [0.15, (w, d, s) => edit(w, { op: "remove", step: step(s, d) })],
  [0.3, (w, d, s) => edit(w, { op: "move", step: step(s, d), after: step(s, d) })],
  [0.1, (w, d, s) => edit(w, { op: "duplicate", step: step(s, d), field: `again-${d.int(99)}`, after: step(s, d) })],
  [
    0.25,
    (w, d, s) => edit(w, { op: "add", step: `more-${d.int(99)}`, field: d.of(FIRST_KINDS).id, after: step(s, d) }),
  ],
  [0.2, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "waitMin", value: d.of([0, 10, 45, 600, 3000]) })],
  [0.15, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "dryUm", value: d.of([2, 6, 25, 60, 120, 260]) })],
  [0.15, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "power", value: d.of([0.05, 0.13, 0.4, 0.9]) })],
  [0.1, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "passes", value: 1 + d.int(6) })],
  [0.1, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "speed", value: d.of([4, 40, 400, 2000]) })],
  [0.1, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "sandUm", value: d.of([5, 80, 300]) })],
  [0.05, (w, d, s) => edit(w, { op: "set", step: step(s, d), field: "roomC", value: d.of([8, 28, 45]) })],
  // the brief
  [0.2, (w, d) => job(w, { quantity: d.of([2, 3, 12, 40, 60]) })],
  [0.3, (w, d) => job(w, { use: ["handled", "wet", "outdoors", "display", "food"].filter(() => d.r() < 0.4) })],
  [0.2, (w, d) => job(w, { due: d.of(["2027-01-11T12:00", "2027-01-13T16:00", "2027-02-20T12:00"]) })],
  [0.12, (w, d) => job(w, { substrate: { ...w.job.substrate, t: d.of([0.5, 1, 1.6, 3, 20]) } })],
  [0.08, (w, d) => job(w, { substrate: { ...w.job.substrate, w: d.of([18, 420, 900]), h: d.of([18, 30, 610]) } })],
  [0.12, (w, d) => job(w, { substrate: { ...w.job.substrate, id: d.of(FIRST_SUBSTRATES).id } })],
  [
    0.25,
    (w, d) =>
      job(w, {
        zones: w.job.zones.map((z) => ({
          ...z,
          narrowestMm: d.of([0.04, 0.09, 0.2, 0.45, 1, null]),
          areaMm2: d.of([0.6, 3, 90, 800, 12000]),
          smallestMm2: d.of([null, 0.5, 4, 40]),
          holes: d.of([0, 1, 40]),
          pieces: d.of([1, 9, 120]),
        })),
      }),
  ],
  [0.1, (w) => job(w, { zones: w.job.zones.map((z, i) => (i ? z : { ...z, productId: null })) })],
  [0.08, (w) => job(w, { zones: w.job.zones.map((z, i) => (i ? z : { ...z, bare: true, productId: null })) })],
  [0.12, (w, d) => job(w, { zones: w.job.zones.map((z) => ({ ...z, productId: d.of(w.products).id })) })],
  // the choices
  [0.2, (w, d) => choose(w, { undercoat: d.r() < 0.5 })],
  [0.15, (w) => choose(w, { noClear: true })],
  [0.15, (w, d) => choose(w, { depthMm: d.of([0.1, 0.4, 0.8, 2.4]) })],
  [0.15, (w, d) => choose(w, { intervalMm: d.of([0.03, 0.09, 0.16, 0.3]) })],
  [0.1, (w, d) => choose(w, { tolerance: d.of([0.5, 2, 9]) })],
  [0.1, (w, d) => choose(w, { proof: d.r() < 0.5 })],
  [0.1, (w, d) => choose(w, { handover: d.of(["touch", "cured"] as const) })],
  [0.15, (w, d) => choose(w, { cleaner: d.of(["acetone", "citrus", "chlorinated"] as const) })],
  [0.1, (w, d) => choose(w, { toolMm: d.of([0.1, 0.8, 3]) })],
  [0.15, (w, d) => choose(w, { inverted: d.r() < 0.5 })],
  [0.15, (w, d) => choose(w, { mirrored: d.r() < 0.5 })],
  [0.15, (w) => choose(w, { mask: true })],
  [0.2, (w, d) => choose(w, { maskChlorinated: d.of([true, null]) })],
  [0.08, (w) => choose(w, { oldPaint: true })],
  [0.1, (w) => choose(w, { sunOrHotAir: true })],
  [0.08, (w) => choose(w, { driedInEnclosure: true })],
  [0.1, (w, d) => choose(w, { maskId: d.of(["tape", "heat-tape", "shield"]) })],
  [0.25, (w, d) => choose(w, { finishing: FINISHING.map((m) => m.id).filter(() => d.r() < 0.25) })],
  [0.2, (w, d) => choose(w, { schools: SCHOOLS.map((s) => `${s.id}:${d.of(s.picks).id}`) })],
  [0.1, (w, d) => choose(w, { placedBy: d.of(["pencil", "eye", "nest"]) })],
  [0.1, (w) => choose(w, { airStaysOn: true, onBareBed: true })],
  [0.08, (w, d) => choose(w, { faces: 2 + d.int(10) })],
  [0.1, (w) => choose(w, { trap: true })],
  [0.1, (w) => choose(w, { attended: false })],
  [
    0.15,
    (w, d) =>
      job(w, {
        plate: {
          power: d.of([0.1, 0.35, 0.8]),
          speed: d.of([20, 120, 900]),
          interval: d.of([0.05, 0.1, 0.2]),
          passes: 1 + d.int(2),
          at: d.of(["2025-03-01T10:00", "2027-01-05T10:00"]),
          machineId: w.job.machineId ?? "none",
          note: "",
        },
      }),
  ],
  // the shop
  [
    0.25,
    (w, d) =>
      shop(w, {
        climate: d.of([
          constant(7),
          constant(12, 0.85),
          constant(31, 0.2),
          constant(20, 0.92),
          swing(4, 19),
          swing(16, 44),
        ]),
      }),
  ],
  [0.08, (w) => shop(w, { gear: [] })],
  [
    0.1,
    (w, d) =>
      shop(w, { gear: (w.shop.gear ?? []).map((g) => ({ ...g, maxC: d.of([null, 120, 190]), trayW: 90, trayH: 70 })) }),
  ],
  [0.1, (w) => shop(w, { gear: (w.shop.gear ?? []).map((g) => ({ ...g, notForFood: null, lowFan: null })) })],
  [
    0.1,
    (w, d) =>
      shop(w, { hours: { ...w.shop.hours, tue: null, wed: d.of([null, ["09:00", "10:30"]] as const) as null } }),
  ],
  [0.1, (w) => shop(w, { sprayHours: ["11:00", "12:00"] })],
  [0.08, (w) => shop(w, { learned: [{ kind: "coat", factor: 1.7, n: 8 }] })],
  // the machine
  [0.15, (w, d) => machine(w, { watts: d.of([2, 5, 18, 90]) })],
  [0.1, (w, d) => machine(w, { spotMm: d.of([0.02, 0.08, 0.3]) })],
  [0.1, (w, d) => machine(w, { maxSpeed: d.of([30, 120, 4000]), rapid: null })],
  [0.1, (w) => machine(w, { bedW: 80, bedH: 60 })],
  [0.1, (w) => machine(w, { enclosed: true, extraction: true, airAssist: false })],
  [0.1, (w, d) => machine(w, { changeOver: [...CHANGE_OVER].slice(0, d.int(3)) })],
  [
    0.1,
    (w) =>
      machine(w, {
        powerPoints: [
          { set: 20, watts: 3 },
          { set: 100, watts: 33 },
        ],
      }),
  ],
  [0.05, (w) => ({ ...w, machines: [], job: { ...w.job, machineId: null } })],
  // the Shelf
  [
    0.1,
    (w, d) =>
      products(
        w,
        (p) => p.id === d.of(w.products).id,
        () => ({ cans: [] }),
      ),
  ],
  [
    0.2,
    (w, d) =>
      products(
        w,
        () => d.r() < 0.5,
        (p) => ({
          cans: [{ ...new Can(), id: `${p.id}.can1`, label: "Can 1", fullMl: 400, leftMl: d.of([3, 30, 90]) }],
        }),
      ),
  ],
  [
    0.1,
    (w, d) =>
      products(
        w,
        () => d.r() < 0.4,
        () => ({ chlorinated: d.of([true, null]) }),
      ),
  ],
  [0.1, (w) => ({ ...w, products: w.products.filter((p) => !/white|titan|clear/.test(p.id)) })],
  [
    0.1,
    (w, d) =>
      products(
        w,
        () => d.r() < 0.3,
        (p) => ({ hideUm: (p.hideUm ?? 30) * d.of([0.3, 2, 6]) }),
      ),
  ],
  [
    0.1,
    (w, d) =>
      products(
        w,
        () => d.r() < 0.3,
        () => ({ coatUm: d.of([3, 9, 45]) }),
      ),
  ],
  [
    0.1,
    (w, d) =>
      products(
        w,
        (p) => /tape|shield/.test(p.id),
        () => ({ limitC: d.of([50, 110, 260]) }),
      ),
  ],
];

/** Odd brief number n. @param steps the steps that a brief comes to when nothing is odd about it */
export function odd(n: number, steps: (w: World) => Step[]): World {
  const rnd = seeded(n * 104729 + 11);
  const d: Draw = {
    r: rnd,
    int: (k) => Math.floor(rnd() * k),
    of: (list) => list[Math.floor(rnd() * list.length)],
  };
  let w = brief(n);
  const plain = steps(w);
  // fewer of them than their chances say: a job in which all is odd has nothing left that a rule could speak of
  for (const [chance, lay] of ODDITIES) if (rnd() < chance * 0.6 && plain.length) w = lay(w, d, plain);
  return w;
}

/** factors that a figure is turned by: over a limit close by, and far beyond it */
const TURNS = [0.3, 0.8, 0.96, 1.04, 1.25, 3];
type Leaf = { of: Record<string, unknown>; key: string };
/** Every number and every yes or no of a record, however deep; drawings and names are left. */
function leaves(of: Record<string, unknown>, out: Leaf[] = []): Leaf[] {
  for (const [key, v] of Object.entries(of)) {
    if (key === "version" || key === "rows") continue;
    if (typeof v === "number" || typeof v === "boolean") out.push({ of, key });
    else if (v !== null && typeof v === "object") leaves(v as Record<string, unknown>, out);
  }
  return out;
}
const copy = <T>(of: T): T => JSON.parse(JSON.stringify(of)) as T;
/** A world close by another: a few of its figures turned, and now and then something odd about it. */
export function near(w: World, n: number, steps: (w: World) => Step[]): World {
  const rnd = seeded(n * 7907 + 3);
  const d: Draw = { r: rnd, int: (k) => Math.floor(rnd() * k), of: (list) => list[Math.floor(rnd() * list.length)] };
  const x = copy(w);
  // a zone like another, so that what is meant for one is seen to leave the other alone
  if (rnd() < 0.4 && x.job.zones.length) {
    const z = d.of(x.job.zones);
    x.job.zones.push({ ...copy(z), id: `${z.id}-too`, name: `${z.name} too` });
  }
  const { zones, choices, substrate, artwork, edits } = x.job;
  const gear = x.shop.gear ?? [];
  const figures = leaves({
    zones,
    choices,
    substrate,
    artwork,
    edits,
    machines: x.machines,
    gear,
    climate: x.shop.climate,
  });
  for (let k = 1 + d.int(3); k > 0 && figures.length; k--) {
    const { of, key } = d.of(figures);
    const v = of[key];
    if (typeof v === "boolean") of[key] = !v;
    else if (typeof v === "number") {
      const turned = v * d.of(TURNS);
      of[key] = Number.isInteger(v) && v < 50 ? Math.max(1, Math.round(turned)) : Number(turned.toPrecision(6));
      if (key === "rh" || key === "power") of[key] = Math.min(1, of[key] as number);
    }
  }
  const plain = steps(x);
  return rnd() < 0.3 && plain.length ? d.of(ODDITIES)[1](x, d, plain) : x;
}

/** Taps over the first steps of a plan: at their times, or late, with waits cut short. */
export function tappedOdd(
  w: World,
  n: number,
  times: { id: string; start: number | null; end: number | null }[],
): World {
  const rnd = seeded(n + 77);
  const upTo = Math.floor(rnd() * times.length);
  let late = 0;
  const log: LogEntry[] = [];
  for (const t of times.slice(0, upTo)) {
    if (t.start === null || t.end === null) break;
    late += rnd() < 0.15 ? Math.floor(rnd() * 4000) : 0;
    const put = (kind: LogEntry["kind"], at: number): void =>
      void log.push({ ...new LogEntry(), id: `l${log.length}`, jobId: w.job.id, kind, step: t.id, at });
    if (rnd() < 0.1) put(rnd() < 0.5 ? "touch" : "early", t.start + late);
    put("start", t.start + late);
    if (rnd() < 0.95) put("done", t.end + late);
  }
  return { ...w, log };
}
