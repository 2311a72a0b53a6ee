/** Steps with the laser: plate, set-up, proof, uncovering, engraving. */
import { absorption } from "../../catalogue/beams";
import { CHAR } from "../../catalogue/substrates";
import { BEAM_KINDS } from "../../catalogue/beams";
import { energy, ripple } from "../../laser/energy";
import { bedLoads, rasterTime } from "../../laser/runtime";
import { cuts, openShares, type Cut } from "../../film/reveal";
import { mapZones, topDown, zoneOf, type Piece, type ZoneState } from "../../piece/state";
import { route } from "../../catalogue/routes";
import { CHARS } from "../../catalogue/substrates";
import { SLICES } from "../../vector/measure";
import type { Zone } from "../../records/job";
import type { Context } from "../context";
import type { LaserSetting, Need, Step, StepKind } from "../step";
import { COLD_C } from "../../powder/heat";
import { coldNeed } from "../needs";
import { dampNeed } from "./prepare";

/** minutes to change a load on the bed */
const LOAD_MIN = 2;
const SETUP_MIN = 5;
/** pieces from which a second pair of eyes is worth it */
const PROOF_PIECES = 3;
const PATCHY = { can: 0.12, low: 0.25 };
/** share of a can below which it spits */
export const LOW_CAN = 0.2;

/** Mean burnt length of a row and the height of all rows for these zones burnt in one go, mm. */
export function rasterExtent(zones: Zone[]): { rowMm: number; heightMm: number } {
  const known = zones.filter((z) => z.rows.length === 2 + 2 * SLICES);
  const blind = zones.filter((z) => z.rows.length !== 2 + 2 * SLICES);
  let burnt = 0;
  let heightMm = 0;
  if (known.length) {
    const y0 = Math.min(...known.map((z) => z.rows[0]));
    const y1 = Math.max(...known.map((z) => z.rows[1]));
    const N = 128;
    const slice = (y1 - y0) / N;
    for (let k = 0; k < N; k++) {
      const y = y0 + (k + 0.5) * slice;
      let from = Infinity;
      let to = -Infinity;
      for (const z of known) {
        const i = Math.floor(((y - z.rows[0]) / (z.rows[1] - z.rows[0])) * SLICES);
        if (i < 0 || i >= SLICES) continue;
        const [a, b] = [z.rows[2 + 2 * i], z.rows[3 + 2 * i]];
        if (b < a) continue;
        from = Math.min(from, a);
        to = Math.max(to, b);
      }
      if (to > from) {
        burnt += (to - from) * slice;
        heightMm += slice;
      }
    }
  }
  // Only the area is known: as a square of that area.
  for (const z of blind) {
    burnt += z.areaMm2;
    heightMm += Math.sqrt(z.areaMm2);
  }
  return { rowMm: heightMm > 0 ? burnt / heightMm : 0, heightMm };
}

/** Seconds for one piece; null without a machine or setting. */
export function pieceSeconds(s: Step, c: Context): number | null {
  const m = c.machine;
  if (!m || !s.laser) return null;
  const e = rasterExtent(c.job.zones.filter((z) => s.zones.includes(z.id)));
  return rasterTime({ rowMm: m.trimsRows ? e.rowMm : Math.max(e.rowMm, c.job.artwork?.w ?? e.rowMm), rows: Math.ceil(e.heightMm / s.laser.interval), speed: s.laser.speed, accel: m.accel, overscanMm: m.overscanMm, intervalMm: s.laser.interval, bothWays: m.bothWays, rapid: m.rapid, galvo: m.galvo, jumpS: m.jumpMs / 1000, passes: s.laser.passes });
}

/** Patchiness of a product as it will be sprayed: a nearly empty can spits. */
export function patchiness(c: Context, productId: string): number {
  const p = c.paintOf(productId);
  if (p.finish.by !== "spray") return p.finish.patchiness;
  const known = p.product.cans.filter((k) => k.leftMl !== null);
  const low = known.length > 0 && known.every((k) => (k.leftMl as number) < LOW_CAN * k.fullMl);
  return low ? PATCHY.low : p.finish.patchiness;
}

/** M4's cuts for a zone's films as they lie. */
export function cutsOf(z: ZoneState, c: Context, interval: number, passes: number): Cut[] {
  if (!c.machine || c.spotMm === null) return [];
  const beam = c.machine.beam;
  return cuts(
    topDown(z).map((f) => ({ um: f.um, patchiness: patchiness(c, f.productId), absorbs: absorption(beam, c.paintOf(f.productId).product.colour, c.paintOf(f.productId).clear) })),
    c.substrate.e0,
    passes,
    ripple(c.spotMm, interval),
  );
}

/** A setting that puts E J/mm² a pass on the surface within the machine's reach. */
export function settingFor(c: Context, e: number, power: number, passes: number): LaserSetting | null {
  if (!c.machine || c.intervalMm === null || !(e > 0)) return null;
  const top = c.machine.maxSpeed === null ? Infinity : 0.8 * c.machine.maxSpeed;
  let p = power;
  let speed = (c.machine.watts * p) / (e * c.intervalMm);
  if (speed > top) {
    p *= top / speed;
    speed = top;
  }
  return { power: Math.round(p * 1000) / 1000, speed: Math.round(speed * 10) / 10, interval: c.intervalMm, passes, from: "computed" };
}

const filmsNeed = (p: Piece, zones: string[], state: Need["state"], why: string): Need[] => {
  const stacks = zones.map((id) => ({ zone: id, films: zoneOf(p, id).films.filter((f) => f.left > 0 && f.phase === undefined) })).filter((s) => s.films.length);
  return stacks.length ? [{ state, stacks, why }] : [];
};
const laserNeeds = (s: Step, p: Piece, c: Context): Need[] => [...dampNeed(p), ...coldNeed(p, COLD_C, "a warm fill is still soft"), ...filmsNeed(p, s.zones, c.school("before-laser") === "touch" ? "touch" : "laser-safe", "soft paint melts and smears instead of lifting")];
export const eyewear = (c: Context): string => (c.machine ? BEAM_KINDS[c.machine.beam].eyewear : "rated for the beam");

export const batch = (s: Step, c: Context): { setup: number; perPiece: number } | null => {
  const sec = pieceSeconds(s, c);
  if (sec === null || !c.machine) return null;
  const { loads } = bedLoads(c.job.quantity, c.job.substrate.w, c.job.substrate.h, c.machine.bedW, c.machine.bedH);
  return { setup: SETUP_MIN + LOAD_MIN * Math.max(1, loads), perPiece: sec / 60 };
};

export const plate: StepKind = {
  id: "plate",
  name: "Test plate on the same stack",
  addable: true,
  divisible: false,
  laser: true,
  irreversible: false,
  purpose: () => "Finds the setting that lifts the dark film and leaves the colour whole.",
  tool: () => "Laser, a piece sprayed in the same go",
  lookFor: () => ({ look: "Dark gone, colour whole", how: "wipe first; straight, then low light", against: "neighbouring squares" }),
  cues: (s) => [s.laser ? `Steps of a sixth around ${Math.round(s.laser.power * 100)} % at ${Math.round(s.laser.speed)} mm/s` : "Choose a machine first", "Wipe before you judge", "Type in the setting that won: the next steps use it"],
  minutes: (_s, c) => (c.machine ? { setup: 20, perPiece: 0 } : null),
  needs: laserNeeds,
  refuses: () => null,
  apply: (_s, p) => ({ ...p, plated: true }),
};

export const preFlight: StepKind = {
  id: "pre-flight",
  name: "Place, focus, look once round",
  addable: true,
  divisible: true,
  laser: false,
  irreversible: false,
  purpose: () => "What is wrong here is burnt into every piece.",
  tool: () => "Corner stop, focus gauge",
  lookFor: () => ({ look: "Face up, frame inside the piece, nothing loose", how: "read the list aloud", against: "work card" }),
  cues: (_s, c) => [
    wantsInverted(c) ? "Picture inverted: burning shows light" : "Picture as drawn, not inverted",
    `${c.job.choices.mirrored ?? c.route?.mirrored ? "Mirrored: hold the mask to the artwork in a mirror" : "Not mirrored"}; labels and inner work before outlines`,
    ...((c.job.choices.mirrored ?? c.route?.mirrored) || c.job.quantity >= PROOF_PIECES ? ["Somebody else reads the list back: one look more saves the batch"] : []),
    `Start from the ${c.job.choices.placedBy === "nest" || (c.world.shop.gear ?? []).some((g) => g.id === c.job.choices.placedBy) ? "nest, its corner as the origin" : "stop, its corner as the origin"}; check the frame clears clamps and bed edge`,
    `Interval ${c.intervalMm ?? "unknown"} mm, focus on the face, air ${c.machine?.airAssist ? "on" : "as fitted"}`,
    `Extraction on, eyewear ${eyewear(c)}, extinguisher in reach`,
  ],
  minutes: () => ({ setup: 5, perPiece: 0 }),
  needs: () => [],
  refuses: () => null,
  apply: (_s, p) => p,
};

/** Polarity: dark tops are burnt away where the picture is to be light. One home for it. */
export const wantsInverted = (c: Context): boolean => c.job.route !== null && route(c.job.route).inverted;

export const proof: StepKind = {
  id: "proof",
  name: "Proof piece",
  addable: true,
  divisible: false,
  laser: true,
  irreversible: false,
  purpose: () => "One piece shows what the whole batch would suffer.",
  tool: () => "Laser, one piece",
  lookFor: () => ({ look: "Beside the artwork, nothing missing", how: "arm's length, same light", against: "artwork, customer's word" }),
  cues: () => ["Run one piece, clean it, look at it before the rest", "Send it for approval if the order asks for it"],
  minutes: (s, c) => {
    const sec = pieceSeconds(s, c);
    return sec === null ? null : { setup: 10 + sec / 60, perPiece: 0 };
  },
  needs: laserNeeds,
  refuses: () => null,
  apply: (_s, p) => ({ ...p, proofed: true }),
};

export const reveal: StepKind = {
  id: "reveal",
  name: "Uncover with the laser",
  addable: true,
  divisible: false,
  laser: true,
  irreversible: true,
  purpose: () => "Takes the dark top off where the colour is to show.",
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: () => ({ look: "Dark gone, colour not eaten", how: "stop after the first rows and wipe", against: "test plate" }),
  cues: (s, c) => [setting(s), c.school("shading") === "grey" ? "Tones by power, not by dots" : "Tones by dots of one power", "Stay with it; stop at the first flame", `Eyewear ${eyewear(c)}`],
  minutes: batch,
  needs: laserNeeds,
  refuses: (s, p) => (s.zones.every((z) => !zoneOf(p, z).films.some((f) => f.left > 0)) ? "no film lies on it to lift" : null),
  apply: (s, p, c) => {
    if (!s.laser || !c.machine) return { ...p, soot: true };
    const e = energy(c.machine.watts, s.laser.power, s.laser.speed, s.laser.interval, s.laser.passes);
    const set = s.laser;
    const opened = mapZones(p, s.zones, (z) => {
      const groups = topDown(z);
      const open = openShares(cutsOf(z, c, set.interval, set.passes), e);
      // The share of each group that is gone is handed to the coats in it.
      let k = -1;
      let last: string | null = null;
      const films = [...z.films].reverse().map((f) => {
        if (f.dryUm * f.left > 0 && f.productId !== last) {
          k++;
          last = f.productId;
        }
        const gone = groups[k]?.productId === f.productId ? (open[k] ?? 0) : 0;
        return { ...f, left: settle(f.left * (1 - gone)) };
      });
      return { ...z, films: films.reverse() };
    });
    return { ...opened, soot: true, clean: false };
  },
};

/** Shares nobody could see are 0 or 1. */
const settle = (x: number): number => (x < 0.05 ? 0 : x > 0.95 ? 1 : x);

export const engrave: StepKind = {
  id: "engrave",
  name: "Engrave",
  addable: true,
  divisible: false,
  laser: true,
  irreversible: true,
  purpose: (s) => `Cuts the recess that holds sealer, white and colour${s.depthMm ? `, ${s.depthMm} mm deep` : ""}.`,
  tool: (_s, c) => c.machine?.name ?? "no machine chosen",
  lookFor: (s) => ({ look: "Depth in several places", how: "step gauge, cut sample", against: s.depthMm ? `${s.depthMm} mm` : "plan's depth" }),
  cues: (s, c) => [setting(s), "Stay with it; stop at the first flame", `Eyewear ${eyewear(c)}`],
  minutes: batch,
  needs: laserNeeds,
  refuses: () => null,
  // The beam takes the mask with it where it cuts, and whatever lay there.
  apply: (s, p, c) => ({ ...mapZones(p, s.zones, ({ mask: _burnt, ...z }) => ({ ...z, depthUm: z.depthUm + (s.depthMm ?? 0) * 1000, charUm: CHARS.includes(c.substrate.family) ? CHAR.um : 0, films: [], ...(z.skin && (s.depthMm ?? 0) * 1000 + z.depthUm >= z.skin.um ? { skin: { ...z.skin, open: true } } : {}) })), soot: true, clean: false, touched: "beam" }),
};

export const setting = (s: Step): string => (s.laser ? `${Math.round(s.laser.power * 100)} % power, ${Math.round(s.laser.speed)} mm/s, ${s.laser.interval} mm, ${s.laser.passes} ${s.laser.passes === 1 ? "pass" : "passes"}` : "No setting yet: choose a machine");
