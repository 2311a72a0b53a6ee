/** The setting that a test plate gave. */
import { nowMinutes } from "../../clock";
import { makePlan, type Plan } from "../../core/plan/plan";
import { kindOf } from "../../core/process/kinds";
import { fewer, firstOf, fitOf, foundFor, guardsOf, perJOf, zoomed } from "../../core/explain/plate";
import { spaced } from "../../core/models/laser/plate";
import { context } from "../../core/process/context";
import { OneOf, Text } from "../../core/records/fields";
import { PlateForm, TestForm } from "../../core/records/forms";
import { TestPlate, type Job, type Plate, type PlateCell } from "../../core/records/job";
import { PLATE_READS } from "../../core/records/ids";
import type { Machine } from "../../core/records/machine";
import type { World } from "../../core/records/world";
import { shopClock } from "../../core/time/zoned";
import { LogEntry } from "../../core/records/log";
import { change, commit, Refused } from "../../store/acts";
import { act, HUGE } from "../act";
import { typed } from "../answer";
import { changed, type OnJob } from "./job";

const said = (p: Plate): string => {
  const interval = Math.round(p.interval * 1000) / 1000;
  const passes = `${p.passes} ${p.passes === 1 ? "pass" : "passes"}`;
  const note = p.note ? `: ${p.note}` : "";
  return `${Math.round(p.power * 1000) / 10} %, ${p.speed} mm/s, ${interval} mm, ${passes}${note}`;
};

/** A setting found, and its line in the log: one act, so that undo takes both back. @param at min since 1970 */
function keepSetting({ id, world: w }: OnJob, plate: Plate, plan: Plan, at: number): Promise<void> {
  const tried = plan.placed.find((p) => kindOf(p.step.kind).tries === "setting");
  const entry: LogEntry = {
    ...new LogEntry(),
    id: `${id}.${Math.round(at * 60000).toString(36)}.plate`,
    jobId: id,
    kind: "plate",
    step: tried?.step.id ?? "plate",
    at,
    note: said(plate),
  };
  return commit(`setting found for “${w.job.title}”`, [
    { table: "jobs", id, next: { ...w.job, plate }, base: w.job },
    { table: "log", id: entry.id, next: entry },
  ]);
}

class CellForm {
  @Text(120) id!: string;
  @Text(4) row!: string;
  @Text(4) col!: string;
  @OneOf(["top", "under", "mark", "mm"]) field!: "top" | "under" | "mark" | "mm";
  /** empty: nothing is said any more */
  @Text(20) value: string = "";
}
class TestId {
  @Text(120) id!: string;
}
class PhotoForm {
  @Text(120) id!: string;
  /** cells as they were read, as JSON */
  @Text(HUGE) cells!: string;
}

/** A range as it is typed: “20 to 80 %”, “100-400 mm/s”; one value alone is a row of that. */
function range(text: string, read: (t: string) => number): [number, number] {
  const unit = /[a-z%/]+(?:[a-z0-9/]*)$/i.exec(text.trim())?.[0] ?? "";
  const parts = text.trim().split(/\s*(?:\bto\b|–|(?<=\d)\s*-\s*(?=\d))\s*/i);
  if (parts.length > 2) throw new Refused(`“${text.trim()}” is not a range such as 20 to 80 %.`);
  const [a, b = a] = parts.map((p) => read(/[a-z%]/i.test(p) ? p : `${p} ${unit}`.trim()));
  return [a, b];
}
/** @throws Refused with what was probably meant */
function shareOfPanel(t: string): number {
  const p = typed.percent(t);
  if (p > 1) {
    const meant = [p / 10, p / 100].find((x) => x <= 1);
    throw new Refused(
      `${t.trim()} is more than all of the power${meant ? `; ${Math.round(meant * 1000) / 10} % was probably meant` : ""}.`,
    );
  }
  if (!(p > 0)) throw new Refused(`${t.trim()} is no power to burn with.`);
  return p;
}
/** mm/s above 0. */
function quick(t: string, max: number | null): number {
  const v = typed.speed(t, max);
  if (!(v > 0)) throw new Refused(`${t.trim()} is no speed to burn at.`);
  return v;
}

const changedTests = (c: OnJob, what: string, more: (tests: TestPlate[], j: Job) => TestPlate[]): Promise<void> =>
  changed(c, what, (j) => {
    const tests = more(j.tests ?? [], j);
    return { tests: tests.length ? tests : undefined };
  });
/** A cell with one thing said of it. */
function cellWith(t: TestPlate, f: CellForm): TestPlate {
  const [row, col] = [typed.whole(f.row), typed.whole(f.col)];
  if (row >= t.powers.length || col >= t.speeds.length || row < 0 || col < 0)
    throw new Refused("There is no such cell on this plate.");
  const was = t.cells.find((x) => x.row === row && x.col === col) ?? { row, col };
  const { [f.field]: _, ...rest } = was as PlateCell & Record<string, unknown>;
  const number = f.field === "mark" || f.field === "mm";
  const n = number && f.value.trim() ? (f.field === "mm" ? typed.length(f.value) : typed.number(f.value)) : null;
  if (f.field === "mark" && n !== null && !(n >= 0 && n <= 10)) throw new Refused("A mark lies between 0 and 10.");
  if (!number) {
    // pressed as fast as one likes: each press goes on from what is stored by then
    const at = f.value === "next" ? PLATE_READS.findIndex((r) => r === was[f.field as "top"]) + 1 : -1;
    const value = f.value === "next" ? (PLATE_READS[at] ?? "") : f.value;
    if (value && !PLATE_READS.some((r) => r === value)) throw new Refused(`“${value}” is no reading of a cell.`);
    f = { ...f, value };
  }
  const said = f.value.trim() ? { [f.field]: number ? n : f.value } : {};
  const next = { ...rest, row, col, ...said } as PlateCell;
  const empty = Object.keys(next).length === 2;
  const others = t.cells.filter((x) => x.row !== row || x.col !== col);
  return { ...t, cells: empty ? others : [...others, next] };
}
/** A plate with cells as a photo shows them; those that it says nothing of stay as they were read. */
function withCells(t: TestPlate, cells: readonly PlateCell[]): TestPlate {
  const read = new Map(t.cells.map((x) => [`${x.row} ${x.col}`, x]));
  for (const { row, col, top, under, mark } of cells) {
    if (!(row >= 0 && col >= 0 && row < t.powers.length && col < t.speeds.length))
      throw new Refused("There is no such cell on this plate.");
    const said = { ...(top ? { top } : {}), ...(under ? { under } : {}), ...(mark === undefined ? {} : { mark }) };
    read.set(`${row} ${col}`, { ...read.get(`${row} ${col}`), row, col, ...said });
  }
  return { ...t, cells: [...read.values()] };
}
const oneTest = (w: World, id: string): TestPlate => {
  const t = w.job.tests?.find((x) => x.id === id);
  if (!t) throw new Refused("This plate is no longer there; read the page anew.");
  return t;
};

export const plateActs = [
  act("test-add", TestForm, (f, c: OnJob) => {
    const { world: w } = c;
    const machine = w.machines.find((m) => m.id === w.job.machineId);
    if (!machine) throw new Refused("Choose a machine first: a setting belongs to one.");
    const mm = (t: string): number => typed.length(t, w.shop.units);
    const at = nowMinutes();
    const [p, v] = [range(f.powers, shareOfPanel), range(f.speeds, (t) => quick(t, machine.maxSpeed))];
    const work = foundFor(makePlan(w, Math.floor(at)));
    const made: TestPlate = {
      ...new TestPlate(),
      id: `plate.${Math.round(at * 60).toString(36)}.${(w.job.tests ?? []).length + 1}`,
      at: shopClock(w.shop).toLocal(Math.floor(at)),
      question: f.question,
      machineId: machine.id,
      ...(work ? { work } : {}),
      powers: spaced(p[0], p[1], typed.whole(f.rows), f.spacing),
      speeds: spaced(v[0], v[1], typed.whole(f.cols), f.spacing),
      interval: typed.interval(f.interval),
      passes: typed.whole(f.passes || "1"),
      cellMm: mm(f.cellMm),
      gapMm: mm(f.gapMm),
      ...(f.shows === "drawing" ? { shows: f.shows } : {}),
      ...(f.scrapW.trim() && f.scrapH.trim() ? { scrapW: mm(f.scrapW), scrapH: mm(f.scrapH) } : {}),
    };
    const against = guardsOf(made, context(w)).find((g) => g.stops);
    if (against) throw new Refused(against.say);
    return changedTests(c, "test plate of", (all) => [...all, made]);
  }),
  act("test-cell", CellForm, (f, c: OnJob) =>
    changedTests(c, "reading of a test plate of", (all) => all.map((t) => (t.id === f.id ? cellWith(t, f) : t))),
  ),
  act("test-photo", PhotoForm, (f, c: OnJob) => {
    const cells = JSON.parse(f.cells) as PlateCell[];
    return changedTests(c, "photo of a test plate of", (all) =>
      all.map((t) => (t.id === f.id ? withCells(t, cells) : t)),
    );
  }),
  act("test-remove", TestId, (f, c: OnJob) =>
    changedTests(c, "test plate of", (all) => all.filter((t) => t.id !== f.id)),
  ),
  act("test-fewer", TestId, (f, c: OnJob) => {
    const t = oneTest(c.world, f.id);
    if (t.cells.length) throw new Refused("Cells of this plate are read already: keep it, and make another one.");
    const plan = makePlan(c.world, Math.floor(nowMinutes()));
    const m = c.world.machines.find((x) => x.id === t.machineId);
    const few = m && fewer(t, m, firstOf(plan));
    if (!few) throw new Refused("All cells of this plate are wanted.");
    const { powers, speeds } = few;
    return changedTests(c, "cells of a test plate of", (all) =>
      all.map((x) => (x.id === t.id ? { ...x, powers, speeds } : x)),
    );
  }),
  act("test-zoom", TestId, (f, c: OnJob) => {
    const t = oneTest(c.world, f.id);
    const plan = makePlan(c.world, Math.floor(nowMinutes()));
    const m = c.world.machines.find((x) => x.id === t.machineId);
    const near = m && zoomed(t, fitOf(t, plan), m);
    if (!near) throw new Refused("This plate says too little to zoom in on.");
    const at = nowMinutes();
    const id = `plate.${Math.round(at * 60).toString(36)}.${(c.world.job.tests ?? []).length + 1}`;
    const made = { ...t, ...near, id, at: shopClock(c.world.shop).toLocal(Math.floor(at)), cells: [], note: "" };
    return changedTests(c, "closer test plate of", (all) => [...all, made]);
  }),
  act("test-use", TestId, async (f, c: OnJob) => {
    const { world: w } = c;
    const t = oneTest(w, f.id);
    const at = nowMinutes();
    const plan = makePlan(w, Math.floor(at));
    const fit = fitOf(t, plan);
    if (fit.depth) {
      const perJ = perJOf(fit.depth);
      const body = w.job.substrate.id;
      await change<Machine>("depth measured", "machines", t.machineId, (m) => ({
        ...m,
        depths: [...(m.depths ?? []).filter((d) => d.substrate !== body), { substrate: body, perJ }],
      }));
      return `Kept: ${perJ} mm per J/mm² in this material`;
    }
    if (!fit.advice) throw new Refused(fit.lacks ?? "This plate says no setting yet.");
    const plate: Plate = {
      power: fit.advice.power,
      speed: fit.advice.speed,
      interval: t.interval,
      passes: t.passes,
      at: shopClock(w.shop).toLocal(Math.floor(at)),
      machineId: t.machineId,
      note: fit.advice.says.slice(0, 400),
      ...(t.work ? { work: t.work } : {}),
    };
    await keepSetting(c, plate, plan, at);
    return "The plan goes by it";
  }),
  act("plate", PlateForm, async (f, c: OnJob) => {
    const { world: w } = c;
    const machine = w.machines.find((m) => m.id === w.job.machineId);
    if (!machine) throw new Refused("Choose a machine first: a setting belongs to one.");
    const plate: Plate = {
      power: typed.percent(f.power),
      speed: typed.speed(f.speed, machine.maxSpeed),
      interval: typed.interval(f.interval),
      passes: typed.whole(f.passes || "1"),
      at: f.at,
      machineId: machine.id,
      note: f.note,
    };
    const at = nowMinutes();
    const plan = makePlan(w, Math.floor(at));
    const work = foundFor(plan);
    if (work) plate.work = work;
    return keepSetting(c, plate, plan, at);
  }),
];
