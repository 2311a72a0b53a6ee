import { constant, seeded, stocked, swing } from "../../testing/worlds";
import { paint } from "../../catalogue/properties";
import { substrate } from "../../catalogue/substrates";
import { zonedClock } from "../../time/zoned";
import { air, dewPoint, spanAt, type Air } from "./climate";
import { dried, dryAt, minutesBelow, rateAt, type DryingOf } from "./clock";
import { closingMinutes, dryingOf, isThrough, referenceMinutes } from "../../process/film-times";

const utc = zonedClock("UTC");
const plain: DryingOf = { waterBorne: false, minC: 10, fan: false, limit: "plain" };
const water: DryingOf = { ...plain, waterBorne: true };
const at = (s: string): number => utc.fromLocal(s);

/** The model written out a second time, as a plain sum over small steps; it shares nothing with the clock under test. */
function slowIntegral(a: Air, of: DryingOf, from: number, to: number, step = 0.25): number {
  let sum = 0;
  for (let t = from; t < to - 1e-9; t += step) {
    const m = (t + step / 2) % 1440;
    const [c, rh] = [a.c(m), a.rh(m)];
    let g = of.minC !== null && c < of.minC ? 0 : Math.pow(2, (Math.min(c, 35) - 20) / 10);
    if (of.waterBorne) g *= rh >= 0.97 ? 0 : Math.min(1.6, (1 - rh) / 0.5);
    if (of.fan) g /= a.airFactor;
    if (of.limit === "opens") g = Math.min(g, 2);
    if (of.limit === "closes") g = Math.max(g, 1);
    sum += g * step;
  }
  return sum;
}

/** A climate given by a formula, bent every ten minutes. */
const formula = (c: (h: number) => number, rh = 0.5): Air => ({
  c: (m) => c(m / 60),
  rh: () => rh,
  knots: Array.from({ length: 144 }, (_, i) => i * 10),
  airFactor: 1,
  spans: [],
});

describe("readings overrule the curve for the time they speak of", () => {
  const from = at("2027-01-11T09:00");
  const read = (readings: { at: number; c: number; rh: number }[]) => air({ ...swing(8, 18, 0.6), readings });
  test("each holds until the next, at most three hours, then the curve is believed again", () => {
    const a = read([
      { at: from, c: 25, rh: 0.4 },
      { at: from + 60, c: 5, rh: 0.9 },
    ]);
    expect(a.spans).toEqual([
      { from, to: from + 60, c: 25, rh: 0.4 },
      { from: from + 60, to: from + 240, c: 5, rh: 0.9 },
    ]);
    expect(spanAt(a, from - 1)).toEqual({ span: null, until: from });
    expect(spanAt(a, from + 59).span!.c).toBe(25);
    expect(spanAt(a, from + 60).span!.c).toBe(5);
    expect(spanAt(a, from + 240)).toEqual({ span: null, until: Infinity });
  });
  test("a wait is what an independent sum over curve and readings says, additive over any split", () => {
    const rnd = seeded(41);
    for (let k = 0; k < 40; k++) {
      const readings = Array.from({ length: 1 + Math.floor(rnd() * 6) }, () => ({
        at: Math.round(from + rnd() * 900),
        c: 4 + rnd() * 24,
        rh: 0.3 + rnd() * 0.6,
      }));
      const a = read(readings);
      const slow = (to: number): number => {
        let sum = 0;
        for (let t = from; t < to - 1e-9; t += 0.25) {
          const last = readings
            .filter((r) => r.at <= t + 0.125 && t + 0.125 < r.at + 180)
            .sort((x, y) => y.at - x.at)[0];
          sum += last
            ? slowIntegral({ ...a, c: () => last.c, rh: () => last.rh }, water, 0, 0.25)
            : slowIntegral(a, water, t % 1440, (t % 1440) + 0.25);
        }
        return sum;
      };
      const ref = 30 + rnd() * 600;
      const end = dryAt(utc, a, water, from, ref) as number;
      expect(Math.abs(slow(end) - ref)).toBeLessThan(0.6);
      const mid = from + rnd() * (end - from);
      expect(dried(utc, a, water, from, mid) + dried(utc, a, water, mid, end)).toBeCloseTo(ref, 5);
    }
  });
  test("a cold reading stops what is drying and counts as cold", () => {
    const warm = air(constant(20));
    const cold = air({ ...constant(20), readings: [{ at: from + 10, c: 5, rh: 0.5 }] });
    expect((dryAt(utc, cold, plain, from, 30) as number) - (dryAt(utc, warm, plain, from, 30) as number)).toBeCloseTo(
      180,
      6,
    );
    expect(minutesBelow(utc, cold, 10, from, from + 600)).toBe(180);
  });
});

describe("M8 the drying clock", () => {
  const night = formula((h) => 13 + 5 * Math.cos((2 * Math.PI * (h - 15)) / 24));
  test("24 h begun at 18:00 in a shop that falls below 10 °C: 48.04 h", () => {
    const from = at("2027-01-11T18:00");
    expect(((dryAt(utc, night, plain, from, 1440) as number) - from) / 60).toBeCloseTo(48.04, 1);
  });
  test("the same without a floor: 40.1 h", () => {
    const from = at("2027-01-11T18:00");
    expect(((dryAt(utc, night, { ...plain, minC: null }, from, 1440) as number) - from) / 60).toBeCloseTo(40.1, 1);
  });
  test("5 to 9 °C: never", () =>
    expect(
      dryAt(
        utc,
        formula((h) => 7 + 2 * Math.cos((2 * Math.PI * h) / 24)),
        plain,
        at("2027-01-11T18:00"),
        60,
      ),
    ).toBeNull());
  test("air that holds no more water: never, and no NaN", () => {
    const wet = air(constant(20, 1));
    expect(dryAt(utc, wet, water, at("2027-01-11T18:00"), 60)).toBeNull();
    expect(rateAt(wet, water, 600)).toBe(0);
  });
  test("NaN in gives an answer that is no number to trust, not a hang", () => {
    expect(dryAt(utc, night, plain, Number.NaN, 10)).toBeNull();
    expect(dryAt(utc, night, plain, 0, Number.NaN)).toBeNull();
    expect(
      rateAt(
        formula(() => Number.NaN),
        plain,
        0,
      ),
    ).toBe(0);
  });
  test("at the reference climate a minute is a minute", () => {
    const from = at("2027-01-11T09:00");
    expect(dryAt(utc, air(constant(20)), water, from, 45)).toBeCloseTo(from + 45, 6);
  });
  test.each([
    [12, 60],
    [20, 60],
    [30, 240],
  ])("at a constant %d °C %d reference minutes take what the exponent says", (c, ref) => {
    const from = at("2027-01-11T09:00");
    expect((dryAt(utc, air(constant(c)), plain, from, ref) as number) - from).toBeCloseTo(
      ref / 2 ** ((c - 20) / 10),
      5,
    );
  });
  test("additive over any split, with floor, damp and fan", () => {
    const a = air({ ...swing(6, 19, 0.66), air: "moving" });
    for (const kind of [
      plain,
      water,
      { ...water, fan: true },
      { ...plain, limit: "opens" as const },
      { ...plain, limit: "closes" as const },
    ]) {
      const [x, y, z] = [at("2027-01-11T15:13"), at("2027-01-12T02:41"), at("2027-01-13T10:07")];
      expect(dried(utc, a, kind, x, y) + dried(utc, a, kind, y, z)).toBeCloseTo(dried(utc, a, kind, x, z), 6);
    }
  });
  test("equals a second, slow integral on twenty climates", () => {
    for (let k = 0; k < 20; k++) {
      const a = air(swing(4 + (k % 7) * 2, 16 + (k % 5) * 5, 0.4 + (k % 6) * 0.1));
      const of: DryingOf = { waterBorne: k % 2 === 0, minC: k % 3 ? 10 : null, fan: false, limit: "plain" };
      const from = at("2027-01-11T00:00") + k * 137;
      expect(dried(utc, a, of, from, from + 2000)).toBeCloseTo(slowIntegral(a, of, from, from + 2000), 0);
    }
  });
  test("the moment found is the one at which the integral is reached", () => {
    const a = air(swing(6, 19, 0.7));
    for (const ref of [10, 45, 300, 1440, 5000]) {
      const from = at("2027-01-11T17:30");
      const done = dryAt(utc, a, water, from, ref) as number;
      expect(dried(utc, a, water, from, done)).toBeCloseTo(ref, 3);
    }
  });
  test("an opening limit runs at most at double speed, a closing one never below 1", () => {
    const hot = air(constant(35));
    const cold = air(constant(12));
    expect(rateAt(hot, { ...plain, limit: "opens" }, 0)).toBe(2);
    expect(rateAt(hot, plain, 0)).toBeGreaterThan(2.8);
    expect(rateAt(cold, { ...plain, limit: "closes" }, 0)).toBe(1);
  });
  test("moving air helps the early states only", () => {
    const still = air(constant(20));
    const moving = air({ ...constant(20), air: "moving" });
    const early: DryingOf = { ...plain, fan: true };
    expect(rateAt(moving, early, 0) / rateAt(still, early, 0)).toBeCloseTo(1 / 0.7, 9);
    expect(rateAt(moving, plain, 0)).toBe(rateAt(still, plain, 0));
  });
  test("elapsed hours count, not the wall clock, over a change of the clock", () => {
    const lisbon = zonedClock("Europe/Lisbon");
    const from = lisbon.fromLocal("2026-10-24T20:00");
    expect(dryAt(lisbon, air(constant(20)), plain, from, 660)).toBeCloseTo(from + 660, 6);
    expect(lisbon.toLocal(Math.round(dryAt(lisbon, air(constant(20)), plain, from, 660) as number))).toBe(
      "2026-10-25T06:00",
    );
  });
  test("minutes below a floor in a night", () => {
    const a = air(swing(6, 20));
    const cold = minutesBelow(utc, a, 10, at("2027-01-11T18:00"), at("2027-01-12T09:00"));
    expect(cold).toBeGreaterThan(300);
    expect(cold).toBeLessThan(720);
  });
  test("dew point by Magnus", () => {
    expect(dewPoint(20, 0.5)).toBeCloseTo(9.26, 1);
    expect(dewPoint(20, 1)).toBeCloseTo(20, 6);
    expect(dewPoint(20, 0)).toBeNull();
  });
});

describe("what a state asks of a film", () => {
  const enamel = paint(stocked("e", "E", "spray-enamel", "#d8432f"));
  const maple = substrate("hard-maple");
  const steel = substrate("steel-bare");
  const tile = substrate("tile-glazed");
  test("thicker coats take longer within half and three times", () => {
    expect(referenceMinutes(enamel, "touch", 12, 12, tile)).toBe(20);
    expect(referenceMinutes(enamel, "touch", 24, 24, tile)).toBe(40);
    expect(referenceMinutes(enamel, "touch", 1, 1, tile)).toBe(10);
    expect(referenceMinutes(enamel, "touch", 500, 500, tile)).toBe(60);
  });
  test("through states ask for the whole build against 40 µm", () => {
    expect(isThrough("laser-safe")).toBe(true);
    expect(referenceMinutes(enamel, "laser-safe", 12, 40, tile)).toBe(1440);
    expect(referenceMinutes(enamel, "laser-safe", 12, 80, tile)).toBe(2880);
  });
  test("laser-safe takes twice as long on bare metal, less on wood", () => {
    expect(referenceMinutes(enamel, "laser-safe", 12, 40, steel)).toBe(2880);
    expect(referenceMinutes(enamel, "laser-safe", 12, 40, maple)).toBeCloseTo(1152, 9);
  });
  test("a state that does not apply is unknown, not nought", () => {
    expect(referenceMinutes(paint(stocked("c", "C", "spray-clear", "#f5f5f5")), "sandable", 10, 10, tile)).toBeNull();
  });
  test("a thin coat's window shuts sooner, a thick one's no later", () => {
    expect(closingMinutes(enamel, 6).closes).toBe(30);
    expect(closingMinutes(enamel, 24).closes).toBe(60);
    expect(closingMinutes(paint(stocked("a", "A", "craft-acrylic", "#a8235a")), 18)).toEqual({
      closes: null,
      reopens: null,
    });
  });
  test("a product's own figure wins over its finish's", () => {
    const own = paint(
      stocked("o", "O", "spray-enamel", "#d8432f", {
        times: { ...stocked("x", "X", "spray-enamel", "#000000").times, touch: 5 },
        minC: 4,
      }),
    );
    expect(own.times.touch).toEqual({ value: 5, from: "data sheet" });
    expect(own.times.flash).toEqual({ value: 4, from: "default" });
    expect(dryingOf(own, "touch").minC).toBe(4);
  });
});
