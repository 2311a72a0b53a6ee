import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [tailwindcss(), reactRouter()],
  resolve: { alias: { "~": new URL("./app", import.meta.url).pathname } },
  worker: { format: "es" },
  build: { target: "es2022", assetsInlineLimit: 0 },
});
