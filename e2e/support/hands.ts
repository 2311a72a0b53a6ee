/** Two ways of working the app: by keyboard alone and by touch alone. A journey is written once and run with each. */
import type { Locator, Page } from "@playwright/test";

export interface Hands {
  readonly how: "keyboard" | "touch";
  press(role: "button" | "link" | "checkbox", name: string | RegExp): Promise<void>;
  /** a part that is folded away */
  open(text: string): Promise<void>;
  fill(label: string | RegExp, value: string): Promise<void>;
  pick(label: string | RegExp, option: string | RegExp): Promise<void>;
  file(button: string, file: { name: string; mimeType: string; buffer: Buffer }): Promise<void>;
}

const settle = async (page: Page): Promise<void> => {
  await page.waitForTimeout(60);
  await page.waitForFunction(() => !document.querySelector("[aria-busy='true']"));
};

/** Waits until it is on the page; one that never comes says what the page shows instead. */
async function there(page: Page, target: Locator): Promise<void> {
  try {
    await target.first().waitFor();
  } catch {
    const shown = await page.locator("body").ariaSnapshot();
    throw new Error(`never came: ${String(target)}; the page shows\n${shown.slice(0, 3000)}`);
  }
}

/** Tab until an element has the focus; fails when it can't be reached by keyboard. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await there(page, target);
  const at = (): Promise<boolean> => target.first().evaluate((el) => el === document.activeElement);
  if (await at()) return;
  for (let i = 0; i < 260; i++) {
    await page.keyboard.press("Tab");
    if (await at()) return;
  }
  throw new Error(`not reachable by keyboard: ${await target.first().evaluate((e) => e.outerHTML.slice(0, 200))}`);
}

export function keyboard(page: Page): Hands {
  return {
    how: "keyboard",
    press: async (role, name) => {
      const t = page.getByRole(role, { name, exact: typeof name === "string" });
      await tabTo(page, t);
      await page.keyboard.press(role === "checkbox" ? "Space" : "Enter");
      await settle(page);
    },
    open: async (text) => {
      await tabTo(page, page.locator("[data-fold]", { hasText: text }));
      await page.keyboard.press("Enter");
    },
    fill: async (label, value) => {
      const t = page.getByLabel(label);
      await tabTo(page, t);
      await page.keyboard.press("Control+A");
      await page.keyboard.type(value);
      await page.keyboard.press("Tab");
      await settle(page);
    },
    pick: async (label, option) => {
      await tabTo(page, page.getByLabel(label));
      await page.keyboard.press("Enter");
      const list = page.getByRole("option");
      await list.first().waitFor();
      const all = await list.allInnerTexts();
      const want = all.findIndex((l) => (typeof option === "string" ? l === option : option.test(l)));
      if (want < 0) throw new Error(`no option ${option} among ${all.join(", ")}`);
      // the list moves its focus a moment after the key: pressed faster than any hand, Enter would take the option before
      const onOption = (n: number): Promise<unknown> =>
        page.waitForFunction((i) => document.querySelectorAll("[role='option']")[i] === document.activeElement, n);
      await page.keyboard.press("Home");
      await onOption(0);
      for (let i = 1; i <= want; i++) {
        await page.keyboard.press("ArrowDown");
        await onOption(i);
      }
      await page.keyboard.press("Enter");
      await list.first().waitFor({ state: "detached" });
      await settle(page);
    },
    file: async (button, file) => {
      await tabTo(page, page.getByRole("button", { name: button }));
      const chooser = page.waitForEvent("filechooser");
      await page.keyboard.press("Enter");
      await (await chooser).setFiles(file);
      await settle(page);
    },
  };
}

export function fingers(page: Page): Hands {
  const tap = async (t: Locator): Promise<void> => {
    await t.first().scrollIntoViewIfNeeded();
    const box = await t.first().boundingBox();
    if (!box || box.height < 40)
      throw new Error(
        `target too small for a finger: ${box?.height ?? 0} px, ${await t.first().evaluate((e) => e.outerHTML.slice(0, 160))}`,
      );
    await t.first().tap();
  };
  return {
    how: "touch",
    press: async (role, name) => {
      const t = page.getByRole(role, { name, exact: typeof name === "string" });
      if (role === "checkbox") await t.first().tap();
      else await tap(t);
      await settle(page);
    },
    open: async (text) => {
      await page.locator("[data-fold]", { hasText: text }).first().tap();
    },
    fill: async (label, value) => {
      const t = page.getByLabel(label).first();
      await t.scrollIntoViewIfNeeded();
      await t.tap();
      await t.fill(value); // what the on-screen keyboard would put in
      await t.blur();
      await settle(page);
    },
    pick: async (label, option) => {
      await tap(page.getByLabel(label));
      await tap(page.getByRole("option", { name: option, exact: typeof option === "string" }));
      await page.getByRole("option").first().waitFor({ state: "detached" });
      await settle(page);
    },
    file: async (button, file) => {
      const chooser = page.waitForEvent("filechooser");
      await tap(page.getByRole("button", { name: button }));
      await (await chooser).setFiles(file);
      await settle(page);
    },
  };
}
