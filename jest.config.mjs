/** Unit tests: the pure core, the store on a fake IndexedDB, the readers and writers. */
export default {
  globals: { MANY: Number(process.env.MANY ?? 1) },
  testEnvironment: "node",
  // Nothing is timed by the tests; a busy machine must not fail one.
  testTimeout: 60000,
  maxWorkers: "100%",
  testSequencer: "<rootDir>/scripts/jest-sequencer.mjs",
  setupFiles: ["fake-indexeddb/auto"],
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  testMatch: ["<rootDir>/app/**/*.test.ts?(x)", "<rootDir>/scripts/**/*.test.ts"],
  moduleNameMapper: { "^~/(.*)$": "<rootDir>/app/$1" },
  transform: { "^.+\\.tsx?$": "<rootDir>/scripts/jest-transform.mjs" },
};
