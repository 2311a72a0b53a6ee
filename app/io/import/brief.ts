/** A brief (the door's small input) made into a job with the shop it needs. What the brief leaves out is a default. */
import { allSafe } from "../../core/records/machine";
import "reflect-metadata";
import { IsArray, IsObject } from "class-validator";
import { defaultMachine, defaultProduct, STARTER } from "../../core/catalogue/starter";
import { isFinish, finishNamed } from "../../core/catalogue/finishes";
import { isSubstrate, substrateNamed } from "../../core/catalogue/substrates";
import { meltsBy, route, takes } from "../../core/catalogue/routes";
import { against } from "../../core/catalogue/support";
import {
  Id,
  LocalTime,
  Maybe,
  Num,
  OneOf,
  OrNull,
  Text,
  TextList,
  Whole,
  Colour,
  SubList,
  Sub,
} from "../../core/records/fields";
import { BEAMS, ROUTE_IDS, USES, type Beam } from "../../core/records/ids";
import { Choices, Job, Order, Substrate, WrapUp, type Zone } from "../../core/records/job";
import { check, sayFaults } from "../../core/records/parse";
import { Climate, Gear, Hours, Shop } from "../../core/records/shop";
import type { Product } from "../../core/records/product";
import type { Clip } from "../../core/vector/clip";
import { readZones } from "../../core/vector/zones";
import { withArtwork } from "../../core/geometry/artwork";
import { zonedClock } from "../../core/time/zoned";
import type { RichLayerFile } from "../../core/records/file";
import { jobFile } from "../export/job-file";
import { chooseRoutes } from "../../core/plan/choose";
import { goesBy } from "../../core/plan/goes";
import { context } from "../../core/process/context";

export class BadInput extends Error {}
export class NoAnswer extends Error {}

class BriefZone {
  @Id() id!: string;
  @Maybe() @Num(0.001, 1e8) areaMm2?: number;
  @Maybe() @Num(0, 1e8) perimeterMm?: number;
  @Maybe() @Num(0, 1e5) narrowestMm?: number;
  @Maybe() @Text(60) finish?: string;
  @Maybe() @Colour() colour?: string;
}
class BriefBeam {
  @OneOf(BEAMS) id!: Beam;
  @Num(0.1, 5000) watts!: number;
}
class BriefSheet {
  @Id() id!: string;
  @Num(1, 5000) w!: number;
  @Num(1, 5000) h!: number;
  @Num(0.1, 500) t!: number;
}
class Brief {
  @Whole(1, 1) brief!: number;
  @OrNull() @Maybe() @Text(4) route?: string | null;
  @Maybe() @Whole(1, 100000) quantity?: number;
  @Sub(() => BriefSheet) substrate!: BriefSheet;
  @Maybe() @OrNull() @Sub(() => BriefBeam) beam?: BriefBeam | null;
  @Maybe() @TextList(10) use?: string[];
  @Maybe() @SubList(() => BriefZone, 200) zones?: BriefZone[];
  @Maybe() @Text(8_000_000) svg?: string;
  @Maybe() @LocalTime() now?: string;
  @Maybe() @OrNull() @LocalTime() due?: string | null;
  @Maybe() @Text(60) zone?: string;
  @Maybe() @IsObject() hours?: Record<string, unknown>;
  @Maybe() @IsObject() climate?: Record<string, unknown>;
  @Maybe() @IsArray() tools?: string[];
}

const COLOUR_OF_FINISH = "#c0281c";

function climateOf(raw: Record<string, unknown> | undefined): Climate {
  const out = { ...new Climate(), hourly: [] as Climate["hourly"] };
  if (!raw) return out;
  out.measured = true;
  if (Array.isArray(raw.hourly)) {
    if (raw.hourly.length !== 24) throw new BadInput(`climate.hourly must hold 24 points, has ${raw.hourly.length}.`);
    out.kind = "hourly";
    out.hourly = raw.hourly.map((p, i) => {
      if (!Array.isArray(p) || typeof p[0] !== "number" || typeof p[1] !== "number")
        throw new BadInput(`climate.hourly[${i}] must be [°C, humidity 0-1].`);
      return { c: p[0], rh: p[1] };
    });
    out.c = out.hourly[12].c;
    out.rh = out.hourly[12].rh;
    return out;
  }
  if (typeof raw.c === "number") out.c = raw.c;
  if (typeof raw.rh === "number") out.rh = raw.rh;
  return out;
}

/** The product a zone's finish and colour stand for, made on the spot. */
function productOf(id: string, colour: string, made: Product[]): Product {
  if (!isFinish(id)) throw new BadInput(`zones: “${id}” is not a finish.`);
  const pid = `${id}-${colour.slice(1)}`;
  const found = made.find((p) => p.id === pid);
  if (found) return found;
  const p = defaultProduct(pid, `${finishNamed(id).name} ${colour}`, id, colour);
  made.push(p);
  return p;
}

/**
 * @param open leave the route open where none of them goes
 * @throws BadInput with one sentence that names what and where; NoAnswer when no route that exists fits
 */
export function jobFromBrief(input: unknown, clip: Clip | null, open = false): RichLayerFile {
  const checked = check(Brief, input);
  if (!checked.ok) throw new BadInput(`The brief: ${sayFaults(checked.faults)}.`);
  const b = checked.value;
  if (!isSubstrate(b.substrate.id)) throw new BadInput(`substrate.id: “${b.substrate.id}” is not a substrate.`);
  for (const u of b.use ?? [])
    if (!(USES as readonly string[]).includes(u)) throw new BadInput(`use: “${u}” is not one of ${USES.join(", ")}.`);
  const shop: Shop = {
    ...new Shop(),
    hours: { ...new Hours() },
    climate: climateOf(b.climate),
    daysOff: [],
    tools: b.tools ?? [],
    learned: [],
  };
  if (b.zone) {
    try {
      zonedClock(b.zone);
    } catch {
      throw new BadInput(`zone: “${b.zone}” is not a known time zone.`);
    }
    shop.zone = b.zone;
  }
  if (b.hours) {
    shop.hours = {
      mon: null,
      tue: null,
      wed: null,
      thu: null,
      fri: null,
      sat: null,
      sun: null,
      ...(b.hours as Partial<Hours>),
    } as Hours;
    shop.hoursSet = true;
  }
  const soundShop = check(Shop, shop, "shop");
  if (!soundShop.ok) throw new BadInput(`The brief: ${sayFaults(soundShop.faults)}.`);
  // Tools that are named stand in the Workshop with ordinary figures.
  const has = (word: string): boolean => (b.tools ?? []).some((t) => t.includes(word));
  const gear: Gear[] = [
    ...(has("oven") || meltsBy("oven", b.route)
      ? [
          {
            ...new Gear(),
            id: "oven",
            kind: "oven" as const,
            name: "Oven",
            maxC: 230,
            trayW: 360,
            trayH: 300,
            notForFood: true,
          },
        ]
      : []),
    ...(has("gun")
      ? [{ ...new Gear(), id: "heat-gun", kind: "gun" as const, name: "Heat gun", maxC: 550, lowFan: true }]
      : []),
  ];
  if (gear.length) shop.gear = gear;
  const routeId = b.route ?? null;
  if (routeId !== null && !(ROUTE_IDS as readonly string[]).includes(routeId))
    throw new BadInput(`route: “${routeId}” is not one of ${ROUTE_IDS.join(", ")}.`);
  for (const z of b.zones ?? [])
    if (z.finish !== undefined && !isFinish(z.finish)) throw new BadInput(`zones: “${z.finish}” is not a finish.`);
  const kind = substrateNamed(b.substrate.id);
  const shape = kind.family === "glass" ? ("ball" as const) : ("flat" as const);
  const rt = routeId === null ? null : route(routeId);
  if (rt) {
    const stands = against(rt, { substrate: kind.id, beam: null, colours: 1, shape, finishes: [] });
    if (stands.length)
      throw new NoAnswer(`Route ${rt.id} (${rt.name.toLowerCase()}): ${stands[0].why.replace(/^It/, "it")}`);
  }
  const machine = b.beam ? allSafe(defaultMachine(b.beam.id, b.beam.watts)) : null;
  const products: Product[] = STARTER.map((s) => defaultProduct(s.id, s.name, s.finish, s.colour));
  // What the route is filled with where the brief names no finish; where it names no route either, the paint follows.
  const filledWith = (finish: string | undefined, colour: string): Pick<Zone, "productId" | "wanted"> => {
    const named = finish ?? rt?.usual;
    return !named
      ? { productId: null, wanted: colour }
      : { productId: productOf(named, colour, products).id, ...(rt ? {} : { wanted: colour }) };
  };
  let job: Job = {
    ...new Job(),
    id: "job",
    title: "Job from a brief",
    quantity: b.quantity ?? 1,
    substrate: { ...new Substrate(), ...b.substrate, ...(shape === "ball" ? { shape, diameter: b.substrate.w } : {}) },
    use: b.use ?? [],
    due: b.due ?? null,
    start: b.now ?? "2027-01-11T08:00",
    machineId: machine?.id ?? null,
    route: rt?.id ?? null,
    artwork: null,
    zones: [],
    choices: { ...new Choices() },
    edits: [],
    waivers: [],
    acknowledged: [],
    plate: null,
    order: { ...new Order() },
    wrapUp: { ...new WrapUp(), flaws: [], photos: [] },
  };
  if (b.svg !== undefined) {
    if (!clip) throw new BadInput("svg: drawings cannot be measured here; give zones.");
    const found = readZones(clip, b.svg);
    job = { ...job, ...withArtwork(job, "brief.svg", b.svg, found) };
    const asked = new Map((b.zones ?? []).map((z) => [z.id, z]));
    job.zones = job.zones.map((z) => {
      const want = asked.get(z.id);
      // One colour under the top: the first zone's paint serves all, unless the brief says otherwise.
      const colour = want?.colour ?? (rt?.maxColours === 1 ? job.zones[0].colour : z.colour);
      const { wanted: _, ...rest } = z;
      return { ...rest, ...filledWith(want?.finish, colour) };
    });
  } else {
    if (!b.zones?.length) throw new BadInput("zones: give at least one zone, or an svg.");
    job.zones = b.zones.map((z, i): Zone => {
      if (z.areaMm2 === undefined) throw new BadInput(`zones[${i}].areaMm2 is missing.`);
      const colour = z.colour ?? COLOUR_OF_FINISH;
      return {
        id: z.id,
        name: z.id,
        colour,
        areaMm2: z.areaMm2,
        perimeterMm: z.perimeterMm ?? null,
        narrowestMm: z.narrowestMm ?? null,
        pieces: null,
        holes: null,
        smallestMm2: null,
        outline: "",
        rows: [],
        ...filledWith(z.finish, colour),
        bare: false,
      };
    });
  }
  if (rt === null) {
    const world = { shop: soundShop.value, machines: machine ? [machine] : [], products, job, log: [] };
    // a finish that is named is what it is to be filled with
    const named = (b.zones ?? []).flatMap((z) => (z.finish === undefined ? [] : finishNamed(z.finish)));
    const best = chooseRoutes(context(world)).find((x) => !x.no.length && named.every((f) => takes(x.route, f)));
    if (!best && !open)
      throw new NoAnswer(`No route goes on ${kind.name.toLowerCase()} with this beam and these finishes.`);
    if (best) job = { ...job, ...goesBy(job, best.route.id) };
  }
  return jobFile(
    { shop: soundShop.value, machines: machine ? [machine] : [], products, jobs: [job], log: [], photos: [] },
    "job",
  );
}
