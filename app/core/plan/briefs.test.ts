/** 1,446 seeded briefs, six of each cell: everything that the support table says can be planned. */
import { snagsOf } from "../judge/judge";
import { brief, laterCells, LATER_FROM } from "../testing/briefs";
import { many } from "../testing/worlds";
import { BURNT } from "../catalogue/substrates";
import { difference, linear } from "../models/film/colour";
import { over } from "../models/film/hide";
import { shown, zoneOf, GROUND } from "../piece/state";
import { kindOf, own } from "../process/kinds";
import { makePlan, type Plan } from "./plan";

const N = many(1446);

/** What a zone should look like in the end. */
function off(p: Plan, zone: string): number {
  const c = p.context;
  const z = c.job.zones.find((x) => x.id === zone)!;
  const end = p.placed[p.placed.length - 1].after;
  const { skin, mark } = c.substrate;
  const wanted = !c.route!.takes.length
    ? (skin?.beneath ?? mark!.colour)
    : c.route!.shows === "mark"
      ? BURNT
      : c.paintOf(z.productId!).product.colour;
  return difference(
    shown(end, zoneOf(end, zone), c.substrate.colour, c.paintOf),
    c.route!.takes.length ? over(linear(wanted), [0, 0, 0], 1e9) : linear(wanted),
  );
}
const faults = (p: Plan): string[] => {
  const out: string[] = [];
  const id =
    `${p.context.job.id} ${p.context.route!.id} on ${p.context.substrate.id} by ${p.context.machine!.beam}, ` +
    `${p.context.job.zones.length} zones`;
  const say = (s: string): void => void out.push(`${id}: ${s}`);
  for (const m of p.missing) say(`lacks ${m.what}: ${m.say}`);
  for (const s of snagsOf(p).filter((x) => x.severity === "stop" || x.severity === "never"))
    say(`rule ${s.rule}: ${s.why}`);
  const told = [
    ...new Set(
      snagsOf(p)
        .filter((x) => x.severity === "hazard")
        .map((x) => x.rule),
    ),
  ].sort((a, b) => a - b);
  if (told.join() !== hazards(p).join()) say(`hazards ${told.join()}, wanted ${hazards(p).join()}`);
  for (const x of p.placed) if (x.refused) say(`${x.step.id} refused: ${x.refused}`);
  if (p.ready === null) say(`not ready: ${p.stuck}`);
  for (const z of p.context.filled)
    if (!p.missing.length && off(p, z.id) > p.context.tolerance + 0.01)
      say(`${z.id} is ${off(p, z.id).toFixed(1)} off`);
  for (const a of p.amounts)
    if (a.ml !== null && a.laidMl !== null && a.lostMl !== null && Math.abs(a.laidMl + a.lostMl - a.ml) > 0.001 * a.ml)
      say(`${a.product} does not balance`);
  const end = p.placed[p.placed.length - 1]?.after;
  if (end?.zones.some((z) => z.mask)) say("a mask is still on");
  if (end?.zones.some((z) => z.films.some((f) => f.phase === "loose" || f.torn || f.wrinkled)))
    say("loose, torn or wrinkled");
  return out;
};

/** Hazards that route and material call for, told by hand and not by the rules' own conditions. */
function hazards(p: Plan): number[] {
  const r = p.context.route!.id;
  const f = p.context.substrate.family;
  const soft = ["wood", "mdf", "canvas"].includes(f);
  const many = new Set(p.context.filled.map((z) => z.productId)).size > 1;
  const metal = f === "metal" || f === "coated-metal";
  const out: [number, boolean][] = [
    [71, true],
    [
      72,
      ["B", "C1", "C2", "C3", "D2", "D5", "J"].includes(r) ||
        (["A1", "A2", "A3", "A4", "D1", "D3", "D4", "H", "N"].includes(r) && !soft),
    ],
    [74, r === "D4"],
    [75, f === "glass"],
    [76, metal],
    [80, r === "D5" || (r === "N" && f === "coated-metal") || (r === "G" && many)],
    [85, f === "metal" || f === "glass"],
    [86, !(["D3", "D4", "G"].includes(r) && soft)],
    [87, ["D1", "D2", "D3", "D4", "D5", "E1", "E2", "F", "G", "H", "I"].includes(r) || (r === "A3" && many) || soft],
    [88, r === "J"],
    [89, f === "acrylic"],
  ];
  return out.filter(([, is]) => is).map(([n]) => n);
}

test(`${N} briefs: no stop, the hazards of their materials and no others, nothing refused, every zone its colour, amounts balance`, () => {
  const all: string[] = [];
  for (let n = 0; n < N; n++) all.push(...faults(makePlan(brief(n))));
  for (let n = 0; n < laterCells(); n++) all.push(...faults(makePlan(brief(LATER_FROM + n))));
  expect(all.slice(0, 40)).toEqual([]);
});

test("adding a zone takes no other zone's step away", () => {
  for (let n = 0; n < N; n += 7) {
    const w = brief(n);
    if (w.job.zones.length < 2) continue;
    const [less, more] = [makePlan({ ...w, job: { ...w.job, zones: w.job.zones.slice(0, -1) } }), makePlan(w)];
    const has = (p: Plan, zone: string): string[] =>
      p.placed
        .filter((x) => x.step.zones.includes(zone) && zone !== GROUND)
        .map((x) => `${x.step.kind}.${own(x.step, "productId")}.${own(x.step, "role")}`);
    for (const z of less.context.filled) {
      const after = has(more, z.id);
      for (const s of new Set(has(less, z.id)))
        expect([w.job.id, s, after]).toEqual([w.job.id, s, expect.arrayContaining([s])]);
    }
  }
});

test("the briefs meet every kind of step that routes make, and each says its words", () => {
  const met = new Set<string>();
  for (let n = 0; n < 400; n++) {
    const plan = makePlan(brief(n), null, true);
    for (const p of plan.placed) {
      if (met.has(p.step.kind)) continue;
      met.add(p.step.kind);
      const k = kindOf(p.step.kind);
      expect([
        k.id,
        k.purpose(p.step, plan.context).length > 10,
        k.tool(p.step, plan.context).length > 2,
        k.cues(p.step, plan.context).every((x) => x.length > 3),
      ]).toEqual([k.id, true, true, true]);
    }
  }
  for (const kind of [
    "mask-lay",
    "score-mask",
    "mask-lift",
    "cover",
    "open-skin",
    "burn-in",
    "strip-rest",
    "rub-dye",
    "wipe-back",
    "powder-fill",
    "melt",
    "pour-paint",
    "place-round",
    "cut-out",
    "peel-film",
    "reveal",
    "engrave",
    "coat",
  ])
    expect([...met]).toContain(kind);
});
