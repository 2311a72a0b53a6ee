/** What `demo` and `verify` share: install what is missing, build when the sources have changed. Node's own modules only. */
import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, dirname } from "node:path";
import { fileURLToPath } from "node:url";
import { gzipSync } from "node:zlib";

export const root = join(dirname(fileURLToPath(import.meta.url)), "..");
const npm = process.platform === "win32" ? "npm.cmd" : "npm";

export function run(command, args, options = {}) {
  const r = spawnSync(command, args, {
    cwd: root,
    stdio: options.quiet ? ["ignore", "pipe", "pipe"] : ["ignore", 2, 2],
    encoding: "utf8",
    env: { ...process.env, ...options.env },
  });
  if (r.status !== 0 && !options.mayFail) {
    process.stderr.write(
      `${r.stdout ?? ""}${r.stderr ?? ""}\n${command} ${args.join(" ")} ended with ${r.status ?? r.signal}\n`,
    );
    process.exit(1);
  }
  return r;
}

/** Is all that the lock asks for (but for other systems' packages) there already, by whatever command it came? */
function complete() {
  const hidden = join(root, "node_modules", ".package-lock.json");
  if (!existsSync(hidden)) return false;
  const have = JSON.parse(readFileSync(hidden, "utf8")).packages;
  const want = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8")).packages;
  return Object.entries(want).every(([at, p]) => at === "" || p.optional || have[at]?.version === p.version);
}

/** Install when the lock file is not what is installed. */
export function install() {
  const mark = join(root, "node_modules", ".installed-lock");
  const lock = createHash("sha256")
    .update(readFileSync(join(root, "package-lock.json")))
    .digest("hex");
  if (existsSync(mark) && readFileSync(mark, "utf8") === lock) return;
  if (complete()) return;
  process.stderr.write("Installing packages…\n");
  run(npm, ["ci", "--no-audit", "--no-fund"], { quiet: true });
  writeFileSync(mark, lock);
}

function walk(dir, out = []) {
  for (const e of readdirSync(dir, { withFileTypes: true })) {
    const p = join(dir, e.name);
    if (e.isDirectory()) walk(p, out);
    else if (!/\.test\.tsx?$/.test(e.name)) out.push(p);
  }
  return out;
}

/** Build when a source is newer than the last build. */
export function build() {
  const files = [
    ...walk(join(root, "app")),
    ...walk(join(root, "public")),
    ...["package-lock.json", "vite.config.ts", "react-router.config.ts", "tsconfig.json"].map((f) => join(root, f)),
  ];
  const h = createHash("sha256");
  for (const f of files.sort()) h.update(f.slice(root.length)).update(readFileSync(f));
  const want = h.digest("hex");
  const mark = join(root, "build", ".built-from");
  if (
    existsSync(mark) &&
    readFileSync(mark, "utf8") === want &&
    statSync(join(root, "build/client/index.html")).size > 0
  )
    return;
  process.stderr.write("Building…\n");
  run("node", ["node_modules/@react-router/dev/bin.js", "build"], { quiet: true });
  // Packed copies, so that what travels is small; the server picks by what the browser accepts.
  for (const f of walk(join(root, "build/client")))
    if (/\.(js|css|html|svg|wasm|json)$/.test(f)) writeFileSync(`${f}.gz`, gzipSync(readFileSync(f), { level: 9 }));
  writeFileSync(mark, want);
}
