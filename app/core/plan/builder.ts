/**
 * The engine that turns phases into steps. It walks the route's phases and carries the state of the piece along: how many coats a
 * paint needs is asked of the colour that is there by then, the depth of what sanding, sealer and coats will take, the
 * laser's setting of the films that will lie under the beam.
 */
import { absorption, defaultDepthPerJ } from "../catalogue/beams";
import { finish, inWords } from "../catalogue/finishes";
import { FINISHING } from "../catalogue/finishing";
import type { ColourWay, Phase, When } from "../catalogue/routes";
import { depthNeeded, depthPerPass, passesFor, SAND_SOAK_UM } from "../models/depth/depth";
import { hex, linear, luminance } from "../models/film/colour";
import { coatsToHide, over, scatter } from "../models/film/hide";
import { energy } from "../models/laser/energy";
import { PLAIN_RATIO, Q_DEFAULT, window } from "../models/film/reveal";
import { blank, GROUND, seen, topDown, zoneOf, type Piece } from "../piece/state";
import type { CoatRole } from "../records/ids";
import type { Zone } from "../records/job";
import type { Context } from "../process/context";
import { kindOf } from "../process/kinds";
import { cutsOf, settingFor } from "../process/kinds/laser-work";
import { GUN_TAPE_C, OVEN_OVER_C, ovenOf } from "../process/kinds/melt";
import { skinWords } from "../process/kinds/open-skin";
import { maskFor } from "../process/masks";
import { productFor } from "../process/pick";
import { newStep, type LaserSetting, type Step } from "../process/step";

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
  what: "machine" | "mask" | "oven" | "epoxy" | "sealer" | "white" | "top" | "clear" | "colour" | "zones" | "route";
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
const need = (
  c: Context,
  productId: string,
  ground: readonly [number, number, number],
): ReturnType<typeof coatsToHide> => {
  const p = c.paintOf(productId);
  return coatsToHide(linear(p.product.colour), ground, p.hideUm.value, p.coatUm.value, c.tolerance);
};

/** Coats straight on, and the best of one to four whites beneath (M6). */
export function compareUndercoat(
  c: Context,
  zone: Pick<Zone, "id" | "productId">,
  ground: readonly [number, number, number],
  whiteId: string | null,
): Hiding {
  const id = zone.productId as string;
  const straight = need(c, id, ground);
  const out: Hiding = {
    zone: zone.id,
    productId: id,
    straight: straight.coats,
    hides: straight.hides,
    whites: 0,
    overWhite: null,
  };
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
const wantsWhite = (r: Hiding, choice: boolean | null): boolean =>
  r.overWhite !== null && (choice ?? (r.hides === false || r.overWhite + r.whites < (r.straight ?? 0)));

export class Builder {
  steps: Step[] = [];
  missing: Missing[] = [];
  hiding: Hiding[] = [];
  depth: Generated["depth"] = null;
  piece: Piece;
  constructor(readonly c: Context) {
    this.piece = blank(
      c.job.zones.map((z) => z.id),
      c.substrate,
      c.route?.side,
    );
  }

  lack(what: Missing["what"], say: string): void {
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

  /** @param ways how colours follow one another, by name */
  run(phases: Phase[], ways: Record<ColourWay, (b: Builder, melt: "gun" | "oven" | "laser" | null) => void>): void {
    for (const ph of phases) {
      if (ph.do === "step") this.single(ph);
      else if (ph.do === "laser") this.laser(ph.kind);
      else if (ph.do === "undercoat") this.undercoat();
      else if (ph.do === "mask") this.mask(ph);
      else if (ph.do === "lift") this.lift();
      else if (ph.do === "barrier") this.barrier();
      else if (ph.do === "finishing") this.finishing();
      else if (ph.do === "colours") ways[ph.how](this, ph.melt ?? null);
      else this.coats(ph);
    }
  }

  private single(ph: Extract<Phase, { do: "step" }>): void {
    const { c } = this;
    if (!this.applies(ph.when)) return;
    const zones = c.filled.map((z) => z.id);
    const more: Partial<Step> = {};
    if (ph.kind === "proof" || ph.kind === "plate") Object.assign(more, { zones, laser: this.laserSetting() });
    if (ph.kind === "sand-residue") more.sandUm = RESIDUE_UM;
    if (ph.kind === "sand-back") Object.assign(more, { zones: c.allZones, sandUm: this.sandUm() });
    if (ph.kind === "sand-back" && ph.when === "sand-after") more.sandUm = LIGHT_SAND_UM;
    if (["final-check", "peel-film", "strip-rest"].includes(ph.kind)) more.zones = c.allZones;
    if (ph.kind === "wipe-back") more.zones = zones;
    this.put(newStep(this.id(ph.kind), ph.kind, kindOf(ph.kind).name, more));
  }

  /** µm that sanding takes: sealer skin on the face plus what soaked in. */
  private sandUm(): number {
    const skin = zoneOf(this.piece, GROUND).films.reduce((um, f) => um + f.dryUm * f.left, 0);
    return Math.round(skin + SAND_SOAK_UM);
  }

  /** Is a phase done on this piece? */
  applies(when: When | undefined): boolean {
    const { c } = this;
    switch (when) {
      case "bare-metal":
        return c.substrate.family === "metal";
      case "batch":
        return c.job.choices.proof ?? c.job.quantity >= PROOF_FROM;
      case "absorbent":
        return c.substrate.absorbent;
      case "hard":
        return !c.substrate.absorbent;
      case "sand-after":
        return c.school("sand-after") === "always";
      case "tile-masked":
        return c.school("tile-mask") === "mask";
      default:
        return true;
    }
  }

  /** A step of any kind, numbered from the second on. */
  step(kind: string, more: Partial<Step> = {}, title = kindOf(kind).name): void {
    this.put(newStep(this.id(kind), kind, title, more));
  }

  coatStep(
    role: CoatRole,
    productId: string | null,
    zones: string[],
    n: number,
    key: string,
    more: Partial<Step> = {},
  ): void {
    const name = productId
      ? this.c.paintOf(productId).product.name
      : {
          seal: "Sealer",
          white: "White",
          top: "Dark top",
          clear: "Clear coat",
          colour: "Colour",
          barrier: "Barrier",
          "touch-up": "Touch-up",
          backing: "Backing",
        }[role];
    this.put(
      newStep(`coat.${key}.${n}`, "coat", coatName(name, n), {
        productId,
        role,
        coat: n,
        zones,
        dryUm: productId ? this.coatUm(productId, role) : null,
        ...more,
      }),
    );
  }

  /** µm of one coat: heavier or thinner where a school says so. */
  coatUm(productId: string, role: CoatRole): number | null {
    const um = this.c.paintOf(productId).coatUm.value;
    if (um === null || role !== "colour") return um;
    const by = this.c.paintOf(productId).finish.by;
    if (by === "spray" && this.c.school("coats") === "heavy") return um * HEAVY;
    return by === "brush" && this.c.substrate.absorbent && this.c.school("cut-paint") === "thin" ? um * THIN : um;
  }

  /** Coats until a paint hides what is there by now in one zone; one at least. */
  coatsFor(productId: string, zone: string, least = 1): number {
    const { c } = this;
    if (c.paintOf(productId).finish.stains) return 1;
    const ground = seen({ ...zoneOf(this.piece, zone), mask: undefined }, c.substrate.colour, c.paintOf);
    return this.coatsOver(productId, ground, least);
  }
  coatsOver(productId: string, ground: readonly [number, number, number], least = 1): number {
    const p = this.c.paintOf(productId);
    const k = coatsToHide(
      linear(p.product.colour),
      ground,
      p.hideUm.value,
      this.coatUm(productId, "colour"),
      this.c.tolerance,
    );
    return Math.min(COAT_CAP, Math.max(least, k.coats ?? least));
  }

  /** Zones by what fills them, one group a product, in the order they are met; those that the route can’t fill are told and left out. */
  groups(): { id: string; zones: Zone[] }[] {
    const { c } = this;
    const fills = c.route?.fills ?? [];
    const out: { id: string; zones: Zone[] }[] = [];
    for (const z of c.filled) {
      const id = z.productId as string;
      const f = c.paintOf(id).finish;
      if (fills.length && !fills.includes(f.id)) {
        this.lack(
          "colour",
          `“${z.name}” is filled with ${inWords(f.name)}; this route takes ${fills.map((x) => inWords(finish(x).name)).join(", ")}.`,
        );
        continue;
      }
      (out.find((g) => g.id === id) ?? out[out.push({ id, zones: [] }) - 1]).zones.push(z);
    }
    if (!out.length) this.lack("colour", "No zone has a finish yet.");
    return out;
  }

  /** The mask that bears the heat of this route; told when the Shelf has none. */
  maskId(heat: "gun" | "oven" | null): string | null {
    const { c } = this;
    const hot =
      heat === "oven"
        ? Math.max(0, ...this.groups().map((g) => c.paintOf(g.id).powder?.holdC.value ?? 0)) + OVEN_OVER_C
        : heat === "gun"
          ? GUN_TAPE_C
          : null;
    const m = maskFor(c, hot);
    if (!m && hot !== null && hot > (finish("painters-tape").mask?.limitC ?? 0))
      this.lack("mask", `No tape on the Shelf bears ${Math.round(hot)} °C.`);
    return m?.id ?? null;
  }
  private mask(ph: Extract<Phase, { do: "mask" }>): void {
    if (this.applies(ph.when))
      this.step("mask-lay", { zones: this.c.allZones, productId: this.maskId(ph.heat ?? null) });
  }
  /** Everything that still lies masked comes off. */
  private lift(): void {
    const masked = this.piece.zones.filter((z) => z.mask).map((z) => z.zone);
    if (masked.length) this.step("mask-lift", { zones: masked });
  }
  barrier(zones = this.c.filled.map((z) => z.id)): void {
    const { c } = this;
    if (!c.substrate.absorbent) return;
    const clear = productFor("clear", c);
    if (!clear) return this.lack("clear", "There is no clear coat on the Shelf.");
    this.coatStep(
      "barrier",
      clear.id,
      zones,
      1,
      this.steps.some((s) => s.id === "coat.barrier.1") ? `barrier.${this.steps.length}` : "barrier",
    );
  }
  /** White or light behind reverse work, and finishing moves at the end. */
  private finishing(): void {
    const { c } = this;
    for (const id of c.job.choices.finishing ?? []) {
      const move = FINISHING.find((m) => m.id === id);
      if (!move || (move.families && !move.families.includes(c.substrate.family))) continue;
      const epoxy = c.world.products.find((p) => finish(p.finish).family === "epoxy") ?? null;
      if (move.kind === "flood-epoxy" && !epoxy) this.lack("epoxy", "There is no epoxy on the Shelf.");
      this.step(move.kind, {
        zones: c.allZones,
        ...(move.kind === "flood-epoxy"
          ? { productId: epoxy?.id ?? null, dryUm: epoxy ? c.paintOf(epoxy.id).coatUm.value : null }
          : {}),
      });
    }
  }
  /** An engraving visit of its own for some zones. */
  engrave(zones: string[], depthMm: number): void {
    const setting = engraveSetting(this.c, depthMm);
    if (!this.c.machine)
      this.lack("machine", "No machine is chosen; its beam, watts and speeds decide depth, setting and minutes.");
    else if (!setting) this.lackDepth();
    this.step(
      "engrave",
      { zones, laser: setting, depthMm },
      `Engrave ${depthMm} mm${setting ? `, ${setting.passes} ${setting.passes === 1 ? "pass" : "passes"}` : ""}`,
    );
  }
  private lackDepth(): void {
    this.lack(
      "machine",
      `How deep ${this.c.machine?.name ?? "the laser"} cuts ${this.c.substrate.name.toLowerCase()} is not known: cut a test and type its “depth per J/mm²” in the Workshop.`,
    );
  }
  needsOven(): void {
    if (!ovenOf(this.c)) this.lack("oven", "No oven stands in the Workshop.");
  }

  private coats(ph: Extract<Phase, { do: "coats" }>): void {
    const { c } = this;
    if (ph.kept === "no-clear" && c.job.choices.noClear) return;
    if (ph.role === "colour" && ph.until === "hides")
      return ph.over === "face" ? this.faceColour() : this.zoneColours();
    if (ph.role === "colour") {
      const g = this.groups()[0];
      for (let i = 1; g && i <= (ph.count ?? 1); i++) this.coatStep("colour", g.id, c.allZones, i, `colour.${g.id}`);
      return;
    }
    const product = productFor(ph.role, c);
    if (!product)
      this.lack(
        ph.role === "seal" ? "sealer" : ph.role === "backing" ? "white" : (ph.role as "top" | "clear"),
        `There is no ${ph.role === "seal" ? "sealer" : ph.role === "top" ? "dark paint for the top" : ph.role === "backing" ? "light paint for the backing" : "clear coat"} on the Shelf.`,
      );
    const id = product?.id ?? null;
    let n = ph.count ?? 1;
    if (ph.until === "hides" && id) {
      const ground = seen(zoneOf(this.piece, GROUND), c.substrate.colour, c.paintOf);
      const k = need(c, id, ground);
      n = Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
    }
    for (let i = 1; i <= n; i++)
      this.coatStep(ph.role, id, ph.over === "zones" ? c.filled.map((z) => z.id) : c.allZones, i, ph.role);
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
    if (white && wantsWhite(row, c.job.choices.undercoat))
      for (let i = 1; i <= row.whites; i++) this.coatStep("white", white.id, c.allZones, i, "white");
    const k = need(c, id, seen(zoneOf(this.piece, GROUND), c.substrate.colour, c.paintOf));
    const n = Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
    for (let i = 1; i <= n; i++) this.coatStep("colour", id, c.allZones, i, `colour.${id}`);
  }

  private undercoat(): void {
    const { c } = this;
    const white = productFor("white", c);
    const rows = c.filled.map((z) =>
      compareUndercoat(c, z, seen(zoneOf(this.piece, z.id), c.substrate.colour, c.paintOf), white?.id ?? null),
    );
    this.hiding.push(...rows);
    const wants = rows.filter((r) => wantsWhite(r, c.job.choices.undercoat));
    if (c.job.choices.undercoat === false || !wants.length) {
      if (!white && rows.some((r) => r.hides === false))
        this.lack("white", "A colour will not hide the char, and there is no white on the Shelf.");
      return;
    }
    const most = Math.max(...wants.map((r) => r.whites));
    for (let i = 1; i <= most; i++)
      this.coatStep(
        "white",
        white!.id,
        wants.filter((r) => r.whites >= i).map((r) => r.zone),
        i,
        "white",
      );
  }

  /** Route E: colour by colour, lightest first, each until it hides what is in its zones. */
  private zoneColours(): void {
    const { c } = this;
    const ids = [...new Set(c.filled.map((z) => z.productId as string))].sort(
      (a, b) => luminance(linear(c.paintOf(b).product.colour)) - luminance(linear(c.paintOf(a).product.colour)),
    );
    if (!ids.length) this.lack("colour", "No zone has a finish yet.");
    for (const id of ids) {
      const zones = c.filled.filter((z) => z.productId === id);
      const counts = zones.map((z) => {
        const k = need(c, id, seen(zoneOf(this.piece, z.id), c.substrate.colour, c.paintOf));
        return Math.min(COAT_CAP, Math.max(1, k.coats ?? 1));
      });
      const most = Math.max(...counts);
      for (let i = 1; i <= most; i++)
        this.coatStep(
          "colour",
          id,
          zones.filter((_z, j) => counts[j] >= i).map((z) => z.id),
          i,
          `colour.${id}`,
        );
    }
  }

  laserSetting(): LaserSetting | null {
    const { c } = this;
    if (!c.machine) {
      this.lack("machine", "No machine is chosen; its beam, watts and speeds decide depth, setting and minutes.");
      return null;
    }
    const set = c.job.plate;
    if (set && set.machineId === c.machine.id)
      return { power: set.power, speed: set.speed, interval: set.interval, passes: set.passes, from: "test plate" };
    if (
      c.route?.phases.some((p) => p.do === "laser" && p.kind === "engrave") ||
      c.route?.phases.some((p) => p.do === "colours" && (p.how === "powder-visits" || p.how === "nested"))
    ) {
      const s = engraveSetting(c, this.depthMm());
      if (!s) this.lackDepth();
      return s;
    }
    if (c.route?.phases.some((p) => p.do === "laser" && p.kind === "open-skin"))
      return settingFor(c, skinEnergy(c), 0.5, 1);
    if (c.route?.phases.some((p) => p.do === "colours" && (p.how === "stencil" || p.how === "reverse")))
      return settingFor(c, SCORE_E, 0.5, 1);
    if (c.route?.id === "B") return settingFor(c, BURN_E, 0.5, 1);
    const zone = c.filled[0];
    const w = zone && c.intervalMm !== null ? window(cutsOf(zoneOf(this.piece, zone.id), c, c.intervalMm, 1)) : null;
    // A shut window still needs a place to start the plate: its geometric middle.
    const e = w ? (w.best ?? Math.sqrt(w.lo * w.hi)) : BLIND_E;
    return settingFor(c, e, 0.5, 1);
  }

  depthMm(): number {
    const { c } = this;
    if (c.route && c.route.id !== "E1") return c.job.choices.depthMm ?? usualDepth(c);
    const d = this.plannedDepth();
    return c.job.choices.depthMm ?? Math.max(DEPTH_MM, Math.ceil(d.needMm * 10) / 10);
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
      most = Math.max(
        most,
        h.overWhite !== null && c.job.choices.undercoat !== false ? h.whites * whiteUm + h.overWhite * um : direct,
      );
    }
    const sand = skin + SAND_SOAK_UM + RESIDUE_UM;
    return (this.depth = { sandUm: sand, sealerUm: skin, coatsUm: most, needMm: depthNeeded(sand, skin, most) });
  }

  /** Uncovering colour by colour in one visit: each is reached with a setting of its own (M4). */
  private reveals(): void {
    const { c } = this;
    for (const g of this.groups()) {
      const zones = g.zones.map((z) => z.id);
      let laser: LaserSetting | null = null;
      if (c.machine && c.intervalMm !== null) {
        const z = zoneOf(this.piece, zones[0]);
        const over = topDown(z).findIndex((f) => f.productId === g.id && f.role !== "top");
        const w = window(cutsOf(z, c, c.intervalMm, 1), over) ?? null;
        const last = cutsOf(z, c, c.intervalMm, 1);
        // Under the last film lies the piece itself: nothing shuts the window from above.
        laser = settingFor(
          c,
          w
            ? (w.best ?? Math.sqrt(w.lo * w.hi))
            : over > 0 && last[over - 1]
              ? last[over - 1].c * PLAIN_RATIO
              : BLIND_E,
          0.5,
          1,
        );
      } else
        this.lack("machine", "No machine is chosen; its beam, watts and speeds decide depth, setting and minutes.");
      this.step("reveal", { zones, laser });
    }
  }

  private laser(kind: "reveal" | "engrave" | "open-skin" | "burn-in"): void {
    const { c } = this;
    const zones = c.filled.map((z) => z.id);
    if (kind === "open-skin")
      return this.step(kind, { zones, laser: this.laserSetting() }, skinWords[c.substrate.skin?.kind ?? "coating"]);
    if (kind === "reveal" && c.route?.id !== "A1") return this.reveals();
    const setting = this.laserSetting();
    const depthMm = kind === "engrave" ? this.depthMm() : null;
    this.put(
      newStep(
        kind,
        kind,
        kind === "engrave"
          ? `Engrave ${depthMm} mm${setting ? `, ${setting.passes} ${setting.passes === 1 ? "pass" : "passes"}` : ""}`
          : kindOf(kind).name,
        { zones, laser: setting, depthMm },
      ),
    );
  }
}

/** J/mm² to begin a test with when glaze is to be opened, and when titanium white is to be burnt in; coatings by M4. */
const GLAZE_E = 3;
const BURN_E = 1;
/** J/mm² that cuts tape of ordinary thickness and not what lies beneath it: a start for a try on an offcut */
export const SCORE_E = 0.5;
/** a heavy crossed pass against an ordinary one; a thinned coat against one rich in pigment */
const HEAVY = 2;
const THIN = 0.7;
/** µm of a light sanding after a mask */
const LIGHT_SAND_UM = 10;

/** Usual depth of a cut by what fills it, mm: powder wants a deep one, a sprayed or flooded film little. */
const usualDepth = (c: Context): number =>
  c.route?.fills.includes("powder") ? DEPTH_MM : c.substrate.family === "metal" ? 0.2 : 0.4;

/** J/mm² to take the maker’s skin off: glaze by test, a coating by its thickness and colour, silvering at a touch. */
export const skinEnergy = (c: Context): number => {
  const s = c.substrate.skin;
  if (!s || s.kind === "glaze" || !c.machine) return GLAZE_E;
  return (
    c.substrate.e0 +
    ((Q_DEFAULT * s.um) / Math.max(0.2, absorption(c.machine.beam, c.substrate.colour, false))) * MARGIN
  );
};
/** share above the middle at which a coating goes without leaving specks */
const MARGIN = 1.3;

/** Engraving setting for a depth (M10): a speed for about 2 J/mm² a pass, and the passes that makes. */
export function engraveSetting(c: Context, depthMm: number): LaserSetting | null {
  if (!c.machine || c.intervalMm === null) return null;
  const kappa = kappaOf(c);
  const s = settingFor(c, CUT_E, 0.8, 1);
  if (!s || kappa === null) return null;
  const e = energy(c.machine.watts, s.power, s.speed, s.interval);
  return { ...s, passes: passesFor(depthMm, kappa, e) ?? 1 };
}

/** mm per J/mm² in this material, measured here or by default; null: unknown. */
export const kappaOf = (c: Context): number | null =>
  !c.machine ? null : (c.machine.depthPerJ ?? defaultDepthPerJ(c.machine.beam, c.substrate.family));

/** Depth that a setting reaches in this machine's wood figures, mm; null when unknown. */
export function depthReached(c: Context, s: LaserSetting): number | null {
  const kappa = kappaOf(c);
  return kappa === null || !c.machine
    ? null
    : s.passes * depthPerPass(kappa, energy(c.machine.watts, s.power, s.speed, s.interval));
}

/** For pictures: the paint's own colour as hex. */
export const swatch = (c: Context, productId: string): string => hex(linear(c.paintOf(productId).product.colour));
