/** `npm run fuzz -- [times]`: the seeded files and records of chance, seven times as many as in the tests: ten thousand and more. */
import { spawnSync } from "node:child_process";
import { root } from "./setup.mjs";

const times = process.argv[2] ?? "7";
const jest = ["--experimental-vm-modules", "--no-warnings", "node_modules/jest/bin/jest.js", "--testTimeout=36000000"];
const run = spawnSync(process.execPath, [...jest, "app/io/fuzz", "app/views/odd-records"], {
  cwd: root,
  env: { ...process.env, FUZZ: times },
  stdio: "inherit",
});
process.exit(run.status ?? 1);
