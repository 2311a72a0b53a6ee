/**
 * A figure of a plan by name: what a screen shows, and what can be read again off another plan when something is varied.
 * Adding one is a case here, one in `inputs.ts`, one in `levers.ts` and its name in `title.ts`.
 */
import { latestStart } from "../../plan/backward";
import { figuresOf, type Figures } from "../figures";
import { byBeam, has, own } from "../../process/kinds";
import { planFor, type Plan } from "../../plan/plan";
import { inTurn, type Placed } from "../../plan/placed";
import type { Readiness } from "../../process/ready";
import { simulate, waitAfter } from "../report";
import { dose } from "../../process/beam";
import { toBegin } from "../../process/pieces";
import { GROUND, surfaceUm } from "../../piece/state";
import { showWhen } from "../../time/zoned";
import { showMinutes, showMl, showShare, showUm } from "../../units/show";

export type StepFigure =
  "minutes" | "modelled" | "load" | "wait" | "opens" | "shuts" | "begins" | "latest" | "slack" | "energy" | "level";
export type FigureRef =
  | { of: StepFigure; step: string }
  /** one film, thickness as it is after `step` */
  | { of: "layer"; step: string; zone: string; film: string }
  /** the leading figure of a panel on the step card */
  | { of: "panel"; step: string; panel: Figures["id"] }
  | { of: "amount"; product: string }
  | { of: "ready" }
  /** minutes of work in all; of its white and colour coats alone */
  | { of: "hands" }
  | { of: "painting" }
  /** coats that hide a zone's ground, straight on it or over white (M6) */
  | { of: "coats"; zone: string; product: string; over: "ground" | "white" }
  /** pieces to begin with (M15) */
  | { of: "spares" }
  | { of: "margin" };

/** what a figure is counted in */
export type Counted =
  "minutes" | "moment" | "ml" | "g" | "um" | "mm" | "J/mm²" | "share" | "times" | "pieces" | "coats";

export interface Value {
  value: number;
  in: Counted;
}

export const indexOf = (plan: Plan, step: string): number => plan.placed.findIndex((p) => p.step.id === step);

/** The need of a step that is met last, with what it waits for; null: it needs nothing to dry. */
export const lastNeed = (p: Placed): Readiness | null =>
  p.needs.reduce<Readiness | null>(
    (w, r) => (!w || r.opens === null || (w.opens !== null && r.opens > w.opens) ? r : w),
    null,
  );

/** The need of a step whose window shuts first; null: none shuts. */
export const shutting = (p: Placed): Readiness | null =>
  p.needs.reduce<Readiness | null>(
    (w, r) => (r.closes !== null && (!w || r.closes < (w.closes as number)) ? r : w),
    null,
  );

/** µm from the face to the top of what lies deepest below it in the zones that a step works; null: nothing is cut there. */
export function belowFace(p: Placed): { zone: string; um: number }[] {
  return p.after.zones
    .filter(
      (z) =>
        z.zone !== GROUND &&
        z.depthUm > p.after.sandedUm &&
        (p.step.zones.includes(z.zone) || p.step.zones.includes(GROUND)),
    )
    .map((z) => ({ zone: z.zone, um: surfaceUm(z) - p.after.sandedUm }));
}

/** White beneath and the colours themselves: what hiding is weighed by. */
export const isPainting = (p: Placed): boolean => own(p.step, "role") === "white" || own(p.step, "role") === "colour";

const found = (value: number | null | undefined, unit: Counted): Value | null =>
  value === null || value === undefined || !Number.isFinite(value) ? null : { value, in: unit };
const due = (plan: Plan): number | null =>
  plan.context.job.due === null ? null : plan.context.clock.fromLocal(plan.context.job.due);
const latest = (plan: Plan, i: number): number | null => {
  const end = due(plan);
  return end === null ? null : latestStart(plan, i, end, plan.ready === null ? 0 : Math.max(0, end - plan.ready));
};

const READ: Record<StepFigure, (plan: Plan, i: number) => Value | null> = {
  minutes: (plan, i) => found(plan.placed[i].minutes, "minutes"),
  modelled: (plan, i) => found(plan.placed[i].uncorrected, "minutes"),
  load: (plan, i) => (plan.uses[i]?.g != null ? found(plan.uses[i]!.g, "g") : found(plan.uses[i]?.ml, "ml")),
  wait: (plan, i) => found(waitAfter(plan, i)?.min, "minutes"),
  opens: (plan, i) => {
    const typed = plan.placed[i - 1]?.step.waitMin ?? null;
    return found(
      typed !== null && plan.placed[i - 1].end !== null
        ? (plan.placed[i - 1].end as number) + typed
        : lastNeed(plan.placed[i])?.opens,
      "moment",
    );
  },
  shuts: (plan, i) => found(shutting(plan.placed[i])?.closes, "moment"),
  begins: (plan, i) => found(plan.placed[i].start, "moment"),
  latest: (plan, i) => found(latest(plan, i), "moment"),
  slack: (plan, i) => {
    const [at, start] = [latest(plan, i), plan.placed[i].start];
    return found(at === null || start === null ? null : at - start, "minutes");
  },
  energy: (plan, i) => {
    const [m, s] = [plan.context.machine, own(plan.placed[i].step, "laser")];
    return m && s && byBeam(plan.placed[i].step) ? found(dose(m, s), "J/mm²") : null;
  },
  level: (plan, i) => {
    const p = plan.placed[i];
    const below = belowFace(p).map((b) => b.um / 1000);
    return has(p.step, "depthMm") ? found(p.step.depthMm, "mm") : below.length ? found(Math.max(...below), "mm") : null;
  },
};

/** Read a figure off a plan. @returns null: the plan has no such figure, or does not know it */
export function read(whole: Plan, f: FigureRef): Value | null {
  const plan = "step" in f ? planFor(whole, f.step) : whole;
  if (f.of === "ready") return found(plan.ready, "moment");
  if (f.of === "hands" || f.of === "painting") {
    const all = inTurn(plan.placed);
    const mine = f.of === "hands" ? all : all.filter(isPainting);
    return mine.some((p) => p.minutes === null)
      ? null
      : found(
          mine.reduce((a, p) => a + (p.minutes as number), 0),
          "minutes",
        );
  }
  if (f.of === "coats") {
    const h = plan.hiding.find((x) => x.zone === f.zone && x.productId === f.product);
    return found(f.over === "ground" ? h?.straight : h?.overWhite, "coats");
  }
  if (f.of === "spares") return found(toBegin(plan.context.job)?.pieces, "pieces");
  if (f.of === "margin") {
    const end = due(plan);
    return found(end === null || plan.ready === null ? null : end - plan.ready, "minutes");
  }
  if (f.of === "amount") {
    const a = plan.amounts.find((x) => x.product === f.product);
    return a ? (a.g !== null ? found(a.g, "g") : found(a.ml, "ml")) : null;
  }
  const i = indexOf(plan, f.step);
  if (i < 0) return null;
  if (f.of === "layer") {
    const l = simulate(plan, plan.placed[i])
      .find((z) => z.zone === f.zone)
      ?.layers.find((x) => x.step === f.film && x.kind !== "mask");
    return l ? found(l.bottomUm - l.topUm, "um") : null;
  }
  if (f.of === "panel") return figuresOf(plan, i).find((x) => x.id === f.panel)?.leads ?? null;
  return READ[f.of](plan, i);
}

/** A number with two digits behind the point at most. */
export const two = (n: number): string => (Math.round(n * 100) / 100).toString();

/** A figure in words, with its unit. */
export function say(plan: Plan, v: Value | null): string {
  if (v === null) return "unknown";
  const x = v.value;
  switch (v.in) {
    case "minutes":
      return x < 0 ? `${showMinutes(-x)} too late` : showMinutes(x);
    case "moment":
      return showWhen(plan.context.clock, x);
    case "ml":
      return showMl(x);
    case "g":
      return `${Math.round(x * 10) / 10} g`;
    case "um":
      return showUm(x);
    case "pieces":
    case "coats":
      return `${x} ${x === 1 ? v.in.slice(0, -1) : v.in}`;
    case "share":
      return showShare(x);
    case "times":
      return `${two(x)} times`;
    default:
      return `${two(x)} ${v.in}`;
  }
}
