/** What the first screen loads: the entry, the shell, the first route and all that they import, packed; and what each package adds. */
import { existsSync, readdirSync, readFileSync } from "node:fs";
import { gzipSync } from "node:zlib";

/** packages told one by one; the rest together */
const TOLD = 12;

export function firstView(): { name: string; n: number; value: number; unit: string }[] {
  if (!existsSync("build/client/index.html")) return [];
  const manifestName = readdirSync("build/client/assets").find((f) => /^manifest-.*\.js$/.test(f)) as string;
  const manifest = JSON.parse(
    readFileSync(`build/client/assets/${manifestName}`, "utf8")
      .replace(/^window\.__reactRouterManifest=/, "")
      .replace(/;$/, ""),
  ) as {
    entry: { module: string; imports: string[] };
    routes: Record<
      string,
      {
        module: string;
        imports: string[];
        clientLoaderModule?: string;
        clientActionModule?: string;
        hydrateFallbackModule?: string;
      }
    >;
  };
  const files = new Set<string>([`/assets/${manifestName}`, manifest.entry.module, ...manifest.entry.imports]);
  for (const id of ["root", "routes/shell", "routes/today"]) {
    const r = manifest.routes[id];
    for (const f of [r.module, ...r.imports, r.clientLoaderModule, r.hydrateFallbackModule]) if (f) files.add(f);
  }
  const seen = new Set<string>();
  const walk = (f: string): void => {
    if (seen.has(f)) return;
    seen.add(f);
    for (const m of readFileSync(`build/client${f}`, "utf8").matchAll(/(?:from|import)\s*"\.\/([\w.-]+\.js)"/g))
      walk(`/assets/${m[1]}`);
  };
  files.forEach(walk);
  const packed = (f: string): number => gzipSync(readFileSync(`build/client${f}`), { level: 9 }).length;
  const sizes = new Map([...seen].map((f) => [f, packed(f)]));
  const all = [...sizes.values()].reduce((a, n) => a + n, 0);
  // a chunk's packed bytes shared out by the characters that each package has in it
  const parts = existsSync("build/shares.json")
    ? (JSON.parse(readFileSync("build/shares.json", "utf8")) as Record<string, Record<string, number>>)
    : {};
  const by = new Map<string, number>();
  for (const [f, size] of sizes) {
    const mine = Object.entries(parts[f] ?? {});
    const chars = mine.reduce((a, [, n]) => a + n, 0);
    for (const [name, n] of mine) by.set(name, (by.get(name) ?? 0) + (size * n) / Math.max(1, chars));
    if (!chars) by.set("the bundler", (by.get("the bundler") ?? 0) + size);
  }
  const told = [...by].sort((a, b) => b[1] - a[1]);
  const rest = told.slice(TOLD).reduce((a, [, n]) => a + n, 0);
  return [
    { name: "first view, script packed", n: seen.size, value: all, unit: "bytes" },
    ...[...told.slice(0, TOLD), ...(rest ? [["other packages", rest] as const] : [])].map(([name, value]) => ({
      name: `first view, of that ${name}`,
      n: seen.size,
      value,
      unit: "bytes",
    })),
  ];
}
