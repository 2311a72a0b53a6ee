/** What a figure is made of: its inputs, each with where it came from. */
import { type Context } from "../../process/context";
import { toBegin } from "../../process/pieces";
import { DEPTH_THRESHOLD } from "../../models/depth/depth";
import { dried } from "../../models/drying/clock";
import { dryingOf } from "../../process/film-times";
import { airAtMoment, type Air } from "../../models/drying/climate";
import { airOf } from "../../process/ready";
import { latestStart } from "../../plan/backward";
import { dose, kappaFor, kappaMeasured } from "../../process/beam";
import { gapBefore, laidAt } from "../../plan/decides";
import { inTurn, hoursOf } from "../../plan/placed";
import { figuresOf } from "../figures";
import { byBeam, has, kindOf, own, type Step } from "../../process/kinds";
import { planFor, type Plan } from "../../plan/plan";
import { simulate, waitAfter, type ZoneLayers } from "../report";
import { stateWords } from "../../process/words";
import type { Film } from "../../piece/state";
import { showWhen } from "../../time/zoned";
import {
  showAmount,
  showInterval,
  showMinutes,
  showMl,
  showShare,
  showSpeed,
  showTemp,
  showUm,
} from "../../units/show";
import { cansFrom } from "./origins";
import { belowFace, indexOf, isPainting, lastNeed, shutting, two, type FigureRef, type StepFigure } from "./figure";

export interface Input {
  name: string;
  value: string;
  from?: string;
}

const climateFrom = (plan: Plan): string =>
  plan.context.world.shop.climate.measured ? "your climate" : "default climate";

/** @param taught with what the log has taught, or as the model says alone */
function minutes(plan: Plan, i: number, taught = true): Input[] {
  const c = plan.context;
  const p = plan.placed[i];
  if (p.step.minutes !== null) return [{ name: "Typed in", value: showMinutes(p.step.minutes), from: "by hand" }];
  if (p.minutes === null)
    return [
      { name: "Minutes", value: "unknown", from: c.machine ? "something it needs is not known" : "no machine chosen" },
    ];
  const laser = byBeam(p.step);
  const k = c.learned(p.step.kind);
  const at = own(p.step, "laser");
  return [
    {
      name: "Setting up",
      value: showMinutes((p.setupMin as number) / k),
      from: laser ? "machine and loads" : "default",
    },
    {
      name: "A piece",
      value: showMinutes((p.perPieceMin as number) / k),
      from: laser ? "area, speed, interval, ramps" : "default",
    },
    ...(laser && at
      ? [
          { name: "Speed", value: showSpeed(at.speed), from: at.from },
          {
            name: "Interval",
            value: showInterval(at.interval),
            from: p.step.edited.includes("interval") ? "by hand" : at.from,
          },
        ]
      : []),
    piecesBegun(c),
    ...(k !== 1 && taught ? [{ name: "From your log", value: `× ${two(k)}`, from: "measured here" }] : []),
  ];
}

/** Pieces begun, and how there come to be so many. */
function piecesBegun(c: Context): Input {
  const { job, pieces } = c;
  const spare = pieces - job.quantity;
  if (!spare) return { name: "Pieces", value: String(pieces), from: "brief" };
  const from = `${job.quantity} ordered, ${spare} spare${job.choices.begin === undefined ? ": worked out" : ""}`;
  return { name: "Pieces begun", value: String(pieces), from };
}

function load(plan: Plan, i: number): Input[] {
  const s = plan.placed[i].step;
  const use = plan.uses[i];
  const paint = plan.context.paint(own(s, "productId"));
  if (!use || !paint) return [];
  const n = piecesBegun(plan.context);
  if (paint.powder && use.g !== null)
    return [
      { name: "In all", value: showAmount(null, use.g), from: "room in the recess × packing × density" },
      { name: "Packed in", value: showShare(paint.powder.packing.value), from: paint.powder.packing.from },
      {
        name: "Density",
        value: paint.powder.density.value === null ? "unknown" : `${two(paint.powder.density.value)} g/ml`,
        from: paint.powder.density.from,
      },
      n,
    ];
  return [
    {
      name: "Film, dry",
      value: showUm(own(s, "dryUm")),
      from: s.edited.includes("dryUm") ? "by hand" : paint.coatUm.from,
    },
    { name: "Film, wet", value: showUm(use.wetUm), from: "dry film ÷ volume solids" },
    { name: "Volume solids", value: showShare(paint.solids.value), from: paint.solids.from },
    { name: "Stays on the pieces", value: showMl(use.laidMl), from: "area × wet film" },
    { name: "Lost beside them", value: showMl(use.lostMl), from: "spray fan or brush" },
    n,
  ];
}

/** What a film in its air comes to against the reference: the clock's own rate, averaged over the wait. */
function airRows(plan: Plan, air: Air, film: Film | null, state: string, from: number, opens: number | null): Input[] {
  const c = plan.context;
  if (!film || opens === null || opens <= from || !c.hasPaint(film.productId)) return [];
  const rate =
    dried(
      c.clock,
      air,
      dryingOf(
        c.paintOf(film.productId),
        state as "recoat",
        state === "recoat" || state === "lift" ? "opens" : "plain",
      ),
      from,
      opens,
    ) /
    (opens - from);
  const { units } = c.world.shop;
  const [at, end] = [from, opens].map((m) => airAtMoment(air, m, c.clock.minuteOfDay(m)));
  const own = film.roomC !== null || film.roomRh !== null;
  return [
    {
      name: "Air while it waits",
      value: [at, end]
        .map((a) => `${showTemp(Math.round(a.c * 10) / 10, units)}, ${showShare(a.rh)}`)
        .filter((x, k, all) => k === 0 || x !== all[0])
        .join(" to "),
      from: own
        ? "a room of its own, by hand"
        : air.spans.some((s) => s.from < opens && s.to > from)
          ? "readings, then the climate"
          : climateFrom(plan),
    },
    { name: "Runs at", value: `${two(rate)} × that pace`, from: "drying clock, hour by hour" },
  ];
}

function drier(
  plan: Plan,
  w: {
    state: string;
    refMin: number | null;
    min: number | null;
    from: number;
    opens: number | null;
    film: string | null;
  },
): Input[] {
  const c = plan.context;
  if (w.state === "cold")
    return [
      { name: "Cools in", value: showMinutes(w.refMin), from: "thickness and material, still air at 20 °C" },
      { name: "Counted from", value: showWhen(c.clock, w.from), from: "the melt before it" },
    ];
  const laid = plan.placed.find((x) => x.step.id === w.film);
  const product = own(laid?.step, "productId") ?? null;
  const paint = c.hasPaint(product) ? c.paintOf(product) : null;
  const key = w.state === "laser-safe" ? "laserSafe" : (w.state as "recoat");
  const time = paint?.times[key];
  const film = laid ? (laid.after.zones.flatMap((z) => z.films).find((f) => f.step === laid.step.id) ?? null) : null;
  const stretch = time?.value && w.refMin !== null ? w.refMin / time.value : null;
  return [
    {
      name: `${paint ? `${paint.product.name}, ` : ""}at 20 °C, 50 %`,
      value: showMinutes(time?.value ?? w.refMin),
      from: time?.from ?? "default",
    },
    ...(stretch !== null && Math.abs(stretch - 1) > 0.005
      ? [
          {
            name: "This film, against an ordinary one",
            value: `× ${two(stretch)}`,
            from: laid?.step.edited.includes("dryUm") ? "thickness by hand" : "thickness and what lies beneath",
          },
        ]
      : []),
    { name: "Counted from", value: showWhen(c.clock, w.from), from: laid?.actual?.end != null ? "bench log" : "plan" },
    ...airRows(plan, film ? airOf(c, film) : c.air, film, w.state, w.from, w.opens),
    {
      name: "In that air",
      value: w.opens === null ? "never" : showMinutes(w.opens - w.from),
      from: film?.roomC != null ? "by hand" : climateFrom(plan),
    },
    ...(paint
      ? [
          {
            name: "Least temperature",
            value: paint.minC.value === null ? "unknown" : showTemp(paint.minC.value, c.world.shop.units),
            from: paint.minC.from,
          },
        ]
      : []),
  ];
}

function windowRows(plan: Plan, closes: number | null, reopens: number | null): Input[] {
  const { clock } = plan.context;
  return closes === null
    ? []
    : [
        { name: "Window shuts", value: showWhen(clock, closes), from: "product, never faster than at 20 °C" },
        ...(reopens === null
          ? []
          : [{ name: "Reopens", value: showWhen(clock, reopens), from: "product, in that air" }]),
      ];
}

function wait(plan: Plan, i: number): Input[] {
  const w = waitAfter(plan, i);
  if (!w) return [];
  if (w.typed) return [{ name: "Wait", value: showMinutes(w.min), from: "by hand" }];
  return [...drier(plan, { ...w, state: w.for }), ...windowRows(plan, w.closes, w.reopens)];
}

function need(of: "opens" | "shuts") {
  return (plan: Plan, i: number): Input[] => {
    const typed = plan.placed[i - 1]?.step.waitMin ?? null;
    if (typed !== null) return [{ name: "Wait", value: showMinutes(typed), from: "by hand" }];
    const r = of === "opens" ? lastNeed(plan.placed[i]) : shutting(plan.placed[i]);
    if (!r) return [];
    const win = shutting(plan.placed[i]);
    return [
      ...drier(plan, { ...r, min: r.opens === null ? null : r.opens - r.from }),
      ...windowRows(plan, win?.closes ?? null, win?.reopens ?? null),
    ];
  };
}

function begins(plan: Plan, i: number): Input[] {
  const c = plan.context;
  const p = plan.placed[i];
  if (p.start === null) return [];
  if (p.actual) return [{ name: "Begun", value: showWhen(c.clock, p.start), from: "bench log" }];
  const prev = plan.placed[i - 1];
  const begin = c.clock.fromLocal(c.job.start);
  const free = prev?.end ?? begin;
  const typed = prev?.step.waitMin ?? null;
  const dry = p.waited?.opens ?? null;
  const g = gapBefore(p, prev, begin, plan.now, hoursOf(p.step, c));
  if (!g) return [];
  const word = p.waited ? stateWords(p.waited.state) : "";
  return [
    {
      name: prev ? "The step before it ends" : "The job begins",
      value: showWhen(c.clock, free),
      from: prev?.actual ? "bench log" : prev ? "plan" : "brief",
    },
    ...(typed !== null
      ? [{ name: "Wait", value: showMinutes(typed), from: "by hand" }]
      : dry !== null && p.waited
        ? [{ name: `${word[0].toUpperCase()}${word.slice(1)}`, value: showWhen(c.clock, dry), from: "drying clock" }]
        : []),
    ...(plan.now !== null && g.open === plan.now
      ? [{ name: "Not before now", value: showWhen(c.clock, plan.now), from: "the clock" }]
      : []),
    ...(g.open > g.dry
      ? [{ name: "A window had shut; it reopens", value: showWhen(c.clock, g.open), from: "product, in that air" }]
      : []),
    ...(g.closed > 0
      ? [
          {
            name: "The shop is shut for",
            value: showMinutes(g.closed),
            from: c.world.shop.hoursSet ? "your hours" : "default hours",
          },
        ]
      : []),
    ...(g.short > 0
      ? [
          {
            name: "Left of a day, too short for it",
            value: showMinutes(g.short),
            from: c.world.shop.hoursSet ? "your hours" : "default hours",
          },
        ]
      : []),
    ...(g.held > 0
      ? [
          {
            name: laidAt(plan.starts, p) ? "Kept for other jobs" : "Held back, to fit what follows",
            value: showMinutes(g.held),
            from: laidAt(plan.starts, p)
              ? "the calendar of the shop, or a pin"
              : "a window that would shut, or an unbroken run",
          },
        ]
      : []),
  ];
}

const due = (plan: Plan): number | null =>
  plan.context.job.due === null ? null : plan.context.clock.fromLocal(plan.context.job.due);

/** @param at the latest beginning, where it is known already: counting back is many plans */
export function latestInputs(plan: Plan, i: number, at?: number): Input[] {
  const c = plan.context;
  const start = plan.placed[i].start;
  const end = due(plan);
  if (start === null || end === null) return [];
  const latest = at ?? latestStart(plan, i, end, plan.ready === null ? 0 : Math.max(0, end - plan.ready));
  return [
    { name: "Due", value: showWhen(c.clock, end), from: "brief" },
    {
      name: "As planned it is ready",
      value: plan.ready === null ? "no time yet" : showWhen(c.clock, plan.ready),
      from: "plan",
    },
    { name: "Begins as planned", value: showWhen(c.clock, start), from: plan.placed[i].actual ? "bench log" : "plan" },
    ...(latest === null
      ? []
      : [
          {
            name: "Slack",
            value: showMinutes(latest - start),
            from: "the rest planned again from a later beginning, until the date, a window or the hours break",
          },
        ]),
  ];
}

/** Where the interval of a setting came from: it may be typed, chosen for the job, or follow the spot. */
function intervalFrom(plan: Plan, s: Step, from: string): string {
  if (s.edited.includes("interval")) return "by hand";
  if (plan.context.job.choices.intervalMm !== null) return "typed";
  return from === "computed" ? "default: 0.6 of the spot" : from;
}

function laser(plan: Plan, i: number): Input[] {
  const m = plan.context.machine;
  const s = plan.placed[i].step;
  const set = own(s, "laser");
  if (!m || !set) return [];
  const kappa = kappaFor(m, plan.context.substrate);
  const e = dose(m, set);
  const digs: Input = {
    name: `${plan.context.substrate.name}, a J/mm² above ${DEPTH_THRESHOLD}`,
    value: kappa === null ? "unknown" : `${kappa} mm`,
    from: kappaMeasured(m, plan.context.substrate) ? "measured here" : "default",
  };
  return [
    {
      name: "Energy, all passes",
      value: e === null ? "unknown" : `${e.toFixed(2)} J/mm²`,
      from: "passes × watts × power ÷ (speed × interval)",
    },
    { name: "Watts", value: `${m.watts} W`, from: "rated, Workshop" },
    { name: "Power", value: showShare(set.power), from: set.from },
    { name: "Speed", value: showSpeed(set.speed), from: set.from },
    { name: "Interval", value: showInterval(set.interval), from: intervalFrom(plan, s, set.from) },
    { name: "Spot", value: `${plan.context.spotMm} mm`, from: m.spotMm === null ? "default" : "measured here" },
    ...(kindOf(s.kind).beam === "body" ? [digs] : []),
  ];
}

const beside = (mm: number): string => (mm < 0 ? `${two(-mm)} mm proud` : `${two(mm)} mm below`);

/** What must stay below the face, of the depth that is needed: less on metal and under a mask. */
export const staysMm = (d: NonNullable<Plan["depth"]>): number => d.needMm - (d.sandUm + d.sealerUm + d.coatsUm) / 1000;

function level(plan: Plan, i: number): Input[] {
  const c = plan.context;
  const { step } = plan.placed[i];
  const d = plan.depth;
  const rows: Input[] = d
    ? [
        { name: "Sanding takes", value: showUm(d.sandUm), from: "residue, sealer skin, 40 µm soaked in: default" },
        { name: "Sealer on the floor", value: showUm(d.sealerUm), from: "two coats" },
        { name: "Coats of the deepest fill", value: showUm(d.coatsUm), from: "coats to hide × film" },
        { name: "Must stay below the face", value: `${two(staysMm(d))} mm`, from: "default" },
        { name: "Needed", value: `${d.needMm.toFixed(2)} mm`, from: "computed" },
      ]
    : [];
  if (has(step, "depthMm")) {
    const chosen = c.job.choices.depthMm !== null ? "typed" : "default, or what is needed";
    const cut = step.depthMm === null ? "unknown" : two(step.depthMm);
    return [{ name: "Cut", value: `${cut} mm`, from: step.edited.includes("depthMm") ? "by hand" : chosen }, ...rows];
  }
  return [
    ...belowFace(plan.placed[i]).map((b) => ({
      name: c.job.zones.find((x) => x.id === b.zone)?.name ?? b.zone,
      value: beside(b.um / 1000),
      from: "cut less films",
    })),
    ...rows,
  ];
}

/** How deep the cut is, or how far the fill stands below the face, in words; null where nothing is cut. */
export function levelWords(plan: Plan, i: number): string | null {
  const { step } = plan.placed[i];
  if (has(step, "depthMm")) {
    const needed = plan.depth ? `; ${plan.depth.needMm.toFixed(2)} mm needed` : "";
    return `${step.depthMm === null ? "unknown" : two(step.depthMm)} mm cut${needed}`;
  }
  const told = step.kind === "coat" || kindOf(step.kind).sands === "face";
  const below = told ? belowFace(plan.placed[i]).map((b) => b.um / 1000) : [];
  if (!below.length) return null;
  const [lo, hi] = [Math.min(...below), Math.max(...below)];
  return hi - lo < 0.005 ? `fill ${beside(hi)} the face` : `fill ${beside(lo)} to ${beside(hi)} the face`;
}

const OF_STEP: Record<StepFigure, (plan: Plan, i: number) => Input[]> = {
  minutes: (plan, i) => minutes(plan, i),
  modelled: (plan, i) => minutes(plan, i, false),
  load,
  wait,
  opens: need("opens"),
  shuts: need("shuts"),
  begins,
  latest: latestInputs,
  slack: latestInputs,
  energy: laser,
  level,
};

/** Thickness of one layer in a section. */
export function layerInputs(plan: Plan, l: ZoneLayers["layers"][number]): Input[] {
  const thick = showUm(l.bottomUm - l.topUm);
  const paint = plan.context.hasPaint(l.product) ? plan.context.paintOf(l.product) : null;
  if (l.kind === "skin") return [{ name: "As it came", value: thick, from: "default for this material" }];
  if (l.kind === "mask") return [{ name: "Thick", value: thick, from: paint ? paint.coatUm.from : "default" }];
  if (l.kind === "char" || !paint) return [{ name: "Char", value: thick, from: "default for this wood" }];
  const step = plan.placed.find((p) => p.step.id === l.step)?.step;
  return [
    {
      name: "As laid, dry",
      value: showUm(own(step, "dryUm") ?? null),
      from: step?.edited.includes("dryUm") ? "by hand" : paint.coatUm.from,
    },
    {
      name: "Still there",
      value: showShare(l.left),
      from: l.left < 1 ? "after laser or sanding" : "nothing has been taken off",
    },
    { name: "Wet", value: showUm(l.wetUm), from: "dry film ÷ volume solids" },
    { name: "Volume solids", value: showShare(paint.solids.value), from: paint.solids.from },
  ];
}

function amount(plan: Plan, product: string): Input[] {
  const a = plan.amounts.find((x) => x.product === product);
  const mine = inTurn(plan.placed).filter((p) => own(p.step, "productId") === product);
  if (!a) return [];
  const paint = plan.context.paintOf(product);
  return [
    { name: "Coats", value: String(mine.length), from: mine.map((p) => p.step.title).join("; ") },
    { name: "Stays on the pieces", value: showMl(a.laidMl), from: "area × wet film" },
    { name: "Lost beside them", value: showMl(a.lostMl), from: "spray fan or brush" },
    ...(mine.length && a.ml !== null
      ? [{ name: "One coat more, to be safe", value: showMl(a.ml / mine.length), from: "as an ordinary one of these" }]
      : []),
    ...(a.g !== null
      ? [{ name: "Powder", value: showAmount(null, a.g), from: "area × depth × packing × density" }]
      : []),
    { name: "A coat, dry", value: showUm(paint.coatUm.value), from: paint.coatUm.from },
    { name: "Volume solids", value: showShare(paint.solids.value), from: paint.solids.from },
    { name: "On the Shelf", value: showMl(a.onShelfMl), from: cansFrom(paint.product.cans, a.onShelfMl) },
    ...(a.othersMl > 0
      ? [{ name: "Other open jobs take", value: showMl(a.othersMl), from: "their own plans, what is still to come" }]
      : []),
  ];
}

const DECIDES = {
  work: "Work at the bench",
  wait: "Wait",
  window: "Window shut",
  closed: "Shut",
  short: "Too short",
  held: "Held back",
};

function ready(plan: Plan): Input[] {
  const c = plan.context;
  const end = due(plan);
  return [
    {
      name: "First step begins",
      value: plan.start === null ? "not yet" : showWhen(c.clock, plan.start),
      from: c.world.shop.hoursSet ? "your hours" : "default hours",
    },
    ...plan.decides.map((x) => ({
      name: DECIDES[x.kind],
      value: showMinutes(x.minutes),
      from: x.why.replace(`${showMinutes(x.minutes)} `, ""),
    })),
    { name: "Drying", value: "integrated hour by hour", from: climateFrom(plan) },
    ...(plan.ready === null
      ? []
      : [{ name: "Ready", value: showWhen(c.clock, plan.ready), from: "end of the last step" }]),
    ...(end === null ? [] : [{ name: "Due", value: showWhen(c.clock, end), from: "brief" }]),
  ];
}

function spares(plan: Plan): Input[] {
  const b = toBegin(plan.context.job);
  return b
    ? [
        { name: "Good ones wanted", value: String(plan.context.job.quantity), from: "brief" },
        {
          name: "Lost of this route",
          value: showShare(b.loss),
          from: `${b.seen ? "seen here" : "default"}, worth ${b.worth} ${b.worth === 1 ? "piece" : "pieces"}`,
        },
        { name: "Enough with a chance of", value: showShare(b.chance), from: "at least 90 % is wanted" },
      ]
    : [];
}

/** The longest steps of some work, and the rest in a row. */
function hands(plan: Plan, painting: boolean): Input[] {
  const mine = inTurn(plan.placed).filter((p) => !painting || isPainting(p));
  const known = mine.filter((p) => p.minutes !== null).sort((a, b) => (b.minutes as number) - (a.minutes as number));
  const row = (p: Plan["placed"][number]): Input => ({
    name: p.step.title,
    value: showMinutes(p.minutes),
    from:
      p.step.minutes !== null
        ? "by hand"
        : plan.context.learned(p.step.kind) !== 1
          ? "measured here"
          : byBeam(p.step)
            ? "machine"
            : "default",
  });
  const rest = known.slice(LONGEST);
  return [
    ...known.slice(0, LONGEST).map(row),
    ...(rest.length
      ? [
          {
            name: `${rest.length} shorter ${rest.length === 1 ? "step" : "steps"}`,
            value: showMinutes(rest.reduce((a, p) => a + (p.minutes as number), 0)),
            from: "plan",
          },
        ]
      : []),
    ...(known.length < mine.length
      ? [{ name: `${mine.length - known.length} of unknown length`, value: "unknown", from: "no machine chosen" }]
      : []),
  ];
}
const LONGEST = 6;

function coats(plan: Plan, product: string, over: "ground" | "white"): Input[] {
  const c = plan.context;
  if (!c.hasPaint(product)) return [];
  const p = c.paintOf(product);
  return [
    { name: "Hides at, dry", value: showUm(p.hideUm.value), from: p.hideUm.from },
    { name: "A coat, dry", value: showUm(p.coatUm.value), from: p.coatUm.from },
    { name: "Colour", value: p.product.colour, from: "Shelf" },
    {
      name: "Over",
      value: over === "white" ? "white" : c.substrate.name.toLowerCase(),
      from: over === "white" ? "Shelf" : `${c.substrate.colour}, or its char`,
    },
    {
      name: "May differ by",
      value: `${c.tolerance} (CIEDE2000)`,
      from: c.job.choices.tolerance !== null ? "by hand" : "the shop’s",
    },
  ];
}

/** The inputs of any figure; empty where the plan has no such figure. */
export function inputs(whole: Plan, f: FigureRef): Input[] {
  const plan = "step" in f ? planFor(whole, f.step) : whole;
  if (f.of === "ready" || f.of === "margin") return plan.ready === null ? [] : ready(plan);
  if (f.of === "amount") return amount(plan, f.product);
  if (f.of === "hands" || f.of === "painting") return hands(plan, f.of === "painting");
  if (f.of === "coats") return coats(plan, f.product, f.over);
  if (f.of === "spares") return spares(plan);
  const i = indexOf(plan, f.step);
  if (i < 0) return [];
  if (f.of === "layer") {
    const l = simulate(plan, plan.placed[i])
      .find((z) => z.zone === f.zone)
      ?.layers.find((x) => x.step === f.film && x.kind !== "mask");
    return l ? layerInputs(plan, l) : [];
  }
  if (f.of === "panel") return figuresOf(plan, i).find((x) => x.id === f.panel)?.rows ?? [];
  return OF_STEP[f.of](plan, i);
}
