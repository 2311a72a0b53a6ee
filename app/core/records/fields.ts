/** Field validators shared by all records: each is one word on a field and one plain sentence when it fails. */
import "reflect-metadata";
import { Type } from "class-transformer";
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateIf,
  ValidateNested,
} from "class-validator";

export type Deco = (target: object, key: string) => void;

/** What is known of a record's field besides its validators. */
export interface Field {
  /** may be left out of a file */
  maybe: boolean;
  /** minor version of its record in which it was added */
  since: number;
  /** the record, or the records, that it holds */
  holds: (() => new () => object) | null;
  /** records of a list at most */
  most: number;
}
const FIELDS = new WeakMap<object, Map<string, Field>>();
/** The fields of a record's class, by name. */
export function fieldsOf(type: new () => object): ReadonlyMap<string, Field> {
  const found = FIELDS.get(type.prototype as object);
  return found ?? new Map<string, Field>();
}
function note(target: object, key: string, more: Partial<Field>): void {
  const fields = FIELDS.get(target) ?? new Map<string, Field>();
  FIELDS.set(
    target,
    fields.set(key, { maybe: false, since: 0, holds: null, most: Infinity, ...fields.get(key), ...more }),
  );
}

/** Validators of one field, taken together as a field of the record. */
export const all =
  (...parts: Deco[]): Deco =>
  (target, key) => {
    note(target, key, {});
    parts.forEach((p) => p(target, key));
  };
const finite = { allowNaN: false, allowInfinity: false };

/** A number within [min, max]. @param unit that it is in, as its refusal says it */
export const Num = (min = -1e9, max = 1e9, unit = ""): Deco => {
  const of = unit && ` ${unit}`;
  return all(
    IsNumber(finite, { message: "must be a number" }),
    Min(min, { message: `must be at least ${min}${of}` }),
    Max(max, { message: `must be at most ${max}${of}` }),
  );
};
export const Whole = (min = 0, max = 1e9): Deco =>
  all(
    IsInt({ message: "must be a whole number" }),
    Min(min, { message: `must be at least ${min}` }),
    Max(max, { message: `must be at most ${max}` }),
  );
/** Unknown is allowed and stays null. */
export const OrNull = (): Deco => all(ValidateIf((_o, v) => v !== null));
/** Absent while nobody has said anything: files of before stay as they are. */
export const Maybe = (): Deco => (target, key) => {
  all(IsOptional())(target, key);
  note(target, key, { maybe: true });
};
/** Added in a minor version of its record: absent in files of before, and a file that has it says so. */
export const Since =
  (minor: number): Deco =>
  (target, key) => {
    Maybe()(target, key);
    note(target, key, { since: minor });
  };
export const Text = (max = 200): Deco =>
  all(IsString({ message: "must be text" }), MaxLength(max, { message: `must be at most ${max} characters` }));
export const Flag = (): Deco => all(IsBoolean({ message: "must be true or false" }));
export const OneOf = (values: readonly (string | number)[]): Deco =>
  all(IsIn(values as string[], { message: `must be one of ${values.join(", ")}` }));
export const Colour = (): Deco =>
  all(
    IsString({ message: "must be text" }),
    Matches(/^#[0-9a-f]{6}$/, { message: "must be a colour such as #a1b2c3" }),
  );
/** years that a job may lie in: an older or a later one is a slip of the pen */
const [FIRST_YEAR, LAST_YEAR] = [1990, 2199];
/** Is it a day that there is, in a year that people use? */
const realDay = (v: unknown): boolean => {
  if (typeof v !== "string") return false;
  const [y, m, d] = v.slice(0, 10).split("-").map(Number);
  return y >= FIRST_YEAR && y <= LAST_YEAR && new Date(Date.UTC(y, m - 1, d)).getUTCDate() === d;
};
const RealDay = (each = false): Deco =>
  ValidateBy(
    {
      name: "realDay",
      validator: {
        validate: realDay,
        defaultMessage: () => `must be a day that there is, of the years ${FIRST_YEAR} to ${LAST_YEAR}`,
      },
    },
    { each },
  );
/** A moment, minutes since 1970 UTC, to the last year that a job may lie in. */
export const Moment = (): Deco =>
  all(
    IsNumber(finite, { message: "must be a number" }),
    Min(0, { message: "must be a moment, minutes since 1970" }),
    Max((Date.UTC(LAST_YEAR + 1, 0) - 1) / 60_000, { message: `must be a moment before the year ${LAST_YEAR + 1}` }),
  );
/** Local minute, `2027-01-11T08:00`. */
export const LocalTime = (): Deco =>
  all(
    IsString({ message: "must be text" }),
    Matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d$/, {
      message: "must be a local time such as 2027-01-11T08:00",
    }),
    RealDay(),
  );
export const LocalDate = (each = false): Deco =>
  all(
    Matches(/^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { each, message: "must be a date such as 2027-01-11" }),
    RealDay(each),
  );
/** one corner of an outline, or its end */
const CORNER = /[ML]-?\d+(?:\.\d+)?[ ,]-?\d+(?:\.\d+)?|Z/g;
/** An outline of straight lines in mm, as `geometry/outline` writes it; empty: not known. */
export const Outline = (max: number): Deco =>
  all(
    Text(max),
    ValidateBy({
      name: "outline",
      validator: {
        validate: (v) => typeof v === "string" && (v === "" || (v.startsWith("M") && v.replace(CORNER, "") === "")),
        defaultMessage: () => "must be an outline of straight lines in mm, such as M0 0L20 0L20 10Z",
      },
    }),
  );
export const Id = (): Deco =>
  all(
    IsString({ message: "must be text" }),
    Matches(/^[a-z0-9][a-z0-9._:-]{0,119}$/, { message: "must be an id of small letters, digits, dot, dash" }),
  );
export const TextList = (max = 400): Deco =>
  all(
    IsArray({ message: "must be a list" }),
    ArrayMaxSize(max),
    IsString({ each: true, message: "must hold only text" }),
  );
export const NumList = (max = 4000): Deco =>
  all(
    IsArray({ message: "must be a list" }),
    ArrayMaxSize(max),
    IsNumber(finite, { each: true, message: "must hold only numbers" }),
  );
const holding =
  (make: () => new () => object, most: number, ...parts: Deco[]): Deco =>
  (target, key) => {
    all(...parts, Type(make))(target, key);
    note(target, key, { holds: make, most });
  };
export const Sub = (make: () => new () => object): Deco =>
  holding(make, Infinity, IsObject({ message: "must be an object" }), ValidateNested());
export const SubList = (make: () => new () => object, max = 5000): Deco =>
  holding(
    make,
    max,
    IsArray({ message: "must be a list" }),
    ArrayMaxSize(max, { message: `must hold at most ${max} records` }),
    ValidateNested({ each: true, message: "must hold only objects" }),
  );
/** Text, a finite number, true, false or null. */
export const Scalar = (): Deco =>
  all(
    ValidateBy({
      name: "scalar",
      validator: {
        validate: (v) =>
          v === null ||
          typeof v === "boolean" ||
          (typeof v === "string" && v.length <= 400) ||
          (typeof v === "number" && Number.isFinite(v)),
        defaultMessage: () => "must be text, a number, true, false or null",
      },
    }),
  );
