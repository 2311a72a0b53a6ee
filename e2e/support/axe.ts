/** axe on a page as it stands; no rule is switched off. */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Page } from "playwright-core";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

interface Finding {
  id: string;
  impact: string;
  nodes: { html: string; failureSummary: string }[];
}

/** @returns what is wrong, a line each */
export async function clean(p: Page, where: string): Promise<string[]> {
  if (!(await p.evaluate(() => "axe" in window))) await p.evaluate(AXE);
  const found = (await p.evaluate(
    async () =>
      (await (window as unknown as { axe: { run(): Promise<{ violations: unknown[] }> } }).axe.run())
        .violations,
  )) as Finding[];
  return found.map(
    (v) =>
      `${where}: ${v.id} (${v.impact}) ${v.nodes
        .slice(0, 2)
        .map((n) => `${n.html.slice(0, 140)} — ${n.failureSummary.split("\n").slice(1, 2).join(" ").trim()}`)
        .join(" | ")}`,
  );
}
