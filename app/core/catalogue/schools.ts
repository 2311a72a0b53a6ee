/**
 * Where makers disagree: both schools, which one plans take when nobody says, and why. A pick is kept for the shop or for a
 * job; what it changes is done where the plan is made (plan/generate.ts asks `schoolOf`).
 */
export interface School {
  id: string;
  matter: string;
  picks: { id: string; name: string; says: string }[];
  /** pick taken when nobody says; null: decided case by case, as `why` tells */
  standard: string;
  why: string;
}

const school = (
  id: string,
  matter: string,
  standard: string,
  why: string,
  ...picks: [string, string, string][]
): School => ({ id, matter, standard, why, picks: picks.map(([pid, name, says]) => ({ id: pid, name, says })) });

export const SCHOOLS: School[] = [
  school(
    "melt",
    "How powder is melted",
    "gun",
    "A gun or an oven is cheaper, quicker and more even; the laser is for what neither reaches.",
    ["gun", "Heat gun", "Cheap, quick, one piece at a time."],
    ["oven", "Oven", "Even, several pieces at once; only what fits, and never again for food."],
    ["laser", "The laser itself", "No further tool; slow, and white fails most."],
  ),
  school(
    "coats",
    "One heavy coat or several light ones",
    "light",
    "Light for tops, metal and reverse work: the film must be even. Heavy is for a first base on canvas.",
    ["light", "Several light coats", "Even, dries quickly, no sags."],
    ["heavy", "One heavy crossed coat", "Fewer trips; sags and dries slowly."],
  ),
  school(
    "before-laser",
    "Wait before the laser",
    "safe",
    "Soft paint melts and smears. An early start is allowed at the bench as a risk that is noted.",
    ["safe", "Until it is laser-safe", "A day; two or three on bare metal."],
    ["touch", "Until it is touch dry", "An hour or so; the plan flags the risk."],
  ),
  school(
    "between",
    "Between two colours",
    "window",
    "Each product has its own window; blended bands are a route of their own.",
    ["window", "By the product’s own window", "What its sheet says."],
    ["dry", "Dry right through", "Safest for masks, slowest."],
  ),
  school(
    "edge",
    "How an edge in wood is kept crisp",
    "route",
    "The route decides it: by sealing where there is no mask, by the mask where there is one.",
    ["route", "As the route does", "Seal without a mask, mask without a seal."],
    ["both", "Mask and a light coat into the raw cut", "Two guards; one more wait."],
  ),
  school(
    "cut-paint",
    "Paint for a cut in wood",
    "sealed",
    "A sealed cut takes a paint rich in pigment, which covers in fewer coats; an unsealed one stains less with thin paint.",
    ["sealed", "Rich in pigment, over a seal", "Fewer coats."],
    ["thin", "Thin and cheap", "Stains less where the seal failed; one coat more."],
  ),
  school(
    "metal-paint",
    "Paint for metal",
    "enamel",
    "Enamel dries hard and fills deep; spray is for runs.",
    ["enamel", "Brushed enamel", "Depth and wear."],
    ["spray", "Spray", "Many pieces at once."],
  ),
  school(
    "tile-mask",
    "Masking a tile",
    "bare",
    "Bare, unless soot is seen to stain it.",
    ["bare", "No mask", "Fewer steps."],
    ["mask", "Masked", "Soot cannot reach the glaze."],
  ),
  school(
    "shading",
    "Shading",
    "dither",
    "By the plate: dots, unless a stack of colours is dug by power.",
    ["dither", "Dots of one power", "Holds on any film."],
    ["grey", "Power by tone", "Needs a wide window."],
  ),
  school(
    "overrun",
    "Picture and piece",
    "over",
    "A picture a little larger than its piece hides a small misplacement.",
    ["over", "Runs over by the placement error", "No bare rim."],
    ["exact", "Exactly to the edge", "Needs a jig."],
  ),
  school(
    "sand-after",
    "Sanding after the mask is lifted",
    "look",
    "Look first: a crisp edge is only spoilt by sanding.",
    ["look", "Only if it needs it", "Inspect, then decide."],
    ["always", "Always", "One light sanding more."],
  ),
  school(
    "clean-off",
    "Cleaning off the soot",
    "finish",
    "By the finish: soluble ones never get wet.",
    ["finish", "By the finish", "Rinsed where it bears water."],
    ["wipe", "Wipe only", "Never a tap."],
  ),
];

/** `matter:pick` lines with one pick set, or taken out by an empty one; undefined when none is left. */
export function withPick(lines: string[] | undefined, matter: string, pick: string): string[] | undefined {
  const rest = (lines ?? []).filter((l) => !l.startsWith(`${matter}:`));
  const next = pick ? [...rest, `${matter}:${pick}`] : rest;
  return next.length ? next : undefined;
}

/** The pick in force: the job's, else the shop's, else the standard. */
export function schoolPick(
  id: string,
  job: Record<string, string> | undefined,
  shop: Record<string, string> | undefined,
): { pick: string; from: "this job" | "your shop" | "default" } {
  const s = SCHOOLS.find((x) => x.id === id);
  if (!s) throw new Error(`There is no matter “${id}” on which makers disagree.`);
  const ok = (v: string | undefined): v is string => v !== undefined && s.picks.some((p) => p.id === v);
  if (ok(job?.[id])) return { pick: job![id], from: "this job" };
  if (ok(shop?.[id])) return { pick: shop![id], from: "your shop" };
  return { pick: s.standard, from: "default" };
}
