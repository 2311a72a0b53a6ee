/** Everything a step kind or a rule may look at, resolved once: the job, its shop, materials, machine and clocks. */
import { paint, type Paint } from "../catalogue/properties";
import { BEAM_KINDS } from "../catalogue/beams";
import { paintless, route, type Route } from "../catalogue/routes";
import { schoolPick } from "../catalogue/schools";
import { bodyOf, type SubstrateKind } from "../catalogue/substrates";
import { air, type Air } from "../models/drying/climate";
import { workCalendar, type WorkCalendar } from "../time/hours";
import { clipAll, clockClip, outdoorsOn, type Clip } from "../time/outdoors";
import { shopClock, type ZonedClock } from "../time/zoned";
import type { Job, Zone } from "../records/job";
import type { Picture } from "../records/picture";
import type { Machine } from "../records/machine";
import type { World } from "../records/world";
import { Climate as ClimateRecord } from "../records/shop";
import type { Climate, Shop } from "../records/shop";
import { GROUND } from "../piece/state";
import type { Product } from "../records/product";
import { piecesOf } from "./pieces";
import { coloursOf } from "./wanted";

export interface Context {
  world: World;
  job: Job;
  /** the Shelf, and what stands in for paints that are not on it yet */
  shelf: readonly Product[];
  standIns: readonly Product[];
  /** pieces begun: those ordered, and spares (M15) */
  pieces: number;
  substrate: SubstrateKind;
  /** null: none chosen yet */
  route: Route | null;
  machine: Machine | null;
  /** what the beam draws over all zones; null: the zones themselves */
  picture: Picture | null;
  spotMm: number | null;
  intervalMm: number | null;
  clock: ZonedClock;
  calendar: WorkCalendar;
  /** when spraying may be done: the shop's hours, narrowed to its spraying and loud hours, to daylight and warmth in the open */
  sprayCalendar: WorkCalendar;
  /** when lasers may run: the shop's hours, narrowed to those of loud work */
  loudCalendar: WorkCalendar;
  air: Air;
  /** the air of a room kept at a temperature and humidity */
  room(c: number | null, rh: number | null): Air;
  paintOf(id: string): Paint;
  hasPaint(id: string | null): id is string;
  /** null: none is chosen, or the Shelf no longer has it */
  paint(id: string | null): Paint | null;
  /** zones that get a finish */
  filled: Zone[];
  /**
   * zones that the beam works without a paint of their own: those that are to show the bare material where paint covers the whole face
   * and the beam uncovers, or those that it marks where the route takes no paint
   */
  uncovered: Zone[];
  /** zones that are burnt dark besides what the route does to others */
  burnt: Zone[];
  allZones: string[];
  tolerance: number;
  /** which way is taken where makers disagree */
  school(matter: string): string;
  /** learned correction of a step kind's minutes; 1 when nothing was kept */
  learned(kind: string): number;
}

/** The part of each day in which loud work may be done; null: all of it. */
const loudClip = (clock: ZonedClock, shop: Shop): Clip | null =>
  shop.loudHours ? clockClip(clock, shop.loudHours) : null;
/** The part of each day in which spraying may be done: its own hours, loud hours, daylight and warmth where it is done in the open. */
function sprayClip(clock: ZonedClock, shop: Shop): Clip | null {
  const { outdoors } = shop;
  const loud = loudClip(clock, shop);
  const clips: Clip[] = [
    ...(shop.sprayHours ? [clockClip(clock, shop.sprayHours)] : []),
    ...(loud ? [loud] : []),
    ...(outdoors ? [(day: number) => outdoorsOn(day, outdoors)] : []),
  ];
  return clips.length ? clipAll(clips) : null;
}

/** `matter:pick` lines as a table. */
export const picksOf = (lines: string[] | undefined): Record<string, string> =>
  Object.fromEntries((lines ?? []).map((l) => [l.slice(0, l.indexOf(":")), l.slice(l.indexOf(":") + 1)]));

/**
 * @param lent stand-ins for what else the Shelf lacks, besides colours
 */
export function context(world: World, lent: readonly Product[] = []): Context {
  const { shop } = world;
  const { job, standIns: colours } = coloursOf(world);
  const standIns = [...colours, ...lent];
  const shelf = standIns.length ? [...world.products, ...standIns] : world.products;
  const [mine, ours] = [picksOf(job.choices.schools), picksOf(shop.schools)];
  const machine = world.machines.find((m) => m.id === job.machineId) ?? null;
  const spotMm = machine ? (machine.spotMm ?? BEAM_KINDS[machine.beam].spotMm) : null;
  const way = job.route ? route(job.route) : null;
  const marks = paintless(way);
  const painted = marks ? [] : job.zones;
  const byId = new Map(shelf.map((p) => [p.id, p]));
  const rooms = new Map<string, Air>();
  const clock = shopClock(shop);
  const shopAir = air(shop.climate);
  const clipped = (clip: Clip | null): WorkCalendar =>
    workCalendar(clock, shop.hours, shop.daysOff, shop.otherHours, clip);
  const calendar = clipped(null);
  const [loud, spray] = [loudClip(clock, shop), sprayClip(clock, shop)];
  return {
    world,
    job,
    shelf,
    standIns,
    pieces: piecesOf(job),
    substrate: bodyOf(job.substrate),
    route: way,
    machine,
    picture: way && !way.pictures ? null : (job.picture ?? null),
    spotMm,
    intervalMm:
      job.choices.intervalMm ?? (spotMm === null ? null : Math.max(0.01, Math.floor(0.6 * spotMm * 100 + 1e-6) / 100)),
    clock,
    calendar,
    sprayCalendar: spray ? clipped(spray) : calendar,
    loudCalendar: loud ? clipped(loud) : calendar,
    air: shopAir,
    room: (c, rh) => {
      if (c === null && rh === null) return shopAir;
      const key = `${c}|${rh}`;
      const made: Climate = { ...new ClimateRecord(), kind: "constant", c: c ?? 20, rh: rh ?? 0.5 };
      return rooms.get(key) ?? rooms.set(key, air(made)).get(key)!;
    },
    paintOf: (id) => {
      const p = byId.get(id);
      if (!p) throw new Error(`There is no product “${id}” on the Shelf.`);
      return paint(p);
    },
    hasPaint: (id): id is string => id !== null && byId.has(id),
    paint: (id) => {
      const p = id === null ? undefined : byId.get(id);
      return p ? paint(p) : null;
    },
    filled: painted.filter((z) => !z.bare && z.productId !== null && byId.has(z.productId)),
    uncovered: marks ? job.zones.filter((z) => !z.bare || z.burn) : way?.lifts ? job.zones.filter((z) => z.bare) : [],
    burnt: marks ? [] : job.zones.filter((z) => z.burn),
    allZones: [...job.zones.map((z) => z.id), GROUND],
    school: (matter) => schoolPick(matter, mine, ours).pick,
    tolerance: job.choices.tolerance ?? shop.tolerance,
    learned: (kind) => {
      const all = shop.learned.filter((l) => l.kind === kind);
      // what was learned on this very machine before what holds for all
      const own = all.find((l) => l.machineId !== undefined && l.machineId === machine?.id);
      return (own ?? all.find((l) => l.machineId === undefined))?.factor ?? 1;
    },
  };
}

export const areaOf = (zones: Zone[]): number => zones.reduce((a, z) => a + z.areaMm2, 0);
