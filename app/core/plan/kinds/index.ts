/** The step kinds, by id. A new kind is one object and one row here. */
import type { StepKind } from "../step";
import { degrease, dust, inspectBlank, label, scuff } from "./prepare";
import { coat } from "./coat";
import { engrave, plate, preFlight, proof, reveal } from "./laser";
import { scuffFilm, strip } from "./mend";
import { finalCheck, rest, sandBack, sandResidue, wash } from "./finish";

export const KINDS: StepKind[] = [inspectBlank, label, scuff, degrease, dust, coat, plate, preFlight, proof, reveal, engrave, sandResidue, wash, sandBack, finalCheck, rest, scuffFilm, strip];
const byId = new Map(KINDS.map((k) => [k.id, k]));

/** @throws Error when there is no such kind */
export function kindOf(id: string): StepKind {
  const k = byId.get(id);
  if (!k) throw new Error(`There is no step kind “${id}”.`);
  return k;
}
export const isKind = (id: string): boolean => byId.has(id);
