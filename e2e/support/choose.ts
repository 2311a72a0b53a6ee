/** The mouse on the app's own controls. */
import type { Locator, Page } from "@playwright/test";

/** One out of a list. */
export async function choose(p: Page, field: string | Locator, option: string | RegExp): Promise<void> {
  await (typeof field === "string" ? p.getByLabel(field) : field).click();
  await p.getByRole("option", { name: option, exact: typeof option === "string" }).click();
  await p.getByRole("option").first().waitFor({ state: "detached" });
}
