/**
 * Coats that are better laid a little later. By M8 a film dries through as slowly as the whole build of what was not yet there when the
 * next was laid on it: buried soft it can take a day more, where an hour's rest before the coat takes an hour. Such a rest becomes a wait
 * of the coat, with its reason, in plans that end sooner with it.
 */
import type { Film, Piece } from "../piece/state";
import type { WaitState } from "../records/ids";
import type { Context } from "../process/context";
import { needsOf } from "../process/effects";
import { isThrough } from "../process/film-times";
import type { Step } from "../process/kinds";
import { needOf } from "../process/needs";
import { reached, up } from "../process/ready";
import type { Need } from "../process/step";
import { contextAt, inTurn, type Placed } from "./placed";

/** Coats that wait for a state of the films that they bury, by the id of their step. */
export type Rests = ReadonlyMap<string, WaitState>;
export const NO_RESTS: Rests = new Map();
/** rests that are tried, the most promising first */
const MOST = 3;

/** What a coat waits for besides, where it is to rest first. */
export function restNeed(s: Step, p: Piece, rests: Rests): Need[] {
  const state = rests.get(s.id);
  return state ? needOf(s.zones, p, state, "dry before it is buried: what comes after waits less") : [];
}

const there = (films: Film[], state: WaitState, c: Context): number =>
  reached(films, state, c).reduce((m, r) => Math.max(m, r.at ?? Infinity), -Infinity);

/** The moment at which a stack is there were film j laid when all beneath it are; null: it rests by itself, or never. */
function rested(films: Film[], j: number, state: WaitState, c: Context): number | null {
  const at = films[j].laidAt as number;
  const from = up(there(films.slice(0, j), state, c)) as number;
  if (!Number.isFinite(from) || from <= at) return null;
  return there(
    films.map((f, k) => (k < j || f.laidAt === null ? f : { ...f, laidAt: f.laidAt + from - at })),
    state,
    c,
  );
}

/** Coats of a plan that bury soft films, and by how much their stack would be there sooner had they rested, min; most first. */
export function buries(placed: Placed[], c: Context): { step: string; state: WaitState; gain: number }[] {
  const line = inTurn(placed);
  const open = new Set(line.filter((p) => !p.actual).map((p) => p.step.id));
  const best = new Map<string, { step: string; state: WaitState; gain: number }>();
  line.forEach((p, n) => {
    const before = line[n - 1]?.end ?? null;
    const waits = p.needs.some((r) => isThrough(r.state) && r.opens !== null && before !== null && r.opens > before);
    if (!waits || p.actual) return;
    const mine = contextAt(p, c);
    for (const need of needsOf(p.step, p.before, mine).filter((x) => isThrough(x.state)))
      for (const { films } of need.stacks) {
        if (films.length < 2 || films.some((f) => f.laidAt === null)) continue;
        const now = there(films, need.state, mine);
        films.forEach((f, j) => {
          if (j === 0 || !open.has(f.step)) return;
          const then = rested(films, j, need.state, mine);
          const gain = then === null ? 0 : now - then;
          if (gain > (best.get(f.step)?.gain ?? 1)) best.set(f.step, { step: f.step, state: need.state, gain });
        });
      }
  });
  return [...best.values()].sort((a, b) => b.gain - a.gain).slice(0, MOST);
}
