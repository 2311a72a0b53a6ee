/**
 * Forms of several fields, as a screen fills them in and an act takes them: one class for both, so that what is said beside a field is
 * what would be said when it is stored. Everything typed is text; a reader says whether it can be read.
 */
import { IsNotEmpty, Matches, ValidateBy } from "class-validator";
import { parseInterval, parseLength, parseNumber, parseSpeed, parseTemperature, type Parsed } from "../units/parse";
import { all, OneOf, Text } from "./fields";
import { BEAMS, FLAWS, PLATE_QUESTIONS, type Beam, type PlateQuestion } from "./ids";
import { GEAR_WORDS, type Gear } from "./shop";

/** What stands for what may be left empty. */
const optional = (read: (t: string) => Parsed) => (t: string) =>
  t.trim() === "" ? ({ ok: true, value: 0 } as Parsed) : read(t);
/** Text that this reader takes; what it says of other text stands beside the field. */
export const Reads = (read: (t: string) => Parsed): ReturnType<typeof all> =>
  all(
    Text(60),
    ValidateBy({
      name: "reads",
      validator: {
        validate: (v) => typeof v === "string" && read(v).ok,
        defaultMessage: (a) => {
          const r = read(String(a?.value ?? ""));
          return r.ok ? "must be text" : r.error;
        },
      },
    }),
  );
/** Text that must not be empty; @param say what is asked for, in a sentence */
const Filled = (max: number, say: string): ReturnType<typeof all> =>
  all(Text(max), IsNotEmpty({ message: say }), Matches(/\S/, { message: say }));
const TypedColour = (): ReturnType<typeof all> =>
  all(Text(20), Matches(/^\s*#[0-9a-f]{6}\s*$/i, { message: "That is not a colour such as #a1b2c3." }));

const within =
  (read: (t: string) => Parsed, good: (n: number) => boolean, say: string) =>
  (t: string): Parsed => {
    const r = read(t);
    return r.ok && !good(r.value) ? { ok: false, error: say } : r;
  };
/** watts of a machine that engraves */
const watts = within(parseNumber, (n) => n > 0 && n <= 2000, "A laser has more than 0 and at most 2,000 watts.");
const whole = (from: number, to: number) =>
  within(
    parseNumber,
    (n) => Number.isInteger(n) && n >= from && n <= to,
    `That is not a whole number from ${from} to ${to.toLocaleString("en")}.`,
  );
const percent = (say: string) =>
  within(
    (t) => parseNumber(t.trim() && !t.includes("%") ? `${t} %` : t),
    (n) => n >= 0 && n <= 1,
    say,
  );

export class MachineForm {
  @OneOf(BEAMS) beam!: Beam;
  @Reads(watts) watts!: string;
  @Text(80) name: string = "";
}
export class PaintForm {
  @Filled(80, "Give it a name that you find on its can.") name!: string;
  @Text(60) finish!: string;
  @TypedColour() colour!: string;
  /** the zone that gets it; empty: none */
  @Text(120) zone: string = "";
}
export class GearForm {
  @OneOf(Object.keys(GEAR_WORDS)) kind!: Gear["kind"];
  @Text(80) name: string = "";
}
const length =
  (units: "mm" | "in" = "mm") =>
  (t: string) =>
    parseLength(t, units);
/** Pockets of a jig: how many, how large, where the first one lies on the bed. */
export class PocketsForm {
  @Text(120) id!: string;
  @Reads(whole(1, 200)) across!: string;
  @Reads(whole(1, 200)) down!: string;
  @Reads(length()) w!: string;
  @Reads(length()) h!: string;
  @Reads(length()) gap!: string;
  @Reads(optional(length())) x: string = "";
  @Reads(optional(length())) y: string = "";
}
/** Blanks that came: figures are read again in the shop’s units and currency by the act. */
export class LotForm {
  @Filled(80, "Give the blanks a name, such as “beech markers, spring lot”.") name!: string;
  @Text(60) substrate!: string;
  @Reads(length()) w!: string;
  @Reads(length()) h!: string;
  @Reads(length()) t!: string;
  @Reads(optional(length())) diameter: string = "";
  @Reads(whole(1, 1_000_000)) came!: string;
  @Text(40) each: string = "";
}
export class LessonForm {
  @Filled(400, "Say what is to be done otherwise.") text!: string;
  @Text(60) kind!: string;
  /** empty: on any, by any way, with any */
  @Text(60) substrate: string = "";
  @Text(10) route: string = "";
  @Text(120) productId: string = "";
  @Text(120) jobId: string = "";
}
/** A range of cells, such as “20 to 80 %” and how many. */
export class TestForm {
  @OneOf(PLATE_QUESTIONS) question!: PlateQuestion;
  @Filled(60, "Say from which power to which, such as 20 to 80 %.") powers!: string;
  @Reads(whole(1, 12)) rows!: string;
  @Filled(60, "Say from which speed to which, such as 100 to 400 mm/s.") speeds!: string;
  @Reads(whole(1, 12)) cols!: string;
  @OneOf(["geometric", "linear"]) spacing: "geometric" | "linear" = "geometric";
  @Reads(parseInterval) interval!: string;
  @Reads(whole(1, 50)) passes: string = "1";
  @Reads(length()) cellMm: string = "8 mm";
  @Reads(length()) gapMm: string = "2 mm";
  @OneOf(["square", "drawing"]) shows: "square" | "drawing" = "square";
  @Reads(optional(length())) scrapW: string = "";
  @Reads(optional(length())) scrapH: string = "";
}
/** How far off a piece lay when it was put back. */
export class OffForm {
  @Text(120) step!: string;
  @Reads(length()) mm!: string;
}
/** The same in another size. */
export class SizeForm {
  @Reads(length()) w!: string;
  @Reads(length()) h!: string;
  @Reads(whole(1, 100_000)) pieces!: string;
}
export class RejectForm {
  @Text(120) id!: string;
  @Reads(whole(1, 1_000_000)) n!: string;
  @Filled(200, "Say why: knot, warp, chip, wrong size.") why!: string;
}
export class NewJobForm {
  @Filled(120, "A job needs a title that tells it from others.") title!: string;
  @Text(120) client: string = "";
}
/** A kind of piece that a job begins with. */
export class KindForm {
  @Filled(120, "Choose the kind of piece.") kind!: string;
}
/** An earlier job once more. */
export class AgainForm {
  @Filled(120, "Choose the job that is to be made again.") from!: string;
  @Reads(optional(whole(1, 100_000))) pieces: string = "";
  /** as a maker types it; empty: no date */
  @Text(60) due: string = "";
  /** whether 3/4 is the third of April where it is typed */
  @OneOf(["true", "false"]) dayFirst: string = "true";
}
export class FlawForm {
  @OneOf(FLAWS) flaw!: (typeof FLAWS)[number];
  @Text(120) zone: string = "";
  @Reads(optional(whole(1, 100_000))) piece: string = "";
  @OneOf(["1", "2", "3"]) severity: string = "1";
  @Text(4000) note: string = "";
}
export class PlateForm {
  @Reads(percent("Power lies between 0 and 100 %.")) power!: string;
  /** a share of the top speed is read where the machine is known */
  @Reads((t) => (/%\s*$/.test(t) ? parseNumber(t) : parseSpeed(t))) speed!: string;
  @Reads(parseInterval) interval!: string;
  @Reads(optional(whole(1, 100))) passes: string = "1";
  @Matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, { message: "must be a local time such as 2027-01-11T08:00" }) at!: string;
  @Text(400) note: string = "";
}
/** what a swatch was looked at in */
export const SEEN_WHEN = ["dry", "wet", "after clear"] as const;
export class SwatchForm {
  @Text(120) id!: string;
  @TypedColour() over!: string;
  @TypedColour() seen!: string;
  @Reads(whole(1, 50)) coats: string = "1";
  @OneOf(SEEN_WHEN) when: (typeof SEEN_WHEN)[number] = "dry";
}
export class ReadingForm {
  @Reads(optional(parseTemperature)) c: string = "";
  @Reads(optional(percent("Humidity lies between 0 and 100 %."))) rh: string = "";
  /** not empty: the sensor is asked */
  @Text(20) sensor: string = "";
}
