/** One function a phase of a route: what it puts, on the piece as it is by then. */
import { FINISHING } from "../catalogue/finishing";
import { paintless, type Phase, type When } from "../catalogue/routes";
import { SAND_SOAK_UM } from "../models/depth/depth";
import { linear, luminance } from "../models/film/colour";
import { GROUND, zoneOf } from "../piece/state";
import type { Context } from "../process/context";
import { finishNamed } from "../catalogue/finishes";
import type { Product } from "../records/product";
import { byTurns } from "./colours";
import { isKind, kindOf, type Step } from "../process/kinds";
import { MIST_UM } from "../process/kinds/coat";
import { skinWords } from "../process/kinds/open-skin";
import { shapeOf } from "../process/setup";
import { material } from "../process/words";
import { primerOf, productFor } from "../process/pick";
import { cutSetting, opensTogether } from "../process/settings";
import type { CoatRole } from "../records/ids";
import { inBatch, RESIDUE_UM, type Builder, type Missing, type Ways } from "./builder";
import { coatsLaid, coatsNeeded, compareUndercoat, wantsWhite } from "./hiding";

/** µm of a light sanding after a mask */
const LIGHT_SAND_UM = 10;
/** dry mists before a wet clear coat */
const MISTS = 2;

type PhaseOf<D extends Phase["do"]> = Extract<Phase, { do: D }>;

/** Is a phase done on this piece? */
function applies(when: When | undefined, c: Context): boolean {
  switch (when) {
    case "round":
      return shapeOf(c) !== "flat";
    case "bare-metal":
      return c.substrate.family === "metal";
    case "batch":
      return inBatch(c);
    case "absorbent":
      return c.substrate.absorbent;
    case "hard":
      return !c.substrate.absorbent;
    case "sand-after":
      return c.school("sand-after") === "always";
    case "cuttable":
      return c.machine === null || cutSetting(c) !== null;
    case "tile-masked":
      return c.school("tile-mask") === "mask";
    default:
      return true;
  }
}

/** µm that sanding to bare material takes: sealer skin on the face plus what soaked in. */
function sandingUm(b: Builder): number {
  const skin = zoneOf(b.piece, GROUND).films.reduce((um, f) => um + f.dryUm * f.left, 0);
  return Math.round(skin + SAND_SOAK_UM);
}

function single(b: Builder, ph: PhaseOf<"step">): void {
  const { c } = b;
  if (!isKind(ph.kind)) throw new Error(`There is no step kind “${ph.kind}”.`);
  if (!applies(ph.when, c)) return;
  const kind = kindOf(ph.kind);
  const more: Partial<Step> & Record<string, unknown> = {};
  if (kind.on === "face") more.zones = c.allZones;
  if (kind.on === "zones") more.zones = b.worked;
  if (kind.sands === "residue") more.sandUm = RESIDUE_UM;
  if (kind.sands === "face") more.sandUm = ph.when === "sand-after" ? LIGHT_SAND_UM : sandingUm(b);
  const offcut = kind.tries === "setting" && paintless(c.route);
  b.step(ph.kind, more as object, offcut ? "Test plate on an offcut" : undefined);
}

const LACKS: Partial<Record<CoatRole, { what: Missing["what"]; say: string }>> = {
  seal: { what: "sealer", say: "There is no sealer on the Shelf." },
  white: { what: "white", say: "There is no white on the Shelf for the base." },
  top: { what: "top", say: "There is no dark paint for the top on the Shelf." },
  backing: { what: "white", say: "There is no light paint for the backing on the Shelf." },
  clear: { what: "clear", say: "There is no clear coat on the Shelf." },
};

function coats(b: Builder, ph: PhaseOf<"coats">): void {
  const { c } = b;
  if (!applies(ph.when, c) || (ph.kept === "no-clear" && c.job.choices.noClear)) return;
  const zones = ph.over === "zones" ? b.filled : c.allZones;
  if (ph.role === "colour") {
    if (ph.until === "hides") return ph.over === "face" ? faceColour(b) : zoneColours(b);
    const g = b.groups()[0];
    if (g) b.coats("colour", g.id, zones, ph.count ?? 1, `colour.${g.id}`);
    return;
  }
  const product = productFor(ph.role, c) ?? (ph.role === "seal" && ph.over === "face" ? primerOf(c) : null);
  // a base for colours, where there are some
  const noBase = !c.filled.length || c.job.choices.undercoat === false || isWhite(b, product);
  if (ph.role === "white" && noBase) return;
  if (ph.role === "clear") mists(b, product, zones);
  const lack = LACKS[ph.role];
  if (!product && lack) b.lack(lack.what, lack.say);
  const hides = ph.until === "hides" && product;
  const n = hides ? coatsLaid(coatsNeeded(c, product.id, b.ground(GROUND)).coats) : (ph.count ?? 1);
  b.coats(ph.role, product?.id ?? null, zones, n);
}

/** Does the face show white as it is by now? */
const isWhite = (b: Builder, white: Product | null): boolean =>
  white !== null && coatsNeeded(b.c, white.id, b.ground(GROUND)).coats === 0;

/** Two dry mists before the first wet clear coat, where it would carry ink or marker away. */
function mists(b: Builder, clear: Product | null, zones: string[]): void {
  const soluble = zones.some((id) => {
    const top = zoneOf(b.piece, id).films.findLast((f) => f.left > 0);
    return top !== undefined && b.c.paintOf(top.productId).finish.by === "marker";
  });
  if (!clear || !soluble || finishNamed(clear.finish).by !== "spray") return;
  for (let i = 1; i <= MISTS; i++) b.coatStep("clear", clear.id, zones, i, "mist", { dryUm: MIST_UM });
}

/** One colour over the whole face, white beneath it where that saves coats. */
function faceColour(b: Builder): void {
  const { c } = b;
  const [g] = b.groups();
  if (!g) return;
  const { id } = g;
  const white = productFor("white", c);
  const row = compareUndercoat(c, { id: GROUND, productId: id }, b.ground(GROUND), white?.id ?? null);
  b.hiding.push(row);
  if (white && wantsWhite(row, c.job.choices.undercoat)) b.coats("white", white.id, c.allZones, row.whites);
  b.coats("colour", id, c.allZones, coatsLaid(coatsNeeded(c, id, b.ground(GROUND)).coats), `colour.${id}`);
}

/** White into the zones where it saves coats, or where nothing hides without it. */
function undercoat(b: Builder): void {
  const { c } = b;
  const white = productFor("white", c);
  const rows = c.filled.map((z) => compareUndercoat(c, z, b.ground(z.id), white?.id ?? null));
  b.hiding.push(...rows);
  const wants = rows.filter((r) => wantsWhite(r, c.job.choices.undercoat));
  if (!white || c.job.choices.undercoat === false || !wants.length) {
    if (!white && rows.some((r) => r.hides === false))
      b.lack("white", "A colour will not hide the char, and there is no white on the Shelf.");
    return;
  }
  const most = Math.max(...wants.map((r) => r.whites));
  for (let i = 1; i <= most; i++) {
    const zones = wants.filter((r) => r.whites >= i).map((r) => r.zone);
    b.coatStep("white", white.id, zones, i, "white");
  }
}

/** Colour by colour, lightest first, each until it hides what is in its zones. */
function zoneColours(b: Builder): void {
  const { c } = b;
  const light = (id: string): number => luminance(linear(c.paintOf(id).product.colour));
  const ids = [...new Set(c.filled.map((z) => z.productId as string))].sort((x, y) => light(y) - light(x));
  if (!ids.length && !c.uncovered.length) b.lack("colour", "No zone has a finish yet.");
  byTurns(
    b,
    ids.map((id) => ({ id, zones: c.filled.filter((z) => z.productId === id) })),
    (id, zone) => coatsLaid(coatsNeeded(c, id, b.ground(zone)).coats),
  );
}

/**
 * Uncovering in one visit: zones that one setting opens go in one pass, the picture as it is drawn; what lies deeper, or beneath
 * what another setting lifts, in a pass of its own (M4).
 */
function reveals(b: Builder): void {
  const passes: string[][] = [];
  const zones = [...b.groups().flatMap((g) => g.zones), ...b.c.uncovered];
  for (const z of zones) {
    const mine = passes.find((pass) =>
      opensTogether(
        b.c,
        [...pass, z.id].map((id) => zoneOf(b.piece, id)),
      ),
    );
    if (mine) mine.push(z.id);
    else passes.push([z.id]);
  }
  for (const pass of passes) b.step("reveal", { zones: pass });
}

function laser(b: Builder, ph: PhaseOf<"laser">): void {
  const { c } = b;
  if (ph.kind === "reveal") return reveals(b);
  const zones = b.worked;
  if (ph.kind === "engrave") return b.engrave(b.filled, b.depthMm());
  const kind = ph.kind !== "mark" ? ph.kind : c.substrate.skin ? "open-skin" : "mark-face";
  if (ph.kind === "mark" && !zones.length) b.lack("colour", "No zone is marked: all are left as they are.");
  const title =
    kind === "open-skin"
      ? skinWords[c.substrate.skin?.kind ?? "coating"]
      : kind === "mark-face"
        ? `Mark the ${material(c.substrate.family)}`
        : undefined;
  b.step(kind, { zones }, title);
}

/** Zones that are to be as dark as the beam makes them, once nothing is painted or sanded any more. */
function burns(b: Builder): void {
  const { c } = b;
  const covered = c.burnt.filter((z) => zoneOf(b.piece, z.id).films.some((f) => f.left > 0));
  for (const z of covered)
    b.lack(
      "burn",
      `“${z.name}” is to be burnt dark, and by this way paint lies over it: it needs bare material there.`,
    );
  const open = c.burnt.filter((z) => !covered.includes(z)).map((z) => z.id);
  if (!open.length) return;
  b.step("mark-face", { zones: open }, "Burn it dark");
  b.step("wash");
}
/** What ends a piece: from its first clear coat on, or the finishing moves where it gets none. */
const endsAt = (phases: readonly Phase[]): number => {
  const seal = phases.findLastIndex((p) => p.do === "coats" && p.role === "clear");
  const after = phases.slice(seal + 1).some((p) => p.do === "laser" || p.do === "lift" || p.do === "colours");
  return seal >= 0 && !after ? seal : phases.findIndex((p) => p.do === "finishing");
};

/** Finishing moves that the job asks for, at the end. */
function finishing(b: Builder): void {
  const { c } = b;
  for (const id of c.job.choices.finishing ?? []) {
    const move = FINISHING.find((m) => m.id === id);
    if (!move || !isKind(move.kind) || (move.families && !move.families.includes(c.substrate.family))) continue;
    const kind = kindOf(move.kind);
    if (kind.lays !== "film") {
      b.step(move.kind, { zones: c.allZones });
      continue;
    }
    const product = c.shelf.find((p) => kind.suits?.(c.paintOf(p.id))) ?? null;
    if (!product) b.lack("epoxy", "There is no epoxy on the Shelf.");
    const dryUm = c.paint(product?.id ?? null)?.coatUm.value ?? null;
    b.step(move.kind, { zones: c.allZones, productId: product?.id ?? null, dryUm } as object);
  }
}

/** @param ways how colours follow one another, by name */
export function runPhases(b: Builder, phases: readonly Phase[], ways: Ways): void {
  const end = b.c.burnt.length ? endsAt(phases) : -1;
  for (const [i, ph] of phases.entries()) {
    if (i === end) burns(b);
    switch (ph.do) {
      case "step":
        single(b, ph);
        break;
      case "coats":
        coats(b, ph);
        break;
      case "undercoat":
        undercoat(b);
        break;
      case "laser":
        laser(b, ph);
        break;
      case "mask":
        if (applies(ph.when, b.c)) b.step("mask-lay", { zones: b.c.allZones, productId: b.maskId(ph.heat ?? null) });
        break;
      case "lift":
        if (b.masked.length) b.step("mask-lift", { zones: b.masked });
        break;
      case "barrier":
        b.barrier();
        break;
      case "colours":
        ways[ph.how](b, ph.melt ?? null);
        break;
      case "finishing":
        finishing(b);
    }
  }
}
