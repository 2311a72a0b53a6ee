/**
 * What bars a step at the bench until it is answered: a stop that was tapped, a snag that ruins the piece, a hazard that is not read, a
 * thing that somebody has to have looked at. Found from what the step does and how the piece lies, not from what it is called.
 */
import { liftsLate } from "./missed";
import { open } from "../judge/judge";
import { whereOf, type Snag } from "../judge/snag";
import { batchOf, firstPiece, isFirst, nextFirst, proofDates } from "../plan/proof";
import { kindOf, own } from "../process/kinds";
import { showWhen } from "../time/zoned";
import { CHANGE_OVER } from "../records/machine";
import type { Plan } from "../plan/plan";
import { inTurn, type Placed } from "../plan/placed";

export interface Gate {
  /** unlike any other of the step */
  id: string;
  /** what bars it, or what has to be so */
  say: string;
  /**
   * how it opens: ticked here; the step that was stopped at is looked at again; a hazard accepted; the proof accepted; another piece
   * sent first; a snag mended or waived on the page of the plan; the machine's list ticked in the Workshop
   */
  by: "tick" | "look" | "accept" | "proof" | "again" | "plan" | "workshop";
  /** the step that was stopped at, or the snag */
  step?: string;
  /** of a proof: it is on its way to whoever ordered it */
  sent?: boolean;
  /** the piece that could go first in place of one that is no good */
  next?: number;
  snag?: Pick<Snag, "rule" | "severity"> & { where: string };
}

/** The step that was answered with a stop and not looked at again since; null: none was. */
export const stoppedAt = (plan: Plan): Placed | null =>
  inTurn(plan.placed).findLast((p) => plan.bench.steps.get(p.step.id)?.answer === "stop") ?? null;

/** a sentence as it stands within another */
const plain = (say: string): string => say.replace(/\.$/, "");
const named = (list: string[]): string => list.join(", ");
const beamed = (p: Placed): boolean => kindOf(p.step.kind).beam !== undefined;
/** Does it burn the pieces themselves? */
const burns = (p: Placed): boolean => beamed(p) && kindOf(p.step.kind).beam !== "trial";

/** What somebody has to have looked at, by id; null: nothing of that kind here. */
const TICKS: Record<string, (p: Placed, plan: Plan) => string | null> = {
  cool: (p) =>
    kindOf(p.step.kind).lifts && p.needs.some((n) => n.state === "cold")
      ? "Cold: no warmth in the back of a hand on the thickest part"
      : null,
  edge: (p, plan) =>
    plan.now !== null && liftsLate(p, plan.now)
      ? "The film hardens before the last of it is off: cut along its edge with a sharp blade first, then lift flat and slowly"
      : null,
  colours: (p, plan) => {
    const k = kindOf(p.step.kind);
    const before = plan.placed.slice(0, p.index);
    const coloured = before.some((x) => own(x.step, "role") === "colour" || kindOf(x.step.kind).lays === "powder");
    const last = !plan.placed.slice(p.index + 1).some((x) => own(x.step, "role") === "colour");
    if (!(k.sands === "face" || k.lifts === "mask") || !coloured || !last) return null;
    return `Every colour is in: ${named(plan.context.filled.map((z) => z.name))}. Look for an accent that was forgotten`;
  },
  coats: (p, plan) => {
    const { beam } = kindOf(p.step.kind);
    const lifted = kindOf(p.step.kind).lifts === "mask" && p.step.zones.length === 1;
    if (beam !== "mask" && beam !== "skin" && !lifted) return null;
    const coats = plan.placed.slice(0, p.index).filter((x) => own(x.step, "role") === "colour");
    const prev = coats[coats.length - 1];
    if (!prev || !plan.placed.slice(p.index).some((x) => own(x.step, "role") === "colour")) return null;
    const same = coats.filter((x) => own(x.step, "productId") === own(prev.step, "productId")).length;
    const name = plan.context.paint(own(prev.step, "productId"))?.product.name ?? "the colour before";
    return `${name} has all its coats (${same}) before the next area is opened: nothing shines through`;
  },
  adhesion: (p, plan) => {
    if (plan.context.substrate.absorbent || kindOf(p.step.kind).lays !== "film") return null;
    const coats = plan.placed.filter((x) => kindOf(x.step.kind).lays === "film" && own(x.step, "role") !== null);
    return coats[1] === p
      ? "Tape pressed on the first coat of one piece, or an offcut, and pulled off: nothing came with it"
      : null;
  },
  cleaner: (p, plan) => {
    const warm = kindOf(p.step.kind).heats || burns(p);
    const cleaned = plan.placed.slice(0, p.index).filter((x) => kindOf(x.step.kind).cleans === "solvent");
    const first = plan.placed.findIndex(
      (x) => (kindOf(x.step.kind).heats || burns(x)) && cleaned.every((y) => y.index < x.index),
    );
    if (!warm || !cleaned.length || first !== p.index) return null;
    const { cleaner } = plan.context.job.choices;
    return `Wiped with ${cleaner} and nothing else, read off its label: no chlorine in it, and all of it dried off`;
  },
};

/** The gates in front of a step that has not begun, the gravest first. Empty: it may begin. */
export function gatesOf(plan: Plan, p: Placed): Gate[] {
  const { machine, clock } = plan.context;
  const out: Gate[] = [];
  const whole = plan.whole ?? plan;
  const next = nextFirst(whole);
  const instead = next === null ? {} : { next };
  const stopped = stoppedAt(plan);
  const begun = plan.bench.steps.get(p.step.id)?.startedAt != null;
  // one that is stopped before it has begun does not begin either
  const line = inTurn(plan.placed);
  if (stopped && (line.indexOf(stopped) < line.indexOf(p) || (stopped === p && !begun)))
    out.push({
      id: "stop",
      by: "look",
      step: stopped.step.id,
      say: `“${stopped.step.title}” was looked at and answered with stop. Nothing goes on until that is dealt with`,
      ...(isFirst(stopped.step.id) || kindOf(stopped.step.kind).tries === "piece" ? instead : {}),
    });
  const first = firstPiece(whole);
  if (first !== null && isFirst(p.step.id) && plan.bench.aside.has(first))
    out.push({
      id: "again",
      by: "again",
      ...instead,
      say:
        `Piece ${first}, which goes first, is put aside: ` +
        (next === null
          ? "no other is left to go first. Leave the proof out on the Route page"
          : `piece ${next} can go first instead`),
    });
  const snags = open(plan);
  // what is told of a step of the batch holds where piece 1 goes through it first
  const tells = (s: Snag, x: Placed): boolean =>
    s.step === x.step.id || (plan.whole !== null && isFirst(x.step.id) && batchOf(x.step.id) === s.step);
  for (const s of snags.filter((x) => x.severity === "stop" || x.severity === "never")) {
    const at = plan.placed.findIndex((x) => tells(s, x));
    // what ruins the piece at a later step can still be mended by then; what no step is named for stands in front of all
    if (s.step === null || (at >= 0 && at <= p.index))
      out.push({
        id: `snag:${s.rule}:${whereOf(s)}`,
        by: "plan",
        say: plain(s.why),
        snag: { rule: s.rule, severity: s.severity, where: whereOf(s) },
      });
  }
  for (const s of snags.filter((x) => x.severity === "hazard" && (x.step === null || tells(x, p))))
    out.push({
      id: `hazard:${s.rule}`,
      by: "accept",
      say: plain(s.why),
      snag: { rule: s.rule, severity: s.severity, where: whereOf(s) },
    });
  const proof = plan.placed.findLast((x) => kindOf(x.step.kind).tries === "piece" && x.index < p.index);
  const { accepted, sent } = proofDates(plan.context, plan.bench.again);
  if (proof && (accepted === null || (plan.now !== null && accepted > plan.now)))
    out.push({
      id: "proof",
      by: "proof",
      sent: sent !== null,
      ...instead,
      say:
        accepted === null
          ? `The batch waits for the proof${sent === null ? "" : `, sent ${showWhen(clock, sent)}`}: it is ` +
            "accepted by whoever ordered it, or by you, before the rest is begun"
          : `The batch waits for the proof: by the Brief it is accepted ${showWhen(clock, accepted)}`,
    });
  if (beamed(p) && machine?.changeOver && machine.changeOver.length < CHANGE_OVER.length)
    out.push({
      id: "change-over",
      by: "workshop",
      say: `${machine.name} was changed over, and ${CHANGE_OVER.length - machine.changeOver.length} points of its list are not ticked`,
    });
  const ticked = plan.bench.steps.get(p.step.id)?.ticks;
  for (const [id, of] of Object.entries(TICKS)) {
    const say = of(p, plan);
    if (say !== null && !ticked?.has(id)) out.push({ id, by: "tick", say });
  }
  return out;
}
