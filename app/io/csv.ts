/**
 * Logs and Shelf as CSV, out and in. Units stand in the headers; a cell that a spreadsheet would take for a formula is kept as text
 * by a leading apostrophe, which is taken off again on the way in. What is unknown is an empty cell, never 0.
 */
import Papa from "papaparse";
import { isFinish } from "../core/catalogue/finishes";
import type { ToBuy } from "../core/explain/shopping";
import { LogEntry } from "../core/records/log";
import { check, type Fault } from "../core/records/parse";
import { Can, DryTimes, Product } from "../core/records/product";
import type { ZonedClock } from "../core/time/zoned";

export type CsvRead<T> = { ok: true; rows: T[] } | { ok: false; faults: Fault[] };
/** larger files are refused before they are parsed, bytes */
export const CSV_LIMIT = 50_000_000;

const RISKY = /^['=+\-@\t\r]/;
const safe = (v: unknown): string | number | boolean =>
  v === null || v === undefined
    ? ""
    : typeof v === "string" && RISKY.test(v)
      ? `'${v}`
      : (v as string | number | boolean);
const plain = (v: string): string => (v.startsWith("'") && RISKY.test(v.slice(1)) ? v.slice(1) : v);

const write = (columns: string[], rows: unknown[][]): string =>
  `${Papa.unparse({ fields: columns, data: rows.map((r) => r.map(safe)) }, { newline: "\r\n" })}\r\n`;

/** Rows by their headers, or every fault with its line. @param maybe columns that a file may lack */
function read(text: string, columns: string[], maybe: string[] = []): CsvRead<Record<string, string>> {
  if (text.length > CSV_LIMIT)
    return { ok: false, faults: [{ path: "", message: `the file is larger than ${CSV_LIMIT / 1e6} MB` }] };
  const got = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    delimiter: "",
  });
  const have = got.meta.fields ?? [];
  const missing = columns.filter((c) => !have.includes(c));
  if (missing.length)
    return {
      ok: false,
      faults: [
        {
          path: "line 1",
          message: `the column${missing.length === 1 ? "" : "s"} ${missing
            .slice(0, 4)
            .map((c) => `“${c}”`)
            .join(", ")} ${missing.length === 1 ? "is" : "are"} missing`,
        },
      ],
    };
  const bad = got.errors.filter((e) => e.code !== "UndetectableDelimiter");
  if (bad.length)
    return {
      ok: false,
      faults: bad.slice(0, 20).map((e) => ({
        path: `line ${(e.row ?? 0) + 2}`,
        message:
          e.code === "TooFewFields"
            ? "has too few cells"
            : e.code === "TooManyFields"
              ? "has too many cells"
              : "has a quote that does not end",
      })),
    };
  return {
    ok: true,
    rows: got.data.map((r) => Object.fromEntries([...columns, ...maybe].map((c) => [c, plain(r[c] ?? "")]))),
  };
}

const numberOf = (v: string, where: string, faults: Fault[]): number | null => {
  if (v.trim() === "") return null;
  const n = Number(v.trim());
  if (!Number.isFinite(n)) faults.push({ path: where, message: `“${v.slice(0, 30)}” is not a number` });
  return Number.isFinite(n) ? n : null;
};
const textOrNull = (v: string): string | null => (v === "" ? null : v);

// --- the bench log ------------------------------------------------------------------------------------------------

const LOG: [string, keyof LogEntry][] = [
  ["id", "id"],
  ["job", "jobId"],
  ["kind", "kind"],
  ["step", "step"],
  ["minute (UTC, since 1970)", "at"],
  ["piece", "piece"],
  ["look", "answer"],
  ["takes back", "of"],
  ["predicted (min)", "predicted"],
  ["actual (min)", "actual"],
  ["step kind", "stepKind"],
  ["used (ml)", "ml"],
  ["product", "productId"],
  ["air (°C)", "c"],
  ["humidity (0-1)", "rh"],
  ["note", "note"],
];
/** a column that is there where something was ticked off before a step */
const TICKED = "ticked off";
const LOG_NUMBERS: (keyof LogEntry)[] = ["at", "piece", "predicted", "actual", "ml", "c", "rh"];

/** @param clock for the readable local time beside the exact minute; that column is not read back */
export function writeLogCsv(log: LogEntry[], clock: ZonedClock): string {
  const ticks = log.some((e) => e.tick !== undefined);
  const columns = [...LOG.map(([c]) => c), ...(ticks ? [TICKED] : []), "local time"];
  return write(
    columns,
    log.map((e) => [...LOG.map(([, k]) => e[k]), ...(ticks ? [e.tick] : []), clock.toLocal(Math.floor(e.at))]),
  );
}

/** @param jobs ids that entries may belong to */
export function readLogCsv(text: string, jobs: ReadonlySet<string>): CsvRead<LogEntry> {
  const got = read(
    text,
    LOG.map(([c]) => c),
    [TICKED],
  );
  if (!got.ok) return got;
  const faults: Fault[] = [];
  const seen = new Set<string>();
  const rows = got.rows.map((r, i) => {
    const where = `line ${i + 2}`;
    const e: Record<string, unknown> = { version: 1 };
    for (const [c, k] of LOG)
      e[k] = LOG_NUMBERS.includes(k)
        ? numberOf(r[c], `${where}, ${c}`, faults)
        : ["answer", "of", "productId"].includes(k)
          ? textOrNull(r[c])
          : r[c];
    if (r[TICKED]) e.tick = r[TICKED];
    const c = check(LogEntry, e, where);
    if (!c.ok) faults.push(...c.faults);
    else {
      if (!jobs.has(c.value.jobId))
        faults.push({ path: `${where}, job`, message: `there is no job “${c.value.jobId}” here` });
      if (seen.has(c.value.id)) faults.push({ path: `${where}, id`, message: `“${c.value.id}” is there twice` });
      seen.add(c.value.id);
      return c.value;
    }
    return null;
  });
  return faults.length ? { ok: false, faults } : { ok: true, rows: rows as LogEntry[] };
}

// --- the Shelf: a line a can; a product without cans has one line with the can's cells empty ------------------------

const PRODUCT: [string, keyof Product][] = [
  ["id", "id"],
  ["name", "name"],
  ["finish", "finish"],
  ["colour", "colour"],
  ["clear", "clear"],
  ["sheen", "sheen"],
  ["base", "base"],
  ["hides at (µm)", "hideUm"],
  ["coat, dry (µm)", "coatUm"],
  ["volume solids (0-1)", "solids"],
  ["dries from (°C)", "minC"],
  ["holds chlorine", "chlorinated"],
  ["food rated", "foodRated"],
  ["figures from", "origin"],
  ["note", "note"],
];
const TIMES: [string, keyof DryTimes][] = [
  ["flash (min)", "flash"],
  ["touch (min)", "touch"],
  ["recoat (min)", "recoat"],
  ["window shuts (min)", "closes"],
  ["window reopens (min)", "reopens"],
  ["maskable (min)", "maskable"],
  ["sandable (min)", "sandable"],
  ["laser-safe (min)", "laserSafe"],
  ["cured (min)", "cured"],
];
const CAN: [string, keyof Can][] = [
  ["can", "id"],
  ["can mark", "label"],
  ["can full (ml)", "fullMl"],
  ["can left (ml)", "leftMl"],
  ["can weighs full (g)", "fullG"],
  ["can weighs now (g)", "nowG"],
  ["can weighs empty (g)", "emptyG"],
  ["can opened", "openedOn"],
  ["can lot", "lot"],
];
const NUMBERS = new Set<string>(["hideUm", "coatUm", "solids", "minC", "fullMl", "leftMl", "fullG", "nowG", "emptyG"]);
const FLAGS = new Set<string>(["clear", "foodRated", "chlorinated"]);
const NULLABLE = new Set<string>(["sheen", "base", "openedOn", "chlorinated"]);

export function writeShelfCsv(products: Product[]): string {
  const columns = [...PRODUCT, ...TIMES, ...CAN].map(([c]) => c);
  const rows = products.flatMap((p) => {
    const head = [...PRODUCT.map(([, k]) => p[k]), ...TIMES.map(([, k]) => p.times[k])];
    return p.cans.length
      ? p.cans.map((c) => [...head, ...CAN.map(([, k]) => c[k])])
      : [[...head, ...CAN.map(() => null)]];
  });
  return write(columns, rows);
}

export function readShelfCsv(text: string): CsvRead<Product> {
  const got = read(
    text,
    [...PRODUCT, ...TIMES, ...CAN].map(([c]) => c),
  );
  if (!got.ok) return got;
  const faults: Fault[] = [];
  const byId = new Map<
    string,
    { product: Record<string, unknown> & { cans: unknown[] }; where: string; head: string }
  >();
  const cell = (r: Record<string, string>, c: string, k: string, where: string): unknown => {
    const v = r[c];
    if (NUMBERS.has(k)) return numberOf(v, `${where}, ${c}`, faults);
    if (FLAGS.has(k)) {
      const t = v.trim().toLowerCase();
      if (t === "" && NULLABLE.has(k)) return null;
      if (t !== "true" && t !== "false") faults.push({ path: `${where}, ${c}`, message: "must be true or false" });
      return t === "true";
    }
    return NULLABLE.has(k) ? textOrNull(v) : v;
  };
  got.rows.forEach((r, i) => {
    const where = `line ${i + 2}`;
    const head = [...PRODUCT, ...TIMES].map(([c]) => r[c]).join("\u0000");
    const known = byId.get(r.id);
    if (known && known.head !== head)
      faults.push({ path: where, message: `says other things of “${r.id}” than ${known.where}` });
    const at = known ?? {
      where,
      head,
      product: {
        ...new Product(),
        ...Object.fromEntries(PRODUCT.map(([c, k]) => [k, cell(r, c, k, where)])),
        times: Object.fromEntries(TIMES.map(([c, k]) => [k, numberOf(r[c], `${where}, ${c}`, faults)])),
        cans: [] as unknown[],
      } as Record<string, unknown> & { cans: unknown[] },
    };
    byId.set(r.id, at);
    if (r.can !== "") at.product.cans.push(Object.fromEntries(CAN.map(([c, k]) => [k, cell(r, c, k, where)])));
  });
  const rows: Product[] = [];
  for (const { product, where } of byId.values()) {
    const c = check(Product, product, where);
    if (!c.ok) faults.push(...c.faults);
    else if (!isFinish(c.value.finish))
      faults.push({ path: `${where}, finish`, message: `“${c.value.finish}” is not a finish` });
    else rows.push(c.value);
  }
  return faults.length ? { ok: false, faults } : { ok: true, rows };
}

/** What has to be bought, a line each. */
export const writeShopping = (t: ToBuy): string =>
  write(
    ["what", "kind", "needed", "on the Shelf", "buy", "for"],
    [
      ...t.paints.map((p) => [
        p.name,
        p.finish,
        p.takes,
        p.has ?? "",
        p.cans === null ? "" : p.cans === 0 ? "nothing" : `${p.cans} × ${p.can}`,
        p.jobs,
      ]),
      ...t.blanks.map((b) => [b.name, "blank", b.pieces, b.has ?? "", b.buy, b.jobs]),
    ],
  );

/** Any table: a row a line. */
export const writeTable = (columns: string[], rows: unknown[][]): string => write(columns, rows);
