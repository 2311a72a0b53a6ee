/**
 * M11 Bleed and edge: the chance that colour creeps past an edge, as a sum of parts on the logit scale, so that it can be shown part by
 * part, largest first, each with what lowers it. Weights are ordinary ones, to be moved by what a shop's log shows.
 */
export interface BleedPart {
  id: "base" | "grain" | "seal" | "mask" | "paint" | "how" | "beam";
  name: string;
  /** on the logit scale; above 0 it bleeds more */
  weight: number;
  /** what would lower it; null: nothing here */
  lower: string | null;
}
export interface BleedFacts {
  /** grain of the material (M11); null: it does not bleed along a grain */
  grain: number | null;
  grainName: string;
  sealCoats: number;
  mask: "pressed" | "loose" | null;
  paint: "thin-gloss" | "flat" | "ordinary";
  how: "flooded" | "light-upright" | "ordinary";
  /** a blue beam through a mask on wood */
  blueMaskWood: boolean;
}
export const BLEED_BASE = -1;

/** Parts of the logit, the strongest first; null where the material's grain is not known. */
export function bleedParts(f: BleedFacts): BleedPart[] | null {
  if (f.grain === null) return null;
  const parts: BleedPart[] = [
    { id: "base", name: "Any edge", weight: BLEED_BASE, lower: null },
    { id: "grain", name: f.grainName, weight: f.grain, lower: f.grain > 0 ? "a tighter wood" : null },
    {
      id: "seal",
      name:
        f.sealCoats === 0 ? "Not sealed" : `${f.sealCoats} ${f.sealCoats === 1 ? "coat" : "coats"} of seal in the cut`,
      weight: f.sealCoats === 0 ? 0 : -1.5 - (f.sealCoats > 1 ? 0.7 : 0),
      lower: f.sealCoats < 2 ? `${f.sealCoats === 0 ? "a seal coat" : "a second seal coat"}` : null,
    },
    ...(f.mask
      ? [
          {
            id: "mask" as const,
            name: f.mask === "pressed" ? "Mask pressed down" : "Mask not pressed",
            weight: f.mask === "pressed" ? -0.7 : 1,
            lower: f.mask === "pressed" ? null : "press the mask down with a squeegee",
          },
        ]
      : []),
    ...(f.paint !== "ordinary"
      ? [
          {
            id: "paint" as const,
            name: f.paint === "flat" ? "Flat paint" : "Thin gloss paint",
            weight: f.paint === "flat" ? -0.5 : 0.8,
            lower: f.paint === "flat" ? null : "a flat paint",
          },
        ]
      : []),
    ...(f.how !== "ordinary"
      ? [
          {
            id: "how" as const,
            name: f.how === "flooded" ? "Flooded in" : "Light passes, upright",
            weight: f.how === "flooded" ? 0.8 : -0.6,
            lower: f.how === "flooded" ? "light coats" : null,
          },
        ]
      : []),
    ...(f.blueMaskWood
      ? [{ id: "beam" as const, name: "Blue beam through a mask on wood", weight: 0.7, lower: "a CO2 beam" }]
      : []),
  ];
  return parts.sort((a, b) => Math.abs(b.weight) - Math.abs(a.weight));
}
/** Chance from parts, 0-1. */
export const bleedChance = (parts: BleedPart[]): number => 1 / (1 + Math.exp(-parts.reduce((a, p) => a + p.weight, 0)));
