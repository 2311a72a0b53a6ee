/**
 * How the colours of a job follow one another: which zones are open at each turn, what is masked, covered, lifted, filled. One
 * function a way; a route row names the way it takes. Every turn looks at the state of the piece as it is by then.
 */
import type { ColourWay } from "../catalogue/routes";
import { colourFamily, lab, linear } from "../models/film/colour";
import { PLAIN_RATIO, window } from "../models/film/reveal";
import { zoneOf, topDown, GROUND } from "../piece/state";
import { fillsFor } from "../models/powder/fill";
import type { Zone } from "../records/job";
import { inBatch, type Builder, type Group } from "./builder";
import { cutsOf } from "../process/kinds/laser-work";
import type { Heat } from "../process/step";
import { productFor } from "../process/pick";

type Way = (b: Builder, melt: Heat | null) => void;
const ids = (zones: Zone[]): string[] => zones.map((z) => z.id);
const areaOf = (g: Group): number => g.zones.reduce((a, z) => a + z.areaMm2, 0);
const lightness = (b: Builder, id: string): number => lab(linear(b.c.paintOf(id).product.colour))[0];
const lightestFirst = (b: Builder): Group[] => b.groups().sort((x, y) => lightness(b, y.id) - lightness(b, x.id));
/** µm above which the edges of an uncovered stack chip (rule 38), less what the clear coat wants */
const STACK_UM = 240;
const LOOSE = (b: Builder): string | null => b.c.shelf.find((p) => b.c.paintOf(p.id).mask?.loose)?.id ?? null;

/** Other colours’ zones that lie open and must not get this one. */
const openOthers = (b: Builder, g: Group): string[] =>
  b.c.filled.map((z) => z.id).filter((z) => !ids(g.zones).includes(z) && !zoneOf(b.piece, z).mask);

/** Coats of one colour on its own zones until it hides what is there, a zone at a time. */
function coat(
  b: Builder,
  g: Group,
  least = 1,
  extra: string[] = [],
  more: Parameters<Builder["coatStep"]>[5] = {},
): void {
  const n = g.zones.map((z) => b.coatsFor(g.id, z.id, least));
  for (let i = 1; i <= Math.max(...n); i++)
    b.coatStep("colour", g.id, [...ids(g.zones.filter((_z, k) => n[k] >= i)), ...extra], i, `colour.${g.id}`, more);
}

/**
 * Coats of several colours in turn, a coat of each: while one takes its time the next is laid. @param count coats that a colour takes in
 * a zone
 */
export function byTurns(
  b: Builder,
  groups: Group[],
  count: (id: string, zone: string) => number,
  um: (id: string, zones: string[], coat: number) => number | null = () => null,
): void {
  const plan = groups.map((g) => ({ id: g.id, zones: g.zones.map((z) => ({ id: z.id, n: count(g.id, z.id) })) }));
  const most = Math.max(0, ...plan.flatMap((g) => g.zones.map((z) => z.n)));
  for (let i = 1; i <= most; i++)
    for (const g of plan) {
      const mine = g.zones.filter((z) => z.n >= i).map((z) => z.id);
      const dryUm = um(g.id, mine, i);
      if (mine.length) b.coatStep("colour", g.id, mine, i, `colour.${g.id}`, dryUm === null ? {} : { dryUm });
    }
}

/** A2: every colour over the whole face, lightest first, each thick enough that the beam can stop in it. */
const stack: Way = (b) => {
  const { c } = b;
  const groups = lightestFirst(b);
  const top = productFor("top", c);
  const coats = groups.map((g, i) =>
    b.coatsOver(g.id, linear(i === 0 ? c.substrate.colour : c.paintOf(groups[i - 1].id).product.colour)),
  );
  const um = (id: string): number => b.coatUm(id, "colour") ?? 0;
  const topUm = top
    ? b.coatsOver(top.id, linear(c.paintOf(groups[groups.length - 1]?.id ?? top.id).product.colour)) *
      (c.paintOf(top.id).coatUm.value ?? 0)
    : 0;
  // A film is thickened until the one above it can be lifted without eating into it.
  if (c.machine && c.intervalMm !== null && top && groups.length > 1)
    for (let round = 0; round < 60; round++) {
      const z = {
        zone: GROUND,
        depthUm: 0,
        charUm: 0,
        films: [
          ...groups.map((g, i) => ({ productId: g.id, dryUm: coats[i] * um(g.id) })),
          { productId: top.id, dryUm: topUm },
        ].map((f, i) => ({
          ...f,
          step: String(i),
          role: "colour" as const,
          coat: 1,
          wetUm: null,
          left: 1,
          laidAt: null,
          roomC: null,
          roomRh: null,
        })),
      };
      const cuts = cutsOf(z, c, c.intervalMm, 1);
      const shut = topDown(z)
        .slice(1)
        .findIndex((_f, k) => (window(cuts, k + 1)?.ratio ?? Infinity) < PLAIN_RATIO + 0.02);
      const g = groups.length - 1 - shut;
      if (shut < 0 || groups.reduce((a, x, i) => a + coats[i] * um(x.id), topUm) + um(groups[g].id) > STACK_UM) break;
      coats[g]++;
    }
  groups.forEach((g, i) => {
    for (let n = 1; n <= coats[i]; n++) b.coatStep("colour", g.id, c.allZones, n, `colour.${g.id}`);
  });
};

/** A3: each colour through a shield, the others covered. */
const beside: Way = (b) => {
  lightestFirst(b).forEach((g) => {
    const others = openOthers(b, g);
    if (others.length) b.step("cover", { zones: others, productId: LOOSE(b) });
    coat(b, g);
    if (others.length) b.step("mask-lift", { zones: others }, "Take the shield off");
  });
};

/** A4: all bands in one go, each into the wet one beside it; as many rounds as the palest needs, one straight after the other. */
const bands: Way = (b) => {
  const groups = b.groups();
  // Every band gets as many coats as the palest needs, so that all windows are open when the top goes on.
  const n = Math.max(0, ...groups.flatMap((g) => g.zones.map((z) => b.coatsFor(g.id, z.id))));
  for (let round = 1; round <= n; round++)
    groups.forEach((g, i) =>
      b.coatStep("colour", g.id, ids(g.zones), round, `colour.${g.id}`, { wetInWet: i > 0 || round > 1 }),
    );
};

/** D1, D2, D5: everything is cut; colour by colour, the others covered. */
const filled: Way = (b) => {
  const groups = lightestFirst(b);
  const flooded = (g: Group): number =>
    b.c.substrate.family === "metal" &&
    b.c.paintOf(g.id).finish.by === "brush" &&
    b.c.school("metal-paint") === "enamel"
      ? 2
      : 1;
  const spray = (g: Group): boolean => b.c.paintOf(g.id).finish.by !== "brush";
  // by brush nothing need be covered, so that one colour is laid while another takes its time
  if (!groups.some(spray))
    return byTurns(
      b,
      groups,
      (id, zone) => b.coatsFor(id, zone, flooded(groups.find((g) => g.id === id)!)),
      (id, zones, i) => (i > 1 && groups.some((g) => g.id === id && flooded(g) > 1) ? b.floodUm(id, zones) : null),
    );
  groups.forEach((g) => {
    const others = spray(g) ? openOthers(b, g) : [];
    if (others.length) b.step("cover", { zones: others, productId: LOOSE(b) });
    coat(b, g, flooded(g));
    if (others.length) b.step("mask-lift", { zones: others }, "Take the cover off");
  });
};

/** Fill and melt until what is left open is as M9 wants it. */
function fillAndMelt(b: Builder, g: Group, depthMm: number, heat: Heat, zones = ids(g.zones)): void {
  const p = b.c.paintOf(g.id);
  const n =
    fillsFor(depthMm, p.powder?.packing.value ?? 0.5, ["white", "pale"].includes(colourFamily(p.product.colour))) ?? 1;
  for (let i = 1; i <= n; i++) {
    b.step("powder-fill", { zones, productId: g.id, role: "colour", coat: i }, `${p.product.name}, fill ${i}`);
    if (heat === "oven") {
      b.lackOven();
      b.lackHeat(g.id);
    }
    b.step(
      "melt",
      { zones, productId: g.id, method: heat },
      `Melt ${p.product.name}${heat === "oven" ? " in the oven" : heat === "laser" ? " with the laser" : ""}`,
    );
  }
}
/** How powder is melted where the route leaves it open: the school's, as far as the Workshop has it. */
const heatFor = (b: Builder): Heat => {
  const pick = b.c.school("melt") as Heat;
  return pick === "oven" && !(b.c.world.shop.gear ?? []).some((g) => g.kind === "oven") ? "gun" : pick;
};

/** E2, F: all cut at once, no mask; colour by colour, the other cuts covered. */
const powder: Way = (b, melt) => {
  const heat = melt ?? heatFor(b);
  const depth = b.depthMm();
  b.groups()
    .sort((x, y) => areaOf(y) - areaOf(x))
    .forEach((g) => {
      const others = openOthers(b, g);
      // nothing loose lies under a hot gun: what keeps powder out of the other cuts is stuck down, and bears the heat
      if (others.length) b.step("cover", { zones: others, productId: heat === "laser" ? LOOSE(b) : b.maskId(heat) });
      fillAndMelt(b, g, depth, heat);
      if (others.length) b.step("mask-lift", { zones: others }, "Take the cover off");
    });
};

/** D3, D4: one mask; each colour is cut, filled and melted in a visit of its own, the rest still masked. */
const powderVisits: Way = (b, melt) => {
  const depth = b.depthMm();
  b.groups()
    .sort((x, y) => areaOf(y) - areaOf(x))
    .forEach((g) => {
      b.engrave(ids(g.zones), depth);
      b.step("dust");
      if (b.c.school("edge") === "both") b.barrier(ids(g.zones));
      fillAndMelt(b, g, depth, melt ?? "gun");
    });
};

/** A proof of the first visit, once the mask is on, where there is a batch. */
const proofFirst = (b: Builder): void => {
  if (inBatch(b.c)) b.step("proof", { zones: b.filled });
};

/** mm that each later nested colour is cut below the one before it */
const NEST_MM = 0.3;
/** G: the biggest colour over the whole shape, the next cut through it, and so on. */
const nested: Way = (b) => {
  const { veneerMm } = b.c.substrate;
  const groups = b.groups().sort((x, y) => areaOf(y) - areaOf(x));
  const heat: "gun" | "oven" = heatFor(b) === "oven" ? "oven" : "gun";
  // all of them within a face veneer: an even share each
  const nest = veneerMm === null ? NEST_MM : Math.min(NEST_MM, b.depthMm() / groups.length);
  const first = veneerMm === null ? b.depthMm() : b.depthMm() - (groups.length - 1) * nest;
  groups.forEach((g, i) => {
    const zones = groups.slice(i).flatMap((x) => ids(x.zones));
    b.step("mask-lay", { zones: b.c.allZones, productId: b.maskId(heat) });
    if (i === 0) proofFirst(b);
    b.engrave(zones, i === 0 ? first : nest);
    b.step("dust");
    fillAndMelt(b, g, first + i * nest, heat, zones);
    b.step("mask-lift", { zones: b.masked });
  });
};

const score = (b: Builder): void => {
  b.step("score-mask", { zones: b.c.filled.map((z) => z.id) });
};

/** H: the mask is scored once; lift, paint, cover, lift the next. */
const stencil: Way = (b) => {
  score(b);
  const clear = b.c.substrate.absorbent ? productFor("clear", b.c) : null;
  lightestFirst(b).forEach((g, i, all) => {
    b.step("mask-lift", { zones: ids(g.zones) }, `Lift the mask off ${b.c.paintOf(g.id).product.name}`);
    if (clear) b.coatStep("barrier", clear.id, ids(g.zones), 1, `barrier.${i + 1}`);
    coat(b, g);
    if (i < all.length - 1) b.step("cover", { zones: ids(g.zones), productId: LOOSE(b) });
  });
};

/** I: what is in front is painted first; each further colour may run behind those before it. */
const reverse: Way = (b) => {
  const { c } = b;
  score(b);
  const groups = b.groups().sort((x, y) => areaOf(x) - areaOf(y));
  const back = productFor("backing", c);
  groups.forEach((g, i) => {
    b.step("mask-lift", { zones: ids(g.zones) }, `Lift the mask off ${c.paintOf(g.id).product.name}`);
    // It must hide whatever will come behind it.
    const behind = [...groups.slice(i + 1).map((x) => c.paintOf(x.id).product.colour), back?.colour ?? "#f4f2ee"];
    const n = Math.max(...behind.map((x) => b.coatsOver(g.id, linear(x), 2)));
    const open = groups.slice(0, i + 1).flatMap((x) => ids(x.zones));
    for (let k = 1; k <= n; k++) b.coatStep("colour", g.id, open, k, `colour.${g.id}`);
  });
  const masked = b.masked;
  if (masked.length) b.step("mask-lift", { zones: masked }, "Lift the rest of the mask");
};

/** J: paint poured in until it hides behind every opening. */
const poured: Way = (b) => {
  const g = b.groups()[0];
  if (!g) return;
  const n = b.coatsOver(g.id, linear(b.c.substrate.skin?.beneath ?? b.c.substrate.colour));
  for (let i = 1; i <= n; i++)
    b.step(
      "pour-paint",
      { productId: g.id, role: "colour", coat: i, zones: b.c.allZones, dryUm: b.coatUm(g.id, "colour") },
      `${b.c.paintOf(g.id).product.name}: pour, swirl, drain`,
    );
};

/** C1: dye over the face, kept where the glaze is open. */
const dyed: Way = (b) => {
  const g = b.groups()[0];
  if (!g) return;
  b.step(
    "rub-dye",
    { productId: g.id, role: "colour", coat: 1, zones: ids(g.zones), dryUm: b.coatUm(g.id, "colour") },
    `Rub ${b.c.paintOf(g.id).product.name} in`,
  );
  b.step("wipe-back", { zones: ids(g.zones) });
};

/** C2, C3: by hand, area by area, palest first. */
const inked: Way = (b) => byTurns(b, lightestFirst(b), (id, zone) => b.coatsFor(id, zone));

export const COLOUR_WAYS: Record<ColourWay, Way> = {
  stack,
  beside,
  bands,
  filled,
  powder,
  "powder-visits": powderVisits,
  nested,
  stencil,
  reverse,
  poured,
  dyed,
  inked,
};
