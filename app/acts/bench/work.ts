/** Work at the bench: begun, piece by piece, put aside, looked at, ended; waits ended by touch or on purpose; notes. */
import { gatesOf } from "../../core/bench/gates";
import { numbersAt, standing } from "../../core/bench/next";
import { makePlan, planFor } from "../../core/plan/plan";
import { firstPiece, nextFirst } from "../../core/plan/proof";
import { fold, nextPiece, openPieces, type Numbers } from "../../core/plan/fold";
import { own } from "../../core/process/kinds";
import { touchTest } from "../../core/process/words";
import { showMinutes } from "../../core/units/show";
import { shopClock } from "../../core/time/zoned";
import type { Job } from "../../core/records/job";
import type { World } from "../../core/records/world";
import { OneOf, Text } from "../../core/records/fields";
import { ANSWERS, type Answer } from "../../core/records/ids";
import { AGAIN, LogEntry } from "../../core/records/log";
import { nowMinutes } from "../../clock";
import { change, Refused } from "../../store/acts";
import { act, Bare, LONG } from "../act";
import { typed } from "../answer";
import { countDown, tap, type AtBench } from "./tap";

class StepForm {
  @Text(120) step!: string;
}
class PieceForm extends StepForm {
  /** empty: the next one */
  @Text(10) piece: string = "";
}
class CheckForm extends StepForm {
  @OneOf(ANSWERS) answer!: Answer;
}
class DoneForm extends StepForm {
  /** pieces that nobody has tapped: all done, or put aside; empty: not said */
  @OneOf(["", "done", "aside"]) rest: "" | "done" | "aside" = "";
}
class TouchForm extends StepForm {
  /** asked a second time, because the model says that it is far off */
  @Text(4) sure: string = "";
}
class TickForm extends StepForm {
  @Text(60) tick!: string;
}
class AgainstForm extends StepForm {
  @Text(LONG) reason: string = "";
}
class EarlyForm extends StepForm {
  @Text(LONG) reason: string = "";
}
class OffForm extends StepForm {
  @Text(40) mm!: string;
}
class NoteForm extends StepForm {
  @Text(LONG) text: string = "";
}

const GONE = "This step is no longer in the plan; read the page anew.";
/** Share of a wait, and minutes, that may be left when a touch check is taken at once. */
const NEARLY = { left: 0.3, minutes: 5 };

/** @throws Refused when the step may not begin: it waits, or something bars it */
function mayBegin({ world: w, state }: AtBench, step: string): void {
  if (state.steps.get(step)?.startedAt != null) return;
  const now = Math.floor(nowMinutes());
  const whole = makePlan(w, now);
  const plan = planFor(whole, step);
  const p = plan.placed.find((x) => x.step.id === step);
  if (!p) throw new Refused(GONE);
  const s = standing(whole, now);
  if ((s.is === "waiting" || s.is === "missed") && s.step.step.id === step)
    throw new Refused(`“${p.step.title}” can’t begin yet: ${s.need.why}. Wait, or begin early with a reason.`);
  const [gate] = gatesOf(plan, p);
  if (gate) throw new Refused(`Not yet: ${gate.say}.`);
}

/** The pieces that a step is done to. @throws Refused when it is no longer in the plan */
function numbersOf(w: World, step: string): Numbers {
  const plan = planFor(makePlan(w, Math.floor(nowMinutes()), true), step);
  const p = plan.placed.find((x) => x.step.id === step);
  if (!p) throw new Refused(GONE);
  return numbersAt(plan, p);
}

async function start(f: StepForm, at: AtBench): Promise<void> {
  mayBegin(at, f.step);
  await tap(at.world, "start", f.step);
}

async function piece(f: PieceForm, at: AtBench): Promise<string> {
  const { world: w, state } = at;
  mayBegin(at, f.step);
  const run = state.steps.get(f.step);
  const numbers = numbersOf(w, f.step);
  const n = f.piece ? Number(f.piece) : nextPiece(run, numbers);
  if (n === null) throw new Refused("All pieces are done here; the step can be closed.");
  if (!(n >= numbers.from && n <= numbers.to) || (numbers.out.has(n) && !state.aside.has(n)))
    throw new Refused(`Piece ${f.piece} is not among those that this step is done to.`);
  if (run?.pieces.includes(n)) throw new Refused(`Piece ${n} is done already; take it back if that was a slip.`);
  await tap(w, "piece", f.step, { entry: { piece: n } });
  const tapped: LogEntry = {
    ...new LogEntry(),
    id: "~",
    jobId: w.job.id,
    kind: "piece",
    step: f.step,
    at: nowMinutes(),
    piece: n,
  };
  const after = fold([...w.log, tapped]);
  const last =
    nextPiece(after.steps.get(f.step), { ...numbers, out: new Set([...numbers.out, ...after.aside]) }) === null;
  return last ? `Piece ${n}: that was the last` : `Piece ${n}`;
}

/** The end of a step, with what it was planned to take and the paint that is gone. */
async function done(f: DoneForm, at: AtBench): Promise<void> {
  const run = at.state.steps.get(f.step);
  if (run?.doneAt != null) throw new Refused("This step is done already.");
  mayBegin(at, f.step);
  const plan = planFor(makePlan(at.world, Math.floor(nowMinutes())), f.step);
  const i = plan.placed.findIndex((p) => p.step.id === f.step);
  const p = plan.placed[i];
  const w = p && p.perPieceMin !== 0 ? await withRest(f, at) : at.world;
  const use = plan.uses[i];
  const productId = use ? own(p.step, "productId") : null;
  await tap(w, "done", f.step, {
    entry: {
      stepKind: p?.step.kind ?? "",
      predicted: p?.uncorrected ?? null,
      actual: plan.context.calendar.workedBetween(run?.startedAt ?? nowMinutes(), nowMinutes()),
      ml: use?.ml ?? null,
      productId,
    },
    used: countDown(w, productId, use?.ml ?? null, 1),
  });
}

/** Pieces that are open when a step is closed: said to be done, or put aside, each as an entry of its own. @returns the world with them */
async function withRest(f: DoneForm, { world, state }: AtBench): Promise<World> {
  const run = state.steps.get(f.step);
  const numbers = numbersOf(world, f.step);
  const pieces = numbers.to - numbers.from + 1;
  const open = openPieces(run, numbers);
  if (!open.length || pieces === 1) return world;
  if (!f.rest) {
    const which = open.length === 1 ? `Piece ${open[0]} is` : `${open.length} of ${pieces} pieces are`;
    throw new Refused(`${which} not tapped here. Say whether they are done, or put them aside.`);
  }
  let w = world;
  for (const n of open) w = await tap(w, f.rest === "done" ? "piece" : "aside", f.step, { entry: { piece: n } });
  return w;
}

/** A touch check; long before its time it is asked twice, and kept as a risk. */
async function touch(f: TouchForm, { world: w }: AtBench): Promise<string | void> {
  const now = Math.floor(nowMinutes());
  const plan = makePlan(w, now);
  const s = standing(plan, now);
  if ((s.is !== "waiting" && s.is !== "missed") || s.step.step.id !== f.step)
    throw new Refused("Nothing is waited for here by now.");
  const left = s.opens === null ? null : s.opens - now;
  const whole = s.opens === null ? null : Math.max(1, s.opens - s.need.from);
  const near = left !== null && whole !== null && (left <= NEARLY.minutes || left <= NEARLY.left * whole);
  if (near) return void (await tap(w, "touch", f.step, { entry: { note: `touch check: ${touchTest(s.need.state)}` } }));
  const off =
    left === null ? "by the model it never gets there in this air" : `by the model it takes ${showMinutes(left)} more`;
  if (f.sure !== "yes") throw new Refused(`A touch check long before its time: ${off}. Check once more, and say so.`);
  await tap(w, "early", f.step, { entry: { note: `touch check, asked twice: ${off}` } });
  return "Kept as a risk";
}

/** A date of the proof, as of now, on the Brief. */
async function dated({ world: w }: AtBench, field: "proofSent" | "proofAccepted", what: string): Promise<string> {
  const at = shopClock(w.shop).toLocal(Math.floor(nowMinutes()));
  await change<Job>(`proof of “${w.job.title}” ${what}`, "jobs", w.job.id, (j) => ({
    ...j,
    order: { ...j.order, [field]: at },
  }));
  return `Proof ${what}; its date stands on the Brief`;
}

/** The piece that went first was no good: the next one goes the whole way before the rest. */
async function again({ world: w }: AtBench): Promise<string> {
  const plan = makePlan(w, Math.floor(nowMinutes()), true);
  const [first, next] = [firstPiece(plan), nextFirst(plan)];
  if (first === null) throw new Refused("No piece goes first in this plan.");
  if (next === null)
    throw new Refused(
      "No other piece can go first: the rest is under way, or none is left. Mend the plan, or leave the proof out.",
    );
  const look = plan.placed[plan.proof!.at].step.id;
  await tap(w, "check", look, {
    entry: { tick: AGAIN, piece: first, note: `Piece ${first} was not accepted; piece ${next} goes first` },
  });
  return `Piece ${first} is put aside; piece ${next} goes first`;
}

export const workActs = [
  act("start", StepForm, start),
  act("piece", PieceForm, piece),
  act("aside", PieceForm, async (f, { world }: AtBench) => {
    await tap(world, "aside", f.step, { entry: { piece: Number(f.piece) } });
  }),
  act("done", DoneForm, done),
  act("check", CheckForm, async (f, { world }: AtBench) => {
    await tap(world, "check", f.step, { entry: { answer: f.answer } });
  }),
  act("touch", TouchForm, touch),
  act("tick", TickForm, async (f, { world }: AtBench) => {
    await tap(world, "check", f.step, { entry: { tick: f.tick } });
  }),
  act("against", AgainstForm, async (f, { world, state }: AtBench) => {
    const reason = f.reason.trim();
    if (!reason) throw new Refused("Write down why it goes on after a stop; the reason is kept with the job.");
    if (state.steps.get(f.step)?.answer !== "stop") throw new Refused("That step is not stopped.");
    await tap(world, "check", f.step, { entry: { answer: "mend", note: reason } });
    return "Goes on against advice";
  }),
  act("proof-sent", Bare, async (_f, at: AtBench) => dated(at, "proofSent", "sent")),
  act("proof-accepted", Bare, async (_f, at: AtBench) => dated(at, "proofAccepted", "accepted")),
  act("proof-again", Bare, async (_f, at: AtBench) => again(at)),
  act("early", EarlyForm, async (f, { world }: AtBench) => {
    const reason = f.reason.trim();
    if (!reason) throw new Refused("Write down why it is begun early; the risk is kept with the job.");
    await tap(world, "early", f.step, { entry: { note: reason } });
  }),
  act("off", OffForm, async (f, { world }: AtBench) => {
    const mm = typed.length(f.mm, world.shop.units);
    if (!(mm >= 0 && mm <= 100)) throw new Refused("A piece lies off by something between 0 and 100 mm.");
    await tap(world, "note", f.step, {
      entry: { offMm: mm, note: `Lay ${Math.round(mm * 100) / 100} mm off when put back` },
    });
    return "Written down";
  }),
  act("note", NoteForm, async (f, { world }: AtBench) => {
    const text = f.text.trim();
    if (!text) throw new Refused("The note is empty.");
    await tap(world, "note", f.step, { entry: { note: text } });
  }),
];
