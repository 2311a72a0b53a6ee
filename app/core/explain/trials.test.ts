import { FULL_SHELF, GEAR } from "../testing/briefs";
import { a1, zone } from "../testing/worlds";
import { cardsOf, mattersHere, MOST_CARDS, trialCards } from "./trials";

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
  const many = [
    "coats:heavy",
    "before-laser:touch",
    "between:dry",
    "sand-after:always",
    "clean-off:wipe",
    "edge:both",
  ].map((p) => `school:${p}`);
  expect(trialCards(world(), many, [])).toHaveLength(MOST_CARDS);
});

test("a card of another way is laid with the paints of that way, though the zones were filled for this one", () => {
  const w = world();
  const cards = trialCards(w, ["route:D3", "route:E1"], []);
  expect(cards.map((c) => c.steps.some((s) => /powder/i.test(s)))).toEqual([true, false]);
});
test("beams are an axis too; picks of one matter stand beside one another, never in one card", () => {
  const w = world();
  const second = { ...w.machines[0], id: "second", name: "Second" };
  const cards = trialCards(
    { ...w, machines: [...w.machines, second] },
    ["machine:second", `machine:${w.machines[0].id}`],
    [],
  );
  expect(cards.map((c) => c.name.split("; ").pop())).toEqual(["with Second", `with ${w.machines[0].name}`]);
  const cleaned = trialCards(w, ["school:coats:heavy", "school:coats:thin"], []);
  expect(cleaned.map((c) => c.picks)).toEqual([[], ["coats:heavy"], ["coats:thin"]]);
  expect(cardsOf(w, ["school:coats:heavy", "school:coats:thin", "route:D1", "route:H"])).toBe(6);
});
test("a card that can only be lost is crossed out beforehand, with the reason", () => {
  const cards = trialCards({ ...world(), products: [], machines: [] }, ["route:D1"], []);
  expect(cards[0].lost).toMatch(/\w/);
  expect(trialCards(world(), ["route:D1"], [])[0].lost).toBeNull();
});
test("29 cards are voted down round by round to four winners: those out stay out, the rest keep their number", () => {
  const w = world();
  const axes = [
    "route:D1",
    "route:E1",
    "route:H",
    ...["sand-after:always", "coats:heavy", "edge:both", "clean-off:wipe"].map((p) => `school:${p}`),
  ];
  const all = trialCards(w, axes, []).slice(0, 29);
  expect(all).toHaveLength(29);
  // each looker-on prefers less work; a card goes when more would drop than keep it
  let out: string[] = [];
  let round = 0;
  while (all.length - out.length > 4) {
    const left = all.filter((c) => !out.includes(c.key));
    const votes = left.map((c) => {
      const longer = left.filter((x) => x.minutes! < c.minutes! || (x.minutes === c.minutes && x.n < c.n)).length;
      return { key: c.key, keep: left.length - longer, drop: longer };
    });
    const job = { ...w.job, choices: { ...w.job.choices, trialVotes: votes } };
    const shown = trialCards({ ...w, job }, axes, out).slice(0, 29);
    const losers = shown
      .filter((c) => !c.out && c.votes.drop > c.votes.keep)
      .sort((a, b) => b.votes.drop - a.votes.drop)
      .slice(0, all.length - out.length - 4);
    expect(losers.length).toBeGreaterThan(0);
    out = [...out, ...losers.map((c) => c.key)];
    if (++round > 20) throw new Error("it does not end");
  }
  const winners = trialCards(w, axes, out)
    .slice(0, 29)
    .filter((c) => !c.out);
  expect(winners).toHaveLength(4);
  expect(winners.map((c) => [c.n, c.name])).toEqual(all.filter((c) => !out.includes(c.key)).map((c) => [c.n, c.name]));
});
