/**
 * A step of a plan before it is placed in time, and what a kind of step is. A step has what every step has, and those fields of
 * its own that its kind names in `has`; asking a step for a field that its kind lacks does not compile.
 */
import type { Paint } from "../catalogue/properties";
import type { Film, Piece } from "../piece/state";
import type { CoatRole, WaitState } from "../records/ids";
import type { Context } from "./context";

export interface LaserSetting {
  /** share of rated power, 0-1 */
  power: number;
  /** mm/s */
  speed: number;
  /** mm */
  interval: number;
  passes: number;
  from: "computed" | "test plate" | "typed";
}

/** Figures of a setting that somebody typed on its step; what is not here is computed, or found on a plate. */
export type TypedSetting = Partial<Pick<LaserSetting, "power" | "speed" | "interval" | "passes">>;

/** what melts powder */
export type Heat = "gun" | "oven" | "laser";

/** What every step has. */
export interface StepBase {
  id: string;
  kind: string;
  title: string;
  zones: string[];
  /** minutes typed in by hand; null: by the model */
  minutes: number | null;
  /** wait after it typed in by hand, min; null: until the state is reached */
  waitMin: number | null;
  note: string;
  origin: "plan" | "edit";
  /** fields changed by hand */
  edited: string[];
}

/** What some steps have besides. */
export interface OwnFields {
  productId: string | null;
  role: CoatRole | null;
  coat: number | null;
  /** dry µm of the coat */
  dryUm: number | null;
  /** mm that are wanted */
  wishMm: number | null;
  /** mm that the setting in force digs; null: not known */
  depthMm: number | null;
  /** µm that sanding takes from the face */
  sandUm: number | null;
  /** the setting in force on the piece as it lies by then; null: no machine, or nothing is known */
  laser: LaserSetting | null;
  typed: TypedSetting | null;
  /** dried in a room of its own */
  roomC: number | null;
  roomRh: number | null;
  /** the can stood in hand-warm water */
  canWarmed: boolean;
  /** how powder is melted; null: with a gun */
  method: Heat | null;
  /** laid into the wet colour beside it: bands that blend */
  wetInWet: boolean;
  /** a long laser run taken load by load */
  byLoad: boolean;
}
export type OwnField = keyof OwnFields;
/** how they begin */
export const FRESH: OwnFields = {
  productId: null,
  role: null,
  coat: null,
  dryUm: null,
  wishMm: null,
  depthMm: null,
  sandUm: null,
  laser: null,
  typed: null,
  roomC: null,
  roomRh: null,
  canWarmed: false,
  method: null,
  wetInWet: false,
  byLoad: false,
};

/** Fields of every kind that the beam does. */
export const LASER = ["laser", "typed"] as const;

export type StepOf<K extends string, F extends OwnField = never> = StepBase & { kind: K } & Pick<OwnFields, F>;

/** A state that must be reached before a step may start. */
export interface Need {
  state: WaitState;
  /** the films it speaks of, in order of laying, grouped by stack: one list a zone */
  stacks: { zone: string; films: Film[] }[];
  why: string;
  /** reference minutes past that state, for states of a film alone */
  more?: number;
  /** minutes on a clock of its own, for `dry` and `set-time` */
  fixed?: { at: number; refMin: number; waterBorne: boolean; /** plain minutes, whatever the air */ plain?: boolean };
}

export interface LookFor {
  look: string;
  how: string;
  against: string;
}

/** Figures of a step that can be changed on its card, in the card's order. */
export type CardField =
  | "dryUm"
  | "depthMm"
  | "sandUm"
  | "power"
  | "speed"
  | "interval"
  | "passes"
  | "minutes"
  | "waitMin"
  | "roomC"
  | "roomRh"
  | "title";
/** Panels of model figures beside a step. */
export type FigureId = "loads" | "window" | "powder" | "heat" | "depth" | "bleed" | "round";

/** What a kind of step does, said once: everybody who would otherwise ask for it by name asks for these. */
export interface Traits {
  /** what it is done to: the piece as a whole, some zones, or the whole face */
  on: "piece" | "zones" | "face";
  /** puts something of the Shelf on the piece: a film or powder is used up and has an amount */
  lays?: "film" | "powder" | "mask";
  /** which products may be chosen for it */
  suits?(p: Paint): boolean;
  /** how the beam runs: filled row by row, or along lines */
  runs?: "rows" | "lines";
  /** done with the beam, and what the beam is to work on; `trial`: on a test piece */
  beam?: "film" | "pigment" | "body" | "skin" | "face" | "mask" | "outline" | "trial";
  /** heats the piece */
  heats?: true;
  /** takes off what covered the face */
  lifts?: "mask" | "face-film";
  /** rubs away: the face down to bare material, residue on it, bright metal, a film */
  sands?: "face" | "residue" | "metal" | "film";
  /** wets the piece with something that is no coat */
  wets?: "solvent" | "rinse" | "oil" | "dye";
  /** takes paint off with solvent */
  strips?: true;
  /** leaves the face free of dust, or of oil */
  cleans?: "dry" | "solvent";
  /** puts a name on every piece */
  labels?: true;
  /** the piece is packed or handed over */
  packs?: true;
  /** finds something out before the batch: a setting, or that the whole way works */
  tries?: "setting" | "piece";
  /** sets the piece up for the beam */
  places?: "flat" | "round";
  /** nothing is done: a pause */
  rests?: true;
  /** done where the piece lies at the laser: it need not be placed anew after it */
  stays?: true;
  /** changes what of the face is open: a turn of the work that the visits show */
  turns?: true;
  /** done piece by piece, so that closing time may fall between two of them */
  divisible?: true;
  /** somebody stands by: a beam, a gun, an oven */
  attended?: true;
  /** cannot be undone: checked before it starts */
  irreversible?: true;
  /** worth a photo when it is done */
  photo?: true;
  /** can be added by hand */
  addable?: true;
  /** figures that its card lets be changed */
  fields?: readonly CardField[];
  figures?: readonly FigureId[];
  /** matters on which makers disagree, that it turns on */
  matters?: readonly string[];
}

export interface StepKind<S extends StepBase = StepBase> extends Traits {
  id: S["kind"];
  /** what the maker calls it */
  name: string;
  purpose(s: S, c: Context): string;
  tool(s: S, c: Context): string;
  lookFor(s: S, c: Context): LookFor;
  /** short lines for the bench */
  cues(s: S, c: Context): string[];
  /** pieces under the beam or a gun, loads of an oven: closing time may fall between two of them */
  parts?(s: S, c: Context): number;
  /** minutes for the whole batch before learned corrections; null when something is unknown */
  minutes(s: S, c: Context): { setup: number; perPiece: number } | null;
  /** what must have been reached */
  needs(s: S, before: Piece, c: Context): Need[];
  /** the computed setting that it begins with on this piece; null: no machine, or not known */
  starts?(s: S, before: Piece, c: Context): LaserSetting | null;
  /** its name, where that says what its setting does */
  named?(s: S, c: Context): string;
  /** why it can’t be done on this state; null: it can */
  refuses(s: S, before: Piece, c: Context): string | null;
  /**
   * What it turns the piece into.
   * @param at moment it ends, of the last piece @param start moment it begins, of the first
   */
  apply(s: S, before: Piece, c: Context, at: number | null, start?: number | null): Piece;
}

type Made<S extends StepBase> = Omit<StepKind<S>, "needs" | "refuses"> &
  Partial<Pick<StepKind<S>, "needs" | "refuses">>;
/** A kind of step, with the fields that its steps have. One that says nothing of needs and refusals has none. */
export const kind = <const K extends string, const F extends OwnField = never>(
  has: readonly F[],
  made: Made<StepOf<K, F>> & { id: K },
): StepKind<StepOf<K, F>> & { id: K; has: readonly F[] } => ({
  needs: () => [],
  refuses: () => null,
  ...made,
  has,
});
