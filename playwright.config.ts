/** Journeys through the real interface: the build is served, Debian's Chromium walks it. `npm run e2e -- -g axe` runs some only. */
import { defineConfig } from "@playwright/test";

/** the longest first, so that all lanes end together */
const JOURNEYS = [
  "kill",
  "access",
  "whole-job",
  "layers",
  "records",
  "trust",
  "routes",
  "pictures",
  "shop",
  "making",
  "kit",
];

export default defineConfig({
  testDir: "e2e",
  globalSetup: "./e2e/support/serve.ts",
  outputDir: "node_modules/.cache/journeys",
  fullyParallel: true,
  workers: 3,
  // Nothing is timed by a journey; a busy machine must not fail one.
  timeout: 15 * 60_000,
  reporter: "list",
  projects: JOURNEYS.map((name) => ({ name, testMatch: `${name}.ts` })),
});
