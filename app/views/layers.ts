/**
 * Plan to what the Layers page shows: rows, rail, card, snags. Words and figures only; nothing is worked out here
 * that the core does not know.
 */
import { cuesOf } from "../core/explain/cues";
import { practiceFor } from "../core/practice/about";
import { lessonsAt } from "../core/plan/lessons";
import type { Opened } from "./opened";
import type { StepRow, RailBlock, SnagRow, StepCardData } from "./shown";
import { FIELDS } from "../core/plan/fields";
import { ALL_KINDS, byBeam, has, kindOf, own, type Step } from "../core/process/kinds";
import { findStep, turns, type Plan } from "../core/plan/plan";
import { firstPiece, isFirst } from "../core/plan/proof";
import { offered, open, snagsOf, type Preview } from "../core/judge/judge";
import { whereOf, type Snag } from "../core/judge/snag";
import { stateWords } from "../core/plan/decides";
import { sensitive } from "../core/process/ready";
import { waitAfter } from "../core/explain/report";
import { showWhen } from "../core/time/zoned";
import { showAmount, showMinutes, showMl, showUm } from "../core/units/show";
import { standing } from "../core/bench/next";
import { GROUND, zoneOf, surfaceUm } from "../core/piece/state";
import type { World } from "../core/records/world";
import { saidAll } from "../core/units/said";
import { figuresOf } from "../core/explain/figures";
import { guideOf } from "./guide";
import { latestStart } from "../core/plan/backward";
import { levelWords } from "../core/explain/why/inputs";
import type { StepFigure } from "../core/explain/why/figure";
import { settingParts } from "../core/explain/setting-words";
import type { Paint } from "../core/catalogue/properties";
import type { Context } from "../core/process/context";
import type { CardField } from "../core/process/step";
import type { Placed } from "../core/plan/placed";
import { opened, openedLatest } from "./opened";

const num = (n: number | null, digits = 2): string =>
  n === null ? "" : String(Math.round(n * 10 ** digits) / 10 ** digits);

/** What a screen is told of a plan, in the units of its shop. */
const inUnits = <T>(plan: Plan, told: T): T => saidAll(told, plan.context.world.shop.units);

export function waitText(plan: Plan, i: number): string | null {
  const [looked, day] = [plan.placed[i], plan.proof?.accepted ?? null];
  if (looked.cycle.length && day !== null && looked.end !== null && day > looked.end)
    return `accepted by the Brief: ${showWhen(plan.context.clock, day)}`;
  const w = waitAfter(plan, i);
  if (!w) return null;
  if (w.typed) return `set by hand: ${showMinutes(w.min)}`;
  if (w.min === null) return `${stateWords(w.for)}: never in this climate`;
  const shuts =
    w.closes === null || w.opens === null
      ? ""
      : w.closes > w.opens
        ? `, shuts ${showMinutes(w.closes - w.opens)} later`
        : w.reopens === null
          ? ""
          : `, but an older film has shut: reopens ${showMinutes(w.reopens - w.from)} on`;
  return w.min === 0 ? `${stateWords(w.for)} already${shuts}` : `${stateWords(w.for)}: ${showMinutes(w.min)}${shuts}`;
}

/** Where a step stands, in words: in the batch, or on the way of the piece that goes first. */
function placeOf(plan: Plan, p: Placed): string {
  if (!isFirst(p.step.id)) return `step ${p.index + 1} of ${(plan.whole ?? plan).placed.length}`;
  const alone = plan.placed.filter((x) => isFirst(x.step.id));
  return `piece ${firstPiece(plan.whole ?? plan)} first, step ${alone.indexOf(p) + 1} of ${alone.length}`;
}

export const stepRows = (plan: Plan, now: number): StepRow[] => inUnits(plan, stepRowsIn(plan, now));
function stepRowsIn(plan: Plan, now: number): StepRow[] {
  const s = standing(plan, now);
  const here = s.is === "ready" || s.is === "waiting" || s.is === "missed" ? s.step.step.id : null;
  const begun = plan.bench.actuals.size > 0;
  const counts = new Map<string, number>();
  for (const x of open(plan)) if (x.step && x.severity !== "hazard") counts.set(x.step, (counts.get(x.step) ?? 0) + 1);
  return turns(plan).map(({ plan: mine, p }) => {
    const w = waitAfter(mine, p.index);
    return {
      id: p.step.id,
      n: isFirst(p.step.id) ? null : p.index + 1,
      title: p.step.title,
      minutes: showMinutes(p.minutes),
      minutesWhy: opened(plan, { of: "minutes", step: p.step.id }),
      waitWhy: opened(plan, { of: "wait", step: p.step.id }),
      done: p.actual?.end != null,
      now: begun && p.step.id === here,
      byHand: p.step.origin === "edit" || p.step.edited.length > 0,
      wait: waitText(mine, p.index),
      waitFor: w?.for ?? null,
      opens: w?.opens ?? null,
      closes: w?.closes ?? null,
      snags: counts.get(p.step.id) ?? 0,
    };
  });
}

export const railBlocks = (plan: Plan, now: number): RailBlock[] => inUnits(plan, railBlocksIn(plan, now));
function railBlocksIn(plan: Plan, now: number): RailBlock[] {
  const c = plan.context;
  let lastDay = -1;
  const line = turns(plan);
  return line.map(({ plan: here, p }, i) => {
    const next = line[i + 1]?.p;
    const gap = p.end !== null && next?.start != null ? Math.max(0, next.start - p.end) : 0;
    const day = p.start === null ? lastDay : c.clock.dayNumber(p.start);
    const when = p.start === null ? "" : day !== lastDay ? showWhen(c.clock, p.start) : "";
    lastDay = day;
    const inWork = p.start !== null && p.end !== null && now >= p.start && now < p.end;
    const inGap = p.end !== null && gap > 0 && now >= p.end && now < p.end + gap;
    return {
      id: p.step.id,
      n: isFirst(p.step.id) ? null : p.index + 1,
      title: p.step.title,
      minutes: p.minutes ?? 10,
      state: p.actual?.end != null ? "done" : inWork ? "now" : "todo",
      when,
      whenWhy: opened(plan, { of: "begins", step: p.step.id }),
      gap,
      closed: gap > 0 ? c.calendar.closedBetween(p.end as number, (p.end as number) + gap) : 0,
      gapText: `${waitText(here, p.index) ?? "waits"}; ${showMinutes(gap)} in all`,
      end: p.end,
      nowIn: inWork
        ? { part: "work", share: (now - (p.start as number)) / Math.max(1, (p.end as number) - (p.start as number)) }
        : inGap
          ? { part: "gap", share: (now - (p.end as number)) / gap }
          : null,
    };
  });
}

/** snags whose fixes are tried at once: the rest when these are dealt with */
const TRIED = 16;

/** What a fix was found to do, in a line. */
function fixLine(plan: Plan, v: Preview): string {
  const when = (m: number | null): string => (m === null ? "no time" : showWhen(plan.context.clock, m));
  const named = (titles: string[]): string =>
    titles.length > 2 ? `“${titles[0]}” and ${titles.length - 1} more` : titles.map((t) => `“${t}”`).join(", ");
  return [
    ...(v.added.length ? [`adds ${named(v.added)}`] : []),
    ...(v.removed.length ? [`takes out ${named(v.removed)}`] : []),
    ...(v.moved.length ? [`moves ${named(v.moved)}`] : []),
    ...v.changed.slice(0, 2).map((c) => `“${c.title}”, ${c.what}: ${c.before} → ${c.after}`),
    ...(v.changed.length > 2 ? [`${v.changed.length - 2} more changes`] : []),
    ...(v.ready[0] !== v.ready[1] ? [`ready ${when(v.ready[0])} → ${when(v.ready[1])}`] : []),
    v.gone.length === 1 ? "clears this snag" : `clears ${v.gone.length} snags`,
    ...(v.fresh.length ? [`raises ${v.fresh.length} lesser: ${v.fresh[0].why.split(/[;.:]/)[0]}`] : []),
  ].join(" · ");
}

export const snagRows = (plan: Plan, world: World, now: number): SnagRow[] =>
  inUnits(plan, snagRowsIn(plan, world, now));
function snagRowsIn(plan: Plan, world: World, now: number): SnagRow[] {
  let tried = 0;
  const fixesOf = (s: Snag): SnagRow["fixes"] => {
    if (s.severity === "hazard") return s.fixes.map((f) => ({ id: f.id, label: f.label, preview: null }));
    if (s.waived !== null || tried++ >= TRIED) return [];
    return offered(world, plan, s, now).map((o) => ({
      id: o.fix.id,
      label: o.fix.label,
      preview: fixLine(plan, o.preview),
    }));
  };
  return snagsOf(plan).map((s) => ({
    rule: s.rule,
    where: whereOf(s),
    severity: s.severity,
    why: s.why,
    step: s.step,
    waived: s.waived,
    place: findStep(plan, s.step)?.step.title ?? null,
    numbers: Object.entries(s.numbers)
      .map(([k, v]) => `${k} ${v ?? "unknown"}`)
      .join(", "),
    fixes: fixesOf(s),
    later: s.severity !== "hazard" && s.waived === null && tried > TRIED,
  }));
}

/** Levels over the whole plan, µm: the core sample keeps one scale while it is scrubbed. */
export function levels(plan: Plan): { top: number; bottom: number } {
  let [top, low] = [0, 0];
  for (const p of plan.placed)
    for (const z of p.after.zones) {
      const film = z.films[z.films.length - 1];
      const wet = film && film.step === p.step.id && film.wetUm !== null ? film.wetUm - film.dryUm : 0;
      top = Math.min(top, surfaceUm(z) - wet);
      low = Math.max(low, z.depthUm + z.charUm);
    }
  const span = Math.max(20, low - top);
  return { top: top - span * 0.06, bottom: low + Math.max(span * 0.3, 30) };
}

/** figures that every card lets be changed */
const ALWAYS: readonly CardField[] = ["minutes", "waitMin", "title"];
const isLaser = (f: CardField): f is "power" | "speed" | "interval" | "passes" =>
  ["power", "speed", "interval", "passes"].includes(f);

function valueOf(s: Step, f: CardField): number | string | null {
  if (f === "title" || f === "minutes" || f === "waitMin") return s[f];
  if (f === "depthMm") return own(s, "wishMm");
  return isLaser(f) ? (own(s, "laser")?.[f] ?? null) : own(s, f);
}

/** One figure of the card as a field: its text as it can be typed again, and where it came from. */
function cardField(p: Placed, name: CardField): StepCardData["fields"][number] {
  const v = valueOf(p.step, name);
  const byHand = p.step.edited.includes(name);
  const auto = name === "minutes" && v === null ? num(p.minutes, 1) : null;
  const text = typeof v !== "number" ? (v ?? "") : name === "power" ? num(v * 100, 1) : num(v);
  return {
    name,
    label: FIELDS[name].label,
    unit: name === "power" ? "%" : FIELDS[name].unit,
    value: byHand || v !== null ? text : "",
    from: byHand ? "by hand" : auto !== null ? `plan: ${auto}` : v === null ? "plan’s own" : "plan",
  };
}

const OWN = { value: "", label: "the plan’s own" };
/** What may be chosen of the Shelf for a step; null: it takes nothing of it. */
function choice(c: Context, s: Step, may: ((p: Paint) => boolean) | undefined): StepCardData["product"] {
  if (!may || !has(s, "productId")) return null;
  // what is still to be bought can be left for something of the Shelf, and is no choice elsewhere
  const shelf = c.world.products.filter((x) => may(c.paintOf(x.id)));
  const of = [...shelf, ...c.standIns.filter((x) => x.id === s.productId)];
  return { value: s.productId ?? "", options: [OWN, ...of.map((x) => ({ value: x.id, label: x.name }))] };
}

function loadText(plan: Plan, i: number): string | null {
  const use = plan.uses[i];
  const n = plan.placed[i].pieces;
  if (!use) return null;
  if (use.g !== null) return `${showAmount(null, use.g / n)} each, ${showAmount(null, use.g)} in all`;
  if (use.ml === null) return "amount unknown";
  const dries = `${showUm(use.wetUm)} wet dries to ${showUm(own(plan.placed[i].step, "dryUm"))}`;
  return `${showMl(use.ml / n)} each, ${showMl(use.ml)} in all; ${dries}`;
}

/** What comes after a step, as its card says it; null: nothing is waited for. */
function thenText(plan: Plan, i: number): string | null {
  const w = waitAfter(plan, i);
  const when = (m: number): string => showWhen(plan.context.clock, m);
  if (!w) return null;
  if (w.min === null) return "never dry in this climate";
  const shuts = w.closes === null ? "" : `; shuts ${when(w.closes)}`;
  const reopens = w.reopens === null ? "" : `, reopens ${when(w.reopens)}`;
  const opens = w.opens === null ? "" : when(w.opens);
  return `${stateWords(w.for)} ${opens}, ${showMinutes(w.min)} after it${shuts}${reopens}`;
}

export const stepCard = (plan: Plan, index: number): StepCardData => inUnits(plan, stepCardIn(plan, index));
function stepCardIn(plan: Plan, index: number): StepCardData {
  const c = plan.context;
  const p = plan.placed[index];
  const s = p.step;
  const kind = kindOf(s.kind);
  const n = p.pieces;
  const laser = own(s, "laser");
  const why = (of: StepFigure): Opened => opened(plan, { of, step: s.id });
  const told = (text: string | null, of: StepFigure): { text: string; why: Opened } | null =>
    text === null ? null : { text, why: why(of) };
  const begins = p.start === null ? null : `${showWhen(c.clock, p.start)}${p.actual ? ", as logged" : ""}`;
  const by = byBeam(s) ? "laser" : "hands on";
  const minutes = p.minutes === null ? "time unknown" : `${by}, about ${showMinutes(p.minutes)} for ${n}`;
  const due = c.job.due === null ? null : c.clock.fromLocal(c.job.due);
  const spare = due === null || plan.ready === null ? 0 : due - plan.ready;
  const latest = due === null || p.start === null || plan.whole ? null : latestStart(plan, index, due, spare);
  const at = (k: number): string | null => plan.placed[k]?.step.id ?? null;
  const zones = [...c.job.zones.map((z) => ({ id: z.id, name: z.name })), { id: GROUND, name: "rest of the face" }];
  return {
    id: s.id,
    title: s.title,
    kind: s.kind,
    index,
    place: placeOf(plan, p),
    first: isFirst(s.id),
    begins: told(begins, "begins"),
    purpose: kind.purpose(s, c),
    tool: kind.tool(s, c),
    load: told(loadText(plan, index), "load"),
    time: { text: minutes, why: why("minutes") },
    cues: cuesOf(plan, p),
    practice: practiceFor(p.step.kind),
    lessons: lessonsAt(p.step, plan.context).map(({ id, text }) => ({ id, text })),
    lookFor: kind.lookFor(s, c),
    lookWhy: kind.beam === "body" ? why("level") : null,
    then: told(thenText(plan, index), "wait"),
    depth: told(levelWords(plan, index), "level"),
    latest:
      latest === null || p.start === null
        ? null
        : {
            text: `${showWhen(c.clock, latest)}; ${showMinutes(latest - p.start)} of slack`,
            why: openedLatest(plan, "latest", s.id, latest),
          },
    answer: plan.bench.steps.get(s.id)?.answer ?? null,
    laser: laser && {
      text: settingParts(laser).join("; "),
      from:
        laser.from === "computed"
          ? "computed: only a start for a test"
          : `${laser.from}: for this machine, can and blank, not for others`,
      why: why("energy"),
    },
    fields: (kind.fields ?? ALWAYS).filter((f) => laser || !isLaser(f)).map((f) => cardField(p, f)),
    product: choice(c, s, kind.suits),
    role: s.kind === "coat" ? s.role : null,
    zones: s.kind === "coat" ? zones.map((z) => ({ ...z, on: s.zones.includes(z.id) })) : [],
    canWarmed: c.paint(own(s, "productId"))?.finish.by === "spray" ? own(s, "canWarmed") : null,
    byLoad: own(s, "byLoad"),
    before: at(index - 1),
    beforeThat: at(index - 2),
    next: at(index + 1),
    kinds: ALL_KINDS.filter((k) => k.addable).map((k) => ({ id: k.id, name: k.name })),
    blocked: p.blocked,
    figures: figuresOf(plan, index).map((f) => ({
      ...f,
      ask: f.leads ? opened(plan, { of: "panel", step: s.id, panel: f.id }).ask : null,
    })),
    guide: guideOf(plan, index),
    method: has(s, "method") ? (s.method ?? "gun") : null,
    mask: choice(c, s, kind.lays === "mask" ? (x) => x.mask !== null : undefined),
  };
}

export interface FilmLine {
  text: string;
  /** what its time is made of; null: no time in it */
  why: Opened | null;
}
/** What the newest film of a zone does at a moment, in short lines. */
export const filmNow = (plan: Plan, index: number, zone: string, at: number): FilmLine[] =>
  inUnits(plan, filmNowIn(plan, index, zone, at));
function filmNowIn(plan: Plan, index: number, zone: string, at: number): FilmLine[] {
  const c = plan.context;
  const state = zoneOf(plan.placed[index].after, zone);
  // what the beam or sanding has taken away dries no more
  const films = state.films.filter((f) => f.left > 0);
  const top = films[films.length - 1];
  const piece = plan.placed[index].after;
  const plain = (text: string): FilmLine => ({ text, why: null });
  const edge = [
    ...(piece.smeared && c.hasPaint(piece.smeared)
      ? [`${c.paintOf(piece.smeared).product.name} lies smeared over the glaze: wipe it before it dries on`]
      : []),
    ...(piece.touched ? [`last touched with: ${piece.touched.replace(/-/g, " ")}`] : []),
    ...(state.scorched ? ["scorched beyond its edge: a blue beam through a mask on wood"] : []),
  ].map(plain);
  if (!top || top.laidAt === null) return edge;
  if (top.phase)
    return [
      ...edge,
      plain(
        top.phase === "loose"
          ? `${c.paintOf(top.productId).product.name}: loose, level with the face`
          : `${c.paintOf(top.productId).product.name}: melted together${top.torn ? ", torn by a mask lifted warm" : ""}`,
      ),
    ];
  const p = c.paintOf(top.productId);
  const wait = opened(plan, { of: "wait", step: plan.placed[index].step.id });
  const out: FilmLine[] = [
    {
      text: `${p.product.name}: laid ${showWhen(c.clock, top.laidAt)}`,
      why: plan.placed.some((x) => x.step.id === top.step) ? opened(plan, { of: "begins", step: top.step }) : null,
    },
  ];
  const w = waitAfter(plan, index);
  if (w?.opens != null)
    out.push({
      text:
        at >= w.opens
          ? `${stateWords(w.for)} since ${showWhen(c.clock, w.opens)}`
          : `${stateWords(w.for)} ${showWhen(c.clock, w.opens)}`,
      why: wait,
    });
  if (w?.closes != null) out.push({ text: `window shuts ${showWhen(c.clock, w.closes)}`, why: wait });
  if (sensitive(top, c, at)) out.push(plain("sensitive now: a wet coat on it would wrinkle it"));
  if (top.wrinkled || films.some((f) => f.wrinkled)) out.push(plain("a film beneath has wrinkled"));
  if ((top.merged ?? 1) > 1) out.push(plain(`${top.merged} coats laid inside the flash dry as one`));
  return [...edge, ...out];
}
