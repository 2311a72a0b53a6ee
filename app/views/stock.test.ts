import { blankMatches, toOrder, yieldOf } from "../core/catalogue/blanks";
import { Substrate } from "../core/records/job";
import type { Begins } from "../core/process/pieces";
import { BlankLot } from "../core/records/shop";
import { shopping } from "../core/explain/shopping";
import { e1, shop, SHELF } from "../core/testing/worlds";
import { freeBlanks, leftovers, lotRows, type Wants } from "./stock";

const lot = (more: Partial<BlankLot> = {}): BlankLot => ({
  id: "a",
  name: "Maple",
  substrate: "hard-maple",
  w: 120,
  h: 60,
  t: 8,
  came: 40,
  cameOn: "2026-12-01",
  note: "",
  ...more,
});
const piece = { ...new Substrate(), id: "hard-maple", w: 120, h: 60, t: 8 };
const begins = (quantity: number): Begins => ({ quantity, route: null, choices: {}, wrapUp: { closedAt: null } });
const job = (more: Partial<NonNullable<Wants["blanks"]>> = {}, open: 0 | 1 = 1): Wants => ({
  title: "Job",
  open,
  blanks: { id: "hard-maple", w: 120, h: 60, t: 8, begins: begins(7), lot: null, begun: false, ...more },
});

test("a lot fits a piece of its material and size, turned or not; round ones by what they are across", () => {
  expect(blankMatches(lot(), piece)).toBe(true);
  expect(blankMatches(lot({ w: 60, h: 120 }), piece)).toBe(true);
  expect(blankMatches(lot({ w: 121 }), piece)).toBe(false);
  expect(blankMatches(lot({ t: 9 }), piece)).toBe(false);
  expect(blankMatches(lot({ substrate: "cherry" }), piece)).toBe(false);
  const ball = { ...piece, shape: "ball" as const, diameter: 60 };
  expect(blankMatches(lot(), ball)).toBe(false);
  expect(blankMatches(lot({ diameter: 60.3 }), ball)).toBe(true);
  expect(blankMatches(lot({ diameter: 62 }), ball)).toBe(false);
});
test("came = turned away + used + left; open jobs that fit reserve, those begun have taken", () => {
  const rejects = [
    { at: "2026-12-02", n: 3, why: "knot" },
    { at: "2026-12-03", n: 1, why: "warp" },
    { at: "2026-12-04", n: 1, why: "knot" },
  ];
  const s = shop({ blanks: [lot({ rejects, otherwise: 2 })] });
  const [r] = lotRows(s, [
    job(),
    job({ lot: "a", begun: true, begins: begins(9) }),
    job({ lot: "a", begun: true }, 0),
    job({}, 0),
  ]);
  expect(r).toMatchObject({
    turnedAway: 5,
    used: 18,
    left: 17,
    reserved: 7,
    free: 10,
    reasons: "4 × knot and 1 × warp",
  });
  expect(yieldOf(s.blanks![0])).toBeCloseTo(35 / 40, 12);
  expect(r.forTen).toBe(12);
  expect(toOrder(10, 0)).toBeNull();
});
test("the newest lot that fits is meant unless the job names one", () => {
  const s = shop({ blanks: [lot(), lot({ id: "b", cameOn: "2027-01-01" })] });
  expect(lotRows(s, [job()]).map((r) => r.reserved)).toEqual([0, 7]);
  expect(lotRows(s, [job({ lot: "a" })]).map((r) => r.reserved)).toEqual([7, 0]);
});
test("to buy is what jobs want less what lies here, and more where some are turned away", () => {
  const w = e1({ shop: { blanks: [lot({ came: 4 })] } });
  const [b] = shopping([w], freeBlanks(lotRows(w.shop, []))).blanks;
  expect(b).toMatchObject({ pieces: 6, has: 4, buy: 2 });
  const bad = e1({ shop: { blanks: [lot({ came: 4, rejects: [{ at: "2026-12-02", n: 2, why: "chip" }] })] } });
  expect(shopping([bad], freeBlanks(lotRows(bad.shop, []))).blanks[0]).toMatchObject({ has: 2, buy: 8 });
  expect(shopping([e1()]).blanks[0]).toMatchObject({ has: null, buy: 6 });
  const enough = e1({ shop: { blanks: [lot()] } });
  expect(shopping([enough], { a: 40 }).blanks[0].buy).toBe(0);
});
test("what is nearly empty says what one coat of it would cover; a full can and an unweighed one say nothing", () => {
  const can = (left: number | null) => [{ ...SHELF()[4].cans[0], fullMl: 400, leftMl: left }];
  const poppy = SHELF()[4];
  expect(leftovers([{ ...poppy, cans: can(60) }], "metric")[0].covers).toMatch(/^one coat over about \d+ cm²$/);
  expect(leftovers([{ ...poppy, cans: can(60) }], "inch")[0].covers).toMatch(/sq in/);
  for (const left of [400, 0, null]) expect(leftovers([{ ...poppy, cans: can(left) }], "metric")).toEqual([]);
});
