/** The Shelf's rows against figures reckoned by hand: left, low, taken, used. */
import { Can } from "../core/records/product";
import { e1, SHELF } from "../core/testing/worlds";
import { shop } from "../core/testing/worlds";
import { zonedClock } from "../core/time/zoned";
import { attacksOn, shelfRows, usedByWeek, usedSince, WEEKS_BACK } from "./shelf";

const can = (fullMl: number, leftMl: number | null): Can => ({ ...new Can(), id: "k", label: "k", fullMl, leftMl });
const [a, b, c, d] = SHELF();

test("left and low: under a fifth of all cans, or more asked for than is there; unknown is not low", () => {
  const row = (cans: Can[], drawn = 0) => shelfRows([{ ...a, cans }], [], { [a.id]: drawn })[0];
  expect(row([])).toMatchObject({ left: null, full: 0, low: false });
  expect(row([can(400, null)])).toMatchObject({ left: null, full: 400, low: false });
  expect(row([can(400, 79)])).toMatchObject({ left: 79, low: true });
  expect(row([can(400, 80)])).toMatchObject({ left: 80, low: false });
  expect(row([can(400, 30), can(100, 80)])).toMatchObject({ left: 110, full: 500, low: false });
  expect(row([can(400, 200)], 200)).toMatchObject({ drawn: 200, low: false });
  expect(row([can(400, 200)], 201)).toMatchObject({ drawn: 201, low: true });
});
test("by name, with the open jobs that have it in a zone", () => {
  const rows = shelfRows(
    [d, c, b, a],
    [
      { title: "Markers", products: [a.id, b.id] },
      { title: "Tiles", products: [b.id] },
    ],
    {},
  );
  expect(rows.map((r) => r.product.name)).toEqual([a, b, c, d].map((p) => p.name).sort((x, y) => x.localeCompare(y)));
  const used = Object.fromEntries(rows.map((r) => [r.product.id, r.usedBy]));
  expect([used[a.id], used[b.id], used[c.id]]).toEqual([["Markers"], ["Markers", "Tiles"], []]);
});
test("powders stand by themselves, whatever they are painted as", () => {
  const kind = (finish: string): string => shelfRows([{ ...a, finish: finish as typeof a.finish }], [], {})[0].kind;
  expect(["powder", "craft-acrylic", "spray-enamel"].map(kind)).toEqual(["powder", "colour", "colour"]);
});
test("a Shelf of one finish attacks nothing; each pair that does says why", () => {
  expect(attacksOn({ ...e1(), products: [a] })).toEqual([]);
  for (const x of attacksOn(e1())) expect([x, x.why.length > 10, x.upper !== x.lower]).toEqual([x, true, true]);
});

describe("what was used week by week", () => {
  const utc = zonedClock("UTC");
  const at = (local: string): number => utc.fromLocal(local);
  const now = at("2027-01-13T12:00"); // a Wednesday
  const used = (local: string, ml: number | null, productId = "beet") => ({ at: at(local), ml, productId });
  const weeks = (list: ReturnType<typeof used>[], weekStart?: "mon" | "sat" | "sun") =>
    usedByWeek(list, "beet", shop({ weekStart }), now).map((w) => [w.week, w.ml]);

  test("a week ends at its last midnight; weeks of nothing stand between; other products and unknown amounts count for nothing", () => {
    const list = [
      used("2026-12-27T23:59", 1),
      used("2026-12-28T00:00", 2),
      used("2026-12-30T09:00", 3),
      used("2027-01-13T09:00", 4),
      used("2027-01-12T09:00", 50, "kale"),
      used("2027-01-12T09:00", null),
    ];
    expect(weeks(list)).toEqual([
      ["21 Dec", 1],
      ["28 Dec", 5],
      ["4 Jan", 0],
      ["11 Jan", 4],
    ]);
    // of Saturday and Sunday the one that weeks begin with belongs to the next one
    const days = [used("2027-01-08T12:00", 1), used("2027-01-09T12:00", 2), used("2027-01-10T12:00", 4)];
    expect(weeks(days, "mon")).toEqual([
      ["4 Jan", 7],
      ["11 Jan", 0],
    ]);
    expect(weeks(days, "sun")).toEqual([
      ["3 Jan", 3],
      ["10 Jan", 4],
    ]);
    expect(weeks(days, "sat")).toEqual([
      ["2 Jan", 1],
      ["9 Jan", 6],
    ]);
  });
  test("by the shop's own midnight, and not past what is looked back on; nothing used is no week", () => {
    const there = usedByWeek([used("2027-01-11T05:00", 1)], "beet", shop({ zone: "America/Chicago" }), now);
    expect(there.map((w) => w.week)).toEqual(["4 Jan", "11 Jan"]);
    expect(weeks([])).toEqual([]);
    const first = now - (WEEKS_BACK - 1) * 7 * 1440;
    const back = (min: number) => usedByWeek([{ at: min, ml: 1, productId: "beet" }], "beet", shop(), now).length;
    expect(back(first)).toBe(WEEKS_BACK);
    expect(back(first - 7 * 1440)).toBe(0);
    expect(usedSince(now)).toBeLessThan(first - 7 * 1440);
  });
});
