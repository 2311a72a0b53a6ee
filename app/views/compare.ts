/** Two jobs side by side: their faces, and only what differs between them. */
import { substrateNamed } from "../core/catalogue/substrates";
import { FLAW_KINDS } from "../core/catalogue/flaws";
import { costOf, sumWords } from "../core/explain/cost";
import { inTurn } from "../core/plan/placed";
import { makePlan, type Plan } from "../core/plan/plan";
import { byBeam, kindOf, own } from "../core/process/kinds";
import { setting } from "../core/process/kinds/laser-work";
import { GROUND, shown, zoneOf } from "../core/piece/state";
import { hex } from "../core/models/film/colour";
import type { World } from "../core/records/world";
import { saidAll } from "../core/units/said";
import { plural, showLength, showMinutes } from "../core/units/show";
import { blankWords } from "../core/geometry/blank";

/** A line of what a job is: its name and what stands there. */
type Line = [name: string, says: string];

function linesOf(plan: Plan): Line[] {
  const c = plan.context;
  const { job, world } = c;
  const len = (mm: number): string => showLength(mm, world.shop.units);
  const coats = new Map<string, number>();
  for (const p of plan.placed)
    if (kindOf(p.step.kind).lays === "film") {
      const name = c.paint(own(p.step, "productId"))?.product.name ?? "none chosen";
      coats.set(name, (coats.get(name) ?? 0) + 1);
    }
  const minutes = inTurn(plan.placed).map((p) => p.minutes);
  const w = job.wrapUp;
  const air = world.log.filter((e) => e.c !== null);
  const mean = (of: (e: (typeof air)[number]) => number): number => air.reduce((a, e) => a + of(e), 0) / air.length;
  return [
    [
      "Material",
      [
        substrateNamed(job.substrate.id).name,
        `${len(job.substrate.w)} × ${len(job.substrate.h)} × ${len(job.substrate.t)}`,
        blankWords(job.substrate, len),
      ]
        .filter(Boolean)
        .join(", "),
    ],
    ["Way", c.route?.name ?? "not chosen"],
    ["Machine", c.machine?.name ?? "none"],
    ["Pieces", `${job.quantity} ordered, ${c.pieces} begun`],
    ["Coats", [...coats].map(([n, k]) => `${k} × ${n}`).join(", ") || "none"],
    ...plan.placed
      .filter((p) => byBeam(p.step) && own(p.step, "laser"))
      .map((p): Line => [
        `${kindOf(p.step.kind).name}`,
        `${setting({ laser: own(p.step, "laser") }, kindOf(p.step.kind).runs)}, ${own(p.step, "laser")!.from}`,
      ]),
    [
      "Work",
      minutes.some((m) => m === null) ? "not known" : showMinutes(minutes.reduce<number>((a, m) => a + (m ?? 0), 0)),
    ],
    ["Steps", plural(plan.placed.length, "step")],
    [
      "Air while it was made",
      air.length
        ? `${Math.round(mean((e) => e.c!) * 10) / 10} °C, ${Math.round(100 * mean((e) => e.rh ?? 0))} %`
        : "not logged",
    ],
    ["Cost", sumWords(costOf(plan), (world.elsewhere ?? world).shop)],
    [
      "Came of it",
      w.good === null
        ? "not said"
        : `${w.good} good, ${w.lost ?? 0} lost${w.score === null ? "" : `, ${w.score} of 5`}`,
    ],
    ["Flaws", w.flaws.map((f) => FLAW_KINDS.find((k) => k.id === f.flaw)?.name ?? f.flaw).join(", ") || "none noted"],
    ["Otherwise next time", w.note || "nothing said"],
  ];
}

function side(world: World) {
  const plan = makePlan(world, null);
  const c = plan.context;
  const last = plan.placed[plan.placed.length - 1]?.after ?? null;
  const colour = (id: string): string =>
    last ? hex(shown(last, zoneOf(last, id), c.substrate.colour, c.paintOf)) : c.substrate.colour;
  return {
    job: c.job,
    lines: linesOf(plan),
    grain: c.substrate.family === "wood",
    colours: Object.fromEntries([...c.job.zones.map((z) => [z.id, colour(z.id)]), ["ground", colour(GROUND)]]),
    pictured: c.picture ? c.job.zones.map((z) => z.id) : [],
  };
}

export const compareView = (a: World, b: World) => saidAll(compareViewIn(a, b), a.shop.units);
function compareViewIn(a: World, b: World) {
  const [x, y] = [side(a), side(b)];
  const names = [...new Set([...x.lines, ...y.lines].map(([n]) => n))];
  const of = (lines: Line[], name: string): string =>
    lines
      .filter(([n]) => n === name)
      .map(([, s]) => s)
      .join("; ") || "–";
  const rows = names.map((name) => ({ name, a: of(x.lines, name), b: of(y.lines, name) }));
  return { a: x, b: y, rows: rows.map((r) => ({ ...r, same: r.a === r.b })) };
}
