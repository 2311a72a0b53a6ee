/**
 * Odd records that the reader takes: sound field by field, and nothing that a maker would write. Whatever is planned, judged and shown of
 * them holds no `undefined`, no `NaN`, no `[object`. `npm run fuzz` tries a thousand and more.
 */
import { workCard } from "../core/explain/card";
import { planReport, snagReport } from "../core/explain/report";
import { keptWith } from "../core/plan/begun";
import { makePlan, type Plan } from "../core/plan/plan";
import { LogEntry } from "../core/records/log";
import type { PlanEdit } from "../core/records/job";
import { brief } from "../core/testing/briefs";
import { many, seeded } from "../core/testing/worlds";
import { shopFile, writeFile } from "../io/export/job-file";
import { readJobFile, worldOf } from "../io/import/job-file";
import { NASTY } from "../testing/random-shop";
import { artworkView } from "./artwork";
import { benchView } from "./bench";
import { railBlocks, snagRows, stepCard, stepRows } from "./layers";
import { routeView } from "./route";
import { todayRows } from "./today";
import { wrapUpView } from "./wrap-up";

const FUZZ = Number(process.env.FUZZ ?? 0);
const CASES = FUZZ ? 200 * FUZZ : many(60);
/** seeds whose records once led to nonsense on a screen */
const KEPT = [240, 1611];

type Rnd = () => number;
type Place = { holder: Record<string, unknown>; key: string; path: string };
const pick = <T>(r: Rnd, list: readonly T[]): T => list[Math.floor(r() * list.length)];
function places(v: unknown, path = "", out: Place[] = []): Place[] {
  if (v && typeof v === "object")
    for (const [key, x] of Object.entries(v)) {
      out.push({ holder: v as Record<string, unknown>, key, path: `${path}.${key}` });
      places(x, `${path}.${key}`, out);
    }
  return out;
}

const NUMBERS = [0, 1, -1, 1e-9, 0.001, 3.7, 99, 1e5, 1e9, 1e300, 366, -40, 0.5];
const TEXTS = [
  ...["", " ", "x", "2027-02-28T23:59", "2199-12-31T23:59", "1990-01-01T00:00", "2028-02-29T02:30", "ground"],
  ...["constructor", "toString", "y".repeat(300), "M0 0L5 5", "M0 0Z", ...NASTY.filter((x) => !x.includes("\u0000"))],
];
/** Something else of the same kind, or nothing. */
function odd(r: Rnd, old: unknown): unknown {
  const k = r();
  if (k < 0.15) return null;
  if (typeof old === "number") return k < 0.7 ? pick(r, NUMBERS) : old * pick(r, [0, 1e3, 1e-3, -1, 1e6]);
  if (typeof old === "string") return pick(r, TEXTS);
  if (typeof old === "boolean") return !old;
  if (Array.isArray(old)) return k < 0.5 ? [] : [...(old as unknown[]), ...(old as unknown[])];
  return undefined;
}

/** A sound file of one job, perhaps begun, perhaps with steps changed by hand. */
function sound(r: Rnd): string {
  const w = brief(Math.floor(r() * 4000));
  const plan = makePlan(w, null, true);
  const used = new Set(w.job.zones.map((z) => z.productId));
  const entry = (id: string, kind: "start" | "done", step: string, at: number): LogEntry =>
    Object.assign(new LogEntry(), { id, jobId: w.job.id, kind, step, at });
  const done = r() < 0.5 ? [] : plan.placed.slice(0, 1 + Math.floor(r() * 6)).filter((p) => p.start !== null);
  const log = done.flatMap((p, i) => [
    entry(`a${i}`, "start", p.step.id, p.start as number),
    entry(`b${i}`, "done", p.step.id, p.end as number),
  ]);
  const edit = (_: unknown, i: number): PlanEdit => {
    const step = pick(r, plan.placed).step.id;
    return {
      id: `e${i}`,
      op: pick(r, ["set", "remove", "move", "duplicate", "add"] as const),
      step,
      after: pick(r, [null, step]),
      field: pick(r, ["minutes", "waitMin", "title", "dryUm", "coat", "dust", ""]),
      value: pick<PlanEdit["value"]>(r, [1, "x", null, true, 1e9]),
    };
  };
  const edits = r() < 0.5 ? [] : Array.from({ length: 2 }, edit);
  const begun = log.length ? { begun: keptWith(plan, log[0].step, log[0].at) } : {};
  const products = w.products.filter((p) => used.has(p.id) || r() < 0.4);
  const jobs = [{ ...w.job, edits, ...begun }];
  return writeFile(shopFile({ shop: w.shop, machines: w.machines, products, jobs, log, photos: [] }));
}
/** The file with a few places changed, each so that it is still taken, and what was changed; null: none was. */
function changed(r: Rnd): { text: string; what: string } | null {
  const raw = JSON.parse(sound(r)) as object;
  const what: string[] = [];
  for (let k = 1 + Math.floor(r() * 6); k > 0; k--) {
    const all = places(raw);
    const at = pick(r, r() < 0.5 ? all.filter((x) => x.path.startsWith(".jobs.0")) : all);
    const was = at.holder[at.key];
    const next = r() < 0.06 ? undefined : odd(r, was);
    if (next === undefined) delete at.holder[at.key];
    else at.holder[at.key] = next;
    if (readJobFile(JSON.stringify(raw)).ok) what.push(`${at.path} ${JSON.stringify(next)?.slice(0, 40)}`);
    else at.holder[at.key] = was;
  }
  return what.length ? { text: JSON.stringify(raw), what: what.join("; ") } : null;
}

const NONSENSE = /undefined|NaN|Infinity|\[object|Invalid Date|\bnull\b/;
/** Every text and number of what is shown, records left out. */
function told(v: unknown, out: string[] = [], seen = new Set<unknown>(), key = ""): string[] {
  if (["job", "world", "shop", "ask", "rack", "context", "whole"].includes(key)) return out;
  if (typeof v === "string") out.push(v);
  else if (typeof v === "number") out.push(String(v));
  else if (v && typeof v === "object" && !seen.has(v)) {
    seen.add(v);
    for (const [k, x] of Object.entries(v)) told(x, out, seen, k);
  }
  return out;
}
const everything = (p: Plan, snags: boolean): unknown[] => {
  const { world } = p.context;
  const now = p.start ?? 0;
  return [
    planReport(p),
    snagReport(p),
    p.placed.map((_x, i) => stepCard(p, i)),
    stepRows(p, now),
    railBlocks(p, now),
    snags ? snagRows(p, world, now) : null,
    benchView(world, p, now, []),
    routeView(world, p, now),
    artworkView(p),
    wrapUpView(p, now, []),
    workCard(p, now),
    todayRows([world], now),
    p.decides,
  ];
};

test("nothing that is shown of odd records is nonsense", () => {
  const seeds = [...KEPT, ...Array.from({ length: CASES }, (_, i) => i)];
  let taken = 0;
  for (const seed of seeds) {
    const file = changed(seeded(seed + 77));
    const read = file && readJobFile(file.text);
    if (!file || !read?.ok) continue;
    taken++;
    const shown = told(everything(makePlan(worldOf(read.file)!), seed % 5 === 0));
    // a word that was in the file may well be “null”
    const bad = shown.filter((s) => NONSENSE.test(s) && !file.text.includes(JSON.stringify(s).slice(1, -1)));
    expect([seed, file.what, bad.slice(0, 3)]).toEqual([seed, file.what, []]);
    expect(shown.length).toBeGreaterThan(100);
  }
  expect(taken).toBeGreaterThan(seeds.length / 2);
});

/** Minutes that nobody can wait: “-12 min”, “−3 h”. */
const BACKWARDS = /(^|[^\w.,–-])[-−]\d+([.,]\d+)? ?(min|h|d|s)\b/;
test("a clock set back or far ahead, another zone, a leap day: nothing that is shown goes backwards, and nothing done is lost", () => {
  const DAY = 1440;
  for (let k = 0; k < many(24); k++) {
    const r = seeded(k + 5);
    const w = brief(k * 31 + 2);
    const leap = { ...w, job: { ...w.job, start: k % 3 ? w.job.start : "2028-02-28T16:00" } };
    const plan = makePlan(leap, null, true);
    const done = plan.placed.slice(0, 1 + Math.floor(r() * plan.placed.length)).filter((p) => p.start !== null);
    const log = done.flatMap((p, i) =>
      (["start", "done"] as const).map((kind) =>
        Object.assign(new LogEntry(), {
          id: `${kind}${i}`,
          jobId: w.job.id,
          kind,
          step: p.step.id,
          at: kind === "start" ? p.start : p.end,
        }),
      ),
    );
    if (r() < 0.5) log.pop();
    const last = log[log.length - 1]?.at ?? plan.start ?? 0;
    const zone = pick(r, ["UTC", "Pacific/Auckland", "America/Los_Angeles", "Asia/Kathmandu"]);
    const shop = { ...leap.shop, zone };
    for (const now of [last - 3 * DAY, last - 1, last, last + 90, last + 200 * DAY]) {
      const p = makePlan({ ...leap, shop, log }, now);
      const shown = told([everything(p, false), benchView(p.context.world, p, now, [])]);
      const bad = shown.filter((s) => NONSENSE.test(s) || BACKWARDS.test(s));
      expect([k, zone, now - last, bad.slice(0, 3)]).toEqual([k, zone, now - last, []]);
      expect(p.placed.filter((x) => x.actual).map((x) => x.step.id)).toEqual(
        makePlan({ ...leap, log }, last).placed.flatMap((x) => (x.actual ? x.step.id : [])),
      );
      p.placed.forEach((x) => x.start !== null && expect(x.end).toBeGreaterThanOrEqual(x.start));
    }
  }
});
