/** Which way is advised: briefs judged beforehand, the reason that decided, and what one other answer changes. */
import { defaultMachine } from "../catalogue/starter";
import { substrateNamed } from "../catalogue/substrates";
import { context } from "../process/context";
import type { Beam, RouteId, Use } from "../records/ids";
import type { World } from "../records/world";
import { GEAR } from "../testing/briefs";
import { e1 } from "../testing/worlds";
import { ROUTE_RULES } from "../catalogue/route-rules";
import { chooseRoutes } from "./choose";

const RULE_IDS = ROUTE_RULES.map((r) => r.id);

interface Asks {
  on: string;
  beam: Beam;
  pieces?: number;
  colours?: string[];
  use?: Use[];
  oven?: boolean;
  narrowestMm?: number;
}
const [RED, GREEN, SUN, BLACK] = ["#a8235a", "#2f6f3a", "#f2c230", "#141416"];
const SEVERAL = [RED, GREEN, SUN];

/** An empty Shelf: what is advised does not hang on what stands there. */
function world({ on, beam, pieces = 1, colours = [RED], use = [], oven = false, narrowestMm = 2 }: Asks): World {
  const base = e1();
  const m = defaultMachine(beam, 20, "m");
  const { choices } = base.job;
  return {
    ...base,
    machines: [m],
    products: [],
    shop: { ...base.shop, gear: oven ? GEAR() : [] },
    job: {
      ...base.job,
      route: null,
      quantity: pieces,
      use,
      machineId: m.id,
      choices: { ...choices, begin: undefined },
      substrate: {
        id: on,
        w: 100,
        h: 80,
        t: 6,
        ...(substrateNamed(on).family === "glass" ? { shape: "ball" as const, diameter: 80 } : {}),
      },
      zones: colours.map((wanted, i) => ({
        ...base.job.zones[0],
        id: `z${i}`,
        name: `z${i}`,
        wanted,
        productId: null,
        narrowestMm,
      })),
    },
  };
}
const best = (w: World) => chooseRoutes(context(w))[0];

const WOODS = ["hard-maple", "cherry", "walnut", "birch-ply", "pine", "oak"];
const JUDGED: [RouteId, Asks][] = [
  ...WOODS.flatMap((on): [RouteId, Asks][] => [
    ["E1", { on, beam: "co2" }],
    ["E1", { on, beam: "blue", pieces: 3, colours: SEVERAL }],
    ["E2", { on, beam: "blue", pieces: 24 }],
    ["D4", { on, beam: "co2", pieces: 24, oven: true, colours: SEVERAL }],
    ["D3", { on, beam: "co2", pieces: 24 }],
  ]),
  ...["mdf", "slate", "canvas", "tile-glazed"].flatMap((on): [RouteId, Asks][] => [
    ["A1", { on, beam: "co2" }],
    ["A1", { on, beam: "blue", pieces: 12 }],
    ["A3", { on, beam: "co2", colours: SEVERAL }],
  ]),
  ...(["wet", "outdoors"] as const).flatMap((use): [RouteId, Asks][] => [
    ["B", { on: "tile-glazed", beam: "co2", use: [use], colours: [BLACK] }],
    ["B", { on: "tile-glazed", beam: "blue", use: [use], colours: [BLACK] }],
    ["C1", { on: "tile-glazed", beam: "uv", use: [use] }],
    ["C2", { on: "tile-glazed", beam: "co2", use: [use], colours: SEVERAL }],
  ]),
  ...["aluminium-bare", "steel-bare"].flatMap((on): [RouteId, Asks][] => [
    ["D2", { on, beam: "um1" }],
    ["D2", { on, beam: "um1", colours: SEVERAL, use: ["handled"] }],
    ["A1", { on, beam: "co2" }],
  ]),
  ["D5", { on: "metal-coated", beam: "um1", pieces: 40 }],
  ["D5", { on: "metal-coated", beam: "uv", colours: SEVERAL }],
  ["I", { on: "acrylic-clear", beam: "co2", colours: SEVERAL }],
  ["I", { on: "acrylic-clear", beam: "blue" }],
  ["D1", { on: "acrylic-opaque", beam: "co2" }],
  ["J", { on: "glass-coated", beam: "um1" }],
];

test("briefs judged beforehand come out first, each with a reason that speaks for it", () => {
  expect(JUDGED.length).toBeGreaterThanOrEqual(60);
  for (const [id, asks] of JUDGED) {
    const top = best(world(asks));
    expect([asks, top.route.id, top.no, top.reasons[0]?.slice(0, 4)]).toEqual([asks, id, [], "For:"]);
  }
});

test("the reason that is shown is the one that decided: without its question another way comes out, or none is preferred", () => {
  for (const [id, asks] of JUDGED) {
    const w = world(asks);
    const [first, second] = chooseRoutes(context(w));
    const said = first.reasons[0];
    // what says it, switched off: the lead it had over the next is gone, or smaller
    const silent = (off: string[]) => chooseRoutes(context({ ...w, shop: { ...w.shop, routeRulesOff: off } }));
    const rule = RULE_IDS.find(
      (r) =>
        !silent([r])
          .find((x) => x.route.id === id)!
          .reasons.includes(said),
    );
    expect([id, said, rule === undefined]).toEqual([id, said, false]);
    const after = silent([rule!]);
    const lead = first.points - second.points;
    const of = (x: string): number => after.find((y) => y.route.id === x)!.points;
    expect([id, of(id) - of(second.route.id) < lead || after[0].route.id !== id]).toEqual([id, true]);
  }
});

test.each<[string, Asks, Partial<Asks>, RouteId]>([
  ["a run in place of one", { on: "hard-maple", beam: "blue" }, { pieces: 24 }, "E2"],
  ["another beam", { on: "hard-maple", beam: "blue", pieces: 24 }, { beam: "co2" }, "D3"],
  ["an oven that it fits", { on: "cherry", beam: "co2", pieces: 24 }, { oven: true }, "D4"],
  ["several colours", { on: "slate", beam: "co2" }, { colours: SEVERAL }, "A3"],
  ["it gets wet", { on: "tile-glazed", beam: "co2" }, { use: ["wet"] }, "C1"],
  ["dark all over", { on: "tile-glazed", beam: "co2", use: ["wet"] }, { colours: [BLACK] }, "B"],
  ["bare metal and 1 µm", { on: "steel-bare", beam: "co2" }, { beam: "um1" }, "D2"],
  ["one looks through it", { on: "acrylic-opaque", beam: "co2" }, { on: "acrylic-clear" }, "I"],
])("one other answer: %s", (_say, asks, flip, id) => {
  expect(best(world(asks)).route.id).not.toBe(id);
  expect(best(world({ ...asks, ...flip })).route.id).toBe(id);
});

test("a route of one tone takes one colour, however many paints would do", () => {
  const w = world({ on: "tile-glazed", beam: "co2", use: ["wet"], colours: SEVERAL });
  const burnt = chooseRoutes(context(w)).find((x) => x.route.id === "B")!;
  expect(burnt.no.map((n) => n.of)).toEqual(["colours"]);
});
