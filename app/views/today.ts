/** Every open job in a line: what to do now, what it waits for, when it will be ready. */
import { standing } from "../core/bench/next";
import { simulate } from "../core/explain/report";
import { GROUND } from "../core/piece/state";
import { makePlan, type Plan } from "../core/plan/plan";
import { titleIn } from "../core/plan/proof";
import { open } from "../core/judge/judge";
import { stateWords } from "../core/plan/decides";
import { showWhen } from "../core/time/zoned";
import type { World } from "../core/records/world";
import type { FigureRef } from "../core/explain/why/figure";
import { titleOf } from "../core/explain/why/title";
import { openedIn } from "./opened";
import { shopTrips } from "../core/explain/whole";
import { clashesBy } from "../core/plan/settle";
import { saidAll } from "../core/units/said";

/** Colours of the piece as it will be seen when all is done: of the face, and of each zone that is drawn. */
function looksOf(plan: Plan): { ground: string; zones: string[] } {
  const { job, substrate } = plan.context;
  const last = plan.placed[plan.placed.length - 1];
  const seen = new Map(last ? simulate(plan, last).map((z) => [z.zone, z.front]) : []);
  const meant = plan.missing.length ? null : seen;
  return {
    ground: meant?.get(GROUND) ?? substrate.colour,
    zones: job.zones.filter((z) => z.outline).map((z) => meant?.get(z.id) ?? z.wanted ?? z.colour),
  };
}

/** hours of trips that Today shows, and days in which clashes are looked for */
const [TRIP_HOURS, CLASH_DAYS] = [30, 7];

export function todayView(all: World[], now: number) {
  const plans: Plan[] = [];
  const rows = todayRows(all, now, plans);
  const jobs = plans
    .filter((p) => !p.missing.length && !p.stuck && !p.context.job.queue?.hold)
    .map((plan) => ({ alone: plan, plan, starts: new Map<string, number>() }));
  const byId = new Map(all.map((w) => [w.job.id, w]));
  const soon = now + TRIP_HOURS * 60;
  const every = shopTrips(jobs);
  const trips = every.filter((t) => t.from < soon);
  return {
    rows,
    /** nothing within those hours: the next one */
    trips: plans.length ? saidAll(trips.length ? trips : every.slice(0, 1), plans[0].context.world.shop.units) : [],
    /** what a figure of a trip opens to */
    opens: (job: string, step: string, of: "begins" | "minutes" | "shuts", title: string) =>
      openedIn(byId.get(job)!, now, { of, step }, title),
    laid: all.some((w) => w.job.queue?.laid),
    clashes: clashesBy(jobs, now + CLASH_DAYS * 1440),
  };
}
export function todayRows(all: World[], now: number, plans: Plan[] = []) {
  const worlds = all.filter((w) => w.job.wrapUp.closedAt === null);
  const rows = worlds.map((w) => {
    const plan = makePlan(w, now, true);
    plans.push(plan);
    const s = standing(plan, now);
    const why = (f: FigureRef): ReturnType<typeof openedIn> => openedIn(w, now, f, titleOf(plan, f));
    const at = "step" in s ? s.step.step.id : "";
    const due = w.job.due ? plan.context.clock.fromLocal(w.job.due) : null;
    return {
      id: w.job.id,
      title: w.job.title,
      client: w.job.client,
      quantity: w.job.quantity,
      is: s.is,
      step: s.is === "ready" || s.is === "waiting" || s.is === "missed" ? titleIn(s.step.step) : null,
      minutes: s.is === "ready" ? s.step.minutes : null,
      begun: plan.bench.actuals.size > 0,
      wait:
        s.is === "waiting" || s.is === "missed"
          ? {
              state: s.need.state,
              words: stateWords(s.need.state),
              from: s.need.from,
              opens: s.opens,
              closes: s.closes,
              why: why({ of: s.is === "missed" ? "shuts" : "opens", step: at }),
            }
          : null,
      whyMinutes: why({ of: "minutes", step: at }),
      whyReady: why({ of: "ready" }),
      whySlack: why({ of: "margin" }),
      lacks: s.is === "lacking" ? s.say : null,
      ready: plan.ready === null ? null : showWhen(plan.context.clock, plan.ready),
      due: due === null ? null : showWhen(plan.context.clock, due),
      slack: due === null || plan.ready === null ? null : due - plan.ready,
      looks: looksOf(plan),
      snags: open(plan).filter((x) => x.severity !== "hazard").length,
    };
  });
  const order = { missed: 0, ready: 0, waiting: 1, lacking: 2, done: 3, closed: 4 };
  rows.sort(
    (a, b) =>
      Number(b.begun) - Number(a.begun) ||
      order[a.is] - order[b.is] ||
      (a.wait?.opens ?? Infinity) - (b.wait?.opens ?? Infinity) ||
      (a.slack ?? Infinity) - (b.slack ?? Infinity),
  );
  return rows;
}
export type TodayShown = ReturnType<typeof todayView>;
