/**
 * Which places of a record an act touched, so that two tabs that change the same thing can be told apart from two that change
 * different things of one record. A place is a path such as `substrate/w`; members of a list go by their id, step edits by
 * the step and field they speak of.
 */
import type { Change, Patch } from "./diff";

const isList = (v: unknown): v is Record<string, unknown>[] =>
  Array.isArray(v) && v.every((x) => x !== null && typeof x === "object" && !Array.isArray(x));
const nameOf = (path: string, x: Record<string, unknown>): string | null =>
  path === "edits"
    ? `${String(x.step)}:${String(x.op)}:${String(x.field)}`
    : typeof x.id === "string"
      ? x.id
      : "rule" in x
        ? `${String(x.rule)}:${String(x.where)}`
        : null;

function ofPatch(p: Patch): string[] {
  const path = p.path.join("/");
  if (!isList(p.before) || !isList(p.after)) return [path];
  const names = (list: Record<string, unknown>[]): Map<string, string> | null => {
    const out = new Map<string, string>();
    for (const x of list) {
      const n = nameOf(path, x);
      if (n === null) return null;
      out.set(n, JSON.stringify(x));
    }
    return out;
  };
  const [a, b] = [names(p.before), names(p.after)];
  if (!a || !b) return [path];
  return [...new Set([...a.keys(), ...b.keys()])].filter((n) => a.get(n) !== b.get(n)).map((n) => `${path}/${n}`);
}

/** Places as `table/id/path`; a record made or deleted is touched all over. */
export const touched = (c: Change): string[] =>
  c.whole ? [`${c.table}/${c.id}`] : c.patches.flatMap(ofPatch).map((p) => `${c.table}/${c.id}/${p}`);

/** Do two acts touch a place in common, one within the other included? */
export const overlap = (a: string[], b: string[]): string | null =>
  a.find((x) => b.some((y) => x === y || x.startsWith(`${y}/`) || y.startsWith(`${x}/`))) ?? null;
