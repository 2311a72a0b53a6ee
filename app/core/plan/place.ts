/**
 * Steps put into time, forward from a start: working hours, days off, waits that run through the night, recoat windows that
 * a closed shop must not straddle, the laser only while somebody is there. Logged times are pinned.
 */
import { needsOf } from "../process/effects";
import type { Piece } from "../piece/state";
import type { Context } from "../process/context";
import { inForce } from "../process/force";
import { kindOf, own, unitOf, usesUp, type Step } from "../process/kinds";
import { readiness, type Readiness } from "../process/ready";
import { stateWords } from "../process/words";
import type { Proof } from "./proof";
import { NO_RESTS, restNeed, type Rests } from "./rest";
import {
  breaksWindow,
  contextAt,
  hoursOf,
  inTurn,
  inWindow,
  outlasts,
  nextStretch,
  slot,
  windowed,
  workMinutes,
  type Actual,
  type Blocked,
  type LaidRun,
  type Placed,
  type PlaceResult,
  type Scheduled,
} from "./placed";

export interface PlaceOptions {
  /** id of a step whose wait is left out, to learn what it costs */
  relax?: string | null;
  /** steps before this one are placed already; `start` and `first` speak of what follows */
  skip?: number;
  /** the first step placed begins no earlier than this, min */
  notBefore?: number | null;
  /** steps begin no earlier than this, by id: what a schedule of several jobs has found */
  starts?: ReadonlyMap<string, number> | null;
  /** coats that rest before they are laid, so that what follows waits less */
  rests?: Rests;
  /** ids of steps that are what they were when they were done */
  fixed?: ReadonlySet<string>;
  /** what piece 1 goes through before the rest; null: all pieces go together */
  proof?: Proof | null;
  /** the same steps as they were placed before, all of them from the first: what nothing has changed for is taken as it was */
  before?: readonly Before[];
}
/** The same steps of the same job as they were placed before. */
export interface Before {
  result: PlaceResult;
  starts: ReadonlyMap<string, number> | null;
  rests: Rests;
  now: number | null;
}

/** A run of steps that windows tie to one another. */
interface Run {
  run: Placed[];
  ok: boolean;
  /** the step behind the run, if it was looked at */
  ahead: Placed | null;
}
/** Where the next step stands: the piece as it is by then, and when the step before ended. */
interface Here {
  piece: Piece;
  end: number | null;
}

const NONE: ReadonlySet<string> = new Set();
/** How far ahead a windowed run of steps is moved to find an opening it fits, in openings of the shop. */
const TRIES = 12;

/** The need that is met last; one that is never met before all others. */
const binding = (needs: Readiness[]): Readiness | null =>
  needs.reduce<Readiness | null>(
    (b, r) => (!b || b.opens === null ? (b ?? r) : r.opens === null || r.opens > b.opens ? r : b),
    null,
  );

class Placer {
  constructor(
    readonly steps: Step[],
    readonly c: Context,
    readonly actuals: ReadonlyMap<string, Actual>,
    readonly now: number | null,
    readonly o: Required<PlaceOptions>,
  ) {}

  /** index of the last step looked at for the run in hand */
  private looked = -1;

  /** Runs from the first on that lie as they lay before. */
  private asBefore(b: Before): LaidRun[] {
    const { o, now, steps } = this;
    const same = (id: string): boolean =>
      (b.starts?.get(id) ?? null) === (o.starts?.get(id) ?? null) && b.rests.get(id) === o.rests.get(id);
    const out: LaidRun[] = [];
    let i = 0;
    for (const run of b.result.runs) {
      const { proof } = o;
      const mine = steps.slice(i, run.looked + 1).every((s) => same(s.id));
      const first = !proof || proof.at < i || proof.at > run.looked || proof.steps.every((s) => same(s.id));
      const all = run.ahead ? [...run.placed, run.ahead] : run.placed;
      const later = b.now === now || (!run.moved && stillStands(all, b.now, now));
      if (!mine || !first || !later) break;
      out.push(run);
      i += run.placed.length;
    }
    return out;
  }

  /** What step i looks at: the batch behind a proof is without the piece that has gone first, until it is packed. */
  private contextOf(i: number): Context {
    const { c, o } = this;
    if (!o.proof || i < o.proof.at) return c;
    const left = i === o.proof.at ? 1 : o.proof.gone.has(this.steps[i].id) ? c.pieces - 1 : c.pieces;
    return contextAt({ pieces: left }, c);
  }

  /** Piece 1 alone, all the way to where it is looked at; the rest lie as they are. */
  private first(here: Here): Placed[] {
    const { c, o } = this;
    const { at, steps } = o.proof!;
    const { placed, moved } = place(
      [...this.steps.slice(0, at), ...steps],
      here.end,
      { ...here.piece, proofed: true },
      contextAt({ pieces: 1 }, c),
      this.actuals,
      this.now,
      {
        relax: o.relax,
        skip: at,
        starts: o.starts,
        rests: o.rests,
        fixed: o.fixed,
      },
    );
    this.firstMoved ||= moved;
    return placed;
  }

  /** a window had piece 1 begin something later than it could have */
  private firstMoved = false;

  /** The wait set by hand before step i; null: it goes by its needs. */
  waitBefore(i: number): number | null {
    return i > 0 ? this.steps[i - 1].waitMin : null;
  }

  /** Step i on a piece, no earlier than `from`. */
  one(i: number, here: Here, from: number): Placed {
    this.looked = Math.max(this.looked, i);
    const c = this.contextOf(i);
    const before = here.piece;
    const cycle = i === this.o.proof?.at ? this.first(here) : [];
    const gone = cycle.find((p) => p.start === null) ?? cycle[cycle.length - 1];
    const prevEnd = gone ? gone.end : here.end;
    const s = this.o.fixed.has(this.steps[i].id) ? this.steps[i] : inForce(this.steps, i, before, c);
    const kind = kindOf(s.kind);
    const work = workMinutes(s, c);
    const actual = this.actuals.get(s.id) ?? null;
    const needs = [...needsOf(s, before, c), ...restNeed(s, before, this.o.rests)].map((n) => readiness(n, c));
    const base = {
      step: s,
      index: i,
      pieces: c.pieces,
      cycle,
      setupMin: work.setup,
      perPieceMin: work.perPiece,
      minutes: work.total,
      uncorrected: work.uncorrected,
      unit: work.total === null ? null : unitOf(s, c, work.total),
      needs,
      waited: binding(needs),
      before,
      actual,
    };
    if (actual) {
      const under = Math.max(actual.start + Math.ceil(work.total ?? 0), this.now ?? actual.start);
      const [start, end] = [actual.start, actual.end ?? under];
      const after = kind.apply(s, before, c, end, start);
      return { ...base, start, end, pauses: [], after, blocked: null, refused: null } satisfies Scheduled;
    }
    const refused = kind.refuses(s, before, c);
    const why = refused ? `it can’t be done here: ${refused}` : this.bars(s, prevEnd, work.total, gone ?? null);
    const earliest =
      why === null
        ? this.earliest(i, prevEnd as number, from, needs, gone ? gone.step.waitMin : this.waitBefore(i))
        : why;
    const got =
      typeof earliest === "string" ? earliest : slot(hoursOf(s, c), earliest, work.total as number, base.unit);
    if (got !== null && typeof got !== "string") {
      const after = kind.apply(s, before, c, got.end, got.start);
      return { ...base, ...got, after, blocked: null, refused: null } satisfies Scheduled;
    }
    return {
      ...base,
      start: null,
      end: null,
      pauses: [],
      after: refused ? before : kind.apply(s, before, c, null),
      blocked: got ?? "there are no working hours to do it in",
      refused,
    } satisfies Blocked;
  }

  /** Why a step can have no time, whatever the clock says; null: it can. */
  private bars(s: Step, prevEnd: number | null, minutes: number | null, gone: Placed | null): string | null {
    if (prevEnd === null && gone) return `“${gone.step.title}” of the first piece has none: ${gone.blocked}`;
    if (prevEnd === null) return "the step before it has no time yet";
    if (usesUp(s) && !this.c.hasPaint(own(s, "productId"))) return "no product is chosen for it";
    if (minutes !== null) return null;
    return kindOf(s.kind).heats
      ? "the oven’s tray, or the powder’s cure, is not known"
      : "no machine is chosen, so its minutes are unknown";
  }

  /** First moment at which step i may begin, hours aside; a sentence where it never may. @param typed the wait set by hand before it */
  private earliest(
    i: number,
    prevEnd: number,
    from: number,
    needs: Readiness[],
    typed: number | null,
  ): number | string {
    const { o } = this;
    const accepted = o.proof && i === o.proof.at + 1 ? o.proof.accepted : null;
    const held = Math.max(i === o.skip ? (o.notBefore ?? -Infinity) : -Infinity, accepted ?? -Infinity);
    const at = Math.max(prevEnd, from, this.now ?? -Infinity, held, o.starts?.get(this.steps[i].id) ?? -Infinity);
    if (typed !== null) return Math.max(at, prevEnd + typed);
    if (o.relax === this.steps[i].id) return at;
    const never = needs.find((r) => r.opens === null);
    if (never) return `it waits to be ${stateWords(never.state)}: never in this climate`;
    return Math.max(at, ...needs.map((r) => r.opens as number));
  }

  /**
   * Step i from `from` on, and what follows as long as windows tie it to the steps before. @param first step i, where
   * it is placed already
   */
  private chain(i: number, here: Here, from: number, first: Placed | null = null): Run {
    const run: Placed[] = [];
    let at = here;
    for (let k = i; k < this.steps.length; k++) {
      const p = k === i && first ? first : this.one(k, at, k === i ? from : -Infinity);
      // What was looked at ahead is handed on, so that no step is worked out twice.
      if (k > i && !windowed(p)) return { run, ok: true, ahead: p };
      // what no window could hold waits for the reopening, whenever the run before it is begun
      if (k > i && breaksWindow(p, this.waitBefore(k))) return { run, ok: outlasts(p), ahead: null };
      run.push(p);
      if (p.start === null) break;
      at = { piece: p.after, end: p.end };
    }
    return { run, ok: true, ahead: null };
  }

  /**
   * The beginning of a windowed run put off to later openings until all of it fits; where none holds it, to the one that holds most of
   * it, as early as it goes. @param soon what fits of it at once
   */
  private later(i: number, here: Here, soon: Run): Run {
    let best = soon;
    const hours = hoursOf(this.steps[i], this.c);
    let from = -Infinity;
    for (let t = 0; t < TRIES; t++) {
      const head = this.one(i, here, from);
      const open = head.start === null ? null : hours.openAt(head.start);
      const next = open ? hours.openAt(open.to) : null;
      if (!next) break;
      from = next.from;
      const run = this.chain(i, here, from);
      if (run.ok) return run;
      if (run.run.length > best.run.length) best = run;
    }
    return { run: best === soon ? soon.run.slice(0, 1) : best.run, ok: true, ahead: null };
  }

  place(start: number | null, first: Piece): PlaceResult {
    const runs: LaidRun[] = this.o.before.reduce<LaidRun[]>((most, b) => {
      const as = this.asBefore(b);
      return as.length > most.length ? as : most;
    }, []);
    const last = runs[runs.length - 1];
    const lies = last?.placed[last.placed.length - 1];
    let here: Here = lies ? { piece: lies.after, end: lies.end } : { piece: first, end: start };
    let ahead: Placed | null = last?.ahead ?? null;
    for (let i = runs.reduce((n, r) => n + r.placed.length, this.o.skip); i < this.steps.length;) {
      this.looked = i;
      this.firstMoved = false;
      let moved = false;
      let best = this.chain(i, here, -Infinity, ahead);
      if (!best.ok && !this.actuals.has(this.steps[i].id)) {
        moved = true;
        best = this.later(i, here, best);
      }
      // A step whose own window was missed waits for the reopening, where there is one.
      const [head] = best.run;
      const missed =
        head.start === null ? null : head.needs.find((r) => !inWindow(r, head.start as number, head.minutes ?? 0));
      const reopens = missed ? nextStretch(missed, head.start as number) : null;
      if (reopens !== null && breaksWindow(head, this.waitBefore(i))) {
        moved = true;
        const again = this.chain(i, here, reopens);
        best = again.ok ? again : { run: [this.one(i, here, reopens)], ok: true, ahead: null };
      }
      runs.push({ placed: best.run, looked: this.looked, ahead: best.ahead, moved: moved || this.firstMoved });
      const end = best.run[best.run.length - 1];
      here = { piece: end.after, end: end.end };
      i += best.run.length;
      ahead = best.ahead;
    }
    const placed = runs.flatMap((r) => r.placed);
    const barred = placed.find((p) => p.start === null);
    const stuck = barred ? { index: barred.index, why: barred.blocked as string } : null;
    return { placed, stuck, moved: runs.some((r) => r.moved), runs };
  }
}
/** Would steps lie where they lie at a later moment too: none begins before it, none under way is drawn out by it? */
export const stillStands = (placed: Placed[], then: number | null, now: number | null): boolean =>
  then === now ||
  (then !== null &&
    now !== null &&
    then <= now &&
    inTurn(placed).every((x) => (x.actual ? x.actual.end !== null : x.start !== null && x.start >= now)));

/**
 * @param start min since 1970: nothing begins before it; null: what lies before has no time yet @param first the piece as it is then
 * @param actuals logged times by step id @param now nothing that is not logged begins before it
 */
export function place(
  steps: Step[],
  start: number | null,
  first: Piece,
  c: Context,
  actuals: ReadonlyMap<string, Actual>,
  now: number | null,
  {
    relax = null,
    skip = 0,
    notBefore = null,
    starts = null,
    rests = NO_RESTS,
    fixed = NONE,
    proof = null,
    before = [],
  }: PlaceOptions = {},
): PlaceResult {
  return new Placer(steps, c, actuals, now, { relax, skip, notBefore, starts, rests, fixed, proof, before }).place(
    start,
    first,
  );
}
