import { constant, seeded, stocked, swing } from "../../testing/worlds";
import { paint } from "../../catalogue/properties";
import { substrate } from "../../catalogue/substrates";
import { zonedClock } from "../../time/zoned";
import { air, dewPoint, spanAt, type Air } from "./climate";
import { dried, dryAt, minutesBelow, rateAt, rateIn, type DryingOf } from "./clock";
import { closingMinutes, dryingOf, isThrough, liftMinutes, referenceMinutes } from "../../process/film-times";

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
    let g = Math.pow(2, (Math.min(Math.max(c, of.minC ?? -99), 35) - 20) / 10);
    if (of.minC !== null && c < of.minC) g *= of.waterBorne || c < of.minC - 5 ? 0 : (c - of.minC + 5) / 5;
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
    expect(((dryAt(utc, night, water, from, 1440) as number) - from) / 60).toBeCloseTo(48.04, 1);
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
        water,
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
    // weeks of such nights, whole days and what is left of one, with a warm reading among them
    const read = air({ ...swing(6, 20), readings: [{ at: at("2027-01-20T02:00"), c: 25, rh: 0.5 }] });
    for (const x of [a, read])
      for (const [from, to] of [
        ["2027-01-11T18:00", "2027-02-20T03:35"],
        ["2027-01-19T00:00", "2027-01-23T00:00"],
      ] as const) {
        let sum = 0;
        for (let m = at(from); m < at(to); m += 100) sum += minutesBelow(utc, x, 10, m, Math.min(m + 100, at(to)));
        expect(minutesBelow(utc, x, 10, at(from), at(to))).toBe(sum);
      }
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

describe("against sums of one's own", () => {
  const summer = [Date.UTC(2027, 2, 28, 1) / 60_000, Date.UTC(2027, 9, 31, 1) / 60_000];
  /** minute by minute, with the hour that the clocks are put forward by from one moment to the other */
  const minutely = (a: Air, of: DryingOf, from: number, ref: number): number => {
    let left = ref;
    for (let t = from; ; t += 0.5) {
      const m = (t + 0.25 + (t >= summer[0] && t < summer[1] ? 60 : 0)) % 1440;
      const got = slowIntegral({ ...a, c: () => a.c(m), rh: () => a.rh(m) }, of, 0, 0.5, 0.5);
      if (got >= left) return t + (0.5 * left) / got;
      left -= got;
    }
  };
  const lisbon = zonedClock("Europe/Lisbon");
  test.each([
    ["2027-03-25T17:30", 5000],
    ["2027-03-27T23:10", 5000],
    ["2027-03-20T08:00", 9000],
    ["2027-10-28T17:30", 5000],
    ["2027-10-21T06:00", 12_000],
    ["2027-10-30T20:00", 700],
  ])("a wait begun at %s of %d reference minutes, over a change of the clocks", (when, ref) => {
    const a = air(swing(9, 21, 0.55));
    const from = lisbon.fromLocal(when);
    for (const kind of [plain, water]) {
      const done = dryAt(lisbon, a, kind, from, ref) as number;
      expect(Math.abs(done - minutely(a, kind, from, ref))).toBeLessThan(4);
      expect(dried(lisbon, a, kind, from, done)).toBeCloseTo(ref, 5);
    }
  });
  test("a long wait has its own length, whatever lies between; only where nothing dries is it never", () => {
    const from = at("2027-01-11T09:20");
    for (const days of [59, 61, 400, 3600]) {
      const ref = days * 1440 + 17;
      expect(dryAt(utc, air(constant(20)), plain, from, ref)).toBeCloseTo(from + ref, 4);
      // at 10 °C half as fast
      if (days < 1000) expect(dryAt(utc, air(constant(10)), plain, from, ref)! - from).toBeCloseTo(2 * ref, 3);
      // over the changes of the clock elapsed minutes count, and a reading ahead is kept
      const swinging = air(swing(9, 21, 0.55));
      const done = dryAt(lisbon, swinging, plain, from, ref);
      if (done !== null) expect(dried(lisbon, swinging, plain, from, done)).toBeCloseTo(ref, 3);
      const read = air({ ...constant(20), readings: [{ at: from + 100_000, c: 20, rh: 0.5 }] });
      expect(dryAt(utc, read, plain, from, ref)).toBeCloseTo(from + ref, 4);
    }
    // ten years are given up
    expect(dryAt(utc, air(constant(20)), plain, from, 3650 * 1440 + 61)).toBeNull();
    const dead = air(constant(5));
    expect(dryAt(utc, dead, plain, from, 0)).toBe(from);
    expect(dryAt(utc, dead, plain, from, -3)).toBe(from);
    expect(dryAt(utc, dead, water, from, 1e-3)).toBeNull();
    expect(dryAt(utc, dead, plain, from, 1e-3)).toBeNull();
  });

  /** straight up and straight down again: 0 at midnight, `top` at noon */
  const tent = (low: number, top: number, key: "c" | "rh", other: number): Air => {
    const up = (m: number): number => low + ((top - low) * (720 - Math.abs(m - 720))) / 720;
    return {
      c: key === "c" ? up : () => other,
      rh: key === "rh" ? up : () => other,
      knots: [0, 720],
      airFactor: 1,
      spans: [],
    };
  };
  /** ∫ 2^((c−20)/10) dm while c runs straight from a to b in so many minutes */
  const warmth = (a: number, b: number, minutes: number): number =>
    (minutes * 10 * (2 ** ((b - 20) / 10) - 2 ** ((a - 20) / 10))) / (Math.LN2 * (b - a));
  const day = (a: Air, of: DryingOf): number => dried(utc, a, of, at("2027-01-11T00:00"), at("2027-01-12T00:00"));

  test("below the floor water-borne films stand still and others slow down, nothing dries faster past 35 °C: by the closed form", () => {
    // 5 to 45 °C: 18 minutes a degree, twice
    const a = tent(5, 45, "c", 0.5);
    const slow = (floor: number): number => 90 * 0.5 * 2 ** ((floor - 20) / 10); // five degrees, in a line
    expect(day(a, plain)).toBeCloseTo(2 * (slow(10) + warmth(10, 35, 450) + 180 * 2 ** 1.5), 5);
    expect(day(a, water)).toBeCloseTo(2 * (warmth(10, 35, 450) + 180 * 2 ** 1.5), 5);
    expect(day(a, { ...plain, minC: null })).toBeCloseTo(2 * (warmth(5, 35, 540) + 180 * 2 ** 1.5), 5);
    expect(day(a, { ...plain, minC: 17 })).toBeCloseTo(2 * (slow(17) + warmth(17, 35, 324) + 180 * 2 ** 1.5), 5);
  });
  test("what opens runs at double speed at most, what closes at single at least: by the closed form", () => {
    const a = tent(5, 45, "c", 0.5);
    const opens = { ...plain, minC: null, limit: "opens" as const };
    expect(day(a, opens)).toBeCloseTo(2 * (warmth(5, 30, 450) + 270 * 2), 5);
    const closes = { ...plain, minC: null, limit: "closes" as const };
    expect(day(a, closes)).toBeCloseTo(2 * (270 + warmth(20, 35, 270) + 180 * 2 ** 1.5), 5);
    // below its floor a window closes on all the same
    expect(day(a, { ...closes, minC: 17 })).toBeCloseTo(2 * (270 + warmth(20, 35, 270) + 180 * 2 ** 1.5), 5);
    expect(rateIn(Number.NaN, 0.5, 1, closes)).toBe(1);
  });
  test("damp air: twice the share still to take up, 1.6 at most, nothing from .97 on, and only what is water-borne", () => {
    // .1 to 1 at 20 °C: 800 minutes each way for one whole unit
    const a = tent(0.1, 1, "rh", 20);
    const falls = (from: number, to: number): number => 800 * (to - from) * (2 - from - to);
    expect(day(a, water)).toBeCloseTo(2 * (80 * 1.6 + falls(0.2, 0.97)), 5);
    expect(day(a, plain)).toBeCloseTo(1440, 9);
    expect(rateIn(20, 0.97, 1, water)).toBe(0);
    expect(rateIn(20, 0.96, 1, water)).toBeCloseTo(0.08, 12);
    expect(rateIn(20, 0.2, 1, water)).toBeCloseTo(1.6, 12);
    expect(rateIn(20, 0.05, 1, water)).toBe(1.6);
  });
  test("the floor itself dries, and a hair below it does not", () => {
    for (const kind of [plain, water]) expect(rateIn(10, 0.5, 1, kind)).toBe(0.5);
    expect(rateIn(9.999, 0.5, 1, water)).toBe(0);
    expect([9.999, 7.5, 5, 4].map((t) => rateIn(t, 0.5, 1, plain))).toEqual([expect.closeTo(0.4999, 6), 0.25, 0, 0]);
    expect(rateIn(35, 0.5, 1, plain)).toBe(rateIn(60, 0.5, 1, plain));
  });
  test("moving air and extraction speed up what flashes, by as much as they are said to", () => {
    const from = at("2027-01-11T09:00");
    const early: DryingOf = { ...plain, fan: true };
    for (const [how, f] of [
      ["still", 1],
      ["moving", 0.7],
      ["extraction", 0.6],
    ] as const) {
      const a = air({ ...constant(20), air: how });
      expect(dryAt(utc, a, early, from, 100)).toBeCloseTo(from + 100 * f, 6);
      expect(dryAt(utc, a, plain, from, 100)).toBeCloseTo(from + 100, 6);
    }
  });
  test("a curve by the hour is straight between its hours, and through midnight", () => {
    const a = air({
      ...constant(0),
      kind: "hourly",
      hourly: Array.from({ length: 24 }, (_, h) => ({ c: h, rh: h / 50 })),
    });
    expect(a.c(90)).toBeCloseTo(1.5, 12);
    expect(a.rh(90)).toBeCloseTo(0.03, 12);
    expect(a.c(23 * 60 + 15)).toBeCloseTo(23 - 23 / 4, 12);
    // a day with an hour short is no day: the one figure holds
    expect(air({ ...constant(17), kind: "hourly", hourly: [{ c: 1, rh: 0.1 }] }).c(90)).toBe(17);
  });
  test("cold minutes are counted where they lie", () => {
    // below 10 °C for the first 90 and the last 90 minutes of the day
    const a = tent(5, 45, "c", 0.5);
    const midnight = at("2027-01-12T00:00");
    expect(minutesBelow(utc, a, 10, midnight - 200, midnight + 200)).toBeGreaterThanOrEqual(175);
    expect(minutesBelow(utc, a, 10, midnight - 200, midnight + 200)).toBeLessThanOrEqual(185);
    expect(minutesBelow(utc, a, 10, midnight - 3, midnight)).toBe(3);
    expect(minutesBelow(utc, a, 10, midnight + 200, midnight + 800)).toBe(0);
    expect(minutesBelow(utc, a, 5, midnight - 200, midnight + 200)).toBe(0);
  });
  test("a reading holds three hours, one at the same moment is overruled by the next", () => {
    const from = at("2027-01-11T09:00");
    const a = air({
      ...constant(20),
      readings: [
        { at: from, c: 12, rh: 0.5 },
        { at: from, c: 30, rh: 0.5 },
      ],
    });
    expect(a.spans).toEqual([{ from, to: from + 180, c: 30, rh: 0.5 }]);
    // twice as fast for 180 min
    expect(dryAt(utc, a, plain, from, 360)).toBeCloseTo(from + 180, 6);
    expect(dryAt(utc, a, plain, from, 400)).toBeCloseTo(from + 220, 6);
    expect(dryAt(utc, a, plain, from - 50, 250)).toBeCloseTo(from + 100, 6);
    expect(dried(utc, a, plain, from - 50, from + 200)).toBeCloseTo(50 + 360 + 20, 6);
  });
  test("dew point: back through Magnus it is the humidity it came from", () => {
    const press = (t: number): number => 6.112 * Math.exp((17.62 * t) / (243.12 + t));
    for (const [c, rh] of [
      [20, 0.5],
      [8, 0.9],
      [31, 0.2],
    ])
      expect(press(dewPoint(c, rh) as number) / press(c)).toBeCloseTo(rh, 9);
  });
});

describe("what a film asks for, both sides of each limit", () => {
  const maple = substrate("hard-maple");
  const times = {
    flash: 6,
    touch: 20,
    recoat: 30,
    maskable: 90,
    sandable: 400,
    laserSafe: 800,
    cured: 5000,
    closes: 60,
    reopens: 600,
  };
  const enamel = paint(
    stocked("e", "E", "spray-enamel", "#d8432f", {
      times: { ...stocked("x", "X", "spray-enamel", "#000000").times, ...times },
    }),
  );
  const ref = enamel.finish.coatUm as number;
  const steel = substrate("steel-bare");
  test.each([
    ["flash", 6],
    ["touch", 20],
    ["recoat", 30],
    ["maskable", 90],
  ] as const)("%s stretches with the coat, between half and three times", (state, t) => {
    for (const [share, want] of [
      [0.2, 0.5],
      [0.5, 0.5],
      [0.7, 0.7],
      [1, 1],
      [2.9, 2.9],
      [3.2, 3],
    ])
      expect(referenceMinutes(enamel, state, share * ref, 400, maple)).toBeCloseTo(t * want, 9);
  });
  test.each([
    ["sandable", 400, 1],
    ["laser-safe", 800, steel.laserSafeFactor],
  ] as const)("%s stretches with the whole build against 40 µm", (state, t, f) => {
    for (const [um, want] of [
      [10, 0.5],
      [30, 0.75],
      [40, 1],
      [110, 2.75],
      [130, 3],
    ])
      expect(referenceMinutes(enamel, state, ref, um, steel)).toBeCloseTo(t * want * f, 9);
  });
  test("full cure stretches less", () => {
    for (const [um, want] of [
      [10, 0.7],
      [30, 0.75],
      [40, 1],
      [58, 1.45],
      [130, 1.5],
    ])
      expect(referenceMinutes(enamel, "cured", ref, um, steel)).toBeCloseTo(5000 * want, 9);
  });
  test("poured resin sets by its own clock, however deep", () => {
    const epoxy = paint(stocked("r", "R", "table-top-epoxy", "#335577"));
    for (const state of ["touch", "sandable", "cured"] as const) {
      const one = referenceMinutes(epoxy, state, 500, 500, maple);
      expect(one).not.toBeNull();
      expect(referenceMinutes(epoxy, state, 4000, 4000, steel)).toBe(one);
    }
  });
  test("the window of a thin coat shuts sooner and reopens sooner; a thick one's shuts no later but reopens later", () => {
    for (const [share, closes, reopens] of [
      [0.25, 15, 300],
      [0.5, 30, 300],
      [1, 60, 600],
      [2, 60, 1200],
      [4, 60, 1800],
    ])
      expect(closingMinutes(enamel, share * ref)).toEqual({ closes, reopens });
  });
  test("a mask beside it lifts clean from, until and again, by its thickness", () => {
    const l = enamel.finish.lift as { from: number; to: number; again: number };
    expect(referenceMinutes(enamel, "lift", ref, ref, maple)).toBe(l.from);
    for (const [share, closes, again] of [
      [0.5, 0.5, 0.5],
      [1, 1, 1],
      [2, 1, 2],
      [9, 1, 3],
    ])
      expect(liftMinutes(enamel, share * ref)).toEqual({ closes: l.to * closes, reopens: l.again * again });
  });
  test("moving air helps flash, touch, recoat and lift, no other state", () => {
    const states = ["flash", "touch", "recoat", "lift", "maskable", "sandable", "laser-safe", "cured"] as const;
    expect(states.filter((s) => dryingOf(enamel, s).fan)).toEqual(["flash", "touch", "recoat", "lift"]);
    expect(states.filter(isThrough)).toEqual(["sandable", "laser-safe", "cured"]);
    expect(dryingOf(enamel, "touch").waterBorne).toBe(false);
    expect(dryingOf(paint(stocked("a", "A", "craft-acrylic", "#a8235a")), "touch", "opens")).toMatchObject({
      waterBorne: true,
      limit: "opens",
    });
  });
});

test("cold all day long counts every minute; not a warm one", () => {
  const cold = air(constant(5, 0.5));
  expect(minutesBelow(utc, cold, 10, at("2027-01-11T09:00"), at("2027-01-11T19:00"))).toBe(600);
  expect(minutesBelow(utc, cold, 10, at("2027-01-11T09:00"), at("2027-01-19T09:00"))).toBe(8 * 1440);
  expect(minutesBelow(utc, cold, 5, at("2027-01-11T09:00"), at("2027-01-19T09:00"))).toBe(0);
});

test("a wait of weeks does not stride over what was read in the midst of it", () => {
  const from = at("2027-01-11T09:00");
  const read = from + 6 * 1440;
  const a = air({ ...constant(20, 0.5), readings: [{ at: read, c: 5, rh: 0.5 }] });
  // three hours at five below the least that it wants: nothing dries in them
  const wait = 14 * 1440;
  expect(a.spans[0].to - read).toBe(180);
  expect(dryAt(utc, a, plain, from, wait)! - from).toBeCloseTo(wait + 180, 3);
  expect(dried(utc, a, plain, from, from + wait + 180)).toBeCloseTo(wait, 3);
});
