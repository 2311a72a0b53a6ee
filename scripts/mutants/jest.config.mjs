/** Unit tests of the rooms that faults are put into; the quick files first, so that a fault is noticed soon. */
import { fileURLToPath } from "node:url";
import base from "../../jest.config.mjs";

export default {
  ...base,
  rootDir: fileURLToPath(new URL("../../", import.meta.url)),
  testMatch: ["<rootDir>/app/core/**/*.test.ts", "<rootDir>/app/store/*.test.ts", "<rootDir>/app/door/*.test.ts"],
  testSequencer: "<rootDir>/scripts/mutants/sequencer.mjs",
};
