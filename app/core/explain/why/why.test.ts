/** Figures by name, their inputs, and what moves them: against figures worked out by hand and plans made from changed worlds. */
import { toBegin } from "../../process/pieces";
import { own } from "../../process/kinds";
import { brief } from "../../testing/briefs";
import { residualMm } from "../../models/depth/depth";
import { kappaFor } from "../../process/beam";
import { makePlan, type Plan } from "../../plan/plan";
import { waitAfter } from "../report";
import { LogEntry } from "../../records/log";
import type { World } from "../../records/world";
import { indexOf, read, say, type FigureRef, type StepFigure } from "./figure";
import { inputs, latestInputs, levelWords } from "./inputs";
import { BAND, leversOf } from "./levers";
import { movesInTurn, movesOf, type Move } from "./moves";
import { titleOf } from "./title";

const OF_STEP: StepFigure[] = [
  "minutes",
  "modelled",
  "load",
  "wait",
  "opens",
  "shuts",
  "begins",
  "latest",
  "slack",
  "energy",
  "level",
];
const SLOW: StepFigure[] = ["latest", "slack"];
const worlds = Array.from({ length: 56 }, (_, k) => brief(k * 23 + 5));
const plans = worlds.map((w) => makePlan(w, null, true));
const refsOf = (plan: Plan, of: StepFigure[] = OF_STEP): FigureRef[] =>
  plan.placed.flatMap((p) => of.map((x) => ({ of: x, step: p.step.id })));
const find = (want: (plan: Plan, i: number) => boolean): { plan: Plan; step: string; i: number } => {
  for (const plan of plans)
    for (let i = 0; i < plan.placed.length; i++) if (want(plan, i)) return { plan, step: plan.placed[i].step.id, i };
  throw new Error("no such step in any plan");
};
const move = (plan: Plan, f: FigureRef, lever: string): Move => {
  const m = movesOf(plan, f)!.moves.find((x) => x.lever.startsWith(lever));
  if (!m) throw new Error(`${lever} does not move ${JSON.stringify(f)}`);
  return m;
};

test("every figure that a plan has opens to inputs with an origin each, and to a name", () => {
  let seen = 0;
  for (const plan of plans)
    for (const f of [
      ...refsOf(
        plan,
        OF_STEP.filter((x) => !SLOW.includes(x)),
      ),
      { of: "ready" } as const,
      { of: "spares" } as const,
      ...plan.amounts.map((a): FigureRef => ({ of: "amount", product: a.product })),
    ]) {
      const v = read(plan, f);
      if (v === null) continue;
      seen++;
      const rows = inputs(plan, f);
      expect([f, rows.length > 0]).toEqual([f, true]);
      for (const r of rows)
        expect([f, r.name, r.name !== "" && r.value !== "" && (r.from ?? "") !== ""]).toEqual([f, r.name, true]);
      expect(say(plan, v)).not.toMatch(/NaN|undefined|null/);
      expect(titleOf(plan, f)).not.toMatch(/undefined|null/);
    }
  expect(seen).toBeGreaterThan(1500);
});

test("what a figure is read as is what the plan says", () => {
  const plan = plans.find((p) => p.ready !== null && p.amounts.some((a) => a.ml !== null))!;
  expect(read(plan, { of: "ready" })).toEqual({ value: plan.ready, in: "moment" });
  const a = plan.amounts.find((x) => x.ml !== null)!;
  expect(read(plan, { of: "amount", product: a.product })).toEqual({ value: a.ml, in: "ml" });
  plan.placed.forEach((p, i) => {
    expect(read(plan, { of: "minutes", step: p.step.id })?.value ?? null).toBe(p.minutes);
    expect(read(plan, { of: "wait", step: p.step.id })?.value ?? null).toBe(waitAfter(plan, i)?.min ?? null);
    expect(read(plan, { of: "begins", step: p.step.id })?.value ?? null).toBe(p.start);
  });
  expect(read(plan, { of: "minutes", step: "nobody" })).toBeNull();
  expect(inputs(plan, { of: "minutes", step: "nobody" })).toEqual([]);
  expect(movesOf(plan, { of: "minutes", step: "nobody" })).toBeNull();
});

test("moved by hand, the world of a lever's end gives the very figure that the panel tells", () => {
  const { plan, step } = find(
    (p, i) => read(p, { of: "wait", step: p.placed[i].step.id }) !== null && (waitAfter(p, i)?.min ?? 0) > 20,
  );
  const f: FigureRef = { of: "wait", step };
  const levers = leversOf(plan, f);
  for (const m of movesOf(plan, f)!.moves) {
    const l = levers.find((x) => x.id === m.lever)!;
    expect(m.ends.map((e) => e.value)).toEqual(
      l.turns.map((t) => read(makePlan(t.world(), plan.now, true), f)?.value ?? null),
    );
    expect(m.ends.map((e) => e.input)).toEqual(l.turns.map((t) => t.say));
  }
});

describe("the models move figures the way they must", () => {
  test("paint for a coat grows with its film and falls with its solids, both as their formula has it", () => {
    const { plan, step } = find(
      (p, i) =>
        p.placed[i].step.kind === "coat" &&
        p.uses[i]?.ml != null &&
        p.context.paintOf(p.placed[i].step.productId!).finish.by === "brush",
    );
    const f: FigureRef = { of: "load", step };
    const ml = read(plan, f)!.value;
    const film = move(plan, f, "film.");
    expect(film.from).toBe("default");
    expect(film.ends[0].value! / ml).toBeCloseTo(1 - BAND.default, 6);
    expect(film.ends[1].value! / ml).toBeCloseTo(1 + BAND.default, 6);
    const solids = move(plan, f, "solids.");
    expect(solids.ends[0].value! / ml).toBeCloseTo(1 / (1 - BAND.default), 6);
    expect(solids.ends[1].value! / ml).toBeCloseTo(1 / (1 + BAND.default), 6);
    expect(solids.span).toBeGreaterThan(film.span);
  });
  test("colder and damper air waits longer, warmer and drier less; moving air shortens what takes another coat", () => {
    const { plan, step } = find((p, i) => {
      const w = waitAfter(p, i);
      const film = w?.film ? p.placed.find((x) => x.step.id === w.film) : null;
      return (
        w?.for === "recoat" &&
        (w.min ?? 0) > 30 &&
        p.context.hasPaint(own(film?.step, "productId") ?? null) &&
        p.context.paintOf(own(film!.step, "productId")!).base === "water"
      );
    });
    const f: FigureRef = { of: "wait", step };
    const now = read(plan, f)!.value;
    const by = Object.fromEntries(
      leversOf(plan, f).map((l) => [
        l.id,
        l.turns.map((t) => read(makePlan(t.world(), null, true), f)?.value ?? Infinity),
      ]),
    );
    expect(by["air.c"][0]).toBeGreaterThan(now);
    expect(by["air.c"][1]).toBeLessThan(now);
    expect(by["air.rh"][0]).toBeLessThan(now);
    expect(by["air.rh"][1]).toBeGreaterThan(now);
    expect(by["air.flow"][0]).toBeLessThan(now);
  });
  test(
    "a wait may come to hang on a film beneath: both products are tried, and where both dry in less the " +
      "wait is shorter than for either",
    () => {
      const { plan, step } = find((p, i) => {
        const w = waitAfter(p, i);
        return (
          w?.for === "laser-safe" &&
          leversOf(p, { of: "wait", step: p.placed[i].step.id }).filter((l) => l.id.startsWith("dry.")).length > 1 &&
          (w.min ?? 0) > 60
        );
      });
      const f: FigureRef = { of: "wait", step };
      const now = read(plan, f)!.value;
      const [a, b] = leversOf(plan, f)
        .filter((l) => l.id.startsWith("dry."))
        .map((l) => l.turns[0].world());
      const wait = (w: World): number => read(makePlan(w, null, true), f)!.value;
      const ids = [a, b].map((w) => w.products.find((x, k) => x !== plan.context.world.products[k])!.id);
      const both = {
        ...a,
        products: a.products.map((x) => (x.id === ids[1] ? b.products.find((y) => y.id === x.id)! : x)),
      };
      expect(ids[0]).not.toBe(ids[1]);
      expect(wait(a)).toBeLessThan(now);
      expect(wait(both)).toBeLessThanOrEqual(Math.min(wait(a), wait(b)));
      expect(wait(both)).toBeGreaterThan(0.7 * now - 1);
    },
  );
  test("energy on the surface: as power, against speed and interval, and by whole passes", () => {
    const { plan, step, i } = find(
      (p, k) => p.placed[k].step.kind === "engrave" && p.placed[k].step.laser !== null && p.context.machine !== null,
    );
    const f: FigureRef = { of: "energy", step };
    const e = read(plan, f)!.value;
    const all = Object.fromEntries(
      leversOf(plan, f).map((l) => [
        l.id.split(".")[0],
        l.turns.map((t) => read(makePlan(t.world(), null, true), f)!.value / e),
      ]),
    );
    expect(all.speed[0]).toBeCloseTo(1 / 0.75, 6);
    expect(all.interval[1]).toBeCloseTo(1 / 1.25, 6);
    expect(all.power[0]).toBeCloseTo(0.75, 6);
    const n = own(plan.placed[i].step, "laser")!.passes;
    expect(all.passes[0]).toBeCloseTo((n + 1) / n, 6);
    // rated watts are a data sheet's: the setting stays, the energy follows
    expect(all.watts[1]).toBeCloseTo(1 + BAND["data sheet"], 6);
  });
  test("pieces to begin with rise with the share that is lost", () => {
    const some = plans.find((p) => (toBegin(p.context.job)?.loss ?? 0) > 0)!.context.world;
    const plan = makePlan({ ...some, job: { ...some.job, quantity: 40 } }, null, true);
    const [lo, hi] = leversOf(plan, { of: "spares" })[0].turns.map((t) => toBegin(t.world().job)!.pieces);
    expect(lo).toBeLessThan(hi);
    expect(read(plan, { of: "spares" })!.value).toBeGreaterThanOrEqual(plan.context.job.quantity);
  });
  test("a film on the piece is as thick as its coat; what sanding or the beam takes moves it no farther than to nothing", () => {
    const { plan, step, i } = find(
      (p, k) =>
        p.placed[k].step.kind === "coat" && p.placed[k].step.dryUm !== null && p.placed[k].step.zones.length > 0,
    );
    const f: FigureRef = { of: "layer", step, zone: plan.placed[i].step.zones[0], film: step };
    expect(read(plan, f)!.value).toBeCloseTo(own(plan.placed[i].step, "dryUm")!, 3);
    const m = move(plan, f, "film.");
    expect(m.ends[1].value! / read(plan, f)!.value).toBeCloseTo(1 + BAND[m.from as "default"], 3);
  });
  test("panels lead with a figure, and it moves", () => {
    let moved = 0;
    for (const plan of plans.slice(0, 7))
      for (const p of plan.placed)
        for (const panel of ["window", "powder", "heat", "depth", "round"] as const) {
          const f: FigureRef = { of: "panel", step: p.step.id, panel };
          if (read(plan, f) === null) continue;
          expect(inputs(plan, f).length).toBeGreaterThan(1);
          if (movesOf(plan, f)!.moves.length) moved++;
        }
    expect(moved).toBeGreaterThan(10);
  });
});

test("told farthest first, at most four, with how many were tried; a yield a lever, the last one at the whole", () => {
  const plan = plans.find((p) => p.ready !== null && p.placed.length > 10)!;
  const shares: number[] = [];
  const turns = movesInTurn(plan, { of: "ready" });
  let r = turns.next();
  for (; !r.done; r = turns.next()) shares.push(r.value);
  const moved = r.value!;
  expect(shares.length).toBe(moved.tried);
  expect(shares[shares.length - 1]).toBe(1);
  expect(moved.moves.length).toBeLessThanOrEqual(4);
  expect(moved.moves.map((m) => m.span)).toEqual(moved.moves.map((m) => m.span).sort((a, b) => b - a));
  expect(moved.now).toBe(say(plan, read(plan, { of: "ready" })));
});

describe("what is known is not varied", () => {
  const typed = (w: World, step: string, field: string, value: number): World => ({
    ...w,
    job: { ...w.job, edits: [{ id: "by-hand", op: "set", step, after: null, field, value }] },
  });
  test("minutes and waits typed in say so, and nothing is tried", () => {
    const { plan, step } = find((p, i) => (waitAfter(p, i)?.min ?? 0) > 0);
    const w = plan.context.world;
    const waits = makePlan(typed(w, step, "waitMin", 90), null, true);
    expect(inputs(waits, { of: "wait", step })).toEqual([{ name: "Wait", value: "1 h 30", from: "by hand" }]);
    expect(movesOf(waits, { of: "wait", step })).toEqual({ now: "1 h 30", moves: [], tried: 0 });
    const works = makePlan(typed(w, step, "minutes", 25), null, true);
    expect(inputs(works, { of: "minutes", step })[0].from).toBe("by hand");
    expect(movesOf(works, { of: "minutes", step })!.tried).toBe(0);
  });
  test("a step begun by the log begins then; a wait behind it counts from its last piece", () => {
    const { plan, step, i } = find(
      (p, k) =>
        k > 0 &&
        p.placed[k].step.kind === "coat" &&
        (waitAfter(p, k)?.min ?? 0) > 10 &&
        waitAfter(p, k)?.film === p.placed[k].step.id,
    );
    const w = plan.context.world;
    const at = plan.placed[i].start!;
    const tap = (kind: LogEntry["kind"], of: string, minute: number, n: number): LogEntry =>
      Object.assign(new LogEntry(), { id: `e${n}`, jobId: w.job.id, kind, step: of, at: minute });
    const log = plan.placed
      .slice(0, i + 1)
      .flatMap((p, k) => [tap("start", p.step.id, p.start!, 2 * k), tap("done", p.step.id, p.end!, 2 * k + 1)]);
    const begun = makePlan({ ...w, log }, at + 600, true);
    expect(inputs(begun, { of: "begins", step })).toEqual([
      { name: "Begun", value: say(begun, { value: at, in: "moment" }), from: "bench log" },
    ]);
    expect(movesOf(begun, { of: "begins", step })!.tried).toBe(0);
    expect(inputs(begun, { of: "wait", step }).find((r) => r.name === "Counted from")?.from).toBe("bench log");
  });
  test("what was measured here is varied less than a default", () => {
    const { plan, step, i } = find((p, k) => p.placed[k].step.kind === "coat" && p.uses[k]?.ml != null);
    const id = own(plan.placed[i].step, "productId")!;
    const w = plan.context.world;
    const measured = makePlan(
      { ...w, products: w.products.map((p) => (p.id === id ? { ...p, origin: "measured here", solids: 0.4 } : p)) },
      null,
      true,
    );
    const m = move(measured, { of: "load", step }, "solids.");
    expect(m.from).toBe("measured here");
    expect(m.ends[0].input).toBe("38 %");
    expect(m.ends[1].value! / read(measured, { of: "load", step })!.value).toBeCloseTo(1 / 1.05, 6);
  });
});

test("a latest beginning is counted back, opens to it, and says where the date is not kept any more", () => {
  const base = plans.find((p) => p.ready !== null && p.placed.length > 5)!;
  const w = base.context.world;
  const due = base.context.clock.toLocal(base.ready! + 3 * 60);
  const plan = makePlan({ ...w, job: { ...w.job, due } }, null, true);
  const step = plan.placed[plan.placed.length - 2].step.id;
  const [latest, slack, begins] = (["latest", "slack", "begins"] as const).map((of) => read(plan, { of, step })!.value);
  expect(latest - begins).toBe(slack);
  expect(read(plan, { of: "margin" })!.value).toBe(180);
  expect(latestInputs(plan, indexOf(plan, step), latest)).toEqual(inputs(plan, { of: "latest", step }));
  const tight = makePlan({ ...w, job: { ...w.job, due: base.context.clock.toLocal(base.ready!) } }, null, true);
  const ends = movesOf(tight, { of: "slack", step })!.moves.flatMap((m) => m.ends.map((e) => e.text));
  expect(ends).toContain("the date is not kept");
});

test("what must stay below the face is what the model leaves; what a J/mm² takes is the material's own", () => {
  const { plan, step, i } = find((p, k) => p.placed[k].step.kind === "engrave" && p.depth !== null);
  expect(inputs(plan, { of: "level", step }).find((r) => r.name === "Must stay below the face")?.value).toBe(
    `${residualMm(
      plan.context.substrate.family,
      plan.placed[i].before.zones.some((z) => z.mask !== undefined),
    )} mm`,
  );
  const named = new Set<string>();
  for (const p of plans)
    for (const x of p.placed) {
      const row =
        x.step.kind === "engrave"
          ? inputs(p, { of: "energy", step: x.step.id }).find((r) => r.name.includes("a J/mm² above"))
          : undefined;
      if (!row) continue;
      const kappa = kappaFor(p.context.machine!, p.context.substrate);
      expect(row).toMatchObject({
        name: `${p.context.substrate.name}, a J/mm² above 0.15`,
        value: kappa === null ? "unknown" : `${kappa} mm`,
      });
      named.add(p.context.substrate.family);
    }
  expect(named.size).toBeGreaterThan(2);
});

test("levels in words: cut, filled below the face, or nothing", () => {
  const { plan, i } = find((p, k) => p.placed[k].step.kind === "engrave" && p.placed[k].step.depthMm !== null);
  expect(levelWords(plan, i)).toMatch(/^[\d.]+ mm cut/);
  expect(read(plan, { of: "level", step: plan.placed[i].step.id })).toEqual({
    value: own(plan.placed[i].step, "depthMm"),
    in: "mm",
  });
  expect(levelWords(plan, 0)).toBeNull();
});

test("what is still to be bought is turned as the Shelf's paints are, and its figures lead to where it is put there", () => {
  let seen = 0;
  for (let n = 0; n < 40; n++) {
    const w = brief(n);
    const zones = w.job.zones.map((z) => ({ ...z, wanted: z.colour, productId: null }));
    const p = makePlan({ ...w, products: [], job: { ...w.job, zones } });
    const waits = p.placed.find(
      (x) => own(x.step, "productId")?.startsWith("to-buy") && waitAfter(p, indexOf(p, x.step.id)),
    );
    if (!waits) continue;
    const id = own(waits.step, "productId")!;
    const dry = leversOf(p, { of: "wait", step: waits.step.id }).find((l) => l.id === `dry.${id}`);
    if (!dry) continue;
    seen++;
    expect(dry.place).toEqual({ at: "route" });
    const at = (k: number): number | null => makePlan(dry.turns[k].world()).context.paintOf(id).times.recoat.value;
    expect(at(0)).not.toBeNull();
    expect(at(0)!).toBeLessThan(at(1)!);
  }
  expect(seen).toBeGreaterThan(8);
});
