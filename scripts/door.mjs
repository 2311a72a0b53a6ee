/** The door in one file, for tests that knock at it many times: reading its sources anew takes three times as long as answering. */
import { spawnSync } from "node:child_process";
import { mkdirSync, renameSync } from "node:fs";
import { join } from "node:path";
import { root } from "./setup.mjs";

let made = null;
/** Made from the sources as they stand, once a process. @returns path of the file */
function doorFile() {
  if (made) return made;
  const dir = join(root, "node_modules/.cache/door");
  mkdirSync(dir, { recursive: true });
  const mine = join(dir, `main.${process.pid}.mjs`);
  const how = ["--bundle", "--platform=node", "--format=esm", "--packages=external", "--target=node20"];
  const bin = join(root, "node_modules/.bin/esbuild");
  const r = spawnSync(bin, ["app/door/main.ts", ...how, `--outfile=${mine}`, "--log-level=warning"], { cwd: root });
  if (r.status !== 0) throw new Error(`The door could not be put into one file: ${r.stderr}`);
  made = join(dir, "main.mjs");
  renameSync(mine, made);
  return made;
}
/**
 * One knock at the door.
 * @param {string | Uint8Array} input @param {string[]} args
 * @returns {{ status: number | null, stdout: Buffer, stderr: Buffer }}
 */
export const knock = (input, args) =>
  spawnSync(process.execPath, [doorFile(), ...args], { cwd: root, input, maxBuffer: 2 ** 28 });
