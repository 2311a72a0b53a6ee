/** The model's figures for one step, as a maker looks for them there: energy window, depth and sanding, powder and oven, bleed, round work. */
import { bleedChance, bleedParts } from "../models/bleed/bleed";
import { absorption, BEAM_KINDS } from "../catalogue/beams";
import { colourFamily } from "../models/film/colour";
import { cuts, openShares, PLAIN_RATIO, window } from "../models/film/reveal";
import { defocusFor, energy, ripple } from "../models/laser/energy";
import { surfaceUm, topDown, zoneOf, GROUND } from "../piece/state";
import { fusedMass, mayStayOpen, openAfter } from "../models/powder/fill";
import { coolDown, coolTau, LIFT_C } from "../models/powder/heat";
import { DOF_MM, alongFor, circumference, degreesFor, inFocus, seam, squeeze } from "../models/round/round";
import { showMinutes, showShare, showUm } from "../units/show";
import { patchiness } from "../process/kinds/laser-work";
import { heatOf, meltC, ovenRun, pieceC, tapeC } from "../process/kinds/melt";
import type { Plan } from "../plan/plan";

export interface FigureRow {
  name: string;
  value: string;
  from?: string;
}
export interface Figures {
  id: "window" | "powder" | "heat" | "depth" | "bleed" | "round" | "placement";
  title: string;
  rows: FigureRow[];
  /** the figure that the panel is about: what is read again when something is varied; null: unknown, or nothing to vary */
  leads: { name: string; value: number; in: "minutes" | "ml" | "mm" | "share" | "times" } | null;
  /** what would help */
  helps: string | null;
  /** a scale with marks: window, setting */
  scale: {
    unit: string;
    from: number;
    to: number;
    lo: number | null;
    hi: number | null;
    at: number | null;
    marks: { at: number; name: string }[];
  } | null;
}

const n2 = (x: number): string => (Math.round(x * 100) / 100).toString();
/** mm of spot that melts powder without marking what is beneath */
const MELT_SPOT_MM = 1;

export function figuresOf(plan: Plan, index: number): Figures[] {
  const out: Figures[] = [];
  const c = plan.context;
  const p = plan.placed[index];
  const s = p.step;
  const m = c.machine;
  if ((s.kind === "reveal" || s.kind === "plate") && s.laser && m && c.spotMm !== null && s.zones.length) {
    const z = zoneOf(p.before, s.zones[0]);
    const films = topDown(z);
    const all = cuts(
      films.map((f) => ({
        um: f.um,
        patchiness: patchiness(c, f.productId),
        absorbs: absorption(m.beam, c.paintOf(f.productId).product.colour, c.paintOf(f.productId).clear),
      })),
      c.substrate.e0,
      s.laser.passes,
      ripple(c.spotMm, s.laser.interval),
    );
    const mine = c.job.zones.find((x) => x.id === s.zones[0])?.productId;
    const k = Math.max(
      1,
      films.findIndex((f) => f.productId === mine && f.role !== "top"),
    );
    const w = window(all, k);
    const e = energy(m.watts, s.laser.power, s.laser.speed, s.laser.interval, s.laser.passes);
    const shares = openShares(all, e);
    const last = all[all.length - 1]?.c ?? e;
    out.push({
      id: "window",
      title: "Energy window",
      rows: [
        ...films.map((f, i) => ({
          name: `${i + 1}. ${c.paintOf(f.productId).product.name}, ${showUm(f.um)}`,
          value: `gone at ${n2(all[i].c)} J/mm²`,
          from: `${showShare(shares[i] ?? 0)} gone at this setting`,
        })),
        { name: "This setting", value: `${n2(e)} J/mm²`, from: s.laser.from },
        ...(w
          ? [
              {
                name: "Window",
                value:
                  w.best === null ? `closed: ${n2(w.lo)} above ${n2(w.hi)} J/mm²` : `${n2(w.lo)} to ${n2(w.hi)} J/mm²`,
                from: `${n2(w.ratio)} times; ${PLAIN_RATIO} is wanted`,
              },
            ]
          : [{ name: "Window", value: "open upward", from: "nothing beneath it to spare" }]),
      ],
      leads: w ? { name: "How wide the window is", value: w.ratio, in: "times" } : null,
      helps:
        w && w.ratio < PLAIN_RATIO
          ? "A thinner or more even top, a thicker film beneath, or a smaller interval opens it."
          : null,
      scale: {
        unit: "J/mm²",
        from: 0,
        to: Math.max(last * 1.2, e * 1.1),
        lo: w?.best != null ? w.lo : null,
        hi: w?.best != null ? w.hi : null,
        at: e,
        marks: all.map((x, i) => ({ at: x.c, name: `film ${i + 1}` })),
      },
    });
  }
  if (s.kind === "powder-fill" && c.hasPaint(s.productId) && c.paintOf(s.productId).powder) {
    const paint = c.paintOf(s.productId);
    const phi = paint.powder!.packing.value ?? 0.5;
    const pale = ["white", "pale"].includes(colourFamily(paint.product.colour));
    const zone = s.zones.find((z) => z !== GROUND) ?? s.zones[0];
    const depth = zoneOf(p.before, zone).depthUm / 1000;
    const nth = s.coat ?? 1;
    const area = c.job.zones.filter((z) => s.zones.includes(z.id)).reduce((a, z) => a + z.areaMm2, 0);
    out.push({
      id: "powder",
      title: "Fills",
      rows: [
        { name: "Depth", value: `${n2(depth)} mm`, from: "as engraved" },
        { name: "Packed in", value: showShare(phi), from: paint.powder!.packing.from },
        {
          name: `Open after fill ${nth}`,
          value: `${n2(openAfter(depth, phi, nth))} mm`,
          from: "depth × (1 − packing)ⁿ",
        },
        {
          name: "May stay open",
          value: `${n2(mayStayOpen(depth, pale))} mm`,
          from: pale ? "pale: 15 % of the depth" : "30 % of the depth, 0.5 mm at most",
        },
        {
          name: "Powder so far, a piece",
          value: `${n2(fusedMass(area, depth, phi, nth, paint.powder!.density.value ?? 1.5))} g`,
          from: paint.powder!.density.from,
        },
      ],
      leads: { name: `Open after fill ${nth}`, value: openAfter(depth, phi, nth), in: "mm" },
      helps: "What is spilt goes back from the paper.",
      scale: null,
    });
  }
  if (s.kind === "melt") {
    const hold = meltC(s, c);
    const run = heatOf(s) === "oven" ? ovenRun(s, c) : null;
    const tau = coolTau(c.substrate, c.job.substrate.t);
    const body = pieceC(s, hold);
    const cold = body === null ? null : coolDown(tau, body, LIFT_C);
    out.push({
      id: "heat",
      title: heatOf(s) === "oven" ? "Oven loads" : "Heat",
      rows: [
        {
          name: heatOf(s) === "oven" ? "Cures at" : "Flows at",
          value: hold === null ? "unknown" : `${hold} °C`,
          from: "powder",
        },
        ...(run
          ? [
              {
                name: "Warming up",
                value: showMinutes(run.warmMin),
                from: `${c.job.substrate.t} mm ${c.substrate.name.toLowerCase()} on a rack, oven at ${run.setC} °C`,
              },
              { name: "Held", value: showMinutes(run.holdMin), from: "powder" },
              { name: "On a tray", value: `${run.perTray} pieces`, from: "tray and piece" },
              { name: "Loads", value: String(run.loads), from: `${c.job.quantity} pieces` },
            ]
          : []),
        ...(heatOf(s) === "laser" && m && c.spotMm !== null
          ? [
              {
                name: "Raise the focus by",
                value: `${n2(defocusFor(c.spotMm, MELT_SPOT_MM, BEAM_KINDS[m.beam].lambdaMm, BEAM_KINDS[m.beam].m2))} mm`,
                from: `a ${MELT_SPOT_MM} mm spot from one of ${c.spotMm} mm`,
              },
            ]
          : []),
        {
          name: "Tape beside it gets",
          value: tapeC(s, hold) === null ? "unknown" : `${Math.round(tapeC(s, hold)!)} °C`,
          from: "default",
        },
        { name: "Piece bears in an oven", value: `${c.substrate.limitC} °C`, from: "default for this material" },
        {
          name: `Cold, below ${LIFT_C} °C, after`,
          value: cold === null ? "unknown" : showMinutes(Math.ceil(cold)),
          from: "thickness and material, still air at 20 °C",
        },
      ],
      leads: run
        ? { name: "Warming up", value: run.warmMin, in: "minutes" }
        : cold === null
          ? null
          : { name: "Cold after", value: cold, in: "minutes" },
      helps: heatOf(s) === "oven" ? "Time counts from when the piece is hot, not from when the door shuts." : null,
      scale: null,
    });
  }
  if (["engrave", "sand-back"].includes(s.kind)) {
    const zones = p.after.zones.filter((z) => z.zone !== GROUND && z.depthUm > 0);
    // µm × mm² is a thousandth of a mm³, a millionth of a ml
    const holds = zones.reduce(
      (a, z) =>
        a +
        ((c.job.zones.find((x) => x.id === z.zone)?.areaMm2 ?? 0) * Math.max(0, surfaceUm(z) - p.after.sandedUm)) / 1e6,
      0,
    );
    if (zones.length)
      out.push({
        id: "depth",
        title: "Depth and sanding",
        rows: [
          ...zones.slice(0, 6).map((z) => ({
            name: c.job.zones.find((x) => x.id === z.zone)?.name ?? z.zone,
            value: `${n2(z.depthUm / 1000)} mm deep, filled to ${n2((surfaceUm(z) - p.after.sandedUm) / 1000)} mm below the face`,
            from: "state of the piece",
          })),
          { name: "Holds, a piece", value: `${n2(holds)} ml before it runs over`, from: "area × what is still open" },
          { name: "Sanded off by then", value: showUm(p.after.sandedUm), from: "plan" },
          ...(c.substrate.veneerMm !== null
            ? [
                {
                  name: "Veneer left",
                  value: `${n2(c.substrate.veneerMm - p.after.sandedUm / 1000)} mm of ${c.substrate.veneerMm} mm`,
                  from: "stop at 60 % of it",
                },
              ]
            : []),
        ],
        leads: { name: "Holds, a piece", value: holds, in: "ml" },
        helps: "Measure what one pass takes and type it in the Workshop.",
        scale: null,
      });
  }
  if (
    s.kind === "coat" &&
    s.role === "colour" &&
    c.substrate.bleed !== null &&
    s.zones.some((z) => z !== GROUND && zoneOf(p.before, z).depthUm > 0)
  ) {
    const zone = s.zones.find((z) => z !== GROUND)!;
    const films = zoneOf(p.before, zone).films;
    const paint = c.hasPaint(s.productId) ? c.paintOf(s.productId) : null;
    const masked = p.before.zones.some((z) => z.mask);
    const parts = bleedParts({
      grain: c.substrate.bleed,
      grainName: `${c.substrate.name}, its grain`,
      sealCoats: films.filter((f) => ["seal", "barrier", "clear"].includes(f.role)).length,
      mask: masked ? "pressed" : null,
      paint: paint?.sheen === "flat" ? "flat" : paint?.sheen === "gloss" ? "thin-gloss" : "ordinary",
      how: paint && ["spray", "airbrush"].includes(paint.finish.by) ? "light-upright" : "ordinary",
      blueMaskWood: m?.beam === "blue" && masked && c.substrate.family === "wood",
    });
    if (parts)
      out.push({
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
        scale: null,
      });
  }
  const d = c.job.substrate.diameter;
  if (
    (s.kind === "place-round" || s.kind === "open-skin" || s.kind === "pour-paint") &&
    d &&
    (c.job.substrate.shape ?? "flat") !== "flat"
  ) {
    const ball = c.job.substrate.shape === "ball";
    const f = inFocus(d / 2, DOF_MM);
    const high = Math.max(0, ...c.filled.flatMap((z) => (z.rows.length > 1 ? [z.rows[1] - z.rows[0]] : [])));
    out.push({
      id: "round",
      title: "Round work",
      rows: [
        {
          name: "Round it",
          value: `${n2(circumference(d))} mm; a face is ${n2(circumference(d) / 2)} mm`,
          from: `${d} mm across`,
        },
        { name: "A degree", value: `${n2(alongFor(d, 1))} mm; 10 mm is ${n2(degreesFor(d, 10))}°`, from: "diameter" },
        { name: "Measured 0.5 mm too small", value: `${n2(seam(d + 0.5, d))} mm gap at the seam`, from: "π × error" },
        ...(ball
          ? [
              {
                name: "Sharp, focused on the crown",
                value: `${n2(f.crown)} mm`,
                from: `${DOF_MM} mm of focus: default`,
              },
              {
                name: "Sharp, focused half way down",
                value: `${n2(f.mid)} mm`,
                from: `${DOF_MM} mm of focus: default`,
              },
              ...(high > 0
                ? [
                    {
                      name: "Squeezed at the edge of the artwork",
                      value: showShare(squeeze(d / 2, high / 2)),
                      from: "√(1 − (y/R)²)",
                    },
                  ]
                : []),
            ]
          : []),
      ],
      leads: { name: "Round it", value: circumference(d), in: "mm" },
      helps: "Measure each piece where the artwork lies.",
      scale: null,
    });
  }
  return out;
}
