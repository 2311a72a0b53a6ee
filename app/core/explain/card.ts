/** The work card of a job as plain data: every step with its amounts, waits, cautions and waivers. What paper shows, and nothing else. */
import { saidAll } from "../units/said";
import { stateWords } from "../plan/decides";
import { GROUND } from "../piece/state";
import { showWhen } from "../time/zoned";
import { blankWords } from "../geometry/blank";
import { showAmount, showLength, showMinutes, showMl, showUm } from "../units/show";
import { kindOf, own, type Step } from "../process/kinds";
import type { LookFor } from "../process/step";
import type { StepUse } from "../plan/amounts";
import type { Snag } from "../judge/snag";
import { cuesOf } from "./cues";
import { settingParts } from "./setting-words";
import { latestStart } from "../plan/backward";
import { type Plan } from "../plan/plan";
import { firstPiece } from "../plan/proof";
import { open, snagsOf } from "../judge/judge";
import { waitAfter } from "./report";
import type { Moved } from "./why/moves";
import { movesWords, originsOf, type Origin } from "./why/origins";

export interface CardStep {
  n: number;
  title: string;
  done: boolean;
  when: string;
  takes: string;
  zones: string;
  /** tool, film, amounts, setting, depth: short lines */
  lines: string[];
  cues: string[];
  lookFor: string;
  wait: string | null;
  cautions: string[];
}
export interface Card {
  jobId: string;
  title: string;
  client: string;
  /** pieces begun, and those of them that are ordered */
  pieces: number;
  ordered: number;
  on: string;
  route: string;
  /** who drew it and how it may be used; empty: not said */
  credit: string;
  due: string | null;
  ready: string | null;
  startBy: string | null;
  machine: string;
  air: string;
  asOf: string;
  steps: CardStep[];
  amounts: { product: string; finish: string; ml: string; stock: string }[];
  hazards: string[];
  waivers: string[];
  unfit: string[];
  /** where the figures come from */
  origins: Origin[];
  /** what moves the ready time most; empty: not tried, or nothing does */
  moves: string[];
}

const WORD = { never: "Never", stop: "Stop", hazard: "Hazard", risk: "Risk", advice: "Advice" } as const;
const told = (x: Snag): string => `${WORD[x.severity]} ${x.rule}: ${x.why}`;

/** What a step lays, a piece and in all; null: nothing. */
function amountLine(use: StepUse | null, dryUm: number | null, n: number): string | null {
  if (!use) return null;
  if (use.g !== null) return `${showAmount(null, use.g / n)} a piece, ${showAmount(null, use.g)} in all`;
  if (use.ml === null) return "amount unknown";
  const wet = `${showUm(use.wetUm)} wet, ${showUm(dryUm)} dry`;
  return `${showMl(use.ml / n)} a piece, ${showMl(use.ml)} in all; ${wet}`;
}

/** Tool, amount, setting, depth, sanding, note: what a step is done with. */
function stepLines(plan: Plan, i: number, when: (m: number | null) => string): string[] {
  const s = plan.placed[i].step;
  const [laser, depth, sand] = [own(s, "laser"), own(s, "depthMm"), own(s, "sandUm")];
  const holds = "for this machine, can and blank only";
  const from = laser && (laser.from === "computed" ? "computed, a start for a test" : `${laser.from}; ${holds}`);
  return [
    kindOf(s.kind).tool(s, plan.context),
    amountLine(plan.uses[i], own(s, "dryUm"), plan.placed[i].pieces),
    ...plan.placed[i].cycle.map((p) => `${p.step.title}, ${when(p.start)}`),
    laser && `${settingParts(laser).join(", ")} (${from})`,
    depth === null ? null : `${showLength(depth)} deep`,
    sand ? `${Math.round(sand)} µm off the face` : null,
    s.note,
  ].filter((x): x is string => Boolean(x));
}

/** The wait behind a step; null: none. */
function waitLine(plan: Plan, i: number, when: (m: number | null) => string): string | null {
  const w = waitAfter(plan, i);
  if (!w) return null;
  if (w.min === null) return `Wait: ${stateWords(w.for)}, never in this climate`;
  const shuts = w.closes === null ? "" : `; shuts ${when(w.closes)}`;
  if (w.min <= 0) return shuts && `At once: it is ${stateWords(w.for)}${shuts}`;
  const from = w.opens === null ? "" : `, from ${when(w.opens)}`;
  const reopens = w.reopens === null ? "" : `, reopens ${when(w.reopens)}`;
  return `Wait until it is ${stateWords(w.for)}: ${showMinutes(w.min)}${from}${shuts}${reopens}`;
}

/** Which zones a step is done to, where it is done to some. */
function zoneLine(s: Step, name: (id: string) => string): string {
  const { on, lifts, tries } = kindOf(s.kind);
  const some = (on === "zones" && !tries) || lifts === "mask";
  return !some ? "" : s.zones.includes(GROUND) ? "whole face" : s.zones.map(name).join(", ");
}

const lookLine = (l: LookFor): string => `${l.look}: ${l.how}. Against: ${l.against}.`;

/** @param asOf minute since 1970 that the card speaks of @param moved what moves the ready time, where that was tried */
export function workCard(plan: Plan, asOf: number, moved: Moved | null = null): Card {
  const { title, ...card } = cardIn(plan, asOf, moved);
  return { title, ...saidAll(card, plan.context.world.shop.units) };
}

function cardIn(plan: Plan, asOf: number, moved: Moved | null): Card {
  const c = plan.context;
  const { job } = c;
  const units = c.world.shop.units;
  const when = (m: number | null): string => (m === null ? "no time yet" : showWhen(c.clock, m));
  const zoneName = (id: string): string =>
    id === GROUND ? "rest of the face" : (job.zones.find((z) => z.id === id)?.name ?? id);
  const standing = open(plan);
  const due = job.due === null ? null : c.clock.fromLocal(job.due);
  const first = plan.placed.find((p) => !p.actual);
  const latest = due !== null && first ? latestStart(plan, first.index, due) : null;
  const air = c.world.shop.climate;
  const never = standing.filter((x) => x.severity === "never");
  const hazards = [...snagsOf(plan).filter((x) => x.severity === "hazard"), ...never];
  const general = standing.filter((x) => x.step === null && x.severity !== "hazard" && x.severity !== "never");
  const size = [job.substrate.w, job.substrate.h, job.substrate.t].map((mm) => showLength(mm, units));
  return {
    jobId: job.id,
    title: job.title,
    client: job.client,
    pieces: c.pieces,
    ordered: job.quantity,
    on: [`${c.substrate.name}, ${size.join(" × ")}`, blankWords(job.substrate, (mm) => showLength(mm, units))]
      .filter(Boolean)
      .join(", "),
    route: job.route ?? "none",
    credit: job.credit ?? "",
    due: due === null ? null : when(due),
    ready: plan.ready === null ? null : when(plan.ready),
    startBy: latest === null ? null : when(latest),
    machine: c.machine ? c.machine.name : "none chosen",
    air:
      air.kind === "constant"
        ? `${air.c} °C, ${Math.round(air.rh * 100)} % humidity${air.measured ? "" : " (default)"}`
        : "24 hourly points",
    asOf: showWhen(c.clock, asOf),
    steps: plan.placed.map((p, i) => ({
      n: i + 1,
      title: p.cycle.length
        ? `${p.step.title}: ${p.cycle.length} steps on piece ${firstPiece(plan)} alone, then a look`
        : p.step.title,
      done: p.actual?.end != null,
      when: when(p.start),
      takes: p.minutes === null ? "unknown" : showMinutes(p.minutes),
      zones: zoneLine(p.step, zoneName),
      lines: stepLines(plan, i, when),
      cues: cuesOf(plan, p),
      lookFor: lookLine(kindOf(p.step.kind).lookFor(p.step, c)),
      wait: waitLine(plan, i, when),
      cautions: standing.filter((x) => x.step === p.step.id && x.severity !== "hazard").map(told),
    })),
    amounts: plan.amounts.map((a) => ({
      product: c.paintOf(a.product).product.name,
      finish: c.paintOf(a.product).finish.name,
      ml: showAmount(a.ml, a.g),
      stock:
        (a.cans === null ? "stock unknown" : a.cans > 0 ? `buy ${a.cans} × ${showMl(a.canMl)}` : "on the Shelf") +
        (a.othersMl > 0 ? `; other jobs take ${showMl(a.othersMl)}` : ""),
    })),
    hazards: [...new Set(hazards.map(told)), ...general.map(told)],
    waivers: snagsOf(plan)
      .filter((x) => x.waived !== null && x.severity !== "hazard")
      .map((x) => `Rule ${x.rule}, waived: ${x.waived}. (${x.why})`),
    origins: originsOf(plan),
    moves: movesWords(moved),
    unfit: plan.unfit.map((u) => `A change by hand no longer fits: ${u.why}.`),
  };
}
