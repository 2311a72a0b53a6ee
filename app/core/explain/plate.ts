/**
 * A test plate designed and read: its cells with the energy that each gets, what stands against making it, how large it is and how long it
 * takes; and what its readings say of the setting.
 */
import { DEPTH_THRESHOLD } from "../models/depth/depth";
import {
  fitDepth,
  fitPeak,
  fitWindow,
  spaced,
  type DepthFit,
  type PeakFit,
  type WindowFit,
} from "../models/laser/plate";
import { fewestCells, type Fewer } from "../models/laser/fewest";
import { rasterTime } from "../models/laser/runtime";
import { dose, keptSpeed, shareOf, topSpeed, wattsOf } from "../process/beam";
import type { Context } from "../process/context";
import { workOf } from "../process/force";
import { ENOUGH } from "../process/settings";
import type { LaserSetting } from "../process/step";
import { isSet, kindOf, own } from "../process/kinds";
import { beamWork } from "../catalogue/routes";
import type { Plan } from "../plan/plan";
import type { Machine } from "../records/machine";
import type { PlateQuestion } from "../records/ids";
import type { TestPlate } from "../records/job";
import { plural, showMinutes } from "../units/show";

export interface Cell {
  row: number;
  col: number;
  power: number;
  speed: number;
  watts: number | null;
  /** J/mm² of all passes; null: the watts are not known */
  e: number | null;
}
/** mm beside and above the cells that labels take */
export const LABEL_MM = 14;
/** J/mm² of one cell beyond which most bodies char */
const CHARS_E = 12;
const LONG_MIN = 60;

/** What the machine is asked for by a plate: row by row, cell by cell. */
export const cellsOf = (t: TestPlate, m: Machine | null): Cell[] =>
  t.powers.flatMap((power, row) =>
    t.speeds.map((speed, col) => ({
      row,
      col,
      power,
      speed,
      watts: m ? wattsOf(m, power) : null,
      e: m ? dose(m, { power, speed, interval: t.interval, passes: t.passes, from: "typed" }) : null,
    })),
  );

/** Width and height with labels, mm. */
export function sizeOf(t: Pick<TestPlate, "powers" | "speeds" | "cellMm" | "gapMm">): { w: number; h: number } {
  const side = (n: number): number => LABEL_MM + n * t.cellMm + (n - 1) * t.gapMm;
  return { w: side(t.speeds.length), h: side(t.powers.length) };
}
/** Minutes that the beam takes for it; null: no machine. */
export function plateMinutes(t: TestPlate, m: Machine | null): number | null {
  if (!m) return null;
  const seconds = cellsOf(t, m).reduce(
    (a, c) =>
      a +
      rasterTime({
        rowMm: t.cellMm,
        rows: Math.ceil(t.cellMm / t.interval),
        intervalMm: t.interval,
        speed: c.speed,
        accel: m.accel,
        overscanMm: m.overscanMm,
        bothWays: m.bothWays,
        rapid: m.rapid,
        galvo: m.galvo,
        jumpS: m.jumpMs / 1000,
        passes: t.passes,
      }),
    0,
  );
  return seconds / 60;
}

export interface Guard {
  /** it is not made as it is */
  stops: boolean;
  say: string;
}
/** What stands against a plate as it is. */
export function guardsOf(t: TestPlate, { machine: m }: Pick<Context, "machine">): Guard[] {
  const out: Guard[] = [];
  if (!m) return [{ stops: true, say: "No machine is chosen, so no cell has an energy." }];
  const top = topSpeed(m);
  const fast = t.speeds.filter((v) => v > top + 1e-9);
  if (fast.length)
    out.push({
      stops: true,
      say: `${fast.length} of the speeds are above the ${Math.round(top)} mm/s that ${m.name} reaches.`,
    });
  const over = t.powers.filter((p) => p > 1 + 1e-9);
  if (over.length) out.push({ stops: true, say: `${over.length} of the powers are above 100 %.` });
  const dark = t.powers.filter((p) => wattsOf(m, Math.min(1, p)) === null);
  if (dark.length)
    out.push({
      stops: false,
      say:
        `Of ${plural(dark.length, "row")} the watts are not known: measure them, or begin higher. ` +
        "A tube turned low is not its percent.",
    });
  const size = sizeOf(t);
  if (t.scrapW !== undefined && t.scrapH !== undefined) {
    const fits = (w: number, h: number): boolean => size.w <= w + 1e-9 && size.h <= h + 1e-9;
    if (!fits(t.scrapW, t.scrapH) && !fits(t.scrapH, t.scrapW))
      out.push({
        stops: true,
        say: `With labels it takes ${Math.ceil(size.w)} mm × ${Math.ceil(size.h)} mm, and the scrap has ${t.scrapW} mm × ${t.scrapH} mm.`,
      });
  }
  const cells = cellsOf(t, m);
  const same = cells.length - new Set(cells.map((x) => (x.e === null ? `${x.row} ${x.col}` : x.e.toPrecision(3)))).size;
  if (same > cells.length / 2)
    out.push({
      stops: false,
      say: `${same} cells get the same energy as another: vary power and speed by different steps.`,
    });
  const hot = cells.filter((x) => x.e !== null && x.e > CHARS_E).length;
  if (hot && t.question !== "depth")
    out.push({
      stops: false,
      say: `${hot} ${hot === 1 ? "cell gets" : "cells get"} more than ${CHARS_E} J/mm²: it will char. Stay with it.`,
    });
  const min = plateMinutes(t, m);
  if (min !== null && min > LONG_MIN)
    out.push({
      stops: false,
      say: `It runs ${showMinutes(min)}, and somebody stays with it: fewer or smaller cells would do.`,
    });
  return out;
}

/** What the plate of a job is to find out, by what its beam does. */
export function questionOf(c: Context): PlateQuestion {
  const work = beamWork(c.route);
  if (work === "mark" && !c.substrate.skin) return "darken";
  if (work === "burn-in") return "darken";
  if (work === "engrave") return "depth";
  return "window";
}

/** The setting of the first work of the beam that is no trial; null: there is none yet. */
function firstSet(plan: Plan): LaserSetting | null {
  const at = plan.placed.find((p) => isSet(p.step) && kindOf(p.step.kind).tries === undefined);
  return at ? own(at.step, "laser") : null;
}
/** The work of the beam that a plate of this job speaks of: what comes first behind the trial, or first of all. */
export function foundFor(plan: Plan): string | null {
  const trial = plan.placed.findIndex((p) => kindOf(p.step.kind).tries === "setting");
  const at = plan.placed.find((p, i) => i > trial && kindOf(p.step.kind).starts !== undefined);
  return at ? workOf(at.step, at.before, plan.context) : null;
}

/** A plate to begin with, round the setting that is computed; null: none is, since no machine is chosen or nothing is known. */
export function firstPlate(
  plan: Plan,
): { powers: [number, number]; speeds: [number, number]; interval: number } | null {
  const c = plan.context;
  const m = c.machine;
  const set = firstSet(plan);
  if (!m || !set) return null;
  const fastest = keptSpeed(m, null);
  return {
    powers: [Math.max(0.05, set.power * 0.55), Math.min(1, set.power * 1.5)],
    speeds: [Math.max(1, set.speed * 0.5), Math.min(fastest, set.speed * 2)],
    interval: set.interval,
  };
}

export interface Advice {
  /** J/mm² to go by */
  e: number;
  power: number;
  speed: number;
  /** what says so, in words */
  says: string;
}
export interface PlateFit {
  window: WindowFit | null;
  peak: PeakFit | null;
  depth: DepthFit | null;
  /** what the plate can’t say yet; null: it says something */
  lacks: string | null;
  advice: Advice | null;
  /** J/mm² at which three further cells would tell most */
  next: number[];
}

const r2 = (v: number): string => (v >= 10 ? v.toFixed(1) : v.toFixed(2));
/** Power and speed that put so much on the surface, at the plate’s own middle speed where the machine has the power for it. */
export function settingOf(e: number, t: TestPlate, m: Machine): { power: number; speed: number } {
  const middle = [...t.speeds].sort((a, b) => a - b)[Math.floor(t.speeds.length / 2)];
  const most = Math.min(1, Math.max(...t.powers));
  let speed = middle;
  let power = shareOf(m, (e / t.passes) * speed * t.interval);
  if (power > most + 1e-9) {
    power = most;
    const w = wattsOf(m, power) ?? m.watts * power;
    speed = w / ((e / t.passes) * t.interval);
  }
  return { power: Math.round(power * 1000) / 1000, speed: Math.round(speed * 10) / 10 };
}

/** J/mm² at which the top is thought to go; null: nobody knows. */
export function firstOf(plan: Plan): number | null {
  const set = firstSet(plan);
  const e = set && plan.context.machine ? dose(plan.context.machine, set) : null;
  return e === null ? null : e * ENOUGH;
}

/** mm per J/mm² as it is kept with a machine. */
export const perJOf = (d: DepthFit): number => Math.round(d.perJ * 10000) / 10000;

/** What the readings of a job’s plate say. */
export const fitOf = (t: TestPlate, plan: Plan): PlateFit =>
  fitPlate(t, plan.context.world.machines.find((x) => x.id === t.machineId) ?? null, firstOf(plan));

/** What a plate’s readings say. @param first J/mm² at which the top is thought to go; null: nobody knows */
export function fitPlate(t: TestPlate, m: Machine | null, first: number | null): PlateFit {
  const bare = `No cell is read yet: ${t.question === "depth" ? "measure how deep each is." : "wipe the plate, then say what you see."}`;
  const none: PlateFit = { window: null, peak: null, depth: null, lacks: null, advice: null, next: [] };
  if (!m) return { ...none, lacks: "The machine that it was made on is no longer in the Workshop." };
  const at = new Map(cellsOf(t, m).map((c) => [`${c.row} ${c.col}`, c]));
  const read = t.cells.flatMap((x) => {
    const e = at.get(`${x.row} ${x.col}`)?.e;
    return e ? [{ ...x, e }] : [];
  });
  if (!read.length) return { ...none, lacks: bare };
  if (t.question === "darken") {
    const marks = read.flatMap((x) => (x.mark === undefined ? [] : [{ e: x.e, mark: x.mark }]));
    const fit = fitPeak(marks);
    if (typeof fit === "string") return { ...none, lacks: fit };
    const says = `Deepest at ${r2(fit.peak)} J/mm²; ${r2(fit.best)} stays just before it pales. By ${fit.n} cells.`;
    return { ...none, peak: fit, advice: { e: fit.best, ...settingOf(fit.best, t, m), says } };
  }
  if (t.question === "depth") {
    const dug = read.flatMap((x) => (x.mm === undefined ? [] : [{ e: x.e, passes: t.passes, mm: x.mm }]));
    const fit = fitDepth(dug, DEPTH_THRESHOLD);
    return fit
      ? { ...none, depth: fit }
      : { ...none, lacks: "Measure the depth of two cells at least, deeper than nothing." };
  }
  const fit = fitWindow(
    read.map((x) => ({ e: x.e, top: x.top ?? null, under: x.under ?? null })),
    first,
  );
  if (!fit) return { ...none, lacks: bare };
  const shut = fit.hi !== null && fit.open < 0.5;
  const between = fit.hi ? `Window ${r2(fit.lo.mid)} to ${r2(fit.hi.mid)} J/mm²` : `Open from ${r2(fit.lo.mid)} J/mm²`;
  const unread = fit.hi === null ? " What lies beneath was not read: look at it too." : "";
  const says = shut
    ? `By these cells there is no window: a thinner or more even top, or a thicker colour beneath, would open one.`
    : `${between}; ${r2(fit.best)} lies in it with ${Math.round(100 * fit.sure)} % certainty.${unread}`;
  return {
    ...none,
    window: fit,
    lacks: shut ? says : null,
    advice: shut ? null : { e: fit.best, ...settingOf(fit.best, t, m), says },
    next: fit.next,
  };
}

/** A further plate round what is not sure yet, between the edges of what the readings leave open; null: nothing to zoom in on. */
export function zoomed(t: TestPlate, fit: PlateFit, m: Machine): Pick<TestPlate, "powers" | "speeds"> | null {
  const w = fit.window;
  const [from, to] = w
    ? [w.lo.low * 0.95, (w.hi?.high ?? w.lo.high * 1.5) * 1.05]
    : fit.peak
      ? [fit.peak.best * 0.7, fit.peak.peak * 1.4]
      : [0, 0];
  if (!(from > 0)) return null;
  const speed = settingOf(Math.sqrt(from * to), t, m).speed;
  const power = (e: number): number => Math.min(1, shareOf(m, (e / t.passes) * speed * t.interval));
  return { powers: spaced(power(from), power(to), Math.max(4, t.powers.length), "geometric"), speeds: [speed] };
}

/** Questions that an edge answers: where something opens, or is cut through. */
const BY_EDGE: readonly PlateQuestion[] = ["window", "cut-mask"];
/**
 * The same plate of the fewest cells that answer it (M5), over the same powers and speeds.
 * @param first J/mm² at which the top is thought to go; null: nobody knows @returns null: all of its cells are wanted, or more than these
 */
export function fewer(
  t: TestPlate,
  m: Machine,
  first: number | null,
): (Fewer & Pick<TestPlate, "powers" | "speeds">) | null {
  if (!BY_EDGE.includes(t.question) || t.cells.length) return null;
  const ends = (of: readonly number[], n: number): number[] =>
    spaced(Math.min(...of), Math.max(...of), Math.min(n, of.length), "geometric");
  const as = (rows: number, cols: number) => ({ powers: ends(t.powers, rows), speeds: ends(t.speeds, cols) });
  const energies = (rows: number, cols: number): number[] =>
    cellsOf({ ...t, ...as(rows, cols) }, m).flatMap((c) => c.e ?? []);
  if (energies(t.powers.length, t.speeds.length).length < t.powers.length * t.speeds.length) return null;
  const found = fewestCells(t.powers.length, t.speeds.length, energies, first, t.question === "window");
  return found && { ...found, ...as(found.rows, found.cols) };
}

/** columns of the key of a plate */
export const KEY_COLUMNS = ["cell", "power (%)", "watts", "speed (mm/s)", "interval (mm)", "passes", "energy (J/mm²)"];
