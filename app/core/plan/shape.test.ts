/** What a skilled maker looks for in a plan before reading a figure of it: over all routes, materials and beams. */
import { snagsOf } from "../judge/judge";
import { zoneOf, GROUND } from "../piece/state";
import { byBeam, kindOf, own } from "../process/kinds";
import { MIST_UM } from "../process/kinds/coat";
import { meltedBy } from "../process/kinds/melt";
import { dose } from "../process/beam";
import { cutsOf } from "../process/kinds/laser-work";
import { openShares } from "../models/film/reveal";
import { filmsOver } from "../process/settings";
import { brief } from "../testing/briefs";
import { zone } from "../testing/worlds";
import type { World } from "../records/world";
import { makePlan, type Plan } from "./plan";
import type { Placed } from "./placed";

const N = 241;
const plans: Plan[] = [];
beforeAll(() => {
  for (let n = 0; n < N; n++) plans.push(makePlan(brief(n), null, true));
});
const where = (p: Plan): string => `${p.context.job.id} ${p.context.route!.id} on ${p.context.substrate.id}`;
const colours = (p: Plan): Placed[] => p.placed.filter((x) => own(x.step, "role") === "colour");
/** Where it is not so, by brief. */
function all(say: (p: Plan) => string | false | undefined | null): string[] {
  return plans.flatMap((p) => {
    const no = say(p);
    return no ? [`${where(p)}: ${no}`] : [];
  });
}

test("what drinks is never wiped with solvent first; under a dark top it is sealed or primed before it is painted", () => {
  expect(
    all((p) => {
      const { substrate, route } = p.context;
      if (!substrate.absorbent) return false;
      const first = colours(p)[0]?.index ?? p.placed.length;
      if (p.placed.some((x) => x.index < first && kindOf(x.step.kind).cleans === "solvent"))
        return "wiped with solvent";
      const sealed = p.placed.findIndex((x) => own(x.step, "role") === "seal" && x.step.zones.includes(GROUND));
      return route!.lifts && (sealed < 0 || sealed > first) && "painted unsealed";
    }),
  ).toEqual([]);
  // and what does not drink is wiped, and not sealed
  expect(
    all(
      (p) =>
        !p.context.substrate.absorbent &&
        p.context.route!.lifts &&
        !p.placed.some((x) => kindOf(x.step.kind).cleans === "solvent") &&
        "not wiped",
    ),
  ).toEqual([]);
});

test("at every visit to the laser the piece is placed and the list is read, once the mask is on; a proof comes after that", () => {
  let visits = 0;
  expect(
    all((p) => {
      let lies = false;
      for (const { step } of p.placed) {
        const k = kindOf(step.kind);
        if (k.places === "flat") {
          lies = true;
          visits++;
        } else if (byBeam(step)) {
          if (k.tries !== "setting" && !lies) return `${step.id} with no placing before it`;
        } else if (!["dust", "powder-fill"].includes(step.kind)) lies = false;
      }
      return false;
    }),
  ).toEqual([]);
  expect(visits).toBeGreaterThan(N);
  expect(
    all((p) => {
      const proof = p.placed.findIndex((x) => x.step.kind === "proof");
      const beam = p.placed.findIndex((x) => byBeam(x.step) && !kindOf(x.step.kind).tries);
      const mask = p.placed.findIndex((x) => x.step.kind === "mask-lay");
      if (proof < 0) return false;
      if (proof > beam) return "proof after the batch";
      return mask > proof && "proof before the mask is on";
    }),
  ).toEqual([]);
});

test("nothing loose lies on a piece that a gun or an oven heats", () => {
  const hot = plans.flatMap((p) =>
    p.placed
      .filter((x) => kindOf(x.step.kind).heats && own(x.step, "method") !== "laser")
      .map((x) => [where(p), x.step.id, x.before.zones.filter((z) => z.mask?.loose).length]),
  );
  expect(hot.length).toBeGreaterThan(20);
  expect(hot.filter(([, , n]) => n)).toEqual([]);
});

test("blended bands: white first, then one wet session, then the dark top, then one pass that uncovers all of them", () => {
  const bands = plans.filter((p) => p.context.route!.id === "A4");
  expect(bands.length).toBeGreaterThan(10);
  for (const p of bands) {
    const mine = colours(p);
    expect([where(p), mine.filter((x) => own(x.step, "wetInWet")).length]).toEqual([where(p), mine.length - 1]);
    expect(mine[mine.length - 1].index - mine[0].index).toBe(mine.length - 1);
    // no band waits for one beside it, only for its own coat to flash, and changing a can takes a minute
    for (const x of mine.slice(1)) {
      expect(x.setupMin).toBe(1);
      const waits = x.needs.map((n) => [n.state, n.productId]);
      expect(waits).toEqual(own(x.step, "coat")! > 1 ? [["flash", own(x.step, "productId")]] : []);
    }
    const white = p.placed.filter((x) => own(x.step, "role") === "white");
    // on what is white already none is wanted
    const pale = ["tile-glazed", "canvas"].includes(p.context.substrate.id);
    expect([where(p), white.length > 0]).toEqual([where(p), !pale]);
    for (const x of white) expect(x.index).toBeLessThan(mine[0].index);
    expect(p.placed.filter((x) => x.step.kind === "reveal")).toHaveLength(1);
  }
});

test("one pass uncovers what one setting uncovers: every zone of it is open, and its own colour is whole", () => {
  const passes = plans.flatMap((p) => p.placed.filter((x) => x.step.kind === "reveal").map((x) => ({ p, x })));
  const wide = passes.filter(({ x }) => x.step.zones.length > 1);
  expect(wide.length).toBeGreaterThan(10);
  for (const { p, x } of passes) {
    const set = own(x.step, "laser")!;
    const e = dose(p.context.machine!, set)!;
    for (const id of x.step.zones) {
      const z = zoneOf(x.before, id);
      const wanted = p.context.job.zones.find((k) => k.id === id)!.productId;
      const k = Math.max(1, filmsOver(z, wanted));
      const open = openShares(cutsOf(z, p.context, set.interval, set.passes), e);
      expect([where(p), id, open[k - 1] > 0.9, (open[k] ?? 0) < 0.1]).toEqual([where(p), id, true, true]);
    }
  }
  // of a stack each colour lies at a depth of its own
  const stacked = plans.filter((p) => p.context.route!.id === "A2");
  for (const p of stacked)
    expect(p.placed.filter((x) => x.step.kind === "reveal")).toHaveLength(
      new Set(p.context.filled.map((z) => z.productId)).size,
    );
});

test("two dry mists come before a wet clear coat over ink and marker, and nowhere else", () => {
  let met = 0;
  expect(
    all((p) => {
      const clear = p.placed.filter((x) => own(x.step, "role") === "clear");
      if (!clear.length) return false;
      const soluble = p.context.filled.some((z) => p.context.paintOf(z.productId!).finish.by === "marker");
      const um = clear.map((x) => own(x.step, "dryUm")! <= MIST_UM);
      if (soluble) met++;
      const mists = um.filter(Boolean).length;
      return (
        (mists !== (soluble ? 2 : 0) && `${mists} mists`) ||
        (soluble && um.slice(0, 2).includes(false) && "mists too late") ||
        (clear.some((x, i) => x.step.title.includes("dry mist") !== um[i]) && "a mist by another name")
      );
    }),
  ).toEqual([]);
  expect(met).toBeGreaterThan(3);
});

test("while one colour takes its time the next is laid: no colour has its second coat before all have their first", () => {
  let met = 0;
  for (const p of plans.filter((x) => ["E1", "C2", "D2"].includes(x.context.route!.id))) {
    const coats = colours(p).map((x) => own(x.step, "coat")!);
    if (new Set(colours(p).map((x) => own(x.step, "productId"))).size > 1 && Math.max(...coats) > 1) met++;
    expect([where(p), coats]).toEqual([where(p), [...coats].sort((a, b) => a - b)]);
  }
  expect(met).toBeGreaterThan(3);
});

test("a zone that has the colour of the dark top is simply left", () => {
  const dark = (w: World): World => ({
    ...w,
    job: { ...w.job, zones: [...w.job.zones, zone("night", "top-black", { areaMm2: 300 })] },
    products: [...w.products, { ...w.products.find((x) => x.id === "e-navy")!, id: "top-black", colour: "#17181a" }],
  });
  let met = 0;
  for (let n = 0; n < 120; n++) {
    const w = brief(n);
    if (!["A2", "A3", "A4"].includes(w.job.route!) || w.job.zones.length > 2) continue;
    const p = makePlan(dark(w), null, true);
    met++;
    expect([where(p), p.placed.filter((x) => x.step.kind === "reveal" && x.step.zones.includes("night"))]).toEqual([
      where(p),
      [],
    ]);
    const painted = colours(p).filter((x) => own(x.step, "productId") === "top-black");
    expect(painted).toEqual([]);
    expect(snagsOf(p).filter((s) => s.rule === 16 && s.zone === "night")).toEqual([]);
  }
  expect(met).toBeGreaterThan(10);
});

test("powder is melted by the beam with a setting of its own, and what it does follows from that setting", () => {
  const f = plans.filter((p) => p.context.route!.id === "F" && !p.missing.length);
  expect(f.length).toBeGreaterThan(5);
  for (const p of f) {
    const melts = p.placed.filter((x) => kindOf(x.step.kind).heats);
    for (const x of melts) {
      const set = own(x.step, "laser")!;
      // 1.5 J/mm², never more watts than a powder bears
      expect(dose(p.context.machine!, set)).toBeCloseTo(1.5, 1);
      expect(meltedBy(set, p.context)).toBe("fused");
      expect(meltedBy({ ...set, speed: set.speed * 2 }, p.context)).toBe("loose");
      expect(meltedBy({ ...set, speed: set.speed / 3 }, p.context)).toBe("boiled");
      expect(x.after.zones.flatMap((z) => z.films).some((y) => y.phase === "loose")).toBe(false);
    }
    const { world } = p.context;
    const typed = (speed: number): Plan =>
      makePlan(
        {
          ...world,
          job: {
            ...world.job,
            edits: [
              ...world.job.edits,
              { id: "slow", op: "set", step: "melt", after: null, field: "speed", value: speed },
            ],
          },
        },
        null,
        true,
      );
    const was = own(melts[0].step, "laser")!.speed;
    const [quick, slow] = [typed(was * 2), typed(was * 0.8)];
    const mine = (q: Plan): Placed => q.placed.find((x) => x.step.id === "melt")!;
    expect(
      mine(quick)
        .after.zones.flatMap((z) => z.films)
        .some((y) => y.phase === "loose"),
    ).toBe(true);
    expect(mine(slow).minutes!).toBeGreaterThan(mine(p).minutes!);
  }
});
