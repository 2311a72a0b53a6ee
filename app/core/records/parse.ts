/** One gate for forms, files and the store: a plain object goes in, a sound plain record or a list of faults comes out. */
import { plainToInstance } from "class-transformer";
import { validateSync, type ValidationError } from "class-validator";
import { fieldsOf } from "./fields";

export interface Fault {
  /** Where, such as `jobs[0].substrate.w`. */
  path: string;
  message: string;
}
export type Checked<T> = { ok: true; value: T } | { ok: false; faults: Fault[] };

/** as much of a name out of a file as a sentence quotes */
const QUOTED = 60;
const quoted = (key: string): string => (key.length > QUOTED ? `${key.slice(0, QUOTED)}…` : key);
const join = (base: string, key: string): string =>
  /^\d{1,9}$/.test(key) ? `${base}[${key}]` : base ? `${base}.${quoted(key)}` : quoted(key);

function collect(errors: ValidationError[], base: string, out: Fault[]): Fault[] {
  for (const e of errors) {
    const path = join(base, e.property);
    for (const [rule, message] of Object.entries(e.constraints ?? {}))
      out.push({ path, message: rule === "whitelistValidation" ? "is not a field of this record" : message });
    if (e.children?.length) collect(e.children, path, out);
  }
  return out;
}

/** Where a value is nested too deep or has a reserved key, from the inside out; null: nowhere. */
function dangerIn(value: unknown, depth: number): { keys: string[]; message: string } | null {
  if (depth > 40) return { keys: [], message: "is nested too deeply" };
  if (value === null || typeof value !== "object") return null;
  for (const key of Object.keys(value)) {
    if (key === "__proto__" || key === "constructor" || key === "prototype")
      return { keys: [key], message: "is not a field of this record" };
    const inner = dangerIn((value as Record<string, unknown>)[key], depth + 1);
    if (inner) return { keys: [...inner.keys, key], message: inner.message };
  }
  return null;
}
/** Objects deeper or with reserved keys never reach the transformer. */
export function unsafe(value: unknown, at = ""): Fault | null {
  const found = dangerIn(value, 0);
  return found && { path: found.keys.reduceRight(join, at), message: found.message };
}

/** so many faults are looked for; whoever reads them mends the first ones */
const ENOUGH = 500;

/** Fields that are left out, here and in all that is held: none is filled in behind the maker's back. */
function leftOut(type: new () => object, value: unknown, at: string, out: Fault[] = []): Fault[] {
  if (value === null || typeof value !== "object" || out.length >= ENOUGH) return out;
  if (Array.isArray(value)) {
    for (let i = 0; i < value.length && out.length < ENOUGH; i++) leftOut(type, value[i], join(at, String(i)), out);
    return out;
  }
  for (const [key, f] of fieldsOf(type)) {
    const held = (value as Record<string, unknown>)[key];
    if (held === undefined && !f.maybe) out.push({ path: join(at, key), message: "is missing" });
    else if (f.holds) leftOut(f.holds(), held, join(at, key), out);
  }
  return out;
}

/** Lists longer than they may be, here and in all that is held: told before anything in them is looked at. */
export function tooLong(type: new () => object, value: unknown, at: string): Fault[] {
  if (value === null || typeof value !== "object") return [];
  return [...fieldsOf(type)].flatMap(([key, { holds, most }]) => {
    const held = (value as Record<string, unknown>)[key];
    if (!holds || held === null || typeof held !== "object") return [];
    const path = join(at, key);
    if (!Array.isArray(held)) return tooLong(holds(), held, path);
    if (held.length > most) return [{ path, message: `must hold at most ${most} records` }];
    return held.flatMap((x, i) => tooLong(holds(), x, join(path, String(i))));
  });
}

/**
 * Validate a plain value as a record.
 * @param absent what a field that is left out means: a fault, as in every record that is kept; or its default, as in what is
 * written by hand for the scheduler
 * @returns a fresh plain object holding exactly the record's fields, or every fault with its path
 */
export function check<T extends object>(
  type: new () => T,
  value: unknown,
  at = "",
  absent: "fault" | "default" = "fault",
): Checked<T> {
  if (value === null || typeof value !== "object" || Array.isArray(value))
    return { ok: false, faults: [{ path: at, message: "must be an object" }] };
  const danger = unsafe(value, at);
  if (danger) return { ok: false, faults: [danger] };
  const long = tooLong(type, value, at);
  if (long.length) return { ok: false, faults: long };
  const missing = absent === "fault" ? leftOut(type, value, at) : [];
  if (missing.length >= ENOUGH) return { ok: false, faults: missing };
  const made = plainToInstance(type, value);
  const told = new Set(missing.map((f) => f.path));
  const wrong = collect(
    validateSync(made, {
      whitelist: true,
      forbidNonWhitelisted: true,
      forbidUnknownValues: true,
      stopAtFirstError: true,
    }),
    at,
    [],
  ).filter((f) => !told.has(f.path));
  const faults = [...missing, ...wrong];
  return faults.length ? { ok: false, faults } : { ok: true, value: JSON.parse(JSON.stringify(made)) as T };
}

/** As {@link check}, for what a form sends: fields that the class does not know are passed over, not refused. */
export function checkForm<T extends object>(type: new () => T, value: Record<string, string>): Checked<T> {
  const made = plainToInstance(type, { ...value });
  const faults = collect(
    validateSync(made, { whitelist: true, forbidUnknownValues: false, stopAtFirstError: true }),
    "",
    [],
  );
  return faults.length ? { ok: false, faults } : { ok: true, value: made };
}

/** As {@link check}, for a programmer's own records. @throws Error that lists the faults */
export function must<T extends object>(type: new () => T, value: unknown): T {
  const r = check(type, value);
  if (!r.ok) throw new Error(`${type.name}: ${sayFaults(r.faults)}`);
  return r.value;
}

export const sayFaults = (faults: Fault[], most = 5): string =>
  faults
    .slice(0, most)
    .map((f) =>
      f.path ? `${f.path} ${f.message}` : f.message.startsWith("the ") ? f.message : `the record ${f.message}`,
    )
    .join("; ") + (faults.length > most ? `; and ${faults.length - most} more` : "");
