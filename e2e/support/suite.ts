/** A journey: a test of Playwright's that is handed the address of the app; one that fails leaves a picture of where it stood. */
import assert from "node:assert/strict";
import { test } from "@playwright/test";
import { snapshot } from "../browser";

export const journey = (name: string, body: (url: string) => Promise<void>): void =>
  test(name, async () => {
    try {
      await body(process.env.RICH_LAYER_URL as string);
    } catch (e) {
      console.log(`as it stood: ${await snapshot()}`);
      throw e;
    }
  });
export { assert };
