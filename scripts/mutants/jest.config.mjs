/** Unit tests of the rooms that faults are put into; the quick files first, so that a fault is noticed soon. */
import { fileURLToPath } from "node:url";
import base from "../../jest.config.mjs";

/** `TESTS=app/core/models,app/core/plan/lay`: only the tests whose paths begin so */
const begins = process.env.TESTS?.split(",") ?? ["app/core/", "app/store/", "app/acts/"];
const { testMatch: _, ...rest } = base;
export default {
  ...rest,
  rootDir: fileURLToPath(new URL("../../", import.meta.url)),
  testRegex: begins.map((b) => `/${b}[^:]*\\.test\\.ts$`),
  testSequencer: "<rootDir>/scripts/mutants/sequencer.mjs",
};
