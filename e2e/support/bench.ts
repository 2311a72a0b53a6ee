/** A maker at the bench who does what stands there, one press after another. */
import type { Page } from "@playwright/test";

/** One press: a gate answered, a wait passed by touch, or the main button. Returns when the page has taken it. */
export async function goOn(p: Page): Promise<void> {
  // the clock on the wall turns by itself: what counts is the step, its wait, its pieces and what bars it
  const stands = (): Promise<string> =>
    p.evaluate(() => {
      const of = (what: string): Element | null => document.querySelector(what);
      const opens = of("[data-wait-for]")?.getAttribute("data-opens");
      const gates = document.querySelectorAll("[data-gate]").length;
      const main = of("#bench-main")?.textContent;
      return [of("#bench-step")?.textContent, of("[data-bench-count]")?.textContent, opens, gates, main].join("|");
    });
  const was = await stands();
  const touch = p.getByRole("button", { name: "It passes by touch" });
  const gate = p.locator("[data-gate] button").first();
  if (await touch.count()) {
    await touch.click();
    await p.getByRole("button", { name: "Checked just so: it passes" }).click();
  } else if (await gate.count()) await gate.click();
  else await p.keyboard.press("Space");
  for (let n = 0; n < 80 && (await stands()) === was; n++) await p.waitForTimeout(50);
}
