/** The shop itself: name, units, zone, hours, days off, climate, schools, route questions, what the log has taught. */
import { withPick } from "../../core/catalogue/schools";
import { Text } from "../../core/records/fields";
import { SOMEWHERE, type Climate, type Outdoors, type Rates, type Shop } from "../../core/records/shop";
import { WEEKDAYS } from "../../core/time/hours";
import { readTime } from "../../core/time/typed";
import { zonedClock } from "../../core/time/zoned";
import { Refused } from "../../store/acts";
import { act, Bare, FieldForm, readField, toggled, type Readers } from "../act";
import { ROUTE_RULES } from "../../core/catalogue/route-rules";
import { ROUTE_IDS } from "../../core/records/ids";
import { typed } from "../answer";
import { changedShop, type InShop } from "./shop";

const HOURS: [string, string] = ["09:00", "18:00"];

/** Two clock times in order, such as “10:00 to 16:00”. */
export function span(v: string): [string, string] {
  const parts = v.trim().split(/\s*(?:\b(?:to|until|and)\b|[–-])\s*/i);
  const texts = parts.length === 1 ? v.trim().split(/\s+/) : parts;
  const [a, b] = texts.map((t, i) => (i && t.trim() === "24:00" ? "24:00" : readTime(t)));
  if (texts.length !== 2 || !a || !b)
    throw new Refused(`“${v.trim()}” is not two clock times such as 10:00 to 16:00, or 10 am to 4 pm.`);
  if (!(a < b)) throw new Refused(`${b} must come after ${a}.`);
  return [a, b];
}
function zone(v: string): string {
  try {
    zonedClock(v.trim());
  } catch {
    throw new Refused(`“${v.trim()}” is not a time zone such as Europe/Lisbon.`);
  }
  return v.trim();
}

const places = (v: string): number => {
  const n = typed.whole(v);
  if (!(n >= 1)) throw new Refused("A rack has one place or more; leave it empty where nobody counts them.");
  return n;
};
const within = (n: number, most: number, what: string): number => {
  if (!(Math.abs(n) <= most)) throw new Refused(`${what} lies between ${-most}° and ${most}°.`);
  return n;
};
const OUTDOORS: Readers<Outdoors, Shop["units"]> = {
  latitude: (v) => ({ latitude: within(typed.number(v), 66, "Latitude") }),
  longitude: (v) => ({ longitude: within(typed.number(v), 180, "Longitude") }),
  coldC: (v, u) => ({ coldC: typed.temperatureOrNull(v, u) ?? undefined }),
  warmC: (v, u) => ({ warmC: typed.temperatureOrNull(v, u) ?? undefined }),
  leastC: (v, u) => ({ leastC: typed.temperatureOrNull(v, u) ?? SOMEWHERE.leastC }),
};
/** The open air with one field answered; spraying is in it from the first answer on. */
function outdoorsWith(s: Shop, f: FieldForm): Partial<Shop> {
  if (f.field === "on") return { outdoors: f.value === "true" ? (s.outdoors ?? SOMEWHERE) : undefined };
  const next = { ...(s.outdoors ?? SOMEWHERE), ...readField(OUTDOORS, f, s.units) };
  if (next.coldC !== undefined && next.warmC !== undefined && next.warmC < next.coldC)
    throw new Refused("The afternoon can’t be colder than sunrise.");
  return { outdoors: next };
}
const FIELDS: Readers<Shop> = {
  name: (v) => ({ name: v.trim() }),
  currency: (v) => ({ currency: v.trim() }),
  units: (v) => ({ units: v.trim() as Shop["units"] }),
  language: (v) => ({ language: v.trim() }),
  zone: (v) => ({ zone: zone(v) }),
  clockFace: (v) => ({ clockFace: v === "24" ? undefined : (v as Shop["clockFace"]) }),
  weekStart: (v) => ({ weekStart: (v || undefined) as Shop["weekStart"] }),
  sprayHours: (v) => ({ sprayHours: v.trim() ? span(v) : undefined }),
  loudHours: (v) => ({ loudHours: v.trim() ? span(v) : undefined }),
  rackPlaces: (v) => ({ rackPlaces: v.trim() ? places(v) : undefined }),
  tolerance: (v) => ({ tolerance: typed.number(v) }),
  daysOff: (v) => ({ daysOff: v.split(/[\s,;]+/).filter(Boolean) }),
};

const share = (v: string): number => {
  const n = typed.percent(v);
  if (!(n >= 0 && n <= 0.95)) throw new Refused("A margin lies between 0 and 95 %.");
  return n;
};
const RATES: Readers<Rates, string> = {
  handsMinor: (v, currency) => ({ handsMinor: typed.money(v, currency) }),
  pieceMinor: (v, currency) => ({ pieceMinor: typed.money(v, currency) }),
  margin: (v) => ({ margin: v.trim() ? share(v) : undefined }),
};

/** One day's opening or closing: the field is `mon.open`, `mon.from` or `mon.to`. */
function hoursOf(f: FieldForm, s: Shop): Partial<Shop> {
  const [name, end] = f.field.split(".");
  const day = WEEKDAYS.find((d) => d === name);
  if (!day) throw new Refused(`There is no day “${name}”.`);
  const now = s.hours[day] ?? HOURS;
  // shut at midnight: at the end of that day
  const next: [string, string] = end === "from" ? [f.value, now[1]] : [now[0], f.value === "00:00" ? "24:00" : f.value];
  if (end !== "open" && !(next[0] < next[1]))
    throw new Refused(`Closing ${next[1]} must come after opening ${next[0]}.`);
  const open = end !== "open" ? next : f.value === "true" ? HOURS : null;
  return { hoursSet: true, hours: { ...s.hours, [day]: open } };
}

/** One figure of one hour, `c.13` or `rh.13`; the other hours stay as they are stored by then. */
const hour = (h: number, part: "c" | "rh"): [string, (v: string, of: OfShop) => Partial<Climate>] => [
  `${part}.${h}`,
  (v, { units, climate }) => {
    const read = part === "c" ? { c: typed.temperature(v, units) } : { rh: typed.percent(v) };
    if (read.rh !== undefined && !(read.rh >= 0 && read.rh <= 1))
      throw new Refused("Humidity lies between 0 and 100 %.");
    return { hourly: climate.hourly.map((p, i) => (i === h ? { ...p, ...read } : p)) };
  },
];
const HOURS_OF_DAY = Array.from({ length: 24 }, (_, h) => h);
type OfShop = { climate: Climate; units: Shop["units"] };
const CLIMATE: Readers<Climate, OfShop> = {
  kind: (v, { climate: c }) =>
    v === "hourly"
      ? { kind: "hourly", hourly: c.hourly.length === 24 ? c.hourly : Array(24).fill({ c: c.c, rh: c.rh }) }
      : { kind: "constant" },
  c: (v, { units }) => ({ c: typed.temperature(v, units) }),
  rh: (v) => ({ rh: typed.share(v) }),
  air: (v) => ({ air: v as Climate["air"] }),
  ...Object.fromEntries(HOURS_OF_DAY.flatMap((h) => [hour(h, "c"), hour(h, "rh")])),
};

class WeightForm {
  @Text(20) field: string = "";
  @Text(60) rule!: string;
  @Text(10) route!: string;
  @Text(20) value: string = "";
}
class LearnedForm {
  @Text(60) kind!: string;
  @Text(40) factor: string = "";
  @Text(40) n: string = "";
  /** the machine that it was learned on; empty: for all */
  @Text(120) machine: string = "";
}
class BareLearned {
  @Text(60) kind!: string;
  @Text(120) machine: string = "";
}
const others = (s: Shop, { kind, machine }: BareLearned) =>
  s.learned.filter((l) => l.kind !== kind || (l.machineId ?? "") !== machine);

export const settingActs = [
  act("rate", FieldForm, (f, _c: InShop) =>
    changedShop("what time and small things are worth", (s) => ({
      rates: { ...s.rates, ...readField(RATES, f, s.currency) },
    })),
  ),
  act("set", FieldForm, (f, _c: InShop) =>
    changedShop(`${f.field} of the shop`, () => readField(FIELDS, f, undefined)),
  ),
  act("outdoors", FieldForm, (f, _c: InShop) => changedShop("spraying in the open", (s) => outdoorsWith(s, f))),
  act("hours", FieldForm, (f, _c: InShop) => changedShop("hours", (s) => hoursOf(f, s))),
  act("climate", FieldForm, (f, _c: InShop) =>
    changedShop("climate", (s) => ({
      climate: { ...s.climate, measured: true, ...readField(CLIMATE, f, s) },
    })),
  ),
  act("school", FieldForm, (f, _c: InShop) =>
    changedShop("choice where makers disagree", (s) => ({
      schools: withPick(s.schools, f.field.replace(/^school:/, ""), f.value),
    })),
  ),
  act("route-rule", FieldForm, (f, _c: InShop) =>
    changedShop("route question", (s) => ({ routeRulesOff: toggled(s.routeRulesOff, f.field, f.value !== "true") })),
  ),
  act("route-weight", WeightForm, (f, _c: InShop) => {
    const rule = ROUTE_RULES.find((x) => x.id === f.rule);
    const route = ROUTE_IDS.find((x) => x === f.route);
    if (!rule || !route) throw new Refused("There is no such question.");
    const weight = f.value.trim() ? typed.number(f.value) : (rule.weighs[route] ?? 0);
    if (!(Math.abs(weight) <= 20)) throw new Refused("A weight lies between −20 and 20.");
    return changedShop("weight of a route question", (s) => {
      const rest = (s.routeWeights ?? []).filter((w) => w.rule !== rule.id || w.route !== route);
      const next = weight === (rule.weighs[route] ?? 0) ? rest : [...rest, { rule: rule.id, route, weight }];
      return { routeWeights: next.length ? next : undefined };
    });
  }),
  act("route-rules-reset", Bare, (_f, _c: InShop) =>
    changedShop("route questions as they are given", () => ({ routeWeights: undefined, routeRulesOff: undefined })),
  ),
];
export const learnedActs = [
  act("keep", LearnedForm, (f, _c: InShop) =>
    changedShop("times learned from the log", (s) => ({
      learned: [
        ...others(s, f),
        {
          kind: f.kind,
          factor: typed.number(f.factor),
          n: typed.whole(f.n),
          ...(f.machine ? { machineId: f.machine } : {}),
        },
      ],
    })),
  ),
  act("reset", BareLearned, (f, _c: InShop) =>
    changedShop("times learned from the log", (s) => ({ learned: others(s, f) })),
  ),
];
