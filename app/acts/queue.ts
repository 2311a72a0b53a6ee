/** The calendar of the shop: jobs go by it or each alone, are held, weighed, pinned; single days have hours of their own. */
import type { Job, Queue, Shared } from "../core/records/job";
import { Text } from "../core/records/fields";
import { readWhen } from "../core/time/typed";
import { shopClock, showWhen } from "../core/time/zoned";
import { nowMinutes } from "../clock";
import { commit, Refused } from "../store/acts";
import { readHeads, readShop, readWorldsOf } from "../store/queries";
import { act, Bare, HUGE } from "./act";
import { typed } from "./answer";
import { span } from "./shop/settings";

type Nobody = null;

class LayForm {
  /** beginnings by job and step, as JSON */
  @Text(HUGE) starts!: string;
  /** what is done together, by job, as JSON */
  @Text(HUGE) shared: string = "{}";
}
class QueueForm {
  @Text(120) id!: string;
  @Text(20) field!: string;
  @Text(200) value: string = "";
  @Text(400) step: string = "";
  @Text(5) dayFirst: string = "true";
}
class DayHoursForm {
  @Text(20) field: string = "";
  @Text(10) day!: string;
  /** two times such as 09:00 - 21:00, “shut”; empty: as its weekday is */
  @Text(40) value: string = "";
}

const jobsOf = async (ids: string[]): Promise<Job[]> => (await readWorldsOf(ids, false)).map((w) => w.job);
/** A job with another place among the others; one that has none any more says nothing of it. */
function withQueue(job: Job, change: Partial<Queue>): Job {
  const rest: Job = { ...job };
  delete rest.queue;
  const queue = Object.fromEntries(Object.entries({ ...job.queue, ...change }).filter(([, v]) => v !== undefined));
  return Object.keys(queue).length ? { ...rest, queue } : rest;
}
function momentOf(value: string, now: string, dayFirst: boolean): string {
  try {
    return readWhen(value, { now, time: now.slice(11), dayFirst });
  } catch (e) {
    throw new Refused((e as Error).message);
  }
}
async function queueField(job: Job, { field, value, step, dayFirst }: QueueForm): Promise<Partial<Queue>> {
  if (field === "hold") return { hold: value === "true" ? true : undefined };
  if (field === "weight") {
    const weight = typed.number(value);
    if (!(weight >= 0.1 && weight <= 10)) throw new Refused("How much it weighs lies between 0.1 and 10.");
    return { weight: weight === 1 ? undefined : weight };
  }
  if (field === "apart" || field === "with") {
    const rest = (job.queue?.apart ?? []).filter((x) => x !== step);
    const apart = field === "apart" ? [...rest, step] : rest;
    const shared = job.queue?.shared?.filter((x) => x.step !== step);
    return { apart: apart.length ? apart : undefined, shared: shared?.length ? shared : undefined };
  }
  if (field !== "pin" && field !== "pin-at") throw new Refused(`There is nothing called “${field}” here.`);
  const rest = (job.queue?.pins ?? []).filter((p) => p.step !== step);
  if (!value.trim()) return { pins: rest.length ? rest : undefined };
  const base = await readShop();
  if (!base) throw new Refused("There is no shop yet.");
  const clock = shopClock(base.shop);
  const now = nowMinutes();
  // a moment as it is typed, or minutes since 1970 as a press gives them
  const at =
    field === "pin-at" ? typed.whole(value) : clock.fromLocal(momentOf(value, clock.toLocal(now), dayFirst === "true"));
  if (at < Math.floor(now))
    throw new Refused(`${showWhen(clock, at)} has gone by: a step is pinned to a time to come.`);
  return { pins: [...rest, { step, at }] };
}

export const queueActs = [
  act("lay-shop", LayForm, async (f, _c: Nobody) => {
    const starts = JSON.parse(f.starts) as Record<string, [string, number][]>;
    const shared = JSON.parse(f.shared) as Record<string, Shared[]>;
    const jobs = await jobsOf(Object.keys(starts));
    await commit(
      "calendar of the shop",
      jobs.map((job) => ({
        table: "jobs" as const,
        id: job.id,
        next: withQueue(job, {
          laid: starts[job.id].map(([step, at]) => ({ step, at: Math.round(at) })),
          shared: shared[job.id]?.length ? shared[job.id] : undefined,
        }),
        base: job,
      })),
    );
    return "The jobs go by it now";
  }),
  act("lay-alone", Bare, async (_f, _c: Nobody) => {
    const jobs = (await jobsOf((await readHeads()).map((h) => h.id))).filter((j) => j.queue?.laid || j.queue?.shared);
    await commit(
      "calendar of the shop left",
      jobs.map((job) => ({
        table: "jobs" as const,
        id: job.id,
        next: withQueue(job, { laid: undefined, shared: undefined }),
        base: job,
      })),
    );
  }),
  act("queue", QueueForm, async (f, _c: Nobody) => {
    const [job] = await jobsOf([f.id]);
    if (!job) throw new Refused("This job is no longer there; it may have been deleted in another tab.");
    const next = withQueue(job, await queueField(job, f));
    await commit(`place of “${job.title}” among the others`, [{ table: "jobs", id: job.id, next, base: job }]);
  }),
  act("day-hours", DayHoursForm, async (f, _c: Nobody) => {
    const base = await readShop();
    if (!base || !/^\d{4}-\d\d-\d\d$/.test(f.day)) throw new Refused(`“${f.day}” is no day.`);
    const { shop } = base;
    const other = (shop.otherHours ?? []).filter((o) => o.day !== f.day);
    const daysOff = shop.daysOff.filter((d) => d !== f.day);
    const value = f.value.trim().toLowerCase();
    const next = { ...shop, daysOff: value === "shut" ? [...daysOff, f.day].sort() : daysOff };
    const hours = value && value !== "shut" ? span(value) : null;
    const otherHours = hours ? [...other, { day: f.day, hours }].sort((a, b) => (a.day < b.day ? -1 : 1)) : other;
    await commit(`hours of ${f.day}`, [
      {
        table: "shop",
        id: "shop",
        next: { ...next, otherHours: otherHours.length ? otherHours : undefined },
        base: shop,
      },
    ]);
  }),
];
