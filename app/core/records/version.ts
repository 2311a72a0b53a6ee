/**
 * Versions of records. A record's `version` is its major one: its shape changed, and named migrations beside the record bring an
 * older one up. An added field raises the minor one: it says `@Since(n)`, and a record that uses it carries `minor` in a file, so
 * that an older Rich Layer says in a sentence that it is too old, while a record that does not use it stays readable there.
 */
import { fieldsOf } from "./fields";

export type Raw = Record<string, unknown>;
/** An object, or an empty one in its place: what is wrong with it the validators say. */
export const raw = (v: unknown): Raw => (v && typeof v === "object" && !Array.isArray(v) ? (v as Raw) : {});
export const raws = (v: unknown): Raw[] => (Array.isArray(v) ? v.map(raw) : []);

/** One way up, from version `to` − 1. */
export interface Migration {
  to: number;
  name: string;
  /** fields that a file of before must have: what is missing is told before anything is converted */
  needs: readonly string[];
  of(old: Raw): Raw;
}
/** A kind of record: what a sentence calls it, its class, its versions. */
export interface RecordKind<T extends object = object> {
  name: string;
  type: new () => T;
  version: number;
  migrations: readonly Migration[];
}

/** How often each migration has run in this process, by its name: a test fails if one never did. */
export const ran = new Map<string, number>();

/** The newest minor version of a class and of all that it holds. */
export const newestMinor = (type: new () => object): number =>
  Math.max(0, ...[...fieldsOf(type).values()].map((f) => Math.max(f.since, f.holds ? newestMinor(f.holds()) : 0)));

/** The minor version whose fields a record really uses. */
export function usedMinor(type: new () => object, value: unknown): number {
  if (value === null || typeof value !== "object") return 0;
  if (Array.isArray(value)) return value.reduce<number>((most, v) => Math.max(most, usedMinor(type, v)), 0);
  let most = 0;
  for (const [key, f] of fieldsOf(type)) {
    const v = (value as Raw)[key];
    if (v === undefined) continue;
    most = Math.max(most, f.since, f.holds ? usedMinor(f.holds(), v) : 0);
  }
  return most;
}

/** How a record names itself in a sentence. */
const called = (kind: RecordKind, r: Raw): string => {
  const name = r.title ?? r.name ?? r.id;
  return typeof name === "string" && name ? `the ${kind.name} “${name.slice(0, 60)}”` : `the ${kind.name}`;
};

/**
 * A record out of a file or an older database, brought up to today's version.
 * @param from its version where it says none itself
 * @param missing told of fields that its own version needs and that it lacks; absent: an older database, which is taken as it is
 * @throws Error with a sentence where a newer Rich Layer wrote it, or where no migration leads on
 */
export function broughtUp(kind: RecordKind, old: Raw, from: number, missing?: (field: string) => void): Raw {
  const whole = (v: unknown): number => (Number.isInteger(v) && (v as number) >= 0 ? (v as number) : Number.NaN);
  let version = whole(old.version ?? from);
  const minor = whole(old.minor ?? 0);
  if (Number.isNaN(version + minor))
    throw new Error(`${called(kind, old)} has no version that can be read: version and minor are whole numbers`);
  const newest = newestMinor(kind.type);
  if (version > kind.version || (version === kind.version && minor > newest))
    throw new Error(
      `${called(kind, old)} was written by a newer Rich Layer (version ${version}.${minor}; this one reads a ${kind.name} ` +
        `up to ${kind.version}.${newest}). Update this one and try again`,
    );
  const { minor: _, ...now } = old;
  let record: Raw = now;
  while (version < kind.version) {
    const way = kind.migrations.find((m) => m.to === version + 1);
    if (!way) throw new Error(`${called(kind, old)} is of version ${version}, from which no way leads on`);
    if (missing) way.needs.filter((f) => record[f] === undefined).forEach(missing);
    record = { ...way.of(record), version: way.to };
    ran.set(way.name, (ran.get(way.name) ?? 0) + 1);
    version = way.to;
  }
  return record;
}

/** A record as a file carries it: with the minor version that it needs, where it needs one. */
export function stamped<T extends object>(kind: RecordKind<T>, record: T): T & { minor?: number } {
  const minor = usedMinor(kind.type, record);
  return minor ? { ...record, minor } : record;
}
