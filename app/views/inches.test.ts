/**
 * A shop that reads inches reads them throughout: no figure in mm or °C in anything that a screen of a job is told. One that writes times
 * by twice 12 hours reads none by 24.
 */
import { ROUTES } from "../core/catalogue/routes";
import { workCard } from "../core/explain/card";
import { makePlan } from "../core/plan/plan";
import { worldAround, type World } from "../core/records/world";
import { brief } from "../core/testing/briefs";
import { odd } from "../core/testing/odd";
import { generate } from "../core/plan/generate";
import { context } from "../core/process/context";
import { artworkView } from "./artwork";
import { writeCalendar } from "../io/export/ics";
import { benchView } from "./bench";
import { calendarView } from "./calendar";
import { railBlocks, snagRows, stepCard, stepRows } from "./layers";
import type { Opened } from "./opened";
import { routeView } from "./route";
import { wrapUpView } from "./wrap-up";

/** Every sentence of what a screen is told; inputs of figures opened, records left out. */
function sentences(v: unknown, out: string[] = [], key = ""): string[] {
  if (["job", "plan", "world", "shop", "ask", "numbers", "rack"].includes(key)) return out;
  if (typeof v === "string") out.push(v);
  else if (typeof v === "function" && key === "rows") sentences((v as Opened["rows"])(), out);
  else if (v !== null && typeof v === "object") for (const [k, x] of Object.entries(v)) sentences(x, out, k);
  return out;
}
/** a speed or interval shown in all its units at once names mm among them */
const metric = (s: string): boolean =>
  /\d ?(mm²?(?![/\w²])(?! per | · )|°C|mm\/s(?![²\w]| · ))/.test(s) && !/ dpi| in\/min/.test(s);

/** An empty Shelf, and zones that say what is to be seen. */
const unbought = (w: World): World => ({
  ...w,
  products: [],
  job: { ...w.job, zones: w.job.zones.map((z) => ({ ...z, wanted: z.colour, productId: null })) },
});

test("over all routes: screens, cards and opened figures speak of inches and °F", () => {
  let told = 0;
  let inches = 0;
  let clocks = 0;
  for (let n = 0; n < ROUTES.length; n++) {
    // every other one is planned with what is still to be bought
    const base = n % 2 ? odd(n, (x) => generate(context(x)).steps) : unbought(brief(n));
    const facts = { ...base, shop: { ...base.shop, clockFace: "12" as const } };
    const w = worldAround(facts, { ...base.job, units: "inch" }, base.log);
    const p = makePlan(w);
    const cards = p.placed.map((_x, i) => stepCard(p, i));
    const all = sentences([
      cards,
      stepRows(p, 0),
      railBlocks(p, 0),
      n % 5 ? [] : snagRows(p, w, 0),
      benchView(w, p, 0, []),
      routeView(w, p, 0),
      artworkView(p),
      wrapUpView(p, 0, []),
      workCard(p, 0),
      calendarView(p, 0),
      writeCalendar(p, 0),
    ]);
    told += all.length;
    clocks += all.filter((s) => /\b\d{1,2}:\d\d [ap]m\b/.test(s)).length;
    expect([n, all.filter((s) => !/\dT\d\d:/.test(s) && /\b\d\d?:\d\d\b(?! [ap]m)/.test(s))]).toEqual([n, []]);
    inches += all.filter((s) => /\d in\b|°F/.test(s)).length;
    expect([n, all.filter(metric)]).toEqual([n, []]);
    // and in a metric shop nothing of it
    const m = makePlan(worldAround(base, { ...base.job, units: "metric" }, base.log));
    expect(sentences([stepRows(m, 0), workCard(m, 0)]).filter((s) => /\d in\b(?!\/min)|°F/.test(s))).toEqual([]);
  }
  expect(told).toBeGreaterThan(2500);
  expect(inches).toBeGreaterThan(250);
  expect(clocks).toBeGreaterThan(250);
});
