/** Known physics of masks, powder, heat, round work, placement and spares, and the worked figures of the models. */
import { snagsOf } from "../judge/judge";
import { brief } from "../testing/briefs";
import { bleedChance, bleedParts } from "../models/bleed/bleed";
import { substrate } from "../catalogue/substrates";
import { linear } from "../models/film/colour";
import { over, scatter } from "../models/film/hide";
import { blank, heatAt, seen, seenThrough, shown, zoneOf, type Piece } from "../piece/state";
import { fillsFor, fusedMass, mayStayOpen, openAfter } from "../models/powder/fill";
import { coolDown, coolTau, ovenLoads, warmUp } from "../models/powder/heat";
import { faces, inFocus, insideDose, seam, squeeze, alongFor, degreesFor } from "../models/round/round";
import { chanceBeta, chanceKnown, piecesToBegin } from "../models/spares/spares";
import { context } from "./context";
import { kindOf, own, type KindId, type StepFor } from "./kinds";
import { makePlan } from "../plan/plan";
import { gapBetween } from "../geometry/gap";
import { errorAt, rotationHidden } from "../geometry/registration";
import { placement } from "../plan/placement";
import { readiness } from "./ready";
import { newStep, type Step } from "./kinds";
import { visitsOf } from "../plan/visits";
import { figuresOf } from "../explain/figures";
import type { World } from "../records/world";

/** The first brief of a route with so many zones at least. */
const of = (route: string, zones = 1): World => {
  for (let n = 0; n < 3000; n++) {
    const w = brief(n);
    if (w.job.route === route && w.job.zones.length >= zones) return w;
  }
  throw new Error(`no brief of ${route} with ${zones} zones`);
};
const step = <K extends KindId>(kind: K, more: Partial<StepFor<K>> = {}): StepFor<K> =>
  newStep(`${kind}.t`, kind, kind, more);

describe("M9 powder", () => {
  test("fills: 1.5 mm takes 2, white 3; none without a recess", () => {
    expect([
      fillsFor(1.5, 0.5, false),
      fillsFor(1.5, 0.5, true),
      fillsFor(0, 0.5, false),
      fillsFor(-1, 0.5, false),
      fillsFor(NaN, 0.5, false),
    ]).toEqual([2, 3, 0, 0, 0]);
    expect(fillsFor(1.5, 1, false)).toBeNull();
    expect(openAfter(1.5, 0.5, 3)).toBeCloseTo(0.1875, 9);
    expect(mayStayOpen(1.5, false)).toBeCloseTo(0.45, 9);
    expect(fusedMass(1000, 1.5, 0.5, 2, 1.5)).toBeCloseTo((1000 * 1.5 * 0.75 * 1.5) / 1000, 9);
  });
  test("oven: 20 to 170 °C at 180 on a rack", () => {
    expect(warmUp(substrate("hard-maple"), 6, 180, 170)!).toBeCloseTo(8.7 * 1.5, 1);
    expect(warmUp(substrate("aluminium-bare"), 3, 180, 170)!).toBeCloseTo(8.4, 1);
    expect(warmUp(substrate("tile-glazed"), 6, 180, 170)!).toBeCloseTo(13.2, 1);
    expect(warmUp(substrate("tile-glazed"), 6, 180, 178)).toBeNull();
    expect(ovenLoads(24, 120, 60, 380, 320)).toEqual({ perTray: 12, loads: 2 });
    expect(ovenLoads(1, 500, 60, 380, 320)).toBeNull();
  });
  test("cooling: never below the room, longer for thick pieces", () => {
    expect(coolDown(10, 170, 35)).toBeCloseTo(10 * Math.log(150 / 15), 9);
    expect(coolDown(10, 30, 35)).toBe(0);
    expect(coolDown(10, 170, 20)).toBeNull();
    expect(coolTau(substrate("hard-maple"), 12)).toBeGreaterThan(coolTau(substrate("hard-maple"), 6));
  });
  test("three fills leave what the model says, in the state of the piece", () => {
    const w = of("D3");
    const c = context(w);
    let p: Piece = blank(
      w.job.zones.map((z) => z.id),
      c.substrate,
    );
    p = kindOf("engrave").apply(step("engrave", { zones: ["z0"], wishMm: 1.5 }), p, c, null);
    for (let n = 1; n <= 3; n++) {
      p = kindOf("powder-fill").apply(
        { ...step("powder-fill", { zones: ["z0"], productId: w.job.zones[0].productId, coat: n }), id: `f${n}` },
        p,
        c,
        null,
      );
      expect(zoneOf(p, "z0").films.reduce((a, f) => a + f.dryUm, 0)).toBeCloseTo(1500, 6); // scraped level
      p = kindOf("melt").apply(step("melt", { zones: ["z0"], method: "gun" }), p, c, null);
    }
    expect(1500 - zoneOf(p, "z0").films.reduce((a, f) => a + f.dryUm, 0)).toBeCloseTo(187.5, 6);
  });
});

describe("masks and heat", () => {
  test("a nested mask lifted at 60 °C tears the colours before it; lifted cold it does not", () => {
    const w = of("G", 2);
    const c = context(w);
    const plan = makePlan(w);
    const lift = plan.placed.filter((p) => p.step.kind === "mask-lift").pop()!;
    expect(heatAt(lift.before, lift.start)!).toBeLessThanOrEqual(35.5);
    const torn = (z: Piece): number => z.zones.flatMap((x) => x.films).filter((f) => f.torn).length;
    expect(torn(lift.after)).toBe(0);
    const warm = lift.before.warm!;
    const at = warm.at! + warm.tauMin * Math.log((warm.c - 20) / (60 - 20));
    expect(heatAt(lift.before, at)).toBeCloseTo(60, 6);
    const after = kindOf("mask-lift").apply(lift.step, lift.before, c, at + 3, at);
    expect(torn(after)).toBeGreaterThan(1);
  });
  test("steps that can't be done on a state say why, and the plan has no time for them", () => {
    const w = of("D1", 2);
    const c = context(w);
    const bare = blank(
      w.job.zones.map((z) => z.id),
      c.substrate,
    );
    const zones = ["z0"];
    const says: [KindId, object, RegExp][] = [
      ["mask-lift", { zones }, /no mask/],
      ["score-mask", { zones }, /no mask/],
      ["melt", { zones, method: "gun" }, /no loose powder/],
      ["powder-fill", { zones, productId: "p-rust" }, /no recess/],
      ["powder-fill", { zones, productId: "e-rust" }, /no powder/],
      ["open-skin", { zones }, /no glaze or coating/],
      ["burn-in", { zones }, /no glaze/],
      ["rub-dye", { zones }, /wipes off/],
      ["pour-paint", { zones }, /no inside/],
      ["peel-film", { zones }, /no film/],
      ["reveal", { zones }, /no film lies/],
      ["strip-rest", { zones }, /no paint/],
      ["place-round", {}, /flat/],
    ];
    for (const [kind, more, why] of says)
      expect([kind, kindOf(kind).refuses(step(kind, more), bare, c)]).toEqual([kind, expect.stringMatching(why)]);
    const masked = kindOf("mask-lay").apply(step("mask-lay", { zones: c.allZones }), bare, c, null);
    expect(kindOf("coat").refuses(step("coat", { zones, productId: "e-rust" }), masked, c)).toMatch(/mask covers/);
    expect(kindOf("mask-lift").refuses(step("mask-lift", { zones }), masked, c)).toMatch(/not cut/);
    expect(kindOf("mask-lift").refuses(step("mask-lift", { zones: c.allZones }), masked, c)).toBeNull();
    // what was sprayed on a mask goes with it
    const sprayed = kindOf("coat").apply(
      step("coat", { zones: c.allZones, productId: "e-rust", dryUm: 12 }),
      masked,
      c,
      null,
    );
    expect(zoneOf(sprayed, "z0").films).toEqual([]);
    expect(zoneOf(sprayed, "z0").mask!.over).toHaveLength(1);
    const plan = makePlan({
      ...w,
      job: { ...w.job, edits: [{ id: "e", op: "remove", step: "mask-lay", after: null, field: "", value: null }] },
    });
    expect(plan.stuck).toMatch(/no mask/);
    expect(plan.ready).toBeNull();
  });
  test(
    "wet paint between a film's closing and its reopening wrinkles it; inside the flash it is one thicker " +
      "coat that waits longer",
    () => {
      const w = of("A1");
      const c = context(w);
      const coat = (id: string): Step => ({
        ...step("coat", { zones: ["z0"], productId: "e-rust", role: "colour", coat: 1, dryUm: 12 }),
        id,
      });
      const t = c.clock.fromLocal("2027-01-11T10:00");
      const one = kindOf("coat").apply(coat("a"), blank(["z0"], c.substrate), c, t);
      const lay = (min: number): Piece => kindOf("coat").apply(coat("b"), one, c, t + min);
      const wrinkled = (min: number): boolean => zoneOf(lay(min), "z0").films.some((f) => f.wrinkled);
      expect([2, 30, 70, 600, 49 * 60].map(wrinkled)).toEqual([false, false, true, true, false]);
      expect(zoneOf(lay(2), "z0").films).toMatchObject([{ dryUm: 24, merged: 2 }]);
      expect(zoneOf(lay(30), "z0").films).toHaveLength(2);
      const wait = (p: Piece): number => recoatAfter(p, c, t);
      expect(wait(lay(2))).toBeGreaterThan(wait(one) + 5);
    },
  );
});
/** minutes until the newest film takes another coat */
const recoatAfter = (p: Piece, c: ReturnType<typeof context>, t: number): number => {
  const need = kindOf("coat")
    .needs(step("coat", { zones: ["z0"], productId: "e-rust", role: "colour" }), p, c)
    .find((n) => n.state === "recoat")!;
  return readiness(need, c).opens! - t;
};

test("a blue beam through a mask scorches wood beyond the edge; CO2 does not, nor bare wood", () => {
  const w = of("D1");
  const maple = (beam: "blue" | "co2"): World => ({
    ...w,
    machines: w.machines.map((m) => ({ ...m, beam, depthPerJ: 0.2 })),
    job: { ...w.job, substrate: { ...w.job.substrate, id: "hard-maple" } },
  });
  const scorched = (x: World): boolean => makePlan(x).placed.some((p) => p.after.zones.some((z) => z.scorched));
  expect([
    scorched(maple("blue")),
    scorched(maple("co2")),
    scorched({ ...maple("blue"), job: { ...maple("blue").job, substrate: { ...w.job.substrate, id: "mdf" } } }),
  ]).toEqual([true, false, false]);
});

describe("what is not known", () => {
  test("an oven whose tray nobody has measured gives no loads and no time, and the field is named", () => {
    const w = of("D4");
    const plan = makePlan({ ...w, shop: { ...w.shop, gear: w.shop.gear!.map((g) => ({ ...g, trayW: null })) } });
    expect(plan.placed.find((p) => p.step.kind === "melt")!.minutes).toBeNull();
    expect(plan.ready).toBeNull();
    expect(plan.stuck).toMatch(/oven’s tray/);
  });
  test("a beam whose depth in a material nobody has measured gives no setting, and the field is named", () => {
    const w = of("D1");
    const plan = makePlan({ ...w, machines: w.machines.map((m) => ({ ...m, beam: "uv" as const, depthPerJ: null })) });
    expect(plan.missing.map((m) => m.say).join()).toMatch(/depth per J\/mm²/);
    expect(plan.placed.find((p) => p.step.kind === "engrave")!.minutes).toBeNull();
    const known = makePlan({ ...w, machines: w.machines.map((m) => ({ ...m, beam: "uv" as const, depthPerJ: 0.05 })) });
    expect(known.placed.find((p) => p.step.kind === "engrave")!.minutes).toBeGreaterThan(0);
  });
  test("powder weighs what its density says, and the whole job's grams are the sum of its fills", () => {
    const w = of("D3");
    const plan = makePlan(w);
    const area = plan.context.filled.reduce((a, z) => a + z.areaMm2, 0);
    const grams = plan.amounts.filter((a) => a.g !== null).reduce((a, x) => a + x.g!, 0);
    expect(grams).toBeCloseTo(fusedMass(area, 0.6, 0.5, 2, 1.5) * plan.context.pieces, 1);
  });
});

describe("sides", () => {
  test("reverse work is seen through the sheet; swapping two paint steps changes the front", () => {
    const w = of("I", 2);
    const front = (x: World): string => {
      const p = makePlan(x);
      const end = p.placed[p.placed.length - 1].after;
      return end.zones
        .map((z) =>
          shown(end, z, p.context.substrate.colour, p.context.paintOf)
            .map((v) => v.toFixed(3))
            .join(),
        )
        .join("|");
    };
    const steps = makePlan(w).placed.map((p) => p.step);
    const firstOf = (id: string): Step[] =>
      steps.filter((s) => s.kind === "coat" && s.role === "colour" && s.productId === id);
    const order = [...new Set(steps.filter((s) => own(s, "role") === "colour").map((s) => own(s, "productId")!))];
    // the first colour's coats moved behind the second's: the mask of both is off by then
    const [a, b] = [firstOf(order[0]), firstOf(order[1])];
    const swapped = {
      ...w,
      job: {
        ...w.job,
        edits: a.map((s, i) => ({
          id: `m${i}`,
          op: "move" as const,
          step: s.id,
          after: i === 0 ? b[b.length - 1].id : a[i - 1].id,
          field: "",
          value: null,
        })),
      },
    };
    expect(front(swapped)).not.toBe(front(w));
    expect(snagsOf(makePlan(swapped)).some((s) => s.rule === 5 && s.severity === "stop")).toBe(true);
  });
  test("through a sheet the first film is in front, from the back the last", () => {
    const w = of("I", 2);
    const c = context(w);
    let p = blank(["z0"], c.substrate, "back");
    for (const id of ["e-rust", "e-navy"])
      for (let n = 0; n < 6; n++)
        p = kindOf("coat").apply(
          { ...step("coat", { zones: ["z0"], productId: id, dryUm: 20, role: "colour" }), id: `${id}${n}` },
          p,
          c,
          null,
        );
    const near = (a: readonly number[], hex: string): void =>
      a.forEach((v, i) => expect(v).toBeCloseTo(linear(hex)[i], 1));
    near(seenThrough(zoneOf(p, "z0"), c.substrate.colour, c.paintOf), "#a8481f");
    near(seen(zoneOf(p, "z0"), c.substrate.colour, c.paintOf), "#22345c");
  });
});

describe("M6 limits", () => {
  test("infinitely thick is the swatch, zero is what lies beneath", () => {
    const c = linear("#4f8f43");
    const s = scatter(c, 35)!;
    over(c, linear("#000000"), s * 1e6).forEach((v, i) => expect(v).toBeCloseTo(Math.max(0.02, c[i]), 6));
    over(c, linear("#d0a060"), 0).forEach((v, i) => expect(v).toBeCloseTo(linear("#d0a060")[i], 6));
  });
});

describe("M12 placement, M14 round work, M15 spares, M11 edges", () => {
  test("a 108 mm piece with 1 mm over hides 1.07° of rotation", () => {
    expect(rotationHidden(108, 108, 1)).toBeCloseTo(1.07, 2);
    expect(rotationHidden(100, 100, 0)).toBe(0);
    expect(rotationHidden(200, 50, 1)).toBeLessThan(rotationHidden(108, 108, 1));
  });
  test("gaps between outlines, and which zones can't be kept apart", () => {
    const w = of("D3", 2);
    const box = (x: number): string => `M${x} 0L${x + 10} 0L${x + 10} 10L${x} 10Z`;
    const zones = w.job.zones.slice(0, 2).map((z, i) => ({ ...z, outline: box(i * 10.5) }));
    expect(gapBetween(zones[0], zones[1])).toBeCloseTo(0.5, 6);
    expect(gapBetween({ ...zones[0], outline: "" }, zones[1])).toBeNull();
    const plan = makePlan({ ...w, job: { ...w.job, zones } });
    const p = placement(
      plan.context,
      plan.placed.map((x) => x.step),
    );
    // at the far end of the piece it may be turned too; two of three set-ups are both put back
    const { w: wide, h: high } = plan.context.job.substrate;
    const far = 0.3 * (1 + Math.hypot(wide, high) / Math.max(wide, high));
    expect(p).toMatchObject({ replaced: true, errorMm: 0.3 });
    expect(p.pairs[0].betweenMm).toBeLessThanOrEqual(far * Math.SQRT2 + 1e-9);
    expect(p.pairs[0].betweenMm).toBeGreaterThan(0.3);
    expect(p.trapMm).toBeCloseTo(Math.max(...p.pairs.map((x) => x.betweenMm)) + 0.05, 9);
    expect([errorAt(0.3, 0, 80), errorAt(0.3, 80, 80), errorAt(0.3, 40, 0)]).toEqual([0.3, 0.6, 0.3]);
    expect(p.pairs[0].apart).toBe(false);
    const nest = makePlan({ ...w, job: { ...w.job, zones, choices: { ...w.job.choices, placedBy: "nest" } } });
    expect(
      placement(
        nest.context,
        nest.placed.map((x) => x.step),
      ).pairs[0].apart,
    ).toBe(true);
  });
  test("a ball of 80 mm: 17.8 or 25.0 mm sharp at 1 mm of focus", () => {
    expect(inFocus(40, 1).crown).toBeCloseTo(17.8, 1);
    expect(inFocus(40, 1).mid).toBeCloseTo(25, 1);
    expect(inFocus(40, 1e6).crown).toBeCloseTo(80, 6);
    expect(squeeze(40, 0)).toBe(1);
    expect(squeeze(40, 41)).toBe(0);
    expect(faces(80, 2).widthMm).toBeCloseTo((Math.PI * 80) / 2, 9);
    expect(() => faces(80, 0)).toThrow(RangeError);
    expect(seam(80.5, 80)).toBeCloseTo(1.571, 3);
    expect(degreesFor(80, alongFor(80, 33))).toBeCloseTo(33, 9);
    expect(insideDose(80, 100)!).toBeCloseTo((Math.PI * 6400 * 100 * 1.1) / 1e6, 9);
  });
  test("12 good ones at 25 %: 23 with the prior, 19 once it is known", () => {
    expect(piecesToBegin(12, 0.25)!.pieces).toBe(23);
    expect(piecesToBegin(12, 0.25, null)!.pieces).toBe(19);
    expect(piecesToBegin(5, 0, null)).toEqual({ pieces: 5, chance: 1 });
    expect(piecesToBegin(0, 0.1)).toBeNull();
    expect(piecesToBegin(3, 0.999)!.pieces).toBeLessThanOrEqual(60);
    expect(chanceBeta(10, 0, 6, 2)).toBeCloseTo(1, 9);
    expect(chanceKnown(10, 0, 0.3)).toBeCloseTo(1, 9);
  });
  test("edges: sealing and tight grain help, the parts add up, the unknown stays unknown", () => {
    const base = {
      grain: -1,
      grainName: "maple",
      sealCoats: 0,
      mask: null,
      paint: "ordinary" as const,
      how: "ordinary" as const,
      blueMaskWood: false,
    };
    const chance = (more: object): number => bleedChance(bleedParts({ ...base, ...more })!);
    expect(chance({})).toBeCloseTo(1 / (1 + Math.exp(2)), 9);
    expect(chance({ sealCoats: 2 })).toBeCloseTo(1 / (1 + Math.exp(4.2)), 9);
    expect(chance({ grain: 1.2 })).toBeGreaterThan(chance({}));
    expect(chance({ mask: "loose" })).toBeGreaterThan(chance({ mask: "pressed" }));
    expect(bleedParts({ ...base, grain: null })).toBeNull();
    const w = bleedParts({ ...base, grain: 1.5, how: "flooded" })!.map((x) => Math.abs(x.weight));
    expect(w).toEqual([...w].sort((a, b) => b - a));
  });
});

describe("visits and figures", () => {
  test("each visit holds only its own artwork; a stencil opens one colour at a time and stays masked round it", () => {
    const plan = makePlan(of("H", 3));
    const v = visitsOf(plan);
    const lifts = v.filter((x) => x.kind === "mask-lift");
    const colours = new Set(plan.context.filled.map((z) => z.productId)).size;
    expect(lifts).toHaveLength(colours + 1);
    for (const x of lifts.slice(0, -1)) expect(x.stays).toContain("ground");
    expect(lifts[lifts.length - 1].stays).toEqual([]);
    const visits = visitsOf(makePlan(of("D3", 3))).filter((x) => x.artwork.length);
    expect(new Set(visits.flatMap((x) => x.artwork)).size).toBe(visits.flatMap((x) => x.artwork).length);
    expect(
      visitsOf(makePlan(of("I")))
        .filter((x) => x.artwork.length)
        .every((x) => x.mirrored),
    ).toBe(true);
  });
  test("a step shows the figures of its models", () => {
    const has = (route: string, kind: string, id: string): void => {
      const plan = makePlan(of(route));
      const f = figuresOf(
        plan,
        plan.placed.findIndex((p) => p.step.kind === kind && (kind !== "coat" || own(p.step, "role") === "colour")),
      );
      expect([route, kind, f.map((x) => x.id)]).toEqual([route, kind, expect.arrayContaining([id])]);
      for (const x of f)
        expect(x.rows.every((r) => r.value !== "" && !/NaN|undefined|Infinity/.test(r.value))).toBe(true);
    };
    const curvesOf = (route: string) => {
      const plan = makePlan(of(route));
      const i = plan.placed.findIndex((x) => x.step.kind === "reveal");
      return { plan, f: figuresOf(plan, i).find((x) => x.id === "window")! };
    };
    // the curves say what the rows say: nothing gone at no energy, half at each film's own, what this setting leaves at the setting
    const { f } = curvesOf("A1");
    const c = f.curves!;
    const near = (at: number): number[] =>
      c.points.reduce((x, p) => (Math.abs(p.at - at) < Math.abs(x.at - at) ? p : x)).gone;
    expect(c.points[0]).toEqual({ at: 0, gone: c.films.map(() => 0) });
    for (const p of c.points) p.gone.slice(1).forEach((g, i) => expect(g).toBeLessThanOrEqual(p.gone[i]));
    c.films.forEach((film, i) => {
      expect(f.rows[i].name.startsWith(film.name)).toBe(true);
      const cut = Number(/gone at ([\d.]+)/.exec(f.rows[i].value)![1]);
      expect(Math.abs(near(cut)[i] - 0.5)).toBeLessThan(0.2);
      expect(near(c.at)[i]).toBeCloseTo(Number(/^([\d.]+) %/.exec(f.rows[i].from!)![1]) / 100, 1);
    });
    expect(c.lo! < c.at && c.at < c.hi!).toBe(true);
    expect([near(c.lo!)[0] > 0.9, near(c.hi!)[1] < 0.1]).toEqual([true, true]);
    expect(f.rows.find((r) => r.name === "Window")!.value).toMatch(new RegExp(`^${Math.round(c.lo! * 100) / 100} to `));
    has("A1", "reveal", "window");
    has("A2", "reveal", "window");
    has("D3", "powder-fill", "powder");
    has("D4", "melt", "heat");
    has("D1", "engrave", "depth");
    has("D1", "coat", "bleed");
    has("J", "place-round", "round");
  });
});

describe("steps put in by hand", () => {
  const added = (w: World, kind: string, after: string, more: [string, string][] = []): World => ({
    ...w,
    job: {
      ...w.job,
      edits: [
        { id: "a", op: "add", step: `${kind}.x1`, after, field: kind, value: null },
        ...more.map(([field, value], i) => ({
          id: `s${i}`,
          op: "set" as const,
          step: `${kind}.x1`,
          after: null,
          field,
          value,
        })),
      ],
    },
  });
  test("a fill and a melt begin with the job's powder and do something; an oven picked for a melt is timed by its loads", () => {
    const w = of("D3");
    const last = makePlan(w)
      .placed.filter((p) => p.step.kind === "melt")
      .pop()!;
    const fill = makePlan(added(w, "powder-fill", last.step.id)).placed.find((p) => p.step.id === "powder-fill.x1")!;
    expect(w.job.zones.map((z) => z.productId)).toContain(own(fill.step, "productId"));
    expect(fill.after.zones.some((z) => z.films.some((f) => f.step === "powder-fill.x1"))).toBe(true);
    const oven = makePlan({
      ...w,
      job: {
        ...w.job,
        edits: [{ id: "m", op: "set", step: last.step.id, after: null, field: "method", value: "oven" }],
      },
    });
    const at = oven.placed.find((p) => p.step.id === last.step.id)!;
    expect(at.minutes).toBeGreaterThan(15);
    expect(oven.ready).not.toBeNull();
  });
  test("what is laid without a product has no time and says so", () => {
    const w = of("A1");
    const bare = { ...w, products: w.products.filter((p) => p.finish !== "table-top-epoxy") };
    expect(makePlan(added(bare, "flood-epoxy", "reveal")).stuck).toMatch(/no product is chosen/);
    expect(
      own(
        makePlan(added(w, "flood-epoxy", "reveal")).placed.find((p) => p.step.id === "flood-epoxy.x1")!.step,
        "productId",
      ),
    ).toBe("epoxy");
  });
});
