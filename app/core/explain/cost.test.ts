/** What a job costs: every part reckoned anew from the plan’s own minutes and amounts; unknown stays unknown; kept when wrapped up. */
import { ROUTES } from "../catalogue/routes";
import { brief } from "../testing/briefs";
import { many, a1, e1, SHELF, shop, stocked } from "../testing/worlds";
import { doneUpTo } from "../testing/done";
import { keptWith, withPrices } from "../plan/begun";
import { changesElsewhere } from "../plan/begun";
import { makePlan, turns } from "../plan/plan";
import { isFirst } from "../plan/proof";
import { byBeam, own } from "../process/kinds";
import { BlankLot } from "../records/shop";
import { LogEntry } from "../records/log";
import type { World } from "../records/world";
import { costOf, costSoFar, lostPieces } from "./cost";
import { curveInTurn, toolTries, TRIED } from "./curve";
import { noteOf, priceOf, quoteOf, rangesOf } from "./letter";

const LOT: BlankLot = {
  id: "lot",
  name: "Maple, spring",
  substrate: "hard-maple",
  w: 60,
  h: 120,
  t: 8,
  came: 50,
  cameOn: "2026-12-01",
  eachMinor: 140,
  note: "",
};
/** Some briefs that go by ways with such a phase. */
const by = (has: (p: (typeof ROUTES)[number]["phases"][number]) => boolean, most: number): World[] => {
  const ways = new Set<string>(ROUTES.filter((r) => r.phases.some(has)).map((r) => r.id));
  return Array.from({ length: 600 }, (_v, n) => brief(n))
    .filter((w) => ways.has(w.job.route ?? ""))
    .slice(0, most);
};
const POWDER = (): World[] => by((p) => p.do === "colours" && !!p.melt, many(20));
const MASKED = (): World[] => by((p) => p.do === "mask", many(20));

/** A shop in which everything has a price. */
const priced = (w: World): World => ({
  ...w,
  shop: { ...w.shop, rates: { handsMinor: 2400, pieceMinor: 35 }, blanks: [LOT] },
  machines: w.machines.map((m) => ({ ...m, minorPerHour: 600 })),
  products: w.products.map((p, i) => ({ ...p, priceMinor: 500 + 10 * i, pack: 100 })),
});

test("every part is the plan’s own minutes and millilitres at its price, and the sum is theirs to the coin", () => {
  const w = priced(e1());
  const plan = makePlan(w, null);
  const cost = costOf(plan);
  expect(cost.atLeast).toBe(false);
  const part = (id: string) => cost.parts.find((p) => p.id === id)?.minor;
  const all = turns(plan);
  const minutes = (only: (s: (typeof all)[number]) => boolean): number =>
    all.filter(only).reduce((a, t) => a + (t.p.minutes as number), 0);
  expect(part("blanks")).toBe(6 * 140);
  expect(part("small")).toBe(6 * 35);
  expect(part("hands")).toBe(Math.round((minutes(() => true) / 60) * 2400));
  expect(part("laser")).toBe(Math.round((minutes((t) => byBeam(t.p.step)) / 60) * 600));
  for (const p of w.products) {
    const ml = all
      .filter((t) => own(t.p.step, "productId") === p.id)
      .reduce((a, t) => a + (t.plan.uses[t.p.index]?.ml ?? 0), 0);
    if (ml > 0) expect([p.id, part(`product.${p.id}`)]).toEqual([p.id, Math.round((ml / 100) * p.priceMinor!)]);
  }
  expect(cost.totalMinor).toBe(cost.parts.reduce((a, p) => a + p.minor!, 0));
  expect(cost.eachMinor).toBe(Math.ceil(cost.totalMinor / 6));
});
test("without a price a part says what is lacking, the sum says at least, and nothing is made up", () => {
  const cost = costOf(makePlan(e1(), null));
  expect(cost).toMatchObject({ totalMinor: 0, atLeast: true });
  expect(cost.parts.every((p) => p.minor === null && p.lacks !== null)).toBe(true);
  const some = costOf(makePlan({ ...e1(), shop: shop({ rates: { handsMinor: 2400 } }) }, null));
  expect(some.atLeast).toBe(true);
  expect(some.totalMinor).toBe(some.parts.find((p) => p.id === "hands")!.minor);
});
test("a tape counts by area, a powder by weight; without what a pack holds neither is known", () => {
  let [tapes, powders] = [0, 0];
  for (const w of [...POWDER(), ...MASKED()].map(priced)) {
    const plan = makePlan(w, null, true);
    for (const p of costOf(plan).parts.filter((x) => x.id.startsWith("product."))) {
      const paint = plan.context.paintOf(p.id.slice(8));
      if (paint.finish.by === "tape") tapes++;
      if (paint.finish.by === "powder") powders++;
      const unit =
        paint.finish.by === "tape"
          ? " m² of a pack of 100 m²"
          : paint.finish.by === "powder"
            ? " g of a pack"
            : "ml of";
      if (p.minor !== null) expect(p.how.replace(" ml of", "ml of")).toContain(unit);
    }
    const bare = { ...w, products: w.products.map(({ pack: _, ...x }) => x) };
    for (const p of costOf(makePlan(bare, null, true)).parts.filter((x) => x.id.startsWith("product."))) {
      const by = plan.context.paintOf(p.id.slice(8)).finish.by;
      if (by === "tape" || by === "powder") expect(p.lacks).toMatch(/how much a pack of .* holds/);
    }
  }
  expect(Math.min(tapes, powders)).toBeGreaterThan(0);
});
test("so far it costs what is done; a lost piece its blank and its share of every step up to where it was lost", () => {
  const w = priced(e1({ job: { quantity: 4 } }));
  const plan = makePlan(w, null);
  expect(costSoFar(plan)).toBeNull();
  const half = doneUpTo(w, plan, 5);
  const at = plan.placed[4].step.id;
  const aside: LogEntry = {
    ...new LogEntry(),
    id: "job.zz",
    jobId: "job",
    kind: "aside",
    step: at,
    at: plan.placed[4].end!,
    piece: 2,
  };
  const now = makePlan({ ...half, log: [...half.log, aside] }, plan.placed[4].end! + 5);
  const far = costSoFar(now)!;
  expect(far.totalMinor).toBeGreaterThan(4 * 140);
  expect(far.totalMinor).toBeLessThan(costOf(now).totalMinor);
  const [lost] = lostPieces(now);
  expect(lost.piece).toBe(2);
  const shares = turns(now)
    .filter((t) => t.p.index <= 4 && !isFirst(t.p.step.id))
    .reduce((a, t) => a + (t.p.minutes as number) / t.p.pieces, 0);
  const hands = Math.round((shares / 60) * 2400);
  expect(lost.minor).toBeGreaterThanOrEqual(140 + 35 + hands);
  expect(lost.minor).toBeLessThan(costOf(now).totalMinor / 4 + 1);
});
test("prices are not what a job is made by: they change no running plan, count as they are, and are kept when it is wrapped up", () => {
  const w = e1();
  const plan = makePlan(w, null);
  const begun = keptWith(plan, plan.placed[0].step.id, plan.start!);
  const dear = priced(w);
  const now = { shop: dear.shop, machines: dear.machines, products: dear.products };
  const running: World = { ...w, job: { ...w.job, begun }, elsewhere: now };
  const there = makePlan(running, plan.start! + 60);
  expect(changesElsewhere(there, plan.start! + 60, (x) => makePlan(x, plan.start! + 60))).toBeNull();
  expect(costOf(there).atLeast).toBe(false);
  const kept = withPrices(begun, now, [LOT]);
  const closed: World = {
    shop: kept.shop,
    machines: kept.machines,
    products: kept.products,
    log: [],
    job: { ...w.job, begun: kept, wrapUp: { ...w.job.wrapUp, closedAt: "2027-02-01T12:00" } },
  };
  expect(costOf(makePlan(closed, null)).totalMinor).toBe(costOf(there).totalMinor);
});
test("the curve falls with the number made where setting up is shared; each point is that plan’s own cost", () => {
  const w = priced(a1());
  const points = [...curveInTurn(w, null)];
  expect(points.map((p) => p.n)).toEqual([...TRIED]);
  expect(points[0].eachMinor).toBeGreaterThan(points[points.length - 1].eachMinor);
  const five = { ...w, job: { ...w.job, quantity: 5, choices: { ...w.job.choices, begin: undefined } } };
  expect(points.find((p) => p.n === 5)!.totalMinor).toBe(costOf(makePlan(five, null, true)).totalMinor);
  const run = curveInTurn(w, 2000);
  let r = run.next();
  while (!r.done) r = run.next();
  const { pays } = r.value;
  if (pays !== null) {
    const at = (n: number) => costOf(makePlan({ ...five, job: { ...five.job, quantity: n } }, null, true)).totalMinor;
    expect(2000 * pays).toBeGreaterThanOrEqual(at(pays));
    if (pays > 1) expect(2000 * (pays - 1)).toBeLessThan(at(pays - 1));
  }
});
test("tools are compared where they do the same job: ways of melting for powder, airbrush for cans; else none", () => {
  expect(toolTries(priced(e1()))).toEqual([]);
  let melted = 0;
  for (const w of POWDER()) {
    const tries = toolTries(priced(w));
    if (!tries.some((t) => t.id.startsWith("melt:"))) continue;
    melted++;
    expect(tries.filter((t) => t.id.startsWith("melt:")).map((t) => t.id)).toEqual([
      "melt:gun",
      "melt:oven",
      "melt:laser",
    ]);
    expect(tries.filter((t) => t.now && t.id.startsWith("melt:"))).toHaveLength(1);
  }
  expect(melted).toBeGreaterThan(0);
  const sprayed = priced({
    ...a1(),
    products: [...SHELF(), stocked("air", "Air red", "airbrush-acrylic", "#d8432f")],
  });
  expect(toolTries(sprayed).map((t) => t.id)).toEqual(["cans", "airbrush"]);
});
test("a quote asks the typed price or the one by the margin; a note hands over the good pieces by number", () => {
  const w = priced(e1({ job: { price: { margin: 0.5 } } }));
  const plan = makePlan(w, null);
  const each = priceOf(plan)!;
  expect(each).toBe(Math.ceil(costOf(plan).eachMinor / 0.5));
  expect(priceOf(makePlan({ ...w, job: { ...w.job, price: { eachMinor: 999 } } }, null))).toBe(999);
  expect(priceOf(makePlan(e1(), null))).toBeNull();
  const q = quoteOf(plan, plan.start!);
  expect(q.rows[0].n).toBe(6);
  expect(q.total).toMatch(/€/);
  expect(quoteOf(makePlan(e1(), null), plan.start!).total).toBe("to be agreed");
  const marks = [2, 5].map((n) => ({ n, is: "lost" as const, note: "" }));
  const handed = noteOf(
    makePlan({ ...w, job: { ...w.job, wrapUp: { ...w.job.wrapUp, pieces: marks } } }, null),
    plan.start!,
  );
  expect(handed.rows[0].what).toMatch(/pieces 1, 3–4, 6$/);
  expect(handed.notes[0]).toMatch(/2 pieces of 6 still to come/);
  expect(rangesOf([1, 2, 3, 7, 9, 10])).toBe("1–3, 7, 9–10");
});
