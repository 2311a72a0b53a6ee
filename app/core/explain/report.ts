/** A plan as plain data: what the door prints, and what any screen could be checked against. Absent things are null, never 0. */
import { snagsOf } from "../judge/judge";
import { filmStates, wetShare } from "../process/ready";
import { layersOf, seen, shown, surfaceUm, zoneOf } from "../piece/state";
import { hex } from "../models/film/colour";
import { stateWords } from "../plan/decides";
import { isFirst } from "../plan/proof";
import { kindOf, own } from "../process/kinds";
import type { Plan } from "../plan/plan";
import type { Placed } from "../plan/placed";

const r = (n: number | null | undefined, d = 0): number | null =>
  n === null || n === undefined || !Number.isFinite(n) ? null : Math.round(n * 10 ** d) / 10 ** d;

/** The wait behind a step: what the next one had to sit out. */
export function waitAfter(
  plan: Plan,
  index: number,
): {
  for: string;
  refMin: number | null;
  min: number | null;
  opens: number | null;
  closes: number | null;
  reopens: number | null;
  typed: boolean;
  film: string | null;
  from: number;
} | null {
  const here = plan.placed[index];
  // what stands before a proof is followed by piece 1 alone
  const next = plan.placed[index + 1]?.cycle[0] ?? plan.placed[index + 1];
  if (!next || here.end === null) return null;
  if (here.step.waitMin !== null)
    return {
      for: "set-time",
      refMin: here.step.waitMin,
      min: here.step.waitMin,
      opens: here.end + here.step.waitMin,
      closes: null,
      reopens: null,
      typed: true,
      film: null,
      from: here.end,
    };
  const w = next.waited;
  if (!w || (w.opens !== null && w.opens <= here.end && w.closes === null)) return null;
  // A window that shut before this step ended is over and done with; only its reopening may still matter.
  const tight = next.needs.find((n) => n.closes !== null && n.closes > (here.end as number));
  return {
    for: w.state,
    refMin: r(w.refMin, 2),
    min: w.opens === null ? null : Math.max(0, Math.ceil(w.opens - here.end)),
    opens: w.opens,
    closes: tight?.closes ?? null,
    reopens: tight?.reopens ?? null,
    typed: false,
    film: w.film,
    from: w.from,
  };
}

export function snagReport(plan: Plan): object[] {
  return snagsOf(plan).map((s) => ({
    rule: s.rule,
    severity: s.severity,
    step: s.step,
    zone: s.zone,
    numbers: s.numbers,
    why: s.why,
    fixes: s.fixes.map((f) => ({ id: f.id, label: f.label })),
    waived: s.waived,
  }));
}

/** One step as the door prints it. @param at a moment as text */
function stepReport(plan: Plan, p: Placed, at: (m: number | null) => string | null): object {
  const w = waitAfter(plan, p.index);
  const u = plan.uses[p.index];
  const s = p.step;
  return {
    id: s.id,
    kind: s.kind,
    title: s.title,
    zones: s.zones,
    product: own(s, "productId"),
    finish: plan.context.paint(own(s, "productId"))?.finish.id ?? null,
    coat: own(s, "coat"),
    wetUm: r(u?.wetUm, 2),
    dryUm: r(own(s, "dryUm"), 2),
    ml: r(u?.ml, 3),
    g: r(u?.g, 3),
    depthMm: r(own(s, "depthMm"), 3),
    laser: own(s, "laser"),
    pieces: p.pieces,
    minutes: r(p.minutes, 2),
    attended: kindOf(s.kind).attended === true,
    start: at(p.start),
    end: at(p.end),
    wait: w && {
      for: w.for,
      refMin: w.refMin,
      min: w.min,
      opens: at(w.opens),
      closes: at(w.closes),
      reopens: at(w.reopens),
    },
    lookFor: kindOf(s.kind).lookFor(s, plan.context),
  };
}

export function planReport(plan: Plan): object {
  const { clock } = plan.context;
  const at = (m: number | null): string | null => (m === null ? null : clock.toLocal(m));
  return {
    door: 1,
    start: at(plan.start),
    ready: at(plan.ready),
    steps: plan.placed.map((p) => stepReport(plan, p, at)),
    first: plan.first?.placed.filter((p) => isFirst(p.step.id)).map((p) => stepReport(plan.first!, p, at)) ?? [],
    amounts: plan.amounts.map((a) => ({
      product: a.product,
      ml: r(a.ml, 3),
      g: r(a.g, 3),
      cans: a.cans,
      laidMl: r(a.laidMl, 3),
      lostMl: r(a.lostMl, 3),
      boughtMl: r(a.boughtMl, 3),
      leftMl: r(a.leftMl, 3),
    })),
    missing: plan.missing.map((m) => m.what),
    unfit: plan.unfit.map((u) => ({ edit: u.edit.id, why: u.why })),
    snags: snagReport(plan),
    decides: plan.decides,
  };
}

export interface ZoneLayers {
  zone: string;
  depthUm: number;
  surfaceUm: number;
  layers: {
    kind: string;
    finish: string | null;
    product: string | null;
    role: string;
    step: string | null;
    coat: number | null;
    topUm: number;
    bottomUm: number;
    state: string;
    left: number;
    level: boolean;
    wetUm: number | null;
    wetShare: number;
  }[];
  front: string;
  back: string;
}

/** The state of the piece as of a placed step, at a moment (its end when none is given). */
export function simulate(plan: Plan, p: Placed, moment: number | null = null): ZoneLayers[] {
  const c = plan.context;
  const at = moment ?? p.end;
  return p.after.zones.map((z) => {
    const own = zoneOf(p.after, z.zone);
    const states = at === null ? null : filmStates(own.films, c, at);
    return {
      zone: z.zone,
      depthUm: Math.round(own.depthUm * 1000) / 1000,
      surfaceUm: surfaceUm(own),
      layers: layersOf(own, c.paintOf).map((l) => ({
        kind: l.kind,
        finish: l.finish,
        product: l.productId,
        role: l.role,
        step: l.step,
        coat: l.coat,
        topUm: Math.round(l.topUm * 1e6) / 1e6,
        bottomUm: Math.round(l.bottomUm * 1e6) / 1e6,
        state: l.film?.phase
          ? l.film.phase === "loose"
            ? "loose"
            : "melted"
          : l.film
            ? (states?.get(l.film) ?? "wet")
            : "solid",
        left: l.film?.left ?? 1,
        level: l.film?.phase !== undefined || (l.film !== null && c.paintOf(l.film.productId).finish.by === "pour"),
        wetUm: l.film?.wetUm ?? null,
        wetShare: l.film && !l.film.phase && at !== null ? wetShare(l.film, c, at) : 0,
      })),
      front: hex(shown(p.after, own, c.substrate.colour, c.paintOf)),
      back: p.after.side === "front" ? c.substrate.colour : hex(seen(own, c.substrate.colour, c.paintOf)),
    };
  });
}

export { stateWords };
