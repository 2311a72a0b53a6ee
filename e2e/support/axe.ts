/**
 * axe on a page as it stands; no rule is switched off. In the second theme the rules that look at colours are run
 * again: all else is the same page.
 */
import { readFileSync } from "node:fs";
import { createRequire } from "node:module";
import type { Page } from "@playwright/test";

const AXE = readFileSync(createRequire(import.meta.url).resolve("axe-core/axe.min.js"), "utf8");

interface Finding {
  id: string;
  impact: string;
  nodes: { html: string; failureSummary: string }[];
}

/** @param within only what stands in there: an open list hides all else from everybody but the eye @returns what is wrong, a line each */
export async function clean(p: Page, where: string, within?: string): Promise<string[]> {
  if (!(await p.evaluate(() => "axe" in window))) await p.evaluate(AXE);
  const found = (await p.evaluate(async (part) => {
    const { axe } = window as unknown as {
      axe: { run(where: object, o?: object): Promise<{ violations: { id: string }[] }> };
    };
    const on = part ? { include: [part] } : document;
    // only what is wrong is written out: all rules run, and it takes two thirds of the time
    const resultTypes = ["violations"];
    const day = (await axe.run(on, { resultTypes })).violations;
    const root = document.documentElement;
    const was = root.dataset.theme;
    root.dataset.theme = was === "night" ? "day" : "night";
    const night = (await axe.run(on, { runOnly: ["color-contrast", "link-in-text-block"], resultTypes })).violations;
    if (was === undefined) delete root.dataset.theme;
    else root.dataset.theme = was;
    return [...day, ...night.map((v) => ({ ...v, id: `${v.id}, the other theme` }))];
  }, within)) as Finding[];
  return found.map(
    (v) =>
      `${where}: ${v.id} (${v.impact}) ${v.nodes
        .slice(0, 2)
        .map((n) => `${n.html.slice(0, 140)} — ${n.failureSummary.split("\n").slice(1, 2).join(" ").trim()}`)
        .join(" | ")}`,
  );
}
