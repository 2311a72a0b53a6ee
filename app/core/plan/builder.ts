/**
 * What turns phases into steps: it carries the state of the piece along, so that every step is put by what is there by then, and
 * keeps what the Shelf or the Workshop lacks. The phases are in phases.ts, ways of colours in colours.ts.
 */
import { finish, inWords, type FinishId } from "../catalogue/finishes";
import { taken, takes } from "../catalogue/routes";
import type { ColourWay } from "../catalogue/routes";
import { depthNeeded, SAND_SOAK_UM } from "../models/depth/depth";
import { difference, linear } from "../models/film/colour";
import { blank, seen, zoneOf, type Piece } from "../piece/state";
import type { Context } from "../process/context";
import { byBeam, isSet, kindOf, newStep, own, type KindId, type Step, type StepFor } from "../process/kinds";
import { openUm } from "../process/kinds/powder-fill";
import { GUN_TAPE_C, OVEN_OVER_C, ovenOf, tooHot } from "../process/kinds/melt";
import { maskFor } from "../process/masks";
import { productFor } from "../process/pick";
import { inForce } from "../process/force";
import { CUT_PASSES } from "../process/settings";
import type { Heat } from "../process/step";
import type { CoatRole } from "../records/ids";
import type { Zone } from "../records/job";
import { coatsLaid, coatsNeeded, compareUndercoat, type Ground, type Hiding } from "./hiding";

/** pieces from which a proof is worth its time */
export const PROOF_FROM = 3;
/** Is a proof made first? */
export const inBatch = (c: Context): boolean => c.job.choices.proof ?? c.job.quantity >= PROOF_FROM;
/** dry µm taken off with the residue after engraving */
export const RESIDUE_UM = 20;
/** mm that powder must keep below the face (M10); in metal less, which gives way by hundredths */
const POWDER_STAYS_MM = 0.5;
const METAL_POWDER_MM = 0.3;
/** ordinary depth of a cut in metal, and of one that a sprayed film fills, mm */
const METAL_DEPTH_MM = 0.25;
const SPRAYED_DEPTH_MM = 0.4;
/** mm of a face veneer that a cut leaves at the least */
const VENEER_LEAVES_MM = 0.05;
const upTenth = (mm: number): number => Math.ceil(mm * 10 - 1e-9) / 10;
/** a heavy crossed pass against an ordinary one; a thinned coat against one rich in pigment */
const HEAVY = 2;
const THIN = 0.7;
/** coats of sealer in a cut */
const SEAL_COATS = 2;

const ORDINAL = ["", "first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth"];
/** @param as what it is laid as where that is no coat like any other */
export const coatName = (name: string, n: number, as: "mist" | "barrier" | null = null): string =>
  as === "mist"
    ? `${name}, dry mist ${n}`
    : as === "barrier"
      ? `${name}, light, against creeping${n > 1 ? `, ${ORDINAL[n] ?? `${n}th`} coat` : ""}`
      : `${name}, ${ORDINAL[n] ?? `${n}th`} coat`;

export interface Missing {
  what:
    | "machine"
    | "burn"
    | "mask"
    | "oven"
    | "epoxy"
    | "sealer"
    | "white"
    | "top"
    | "clear"
    | "colour"
    | "zones"
    | "route";
  say: string;
}
/** What a cut must hold, µm and mm (M10). */
export interface DepthPlan {
  needMm: number;
  sandUm: number;
  sealerUm: number;
  coatsUm: number;
}
export interface Generated {
  steps: Step[];
  missing: Missing[];
  /** straight on against over white, for every zone (M6) */
  hiding: Hiding[];
  depth: DepthPlan | null;
}
export type { Hiding };

/** Zones that get one product. */
export interface Group {
  id: string;
  zones: Zone[];
}
/** How the colours of a job follow one another; worked out in colours.ts. */
export type Ways = Record<ColourWay, (b: Builder, melt: Heat | null) => void>;

/** what a coat is called while no product is chosen for it */
const ROLE_NAME: Record<CoatRole, string> = {
  seal: "Sealer",
  white: "White",
  top: "Dark top",
  clear: "Clear coat",
  colour: "Colour",
  barrier: "Barrier",
  "touch-up": "Touch-up",
  backing: "Backing",
};
const ALL_DARK = "Every zone has the colour of the dark top: nothing is left to uncover.";
const NO_MACHINE = "No machine is chosen; its beam, watts and speeds decide depth, setting and minutes.";

export class Builder {
  steps: Step[] = [];
  missing: Missing[] = [];
  hiding: Hiding[] = [];
  depth: DepthPlan | null = null;
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
  lackMachine(): void {
    this.lack("machine", NO_MACHINE);
  }
  lackOven(): void {
    if (!ovenOf(this.c)) this.lack("oven", "No oven stands in the Workshop.");
  }
  /** An oven set for this powder would spoil the body. */
  lackHeat(powderId: string): void {
    const s = { productId: powderId, method: "oven" as const };
    const no = tooHot(s, this.c);
    if (no) this.lack("oven", `${no}. A powder that cures cooler would do, or a heat gun.`);
  }
  private lackDepth(): void {
    const [laser, body] = [this.c.machine?.name ?? "the laser", this.c.substrate.name.toLowerCase()];
    const test = "cut a test and type its “depth per J/mm²” in the Workshop";
    this.lack("machine", `How deep ${laser} cuts ${body} is not known: ${test}.`);
  }
  private lackCut(): void {
    const { t } = this.c.job.substrate;
    const [laser, body] = [this.c.machine?.name ?? "the laser", this.c.substrate.name.toLowerCase()];
    this.lack(
      "machine",
      `${t} mm of ${body} is more than ${laser} is known to cut through in ${CUT_PASSES} passes; cut it to size another way.`,
    );
  }

  /** Zones that get a finish. */
  get filled(): string[] {
    return this.c.filled.map((z) => z.id);
  }
  /** Zones that the route works on: those that get a finish, and those that are uncovered down to the body. */
  get worked(): string[] {
    return [...this.c.filled, ...this.c.uncovered].map((z) => z.id);
  }
  /** Zones of which the dark top has the colour: it is simply left there. */
  get left(): string[] {
    const { c } = this;
    const top = c.route?.lifts ? productFor("top", c) : null;
    if (!top) return [];
    const off = (id: string): number => difference(linear(c.paintOf(id).product.colour), linear(top.colour));
    return c.filled.filter((z) => off(z.productId as string) <= c.tolerance).map((z) => z.id);
  }
  /** Zones that a mask still lies on. */
  get masked(): string[] {
    return this.piece.zones.filter((z) => z.mask).map((z) => z.zone);
  }
  /** What is seen of a zone by now, as if no mask lay on it. */
  ground(zone: string): Ground {
    return seen({ ...zoneOf(this.piece, zone), mask: undefined }, this.c.substrate.colour, this.c.paintOf);
  }

  private fresh(base: string): string {
    let id = base;
    for (let n = 2; this.steps.some((s) => s.id === id); n++) id = `${base}.${n}`;
    return id;
  }
  /** Does the piece still lie at the laser as it was placed, with its list read? */
  private get lies(): boolean {
    const last = this.steps.findLastIndex((s) => kindOf(s.kind).places === "flat");
    return last >= 0 && this.steps.slice(last + 1).every((s) => byBeam(s) || kindOf(s.kind).stays);
  }
  /** Is it done to the pieces at the laser, and not on an offcut? */
  private atLaser(s: Step): boolean {
    return byBeam(s) && kindOf(s.kind).tries !== "setting";
  }
  private put(s: Step): void {
    if (this.atLaser(s) && !this.lies) this.step("pre-flight");
    this.steps.push(s);
    const on = inForce(this.steps, this.steps.length - 1, this.piece, this.c);
    if (isSet(s) && own(on, "laser") === null) this.lackSetting(s);
    this.piece = kindOf(s.kind).apply(on, this.piece, this.c, null);
  }
  /** No setting for work of the beam: no machine, or not known what it does here. */
  private lackSetting(s: Step): void {
    if (!this.c.machine) this.lackMachine();
    else if (kindOf(s.kind).beam === "body") this.lackDepth();
    else if (kindOf(s.kind).beam === "outline") this.lackCut();
    else if (kindOf(s.kind).beam === "face") this.lackMark();
  }
  /** What the beam leaves on this body is not known. */
  private lackMark(): void {
    const { machine, substrate } = this.c;
    this.lack(
      "machine",
      `What ${machine!.name} leaves on ${substrate.name.toLowerCase()} is not known: try it on an offcut and type it in.`,
    );
  }
  /** A step of any kind, numbered from the second on. */
  step<K extends KindId>(kind: K, more: Partial<StepFor<K>> = {}, title?: string): void {
    this.put(newStep(this.fresh(kind), kind, title, more));
  }

  coatStep(
    role: CoatRole,
    productId: string | null,
    zones: string[],
    n: number,
    key: string,
    more: Partial<StepFor<"coat">> = {},
  ): void {
    const name = this.c.paint(productId)?.product.name ?? ROLE_NAME[role];
    const dryUm = productId ? this.coatUm(productId, role) : null;
    this.put(
      newStep(`coat.${key}.${n}`, "coat", coatName(name, n, role === "barrier" ? "barrier" : null), {
        productId,
        role,
        coat: n,
        zones,
        dryUm,
        ...more,
      }),
    );
  }
  /** Several coats of one product, numbered from one. */
  coats(role: CoatRole, productId: string | null, zones: string[], count: number, key: string = role): void {
    for (let i = 1; i <= count; i++) this.coatStep(role, productId, zones, i, key);
  }

  /** µm of one coat: heavier or thinner where a school says so. */
  coatUm(productId: string, role: CoatRole): number | null {
    const um = this.c.paintOf(productId).coatUm.value;
    if (um === null || role !== "colour") return um;
    const by = this.c.paintOf(productId).finish.by;
    if (by === "spray" && this.c.school("coats") === "heavy") return um * HEAVY;
    return by === "brush" && this.c.substrate.absorbent && this.c.school("cut-paint") === "thin" ? um * THIN : um;
  }
  /** µm that a flooded coat dries to: poured level with the face, it leaves its solids (M7). Never less than a coat by brush. */
  floodUm(productId: string, zones: string[]): number | null {
    const p = this.c.paintOf(productId);
    const um = this.coatUm(productId, "colour");
    const open = Math.min(...zones.map((z) => openUm(zoneOf(this.piece, z), this.piece.sandedUm)));
    return um === null || p.solids.value === null ? um : Math.max(um, Math.round(open * p.solids.value * 10) / 10);
  }
  /** Coats until a paint hides what is there by now in one zone; one at least. */
  coatsFor(productId: string, zone: string, least = 1): number {
    return this.c.paintOf(productId).finish.stains ? 1 : this.coatsOver(productId, this.ground(zone), least);
  }
  coatsOver(productId: string, ground: Ground, least = 1): number {
    return coatsLaid(coatsNeeded(this.c, productId, ground, this.coatUm(productId, "colour")).coats, least);
  }

  /** Zones by what fills them, one group a product, in the order they are met; those that the route can’t fill are told and left out. */
  groups(): Group[] {
    const { c } = this;
    const out: Group[] = [];
    const { left } = this;
    for (const z of c.filled) {
      const id = z.productId as string;
      if (left.includes(z.id)) continue;
      const f = c.paintOf(id).finish;
      if (c.route && !takes(c.route, f)) {
        const may = taken(c.route).map((x) => inWords(x.name));
        this.lack("colour", `“${z.name}” is filled with ${inWords(f.name)}; this route takes ${may.join(", ")}.`);
        continue;
      }
      (out.find((g) => g.id === id) ?? out[out.push({ id, zones: [] }) - 1]).zones.push(z);
    }
    if (!out.length && !c.uncovered.length) this.lack("colour", left.length ? ALL_DARK : "No zone has a finish yet.");
    return out;
  }

  /** The mask that bears the heat of this route; told when the Shelf has none. */
  maskId(heat: "gun" | "oven" | null): string | null {
    const { c } = this;
    const hold = (): number => Math.max(0, ...this.groups().map((g) => c.paintOf(g.id).powder?.holdC.value ?? 0));
    const hot = heat === "oven" ? hold() + OVEN_OVER_C : heat === "gun" ? GUN_TAPE_C : null;
    const m = maskFor(c, hot);
    if (!m && hot !== null && hot > (finish(ORDINARY_TAPE).mask?.limitC ?? 0))
      this.lack("mask", `No tape on the Shelf bears ${Math.round(hot)} °C.`);
    return m?.id ?? null;
  }

  /** A light clear coat into raw cuts of what drinks paint. */
  barrier(zones = this.filled): void {
    const { c } = this;
    if (!c.substrate.absorbent) return;
    const clear = productFor("clear", c);
    if (!clear) return this.lack("clear", "There is no clear coat on the Shelf.");
    const again = this.steps.some((s) => s.id === "coat.barrier.1");
    this.coatStep("barrier", clear.id, zones, 1, again ? `barrier.${this.steps.length}` : "barrier");
  }

  /** An engraving visit for some zones. */
  engrave(zones: string[], depthMm: number): void {
    this.step("engrave", { zones, wishMm: depthMm });
  }

  depthMm(): number {
    const { c } = this;
    const needs = c.route?.depth === "as-needed" ? upTenth(this.plannedDepth().needMm) : usualDepth(c);
    const veneer = c.substrate.veneerMm;
    // what is needed, and not through the face that it is cut into
    return c.job.choices.depthMm ?? (veneer === null ? needs : Math.min(needs, veneer - VENEER_LEAVES_MM));
  }

  /** M10 before anything is cut: what the cut must hold, taken from the products' own coats. */
  private plannedDepth(): DepthPlan {
    if (this.depth) return this.depth;
    const { c } = this;
    const white = productFor("white", c);
    const whiteUm = c.paint(white?.id ?? null)?.coatUm.value ?? 0;
    const skin = SEAL_COATS * (c.paint(productFor("seal", c)?.id ?? null)?.coatUm.value ?? 0);
    const most = c.filled.map((z) => {
      const h = compareUndercoat(c, z, linear(CHAR_FLOOR), white?.id ?? null);
      const um = c.paintOf(z.productId as string).coatUm.value ?? 0;
      const overWhite = h.overWhite !== null && c.job.choices.undercoat !== false;
      return overWhite ? h.whites * whiteUm + (h.overWhite ?? 0) * um : coatsLaid(h.straight) * um;
    });
    const coats = Math.max(0, ...most);
    const sand = skin + SAND_SOAK_UM + RESIDUE_UM;
    this.depth = { sandUm: sand, sealerUm: skin, coatsUm: coats, needMm: depthNeeded(sand, skin, coats) };
    return this.depth;
  }
}

const ORDINARY_TAPE: FinishId = "painters-tape";
/** colour of a charred floor */
const CHAR_FLOOR = "#2b1d14";

/** Usual depth of a cut by what fills it, mm: powder wants a deep one, a sprayed or flooded film little. */
function usualDepth(c: Context): number {
  const metal = c.substrate.family === "metal";
  if (c.route?.takes.some((t) => t.by?.includes("powder")))
    return metal ? METAL_POWDER_MM : upTenth((SAND_SOAK_UM + RESIDUE_UM) / 1000 + POWDER_STAYS_MM);
  return metal ? METAL_DEPTH_MM : SPRAYED_DEPTH_MM;
}
