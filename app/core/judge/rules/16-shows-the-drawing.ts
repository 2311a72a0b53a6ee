/** Rule 16: the finished face shows the drawing; where a setting is why not, it is named, and what would do. */
import { difference, hex, linear } from "../../models/film/colour";
import { over } from "../../models/film/hide";
import { openShares, window, type Cut } from "../../models/film/reveal";
import { shown, topDown, zoneOf } from "../../piece/state";
import type { Facts } from "../../plan/facts";
import type { Placed } from "../../plan/placed";
import { shareOf } from "../../process/beam";
import { isSet, own } from "../../process/kinds";
import { cutsOf } from "../../process/kinds/laser-work";
import { meantColour } from "../../process/meant";
import { energyOn, filmsOver } from "../../process/settings";
import type { LaserSetting } from "../../process/step";
import type { Zone } from "../../records/job";
import { showShare } from "../../units/show";
import type { Finding, Fix, Rule } from "../snag";
import { does, finalPiece, isCoat, round } from "../ask";
import { AS_COMPUTED, jobFix, setFix } from "../fixes";

/** shares nobody could see */
const [SPECK, WHOLE] = [0.05, 0.95];
const n2 = (x: number): string => x.toFixed(2);

/** Puts a step's setting back to what is computed, from wherever it came. */
function toComputed(p: Placed, set: LaserSetting): Fix[] {
  if (set.from === "typed") return [setFix("computed", "Go by the computed setting", p.step.id, AS_COMPUTED)];
  return set.from === "test plate" ? [jobFix("no-plate", "Forget the plate’s setting", () => ({ plate: null }))] : [];
}

/** Panel power that puts so much on the surface at this speed and interval. */
const powerFor = (f: Facts, set: LaserSetting, e: number): string =>
  showShare(shareOf(f.context.machine!, (e / set.passes) * set.speed * set.interval));

/** What a setting that misses its film does, and what would hit it; null: it hits. */
function misses(f: Facts, p: Placed, z: Zone): { why: string; e: number; fixes: Fix[] } | null {
  const [c, set] = [f.context, own(p.step, "laser")];
  const before = zoneOf(p.before, z.id);
  const e = set && c.machine ? energyOn(c, before, set) : null;
  if (!set || e === null) return null;
  const all: Cut[] = cutsOf(before, c, set.interval, set.passes);
  const k = Math.max(1, filmsOver(before, z.bare ? null : z.productId));
  const shares = openShares(all, e);
  const names = topDown(before).map((x) => c.paintOf(x.productId).product.name);
  const w = window(all, k);
  const opens = w?.lo ?? all[k - 1]?.c;
  const says = `“${p.step.title}” (${set.from})`;
  if (opens !== undefined && shares[k - 1] < WHOLE)
    return {
      e,
      why:
        `${says}: over “${z.name}” ${names[k - 1]} is ${showShare(shares[k - 1])} gone at ${n2(e)} J/mm²; it opens from ` +
        `${n2(opens)}: ${powerFor(f, set, opens)} power.`,
      fixes: toComputed(p, set),
    };
  if (w && shares[k] > SPECK)
    return {
      e,
      why:
        `${says}: in “${z.name}” ${names[k]} itself is ${showShare(shares[k])} gone at ${n2(e)} J/mm²; it is whole up to ` +
        `${n2(w.hi)}: ${powerFor(f, set, w.hi)} power.`,
      fixes: toComputed(p, set),
    };
  return null;
}

function findingOf(f: Facts, z: Zone, off: number, looks: string, wanted: string): Finding {
  const c = f.context;
  const burnt = f.placed.find((p) => does(p).beam === "film" && p.step.zones.includes(z.id) && misses(f, p, z));
  const missed = burnt && misses(f, burnt, z);
  const last = f.placed.findLast((p) => isCoat(p) && p.step.zones.includes(z.id));
  const says = c.route?.lifts ? "Show the bare material there" : "Leave this zone as it is";
  const bare = jobFix("bare", says, (j) => ({
    zones: j.zones.map((x) => (x.id === z.id ? { ...x, bare: true } : x)),
  }));
  return {
    step: (burnt ?? last)?.step.id ?? null,
    zone: z.id,
    numbers: { off: round(off, 1), tolerance: c.tolerance, energy: missed ? round(missed.e, 3) : null },
    why:
      missed?.why ??
      `“${z.name}” ends up ${looks}, and ${wanted} is meant: a difference of ${round(off, 1)}, with ${c.tolerance} allowed.`,
    // uncovered to the body it would be by the same setting
    fixes: [...(missed?.fixes ?? []), ...(z.bare || (missed && c.route?.lifts) ? [] : [bare])],
  };
}

export const rule16: Rule = {
  id: 16,
  severity: "stop",
  title: "The finished face shows the drawing",
  find: (f) => {
    const c = f.context;
    const end = finalPiece(f);
    // What is unknown is told as missing; a step that can't be done, as that.
    if (!end || f.placed.some((p) => p.refused || (isSet(p.step) && own(p.step, "laser") === null))) return [];
    return [...new Set([...c.filled, ...c.uncovered, ...c.burnt])].flatMap((z) => {
      const state = zoneOf(end, z.id);
      const wanted = meantColour(z, c);
      if (wanted === null) return [];
      // a mark and the bare body are their colour; a paint is what it hides with
      const plain = z.bare || c.route?.shows === "mark";
      const body = plain ? linear(wanted) : over(linear(wanted), [0, 0, 0], 1e9);
      const seen = shown(end, state, c.substrate.colour, c.paintOf);
      const off = difference(seen, body);
      return off <= c.tolerance + 0.01 ? [] : [findingOf(f, z, off, hex(seen), wanted)];
    });
  },
};
