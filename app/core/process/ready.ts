/** When a need is met: the drying clock asked for films in their stacks. */
import { dried, dryAt, type DryingOf } from "../models/drying/clock";
import { closingMinutes, dryingOf, liftMinutes, isThrough, referenceMinutes } from "./film-times";
import type { Film } from "../piece/state";
import type { WaitState } from "../records/ids";
import type { Context } from "./context";
import type { Need } from "./step";

export interface Readiness {
  state: WaitState;
  why: string;
  /** step that laid the film which decides */
  film: string | null;
  productId: string | null;
  /** reference minutes of that film at 20 °C, 50 % */
  refMin: number | null;
  /** moment from which it counts */
  from: number;
  /** moment reached, rounded up; null: never in this climate */
  opens: number | null;
  /** recoat, lift: when the stretch shuts that it could be done in, rounded down; null: never */
  closes: number | null;
  /** when the next stretch begins; null: there is none */
  reopens: number | null;
  /** the stretches in which every film may be worked on, each within a stretch of its own; from the state reached on */
  stretches: Stretch[];
  /** a time the product does not know */
  unknown: boolean;
}

/** [from, to] in which work lies whole; `to` null: without end. */
export interface Stretch {
  from: number;
  to: number | null;
}
/** Stretches less the time between a film's closing and its reopening. */
const without = (all: Stretch[], closes: number, reopens: number | null): Stretch[] =>
  all.flatMap((s) => {
    const before = { from: s.from, to: s.to === null ? closes : Math.min(s.to, closes) };
    const after = reopens === null ? null : { from: Math.max(s.from, reopens), to: s.to };
    return [before, ...(after ? [after] : [])].filter((x) => x.to === null || x.from <= x.to);
  });

export const airOf = (c: Context, f: Film) => c.room(f.roomC, f.roomRh);

/** by the air of a plan, which is the same however many pieces a step is done to */
const kept = new WeakMap<Context["room"], Map<string, number | null>>();
/** The drying clock for a film, remembered for the life of a plan: looking ahead and judging ask the same again and again. */
function filmDryAt(c: Context, f: Film, of: DryingOf, ref: number): number | null {
  const mine = kept.get(c.room) ?? kept.set(c.room, new Map()).get(c.room)!;
  const key = `${f.laidAt}|${ref}|${of.waterBorne}|${of.minC}|${of.fan}|${of.limit}|${f.roomC}|${f.roomRh}`;
  const found = mine.get(key);
  if (found !== undefined) return found;
  const at = dryAt(c.clock, airOf(c, f), of, f.laidAt as number, ref);
  mine.set(key, at);
  return at;
}
/** a hair, so that a wait of exactly 20 minutes is not rounded to 21 */
const EPS = 1e-6;
export const up = (m: number | null): number | null => (m === null ? null : Math.ceil(m - EPS));
const down = (m: number | null): number | null => (m === null ? null : Math.floor(m + EPS));

export interface Reached {
  film: Film;
  at: number | null;
  ref: number | null;
}

/** Through states: each coat's clock is stretched by the build of every film not yet there when it was laid. */
function through(films: Film[], state: WaitState, c: Context): Reached[] {
  let wet: Reached[] = [];
  const done: Reached[] = [];
  for (const f of films) {
    if (f.laidAt === null) continue;
    const t = f.laidAt;
    done.push(...wet.filter((w) => w.at !== null && w.at <= t));
    wet = [...wet.filter((w) => w.at === null || w.at > t), { film: f, at: null, ref: null }];
    const build = wet.reduce((um, w) => um + w.film.dryUm, 0);
    wet = wet.map((w) => {
      const p = c.paintOf(w.film.productId);
      const ref = referenceMinutes(p, state, w.film.dryUm, build, c.substrate);
      return {
        film: w.film,
        ref,
        at: ref === null ? (w.film.laidAt as number) : filmDryAt(c, w.film, dryingOf(p, state), ref),
      };
    });
  }
  return [...done, ...wet];
}

/**
 * When each film of a stack reaches a state, and the reference minutes that it takes; `at` unrounded, null: never.
 * @param more reference minutes past a state of the film alone
 */
export function reached(films: Film[], state: WaitState, c: Context, more = 0): Reached[] {
  if (isThrough(state)) return through(films, state, c);
  return films
    .filter((f) => f.laidAt !== null)
    .map((film) => {
      const p = c.paintOf(film.productId);
      const state0 = referenceMinutes(p, state, film.dryUm, film.dryUm, c.substrate);
      const ref = state0 === null ? null : state0 + more;
      return {
        film,
        ref,
        at:
          ref === null
            ? (film.laidAt as number)
            : filmDryAt(c, film, dryingOf(p, state, state === "recoat" || state === "lift" ? "opens" : "plain"), ref),
      };
    });
}

const later = (a: number | null, b: number | null): boolean => a === null || (b !== null && a > b);

/** Is a film between its closing and its reopening at a moment: will wet paint over it wrinkle it? */
export function sensitive(f: Film, c: Context, at: number): boolean {
  if (f.laidAt === null || f.keyed) return false;
  const p = c.paintOf(f.productId);
  const { closes, reopens } = closingMinutes(p, f.dryUm);
  if (closes === null) return false;
  const shut = down(filmDryAt(c, f, dryingOf(p, "recoat", "closes"), closes));
  const again = reopens === null ? null : up(filmDryAt(c, f, dryingOf(p, "recoat", "opens"), reopens));
  return shut !== null && at > shut && (again === null || at < again);
}
/** May another coat of the same product laid at a moment count as one with this film: is it still inside its flash? */
export function insideFlash(f: Film, c: Context, at: number): boolean {
  if (f.laidAt === null) return false;
  const p = c.paintOf(f.productId);
  const ref = referenceMinutes(p, "flash", f.dryUm, f.dryUm, c.substrate);
  const end = ref === null ? null : filmDryAt(c, f, dryingOf(p, "flash"), ref);
  return end !== null && at <= end;
}

/** All stacks of a need at once: the film that decides, and the tightest window. */
export function readiness(need: Need, c: Context): Readiness {
  if (need.fixed) {
    const { at, refMin, waterBorne } = need.fixed;
    const done = need.fixed.plain
      ? Number.isFinite(refMin)
        ? at + refMin
        : null
      : dryAt(c.clock, c.air, { waterBorne, minC: waterBorne ? 0 : null, fan: true, limit: "plain" }, at, refMin);
    return {
      state: need.state,
      why: need.why,
      film: null,
      productId: null,
      refMin,
      from: at,
      opens: up(done),
      closes: null,
      reopens: null,
      stretches: done === null ? [] : [{ from: up(done) as number, to: null }],
      unknown: false,
    };
  }
  let worst: Reached | null = null;
  const windows: { closes: number; reopens: number | null }[] = [];
  const asked = new Set<string>();
  for (const { films } of need.stacks) {
    const key = films.map((f) => `${f.step}:${f.left}`).join();
    if (asked.has(key)) continue; // zones painted together dry together
    asked.add(key);
    for (const r of reached(films, need.state, c, need.more)) {
      if (!worst || later(r.at, worst.at) || (r.at === worst.at && r.film.laidAt! >= worst.film.laidAt!)) worst = r;
      if ((need.state === "recoat" || need.state === "lift") && r.film.laidAt !== null) {
        const p = c.paintOf(r.film.productId);
        const shut = need.state === "lift" ? liftMinutes(p, r.film.dryUm) : closingMinutes(p, r.film.dryUm);
        if (shut.closes !== null) {
          const at = down(filmDryAt(c, r.film, dryingOf(p, need.state, "closes"), shut.closes));
          const again =
            shut.reopens === null ? null : up(filmDryAt(c, r.film, dryingOf(p, need.state, "opens"), shut.reopens));
          if (at !== null) windows.push({ closes: at, reopens: again });
        }
      }
    }
  }
  const opens = worst ? up(worst.at) : null;
  const stretches = windows.reduce<Stretch[]>(
    (all, w) => without(all, w.closes, w.reopens),
    opens === null ? [] : [{ from: opens, to: null }],
  );
  // Shut before all were ready: what shut it is told, and when it is open again.
  const [first] = stretches;
  const shut = first === undefined || first.from > (opens as number);
  const least = windows.length ? Math.min(...windows.map((w) => w.closes)) : null;
  return {
    state: need.state,
    why: need.why,
    film: worst?.film.step ?? null,
    productId: worst?.film.productId ?? null,
    refMin: worst?.ref ?? null,
    from: worst?.film.laidAt ?? 0,
    opens,
    closes: opens === null ? least : shut ? least : first.to,
    reopens: shut ? (first?.from ?? null) : (stretches[1]?.from ?? null),
    stretches,
    unknown: worst !== null && worst.ref === null,
  };
}

/** Share of its solvent or water that a film has still to lose at a moment: 1 fresh, 0 when touch dry. */
export function wetShare(f: Film, c: Context, at: number): number {
  if (f.laidAt === null || at <= f.laidAt) return 1;
  const p = c.paintOf(f.productId);
  const ref = referenceMinutes(p, "touch", f.dryUm, f.dryUm, c.substrate);
  if (ref === null || ref <= 0) return 0;
  if (at - f.laidAt > 60 * 1440) return 0;
  return Math.max(0, 1 - dried(c.clock, airOf(c, f), dryingOf(p, "touch"), f.laidAt, at) / ref);
}

const STATES: WaitState[] = ["touch", "recoat", "maskable", "sandable", "laser-safe", "cured"];
/** What each film of a stack has reached by a moment: its furthest state, for pictures and the door. */
export function filmStates(stack: Film[], c: Context, at: number): Map<Film, WaitState | "wet"> {
  const laid = stack.filter((f) => f.laidAt !== null && f.laidAt <= at);
  const out = new Map<Film, WaitState | "wet">(stack.map((f) => [f, "wet"]));
  for (const s of STATES)
    for (const r of reached(laid, s, c)) if (r.ref !== null && r.at !== null && r.at <= at) out.set(r.film, s);
  return out;
}
