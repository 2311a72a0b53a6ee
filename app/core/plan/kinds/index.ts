/** The step kinds, by id. A new kind is one object and one row here. */
import type { StepKind } from "../step";
import { degrease, dust, inspectBlank, label, scuff } from "./prepare";
import { coat } from "./coat";
import { engrave, plate, preFlight, proof, reveal } from "./laser";
import { scuffFilm, strip } from "./mend";
import { burnIn } from "./burn-in";
import { cover } from "./cover";
import { cutOut } from "./cut-out";
import { edgeBlack } from "./edge-black";
import { feet } from "./feet";
import { floodEpoxy } from "./flood-epoxy";
import { maskLay } from "./mask-lay";
import { maskLift } from "./mask-lift";
import { melt } from "./melt";
import { oilBack } from "./oil-back";
import { openSkin } from "./open-skin";
import { peelFilm } from "./peel-film";
import { placeRound } from "./place-round";
import { pourPaint } from "./pour-paint";
import { powderFill } from "./powder-fill";
import { rubDye } from "./rub-dye";
import { scoreMask } from "./score-mask";
import { stripRest } from "./strip-rest";
import { wipeBack } from "./wipe-back";
import { finalCheck, rest, sandBack, sandResidue, wash } from "./finish";

export const KINDS: StepKind[] = [inspectBlank, label, scuff, degrease, dust, coat, plate, preFlight, proof, reveal, engrave, sandResidue, wash, sandBack, finalCheck, rest, scuffFilm, strip, maskLay, scoreMask, maskLift, cover, openSkin, burnIn, stripRest, rubDye, wipeBack, powderFill, melt, pourPaint, placeRound, cutOut, peelFilm, floodEpoxy, edgeBlack, oilBack, feet];
const byId = new Map(KINDS.map((k) => [k.id, k]));

/** @throws Error when there is no such kind */
export function kindOf(id: string): StepKind {
  const k = byId.get(id);
  if (!k) throw new Error(`There is no step kind “${id}”.`);
  return k;
}
export const isKind = (id: string): boolean => byId.has(id);
