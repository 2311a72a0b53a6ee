/**
 * Where makers disagree: both schools, which one plans take when nobody says, and why. A pick is kept for the shop or for a
 * job; what it changes is done where the plan is made (plan/generate.ts asks `schoolOf`).
 */
export interface School {
  id: string;
  matter: string;
  /** `says` beside a pick, in few words; `more` for who reads about it */
  picks: { id: string; name: string; says: string; more: string }[];
  /** pick taken when nobody says; null: decided case by case, as `why` tells */
  standard: string;
  why: string;
}

const school = (
  id: string,
  matter: string,
  standard: string,
  why: string,
  ...picks: [string, string, string, string][]
): School => ({
  id,
  matter,
  standard,
  why,
  picks: picks.map(([pid, name, says, more]) => ({ id: pid, name, says, more })),
});

export const SCHOOLS: School[] = [
  school(
    "melt",
    "How powder is melted",
    "gun",
    "A gun or an oven is cheaper, quicker and more even; the laser is for what neither reaches.",
    [
      "gun",
      "Heat gun",
      "Cheap, quick, one piece at a time.",
      "A heat gun on low melts the powder in the cut while you watch it, one piece at a time. It costs " +
        "little and is ready at once; held too near, it blows the powder out, and what lies at the edge " +
        "of the stream stays grey.",
    ],
    [
      "oven",
      "Oven",
      "Even, several pieces at once; only what fits, and never again for food.",
      "An oven brings the whole piece to one heat, so that several come out alike and the fill cures " +
        "right through. Only what fits on the tray and bears the heat can go in, and an oven that has had " +
        "powder in it never cooks food again.",
    ],
    [
      "laser",
      "The laser itself",
      "No further tool; slow, and white fails most.",
      "The laser itself, out of focus and at little power, melts the powder where it lies. No further " +
        "tool is needed and the rest of the piece stays cold. It is slow, and white and pale powders take " +
        "up so little of most beams that they fail most often.",
    ],
  ),
  school(
    "coats",
    "One heavy coat or several light ones",
    "light",
    "Light for tops, metal and reverse work: the film must be even. Heavy is for a first base on canvas.",
    [
      "light",
      "Several light coats",
      "Even, dries quickly, no sags.",
      "Several light coats build the film a little at a time. It comes out even, each coat is soon " +
        "ready for the next, and nothing sags; but every coat is one more trip to the bench and one more " +
        "window to meet.",
    ],
    [
      "heavy",
      "One heavy crossed coat",
      "Fewer trips; sags and dries slowly.",
      "One heavy coat, crossed, hides in one go and saves trips. It dries slowly, skins over paint that " +
        "is still soft, and runs where the face stands upright or the nozzle lingers.",
    ],
  ),
  school(
    "before-laser",
    "Wait before the laser",
    "safe",
    "Soft paint melts and smears. An early start is allowed at the bench as a risk that is noted.",
    [
      "safe",
      "Until it is laser-safe",
      "A day; two or three on bare metal.",
      "Paint that is laser-safe has lost its solvent right through: the beam lifts it as dust and " +
        "leaves a sharp edge. That takes a day for most cans, and two or three on bare metal.",
    ],
    [
      "touch",
      "Until it is touch dry",
      "An hour or so; the plan flags the risk.",
      "Touch-dry paint can be burnt after an hour or so, and many do it. What is still soft beneath " +
        "melts, smears and closes the fine lines; the plan marks the step as a risk and asks for a word " +
        "at the bench.",
    ],
  ),
  school(
    "between",
    "Between two colours",
    "window",
    "Each product has its own window; blended bands are a route of their own.",
    [
      "window",
      "By the product’s own window",
      "What its sheet says.",
      "The next colour goes on while the product’s own window is open: until it shuts the coats bite " +
        "into one another. After that you wait until it reopens, or sand.",
    ],
    [
      "dry",
      "Dry right through",
      "Safest for masks, slowest.",
      "Each colour dries right through before the next one is begun. A mask can then lie on it without " +
        "lifting it, and nothing wrinkles; but the days add up.",
    ],
  ),
  school(
    "edge",
    "How an edge in wood is kept crisp",
    "route",
    "The route decides it: by sealing where there is no mask, by the mask where there is one.",
    [
      "route",
      "As the route does",
      "Seal without a mask, mask without a seal.",
      "The way itself keeps the edge. Where nothing masks the face, sealer closes the grain before " +
        "colour goes in; where a mask lies on it, the mask takes what runs over.",
    ],
    [
      "both",
      "Mask and a light coat into the raw cut",
      "Two guards; one more wait.",
      "A mask on the face and a light coat of sealer in the raw cut guard against two things at once: " +
        "paint over the edge, and paint that creeps under the mask along the grain. It costs one more " +
        "coat and its wait.",
    ],
  ),
  school(
    "cut-paint",
    "Paint for a cut in wood",
    "sealed",
    "A sealed cut takes a paint rich in pigment, which covers in fewer coats; an unsealed one stains less with thin paint.",
    [
      "sealed",
      "Rich in pigment, over a seal",
      "Fewer coats.",
      "Over a sealed cut, a paint rich in pigment covers in few coats and stands up to sanding back. It " +
        "is dearer by the bottle, and where the seal failed it stains deepest.",
    ],
    [
      "thin",
      "Thin and cheap",
      "Stains less where the seal failed; one coat more.",
      "A thin, cheap paint flows into fine lines by itself and stains less where the seal has a gap. It " +
        "hides less, so that a further coat is wanted.",
    ],
  ),
  school(
    "metal-paint",
    "Paint for metal",
    "enamel",
    "Enamel dries hard and fills deep; spray is for runs.",
    [
      "enamel",
      "Brushed enamel",
      "Depth and wear.",
      "Enamel laid in with a brush dries hard, fills a deep cut and wears well in the hand. Each piece " +
        "is brushed by itself and waits longest.",
    ],
    [
      "spray",
      "Spray",
      "Many pieces at once.",
      "Sprayed paint covers many masked pieces in one pass and lies even in a shallow cut. It builds " +
        "little depth, and the mask must seal well at every edge.",
    ],
  ),
  school(
    "tile-mask",
    "Masking a tile",
    "bare",
    "Bare, unless soot is seen to stain it.",
    [
      "bare",
      "No mask",
      "Fewer steps.",
      "The tile goes under the beam as it is. Most glazes wipe clean afterwards, and there is nothing " +
        "to lay, weed or lift.",
    ],
    [
      "mask",
      "Masked",
      "Soot cannot reach the glaze.",
      "A mask on the glaze keeps soot and molten dark off it. It has to be laid, weeded and lifted, and " +
        "is worth that where soot has been seen to stain.",
    ],
  ),
  school(
    "shading",
    "Shading",
    "dither",
    "By the plate: dots, unless a stack of colours is dug by power.",
    [
      "dither",
      "Dots of one power",
      "Holds on any film.",
      "Tones are made of dots of one power. Each dot opens its film or leaves it, so that this holds on " +
        "any stack that has a window; seen close, it is dots.",
    ],
    [
      "grey",
      "Power by tone",
      "Needs a wide window.",
      "Power follows the tone: the beam digs deeper where it is darker. It shades without dots, but " +
        "every tone must lie within the window, and a thin or patchy film has too narrow a one.",
    ],
  ),
  school(
    "overrun",
    "Picture and piece",
    "over",
    "A picture a little larger than its piece hides a small misplacement.",
    [
      "over",
      "Runs over by the placement error",
      "No bare rim.",
      "The picture is drawn a little larger than the piece, by as much as a piece may lie wrong. No " +
        "bare rim shows whichever way it slips; a scrap beneath takes what is burnt beside it.",
    ],
    [
      "exact",
      "Exactly to the edge",
      "Needs a jig.",
      "The picture ends at the edge of the piece. Nothing is burnt beside it, but the least slip shows as " +
        "a bare rim: it needs a jig that holds.",
    ],
  ),
  school(
    "sand-after",
    "Sanding after the mask is lifted",
    "look",
    "Look first: a crisp edge is only spoilt by sanding.",
    [
      "look",
      "Only if it needs it",
      "Inspect, then decide.",
      "When the mask is off, the face is looked at first. A crisp edge needs nothing more, and sanding " +
        "would round it off and drag colour into the grain.",
    ],
    [
      "always",
      "Always",
      "One light sanding more.",
      "A light sanding after every mask takes off what crept under it and any ridge of paint. All " +
        "pieces come out alike; an edge that was crisp is a little softer.",
    ],
  ),
  school(
    "clean-off",
    "Cleaning off the soot",
    "finish",
    "By the finish: soluble ones never get wet.",
    [
      "finish",
      "By the finish",
      "Rinsed where it bears water.",
      "Each finish is cleaned by what it bears: what stands water is rinsed, and what dissolves is " +
        "wiped dry or brushed.",
    ],
    [
      "wipe",
      "Wipe only",
      "Never a tap.",
      "Nothing is held under a tap. A dry or damp wipe is slower and leaves some soot in deep cuts, but " +
        "no water creeps under a film or into the wood.",
    ],
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
