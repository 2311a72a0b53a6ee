/**
 * A due date that can't be kept: what would make it possible. Each way is a change of the world that is planned to its end,
 * alone first, then in pairs, then all together; nothing is guessed.
 */
import { toBegin } from "../process/pieces";
import type { World } from "../records/world";
import type { Climate, Hours } from "../records/shop";
import { makePlan } from "./plan";

export interface WayOut {
  label: string;
  /** when it would be ready so; null: still never */
  ready: number | null;
  /** keeps the due date */
  keeps: boolean;
  apply(w: World): World;
}

type Way = { label: string; apply(w: World): World };

const DAYS = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"] as const;
/** °C of a heated room in which things dry */
const WARM_C = 20;
const later = (t: string, hours: number): string => {
  const m = Math.min(23 * 60 + 59, Number(t.slice(0, 2)) * 60 + Number(t.slice(3, 5)) + hours * 60);
  return `${String(Math.floor(m / 60)).padStart(2, "0")}:${String(m % 60).padStart(2, "0")}`;
};
const choice = (label: string, change: Partial<World["job"]["choices"]>): Way => ({
  label,
  apply: (w) => ({ ...w, job: { ...w.job, choices: { ...w.job.choices, ...change } } }),
});
const climate = (label: string, change: (c: Climate) => Climate): Way => ({
  label,
  apply: (w) => ({ ...w, shop: { ...w.shop, climate: change(w.shop.climate) } }),
});
const hours = (label: string, change: (h: Hours) => Hours): Way => ({
  label,
  apply: (w) => ({ ...w, shop: { ...w.shop, hoursSet: true, hours: change(w.shop.hours) } }),
});

/** Ways that change anything here at all. */
export function ways(w: World): Way[] {
  const h = w.shop.hours;
  const usual = DAYS.map((d) => h[d]).find((x) => x !== null) ?? ["09:00", "18:00"];
  const c = w.shop.climate;
  const coldest = c.kind === "constant" ? c.c : Math.min(...c.hourly.map((p) => p.c));
  const ch = w.job.choices;
  const out: Way[] = [];
  if (!h.sat) out.push(hours("Work on Saturdays too", (x) => ({ ...x, sat: [usual[0], usual[1]] })));
  if (!h.sat || !h.sun)
    out.push(
      hours("Work at weekends too", (x) => ({
        ...x,
        sat: x.sat ?? [usual[0], usual[1]],
        sun: x.sun ?? [usual[0], usual[1]],
      })),
    );
  out.push(
    hours(
      "Stay open two hours longer",
      (x) => Object.fromEntries(DAYS.map((d) => [d, x[d] ? [x[d][0], later(x[d][1], 2)] : null])) as unknown as Hours,
    ),
  );
  if (w.shop.daysOff.length)
    out.push({ label: "Work through the days off", apply: (x) => ({ ...x, shop: { ...x.shop, daysOff: [] } }) });
  if (coldest < WARM_C)
    out.push(climate(`Keep the shop at ${WARM_C} °C, nights too`, (x) => ({ ...x, kind: "constant", c: WARM_C })));
  if (c.air === "still") out.push(climate("Move the air gently over drying pieces", (x) => ({ ...x, air: "moving" })));
  if (ch.proof !== false && w.job.quantity > 1) out.push(choice("Leave the proof piece out", { proof: false }));
  if (ch.handover !== "touch")
    out.push(choice("Hand over touch dry, to cure with the customer", { handover: "touch" }));
  if (!ch.noClear) out.push(choice("Leave the clear coat out", { noClear: true }));
  return out;
}

/** A search taken one plan at a time, so that whoever waits for it may do other things between two. */
type InTurn<T> = Generator<void, T>;

/** The same job for fewer pieces, with spares as they are worked out for those: typed, where it has begun with more. */
function ofPieces(w: World, quantity: number): World {
  const job = { ...w.job, quantity };
  const begin = job.begun ? (toBegin(job)?.pieces ?? quantity) : undefined;
  return { ...w, job: { ...job, choices: { ...job.choices, begin } } };
}

/** Most pieces that would still be ready in time; 0: not even one. */
function* mostPieces(w: World, due: number, now: number | null): InTurn<number> {
  let [lo, hi] = [0, w.job.quantity];
  while (hi - lo > 1) {
    const mid = Math.floor((lo + hi) / 2);
    const r = makePlan(ofPieces(w, mid), now, true).ready;
    yield;
    if (r !== null && r <= due) lo = mid;
    else hi = mid;
  }
  return lo;
}

/** As `waysOut`, one plan between two yields. */
export function* waysOutInTurn(w: World, due: number, now: number | null): InTurn<WayOut[]> {
  const ready = function* (x: World): InTurn<number | null> {
    const at = makePlan(x, now, true).ready;
    yield;
    return at;
  };
  const tried = function* (list: Way[]): InTurn<WayOut[]> {
    const out: WayOut[] = [];
    for (const x of list) {
      const at = yield* ready(x.apply(w));
      out.push({ ...x, ready: at, keeps: at !== null && at <= due });
    }
    return out.sort((a, b) => (a.ready ?? Infinity) - (b.ready ?? Infinity));
  };
  const base = (yield* ready(w)) ?? Infinity;
  const single = yield* tried(ways(w));
  const n = yield* mostPieces(w, due, now);
  const fewer: WayOut[] =
    n > 0 && n < w.job.quantity
      ? yield* tried([
          {
            label: `Make ${n} of the ${w.job.quantity} by then, the rest later`,
            apply: (x) => ofPieces(x, n),
          },
        ])
      : [];
  const good = [...single.filter((x) => x.keeps), ...fewer];
  if (good.length) return good;
  const helps = single.filter((x) => (x.ready ?? Infinity) < base);
  const both = (a: Way, b: Way): Way => ({
    label: `${a.label}; ${b.label[0].toLowerCase()}${b.label.slice(1)}`,
    apply: (x) => b.apply(a.apply(x)),
  });
  const pairs = yield* tried(helps.slice(0, 6).flatMap((a, i) => helps.slice(i + 1, 6).map((b) => both(a, b))));
  const kept = pairs.filter((x) => x.keeps).slice(0, 4);
  if (kept.length) return kept;
  const everything = helps.length > 1 ? yield* tried([helps.slice(1).reduce<Way>(both, helps[0])]) : [];
  return everything.some((x) => x.keeps) ? everything : [...everything, ...helps.slice(0, 2)];
}

/** @param due minute since 1970 @returns ways that keep the date, soonest first; else those that come nearest */
export function waysOut(w: World, due: number, now: number | null): WayOut[] {
  const search = waysOutInTurn(w, due, now);
  for (;;) {
    const r = search.next();
    if (r.done) return r.value;
  }
}
