/** Melting powder: by heat gun, in an oven, or by the laser out of focus. */
import { zoneOf, type Film } from "../../piece/state";
import { coolTau, ovenLoads, warmUp } from "../../models/powder/heat";
import type { Context } from "../context";
import { maskOf } from "../masks";
import { kind, type Heat, type OwnFields } from "../step";

/** What of a step melting asks for. */
type Melting = Pick<OwnFields, "productId" | "method">;
/** °C that a moving gun leaves on the face, and on tape beside the fill for the seconds it passes */
const GUN_FACE_C = 170;
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
  const loads = ovenLoads(c.job.quantity, c.job.substrate.w, c.job.substrate.h, oven.trayW, oven.trayH);
  const warm = warmUp(c.substrate, c.job.substrate.t, hold + OVEN_OVER_C, hold);
  const holdMin = c.paintOf(s.productId).powder?.holdMin.value ?? null;
  return !loads || warm === null || holdMin === null
    ? null
    : { warmMin: warm, holdMin, loads: loads.loads, perTray: loads.perTray, setC: hold + OVEN_OVER_C };
}
/** minutes a piece and mm² a minute of a slow pass out of focus; loading a tray, a piece */
const GUN_MIN = 2.5;
const LASER_MM2_PER_MIN = 250;
const TRAY_MIN = 0.2;

export const melt = kind(["productId", "method"], {
  id: "melt",
  name: "Melt the powder",
  addable: true,
  on: "zones",
  suits: (p) => p.powder !== null,
  heats: true,
  attended: true,
  irreversible: true,
  figures: ["heat"],
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
        "Fan low, heat high, always moving; begin from far off",
        "Stop when the last dull spot turns glossy",
        "Let it go cold before anything touches it",
      ],
      oven: [
        "On a rack, level, powder not shaken",
        "Time counts from when the piece is hot, not the air",
        "Let it go cold before anything touches it; this oven is never used for food again",
      ],
      laser: [
        "Out of focus, weak, slow, wide interval; air assist off, or it blows the powder out",
        "Wipe, look, do it again where it is dull; white may need three rounds",
        `Exactly the same place each time${c.job.choices.placedBy ? "" : ": a jig or a nest"}`,
      ],
    })[heatOf(s)],
  minutes: (s, c) => {
    if (heatOf(s) === "gun") return { setup: 3, perPiece: GUN_MIN };
    if (heatOf(s) === "laser")
      return {
        setup: 5,
        perPiece:
          1 + c.job.zones.filter((z) => s.zones.includes(z.id)).reduce((a, z) => a + z.areaMm2, 0) / LASER_MM2_PER_MIN,
      };
    const run = ovenRun(s, c);
    return run && { setup: Math.round(run.loads * (run.warmMin + run.holdMin)), perPiece: TRAY_MIN };
  },
  refuses: (s, p, c) => {
    if (!s.zones.some((z) => zoneOf(p, z).films.some((f) => f.phase === "loose"))) return "no loose powder lies in it";
    const hold = meltC(s, c);
    const body = pieceC(s, hold);
    if (heatOf(s) === "oven" && body !== null && body > c.substrate.limitC)
      return `${c.substrate.name} bears ${c.substrate.limitC} °C in an oven, and this powder wants ${hold} °C`;
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
    const fuse = (f: Film): Film => {
      if (f.phase !== "loose") return f;
      const phi = c.paintOf(f.productId).powder?.packing.value ?? 0.5;
      return { ...f, phase: "fused", dryUm: f.dryUm * phi, wetUm: null, laidAt: at };
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
      warm: c0 === null ? p.warm : { step: s.id, c: c0, at, tauMin: coolTau(c.substrate, c.job.substrate.t) },
      touched: heatOf(s),
    };
  },
});
