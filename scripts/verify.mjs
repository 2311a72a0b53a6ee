/** `npm run verify`: from a fresh clone to a verdict. Installs what is missing, then types, lint, boundaries, unit tests, build, and the real interface. */
import { spawnSync } from "node:child_process";
import { existsSync } from "node:fs";
import { build, install, root, run } from "./setup.mjs";

/** What the checks need of Debian's packages, where it is not there yet: a browser, and independent readers of PDF and calendar files. */
const TOOLS = [
  [
    "chromium-headless-shell",
    () => process.env.CHROMIUM || existsSync("/usr/bin/chromium-headless-shell") || existsSync("/usr/bin/chromium"),
  ],
  ["poppler-utils", () => existsSync("/usr/bin/pdftotext")],
  ["qpdf", () => existsSync("/usr/bin/qpdf")],
  ["python3-icalendar", () => spawnSync("/usr/bin/python3", ["-c", "import icalendar"]).status === 0],
];
function tools() {
  const missing = TOOLS.filter(([, there]) => !there()).map(([name]) => name);
  if (!missing.length) return;
  process.stderr.write(`Installing ${missing.join(", ")}…\n`);
  const sudo = process.getuid?.() === 0 ? [] : ["sudo"];
  const apt = (...args) =>
    spawnSync([...sudo, "apt-get"][0], [...[...sudo, "apt-get"].slice(1), ...args], {
      stdio: ["ignore", "ignore", 2],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    }).status === 0;
  if (!apt("update") || !apt("install", "-y", "--no-install-recommends", ...missing)) {
    process.stderr.write(
      `${missing.join(", ")} could not be installed. Install these packages of Debian, or set CHROMIUM to the path of a browser.\n`,
    );
    process.exit(1);
  }
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
