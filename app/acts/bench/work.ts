/** Work at the bench: begun, piece by piece, put aside, looked at, ended; waits ended by touch or on purpose; notes. */
import { makePlan } from "../../core/plan/plan";
import { fold, nextPiece } from "../../core/plan/fold";
import { own } from "../../core/process/kinds";
import { OneOf, Text } from "../../core/records/fields";
import { ANSWERS, type Answer } from "../../core/records/ids";
import { LogEntry } from "../../core/records/log";
import { nowMinutes } from "../../clock";
import { Refused } from "../../store/acts";
import { act, LONG } from "../act";
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
class EarlyForm extends StepForm {
  @Text(LONG) reason: string = "";
}
class NoteForm extends StepForm {
  @Text(LONG) text: string = "";
}

async function piece(f: PieceForm, { world: w, state }: AtBench): Promise<string> {
  const run = state.steps.get(f.step);
  const n = f.piece ? Number(f.piece) : nextPiece(run, state.aside, w.job.quantity);
  if (n === null) throw new Refused("All pieces are done here; the step can be closed.");
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
  const last = nextPiece(after.steps.get(f.step), after.aside, w.job.quantity) === null;
  return last ? `Piece ${n}: that was the last` : `Piece ${n}`;
}

/** The end of a step, with what it was planned to take and the paint that is gone. */
async function done(f: StepForm, { world: w, state }: AtBench): Promise<void> {
  const run = state.steps.get(f.step);
  if (run?.doneAt != null) throw new Refused("This step is done already.");
  const plan = makePlan(w, Math.floor(nowMinutes()));
  const i = plan.placed.findIndex((p) => p.step.id === f.step);
  const p = plan.placed[i];
  const use = plan.uses[i];
  const productId = use ? own(p.step, "productId") : null;
  await tap(w, "done", f.step, {
    entry: {
      stepKind: p?.step.kind ?? "",
      predicted: p?.uncorrected ?? null,
      actual: Math.max(0, nowMinutes() - (run?.startedAt ?? nowMinutes())),
      ml: use?.ml ?? null,
      productId,
    },
    used: countDown(w, productId, use?.ml ?? null, 1),
  });
}

export const workActs = [
  act("start", StepForm, (f, { world }: AtBench) => tap(world, "start", f.step)),
  act("piece", PieceForm, piece),
  act("aside", PieceForm, (f, { world }: AtBench) =>
    tap(world, "aside", f.step, { entry: { piece: Number(f.piece) } }),
  ),
  act("done", StepForm, done),
  act("check", CheckForm, (f, { world }: AtBench) => tap(world, "check", f.step, { entry: { answer: f.answer } })),
  act("touch", StepForm, (f, { world }: AtBench) =>
    tap(world, "touch", f.step, { entry: { note: "touch check: firm, no smell" } }),
  ),
  act("early", EarlyForm, async (f, { world }: AtBench) => {
    const reason = f.reason.trim();
    if (!reason) throw new Refused("Write down why it is begun early; the risk is kept with the job.");
    return tap(world, "early", f.step, { entry: { note: reason } });
  }),
  act("note", NoteForm, async (f, { world }: AtBench) => {
    const text = f.text.trim();
    if (!text) throw new Refused("The note is empty.");
    return tap(world, "note", f.step, { entry: { note: text } });
  }),
];
