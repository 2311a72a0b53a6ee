/** The kit page in both themes, wide and narrow: built by itself, each state looked at, axe clean, a picture taken of each. */
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { fileURLToPath } from "node:url";
import { test } from "@playwright/test";
import sirv from "sirv";
import { build } from "vite";
import { open } from "./browser";
import { clean } from "./support/axe";
import { choose } from "./support/choose";
import { assert } from "./support/suite";

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

test("every control in every state, by day at 1280 and by night at 390 wide", async () => {
  await build({ configFile: here("kit/vite.config.ts"), logLevel: "error" });
  const files = sirv(here("../node_modules/.cache/kit"), { dev: true });
  const server = createServer((q, r) => files(q, r)).listen(0, "127.0.0.1");
  await new Promise((on) => server.once("listening", on));
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  // the other theme's colours are looked at on each page, too
  for (const [theme, width] of [
    ["day", 1280],
    ["night", 390],
  ] as const) {
    const o = await open(`${url}?theme=${theme}`, { width, touch: width === 390, height: 844 });
    const p = o.page;
    await p.getByRole("heading", { name: "Kit" }).waitFor();
    const wrong = p.getByLabel("Wrong", { exact: true });
    await wrong.fill("none");
    await wrong.blur();
    await p.getByText("is not a length such as").first().waitFor();
    assert.equal(await wrong.inputValue(), "none");
    await p.getByLabel("Being stored").fill("121 mm");
    await p.getByLabel("Being stored").blur();
    await p.locator("[aria-busy='true']").first().waitFor();
    await p.getByLabel("No moment yet").fill("30 feb");
    await p.getByLabel("No moment yet").blur();
    await p.getByText("no day of the calendar").waitFor();
    await p.getByLabel("A time of day").fill("4pm");
    await p.getByLabel("A time of day").blur();
    await choose(p, "Held here", "Glazed tile");
    await choose(p, "Refused", "Hard maple");
    await p.getByRole("alert").nth(2).waitFor();
    assert.match(await p.getByLabel("Refused", { exact: true }).last().innerText(), /Glazed tile/);
    // a form tells beside the field, and keeps what was typed
    await p.getByLabel("Piece", { exact: true }).fill("none");
    await p.getByRole("button", { name: "Keep it" }).click();
    await p.getByText("“none” is not a number.").waitFor();
    assert.equal(await p.getByLabel("Piece", { exact: true }).getAttribute("aria-invalid"), "true");
    await p.getByLabel("Piece", { exact: true }).fill("3");
    await p.getByRole("button", { name: "Keep it" }).click();
    await p.waitForFunction(() => !document.querySelector("form [aria-invalid]"));
    // of four thousand rows those in sight are there, and sorting asks all of them
    const many = p.getByRole("table", { name: "Very many" });
    await many.scrollIntoViewIfNeeded();
    assert.ok((await many.locator("tbody tr").count()) < 120);
    const sort = many.getByRole("button", { name: "Pieces" });
    await sort.press("Enter");
    await sort.press("Enter");
    assert.equal(await many.getByRole("columnheader", { name: "Pieces" }).getAttribute("aria-sort"), "descending");
    assert.equal(await many.locator("tbody td.num").first().innerText(), "100");
    assert.deepEqual(await clean(p, `kit, ${theme}, ${width}`), []);
    await p.evaluate(() => window.scrollTo(0, 0));
    const picture = await p.screenshot({ clip: { x: 0, y: 0, width, height: 2400 }, fullPage: true });
    await test.info().attach(`kit-${theme}-${width}.png`, { body: picture, contentType: "image/png" });
    assert.ok(picture.length > 50_000);
    await o.close();
  }
  server.close();
});
