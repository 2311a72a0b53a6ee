/**
 * Flaws by what is seen: what makes them, what can still be done for the piece, what is done otherwise next time. A cause says what in
 * a job’s story speaks for it; what nobody can read from a log has a weight of its own.
 */
import type { FLAWS } from "../records/ids";

export type FlawId = (typeof FLAWS)[number];

/** What really happened on a job, as far as its log and plan tell. Null: nobody knows. */
export interface Story {
  /** °C and relative humidity (0-1) while coats were laid: coldest, dampest */
  coldest: number | null;
  dampest: number | null;
  /** waits that were cut short, by what they were for */
  cut: { laser: boolean; recoat: boolean; mask: boolean; lift: boolean; sand: boolean; cold: boolean };
  /** a coat was laid outside its window */
  windowMissed: boolean;
  /** least share left in a can that was sprayed from */
  canLeft: number | null;
  /** a setting was found on a plate of this very work */
  plated: boolean | null;
  /** lines further apart than the spot bears */
  wide: boolean;
  /** one finish attacks the one beneath it */
  attacked: boolean;
  /** share of the sanding allowance that was used up; above 1: deeper than the fill bears */
  sanded: number | null;
  /** passes of the beam over what was engraved */
  passes: number | null;
  /** heat that a tape or film got beyond what it bears */
  tapeHot: boolean;
  /** dried in the sun, with hot air, in the laser’s own enclosure */
  forced: boolean;
  /** solvent was used and not left to go off */
  wetSolvent: boolean;
  /** air stayed on while powder was melted */
  airOn: boolean;
}

export interface Cause {
  id: string;
  says: string;
  /** how likely it is by the story; around 1: as likely as any */
  weight(s: Story): number;
}
export interface FlawKind {
  id: FlawId;
  name: string;
  /** how it is told from others, at a glance */
  looks: string;
  causes: readonly Cause[];
  /** what can be done for this piece, the gentlest first; the last one begins anew */
  rescue: readonly string[];
  /** what is done otherwise, and at which kind of step it is told */
  next: { say: string; kind: string };
}

const cause = (id: string, says: string, weight: (s: Story) => number): Cause => ({ id, says, weight });
const STRONG = 6;
const FAINT = 0.3;
const when = (yes: boolean | null, plain = 1): number => (yes === null ? plain : yes ? STRONG : FAINT);
const COOL_C = 15;
const DAMP = 0.65;
const LOW_CAN = 0.2;
const cold = (s: Story): number => when(s.coldest === null ? null : s.coldest < COOL_C);
const damp = (s: Story): number => when(s.dampest === null ? null : s.dampest > DAMP);
const low = (s: Story): number => when(s.canLeft === null ? null : s.canLeft < LOW_CAN);

const soft = cause("soft", "lasered while the film was still soft", (s) => when(s.cut.laser));
const unplated = cause("unplated", "the setting was not found on this stack", (s) =>
  when(s.plated === null ? null : !s.plated),
);
const patchy = cause("patchy", "the dark top lay unevenly", (s) => 1 + low(s) / 2);

export const FLAW_KINDS: readonly FlawKind[] = [
  {
    id: "smear-melt",
    name: "Smear or melt",
    looks: "edges run, the dark film balls up instead of going",
    causes: [
      soft,
      cause("strong", "more energy than the film bears", (s) => when(s.plated === null ? null : !s.plated, 1.2)),
      cause("hot", "warm from drying when it was lasered", (s) => when(s.forced)),
    ],
    rescue: [
      "Leave it until it is laser-safe, then run the same pass once more at the window’s middle",
      "Wipe the balls off with alcohol on a scrap first, then here",
      "Strip back to the colour and spray the top anew",
    ],
    next: { say: "Wait until laser-safe by the clock and by touch before the beam", kind: "reveal" },
  },
  {
    id: "dull-grey-film",
    name: "Dull grey film",
    looks: "the colour is there, under a grey veil",
    causes: [
      cause("residue", "burnt residue left on it", () => 1.5),
      cause("weak", "just under the window: the last of the top is still there", (s) =>
        when(s.plated === null ? null : !s.plated),
      ),
      soft,
    ],
    rescue: [
      "Wipe with a damp cloth, then alcohol where the paint bears it",
      "Run one more pass at two thirds of the energy",
      "Touch up under a clear coat",
    ],
    next: { say: "Clean off before judging; find the window on a plate of this stack", kind: "plate" },
  },
  {
    id: "colour-eaten-through",
    name: "Colour eaten through",
    looks: "white or bare body shows in the middle of the colour",
    causes: [
      unplated,
      patchy,
      cause("thin", "the colour beneath is too thin for this top", () => 1.5),
      cause("wide", "lines too far apart dig ridges", (s) => when(s.wide)),
    ],
    rescue: [
      "Touch the spots up with the same colour and a fine brush",
      "Mask round the zone and spray it again",
      "Strip and begin anew with a thicker colour",
    ],
    next: { say: "One coat of colour more, or a thinner top, before the beam", kind: "coat" },
  },
  {
    id: "dark-specks-left",
    name: "Dark specks left",
    looks: "dots of the top all over what was opened",
    causes: [
      patchy,
      cause("spit", "a can nearly empty or cold spat", (s) => 0.5 * low(s) + 0.5 * cold(s)),
      unplated,
      cause("dust", "dust beneath the top", () => 0.8),
    ],
    rescue: [
      "Run the same pass again",
      "Lift single specks with a damp wooden point",
      "Open the window a little further up and run once more",
    ],
    next: { say: "Shake and warm the can, try it off the piece, keep one fifth back", kind: "coat" },
  },
  {
    id: "uneven-bands",
    name: "Uneven bands",
    looks: "stripes along the lines or along the spraying",
    causes: [
      cause("interval", "lines too far apart for the spot", (s) => when(s.wide)),
      cause("path", "spray passes did not overlap by half", (s) => 1 + low(s) / 3),
      cause("belt", "play in the belt when it burns both ways", () => 0.7),
    ],
    rescue: [
      "Run once more, lines half as far apart, at half the power",
      "Even it with a further light coat and open it anew",
    ],
    next: { say: "Lines no further apart than 0.6 of the spot; spray in two directions", kind: "pre-flight" },
  },
  {
    id: "wrinkle-craze",
    name: "Wrinkle or craze",
    looks: "the coat is drawn into ridges, or split like dry mud",
    causes: [
      cause("window", "coated in the gap between two windows", (s) => when(s.windowMissed || s.cut.recoat)),
      cause("attack", "its solvent attacks what lies beneath", (s) => when(s.attacked)),
      cause("thick", "one coat too wet", () => 1),
      cause("sun", "dried with heat from outside", (s) => when(s.forced)),
    ],
    rescue: ["Let it harden right through, sand it flat, coat it thinly", "Strip it and begin the stack anew"],
    next: { say: "Keep the recoat window: early, or not before it reopens", kind: "coat" },
  },
  {
    id: "peel",
    name: "Peeling",
    looks: "the film lifts in flakes or with the tape",
    causes: [
      cause("oil", "oil or release agent under it", () => 1.5),
      cause("keyed", "smooth body, not scuffed", () => 1),
      cause("early-mask", "masked before it bore tape", (s) => when(s.cut.mask)),
      cause("cold", "laid too cold", cold),
    ],
    rescue: ["Take off what is loose, feather the edge, prime, coat again", "Strip the zone and prime it"],
    next: { say: "Degrease, scuff to an even matt, tape test on one piece", kind: "degrease" },
  },
  {
    id: "fisheyes",
    name: "Fisheyes",
    looks: "round craters down to what lies beneath",
    causes: [
      cause("silicone", "oil, polish or silicone on it", () => 2),
      cause("solvent", "solvent still in the body", (s) => when(s.wetSolvent)),
      cause("finger", "touched after cleaning", () => 1),
    ],
    rescue: ["Let it dry, sand the craters flat, clean twice with fresh cloths, mist on thinly", "Strip and clean"],
    next: { say: "Two cloths, one wet and one dry; gloves from then on", kind: "degrease" },
  },
  {
    id: "overspray",
    name: "Overspray",
    looks: "a fine grain of one colour on another",
    causes: [
      cause("cover", "the cover did not reach far enough", () => 1.5),
      cause("high", "sprayed from too far off", () => 1),
      cause("open-early", "opened before the neighbour was dry", (s) => when(s.cut.lift)),
    ],
    rescue: ["Wipe with a barely damp cloth while fresh", "Polish off with a soft rubber once dry", "Touch up"],
    next: { say: "Cover 15 mm beyond what stays; spray straight down", kind: "cover" },
  },
  {
    id: "feathered-edge",
    name: "Feathered edge",
    looks: "colour has crept past the edge, like a beard",
    causes: [
      cause("rim", "the mask’s rim was not pressed down", () => 1.5),
      cause("wet", "the first coat was wet", () => 1.2),
      cause("grain", "open grain or pores under the mask", () => 1),
      cause("late", "lifted after the film had hardened", () => 0.8),
    ],
    rescue: [
      "Scrape with a fresh blade held upright",
      "Light pass of the beam along the edge on wood",
      "Sand back one grit",
    ],
    next: { say: "Press the rim, a light barrier coat first, lift while it still bends", kind: "mask-lay" },
  },
  {
    id: "scorch-halo",
    name: "Scorch halo",
    looks: "a brown rim round what was burnt",
    causes: [
      cause("air", "no air over the cut", (s) => (s.airOn ? 0.5 : 1.2)),
      cause("slow", "slow and strong: many J/mm² in one pass", (s) => (s.passes === 1 ? 1.6 : 0.8)),
      cause("unmasked", "the face was not masked", () => 1),
    ],
    rescue: ["Rub with alcohol along the grain", "Sand with 320 where the fill bears it"],
    next: { say: "Mask the face, air on, more passes of less", kind: "engrave" },
  },
  {
    id: "bare-walls",
    name: "Bare walls",
    looks: "the floor is filled, the walls are not",
    causes: [
      cause("straight", "sprayed straight down only", () => 1.5),
      cause("thick", "paint too stiff to run up the wall", () => 1),
      cause("char", "loose char on the walls", () => 1),
    ],
    rescue: ["A thin coat from four sides, tilted", "Fill by brush along the wall"],
    next: { say: "Tilt and fill from every side; brush the char out first", kind: "coat" },
  },
  {
    id: "bubbles-at-edges",
    name: "Bubbles at the edges",
    looks: "small round voids along the rim",
    causes: [
      cause("fast", "poured or brushed too fast into a deep cut", () => 1.2),
      cause("cold", "thick because it was cold", cold),
      cause("unsealed", "the wood beneath breathes", () => 1.2),
    ],
    rescue: ["Prick while wet, drag paint over", "Fill the void with a drop, level when dry"],
    next: { say: "Seal first; a thin first coat worked into the corners", kind: "coat" },
  },
  {
    id: "dust-in-paint",
    name: "Dust in the paint",
    looks: "grains that stand up in the gloss",
    causes: [
      cause("air", "moving air in the room", (s) => (s.forced ? 3 : 1)),
      cause("wipe", "not wiped just before", () => 1.3),
      cause("slow", "long open because cold or damp", (s) => 0.5 * cold(s) + 0.5 * damp(s)),
    ],
    rescue: ["Let it harden, sand with 600, one thin coat", "Polish the grains down"],
    next: { say: "Blow and wipe right before the coat, cover it while it dries", kind: "dust" },
  },
  {
    id: "sanded-out",
    name: "Sanded out",
    looks: "the fill is gone or pale where it was sanded",
    causes: [
      cause("deep", "sanded deeper than the fill bears", (s) => when(s.sanded === null ? null : s.sanded > 1)),
      cause("shallow", "engraved too shallow", (s) => (s.sanded !== null && s.sanded > 0.8 ? 3 : 1)),
      cause("soft", "the fill was still soft", (s) => when(s.cut.sand)),
    ],
    rescue: ["Fill the spot again and level by hand with a block", "Engrave that zone once more, fill anew"],
    next: { say: "Stop at the first bare wood; look every ten strokes", kind: "sand-back" },
  },
  {
    id: "drips-sags",
    name: "Drips or sags",
    looks: "a curtain or a bead at the lower edge",
    causes: [
      cause("thick", "one coat too wet, or held upright", () => 1.6),
      cause("cold", "slow to set because it was cold", cold),
      cause("near", "sprayed from too near", () => 1),
    ],
    rescue: ["Tip the bead off with a brush while wet", "Let it harden, shave it flat, one thin coat"],
    next: { say: "Thin coats, lying flat, flashed off between", kind: "coat" },
  },
  {
    id: "chipped-paint",
    name: "Chipped paint",
    looks: "small pieces broken off at an edge or corner",
    causes: [
      cause("lift", "the mask came off with the film hard", () => 1.3),
      cause("sharp", "a sharp edge of the body", () => 1),
      cause("thick", "the stack is thick", () => 1),
      cause("packed", "packed before it could bear it", (s) => when(s.cut.cold || s.cut.recoat, 0.8)),
    ],
    rescue: ["Touch up with a fine brush, clear over it", "Feather and coat the edge again"],
    next: { say: "Lift the mask while the film still bends; break the edge beforehand", kind: "mask-lift" },
  },
  {
    id: "cloudy-clear",
    name: "Cloudy clear coat",
    looks: "a milky veil in the gloss",
    causes: [
      cause("damp", "damp air while it dried", damp),
      cause("cold", "cold piece in warmer air", cold),
      cause("trapped", "solvent trapped under it", (s) => when(s.cut.recoat)),
    ],
    rescue: [
      "Warm it gently to 30 °C for an hour",
      "One thin wet coat in dry air dissolves the veil",
      "Sand it matt and clear it anew",
    ],
    next: { say: "Clear only under 65 % humidity, the piece as warm as the room", kind: "coat" },
  },
];
export const flawKind = (id: FlawId): FlawKind => FLAW_KINDS.find((f) => f.id === id)!;
