/** Rule 26: a wait falls into a cold night; its real length is shown. */
import { own } from "../../process/kinds";
import { minutesBelow } from "../../models/drying/clock";
import type { Facts } from "../../plan/facts";
import type { Placed } from "../../plan/placed";
import type { Fix, Rule } from "../snag";
import { showMinutes } from "../../units/show";
import { isCoat, round } from "../ask";
import { editFix } from "../fixes";

/** cold minutes that make it worth saying */
const WORTH_MIN = 30;
/** a wait that outlasts most orders, in days */
const LONG_DAYS = 60;

/** All coats that this step waits for, dried in a room: with one of them warm the next would hold it up. */
function indoors(f: Facts, p: Placed, name: string): Fix[] {
  const lying = new Set(p.before.zones.flatMap((z) => z.films.filter((x) => x.left > 0).map((x) => x.step)));
  const coats = f.placed.filter((x) => isCoat(x) && !x.actual && lying.has(x.step.id) && own(x.step, "roomC") === null);
  const what =
    new Set(coats.map((x) => own(x.step, "productId"))).size > 1 ? `All ${coats.length} coats dried` : `${name} dried`;
  return coats.length
    ? [
        editFix("indoors", `${what} in a room at 20 °C`, () =>
          coats.flatMap((x) =>
            Object.entries({ roomC: 20, roomRh: 0.5 }).map(([field, value]) => ({
              op: "set" as const,
              step: x.step.id,
              field,
              value,
            })),
          ),
        ),
      ]
    : [];
}

export const rule26: Rule = {
  id: 26,
  severity: "advice",
  title: "Waits that fall into a cold night",
  find: (f) =>
    f.placed.flatMap((p) => {
      const w = p.waited;
      if (!w || !w.film || w.opens === null || p.actual) return [];
      const laid = f.placed.find((x) => x.step.id === w.film);
      const paint = w.productId ? f.context.paintOf(w.productId) : null;
      const min = paint?.minC.value ?? null;
      if (!laid || !paint || w.refMin === null) return [];
      const air = f.context.room(own(laid.step, "roomC"), own(laid.step, "roomRh"));
      const real = w.opens - w.from;
      const cold = min === null ? 0 : minutesBelow(f.context.clock, air, min, w.from, w.opens);
      const long = real >= LONG_DAYS * 1440;
      if (cold < WORTH_MIN && !long) return [];
      const dries = paint.base === "water" ? "nothing dries" : "it hardly dries";
      const why =
        cold < WORTH_MIN
          ? "the air is too cool or too damp for it to go faster."
          : `for ${showMinutes(cold)} of it the shop is below ${min} °C and ${dries}.`;
      return [
        {
          step: p.step.id,
          zone: null,
          severity: long ? ("risk" as const) : undefined,
          numbers: {
            realMin: round(real),
            referenceMin: round(w.refMin),
            coldMin: round(cold),
            minimum: min,
          },
          why: `The wait before “${p.step.title}” is ${showMinutes(real)}, not ${showMinutes(w.refMin)}: ${why}`,
          fixes: indoors(f, p, paint.product.name),
        },
      ];
    }),
};
