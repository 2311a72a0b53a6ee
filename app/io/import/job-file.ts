/** `*.richlayer.json` in: older versions migrate, every fault is named with its path, and what comes back is sound. */
import { fileBroughtUp, RichLayerFile } from "../../core/records/file";
import { check, tooLong, type Fault, unsafe } from "../../core/records/parse";
import { isFinish } from "../../core/catalogue/finishes";
import { isSubstrate } from "../../core/catalogue/substrates";
import { zonedClock } from "../../core/time/zoned";
import { mostChars } from "../../core/records/log";
import { worldAround, type World } from "../../core/records/world";

export type FileRead = { ok: true; file: RichLayerFile } | { ok: false; faults: Fault[] };
/** larger files are refused before they are parsed */
export const FILE_LIMIT = 200_000_000;

/** base64 that begins as a JPEG, PNG or WebP does */
const PICTURE = /^(?:\/9j\/|iVBORw0KGgo|UklGR)[A-Za-z0-9+/]*={0,2}$/;
/** the mark that stands for a picture beside the file in a zip */
const BESIDE = /^sha256:[0-9a-f]{64}$/;
/** What is wrong with a photo's data; null: it is a picture that can be stored, and written out again. */
export const photoFault = (data: string, id: string): string | null =>
  !PICTURE.test(data)
    ? "is not a JPEG, PNG or WebP picture in base64"
    : data.length > mostChars(id)
      ? `is larger than ${(mostChars(id) * 3) / 4 / 1e6} MB: make the picture smaller first`
      : null;

/** What the field validators cannot see: names that must be known, ids that must be unique and point somewhere. */
function crossCheck(f: RichLayerFile, beside: boolean): Fault[] {
  const faults: Fault[] = [];
  const say = (path: string, message: string): void => void faults.push({ path, message });
  try {
    zonedClock(f.shop.zone);
  } catch {
    say("shop.zone", `“${f.shop.zone}” is not a known time zone`);
  }
  if (f.shop.climate.kind === "hourly" && f.shop.climate.hourly.length !== 24)
    say("shop.climate.hourly", `must hold 24 points, has ${f.shop.climate.hourly.length}`);
  for (const key of ["machines", "products", "jobs", "log", "photos"] as const) {
    const seen = new Set<string>();
    f[key].forEach((r, i) => {
      if (seen.has(r.id)) say(`${key}[${i}].id`, `“${r.id}” is there twice`);
      seen.add(r.id);
    });
  }
  f.products.forEach((p, i) => {
    if (!isFinish(p.finish)) say(`products[${i}].finish`, `“${p.finish}” is not a finish`);
  });
  const jobs = new Set(f.jobs.map((j) => j.id));
  f.jobs.forEach((j, i) => {
    if (!isSubstrate(j.substrate.id)) say(`jobs[${i}].substrate.id`, `“${j.substrate.id}” is not a substrate`);
    j.begun?.products.forEach((p, k) => {
      if (!isFinish(p.finish)) say(`jobs[${i}].begun.products[${k}].finish`, `“${p.finish}” is not a finish`);
    });
    const zones = new Set<string>();
    j.zones.forEach((z, k) => {
      if (zones.has(z.id)) say(`jobs[${i}].zones[${k}].id`, `“${z.id}” is there twice`);
      zones.add(z.id);
    });
  });
  f.log.forEach((e, i) => {
    if (!jobs.has(e.jobId)) say(`log[${i}].jobId`, `points to the job “${e.jobId}”, which is not in the file`);
  });
  f.photos.forEach((p, i) => {
    const wrong = beside && BESIDE.test(p.data) ? null : photoFault(p.data, p.id);
    if (wrong) say(`photos[${i}].data`, wrong);
  });
  if (f.kind === "job" && f.jobs.length !== 1) say("jobs", `a job file holds one job, this one holds ${f.jobs.length}`);
  return faults;
}

/**
 * Read a file. Pure; nothing is stored.
 * @param beside in a zip: pictures may lie beside it, each under its mark @param stage told what is being done, in a word or two
 */
export function readJobFile(text: string, beside = false, stage: (word: string) => void = () => {}): FileRead {
  const fail = (path: string, message: string): FileRead => ({ ok: false, faults: [{ path, message }] });
  if (text.length > FILE_LIMIT) return fail("", `the file is larger than ${FILE_LIMIT / 1e6} MB`);
  stage("Reading the records");
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (e) {
    const at = /position (\d+)/.exec((e as Error).message);
    return fail(
      "",
      at
        ? `the file is not sound JSON near character ${at[1]}`
        : "the file is not sound JSON: it ends too early or holds something else",
    );
  }
  if (!raw || typeof raw !== "object" || Array.isArray(raw) || !("richlayer" in raw))
    return fail("richlayer", "is missing: this is not a Rich Layer file");
  const danger = unsafe(raw);
  if (danger) return { ok: false, faults: [danger] };
  const long = tooLong(RichLayerFile, raw, "");
  if (long.length) return { ok: false, faults: long };
  const up = fileBroughtUp(raw as Record<string, unknown>);
  if (up.faults.length) return { ok: false, faults: up.faults };
  stage("Checking them");
  const checked = check(RichLayerFile, up.content);
  if (!checked.ok) return { ok: false, faults: checked.faults };
  const faults = crossCheck(checked.value, beside);
  return faults.length ? { ok: false, faults } : { ok: true, file: checked.value };
}

/** The one job of a file with its shop around it. */
export const worldOf = (f: RichLayerFile, jobId?: string): World | null => {
  const job = f.jobs.find((j) => jobId === undefined || j.id === jobId);
  return job
    ? worldAround(
        { shop: f.shop, machines: f.machines, products: f.products },
        job,
        f.log.filter((e) => e.jobId === job.id),
      )
    : null;
};
