/** What the Files page shows beside the visits: where a start lies, how the piece is put back, how it came to lie before. */
import { beamVisits } from "../core/explain/packet";
import { standing } from "../core/plan/fold";
import type { Plan } from "../core/plan/plan";
import { placementOf } from "../core/plan/visits";
import { pictureWork } from "../core/explain/picture";
import type { Context } from "../core/process/context";
import { keptOut, loadsOn, pocketed } from "../core/process/on-bed";
import { filledPockets } from "../core/geometry/bed";
import { startFrom } from "../core/process/setup";
import { topSpeed } from "../core/process/beam";
import type { LaserSetting } from "../core/process/step";
import { showWhen } from "../core/time/zoned";
import { said } from "../core/units/said";
import type { UnitSystem } from "../core/units/show";
import { plural } from "../core/units/show";

/** A setting as it is typed into the machine: percent and watts, mm/s and percent of the top speed. */
export function settingWords(
  s: LaserSetting,
  watts: number | null,
  top: number | null,
  rows: boolean,
  units: UnitSystem,
): string {
  const r = (v: number, d: number): number => Math.round(v * 10 ** d) / 10 ** d;
  return said(
    [
      `${r(100 * s.power, 1)} %${watts === null ? "" : ` (${r(watts, 1)} W)`}`,
      `${r(s.speed, 1)} mm/s${top === null ? "" : ` (${r((100 * s.speed) / top, 1)} % of the top speed)`}`,
      ...(rows ? [`${r(s.interval, 3)} mm between lines`] : []),
      plural(s.passes, "pass", "passes"),
      s.from,
    ].join(", "),
    units,
  );
}

/** The pockets of the jig that the pieces lie in, each with the piece of the first load. */
function trayOf(c: Context) {
  const jig = pocketed(c);
  if (!jig) return null;
  const empty = c.job.choices.emptyPockets ?? [];
  const filled = filledPockets(jig.pockets, empty);
  const at = new Map(filled.map((n, i) => [n, i + 1]));
  const { perLoad, loads } = loadsOn(c, c.pieces);
  return {
    name: jig.name,
    across: jig.pockets.across,
    pockets: Array.from({ length: jig.pockets.across * jig.pockets.down }, (_v, i) => ({
      n: i + 1,
      empty: empty.includes(i + 1),
      /** piece of the first load; null: none is left for it */
      piece: (at.get(i + 1) ?? Infinity) <= c.pieces ? (at.get(i + 1) as number) : null,
    })),
    perLoad,
    loads,
    pieces: c.pieces,
    keptOut: keptOut(c)?.why ?? null,
  };
}

export function filesView(plan: Plan, now: number) {
  const c = plan.context;
  const { job, world } = c;
  const place = placementOf(plan);
  const visits = beamVisits(plan);
  const off = standing(world.log).filter((e) => e.offMm !== undefined);
  return {
    job,
    world,
    now,
    units: world.shop.units,
    start: startFrom(c),
    machine: c.machine && {
      name: c.machine.name,
      bedW: c.machine.bedW,
      bedH: c.machine.bedH,
      top: c.machine.maxSpeed === null ? null : topSpeed(c.machine),
      run: c.machine.overscanMm,
    },
    /** steps at which the piece is put back */
    again: visits.slice(1).map((v) => ({ id: v[0].step.id, title: v[0].step.title })),
    placedBy: job.choices.placedBy ?? "corner",
    jigs: (world.shop.gear ?? []).filter((g) => g.kind === "jig").map((g) => ({ id: g.id, name: g.name })),
    tray: trayOf(c),
    place: {
      by: place.by,
      errorMm: place.errorMm,
      trapMm: place.trapMm,
      overrunMm: place.overrunMm,
      degrees: place.degrees,
    },
    off: off.map((e) => ({
      id: e.id,
      mm: e.offMm as number,
      when: showWhen(c.clock, Math.floor(e.at)),
      beyond: (e.offMm as number) > place.errorMm + 1e-9,
    })),
    pictures: pictureWork(plan),
    photo: c.picture?.photo ?? null,
    none: visits.length === 0,
    missing: plan.missing.map((m) => m.say),
  };
}
