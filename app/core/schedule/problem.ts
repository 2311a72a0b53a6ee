/**
 * The scheduling problem as a file (model M18): what is read, what it defaults to, and every way in which it can be unsound.
 * Times are whole minutes from the start of the horizon. Nothing here knows of plans, screens or wall clocks.
 */
import { ValidateBy } from "class-validator";
import { check, sayFaults } from "../records/parse";
import { Flag, Num, OrNull, Sub, SubList, Text, Whole } from "../records/fields";

/** A problem that can't be read; the sentence names what and where. */
export class ProblemError extends Error {}

const MOST = 50_000;
const LATEST = 100_000_000;
const whole = (v: unknown): v is number => typeof v === "number" && Number.isInteger(v) && v >= 0 && v <= LATEST;
const pairs = (name: string, ok: (a: unknown, b: unknown) => boolean, say: string) => () =>
  ValidateBy({
    name,
    validator: {
      validate: (v) =>
        Array.isArray(v) && v.length <= MOST && v.every((p) => Array.isArray(p) && p.length === 2 && ok(p[0], p[1])),
      defaultMessage: () => say,
    },
  });
const Spans = pairs(
  "spans",
  (a, b) => whole(a) && whole(b) && a < b,
  "must be a list of [from, to) in whole minutes, from before to",
);
const Rates = pairs(
  "rates",
  (a, b) => whole(a) && typeof b === "number" && Number.isFinite(b) && b >= 0 && b <= 1e6,
  "must be a list of [from minute, speed], no speed below 0",
);

export class ResourceRecord {
  @Text(200) id!: string;
  @Whole(1) capacity: number = 1;
  /** [from, to): nothing that uses it runs then */
  @Spans() closed: [number, number][] = [];
}
export class ClockRecord {
  @Text(200) id!: string;
  /** [from minute, speed], piecewise constant; the first holds before, the last after */
  @Rates() rates!: [number, number][];
}
export class UseRecord {
  @Text(200) resource!: string;
  @Whole(1) amount: number = 1;
}
export class TaskRecord {
  @Text(200) id!: string;
  /** work, min; of one piece where `perPiece` */
  @Whole() minutes!: number;
  @SubList(() => UseRecord) uses: UseRecord[] = [];
  @Whole(1, 100_000) pieces: number = 1;
  @Flag() perPiece: boolean = false;
  /** may stop over closed time of its resources and go on */
  @Flag() pausable: boolean = false;
  @Whole(0, LATEST) earliest: number = 0;
  @OrNull() @Whole(0, LATEST) due: number | null = null;
  @Num(0) weight: number = 1;
  /** done or pinned */
  @OrNull() @Whole(0, LATEST) fixedStart: number | null = null;
  /** where it stood before: moving it costs */
  @OrNull() @Whole(0, LATEST) preferStart: number | null = null;
}
export class LagRecord {
  @Text(200) from!: string;
  @Text(200) to!: string;
  @Num(0, LATEST) min: number = 0;
  @OrNull() @Num(0, LATEST) max: number | null = null;
  @OrNull() @Num(0, LATEST) reopens: number | null = null;
  @Flag() soft: boolean = false;
  /** clock that `min` and `reopens` count; null: plain minutes */
  @OrNull() @Text(200) clock: string | null = null;
  /** clock that `max` counts */
  @OrNull() @Text(200) closeClock: string | null = null;
  @Flag() perPiece: boolean = false;
  /** held all through the wait */
  @SubList(() => UseRecord) holds: UseRecord[] = [];
}
export class TripRecord {
  @Text(200) resource!: string;
  @Whole() gap: number = 15;
}
export class ProblemRecord {
  @Text(400) name: string = "";
  @Whole() seed: number = 1;
  @OrNull() @Num(0, 1e6) limitSeconds: number | null = 10;
  @OrNull() @Whole() limitIterations: number | null = null;
  @SubList(() => ResourceRecord, MOST) resources: ResourceRecord[] = [];
  @SubList(() => ClockRecord, MOST) clocks: ClockRecord[] = [];
  @SubList(() => TaskRecord, MOST) tasks: TaskRecord[] = [];
  @SubList(() => LagRecord, MOST) lags: LagRecord[] = [];
  @OrNull() @Sub(() => TripRecord) trip: TripRecord | null = null;
  /** finish is compared in steps of so many minutes */
  @Whole(1) finishBucket: number = 1;
}
/** A sound problem with every default filled in. */
export type Problem = ProblemRecord;
/** A problem as it is written down: what is left out has its default. */
type Loose<T> = T extends (infer U)[]
  ? U extends [number, number]
    ? T
    : Loose<U>[]
  : T extends object
    ? { [K in keyof T]?: Loose<T[K]> }
    : T;
export type ProblemInput = Loose<ProblemRecord>;

export interface ScheduledTask {
  id: string;
  start: number;
  end: number;
  /** closed stretches inside it, [from, to) */
  pauses: [number, number][];
}
export interface Decide {
  kind: "task" | "wait" | "closed" | "resource" | "due";
  /** of a task or a resource; of a wait `from>to` */
  id: string;
  from: number;
  to: number;
  why: string;
  /** minutes sooner with this link relaxed; null: not worked out */
  gain: number | null;
}
export interface Answer {
  tasks: ScheduledTask[];
  /** minute the last task ends */
  finish: number;
  /** Σ weight × minutes late */
  lateness: number;
  windowsBroken: number;
  trips: number;
  /** Σ minutes moved from where tasks stood before */
  moved: number;
  /** below these no answer can come */
  bounds: { windowsBroken: number; lateness: number; finish: number };
  bound: number;
  proved: boolean;
  /** what `proved` speaks of */
  provedFor: "all" | "finish";
  decides: Decide[];
  seconds: number;
  iterations: number;
}

/** Follows lags; the ids of a cycle, in order, or null. */
function cycle(p: Problem): string[] | null {
  const next = new Map<string, string[]>();
  for (const l of p.lags) (next.get(l.from) ?? next.set(l.from, []).get(l.from)!).push(l.to);
  const state = new Map<string, 1 | 2>();
  for (const t of p.tasks) {
    if (state.has(t.id)) continue;
    const path: { id: string; at: number }[] = [{ id: t.id, at: 0 }];
    state.set(t.id, 1);
    while (path.length) {
      const top = path[path.length - 1];
      const to = next.get(top.id)?.[top.at++];
      if (to === undefined) {
        state.set(top.id, 2);
        path.pop();
      } else if (state.get(to) === 1) return [...path.slice(path.findIndex((x) => x.id === to)).map((x) => x.id), to];
      else if (!state.has(to)) {
        state.set(to, 1);
        path.push({ id: to, at: 0 });
      }
    }
  }
  return null;
}

/**
 * A problem out of a file, with its defaults.
 * @throws ProblemError in one sentence: unknown keys, wrong numbers, names that nothing has, names given twice, lags in a circle
 */
export function readProblem(value: unknown): Problem {
  const read = check(ProblemRecord, value, "", "default");
  if (!read.ok) throw new ProblemError(`The problem can’t be read: ${sayFaults(read.faults, 3)}.`);
  return sound(read.value);
}

const written = <T extends object>(record: T, given: object): T =>
  Object.assign(record, Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)));
const usesOf = (list: readonly object[] | undefined): UseRecord[] =>
  (list ?? []).map((u) => written(new UseRecord(), u));

/**
 * A problem that we have written ourselves, with its defaults: what only a file can get wrong is not asked again.
 * @throws ProblemError as {@link readProblem} does, for names, lags in a circle and times that are none
 */
export function ownProblem(value: ProblemInput): Problem {
  const p = written(new ProblemRecord(), value);
  p.resources = (value.resources ?? []).map((r) => written(new ResourceRecord(), r));
  p.clocks = (value.clocks ?? []).map((c) => written(new ClockRecord(), c));
  p.tasks = (value.tasks ?? []).map((t) => ({ ...written(new TaskRecord(), t), uses: usesOf(t.uses) }));
  p.lags = (value.lags ?? []).map((l) => ({ ...written(new LagRecord(), l), holds: usesOf(l.holds) }));
  p.trip = value.trip ? written(new TripRecord(), value.trip) : null;
  const times = (t: TaskRecord): boolean =>
    whole(t.minutes) && whole(t.earliest) && [t.due, t.fixedStart, t.preferStart].every((x) => x === null || whole(x));
  const waits = (l: LagRecord): boolean =>
    [l.min, l.max, l.reopens].every((x) => x === null || (Number.isFinite(x) && x >= 0 && x <= LATEST));
  const task = p.tasks.find((t) => !times(t));
  if (task) throw new ProblemError(`The problem can’t be read: the times of “${task.id}” are none.`);
  const lag = p.lags.find((l) => !waits(l));
  if (lag) throw new ProblemError(`The problem can’t be read: the wait from “${lag.from}” to “${lag.to}” is none.`);
  return sound(p);
}

/** The same problem, once its names and lags agree. @throws ProblemError */
function sound(p: Problem): Problem {
  const bad = (say: string): never => {
    throw new ProblemError(`The problem can’t be read: ${say}.`);
  };
  const names = (list: { id: string }[], what: string): Set<string> => {
    const seen = new Set<string>();
    list.forEach((x, i) => {
      if (!x.id) bad(`${what}[${i}] has an empty id`);
      if (seen.has(x.id)) bad(`${what}[${i}] has the id “${x.id}”, which stands there already`);
      seen.add(x.id);
    });
    return seen;
  };
  const resources = names(p.resources, "resources");
  const clocks = names(p.clocks, "clocks");
  const tasks = names(p.tasks, "tasks");
  p.clocks.forEach((c, i) => {
    if (!c.rates.length) bad(`clocks[${i}] has no rates`);
    if (c.rates.some((r, k) => k > 0 && r[0] <= c.rates[k - 1][0])) bad(`clocks[${i}].rates must go forward in time`);
  });
  const uses = (list: UseRecord[], where: string): void => {
    const seen = new Set<string>();
    for (const u of list) {
      if (!resources.has(u.resource)) bad(`${where} names “${u.resource}”, which is no resource`);
      if (seen.has(u.resource)) bad(`${where} names “${u.resource}” twice`);
      seen.add(u.resource);
    }
  };
  const pieces = new Map(p.tasks.map((t) => [t.id, t]));
  p.tasks.forEach((t, i) => {
    uses(t.uses, `tasks[${i}].uses`);
    if (t.minutes * (t.perPiece ? t.pieces : 1) > LATEST) bad(`tasks[${i}] takes longer than any horizon`);
  });
  p.lags.forEach((l, i) => {
    for (const end of ["from", "to"] as const)
      if (!tasks.has(l[end])) bad(`lags[${i}].${end} names “${l[end]}”, which is no task`);
    for (const c of ["clock", "closeClock"] as const)
      if (l[c] !== null && !clocks.has(l[c] as string)) bad(`lags[${i}].${c} names “${l[c]}”, which is no clock`);
    if (l.reopens !== null && l.max === null) bad(`lags[${i}] reopens, but never closes: it has no max`);
    const [a, b] = [pieces.get(l.from)!, pieces.get(l.to)!];
    if (l.perPiece && a.perPiece && b.perPiece && a.pieces !== b.pieces)
      bad(`lags[${i}] goes piece by piece from ${a.pieces} pieces to ${b.pieces}`);
    uses(l.holds, `lags[${i}].holds`);
  });
  if (p.trip && !resources.has(p.trip.resource)) bad(`trip.resource names “${p.trip.resource}”, which is no resource`);
  const round = cycle(p);
  if (round) bad(`the lags go in a circle: ${round.map((id) => `“${id}”`).join(" → ")}`);
  return p;
}
