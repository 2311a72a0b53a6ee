/**
 * An act: what a form may hold, as a class with validators, and what is then done. Acts stand in families, a file each; a screen's
 * action hands its form to the families that it knows. Everything in a form is text; what it means is read by the act.
 */
import "reflect-metadata";
import { checkForm, sayFaults, type Fault } from "../core/records/parse";
import { Text } from "../core/records/fields";
import { said } from "../core/units/said";
import type { UnitSystem } from "../core/units/show";
import type { Outcome } from "../core/records/outcome";
import { Refused } from "../store/acts";
import { answer } from "./answer";

/** the longest text that a plain field of a form may hold */
export const LONG = 4000;
/** a drawing, a file or a photo, as text */
export const HUGE = 300_000_000;

export interface Act<C> {
  intent: string;
  run(raw: Record<string, string>, c: C): Promise<string | void>;
}

/** @param form the form's class: fields of text with validators, each with what it is where the form leaves it out */
export const act = <F extends object, C>(
  intent: string,
  form: new () => F,
  run: (f: F, c: C) => Promise<string | void>,
): Act<C> => ({
  intent,
  run: async (raw, c) => {
    const read = checkForm(form, raw);
    if (!read.ok) throw new Refused(toldOf(read.faults));
    return run(read.value, c);
  },
});

/** What readers say of a field is a sentence already; other faults name the field. */
const toldOf = (faults: Fault[]): string =>
  faults.every((f) => f.message.endsWith("."))
    ? faults.map((f) => f.message).join(" ")
    : `This form can’t be read: ${sayFaults(faults)}.`;

/** A form with nothing in it but what shall be done. */
export class Bare {}
/** One field of a record set to what was typed. */
export class FieldForm {
  @Text(60) field: string = "";
  @Text(LONG) value: string = "";
}

/** A refusal in the units that its reader types in; what he typed stands as he typed it. */
const toldIn = (why: string, units: UnitSystem): string =>
  why.replace(/“[^”]*”|[^“]+/g, (part) => (part.startsWith("“") ? part : said(part, units)));

/**
 * The act that a form asks for, found in its families and done; what it comes to, in words.
 * @param units that figures are typed in there
 */
export const perform = <C>(
  families: Act<C>[][],
  raw: Record<string, string>,
  c: () => Promise<C>,
  units: (c: C) => UnitSystem = () => "metric",
): Promise<Outcome> =>
  answer(raw.field, async () => {
    const found = families.flat().find((a) => a.intent === raw.intent);
    if (!found) throw new Refused(`There is no act “${raw.intent}”.`);
    const on = await c();
    try {
      return await found.run(raw, on);
    } catch (e) {
      if (e instanceof Refused) e.message = toldIn(e.message, units(on));
      throw e;
    }
  });

/** How each field of a record is read from text, by its name. */
export type Readers<T, C = void> = Record<string, (v: string, c: C) => Partial<T>>;
/** @throws Refused when there is no such field */
export function readField<T, C>(readers: Readers<T, C>, f: FieldForm, c: C): Partial<T> {
  if (!Object.hasOwn(readers, f.field)) throw new Refused(`There is nothing called “${f.field}” here.`);
  return readers[f.field](f.value, c);
}

/** An id out of a name: small letters, digits and dashes, and a number where it is taken. */
export function freeId(name: string, taken: Iterable<string>, otherwise: string): string {
  const slug = name
    .toLowerCase()
    .normalize("NFKD")
    .replace(/[^a-z0-9]+/g, "-")
    .replace(/^-|-$/g, "")
    .slice(0, 60);
  const base = slug || otherwise;
  const all = new Set(taken);
  for (let n = 1; ; n++) {
    const id = n === 1 ? base : `${base}-${n}`;
    if (!all.has(id)) return id;
  }
}
/** @throws Refused when it is no colour */
export function colourOf(v: string): string {
  const c = v.trim().toLowerCase();
  if (!/^#[0-9a-f]{6}$/.test(c)) throw new Refused(`“${v}” is not a colour such as #a1b2c3.`);
  return c;
}
/** yes, no, or nothing said */
export const tri = (t: string): boolean | null => (t === "" ? null : t === "true");
/** a switch that is absent while it is off */
export const yes = (t: string): true | undefined => (t === "true" ? true : undefined);
/** a list with one thing in it or not; absent where nothing is left */
export function toggled(list: string[] | undefined, id: string, on: boolean): string[] | undefined {
  const rest = (list ?? []).filter((x) => x !== id);
  const next = on ? [...rest, id] : rest;
  return next.length ? next : undefined;
}
