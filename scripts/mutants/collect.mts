/**
 * The unit tests of some rooms, gathered in one process, so that hundreds of faults can be tried without starting anew for each: the same
 * test files, the same `expect`, without the runner around them.
 */
import "fake-indexeddb/auto";
import { expect } from "expect";
import { format } from "pretty-format";
import { existsSync, readdirSync } from "node:fs";
import { resolve } from "node:path";

type Fn = () => unknown;
type Row = readonly unknown[];
interface Room {
  name: string;
  before: Fn[];
  each: Fn[];
  after: Fn[];
}
export interface Case {
  /** file, rooms and name, with its place in the file: unlike any other */
  readonly key: string;
  readonly fn: Fn;
  readonly rooms: readonly Room[];
}

const cases: Case[] = [];
let file = "";
let rooms: Room[] = [];

const say = (x: unknown): string => (typeof x === "object" ? JSON.stringify(x).slice(0, 60) : String(x));
const titled = (name: string, row: Row, i: number): string => {
  let k = 0;
  return name.replace(/%[sdijop#%]/g, (m) => (m === "%%" ? "%" : m === "%#" ? String(i) : say(row[k++])));
};
const test = (name: string, fn: Fn): void => {
  const key = [file, cases.length, ...rooms.map((r) => r.name), name].join(" ");
  cases.push({ key, fn, rooms: [...rooms] });
};
const room = (name: string, fn: Fn): void => {
  const outer = rooms;
  rooms = [...rooms, { name, before: [], each: [], after: [] }];
  fn();
  rooms = outer;
};
const forEach =
  (one: (name: string, fn: Fn) => void) =>
  (rows: Iterable<unknown>) =>
  (name: string, fn: (...row: unknown[]) => unknown): void =>
    [...rows].forEach((r, i) => {
      const row = Array.isArray(r) ? (r as Row) : [r];
      one(titled(name, row, i), () => fn(...row));
    });
const last = (): Room => rooms[rooms.length - 1];
Object.assign(globalThis, {
  MANY: Number(process.env.MANY ?? 0.1),
  expect,
  test: Object.assign(test, { each: forEach(test) }),
  it: Object.assign(test, { each: forEach(test) }),
  describe: Object.assign(room, { each: forEach(room) }),
  beforeAll: (f: Fn) => last().before.push(f),
  beforeEach: (f: Fn) => last().each.push(f),
  afterEach: (f: Fn) => last().after.push(f),
  afterAll: () => {},
});

/** what was frozen: by the first sound run, since a fault is held against the code as it is */
export const frozen = new Map<string, string>();
let running = "";
let nth = 0;
expect.extend({
  toMatchSnapshot(got: unknown) {
    const key = `${running}#${nth++}`;
    const is = format(got);
    if (!frozen.has(key)) frozen.set(key, is);
    return { pass: frozen.get(key) === is, message: () => `not as it was: ${key}` };
  },
});

const walk = (dir: string): string[] =>
  existsSync(dir)
    ? readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
        e.isDirectory() ? walk(`${dir}/${e.name}`) : /\.test\.tsx?$/.test(e.name) ? [`${dir}/${e.name}`] : [],
      )
    : [];

/** All tests of files whose paths begin so, in the order of the files. A file that can't be loaded throws. */
export async function collect(begins: readonly string[]): Promise<readonly Case[]> {
  for (const f of walk("app").filter((x) => begins.some((b) => x.startsWith(b)))) {
    file = f;
    rooms = [{ name: "", before: [], each: [], after: [] }];
    await import(resolve(f));
  }
  return cases;
}

/** Runs one, with what is set up before it and cleared after. Throws what it throws. */
export async function run(c: Case): Promise<void> {
  running = c.key;
  nth = 0;
  for (const r of c.rooms) for (const f of [...r.before, ...r.each]) await f();
  try {
    await c.fn();
  } finally {
    for (const r of c.rooms) for (const f of r.after) await f();
  }
}
