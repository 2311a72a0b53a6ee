import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { mkdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { defineConfig, type Plugin } from "vite";

/** The package that a module is of; what is ours: app. */
const libraryOf = (module: string): string =>
  /.*node_modules\/((?:@[^/]+\/)?[^/]+)/.exec(module)?.[1] ?? (module.includes("/app/") ? "app" : "the bundler");
/** Notes beside the build how many characters of each chunk are of which package, for `npm run bench`. */
const shares = (): Plugin => ({
  name: "shares",
  apply: "build",
  generateBundle(options, bundle) {
    if (!options.dir?.endsWith("client")) return;
    const of: Record<string, Record<string, number>> = {};
    for (const c of Object.values(bundle)) {
      if (c.type !== "chunk") continue;
      const mine: Record<string, number> = (of[`/${c.fileName}`] = {});
      for (const [id, m] of Object.entries(c.modules))
        mine[libraryOf(id)] = (mine[libraryOf(id)] ?? 0) + m.renderedLength;
    }
    mkdirSync("build", { recursive: true });
    writeFileSync(join("build", "shares.json"), JSON.stringify(of));
  },
});

export default defineConfig({
  plugins: [tailwindcss(), reactRouter(), shares()],
  resolve: { alias: { "~": new URL("./app", import.meta.url).pathname } },
  worker: { format: "es" },
  build: { target: "es2022", assetsInlineLimit: 0 },
});
