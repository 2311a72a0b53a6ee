/**
 * Trial cards: a few treatments of the same artwork side by side, each planned whole, so that scraps can be made, looked at and voted
 * out. Axes are routes and picks where makers disagree; every combination is a card, numbered, with its steps in order.
 */
import { own } from "../process/kinds";
import { route } from "../catalogue/routes";
import { SCHOOLS, withPick } from "../catalogue/schools";
import type { World } from "../records/world";
import { byRoute } from "./goes";
import { makePlan } from "./plan";

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
export const MOST_CARDS = 16;

/**
 * @param axes `route:D1` and `school:edge:both`; several of one kind are alternatives of one axis
 * @param out keys voted out
 */
export function trialCards(w: World, axes: string[], out: string[]): TrialCard[] {
  const routes = axes.filter((a) => a.startsWith("route:")).map((a) => a.slice(6));
  const picks = axes.filter((a) => a.startsWith("school:")).map((a) => a.slice(7));
  const first = routes.length ? routes : w.job.route ? [w.job.route] : [];
  // Each pick stands beside the way the job goes without it.
  const combos = first.flatMap((r) =>
    picks.reduce<string[][]>((all, p) => [...all, ...all.map((c) => [...c, p])], [[]]).map((c) => ({ r, c })),
  );
  return combos.slice(0, MOST_CARDS).map(({ r, c }, i) => {
    const schools = c.reduce<string[] | undefined>(
      (s, p) => withPick(s, p.slice(0, p.indexOf(":")), p.slice(p.indexOf(":") + 1)),
      w.job.choices.schools,
    );
    const there = byRoute(w, r as World["job"]["route"]);
    const choices = { ...w.job.choices, schools, proof: false, begin: 1 };
    const plan = makePlan({ ...there, job: { ...there.job, quantity: 1, edits: [], choices } }, null, true);
    const key = [r, ...c].join("+");
    const words = c.map((p) => {
      const s = SCHOOLS.find((x) => x.id === p.slice(0, p.indexOf(":")));
      return s?.picks.find((x) => x.id === p.slice(p.indexOf(":") + 1))?.name.toLowerCase() ?? p;
    });
    const unknown = plan.placed.some((p) => p.minutes === null);
    return {
      n: i + 1,
      key,
      name: [`${r} ${route(r).name.toLowerCase()}`, ...words].join("; "),
      steps: plan.placed.map((p) => p.step.title),
      minutes: unknown ? null : plan.placed.reduce((a, p) => a + (p.minutes ?? 0), 0),
      out: out.includes(key),
    };
  });
}
