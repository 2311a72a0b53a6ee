/** The calendar of the whole shop: laid, gone by, pinned, promised; by keyboard and by finger. */
import { readFileSync } from "node:fs";
import { choose } from "./support/choose";
import { open, openSample, MONDAY } from "./browser";
import { clean } from "./support/axe";
import { assert, journey } from "./support/suite";

journey("all jobs are laid together and gone by; a step is pinned, a date asked for, what helps tried", async (url) => {
  const o = await open(url, { at: MONDAY });
  const p = o.page;
  await openSample(p);
  // planned one by one they want the same hands, and Today says so
  await p.getByRole("heading", { name: "At the bench" }).waitFor();
  await p.getByText(/want the same hands or machine at once/).waitFor();
  await p.getByRole("link", { name: "Lay all jobs together" }).click();
  await p.locator("[data-chart]").waitFor();
  await p.getByText("Each job is still planned as if it were alone").waitFor();
  assert.deepEqual(await clean(p, "shop-calendar"), []);
  const readyOf = (job: string) => p.locator(`[data-job='${job}'] .text-fine`).innerText();
  await p.getByRole("button", { name: "Go by this" }).click();
  await p.getByText("The jobs go by this calendar").waitFor();
  const said = await readyOf("door-sign");
  // each job's own calendar says the same
  await p.goto(new URL("jobs/door-sign/calendar", url).href);
  await p.locator("time[data-ready]", { hasText: said }).waitFor();
  await p.goto(new URL("", url).href);
  await p.getByText("All trips, on the calendar of the shop").waitFor();
  await p.getByRole("navigation", { name: "Places" }).first().getByRole("link", { name: "Calendar" }).click();
  // a step pinned by keyboard alone
  const bar = p.locator("[data-job='door-sign'] button").first();
  await bar.focus();
  await p.keyboard.press("Enter");
  const begins = p.getByRole("textbox", { name: /^Begins at/ });
  await begins.fill("20 Jan 10:00");
  await p.keyboard.press("Enter");
  await p.getByText(/Door sign is later/).waitFor();
  await begins.fill("never ever");
  await p.keyboard.press("Enter");
  await p.getByRole("alert").filter({ hasText: "never ever" }).waitFor();
  await p.getByRole("button", { name: "Pin it no longer" }).click();
  await p.getByText("The jobs go by this calendar").waitFor();
  // a press moves it by half an hour; a job is held and goes on; a day has a long evening
  await p.getByRole("button", { name: "Half an hour later" }).click();
  await p.getByRole("button", { name: "Pin it no longer" }).click();
  // moved by keys it says what comes of it; left alone by Escape, pinned by Enter; pulled along the same
  await bar.focus();
  await p.keyboard.press("Alt+ArrowRight");
  const pulled = p.locator("[data-pulled]");
  await pulled
    .getByText(/instead of|Nothing else moves|gives way/)
    .first()
    .waitFor();
  await p.keyboard.press("Escape");
  await pulled.waitFor({ state: "detached" });
  await p.locator("[data-chart]").evaluate((e) => e.scrollIntoView());
  const box = (await bar.boundingBox())!;
  await p.mouse.move(box.x + 2, box.y + 8);
  await p.mouse.down();
  for (let i = 1; i <= 8; i++) await p.mouse.move(box.x + 2 + 20 * i, box.y + 8);
  await pulled.waitFor();
  await p.mouse.up();
  await pulled.waitFor({ state: "detached" });
  await p.getByText(/Door sign is later/).waitFor();
  await p.getByRole("button", { name: /^Undo/ }).first().click();
  await p.getByText("The jobs go by this calendar").waitFor();
  const among = p.locator("[data-among='gate-board']");
  await among.getByRole("button", { name: "Its place" }).click();
  await among.getByRole("checkbox", { name: "Held for now" }).click();
  await p.getByText(/Gate board\s+is not laid: it is held/).waitFor();
  await p.getByRole("button", { name: "Hold it no longer" }).click();
  await among.waitFor();
  await p.getByRole("button", { name: "Hours of single days" }).click();
  const day = p.locator("[data-day='2027-01-13']").getByRole("textbox");
  await day.fill("9:00 to 21:30");
  await p.keyboard.press("Enter");
  await p.waitForFunction(() =>
    [...document.querySelectorAll("[data-day='2027-01-13'] input")].some(
      (i) => (i as HTMLInputElement).value === "09:00 to 21:30",
    ),
  );
  await p.getByRole("button", { name: /^Undo/ }).click();
  // not this evening: one press, and one back
  await p.getByRole("button", { name: "Not this evening" }).click();
  await p.waitForFunction(() =>
    [...document.querySelectorAll("[data-day='2027-01-11'] input")].some(
      (i) => (i as HTMLInputElement).value === "09:00 to 17:00",
    ),
  );
  await p.getByRole("button", { name: "Not this evening" }).waitFor({ state: "detached" });
  await p.getByRole("button", { name: /^Undo/ }).click();
  // what may be promised, before it is
  await choose(p, p.getByRole("combobox", { name: "An order like" }), /^Splash tiles/);
  await p.getByRole("textbox", { name: "Pieces" }).fill("many");
  await p.getByRole("button", { name: "When could it be ready?" }).click();
  await p.getByText("“many” is no number of pieces").waitFor();
  await p.getByRole("textbox", { name: "Pieces" }).fill("8");
  await p.getByRole("button", { name: "When could it be ready?" }).click();
  await p.locator("dl[data-promise]").waitFor({ timeout: 90_000 });
  await p.getByRole("button", { name: "What would help?" }).click();
  await p.locator("[data-if='warmer']").waitFor({ timeout: 90_000 });
  // an order like none before, told roughly
  await choose(p, p.getByRole("combobox", { name: "An order like" }), /^None of these/);
  await choose(p, "Material", /^Slate/);
  await p.getByRole("textbox", { name: "Wide" }).fill("as wide as it is");
  await p.getByRole("button", { name: "When could it be ready?" }).click();
  await p.getByRole("alert").filter({ hasText: "as wide as it is" }).waitFor();
  await p.getByRole("textbox", { name: "Wide" }).fill("4 in");
  await p.getByRole("button", { name: "When could it be ready?" }).click();
  await p.locator("dl[data-promise]").waitFor({ timeout: 90_000 });
  // another tab hears of what is done here
  const other = await o.context.newPage();
  await other.goto(new URL("calendar", url).href);
  await other.getByText("The jobs go by this calendar").waitFor();
  await p.getByRole("button", { name: "Each job alone" }).click();
  await other.getByText("Each job is still planned as if it were alone").waitFor();
  await o.close();
});

journey("what open jobs want is bought: less what stands on the Shelf, for those that are chosen", async (url) => {
  const o = await open(url, { at: MONDAY });
  const p = o.page;
  await openSample(p);
  await p.goto(new URL("shelf", url).href);
  await p.getByRole("link", { name: "What to buy for open jobs" }).click();
  await p.locator("[data-to-buy-list]").waitFor();
  const blanks = p.locator("[data-blank]");
  const all = await blanks.count();
  assert.ok(all > 3, String(all));
  assert.deepEqual(await clean(p, "to buy"), []);
  await p.getByRole("checkbox", { name: "Gate board" }).click();
  await p.getByRole("checkbox", { name: "Gate board", checked: false }).waitFor();
  await p.waitForFunction((n) => document.querySelectorAll("[data-blank]").length < n, all);
  const [down] = await Promise.all([
    p.waitForEvent("download"),
    p.getByRole("button", { name: "Save as CSV" }).click(),
  ]);
  assert.equal(down.suggestedFilename(), "to-buy.csv");
  assert.match(readFileSync(await down.path(), "utf8"), /^what,kind,needed,on the Shelf,buy,for\r\n/);
  await p.getByRole("link", { name: "Close" }).click();
  await p.locator("[data-to-buy-list]").waitFor({ state: "detached" });
  await o.close();
});

journey("an empty shop has nothing to lay; on a phone a job that lacks its way says so", async (url) => {
  const o = await open(url, { at: MONDAY, width: 390, height: 800, touch: true });
  const p = o.page;
  await p.getByRole("button", { name: "Start an empty shop" }).tap();
  await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
  await p.goto(new URL("calendar", url).href);
  await p.getByText("Nothing is to be laid yet").waitFor();
  await p.goto(new URL("jobs/new", url).href);
  await p.getByLabel("What is it called?").fill("Coasters for the fair");
  await p.getByRole("button", { name: "Begin the job" }).tap();
  await p.locator("main[data-view='brief']").waitFor();
  await p.goto(new URL("calendar", url).href);
  await p.getByText(/Coasters for the fair is not laid/).waitFor();
  assert.deepEqual(await clean(p, "shop-calendar on a phone"), []);
  await o.close();
});
