import { workCalendar, type WeekHours } from "./hours";
import { shopClock, showTime, showWhen, zonedClock } from "./zoned";

const WEEK: WeekHours = {
  mon: ["09:00", "18:00"],
  tue: ["09:00", "18:00"],
  wed: ["09:00", "18:00"],
  thu: ["09:00", "18:00"],
  fri: ["09:00", "18:00"],
};

describe("local time", () => {
  const lisbon = zonedClock("Europe/Lisbon");
  test("there and back through a year, every 13 hours", () => {
    const begin = lisbon.fromLocal("2027-01-01T00:00");
    for (let m = begin; m < begin + 365 * 1440; m += 13 * 60) {
      const local = lisbon.toLocal(m);
      const back = lisbon.fromLocal(local);
      // the doubled hour of autumn reads as its first turn
      expect([m, m - 60]).toContain(back);
      expect(lisbon.toLocal(back)).toBe(local);
    }
  });
  test("the skipped hour of spring moves forward", () => {
    const m = lisbon.fromLocal("2027-03-28T01:30");
    expect(lisbon.toLocal(m)).toBe("2027-03-28T02:30");
  });
  test("eleven hours across the autumn night are eleven elapsed hours", () => {
    const from = lisbon.fromLocal("2026-10-24T20:00");
    expect(lisbon.toLocal(from + 11 * 60)).toBe("2026-10-25T06:00");
  });
  test("eleven hours across the spring night are eleven elapsed hours", () => {
    const from = lisbon.fromLocal("2027-03-27T20:00");
    expect(lisbon.toLocal(from + 11 * 60)).toBe("2027-03-28T08:00");
  });
  test("weekday and date in words", () => {
    expect(showWhen(zonedClock("UTC"), zonedClock("UTC").fromLocal("2026-12-04T15:20"))).toBe("Fri 4 Dec, 15:20");
    expect(showWhen(lisbon, null)).toBe("unknown");
    const twelve = shopClock({ zone: "Europe/Lisbon", clockFace: "12" });
    expect(showWhen(twelve, lisbon.fromLocal("2026-12-04T15:20"))).toBe("Fri 4 Dec, 3:20 pm");
    expect(
      ["00:00", "00:59", "01:00", "11:59", "12:00", "12:01", "13:00", "24:00"].map((t) => showTime(t, "12")),
    ).toEqual(["12:00 am", "12:59 am", "1:00 am", "11:59 am", "12:00 pm", "12:01 pm", "1:00 pm", "midnight"]);
    expect(shopClock({ zone: "Europe/Lisbon" })).toBe(lisbon);
    expect(twelve.fromLocal("2026-10-25T06:00")).toBe(lisbon.fromLocal("2026-10-25T06:00"));
  });
  test("an unknown zone is refused at once", () => expect(() => zonedClock("Middle/Nowhere")).toThrow());
  test("a local time that is none is refused by name", () =>
    expect(() => lisbon.fromLocal("tomorrow")).toThrow(/tomorrow/));
});

describe("working hours", () => {
  const c = zonedClock("UTC");
  const at = (s: string): number => c.fromLocal(s);
  const cal = workCalendar(c, WEEK, ["2027-01-13"]);
  test("inside, before, after, over the weekend and a day off", () => {
    expect(cal.openAt(at("2027-01-11T12:00"))).toEqual({
      from: at("2027-01-11T09:00"),
      to: at("2027-01-11T18:00"),
    });
    expect(cal.openAt(at("2027-01-11T07:00"))?.from).toBe(at("2027-01-11T09:00"));
    expect(cal.openAt(at("2027-01-11T18:00"))?.from).toBe(at("2027-01-12T09:00"));
    expect(cal.openAt(at("2027-01-12T20:00"))?.from).toBe(at("2027-01-14T09:00"));
    expect(cal.openAt(at("2027-01-15T18:30"))?.from).toBe(at("2027-01-18T09:00"));
  });
  test("closed minutes between two moments", () => {
    expect(cal.closedBetween(at("2027-01-11T17:00"), at("2027-01-12T10:00"))).toBe(15 * 60);
    expect(cal.closedBetween(at("2027-01-11T10:00"), at("2027-01-11T11:00"))).toBe(0);
  });
  test("a night between two taps is not worked; an evening at the bench is", () => {
    const at = (t: string): number => c.fromLocal(t);
    const worked = (a: string, b: string): number => cal.workedBetween(at(a), at(b));
    expect(worked("2027-01-11T10:00", "2027-01-11T11:30")).toBe(90);
    // Monday 17:30 to Tuesday 09:20: half an hour and twenty minutes
    expect(worked("2027-01-11T17:30", "2027-01-12T09:20")).toBe(50);
    // shut all Wednesday, then a weekend
    expect(worked("2027-01-12T17:00", "2027-01-14T09:01")).toBe(61);
    expect(worked("2027-01-15T17:59", "2027-01-18T09:00")).toBe(1);
    // begun and ended while it is shut: somebody was there
    expect(worked("2027-01-11T19:00", "2027-01-11T19:40")).toBe(40);
    expect(worked("2027-01-11T17:30", "2027-01-11T19:00")).toBe(90);
    expect(worked("2027-01-11T06:00", "2027-01-11T10:00")).toBe(240);
    expect(worked("2027-01-11T19:00", "2027-01-12T10:00")).toBe(15 * 60);
    expect(worked("2027-01-11T11:00", "2027-01-11T10:00")).toBe(0);
    expect(workCalendar(c, {}, []).workedBetween(0, 5000)).toBe(5000);
  });
  test("a shop that never opens has no next opening", () => expect(workCalendar(c, {}, []).openAt(0)).toBeNull());
  test("the longest day", () => expect(cal.longest).toBe(9 * 60));
  test("opening hours stay at the wall clock over a change of the clock", () => {
    const l = zonedClock("Europe/Lisbon");
    const sunday: WeekHours = { sun: ["09:00", "18:00"] };
    const span = workCalendar(l, sunday, []).openAt(l.fromLocal("2027-03-28T00:30"));
    expect(l.toLocal(span!.from)).toBe("2027-03-28T09:00");
  });
});
