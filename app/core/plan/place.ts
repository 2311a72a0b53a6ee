/**
 * Steps put into time, forward from a start: working hours, days off, waits that run through the night, recoat windows that
 * a closed shop must not straddle, the laser only while somebody is there. Logged times are pinned.
 */
import type { Piece } from "../piece/state";
import type { Context } from "../process/context";
import { kindOf } from "../process/kinds";
import { LAYS } from "../process/lays";
import { readiness, type Readiness } from "../process/ready";
import type { Step } from "../process/step";
import type { WorkCalendar } from "../time/hours";
import { stateWords } from "../process/words";

export interface Actual {
  start: number;
  /** null: begun, not finished */
  end: number | null;
  /** the wait before it was ended by a touch check or on purpose */
  early: "touch" | "risk" | null;
}

export interface Placed {
  step: Step;
  index: number;
  setupMin: number | null;
  perPieceMin: number | null;
  /** minutes of work, learned corrections included; null: unknown */
  minutes: number | null;
  /** as the model says, without learned corrections */
  uncorrected: number | null;
  start: number | null;
  end: number | null;
  /** closed stretches inside it: [from, to] */
  pauses: [number, number][];
  needs: Readiness[];
  /** the wait that this step had to sit out, or null */
  waited: Readiness | null;
  before: Piece;
  after: Piece;
  actual: Actual | null;
  /** why it can’t be done on the piece as it is by then; null: it can */
  refused: string | null;
  /** why there is no time for it */
  blocked: string | null;
}

interface Slot {
  start: number;
  end: number;
  pauses: [number, number][];
}

/** Work of `minutes` begun no earlier than `from`, inside working hours. */
export function slot(calendar: WorkCalendar, from: number, minutes: number, divisible: boolean): Slot | null {
  let at = Math.ceil(from);
  const whole = Math.ceil(minutes);
  if (whole <= 0) return { start: at, end: at, pauses: [] };
  const mayPause = divisible || whole > calendar.longest;
  for (let guard = 0; guard < 800; guard++) {
    const open = calendar.openAt(at);
    if (!open) return null;
    const start = Math.max(at, open.from);
    if (start + whole <= open.to) return { start, end: start + whole, pauses: [] };
    if (!mayPause) {
      at = open.to;
      continue;
    }
    const pauses: [number, number][] = [];
    let left = whole - (open.to - start);
    let end = open.to;
    while (left > 0) {
      const next = calendar.openAt(end);
      if (!next) return null;
      pauses.push([end, next.from]);
      const does = Math.min(left, next.to - next.from);
      left -= does;
      end = next.from + does;
    }
    return { start, end, pauses };
  }
  return null;
}

export function workMinutes(
  s: Step,
  c: Context,
): { setup: number | null; perPiece: number | null; total: number | null; uncorrected: number | null } {
  if (s.minutes !== null) return { setup: s.minutes, perPiece: 0, total: s.minutes, uncorrected: s.minutes };
  const m = kindOf(s.kind).minutes(s, c);
  if (!m) return { setup: null, perPiece: null, total: null, uncorrected: null };
  const raw = m.setup + m.perPiece * c.job.quantity;
  const k = c.learned(s.kind);
  return { setup: m.setup * k, perPiece: m.perPiece * k, total: raw * k, uncorrected: raw };
}

/** When a step may be done: spraying keeps its own hours where the shop has some. */
export const hoursOf = (s: Step, c: Context): WorkCalendar => (sprayed(s, c) ? c.sprayCalendar : c.calendar);

/** latest start that still has the last piece done before its window shuts */
const lateStart = (r: Readiness, minutes: number): number | null =>
  r.closes === null ? null : r.closes - Math.max(0, Math.ceil(minutes));

/** May work that begins at `start` go on this film: its last piece reached before the window shuts, or after it reopens? */
export const inWindow = (r: Readiness, start: number, minutes: number): boolean => {
  const last = lateStart(r, minutes);
  return last === null || start <= last || (r.reopens !== null && start >= r.reopens);
};

export interface PlaceResult {
  placed: Placed[];
  /** first step that could not be placed, if any */
  stuck: { index: number; why: string } | null;
  /** a window had work begin later than it could have */
  moved: boolean;
}

export interface PlaceOptions {
  /** index of a step whose wait is left out, to learn what it costs */
  relax?: number | null;
  /** steps before this one are placed already; `start` and `first` speak of what follows */
  skip?: number;
  /** the first step placed begins no earlier than this, min */
  notBefore?: number | null;
  /** steps begin no earlier than this, by id: what a schedule of several jobs has found */
  starts?: ReadonlyMap<string, number> | null;
}

/** Recoat windows that a placed plan breaks: begun neither before they shut nor after they reopen. A wait set by hand is no window's. */
export const brokenWindows = (placed: Placed[]): number =>
  placed.filter(
    (p, i) =>
      p.start !== null &&
      !p.actual &&
      (i === 0 || placed[i - 1].step.waitMin === null) &&
      p.needs.some((r) => r.closes !== null && !inWindow(r, p.start as number, p.minutes ?? 0)),
  ).length;

interface Chain {
  run: Placed[];
  ok: boolean;
  /** the step behind the run, if it was looked at */
  ahead: Placed | null;
}

/** Is it sprayed, and so bound to the shop’s spraying hours? */
export const sprayed = (s: Step, c: Context): boolean =>
  s.kind === "coat" && c.hasPaint(s.productId) && ["spray", "airbrush"].includes(c.paintOf(s.productId).finish.by);

/** How far ahead a windowed run of steps is moved to find an opening it fits, in openings of the shop. */
const TRIES = 12;

/**
 * @param actuals logged times by step id
 */
export function place(
  steps: Step[],
  start: number,
  first: Piece,
  c: Context,
  actuals: ReadonlyMap<string, Actual>,
  now: number | null,
  { relax = null, skip = 0, notBefore = null, starts = null }: PlaceOptions = {},
): PlaceResult {
  const placed: Placed[] = [];
  let stuck: PlaceResult["stuck"] = null;
  let moved = false;

  const one = (i: number, before: Piece, prevEnd: number | null, from: number): { p: Placed; early: number | null } => {
    const s = steps[i];
    const kind = kindOf(s.kind);
    const w = workMinutes(s, c);
    const actual = actuals.get(s.id) ?? null;
    const needs = kind.needs(s, before, c).map((n) => readiness(n, c));
    const base = {
      step: s,
      index: i,
      setupMin: w.setup,
      perPieceMin: w.perPiece,
      minutes: w.total,
      uncorrected: w.uncorrected,
      needs,
      before,
      actual,
      refused: actual ? null : kind.refuses(s, before, c),
    };
    const waitBefore = i > 0 ? steps[i - 1].waitMin : null;
    const binding = needs.reduce<Readiness | null>(
      (b, r) => (!b || b.opens === null ? (b ?? r) : r.opens === null || r.opens > b.opens ? r : b),
      null,
    );
    if (actual) {
      const end = actual.end ?? Math.max(actual.start + Math.ceil(w.total ?? 0), now ?? actual.start);
      return {
        p: {
          ...base,
          start: actual.start,
          end,
          pauses: [],
          waited: binding,
          after: kind.apply(s, before, c, end, actual.start),
          blocked: null,
        },
        early: null,
      };
    }
    const block = (why: string): { p: Placed; early: null } => ({
      p: {
        ...base,
        start: null,
        end: null,
        pauses: [],
        waited: binding,
        after: base.refused ? before : kind.apply(s, before, c, null),
        blocked: why,
      },
      early: null,
    });
    if (base.refused) return block(`it can’t be done here: ${base.refused}`);
    if (prevEnd === null) return block("the step before it has no time yet");
    if (LAYS.includes(s.kind) && !c.hasPaint(s.productId)) return block("no product is chosen for it");
    if (w.total === null)
      return block(
        s.kind === "melt"
          ? "the oven’s tray, or the powder’s cure, is not known"
          : "no machine is chosen, so its minutes are unknown",
      );
    let earliest = Math.max(
      prevEnd,
      from,
      now ?? -Infinity,
      i === skip ? (notBefore ?? -Infinity) : -Infinity,
      starts?.get(s.id) ?? -Infinity,
    );
    if (waitBefore !== null) earliest = Math.max(earliest, prevEnd + waitBefore);
    else if (relax !== i) {
      for (const r of needs) {
        if (r.opens === null) return block(`it waits to be ${stateWords(r.state)}: never in this climate`);
        earliest = Math.max(earliest, r.opens);
      }
    }
    const got = slot(hoursOf(s, c), earliest, w.total, kind.divisible || s.byLoad);
    if (!got) return block("there are no working hours to do it in");
    return {
      p: {
        ...base,
        start: got.start,
        end: got.end,
        pauses: got.pauses,
        waited: binding,
        after: kind.apply(s, before, c, got.end, got.start),
        blocked: null,
      },
      early: earliest,
    };
  };

  const windowed = (p: Placed): Readiness | null => p.needs.find((r) => r.closes !== null) ?? null;

  /** Places step i from `from` on, and looks ahead as long as windows tie the following steps to it. */
  const chain = (
    i: number,
    before: Piece,
    prevEnd: number | null,
    from: number,
    first: Placed | null = null,
  ): Chain => {
    const run: Placed[] = [];
    let piece = before;
    let end = prevEnd;
    for (let k = i; k < steps.length; k++) {
      const p = k === i && first ? first : one(k, piece, end, k === i ? from : -Infinity).p;
      const win = windowed(p);
      // What was looked at ahead is handed on, so that no step is worked out twice.
      if (k > i && !win) return { run, ok: true, ahead: p };
      if (
        k > i &&
        win &&
        p.start !== null &&
        !p.actual &&
        (k === 0 || steps[k - 1].waitMin === null) &&
        !inWindow(win, p.start, p.minutes ?? 0)
      )
        return { run, ok: false, ahead: null };
      run.push(p);
      if (p.start === null) break;
      piece = p.after;
      end = p.end;
    }
    return { run, ok: true, ahead: null };
  };

  let piece = first;
  let end: number | null = start;
  let ahead: Placed | null = null;
  for (let i = skip; i < steps.length;) {
    let from = -Infinity;
    let best: Chain = chain(i, piece, end, from, ahead);
    if (!best.ok && !actuals.has(steps[i].id)) {
      moved = true;
      // Delay the beginning of the windowed run to later openings until all of it fits.
      for (let t = 0; t < TRIES && !best.ok; t++) {
        const head = one(i, piece, end, from).p;
        const hours = hoursOf(steps[i], c);
        const open = head.start === null ? null : hours.openAt(head.start);
        const next = open ? hours.openAt(open.to) : null;
        if (!next) break;
        from = next.from;
        best = chain(i, piece, end, from);
      }
      if (!best.ok) {
        // No opening holds the run: lay this step as early as it goes and wait for the next window to reopen.
        const { p } = one(i, piece, end, -Infinity);
        best = { run: [p], ok: true, ahead: null };
      }
    }
    // A step whose own window was missed waits for the reopening, where there is one.
    const head = best.run[0];
    const win = windowed(head);
    if (
      head.start !== null &&
      win &&
      !head.actual &&
      (i === 0 || steps[i - 1].waitMin === null) &&
      !inWindow(win, head.start, head.minutes ?? 0) &&
      win.reopens !== null
    ) {
      moved = true;
      const again = chain(i, piece, end, win.reopens);
      best = again.ok ? again : { run: [one(i, piece, end, win.reopens).p], ok: true, ahead: null };
    }
    for (const p of best.run) {
      placed.push(p);
      if (p.start === null && !stuck) stuck = { index: p.index, why: p.blocked ?? "it has no time" };
      piece = p.after;
      end = p.end;
    }
    i += best.run.length;
    ahead = best.ahead;
  }
  return { placed, stuck, moved };
}
