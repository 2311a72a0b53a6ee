/** Plain products and machines made from defaults, to begin a Shelf or Workshop with. Every figure in them is a default and says so. */
import { DryTimes, Product } from "../records/product";
import { Machine, SAFETY_FACTS } from "../records/machine";
import type { Beam } from "../records/ids";
import { finishNamed, type FinishId } from "./finishes";
import { BEAM_KINDS } from "./beams";

/** A product with nothing of its own: all figures are its finish's defaults. */
export function defaultProduct(id: string, name: string, finishId: string, colour: string): Product {
  finishNamed(finishId);
  return { ...new Product(), times: { ...new DryTimes() }, cans: [], id, name, finish: finishId, colour };
}

export function defaultMachine(beam: Beam, watts: number, id = `${beam}-${watts}`): Machine {
  const speed = { co2: 500, blue: 400, um1: 2000, uv: 2000 }[beam];
  return {
    ...new Machine(),
    powerPoints: [],
    id,
    name: `${BEAM_KINDS[beam].name.split(",")[0]}, ${watts} W`,
    beam,
    watts,
    maxSpeed: speed,
    rapid: speed,
    bedW: 600,
    bedH: 400,
    unanswered: [...SAFETY_FACTS],
    galvo: beam === "um1" || beam === "uv",
  };
}

/** What a shelf needs for a route to be planned at all. */
export const STARTER: { id: string; name: string; finish: FinishId; colour: string }[] = [
  { id: "shellac", name: "Shellac", finish: "shellac-spray", colour: "#e8c27a" },
  { id: "white-acrylic", name: "White acrylic", finish: "craft-acrylic", colour: "#f0efe9" },
  { id: "black-enamel", name: "Black enamel", finish: "spray-enamel", colour: "#16151a" },
  { id: "white-enamel", name: "White enamel", finish: "spray-enamel", colour: "#f3f2ec" },
  { id: "painters-tape", name: "Painter’s tape", finish: "painters-tape", colour: "#6f97b8" },
  { id: "heat-tape", name: "Polyimide tape", finish: "polyimide-tape", colour: "#c98a2b" },
  { id: "paper-shield", name: "Paper shield", finish: "paper-shield", colour: "#e8dfc8" },
  { id: "epoxy", name: "Table-top epoxy", finish: "table-top-epoxy", colour: "#f7f7f4" },
  { id: "clear-acrylic", name: "Clear acrylic", finish: "spray-clear", colour: "#f5f5f5" },
];
