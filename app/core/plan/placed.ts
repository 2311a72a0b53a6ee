/** A step placed in time, or barred from it; and the questions that placing asks of hours, work and windows. */
import type { Piece } from "../piece/state";
import type { Context } from "../process/context";
import { byBeam, kindOf, own, type Step } from "../process/kinds";
import type { Readiness } from "../process/ready";
import type { Shared } from "../records/job";
import type { WorkCalendar } from "../time/hours";

export interface Actual {
  start: number;
  /** null: begun, not finished */
  end: number | null;
  /** the wait before it was ended by a touch check or on purpose */
  early: "touch" | "risk" | null;
}

interface PlacedBase {
  step: Step;
  index: number;
  /** pieces that it is done to: all that are begun, piece 1 where it goes first, or the rest behind it */
  pieces: number;
  /** of the proof: the steps that piece 1 goes through before it; of any other step: none */
  cycle: Placed[];
  setupMin: number | null;
  perPieceMin: number | null;
  /** minutes of work, learned corrections included; null: unknown */
  minutes: number | null;
  /** minutes that stay together where closing time may fall inside it, 0: any; null: it is done in one go, if a day holds it */
  unit: number | null;
  /** as the model says, without learned corrections */
  uncorrected: number | null;
  needs: Readiness[];
  /** the wait that this step had to sit out, or null */
  waited: Readiness | null;
  before: Piece;
  after: Piece;
  actual: Actual | null;
}
export interface Scheduled extends PlacedBase {
  start: number;
  end: number;
  /** closed stretches inside it: [from, to] */
  pauses: [number, number][];
  blocked: null;
  refused: null;
}
export interface Blocked extends PlacedBase {
  start: null;
  end: null;
  pauses: [];
  /** why there is no time for it */
  blocked: string;
  /** why it can’t be done on the piece as it is by then; null: that is not the reason */
  refused: string | null;
}
export type Placed = Scheduled | Blocked;

/** Steps of piece 1 alone, and of all pieces, in the order they are done. */
export function inTurn(placed: Placed[]): Placed[] {
  const known = turnsOf.get(placed);
  if (known) return known;
  const all = placed.some((p) => p.cycle.length) ? placed.flatMap((p) => [...p.cycle, p]) : placed;
  turnsOf.set(placed, all);
  return all;
}
/** worked out once for a plan: everybody asks for them */
const turnsOf = new WeakMap<Placed[], Placed[]>();

/** What a step on so many pieces looks at. */
export const contextAt = (p: Pick<Placed, "pieces">, c: Context): Context =>
  p.pieces === c.pieces ? c : { ...c, pieces: p.pieces };

export interface Slot {
  start: number;
  end: number;
  pauses: [number, number][];
}

/** openings of the shop that are looked at for a place */
const OPENINGS = 800;

/**
 * Work of `minutes` begun no earlier than `from`, inside working hours; null: there are none.
 * @param unit minutes of it that stay together where closing time may fall inside it, 0: any; null: all of it does, if a day holds it
 */
export function slot(calendar: WorkCalendar, from: number, minutes: number, unit: number | null): Slot | null {
  let at = Math.ceil(from);
  const whole = Math.ceil(minutes);
  if (whole <= 0) return { start: at, end: at, pauses: [] };
  const mayPause = unit !== null || whole > calendar.longest;
  const together = unit !== null && unit <= calendar.longest ? unit : 0;
  for (let guard = 0; guard < OPENINGS; guard++) {
    const open = calendar.openAt(at);
    if (!open) return null;
    const start = Math.max(at, open.from);
    if (start + whole <= open.to) return { start, end: start + whole, pauses: [] };
    if (mayPause && open.to - start >= together) return acrossClosing(calendar, start, open.to, whole, together);
    at = open.to;
  }
  return null;
}

/** Work that stops at closing time and goes on at the next opening, as often as it takes. */
function acrossClosing(calendar: WorkCalendar, start: number, shuts: number, whole: number, unit: number): Slot | null {
  const pauses: [number, number][] = [];
  /** of so many minutes of opening, those that are worked */
  const worked = (open: number, left: number): number =>
    left <= open ? left : unit > 0 ? Math.floor(open / unit) * unit : open;
  let does = worked(shuts - start, whole);
  let left = whole - does;
  let end = start + does;
  let at = shuts;
  for (let guard = 0; left > 0; guard++) {
    const next = calendar.openAt(at);
    if (!next || guard > OPENINGS) return null;
    does = worked(next.to - next.from, left);
    at = next.to;
    if (!does) continue;
    pauses.push([end, next.from]);
    left -= does;
    end = next.from + does;
  }
  return { start, end, pauses };
}

export interface Work {
  setup: number | null;
  perPiece: number | null;
  total: number | null;
  uncorrected: number | null;
}

/**
 * Minutes of a step for the whole batch: typed, else by its kind, corrected by what the log has taught. Done together with other jobs
 * it takes more or less by as much as the shop's calendar has found.
 */
export function workMinutes(s: Step, c: Context): Work {
  if (s.minutes !== null) return { setup: s.minutes, perPiece: 0, total: s.minutes, uncorrected: s.minutes };
  const m = kindOf(s.kind).minutes(s, c);
  if (!m) return { setup: null, perPiece: null, total: null, uncorrected: null };
  const by = sharedOf(s, c)?.by ?? 0;
  const raw = m.setup + m.perPiece * c.pieces;
  const k = c.learned(s.kind);
  const each = m.perPiece * k;
  return {
    setup: Math.max(0, m.setup * k + by),
    perPiece: each,
    total: Math.max(0, raw * k + by),
    uncorrected: Math.max(0, raw + by / k),
  };
}
/** What a step is done together with; undefined: nothing. */
export const sharedOf = (s: Pick<Step, "id">, c: Context): Shared | undefined =>
  c.job.queue?.shared?.find((x) => x.step === s.id);

/** Is it sprayed, and so bound to the shop’s spraying hours? */
export const sprayed = (s: Step, c: Context): boolean => {
  const by = kindOf(s.kind).lays === "film" ? c.paint(own(s, "productId"))?.finish.by : undefined;
  return by === "spray" || by === "airbrush";
};
/** When a step may be done: spraying and lasers keep hours of their own where the shop has some. */
export const hoursOf = (s: Step, c: Context): WorkCalendar =>
  sprayed(s, c) ? c.sprayCalendar : byBeam(s) ? c.loudCalendar : c.calendar;

/**
 * May work that begins at `start` go on these films: does it lie whole in a stretch in which each of them may be worked on? Too early is
 * another matter: before the first stretch nothing has shut.
 */
export const inWindow = (r: Readiness, start: number, minutes: number): boolean => {
  if (r.closes === null) return true;
  const whole = Math.max(0, Math.ceil(minutes));
  const first = r.stretches[0];
  if (first?.from === r.opens && first.to !== null && start < first.from) return start + whole <= first.to;
  return r.stretches.some((s) => start >= s.from && (s.to === null || start + whole <= s.to));
};
/** First moment after `start` at which a stretch begins; null: none does. */
export const nextStretch = (r: Readiness, start: number): number | null =>
  r.stretches.find((s) => s.from > start)?.from ?? null;
/** The need of a step whose window may shut; null: none. */
export const windowed = (p: Placed): Readiness | null => p.needs.find((r) => r.closes !== null) ?? null;

/** Is a step begun outside a window of its own? What was logged is a fact, and a wait set by hand is no window's. */
export function breaksWindow(p: Placed, waitBefore: number | null): boolean {
  const { start } = p;
  return (
    start !== null &&
    !p.actual &&
    waitBefore === null &&
    p.needs.some((r) => r.closes !== null && !inWindow(r, start, p.minutes ?? 0))
  );
}
/** Is a step longer than the window that it would be begun in, so that it waits for the reopening whenever what lies before is done? */
export const outlasts = (p: Placed): boolean => {
  const whole = Math.max(0, Math.ceil(p.minutes ?? 0));
  return p.needs.some(
    (r) =>
      r.closes !== null &&
      r.stretches.some((s) => s.to === null) &&
      r.stretches.every((s) => s.to === null || s.to - s.from < whole),
  );
};
/** Recoat windows that a placed plan breaks: begun neither before they shut nor after they reopen. */
export const brokenWindows = (placed: Placed[]): number =>
  inTurn(placed).filter((p, i, all) => breaksWindow(p, i === 0 ? null : all[i - 1].step.waitMin)).length;

/** Steps with their times. */
export interface PlaceResult {
  placed: Placed[];
  /** first step that could not be placed, if any */
  stuck: { index: number; why: string } | null;
  /** a window had work begin later than it could have */
  moved: boolean;
  /** the runs it was placed in, one after another: steps tied by windows lie in one */
  runs: LaidRun[];
}
/** A run of steps as it was placed. */
export interface LaidRun {
  placed: Placed[];
  /** index of the last step that was looked at for it: what is said of a later one changes nothing here */
  looked: number;
  /** that step, where it lies behind the run */
  ahead: Placed | null;
  moved: boolean;
}
