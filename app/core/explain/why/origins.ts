/** Where the figures of a plan come from, a line an input: what paper carries, since paper can't be opened. */
import { kappaFor, kappaMeasured } from "../../process/beam";
import type { Plan } from "../../plan/plan";
import type { Can } from "../../records/product";
import { stateWords } from "../../process/words";
import { showMinutes, showMl, showShare, showTemp, showUm } from "../../units/show";
import type { Moved } from "./moves";

export interface Origin {
  of: string;
  /** figures with their origin in brackets */
  says: string;
}

/** drying times that plans wait for, in the order they come */
const TIMES = ["recoat", "closes", "maskable", "sandable", "laserSafe"] as const;
const TIME_WORDS: Record<(typeof TIMES)[number], string> = {
  recoat: stateWords("recoat"),
  closes: "window shuts",
  maskable: stateWords("maskable"),
  sandable: stateWords("sandable"),
  laserSafe: stateWords("laser-safe"),
};

export function originsOf(plan: Plan): Origin[] {
  const c = plan.context;
  const { shop } = c.world;
  const { units } = shop;
  const with_ = (text: string, from: string): string => `${text} (${from})`;
  const paints = plan.amounts.map((a): Origin => {
    const p = c.paintOf(a.product);
    const known = TIMES.filter((t) => p.times[t].value !== null);
    return {
      of: p.product.name,
      says: [
        ...(p.powder
          ? [
              with_(`pressed in to ${showShare(p.powder.packing.value)}`, p.powder.packing.from),
              with_(`flows at ${showTemp(p.powder.flowC.value, units)}`, p.powder.flowC.from),
            ]
          : [
              with_(`a coat ${showUm(p.coatUm.value)} dry`, p.coatUm.from),
              with_(`${showShare(p.solids.value)} solids`, p.solids.from),
            ]),
        ...(p.hideUm.value === null ? [] : [with_(`hides at ${showUm(p.hideUm.value)}`, p.hideUm.from)]),
        ...known.map((t) => with_(`${TIME_WORDS[t]} ${showMinutes(p.times[t].value)}`, p.times[t].from)),
        ...(p.minC.value === null ? [] : [with_(`not below ${showTemp(p.minC.value, units)}`, p.minC.from)]),
        with_(`${showMl(a.onShelfMl)} on the Shelf`, cansFrom(p.product.cans, a.onShelfMl)),
      ].join(", "),
    };
  });
  const m = c.machine;
  const kappa = c.machine && kappaFor(c.machine, c.substrate);
  const taught = [...new Set(plan.placed.map((p) => p.step.kind))].filter((k) => c.learned(k) !== 1);
  return [
    ...paints,
    ...(known(plan)
      ? [
          {
            of: "Drying times",
            says: "minutes at 20 °C and 50 % humidity; every wait above is that time in your air, hour by hour",
          },
        ]
      : []),
    {
      of: "Air",
      says: with_(
        shop.climate.kind === "constant"
          ? `${showTemp(shop.climate.c, units)}, ${showShare(shop.climate.rh)} humidity, ${shop.climate.air}`
          : `24 hourly points, ${shop.climate.air}`,
        shop.climate.measured ? "your climate" : "default climate",
      ),
    },
    ...(m
      ? [
          {
            of: m.name,
            says: [
              with_(`${m.watts} W`, "rated"),
              with_(`spot ${c.spotMm} mm`, m.spotMm === null ? "default" : "measured here"),
              ...(kappa !== null
                ? [
                    with_(
                      `${kappa} mm of ${c.substrate.name.toLowerCase()} for a J/mm²`,
                      kappaMeasured(m, c.substrate) ? "measured here" : "default",
                    ),
                  ]
                : []),
            ].join(", "),
          },
        ]
      : []),
    {
      of: "Minutes of work",
      says: taught.length
        ? `default, but ${taught.length} ${taught.length === 1 ? "kind" : "kinds"} of step as your log has taught`
        : "default, none measured here yet",
    },
    { of: "Hours", says: shop.hoursSet ? "your hours" : "default hours" },
  ];
}
const known = (plan: Plan): boolean => plan.placed.some((p) => p.waited !== null);

/** Where the amount on the Shelf comes from. */
export const cansFrom = (cans: Can[], ml: number | null): string =>
  !cans.length ? "no can listed" : ml === null ? "some can was never counted or weighed" : "cans as counted or weighed";

/** What moves the ready time most, in a line an input. */
export const movesWords = (moved: Moved | null): string[] =>
  (moved?.moves ?? []).map(
    (m) => `${m.name} (${m.from}): ${m.ends.map((e) => `${e.input}, ready ${e.text}`).join("; ")}`,
  );
