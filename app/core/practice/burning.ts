/** G1 burn a stack, G2 read a plate, G5 which way round. */
import { BEAM_KINDS, absorption } from "../catalogue/beams";
import { ROUTES } from "../catalogue/routes";
import { hex, linear, mix } from "../models/film/colour";
import { cuts, openShares, window } from "../models/film/reveal";
import { energy, INTERVAL_LIMIT, ripple } from "../models/laser/energy";
import { burntOf, type Source } from "../process/polarity";
import { bodyOf } from "../catalogue/substrates";
import { randomOf } from "../units/random";
import type { Beam } from "../records/ids";
import type { Machine } from "../records/machine";
import type { World } from "../records/world";
import {
  clamp,
  num,
  pickOf,
  r1,
  r2,
  rect,
  towards,
  type Answer,
  type Drawing,
  type Exercise,
  type Task,
  type Verdict,
} from "./exercise";

const COLOURS = ["#a8235a", "#f3b61f", "#d8432f", "#2b6fa6", "#5d9a3c", "#f07a5a"];
const TOP = "#17161b";
const BODY = "#f0efe9";

interface Stack {
  beam: Beam;
  watts: number;
  spot: number;
  top: number;
  under: number;
  colour: string;
  patchy: number;
  e0: number;
}
const ownBeam = (shop: World): Machine | null =>
  shop.machines.find((x) => x.beam === "blue" || x.beam === "co2") ?? null;
const OWN_BEAM: Exercise["own"] = { of: "a tube or diode laser", has: (w) => ownBeam(w) !== null };
function stackOf(seed: number, level: number, shop: World | null): Stack {
  const r = randomOf(seed * 7 + level);
  const m = shop ? ownBeam(shop) : null;
  const beam = (m?.beam as Beam) ?? pickOf<Beam>(["blue", "co2"], r);
  return {
    beam,
    watts: m?.watts ?? (beam === "blue" ? 5 + r.below(6) : 30 + r.below(31)),
    spot: m?.spotMm ?? BEAM_KINDS[beam].spotMm,
    top: 8 + r.below(10),
    under: level === 1 ? 40 + r.below(25) : 22 + r.below(20),
    colour: pickOf(COLOURS, r),
    patchy: level === 3 ? 0.16 : level === 2 ? 0.12 : 0.08,
    e0: 0.05,
  };
}
const cutsOf = (s: Stack, interval: number) =>
  cuts(
    [
      { um: s.top, patchiness: s.patchy, absorbs: absorption(s.beam, TOP) },
      { um: s.under, patchiness: s.patchy, absorbs: absorption(s.beam, s.colour) },
    ],
    s.e0,
    1,
    ripple(s.spot, interval),
  );
/** Face and section of a stack after so much energy. */
function burnt(s: Stack, e: number, interval: number): Drawing {
  const [top, under] = openShares(cutsOf(s, interval), e);
  const seen = mix(mix(linear(TOP), linear(s.colour), top), linear(BODY), under);
  const scale = 46 / (s.top + s.under);
  const [t, u] = [s.top * scale * (1 - top), s.under * scale * (1 - under)];
  return {
    w: 200,
    h: 90,
    label: `Top ${Math.round(100 * (1 - top))} % left, colour ${Math.round(100 * (1 - under))} % left`,
    shapes: [
      { d: rect(0, 0, 90, 90), fill: TOP },
      { d: rect(20, 20, 50, 50), fill: hex(seen) },
      { d: rect(110, 70, 90, 20), fill: BODY },
      { d: rect(110, 70 - s.under * scale, 25, s.under * scale), fill: s.colour },
      { d: rect(175, 70 - s.under * scale, 25, s.under * scale), fill: s.colour },
      { d: rect(135, 70 - u, 40, u), fill: s.colour },
      { d: rect(110, 70 - (s.under + s.top) * scale, 25, s.top * scale), fill: TOP },
      { d: rect(175, 70 - (s.under + s.top) * scale, 25, s.top * scale), fill: TOP },
      { d: rect(135, 70 - u - t, 40, t), fill: TOP },
    ],
  };
}
const burnControls = (s: Stack): Task["controls"] => [
  { id: "power", label: "Power", kind: "number", min: 5, max: 100, step: 1, unit: "%", start: 80 },
  {
    id: "speed",
    label: "Speed",
    kind: "number",
    min: 20,
    max: s.beam === "blue" ? 200 : 500,
    step: 5,
    unit: "mm/s",
    start: 60,
  },
  { id: "interval", label: "Between lines", kind: "number", min: 0.03, max: 0.3, step: 0.01, unit: "mm", start: 0.2 },
];
export const burnAStack: Exercise = {
  id: "burn",
  name: "Burn a stack",
  about: "Take the dark top off and leave the colour whole: power, speed, lines.",
  guide: "step-reveal",
  kinds: ["reveal", "plate"],
  levels: 3,
  own: OWN_BEAM,
  task(seed, level, shop) {
    const s = stackOf(seed, level, shop);
    return {
      says: `A ${BEAM_KINDS[s.beam].name.toLowerCase()} of ${r1(s.watts)} W, spot ${s.spot} mm. Open the dark top.`,
      facts: [
        `Top: ${s.top} µm of black, laid ${s.patchy > 0.12 ? "by hand, unevenly" : s.patchy > 0.08 ? "as most hands do" : "evenly"}`,
        `Beneath: ${s.under} µm of colour on a white body`,
      ],
      controls: burnControls(s),
      picture: burnt(s, 0, 0.08),
    };
  },
  judge(seed, level, a, shop) {
    const s = stackOf(seed, level, shop);
    const [p, v, d] = [num(a, "power") / 100, num(a, "speed"), num(a, "interval")];
    const e = energy(s.watts, p, v, d);
    const all = cutsOf(s, d);
    const [top, under] = openShares(all, e);
    const wide = d > INTERVAL_LIMIT * s.spot + 1e-9;
    const score = clamp(top * (1 - under) * (wide ? 0.7 : 1), 0, 1);
    const good = top >= 0.97 && under <= 0.03 && !wide;
    const [, vc, dc] = burnControls(s);
    const fine = Math.max(0.03, Math.floor(INTERVAL_LIMIT * s.spot * 100 + 1e-9) / 100);
    const w = window(cutsOf(s, wide ? fine : d));
    const aim = w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : e;
    const d2 = wide ? towards(dc, d, fine) : d;
    // one thing at a time: the lines, then the energy by speed, then by power
    const next: Answer = { power: p * 100, speed: v, interval: r2(d2) };
    if (!wide || d2 <= fine + 1e-9) {
      const wantV = (s.watts * p) / (aim * d2);
      const vMax = vc.kind === "number" ? vc.max : v;
      const vMin = vc.kind === "number" ? vc.min : v;
      if (wantV > vMax || wantV < vMin) {
        const v2 = clamp(wantV, vMin, vMax);
        next.speed = vc.kind === "number" ? Math.round(v2 / 5) * 5 : v2;
        next.power = Math.round(clamp((100 * aim * (next.speed as number) * d2) / s.watts, 5, 100));
      } else {
        next.speed = clamp(Math.round(wantV / 5) * 5, vMin, vMax);
        next.power = Math.round(clamp((100 * aim * (next.speed as number) * d2) / s.watts, 5, 100));
      }
    }
    const lo = w?.lo ?? 0;
    const hi = w?.hi ?? 0;
    return {
      score,
      good,
      says: good
        ? "Open to the edge, and nothing burnt beneath."
        : wide
          ? "The lines stand further apart than 0.6 of the spot: ridges of the top are left between them."
          : e < aim
            ? "Too little on the surface: part of the top is still there."
            : "Too much: it has begun to eat the colour.",
      wrongAt: good ? null : wide ? "between the lines" : e < aim ? "in the top" : "in the colour",
      figures: [
        ["On the surface", `${r2(e)} J/mm²`],
        ["Window at these lines", lo < hi ? `${r2(lo)} to ${r2(hi)} J/mm²` : "shut"],
        ["Top left", `${Math.round(100 * (1 - top))} %`],
        ["Colour left", `${Math.round(100 * (1 - under))} %`],
      ],
      picture: burnt(s, e, d),
      next,
    };
  },
};

const CELLS = 8;
interface PlateTask {
  s: Stack;
  energies: number[];
  best: number[];
}
function plateOf(seed: number, level: number, shop: World | null): PlateTask {
  const s = stackOf(seed + 91, level, shop);
  const r = randomOf(Math.imul(seed, 40503) + 7919 * level);
  const interval = Math.max(0.03, Math.floor(INTERVAL_LIMIT * s.spot * 100) / 100);
  const all = cutsOf(s, interval);
  const middle = Math.sqrt(all[0].c * all[1].c);
  const spread = level === 1 ? 3.4 : 2.6;
  const before = 0.15 + 0.7 * r.next();
  const energies = Array.from({ length: CELLS }, (_v, i) => middle * Math.exp(spread * (i / (CELLS - 1) - before)));
  const worth = energies.map((e) => {
    const [top, under] = openShares(all, e);
    return top * (1 - under);
  });
  const most = Math.max(...worth);
  return { s, energies, best: worth.flatMap((w, i) => (w >= most - 0.004 ? [i] : [])) };
}
function platePicture({ s, energies }: PlateTask, dim: boolean): Drawing {
  const interval = Math.max(0.03, Math.floor(INTERVAL_LIMIT * s.spot * 100) / 100);
  const shapes = energies.map((e, i) => {
    const [top, under] = openShares(cutsOf(s, interval), e);
    const c = mix(mix(linear(TOP), linear(s.colour), top), linear(BODY), under);
    return { d: rect(6 + i * 24, 10, 20, 20), fill: hex(dim ? mix([0, 0, 0], c, 0.35) : c) };
  });
  return {
    w: 200,
    h: 40,
    label: `A plate of ${CELLS} cells, weakest first${dim ? ", in low light" : ""}`,
    shapes: [{ d: rect(0, 0, 200, 40), fill: dim ? "#08080a" : TOP }, ...shapes],
  };
}
export const readAPlate: Exercise = {
  id: "plate",
  name: "Read a plate",
  about: "Which cell is the one to go by?",
  guide: "step-plate",
  kinds: ["plate"],
  levels: 3,
  own: OWN_BEAM,
  task(seed, level, shop) {
    const t = plateOf(seed, level, shop);
    return {
      says: "The plate is wiped. Cells grow in energy from left to right. Which one would you go by?",
      facts: ["All of the dark must be gone, and none of the colour touched."],
      controls: [
        {
          id: "cell",
          label: "Cell",
          kind: "choice",
          options: Array.from({ length: CELLS }, (_v, i) => ({ value: String(i), label: `${i + 1}` })),
          start: "0",
        },
      ],
      picture: platePicture(t, level === 3),
    };
  },
  judge(seed, level, a, shop) {
    const t = plateOf(seed, level, shop);
    const cell = num(a, "cell");
    const good = t.best.includes(cell);
    const off = Math.min(...t.best.map((b) => Math.abs(b - cell)));
    const weak = cell < t.best[0];
    return {
      score: clamp(1 - off / 4, 0, 1),
      good,
      says: good
        ? "Yes: open, and whole beneath."
        : weak
          ? "There the top is not gone yet."
          : "There the colour is burnt already.",
      wrongAt: good ? null : weak ? `cell ${cell + 1}: too weak` : `cell ${cell + 1}: too strong`,
      figures: t.energies.map((e, i): [string, string] => [
        `Cell ${i + 1}`,
        `${r2(e)} J/mm²${t.best.includes(i) ? ", in the window" : ""}`,
      ]),
      picture: platePicture(t, false),
      next: { cell: String(good ? cell : cell + (weak ? 1 : -1)) },
    };
  },
};

interface Way {
  source: Source;
  route: (typeof ROUTES)[number];
  body: string;
}
const WAYS: Way[] = (["drawing", "picture"] as const).flatMap((source) =>
  (
    [
      ["A1", "tile-glazed"],
      ["E1", "hard-maple"],
      ["I", "acrylic-clear"],
      ["N", "hard-maple"],
      ["N", "slate"],
      ["B", "tile-glazed"],
    ] as const
  ).map(([id, body]) => ({ source, route: ROUTES.find((r) => r.id === id)!, body })),
);
const wayAt = (seed: number, level: number): Way => pickOf(WAYS, randomOf(seed * 3 + level));
export const wayRound: Exercise = {
  id: "way-round",
  name: "Which way round",
  about: "Mirrored or not, inverted or not, for this artwork on this way.",
  guide: "idea-figure-ground",
  kinds: ["pre-flight"],
  levels: 2,
  task(seed, level) {
    const w = wayAt(seed, level);
    const body = bodyOf({ id: w.body });
    return {
      says:
        `${w.source === "drawing" ? "A drawing with filled areas" : "A photo in tones"} on ${body.name.toLowerCase()}: ` +
        `${w.route.name.toLowerCase()}.`,
      facts: [w.route.gives],
      controls: [
        {
          id: "invert",
          label: "Invert it?",
          kind: "choice",
          options: [
            { value: "no", label: "as it is" },
            { value: "yes", label: "inverted" },
          ],
          start: level === 1 ? "no" : "yes",
        },
        {
          id: "mirror",
          label: "Mirror it?",
          kind: "choice",
          options: [
            { value: "no", label: "as it is" },
            { value: "yes", label: "mirrored" },
          ],
          start: "yes",
        },
      ],
      picture: null,
    };
  },
  judge(seed, level, a) {
    const w = wayAt(seed, level);
    const truth = burntOf(w.source, w.route, bodyOf({ id: w.body }));
    const [inv, mir] = [truth.inverted ? "yes" : "no", w.route.mirrored ? "yes" : "no"];
    const right = [a.invert === inv, a.mirror === mir];
    const good = right.every(Boolean);
    return {
      score: right.filter(Boolean).length / 2,
      good,
      says:
        `It goes in ${truth.says}; ` +
        (w.route.mirrored
          ? "mirrored, since it is worked from the back."
          : "not mirrored, since it is worked from the front."),
      wrongAt: good ? null : right[0] ? "mirrored" : "inverted",
      figures: [],
      picture: null,
      next: right[0] ? { invert: inv, mirror: mir } : { invert: inv, mirror: String(a.mirror) },
    } satisfies Verdict;
  },
};
