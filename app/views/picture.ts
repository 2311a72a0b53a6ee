/** What the Picture page shows: what the beam is given, how the picture lies, what it can hold, and what is to be heeded. */
import { pictureWork, type PictureWork } from "../core/explain/picture";
import { axisOf, thinPlaces } from "../core/geometry/areas";
import { lostByFit, overrunOf } from "../core/geometry/picture";
import { difference, linear } from "../core/models/film/colour";
import { lightness } from "../core/tone/light";
import { filledIn } from "../core/tone/steps";
import { tonesHeld } from "../core/explain/tones";
import { colourWay, route } from "../core/catalogue/routes";
import { open } from "../core/judge/judge";
import { whereOf } from "../core/judge/snag";
import { standsAgainst } from "../core/plan/choose";
import { byRoute } from "../core/plan/goes";
import { context } from "../core/process/context";
import { digsColours } from "../core/process/settings";
import type { Plan } from "../core/plan/plan";
import { saidAll } from "../core/units/said";

export const pictureView = (plan: Plan) => saidAll(pictureViewIn(plan), plan.context.world.shop.units);

/** What to heed of how it lies and what is in the file, with its numbers and what mends it. */
function heeds(
  plan: Plan,
  works: readonly PictureWork[],
): { say: string; mend: { label: string; act: Record<string, string> } | null }[] {
  const c = plan.context;
  const p = c.job.picture;
  if (!p) return [];
  const out: ReturnType<typeof heeds> = [];
  for (const w of works) {
    if (w.assumed)
      out.push({
        say: "No machine is chosen, so its setting is not known: shown as if the beam took off just what it should.",
        mend: null,
      });
    else if (w.areas.some((a) => difference(linear(a.burnt), linear(w.left)) < HARDLY))
      out.push({
        say: `At the setting of “${w.title}” a burnt place looks as one that is left: little or nothing would be seen.`,
        mend: null,
      });
  }
  for (const s of open(plan).filter((x) => ABOUT_PICTURES.includes(x.rule))) {
    const [fix] = s.fixes;
    const act = fix && { intent: "fix", rule: String(s.rule), where: whereOf(s), fix: fix.id };
    out.push({ say: s.why, mend: fix ? { label: fix.label, act } : null });
  }
  for (const no of c.route ? standsAgainst(c.route, c) : []) {
    const other = no.of === "colours" ? (c.job.areas?.kind === "bands" ? route("A4") : route("A3")) : null;
    const goes = other && !standsAgainst(other, context(byRoute(c.world, other.id))).length;
    out.push({
      say: `By “${c.route!.name}”: ${no.why}`,
      mend: goes
        ? { label: `Go by “${other.name}”`, act: { intent: "set", field: "route", value: other.id } }
        : no.of === "colours"
          ? { label: "One colour all over", act: { intent: "areas", kind: "whole" } }
          : null,
    });
  }
  const { stretched } = lostByFit(p);
  if (stretched > 0.02)
    out.push({
      say: `Stretched to fit, it is drawn out by ${Math.round(stretched * 100)} %.`,
      mend: { label: "Cover the piece instead", act: { intent: "picture-set", field: "fit", value: "cover" } },
    });
  if (p.dig && !digsColours(c)) {
    const stack = route("A2");
    const on = c.job.areas?.over === true;
    out.push({
      say: on
        ? `Colours are dug out of a stack by “${stack.name}”; this job goes by another way, so its tones are drawn in one colour.`
        : "Colours are dug out of a stack: the colours beneath have to lie over one another all over the face.",
      mend: on
        ? standsAgainst(stack, context(byRoute(c.world, stack.id))).length
          ? null
          : { label: `Go by “${stack.name}”`, act: { intent: "set", field: "route", value: stack.id } }
        : colourWay(c.route) === "stack"
          ? { label: "Lay them over one another", act: { intent: "areas", kind: "stack" } }
          : { label: "Draw it in dots", act: { intent: "picture-set", field: "render", value: "floyd-steinberg" } },
    });
  }
  if (!p.dig && c.job.areas?.over && c.job.zones.length > 1)
    out.push({
      say: "The colours beneath lie over one another; tones of one colour are drawn, and the others stay hidden.",
      mend: { label: "Dig them by power", act: { intent: "picture-set", field: "render", value: "dig" } },
    });
  const held = p.dig ? null : tonesHeld(plan);
  if (p.render === "grey" && held !== null && held < FEW_TONES)
    out.push({
      say:
        `The window of this stack holds ${held} ${held === 1 ? "tone" : "tones"} that can be told apart; ` +
        `below ${FEW_TONES} the picture bands.`,
      mend: { label: "Draw it in dots", act: { intent: "picture-set", field: "render", value: "floyd-steinberg" } },
    });
  return out;
}
const total = (list: (number | null)[]): number | null =>
  list.reduce<number | null>((a, n) => (a === null || n === null ? null : a + n), 0);
/** CIEDE2000 under which burnt and left can hardly be told apart */
const HARDLY = 5;
/** rules that speak of how a picture is made and laid */
const ABOUT_PICTURES = [41, 42, 43, 46];
/** tones below which power alone bands */
const FEW_TONES = 12;

function pictureViewIn(plan: Plan) {
  const c = plan.context;
  const { job, world } = c;
  const p = job.picture ?? null;
  const units = world.shop.units;
  const works = pictureWork(plan);
  const { areas } = job;
  return {
    job,
    units,
    picture: p,
    /** the job goes by a way that draws no pictures */
    way: c.route?.name ?? null,
    drawsNone: p !== null && c.route !== null && !c.route.pictures,
    works,
    tone: p?.tone.map(filledIn) ?? [],
    toneLists: (world.shop.toneLists ?? []).map((l) => l.name),
    heeds: heeds(plan, works),
    over: p && overrunOf(p, job),
    lost: p && lostByFit(p),
    held: p && !p.dig ? tonesHeld(plan) : null,
    /** lightness of the paints that it has to do with */
    reach: works[0] && {
      dark: Math.round(lightness(Math.min(works[0].recipe.colourY, works[0].recipe.topY))),
      light: Math.round(lightness(Math.max(works[0].recipe.colourY, works[0].recipe.topY))),
    },
    interval: works[0]?.recipe.intervalMm ?? c.intervalMm,
    machine: c.machine?.name ?? null,
    seconds: total(works.map((w) => w.seconds)),
    halvedSeconds: total(works.map((w) => w.halvedSeconds)),
    thin: areas?.kind === "bands" ? thinPlaces(areas, job.substrate) : [],
    along: areas?.kind === "bands" ? axisOf(job.substrate, areas.angle ?? 0).length : null,
  };
}
