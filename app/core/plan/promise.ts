/** What a shop may promise: the date of a further order, the one kept in four runs of five, whom it pushes; and what would help. */
import { Choices, Job, Order, Substrate, WrapUp, Zone } from "../records/job";
import type { RouteId } from "../records/ids";
import type { World } from "../records/world";
import { offs } from "../models/learn/factor";
import { compile, endOf, type Model } from "../schedule/model";
import { Builder, SOONER } from "../schedule/build";
import { randomOf } from "../units/random";
import { onceMore } from "./again";
import { ALONE, makePlan } from "./plan";
import { shopProblem } from "./schedule";
import { placesIn, type LayOptions } from "./together";
import { layShop, queued, type WholeShop } from "./whole";

/** An order as it is first told: what way, of what, how big; mm. */
export interface Rough {
  route: RouteId;
  substrate: string;
  w: number;
  h: number;
}
/** A further order: like a job that is known, or told roughly, so many pieces. */
export type Asked = { pieces: number } & ({ like: string; rough?: undefined } | { rough: Rough; like?: undefined });
export const ASKED_ID = "asked-order";

/** share of the face that has colour where nobody has drawn it yet, and how ragged its edge is taken to be */
const COVERED = 0.25;
const RAGGED = 3;
const SOME_COLOUR = "#a8235a";
/** The world of an order told roughly: one colour over a quarter of the face, on the first machine that does it. */
function worldRough(facts: World, { route, substrate, w, h }: Rough, pieces: number, now: string): World {
  const areaMm2 = COVERED * w * h;
  const side = Math.sqrt(areaMm2);
  const zone: Zone = {
    ...new Zone(),
    id: "colour",
    name: "Colour",
    colour: SOME_COLOUR,
    wanted: SOME_COLOUR,
    areaMm2,
    perimeterMm: 4 * side * RAGGED,
    narrowestMm: 2,
    pieces: 1,
    holes: 0,
    smallestMm2: areaMm2,
    outline: "",
    rows: [],
    productId: null,
    bare: false,
  };
  const job: Job = {
    ...new Job(),
    id: ASKED_ID,
    title: "The new order",
    quantity: pieces,
    start: now,
    route,
    substrate: { ...new Substrate(), id: substrate, w, h },
    zones: [zone],
    choices: new Choices(),
    order: new Order(),
    wrapUp: new WrapUp(),
  };
  const { shop, machines, products } = facts.elsewhere ?? facts;
  const made = machines.map((m): World => ({
    shop,
    machines,
    products,
    log: [],
    job: { ...job, machineId: m.id },
  }));
  const goes = made.find((x) => {
    const p = makePlan(x, null, true, ALONE);
    return !p.missing.length && p.stuck === null;
  });
  return goes ?? made[0] ?? { shop, machines, products, log: [], job };
}

/** The world of an order, as if it came in now; null: the job that it is to be like is not there. */
export function worldAsked(worlds: readonly World[], asked: Asked, now: string): World | null {
  if (asked.rough) return worlds.length ? worldRough(worlds[0], asked.rough, asked.pieces, now) : null;
  const w = worlds.find((x) => x.job.id === asked.like);
  if (!w) return null;
  const facts = w.elsewhere ?? w;
  const rest = w.job;
  const made: Job = {
    ...rest,
    begun: undefined,
    queue: undefined,
    id: ASKED_ID,
    title: "The new order",
    start: now,
    order: { ...rest.order, text: "" },
    wrapUp: { ...rest.wrapUp, closedAt: null, good: null, lost: null },
  };
  return {
    shop: facts.shop,
    machines: facts.machines,
    products: facts.products,
    log: [],
    job: onceMore(w.job, made, asked.pieces, null),
  };
}

export interface Promised {
  /** earliest with all others where they stand; null: it can't be planned */
  ready: number | null;
  /** the same with evenings of some hours more */
  evenings: number | null;
  /** kept in four of five runs with waits and work as they scatter; null: not reckoned */
  surely: number | null;
  /** jobs that would be later, were it laid as soon as it goes, minutes each */
  pushes: { job: string; title: string; later: number }[];
  /** its ready time then */
  soonest: number | null;
  /** how work is taken to scatter, and of how many logged steps */
  scatter: Scatter & { n: number };
  why: string | null;
}

/** hours that an evening has more */
const EVENING_H = 3;
const late = (hhmm: string, hours: number): string => {
  const m = Math.min(24 * 60, Number(hhmm.slice(0, 2)) * 60 + Number(hhmm.slice(3)) + hours * 60);
  return m >= 24 * 60 ? "24:00" : `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
};
/** A shop open so many hours longer on every day that it opens. */
export const longer = (w: World, hours: number): World => ({
  ...w,
  shop: {
    ...w.shop,
    hours: Object.fromEntries(
      Object.entries(w.shop.hours).map(([d, h]) => [d, h ? [h[0], late(h[1] as string, hours)] : h]),
    ) as unknown as World["shop"]["hours"],
  },
});
/** The others where they stand by now: what the new order may not touch. */
const fixedAt = (shop: WholeShop): Map<string, [string, number][]> =>
  new Map(shop.jobs.map((q) => [q.plan.context.job.id, [...q.starts]]));
const pinned = (w: World, at: Map<string, [string, number][]>): World => ({
  ...w,
  job: {
    ...w.job,
    queue: { ...w.job.queue, pins: (at.get(w.job.id) ?? []).map(([step, t]) => ({ step, at: t })) },
  },
});
/** As it is once the calendar is gone by. */
const standingAt = (w: World, at: Map<string, [string, number][]>): World => ({
  ...w,
  job: { ...w.job, queue: { ...w.job.queue, laid: (at.get(w.job.id) ?? []).map(([step, t]) => ({ step, at: t })) } },
});
/** minutes by which a job may be later and still be where it stood */
const SLIP_MIN = 5;
/** Is the order laid, and nobody else later for it? */
const keepsAll = (s: WholeShop | null, standing: WholeShop): s is WholeShop =>
  s !== null &&
  readyOf(s, ASKED_ID) !== null &&
  standing.jobs.every((q) => {
    const { id } = q.plan.context.job;
    return q.plan.ready === null || (readyOf(s, id) ?? Infinity) <= q.plan.ready + SLIP_MIN;
  });
const readyOf = (shop: WholeShop, job: string): number | null =>
  shop.jobs.find((q) => q.plan.context.job.id === job)?.plan.ready ?? null;

/**
 * What can be promised.
 * @param now local, for its beginning @param standing the shop as it stands
 */
export function promise(
  worlds: readonly World[],
  asked: Asked,
  local: string,
  standing: WholeShop,
  o: LayOptions,
): Promised {
  const made = worldAsked(worlds, asked, local);
  const scatter = scatterOf(worlds);
  const none: Promised = { ready: null, evenings: null, surely: null, pushes: [], soonest: null, scatter, why: null };
  if (!made) return { ...none, why: "The job that it is to be like is no longer there." };
  const alone = makePlan(made, o.now, true, ALONE);
  if (alone.missing.length || alone.stuck) return { ...none, why: alone.missing[0]?.say ?? alone.stuck };
  const held = fixedAt(standing);
  const others = worlds.filter((w) => queued(w) && held.has(w.job.id));
  const try_ = (list: World[], anew = true): WholeShop | null => {
    try {
      return layShop(list, { ...o, seconds: 0, anew });
    } catch {
      return null;
    }
  };
  // as it will be laid once it has come in; where others would move for that, between them as they stand to the minute
  const comesIn = try_([...others.map((w) => standingAt(w, held)), made], false);
  const between = keepsAll(comesIn, standing) ? comesIn : try_([...others.map((w) => pinned(w, held)), made]);
  const among = keepsAll(between, standing) ? between : null;
  // longer hours move all of them: nobody stays where the shorter ones had him
  const evening = try_([...worlds.filter((w) => held.has(w.job.id)), made].map((w) => longer(w, EVENING_H)));
  const free = try_([
    ...worlds.filter((w) => held.has(w.job.id)),
    // wanted at once, and before all others
    { ...made, job: { ...made.job, due: local, queue: { weight: 10 } } },
  ]);
  return {
    ready: among && readyOf(among, ASKED_ID),
    evenings: evening && readyOf(evening, ASKED_ID),
    surely: among && surely(among, ASKED_ID, o.now, scatter),
    scatter,
    soonest: free && readyOf(free, ASKED_ID),
    pushes: free
      ? standing.jobs.flatMap((q) => {
          const [was, is] = [q.plan.ready, readyOf(free, q.plan.context.job.id)];
          const later = was === null || is === null ? 0 : is - was;
          return later >= 15 ? [{ job: q.plan.context.job.id, title: q.plan.context.job.title, later }] : [];
        })
      : [],
    why: among ? null : "With all others where they stand there is no room for it.",
  };
}

const RUNS = 200;
/** how work and waits scatter about what is planned, as a share: the log teaches better ones */
export const SCATTER = { work: 0.15, waits: 0.12 };
export type Scatter = typeof SCATTER;
/** logged steps that weigh as much as what is taken without them */
const PRIOR_N = 8;
/**
 * How work scatters in this shop: what is taken without a log, and the log's own spread, each as sure as it is (a scaled inverse χ²
 * prior's mean). @returns n: logged steps that were asked
 */
export function scatterOf(worlds: readonly World[]): Scatter & { n: number } {
  const all = offs(worlds.flatMap((w) => w.log.filter((e) => e.kind === "done")));
  const mean = all.reduce((a, x) => a + x, 0) / Math.max(1, all.length);
  const sum = all.reduce((a, x) => a + (x - mean) ** 2, 0);
  return { ...SCATTER, work: Math.sqrt((PRIOR_N * SCATTER.work ** 2 + sum) / (PRIOR_N + all.length)), n: all.length };
}
const SURE = 0.8;
/** normal numbers out of even ones (Box and Muller 1958) */
const gauss = (next: () => number): number => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());

/** The same work and waits, each as long as it may turn out to be. */
export function scattered(m: Model, seed: number, s = SCATTER): Model {
  const dice = randomOf(seed);
  const times = (share: number): number => Math.exp(share * gauss(dice.next) - (share * share) / 2);
  const work = m.work.map((w, i) => (m.fixed[i] >= 0 ? w : Math.max(0, Math.round(w * times(s.work)))));
  const lags = m.lags.map((l) => ({ ...l, min: l.min * times(s.waits) }));
  return {
    ...m,
    work,
    piece: m.piece.map((w, i) => (m.work[i] > 0 ? (w * work[i]) / m.work[i] : w)),
    lags,
    into: m.into.map((list) => list.map((l) => lags[l.index])),
    out: m.out.map((list) => list.map((l) => lags[l.index])),
  };
}

/**
 * When a job is done in so many runs of the shop, each with other luck, laid in the order that was found; those that lead to nothing are
 * left out. Minutes since 1970.
 */
export function runsOf(
  shop: WholeShop,
  job: string,
  now: number,
  seeds: readonly number[],
  scatter: Scatter = SCATTER,
): number[] {
  // where others are pinned they may slip: what they hold is pushed with them
  const free = shop.jobs.map(({ alone: p }) => ({
    ...p,
    context: { ...p.context, job: { ...p.context.job, queue: undefined } },
  }));
  const [first] = shop.jobs;
  const made = shopProblem(free, {
    now,
    limitSeconds: null,
    sessions: shop.together.map((x) => x.session),
    rack: placesIn(first?.alone.context.world),
  });
  const model = compile(made.problem);
  const { blocks } = new Builder(model);
  const at = new Map<string, number>(
    shop.jobs.flatMap((q) => [...q.starts].map(([step, t]) => [`${q.plan.context.job.id}/${step}`, t] as const)),
  );
  const order = model.ids.map((id) => {
    const t = at.get(id);
    return t === undefined ? -1 : t + (made.within.get(id)?.minutes ?? 0);
  });
  const key = Float64Array.from(blocks.tasks, (list) => Math.min(...list.map((i) => order[i])));
  // nobody is at the bench before the calendar has him there
  const floor = Float64Array.from(order, (t) => Math.max(0, t - made.origin));
  return seeds.flatMap((seed) => {
    const m = scattered(model, seed, scatter);
    const start = new Builder(m, blocks).lay({ key, reopen: new Uint8Array(m.lags.length).fill(SOONER), floor });
    if (!start) return [];
    const end = m.ids.reduce(
      (most, id, i) => (made.tasks.get(id)!.job === job ? Math.max(most, endOf(m, i, start[i])) : most),
      0,
    );
    return [made.origin + end];
  });
}
/** Moment by which a job is done in four of five runs. */
export function surely(shop: WholeShop, job: string, now: number, scatter: Scatter = SCATTER): number | null {
  const ends = runsOf(
    shop,
    job,
    now,
    Array.from({ length: RUNS }, (_v, k) => 1 + k),
    scatter,
  ).sort((a, b) => a - b);
  if (ends.length < RUNS / 2) return null;
  return ends[Math.min(ends.length - 1, Math.ceil(SURE * ends.length) - 1)];
}

export interface WhatIf {
  id: string;
  name: string;
  /** minutes that all is done sooner, and a job on the whole; jobs late; minutes late in all */
  sooner: number | null;
  each: number | null;
  late: number;
  lateMin: number;
  why: string | null;
}
const lateness = (shop: WholeShop): { late: number; lateMin: number; done: number; mean: number } => {
  let [n, min, done, sum, jobs] = [0, 0, -Infinity, 0, 0];
  for (const { plan } of shop.jobs) {
    const { job, clock } = plan.context;
    if (plan.ready === null) continue;
    done = Math.max(done, plan.ready);
    sum += plan.ready;
    jobs++;
    const over = job.due === null ? 0 : plan.ready - clock.fromLocal(job.due);
    if (over > 0) {
      n++;
      min += over;
    }
  }
  return { late: n, lateMin: min, done, mean: sum / jobs };
};
/** °C that a warmer room has more */
const WARMER_C = 4;
const onSaturdays = (w: World): World => ({
  ...w,
  shop: { ...w.shop, hours: { ...w.shop.hours, sat: w.shop.hours.sat ?? w.shop.hours.fri ?? ["09:00", "18:00"] } },
});
const warmer = (w: World): World => {
  const c = w.shop.climate;
  return {
    ...w,
    shop: {
      ...w.shop,
      climate: {
        ...c,
        c: c.c + WARMER_C,
        hourly: c.hourly.map((h) => ({ ...h, c: h.c + WARMER_C })),
        readings: c.readings?.map((r) => ({ ...r, c: r.c + WARMER_C })),
      },
    },
  };
};

/** What would help, one after another: the shop as it is first, each laid anew with as much search. */
export function* whatIfInTurn(worlds: readonly World[], o: LayOptions): Generator<WhatIf, WhatIf[]> {
  const lanes = new Set(worlds.filter(queued).flatMap((w) => (w.job.machineId ? [`machine ${w.job.machineId}`] : [])));
  const more = Object.fromEntries([...lanes].map((l) => [l, 2]));
  const cases: { id: string; name: string; of: (w: World) => World; more?: Record<string, number> }[] = [
    { id: "now", name: "As it is", of: (w) => w },
    { id: "hour", name: "An hour longer every day", of: (w) => longer(w, 1) },
    { id: "evenings", name: `Evenings, ${EVENING_H} hours longer`, of: (w) => longer(w, EVENING_H) },
    { id: "saturdays", name: "Saturdays too", of: onSaturdays },
    { id: "laser", name: "Of each laser a second one", of: (w) => w, more },
    { id: "oven", name: "A second oven", of: (w) => w, more: { oven: 2 } },
    { id: "warmer", name: `The room ${WARMER_C} °C warmer`, of: warmer },
  ];
  const out: WhatIf[] = [];
  let base: ReturnType<typeof lateness> | null = null;
  for (const x of cases) {
    let row: WhatIf;
    try {
      const r = lateness(layShop(worlds.map(x.of), { ...o, seconds: 0, anew: true, more: x.more }));
      base ??= r;
      const by = (k: "done" | "mean"): number | null => (Number.isFinite(r[k]) ? base![k] - r[k] : null);
      row = {
        id: x.id,
        name: x.name,
        sooner: by("done"),
        each: by("mean"),
        late: r.late,
        lateMin: r.lateMin,
        why: null,
      };
    } catch (e) {
      row = { id: x.id, name: x.name, sooner: null, each: null, late: 0, lateMin: 0, why: (e as Error).message };
    }
    out.push(row);
    yield row;
  }
  return out;
}
