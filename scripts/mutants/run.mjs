/**
 * `npm run mutants`: puts small faults into the core and the store, one at a time, and counts how many of them the unit tests notice.
 * Faults of operators by Stryker's instrumenter, numbers by ourselves (it has no fault for them). Its runner starts the tests anew for
 * every fault, which takes a day; here they stay in one process, and only those that pass a fault are run. A seeded sample of each
 * group: `npm run mutants -- [operators] [numbers] [seed] [part of a path]`. Apart from `verify`; an hour or two as it stands.
 */
import { fork } from "node:child_process";
import { cpSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { root } from "../setup.mjs";
import { GROUPS, numbers, operators } from "./pick.mjs";

const [n = 60, m = 12, seed = 1] = process.argv.slice(2, 5).map(Number);
const only = process.argv[5];
const OUT = join(root, "node_modules/.cache/mutants");
const LANES = Number(process.env.LANES ?? 2);
/** how long tests go on at one fault, ms, before it counts as unnoticed (more beside other work: PATIENCE, in seconds) */
const PATIENCE = 1000 * Number(process.env.PATIENCE ?? 60);
/** seeded trials are cut to a tenth: faults that only the thousandth of them would notice count as unnoticed */
const ENV = { ...process.env, MANY: process.env.MANY ?? "0.1" };
mkdirSync(OUT, { recursive: true });

/** Faults that cannot be noticed, each with why: not counted. */
const HARMLESS = JSON.parse(readFileSync(new URL("./harmless.json", import.meta.url), "utf8"));
const lineOf = (file, line) => readFileSync(join(root, file), "utf8").split("\n")[line - 1].trim();
/** `file` may end in an asterisk for a room, of which `only` names the files; `line` is the text of the line, or an asterisk for any. */
const harmless = ({ file, line, fault }) =>
  HARMLESS.find(
    (h) =>
      (h.only
        ? file.startsWith(h.file.slice(0, -1)) && h.only.some((name) => file.endsWith(`/${name}`))
        : h.file === file) &&
      (h.line === "*" || h.line === lineOf(file, line)) &&
      (!h.fault || h.fault === fault),
  );

/** A copy of what the tests read, with sleeping faults in it. */
function copy(asleep) {
  const dir = mkdtempSync(join(tmpdir(), "richlayer-mutants-"));
  const parts = ["app", "scripts", "docs", "fixtures", ".react-router"];
  for (const name of [...parts, "package.json", "tsconfig.json", "jest.config.mjs"])
    if (existsSync(join(root, name))) cpSync(join(root, name), join(dir, name), { recursive: true });
  symlinkSync(join(root, "node_modules"), join(dir, "node_modules"));
  for (const [name, content] of asleep) writeFileSync(join(dir, name), content);
  return dir;
}
const start = (dir, group, survey, how, file = "[]") =>
  fork(join(dir, "scripts/mutants/worker.mts"), [how, group.tests.join(), survey, file, String(PATIENCE)], {
    cwd: dir,
    env: ENV,
    execArgv: ["--import", "tsx", "--max-old-space-size=3000"],
    stdio: ["ignore", "ignore", 2, "ipc"],
  });
/** What a process says at last; null: it ended, or had to be ended, without a word. */
const lastWord = (child, ms) =>
  new Promise((done) => {
    let said = null;
    const limit = setTimeout(() => child.kill("SIGKILL"), ms);
    child.on("message", (x) => (said = x));
    child.on("exit", () => (clearTimeout(limit), done(said)));
  });

/** Wakes one fault after another; a process that hangs or dies at one has noticed it, and another goes on. */
function wake(dir, group, survey, queue, tried) {
  return new Promise((done) => {
    const next = () => {
      if (!queue.length) return done();
      const child = start(dir, group, survey, "faults");
      let at = null;
      let limit = setTimeout(() => child.kill("SIGKILL"), 600_000);
      const give = () => {
        clearTimeout(limit);
        at = queue.shift() ?? null;
        if (at === null) return child.kill();
        limit = setTimeout(() => child.kill("SIGKILL"), 2 * PATIENCE);
        child.send({ id: at.id });
      };
      child.on("message", (x) => {
        if (!x.ready) told(tried, at, x.how);
        give();
      });
      child.on("exit", () => {
        clearTimeout(limit);
        if (at === null) return done();
        told(tried, at, "noticed");
        next();
      });
    };
    next();
  });
}
function told(tried, x, how) {
  if (how === "static") return;
  tried.push({ file: x.file, line: x.line, fault: x.fault, noticed: how === "noticed" });
  process.stderr.write(`${how === "noticed" ? "noticed " : "SURVIVED"} ${x.file}:${x.line} ${x.fault.slice(0, 90)}\n`);
}
async function change(dir, group, survey, queue, tried, ids) {
  for (let x = queue.shift(); x; x = queue.shift()) {
    const path = join(dir, x.file);
    const asleep = readFileSync(path, "utf8");
    const text = readFileSync(join(root, x.file), "utf8");
    writeFileSync(path, text.slice(0, x.from) + x.is + text.slice(x.to));
    const mine = JSON.stringify(ids.filter((o) => o.file === x.file).map((o) => o.id));
    const said = await lastWord(start(dir, group, survey, "number", mine), 5 * PATIENCE);
    writeFileSync(path, asleep);
    told(tried, { ...x, fault: `${x.was} → ${x.is}` }, said?.how ?? "noticed");
  }
}

const begun = Date.now();
const tried = [];
for (const g of GROUPS) {
  const ops = await operators(g, n, seed, only);
  const nums = numbers(g, m, seed, only);
  if (!ops.drawn.length && !nums.drawn.length) continue;
  const survey = join(OUT, `${g.name}.json`);
  const dirs = Array.from({ length: LANES }, () => copy(ops.asleep));
  const sound = await lastWord(start(dirs[0], g, survey, "survey"), 3_600_000);
  if (!sound) throw new Error(`the tests of ${g.name} can't be run`);
  process.stderr.write(
    `${g.name}: ${ops.drawn.length} of ${ops.of} faults, ${nums.drawn.length} of ${nums.of} numbers, `,
  );
  process.stderr.write(`${sound.tests} tests in ${Math.round(sound.ms / 1000)} s\n`);
  for (const f of sound.faulty) process.stderr.write(`  not asked, since it fails by itself: ${f}\n`);
  const [a, b] = [[...ops.drawn], [...nums.drawn]];
  await Promise.all(dirs.map((d) => wake(d, g, survey, a, tried)));
  await Promise.all(dirs.map((d) => change(d, g, survey, b, tried, ops.all)));
  for (const d of dirs) rmSync(d, { recursive: true, force: true });
  writeFileSync(join(OUT, "tried.json"), JSON.stringify(tried, null, 1));
}
const counted = tried.filter((x) => x.noticed || !harmless(x));
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
  const why = harmless(x)?.why;
  console.log(`${why ? "harmless" : "UNNOTICED"} ${x.file}:${x.line} ${x.fault}${why ? ` (${why})` : ""}`);
}
console.log(
  `noticed ${share(counted)}, ${tried.length - counted.length} harmless, in ${Math.round((Date.now() - begun) / 60000)} min, seed ${seed}`,
);
process.exit(counted.filter((x) => x.noticed).length / counted.length >= 0.85 ? 0 : 1);
