/** The step kinds, by id, in the order in which they are offered. A new kind is one file and one row here. */
import type { Context } from "../context";
import { bareBack } from "./bare-back";
import { burnIn } from "./burn-in";
import { coat } from "./coat";
import { cover } from "./cover";
import { cutOut } from "./cut-out";
import { degrease } from "./degrease";
import { dust } from "./dust";
import { edgeBlack } from "./edge-black";
import { engrave } from "./engrave";
import { feet } from "./feet";
import { finalCheck } from "./final-check";
import { floodEpoxy } from "./flood-epoxy";
import { inspectBlank } from "./inspect-blank";
import { label } from "./label";
import { maskLay } from "./mask-lay";
import { maskLift } from "./mask-lift";
import { markFace } from "./mark-face";
import { melt } from "./melt";
import { oilBack } from "./oil-back";
import { openSkin } from "./open-skin";
import { peelFilm } from "./peel-film";
import { placeRound } from "./place-round";
import { plate } from "./plate";
import { pourPaint } from "./pour-paint";
import { powderFill } from "./powder-fill";
import { preFlight } from "./pre-flight";
import { proof } from "./proof";
import { rest } from "./rest";
import { reveal } from "./reveal";
import { rubDye } from "./rub-dye";
import { sandBack } from "./sand-back";
import { sandResidue } from "./sand-residue";
import { scoreMask } from "./score-mask";
import { scuff } from "./scuff";
import { scuffFilm } from "./scuff-film";
import { strip } from "./strip";
import { stripRest } from "./strip-rest";
import { wash } from "./wash";
import { wipeBack } from "./wipe-back";
import type { MovesNamed } from "../../catalogue/finishing";
import type { KindsNamed } from "../../catalogue/routes";
import { FRESH, type OwnField, type OwnFields, type StepBase, type StepKind } from "../step";

const KINDS = {
  "inspect-blank": inspectBlank,
  label: label,
  scuff: scuff,
  degrease: degrease,
  dust: dust,
  coat: coat,
  plate: plate,
  "pre-flight": preFlight,
  proof: proof,
  reveal: reveal,
  engrave: engrave,
  "sand-residue": sandResidue,
  wash: wash,
  "sand-back": sandBack,
  "final-check": finalCheck,
  rest: rest,
  "scuff-film": scuffFilm,
  strip: strip,
  "mask-lay": maskLay,
  "score-mask": scoreMask,
  "mask-lift": maskLift,
  cover: cover,
  "open-skin": openSkin,
  "burn-in": burnIn,
  "mark-face": markFace,
  "strip-rest": stripRest,
  "rub-dye": rubDye,
  "wipe-back": wipeBack,
  "powder-fill": powderFill,
  melt: melt,
  "pour-paint": pourPaint,
  "place-round": placeRound,
  "cut-out": cutOut,
  "bare-back": bareBack,
  "peel-film": peelFilm,
  "flood-epoxy": floodEpoxy,
  "edge-black": edgeBlack,
  "oil-back": oilBack,
  feet: feet,
};

export type KindId = keyof typeof KINDS;
/** Steps are a union by kind: each has its kind's own fields and no others. */
export type Step = { [K in KindId]: (typeof KINDS)[K] extends StepKind<infer S> ? S & { kind: K } : never }[KindId];
export type StepFor<K extends KindId> = Extract<Step, { kind: K }>;
/** Kinds whose steps have a field. */
export type KindWith<F extends OwnField> = Extract<Step, Pick<OwnFields, F>>["kind"];

/** Every kind that a route or a finishing move names is one of these: a misspelt one does not compile. */
export const NAMED: { [K in KindsNamed | MovesNamed]: { id: K } } = KINDS;

/** Every kind, in order. */
export const ALL_KINDS: readonly (StepKind<Step> & { id: KindId })[] = Object.values(KINDS);
export const isKind = (id: string): id is KindId => Object.hasOwn(KINDS, id);
export const kindOf = (id: KindId): StepKind<Step> & { has: readonly OwnField[] } => KINDS[id];

/** A field of a step's own; null where its kind has none such. */
export const own = <F extends OwnField>(s: StepBase | null | undefined, field: F): OwnFields[F] | null =>
  s && field in s ? (s as StepBase & OwnFields)[field] : null;
/** Has it such a field? */
export const has = <F extends OwnField>(s: Step, field: F): s is Extract<Step, Pick<OwnFields, F>> => field in s;

/** A step of a kind, with that kind's fields as they begin. @param more what is set at once; fields that the kind lacks are left out */
export function newStep<K extends KindId>(
  id: string,
  kind: K,
  title: string = KINDS[kind].name,
  more: Partial<StepFor<K>> = {},
): StepFor<K> {
  const mine = Object.fromEntries(KINDS[kind].has.map((f: OwnField) => [f, FRESH[f]]));
  const base: StepBase = {
    id,
    kind,
    title,
    zones: [],
    minutes: null,
    waitMin: null,
    note: "",
    origin: "plan",
    edited: [],
  };
  return { ...base, ...mine, ...more } as StepFor<K>;
}

/** Is a step done with the beam? A gun or an oven is watched as a laser is, but is none. */
export const byBeam = (s: Step): boolean => kindOf(s.kind).beam !== undefined || own(s, "method") === "laser";
/** Has it a setting of the beam’s that is computed? Powder has one only where the beam melts it. */
export const isSet = (s: Step): boolean => kindOf(s.kind).starts !== undefined && byBeam(s);
/**
 * Minutes of its work that stay together, where closing time may fall inside it: those of a piece or a load, or none where it is
 * done by hand; null: it is done in one go.
 */
export function unitOf(s: Step, c: Context, minutes: number): number | null {
  const kind = kindOf(s.kind);
  if (kind.divisible) return 0;
  const parts = kind.parts?.(s, c) ?? 1;
  if (parts > 1) return Math.ceil(minutes / parts);
  return own(s, "byLoad") ? 0 : null;
}
/** Does it use up something of the Shelf? */
export const usesUp = (s: Step): boolean => ["film", "powder"].includes(kindOf(s.kind).lays ?? "");
