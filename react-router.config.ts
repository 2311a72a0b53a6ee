import type { Config } from "@react-router/dev/config";
import { generateSW } from "workbox-build";

/** A single-page app: nothing is rendered on a server, every loader runs in the browser. */
export default {
  ssr: false,
  future: { v8_middleware: true, v8_splitRouteModules: true, v8_viteEnvironmentApi: true },
  // The service worker is made last: only then is there an index.html to keep.
  async buildEnd() {
    await generateSW({
      globDirectory: "build/client",
      globPatterns: ["**/*.{html,js,css,svg,png,woff,woff2,wasm,webmanifest}"],
      swDest: "build/client/sw.js",
      navigateFallback: "/index.html",
      dontCacheBustURLsMatching: /^assets\//,
      maximumFileSizeToCacheInBytes: 8_000_000,
      inlineWorkboxRuntime: true,
      // A new version waits until it is asked for: nothing is swapped in the middle of a run.
      skipWaiting: false,
      clientsClaim: true,
      sourcemap: false,
    });
  },
} satisfies Config;
