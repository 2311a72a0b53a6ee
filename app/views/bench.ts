/** What the bench shows: the step to do or the wait before it, ways out of a missed window, and where every other job stands. */
import { cuesOf } from "../core/explain/cues";
import { saidAll } from "../core/units/said";
import type { RackRow } from "./shown";
import { gatesOf } from "../core/bench/gates";
import { hasPhoto, photoStages } from "../core/bench/stages";
import { missedWindow, waysOutOf } from "../core/bench/missed";
import { atBench, numbersAt, standing, type Standing } from "../core/bench/next";
import { firstPiece, isFirst, titleIn } from "../core/plan/proof";
import { air, airAtMoment } from "../core/models/drying/climate";
import { latestStart } from "../core/plan/backward";
import { backUp } from "../core/process/lies";
import { shapeOf, sideUp } from "../core/process/setup";
import { GROUND, picturedIn } from "../core/piece/state";
import type { Zone } from "../core/records/job";
import { stateWords, touchTest } from "../core/process/words";
import { byBeam, kindOf, own } from "../core/process/kinds";
import { setting } from "../core/process/kinds/laser-work";
import { makePlan, type Plan } from "../core/plan/plan";
import { simulate } from "../core/explain/report";
import type { World } from "../core/records/world";
import { showClock, showDay, showWhen } from "../core/time/zoned";
import { plural, showAmount, showMinutes, showMl, showTemp } from "../core/units/show";
import { inTurn, type Placed } from "../core/plan/placed";
import { opened, openedIn, openedLatest } from "./opened";

/** One job's place on the rack: what it waits for, or what is ready; null: nothing of it is under way. */
export function rackRow(plan: Plan, s: Standing): RackRow | null {
  const { job } = plan.context;
  if (!plan.bench.actuals.size || s.is === "closed" || s.is === "lacking") return null;
  const coats = inTurn(plan.placed).filter((p) => p.step.kind === "coat" && p.actual?.end != null);
  const last = coats[coats.length - 1]?.actual?.end ?? null;
  const at = "step" in s ? s.step.step.id : "";
  const base = {
    id: job.id,
    title: job.title,
    why: opened(plan, { of: "opens", step: at }),
    sunSince: job.choices.sunOrHotAir ? last : null,
  };
  if (s.is === "done")
    return {
      ...base,
      is: "done",
      next: "wrap it up",
      state: null,
      words: "",
      from: 0,
      opens: null,
      closes: null,
      reopens: null,
    };
  const p = s.step;
  if (s.is === "ready") {
    const win = p.needs.find((n) => n.closes !== null && !p.actual) ?? null;
    return {
      ...base,
      why: opened(plan, { of: "shuts", step: at }),
      is: "ready",
      next: titleIn(p.step),
      state: win?.state ?? null,
      words: win ? "window open" : "",
      from: win?.from ?? 0,
      opens: win?.opens ?? null,
      closes: win?.closes ?? null,
      reopens: win?.reopens ?? null,
    };
  }
  return {
    ...base,
    why: opened(plan, { of: s.is === "missed" ? "shuts" : "opens", step: at }),
    is: s.is,
    next: titleIn(p.step),
    state: s.need.state,
    words: stateWords(s.need.state),
    from: s.need.from,
    opens: s.opens,
    closes: s.closes,
    reopens: s.reopens,
  };
}

/** Soonest to shut first, then what is ready, then soonest to open. */
const urgency = (r: RackRow): number =>
  r.closes !== null && r.is !== "missed"
    ? r.closes
    : r.is === "ready"
      ? 0
      : r.is === "done"
        ? 1e11
        : (r.opens ?? 1e12) + 1e9;
const inOrder = (rows: RackRow[]): RackRow[] => [...rows].sort((a, b) => urgency(a) - urgency(b));
export const rackOf = (worlds: World[], now: number): RackRow[] =>
  inOrder(
    worlds
      .filter((w) => w.job.wrapUp.closedAt === null && w.log.length > 0)
      .flatMap((w) => {
        const p = makePlan(w, now, true);
        return rackRow(p, standing(p, now)) ?? [];
      }),
  );

/** @param others where the other jobs stand */
export const benchView = (world: World, plan: Plan, now: number, others: RackRow[]) =>
  saidAll(benchViewIn(world, plan, now, others), plan.context.world.shop.units);
function benchViewIn(world: World, whole: Plan, now: number, others: RackRow[]) {
  const s = standing(whole, now);
  const plan = atBench(whole);
  const c = plan.context;
  const units = world.shop.units;
  const current = s.is === "ready" || s.is === "waiting" || s.is === "missed" ? s.step : null;
  const kind = current ? kindOf(current.step.kind) : null;
  const n = current?.pieces ?? whole.context.pieces;
  const numbers = current ? numbersAt(plan, current) : null;
  const run = current ? plan.bench.steps.get(current.step.id) : undefined;
  const use = current ? plan.uses[current.index] : null;
  const air0 = airAtMoment(air(world.shop.climate), now, c.clock.minuteOfDay(now));
  const before = current ? simulate(plan, { ...current, after: current.before }, now) : [];
  const prev = current ? plan.placed[current.index - 1] : plan.placed[plan.placed.length - 1];
  const due = world.job.due === null ? null : c.clock.fromLocal(world.job.due);
  const latest =
    due === null || !current || current.actual || plan.whole
      ? null
      : latestStart(plan, current.index, due, plan.ready === null ? 0 : due - plan.ready);
  return {
    job: world.job,
    /** pieces that the step is done to; pieces begun where there is none */
    pieces: n,
    /** their numbers; null: no step */
    numbers: numbers && { from: numbers.from, to: numbers.to, gone: goneFirst(whole, current) },
    /** piece 1 goes first: which of its steps this is, of how many; null: all go together here */
    first: plan.whole && current ? firstOf(plan, current) : null,
    now,
    standing: s.is,
    lacks: s.is === "lacking" ? s.say : null,
    local: c.clock.toLocal(now),
    face: c.clock.face,
    clock: showClock(c.clock, now),
    air: showTemp(Math.round(air0.c * 10) / 10, units),
    rh: `${Math.round(air0.rh * 100)} % RH`,
    airRead: air0.read,
    step:
      current && kind
        ? {
            id: current.step.id,
            title: current.step.title,
            index: current.index,
            of: plan.placed.length,
            minutes: showMinutes(current.minutes),
            laser: byBeam(current.step),
            plate: kind.tries === "setting",
            irreversible: kind.irreversible,
            perPiece: current.perPieceMin !== 0,
            load:
              use?.g != null
                ? `Load ${showAmount(null, use.g / n)} a piece, ${showAmount(null, use.g)} in all`
                : use?.ml != null
                  ? `Load ${showMl(use.ml / n)} a piece, ${showMl(use.ml)} in all`
                  : null,
            loadWhy: opened(plan, { of: "load", step: current.step.id }),
            setting:
              own(current.step, "laser") && byBeam(current.step)
                ? {
                    text: setting({ laser: own(current.step, "laser") }, kindOf(current.step.kind).runs),
                    why: opened(plan, { of: "energy", step: current.step.id }),
                  }
                : null,
            lookWhy: kind.beam === "body" ? opened(plan, { of: "level", step: current.step.id }) : null,
            cues: cuesOf(plan, current).filter(
              (x) =>
                !own(current.step, "laser") ||
                x !== setting({ laser: own(current.step, "laser") }, kindOf(current.step.kind).runs),
            ),
            lookFor: kind.lookFor(current.step, c),
            zones: current.step.zones,
            purpose: kind.purpose(current.step, c),
            tool: kind.tool(current.step, c),
            why: opened(plan, { of: "minutes", step: current.step.id }),
            lateWhy: opened(plan, { of: "margin" }),
            startWhy: latest === null ? null : openedLatest(plan, "latest", current.step.id, latest),
            startBy: latest === null ? null : showWhen(c.clock, latest),
            slack: latest === null ? null : showMinutes(latest - Math.max(now, current.start ?? now)),
            overdue:
              due !== null && !current.actual && whole.ready !== null && whole.ready > due
                ? showMinutes(whole.ready - due)
                : null,
          }
        : null,
    run: {
      pieces: run?.pieces ?? [],
      asideHere: run?.aside ?? [],
      started: run?.startedAt ?? null,
      answer: run?.answer ?? null,
      notes: run?.notes ?? [],
    },
    aside: [...plan.bench.aside].filter((x) => !numbers || (x >= numbers.from && x <= numbers.to)),
    wait:
      s.is === "waiting" || s.is === "missed"
        ? {
            state: s.need.state,
            words: stateWords(s.need.state),
            why: s.need.why,
            from: s.need.from,
            opens: s.opens,
            closes: s.closes,
            opensText: s.opens === null ? null : showWhen(c.clock, s.opens),
            window:
              s.closes === null
                ? null
                : `shuts ${showWhen(c.clock, s.closes)}${s.reopens ? `, reopens ${showWhen(c.clock, s.reopens)}` : ""}`,
            whyOpens: opened(plan, { of: "opens", step: (current as Placed).step.id }),
            whyShuts: opened(plan, { of: "shuts", step: (current as Placed).step.id }),
          }
        : null,
    ways:
      current && s.is === "missed"
        ? waysOutOf(world, plan, current, now).map((w) => ({
            id: w.id,
            label: w.label,
            say: w.say,
            ready: w.ready === null ? null : showWhen(c.clock, w.ready),
            why: openedIn(w.apply(world), now, { of: "ready" }, `When it is ready: ${w.label}`),
          }))
        : [],
    shutFor: s.is === "missed" ? showMinutes(now - s.closes) : null,
    lastStep: prev
      ? {
          id: prev.step.id,
          title: prev.step.title,
          answer: plan.bench.steps.get(prev.step.id)?.answer ?? null,
          done: prev.actual?.end != null,
        }
      : null,
    gates: current && s.is === "ready" && !s.begun ? gatesOf(plan, current) : [],
    touchTest: s.is === "waiting" || s.is === "missed" ? touchTest(s.need.state) : null,
    touchLeft: s.is === "waiting" && s.opens !== null ? showMinutes(s.opens - now) : null,
    last: plan.bench.last
      ? {
          what: LAST[plan.bench.last.kind] ?? plan.bench.last.kind,
          piece: plan.bench.last.piece,
          at: c.clock.toLocal(Math.floor(plan.bench.last.at)),
        }
      : null,
    rack: inOrder([
      ...(world.log.length && world.job.wrapUp.closedAt === null ? [rackRow(whole, s)] : []).flatMap((r) => r ?? []),
      ...others,
    ]),
    then: plan.placed
      .slice((current?.index ?? plan.placed.length) + 1)
      .slice(0, 2)
      .map((p) => ({
        title: p.step.title,
        when: p.start === null ? null : showWhen(c.clock, p.start),
        why: opened(plan, { of: "begins", step: p.step.id }),
      })),
    ready: whole.ready === null ? null : showDay(c.clock, whole.ready),
    photo:
      current && photoStages(plan.placed).some((x) => x.step.id === current.step.id)
        ? hasPhoto(world.job.wrapUp.photos, current.step.id)
          ? "taken"
          : "wanted"
        : null,
    piece: current ? lying(plan, current, before) : null,
    grain: c.substrate.family === "wood",
    whyWindow: current && opened(plan, { of: "shuts", step: current.step.id }),
    window:
      s.is === "ready" && current && !missedWindow(current, now)
        ? (current.needs.find((r) => r.closes !== null && r.closes > now) ?? null)
        : null,
  };
}

/** The piece that has gone first, where a step is done to the rest; null: none has. */
const goneFirst = (whole: Plan, p: Placed | null): number | null =>
  p && whole.proof?.gone.has(p.step.id) ? firstPiece(whole) : null;

/** How far the piece that goes first has come. */
function firstOf(plan: Plan, p: Placed): { piece: number | null; n: number; of: number } {
  const alone = plan.placed.filter((x) => isFirst(x.step.id));
  return { piece: firstPiece(plan.whole ?? plan), n: alone.indexOf(p) + 1, of: alone.length };
}

/** The piece as it lies before the maker at a step: which side up, what is masked, what is lifted at this visit, what stays (M13). */
function lying(plan: Plan, p: Placed, now: ReturnType<typeof simulate>) {
  const c = plan.context;
  const back = backUp(p.step, c);
  const masked = p.before.zones.filter((z) => z.mask).map((z) => z.zone);
  const names = new Map([[GROUND, "the rest of the face"], ...c.job.zones.map((z) => [z.id, z.name] as const)]);
  const named = (ids: string[]): string => ids.map((id) => names.get(id) ?? id).join(", ");
  const lifted = kindOf(p.step.kind).lifts === "mask" ? masked.filter((z) => p.step.zones.includes(z)) : [];
  const zones = c.job.zones.filter((z) => lifted.includes(z.id));
  const sum = (of: (z: Zone) => number | null): number | null =>
    zones.reduce<number | null>((a, z) => (a === null || of(z) === null ? null : a + (of(z) as number)), 0);
  const stays = masked.filter((z) => !lifted.includes(z));
  const [pieces, islands] = [sum((z) => z.pieces), sum((z) => z.holes)];
  return {
    pictured: back ? [] : picturedIn(p.before),
    colours: Object.fromEntries(now.map((z) => [z.zone, back ? z.back : z.front])),
    masked,
    mirrored: back,
    up: back ? "Back up: the picture runs left for right" : shapeOf(c) === "flat" ? "Face up" : sideUp(c),
    lift: lifted.length
      ? `Lift ${named(lifted)}` +
        (pieces === null ? "" : `: ${plural(pieces, "piece")} of mask`) +
        (islands ? `, ${plural(islands, "island")} within` : "")
      : null,
    stays: stays.length ? `Stays masked: ${named(stays)}` : null,
    lit: lifted.length ? lifted : p.step.zones,
  };
}

/** What the newest tap was, in a maker's words. */
const LAST: Record<string, string> = {
  start: "begun",
  piece: "piece",
  aside: "put aside",
  done: "step done",
  check: "look",
  touch: "touch check",
  early: "early start",
  note: "note",
};
