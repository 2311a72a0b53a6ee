import { a1, constant, e1, seeded, SHELF, shop, stocked, swing, zone, type Shape } from "../testing/worlds";
import { brief } from "../testing/briefs";
import { air } from "../models/drying/climate";
import { inputs } from "../explain/why/inputs";
import { gapBefore } from "./decides";
import { hoursOf, inTurn } from "./placed";
import { fold } from "./fold";
import { hasPhoto, photoStages } from "../bench/stages";
import { standing } from "../bench/next";
import { LogEntry } from "../records/log";
import type { PlanEdit } from "../records/job";
import type { World } from "../records/world";
import { zonedClock } from "../time/zoned";
import { scaleArtwork, withArtwork } from "../geometry/artwork";
import { colourWord } from "../models/film/words";
import { addEdit, applyEdits } from "./edits";
import { FIELDS } from "./fields";
import { context } from "../process/context";
import { differences } from "./differences";
import { generate } from "./generate";
import { newStep, type Step, own } from "../process/kinds";
import { makePlan, type Plan } from "./plan";
import { open, preview, snagsOf } from "../judge/judge";
import { nearest, productFor } from "../process/pick";
import { planReport, simulate, waitAfter } from "../explain/report";
import { layersOf, zoneOf } from "../piece/state";

const utc = zonedClock("UTC");
const ids = (p: Plan): string[] => p.placed.map((x) => x.step.id);
const kinds = (p: Plan): string[] => p.placed.map((x) => x.step.kind);
const step = (p: Plan, id: string) => {
  const found = p.placed.find((x) => x.step.id === id);
  if (!found) throw new Error(`no step ${id} among ${ids(p).join(", ")}`);
  return found;
};
const edit = (w: World, ...edits: Partial<PlanEdit>[]): World => ({
  ...w,
  job: {
    ...w.job,
    edits: [
      ...w.job.edits,
      ...edits.map((e, i) => ({
        id: `t${w.job.edits.length + i}`,
        op: "set" as const,
        step: "",
        after: null,
        field: "",
        value: null,
        ...e,
      })),
    ],
  },
});

describe("steps follow from the state", () => {
  test("E1 in its order, without a template's leftovers", () => {
    const p = makePlan(e1());
    const at = (k: string): number => kinds(p).indexOf(k);
    expect(kinds(p).filter((k) => k !== "coat")).toEqual([
      "inspect-blank",
      "label",
      "dust",
      "proof",
      "pre-flight",
      "engrave",
      "sand-residue",
      "dust",
      "sand-back",
      "dust",
      "final-check",
    ]);
    expect(at("label")).toBeLessThan(at("coat"));
    expect(at("engrave")).toBeLessThan(at("coat"));
    expect(kinds(p).lastIndexOf("coat")).toBeGreaterThan(at("sand-back"));
    expect(step(p, "coat.seal.1").index).toBeLessThan(step(p, "coat.colour.beet.1").index);
  });
  test("A1 in its order", () => {
    const p = makePlan(a1());
    expect(kinds(p).filter((k) => k !== "coat")).toEqual([
      "inspect-blank",
      "label",
      "degrease",
      "plate",
      "proof",
      "pre-flight",
      "reveal",
      "wash",
      "final-check",
    ]);
    expect(p.placed.filter((x) => own(x.step, "role") === "clear")).toHaveLength(3);
  });
  test("under a dark top white comes first where it saves coats, if one goes on like the colour", () => {
    const yellow = stocked("sun", "Sun", "spray-enamel", "#f3b61f");
    const white = stocked("spray-white", "Spray white", "spray-enamel", "#f0efe9");
    const make = (undercoat: boolean | null, products = [...SHELF(), yellow, white]) =>
      makePlan({
        ...a1({
          job: { substrate: { id: "mdf", w: 100, h: 100, t: 6 }, zones: [zone("z-sun", "sun")] },
          choices: { undercoat },
        }),
        products,
      });
    const coats = (p: Plan, role: string): number => p.placed.filter((x) => own(x.step, "role") === role).length;
    const auto = make(null);
    const straight = make(false);
    const row = auto.hiding[0];
    expect(coats(straight, "white")).toBe(0);
    expect(coats(straight, "colour")).toBe(row.straight);
    expect(row.whites + row.overWhite!).toBeLessThan(row.straight!);
    expect([coats(auto, "white"), coats(auto, "colour")]).toEqual([row.whites, row.overWhite]);
    expect(snagsOf(auto).filter((s) => s.rule === 4)).toEqual([]);
    // a brushed white does not go over a whole sprayed face by itself
    expect(coats(make(null, [...SHELF(), yellow]), "white")).toBe(0);
  });
  test("metal is scuffed, one piece has no proof, a batch has", () => {
    expect(kinds(makePlan(a1({ job: { substrate: { id: "steel-bare", w: 100, h: 60, t: 2 } } })))).toContain("scuff");
    expect(kinds(makePlan(a1()))).not.toContain("scuff");
    expect(kinds(makePlan(a1({ job: { quantity: 1 } })))).not.toContain("proof");
    expect(kinds(makePlan(a1({ job: { quantity: 1 }, choices: { proof: true } })))).toContain("proof");
  });
  test("a weaker paint takes more coats; a stronger colour beneath fewer", () => {
    const coats = (p: Plan, id: string): number =>
      p.placed.filter((x) => own(x.step, "productId") === id && own(x.step, "role") === "colour").length;
    const weak = SHELF().map((x) => (x.id === "poppy" ? { ...x, hideUm: 200 } : x));
    expect(coats(makePlan(a1({ products: weak })), "poppy")).toBeGreaterThan(coats(makePlan(a1()), "poppy"));
    expect(coats(makePlan(a1({ choices: { tolerance: 12 } })), "poppy")).toBeLessThanOrEqual(
      coats(makePlan(a1()), "poppy"),
    );
  });
  test("a change of colour changes coats; white comes only where it saves some", () => {
    const dark = makePlan(e1({ job: { zones: [zone("lettering", "black")] } }));
    const bright = makePlan(e1({ job: { zones: [zone("lettering", "marigold")] } }));
    expect(dark.placed.some((x) => own(x.step, "role") === "white")).toBe(false);
    expect(bright.placed.some((x) => own(x.step, "role") === "white")).toBe(true);
    expect(
      makePlan(e1({ choices: { undercoat: false }, job: { zones: [zone("lettering", "marigold")] } })).placed.some(
        (x) => own(x.step, "role") === "white",
      ),
    ).toBe(false);
  });
  test("depth follows the choice, and never falls below what is needed by default", () => {
    expect(own(step(makePlan(e1()), "engrave").step, "depthMm")).toBeCloseTo(0.4, 2);
    expect(own(step(makePlan(e1({ choices: { depthMm: 2 } })), "engrave").step, "depthMm")).toBeCloseTo(2, 2);
    const thick = SHELF().map((x) => (x.id === "marigold" ? { ...x, coatUm: 400, hideUm: 3000 } : x));
    expect(own(step(makePlan(e1({ products: thick })), "engrave").step, "depthMm") as number).toBeGreaterThan(0.8);
  });
  test("a zone left as it is gets no step; no clear coat means none", () => {
    const p = makePlan(
      e1({
        job: { zones: [zone("lettering", "beet"), zone("leaf", null, { bare: true })] },
        choices: { noClear: true },
      }),
    );
    expect(p.placed.some((x) => x.step.zones.includes("leaf") && x.step.kind === "engrave")).toBe(false);
    expect(p.placed.some((x) => own(x.step, "role") === "clear")).toBe(false);
  });
  test("quantity moves minutes and amounts, not the steps", () => {
    const few = makePlan(e1({ job: { quantity: 6 } }));
    const many = makePlan(e1({ job: { quantity: 60 } }));
    expect(ids(many)).toEqual(ids(few));
    expect(step(many, "engrave").minutes as number).toBeGreaterThan(step(few, "engrave").minutes as number);
    expect(many.amounts.find((a) => a.product === "beet")!.ml as number).toBeCloseTo(
      10 * (few.amounts.find((a) => a.product === "beet")!.ml as number),
      6,
    );
  });
  test("what is lacking is named, nothing is guessed", () => {
    const none = makePlan(e1({ job: { machineId: null } }));
    expect(none.missing.map((m) => m.what)).toContain("machine");
    expect(none.ready).toBeNull();
    expect(step(none, "engrave").minutes).toBeNull();
    expect(makePlan(e1({ products: SHELF().filter((x) => x.id !== "shellac") })).missing.map((m) => m.what)).toEqual([
      "sealer",
    ]);
    expect(makePlan(e1({ job: { zones: [] } })).missing.map((m) => m.what)).toEqual(["zones"]);
    expect(makePlan(e1({ job: { route: null } })).missing.map((m) => m.what)).toEqual(["route"]);
  });
  test("the Shelf's likeliest product fills a role, the job's choice wins", () => {
    expect(productFor("seal", context(e1()))?.id).toBe("shellac");
    const two = [...SHELF(), stocked("sealer", "Sealer", "sanding-sealer", "#eeeeee")];
    expect(productFor("seal", context(e1({ products: two, choices: { sealerId: "sealer" } })))?.id).toBe("sealer");
    expect(nearest(SHELF(), "#f2b722")[0].product.id).toBe("marigold");
  });
});

describe("edits as data", () => {
  test("add, remove, move, duplicate, set", () => {
    const w = e1();
    const p = makePlan(
      edit(
        w,
        { op: "remove", step: "dust" },
        { op: "duplicate", step: "coat.colour.beet.1", after: "coat.colour.beet.1", field: "extra" },
        { op: "move", step: "label", after: "pre-flight" },
        { op: "add", step: "rest.1", after: "engrave", field: "rest" },
        { step: "coat.colour.beet.1", field: "dryUm", value: 9 },
      ),
    );
    expect(p.unfit).toEqual([]);
    expect(ids(p)).not.toContain("dust");
    expect(ids(p).indexOf("extra")).toBe(ids(p).indexOf("coat.colour.beet.1") + 1);
    expect(ids(p).indexOf("label")).toBe(ids(p).indexOf("pre-flight") + 1);
    expect(ids(p).indexOf("rest.1")).toBe(ids(p).indexOf("engrave") + 1);
    expect(own(step(p, "coat.colour.beet.1").step, "dryUm")).toBe(9);
    expect(step(p, "extra").step.title).toBe("Beet, second coat");
  });
  test("kept over a change of brief; those that no longer fit are listed, none dropped", () => {
    const w = edit(
      e1(),
      { step: "coat.colour.marigold.1", field: "dryUm", value: 11 },
      { step: "engrave", field: "depthMm", value: 1.8 },
    );
    const other = {
      ...w,
      job: { ...w.job, zones: w.job.zones.map((z) => (z.id === "leaf" ? { ...z, productId: "beet" } : z)) },
    };
    const p = makePlan(other);
    expect(p.unfit.map((u) => u.edit.step)).toEqual(["coat.colour.marigold.1"]);
    expect(p.unfit[0].why).toContain("no longer has");
    expect(own(step(p, "engrave").step, "depthMm")).toBeCloseTo(1.8, 2);
    expect(other.job.edits).toHaveLength(2);
    expect(own(step(makePlan(w), "coat.colour.marigold.1").step, "dryUm")).toBe(11);
  });
  test("a value that is none is listed with its reason", () => {
    const p = makePlan(
      edit(
        e1(),
        { step: "engrave", field: "depthMm", value: "deep" },
        { step: "engrave", field: "colour", value: 1 },
        { step: "label", field: "power", value: 0.5 },
        { step: "coat.seal.1", field: "productId", value: "gone" },
        { step: "coat.seal.1", field: "zones", value: "lettering,moon" },
      ),
    );
    expect(p.unfit).toHaveLength(5);
    expect(p.unfit.map((u) => u.why).join(" ")).toMatch(/number.*nothing called.*no laser.*Shelf.*moon/s);
  });
  test("setting a field again replaces the older setting; emptying it takes it away", () => {
    const e = (value: number | null): PlanEdit => ({
      id: "x",
      op: "set",
      step: "s",
      after: null,
      field: "dryUm",
      value,
    });
    expect(addEdit(addEdit([], e(5)), e(7))).toEqual([e(7)]);
    expect(addEdit([e(5)], e(null))).toEqual([]);
  });
  test("neither list is changed by laying edits on", () => {
    const c = context(e1());
    const made = generate(c).steps;
    const before = JSON.stringify(made);
    applyEdits(
      made,
      edit(e1(), { op: "remove", step: "dust" }, { step: "engrave", field: "power", value: 0.4 }).job.edits,
      c,
    );
    expect(JSON.stringify(made)).toBe(before);
  });
  test("every field that can be set has a name", () =>
    expect(Object.values(FIELDS).every((f) => f.label.length > 0)).toBe(true));
  test("a thousand random edits never throw, and each is either laid on or listed", () => {
    const rnd = seeded(7);
    const pick = <T>(list: T[]): T => list[Math.floor(rnd() * list.length)];
    for (let round = 0; round < 40; round++) {
      let w: World = rnd() < 0.5 ? e1() : a1();
      const steps = ids(makePlan(w));
      for (let k = 0; k < 25; k++)
        w = edit(w, {
          op: pick(["add", "remove", "move", "set", "duplicate"] as const),
          step: rnd() < 0.15 ? `ghost${k}` : pick(steps),
          after: pick([null, ...steps]),
          field: pick([...Object.keys(FIELDS), "coat", "dust", `n${k}`]),
          value: pick<PlanEdit["value"]>([null, 5, 0.5, true, "beet", "lettering", -3]),
        });
      const p = makePlan(w);
      expect(p.placed.length + p.unfit.length).toBeGreaterThan(0);
      expect(new Set(ids(p)).size).toBe(ids(p).length);
    }
  });
});

/** The drying model once more, in plain steps of a quarter of a minute. */
function slowWait(w: World, from: number, ref: number, min: number | null, water: boolean, cap: number): number {
  const a = air(w.shop.climate);
  let done = 0;
  let t = from;
  while (done < ref && t < from + 60 * 1440) {
    const m = (t + 0.125) % 1440;
    let g = min !== null && a.c(m) < min ? 0 : 2 ** ((Math.min(a.c(m), 35) - 20) / 10);
    if (water) g *= Math.min(1.6, (1 - Math.min(a.rh(m), 0.97)) / 0.5);
    done += Math.min(g, cap) * 0.25;
    t += 0.25;
  }
  return t - from;
}

describe("time", () => {
  test.each<[string, Shape["shop"]]>([
    ["20 °C", {}],
    ["12 °C", { climate: constant(12) }],
    ["a 6 °C night", { climate: swing(6, 20) }],
  ])("every recoat and sanding wait at %s equals an independent integral", (_name, s) => {
    const w = e1({ shop: s });
    const p = makePlan(w);
    expect(p.stuck).toBeNull();
    let checked = 0;
    p.placed.forEach((x, i) => {
      const wait = waitAfter(p, i);
      if (!wait || wait.film !== x.step.id || wait.refMin === null) return;
      const paint = p.context.paintOf(own(x.step, "productId") as string);
      const want = slowWait(
        w,
        x.end as number,
        wait.refMin,
        paint.minC.value,
        paint.base === "water",
        wait.for === "recoat" ? 2 : Infinity,
      );
      expect(Math.abs((wait.min as number) - want)).toBeLessThanOrEqual(1.3);
      checked++;
    });
    expect(checked).toBeGreaterThan(4);
  });
  test("below its least temperature a film does not advance: no ready time, and why", () => {
    const p = makePlan(e1({ shop: { climate: constant(8) } }));
    expect(p.ready).toBeNull();
    expect(p.stuck).toMatch(/never in this climate/);
  });
  test("colder is later; a night below the floor is longer than its mean would say", () => {
    const wait = (climate: ReturnType<typeof constant>): number =>
      waitAfter(makePlan(e1({ shop: { climate } })), ids(makePlan(e1())).indexOf("coat.seal.2"))?.min as number;
    expect(wait(constant(12))).toBeGreaterThan(wait(constant(20)));
  });
  test("nothing is done in closed hours or on days off, and waits run through them", () => {
    const w = e1({ shop: { daysOff: ["2027-01-12"] } });
    const p = makePlan(w);
    for (const x of p.placed) {
      const minute = utc.minuteOfDay(x.start as number);
      expect(minute).toBeGreaterThanOrEqual(9 * 60);
      expect(utc.minuteOfDay((x.end as number) - 1)).toBeLessThan(18 * 60);
      expect(utc.toLocal(x.start as number).slice(0, 10)).not.toBe("2027-01-12");
    }
  });
  test("spraying hours hold for what is sprayed, and for nothing else", () => {
    const w = e1({ shop: { sprayHours: ["11:00", "13:00"] } });
    const p = makePlan(w);
    const c = p.context;
    const spray = p.placed.filter(
      (x) => x.step.kind === "coat" && c.paintOf(x.step.productId as string).finish.by === "spray",
    );
    expect(spray.length).toBeGreaterThan(2);
    for (const x of spray) {
      expect(c.clock.minuteOfDay(x.start as number)).toBeGreaterThanOrEqual(660);
      expect(c.clock.minuteOfDay(x.end as number)).toBeLessThanOrEqual(780);
    }
    expect(
      p.placed.some(
        (x) => x.step.kind === "coat" && !spray.includes(x) && c.clock.minuteOfDay(x.start as number) >= 780,
      ),
    ).toBe(true);
    expect(p.ready!).toBeGreaterThan(makePlan(e1()).ready!);
  });
  test("stages worth a photo: the cut, the last colour, sanded back, finished; one that has its photo is known by its name", () => {
    const stages = photoStages(makePlan(e1()).placed).map((x) => x.step.id);
    expect(stages).toEqual(expect.arrayContaining(["engrave", "sand-back", "final-check"]));
    expect(stages.filter((x) => x.startsWith("coat.colour"))).toHaveLength(1);
    expect(hasPhoto(["photo.engrave.k3j.0"], "engrave")).toBe(true);
    expect(hasPhoto(["photo.engrave.k3j.0", "photo.k3j"], "sand-back")).toBe(false);
  });
  test("a recoat window shorter than the closed hours never straddles them", () => {
    for (let h = 0; h < 30; h++) {
      const p = makePlan(a1({ job: { start: utc.toLocal(utc.fromLocal("2027-01-11T09:00") + h * 47) } }));
      for (const x of p.placed) {
        const win = x.needs.find((n) => n.closes !== null);
        if (!win) continue;
        const inTime = (x.start as number) >= (win.opens as number) && (x.end as number) <= (win.closes as number);
        expect(inTime || (x.start as number) >= (win.reopens as number)).toBe(true);
      }
      expect(open(p).some((s) => s.rule === 21)).toBe(false);
    }
  });
  test("a batch too slow for its window waits until it reopens", () => {
    const p = makePlan(a1({ job: { quantity: 400 } }));
    const second = p.placed.find((x) => x.needs.some((n) => n.closes !== null))!;
    const win = second.needs.find((n) => n.closes !== null)!;
    expect(second.start as number).toBeGreaterThanOrEqual(win.reopens as number);
    expect((win.reopens as number) - win.from).toBe(48 * 60);
  });
  test("a wait typed in by hand is kept, and the early start stands in the snags", () => {
    const p = makePlan(edit(a1(), { step: "coat.top.1", field: "waitMin", value: 60 }));
    const plate = p.placed.find((x) => x.step.kind === "plate")!;
    expect((plate.start as number) - (p.placed[plate.index - 1].end as number)).toBe(60);
    expect(open(p).map((s) => s.rule)).toContain(20);
  });
  test("what decides the date is in words, with what leaving a wait out would gain", () => {
    const p = makePlan(e1());
    expect(p.decides.length).toBeGreaterThan(2);
    const wait = p.decides.find((d) => d.kind === "wait")!;
    expect(wait.why).toMatch(/until it is/);
    expect(wait.gain).not.toBeNull();
  });
  test("every minute between two steps has its cause: dry, a window open again, shut, held back", () => {
    let [windows, shut, short, held] = [0, 0, 0, 0];
    for (let k = 0; k < 120; k++) {
      const p = makePlan(brief(k * 17), null, true);
      const line = inTurn(p.placed);
      line.forEach((x, i) => {
        const prev = line[i - 1];
        const g = i > 0 ? gapBefore(x, prev, 0, null, hoursOf(x.step, p.context)) : null;
        if (!g || x.start === null || prev.end === null) return;
        expect(g.from).toBe(prev.end);
        expect(g.dry).toBeGreaterThanOrEqual(g.from);
        expect(g.open).toBeGreaterThanOrEqual(g.dry);
        expect(g.closed).toBeGreaterThanOrEqual(0);
        expect(g.held).toBeGreaterThanOrEqual(0);
        expect(g.open + g.closed + g.short + g.held).toBe(x.start);
        if (g.open > g.dry) windows++;
        if (g.closed > 0) shut++;
        if (g.held > 0) held++;
        if (g.short > 0) {
          short++;
          expect(g.short).toBeLessThan(x.minutes!);
        }
        // nothing is held back where no window ties what follows
        if (!p.placed.some((y) => y.needs.some((r) => r.closes !== null)))
          expect([x.step.id, g.held]).toEqual([x.step.id, 0]);
      });
    }
    expect(windows).toBeGreaterThan(3);
    expect(shut).toBeGreaterThan(20);
    expect(short).toBeGreaterThan(0);
    expect(held).toBeGreaterThan(0);
  });
  test("a window that had shut is told as one, not as a shop that is shut", () => {
    const p = Array.from({ length: 60 }, (_, k) => makePlan(brief(k * 17))).find((x) =>
      x.decides.some((d) => d.kind === "window"),
    )!;
    const d = p.decides.find((x) => x.kind === "window")!;
    expect(d.why).toMatch(/until a window that had shut is open again, before “/);
    expect(inputs(p, { of: "begins", step: d.step }).map((r) => r.name)).toContain("A window had shut; it reopens");
  });
  test("under way, what is left of a wait decides, not what has passed of it", () => {
    const w = a1();
    const plain = makePlan(w);
    const top = plain.placed.findIndex((x) => own(x.step, "role") === "top");
    const log = plain.placed.slice(0, top + 1).flatMap((x, k) =>
      (["start", "done"] as const).map((kind, j) =>
        Object.assign(new LogEntry(), {
          id: `e${2 * k + j}`,
          jobId: w.job.id,
          kind,
          step: x.step.id,
          at: j ? x.end : x.start,
        }),
      ),
    );
    const now = (plain.placed[top].end as number) + 120;
    const d = makePlan({ ...w, log }, now).decides.find(
      (x) => x.step === plain.placed[top + 1].step.id && x.kind === "wait",
    )!;
    expect(d.minutes).toBe((plain.placed[top + 1].waited!.opens as number) - now);
  });
  test("learned minutes are laid on, and only they", () => {
    const plain = makePlan(e1());
    const slow = makePlan(e1({ shop: { learned: [{ kind: "engrave", factor: 1.5, n: 4 }] } }));
    expect(step(slow, "engrave").minutes).toBeCloseTo(1.5 * (step(plain, "engrave").minutes as number), 6);
    expect(step(slow, "engrave").uncorrected).toBeCloseTo(step(plain, "engrave").minutes as number, 6);
    expect(step(slow, "label").minutes).toBe(step(plain, "label").minutes);
  });
});

describe("the state and what is drawn from it", () => {
  const thickness = (p: Plan): Record<string, number>[] =>
    p.placed.map((x) =>
      Object.fromEntries(
        x.after.zones.flatMap((z) =>
          layersOf(z, p.context.paintOf).map((l) => [`${z.zone}/${l.step ?? l.kind}`, l.bottomUm - l.topUm]),
        ),
      ),
    );
  test.each([
    ["coat.colour.beet.1", e1],
    ["coat.seal.1", e1],
    ["coat.top.1", a1],
  ] as const)(
    "a thicker coat at %s changes the state by exactly that from there on, and nothing before",
    (id, make) => {
      const w = make();
      const plain = makePlan(w);
      const k = ids(plain).indexOf(id);
      const um = (own(plain.placed[k].step, "dryUm") as number) + 3.5;
      const thick = makePlan(edit(w, { step: id, field: "dryUm", value: um }));
      const [a, b] = [thickness(plain), thickness(thick)];
      for (let i = 0; i < a.length; i++) {
        for (const key of Object.keys({ ...a[i], ...b[i] })) {
          const mine = key.endsWith(`/${id}`);
          const gone = a[i][key] === undefined || a[i][key] < own(plain.placed[k].step, "dryUm")! - 0.01; // lifted or sanded away
          if (!mine || i < k) expect(b[i][key]).toBeCloseTo(a[i][key], 6);
          else if (!gone) expect(b[i][key] - a[i][key]).toBeCloseTo(3.5, 6);
        }
      }
      for (let i = 0; i < k; i++) expect(simulate(thick, thick.placed[i])).toEqual(simulate(plain, plain.placed[i]));
    },
  );
  test("E1: cut, char beneath, films stacked without a gap, the face bare after sanding", () => {
    const p = makePlan(e1());
    const z = zoneOf(step(p, "sand-back").after, "leaf");
    const layers = layersOf(z, p.context.paintOf);
    expect(layers[0]).toMatchObject({ kind: "char" });
    expect(layers[0].topUm / 400).toBeCloseTo(1, 2);
    expect(layers[0].bottomUm - layers[0].topUm).toBeCloseTo(40, 6);
    for (let i = 2; i < layers.length; i++) expect(layers[i].bottomUm).toBeCloseTo(layers[i - 1].topUm, 9);
    expect(layersOf(zoneOf(step(p, "sand-back").after, "ground"), p.context.paintOf)).toEqual([]);
    expect(step(p, "sand-back").after.sandedUm).toBeGreaterThan(20);
  });
  test("A1: the laser takes the dark off in the picture and nowhere else", () => {
    const p = makePlan(a1());
    const after = step(p, "reveal").after;
    const roles = (id: string): string[] => layersOf(zoneOf(after, id), p.context.paintOf).map((l) => l.role);
    expect(roles("flower")).not.toContain("top");
    expect(roles("flower")).toContain("colour");
    expect(roles("ground")).toContain("top");
  });
  test("the finished face shows each zone its colour within tolerance", () => {
    for (const w of [e1(), a1()]) {
      const p = makePlan(w);
      expect(open(p).filter((s) => s.rule === 30)).toEqual([]);
    }
  });
  test("too much energy eats the colour, too little leaves the dark", () => {
    const at = (power: number, speed: number): number[] => {
      const p = makePlan(
        edit(a1(), { step: "reveal", field: "power", value: power }, { step: "reveal", field: "speed", value: speed }),
      );
      return zoneOf(step(p, "reveal").after, "flower").films.map((f) => f.left);
    };
    expect(at(1, 40).every((x) => x === 0)).toBe(true);
    expect(at(0.02, 500).every((x) => x === 1)).toBe(true);
  });
  test("amounts balance: bought is laid, lost and left, within a thousandth", () => {
    for (const w of [e1(), a1(), e1({ job: { quantity: 240 } })]) {
      for (const a of makePlan(w).amounts) {
        expect(
          Math.abs((a.boughtMl as number) - (a.laidMl as number) - (a.lostMl as number) - (a.leftMl as number)),
        ).toBeLessThanOrEqual(0.001 * (a.boughtMl as number));
        expect(a.leftMl as number).toBeGreaterThanOrEqual(-1e-9);
      }
    }
  });
  test("amounts by hand: floors and walls of each cut, the whole face with its walls, what falls beside", () => {
    const p = makePlan(e1({ choices: { proof: false } }));
    const deep = own(step(p, "engrave").step, "depthMm") as number;
    expect(deep).toBeCloseTo(0.4, 2);
    const use = (id: string) => p.uses[p.placed.findIndex((x) => x.step.id === id)]!;
    // 600 mm² and 200 mm round as deep as it is cut; 18 µm dry of .3 solids; six pieces; a brush loses a tenth
    expect(use("coat.colour.beet.1").laidMl).toBeCloseTo(((600 + 200 * deep) * (18 / 0.3) * 6) / 1e6, 9);
    expect(use("coat.colour.beet.1").ml).toBeCloseTo(((600 + 200 * deep) * (18 / 0.3) * 6) / 1e6 / 0.9, 9);
    expect(use("coat.colour.marigold.1").laidMl).toBeCloseTo(((300 + 120 * deep) * (18 / 0.3) * 6) / 1e6, 9);
    // all over the face of 120 × 60, down every wall: 12 µm of .08 solids
    const face = 120 * 60 + (200 + 120) * deep;
    expect(use("coat.seal.1").laidMl).toBeCloseTo((face * (12 / 0.08) * 6) / 1e6, 9);
    // six in two columns of three: 250 × 200, with the fan 40 mm out on every side
    const lands = use("coat.seal.1").laidMl! / use("coat.seal.1").ml!;
    const most = p.context.paintOf("shellac").finish.by === "spray" ? 0.65 : 1;
    expect(lands).toBeCloseTo((most * face * 6) / (330 * 280), 9);
    for (const a of p.amounts) {
      const mine = p.uses.filter(
        (u, i) => u && "productId" in p.placed[i].step && p.placed[i].step.productId === a.product,
      );
      expect(a.ml).toBeCloseTo(
        mine.reduce((x, u) => x + u!.ml!, 0),
        9,
      );
      expect(a.laidMl).toBeCloseTo(
        mine.reduce((x, u) => x + u!.laidMl!, 0),
        9,
      );
      expect(a.lostMl).toBeCloseTo(a.ml! - a.laidMl!, 9);
    }
    // twice as deep: twice the wall
    const q = makePlan(e1({ choices: { depthMm: 3, proof: false } }));
    const coat = q.uses[q.placed.findIndex((x) => x.step.id === "coat.colour.beet.1")]!;
    expect(coat.laidMl).toBeCloseTo(((600 + 200 * 3) * (18 / 0.3) * 6) / 1e6, 3);
  });
  test.each([
    [50, 0],
    [24, 0],
    [23.5, 1],
    [3, 1],
  ])("%d ml on the shelf for 23.9: %d cans to buy", (left, cans) => {
    const p = makePlan(
      a1({
        products: SHELF().map((x) =>
          x.id === "poppy" ? { ...x, cans: [{ ...x.cans[0], fullMl: 400, leftMl: left }] } : x,
        ),
      }),
    );
    const a = p.amounts.find((x) => x.product === "poppy")!;
    expect(a).toMatchObject({ cans, onShelfMl: left, canMl: 400, boughtMl: left + cans * 400 });
    expect(a.leftMl).toBeCloseTo(left + cans * 400 - 23.886, 2);
  });
  test("small cans: as many as it takes, none more", () => {
    const p = makePlan(
      a1({
        products: SHELF().map((x) =>
          x.id === "poppy" ? { ...x, cans: [{ ...x.cans[0], fullMl: 10, leftMl: 1 }] } : x,
        ),
      }),
    );
    expect(p.amounts.find((x) => x.product === "poppy")!.cans).toBe(3);
  });
  test("a can never weighed makes stock unknown, and so what to buy", () => {
    const p = makePlan(
      a1({
        products: SHELF().map((x) =>
          x.id === "poppy" ? { ...x, cans: x.cans.map((k) => ({ ...k, leftMl: null })) } : x,
        ),
      }),
    );
    expect(p.amounts.find((a) => a.product === "poppy")).toMatchObject({
      onShelfMl: null,
      cans: null,
      boughtMl: null,
      leftMl: null,
    });
  });
  test("cans weighed by scale count by weight", () => {
    const p = makePlan(
      a1({
        products: SHELF().map((x) =>
          x.id === "poppy"
            ? {
                ...x,
                cans: [{ ...x.cans[0], fullMl: 400, leftMl: null, fullG: 420, emptyG: 100, nowG: 260 }],
              }
            : x,
        ),
      }),
    );
    expect(p.amounts.find((a) => a.product === "poppy")!.onShelfMl).toBeCloseTo(200, 9);
  });
  test("the report gives null, never nought, for what is absent", () => {
    const r = planReport(makePlan(e1())) as {
      steps: { id: string; ml: number | null; depthMm: number | null; g: number | null }[];
    };
    expect(r.steps.find((s) => s.id === "label")).toMatchObject({ ml: null, depthMm: null, g: null });
    expect(JSON.stringify(r)).not.toContain("NaN");
  });
});

describe("the bench folds into the plan", () => {
  let n = 0;
  const tap = (kind: LogEntry["kind"], stepId: string, at: number, more: Partial<LogEntry> = {}): LogEntry => ({
    ...new LogEntry(),
    id: `l${String(n++).padStart(5, "0")}`,
    jobId: "job",
    kind,
    step: stepId,
    at,
    ...more,
  });
  const t0 = utc.fromLocal("2027-01-11T09:00");
  test("logged times are pinned and the rest follows from them", () => {
    const w = e1();
    const late = makePlan(
      { ...w, log: [tap("start", "inspect-blank", t0 + 60), tap("done", "inspect-blank", t0 + 90)] },
      t0 + 95,
    );
    expect(late.placed[0].start).toBe(t0 + 60);
    expect(late.placed[1].start as number).toBeGreaterThanOrEqual(t0 + 95);
  });
  test("a take-back leaves no trace in the state, but stays in the log", () => {
    const a = tap("piece", "label", t0, { piece: 1 });
    const b = tap("piece", "label", t0 + 1, { piece: 2 });
    const s = fold([a, b, tap("back", "label", t0 + 2, { of: b.id })]);
    expect(s.steps.get("label")!.pieces).toEqual([1]);
    expect(s.last).toBe(a);
    expect(
      fold([a, b, tap("back", "label", t0 + 2, { of: b.id }), tap("back", "label", t0 + 3, { of: a.id })]).steps.size,
    ).toBe(0);
  });
  const upTo = (w: World, id: string): LogEntry[] => {
    const p = makePlan(w);
    return p.placed
      .slice(0, ids(p).indexOf(id) + 1)
      .flatMap((x) => [
        tap("start", x.step.id, x.start as number),
        tap("done", x.step.id, x.end as number, { stepKind: x.step.kind, predicted: 1, actual: 1 }),
      ]);
  };
  test("a wait is a wait until its time, or until the touch check; early is a risk on record", () => {
    const w = e1();
    const log = upTo(w, "coat.seal.1");
    const end = log[log.length - 1].at;
    const during = makePlan({ ...w, log }, end + 2);
    const s = standing(during, end + 2);
    expect(s.is).toBe("waiting");
    if (s.is !== "waiting") return;
    expect(s.opens).toBe(end + 15);
    expect(standing(makePlan({ ...w, log }, end + 16), end + 16).is).toBe("ready");
    const touched = [...log, tap("touch", "coat.seal.2", end + 5)];
    expect(standing(makePlan({ ...w, log: touched }, end + 5), end + 5).is).toBe("ready");
    const early = [
      ...log,
      tap("early", "coat.seal.2", end + 5, { note: "van is waiting" }),
      tap("start", "coat.seal.2", end + 5),
    ];
    const risk = makePlan({ ...w, log: early }, end + 6);
    expect(open(risk).map((x) => x.rule)).toContain(21);
    const checked = [...touched, tap("start", "coat.seal.2", end + 5)];
    expect(open(makePlan({ ...w, log: checked }, end + 6)).map((x) => x.rule)).not.toContain(21);
  });
  test("all done is done", () => {
    const w = e1();
    const log = upTo(w, "final-check");
    expect(standing(makePlan({ ...w, log }, log[log.length - 1].at), log[log.length - 1].at).is).toBe("done");
  });
});

describe("previews and artwork", () => {
  test("a fix says before it is pressed what it changes", () => {
    const w = e1({ choices: { depthMm: 0.2 } });
    const p = makePlan(w);
    const snag = open(p).find((s) => s.rule === 50)!;
    const v = preview(w, p, snag.fixes[0], null);
    expect(v.gone.map((s) => s.rule)).toContain(50);
    expect(v.steps[0]).toBe(p.placed.length);
    expect(v.changed).toContainEqual(expect.objectContaining({ what: "depth", before: "0.2 mm" }));
    expect(v.added).toEqual([]);
  });
  test("steps that come, go, change place or change in themselves are told apart", () => {
    const step = (id: string, more: Partial<Step> = {}): Step => newStep(id, "rest", id, more);
    const before = [step("a"), step("b"), step("c"), step("d", { dryUm: 10 })];
    const after = [step("c"), step("a"), step("b"), step("x"), step("d", { dryUm: 12.04 })];
    expect(differences(before, after)).toEqual({
      added: ["x"],
      removed: [],
      moved: ["c"],
      changed: [{ title: "d", what: "film", before: "10 µm", after: "12 µm" }],
    });
    expect(differences(after, before)).toMatchObject({ added: [], removed: ["x"], moved: ["c"] });
    expect(differences(before, before)).toEqual({ added: [], removed: [], moved: [], changed: [] });
  });
  test("scaling the picture scales every measure", () => {
    const w = e1({
      job: {
        artwork: { name: "x", svg: "", w: 100, h: 40 },
        zones: [
          zone("z", "beet", {
            outline: "M0 0L10 0L10 10Z",
            rows: [0, 10, ...Array.from({ length: 64 }, () => [0, 10]).flat()],
          }),
        ],
      },
    });
    const half = scaleArtwork(w.job, 0.5);
    expect(half.artwork).toMatchObject({ w: 50, h: 20 });
    expect(half.zones[0]).toMatchObject({
      areaMm2: 150,
      perimeterMm: 100,
      narrowestMm: 1,
      outline: "M0 0L5 0L5 5Z",
    });
    expect(half.zones[0].rows.slice(0, 4)).toEqual([0, 5, 0, 5]);
  });
  test("new artwork keeps the finish of a colour that was there", () => {
    const w = e1({ job: { zones: [zone("z-a8235a", "beet", { name: "Lettering" })] } });
    const found = {
      widthMm: 10,
      heightMm: 10,
      size: "file" as const,
      zones: [
        {
          id: "z-a8235a",
          colour: "#a8235a",
          areaMm2: 1,
          perimeterMm: 1,
          narrowestMm: 1,
          pieces: 1,
          holes: 0,
          smallestMm2: 1,
          rows: [],
          outline: "",
        },
        {
          id: "z-00ff00",
          colour: "#00ff00",
          areaMm2: 1,
          perimeterMm: 1,
          narrowestMm: 1,
          pieces: 1,
          holes: 0,
          smallestMm2: 1,
          rows: [],
          outline: "",
        },
      ],
    };
    expect(withArtwork(w.job, "n.svg", "<svg/>", found).zones.map((z) => [z.name, z.productId])).toEqual([
      ["Lettering", "beet"],
      ["Green", null],
    ]);
    const words = {
      White: ["#ffffff", "#fbfbf9"],
      Black: ["#111111", "#1b161e"],
      Crimson: ["#a8235a", "#a01030"],
      Plum: ["#5a2a52", "#6a2f63"],
      Gold: ["#d4a017", "#c9962e"],
      Orange: ["#ff7f00", "#e8751a"],
      Green: ["#5d9a3c", "#2f8f2f"],
      Navy: ["#16264f", "#0a1a44"],
      "Sky blue": ["#87ceeb"],
      Brown: ["#7b4b25", "#8b4513"],
      "Pale grey": ["#cccccc"],
      Pink: ["#ffb0c8"],
    };
    for (const [word, list] of Object.entries(words))
      for (const hex of list) expect([hex, colourWord(hex)]).toEqual([hex, word]);
  });
  test("a shop that is never open has no time for anything", () => {
    const p = makePlan(
      e1({
        shop: { hours: { mon: null, tue: null, wed: null, thu: null, fri: null, sat: null, sun: null } },
      }),
    );
    expect(p.ready).toBeNull();
    expect(p.stuck).toMatch(/working hours/);
    expect(shop().zone).toBe("UTC");
  });
});
