/** Which input moves a figure most: each lever turned to both its ends, the plan made anew, and the figure read again. */
import { ALONE, makePlan, type Plan } from "../../plan/plan";
import { read, say, type Counted, type FigureRef } from "./figure";
import { leversOf, type Place } from "./levers";

export interface End {
  /** the input at this end */
  input: string;
  /** the figure there; null: there is none any more, or it is not known */
  value: number | null;
  text: string;
}
export interface Move {
  lever: string;
  name: string;
  from: string;
  place: Place;
  ends: End[];
  /** how far the figure goes between what it is and the farther end, in its own unit */
  span: number;
}
export interface Moved {
  /** the figure as it stands */
  now: string;
  /** farthest first; inputs that move nothing a person would see are left out */
  moves: Move[];
  /** inputs that were tried */
  tried: number;
}

/** Figures that hang on no clock: a plan placed step by step will do, without looking for a sooner way round windows. */
const TIMELESS: FigureRef["of"][] = [
  "minutes",
  "modelled",
  "load",
  "energy",
  "level",
  "layer",
  "panel",
  "amount",
  "spares",
  "hands",
  "painting",
  "coats",
];

/** changes smaller than this can't be seen or acted on: half of the last digit that is shown */
const SEEN: Record<Counted, (value: number) => number> = {
  minutes: () => 0.5,
  moment: () => 0.5,
  ml: (x) => (x < 1 ? 0.005 : x < 10 ? 0.05 : 0.5),
  g: () => 0.05,
  um: (x) => (x < 10 ? 0.05 : 0.5),
  mm: () => 0.005,
  "J/mm²": () => 0.005,
  share: () => 0.005,
  times: () => 0.005,
  pieces: () => 1,
  coats: () => 1,
};
/** what it means that a figure is not there at one end */
const LOST: Partial<Record<FigureRef["of"], string>> = {
  ready: "never ready",
  margin: "never ready",
  begins: "no time for it",
  latest: "the date is not kept",
  slack: "the date is not kept",
  shuts: "never shuts",
  layer: "all of it gone",
};
const lost = (f: FigureRef, other: Plan): string =>
  f.of === "wait" || f.of === "opens" ? (other.stuck ? "never dry" : "no wait") : (LOST[f.of] ?? "none");
/** moves that are told */
const TOLD = 4;
/** a figure that is gone at one end has moved farther than any number says */
const GONE = Number.MAX_VALUE;

/**
 * One lever a turn; yields the share done.
 * @param plan the plan that the figure is read off @returns null: the plan has no such figure
 */
export function* movesInTurn(plan: Plan, f: FigureRef): Generator<number, Moved | null> {
  const here = read(plan, f);
  if (!here) return null;
  const levers = leversOf(plan, f);
  const moves: Move[] = [];
  for (let k = 0; k < levers.length; k++) {
    const l = levers[k];
    const ends = l.turns.map((t): End & { off: number } => {
      const other = makePlan(t.world(), plan.now, true, TIMELESS.includes(f.of) ? ALONE : null);
      const v = read(other, f);
      return {
        input: t.say,
        value: v?.value ?? null,
        text: v ? say(plan, v) : lost(f, other),
        off: v ? Math.abs(v.value - here.value) : GONE,
      };
    });
    const span = Math.max(0, ...ends.map((e) => e.off));
    if (span >= SEEN[here.in](Math.abs(here.value)))
      moves.push({
        lever: l.id,
        name: l.name,
        from: l.from,
        place: l.place,
        ends: ends.map(({ off: _off, ...e }) => e),
        span,
      });
    yield (k + 1) / levers.length;
  }
  return { now: say(plan, here), moves: moves.sort((a, b) => b.span - a.span).slice(0, TOLD), tried: levers.length };
}

/** As `movesInTurn`, at one go. */
export function movesOf(plan: Plan, f: FigureRef): Moved | null {
  const turns = movesInTurn(plan, f);
  for (;;) {
    const r = turns.next();
    if (r.done) return r.value;
  }
}
