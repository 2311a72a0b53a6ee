/** What an act changed, as small patches that go both ways. */

export const TABLES = ["shop", "machines", "products", "jobs", "log", "photos"] as const;
export type TableName = (typeof TABLES)[number];

type Json = unknown;
export interface Patch {
  path: (string | number)[];
  before: Json;
  after: Json;
}
export interface Change {
  table: TableName;
  id: string;
  /** null: the record did not exist before, or does not after */
  whole: { before: Json; after: Json } | null;
  patches: Patch[];
}

const isObject = (v: Json): v is Record<string, Json> => v !== null && typeof v === "object" && !Array.isArray(v);
const same = (a: Json, b: Json): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Are two records alike, whatever the order of their keys? */
export const sameRecord = (a: object | null, b: object | null): boolean =>
  a === b || (a !== null && b !== null && diff(a, b).length === 0);

/** Patches that lead from a to b: into objects, and into lists of one length; anything else is replaced whole. */
export function diff(a: Json, b: Json, path: (string | number)[] = [], out: Patch[] = []): Patch[] {
  if (Object.is(a, b)) return out;
  if (isObject(a) && isObject(b) && same(Object.keys(a).sort(), Object.keys(b).sort()))
    for (const k of Object.keys(a)) diff(a[k], b[k], [...path, k], out);
  else if (Array.isArray(a) && Array.isArray(b) && a.length === b.length)
    a.forEach((v, i) => diff(v, b[i], [...path, i], out));
  else if (!same(a, b)) out.push({ path, before: a, after: b });
  return out;
}

/** A record with patches laid on, forwards or back. */
export function patched<T>(record: T, patches: Patch[], to: "before" | "after"): T {
  let out: Json = structuredClone(record);
  for (const p of patches) {
    if (!p.path.length) {
      out = p[to];
      continue;
    }
    let at = out as Record<string | number, Json>;
    for (const k of p.path.slice(0, -1)) at = at[k] as Record<string | number, Json>;
    at[p.path[p.path.length - 1]] = structuredClone(p[to]);
  }
  return out as T;
}
