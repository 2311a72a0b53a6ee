/** Moments as they are typed: each form by hand, every day there and back, nonsense refused by name. */
import { seeded } from "../testing/worlds";
import { showTime } from "./zoned";
import { readTime, readWhen, showLocal } from "./typed";

/** a Wednesday */
const now = "2027-01-13T11:20";
const read = (text: string, more: object = {}): string => readWhen(text, { now, ...more });

test.each([
  ["2027-01-15T12:00", "2027-01-15T12:00"],
  ["2027-1-5 8:05", "2027-01-05T08:05"],
  ["mon 14 16:00", "2027-06-14T16:00"], // the next Monday that is a 14th
  ["fri", "2027-01-15T12:00"],
  ["wed", "2027-01-13T12:00"],
  ["next wed", "2027-01-20T12:00"],
  ["mon 18", "2027-01-18T12:00"], // a day of the month that is near
  ["mon 19", "2027-01-18T19:00"], // no Monday near is a 19th: an hour
  ["mon at 18", "2027-01-18T18:00"],
  ["next friday at 9", "2027-01-15T09:00"],
  ["Thu 14 jan, 16:00", "2027-01-14T16:00"],
  ["thursday 14 January 2027 4pm", "2027-01-14T16:00"],
  ["today", "2027-01-13T12:00"],
  ["tomorrow 9", "2027-01-14T09:00"],
  ["yesterday noon", "2027-01-12T12:00"],
  ["in 10 days", "2027-01-23T12:00"],
  ["in 1 week 16:30", "2027-01-20T16:30"],
  ["in 3 hours", "2027-01-13T14:20"],
  ["in 45 min", "2027-01-13T12:05"],
  ["in 20 h", "2027-01-14T07:20"],
  ["15 jan 12:00", "2027-01-15T12:00"],
  ["jan 15", "2027-01-15T12:00"],
  ["3rd of feb", "2027-02-03T12:00"],
  ["12 jan", "2028-01-12T12:00"], // gone by: next year's
  ["29 feb", "2028-02-29T12:00"],
  ["15/1/2027", "2027-01-15T12:00"],
  ["15.1. 8:00", "2027-01-15T08:00"],
  ["3/4", "2027-04-03T12:00"],
  ["16:00", "2027-01-13T16:00"],
  ["11:19", "2027-01-14T11:19"],
  ["4:30 pm", "2027-01-13T16:30"],
])("%s", (text, want) => expect(read(text)).toBe(want));

test("what is not typed is taken from the field, or from how the maker writes dates", () => {
  expect(read("fri", { time: "16:45" })).toBe("2027-01-15T16:45");
  expect(read("fri 8", { time: "16:45" })).toBe("2027-01-15T08:00");
  expect(read("3/4", { dayFirst: false })).toBe("2027-03-04T12:00");
  expect(read("3.4.", { dayFirst: false })).toBe("2027-04-03T12:00");
  expect(() => read("15/1", { dayFirst: false })).toThrow("no day of the calendar");
});

test.each([
  ["", "says no moment"],
  ["30 feb", "no day of the calendar"],
  ["2027-02-30", "no day of the calendar"],
  ["32 jan", "no day of the calendar"],
  ["15/13", "no day of the calendar"],
  ["mon 14 jan 2027", "no day of the calendar"], // a Thursday
  ["15 jan 3027", "no day of the calendar"],
  ["0001-01-01", "no day of the calendar"],
  ["in 9999 weeks", "lies outside 2000 to 2199"],
  ["fri 25:00", "“25:00” is no time of day"],
  ["fri 16:60", "“16:60” is no time of day"],
  ["tomorrow 13pm", "“13pm” is no time of day"],
  ["soon", "is no moment that can be read"],
  ["NaN", "is no moment that can be read"],
  ["monkey 3 banana", "no time of day"],
  ["\u0000", "is no moment that can be read"],
])("refused by name: %j", (text, why) => {
  expect(() => read(text)).toThrow(RangeError);
  expect(() => read(text)).toThrow(why);
  expect(() => read(text)).toThrow("write 15 jan 12:00, mon 16:00, tomorrow 9, or in 10 days.");
});

test("an error quotes forty characters at most", () => {
  try {
    read("x".repeat(1_000_000));
  } catch (e) {
    expect((e as Error).message.length).toBeLessThan(160);
  }
  expect.assertions(1);
});

test("every day of eight years, and every minute of a day, is read back as it is shown", () => {
  for (let day = Date.parse("2024-01-01T00:00Z"); day < Date.parse("2032-01-01T00:00Z"); day += 86_400_000) {
    const local = new Date(day).toISOString().slice(0, 16);
    for (const face of ["24", "12"] as const) expect(read(showLocal(local, face))).toBe(local);
    expect(read(showLocal(local.slice(0, 10)), { time: "07:15" })).toBe(`${local.slice(0, 10)}T07:15`);
  }
  for (let m = 0; m < 1440; m++) {
    const t = new Date(m * 60_000).toISOString().slice(11, 16);
    for (const face of ["24", "12"] as const) expect(readTime(showTime(t, face))).toBe(t);
    const h = Math.floor(m / 60);
    const twelve = `${h % 12 || 12}:${t.slice(3)} ${h < 12 ? "am" : "pm"}`;
    expect([twelve, readTime(twelve)]).toEqual([twelve, t]);
  }
});

test("whatever is typed, a moment in the years of a shop comes out, or a sentence", () => {
  const r = seeded(5);
  const bits = [
    "mon",
    "14",
    "jan",
    "in",
    "3",
    "days",
    "16:00",
    "next",
    "2027",
    "/",
    "pm",
    "of",
    "fri",
    "31",
    "feb",
    "-",
  ];
  let fine = 0;
  for (let k = 0; k < 4000; k++) {
    const text = Array.from({ length: 1 + Math.floor(r() * 5) }, () => bits[Math.floor(r() * bits.length)]).join(" ");
    try {
      const got = read(text);
      expect([text, got]).toEqual([text, expect.stringMatching(/^2[01]\d\d-\d\d-\d\dT\d\d:\d\d$/)]);
      expect(read(showLocal(got))).toBe(got);
      fine++;
    } catch (e) {
      expect([text, e instanceof RangeError]).toEqual([text, true]);
    }
  }
  expect(fine).toBeGreaterThan(200);
});
