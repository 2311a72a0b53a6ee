import type { Config } from "@react-router/dev/config";

/** A single-page app: nothing is rendered on a server, every loader runs in the browser. */
export default {
  ssr: false,
  future: { v8_middleware: true, v8_splitRouteModules: true, v8_viteEnvironmentApi: true },
} satisfies Config;
