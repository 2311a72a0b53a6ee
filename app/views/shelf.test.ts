/** The Shelf's rows against figures reckoned by hand: left, low, taken, used. */
import { Can } from "../core/records/product";
import { e1, SHELF } from "../core/testing/worlds";
import { attacksOn, shelfRows } from "./shelf";

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
