/** docs/adding.md is done as it is written: applied to a copy of the app, compiled, its files counted; what was added is planned with. */
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("../", import.meta.url));
const page = readFileSync(join(root, "docs/adding.md"), "utf8");

interface Block {
  section: string;
  file: string;
  /** the text that begins the line it goes before; null: a new file */
  before: string | null;
  code: string;
}
const blocks: Block[] = page.split(/^## /m).flatMap((part) => {
  const section = part.slice(0, part.indexOf("\n")).trim();
  return [
    ...part.matchAll(/^```ts (new|in)=("(?:[^"\\]|\\.)*")(?: before=("(?:[^"\\]|\\.)*"))?\n([\s\S]*?)^```$/gm),
  ].map(([, how, file, before, code]) => ({
    section,
    file: JSON.parse(file) as string,
    before: how === "new" ? null : (JSON.parse(before) as string),
    code,
  }));
});
const SECTIONS = [...new Set(blocks.map((b) => b.section))];

let copy = "";
beforeAll(() => {
  copy = mkdtempSync(join(tmpdir(), "richlayer-adding-"));
  for (const name of ["app", "scripts/adding", "package.json", "tsconfig.json"])
    cpSync(join(root, name), join(copy, name), { recursive: true });
  symlinkSync(join(root, "node_modules"), join(copy, "node_modules"));
});
afterAll(() => rmSync(copy, { recursive: true, force: true }));

const proofs = (dir: string): Record<string, unknown> => {
  const r = spawnSync(process.execPath, ["--import", "tsx", "scripts/adding/proofs.ts"], {
    cwd: dir,
    encoding: "utf8",
  });
  if (r.status !== 0) throw new Error(r.stderr);
  return JSON.parse(r.stdout) as Record<string, unknown>;
};
const holds = (v: unknown): boolean => typeof v === "object" && v !== null && Object.values(v).every((x) => x === true);

test("five things are added, each in two files at most", () => {
  expect(SECTIONS).toEqual([
    "A sprayed finish",
    "A kind of step that lays and turns",
    "A rule",
    "A route",
    "An export",
  ]);
  for (const s of SECTIONS)
    expect([s, new Set(blocks.filter((b) => b.section === s).map((b) => b.file)).size <= 2]).toEqual([s, true]);
});

test("none of it is there before", () => {
  const before = proofs(root);
  for (const s of SECTIONS) expect([s, holds(before[s])]).toEqual([s, false]);
});

test("done as the page says it compiles, and each does what it is for", () => {
  for (const b of blocks) {
    const path = join(copy, b.file);
    if (b.before === null) {
      mkdirSync(dirname(path), { recursive: true });
      writeFileSync(path, b.code);
      continue;
    }
    const text = readFileSync(path, "utf8");
    const at = text.startsWith(b.before) ? 0 : text.indexOf(`\n${b.before}`) + 1;
    expect([b.file, b.before, at > 0 || text.startsWith(b.before)]).toEqual([b.file, b.before, true]);
    writeFileSync(path, text.slice(0, at) + b.code + text.slice(at));
  }
  writeFileSync(
    join(copy, "tsconfig.added.json"),
    JSON.stringify({
      extends: "./tsconfig.json",
      include: ["app/*.d.ts", "app/core", "app/io", "app/acts", "app/views", "app/store", "app/workers", "app/ui"],
      exclude: ["**/*.test.ts"],
    }),
  );
  const tsc = spawnSync(process.execPath, ["node_modules/typescript/bin/tsc", "-p", "tsconfig.added.json"], {
    cwd: copy,
    encoding: "utf8",
  });
  expect(tsc.stdout).toBe("");
  const after = proofs(copy);
  for (const s of SECTIONS)
    expect([s, after[s]]).toEqual([s, Object.fromEntries(Object.keys(after[s] as object).map((k) => [k, true]))]);
});
