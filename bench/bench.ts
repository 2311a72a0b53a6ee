/**
 * Speed and size, printed: absolute times are noisy, growth with steps and zones is what to look at. `-- --json` for
 * machines, `-- --core` without the browser.
 */
import { withArtwork } from "../app/core/geometry/artwork";
import { packets } from "../app/core/explain/packet";
import { packetFiles } from "../app/io/export/packet";
import { firstView } from "./first-view";
import { own } from "../app/core/process/kinds";
import "reflect-metadata";
import { a1, e1, seeded, zone, SHELF, stocked, swing } from "../app/core/testing/worlds";
import { scheduleRows } from "./schedule";
import { calendarInBrowser } from "./calendar";
import { pictureInBrowser } from "./in-browser";
import { sprayingInBrowser } from "./spraying";
import { pictureRows } from "./pictures";
import { shopRows } from "./shop";
import { snagsOf } from "../app/core/judge/judge";
import { makePlan } from "../app/core/plan/plan";
import { simulate } from "../app/core/explain/report";
import { movesOf } from "../app/core/explain/why/moves";
import { loadClip } from "../app/door/kernel";
import { readZones } from "../app/core/vector/zones";
import type { World } from "../app/core/records/world";

interface Row {
  name: string;
  n: number;
  value: number;
  unit: string;
}
const rows: Row[] = [];
const median = (xs: number[]): number => xs.sort((a, b) => a - b)[Math.floor(xs.length / 2)];
function time(body: () => void, runs = 25): number {
  for (let i = 0; i < 5; i++) body();
  return median(
    Array.from({ length: runs }, () => {
      const t = performance.now();
      body();
      return performance.now() - t;
    }),
  );
}

const COLOURS = ["#a8235a", "#f3b61f", "#5d9a3c", "#2b6fa6", "#d8432f", "#efe3c4"];
/** A job of so many zones, each with its own paint, and about so many steps, in a shop with cold nights. */
function world(zones: number, steps: number): World {
  const paints = COLOURS.slice(0, zones).map((c, i) => stocked(`p${i}`, `Paint ${i}`, "craft-acrylic", c));
  const w = e1({
    products: [...SHELF(), ...paints],
    shop: { climate: swing(9, 19, 0.6) },
    job: { quantity: 24, zones: paints.map((p, i) => zone(`z${i}`, p.id)) },
  });
  const have = makePlan(w).placed.length;
  const coat = makePlan(w).placed.find((p) => own(p.step, "role") === "colour")!.step.id;
  const edits = Array.from({ length: Math.max(0, steps - have) }, (_, i) => ({
    id: `e${i}`,
    op: "duplicate" as const,
    step: coat,
    after: coat,
    field: `more${i}`,
    value: null,
  }));
  return { ...w, job: { ...w.job, edits } };
}

for (const [zones, steps] of [
  [1, 20],
  [2, 20],
  [6, 40],
  [6, 80],
  [6, 160],
] as const) {
  const w = world(zones, steps);
  const n = makePlan(w).placed.length;
  rows.push({
    name: `plan + simulate + quantities + drying + rules, ${zones} zones`,
    n,
    value: time(() => {
      const p = makePlan(w);
      simulate(p, p.placed[p.placed.length - 1]);
      snagsOf(p);
    }),
    unit: "ms",
  });
}
for (const [zones, steps] of [
  [2, 20],
  [6, 40],
  [6, 80],
] as const) {
  const plan = makePlan(world(zones, steps), null, true);
  const tried = movesOf(plan, { of: "ready" })!.tried;
  rows.push({
    name: `what moves the ready time, ${tried} inputs turned both ways`,
    n: plan.placed.length,
    value: time(() => void movesOf(plan, { of: "ready" }), 3),
    unit: "ms",
  });
}
const clip = await loadClip();
for (const n of [10, 100, 400]) {
  const circle = (i: number): string =>
    `<circle cx="${(i * 37) % 200}" cy="${(i * 61) % 200}" r="9" fill="${COLOURS[i % 6]}"/>`;
  const head = '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">';
  const svg = `${head}${Array.from({ length: n }, (_, i) => circle(i)).join("")}</svg>`;
  rows.push({
    name: "zones of a drawing, overlapping circles",
    n,
    value: time(() => void readZones(clip, svg), 3),
    unit: "ms",
  });
}
/** Rectangles, circles, three-cornered patches and strokes of six colours, anyhow over one another. */
function mixed(n: number): string {
  const r = seeded(7);
  return Array.from({ length: n }, (_, i) => {
    const [x, y, paint] = [r() * 190, r() * 190, `fill="${COLOURS[Math.floor(r() * 6)]}"`];
    if (i % 4 === 0) return `<rect x="${x}" y="${y}" width="${1 + r() * 8}" height="${1 + r() * 8}" ${paint}/>`;
    if (i % 4 === 1) return `<circle cx="${x}" cy="${y}" r="${0.5 + r() * 4}" ${paint}/>`;
    if (i % 4 === 2) return `<path d="M${x} ${y}l${r() * 8} ${r() * 4}l${-r() * 6} ${r() * 8}z" ${paint}/>`;
    const d = `M${x} ${y}q${r() * 9} ${r() * 9} ${r() * 3} ${r() * 12}`;
    return `<path d="${d}" fill="none" stroke="#2b6fa6" stroke-width="${0.3 + r()}"/>`;
  }).join("");
}
/** One wavy outline of so many corners. */
const wavy = (n: number): string => {
  const at = (i: number): string => {
    const a = (i / n) * 2 * Math.PI;
    const d = 80 + 8 * Math.sin(a * 17) + 0.3 * Math.sin(a * 900);
    return `${(100 + d * Math.cos(a)).toFixed(3)} ${(100 + d * Math.sin(a)).toFixed(3)}`;
  };
  return `<path fill="#123456" d="M${Array.from({ length: n }, (_, i) => at(i)).join("L")}Z"/>`;
};
for (const [name, n, body] of [
  ["zones of a drawing, mixed shapes", 500, mixed(500)],
  ["zones of a drawing, mixed shapes", 2000, mixed(2000)],
  ["zones of a drawing, corners of one outline", 20_000, wavy(20_000)],
  ["zones of a drawing, corners of one outline", 200_000, wavy(200_000)],
] as const) {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">${body}</svg>`;
  rows.push({ name, n, value: time(() => void readZones(clip, svg, null, undefined, Infinity), 1), unit: "ms" });
}
{
  // what goes to the laser of the largest of these drawings, laid out and written, 12 pieces on the bed
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200">${mixed(2000)}</svg>`;
  const found = readZones(clip, svg, { widthMm: 100 }, undefined, Infinity);
  const w = a1({ choices: { proof: false, begin: 12 }, job: { quantity: 12 } });
  const zones = withArtwork(w.job, "many", svg, found).zones.map((z) => ({ ...z, productId: "marigold" }));
  const artwork = { name: "many", svg: "", w: found.widthMm, h: found.heightMm };
  const plan = makePlan({ ...w, job: { ...w.job, zones, artwork } }, null, true);
  const began = performance.now();
  for (const v of packets(plan, clip)) await packetFiles(plan, v, clip);
  rows.push({ name: "packets of a drawing, mixed shapes", n: 2000, value: performance.now() - began, unit: "ms" });
}
rows.push(...firstView());
rows.push(...scheduleRows());
rows.push(...pictureRows());
rows.push(...(await pictureInBrowser()));
rows.push(...(await calendarInBrowser([20, 200])));
rows.push(...(await sprayingInBrowser()));
rows.push(...shopRows());
if (!process.argv.includes("--core")) {
  const { scale } = await import("./scale");
  rows.push(
    ...(await scale([
      [100, 10_000],
      [1000, 100_000],
    ])),
  );
}
if (process.argv.includes("--json")) console.log(JSON.stringify(rows));
else
  for (const r of rows)
    console.log(
      `${r.name.padEnd(66)} n=${String(r.n).padStart(4)}  ${r.value.toFixed(r.unit === "bytes" ? 0 : 1)} ${r.unit}`,
    );
