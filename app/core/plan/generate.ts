/**
 * Brief and route to steps. The engine walks the route's phases and carries the state of the piece along: how many coats a
 * paint needs is asked of the colour that is there by then, the depth of what sanding, sealer and coats will take, the
 * laser's setting of the films that will lie under the beam.
 */
import { BEAM_KINDS } from "../catalogue/beams";
import { route as routeOf, type Phase } from "../catalogue/routes";
import { depthNeeded, depthPerPass, passesFor, SAND_SOAK_UM } from "../depth/depth";
import { hex, linear, luminance } from "../film/colour";
import { coatsToHide, over, scatter } from "../film/hide";
import { energy } from "../laser/energy";
import { window } from "../film/reveal";
import { blank, GROUND, seen, zoneOf, type CoatRole, type Piece } from "../piece/state";
import type { Zone } from "../records/job";
import type { Context } from "./context";
import { kindOf } from "./kinds";
import { cutsOf, settingFor } from "./kinds/laser";
import { productFor } from "./pick";
import { newStep, type LaserSetting, type Step } from "./step";

/** dry µm taken off with the residue after engraving */
const RESIDUE_UM = 20;
/** ordinary depth of a filled cut, mm */
const DEPTH_MM = 1.5;
/** J/mm² a pass for cutting wood */
const CUT_E = 2;
/** never more coats than this from a plan of ours */
const COAT_CAP = 20;
/** pieces from which a proof is worth its time */
export const PROOF_FROM = 3;
/** J/mm² to start a test plate from when no window can be worked out */
const BLIND_E = 0.7;

const ORDINAL = ["", "first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];
export const coatName = (name: string, n: number): string => `${name}, ${ORDINAL[n] ?? `${n}th`} coat`;

export interface Missing {
  what: "machine" | "sealer" | "white" | "top" | "clear" | "colour" | "zones" | "route";
  say: string;
}
export interface Generated {
  steps: Step[];
  missing: Missing[];
  /** straight on against over white, for every zone (M6) */
  hiding: Hiding[];
  depth: { needMm: number; sandUm: number; sealerUm: number; coatsUm: number } | null;
}
export interface Hiding {
  zone: string;
  productId: string;
  straight: number | null;
  hides: boolean | null;
  whites: number;
  overWhite: number | null;
}

/** Coats of a paint over a ground seen in linear light. */
const need = (c: Context, productId: string, ground: readonly [number, number, number]): ReturnType<typeof coatsToHide> => {
  const p = c.paintOf(productId);
  return coatsToHide(linear(p.product.colour), ground, p.hideUm.value, p.coatUm.value, c.tolerance);
};

/** Coats straight on, and the best of one to four whites beneath (M6). */
export function compareUndercoat(c: Context, zone: Pick<Zone, "id" | "productId">, ground: readonly [number, number, number], whiteId: string | null): Hiding {
  const id = zone.productId as string;
  const straight = need(c, id, ground);
  const out: Hiding = { zone: zone.id, productId: id, straight: straight.coats, hides: straight.hides, whites: 0, overWhite: null };
  if (!whiteId) return out;
  const w = c.paintOf(whiteId);
  const s = scatter(linear(w.product.colour), w.hideUm.value);
  if (s === null || w.coatUm.value === null || whiteId === id) return out;
  let best = Infinity;
  for (let n = 1; n <= 4; n++) {
    const g = over(linear(w.product.colour), ground, s * w.coatUm.value * n);
    const k = need(c, id, g);
    if (k.coats !== null && k.hides && k.coats + n < best) {
      best = k.coats + n;
      out.whites = n;
      out.overWhite = Math.max(1, k.coats);
    }
  }
  return out;
}

/** White goes under where the job says so; else where it saves coats, or where nothing hides without it. */
const wantsWhite = (r: Hiding, choice: boolean | null): boolean => r.overWhite !== null && (choice ?? (r.hides === false || r.overWhite + r.whites < (r.straight ?? 0)));

class Builder {
  steps: Step[] = [];
  missing: Missing[] = [];
  hiding: Hiding[] = [];
  depth: Generated["depth"] = null;
  piece: Piece;
  constructor(private c: Context) {
    this.piece = blank(c.job.zones.map((z) => z.id));
  }

  private lack(what: Missing["what"], say: string): void {
    if (!this.missing.some((m) => m.what === what)) this.missing.push({ what, say });
  }
  private id(base: string): string {
    let id = base;
    for (let n = 2; this.steps.some((s) => s.id === id); n++) id = `${base}.${n}`;
    return id;
  }
  private put(s: Step): void {
    this.steps.push(s);
    this.piece = kindOf(s.kind).apply(s, this.piece, this.c, null);
  }

  run(phases: Phase[]): void {
    for (const ph of phases) {
      if (ph.do === "step") this.single(ph);
      else if (ph.do === "laser") this.laser(ph.kind);
      else if (ph.do === "undercoat") this.undercoat();
      else this.coats(ph);
    }
  }

  private single(ph: Extract<Phase, { do: "step" }>): void {
    const { c } = this;
    if (ph.when === "bare-metal" && c.substrate.family !== "metal") return;
    if (ph.when === "batch" && !(c.job.choices.proof ?? c.job.quantity >= PROOF_FROM)) return;
    const zones = c.filled.map((z) => z.id);
    const more: Partial<Step> = {};
    if (ph.kind === "proof" || ph.kind === "plate") Object.assign(more, { zones, laser: this.laserSetting() });
    if (ph.kind === "sand-residue") more.sandUm = RESIDUE_UM;
    if (ph.kind === "sand-back") Object.assign(more, { zones: c.allZones, sandUm: this.sandUm() });
    if (ph.kind === "final-check") more.zones = c.allZones;
    this.put(newStep(this.id(ph.kind), ph.kind, kindOf(ph.kind).name, more));
  }

  /** µm that sanding takes: sealer skin on the face plus what soaked in. */
  private sandUm(): number {
    const skin = zoneOf(this.piece, GROUND).films.reduce((um, f) => um + f.dryUm * f.left, 0);
    return Math.round(skin + SAND_SOAK_UM);
  }

  private coatStep(role: CoatRole, productId: string | null, zones: string[], n: number, key: string): void {
    const name = productId ? this.c.paintOf(productId).product.name : { seal: "Sealer", white: "White", top: "Dark top", clear: "Clear coat", colour: "Colour", barrier: "Barrier", "touch-up": "Touch-up", backing: "Backing" }[role];
    this.put(newStep(`coat.${key}.${n}`, "coat", coatName(name, n), { productId, role, coat: n, zones, dryUm: productId ? this.c.paintOf(productId).coatUm.value : null }));
  }

  private coats(ph: Extract<Phase, { do: "coats" }>): void {
    const { c } = this;
    if (ph.kept === "no-clear" && c.job.choices.noClear) return;
    if (ph.role === "colour") return ph.over === "face" ? this.faceColour() : this.zoneColours();
    const product = productFor(ph.role, c);
    if (!product) this.lack(ph.role === "seal" ? "sealer" : (ph.role as "top" | "clear"), `There is no ${ph.role === "seal" ? "sealer" : ph.role === "top" ? "dark paint for the top" : "clear coat"} on the Shelf.`);
    const id = product?.id ?? null;
    let n = ph.count ?? 1;
    if (ph.until === "hides" && id) {
      const ground = seen(zoneOf(this.piece, GROUND), c.substrate.colour, c.paintOf);
      const k = need(c, id, ground);
      n = Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
    }
    for (let i = 1; i <= n; i++) this.coatStep(ph.role, id, c.allZones, i, ph.role);
  }

  /** Route A: one colour over the whole face. */
  private faceColour(): void {
    const { c } = this;
    const id = c.filled[0]?.productId ?? null;
    if (!id) return this.lack("colour", "No zone has a finish yet.");
    const ground = seen(zoneOf(this.piece, GROUND), c.substrate.colour, c.paintOf);
    const white = productFor("white", c);
    const row = compareUndercoat(c, { id: GROUND, productId: id }, ground, white?.id ?? null);
    this.hiding.push(row);
    if (white && wantsWhite(row, c.job.choices.undercoat)) for (let i = 1; i <= row.whites; i++) this.coatStep("white", white.id, c.allZones, i, "white");
    const k = need(c, id, seen(zoneOf(this.piece, GROUND), c.substrate.colour, c.paintOf));
    const n = Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
    for (let i = 1; i <= n; i++) this.coatStep("colour", id, c.allZones, i, `colour.${id}`);
  }

  private undercoat(): void {
    const { c } = this;
    const white = productFor("white", c);
    const rows = c.filled.map((z) => compareUndercoat(c, z, seen(zoneOf(this.piece, z.id), c.substrate.colour, c.paintOf), white?.id ?? null));
    this.hiding.push(...rows);
    const wants = rows.filter((r) => wantsWhite(r, c.job.choices.undercoat));
    if (c.job.choices.undercoat === false || !wants.length) {
      if (!white && rows.some((r) => r.hides === false)) this.lack("white", "A colour will not hide the char, and there is no white on the Shelf.");
      return;
    }
    const most = Math.max(...wants.map((r) => r.whites));
    for (let i = 1; i <= most; i++) this.coatStep("white", white!.id, wants.filter((r) => r.whites >= i).map((r) => r.zone), i, "white");
  }

  /** Route E: colour by colour, lightest first, each until it hides what is in its zones. */
  private zoneColours(): void {
    const { c } = this;
    const ids = [...new Set(c.filled.map((z) => z.productId as string))].sort((a, b) => luminance(linear(c.paintOf(b).product.colour)) - luminance(linear(c.paintOf(a).product.colour)));
    if (!ids.length) this.lack("colour", "No zone has a finish yet.");
    for (const id of ids) {
      const zones = c.filled.filter((z) => z.productId === id);
      const counts = zones.map((z) => {
        const k = need(c, id, seen(zoneOf(this.piece, z.id), c.substrate.colour, c.paintOf));
        return Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
      });
      const most = Math.max(...counts);
      for (let i = 1; i <= most; i++) this.coatStep("colour", id, zones.filter((_z, j) => counts[j] >= i).map((z) => z.id), i, `colour.${id}`);
    }
  }

  private laserSetting(): LaserSetting | null {
    const { c } = this;
    if (!c.machine) {
      this.lack("machine", "No machine is chosen; its beam, watts and speeds decide depth, setting and minutes.");
      return null;
    }
    const set = c.job.plate;
    if (set && set.machineId === c.machine.id) return { power: set.power, speed: set.speed, interval: set.interval, passes: set.passes, from: "test plate" };
    if (c.job.route === "E1") return engraveSetting(c, this.depthMm());
    const zone = c.filled[0];
    const w = zone && c.intervalMm !== null ? window(cutsOf(zoneOf(this.piece, zone.id), c, c.intervalMm, 1)) : null;
    // A shut window still needs a place to start the plate: its geometric middle.
    const e = w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : BLIND_E;
    return settingFor(c, e, 0.5, 1);
  }

  private depthMm(): number {
    const d = this.plannedDepth();
    return this.c.job.choices.depthMm ?? Math.max(DEPTH_MM, Math.ceil(d.needMm * 10) / 10);
  }

  /** M10 before anything is cut: what the cut must hold, taken from the products' own coats. */
  private plannedDepth(): NonNullable<Generated["depth"]> {
    if (this.depth) return this.depth;
    const { c } = this;
    const sealer = productFor("seal", c);
    const white = productFor("white", c);
    const skin = 2 * ((sealer && c.paintOf(sealer.id).coatUm.value) || 0);
    let most = 0;
    for (const z of c.filled) {
      const h = compareUndercoat(c, z, linear("#2b1d14"), white?.id ?? null);
      const um = c.paintOf(z.productId as string).coatUm.value ?? 0;
      const direct = Math.min(COAT_CAP, h.straight ?? 1) * um;
      const whiteUm = white ? (c.paintOf(white.id).coatUm.value ?? 0) : 0;
      most = Math.max(most, h.overWhite !== null && c.job.choices.undercoat !== false ? h.whites * whiteUm + h.overWhite * um : direct);
    }
    const sand = skin + SAND_SOAK_UM + RESIDUE_UM;
    return (this.depth = { sandUm: sand, sealerUm: skin, coatsUm: most, needMm: depthNeeded(sand, skin, most) });
  }

  private laser(kind: "reveal" | "engrave"): void {
    const { c } = this;
    const zones = c.filled.map((z) => z.id);
    const setting = this.laserSetting();
    const depthMm = kind === "engrave" ? this.depthMm() : null;
    this.put(newStep(kind, kind, kind === "engrave" ? `Engrave ${depthMm} mm${setting ? `, ${setting.passes} ${setting.passes === 1 ? "pass" : "passes"}` : ""}` : kindOf(kind).name, { zones, laser: setting, depthMm }));
  }
}

/** Engraving setting for a depth (M10): a speed for about 2 J/mm² a pass, and the passes that makes. */
export function engraveSetting(c: Context, depthMm: number): LaserSetting | null {
  if (!c.machine || c.intervalMm === null) return null;
  const kappa = c.machine.depthPerJ ?? BEAM_KINDS[c.machine.beam].depthPerJ;
  const s = settingFor(c, CUT_E, 0.8, 1);
  if (!s || kappa === null) return s;
  const e = energy(c.machine.watts, s.power, s.speed, s.interval);
  return { ...s, passes: passesFor(depthMm, kappa, e) ?? 1 };
}

/** Depth that a setting reaches in this machine's wood figures, mm; null when unknown. */
export function depthReached(c: Context, s: LaserSetting): number | null {
  const kappa = c.machine ? (c.machine.depthPerJ ?? BEAM_KINDS[c.machine.beam].depthPerJ) : null;
  return kappa === null || !c.machine ? null : s.passes * depthPerPass(kappa, energy(c.machine.watts, s.power, s.speed, s.interval));
}

export function generate(c: Context): Generated {
  const b = new Builder(c);
  if (!c.job.route) return { steps: [], missing: [{ what: "route", say: "No route is chosen yet." }], hiding: [], depth: null };
  if (!c.job.zones.length) return { steps: [], missing: [{ what: "zones", say: "There is no artwork yet, so there is nothing to fill." }], hiding: [], depth: null };
  b.run(routeOf(c.job.route).phases);
  return { steps: b.steps, missing: b.missing, hiding: b.hiding, depth: b.depth };
}

/** For pictures: the paint's own colour as hex. */
export const swatch = (c: Context, productId: string): string => hex(linear(c.paintOf(productId).product.colour));
