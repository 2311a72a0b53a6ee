/**
 * What may be other than a plan takes it to be, and by how much: each lever turns one input down and up by what is plausible
 * for where it came from, as a world of its own, so that any figure can be read again off a plan of that world.
 *
 * Plausible is a quarter either way for a default (makers of like paints differ by about that), a seventh for a data sheet
 * (cans and shops differ), a twentieth for what was measured here, a tenth for what is chosen. Air: 3 °C and 10 points of
 * humidity where nobody measured, 1 °C and 5 points where somebody did. These are our own; the panel shows both ends.
 */
import { inTurn } from "../../plan/placed";
import { type Context } from "../../process/context";
import { toBegin } from "../../process/pieces";
import { isStandIn } from "../../process/wanted";
import type { From } from "../../catalogue/properties";
import { GROUND } from "../../piece/state";
import { planFor, type Plan } from "../../plan/plan";
import { byBeam, kindOf, own, type KindId, type Step } from "../../process/kinds";
import { waitAfter } from "../report";
import type { PlanEdit } from "../../records/job";
import type { Machine } from "../../records/machine";
import { DryTimes, type Product } from "../../records/product";
import type { Climate, Hours } from "../../records/shop";
import type { World } from "../../records/world";
import { WEEKDAYS } from "../../time/hours";
import { showLength, showShare, showTemp, showUm } from "../../units/show";
import { indexOf, isPainting, lastNeed, shutting, type FigureRef } from "./figure";

/** where an input is set, so that a screen can lead there */
export type Place =
  | { at: "shelf"; product: string }
  | { at: "workshop"; part: "climate" | "hours" | "machines" | "screen" }
  | { at: "brief" }
  | { at: "route" }
  | { at: "step"; step: string };

export interface Turn {
  /** the input at this end, in words */
  say: string;
  world(): World;
}
export interface Lever {
  id: string;
  name: string;
  /** where its value came from */
  from: string;
  place: Place;
  /** less, then more; one of them may be missing */
  turns: Turn[];
}

type Origin = From | "by hand" | "chosen";
/** share by which an input may be out, either way */
export const BAND: Record<Origin, number> = {
  default: 0.25,
  "data sheet": 0.15,
  "measured here": 0.05,
  typed: 0.1,
  computed: 0.25,
  "by hand": 0.1,
  chosen: 0.1,
};
const AIR_BAND = { default: { c: 3, rh: 0.1 }, measured: { c: 1, rh: 0.05 } };
const HOUR = 60;

const clamp = (x: number, lo: number, hi: number): number => Math.min(hi, Math.max(lo, x));
const withJob = (w: World, more: Partial<World["job"]>): World => ({ ...w, job: { ...w.job, ...more } });
/** Another reading of a product; what is still to be bought is turned as if it stood on the Shelf. */
const withProduct = (c: Context, id: string, more: Partial<Product>): World => ({
  ...c.world,
  products: [...c.world.products, ...c.standIns].map((p) => (p.id === id ? { ...p, ...more } : p)),
});
/** Where a product's figures are changed: on the Shelf, or where what is to be bought is put there. */
const home = (product: string): Place => (isStandIn(product) ? { at: "route" } : { at: "shelf", product });
const withMachine = (w: World, id: string, more: Partial<Machine>): World => ({
  ...w,
  machines: w.machines.map((m) => (m.id === id ? { ...m, ...more } : m)),
});
const withClimate = (w: World, climate: Climate): World => ({ ...w, shop: { ...w.shop, climate } });
/** Fields of steps set by hand on top of all other changes. */
const set = (w: World, fields: [step: string, field: string, value: number][]): World =>
  withJob(w, {
    edits: [
      ...w.job.edits,
      ...fields.map(([step, field, value]): PlanEdit => ({
        id: `why.${step}.${field}`,
        op: "set",
        step,
        after: null,
        field,
        value,
      })),
    ],
  });

/** Both ends of an input: `value` less and more by a share. */
const ends = (value: number, share: number, words: (x: number) => string, world: (x: number) => World): Turn[] =>
  [1 - share, 1 + share].map((k) => ({ say: words(value * k), world: () => world(value * k) }));
const digits = (x: number): string => (Math.round(x * 1000) / 1000).toString();

function temperature(plan: Plan): Lever {
  const { climate, units } = plan.context.world.shop;
  const d = climate.measured ? AIR_BAND.measured.c : AIR_BAND.default.c;
  const shifted = (by: number): Climate => ({
    ...climate,
    c: climate.c + by,
    hourly: climate.hourly.map((h) => ({ ...h, c: h.c + by })),
    readings: climate.readings?.map((r) => ({ ...r, c: r.c + by })),
  });
  const degrees = units === "inch" ? `${Math.round(d * 1.8)} °F` : `${d} °C`;
  const say = (by: number): string =>
    climate.kind === "constant" ? showTemp(climate.c + by, units) : `${degrees} ${by < 0 ? "colder" : "warmer"}`;
  return {
    id: "air.c",
    name: "Temperature",
    from: climate.measured ? "your climate" : "default climate",
    place: { at: "workshop", part: "climate" },
    turns: [-d, d].map((by) => ({ say: say(by), world: () => withClimate(plan.context.world, shifted(by)) })),
  };
}

function humidity(plan: Plan): Lever {
  const { climate } = plan.context.world.shop;
  const d = climate.measured ? AIR_BAND.measured.rh : AIR_BAND.default.rh;
  const to = (rh: number, by: number): number => clamp(rh + by, 0, 1);
  const shifted = (by: number): Climate => ({
    ...climate,
    rh: to(climate.rh, by),
    hourly: climate.hourly.map((h) => ({ ...h, rh: to(h.rh, by) })),
    readings: climate.readings?.map((r) => ({ ...r, rh: to(r.rh, by) })),
  });
  const say = (by: number): string =>
    climate.kind === "constant"
      ? `${showShare(to(climate.rh, by))} humidity`
      : `${Math.round(d * 100)} points ${by < 0 ? "drier" : "damper"}`;
  return {
    id: "air.rh",
    name: "Humidity",
    from: climate.measured ? "your climate" : "default climate",
    place: { at: "workshop", part: "climate" },
    turns: [-d, d].map((by) => ({ say: say(by), world: () => withClimate(plan.context.world, shifted(by)) })),
  };
}

function draught(plan: Plan): Lever[] {
  const { world } = plan.context;
  const { climate } = world.shop;
  const other = climate.air === "still" ? "moving" : "still";
  return [
    {
      id: "air.flow",
      name: climate.air === "still" ? "Still air" : climate.air === "moving" ? "Moving air" : "Extraction on",
      from: climate.measured ? "your climate" : "default climate",
      place: { at: "workshop", part: "climate" },
      turns: [{ say: `${other} air`, world: () => withClimate(world, { ...climate, air: other }) }],
    },
  ];
}
const inAir = (plan: Plan): Lever[] => [temperature(plan), humidity(plan), ...draught(plan)];

/** Films of one product as thick as they are laid: the coats named, kept in number. */
function film(plan: Plan, product: string | null, steps: Step[]): Lever[] {
  const laid = steps.filter((s) => own(s, "productId") === product && own(s, "dryUm") !== null);
  if (!laid.length || !plan.context.hasPaint(product)) return [];
  const paint = plan.context.paintOf(product);
  const hand = laid.some((s) => s.edited.includes("dryUm"));
  const from: Origin = hand ? "by hand" : paint.coatUm.from;
  const um = own(laid[0], "dryUm") as number;
  return [
    {
      id: `film.${product}`,
      name: `Film of ${paint.product.name}`,
      from,
      place: laid.length === 1 ? { at: "step", step: laid[0].id } : home(product),
      turns: [1 - BAND[from], 1 + BAND[from]].map((k) => ({
        say: laid.every((s) => own(s, "dryUm") === um)
          ? `${showUm(um * k)} dry`
          : `${Math.round(Math.abs(k - 1) * 100)} % ${k < 1 ? "thinner" : "thicker"}`,
        world: () =>
          set(
            plan.context.world,
            laid.map((s) => [s.id, "dryUm", (own(s, "dryUm") as number) * k]),
          ),
      })),
    },
  ];
}

/** All drying times of a product together. */
function drying(plan: Plan, product: string | null): Lever[] {
  const c = plan.context;
  if (!c.hasPaint(product)) return [];
  const paint = c.paintOf(product);
  const keys = Object.keys(new DryTimes()) as (keyof DryTimes)[];
  const known = keys.filter((k) => paint.times[k].value !== null);
  if (!known.length) return [];
  // The least sure of them says how sure all are.
  const from = known.map((k) => paint.times[k].from).sort((a, b) => BAND[b] - BAND[a])[0];
  const share = BAND[from];
  const scaled = (k: number): DryTimes =>
    Object.assign(
      new DryTimes(),
      Object.fromEntries(
        keys.map((key) => [key, paint.times[key].value === null ? null : (paint.times[key].value as number) * k]),
      ),
    );
  return [
    {
      id: `dry.${product}`,
      name: `Drying times of ${paint.product.name}`,
      from,
      place: home(product),
      turns: [1 - share, 1 + share].map((k) => ({
        say: `${Math.round(share * 100)} % ${k < 1 ? "shorter" : "longer"}`,
        world: () => withProduct(c, product, { times: scaled(k) }),
      })),
    },
  ];
}

function solids(plan: Plan, product: string | null): Lever[] {
  const f = plan.context.paint(product)?.solids;
  return f?.value == null || product === null
    ? []
    : [
        {
          id: `solids.${product}`,
          name: "Volume solids",
          from: f.from,
          place: home(product),
          turns: ends(f.value, BAND[f.from], showShare, (x) =>
            withProduct(plan.context, product, { solids: clamp(x, 0.01, 1) }),
          ),
        },
      ];
}

function powderOf(plan: Plan, product: string | null): Lever[] {
  const p = plan.context.paint(product)?.powder;
  if (!p || product === null) return [];
  const one = (id: "packing" | "density", name: string, words: (x: number) => string, hi: number): Lever[] => {
    const f = p[id];
    return f.value === null
      ? []
      : [
          {
            id: `${id}.${product}`,
            name,
            from: f.from,
            place: home(product),
            turns: ends(f.value, BAND[f.from], words, (x) =>
              withProduct(plan.context, product, { [id]: Math.min(hi, x) }),
            ),
          },
        ];
  };
  return [
    ...one("packing", "How hard it is pressed in", showShare, 0.8),
    ...one("density", "Density", (x) => `${digits(x)} g/ml`, 5),
  ];
}

/** How fast hands are, in all kinds of work named; what the log has taught is the middle of it. */
function hands(plan: Plan, kinds: KindId[]): Lever[] {
  const { shop } = plan.context.world;
  const mine = [...new Set(kinds)];
  if (!mine.length) return [];
  const learned = mine.every((k) => shop.learned.some((l) => l.kind === k));
  const share = learned ? BAND["measured here"] : BAND.default;
  const world = (k: number): World => ({
    ...plan.context.world,
    shop: {
      ...shop,
      learned: [
        ...shop.learned.filter((l) => !mine.some((k) => k === l.kind)),
        ...mine.map((kind) => ({ kind, factor: plan.context.learned(kind) * k, n: 1 })),
      ],
    },
  });
  return [
    {
      id: "hands",
      name: mine.every((k) => kindOf(k).attended) ? "The machine’s own pace" : "Minutes of work",
      from: learned ? "measured here" : "default",
      place: { at: "workshop", part: "machines" },
      turns: [1 - share, 1 + share].map((k) => ({
        say: `${Math.round(share * 100)} % ${k < 1 ? "faster" : "slower"}`,
        world: () => world(k),
      })),
    },
  ];
}

const ordered = (plan: Plan): Lever => piecesBy(plan, undefined);
/** What decides how many are begun: the number typed, else those ordered and the share lost. */
function pieces(plan: Plan): Lever[] {
  const { begin } = plan.context.job.choices;
  return begin === undefined ? [ordered(plan), ...losses(plan)] : [piecesBy(plan, begin)];
}
/** @param typed a number begun that was typed: it stays whatever is ordered */
function piecesBy(plan: Plan, typed: number | undefined): Lever {
  const { job } = plan.context;
  const n = typed ?? job.quantity;
  const d = Math.max(1, Math.round(n * BAND.chosen));
  return {
    id: "pieces",
    name: typed === undefined ? "Pieces ordered" : "Pieces begun",
    from: "brief",
    place: { at: "brief" },
    turns: [n - d, n + d]
      .filter((x) => x > 0)
      .map((x) => ({
        say: `${x} ${x === 1 ? "piece" : "pieces"}`,
        world: () =>
          withJob(
            plan.context.world,
            typed === undefined ? { quantity: x } : { choices: { ...job.choices, begin: Math.max(job.quantity, x) } },
          ),
      })),
  };
}

/** Open an hour less or more at the end of each working day. */
function hours(plan: Plan): Lever {
  const { shop } = plan.context.world;
  const clockTime = (m: number): string =>
    `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
  const later = (by: number): Hours =>
    Object.fromEntries(
      WEEKDAYS.map((d) => {
        const h = shop.hours[d];
        if (!h) return [d, null];
        const [a, b] = h.map((t) => Number(t.slice(0, 2)) * 60 + Number(t.slice(3)));
        return [d, [h[0], clockTime(clamp(b + by, a + 1, 1440))]];
      }),
    ) as unknown as Hours;
  return {
    id: "hours",
    name: "Hours of the shop",
    from: shop.hoursSet ? "your hours" : "default hours",
    place: { at: "workshop", part: "hours" },
    turns: [-HOUR, HOUR].map((by) => ({
      say: `shut an hour ${by < 0 ? "sooner" : "later"}`,
      world: () => ({ ...plan.context.world, shop: { ...shop, hours: later(by) } }),
    })),
  };
}

/** One setting of a burn, all others held. */
function setting(plan: Plan, s: Step): Lever[] {
  const laser = own(s, "laser");
  if (!laser || !byBeam(s)) return [];
  const from: Origin = laser.from === "computed" ? "computed" : laser.from === "test plate" ? "measured here" : "typed";
  // Power stops at full power: what was computed at the machine's reach can't be had higher.
  const turned = (key: "power" | "speed" | "interval", name: string, words: (x: number) => string): Lever => ({
    id: `${key}.${s.id}`,
    name,
    from: laser.from === "computed" ? "computed, a start for a test" : laser.from,
    place: { at: "step", step: s.id },
    turns: ends(laser[key], BAND[from], words, (x) => set(plan.context.world, [[s.id, key, x]])).filter(
      (_t, i) => key !== "power" || i === 0 || laser.power * (1 + BAND[from]) <= 1,
    ),
  });
  return [
    turned("power", "Power", showShare),
    turned("speed", "Speed", (x) => `${digits(Math.round(x))} mm/s`),
    turned("interval", "Interval", (x) => `${digits(x)} mm`),
    {
      id: `passes.${s.id}`,
      name: "Passes",
      from: "plan",
      place: { at: "step", step: s.id },
      turns: [
        {
          say: `${laser.passes + 1} passes`,
          world: () => set(plan.context.world, [[s.id, "passes", laser.passes + 1]]),
        },
      ],
    },
  ];
}

/** The machine itself; the step's setting stays what it is. */
function machine(plan: Plan, s: Step): Lever[] {
  const m = plan.context.machine;
  const l = own(s, "laser");
  if (!m || !l || !byBeam(s)) return [];
  const held = (w: World): World =>
    set(w, [
      [s.id, "power", l.power],
      [s.id, "speed", l.speed],
      [s.id, "interval", l.interval],
      [s.id, "passes", l.passes],
    ]);
  const one = (
    id: string,
    name: string,
    from: Origin,
    value: number,
    words: (x: number) => string,
    more: (x: number) => Partial<Machine>,
  ): Lever => ({
    id: `${id}.${m.id}`,
    name,
    from,
    place: { at: "workshop", part: "machines" },
    turns: ends(value, BAND[from], words, (x) => held(withMachine(plan.context.world, m.id, more(x)))),
  });
  return [
    one(
      "watts",
      "Watts of the laser",
      "data sheet",
      m.watts,
      (x) => `${digits(x)} W`,
      (watts) => ({ watts }),
    ),
    ...(plan.context.spotMm === null
      ? []
      : [
          one(
            "spot",
            "Spot",
            m.spotMm === null ? "default" : "measured here",
            plan.context.spotMm,
            (x) => `${digits(x)} mm`,
            (spotMm) => ({ spotMm }),
          ),
        ]),
    ...(m.galvo
      ? []
      : [
          one(
            "accel",
            "How hard it speeds up",
            "default",
            m.accel,
            (x) => `${digits(Math.round(x))} mm/s²`,
            (accel) => ({ accel }),
          ),
        ]),
  ];
}

function thickness(plan: Plan): Lever {
  const { t } = plan.context.job.substrate;
  return {
    id: "blank.t",
    name: "Thickness of the blank",
    from: "brief",
    place: { at: "brief" },
    turns: ends(
      t,
      BAND.chosen,
      (x) => showLength(x, plan.context.world.shop.units),
      (x) => withJob(plan.context.world, { substrate: { ...plan.context.job.substrate, t: clamp(x, 0.1, 500) } }),
    ),
  };
}
function diameter(plan: Plan): Lever[] {
  const d = plan.context.job.substrate.diameter;
  return d
    ? [
        {
          id: "blank.d",
          name: "Diameter",
          from: "brief",
          place: { at: "brief" },
          turns: ends(
            d,
            BAND["measured here"],
            (x) => showLength(x, plan.context.world.shop.units),
            (x) =>
              withJob(plan.context.world, {
                substrate: { ...plan.context.job.substrate, diameter: clamp(x, 1, 1000) },
              }),
          ),
        },
      ]
    : [];
}
function field(
  plan: Plan,
  s: Step | undefined,
  key: "depthMm" | "sandUm",
  name: string,
  words: (x: number) => string,
): Lever[] {
  const v = own(s, key);
  if (!s || v === null || !(v > 0)) return [];
  const from: Origin = s.edited.includes(key) ? "by hand" : "default";
  return [
    {
      id: `${key}.${s.id}`,
      name,
      from: from === "default" ? "plan" : from,
      place: { at: "step", step: s.id },
      turns: ends(v, BAND.chosen, words, (x) => set(plan.context.world, [[s.id, key, x]])),
    },
  ];
}
const depth = (plan: Plan, s: Step | undefined): Lever[] =>
  field(plan, s, "depthMm", "Depth cut", (x) => showLength(x, plan.context.world.shop.units));
const sanding = (plan: Plan, s: Step | undefined): Lever[] => field(plan, s, "sandUm", "Sanded off", showUm);
/** A film dried in a room of its own. */
function room(plan: Plan, s: Step | undefined): Lever[] {
  if (!s || own(s, "roomC") === null) return [];
  const { units } = plan.context.world.shop;
  return [
    {
      id: `room.${s.id}`,
      name: "Where it is dried",
      from: "by hand",
      place: { at: "step", step: s.id },
      turns: [-1, 1].map((k) => ({
        say: showTemp((own(s, "roomC") as number) + k * AIR_BAND.measured.c, units),
        world: () => set(plan.context.world, [[s.id, "roomC", (own(s, "roomC") as number) + k * AIR_BAND.measured.c]]),
      })),
    },
  ];
}

/** What hiding hangs on: the film at which a paint hides, and the film that a coat leaves. */
function hiders(plan: Plan, products: string[]): Lever[] {
  return products
    .filter((id) => plan.context.hasPaint(id))
    .flatMap((id) => {
      const p = plan.context.paintOf(id);
      const one = (key: "hideUm" | "coatUm", name: string): Lever[] =>
        p[key].value === null
          ? []
          : [
              {
                id: `${key}.${id}`,
                name: `${name} of ${p.product.name}`,
                from: p[key].from,
                place: home(id),
                turns: ends(
                  p[key].value,
                  BAND[p[key].from],
                  (x) => `${showUm(x)} dry`,
                  (x) => withProduct(plan.context, id, { [key]: clamp(x, 0.1, 5000) }),
                ),
              },
            ];
      return [...one("hideUm", "Hiding film"), ...one("coatUm", "Film of a coat")];
    });
}
/** A stricter and a laxer eye. */
function tolerance(plan: Plan): Lever {
  const own = plan.context.job.choices.tolerance !== null;
  return {
    id: "tolerance",
    name: "Colour may differ by",
    from: own ? "by hand" : "the shop’s",
    place: own ? { at: "brief" } : { at: "workshop", part: "screen" },
    turns: [0.5, 1.5].map((k) => ({
      say: `${digits(plan.context.tolerance * k)} (${k < 1 ? "stricter" : "laxer"})`,
      world: () =>
        withJob(plan.context.world, {
          choices: { ...plan.context.job.choices, tolerance: clamp(plan.context.tolerance * k, 0.5, 20) },
        }),
    })),
  };
}

/** The share lost. */
function losses(plan: Plan): Lever[] {
  const b = toBegin(plan.context.job);
  return b && b.loss > 0
    ? [
        {
          id: "loss",
          name: "Share lost",
          from: b.seen ? "seen here" : "default",
          place: { at: "brief" },
          turns: ends(
            b.loss,
            BAND[b.seen ? "measured here" : "default"],
            (x) => `${showShare(x)} lost`,
            (x) =>
              withJob(plan.context.world, { choices: { ...plan.context.job.choices, lossShare: Math.min(0.95, x) } }),
          ),
        },
      ]
    : [];
}

/** products whose drying is tried for a whole plan: those of the longest waits */
const PRODUCTS_TRIED = 4;
/** All that a stretch of the plan hangs on. */
function stretch(plan: Plan, from: number, to: number): Lever[] {
  const steps = plan.placed.slice(from, to + 1).filter((p) => p.actual?.end == null);
  const waits = new Map<string, number>();
  plan.placed.slice(Math.max(0, from - 1), to).forEach((_p, k) => {
    const w = waitAfter(plan, Math.max(0, from - 1) + k);
    const product = w?.film ? own(plan.placed.find((p) => p.step.id === w.film)?.step, "productId") : null;
    if (w?.min && product) waits.set(product, (waits.get(product) ?? 0) + w.min);
  });
  const longest = [...waits]
    .sort((a, b) => b[1] - a[1])
    .slice(0, PRODUCTS_TRIED)
    .map(([p]) => p);
  return [
    temperature(plan),
    humidity(plan),
    ...draught(plan),
    ...longest.flatMap((p) => drying(plan, p)),
    ...hands(
      plan,
      steps.map((p) => p.step.kind),
    ),
    ...pieces(plan),
    hours(plan),
  ];
}

/** products of films beneath that are tried beside the one that decides a wait: a drier one may come to decide */
const BENEATH_TRIED = 2;
/** What a wait hangs on: the air, the film that decides and its product, films beneath it; cooling hangs on the blank. */
function drier(plan: Plan, state: string | undefined, filmStep: string | null): Lever[] {
  if (!state || state === "set-time") return [];
  const laid = plan.placed.find((p) => p.step.id === filmStep);
  const s = laid?.step;
  const beneath = [
    ...new Set(
      (laid?.after.zones ?? []).flatMap((z) =>
        z.films
          .filter((f) => f.left > 0 && !f.phase)
          .map((f) => f.productId)
          .reverse(),
      ),
    ),
  ]
    .filter((id) => id !== own(s, "productId"))
    .slice(0, BENEATH_TRIED);
  return [
    ...inAir(plan),
    ...room(plan, s),
    ...(s ? film(plan, own(s, "productId"), [s]) : []),
    ...drying(plan, own(s, "productId")),
    ...(own(s, "productId") ? beneath.flatMap((id) => drying(plan, id)) : []),
    ...(state === "cold" ? [thickness(plan)] : []),
  ];
}

/** The levers that may move a figure; those that turn out to move nothing are dropped by whoever tries them. */
export function leversOf(whole: Plan, f: FigureRef): Lever[] {
  const plan = "step" in f ? planFor(whole, f.step) : whole;
  const steps = plan.placed.map((p) => p.step);
  const cut = steps.find((s) => kindOf(s.kind).beam === "body");
  const sand = steps.find((s) => kindOf(s.kind).sands === "face");
  const lays = (ids: (string | null)[], upTo = steps.length): Lever[] =>
    [...new Set(ids)].flatMap((id) => (id ? film(plan, id, steps.slice(0, upTo)) : []));
  if (f.of === "ready" || f.of === "margin") return stretch(plan, 0, steps.length - 1);
  if (f.of === "hands" || f.of === "painting") {
    const mine = inTurn(plan.placed).filter((p) => f.of === "hands" || isPainting(p));
    const beams =
      f.of === "hands"
        ? plan.placed
            .filter((p) => byBeam(p.step))
            .sort((a, b) => (b.minutes ?? 0) - (a.minutes ?? 0))
            .slice(0, 1)
        : [];
    return [
      ...hands(
        plan,
        mine.map((p) => p.step.kind),
      ),
      ...pieces(plan),
      ...beams.flatMap((p) => setting(plan, p.step)),
      ...hiders(plan, [
        ...new Set(mine.flatMap((p) => (isPainting(p) ? [own(p.step, "productId") ?? []].flat() : []))),
      ]),
    ];
  }
  if (f.of === "coats") return [...hiders(plan, [f.product]), tolerance(plan)];
  if (f.of === "spares") return [...losses(plan), ordered(plan)];
  if (f.of === "amount")
    return [
      ...lays([f.product]),
      ...solids(plan, f.product),
      ...powderOf(plan, f.product),
      ...(plan.context.hasPaint(f.product) && plan.context.paintOf(f.product).powder ? depth(plan, cut) : []),
      ...pieces(plan),
      ...diameter(plan),
    ];
  const i = indexOf(plan, f.step);
  if (i < 0) return [];
  const p = plan.placed[i];
  const s = p.step;
  const burnt = steps.slice(0, i + 1).filter((x) => kindOf(x.kind).beam === "film");
  switch (f.of) {
    case "modelled":
      return s.minutes !== null ? [] : [...pieces(plan), ...setting(plan, s), ...machine(plan, s), ...diameter(plan)];
    case "minutes":
      return s.minutes !== null
        ? []
        : [...hands(plan, [s.kind]), ...pieces(plan), ...setting(plan, s), ...machine(plan, s), ...diameter(plan)];
    case "load":
      return [
        ...film(plan, own(s, "productId"), [s]),
        ...solids(plan, own(s, "productId")),
        ...powderOf(plan, own(s, "productId")),
        ...(cut && i > steps.indexOf(cut) ? depth(plan, cut) : []),
        ...pieces(plan),
        ...diameter(plan),
      ];
    case "wait": {
      const w = waitAfter(plan, i);
      return w?.typed ? [] : drier(plan, w?.for, w?.film ?? null);
    }
    case "opens":
    case "shuts": {
      const need = f.of === "opens" ? lastNeed(p) : shutting(p);
      return plan.placed[i - 1]?.step.waitMin != null ? [] : drier(plan, need?.state, need?.film ?? null);
    }
    case "begins":
      return p.actual ? [] : stretch(plan, 0, i);
    case "latest":
    case "slack":
      return p.actual ? [] : stretch(plan, f.of === "slack" ? 0 : i, steps.length - 1);
    case "energy":
      return [...setting(plan, s), ...machine(plan, s)];
    case "level":
      return [
        ...depth(plan, cut),
        ...(kindOf(s.kind).beam === "body"
          ? []
          : [
              ...lays(
                steps
                  .slice(0, i + 1)
                  .filter((x) => own(x, "role") !== null && x.zones.some((z) => z !== GROUND))
                  .map((x) => own(x, "productId")),
                i + 1,
              ),
              ...sanding(plan, sand && steps.indexOf(sand) <= i ? sand : undefined),
            ]),
      ];
    case "layer": {
      const laid = steps.find((x) => x.id === f.film);
      return [
        ...(laid ? film(plan, own(laid, "productId"), [laid]) : []),
        ...powderOf(plan, own(laid, "productId")),
        ...depth(plan, cut),
        ...sanding(plan, sand && steps.indexOf(sand) <= i ? sand : undefined),
        ...burnt.flatMap((x) => [...setting(plan, x), ...machine(plan, x)]),
      ];
    }
    case "panel":
      switch (f.panel) {
        case "window":
          return [
            ...lays(
              steps.slice(0, i).map((x) => own(x, "productId")),
              i,
            ),
            ...setting(plan, s).filter((l) => !l.id.startsWith("power")),
            ...machine(plan, s),
          ];
        case "powder":
          return [...depth(plan, cut), ...powderOf(plan, own(s, "productId"))];
        case "heat":
          return [thickness(plan), temperature(plan)];
        case "depth":
          return [
            ...depth(plan, cut),
            ...lays(
              steps
                .slice(0, i + 1)
                .filter((x) => own(x, "role") !== null)
                .map((x) => own(x, "productId")),
              i + 1,
            ),
            ...sanding(plan, sand && steps.indexOf(sand) <= i ? sand : undefined),
          ];
        case "round":
          return diameter(plan);
        default:
          return [];
      }
  }
}
