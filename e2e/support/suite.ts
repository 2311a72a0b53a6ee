/** A small runner: journeys in order, each with a name; what fails is told with its reason, and the rest still runs. */
import assert from "node:assert/strict";
import { snapshot } from "../browser";

type Body = (url: string) => Promise<void>;
const journeys: { name: string; body: Body }[] = [];

export const journey = (name: string, body: Body): void => void journeys.push({ name, body });
export { assert };

/** @param only run journeys whose name holds one of these texts; all when there are none */
export async function runAll(url: string, only: string[], lanes = 3): Promise<{ passed: number; failed: number }> {
  let passed = 0;
  let failed = 0;
  const queue = journeys.filter((j) => !only.length || only.some((t) => j.name.includes(t)));
  const lane = async (): Promise<void> => {
    for (let j = queue.shift(); j; j = queue.shift()) {
      const begun = Date.now();
      try {
        await j.body(url);
        passed++;
        console.log(`  ok   ${j.name} (${((Date.now() - begun) / 1000).toFixed(1)} s)`);
      } catch (e) {
        failed++;
        console.log(
          `  FAIL ${j.name}\n${String((e as Error).stack ?? e)
            .split("\n")
            .slice(0, 12)
            .join("\n")}`,
        );
        if (only.length) console.log(`       as it stood: ${await snapshot()}`);
      }
    }
  };
  await Promise.all(Array.from({ length: lanes }, lane));
  return { passed, failed };
}
