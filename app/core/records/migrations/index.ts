/**
 * Migrations, record to record, numbered by the version they lead to. The same list serves the database, when an older one is
 * opened, and the importer, when an older file is read. {@link ran} counts, so that a test can fail when one never ran.
 */
import { toV1 } from "./v1";

export interface OldFile {
  richlayer: number;
  [key: string]: unknown;
}
export interface Migration {
  to: number;
  name: string;
  /** a whole file's content of version to − 1 */
  file(old: Record<string, unknown>): Record<string, unknown>;
}

export const MIGRATIONS: Migration[] = [
  { to: 1, name: "hours by weekday, climate as a curve, zones beside the artwork", file: toV1 },
];

/** How often each migration has run in this process. */
export const ran = new Map<number, number>();

/** Bring a file's content to today's version. @throws Error for a version from the future */
export function migrateFile(content: Record<string, unknown>, today: number): Record<string, unknown> {
  let version = typeof content.richlayer === "number" ? content.richlayer : Number.NaN;
  if (!Number.isInteger(version) || version < 0) throw new Error("richlayer must be the version number of the file");
  if (version > today)
    throw new Error(
      `the file is of version ${version}; this Rich Layer reads up to version ${today}. Update it and try again`,
    );
  let now = content;
  while (version < today) {
    const m = MIGRATIONS.find((x) => x.to === version + 1);
    if (!m) throw new Error(`there is no way from version ${version} to ${version + 1}`);
    now = { ...m.file(now), richlayer: m.to };
    ran.set(m.to, (ran.get(m.to) ?? 0) + 1);
    version = m.to;
  }
  return now;
}
