/**
 * The model's figures for one step, as a maker looks for them there: energy window, powder, heat, depth and sanding, bleed, round
 * work. Which of them a step has is said by its kind; each is one function here, null where it has nothing to show.
 */
import { energyOn, MELT_SPOT_MM } from "../process/settings";
import { BEAM_KINDS } from "../catalogue/beams";
import { loadsOf } from "./loads";
import { bleedChance, bleedParts, type BleedPart } from "../models/bleed/bleed";
import { colourFamily } from "../models/film/colour";
import { cuts, openShares, PLAIN_RATIO, window } from "../models/film/reveal";
import { defocusFor, ripple } from "../models/laser/energy";
import { fusedMass, mayStayOpen, openAfter } from "../models/powder/fill";
import { coolDown, coolTau, LIFT_C } from "../models/powder/heat";
import { DOF_MM, alongFor, circumference, degreesFor, inFocus, seam, squeeze } from "../models/round/round";
import { GROUND, surfaceUm, topDown, zoneOf } from "../piece/state";
import { contextAt, type Placed } from "../plan/placed";
import type { Plan } from "../plan/plan";
import type { Context } from "../process/context";
import { has, kindOf, own } from "../process/kinds";
import { absorbs, patchiness } from "../process/kinds/laser-work";
import { heatOf, meltC, ovenRun, pieceC, tapeC } from "../process/kinds/melt";
import type { FigureId } from "../process/step";
import { showClock, showDay, showWhen } from "../time/zoned";
import { plural, showLength, showMinutes, showShare, showUm } from "../units/show";

export interface FigureRow {
  name: string;
  value: string;
  from?: string;
}
export interface Figures {
  id: FigureId;
  title: string;
  rows: FigureRow[];
  /** the figure that the panel is about: what is read again when something is varied; null: unknown, or nothing to vary */
  leads: { name: string; value: number; in: "minutes" | "ml" | "mm" | "share" | "times" } | null;
  /** what would help */
  helps: string | null;
  /** how far each film is gone by energy, with the window and the setting */
  curves: Curves | null;
}
/** Shares of the face on which each film is gone, top first, over the energy of one setting. */
export interface Curves {
  films: { name: string; colour: string }[];
  points: { at: number; gone: number[] }[];
  /** J/mm² between which the top is gone and the colour whole; null: closed, or nothing to spare */
  lo: number | null;
  hi: number | null;
  /** J/mm² of the setting in force */
  at: number;
}
/** energies at which a curve is reckoned */
const CURVE_POINTS = 96;

const n2 = (x: number): string => (Math.round(x * 100) / 100).toString();
/** zones listed one by one before the list gets long */
const ZONES_LISTED = 6;

type Panel = (p: Placed, c: Context) => Figures | null;

/** times that are listed before the list gets long */
const TIMES_LISTED = 8;
/** minutes of a run from which it is said when somebody has to be there */
const LONG_MIN = 60;
/** D: loads of the bed or the oven, what a piece takes with loading, and when somebody is wanted. */
const loads: Panel = (p, c) => {
  const run = loadsOf(p, c);
  if (!run) return null;
  const size = run.on.w === null ? "" : `${showLength(run.on.w)} × ${showLength(run.on.h)}, `;
  const piece = `${showLength(c.job.substrate.w)} × ${showLength(c.job.substrate.h)} a piece`;
  const total = p.minutes ?? 0;
  const said = run.begins.slice(0, TIMES_LISTED).map((at, i) => {
    const day = i === 0 || showDay(c.clock, at) !== showDay(c.clock, run.begins[i - 1]);
    return day ? showWhen(c.clock, at) : showClock(c.clock, at);
  });
  const more = run.begins.length - said.length;
  return {
    id: "loads",
    title: "Loads and cycle",
    rows: [
      {
        name: `${run.on.name} holds`,
        value: plural(run.perLoad, "piece"),
        from: run.on.name === "Chuck" ? "one at a time" : `${size}${piece}`,
      },
      { name: "Loads", value: String(run.loads), from: plural(p.pieces, "piece") },
      { name: "A load runs", value: showMinutes(run.runMin), from: `and ${showMinutes(run.changeMin)} to change it` },
      { name: "Cycle, a piece", value: showMinutes(run.cycleMin), from: "laying and taking away included" },
      ...(run.loads > 1 && said.length
        ? [{ name: "Loads begin", value: said.join(", ") + (more > 0 ? `, ${more} more` : ""), from: "plan" }]
        : []),
      ...(total >= LONG_MIN
        ? [
            {
              name: "Somebody stays by for",
              value: showMinutes(total),
              from: p.pauses.length ? "shut hours left out" : "within open hours",
            },
          ]
        : []),
    ],
    leads: { name: "Cycle, a piece", value: run.cycleMin, in: "minutes" },
    helps: run.loads > 1 ? "Smaller gaps, a larger bed or tray, or wider lines shorten it." : null,
    curves: null,
  };
};

/** M4: what this setting does to each film, and the window in which the top is gone and the colour whole. */
const energyWindow: Panel = (p, c) => {
  const s = p.step;
  const m = c.machine;
  const laser = own(s, "laser");
  if (!laser || !m || c.spotMm === null || !s.zones.length) return null;
  const films = topDown(zoneOf(p.before, s.zones[0]));
  const all = cuts(
    films.map((f) => ({
      um: f.um,
      patchiness: patchiness(c, f.productId),
      absorbs: absorbs(c, m.beam, f.productId),
    })),
    c.substrate.e0,
    laser.passes,
    ripple(c.spotMm, laser.interval),
  );
  const mine = c.job.zones.find((x) => x.id === s.zones[0])?.productId;
  const beneath = films.findIndex((f) => f.productId === mine && f.role !== "top");
  const w = window(all, Math.max(1, beneath));
  const e = energyOn(c, zoneOf(p.before, s.zones[0]), laser);
  if (e === null) return null;
  const shares = openShares(all, e);
  const last = all[all.length - 1]?.c ?? e;
  const range =
    w && (w.best === null ? `closed: ${n2(w.lo)} above ${n2(w.hi)} J/mm²` : `${n2(w.lo)} to ${n2(w.hi)} J/mm²`);
  const row: FigureRow = range
    ? { name: "Window", value: range, from: `${n2(w!.ratio)} times; ${PLAIN_RATIO} is wanted` }
    : { name: "Window", value: "open upward", from: "nothing beneath it to spare" };
  const narrow = w !== null && w.ratio < PLAIN_RATIO;
  return {
    id: "window",
    title: "Energy window",
    rows: [
      ...films.map((f, i) => ({
        name: `${i + 1}. ${c.paintOf(f.productId).product.name}, ${showUm(f.um)}`,
        value: `gone at ${n2(all[i].c)} J/mm²`,
        from: `${showShare(shares[i] ?? 0)} gone at this setting`,
      })),
      { name: "This setting", value: `${n2(e)} J/mm²`, from: laser.from },
      row,
    ],
    leads: w ? { name: "How wide the window is", value: w.ratio, in: "times" } : null,
    helps: narrow ? "A thinner or more even top, a thicker film beneath, or a smaller interval opens it." : null,
    curves: films.length
      ? {
          films: films.map((f, i) => {
            const { name, colour } = c.paintOf(f.productId).product;
            return { name: `${i + 1}. ${name}`, colour };
          }),
          points: Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
            const at = (Math.max(last * 1.2, e * 1.1) * i) / CURVE_POINTS;
            return { at, gone: openShares(all, at) };
          }),
          lo: w?.best != null ? w.lo : null,
          hi: w?.best != null ? w.hi : null,
          at: e,
        }
      : null,
  };
};

/** M9: how far a fill of powder has come. */
const powder: Panel = (p, c) => {
  const s = p.step;
  const paint = c.paint(own(s, "productId"));
  if (!paint?.powder) return null;
  const phi = paint.powder.packing.value ?? 0.5;
  const pale = ["white", "pale"].includes(colourFamily(paint.product.colour));
  const zone = s.zones.find((z) => z !== GROUND) ?? s.zones[0];
  const depth = zoneOf(p.before, zone).depthUm / 1000;
  const nth = own(s, "coat") ?? 1;
  const area = c.job.zones.filter((z) => s.zones.includes(z.id)).reduce((a, z) => a + z.areaMm2, 0);
  const open = openAfter(depth, phi, nth);
  const grams = fusedMass(area, depth, phi, nth, paint.powder.density.value ?? 1.5);
  const may = pale ? "pale: 15 % of the depth" : "30 % of the depth, 0.5 mm at most";
  return {
    id: "powder",
    title: "Fills",
    rows: [
      { name: "Depth", value: `${n2(depth)} mm`, from: "as engraved" },
      { name: "Packed in", value: showShare(phi), from: paint.powder.packing.from },
      { name: `Open after fill ${nth}`, value: `${n2(open)} mm`, from: "depth × (1 − packing)ⁿ" },
      { name: "May stay open", value: `${n2(mayStayOpen(depth, pale))} mm`, from: may },
      { name: "Powder so far, a piece", value: `${n2(grams)} g`, from: paint.powder.density.from },
    ],
    leads: { name: `Open after fill ${nth}`, value: open, in: "mm" },
    helps: "What is spilt goes back from the paper.",
    curves: null,
  };
};

function ovenRows(run: NonNullable<ReturnType<typeof ovenRun>>, c: Context): FigureRow[] {
  const body = `${c.job.substrate.t} mm ${c.substrate.name.toLowerCase()} on a rack`;
  return [
    { name: "Warming up", value: showMinutes(run.warmMin), from: `${body}, oven at ${run.setC} °C` },
    { name: "Held", value: showMinutes(run.holdMin), from: "powder" },
  ];
}

/** M9: how hot, how long, and how long until it is cold. */
const heat: Panel = (p, c) => {
  const s = p.step;
  if (!has(s, "method")) return null;
  const by = heatOf(s);
  const m = c.machine;
  const hold = meltC(s, c);
  const run = by === "oven" ? ovenRun(s, c) : null;
  const body = pieceC(s, hold);
  const room = p.after.warm?.roomC ?? 20;
  const cold = body === null ? null : coolDown(coolTau(c.substrate, c.job.substrate.t), body, LIFT_C, room);
  const tape = tapeC(s, hold);
  const focus =
    by === "laser" && m && c.spotMm !== null
      ? defocusFor(c.spotMm, MELT_SPOT_MM, BEAM_KINDS[m.beam].lambdaMm, BEAM_KINDS[m.beam].m2)
      : null;
  const spots = `a ${MELT_SPOT_MM} mm spot from one of ${c.spotMm} mm`;
  return {
    id: "heat",
    title: "Heat",
    rows: [
      {
        name: by === "oven" ? "Cures at" : "Flows at",
        value: hold === null ? "unknown" : `${hold} °C`,
        from: "powder",
      },
      ...(run ? ovenRows(run, c) : []),
      ...(focus === null ? [] : [{ name: "Raise the focus by", value: `${n2(focus)} mm`, from: spots }]),
      {
        name: "Tape beside it gets",
        value: tape === null ? "unknown" : `${Math.round(tape)} °C`,
        from: "default",
      },
      { name: "Oven set to at most", value: `${c.substrate.limitC} °C`, from: "default for this material" },
      {
        name: `Cold, below ${LIFT_C} °C, after`,
        value: cold === null ? "unknown" : showMinutes(Math.ceil(cold)),
        from: `thickness and material, still air at ${n2(room)} °C`,
      },
    ],
    leads: run
      ? { name: "Warming up", value: run.warmMin, in: "minutes" }
      : cold === null
        ? null
        : { name: "Cold after", value: cold, in: "minutes" },
    helps: by === "oven" ? "Time counts from when the piece is hot, not from when the door shuts." : null,
    curves: null,
  };
};

/** M10: how deep the zones are, what they still hold, what sanding has taken. */
const depth: Panel = (p, c) => {
  const zones = p.after.zones.filter((z) => z.zone !== GROUND && z.depthUm > 0);
  if (!zones.length) return null;
  const drawn = (id: string) => c.job.zones.find((x) => x.id === id);
  const below = (z: (typeof zones)[number]): number => surfaceUm(z) - p.after.sandedUm;
  // µm × mm² is a thousandth of a mm³, a millionth of a ml
  const holds = zones.reduce((a, z) => a + ((drawn(z.zone)?.areaMm2 ?? 0) * Math.max(0, below(z))) / 1e6, 0);
  const veneer = c.substrate.veneerMm;
  const left = veneer === null ? null : n2(veneer - p.after.sandedUm / 1000);
  return {
    id: "depth",
    title: "Depth and sanding",
    rows: [
      ...zones.slice(0, ZONES_LISTED).map((z) => ({
        name: drawn(z.zone)?.name ?? z.zone,
        value: `${n2(z.depthUm / 1000)} mm deep, filled to ${n2(below(z) / 1000)} mm below the face`,
        from: "state of the piece",
      })),
      { name: "Holds, a piece", value: `${n2(holds)} ml before it runs over`, from: "area × what is still open" },
      { name: "Sanded off by then", value: showUm(p.after.sandedUm), from: "plan" },
      ...(left === null
        ? []
        : [{ name: "Veneer left", value: `${left} mm of ${veneer} mm`, from: "stop at 60 % of it" }]),
    ],
    leads: { name: "Holds, a piece", value: holds, in: "ml" },
    helps: "Measure what one pass takes and type it in the Workshop.",
    curves: null,
  };
};

/** M11: what makes colour creep past an edge of a cut at a step; null: it lays no colour into one, or nothing is known of the body. */
export function bleedOf(p: Placed, c: Context): BleedPart[] | null {
  const s = p.step;
  if (own(s, "role") !== "colour" || c.substrate.bleed === null) return null;
  const zone = s.zones.find((z) => z !== GROUND);
  if (!zone || !s.zones.some((z) => z !== GROUND && zoneOf(p.before, z).depthUm > 0)) return null;
  const paint = c.paint(own(s, "productId"));
  const masked = p.before.zones.some((z) => z.mask);
  const sprayed = paint !== null && ["spray", "airbrush"].includes(paint.finish.by);
  return bleedParts({
    grain: c.substrate.bleed,
    grainName: `${c.substrate.name}, its grain`,
    sealCoats: zoneOf(p.before, zone).films.filter((f) => ["seal", "barrier", "clear"].includes(f.role)).length,
    mask: masked ? "pressed" : null,
    paint: paint?.sheen === "flat" ? "flat" : paint?.sheen === "gloss" ? "thin-gloss" : "ordinary",
    how: sprayed ? "light-upright" : "ordinary",
    blueMaskWood: c.machine?.beam === "blue" && masked && c.substrate.family === "wood",
  });
}

/** M11: the chance that colour creeps past an edge of a cut. */
const bleed: Panel = (p, c) => {
  const parts = bleedOf(p, c);
  if (!parts) return null;
  return {
    id: "bleed",
    title: "Colour past the edge",
    rows: [
      { name: "Chance at an edge", value: showShare(bleedChance(parts)), from: "default weights" },
      ...parts.map((x) => ({
        name: x.name,
        value: `${x.weight > 0 ? "+" : ""}${n2(x.weight)}`,
        from: x.lower ? `lower it: ${x.lower}` : x.weight < 0 ? "helps" : "",
      })),
    ],
    leads: { name: "Chance at an edge", value: bleedChance(parts), in: "share" },
    helps: "The largest part stands first.",
    curves: null,
  };
};

function ballRows(d: number, c: Context): FigureRow[] {
  const f = inFocus(d / 2, DOF_MM);
  const high = Math.max(0, ...c.filled.flatMap((z) => (z.rows.length > 1 ? [z.rows[1] - z.rows[0]] : [])));
  const focus = `${DOF_MM} mm of focus: default`;
  const squeezed = { name: "Squeezed at the edge of the artwork", value: showShare(squeeze(d / 2, high / 2)) };
  return [
    { name: "Sharp, focused on the crown", value: `${n2(f.crown)} mm`, from: focus },
    { name: "Sharp, focused half way down", value: `${n2(f.mid)} mm`, from: focus },
    ...(high > 0 ? [{ ...squeezed, from: "√(1 − (y/R)²)" }] : []),
  ];
}

/** M14: round work by its diameter. */
const round: Panel = (_p, c) => {
  const { diameter: d, shape = "flat" } = c.job.substrate;
  if (!d || shape === "flat") return null;
  const around = circumference(d);
  return {
    id: "round",
    title: "Round work",
    rows: [
      { name: "Round it", value: `${n2(around)} mm; a face is ${n2(around / 2)} mm`, from: `${d} mm across` },
      { name: "A degree", value: `${n2(alongFor(d, 1))} mm; 10 mm is ${n2(degreesFor(d, 10))}°`, from: "diameter" },
      { name: "Measured 0.5 mm too small", value: `${n2(seam(d + 0.5, d))} mm gap at the seam`, from: "π × error" },
      ...(shape === "ball" ? ballRows(d, c) : []),
    ],
    leads: { name: "Round it", value: around, in: "mm" },
    helps: "Measure each piece where the artwork lies.",
    curves: null,
  };
};

const PANELS: Record<FigureId, Panel> = { loads, window: energyWindow, powder, heat, depth, bleed, round };

export const figuresOf = (plan: Plan, index: number): Figures[] =>
  (kindOf(plan.placed[index].step.kind).figures ?? []).flatMap(
    (id) => PANELS[id](plan.placed[index], contextAt(plan.placed[index], plan.context)) ?? [],
  );
