/** The parts of the Workshop, and what each comes to in a line. */
import { ROUTE_RULES } from "../core/catalogue/route-rules";
import { picksOf } from "../core/process/context";
import { GEAR_WORDS } from "../core/records/shop";
import type { ShopFacts } from "../core/records/world";
import { showMoney } from "../core/units/money";
import { plural, showTemp } from "../core/units/show";
import { hoursInWords } from "./hours";

export interface WorkshopPart {
  id: "hours" | "climate" | "machines" | "gear" | "money" | "schools" | "screen" | "files";
  name: string;
  /** what stands in it, in a line; null: nothing that could be said */
  says: string | null;
  /** nobody has said anything yet: plans go by a default */
  byDefault: boolean;
}

function moneySays({ rates, currency, language }: ShopFacts["shop"], machines: ShopFacts["machines"]): string {
  const said = [
    ...(rates?.handsMinor === undefined ? [] : [`${showMoney(rates.handsMinor, currency, language)} an hour of hands`]),
    ...machines.flatMap((m) =>
      m.minorPerHour === undefined ? [] : [`${showMoney(m.minorPerHour, currency, language)} an hour of ${m.name}`],
    ),
  ];
  return said.length ? said.join("; ") : "No hour has a price yet: costs are told as “at least”";
}

/** Parts in the order in which a new shop would fill them in. */
export function partsOf({ shop, machines }: ShopFacts): WorkshopPart[] {
  const off = shop.daysOff.length;
  const { climate } = shop;
  const temps = climate.hourly.map((h) => h.c);
  const air =
    climate.kind === "constant"
      ? `${showTemp(climate.c, shop.units)}, ${Math.round(climate.rh * 100)} % humidity, all day`
      : `${showTemp(Math.min(...temps), shop.units)} to ${showTemp(Math.max(...temps), shop.units)} over the day`;
  const own = Object.keys(picksOf(shop.schools)).length;
  const asked = ROUTE_RULES.filter((r) => !shop.routeRulesOff?.includes(r.id)).length;
  return [
    {
      id: "hours",
      name: "Hours and days off",
      says: `${hoursInWords(shop)}${off ? `; ${plural(off, "day")} off` : ""}; ${shop.zone.replaceAll("_", " ")}`,
      byDefault: !shop.hoursSet,
    },
    { id: "climate", name: "Air and climate", says: air, byDefault: !climate.measured },
    {
      id: "machines",
      name: "Machines",
      says: machines.length
        ? machines.map((m) => m.name).join("; ")
        : "None yet: depth, settings and laser minutes are unknown.",
      byDefault: false,
    },
    {
      id: "gear",
      name: "Ovens and jigs",
      says: shop.gear?.length ? shop.gear.map((g) => g.name || GEAR_WORDS[g.kind]).join("; ") : "None yet",
      byDefault: false,
    },
    {
      id: "money",
      name: "What things cost",
      says: moneySays(shop, machines),
      byDefault: false,
    },
    {
      id: "schools",
      name: "Where makers disagree",
      says:
        `${own ? `${plural(own, "choice")} of your own` : "By the defaults"}; ` +
        `${asked} of ${ROUTE_RULES.length} questions choose a route`,
      byDefault: false,
    },
    {
      id: "screen",
      name: "Name, units, dates, screen",
      says: `${shop.name}; ${shop.units === "metric" ? "mm and °C" : "inch and °F"}; ${shop.currency}`,
      byDefault: false,
    },
    { id: "files", name: "Files", says: null, byDefault: false },
  ];
}
