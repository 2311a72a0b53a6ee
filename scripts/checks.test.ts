/** The checks themselves: each one fails on what it is there for, so that a green run means something. */
import { spawnSync } from "node:child_process";
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";

const root = process.cwd();
const bin = (name: string): string => join(root, "node_modules", ".bin", name);

/** What lint says of a file that would lie at a path. */
function lint(path: string, code: string): string[] {
  const r = spawnSync(bin("eslint"), ["--stdin", "--stdin-filename", path, "--format", "json"], {
    cwd: root,
    input: code,
    encoding: "utf8",
  });
  const [file] = JSON.parse(r.stdout) as { messages: { ruleId: string; line: number }[] }[];
  return file.messages.map((m) => `${m.line} ${m.ruleId}`);
}

test("the core may not read the clock, draw lots or look around; the rest may not read the clock", () => {
  const code = [
    "export const a = Date.now();",
    "export const b = new Date();",
    "export const c = Date();",
    "export const d = Math.random();",
    "export const e = performance;",
    "export const f = globalThis.document;",
    "export const g = new Date(0);",
  ].join("\n");
  const clock = ["1 no-restricted-properties", "2 no-restricted-syntax", "3 no-restricted-syntax"];
  expect(lint("app/core/plan/x.ts", code)).toEqual([
    ...clock,
    "4 no-restricted-properties",
    "5 no-restricted-globals",
    "6 no-restricted-properties",
  ]);
  expect(lint("app/routes/x.tsx", code)).toEqual(clock);
  expect(lint("app/clock.ts", code)).toEqual([]);
});

/** What the import check says of a small house. @param files path to the modules it imports */
function boundaries(files: Record<string, string[]>): string[] {
  const dir = mkdtempSync(join(tmpdir(), "rooms-"));
  try {
    mkdirSync(join(dir, "scripts"));
    cpSync(join(root, ".dependency-cruiser.cjs"), join(dir, ".dependency-cruiser.cjs"));
    cpSync(join(root, "scripts/rooms.cjs"), join(dir, "scripts/rooms.cjs"));
    writeFileSync(
      join(dir, "tsconfig.json"),
      '{ "compilerOptions": { "moduleResolution": "bundler", "module": "esnext" } }',
    );
    symlinkSync(join(root, "node_modules"), join(dir, "node_modules"));
    for (const [path, imports] of Object.entries(files)) {
      mkdirSync(dirname(join(dir, path)), { recursive: true });
      writeFileSync(join(dir, path), `${imports.map((x) => `import "${x}";`).join("\n")}\nexport {};\n`);
    }
    const r = spawnSync(bin("depcruise"), [".", "--include-only", "^(app|e2e)|node_modules", "--output-type", "json"], {
      cwd: dir,
      encoding: "utf8",
    });
    const said = JSON.parse(r.stdout) as { summary: { violations: { from: string; rule: { name: string } }[] } };
    return said.summary.violations.map((v) => `${v.from} ${v.rule.name}`).sort();
  } finally {
    rmSync(dir, { recursive: true });
  }
}

test("a line past 140 is refused, in prose too", () => {
  expect(lint("app/core/plan/x.ts", `export const a = "${"x".repeat(140)}";`)).toEqual(["1 @stylistic/max-len"]);
  expect(lint("app/core/plan/x.ts", `export const a = "${"x".repeat(100)}";`)).toEqual([]);
});

test("on screens colours and sizes of type go by their names", () => {
  const code = [
    'export const a = "#a1b2c3";',
    'export const b = "grid bg-[#fff]";',
    "export const c = (x: string) => `text-[13px] ${x}`;",
    'export const d = "text-[0.9rem]";',
    'export const e = "lg:grid-cols-[110px_1fr]";',
    'export const f = "#summary text-fine max-w-[22rem]";',
  ].join("\n");
  expect(lint("app/ui/x.ts", code)).toEqual([1, 2, 3, 4, 5].map((n) => `${n} no-restricted-syntax`));
  expect(lint("app/ui/inks.ts", code)).toEqual([]);
});

test("every room imports from below only", () => {
  expect(
    boundaries({
      "app/core/units/a.ts": [],
      "app/core/plan/plan.ts": ["../judge/snag", "../units/a"],
      "app/core/judge/snag.ts": ["react"],
      "app/core/judge/clock.ts": ["../../clock"],
      "app/core/attic/a.ts": ["../units/a"],
      "app/core/explain/one.ts": ["./two"],
      "app/core/explain/two.ts": ["./one"],
      "app/core/explain/worlds.ts": ["../testing/worlds"],
      "app/core/explain/worlds.test.ts": ["../testing/worlds", "../../../e2e/hands"],
      "app/core/testing/worlds.ts": [],
      "app/clock.ts": [],
      "app/io/read.ts": ["../store/db"],
      "app/store/db.ts": ["dexie"],
      "app/ui/face.tsx": ["dexie", "../routes/jobs"],
      "app/routes/jobs.tsx": ["../core/units/a"],
      "e2e/hands.ts": [],
    }),
  ).toEqual(
    [
      "app/core/attic/a.ts core-rooms-known",
      "app/core/explain/one.ts no-circular",
      "app/core/explain/worlds.test.ts no-e2e-in-app",
      "app/core/explain/worlds.ts explain-below",
      "app/core/explain/worlds.ts testing-only-in-tests",
      "app/core/judge/clock.ts core-below",
      "app/core/judge/clock.ts core-packages",
      "app/core/judge/snag.ts core-packages",
      "app/core/plan/plan.ts plan-below",
      "app/io/read.ts io-below",
      "app/ui/face.tsx dexie-only-in-store",
      "app/ui/face.tsx ui-below",
    ].sort(),
  );
});
