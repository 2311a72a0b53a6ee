/**
 * Trial cards: a few treatments of the same artwork side by side, each planned whole, so that scraps can be made, looked at and voted
 * out. Axes are routes and picks where makers disagree; every combination is a card, numbered, with its steps in order.
 */
import { own } from "../process/kinds";
import { route } from "../catalogue/routes";
import { SCHOOLS, withPick } from "../catalogue/schools";
import type { World } from "../records/world";
import { byRoute } from "../plan/goes";
import { open } from "../judge/judge";
import { makePlan, type Plan } from "../plan/plan";

export interface TrialCard {
  n: number;
  /** stable name of the combination */
  key: string;
  name: string;
  /** ordered words for the card */
  steps: string[];
  /** minutes of work for one piece; null: something is unknown */
  minutes: number | null;
  /** voted out */
  out: boolean;
  /** those who would keep it and drop it */
  votes: { keep: number; drop: number };
  /** why it is known beforehand to be lost; null: it is not */
  lost: string | null;
  /** picks where makers disagree that it stands for, and its way */
  route: NonNullable<World["job"]["route"]>;
  picks: string[];
}
/** Matters whose other pick changes the steps or times of this job at all: nothing else is worth a scrap. */
export function mattersHere(w: World): string[] {
  const told = (schools: string[] | undefined): string =>
    makePlan({ ...w, job: { ...w.job, edits: [], choices: { ...w.job.choices, schools } } }, null, true)
      .placed.map((p) => `${p.step.kind}${own(p.step, "method")}${own(p.step, "dryUm")}${p.start}`)
      .join();
  const now = told(w.job.choices.schools);
  return SCHOOLS.filter((s) =>
    s.picks.some((p) => p.id !== s.standard && told(withPick(w.job.choices.schools, s.id, p.id)) !== now),
  ).map((s) => s.id);
}

/** most cards made: more scraps than that are not looked at */
export const MOST_CARDS = 40;

/** Picks of one matter exclude each other: of those chosen, every choice of one at most a matter. */
function sets(picks: readonly string[]): string[][] {
  const matters = [...new Set(picks.map((p) => p.slice(0, p.indexOf(":"))))];
  return matters.reduce<string[][]>(
    (all, m) => {
      const mine = picks.filter((p) => p.startsWith(`${m}:`));
      return [...all, ...mine.flatMap((p) => all.map((c) => [...c, p]))];
    },
    [[]],
  );
}
/** How many cards the axes make in all. */
export function cardsOf(w: World, axes: readonly string[]): number {
  const of = (kind: string): string[] =>
    axes.filter((a) => a.startsWith(`${kind}:`)).map((a) => a.slice(kind.length + 1));
  return Math.max(1, of("route").length) * sets(of("school")).length * Math.max(1, of("machine").length);
}
/** Why a plan is lost before anybody burns it; null: it is worth a scrap. */
function lostFor(plan: Plan): string | null {
  const lacks = plan.missing[0]?.say ?? plan.stuck;
  if (lacks) return lacks;
  const grave = open(plan).find((s) => s.severity === "never" || s.severity === "stop");
  return grave ? grave.why : null;
}

/**
 * @param axes `route:D1` and `school:edge:both`; several of one kind are alternatives of one axis
 * @param out keys voted out
 */
export function trialCards(w: World, axes: string[], out: string[]): TrialCard[] {
  const routes = axes.filter((a) => a.startsWith("route:")).map((a) => a.slice(6));
  const picks = axes.filter((a) => a.startsWith("school:")).map((a) => a.slice(7));
  const beams = axes.filter((a) => a.startsWith("machine:")).map((a) => a.slice(8));
  const first = routes.length ? routes : w.job.route ? [w.job.route] : [];
  const machines = beams.length ? beams : [null];
  // Each pick stands beside the way the job goes without it.
  const combos = machines.flatMap((m) => first.flatMap((r) => sets(picks).map((c) => ({ r, c, m }))));
  return combos.slice(0, MOST_CARDS).map(({ r, c, m }, i) => {
    const schools = c.reduce<string[] | undefined>(
      (s, p) => withPick(s, p.slice(0, p.indexOf(":")), p.slice(p.indexOf(":") + 1)),
      w.job.choices.schools,
    );
    const on = m === null ? w : { ...w, job: { ...w.job, machineId: m } };
    const there = byRoute(on, r as World["job"]["route"]);
    const choices = { ...w.job.choices, schools, proof: false, begin: 1 };
    const plan = makePlan({ ...there, job: { ...there.job, quantity: 1, edits: [], choices } }, null, true);
    const key = [r, ...c, ...(m === null ? [] : [`on ${m}`])].join("+");
    const words = c.map((p) => {
      const s = SCHOOLS.find((x) => x.id === p.slice(0, p.indexOf(":")));
      return s?.picks.find((x) => x.id === p.slice(p.indexOf(":") + 1))?.name.toLowerCase() ?? p;
    });
    const by = m === null ? [] : [`with ${w.machines.find((x) => x.id === m)?.name ?? m}`];
    const unknown = plan.placed.some((p) => p.minutes === null);
    const vote = w.job.choices.trialVotes?.find((v) => v.key === key);
    return {
      n: i + 1,
      key,
      name: [route(r).name, ...words, ...by].join("; "),
      steps: plan.placed.map((p) => p.step.title),
      minutes: unknown ? null : plan.placed.reduce((a, p) => a + (p.minutes ?? 0), 0),
      out: out.includes(key),
      votes: { keep: vote?.keep ?? 0, drop: vote?.drop ?? 0 },
      lost: lostFor(plan),
      route: r as TrialCard["route"],
      picks: c,
    };
  });
}
