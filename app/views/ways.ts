/** The comparison of ways in words: a row a way, with what it is sorted by. */
import { bearsWords } from "../core/catalogue/bears";
import { route as routeOf } from "../core/catalogue/routes";
import { GRAVEST, type Way, type WayFigures } from "../core/explain/ways";
import { byRoute } from "../core/plan/goes";
import type { Severity } from "../core/records/ids";
import type { World } from "../core/records/world";
import { shopClock, showWhen } from "../core/time/zoned";
import { showMoney } from "../core/units/money";
import { said } from "../core/units/said";
import { showMinutes, showShare } from "../core/units/show";
import { openedIn, type Opened } from "./opened";

/** A figure with what it is sorted by; what is not known comes last. */
export interface Told {
  text: string;
  n: number;
  why: Opened | null;
}
export interface WayRow {
  id: Way["id"];
  name: string;
  gives: string;
  goes: string;
  chosen: boolean;
  rank: number;
  section: WayFigures["section"];
  reasons: string[];
  hands: Told;
  laser: Told;
  /** hands and laser together */
  work: Told;
  ready: Told;
  begin: Told;
  cost: Told;
  finest: Told;
  creeps: Told;
  bears: string[];
  /** uses that it does not bear */
  fails: number;
  toBuy: WayFigures["toBuy"];
  lacks: string[];
  snags: WayFigures["snags"];
  /** the gravest snag that is open; null: there is none */
  worst: Severity | null;
}
export interface WayNot {
  id: Way["id"];
  name: string;
  no: string[];
  mend: Way["mend"];
}

const LAST = Number.MAX_SAFE_INTEGER;
/** worst first, as a number to sort by */
export const graveness = (s: Severity | null): number => (s === null ? GRAVEST.length : GRAVEST.indexOf(s));

/** Ways that can be planned, as far as they are there. @param now the moment they were planned at, min since 1970 */
export function wayRows(ways: readonly Way[], world: World, now: number): WayRow[] {
  const clock = shopClock(world.shop);
  const { units } = world.shop;
  const { currency, language } = (world.elsewhere ?? world).shop;
  return ways.flatMap((w) => {
    const f = w.figures;
    if (!f) return [];
    const r = routeOf(w.id);
    const there = byRoute(world, w.id);
    const by = `by “${w.name.toLowerCase()}”`;
    const told = (n: number | null, text: string, why: Opened | null = null): Told =>
      n === null ? { text: "not known", n: LAST, why: null } : { text, n, why };
    const both = f.handsMin === null || f.laserMin === null ? null : f.handsMin + f.laserMin;
    const mm = (n: number): string => said(`${Math.round(n * 100) / 100} mm`, units);
    return [
      {
        id: w.id,
        name: w.name,
        gives: said(r.gives, units),
        goes: said(r.goes, units),
        chosen: world.job.route === w.id,
        rank: w.rank ?? LAST,
        section: f.section,
        reasons: w.reasons,
        hands: told(f.handsMin, showMinutes(f.handsMin)),
        work: told(both, showMinutes(both), openedIn(there, now, { of: "hands" }, `Work in all ${by}`)),
        laser: told(f.laserMin, f.laserMin === 0 ? "none" : showMinutes(f.laserMin)),
        ready: told(
          f.ready,
          f.ready === null ? "" : showWhen(clock, f.ready),
          openedIn(there, now, { of: "ready" }, `When it is ready ${by}`),
        ),
        begin: told(f.pieces, String(f.pieces)),
        cost:
          f.costMinor === 0 && f.costAtLeast
            ? { text: "no prices yet", n: LAST, why: null }
            : {
                text: `${f.costAtLeast ? "≥ " : ""}${showMoney(f.costMinor, currency, language)}`,
                n: f.costMinor,
                why: null,
              },
        finest: told(f.finestMm, f.finestMm === null ? "" : mm(f.finestMm)),
        creeps: f.creeps === null ? { text: "no", n: 0, why: null } : told(f.creeps, showShare(f.creeps)),
        bears: f.bears.map((b) => bearsWords(b.use, b.is)),
        fails: f.bears.filter((b) => b.is === "no").length,
        toBuy: f.toBuy,
        lacks: f.stuck ? [...f.lacks, f.stuck] : f.lacks,
        snags: [...f.snags].sort((a, b) => graveness(a.severity) - graveness(b.severity)),
        worst: f.snags.reduce<Severity | null>((m, s) => (graveness(s.severity) < graveness(m) ? s.severity : m), null),
      },
    ];
  });
}

const sameSnag = (a: WayRow["snags"][number], b: WayRow["snags"][number]): boolean =>
  a.rule === b.rule && a.why === b.why;
/** What ruins a piece whichever way it is done, as a machine without extraction does: it is told once, and tells no way from another. */
export const snagsEverywhere = (rows: readonly WayRow[]): WayRow["snags"] =>
  rows.length < 2
    ? []
    : rows[0].snags.filter((s) => graveness(s.severity) <= 1 && rows.every((w) => w.snags.some((x) => sameSnag(x, s))));
/** The rows without what is told of all of them. */
export const apart = (rows: readonly WayRow[], everywhere: WayRow["snags"]): WayRow[] =>
  rows.map((w) => {
    const snags = w.snags.filter((s) => !everywhere.some((x) => sameSnag(x, s)));
    return { ...w, snags, worst: snags[0]?.severity ?? null };
  });

/** Ways that do not go on this job, with what would have to change. */
export const waysNot = (ways: readonly Way[]): WayNot[] =>
  ways.filter((w) => w.no.length).map((w) => ({ id: w.id, name: w.name, no: w.no.map((n) => n.why), mend: w.mend }));
