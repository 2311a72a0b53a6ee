/** Hours in the open, held against almanac times for four places and the shape of a day. */
import { clipAll, clockClip, outdoorsOn, sunOn } from "./outdoors";
import { workCalendar } from "./hours";
import { zonedClock } from "./zoned";

const day = (y: number, m: number, d: number): number => Date.UTC(y, m - 1, d) / 86_400_000;
const utc = (d: number, h: number, m: number): number => d * 1440 + h * 60 + m;
const JUNE = day(2027, 6, 21);
const DECEMBER = day(2027, 12, 21);
const MARCH = day(2027, 3, 20);

test.each([
  ["north, summer", JUNE, 52.5, 13.4, utc(JUNE, 2, 43), utc(JUNE, 19, 33)],
  ["north, winter", DECEMBER, 52.5, 13.4, utc(DECEMBER, 7, 15), utc(DECEMBER, 14, 54)],
  ["south, summer", DECEMBER, -33.87, 151.2, utc(DECEMBER - 1, 18, 41), utc(DECEMBER, 9, 5)],
  ["equator, even", MARCH, 0, 0, utc(MARCH, 6, 4), utc(MARCH, 18, 11)],
])("%s: sunrise and sunset to some minutes", (_name, d, latitude, longitude, rise, set) => {
  const sun = sunOn(d, { latitude, longitude })!;
  expect(Math.abs(sun.from - rise)).toBeLessThanOrEqual(4);
  expect(Math.abs(sun.to - set)).toBeLessThanOrEqual(4);
});
test("near the pole there is a day without sun, and one without night", () => {
  expect(sunOn(DECEMBER, { latitude: 70, longitude: 20 })).toBeNull();
  const sun = sunOn(JUNE, { latitude: 70, longitude: 20 })!;
  expect(sun.to - sun.from).toBeGreaterThanOrEqual(1438);
});

describe("warm enough", () => {
  const at = { latitude: 45, longitude: 0 };
  const on = (coldC: number, warmC: number, leastC: number): ReturnType<typeof outdoorsOn> =>
    outdoorsOn(MARCH, { ...at, coldC, warmC, leastC });
  const sun = sunOn(MARCH, at)!;
  test("half way between cold and warm in the middle of the morning; never where no afternoon comes up to it", () => {
    const peak = sun.noon + 180;
    expect(on(4, 16, 10)!.from).toBe(Math.ceil((sun.from + peak) / 2));
    expect(on(4, 16, 10)!.to).toBe(sun.to);
    expect(on(4, 16, 16.1)).toBeNull();
    expect(on(12, 16, 10)).toEqual({ from: sun.from, to: sun.to });
  });
  test("colder is never longer", () => {
    for (let least = 4; least < 16; least++) {
      const [a, b] = [on(4, 16, least)!, on(4, 16, least + 0.5)!];
      expect([a.from <= b.from, a.to >= b.to]).toEqual([true, true]);
    }
  });
  test("not known it is not asked about", () => {
    expect(outdoorsOn(MARCH, { ...at, leastC: 30 })).toEqual({ from: sun.from, to: sun.to });
    expect(outdoorsOn(MARCH, { ...at, coldC: 2, leastC: 30 })).toEqual({ from: sun.from, to: sun.to });
  });
});

test("a calendar is open where all of it is: hours, clock times, daylight; its longest stretch is that of the shortest day", () => {
  const clock = zonedClock("Europe/Berlin");
  const place = { latitude: 52.5, longitude: 13.4, leastC: 0 };
  const clip = clipAll([clockClip(clock, ["10:00", "20:00"]), (d) => outdoorsOn(d, place)]);
  const week = { mon: ["08:00", "18:00"], tue: ["08:00", "18:00"] } as Record<string, [string, string]>;
  const open = workCalendar(clock, week, [], [], clip);
  // a Monday in December: from ten until the sun sets at 15:54
  const at = open.openAt(clock.fromLocal("2027-12-20T00:00"))!;
  expect(clock.toLocal(at.from)).toBe("2027-12-20T10:00");
  expect(Math.abs(at.to - clock.fromLocal("2027-12-20T15:54"))).toBeLessThanOrEqual(4);
  // and in June until closing time
  expect(clock.toLocal(open.openAt(clock.fromLocal("2027-06-21T00:00"))!.to)).toBe("2027-06-21T18:00");
  expect(open.longest).toBeGreaterThan(330);
  expect(open.longest).toBeLessThan(370);
  expect(clipAll([clockClip(clock, ["10:00", "11:00"]), clockClip(clock, ["12:00", "13:00"])])(JUNE)).toBeNull();
});
