/** The step kinds, by id. A new kind is one object and one row here. */
import type { Step, StepKind } from "../step";
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

export const KINDS: StepKind[] = [
  inspectBlank,
  label,
  scuff,
  degrease,
  dust,
  coat,
  plate,
  preFlight,
  proof,
  reveal,
  engrave,
  sandResidue,
  wash,
  sandBack,
  finalCheck,
  rest,
  scuffFilm,
  strip,
  maskLay,
  scoreMask,
  maskLift,
  cover,
  openSkin,
  burnIn,
  stripRest,
  rubDye,
  wipeBack,
  powderFill,
  melt,
  pourPaint,
  placeRound,
  cutOut,
  peelFilm,
  floodEpoxy,
  edgeBlack,
  oilBack,
  feet,
];
const byId = new Map(KINDS.map((k) => [k.id, k]));

/** @throws Error when there is no such kind */
export function kindOf(id: string): StepKind {
  const k = byId.get(id) ?? KINDS.find((x) => x.id === id);
  if (!k) throw new Error(`There is no step kind “${id}”.`);
  return k;
}
/** Is a step done with the beam? A gun or an oven is watched as a laser is, but is none. */
export const byBeam = (s: Step): boolean => kindOf(s.kind).laser && (s.kind !== "melt" || s.method === "laser");
export const isKind = (id: string): boolean => byId.has(id) || KINDS.some((k) => k.id === id);
