/**
 * Tries faults in one process. `survey` runs every test twice with no fault and writes down what is sound, how long it takes and which
 * faults it passes; `faults` wakes one fault after another, as told by the parent, and runs the tests that pass it, the quick ones first;
 * `number` runs the tests of a changed file until one fails.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { collect, frozen, run, type Case } from "./collect.mjs";

interface Asleep {
  activeMutant?: string;
  currentTestId?: string;
  mutantCoverage?: { static: Record<string, number>; perTest: Record<string, Record<string, number>> };
  hitCount?: number;
  hitLimit?: number;
}
interface Survey {
  tests: { key: string; ms: number; passes: Record<string, number> }[];
  /** faults that are passed while the files are loaded: they can't be woken later */
  static: Record<string, number>;
  frozen: [string, string][];
}

const [how, begins, surveyFile, file, patience = "60000"] = process.argv.slice(2);
const asleep: Asleep = { mutantCoverage: { static: {}, perTest: {} } };
(globalThis as unknown as { __stryker__: Asleep }).__stryker__ = asleep;
const tell = (m: unknown): Promise<void> => new Promise((done) => process.send!(m, () => done()));

async function loaded(): Promise<readonly Case[]> {
  const cases = await collect(begins.split(","));
  asleep.currentTestId = "none";
  return cases;
}

async function survey(): Promise<void> {
  const cases = await loaded();
  const ran = asleep.mutantCoverage!;
  const out: Survey = { tests: [], static: ran.static, frozen: [] };
  const faulty: string[] = [];
  for (const round of [0, 1])
    for (const [i, c] of cases.entries()) {
      asleep.currentTestId = round === 0 ? String(i) : "none";
      const at = performance.now();
      try {
        await run(c);
        if (round === 0)
          out.tests.push({ key: c.key, ms: performance.now() - at, passes: ran.perTest[String(i)] ?? {} });
      } catch (e) {
        // a test that fails when it is run again says nothing about a fault
        faulty.push(`${c.key}: ${(e as Error).message.split("\n")[0]}`);
        out.tests = out.tests.filter((t) => t.key !== c.key);
      }
    }
  out.frozen = [...frozen];
  writeFileSync(surveyFile, JSON.stringify(out));
  await tell({ tests: out.tests.length, ms: out.tests.reduce((s, t) => s + t.ms, 0), faulty });
}

const known = (): Survey => {
  const s = JSON.parse(readFileSync(surveyFile, "utf8")) as Survey;
  for (const [k, v] of s.frozen) frozen.set(k, v);
  return s;
};
/** Runs them, the quick first, until one fails or patience ends. */
async function noticed(tests: { c: Case; hits: number }[]): Promise<boolean> {
  const at = performance.now();
  for (const { c, hits } of tests) {
    if (performance.now() - at > Number(patience)) return false;
    asleep.hitCount = 0;
    asleep.hitLimit = hits * 100 + 1000; // what goes round so much more often never ends: that is noticed too
    try {
      await run(c);
    } catch {
      return true;
    }
  }
  return false;
}

async function faults(): Promise<void> {
  const s = known();
  const cases = new Map((await loaded()).map((c) => [c.key, c]));
  const byLength = s.tests.sort((a, b) => a.ms - b.ms);
  process.on("message", async ({ id }: { id: string }) => {
    const tests = byLength.filter((t) => t.passes[id]).map((t) => ({ c: cases.get(t.key)!, hits: t.passes[id] }));
    if (s.static[id] && !tests.length) return void tell({ id, how: "static" });
    asleep.activeMutant = id;
    const yes = await noticed(tests);
    asleep.activeMutant = undefined;
    asleep.hitCount = asleep.hitLimit = undefined;
    void tell({ id, how: yes ? "noticed" : tests.length ? "unnoticed" : "passed by no test" });
  });
  await tell({ ready: true });
}

/** A number is changed in the file itself; its tests are those that pass any fault of the file, all where there is none. */
async function number(): Promise<void> {
  const s = known();
  const ids = JSON.parse(file) as string[];
  const its = s.tests.filter((t) => ids.some((id) => t.passes[id]));
  let cases: readonly Case[];
  try {
    cases = await loaded();
  } catch {
    return tell({ how: "noticed" });
  }
  const of = new Map(cases.map((c) => [c.key, c]));
  const tests = (its.length ? its : s.tests).sort((a, b) => a.ms - b.ms);
  // a table that another number makes longer or shorter has other tests
  if (tests.some((t) => !of.has(t.key))) return tell({ how: "noticed" });
  const yes = await noticed(tests.map((t) => ({ c: of.get(t.key)!, hits: 1e12 })));
  await tell({ how: yes ? "noticed" : "unnoticed" });
}

const DOES = { survey, faults, number };
await DOES[how as keyof typeof DOES]();
if (how !== "faults") process.exit(0);
