/**
 * Completes package-lock.json: a registry that lacks packages for other platforms leaves them out of the lock, and `npm ci`
 * then refuses it. Each is written in as an optional package for its own system and processor, so that the lock serves every
 * machine. Run after `npm install` has changed the lock: `node scripts/complete-lock.mjs`.
 */
import { readFileSync, writeFileSync } from "node:fs";

const file = new URL("../package-lock.json", import.meta.url);
const lock = JSON.parse(readFileSync(file, "utf8"));
const SYSTEMS = ["darwin", "win32", "linux", "freebsd", "openbsd", "netbsd", "android", "openharmony", "sunos", "aix"];
let added = 0;
for (const [at, entry] of Object.entries({ ...lock.packages })) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    const nested = at ? `${at}/node_modules/${name}` : `node_modules/${name}`;
    if (lock.packages[`node_modules/${name}`] || lock.packages[nested] || !/^\d/.test(version)) continue;
    const parts = name.split("/").pop().split("-");
    const os = SYSTEMS.find((s) => parts.includes(s));
    const cpu = parts.includes("wasm32")
      ? "wasm32"
      : ["arm64", "x64", "ia32", "arm", "ppc64", "riscv64", "s390x", "loong64"].find((c) => parts.includes(c));
    lock.packages[`node_modules/${name}`] = {
      version,
      ...(cpu ? { cpu: [cpu] } : {}),
      dev: true,
      optional: true,
      ...(os ? { os: [os] } : {}),
    };
    added++;
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(file, `${JSON.stringify(lock, null, 2)}\n`);
console.log(`${added} entries added`);
