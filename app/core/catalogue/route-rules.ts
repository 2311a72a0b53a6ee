/**
 * Which route: the questions in the order a maker asks them, as data. Each answers for some jobs, speaks for or against routes, and
 * says why. A shop may switch any of them off. Adding one is adding a row.
 */
import type { Beam, Use } from "../records/ids";
import { BEAM_KINDS } from "./beams";
import type { Route } from "./routes";
import type { SubstrateKind } from "./substrates";

export interface Asked {
  /** the body by its name, and whether one looks through it */
  body: string;
  clear: boolean;
  family: SubstrateKind["family"];
  grain: SubstrateKind["grain"];
  veneer: boolean;
  beam: string | null;
  quantity: number;
  colours: number;
  /** every colour that is wanted is nearly black */
  dark: boolean;
  use: Use[];
  ovenFits: boolean;
  narrowestMm: number | null;
  /** a photo or logo is to be drawn in tones */
  picture: boolean;
}
export interface RouteRule {
  id: string;
  asks: string;
  applies(a: Asked): boolean;
  /** route ids it speaks for (above 0) or against */
  weighs: Record<string, number>;
  why: string;
  /** what it says of a route that the common reason is not about */
  apart?: Record<string, string>;
}
/** pieces from which a job is a run */
export const RUN_FROM = 6;
const wood = (a: Asked): boolean => a.family === "wood";

const wetTile = (a: Asked): boolean => a.family === "tile" && a.use.some((u) => u === "wet" || u === "outdoors");
const PAINT_LIFTS = "Paint on a glaze that gets wet or stands outdoors must be sealed, and lifts in the end.";
const ON_GLAZE = { A1: -3, A2: -3, A3: -3, A4: -3 };
const LIFTS = { A1: PAINT_LIFTS, A2: PAINT_LIFTS, A3: PAINT_LIFTS, A4: PAINT_LIFTS };

export const ROUTE_RULES: RouteRule[] = [
  {
    id: "clear-sheet",
    asks: "What is it made of?",
    applies: (a) => a.clear,
    weighs: { I: 6 },
    why: "Behind a clear sheet colour is seen through a flawless face, and nothing scratches it.",
  },
  {
    id: "opaque-sheet",
    asks: "What is it made of?",
    applies: (a) => a.family === "acrylic" && !a.clear,
    weighs: { D1: 3, H: 1 },
    why: "Sprayed into a shallow cut through a mask, colour in acrylic stays crisp.",
    apart: { H: "Sprayed through a stencil on the face: several colours, with nothing cut into the sheet." },
  },
  {
    id: "coated-metal",
    asks: "What is it made of?",
    applies: (a) => a.family === "coated-metal",
    weighs: { D5: 4 },
    why: "A coating is opened through tape, and the bare metal takes the paint.",
  },
  {
    id: "coated-glass",
    asks: "What is it made of?",
    applies: (a) => a.family === "glass",
    weighs: { J: 4 },
    why: "What lies inside a coated glass is opened from without and filled from within.",
  },
  {
    id: "metal-1um",
    asks: "What beam?",
    applies: (a) => a.family === "metal" && a.beam === "um1",
    weighs: { D2: 6 },
    why: "A 1 µm beam cuts bare metal: enamel in the cut is hard, and lies below the face.",
  },
  {
    id: "one-off-wood",
    asks: "One piece or a run?",
    applies: (a) => wood(a) && a.quantity < RUN_FROM,
    weighs: { E1: 6 },
    why: "For a few pieces of wood, sealing, filling and sanding back costs least.",
  },
  {
    id: "run-diode",
    asks: "What beam?",
    applies: (a) => wood(a) && a.quantity >= RUN_FROM && a.beam === "blue",
    weighs: { E2: 6, E1: 2 },
    why: "A run on a diode: a mask would scorch, powder fills quickly.",
    apart: { E1: "A run on a diode: a mask would scorch; a brush fills the cut without one, piece by piece." },
  },
  {
    id: "run-co2-oven",
    asks: "Does it fit the oven?",
    applies: (a) => wood(a) && a.quantity >= RUN_FROM && a.beam === "co2" && a.ovenFits,
    weighs: { D4: 6, D3: 4, E1: 2 },
    why: "A run on CO2 that fits the oven: several pieces melt at once, evenly.",
    apart: {
      D3: "A run on CO2: the gun melts piece by piece, where the oven would take several at once.",
      E1: "A run on CO2: filled by brush and sanded back, it needs neither mask nor powder, but every piece is filled by hand.",
    },
  },
  {
    id: "run-co2",
    asks: "Does it fit the oven?",
    applies: (a) => wood(a) && a.quantity >= RUN_FROM && a.beam === "co2" && !a.ovenFits,
    weighs: { D3: 6, E1: 3 },
    why: "A run on CO2 without an oven: the gun does it piece by piece.",
    apart: {
      E1: "A run on CO2 without an oven: filled by brush and sanded back, it needs neither mask nor heat.",
    },
  },
  {
    id: "open-grain",
    asks: "Tight or open grain?",
    applies: (a) => a.grain === "open",
    weighs: { E1: -1, E2: -1, D1: -2, H: -2 },
    why: "Open grain carries colour past any edge, sprayed colour most.",
  },
  {
    id: "veneer",
    asks: "Solid or veneer?",
    applies: (a) => a.veneer,
    weighs: { E1: -2, E2: -2, D1: 2, D3: 1 },
    why: "Sanding back eats a veneer; a mask needs no sanding.",
  },
  {
    id: "one-colour-dark",
    asks: "How many colours?",
    applies: (a) => !wood(a) && a.colours <= 1,
    weighs: { A1: 4 },
    why: "One colour under a dark top is the crispest and the easiest.",
  },
  {
    id: "colours-dark",
    asks: "Do the colours touch?",
    applies: (a) => !wood(a) && a.colours > 1,
    weighs: { A3: 4, A4: 2, A2: 3 },
    why: "Several colours under one dark top: side by side, or stacked where they lie within one another.",
  },
  {
    id: "metal-wear",
    asks: "Will it be handled?",
    applies: (a) => a.family === "metal" && a.use.some((u) => u !== "display"),
    weighs: { D2: 3 },
    why: "Enamel in a cut bears handling; paint on the face chips.",
  },
  {
    id: "tile-wet-dark",
    asks: "Will it be wet or outdoors?",
    applies: (a) => wetTile(a) && a.dark,
    weighs: { B: 6, C1: 3, ...ON_GLAZE },
    why: "A dark picture burnt into the glaze stays; paint on it must be sealed.",
    apart: { C1: "What is rubbed into the opened ceramic stays under its clear coat.", ...LIFTS },
  },
  {
    id: "tile-wet",
    asks: "Will it be wet or outdoors?",
    applies: (a) => wetTile(a) && !a.dark,
    weighs: { C1: 6, C2: 6, C3: 4, B: 3, ...ON_GLAZE },
    why: "Colour in the opened ceramic stays; paint on the glaze must be sealed.",
    apart: { B: "What is burnt into the glaze stays, though in one dark tone.", ...LIFTS },
  },
  {
    id: "photo-bare",
    asks: "Is it a photo?",
    applies: (a) => a.picture && (wood(a) || ["slate", "coated-metal", "acrylic"].includes(a.family)),
    weighs: { N: 5 },
    why: "A photo in the material itself needs no paint: nothing to wait for, nothing that chips.",
  },
  {
    id: "small-letters",
    asks: "How small is the smallest stroke?",
    applies: (a) => a.narrowestMm !== null && a.narrowestMm < 0.8,
    weighs: { E1: -2, A1: 1, D1: 1 },
    why: "A brush fills 0.8 mm and up; what is uncovered or sprayed can be finer.",
  },
];

/** What a job answers to each question, in the order they are asked; null: it is not asked of such a piece. */
const ANSWERS: Record<string, (a: Asked) => string | null> = {
  "What is it made of?": (a) => a.body.toLowerCase(),
  "One piece or a run?": (a) => `${a.quantity}: ${a.quantity < RUN_FROM ? "a few" : "a run"}`,
  "What beam?": (a) => (a.beam ? BEAM_KINDS[a.beam as Beam].name.split(",")[0] : "no machine chosen"),
  "Does it fit the oven?": (a) => (a.ovenFits ? "yes" : "no, or there is none"),
  "Tight or open grain?": (a) => (a.family === "wood" ? (a.grain ?? "not known") : null),
  "Solid or veneer?": (a) => (a.family === "wood" ? (a.veneer ? "veneer" : "solid") : null),
  "How many colours?": (a) => (wood(a) ? null : String(a.colours)),
  "Do the colours touch?": (a) => (wood(a) || a.colours < 2 ? null : `${a.colours} of them`),
  "Will it be handled?": (a) => (a.use.includes("handled") ? "yes" : "not said"),
  "Will it be wet or outdoors?": (a) => a.use.filter((u) => u === "wet" || u === "outdoors").join(", ") || "not said",
  "Is it a photo?": (a) => (a.picture ? "yes" : null),
  "How small is the smallest stroke?": (a) =>
    a.narrowestMm === null ? "not measured" : `${Math.round(a.narrowestMm * 100) / 100} mm`,
};
export interface Answered {
  asks: string;
  answer: string;
  /** what follows from it: routes it speaks for and against, and why */
  says: { why: string; for: string[]; against: string[] }[];
}
/** How the shop weighs its questions: those it does not go by, and weights of its own. */
export interface OwnRules {
  off?: readonly string[];
  weights?: readonly { rule: string; route: string; weight: number }[];
}
/** What a question weighs for a route: as the shop says, else as it is given. */
export const weightOf = (x: RouteRule, route: string, own: OwnRules): number =>
  own.weights?.find((w) => w.rule === x.id && w.route === route)?.weight ?? x.weighs[route] ?? 0;
/** Routes that a question speaks of. */
const spoken = (x: RouteRule, own: OwnRules): string[] => [
  ...new Set([...Object.keys(x.weighs), ...(own.weights ?? []).filter((w) => w.rule === x.id).map((w) => w.route)]),
];
const asksFor = (a: Asked, own: OwnRules): RouteRule[] =>
  ROUTE_RULES.filter((x) => !own.off?.includes(x.id) && x.applies(a));

/** The questions in their order with their answers, and what each says of which routes. */
export function pathOf(a: Asked, own: OwnRules = {}): Answered[] {
  const asks = [...new Set(ROUTE_RULES.map((r) => r.asks))];
  return asks.flatMap((q) => {
    const answer = ANSWERS[q]?.(a) ?? null;
    if (answer === null) return [];
    const says = asksFor(a, own)
      .filter((r) => r.asks === q)
      .map((r) => ({
        why: r.why,
        for: spoken(r, own).filter((id) => weightOf(r, id, own) > 0),
        against: spoken(r, own).filter((id) => weightOf(r, id, own) < 0),
      }));
    return [{ asks: q, answer, says }];
  });
}

/** Points for a route with the reasons, strongest first. */
export function weigh(r: Route, a: Asked, own: OwnRules = {}): { points: number; reasons: string[] } {
  const by = (x: RouteRule): number => weightOf(x, r.id, own);
  const mine = asksFor(a, own)
    .filter((x) => by(x) !== 0)
    .sort((x, y) => Math.abs(by(y)) - Math.abs(by(x)));
  return {
    points: mine.reduce((n, x) => n + by(x), 0),
    reasons: mine.map((x) => `${by(x) > 0 ? "For" : "Against"}: ${x.apart?.[r.id] ?? x.why}`),
  };
}

/** All questions as a file: what each weighs by now, and as it is given. */
export const rulesFile = (own: OwnRules): string =>
  JSON.stringify(
    {
      richlayerRouteQuestions: 1,
      questions: ROUTE_RULES.map((x) => ({
        id: x.id,
        asks: x.asks,
        why: x.why,
        on: !own.off?.includes(x.id),
        weighs: Object.fromEntries(spoken(x, own).map((id) => [id, weightOf(x, id, own)])),
        given: x.weighs,
      })),
    },
    null,
    1,
  );
