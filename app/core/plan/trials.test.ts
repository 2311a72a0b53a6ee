import { FULL_SHELF, GEAR } from "../testing/briefs";
import { a1, zone } from "../testing/worlds";
import { mattersHere, MOST_CARDS, trialCards } from "./trials";

const world = () => {
  const w = a1({ products: FULL_SHELF(), shop: { gear: GEAR() } });
  return {
    ...w,
    job: {
      ...w.job,
      route: "D1" as const,
      substrate: { id: "hard-maple", w: 80, h: 60, t: 8 },
      zones: [zone("z", "e-rust")],
    },
  };
};

test("every combination is a card, numbered, with its own steps in order; those voted out stay and are marked", () => {
  const cards = trialCards(
    world(),
    ["route:D1", "route:H", "school:sand-after:always", "school:coats:heavy"],
    ["H+coats:heavy"],
  );
  expect(cards.map((c) => c.n)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  expect(new Set(cards.map((c) => c.key)).size).toBe(8);
  expect(cards.filter((c) => c.out).map((c) => c.key)).toEqual(["H+coats:heavy"]);
  const of = (key: string) => cards.find((c) => c.key === key)!;
  expect(of("D1+sand-after:always").steps.join()).not.toBe(of("D1").steps.join());
  expect(of("H").steps.join()).toMatch(/Cut the mask/);
  expect(cards.every((c) => c.minutes !== null && c.minutes > 0)).toBe(true);
});
test("only matters that change this job are offered", () => {
  const here = mattersHere(world());
  expect(here).toEqual(expect.arrayContaining(["sand-after", "coats"]));
  expect(here).not.toContain("melt");
  expect(here).not.toContain("tile-mask");
});
test("no axis: the job's own way alone; never more cards than are looked at", () => {
  expect(trialCards(world(), [], []).map((c) => c.key)).toEqual(["D1"]);
  const many = ["coats:heavy", "before-laser:touch", "between:dry", "sand-after:always", "clean-off:wipe"].map(
    (p) => `school:${p}`,
  );
  expect(trialCards(world(), many, [])).toHaveLength(MOST_CARDS);
});

test("a card of another way is laid with the paints of that way, though the zones were filled for this one", () => {
  const w = world();
  const cards = trialCards(w, ["route:D3", "route:E1"], []);
  expect(cards.map((c) => c.steps.some((s) => /powder/i.test(s)))).toEqual([true, false]);
});
