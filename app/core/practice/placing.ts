/** G4 weed and open, G9 bring it back, G10 round work, G13 choose the way. */

import { defaultMachine, defaultProduct, STARTER } from "../catalogue/starter";
import { SUBSTRATES } from "../catalogue/substrates";
import { betweenSetUps, RETURN_MM, trapMm, type PlacedBy } from "../geometry/registration";
import { circumference, DOF_MM, inFocus, seam } from "../models/round/round";
import { chooseRoutes } from "../plan/choose";
import { context } from "../process/context";
import { allSafe } from "../records/machine";
import { BEAMS } from "../records/ids";
import { Job, Substrate, type Zone } from "../records/job";
import { Shop } from "../records/shop";
import type { World } from "../records/world";
import { randomOf } from "../units/random";
import { plural } from "../units/show";
import {
  clamp,
  near,
  num,
  pickOf,
  r1,
  r2,
  rect,
  towards,
  type Answer,
  type Control,
  type Drawing,
  type Exercise,
} from "./exercise";

const NAMES = ["leaf", "stem", "flower", "ring", "seed"];
const COLOURS = ["#5d9a3c", "#2b6fa6", "#a8235a", "#f3b61f", "#5a2a52"];
function weedOf(seed: number, level: number) {
  const r = randomOf(seed * 31 + level);
  const n = level === 1 ? 3 : 4;
  const order = Array.from({ length: n }, (_v, i) => i);
  for (let i = n - 1; i > 0; i--) {
    const j = r.below(i + 1);
    [order[i], order[j]] = [order[j], order[i]];
  }
  // lightest first on a face; on clear sheet, seen from the front, what lies foremost comes first
  const reverse = level === 3;
  const at = r.below(n);
  return { n, order, at, reverse, mirrored: reverse };
}
function weedPicture(t: ReturnType<typeof weedOf>): Drawing {
  const shapes = Array.from({ length: t.n }, (_v, i) => {
    const x = 12 + i * 38;
    const done = t.order.indexOf(i) < t.at;
    return [
      {
        d: rect(t.mirrored ? 176 - x - 30 : x, 15, 30, 40),
        fill: done ? COLOURS[i] : "#d8c79a",
        stroke: "#8a7440",
        line: 1,
      },
    ];
  }).flat();
  return {
    w: 176,
    h: 70,
    label: `The mask after ${t.at} ${t.at === 1 ? "visit" : "visits"}${t.mirrored ? ", seen mirrored from the back" : ""}`,
    shapes: [{ d: rect(0, 0, 176, 70), fill: "#e7dcc0" }, ...shapes],
  };
}
export const weedAndOpen: Exercise = {
  id: "weed",
  name: "Weed and open",
  about: "Which piece of the mask is lifted at this visit, also seen mirrored?",
  guide: "step-mask-lift",
  kinds: ["mask-lift", "score-mask"],
  levels: 3,
  task(seed, level) {
    const t = weedOf(seed, level);
    return {
      says:
        `Colours go in this order: ${t.order.map((i) => NAMES[i]).join(", ")}. ${t.at} ${t.at === 1 ? "is" : "are"} done` +
        `${t.mirrored ? "; the sheet lies face down, so that you see it mirrored" : ""}. Which one do you lift now?`,
      facts: [
        `From left to right${t.mirrored ? ", as it is seen from the front" : ""}: ${NAMES.slice(0, t.n).join(", ")}`,
        "What is wet or still to come stays under its mask",
      ],
      controls: [
        {
          id: "lift",
          label: "Lift the piece that you see",
          kind: "choice",
          options: Array.from({ length: t.n }, (_v, i) => ({
            value: String(i),
            label: `${["first", "second", "third", "fourth"][i]} from the left`,
          })),
          start: "0",
        },
      ],
      picture: weedPicture(t),
    };
  },
  judge(seed, level, a) {
    const t = weedOf(seed, level);
    const zone = t.order[t.at];
    const place = t.mirrored ? t.n - 1 - zone : zone;
    const got = t.mirrored ? t.n - 1 - num(a, "lift") : num(a, "lift");
    const good = num(a, "lift") === place;
    const when = t.order.indexOf(got);
    return {
      score: good ? 1 : 0,
      good,
      says: good
        ? `Yes: the ${NAMES[zone]}.`
        : when < t.at
          ? `The ${NAMES[got]} has its colour already: you would touch it.`
          : `The ${NAMES[got]} comes later: its cut would take this colour too.`,
      wrongAt: good ? null : `at the ${NAMES[got]}`,
      figures: [
        ["Due now", `the ${NAMES[zone]}, ${["first", "second", "third", "fourth"][place]} from the left as it lies`],
      ],
      picture: weedPicture({ ...t, at: t.at + 1 }),
      next: { lift: String(place) },
    };
  },
};

const HOLDERS = Object.keys(RETURN_MM) as PlacedBy[];
function backOf(seed: number, level: number) {
  const r = randomOf(seed * 37 + level);
  const visits = level === 1 ? 2 : 2 + r.below(3);
  return {
    visits,
    gap: r1(0.3 + 0.1 * r.below(12)),
    costs: { nest: 25, corner: 5, pencil: 2, eye: 0 } as Record<PlacedBy, number>,
  };
}
const OVERLAP: Extract<Control, { kind: "number" }> = {
  id: "overlap",
  label: "Later colour runs under by",
  kind: "number",
  min: 0,
  max: 2.5,
  step: 0.05,
  unit: "mm",
  start: 0,
};
export const bringItBack: Exercise = {
  id: "back",
  name: "Bring it back",
  about: "How it is held between visits, and what the overlap has to hide.",
  guide: "idea-origin",
  kinds: ["pre-flight"],
  levels: 2,
  task(seed, level) {
    const t = backOf(seed, level);
    return {
      says:
        `${t.visits} visits to the laser. The colour drawn over the join is a line of ${t.gap} mm: ` +
        "what runs under must stay hidden by it, and no gap may show.",
      facts: HOLDERS.map(
        (h) => `By ${RETURN_MM[h].name}: comes back within ${RETURN_MM[h].mm} mm, ${t.costs[h]} min to set up`,
      ),
      controls: [
        {
          id: "by",
          label: "Held by",
          kind: "choice",
          options: HOLDERS.map((h) => ({ value: h, label: RETURN_MM[h].name })),
          start: "eye",
        },
        OVERLAP,
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = backOf(seed, level);
    const by = (HOLDERS as string[]).includes(String(a.by)) ? (a.by as PlacedBy) : "eye";
    const off = betweenSetUps(RETURN_MM[by].mm, t.visits);
    const need = trapMm(off);
    const o = num(a, "overlap");
    const gap = o < need - 1e-9;
    const shows = o > t.gap + 1e-9;
    const fits = (h: PlacedBy): boolean => trapMm(betweenSetUps(RETURN_MM[h].mm, t.visits)) <= t.gap;
    const cheapest = [...HOLDERS].reverse().find(fits) ?? "nest";
    const possible = fits("nest");
    const good = !gap && (!shows || !possible) && t.costs[by] <= t.costs[cheapest];
    const next: Answer = { ...a };
    if (by !== cheapest) next.by = cheapest;
    else next.overlap = Math.ceil(need / 0.05 - 1e-9) * 0.05;
    return {
      score: clamp(
        (gap ? 0 : 0.5) + (shows && possible ? 0 : 0.25) + 0.25 * near(t.costs[by] - t.costs[cheapest], 15),
        0,
        1,
      ),
      good,
      says: good
        ? "No gap, nothing to be seen beyond the line, and no more bother than it takes."
        : gap
          ? `A gap can show: it may lie ${r2(off)} mm off.`
          : shows && possible
            ? "What runs under shows beyond the line."
            : "It holds, and something simpler would have held as well.",
      wrongAt: good
        ? null
        : gap
          ? "at the second visit: a gap"
          : shows
            ? "beside the line"
            : "before the first visit: too much set up",
      figures: [
        ["May lie off by", `${r2(off)} mm`],
        ["Has to run under by", `${r2(need)} mm`],
        ["Line hides", `${t.gap} mm`],
      ],
      picture: null,
      next,
    };
  },
};

function roundOf(seed: number, level: number) {
  const r = randomOf(seed * 41 + level);
  return { d: r1(45 + r.below(60) + 0.1 * r.below(10)), ball: level > 1, dof: DOF_MM };
}
export const roundWork: Exercise = {
  id: "round",
  name: "Round work",
  about: "The diameter that the machine is told, and how high artwork may be.",
  guide: "step-place-round",
  kinds: ["place-round"],
  levels: 2,
  task(seed, level) {
    const t = roundOf(seed, level);
    return {
      says: `A string round the ${t.ball ? "ball" : "tumbler"} is ${r1(circumference(t.d))} mm long. The drawing goes all the way round.`,
      facts: [`Focus bears ${t.dof} mm`, "A seam of half a millimetre is seen"],
      controls: [
        {
          id: "d",
          label: "Diameter that the machine is told",
          kind: "number",
          min: 30,
          max: 130,
          step: 0.1,
          unit: "mm",
          start: 60,
        },
        ...(t.ball
          ? [
              {
                id: "half",
                label: "Artwork reaches up and down by",
                kind: "number" as const,
                min: 1,
                max: 40,
                step: 0.5,
                unit: "mm",
                start: 35,
              },
            ]
          : []),
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const t = roundOf(seed, level);
    const told = num(a, "d");
    const gap = seam(t.d, told);
    const most = t.ball ? inFocus(t.d / 2, t.dof).mid : Infinity;
    const half = t.ball ? num(a, "half") : 0;
    const [seamOk, focusOk] = [Math.abs(gap) < 0.5, half <= most + 1e-9];
    const good = seamOk && focusOk;
    const d: Control = { id: "d", label: "", kind: "number", min: 30, max: 130, step: 0.1, unit: "", start: 0 };
    const next: Answer = { ...a };
    if (!seamOk) next.d = r1(Math.abs(told - t.d) < 2 ? t.d : towards(d, told, t.d));
    else if (!focusOk) next.half = Math.floor(most * 2) / 2;
    return {
      score: clamp(
        0.6 * near(Math.max(0, Math.abs(gap) - 0.5), 6) + 0.4 * (focusOk ? 1 : near(half - most, most * 0.4)),
        0,
        1,
      ),
      good,
      says: good
        ? "The ends meet, and all of it is in focus."
        : !seamOk
          ? gap > 0
            ? "The ends leave a gap: told too thin."
            : "The ends lie over one another: told too thick."
          : "Its upper and lower rim are out of focus.",
      wrongAt: good ? null : !seamOk ? "at the seam" : "at the rim",
      figures: [
        ["Diameter", `${t.d} mm: the string by π`],
        ["Seam", `${r2(gap)} mm`],
        ...(t.ball ? ([["In focus up and down", `${r1(most)} mm`]] as [string, string][]) : []),
      ],
      picture: null,
      next,
    };
  },
};

const WISHES = [
  "one tile with a photo",
  "twenty four plant labels",
  "a wall piece with three colours",
  "a gift with fine lettering",
  "coasters that get wet",
] as const;
function wishOf(seed: number, level: number, shop: World | null) {
  const r = randomOf(seed * 43 + level);
  const body = pickOf(
    SUBSTRATES.filter((s) =>
      [
        "hard-maple",
        "birch-ply",
        "tile-glazed",
        "slate",
        "acrylic-clear",
        "mdf",
        "steel-bare",
        "metal-coated",
      ].includes(s.id),
    ),
    r,
  );
  const beam = pickOf(BEAMS, r);
  const machine = shop?.machines[0] ?? allSafe(defaultMachine(beam, beam === "co2" ? 40 : 10, "m"));
  const quantity = pickOf([1, 6, 24], r);
  const use = pickOf([[], ["wet"], ["outdoors"], ["handled"]] as const, r);
  const n = 1 + r.below(level === 1 ? 1 : 3);
  const zones = Array.from({ length: n }, (_v, i): Zone => ({
    id: `z${i}`,
    name: `area ${i + 1}`,
    colour: COLOURS[i],
    wanted: COLOURS[i],
    areaMm2: 600,
    perimeterMm: 200,
    narrowestMm: level === 3 ? 0.6 : 2,
    pieces: 1,
    holes: 0,
    smallestMm2: 600,
    outline: "",
    rows: [],
    productId: null,
    bare: false,
  }));
  const substrate = { ...new Substrate(), id: body.id, w: 100, h: 80, t: body.id === "acrylic-clear" ? 3 : 6 };
  const job: Job = {
    ...new Job(),
    id: "wish",
    title: pickOf(WISHES, r),
    start: "2027-01-11T09:00",
    substrate,
    quantity,
    use: [...use],
    zones,
    machineId: machine.id,
  };
  const products = shop?.products ?? STARTER.map((s) => defaultProduct(s.id, s.name, s.finish, s.colour));
  const world: World = { shop: shop?.shop ?? new Shop(), machines: [machine], products, job, log: [] };
  const all = chooseRoutes(context(world));
  const can = all.filter((c) => !c.no.length);
  const cannot = all.filter((c) => c.no.length);
  // the best, two that can be argued or not, one that does not go; in a mixed order
  const offered = [...can.slice(0, 1), ...can.slice(2, 4), ...cannot.slice(0, 4 - Math.min(3, can.length))].slice(0, 4);
  const mixed = offered
    .map((c) => ({ c, key: r.next() }))
    .sort((x, y) => x.key - y.key)
    .map((x) => x.c);
  return { body, machine, quantity, use, n, mixed, can };
}
const USE_WORDS: Record<string, string> = { wet: "gets wet", outdoors: "stands outdoors", handled: "is handled often" };
/** points below the best at which a way can still be argued for */
const ARGUED = 1;
export const chooseTheWay: Exercise = {
  id: "way",
  name: "Choose the way",
  about: "What somebody wishes, with what stands here: which way to the colour?",
  guide: "route-A1",
  kinds: [],
  levels: 3,
  own: { of: "a machine", has: (w) => w.machines.length > 0 },
  task(seed, level, shop) {
    const t = wishOf(seed, level, shop);
    return {
      says: `${plural(t.quantity, "piece")} of ${t.body.name.toLowerCase()}, ${plural(t.n, "colour")}; the laser is ${t.machine.name}.`,
      facts: [
        t.use.length ? `It ${USE_WORDS[t.use[0]] ?? "is only looked at"}` : "It is only looked at",
        ...(level === 3 ? ["The finest line is 0.6 mm"] : []),
      ],
      controls: [
        {
          id: "way",
          label: "Way",
          kind: "choice",
          options: t.mixed.map((c) => ({ value: c.route.id, label: c.route.name })),
          start: t.mixed[t.mixed.length - 1]?.route.id ?? "",
        },
      ],
      picture: null,
    };
  },
  judge(seed, level, a, shop) {
    const t = wishOf(seed, level, shop);
    const got = t.mixed.find((c) => c.route.id === a.way);
    const best = t.mixed.filter((c) => !c.no.length).sort((x, y) => y.points - x.points)[0];
    const none = best === undefined;
    const argued = got !== undefined && !got.no.length && best !== undefined && got.points >= best.points - ARGUED;
    const good = none || argued;
    return {
      score: good ? 1 : got && !got.no.length ? 0.5 : 0,
      good,
      says: none
        ? "None of these goes here: whichever you name, another machine or material is wanted first."
        : good
          ? `It can be argued for: ${got!.reasons[0] ?? "nothing speaks against it"}`
          : got?.no.length
            ? `It does not go: ${got.no[0].why}`
            : `It goes, but “${best.route.name}” is advised: ${best.reasons[0] ?? "more speaks for it"}`,
      wrongAt: good ? null : got?.no.length ? "before anything is bought" : "in the advice",
      figures: t.mixed.map((c): [string, string] => [
        c.route.name,
        c.no.length ? c.no[0].why : (c.reasons[0] ?? "it goes"),
      ]),
      picture: null,
      next: { way: best?.route.id ?? String(a.way) },
    };
  },
};
