/**
 * The steps of a plan with the setting in force: on the piece as it lies before each, what was typed on the step, over what a plate found
 * for just this work, over what is computed. Nothing of it is stored with the plan, so that it follows whatever changes before it.
 */
import { topDown, zoneOf, type Piece } from "../piece/state";
import { depthReached, filmsOver } from "./settings";
import type { Context } from "./context";
import { has, isSet, kindOf, own, type Step } from "./kinds";
import type { LaserSetting } from "./step";

/** The can that a product is taken from now: the first that is not known to be empty. */
const canOf = (c: Context, productId: string): string =>
  c.paintOf(productId).product.cans.find((k) => k.leftMl !== 0)?.id ?? "";

/**
 * What a setting was found for, in one line: machine, interval, body, and what is worked on; films with their cans. Two pieces of work with
 * the same line are the same to the beam.
 */
export function workOf(s: Step, before: Piece, c: Context): string {
  const { beam } = kindOf(s.kind);
  const head = [c.machine?.id, c.machine?.beam, c.intervalMm, c.substrate.id, beam];
  if (beam === "mask") return [...head, ...s.zones.map((z) => zoneOf(before, z).mask?.productId ?? "")].join("|");
  if (beam === "outline") return [...head, c.job.substrate.t].join("|");
  if (beam === undefined) return [...head, own(s, "productId")].join("|");
  if (beam !== "film" && beam !== "pigment") return head.join("|");
  const id = s.zones[0];
  const z = id === undefined ? null : zoneOf(before, id);
  if (!z) return head.join("|");
  const zone = c.job.zones.find((x) => x.id === id);
  const wanted = !zone || zone.bare ? null : zone.productId;
  const over = topDown(z).slice(0, beam === "pigment" ? undefined : Math.max(1, filmsOver(z, wanted)));
  return [...head, ...over.map((f) => `${f.productId} ${f.um.toFixed(1)} ${canOf(c, f.productId)}`)].join("|");
}

/** Nothing is dug deeper than there is material. */
const within = (c: Context, mm: number | null): number | null => (mm === null ? null : Math.min(mm, c.job.substrate.t));

/** The step whose setting a trial is to find: the first behind it that the beam does. */
const triedFor = (steps: readonly Step[], i: number): Step | null => steps.slice(i + 1).find(isSet) ?? null;

/** Step i as the beam is set for it on this piece; any other step as it is. */
export function inForce(steps: readonly Step[], i: number, before: Piece, c: Context): Step {
  const s = steps[i];
  if (!has(s, "laser")) return s;
  const work = kindOf(s.kind).tries ? triedFor(steps, i) : s;
  const set = work && settingOf(work, s, before, c);
  const on = { ...s, laser: set } as Step;
  const dug = has(on, "wishMm") ? { ...on, depthMm: set ? within(c, depthReached(c, set)) : on.wishMm } : on;
  const named = kindOf(s.kind).named;
  return named && !s.edited.includes("title") ? ({ ...dug, title: named(dug, c) } as Step) : dug;
}

/** @param work what is done @param s where its figures may have been typed: the same step, or the trial for it */
function settingOf(work: Step, s: Step, before: Piece, c: Context): LaserSetting | null {
  const computed = kindOf(work.kind).starts?.(work, before, c) ?? null;
  const { plate } = c.job;
  const counts = plate && plate.machineId === c.machine?.id && (!plate.work || plate.work === workOf(work, before, c));
  const base: LaserSetting | null = counts
    ? { power: plate.power, speed: plate.speed, interval: plate.interval, passes: plate.passes, from: "test plate" }
    : computed;
  const typed = own(s, "typed");
  return base && typed && Object.keys(typed).length ? { ...base, ...typed, from: "typed" } : base;
}

/** Does a plate of this job speak of other work than this? */
export const otherPlate = (s: Step, before: Piece, c: Context): boolean =>
  Boolean(c.job.plate?.work) && isSet(s) && c.job.plate!.work !== workOf(s, before, c);
