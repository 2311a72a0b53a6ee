/** The work card of a job as plain data: every step with its amounts, waits, cautions and waivers. What paper shows, and nothing else. */
import { stateWords } from "../plan/decides";
import { GROUND } from "../piece/state";
import { showDay, showWhen } from "../time/zoned";
import { showInterval, showLength, showMinutes, showAmount, showMl, showShare, showSpeed, showUm } from "../units/show";
import { kindOf } from "../process/kinds";
import { latestStart } from "../plan/backward";
import { type Plan } from "../plan/plan";
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
  pieces: number;
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

/** kinds of step that are done to some zones only */
const WHERE = ["coat", "cover", "mask-lift", "powder-fill", "melt", "engrave", "reveal", "rub-dye"];

/** @param asOf minute since 1970 that the card speaks of @param moved what moves the ready time, where that was tried */
export function workCard(plan: Plan, asOf: number, moved: Moved | null = null): Card {
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
  return {
    jobId: job.id,
    title: job.title,
    client: job.client,
    pieces: job.quantity,
    on: `${c.substrate.name}, ${showLength(job.substrate.w, units)} × ${showLength(job.substrate.h, units)} × ${showLength(job.substrate.t, units)}`,
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
    asOf: `${showDay(c.clock, asOf)}, ${c.clock.toLocal(asOf).slice(11)}`,
    steps: plan.placed.map((p, i) => {
      const s = p.step;
      const kind = kindOf(s.kind);
      const use = plan.uses[i];
      const w = waitAfter(plan, i);
      return {
        n: i + 1,
        title: s.title,
        done: p.actual?.end != null,
        when: when(p.start),
        takes: p.minutes === null ? "unknown" : showMinutes(p.minutes),
        zones: WHERE.includes(s.kind)
          ? s.zones.includes(GROUND)
            ? "whole face"
            : s.zones.map(zoneName).join(", ")
          : "",
        lines: [
          kind.tool(s, c),
          ...(use
            ? [
                use.g !== null
                  ? `${showAmount(null, use.g / job.quantity)} a piece, ${showAmount(null, use.g)} in all`
                  : use.ml === null
                    ? "amount unknown"
                    : `${showMl(use.ml / job.quantity)} a piece, ${showMl(use.ml)} in all; ${showUm(use.wetUm)} wet, ${showUm(s.dryUm)} dry`,
              ]
            : []),
          ...(s.laser
            ? [
                `${showShare(s.laser.power)} power, ${showSpeed(s.laser.speed)}, ${showInterval(s.laser.interval)}, ${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"} (${s.laser.from === "computed" ? "computed, a start for a test" : `${s.laser.from}; for this machine, can and blank only`})`,
              ]
            : []),
          ...(s.depthMm !== null ? [`${s.depthMm} mm deep`] : []),
          ...(s.sandUm ? [`${Math.round(s.sandUm)} µm off the face`] : []),
          ...(s.note ? [s.note] : []),
        ],
        cues: kind.cues(s, c),
        lookFor: ((l) => `${l.look}: ${l.how}. Against: ${l.against}.`)(kind.lookFor(s, c)),
        wait:
          w === null
            ? null
            : w.min === null
              ? `Wait: ${stateWords(w.for)}, never in this climate`
              : `Wait until it is ${stateWords(w.for)}: ${showMinutes(w.min)}${w.opens === null ? "" : `, from ${when(w.opens)}`}${w.closes === null ? "" : `; shuts ${when(w.closes)}`}${w.reopens === null ? "" : `, reopens ${when(w.reopens)}`}`,
        cautions: standing
          .filter((x) => x.step === s.id && x.severity !== "hazard")
          .map((x) => `${WORD[x.severity]} ${x.rule}: ${x.why}`),
      };
    }),
    amounts: plan.amounts.map((a) => ({
      product: c.paintOf(a.product).product.name,
      finish: c.paintOf(a.product).finish.name,
      ml: showAmount(a.ml, a.g),
      stock: a.cans === null ? "stock unknown" : a.cans > 0 ? `buy ${a.cans} × ${showMl(a.canMl)}` : "on the Shelf",
    })),
    hazards: [
      ...new Set(
        [
          ...snagsOf(plan).filter((x) => x.severity === "hazard"),
          ...standing.filter((x) => x.severity === "never"),
        ].map((x) => `${WORD[x.severity]} ${x.rule}: ${x.why}`),
      ),
      ...standing
        .filter((x) => x.step === null && x.severity !== "hazard" && x.severity !== "never")
        .map((x) => `${WORD[x.severity]} ${x.rule}: ${x.why}`),
    ],
    waivers: snagsOf(plan)
      .filter((x) => x.waived !== null && x.severity !== "hazard")
      .map((x) => `Rule ${x.rule}, waived: ${x.waived}. (${x.why})`),
    origins: originsOf(plan),
    moves: movesWords(moved),
    unfit: plan.unfit.map((u) => `A change by hand no longer fits: ${u.why}.`),
  };
}
