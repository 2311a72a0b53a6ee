/** The workshop itself: who, hours, climate, units, and what the log has taught. */
import {
  Flag,
  Id,
  LocalDate,
  Maybe,
  Moment,
  Num,
  OneOf,
  OrNull,
  Since,
  Sub,
  SubList,
  Text,
  TextList,
  Whole,
  all,
} from "./fields";
import { ROUTE_IDS } from "./ids";
import { ToneStep } from "./picture";
import type { Raw, RecordKind } from "./version";
import { IsArray, ArrayMaxSize, ArrayMinSize, Matches, ValidateIf } from "class-validator";

const Span = () => (t: object, k: string) => {
  all()(t, k);
  ValidateIf((_o, v) => v !== null)(t, k);
  IsArray({ message: "must be [from, to]" })(t, k);
  ArrayMinSize(2)(t, k);
  ArrayMaxSize(2)(t, k);
  Matches(/^([01]\d|2[0-3]):[0-5]\d$|^24:00$/, { each: true, message: "must be two clock times such as 09:00" })(t, k);
};

export class Hours {
  @Span() mon: [string, string] | null = ["09:00", "18:00"];
  @Span() tue: [string, string] | null = ["09:00", "18:00"];
  @Span() wed: [string, string] | null = ["09:00", "18:00"];
  @Span() thu: [string, string] | null = ["09:00", "18:00"];
  @Span() fri: [string, string] | null = ["09:00", "18:00"];
  @Span() sat: [string, string] | null = null;
  @Span() sun: [string, string] | null = null;
}

/** °C and relative humidity (0-1) at one full hour of the day. */
export class HourPoint {
  @Num(-40, 60, "°C") c!: number;
  @Num(0, 1) rh!: number;
}

/** What a thermometer and a hygrometer said at a moment, typed in or from a sensor. */
export class Reading {
  /** minutes since 1970 UTC */
  @Moment() at!: number;
  @Num(-40, 60, "°C") c!: number;
  @Num(0, 1) rh!: number;
}

/** Constant, or 24 hourly points joined by straight lines; readings overrule either for the time they speak of. */
export class Climate {
  @OneOf(["constant", "hourly"]) kind: "constant" | "hourly" = "constant";
  @Num(-40, 60, "°C") c: number = 20;
  @Num(0, 1) rh: number = 0.5;
  @SubList(() => HourPoint, 24) hourly: HourPoint[] = [];
  @OneOf(["still", "moving", "extraction"]) air: "still" | "moving" | "extraction" = "still";
  /** has anybody set it, or is it still the default? */
  @Flag() measured: boolean = false;
  /** in order of time; absent while there are none */
  @Maybe() @SubList(() => Reading, 5000) readings?: Reading[];
}

/** A correction from the log that the user chose to keep (M19). */
export class Learned {
  @Id() kind!: string;
  @Num(0.1, 10) factor!: number;
  @Whole(0, 1e6) n!: number;
  /** work of the beam: the machine that it was learned on; absent: for all */
  @Since(6) @Id() machineId?: string;
}

/** Pockets of a jig, in rows: what lies in it at once, and where. mm, from the bed’s upper left corner. */
export class Pockets {
  @Whole(1, 200) across!: number;
  @Whole(1, 200) down!: number;
  /** of one pocket */
  @Num(1, 5000, "mm") w!: number;
  @Num(1, 5000, "mm") h!: number;
  /** between two of them */
  @Num(0, 500, "mm") gap: number = 5;
  /** upper left corner of the first one */
  @Num(0, 5000, "mm") x: number = 0;
  @Num(0, 5000, "mm") y: number = 0;
}

/** An oven, a heat gun, a jig: what a Workshop has beside lasers. Nulls are unknown. */
export class Gear {
  @Id() id!: string;
  @OneOf(["oven", "gun", "jig", "rotary"]) kind!: "oven" | "gun" | "jig" | "rotary";
  @Text(80) name!: string;
  /** °C at most */
  @OrNull() @Num(20, 700, "°C") maxC: number | null = null;
  /** oven: tray, mm */
  @OrNull() @Num(10, 3000, "mm") trayW: number | null = null;
  @OrNull() @Num(10, 3000, "mm") trayH: number | null = null;
  /** oven: never used for food again */
  @OrNull() @Flag() notForFood: boolean | null = null;
  /** gun: has a low fan */
  @OrNull() @Flag() lowFan: boolean | null = null;
  /** jig: return error, mm */
  @OrNull() @Num(0, 20, "mm") errorMm: number | null = null;
  /** jig: what lies in it at once; absent: it has no pockets that are counted */
  @Since(9) @Sub(() => Pockets) pockets?: Pockets;
  /** rotary: widest it grips, mm */
  @OrNull() @Num(1, 1000, "mm") gripMm: number | null = null;
  /** power and wear an hour, in minor units of the shop’s currency; absent: not known */
  @Since(7) @Whole(0, 1e8) minorPerHour?: number;
}

/** what a kind of gear is called */
export const GEAR_WORDS: Record<Gear["kind"], string> = {
  oven: "Oven",
  gun: "Heat gun",
  jig: "Jig or nest",
  rotary: "Rotary",
};

/** Blanks that did not do, and why. */
export class Reject {
  @LocalDate() at!: string;
  @Whole(1, 1e6) n!: number;
  @Text(200) why: string = "";
}
/** Blanks that came together: what they are, how many came, what was turned away. */
export class BlankLot {
  @Id() id!: string;
  @Text(80) name!: string;
  /** substrate id of the catalogue, mm */
  @Id() substrate!: string;
  @Num(1, 5000, "mm") w!: number;
  @Num(1, 5000, "mm") h!: number;
  @Num(0.1, 500, "mm") t!: number;
  /** mm, of balls and cylinders; absent: flat */
  @Maybe() @Num(1, 1000, "mm") diameter?: number;
  @Whole(0, 1e6) came!: number;
  /** used or given away besides what jobs have begun with */
  @Maybe() @Whole(0, 1e6) otherwise?: number;
  /** one of them, in minor units; absent: not known */
  @Maybe() @Whole(0, 1e9) eachMinor?: number;
  @LocalDate() cameOn!: string;
  /** where they came from, how the next ones should be asked for */
  @Text(1000) note: string = "";
  @Maybe() @SubList(() => Reject, 500) rejects?: Reject[];
}
/** What went wrong once, told again at the step where it matters. */
export class Lesson {
  @Id() id!: string;
  @Text(400) text!: string;
  @LocalDate() at!: string;
  /** the job that taught it; absent: none of these */
  @Maybe() @Id() jobId?: string;
  /** kind of the step that it is told at */
  @Text(60) kind!: string;
  /** only on this material, by this way, with this product; absent: on any */
  @Maybe() @Id() substrate?: string;
  @Maybe() @OneOf(ROUTE_IDS) route?: (typeof ROUTE_IDS)[number];
  @Maybe() @Id() productId?: string;
  /** a rule of the shop: it stands among the snags of every plan with such a step */
  @Maybe() @Flag() rule?: boolean;
}
/** How an exercise went at a level: tries, those that came out well, the best so far. */
export class Practised {
  @Text(40) exercise!: string;
  @Whole(1, 9) level!: number;
  @Whole(0, 1e6) tries!: number;
  @Whole(0, 1e6) good!: number;
  @Num(0, 1) best!: number;
  @LocalDate() on!: string;
}
/** What time and small things are worth here, in minor units of the shop’s currency. */
export class Rates {
  /** an hour of hands */
  @Maybe() @Whole(0, 1e8) handsMinor?: number;
  /** sandpaper, gloves, tips, wipes: a piece */
  @Maybe() @Whole(0, 1e8) pieceMinor?: number;
  /** share of a price that is to stay */
  @Maybe() @Num(0, 0.95) margin?: number;
}

/** What a question that chooses a route weighs for one: above 0 for it, below against it. */
export class RouteWeight {
  @Text(60) rule!: string;
  @OneOf(ROUTE_IDS) route!: (typeof ROUTE_IDS)[number];
  @Num(-20, 20) weight!: number;
}
/** Where spraying is done in the open: by daylight, and while it is warm enough. */
export class Outdoors {
  /** degrees, north and east above 0: for sunrise and sunset */
  @Num(-66, 66, "°") latitude!: number;
  @Num(-180, 180, "°") longitude!: number;
  /** °C about sunrise and in the afternoon of an ordinary day now; absent: not known, and not asked about */
  @Maybe() @Num(-40, 60, "°C") coldC?: number;
  @Maybe() @Num(-40, 60, "°C") warmC?: number;
  /** colder than this nothing is sprayed out there */
  @Num(-20, 40, "°C") leastC: number = 10;
}
/** What counts until a shop has said where it is: no place in particular. */
export const SOMEWHERE: Readonly<Outdoors> = { latitude: 45, longitude: 0, leastC: 10 };
/** Hours of one day that is not as its weekday usually is. */
export class DayHours {
  @LocalDate() day!: string;
  @Span() hours!: [string, string];
}

/** Steps of tones under a name, to be used on other pictures. */
export class ToneList {
  @Text(60) name!: string;
  @SubList(() => ToneStep, 40) tone: ToneStep[] = [];
}

export class Shop {
  @Whole(1, 1) version: number = 1;
  @Id() id: string = "shop";
  @Text(80) name: string = "My shop";
  @OneOf(["metric", "inch"]) units: "metric" | "inch" = "metric";
  @Text(3) currency: string = "EUR";
  @Text(20) language: string = "en";
  /** IANA time zone */
  @Text(60) zone: string = "UTC";
  /** how times of day are written; absent: by 24 hours */
  @Since(1) @OneOf(["24", "12"]) clockFace?: "24" | "12";
  /** the day that weeks begin with on a calendar; absent: as the browser has it */
  @Since(1) @OneOf(["mon", "sat", "sun"]) weekStart?: "mon" | "sat" | "sun";
  @Sub(() => Hours) hours: Hours = new Hours();
  /** spraying only between these times of a working day: daylight, neighbours; absent: whenever the shop is open */
  @Maybe() @Span() sprayHours?: [string, string];
  /** absent: spraying is done indoors */
  @Since(8) @Sub(() => Outdoors) outdoors?: Outdoors;
  /** loud work (lasers with their extraction, compressors, sprays) only between these times; absent: whenever the shop is open */
  @Since(8) @Span() loudHours?: [string, string];
  /** places to dry at, one a piece; absent: as many as it takes */
  @Since(8) @Whole(1, 100_000) rackPlaces?: number;
  /** ovens, guns, jigs; absent while there are none */
  @Maybe() @SubList(() => Gear, 100) gear?: Gear[];
  /** ids of route rules that this shop does not go by */
  @Maybe() @TextList(60) routeRulesOff?: string[];
  /** what those rules weigh here, where it is not what they are given with */
  @Since(5) @SubList(() => RouteWeight, 600) routeWeights?: RouteWeight[];
  /** picks where makers disagree, `matter:pick` */
  @Maybe() @TextList(40) schools?: string[];
  /** lists of tone steps that are kept by name */
  @Since(5) @SubList(() => ToneList, 60) toneLists?: ToneList[];
  /** days with hours of their own: a long evening, an afternoon off */
  @Since(5) @SubList(() => DayHours, 400) otherHours?: DayHours[];
  /** has anybody set the hours, or are they still the default? */
  @Flag() hoursSet: boolean = false;
  @TextList(400) @LocalDate(true) daysOff: string[] = [];
  @Sub(() => Climate) climate: Climate = new Climate();
  @TextList(60) tools: string[] = [];
  @SubList(() => Learned, 100) learned: Learned[] = [];
  /** default tolerance of colour, CIEDE2000: 2 strict, 4 ordinary */
  @Num(0.5, 20) tolerance: number = 4;
  @OrNull() @Id() demo: string | null = null;
  @Since(7) @Sub(() => Rates) rates?: Rates;
  /** blanks that lie here; absent: nobody counts them */
  @Since(7) @SubList(() => BlankLot, 500) blanks?: BlankLot[];
  /** what this shop has learned the hard way; absent: nothing is written down */
  @Since(7) @SubList(() => Lesson, 1000) lessons?: Lesson[];
  /** exercises that were done; absent: none */
  @Since(7) @SubList(() => Practised, 200) practised?: Practised[];
}

const WEEKDAYS = ["mon", "tue", "wed", "thu", "fri", "sat", "sun"];
/**
 * Version 0 had one opening time for all days (`open`, `close`, `days`), and its climate was two bare numbers. Nothing is dropped.
 */
function hoursByDay(old: Raw): Raw {
  const { open, close, days, tempC, humidity, ...rest } = old;
  const working = Array.isArray(days) ? (days as string[]) : WEEKDAYS.slice(0, 5);
  const hours = Object.fromEntries(
    WEEKDAYS.map((d) => [d, working.includes(d) ? [open ?? "09:00", close ?? "18:00"] : null]),
  );
  return {
    id: "shop",
    name: "My shop",
    units: "metric",
    currency: "EUR",
    language: "en",
    zone: "UTC",
    hoursSet: open !== undefined,
    daysOff: [],
    tools: [],
    learned: [],
    tolerance: 4,
    demo: null,
    ...rest,
    hours,
    climate: {
      kind: "constant",
      c: tempC ?? 20,
      rh: humidity ?? 0.5,
      hourly: [],
      air: "still",
      measured: tempC !== undefined,
    },
  };
}

export const SHOP: RecordKind<Shop> = {
  name: "shop",
  type: Shop,
  version: 1,
  migrations: [
    { to: 1, name: "shop: hours by weekday, climate as a curve", needs: ["tempC", "humidity"], of: hoursByDay },
  ],
};
