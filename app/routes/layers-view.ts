/** Plan to what the Layers page shows: rows, rail, card, snags. Words and figures only; nothing is worked out here that the core does not know. */
import { FIELDS } from "../core/plan/edits";
import { byBeam, kindOf, KINDS } from "../core/process/kinds";
import { type Plan } from "../core/plan/plan";
import { open, preview, snagsOf } from "../core/judge/judge";
import { whereOf } from "../core/judge/snag";
import { stateWords } from "../core/plan/decides";
import { sensitive } from "../core/process/ready";
import { waitAfter } from "../core/explain/report";
import { showWhen } from "../core/time/zoned";
import { showAmount, showInterval, showMinutes, showMl, showShare, showSpeed, showUm } from "../core/units/show";
import { standing } from "../core/bench/next";
import { GROUND, zoneOf, surfaceUm } from "../core/piece/state";
import type { World } from "../core/records/world";
import type { StepRow } from "../ui/step-list/step-list";
import type { RailBlock } from "../ui/time-rail";
import type { SnagRow } from "../ui/snags";
import type { StepCardData } from "../ui/step-card";
import { SUITS } from "../core/process/lays";
import { figuresOf } from "../core/explain/figures";
import { guideOf } from "./guide-view";
import { latestStart } from "../core/plan/backward";
import { levelWords } from "../core/explain/why/inputs";
import type { Opened } from "../ui/kit/why";
import { opened, openedLatest } from "./why";

const num = (n: number | null, digits = 2): string =>
  n === null ? "" : String(Math.round(n * 10 ** digits) / 10 ** digits);

export function waitText(plan: Plan, i: number): string | null {
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

export function stepRows(plan: Plan, now: number): StepRow[] {
  const s = standing(plan, now);
  const here = s.is === "ready" || s.is === "waiting" || s.is === "missed" ? s.step.step.id : null;
  const begun = plan.bench.actuals.size > 0;
  const counts = new Map<string, number>();
  for (const x of open(plan)) if (x.step && x.severity !== "hazard") counts.set(x.step, (counts.get(x.step) ?? 0) + 1);
  return plan.placed.map((p, i) => {
    const w = waitAfter(plan, i);
    return {
      id: p.step.id,
      title: p.step.title,
      minutes: showMinutes(p.minutes),
      minutesWhy: opened(plan, { of: "minutes", step: p.step.id }),
      waitWhy: opened(plan, { of: "wait", step: p.step.id }),
      done: p.actual?.end != null,
      now: begun && p.step.id === here,
      byHand: p.step.origin === "edit" || p.step.edited.length > 0,
      wait: waitText(plan, i),
      waitFor: w?.for ?? null,
      opens: w?.opens ?? null,
      closes: w?.closes ?? null,
      snags: counts.get(p.step.id) ?? 0,
    };
  });
}

export function railBlocks(plan: Plan, now: number): RailBlock[] {
  const c = plan.context;
  let lastDay = -1;
  return plan.placed.map((p, i) => {
    const next = plan.placed[i + 1];
    const gap = p.end !== null && next?.start != null ? Math.max(0, next.start - p.end) : 0;
    const day = p.start === null ? lastDay : c.clock.dayNumber(p.start);
    const when = p.start === null ? "" : day !== lastDay ? showWhen(c.clock, p.start) : "";
    lastDay = day;
    const inWork = p.start !== null && p.end !== null && now >= p.start && now < p.end;
    const inGap = p.end !== null && gap > 0 && now >= p.end && now < p.end + gap;
    return {
      id: p.step.id,
      n: i + 1,
      title: p.step.title,
      minutes: p.minutes ?? 10,
      state: p.actual?.end != null ? "done" : inWork ? "now" : "todo",
      when,
      whenWhy: opened(plan, { of: "begins", step: p.step.id }),
      gap,
      closed: gap > 0 ? c.calendar.closedBetween(p.end as number, (p.end as number) + gap) : 0,
      gapText: `${waitText(plan, i) ?? "waits"}; ${showMinutes(gap)} in all`,
      end: p.end,
      nowIn: inWork
        ? { part: "work", share: (now - (p.start as number)) / Math.max(1, (p.end as number) - (p.start as number)) }
        : inGap
          ? { part: "gap", share: (now - (p.end as number)) / gap }
          : null,
    };
  });
}

export function snagRows(plan: Plan, world: World, now: number): SnagRow[] {
  let budget = 14; // previews plan again; the first ones are what is looked at
  return snagsOf(plan).map((s) => ({
    rule: s.rule,
    where: whereOf(s),
    severity: s.severity,
    why: s.why,
    step: s.step,
    waived: s.waived,
    place: plan.placed.find((p) => p.step.id === s.step)?.step.title ?? null,
    numbers: Object.entries(s.numbers)
      .map(([k, v]) => `${k} ${v ?? "unknown"}`)
      .join(", "),
    fixes: s.fixes.map((f) => {
      let text: string | null = null;
      if (s.severity !== "hazard" && s.waived === null && budget-- > 0) {
        const v = preview(world, plan, f, now);
        const when = (m: number | null): string => (m === null ? "no time" : showWhen(plan.context.clock, m));
        const named = (titles: string[]): string =>
          titles.length > 2 ? `“${titles[0]}” and ${titles.length - 1} more` : titles.map((t) => `“${t}”`).join(", ");
        const parts = [
          ...(v.added.length ? [`adds ${named(v.added)}`] : []),
          ...(v.removed.length ? [`takes out ${named(v.removed)}`] : []),
          ...(v.moved.length ? [`moves ${named(v.moved)}`] : []),
          ...v.changed.slice(0, 2).map((c) => `“${c.title}”, ${c.what}: ${c.before} → ${c.after}`),
          ...(v.changed.length > 2 ? [`${v.changed.length - 2} more changes`] : []),
          ...(v.ready[0] !== v.ready[1] ? [`ready ${when(v.ready[0])} → ${when(v.ready[1])}`] : []),
        ];
        parts.push(
          v.gone.length === 1 ? "clears this snag" : v.gone.length ? `clears ${v.gone.length} snags` : "clears none",
        );
        if (v.fresh.length) parts.push(`raises ${v.fresh.length}: ${v.fresh[0].why.split(/[;.:]/)[0]}`);
        text = parts.join(" · ");
      }
      return { id: f.id, label: f.label, preview: text };
    }),
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

const SHOWN: Record<string, string[]> = {
  coat: ["dryUm", "minutes", "waitMin", "roomC", "roomRh", "title"],
  engrave: ["depthMm", "power", "speed", "interval", "passes", "minutes", "waitMin"],
  reveal: ["power", "speed", "interval", "passes", "minutes", "waitMin"],
  "sand-back": ["sandUm", "minutes", "waitMin"],
  "sand-residue": ["sandUm", "minutes", "waitMin"],
};

export function stepCard(plan: Plan, index: number): StepCardData {
  const c = plan.context;
  const p = plan.placed[index];
  const s = p.step;
  const kind = kindOf(s.kind);
  const use = plan.uses[index];
  const n = c.job.quantity;
  const w = waitAfter(plan, index);
  const paint = c.hasPaint(s.productId) ? c.paintOf(s.productId) : null;
  const raw = (f: string): number | string | null =>
    f === "title"
      ? s.title
      : ["power", "speed", "interval", "passes"].includes(f)
        ? (s.laser?.[f as "power"] ?? null)
        : (s[f as "dryUm"] as number | null);
  const fields = (SHOWN[s.kind] ?? ["minutes", "waitMin", "title"])
    .filter((f) => !(["power", "speed", "interval", "passes"].includes(f) && !s.laser))
    .map((name) => {
      const v = raw(name);
      const auto = name === "minutes" && v === null ? num(p.minutes, 1) : null;
      return {
        name,
        label: FIELDS[name].label,
        unit: name === "power" ? "%" : FIELDS[name].unit,
        value:
          s.edited.includes(name) || v !== null
            ? name === "power"
              ? num((v as number) * 100, 1)
              : typeof v === "number"
                ? num(v)
                : (v ?? "")
            : "",
        from: s.edited.includes(name)
          ? "by hand"
          : auto !== null
            ? `plan: ${auto}`
            : v === null
              ? "plan’s own"
              : "plan",
      };
    });
  const load =
    use && paint
      ? {
          text:
            use.g !== null
              ? `${showAmount(null, use.g / n)} each, ${showAmount(null, use.g)} in all`
              : use.ml === null
                ? "amount unknown"
                : `${showMl(use.ml / n)} each, ${showMl(use.ml)} in all; ${showUm(use.wetUm)} wet dries to ${showUm(s.dryUm)}`,
          why: opened(plan, { of: "load", step: s.id }),
        }
      : null;
  const then = w
    ? {
        text:
          w.min === null
            ? "never dry in this climate"
            : `${stateWords(w.for)} ${w.opens === null ? "" : showWhen(c.clock, w.opens)}, ${showMinutes(w.min)} after it${w.closes !== null ? `; shuts ${showWhen(c.clock, w.closes)}` : ""}${w.reopens !== null ? `, reopens ${showWhen(c.clock, w.reopens)}` : ""}`,
        why: opened(plan, { of: "wait", step: s.id }),
      }
    : null;
  const due = c.job.due === null ? null : c.clock.fromLocal(c.job.due);
  const latest =
    due === null || p.start === null ? null : latestStart(plan, index, due, plan.ready === null ? 0 : due - plan.ready);
  const at = (k: number): string | null => plan.placed[k]?.step.id ?? null;
  return {
    id: s.id,
    title: s.title,
    kind: s.kind,
    index,
    place: `step ${index + 1} of ${plan.placed.length}`,
    begins:
      p.start === null
        ? null
        : {
            text: `${showWhen(c.clock, p.start)}${p.actual ? ", as logged" : ""}`,
            why: opened(plan, { of: "begins", step: s.id }),
          },
    purpose: kind.purpose(s, c),
    tool: kind.tool(s, c),
    load,
    time: {
      text:
        p.minutes === null
          ? "time unknown"
          : `${byBeam(s) ? "laser" : "hands on"}, about ${showMinutes(p.minutes)} for ${n}`,
      why: opened(plan, { of: "minutes", step: s.id }),
    },
    cues: kind.cues(s, c),
    lookFor: kind.lookFor(s, c),
    lookWhy: s.kind === "engrave" ? opened(plan, { of: "level", step: s.id }) : null,
    then,
    depth: ((text) => (text === null ? null : { text, why: opened(plan, { of: "level", step: s.id }) }))(
      levelWords(plan, index),
    ),
    latest:
      latest === null
        ? null
        : {
            text: `${showWhen(c.clock, latest)}; ${showMinutes(latest - (p.start as number))} of slack`,
            why: openedLatest(plan, "latest", s.id, latest),
          },
    answer: plan.bench.steps.get(s.id)?.answer ?? null,
    laser: s.laser
      ? {
          text: `${showShare(s.laser.power)} power; ${showSpeed(s.laser.speed)}; ${showInterval(s.laser.interval)}; ${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"}`,
          from:
            s.laser.from === "computed"
              ? "computed: only a start for a test"
              : `${s.laser.from}: for this machine, can and blank, not for others`,
          why: opened(plan, { of: "energy", step: s.id }),
        }
      : null,
    fields,
    product: Object.hasOwn(SUITS, s.kind)
      ? {
          value: s.productId ?? "",
          options: [
            { value: "", label: "the plan’s own" },
            ...c.world.products
              .filter((x) => SUITS[s.kind](c.paintOf(x.id)))
              .map((x) => ({ value: x.id, label: x.name })),
          ],
        }
      : null,
    role: s.kind === "coat" ? s.role : null,
    zones:
      s.kind === "coat"
        ? [...c.job.zones.map((z) => ({ id: z.id, name: z.name })), { id: GROUND, name: "rest of the face" }].map(
            (z) => ({ ...z, on: s.zones.includes(z.id) }),
          )
        : [],
    canWarmed: paint?.finish.by === "spray" ? s.canWarmed : null,
    byLoad: s.kind === "engrave" || s.kind === "reveal" ? s.byLoad : null,
    before: at(index - 1),
    beforeThat: at(index - 2),
    next: at(index + 1),
    kinds: KINDS.filter((k) => k.addable).map((k) => ({ id: k.id, name: k.name })),
    blocked: p.blocked,
    figures: figuresOf(plan, index).map((f) => ({
      ...f,
      ask: f.leads ? opened(plan, { of: "panel", step: s.id, panel: f.id }).ask : null,
    })),
    guide: guideOf(plan, index),
    method: s.kind === "melt" ? (s.method ?? "gun") : null,
    mask:
      s.kind === "mask-lay" || s.kind === "cover"
        ? {
            value: s.productId ?? "",
            options: [
              { value: "", label: "the plan’s own" },
              ...c.world.products.filter((x) => c.paintOf(x.id).mask).map((x) => ({ value: x.id, label: x.name })),
            ],
          }
        : null,
  };
}

export interface FilmLine {
  text: string;
  /** what its time is made of; null: no time in it */
  why: Opened | null;
}
/** What the newest film of a zone does at a moment, in short lines. */
export function filmNow(plan: Plan, index: number, zone: string, at: number): FilmLine[] {
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
