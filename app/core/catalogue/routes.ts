/**
 * Route families as data: what each needs, and its phases in order. One engine (plan/generate.ts) turns phases into steps by
 * looking at the state of the piece; a further route is a further row.
 */
import type { Beam, CoatRole, RouteId } from "../records/ids";
import { FINISHES, type Finish, type FinishId } from "./finishes";
import type { Family, SubstrateId } from "./substrates";

/** When a phase is done at all: by what the piece is made of, and how many there are. */
export type When = "round" | "bare-metal" | "batch" | "hard" | "absorbent" | "tile-masked" | "sand-after" | "cuttable";

/** How the colours of a job follow one another; each is worked out in plan/colours.ts. */
export type ColourWay =
  | "stack"
  | "beside"
  | "bands"
  | "filled"
  | "powder"
  | "powder-visits"
  | "nested"
  | "stencil"
  | "reverse"
  | "poured"
  | "dyed"
  | "inked";

/** One phase; `K`: the kinds of step that it may name. */
export type Phase<K extends string = string> =
  /** one step of a kind */
  | { do: "step"; kind: K; when?: When }
  /** coats until something is true of the state */
  | {
      do: "coats";
      role: CoatRole;
      over: "face" | "zones";
      until: "hides" | "count";
      count?: number;
      kept?: "no-clear";
      when?: When;
    }
  /** white only as far as it saves coats of colour */
  | { do: "undercoat" }
  | { do: "laser"; kind: "reveal" | "engrave" | "open-skin" | "burn-in" | "mark" }
  /** the face masked, to be engraved or scored through; `heat`: the mask must bear melting */
  | { do: "mask"; heat?: "gun" | "oven"; when?: When }
  /** everything that still masks it comes off */
  | { do: "lift" }
  /** a light clear coat into a raw cut, so that colour does not creep along the grain */
  | { do: "barrier" }
  | { do: "colours"; how: ColourWay; melt?: "gun" | "oven" | "laser" }
  /** finishing moves that the job asks for (K) */
  | { do: "finishing" };

/** Paints by what they are, not by name: every word that is given must fit. */
export interface Takes {
  by?: readonly Finish["by"][];
  family?: readonly Finish["family"][];
  /** pigment that burns into glaze */
  burnsIn?: true;
  /** what hides by its film: no powder, no dye, no ink */
  body?: true;
}
const fits = (t: Takes, f: Finish): boolean =>
  f.role === "colour" &&
  (!t.by || t.by.includes(f.by)) &&
  (!t.family || t.family.includes(f.family)) &&
  (!t.burnsIn || f.burnsIn === true) &&
  (!t.body || (!f.powder && !f.stains));

export interface Route<K extends string = string> {
  id: RouteId;
  name: string;
  /** what it gives, in one sentence */
  gives: string;
  /** how it goes, for the choice */
  goes: string;
  families: Family[];
  /** only these of the families; absent: all */
  substrates?: readonly SubstrateId[];
  beams: Beam[];
  maxColours: number;
  /** goes where no zone has a colour: the dark top is uncovered to the body */
  bareAlone?: true;
  /** the beam lifts a dark top where colour is to show */
  lifts: boolean;
  /** the beam may draw a picture over all areas, in dots or power; absent: it works on the areas themselves */
  pictures?: true;
  /** artwork goes to the laser mirrored */
  mirrored: boolean;
  /** which side is worked: behind a clear sheet it is seen from the other */
  side: "front" | "back" | "inside";
  shapes: ("flat" | "ball" | "cylinder")[];
  /** paints that may fill a zone; a finish suits if one of these does; none: the beam's own mark is all there is */
  takes: readonly Takes[];
  /** the finish to begin with where none is named; null: it takes none */
  usual: FinishId | null;
  /** cut as deep as sanding, sealer and coats want, or as deep as is usual for what fills it */
  depth: "as-needed" | "usual";
  /** what a zone shows in the end: its paint, or the mark of the burn */
  shows: "paint" | "mark";
  /** share of pieces lost before the shop knows better (M15) */
  loss: number;
  phases: readonly Phase<K>[];
}

const step = <const K extends string>(kind: K, when?: When): Phase<K> => ({ do: "step", kind, when });
const begin = [step("inspect-blank"), step("label")];
const end = [{ do: "finishing" as const }, step("final-check")];
const coats = (role: CoatRole, count: number, when?: When): Phase<never> => ({
  do: "coats",
  role,
  over: "face",
  until: "count",
  count,
  ...(role === "clear" ? { kept: "no-clear" as const } : {}),
  ...(when ? { when } : {}),
});
const clean = [step("scuff", "bare-metal"), step("degrease", "hard"), step("dust", "absorbent")];
const flat = {
  lifts: false,
  mirrored: false,
  side: "front" as const,
  shapes: ["flat" as const],
  shows: "paint" as const,
  depth: "usual" as const,
};
const SPRAYS = { takes: [{ by: ["spray", "airbrush"] }], usual: "spray-enamel" } as const;
const POWDERS = { takes: [{ by: ["powder"] }], usual: "powder" } as const;
/** before paint over the whole face: what drinks is sealed or primed, what does not is degreased */
const faced = [
  step("scuff", "bare-metal"),
  step("degrease", "hard"),
  step("dust", "absorbent"),
  {
    do: "coats" as const,
    role: "seal" as const,
    over: "face" as const,
    until: "count" as const,
    count: 1,
    when: "absorbent" as const,
  },
];
const UNDER_DARK: Family[] = ["tile", "mdf", "metal", "slate", "canvas"];
const ALL: Beam[] = ["co2", "blue", "um1", "uv"];
const revealed = [
  { do: "coats" as const, role: "top" as const, over: "face" as const, until: "hides" as const },
  step("plate"),
  step("proof", "batch"),
  { do: "laser" as const, kind: "reveal" as const },
  step("wash"),
  coats("clear", 3),
  ...end,
];

/** bodies that a beam digs a recess into which powder is pressed; clear sheet shows every grain from behind */
const EVERYTHING_BUT_CLEAR = [
  "hard-maple",
  "cherry",
  "walnut",
  "birch-ply",
  "pine",
  "oak",
  "mdf",
  "slate",
  "aluminium-bare",
  "steel-bare",
  "acrylic-opaque",
] as const;

const ROWS = [
  {
    ...flat,
    id: "A1",
    pictures: true,
    name: "Colour under a dark top",
    gives: "One colour, crisp, uncovered by the laser. The easiest to begin with.",
    goes:
      "Lay the colour over the whole face, then a thin dark top; wait until it is laser-safe; the laser " +
      "lifts the dark where the picture is; clean; clear coat. Zones set to bare material are uncovered down to it: " +
      "dark paint on bright metal, with nothing beneath.",
    families: UNDER_DARK,
    beams: ALL,
    maxColours: 1,
    bareAlone: true,
    lifts: true,
    takes: [{ body: true }],
    usual: "spray-enamel",
    loss: 0.05,
    phases: [...begin, ...faced, { do: "coats", role: "colour", over: "face", until: "hides" }, ...revealed],
  },
  {
    ...flat,
    id: "A2",
    pictures: true,
    name: "Stacked colours, dug by power",
    gives: "Several colours from one visit to the laser: more energy digs to a lower one.",
    goes:
      "Lay the lightest colour first, each thick enough to stop the beam, the dark top last; each area " +
      "is lifted down to its own colour.",
    families: UNDER_DARK,
    beams: ALL,
    maxColours: 3,
    lifts: true,
    ...SPRAYS,
    loss: 0.05,
    phases: [...begin, ...faced, { do: "colours", how: "stack" }, ...revealed],
  },
  {
    ...flat,
    id: "A3",
    pictures: true,
    name: "Colours side by side under one dark top",
    gives: "Areas of colour that a dark picture ties together; rough borders vanish under its lines.",
    goes: "Lay each colour through a loose or cut shield, then one dark top over all; the laser lifts it where the picture is.",
    families: UNDER_DARK,
    beams: ALL,
    maxColours: 6,
    lifts: true,
    ...SPRAYS,
    loss: 0.05,
    phases: [...begin, ...faced, { do: "colours", how: "beside" }, ...revealed],
  },
  {
    ...flat,
    id: "A4",
    pictures: true,
    name: "Blended bands under a dark top",
    gives: "Colours that run into one another behind a crisp picture.",
    goes:
      "A white base; the bands sprayed wet into one another in one go, overlapping generously, with a margin of scrap; " +
      "then one dark top; test on the margin, saw it off.",
    families: UNDER_DARK,
    beams: ALL,
    maxColours: 6,
    lifts: true,
    ...SPRAYS,
    loss: 0.05,
    phases: [
      ...begin,
      ...faced,
      { do: "coats", role: "white", over: "face", until: "hides" },
      { do: "colours", how: "bands" },
      ...revealed,
    ],
  },
  {
    ...flat,
    id: "B",
    pictures: true,
    name: "White burnt into the glaze",
    gives: "A dark, permanent picture in the glaze itself, in one tone.",
    goes: "One coat of titanium white on a clean tile; the laser darkens and fuses it into the glaze; the rest is stripped.",
    families: ["tile"],
    beams: ["co2", "blue", "uv"],
    maxColours: 1,
    takes: [{ burnsIn: true }],
    usual: "titanium-white",
    shows: "mark",
    loss: 0.05,
    phases: [
      ...begin,
      step("degrease"),
      { do: "coats", role: "colour", over: "face", until: "count", count: 1 },
      step("plate"),
      step("proof", "batch"),
      { do: "laser", kind: "burn-in" },
      step("strip-rest"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "C1",
    pictures: true,
    name: "Glaze opened, dyed",
    gives: "A fine stained drawing under a glaze that stays clean.",
    goes:
      "The laser opens the glaze; a water-based dye is rubbed over; the whole glaze is wiped clean and " +
      "only open ceramic keeps it; seal.",
    families: ["tile"],
    beams: ["uv", "co2"],
    maxColours: 1,
    takes: [{ family: ["dye"] }],
    usual: "ceramic-dye",
    loss: 0.08,
    phases: [
      ...begin,
      step("degrease"),
      { do: "mask", when: "tile-masked" },
      step("plate"),
      step("proof", "batch"),
      { do: "laser", kind: "open-skin" },
      step("wash"),
      { do: "colours", how: "dyed" },
      { do: "lift" },
      coats("clear", 3),
      ...end,
    ],
  },
  {
    ...flat,
    id: "C2",
    name: "Glaze opened, drawn with paint markers",
    gives: "Areas of colour with a burnished shading.",
    goes:
      "The laser opens the glaze; markers fill area by area, outline first; when all is quite dry it is " +
      "wiped with a firm thumb, one colour at a time; seal.",
    families: ["tile"],
    beams: ["uv", "co2"],
    maxColours: 6,
    takes: [{ by: ["marker"], family: ["acrylic"] }],
    usual: "paint-marker",
    loss: 0.08,
    phases: [
      ...begin,
      step("degrease"),
      { do: "mask", when: "tile-masked" },
      step("plate"),
      step("proof", "batch"),
      { do: "laser", kind: "open-skin" },
      step("wash"),
      { do: "colours", how: "inked" },
      step("wipe-back"),
      { do: "lift" },
      coats("clear", 3),
      ...end,
    ],
  },
  {
    ...flat,
    id: "C3",
    name: "Glaze opened deep, sealed, inked",
    gives: "Lines in marker or metal, broad areas in alcohol ink.",
    goes:
      "Cut the lines deep into the glaze, seal them; lines by marker, areas dabbed with alcohol ink behind " +
      "a paper shield; wipe the glaze; seal in three or four coats.",
    families: ["tile"],
    beams: ["uv", "co2"],
    maxColours: 6,
    takes: [{ by: ["marker"] }],
    usual: "alcohol-ink",
    loss: 0.08,
    phases: [
      ...begin,
      step("degrease"),
      { do: "mask", when: "tile-masked" },
      step("plate"),
      step("proof", "batch"),
      { do: "laser", kind: "open-skin" },
      step("wash"),
      { do: "coats", role: "seal", over: "zones", until: "count", count: 1 },
      { do: "colours", how: "inked" },
      step("wipe-back"),
      { do: "lift" },
      coats("clear", 4),
      ...end,
    ],
  },
  {
    ...flat,
    id: "D1",
    name: "Masked, engraved, sprayed",
    gives: "Crisp sprayed colour in a shallow cut, several colours.",
    goes:
      "Stick a mask down hard, engrave through it; a light clear coat into a raw cut; spray light passes, " +
      "upright, the other colours covered; lift, weed, clear coat.",
    families: ["wood", "mdf", "acrylic", "slate"],
    substrates: ["hard-maple", "cherry", "walnut", "birch-ply", "pine", "oak", "mdf", "acrylic-opaque", "slate"],
    beams: ["co2", "blue"],
    maxColours: 6,
    ...SPRAYS,
    loss: 0.08,
    phases: [
      ...begin,
      ...clean,
      { do: "mask" },
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("dust"),
      { do: "barrier" },
      { do: "colours", how: "filled" },
      { do: "lift" },
      step("sand-back", "sand-after"),
      step("dust", "sand-after"),
      coats("clear", 2),
      ...end,
    ],
  },
  {
    ...flat,
    id: "D2",
    name: "Metal masked, engraved, filled with enamel",
    gives: "Hard, glossy colour in metal that bears handling.",
    goes: "Mask, engrave, wash the cut out; a thin first coat with the walls wetted, a second flooded to a level pool; lift, weed, buff.",
    families: ["metal"],
    beams: ["um1"],
    maxColours: 6,
    takes: [
      { by: ["brush"], family: ["enamel"] },
      { by: ["spray"], family: ["enamel", "lacquer"] },
    ],
    usual: "brush-enamel",
    loss: 0.08,
    phases: [
      ...begin,
      step("degrease"),
      { do: "mask" },
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("wash"),
      { do: "colours", how: "filled" },
      { do: "lift" },
      step("sand-back", "sand-after"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "D3",
    name: "Masked, engraved, powder melted with a gun",
    gives: "Thick, glossy colour, one piece at a time.",
    goes:
      "Mask, engrave deep, press powder in, scrape level; low fan, high heat, moving, until dull turns " +
      "glossy; it sinks: fill again; let it go cold, lift.",
    families: ["wood", "mdf", "metal", "slate", "acrylic"],
    substrates: EVERYTHING_BUT_CLEAR,
    beams: ["co2", "blue", "um1"],
    maxColours: 6,
    ...POWDERS,
    loss: 0.08,
    phases: [
      ...begin,
      ...clean.slice(1),
      { do: "mask", heat: "gun" },
      step("proof", "batch"),
      { do: "colours", how: "powder-visits", melt: "gun" },
      { do: "lift" },
      step("sand-back", "sand-after"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "D4",
    name: "Masked, engraved, powder melted in an oven",
    gives: "As with a gun, more even, several pieces at once.",
    goes:
      "Mask with a tape that bears it, engrave deep, press powder in; melt in an oven never again used " +
      "for food; fill again; let it go cold, lift.",
    families: ["wood", "mdf", "metal", "slate"],
    beams: ["co2", "blue", "um1"],
    maxColours: 6,
    ...POWDERS,
    loss: 0.08,
    phases: [
      ...begin,
      ...clean.slice(1),
      { do: "mask", heat: "oven" },
      step("proof", "batch"),
      { do: "colours", how: "powder-visits", melt: "oven" },
      { do: "lift" },
      step("sand-back", "sand-after"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "D5",
    name: "Coated metal masked, opened, sprayed",
    gives: "Tags and plates in runs.",
    goes:
      "Mask, engrave through tape and coating to the metal, spray, wait two or three hours, lift with a " +
      "pin, clear coat. The first goes out as a proof.",
    shapes: ["flat", "cylinder"],
    families: ["coated-metal"],
    beams: ["um1", "uv"],
    maxColours: 6,
    ...SPRAYS,
    loss: 0.08,
    phases: [
      ...begin,
      step("degrease"),
      { do: "mask" },
      step("place-round", "round"),
      step("proof", "batch"),
      { do: "laser", kind: "open-skin" },
      step("dust"),
      { do: "colours", how: "filled" },
      { do: "lift" },
      coats("clear", 2),
      ...end,
    ],
  },
  {
    ...flat,
    id: "E1",
    name: "Engrave, seal, fill, sand back",
    gives: "Colour let into wood, several colours, no mask. Costs least for one-off work.",
    goes:
      "Engrave deep; sand off the residue; seal floor and walls; white where it saves coats; colours by " +
      "brush; wait until dry right through; sand back to bare wood; clear coat.",
    families: ["wood"],
    beams: ["co2", "blue"],
    maxColours: 6,
    takes: [{ body: true }],
    usual: "craft-acrylic",
    depth: "as-needed",
    loss: 0.08,
    phases: [
      ...begin,
      step("dust"),
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("sand-residue"),
      step("dust"),
      coats("seal", 2),
      { do: "undercoat" },
      { do: "coats", role: "colour", over: "zones", until: "hides" },
      step("sand-back"),
      step("dust"),
      coats("clear", 2),
      ...end,
    ],
  },
  {
    ...flat,
    id: "E2",
    name: "Engrave, seal, powder, sand back",
    gives: "Glossy colour let into wood without a mask; for runs on a diode.",
    goes:
      "Engrave deep; sand off the residue; seal; press powder in and melt it, again where it sinks, colour " +
      "by colour; cold; sand back; clear coat.",
    families: ["wood"],
    beams: ["co2", "blue"],
    maxColours: 6,
    ...POWDERS,
    loss: 0.08,
    phases: [
      ...begin,
      step("dust"),
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("sand-residue"),
      step("dust"),
      coats("seal", 2),
      { do: "colours", how: "powder" },
      step("sand-back"),
      step("dust"),
      coats("clear", 2),
      ...end,
    ],
  },
  {
    ...flat,
    id: "F",
    name: "Powder melted by the laser",
    gives: "Powder colour with no further tool.",
    goes:
      "Engrave, fill, a slow weak pass out of focus without air assist, wipe; again where it has sunk. " +
      "The piece must return to exactly its place.",
    families: ["wood", "mdf"],
    beams: ["co2", "blue"],
    maxColours: 3,
    ...POWDERS,
    loss: 0.2,
    phases: [
      ...begin,
      step("dust"),
      step("proof", "batch"),
      { do: "laser", kind: "engrave" },
      step("dust"),
      { do: "colours", how: "powder", melt: "laser" },
      step("wipe-back"),
      coats("clear", 2),
      ...end,
    ],
  },
  {
    ...flat,
    id: "G",
    name: "Nested powder colours",
    gives: "Colours inside one another with no wood between them.",
    goes:
      "The biggest colour over the whole shape first; mask again, engrave the next through it, fill, melt " +
      "lightly, let it go cold, lift; and again.",
    families: ["wood", "mdf"],
    beams: ["co2", "blue"],
    maxColours: 4,
    ...POWDERS,
    loss: 0.2,
    phases: [...begin, step("dust"), { do: "colours", how: "nested" }, step("sand-back", "sand-after"), ...end],
  },
  {
    ...flat,
    id: "H",
    name: "Stencil cut on the face",
    gives: "Sprayed areas on the flat face; the piece is cut out last.",
    goes:
      "Mask, cut only the mask; lift one colour’s areas, paint, let flash, cover, lift the next; lift all; " +
      "clear coat; cut the piece out last.",
    families: ["wood", "mdf", "acrylic"],
    beams: ["co2", "blue"],
    maxColours: 6,
    ...SPRAYS,
    loss: 0.08,
    phases: [
      ...begin,
      ...clean.slice(1),
      { do: "mask" },
      step("proof", "batch"),
      { do: "colours", how: "stencil" },
      { do: "lift" },
      coats("clear", 2),
      // where the beam gets through; otherwise the blank was brought to size by other means
      step("cut-out", "cuttable"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "I",
    name: "Reverse painting on clear sheet",
    gives: "Colour behind a flawless glossy face.",
    goes:
      "Mask the back, cut the mask mirrored; what is in front is painted first, later colours may run behind; " +
      "a light backing last; the face keeps its film until the end.",
    families: ["acrylic"],
    substrates: ["acrylic-clear"],
    beams: ["co2", "blue"],
    maxColours: 6,
    mirrored: true,
    side: "back",
    ...SPRAYS,
    loss: 0.12,
    phases: [
      ...begin,
      step("bare-back"),
      step("dust"),
      { do: "mask" },
      step("proof", "batch"),
      { do: "colours", how: "reverse" },
      { do: "coats", role: "backing", over: "face", until: "count", count: 2 },
      step("peel-film"),
      ...end,
    ],
  },
  {
    ...flat,
    id: "J",
    name: "Inside-coated glass",
    gives: "A silvered ball or beaker with coloured openings.",
    goes:
      "On a rotary the beam takes the inner coating off; paint is poured in, swirled until every opening " +
      "is covered, drained, dried. Breakage is high: count on spares.",
    families: ["glass"],
    beams: ["um1", "blue"],
    maxColours: 1,
    side: "inside",
    shapes: ["ball", "cylinder"],
    takes: [{ by: ["pour"], family: ["acrylic"] }],
    usual: "poured-acrylic",
    loss: 0.25,
    phases: [
      ...begin,
      step("degrease"),
      step("place-round"),
      step("proof", "batch"),
      { do: "laser", kind: "open-skin" },
      { do: "colours", how: "poured" },
      ...end,
    ],
  },
  {
    ...flat,
    id: "N",
    pictures: true,
    name: "The beam’s own mark, no paint",
    gives: "A picture or drawing in the material itself, in its one tone: nothing to dry, nothing that chips.",
    goes:
      "Clean the bare face; find the setting on an offcut; the beam darkens wood, pales slate, takes a coating or the cap of a " +
      "two-layer sheet off; clean; wood gets a clear coat.",
    families: ["wood", "mdf", "slate", "coated-metal", "acrylic"],
    substrates: [
      "hard-maple",
      "cherry",
      "walnut",
      "birch-ply",
      "pine",
      "oak",
      "mdf",
      "slate",
      "metal-coated",
      "acrylic-two-layer",
    ],
    shapes: ["flat", "cylinder"],
    beams: ALL,
    maxColours: 1,
    takes: [],
    usual: null,
    shows: "mark",
    loss: 0.03,
    phases: [
      ...begin,
      step("degrease", "hard"),
      step("dust", "absorbent"),
      step("place-round", "round"),
      step("plate"),
      step("proof", "batch"),
      { do: "laser", kind: "mark" },
      step("wash"),
      coats("clear", 2, "absorbent"),
      ...end,
    ],
  },
] as const satisfies readonly Route[];

/** kinds of step that routes name: the kinds themselves say that they know all of them */
export type KindsNamed = Extract<(typeof ROWS)[number]["phases"][number], { do: "step" }>["kind"];
export const ROUTES: readonly Route[] = ROWS;

/** Does a route take a finish? */
export const takes = (r: Route, f: Finish): boolean => r.takes.some((t) => fits(t, f));
/** Every finish that it takes, the usual one first. */
export const taken = (r: Route): Finish[] =>
  FINISHES.filter((f) => takes(r, f)).sort((a, b) => Number(b.id === r.usual) - Number(a.id === r.usual));
/** Does it go without paint: the beam's own mark is all there is? */
export const paintless = (r: Route | null): boolean => r !== null && !r.takes.length;
/** How its colours follow one another; null: coat by coat, without a way of their own. */
export const colourWay = (r: Route | null): ColourWay | null =>
  r?.phases.find((p): p is Extract<Phase, { do: "colours" }> => p.do === "colours")?.how ?? null;
/** What its one visit to the laser does; null: none of its own, or several. */
export const beamWork = (r: Route | null): Extract<Phase, { do: "laser" }>["kind"] | null =>
  r?.phases.find((p): p is Extract<Phase, { do: "laser" }> => p.do === "laser")?.kind ?? null;
/** Is colour laid into cuts zone by zone, by hand? */
export const byHand = (r: Route | null): boolean =>
  r?.phases.some((p) => p.do === "coats" && p.role === "colour" && p.over === "zones") ?? false;
/** Is one colour laid over the whole face, white beneath it where that saves coats? */
export const overFace = (r: Route | null): boolean =>
  r?.phases.some((p) => p.do === "coats" && p.role === "colour" && p.over === "face" && p.until === "hides") ?? false;
/** Is the body cut, in one visit or colour by colour? */
export const cuts = (r: Route | null): boolean =>
  beamWork(r) === "engrave" || ["powder-visits", "nested"].includes(colourWay(r) ?? "");

/** Is its powder melted so? `id` may be any text. */
export const meltsBy = (heat: "gun" | "oven" | "laser", id: string | null | undefined): boolean =>
  ROUTES.some((r) => r.id === id && r.phases.some((p) => p.do === "colours" && p.melt === heat));
/** @throws Error when there is no such route */
export function route(id: string): Route {
  const r = ROUTES.find((x) => x.id === id);
  if (!r) throw new Error(`There is no route “${id}”.`);
  return r;
}
