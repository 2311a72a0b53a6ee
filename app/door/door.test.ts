import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { EXERCISES } from "../core/practice";
import { start, type Answer } from "../core/practice/exercise";
import { knock } from "../../scripts/door.mjs";

const root = fileURLToPath(new URL("../../", import.meta.url));
const door = (input: string, ...args: string[]) => {
  const r = knock(input, args);
  return { code: r.status, out: r.stdout.toString(), err: r.stderr.toString().trim() };
};
/** The command that the contract names, sources and all. */
const command = (input: string, ...args: string[]) =>
  spawnSync("node", ["--import", "tsx", "app/door/main.ts", ...args], { cwd: root, input, encoding: "utf8" });
const BRIEF = {
  brief: 1,
  route: "E1",
  quantity: 24,
  substrate: { id: "hard-maple", w: 120, h: 60, t: 8 },
  beam: { id: "co2", watts: 40 },
  use: ["outdoors"],
  zones: [
    {
      id: "word",
      areaMm2: 600,
      perimeterMm: 300,
      narrowestMm: 1.5,
      finish: "craft-acrylic",
      colour: "#a8235a",
    },
  ],
  now: "2027-01-11T08:00",
  due: null,
  zone: "Europe/Lisbon",
  climate: { c: 20, rh: 0.5 },
};
let job = "";
beforeAll(() => {
  const r = door(JSON.stringify(BRIEF), "brief");
  expect([r.code, r.err]).toEqual([0, ""]);
  job = r.out;
  // in one file it answers as the command itself does
  const said = command(job, "plan");
  expect([said.status, said.stdout]).toEqual([0, door(job, "plan").out]);
});

describe("the door", () => {
  test("zones", () => {
    const r = door(
      '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><rect width="10" ' +
        'height="10" fill="teal"/></svg>',
      "zones",
    );
    expect(r.code).toBe(0);
    expect(JSON.parse(r.out)).toEqual({
      widthMm: 40,
      heightMm: 40,
      zones: [
        {
          id: "z-008080",
          colour: "#008080",
          areaMm2: expect.closeTo(100, 6),
          perimeterMm: expect.closeTo(40, 6),
          narrowestMm: expect.closeTo(10, 1),
          pieces: 1,
          holes: 0,
        },
      ],
    });
  });
  test("plan, check and simulate speak of one plan", () => {
    const plan = JSON.parse(door(job, "plan").out);
    expect(Object.keys(plan)).toEqual(
      expect.arrayContaining(["door", "start", "ready", "steps", "amounts", "snags", "decides"]),
    );
    expect(plan.start).toBe("2027-01-11T09:00");
    const coat = plan.steps.find((s: { id: string }) => s.id.startsWith("coat.colour"));
    expect(coat).toMatchObject({
      kind: "coat",
      finish: "craft-acrylic",
      coat: 1,
      dryUm: 18,
      wetUm: 60,
      g: null,
      depthMm: null,
      attended: false,
    });
    expect(coat.wait).toMatchObject({ for: expect.any(String), min: expect.any(Number) });
    expect(JSON.parse(door(job, "check").out).snags).toEqual(plan.snags);
    const sim = JSON.parse(door(job, "simulate", "--step", "sand-back").out);
    expect(sim.step).toBe("sand-back");
    expect(sim.zones[0]).toMatchObject({
      zone: "word",
      depthUm: expect.closeTo(400, -1),
      front: expect.stringMatching(/^#/),
      back: expect.stringMatching(/^#/),
    });
    expect(sim.zones[0].layers[0]).toMatchObject({
      kind: "char",
      topUm: expect.closeTo(400, -1),
      bottomUm: expect.closeTo(440, -1),
      finish: null,
      coat: null,
    });
  });
  test("frozen jobs plan to the same bytes twice", () => {
    const file = readFileSync(`${root}fixtures/v1/blue-tiles.richlayer.json`, "utf8");
    expect(door(file, "plan").out).toBe(door(file, "plan").out);
  });
  test.each([
    ["nonsense", "{}", /is not one of/],
    ["plan", "", /Nothing came in/],
    ["plan", "{", /JSON/],
    ["brief", "nope", /not sound JSON/],
    ["brief", '{"brief":1}', /substrate/],
    ["zones", "<svg><text/></svg>", /./],
  ])("%s with bad input: exit 2, one sentence, no stack", (verb, input, says) => {
    const r = door(input, verb);
    expect(r.code).toBe(2);
    expect(r.out).toBe("");
    expect(r.err).toMatch(says);
    expect(r.err.split("\n")).toHaveLength(1);
    expect(r.err).not.toMatch(/\bat .*\.ts/);
  });
  test("a test plate designed, and read: cells with their energies, a packet, the window and what to go by", () => {
    const spec = {
      watts: 40,
      powers: [0.2, 0.8],
      rows: 3,
      speeds: [100, 400],
      cols: 4,
      interval: 0.1,
      scrapW: 80,
      scrapH: 60,
      first: 0.6,
    };
    const made = JSON.parse(door(JSON.stringify(spec), "plate").out) as {
      cells: { row: number; col: number; e: number }[];
      guards: { stops: boolean }[];
      packet: Record<string, string>;
    };
    expect(made.cells).toHaveLength(12);
    // 20 % of 40 W at 100 mm/s in lines 0.1 mm apart
    expect(made.cells[0]).toMatchObject({ row: 0, col: 0, e: expect.closeTo(8 / 100 / 0.1, 9) });
    expect(made.guards.filter((g) => g.stops)).toEqual([]);
    expect(made.packet["plate.svg"]).toContain("<svg");
    expect(made.packet["key.csv"].trim().split("\n")).toHaveLength(13);
    const cells = made.cells.map(({ row, col, e }) => ({
      row,
      col,
      top: e < 0.4 ? "whole" : e < 0.6 ? "partly" : "gone",
      under: e < 1.2 ? "whole" : e < 1.5 ? "partly" : "gone",
    }));
    const read = JSON.parse(door(JSON.stringify({ ...spec, cells }), "read").out) as {
      window: { best: number };
      advice: { e: number; power: number; speed: number };
    };
    expect(read.window.best).toBeGreaterThan(0.6);
    expect(read.window.best).toBeLessThan(1.2);
    expect((read.advice.power * 40) / (read.advice.speed * 0.1)).toBeCloseTo(read.advice.e, 2);
    expect(door(JSON.stringify({ ...spec, cells: [{ row: 9, col: 0 }] }), "read")).toMatchObject({
      code: 2,
      err: expect.stringMatching(/no cell in row 9/),
    });
    const wide = door(JSON.stringify({ ...spec, scrapW: 30, scrapH: 20 }), "plate").out;
    expect(JSON.parse(wide)).toMatchObject({ guards: [{ stops: true, say: expect.stringMatching(/the scrap has/) }] });
  });
  test("a step that is not there names those that are", () => {
    const r = door(job, "simulate", "--step", "polish");
    expect([r.code, r.err]).toEqual([2, expect.stringMatching(/polish.*inspect-blank/)]);
  });
  test("no feasible answer: exit 3 and why", () => {
    const cold = door(JSON.stringify({ ...BRIEF, climate: { c: 6, rh: 0.5 } }), "brief").out;
    const r = door(cold, "plan");
    expect([r.code, r.out, r.err]).toEqual([3, "", expect.stringMatching(/never in this climate/)]);
    expect(door(JSON.stringify({ ...BRIEF, route: "A1" }), "brief").code).toBe(3);
  });
});

test("zones with their outlines, where they are asked for", () => {
  const head = '<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10">';
  const svg = `${head}<rect x="2" y="2" width="5" height="4" fill="#aa2233"/></svg>`;
  const told = (...more: string[]) =>
    JSON.parse(door(svg, "zones", ...more).out) as { zones: Record<string, unknown>[] };
  expect(told().zones[0]).not.toHaveProperty("outline");
  expect(told("--outlines").zones[0].outline).toMatch(/^M[\d. L]+Z$/);
});
test("an exercise through the door comes to what the page makes of it; nonsense is refused by its name", () => {
  for (const e of EXERCISES) {
    const ask = { exercise: e.id, seed: 7, level: 1 };
    const { answer } = JSON.parse(door(JSON.stringify(ask), "practice").out) as { answer: Answer };
    expect(answer).toEqual(start(e.task(7, 1, null)));
    const { picture: _, ...want } = e.judge(7, 1, answer, null);
    expect(JSON.parse(door(JSON.stringify({ ...ask, answer }), "practice").out)).toEqual(
      JSON.parse(JSON.stringify(want)),
    );
  }
  for (const [ask, why] of [
    [{ exercise: "juggle", seed: 1, level: 1 }, "There is no exercise “juggle”"],
    [{ exercise: "spray", seed: 0, level: 1 }, "“seed” is a whole number from 1"],
    [{ exercise: "spray", seed: 1, level: 9 }, "“level” is a whole number from 1 to 3"],
    [{ exercise: "spray", seed: 1, level: 1, answer: { speed: 3 } }, "“answer” lacks distance, overlap"],
    [{ exercise: "spray", seed: 1, level: 1, answer: 4 }, "“answer” is an object"],
  ] as const) {
    const r = door(JSON.stringify(ask), "practice");
    expect([r.code, r.err]).toEqual([2, expect.stringContaining(why)]);
  }
});
