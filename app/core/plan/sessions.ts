/**
 * Works of several jobs that are done as one: pieces that share an oven load, coats of one can sprayed one after another, burns on one
 * set-up of a machine. What can be shared is asked of the step; what is gained is the minutes that only one of them takes.
 */
import { byBeam, has, kindOf, own } from "../process/kinds";
import { heatOf, ovenRun, TRAY_MIN } from "../process/kinds/melt";
import { setupMin } from "../process/kinds/laser-work";
import { shapeOf } from "../process/setup";
import { jigOf } from "../process/on-bed";
import type { Context } from "../process/context";
import type { Shared, SharedAs } from "../records/job";
import type { World } from "../records/world";
import { isFirst } from "./proof";
import { inTurn, sprayed, type Placed } from "./placed";

export interface Member {
  job: string;
  step: string;
}
export interface Session {
  id: string;
  as: SharedAs;
  /** in the order they are done */
  members: Member[];
}
/** What of a plan is asked here. */
interface Sharing {
  context: Context;
  placed: Placed[];
}

/** How a step could be done together with another one. */
interface Shareable {
  as: SharedAs;
  /** steps of one key can be */
  key: string;
  /** minutes that whoever comes second has no need of */
  saves: number;
  /** oven: loads that it fills, as the model counts them, and minutes of one */
  fills: number;
  warmMin: number;
  holdMin: number;
}
/** minutes that members may come apart, one behind the other, and still be one */
export const APART_MIN = 30;
/** minutes to lay out the next tray between two jobs sprayed with one can */
const NEXT_TRAY_MIN = 2;

const ALONE = { fills: 0, warmMin: 0, holdMin: 0 };
/**
 * null: it is done alone, or its minutes were typed. What has begun leaves its set-up to whoever comes next; into an oven that runs nothing
 * more is laid.
 */
function shareable(p: Placed, c: Context): Shareable | null {
  const { step } = p;
  if (step.minutes !== null || p.start === null || isFirst(step.id)) return null;
  if (p.actual && has(step, "method") && heatOf(step) === "oven") return null;
  if (c.job.queue?.apart?.includes(step.id)) return null;
  if (has(step, "method") && heatOf(step) === "oven") {
    const run = ovenRun(step, c);
    if (!run) return null;
    const { warmMin, holdMin } = run;
    const key = `oven ${run.setC} ${run.holdMin}`;
    return { as: "oven", key, saves: 0, fills: p.pieces / run.perTray, warmMin, holdMin };
  }
  const made = kindOf(step.kind).minutes(step, c);
  if (!made) return null;
  const k = c.learned(step.kind);
  if (byBeam(step) && c.machine && !kindOf(step.kind).tries) {
    // set to the face of this body, at this height, in this jig: another one is focused and placed anew
    const key = `beam ${c.machine.id} ${c.substrate.id} ${c.job.substrate.t} ${shapeOf(c)} ${jigOf(c)?.id ?? ""}`;
    return { ...ALONE, as: "beam", key, saves: k * Math.min(made.setup, setupMin(c.machine)) };
  }
  if (sprayed(step, c) && !own(step, "wetInWet"))
    return {
      ...ALONE,
      as: "spray",
      key: `spray ${own(step, "productId")}`,
      saves: k * Math.max(0, made.setup - NEXT_TRAY_MIN),
    };
  return null;
}

const stepOf = (plans: ReadonlyMap<string, Sharing>, m: Member): { p: Placed; c: Context } | null => {
  const plan = plans.get(m.job);
  const p = plan && inTurn(plan.placed).find((x) => x.step.id === m.step);
  return plan && p ? { p, c: plan.context } : null;
};
const byJob = <T extends Sharing>(plans: readonly T[]): Map<string, T> =>
  new Map(plans.map((p) => [p.context.job.id, p]));

/** Minutes that each member takes more than alone (below 0: less); null: they can't be done together, or nothing is gained. */
function gains(members: readonly Member[], plans: ReadonlyMap<string, Sharing>): number[] | null {
  const all = members.flatMap((m) => stepOf(plans, m) ?? []);
  const known = all.flatMap((x) => shareable(x.p, x.c) ?? []);
  const [first] = known;
  if (all.every((x) => x.p.actual)) return null;
  if (known.length < Math.max(2, members.length) || known.some((w) => w.key !== first.key)) return null;
  if (first.as !== "oven") return known.map((w, i) => (i === 0 ? 0 : -w.saves));
  const loads = Math.ceil(known.reduce((n, w) => n + w.fills, 0) - 1e-9);
  if (loads >= known.reduce((n, w) => n + Math.ceil(w.fills - 1e-9), 0)) return null;
  const warm = Math.max(...known.map((w) => w.warmMin));
  const pieces = all.reduce((n, x) => n + x.p.pieces, 0);
  const whole = Math.round(loads * (warm + first.holdMin)) + TRAY_MIN * pieces;
  return all.map(({ p, c }) => c.learned(p.step.kind) * whole - alone(p, c));
}
/** Minutes of a step that is done by itself. */
function alone(p: Placed, c: Context): number {
  const made = kindOf(p.step.kind).minutes(p.step, c)!;
  return c.learned(p.step.kind) * (made.setup + made.perPiece * p.pieces);
}
/** Minutes that a session wins over all of its members done alone. */
export function wins(s: Session, plans: readonly Sharing[]): number {
  const by = gains(s.members, byJob(plans));
  if (!by) return 0;
  if (s.as !== "oven") return -by.reduce((a, b) => a + b, 0);
  // one run of the oven in place of several
  const each = s.members.map((m) => {
    const { p, c } = stepOf(byJob(plans), m)!;
    return alone(p, c);
  });
  return each.reduce((a, b) => a + b, 0) - (each[0] + by[0]);
}

/** Do two sessions meet the same two jobs in crossed order? Neither could be done then. */
function crosses(a: Session, b: Session, plans: ReadonlyMap<string, Sharing>): boolean {
  const at = (m: Member): number => inTurn(plans.get(m.job)?.placed ?? []).findIndex((p) => p.step.id === m.step);
  const signs = a.members.flatMap((m) => {
    const other = b.members.find((x) => x.job === m.job);
    return other ? [Math.sign(at(m) - at(other))] : [];
  });
  return new Set(signs).size > 1;
}

/** The sessions that hold as things are: one member still to come at least, of one kind, gaining something; in the order found. */
export function holding(list: readonly Session[], plans: readonly Sharing[]): Session[] {
  const known = byJob(plans);
  const out: Session[] = [];
  const taken = new Set<string>();
  for (const s of list) {
    const members = s.members.filter((m) => {
      const at = taken.has(`${m.job}/${m.step}`) ? null : stepOf(known, m);
      return at !== null && shareable(at.p, at.c) !== null;
    });
    const one = { ...s, members };
    if (!gains(members, known) || out.some((o) => crosses(o, one, known))) continue;
    out.push(one);
    for (const m of members) taken.add(`${m.job}/${m.step}`);
  }
  return out;
}
/** The sessions that jobs carry with them. */
export function carried(worlds: readonly World[]): Session[] {
  const found = new Map<string, { as: SharedAs; members: (Member & { place: number })[] }>();
  for (const { job } of worlds)
    for (const x of job.queue?.shared ?? []) {
      const s = found.get(x.id) ?? found.set(x.id, { as: x.as, members: [] }).get(x.id)!;
      s.members.push({ job: job.id, step: x.step, place: x.place });
    }
  return [...found].map(([id, { as, members }]) => ({
    id,
    as,
    members: members.sort((a, b) => a.place - b.place).map(({ job, step }) => ({ job, step })),
  }));
}

const text = (list: readonly Shared[] = []): string =>
  JSON.stringify(list.map(({ step, id, place, by, with: others }) => [step, id, place, by, others]).sort());
/** Do two jobs, or one at two times, say the same of what is done together? */
export const sameShared = (a: readonly Shared[] | undefined, b: readonly Shared[] | undefined): boolean =>
  text(a) === text(b);

/** Jobs that carry these sessions, and no others. */
export function carrying(worlds: readonly World[], list: readonly Session[], plans: readonly Sharing[]): World[] {
  const known = byJob(plans);
  const titles = new Map(worlds.map((w) => [w.job.id, w.job.title]));
  const mine = new Map<string, Shared[]>();
  for (const s of list) {
    const by = gains(s.members, known);
    if (by)
      s.members.forEach((m, place) =>
        (mine.get(m.job) ?? mine.set(m.job, []).get(m.job)!).push({
          step: m.step,
          id: s.id,
          as: s.as,
          place,
          with: s.members.filter((x) => x.job !== m.job).map((x) => titles.get(x.job) ?? ""),
          by: by[place],
        }),
      );
  }
  return worlds.map((w) => {
    const shared = mine.get(w.job.id);
    if (sameShared(shared, w.job.queue?.shared)) return w;
    const { shared: _, ...queue } = w.job.queue ?? {};
    return { ...w, job: { ...w.job, queue: shared ? { ...queue, shared } : queue } };
  });
}

/** minutes from the end of one to the beginning of the next at which they are not thought of as one any more */
const NEAR_MIN: Record<SharedAs, number> = { oven: 3 * 1440, spray: 240, beam: 240 };
/** how many of one kind behind a work are looked at */
const NEXT = 6;

/**
 * What could be done together besides what is: pairs of one kind that begin no more than some days apart, and works that could join a
 * session; loads of the oven before all else, then what lies nearest.
 */
export function candidates(list: readonly Session[], plans: readonly Sharing[]): Session[] {
  const known = byJob(plans);
  const taken = new Map(list.flatMap((s) => s.members.map((m) => [`${m.job}/${m.step}`, s] as const)));
  const keys = new Map<string, { m: Member; at: number; end: number; as: SharedAs }[]>();
  for (const plan of plans)
    for (const p of inTurn(plan.placed)) {
      const way = p.actual ? null : shareable(p, plan.context);
      if (!way) continue;
      const m = { job: plan.context.job.id, step: p.step.id };
      (keys.get(way.key) ?? keys.set(way.key, []).get(way.key)!).push({
        m,
        at: p.start as number,
        end: p.end as number,
        as: way.as,
      });
    }
  const out: { s: Session; apart: number }[] = [];
  for (const all of keys.values()) {
    all.sort((a, b) => a.at - b.at);
    all.forEach((a, i) => {
      for (let k = i + 1; k < all.length && k <= i + NEXT && all[k].at - a.end <= NEAR_MIN[a.as]; k++) {
        const b = all[k];
        const [x, y] = [taken.get(`${a.m.job}/${a.m.step}`), taken.get(`${b.m.job}/${b.m.step}`)];
        if (a.m.job === b.m.job || (x && y)) continue;
        const members = x ? [...x.members, b.m] : y ? [...y.members, a.m] : [a.m, b.m];
        if (new Set(members.map((m) => m.job)).size < members.length || !gains(members, known)) continue;
        const id = (x ?? y)?.id ?? `${a.as} ${a.m.job}/${a.m.step}`;
        out.push({ s: { id, as: a.as, members }, apart: b.at - a.end });
      }
    });
  }
  const last = (s: Session): number => Number(s.as !== "oven");
  return out.sort((a, b) => last(a.s) - last(b.s) || a.apart - b.apart).map((x) => x.s);
}
/** A list with one more session, or one of its own grown. */
export const withOne = (list: readonly Session[], s: Session): Session[] => [...list.filter((x) => x.id !== s.id), s];
