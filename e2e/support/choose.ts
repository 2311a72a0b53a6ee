/** The mouse on the app's own controls. */
import type { Locator, Page } from "@playwright/test";

/** One out of a list. */
export async function choose(p: Page, field: string | Locator, option: string | RegExp): Promise<void> {
  await (typeof field === "string" ? p.getByLabel(field) : field).click();
  await p.getByRole("option", { name: option, exact: typeof option === "string" }).click();
  await p.getByRole("option").first().waitFor({ state: "detached" });
}

/**
 * One out of a list, by keys alone: the list is open once one of its lines holds the focus (a key pressed before that is lost),
 * and what the field then says is looked at before anything goes on.
 */
export async function chooseByKeys(p: Page, field: Locator, option: string): Promise<void> {
  await field.focus();
  await p.keyboard.press("Enter");
  await p.locator("[role='option']:focus").waitFor();
  const all = await p.getByRole("option").allInnerTexts();
  const at = all.indexOf(await p.locator("[role='option']:focus").innerText());
  const way = Math.sign(all.indexOf(option) - at);
  for (let i = at; all[i] !== option; i += way) {
    await p.keyboard.press(way > 0 ? "ArrowDown" : "ArrowUp");
    await p
      .locator("[role='option']:focus")
      .and(p.getByRole("option").nth(i + way))
      .waitFor();
  }
  await p.keyboard.press("Enter");
  await p.getByRole("option").first().waitFor({ state: "detached" });
  await field.filter({ hasText: option }).waitFor();
}
