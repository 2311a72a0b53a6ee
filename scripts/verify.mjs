/**
 * `npm run verify`: from a fresh clone to a verdict. Installs what is missing, then types, lint, boundaries, unit
 * tests, build, and the real interface.
 */
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { build, install, root, run } from "./setup.mjs";

/**
 * What the checks need of Debian's packages: a browser, without which nothing can be said, and independent readers of PDF
 * and calendar files, without which those tests are passed over with a word. Installed where this runs as root (a build
 * machine); anyone else is told what is missing, and nothing asks for more rights.
 */
const BROWSER = "chromium-headless-shell";
const TOOLS = [
  [
    BROWSER,
    () => process.env.CHROMIUM || existsSync("/usr/bin/chromium-headless-shell") || existsSync("/usr/bin/chromium"),
  ],
  ["poppler-utils", () => existsSync("/usr/bin/pdftotext")],
  ["qpdf", () => existsSync("/usr/bin/qpdf")],
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
  if (missing.includes(BROWSER)) {
    process.stderr.write(
      `The interface is tried in a browser, and there is none here: install Debian's ${BROWSER}, or set CHROMIUM to a Chromium's path.\n`,
    );
    process.exit(1);
  }
  process.stderr.write(`Without ${missing.join(", ")} the tests that read our files with them are passed over.\n`);
}

const begun = Date.now();
install();
tools();
const bin = (name) => `node_modules/.bin/${name}`;
const stages = [
  [
    "types",
    () => [
      run(bin("react-router"), ["typegen"], { quiet: true, mayFail: true }),
      run(bin("tsc"), [], { mayFail: true }),
      run(bin("tsc"), ["-p", "app/core"], { mayFail: true }),
    ],
  ],
  ["format", () => [run(bin("prettier"), ["--check", "--log-level", "warn", "."], { mayFail: true })]],
  ["lint", () => [run(bin("eslint"), ["app", "e2e", "scripts", "bench"], { mayFail: true })]],
  ["boundaries", () => [run(bin("depcruise"), ["app", "--config", ".dependency-cruiser.cjs"], { mayFail: true })]],
  [
    "unit tests",
    () => [
      run("node", ["--experimental-vm-modules", "--no-warnings", "node_modules/jest/bin/jest.js", "--silent"], {
        mayFail: true,
      }),
    ],
  ],
  ["build", () => (build(), [])],
  ["interface", () => [run(bin("playwright"), ["test"], { mayFail: true })]],
];
let passed = 0;
let failed = 0;
for (const [name, stage] of stages) {
  const at = Date.now();
  const good = stage().every((r) => r.status === 0);
  if (good) passed++;
  else failed++;
  process.stderr.write(`${good ? "ok  " : "FAIL"} ${name} (${((Date.now() - at) / 1000).toFixed(0)} s)\n`);
}
process.stderr.write(`${((Date.now() - begun) / 60000).toFixed(1)} min in ${root.split("/").pop()}\n`);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);
