/** The kit page by itself: `npm run kit`. It is no part of the app's build. */
import tailwindcss from "@tailwindcss/vite";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: here("."),
  plugins: [tailwindcss()],
  resolve: { alias: { "~": here("../../app") } },
  build: { outDir: here("../../node_modules/.cache/kit"), emptyOutDir: true, chunkSizeWarningLimit: 2000 },
});
