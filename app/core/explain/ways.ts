/**
 * All ways to do a job, each planned whole: what it takes, when it is ready, what it bears, what has to be bought, what stands against it
 * and what would have to change. Each figure is the plan's own, the one that choosing the way would show.
 */
import { bears, type Bears } from "../catalogue/bears";
import type { No } from "../catalogue/support";
import { bleedChance } from "../models/bleed/bleed";
import { open } from "../judge/judge";
import { chooseRoutes, standsAgainst, type Choice } from "../plan/choose";
import { byRoute } from "../plan/goes";
import { inTurn } from "../plan/placed";
import { makePlan, type Plan } from "../plan/plan";
import { context, type Context } from "../process/context";
import { toBegin } from "../process/pieces";
import { byBeam, kindOf } from "../process/kinds";
import { type RouteId, type Severity, type Use } from "../records/ids";
import type { World } from "../records/world";
import { costOf } from "./cost";
import { bleedOf } from "./figures";
import { smallestStroke } from "./letters";
import { smallSection, type SmallSection } from "./small-section";

/** Severities by what they say of a way: what ruins the piece weighs more there than a hazard, which is read and minded. */
export const GRAVEST: readonly Severity[] = ["never", "stop", "hazard", "risk", "advice"];

/** What would make a way possible, where one press does it. */
export interface Mend {
  label: string;
  /** an act on the job */
  act: Record<string, string>;
}
export interface Way {
  id: RouteId;
  name: string;
  /** empty: it can be planned */
  no: No[];
  /** the one thing that would have to change, where it is one and a press changes it */
  mend: Mend | null;
  /** from 1; null: it can't be planned */
  rank: number | null;
  points: number;
  reasons: string[];
  figures: WayFigures | null;
}
export interface WayFigures {
  steps: number;
  /** minutes of hands; null: one is not known */
  handsMin: number | null;
  laserMin: number | null;
  start: number | null;
  ready: number | null;
  /** pieces begun */
  pieces: number;
  /** share lost, as seen here or the route's prior */
  loss: number | null;
  /** mm of the finest stroke it holds */
  finestMm: number | null;
  /** what it costs in all, minor units, of what is known; and whether some of it is not */
  costMinor: number;
  costAtLeast: boolean;
  /** chance of colour past an edge, 0-1; null: it does not creep here, or is not known */
  creeps: number | null;
  bears: { use: Use; is: Bears }[];
  /** what it is planned with and is not on the Shelf */
  toBuy: { id: string; name: string; finish: string; colour: string }[];
  /** what else is lacking: a machine, an oven */
  lacks: string[];
  snags: { severity: Severity; rule: number; why: string }[];
  /** why there is no ready time */
  stuck: string | null;
  /** the piece as it lies at the end, drawn small */
  section: SmallSection | null;
}

const sum = (list: (number | null)[]): number | null =>
  list.some((n) => n === null) ? null : list.reduce<number>((a, n) => a + (n as number), 0);

/** The greatest chance of creeping over all coats that can creep; powder lies where it is pressed. */
function creepsOf(plan: Plan): number | null {
  const creep = plan.placed.filter((p) => kindOf(p.step.kind).figures?.includes("bleed"));
  const all = creep.map((p) => bleedOf(p, plan.context)).filter((x) => x !== null);
  return all.length ? Math.max(...all.map((parts) => bleedChance(parts))) : null;
}

/** The figures of a plan, as the comparison of ways shows them. */
export function wayFigures(plan: Plan): WayFigures {
  const c = plan.context;
  const all = inTurn(plan.placed);
  const metal = c.substrate.family === "metal";
  const cost = costOf(plan);
  return {
    steps: plan.placed.length,
    handsMin: sum(all.filter((p) => !byBeam(p.step)).map((p) => p.minutes)),
    laserMin: sum(all.filter((p) => byBeam(p.step)).map((p) => p.minutes)),
    start: plan.start,
    ready: plan.missing.length ? null : plan.ready,
    pieces: c.pieces,
    loss: toBegin(c.job)?.loss ?? null,
    finestMm: smallestStroke(plan)?.strokeMm ?? null,
    costMinor: cost.totalMinor,
    costAtLeast: cost.atLeast,
    creeps: creepsOf(plan),
    bears: c.route ? (c.job.use as Use[]).map((use) => ({ use, is: bears(c.route!.id, use, metal) })) : [],
    toBuy: plan.toBuy.map(({ id, name, finish, colour }) => ({ id, name, finish, colour })),
    lacks: plan.missing.map((m) => m.say),
    snags: open(plan).map((s) => ({ severity: s.severity, rule: s.rule, why: s.why })),
    stuck: plan.stuck,
    section: smallSection(plan),
  };
}

/** One press that takes away the only thing that stands against a way; null: there is more than one, or no press does it. */
function mendOf({ route, no, on }: Choice): Mend | null {
  if (no.length !== 1) return null;
  const [{ of }] = no;
  if (of === "beam" || of === "cut") {
    const other = on.world.machines.find(
      (m) =>
        route.beams.includes(m.beam) &&
        m.id !== on.machine?.id &&
        !standsAgainst(route, onMachine(on.world, m.id)).length,
    );
    return other ? { label: `Take ${other.name}`, act: { intent: "set", field: "machineId", value: other.id } } : null;
  }
  if (of === "picture") return { label: "Leave the picture away", act: { intent: "picture-away" } };
  if (of === "colours" && route.maxColours === 1) {
    const [most] = [...on.filled].sort((a, b) => b.areaMm2 - a.areaMm2);
    return most
      ? { label: `All zones in the colour of ${most.name}`, act: { intent: "one-colour", zone: most.id } }
      : null;
  }
  return null;
}
const onMachine = (w: World, machineId: string): Context => context({ ...w, job: { ...w.job, machineId } });

/**
 * Every way, the best advised first, one after another as they are planned.
 * @param now the moment they are planned at, min since 1970; null: the job's own start
 */
export function* waysInTurn(world: World, now: number | null): Generator<Way, void> {
  let rank = 0;
  for (const x of chooseRoutes(context(world))) {
    const can = x.no.length === 0;
    yield {
      id: x.route.id,
      name: x.route.name,
      no: x.no,
      mend: can ? null : mendOf(x),
      rank: can ? ++rank : null,
      points: x.points,
      reasons: x.reasons,
      figures: can && world.job.zones.length ? wayFigures(makePlan(byRoute(world, x.route.id), now, true)) : null,
    };
  }
}

const whole = (n: number | null): number | null => (n === null ? null : Math.round(n * 100) / 100);
/** Every way as the door answers it, the best advised first. What is not known is null. */
export const routesReport = (world: World): object[] =>
  [...waysInTurn(world, null)].map((w) => {
    const f = w.figures;
    const rules = [...w.no.map((n) => n.rule), ...(f?.snags ?? []).map((s) => s.rule)].filter((r) => r !== null);
    return {
      id: w.id,
      possible: w.no.length === 0,
      rules: [...new Set(rules)].sort((a, b) => a - b),
      missing: f ? [...f.toBuy.map((p) => p.finish), ...f.lacks] : [],
      handsMin: whole(f?.handsMin ?? null),
      laserMin: whole(f?.laserMin ?? null),
      calendarMin: f && f.ready !== null && f.start !== null ? f.ready - f.start : null,
      costMinor: f && !f.costAtLeast ? f.costMinor : null,
      lossShare: f?.loss ?? null,
      risk: GRAVEST.find((s) => f?.snags.some((x) => x.severity === s)) ?? null,
      rank: w.rank,
      reasons: w.no.length ? w.no.map((n) => n.why) : w.reasons,
    };
  });
