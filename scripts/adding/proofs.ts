/**
 * What the additions of docs/adding.md must do, each on a job of its own, D1 or later. Run in a copy of the app to which the page
 * has been applied (and, so that the proofs can fail, in the app as it is): prints a line of JSON, what each found.
 */
import "reflect-metadata";
import { open } from "../../app/core/judge/judge";
import { takes } from "../../app/core/catalogue/routes";
import { ROUTES } from "../../app/core/catalogue/routes";
import { finishNamed } from "../../app/core/catalogue/finishes";
import { makePlan, type Plan } from "../../app/core/plan/plan";
import { visitsOf } from "../../app/core/plan/visits";
import type { PlanEdit } from "../../app/core/records/job";
import type { World } from "../../app/core/records/world";
import { JOB_EXPORTS } from "../../app/io/export/exports";
import { jobFromBrief } from "../../app/io/import/brief";
import { worldOf } from "../../app/io/import/job-file";

const D1 = {
  brief: 1,
  route: "D1",
  quantity: 2,
  substrate: { id: "walnut", w: 140, h: 90, t: 9 },
  beam: { id: "co2", watts: 40 },
  now: "2027-02-01T08:00",
  zones: [
    { id: "z-rim", areaMm2: 1400, perimeterMm: 420, narrowestMm: 1.4, finish: "spray-enamel", colour: "#2a6fb0" },
    { id: "z-dot", areaMm2: 300, perimeterMm: 90, narrowestMm: 4, finish: "spray-enamel", colour: "#d8a12c" },
  ],
};
const world = (brief: object): World => worldOf(jobFromBrief(brief, null)) as World;
const edited = (w: World, edits: Partial<PlanEdit>[]): World => ({
  ...w,
  job: {
    ...w.job,
    edits: edits.map((e, i) => ({ id: `e${i}`, op: "set", step: "", after: null, field: "", value: null, ...e })),
  },
});
const sound = (p: Plan): boolean => p.ready !== null && p.stuck === null && p.missing.length === 0;

const PROOFS: Record<string, () => unknown | Promise<unknown>> = {
  "A sprayed finish": () => {
    const w = world({ ...D1, zones: D1.zones.map((z) => ({ ...z, finish: "spray-chalk" })) });
    const p = makePlan(w);
    const finish = finishNamed("spray-chalk");
    // every route that takes spray of this family; metal alone asks for a harder one
    const sprays = ROUTES.filter((r) => takes(r, finishNamed("airbrush-acrylic")));
    return {
      sound: sound(p),
      coats: p.placed.filter((x) => x.step.kind === "coat" && x.step.role === "colour").length >= 2,
      takenWhereSpraysAre: sprays.length >= 9 && sprays.every((r) => takes(r, finish)),
    };
  },
  "A kind of step that lays and turns": () => {
    const w = world(D1);
    const last = makePlan(w).placed;
    const lift = last.find((p) => p.step.kind === "mask-lift")!.step.id;
    const p = makePlan(
      edited(w, [
        { op: "add", step: "mask-fluid.x1", field: "mask-fluid", after: lift },
        { op: "set", step: "mask-fluid.x1", field: "zones", value: "z-dot" },
      ]),
    );
    const at = p.placed.findIndex((x) => (x.step.kind as string) === "mask-fluid");
    const visit = visitsOf(p).find((v) => v.index === at);
    return { placed: at > 0 && p.placed[at].start !== null, covers: (visit?.covers ?? []).includes("z-dot") };
  },
  "A rule": () => {
    const w = world({ ...D1, zones: D1.zones.map((z) => ({ ...z, finish: "spray-lacquer" })) });
    const coat = makePlan(w).placed.find((x) => x.step.kind === "coat" && x.step.role === "colour")!.step.id;
    const found = (um: number) =>
      open(makePlan(edited(w, [{ step: coat, field: "dryUm", value: um }]))).filter((s) => s.rule === 90);
    const [thick, thin] = [found(100), found(20)];
    const mended = thick[0]?.fixes[0].apply(edited(w, [{ step: coat, field: "dryUm", value: 100 }]));
    return {
      trips: thick.length === 1 && thick[0].why.includes("455 µm"),
      passes: thin.length === 0,
      clears: mended !== undefined && open(makePlan(mended)).every((s) => s.rule !== 90),
    };
  },
  "A route": () => {
    const zones = D1.zones.map((z) => ({ ...z, finish: "craft-acrylic" }));
    const p = makePlan(world({ ...D1, route: "D6", substrate: { id: "slate", w: 140, h: 90, t: 6 }, zones }));
    const kinds = p.placed.map((x) => x.step.kind);
    return {
      sound: sound(p),
      goes: ["mask-lay", "engrave", "coat", "mask-lift"].every((k) => kinds.some((x) => x === k)),
    };
  },
  "An export": async () => {
    const plan = makePlan(world(D1));
    const row = JOB_EXPORTS.find((x) => x.id === "shopping");
    const nothing = (): never => {
      throw new Error("not asked for");
    };
    const text = await row?.write({ plan, made: 0, records: nothing, paper: nothing, moved: nothing });
    return {
      lines: String(text).split("\r\n").length === plan.amounts.length + 1,
      ending: row?.ending === ".amounts.csv",
    };
  },
};

const out: Record<string, unknown> = {};
for (const [name, prove] of Object.entries(PROOFS))
  try {
    out[name] = await prove();
  } catch (e) {
    out[name] = (e as Error).message;
  }
console.log(JSON.stringify(out));
