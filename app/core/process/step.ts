/** A step of a plan before it is placed in time, and the interface that every step kind keeps. */
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

export interface Step {
  id: string;
  kind: string;
  title: string;
  zones: string[];
  productId: string | null;
  role: CoatRole | null;
  coat: number | null;
  /** dry µm of the coat */
  dryUm: number | null;
  depthMm: number | null;
  /** µm that sanding takes from the face */
  sandUm: number | null;
  laser: LaserSetting | null;
  /** minutes typed in by hand; null: by the model */
  minutes: number | null;
  /** wait after it typed in by hand, min; null: until the state is reached */
  waitMin: number | null;
  /** dried in a room of its own */
  roomC: number | null;
  roomRh: number | null;
  /** the can stood in hand-warm water */
  canWarmed: boolean;
  /** how powder is melted */
  method: "gun" | "oven" | "laser" | null;
  /** laid into the wet colour beside it: bands that blend */
  wetInWet: boolean;
  /** a long laser run taken load by load */
  byLoad: boolean;
  note: string;
  origin: "plan" | "edit";
  /** fields changed by hand */
  edited: string[];
}

/** A state that must be reached before a step may start. */
export interface Need {
  state: WaitState;
  /** the films it speaks of, in order of laying, grouped by stack: one list a zone */
  stacks: { zone: string; films: Film[] }[];
  why: string;
  /** minutes on a clock of its own, for `dry` and `set-time` */
  fixed?: { at: number; refMin: number; waterBorne: boolean; /** plain minutes, whatever the air */ plain?: boolean };
}

export interface LookFor {
  look: string;
  how: string;
  against: string;
}

export interface StepKind {
  id: string;
  /** what the maker calls it */
  name: string;
  /** can be added by hand */
  addable: boolean;
  purpose(s: Step, c: Context): string;
  tool(s: Step, c: Context): string;
  lookFor(s: Step, c: Context): LookFor;
  /** short lines for the bench */
  cues(s: Step, c: Context): string[];
  /** minutes for the whole batch before learned corrections; null when something is unknown */
  minutes(s: Step, c: Context): { setup: number; perPiece: number } | null;
  /** may stop at closing time between two pieces and go on the next day */
  divisible: boolean;
  /** somebody stands by a running machine */
  laser: boolean;
  /** cannot be undone: checked before it starts */
  irreversible: boolean;
  needs(s: Step, before: Piece, c: Context): Need[];
  /** why it can’t be done on this state; null: it can */
  refuses(s: Step, before: Piece, c: Context): string | null;
  /** @param at moment it ends, of the last piece @param start moment it begins, of the first */
  apply(s: Step, before: Piece, c: Context, at: number | null, start?: number | null): Piece;
}

export const newStep = (id: string, kind: string, title: string, more: Partial<Step> = {}): Step => ({
  id,
  kind,
  title,
  zones: [],
  productId: null,
  role: null,
  coat: null,
  dryUm: null,
  depthMm: null,
  sandUm: null,
  laser: null,
  minutes: null,
  waitMin: null,
  roomC: null,
  roomRh: null,
  canWarmed: false,
  method: null,
  wetInWet: false,
  byLoad: false,
  note: "",
  origin: "plan",
  edited: [],
  ...more,
});
