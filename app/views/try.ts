/** A way to do a job, planned whole: for the Route page, and for what the field guide speaks of, beside the way the job goes now. */
import { route, ROUTES } from "../core/catalogue/routes";
import { SCHOOLS, schoolPick, withPick } from "../core/catalogue/schools";
import { open } from "../core/judge/judge";
import { chooseRoutes } from "../core/plan/choose";
import { byRoute } from "../core/plan/goes";
import { inTurn } from "../core/plan/placed";
import { makePlan } from "../core/plan/plan";
import { context, picksOf } from "../core/process/context";
import type { World } from "../core/records/world";
import { showWhen } from "../core/time/zoned";
import { saidAll } from "../core/units/said";
import { showMinutes } from "../core/units/show";
import type { GuidePage } from "./guide";
import { openedIn, type Opened } from "./opened";

/** Minutes of some steps together, in words; null: one is not known. */
export const handsOf = (list: { minutes: number | null }[]): string | null =>
  list.some((p) => p.minutes === null) ? null : showMinutes(list.reduce((n, p) => n + (p.minutes ?? 0), 0));

export interface Outlook {
  steps: number;
  /** null: not known */
  hands: string | null;
  ready: string | null;
  whyHands: Opened;
  whyReady: Opened;
  lacks: string[];
  /** snags that would ruin the piece */
  stops: number;
}
/** @param by how it is told whose figures are opened: by “engrave, seal, fill, sand back” */
export function outlook(there: World, now: number, by: string): Outlook {
  const plan = makePlan(there, now, true);
  return {
    whyReady: openedIn(there, now, { of: "ready" }, `When it is ready ${by}`),
    whyHands: openedIn(there, now, { of: "hands" }, `Work in all ${by}`),
    ready: plan.ready === null ? null : showWhen(plan.context.clock, plan.ready),
    hands: handsOf(inTurn(plan.placed)),
    steps: plan.placed.length,
    lacks: plan.missing.map((m) => m.say),
    stops: open(plan).filter((s) => s.severity === "stop" || s.severity === "never").length,
  };
}
export interface Tried extends Outlook {
  name: string;
  /** the job goes so by now */
  is: boolean;
  act: Record<string, string>;
  /** why it does not go here at all */
  no: string[];
}

/** Ways and matters where makers disagree can be tried. */
export const canTry = (page: GuidePage): boolean => page.kind === "route" || page.kind === "school";

/** The page's way beside the one the job goes by; or each pick of the page's matter. */
export function tryOn(w: World, now: number, page: GuidePage): Tried[] {
  const id = page.id.slice(page.kind.length + 1);
  return saidAll(page.kind === "route" ? routesOn(w, now, id) : picksOn(w, now, id), w.shop.units);
}

function routesOn(w: World, now: number, id: string): Tried[] {
  const choices = chooseRoutes(context(w));
  const ids = [w.job.route, ROUTES.find((r) => r.id === id)?.id].filter((r) => r != null);
  return [...new Set(ids)].map((r) => {
    const no = choices.find((c) => c.route.id === r)?.no.map((n) => n.why) ?? [];
    return {
      ...outlook(byRoute(w, r), now, `by “${route(r).name.toLowerCase()}”`),
      // where it does not go at all, what a plan of it would lack besides says nothing more
      ...(no.length ? { lacks: [], stops: 0 } : {}),
      name: route(r).name,
      is: w.job.route === r,
      act: { intent: "set", field: "route", value: r },
      no,
    };
  });
}

function picksOn(w: World, now: number, id: string): Tried[] {
  const s = SCHOOLS.find((x) => x.id === id);
  const taken = schoolPick(id, picksOf(w.job.choices.schools), picksOf(w.shop.schools)).pick;
  return (s?.picks ?? []).map((p) => {
    const schools = withPick(w.job.choices.schools, id, p.id);
    const there = { ...w, job: { ...w.job, choices: { ...w.job.choices, schools } } };
    return {
      ...outlook(there, now, `with “${p.name.toLowerCase()}”`),
      name: p.name,
      is: p.id === taken,
      act: { intent: "choice", field: `school:${id}`, value: p.id },
      no: [],
    };
  });
}
