/** Melting powder: by heat gun, in an oven, or by the laser out of focus. */
import { zoneOf, type Film } from "../../piece/state";
import { coolTau, ovenLoads, warmUp } from "../../models/powder/heat";
import type { Context } from "../context";
import { maskOf } from "../masks";
import { BEAM_KINDS } from "../../catalogue/beams";
import { defocusFor } from "../../models/laser/energy";
import { showLength } from "../../units/show";
import { dose } from "../beam";
import { BLEACHES, ENOUGH, MELT_E, MELT_SPOT_MM, meltSetting } from "../settings";
import { roomAt } from "../needs";
import { material } from "../words";
import { kind, LASER, type Heat, type LaserSetting, type OwnFields } from "../step";
import { batch, setting } from "./laser-work";

/** What of a step melting asks for. */
type Melting = Pick<OwnFields, "productId" | "method">;
/** °C that a moving gun leaves on the face, and on tape beside the fill for the seconds it passes */
export const GUN_FACE_C = 170;
export const GUN_TAPE_C = 130;
/** °C that the beam leaves around what it melts */
const LASER_NEAR_C = 60;
/** °C that an oven is set above what the powder wants */
export const OVEN_OVER_C = 10;

export const heatOf = (s: Melting): Heat => (s.method === "oven" || s.method === "laser" ? s.method : "gun");
/** °C at which the powder of a step is melted, in an oven cured; null: no powder is named, or it is not known. */
export const meltC = (s: Melting, c: Context): number | null =>
  c.hasPaint(s.productId)
    ? (c.paintOf(s.productId).powder?.[heatOf(s) === "oven" ? "holdC" : "flowC"].value ?? null)
    : null;
/** Hottest that tape on the piece gets. */
export const tapeC = (s: Melting, hold: number | null): number | null =>
  heatOf(s) === "gun" ? GUN_TAPE_C : heatOf(s) === "laser" ? LASER_NEAR_C : hold === null ? null : hold + OVEN_OVER_C;
/** Hottest that the piece itself gets. */
export const pieceC = (s: Melting, hold: number | null): number | null =>
  heatOf(s) === "gun" ? GUN_FACE_C : heatOf(s) === "laser" ? LASER_NEAR_C : hold;

export const ovenOf = (c: Context) => (c.world.shop.gear ?? []).find((g) => g.kind === "oven") ?? null;
/** Oven minutes of one load and how many loads; null: something is unknown or does not fit. */
export function ovenRun(
  s: Melting,
  c: Context,
): { warmMin: number; holdMin: number; loads: number; perTray: number; setC: number } | null {
  const hold = meltC(s, c);
  const oven = ovenOf(c);
  if (hold === null || !c.hasPaint(s.productId) || !oven || oven.trayW === null || oven.trayH === null) return null;
  const loads = ovenLoads(c.pieces, c.job.substrate.w, c.job.substrate.h, oven.trayW, oven.trayH);
  const warm = warmUp(c.substrate, c.job.substrate.t, hold + OVEN_OVER_C, hold);
  const holdMin = c.paintOf(s.productId).powder?.holdMin.value ?? null;
  return !loads || warm === null || holdMin === null
    ? null
    : { warmMin: warm, holdMin, loads: loads.loads, perTray: loads.perTray, setC: hold + OVEN_OVER_C };
}
/** °C that the oven is set to for the powder of a step; null: no oven, or not known. What the piece may come to is what is set. */
export const setC = (s: Melting, c: Context): number | null => {
  const hold = heatOf(s) === "oven" ? meltC(s, c) : null;
  return hold === null ? null : hold + OVEN_OVER_C;
};
/** Why an oven set for a powder is too hot for the body; null: it is not. */
export function tooHot(s: Melting, c: Context): string | null {
  const [set, { name, limitC }] = [setC(s, c), c.substrate];
  return set !== null && set > limitC
    ? `${name} bears an oven set to ${limitC} °C, and this powder wants ${set} °C`
    : null;
}
/** Does the body give way before the powder flows, so that a gun may only pass over it? */
export function sags(s: Melting, c: Context): boolean {
  const flow = meltC({ ...s, method: "gun" }, c);
  return flow !== null && flow > c.substrate.limitC;
}
/** minutes a piece; loading a tray, a piece */
const GUN_MIN = 2.5;
export const TRAY_MIN = 0.2;

/** What the beam of a setting does to powder: too little leaves it loose, too much boils it out. No setting: what it is there for. */
export function meltedBy(set: LaserSetting | null, c: Context): "loose" | "fused" | "boiled" {
  const e = set && c.machine ? dose(c.machine, set) : null;
  if (set === null) return "fused";
  if (e === null || e < ENOUGH * MELT_E - 1e-9) return "loose";
  return e > BLEACHES * MELT_E ? "boiled" : "fused";
}
/** share of a fill that is left where it has boiled */
const BOILED_LEFT = 0.6;
/** How far the focus is raised and how wide the beam is there, as a cue; null: no machine. */
function outOfFocus(c: Context): string | null {
  if (!c.machine || c.spotMm === null) return null;
  const b = BEAM_KINDS[c.machine.beam];
  const up = defocusFor(c.spotMm, MELT_SPOT_MM, b.lambdaMm, b.m2);
  return `Focus ${showLength(Math.round(up * 10) / 10)} above the powder: a spot of ${showLength(MELT_SPOT_MM)}`;
}

export const melt = kind([...LASER, "productId", "method"], {
  id: "melt",
  name: "Melt the powder",
  addable: true,
  on: "zones",
  suits: (p) => p.powder !== null,
  heats: true,
  attended: true,
  irreversible: true,
  fields: ["power", "speed", "interval", "passes", "minutes", "waitMin"],
  figures: ["heat", "loads"],
  matters: ["melt"],
  purpose: () => "Turns dull powder into one glossy body that grips the walls.",
  tool: (s, c) =>
    ({
      gun: (c.world.shop.gear ?? []).find((g) => g.kind === "gun")?.name ?? "Heat gun with a low fan",
      oven: ovenOf(c)?.name ?? "Oven never used for food again",
      laser: c.machine ? `${c.machine.name}, out of focus` : "Laser, out of focus",
    })[heatOf(s)],
  lookFor: () => ({ look: "Dull, then gloss all over; sunk spots", how: "overhead light", against: "a melted sample" }),
  cues: (s, c) =>
    ({
      gun: [
        sags(s, c)
          ? `Fan low, heat low, never still: ${material(c.substrate.family)} bears this for seconds, no longer; let it cool between`
          : "Fan low, heat high, always moving; begin from far off",
        "Stop when the last dull spot turns glossy",
        "Let it go cold before anything touches it",
      ],
      oven: [
        "On a rack, level, powder not shaken",
        "Time counts from when the piece is hot, not the air",
        "Let it go cold before anything touches it; this oven is never used for food again",
      ],
      laser: [
        setting(s),
        outOfFocus(c) ?? "Out of focus, weak, slow, wide interval",
        "Air assist off, or it blows the powder out",
        "Wipe, look, do it again where it is dull; white may need three rounds",
        `Exactly the same place each time${c.job.choices.placedBy ? "" : ": a jig or a nest"}`,
      ],
    })[heatOf(s)],
  minutes: (s, c) => {
    if (heatOf(s) === "gun") return { setup: 3, perPiece: GUN_MIN };
    if (heatOf(s) === "laser") return batch(s, c);
    const run = ovenRun(s, c);
    return run && { setup: Math.round(run.loads * (run.warmMin + run.holdMin)), perPiece: TRAY_MIN };
  },
  parts: (s, c) => (heatOf(s) === "oven" ? (ovenRun(s, c)?.loads ?? 1) : c.pieces),
  starts: (s, _p, c) => (heatOf(s) === "laser" ? meltSetting(c) : null),
  refuses: (s, p, c) => {
    if (!s.zones.some((z) => zoneOf(p, z).films.some((f) => f.phase === "loose"))) return "no loose powder lies in it";
    const hold = meltC(s, c);
    if (tooHot(s, c)) return tooHot(s, c);
    const hot = tapeC(s, hold);
    const mask = p.zones.find((z) => z.mask)?.mask;
    const m = mask ? maskOf(mask.productId, c) : null;
    if (m && hot !== null && m.limitC !== null && hot > m.limitC)
      return `${m.name} bears ${m.limitC} °C, and it would get ${Math.round(hot)} °C`;
    return null;
  },
  apply: (s, p, c, at) => {
    const hold = meltC(s, c);
    const hot = tapeC(s, hold);
    const by = heatOf(s) === "laser" ? meltedBy(s.laser, c) : "fused";
    const fuse = (f: Film): Film => {
      if (f.phase !== "loose" || by === "loose") return f;
      const phi = c.paintOf(f.productId).powder?.packing.value ?? 0.5;
      return {
        ...f,
        phase: "fused",
        dryUm: f.dryUm * phi,
        wetUm: null,
        laidAt: at,
        ...(by === "boiled" ? { left: f.left * BOILED_LEFT } : {}),
      };
    };
    const zones = p.zones.map((z) => ({
      ...z,
      films: s.zones.includes(z.zone) ? z.films.map(fuse) : z.films,
      ...(z.mask ? { mask: { ...z.mask, hotC: Math.max(z.mask.hotC ?? 0, hot ?? 0) } } : {}),
    }));
    const c0 = pieceC(s, hold);
    return {
      ...p,
      zones,
      warm:
        c0 === null
          ? p.warm
          : { step: s.id, c: c0, at, tauMin: coolTau(c.substrate, c.job.substrate.t), roomC: roomAt(c, at) },
      touched: heatOf(s),
    };
  },
});
