/** Laying one coat of a paint, sealer or clear coat. */
import { wetUm } from "../../models/film/build";
import { GROUND, mapZones, surfaceUm, zoneOf, type Film } from "../../piece/state";
import { beamWork, cuts } from "../../catalogue/routes";
import type { Context } from "../context";
import type { CoatRole } from "../../records/ids";
import { insideFlash, sensitive } from "../ready";
import { faceMm2 } from "../../geometry/blank";
import { kind, type Need } from "../step";
import { material } from "../words";
import { dampNeed } from "./damp";

/** µm of a clear coat up to which it lands dry, as a mist (M7) */
export const MIST_UM = 4;
/** Is it no more than a mist that lands dry? */
export const isMist = (s: { role: CoatRole | null; dryUm: number | null }): boolean =>
  s.role === "clear" && s.dryUm !== null && s.dryUm <= MIST_UM;
/** minutes to change a can between bands that blend */
const BAND_MIN = 1;
/** mm² a minute that a hand covers with a small brush */
const BRUSH_MM2_PER_MIN = 500;
/** least that a brush fills, mm; a liner */
export const TOOL_MM = { brush: 0.8, liner: 0.4, spray: 0.3, marker: 0.6 };

export const coat = kind(["productId", "role", "coat", "dryUm", "roomC", "roomRh", "canWarmed", "wetInWet"], {
  id: "coat",
  name: "Lay a coat",
  addable: true,
  on: "zones",
  lays: "film",
  suits: (p) => p.mask === null && p.powder === null,
  fields: ["dryUm", "minutes", "waitMin", "roomC", "roomRh", "title"],
  figures: ["bleed"],
  matters: ["coats", "between"],
  purpose: (s, c) =>
    ({
      seal:
        c.substrate.family === "wood"
          ? "Seals floor and walls so that colour cannot creep along the grain."
          : `Seals what drinks, so that colour stands on the ${material(c.substrate.family)} and does not sink in.`,
      white: "Hides the char so that the colour above needs fewer coats.",
      colour: "The colour itself.",
      top: "The dark top that the laser lifts: thin and even, or it will not lift clean.",
      clear: "Keeps the surface from scratching and chipping.",
      barrier: "Keeps two finishes apart that attack each other.",
      "touch-up": "Mends what was sanded through.",
      backing: "Light behind the colours, so that they stand out from the front.",
    })[s.role ?? "colour"],
  tool: (s, c) => {
    if (!c.hasPaint(s.productId)) return "not chosen yet";
    const by = c.paintOf(s.productId).finish.by;
    if (by === "spray") return "Can, spraying box, respirator";
    if (by === "airbrush") return "Airbrush, respirator";
    if (by === "marker") return "Marker";
    if (by === "pour" || by === "wipe") return by === "pour" ? "Cup, spreader" : "Folded cloth";
    return (c.job.choices.toolMm ?? TOOL_MM.brush) <= TOOL_MM.liner
      ? "Liner brush"
      : s.role === "seal"
        ? "Soft flat brush"
        : "Small flat brush, no. 4";
  },
  lookFor: (s, c) => {
    if (s.role === "seal")
      return {
        look: `${s.zones.includes(GROUND) && !zonesCut(c) ? "Face" : "Walls and floor"} wet all over, no puddle`,
        how: "tilt, two directions",
        against: "swatch",
      };
    const brush = c.hasPaint(s.productId) && c.paintOf(s.productId).finish.by === "brush";
    return brush
      ? { look: "Bubbles along the edge, bare walls", how: "tilt, magnifier", against: "swatch" }
      : {
          look: "Even to the edges, nothing shows through",
          how: "tilt, two directions, wet then dry",
          against: "swatch",
        };
  },
  cues: (s, c) => {
    if (!c.hasPaint(s.productId)) return ["Choose a product for this coat"];
    const p = c.paintOf(s.productId);
    const spray = p.finish.by === "spray";
    const out = [
      spray
        ? `${s.canWarmed ? "Can at 20 to 30 °C from hand-warm water; shake" : "Shake"} two minutes, first squirt off the piece`
        : p.finish.mix === "stir"
          ? "Stir, do not shake; close the jar after each dab"
          : p.finish.mix === "shake"
            ? "Shake, then try it off the piece"
            : "Try it off the piece",
    ];
    if (spray)
      out.push(
        isMist(s)
          ? "From 40 cm and further, so dry that nothing runs or shines: it only holds what lies there"
          : (s.coat ?? 1) % 2
            ? "Left to right, half overlap, edges first"
            : "Up and down, half overlap, edges first",
      );
    else if (c.substrate.family === "metal")
      out.push(
        (s.coat ?? 1) === 1
          ? "Thin first coat, walls wetted all round"
          : "Flood to a level pool, chase bubbles out, drag the surplus off; pale colours take a third",
        "Moving air over it while it levels",
      );
    else if (p.finish.family === "ink") out.push("Dab from the middle outward, the rest behind a paper shield");
    else if (p.finish.by === "marker") out.push("Outline first, then fill; no stroke over one that is still wet");
    else
      out.push(
        s.zones.includes(GROUND)
          ? "Even strokes, into every wall"
          : p.base === "water"
            ? "Small circles into the corners; wipe towards the cut with damp paper"
            : "Small circles into the corners; wipe the rim with a cloth that its thinner has touched",
      );
    if (s.wetInWet)
      out.push("Board by board: all bands of one before the next board, each well into the wet one beside it");
    out.push(spray ? "Cover from dust, pets and hands before you start" : "No drop on the face between the zones");
    return out;
  },
  minutes: (s, c) => {
    if (!c.hasPaint(s.productId)) return null;
    const by = c.paintOf(s.productId).finish.by;
    if (by === "spray") return { setup: s.wetInWet ? BAND_MIN : 6, perPiece: 0.35 };
    if (by === "airbrush") return { setup: 8, perPiece: 0.6 };
    const face = s.zones.includes(GROUND);
    const mm2 = face
      ? faceMm2(c.job.substrate)
      : c.job.zones.filter((z) => s.zones.includes(z.id)).reduce((a, z) => a + z.areaMm2, 0);
    return { setup: 5, perPiece: 0.2 + mm2 / (face ? 6 * BRUSH_MM2_PER_MIN : BRUSH_MM2_PER_MIN) };
  },
  refuses: (s, p) => (s.zones.length && s.zones.every((z) => zoneOf(p, z).mask) ? "the mask covers all of it" : null),
  needs: (s, before, c) => {
    const out: Need[] = [...dampNeed(before)];
    // Bands that blend are meant to meet wet; two coats of one band would dry as one if the first had not flashed.
    if (s.wetInWet) {
      const same = s.zones.flatMap((id) => {
        const top = zoneOf(before, id).films.findLast((f) => f.left > 0);
        return top && top.productId === s.productId && !top.phase ? [{ zone: id, films: [top] }] : [];
      });
      return same.length
        ? [
            ...out,
            {
              state: "flash",
              stacks: same,
              why: "the coat before on the same band has flashed, so that the two don’t dry as one",
            },
          ]
        : out;
    }
    // Over each zone's topmost film; a colour over a sealer waits until that is hard enough to paint.
    const groups = { recoat: [] as Need["stacks"], maskable: [] as Need["stacks"], sandable: [] as Need["stacks"] };
    for (const id of s.zones) {
      const films = zoneOf(before, id).films.filter((f) => f.left > 0);
      const top = films[films.length - 1];
      if (!top || top.keyed || top.phase) continue;
      const sealed = top.role === "seal" && s.role !== "seal";
      groups[
        sealed
          ? "maskable"
          : c.school("between") === "dry" &&
              s.role === "colour" &&
              top.role === "colour" &&
              top.productId !== s.productId
            ? "sandable"
            : "recoat"
      ].push({ zone: id, films: [top] });
    }
    if (groups.recoat.length)
      out.push({ state: "recoat", stacks: groups.recoat, why: "the film beneath takes another coat" });
    if (groups.sandable.length)
      out.push({ state: "sandable", stacks: groups.sandable, why: "one colour is dry right through before the next" });
    if (groups.maskable.length)
      out.push({ state: "maskable", stacks: groups.maskable, why: "the sealer is hard enough to paint" });
    return out;
  },
  apply: (s, p, c, at) => {
    if (!c.hasPaint(s.productId) || s.dryUm === null) return p;
    const wet = wetUm(s.dryUm, c.paintOf(s.productId).lands.value);
    const film: Film = {
      step: s.id,
      productId: s.productId,
      role: s.role ?? "colour",
      coat: s.coat ?? 1,
      dryUm: s.dryUm,
      wetUm: wet,
      left: 1,
      laidAt: at,
      roomC: s.roomC,
      roomRh: s.roomRh,
    };
    const lay = (films: Film[]): Film[] => {
      const top = films[films.length - 1];
      if (!top || at === null || top.left < 1) return [...films, film];
      // Coats inside the flash dry as one thicker coat; a wet coat on a film that is past its window wrinkles it.
      if (top.productId === film.productId && insideFlash(top, c, at))
        return [
          ...films.slice(0, -1),
          {
            ...film,
            dryUm: top.dryUm + film.dryUm,
            wetUm: top.wetUm === null || wet === null ? null : top.wetUm + wet,
            merged: (top.merged ?? 1) + 1,
          },
        ];
      return sensitive(top, c, at) && !s.wetInWet
        ? [...films.slice(0, -1), { ...top, wrinkled: true }, film]
        : [...films, film];
    };
    return {
      ...mapZones(p, s.zones, (z) =>
        z.mask ? { ...z, mask: { ...z.mask, over: [...z.mask.over, film] } } : { ...z, films: lay(z.films) },
      ),
      damp: null,
      touched: c.paintOf(s.productId).finish.by,
    };
  },
});

/** Are there walls and floors to seal, or only a face? */
const zonesCut = (c: Context): boolean => cuts(c.route) || beamWork(c.route) === "open-skin";

/** Is a zone filled above the face? */
export const proud = (z: Parameters<typeof surfaceUm>[0]): boolean => surfaceUm(z) < 0;
