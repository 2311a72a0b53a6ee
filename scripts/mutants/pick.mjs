/** Where small faults are put in: places of the core and the store, drawn by seed, so that two runs try the same ones. */
import { commonTokens } from "@stryker-mutator/api/plugin";
import { createInstrumenter } from "@stryker-mutator/instrumenter";
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { createInjector } from "typed-inject";
import ts from "typescript";
import { root } from "../setup.mjs";

/**
 * What is tried: the rooms that reckon, plan and keep, each with the rooms whose tests should notice. Tests further off (journeys, the
 * door, files) may notice more; they are not asked, since sharp tests stand beside what they are about.
 */
export const GROUPS = [
  {
    name: "models",
    rooms: ["units", "models/drying", "models/film", "models/laser", "models/powder", "models/depth", "piece"].map(
      (r) => `app/core/${r}`,
    ),
    tests: ["units", "models", "piece", "process"].map((r) => `app/core/${r}`),
  },
  { name: "plan", rooms: ["app/core/plan"], tests: ["app/core/plan", "app/core/bench", "app/core/explain"] },
  { name: "rules", rooms: ["app/core/judge/rules"], tests: ["app/core/judge", "app/core/plan/briefs"] },
  { name: "schedule", rooms: ["app/core/schedule"], tests: ["app/core/schedule", "app/core/plan/lay"] },
  { name: "store", rooms: ["app/store"], tests: ["app/store", "app/acts"] },
];
/** faults that change words, or so much that nothing could stand: not the small ones asked for */
export const LEFT_OUT = ["StringLiteral", "ObjectLiteral", "BlockStatement", "ArrayDeclaration", "Regex"];

const walk = (dir) =>
  readdirSync(join(root, dir), { withFileTypes: true }).flatMap((e) =>
    e.isDirectory()
      ? e.name === "testing"
        ? []
        : walk(`${dir}/${e.name}`)
      : /\.ts$/.test(e.name) && !/\.test\.ts$/.test(e.name)
        ? [`${dir}/${e.name}`]
        : [],
  );
export const files = (only) =>
  GROUPS.flatMap((g) => g.rooms)
    .flatMap(walk)
    .filter((f) => !only || f.includes(only))
    .sort();
export const groupOf = (file) => GROUPS.find((g) => g.rooms.some((r) => file.startsWith(`${r}/`)));

function randomOf(seed) {
  let s = Math.imul(seed, 2654435761) >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) | 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}
function draw(list, n, seed) {
  const rnd = randomOf(seed);
  const all = [...list];
  for (let i = all.length - 1; i > 0; i--) {
    const j = Math.floor(rnd() * (i + 1));
    [all[i], all[j]] = [all[j], all[i]];
  }
  return all.slice(0, n);
}

const quiet = () => {};
const LOG = { trace: quiet, debug: quiet, info: quiet, warn: quiet, error: quiet, fatal: quiet };
for (const level of ["Trace", "Debug", "Info", "Warn", "Error", "Fatal"]) LOG[`is${level}Enabled`] = () => false;

/**
 * A group's files with every fault of the mutation tester in them, each asleep until it is called by its id, and the faults that were
 * drawn. What is tried of a fault is that it is noticed, not where it comes from: one of several at a place is as good as another.
 */
export async function operators(group, n, seed, only) {
  const instrumenter = createInjector()
    .provideValue(commonTokens.logger, LOG)
    .provideValue(commonTokens.getLogger, () => LOG)
    .provideValue(commonTokens.options, {})
    .injectFunction(createInstrumenter);
  const mine = files(only).filter((f) => groupOf(f) === group);
  const text = Object.fromEntries(mine.map((f) => [f, readFileSync(join(root, f), "utf8")]));
  const found = await instrumenter.instrument(
    mine.map((name) => ({ name, content: text[name], mutate: true })),
    { excludedMutations: LEFT_OUT, ignorers: [], plugins: null, noHeader: false },
  );
  const all = found.mutants
    .filter((m) => !LEFT_OUT.includes(m.mutatorName))
    .map((m) => ({
      id: m.id,
      file: m.fileName,
      line: m.location.start.line + 1,
      fault: `${m.mutatorName}: ${m.replacement.replace(/\s+/g, " ")}`,
    }));
  return { asleep: found.files.map((f) => [f.name, f.content]), all, drawn: draw(all, n, seed), of: all.length };
}

/** Numbers that mean something, each with another one in its place: what the mutation tester has no fault for. */
export function numbers(group, n, seed, only) {
  const mine = files(only).filter((f) => groupOf(f) === group);
  const all = mine.flatMap((file) => {
    const text = readFileSync(join(root, file), "utf8");
    const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true);
    const out = [];
    const visit = (node) => {
      if (ts.isNumericLiteral(node)) {
        const value = Number(node.text);
        const line = source.getLineAndCharacterOfPosition(node.getStart()).line + 1;
        // indices, steps of one and empty sums are the operators' business
        if (![0, 1, -1].includes(value)) {
          const other = Number.isInteger(value) && value < 20 ? value + 1 : Number((value * 1.1).toPrecision(12));
          out.push({ file, line, from: node.getStart(), to: node.end, was: node.text, is: String(other) });
        }
      }
      ts.forEachChild(node, visit);
    };
    visit(source);
    return out;
  });
  return { drawn: draw(all, n, seed), of: all.length };
}
