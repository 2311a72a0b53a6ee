/**
 * `npm run mutants`: puts small faults into the core and the store, one at a time, and counts how many of them the unit tests notice.
 * Operators by Stryker, numbers by ourselves (it has no fault for them). A seeded sample, since all of them take a day:
 * `npm run mutants -- [ranges] [numbers] [seed] [part of a path]`. Apart from `verify`; takes some hours as it stands.
 */
import { spawn, spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { root } from "../setup.mjs";
import { GROUPS, groupOf, LEFT_OUT, numbers, ranges } from "./pick.mjs";

const [n = 100, m = 60, seed = 1] = process.argv.slice(2, 5).map(Number);
const only = process.argv[5];
const OUT = join(root, "node_modules/.cache/mutants");
const LANES = Number(process.env.LANES ?? 2);
/** seeded trials are cut to a tenth: faults that only the thousandth of them would notice count as unnoticed */
const ENV = { ...process.env, MANY: "0.1" };
const NODE = ["--experimental-vm-modules", "--no-warnings"];
const JEST = ["node_modules/jest/bin/jest.js", "--config", "scripts/mutants/jest.config.mjs"];
mkdirSync(OUT, { recursive: true });

/** Faults that cannot be noticed, each with why: not counted. */
const HARMLESS = JSON.parse(readFileSync(new URL("./harmless.json", import.meta.url), "utf8"));
const lineOf = (file, line) => readFileSync(join(root, file), "utf8").split("\n")[line - 1].trim();
/** `file` may end in an asterisk for a room, of which `only` names the files; `line` is the text of the line, or an asterisk for any. */
const harmless = (file, line, is) =>
  HARMLESS.find(
    (h) =>
      (h.only
        ? file.startsWith(h.file.slice(0, -1)) && h.only.some((name) => file.endsWith(`/${name}`))
        : h.file === file) &&
      (h.line === "*" || h.line === lineOf(file, line)) &&
      (!h.fault || h.fault === is),
  );

function operators(drawn, tests) {
  const config = join(OUT, "stryker.json");
  const json = join(OUT, "operators.json");
  rmSync(json, { force: true });
  writeFileSync(
    config,
    JSON.stringify({
      testRunner: "jest",
      testRunnerNodeArgs: NODE,
      coverageAnalysis: "perTest",
      mutate: drawn,
      mutator: { excludedMutations: LEFT_OUT },
      jest: { configFile: "scripts/mutants/jest.config.mjs", enableFindRelatedTests: true },
      ignoreStatic: true,
      reporters: ["json", "progress-append-only"],
      jsonReporter: { fileName: json },
      concurrency: LANES,
      timeoutMS: 15000,
      timeoutFactor: 1.5,
      dryRunTimeoutMinutes: 20,
      allowConsoleColors: false,
      tempDirName: ".mutants", // where the test runner looks: nothing below node_modules counts for it
    }),
  );
  const env = { ...ENV, TESTS: tests.join() };
  const r = spawnSync("node_modules/.bin/stryker", ["run", config], { cwd: root, env, stdio: ["ignore", 2, 2] });
  if (!existsSync(json)) throw new Error(`the mutation tester ended with ${r.status} and said nothing`);
  return Object.entries(JSON.parse(readFileSync(json, "utf8")).files).flatMap(([file, f]) =>
    f.mutants
      .filter((x) => x.status !== "Ignored" && x.status !== "CompileError")
      .map((x) => ({
        file,
        line: x.location.start.line,
        fault: `${x.mutatorName}: ${x.replacement}`,
        noticed: x.status === "Killed" || x.status === "Timeout",
      })),
  );
}

/** One number after another is changed in a copy, and the tests of its rooms are run until one fails. */
async function tryNumbers(drawn, tests) {
  const out = [];
  const queue = [...drawn];
  const env = { ...ENV, TESTS: tests.join() };
  const at = Date.now();
  const sound = spawnSync(process.execPath, [...NODE, ...JEST, "--runInBand"], {
    cwd: root,
    env,
    stdio: ["ignore", 2, 2],
  });
  if (sound.status !== 0) throw new Error("the tests fail with no fault put in");
  // what goes on for three times as long as the sound tests never ends: that is noticed
  const patience = 3 * (Date.now() - at) + 60_000;
  const lane = async () => {
    const dir = mkdtempSync(join(tmpdir(), "richlayer-mutants-"));
    for (const name of ["app", "scripts", "docs", "fixtures", "package.json", "tsconfig.json", "jest.config.mjs"])
      cpSync(join(root, name), join(dir, name), { recursive: true });
    symlinkSync(join(root, "node_modules"), join(dir, "node_modules"));
    for (let x = queue.shift(); x; x = queue.shift()) {
      const path = join(dir, x.file);
      const text = readFileSync(path, "utf8");
      writeFileSync(path, text.slice(0, x.from) + x.is + text.slice(x.to));
      const args = ["--runInBand", "--bail", "--findRelatedTests", x.file];
      const code = await new Promise((done) => {
        const p = spawn(process.execPath, [...NODE, ...JEST, ...args], { cwd: dir, env, stdio: "ignore" });
        const limit = setTimeout(() => p.kill("SIGKILL"), patience);
        p.on("exit", (c) => (clearTimeout(limit), done(c)));
      });
      writeFileSync(path, text);
      out.push({ file: x.file, line: x.line, fault: `${x.was} → ${x.is}`, noticed: code !== 0 });
      process.stderr.write(`${code !== 0 ? "noticed " : "SURVIVED"} ${x.file}:${x.line} ${x.was} → ${x.is}\n`);
    }
    rmSync(dir, { recursive: true, force: true });
  };
  await Promise.all(Array.from({ length: LANES }, lane));
  return out;
}

const begun = Date.now();
const tried = [];
const places = n > 0 ? await ranges(n, seed, only) : { drawn: [], of: 0 };
const figures = m > 0 ? numbers(m, seed, only) : { drawn: [], of: 0 };
process.stderr.write(`${places.drawn.length} places among ${places.of} faults of operators, `);
process.stderr.write(`${figures.drawn.length} of ${figures.of} numbers\n`);
for (const g of GROUPS) {
  const mine = places.drawn.filter((d) => groupOf(d) === g);
  if (mine.length) tried.push(...operators(mine, g.tests));
  const his = figures.drawn.filter((d) => groupOf(d.file) === g);
  if (his.length) tried.push(...(await tryNumbers(his, g.tests)));
  writeFileSync(join(OUT, "tried.json"), JSON.stringify(tried, null, 1));
}
const counted = tried.filter((x) => x.noticed || !harmless(x.file, x.line, x.fault));
const room = (f) =>
  f
    .replace(/^app\/(core\/)?/, "")
    .split("/")
    .slice(0, f.includes("models") || f.includes("judge") ? 2 : 1)
    .join("/");
const rooms = [...new Set(counted.map((x) => room(x.file)))].sort();
const share = (list) =>
  `${list.filter((x) => x.noticed).length} of ${list.length} (${Math.round((100 * list.filter((x) => x.noticed).length) / list.length)} %)`;
for (const r of rooms) console.log(`${r.padEnd(18)} ${share(counted.filter((x) => room(x.file) === r))}`);
for (const x of tried.filter((y) => !y.noticed)) {
  const why = harmless(x.file, x.line, x.fault)?.why;
  console.log(`${why ? "harmless" : "UNNOTICED"} ${x.file}:${x.line} ${x.fault}${why ? ` (${why})` : ""}`);
}
console.log(
  `noticed ${share(counted)}, ${tried.length - counted.length} harmless, in ${Math.round((Date.now() - begun) / 60000)} min, seed ${seed}`,
);
process.exit(counted.filter((x) => x.noticed).length / counted.length >= 0.85 ? 0 : 1);
