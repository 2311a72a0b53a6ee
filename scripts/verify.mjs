/**
 * `npm run verify`: from a fresh clone to a verdict. Installs what is missing, then types, lint, boundaries, unit
 * tests, build, and the real interface.
 */
import { spawn, spawnSync } from "node:child_process";
import { once } from "node:events";
import { existsSync } from "node:fs";
import { install, root } from "./setup.mjs";

/**
 * What the checks need of Debian's packages: a browser, without which nothing can be said, and independent readers of PDF
 * and calendar files, without which those tests are passed over with a word. Installed where this runs as root (a build
 * machine); anyone else is told what is missing, and nothing asks for more rights.
 */
const BROWSER = "chromium-headless-shell";
const TOOLS = [
  // the one without windows takes a fifth less time: where it can be installed it is, another Chromium does too
  [BROWSER, () => process.env.CHROMIUM || existsSync("/usr/bin/chromium-headless-shell")],
  ["poppler-utils", () => existsSync("/usr/bin/pdftotext")],
  ["qpdf", () => existsSync("/usr/bin/qpdf")],
  ["python3-ezdxf", () => spawnSync("/usr/bin/python3", ["-c", "import ezdxf"]).status === 0],
  ["librsvg2-bin", () => existsSync("/usr/bin/rsvg-convert")],
  ["python3-icalendar", () => spawnSync("/usr/bin/python3", ["-c", "import icalendar"]).status === 0],
];
function tools() {
  const missing = TOOLS.filter(([, there]) => !there()).map(([name]) => name);
  if (!missing.length) return;
  const apt = (...args) =>
    spawnSync("apt-get", args, {
      stdio: ["ignore", "ignore", 2],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    }).status === 0;
  if (process.getuid?.() === 0) {
    process.stderr.write(`Installing ${missing.join(", ")}…\n`);
    if (apt("update") && apt("install", "-y", "--no-install-recommends", ...missing)) return;
    process.stderr.write(`${missing.join(", ")} could not be installed.\n`);
  }
  if (missing.includes(BROWSER) && !existsSync("/usr/bin/chromium")) {
    process.stderr.write(
      `The interface is tried in a browser, and there is none here: install Debian's ${BROWSER}, or set CHROMIUM to a Chromium's path.\n`,
    );
    process.exit(1);
  }
  const readers = missing.filter((name) => name !== BROWSER);
  if (readers.length)
    process.stderr.write(`Without ${readers.join(", ")} the tests that read our files with them are passed over.\n`);
}

const begun = Date.now();
install();
tools();
const bin = (name) => `node_modules/.bin/${name}`;
const jest = ["--experimental-vm-modules", "--no-warnings", "node_modules/jest/bin/jest.js", "--silent"];
const building = ["--input-type=module", "--eval", 'import { build } from "./scripts/setup.mjs"; build();'];
/** A stage: what it is called, and the commands it runs one after another. */
const types = ["types", [bin("react-router"), "typegen"], [bin("tsc")], [bin("tsc"), "-p", "app/core"]];
const format = ["format", [bin("prettier"), "--check", "--log-level", "warn", "."]];
const lint = ["lint", [bin("eslint"), "app", "e2e", "scripts", "bench"]];
const boundaries = ["boundaries", [bin("depcruise"), "app", "--config", ".dependency-cruiser.cjs"]];
const unit = ["unit tests", ["node", ...jest]];
const app = ["build", ["node", ...building]];
const journeys = ["interface", [bin("playwright"), "test"]];

let passed = 0;
let failed = 0;
/** Runs a stage. @param alone what it prints is shown as it comes; beside others it is held back till the stage is over */
async function stage([name, ...commands], alone) {
  const at = Date.now();
  let said = "";
  let good = true;
  for (const [command, ...args] of commands) {
    // seeded trials: a fifth of them here, so that the whole run stays short; `npm test` makes them all
    const env = { ...process.env, MANY: process.env.MANY ?? "0.2" };
    const child = spawn(command, args, {
      cwd: root,
      env,
      stdio: alone ? ["ignore", 2, 2] : ["ignore", "pipe", "pipe"],
    });
    child.stdout?.on("data", (d) => (said += d));
    child.stderr?.on("data", (d) => (said += d));
    const [code] = await once(child, "close");
    good &&= code === 0;
  }
  if (good) passed++;
  else failed++;
  process.stderr.write(
    `${good ? "" : said}${good ? "ok  " : "FAIL"} ${name} (${((Date.now() - at) / 1000).toFixed(0)} s)\n`,
  );
}
// What reads the sources and keeps one core busy runs two at a time; what keeps all of them busy runs alone.
const lane = async (...stages) => {
  for (const s of stages) await stage(s, false);
};
await Promise.all([lane(types, boundaries), lane(format, lint, app)]);
await stage(unit, true);
await stage(journeys, true);
process.stderr.write(`${((Date.now() - begun) / 60000).toFixed(1)} min in ${root.split("/").pop()}\n`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
