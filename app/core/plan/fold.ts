/** The bench log folded into what is true now. Entries are never changed; one that was taken back is passed over. */
import type { Answer } from "../records/ids";
import { AGAIN, FIRST, type LogEntry } from "../records/log";
import type { Actual } from "./placed";

export interface StepRun {
  startedAt: number | null;
  doneAt: number | null;
  /** pieces tapped done, in order */
  pieces: number[];
  /** pieces put aside at this step */
  aside: number[];
  answer: Answer | null;
  /** went on after a stop: why */
  against: { at: number; text: string }[];
  /** what was ticked off before it began */
  ticks: Set<string>;
  notes: { at: number; text: string }[];
  /** the wait before it was ended by a touch check, or on purpose as a risk */
  early: "touch" | "risk" | null;
  /** why it was begun before its time */
  risk: { at: number; text: string } | null;
}

export interface BenchState {
  steps: Map<string, StepRun>;
  /** pieces put aside at any step */
  aside: Set<number>;
  /** pieces that went first and were not accepted */
  tried: Set<number>;
  /** moment at which another piece was to go first; null: the first one still does */
  again: number | null;
  /** the tap that a take-back would undo; null: nothing to take back. A plate's setting is undone with the job, not here. */
  last: LogEntry | null;
  actuals: Map<string, Actual>;
}

const fresh = (): StepRun => ({
  startedAt: null,
  doneAt: null,
  pieces: [],
  aside: [],
  answer: null,
  against: [],
  ticks: new Set(),
  notes: [],
  early: null,
  risk: null,
});

/** Entries that still stand, in order. */
export function standing(log: LogEntry[]): LogEntry[] {
  const back = new Set(log.filter((e) => e.kind === "back").map((e) => e.of));
  return log.filter((e) => e.kind !== "back" && !back.has(e.id));
}

export function fold(log: LogEntry[]): BenchState {
  const steps = new Map<string, StepRun>();
  const aside = new Set<number>();
  const tried = new Set<number>();
  let again: number | null = null;
  const entries = standing(log);
  for (const e of entries) {
    const r = steps.get(e.step) ?? steps.set(e.step, fresh()).get(e.step)!;
    switch (e.kind) {
      case "start":
        r.startedAt ??= e.at;
        break;
      case "piece":
        r.startedAt ??= e.at;
        if (e.piece !== null && !r.pieces.includes(e.piece)) r.pieces.push(e.piece);
        break;
      case "aside":
        if (e.piece !== null) {
          if (!r.aside.includes(e.piece)) r.aside.push(e.piece);
          aside.add(e.piece);
        }
        break;
      case "done":
        r.startedAt ??= e.at;
        r.doneAt = e.at;
        break;
      case "check":
        if (e.tick === AGAIN) {
          // the piece that went first is history, and so is what was seen on it: the next one begins afresh
          for (const id of [...steps.keys()]) if (id === e.step || id.startsWith(FIRST)) steps.delete(id);
          if (e.piece !== null) [tried, aside].forEach((list) => list.add(e.piece as number));
          again = e.at;
        } else if (e.tick) r.ticks.add(e.tick);
        else {
          if (r.answer === "stop" && e.note) r.against.push({ at: e.at, text: e.note });
          r.answer = e.answer;
        }
        break;
      case "touch":
        r.early = "touch";
        break;
      case "early":
        r.early = "risk";
        r.risk = { at: e.at, text: e.note };
        break;
      default:
        if (e.note) r.notes.push({ at: e.at, text: e.note });
    }
  }
  const actuals = new Map<string, Actual>();
  for (const [id, r] of steps)
    if (r.startedAt !== null)
      actuals.set(id, {
        start: Math.floor(r.startedAt),
        end: r.doneAt === null ? null : Math.max(Math.floor(r.startedAt), Math.floor(r.doneAt)),
        early: r.early,
      });
  return { steps, aside, tried, again, last: entries.filter((e) => e.kind !== "plate").pop() ?? null, actuals };
}

/** Pieces by number: from one to another, but for those that are out of it. */
export interface Numbers {
  from: number;
  to: number;
  out: ReadonlySet<number>;
}

/** The piece a plain “Piece done” means: the first that is neither done at this step nor out of it. */
export function nextPiece(run: StepRun | undefined, { from, to, out }: Numbers): number | null {
  for (let n = from; n <= to; n++) if (!run?.pieces.includes(n) && !out.has(n)) return n;
  return null;
}

/** Pieces that are neither done at this step nor out of it. */
export const openPieces = (run: StepRun | undefined, { from, to, out }: Numbers): number[] =>
  Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => from + i).filter(
    (n) => !run?.pieces.includes(n) && !out.has(n),
  );
