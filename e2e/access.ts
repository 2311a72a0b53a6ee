/** axe on every path and state, both themes, 1280 and 390 wide; no rule is switched off. */
import type { Page } from "@playwright/test";
import { goOn } from "./support/bench";
import { open, openSample } from "./browser";
import { clean } from "./support/axe";
import { assert, journey } from "./support/suite";

const WEDNESDAY = "2027-01-13T11:20:00Z";

const PATHS = [
  "",
  "jobs",
  "jobs/new",
  "jobs/bed-markers/brief",
  "jobs/bed-markers/artwork",
  "jobs/bed-markers/route",
  "jobs/bed-markers/layers",
  "jobs/splash-tiles/layers?step=reveal",
  "jobs/blue-tiles/layers",
  "jobs/kale-markers/layers",
  "jobs/kale-markers/route",
  "jobs/door-sign/artwork",
  "jobs/door-sign/route",
  "guide",
  "guide/route-G",
  "jobs/bed-markers/calendar",
  "jobs/kale-markers/calendar",
  "jobs/bed-markers/bench",
  "jobs/splash-tiles/bench",
  "jobs/kale-markers/bench",
  "jobs/first-markers/wrap-up",
  "jobs/bed-markers/wrap-up",
  "shelf",
  "shelf?product=poppy",
  "workshop",
  "workshop/climate",
  "workshop/gear",
  "workshop/schools",
  "workshop/screen",
  "jobs/splash-tiles/test",
  "jobs/door-sign/files",
  "jobs/bed-markers/cost",
  "shelf?blanks=all",
  "workshop/money",
  "practice/spray",
  "compare?a=bed-markers&b=door-sign",
  "bench-log",
  "nowhere",
  "jobs/ghost/layers",
];

/** A dialog shut by the keyboard; a hint that stands above it takes the first Escape for itself. */
async function shut(p: Page): Promise<void> {
  const dialog = p.getByRole("dialog").first();
  for (let n = 0; n < 3 && (await dialog.isVisible()); n++) {
    await p.keyboard.press("Escape");
    await p.waitForTimeout(300);
  }
  await dialog.waitFor({ state: "hidden" });
}

for (const width of [1280, 390]) {
  journey(`axe: both themes, ${width} wide`, async (url) => {
    const o = await open(url, {
      at: WEDNESDAY,
      theme: "day",
      width,
      height: width === 390 ? 844 : 800,
      touch: width === 390,
    });
    const p = o.page;
    const faults: string[] = [];
    const look = async (where: string, within?: string): Promise<void> =>
      void faults.push(...(await clean(p, where, within)));
    await p.getByRole("button", { name: "Open the sample shop" }).waitFor();
    await look("first screen");
    await openSample(p);
    for (const path of PATHS) {
      await p.goto(new URL(path, url).href);
      await p.locator("main[data-view]:not([data-view='loading'])").waitFor();
      await p.waitForTimeout(120);
      await look(path || "today");
      // against the width asked for: a phone lays a page that is too wide out wider, and says so nowhere
      const wide = await p.evaluate((w) => document.documentElement.scrollWidth - w, width);
      if (wide > 1) faults.push(`${path}: ${wide} px wider than the screen`);
    }
    // states: palette, keys, menu, why, errors, note, early start
    await p.goto(new URL("jobs/blue-tiles/layers?step=coat.top.1", url).href);
    await p.getByRole("button", { name: "Go to…" }).click();
    // its code comes when it is first asked for
    await p.getByRole("dialog").first().waitFor();
    await look("palette");
    await shut(p);
    if (width === 1280) {
      await p.getByRole("button", { name: "Keys" }).click();
      await p.getByRole("dialog").first().waitFor();
      await look("keys");
      await shut(p);
    }
    await p.getByRole("button", { name: /^Acts on/ }).click();
    await look("menu");
    await p.keyboard.press("Escape");
    await p.getByRole("button", { name: /why this number: Paint/ }).click();
    await p.getByRole("dialog").locator("[data-lever]").first().waitFor();
    await look("why, with what moves it");
    await p.keyboard.press("Escape");
    await p.getByText("Change this step").click();
    await p.getByLabel(/^Film, dry/).fill("thick");
    await p.getByLabel(/^Film, dry/).press("Enter");
    await p.getByRole("alert").first().waitFor();
    await look("error in a field");
    await p.goto(new URL("jobs/blue-tiles/brief", url).href);
    await p.getByText("Hours:").click();
    await p.getByText("Climate:").click();
    await p.getByText("bed 600 × 400 mm").click();
    await look("brief with its folds open");
    await p.getByLabel("Due").locator("xpath=..").getByRole("button", { name: "Pick from a calendar" }).click();
    // the fold of the hours has a leaf of its own
    await p.getByRole("dialog", { name: "Calendar" }).getByRole("grid").waitFor();
    await look("a leaf of the calendar");
    await shut(p);
    await p.getByLabel("Made of").click();
    await p.getByRole("option").first().waitFor();
    await look("a list that is open", "[role='listbox']");
    await p.keyboard.press("Escape");
    await p.getByLabel("Due").fill("2027-01-15T12:00");
    await p.getByLabel("Due").blur();
    await p.getByText(/after it is due/).waitFor();
    await p.goto(new URL("jobs/blue-tiles/calendar", url).href);
    await p.locator("[data-way-out]").first().waitFor();
    await look("calendar, too late");
    await p.goto(new URL("workshop/machines", url).href);
    await p.locator("[data-fold]").first().click();
    await look("a machine, opened");
    await p.goto(new URL("workshop/hours", url).href);
    await p.getByRole("grid").waitFor();
    await look("days off");
    await p.goto(new URL("workshop", url).href);
    await p
      .getByLabel("Rich Layer file")
      .setInputFiles({ name: "x.json", mimeType: "application/json", buffer: Buffer.from("{}") });
    await p.getByRole("alert").first().waitFor();
    await look("refused file");
    await p.goto(new URL("jobs/splash-tiles/bench", url).href);
    await p.getByRole("button", { name: "Begin early…" }).click();
    await look("bench, early start");
    await p.keyboard.press("Escape");
    await p.getByRole("button", { name: /^Note/ }).click();
    await look("bench, notes in one tap");
    await p.getByRole("button", { name: "Leave it" }).click();
    await p.locator("[data-why='opens']").first().click();
    await p.getByRole("dialog").locator("[data-lever]").first().waitFor();
    await look("bench, why a wait is so long");
    await p.keyboard.press("Escape");
    await p.getByRole("button", { name: /type in a reading/ }).click();
    await look("bench, reading of the air");
    await p.goto(new URL("jobs/blue-tiles/bench", url).href);
    // on to the first step that a hazard is about
    await p.locator("#bench-step").waitFor();
    for (let k = 0; k < 40 && !(await p.locator("[data-fix='accept']").count()); k++) await goOn(p);
    await p.getByRole("button", { name: "Read and accepted" }).first().waitFor();
    await look("bench, hazards");
    assert.deepEqual([...new Set(faults)], []);
    await o.close();
    // an empty shop
    const e = await open(url, { at: WEDNESDAY, theme: "day", width, touch: width === 390 });
    await e.page.getByRole("button", { name: "Start an empty shop" }).click();
    await e.page.getByText("Nothing is under way").waitFor();
    const empty: string[] = await clean(e.page, "empty today");
    for (const path of ["jobs", "shelf", "workshop", "bench-log"]) {
      await e.page.goto(new URL(path, url).href);
      await e.page.locator("main[data-view]:not([data-view='loading'])").waitFor();
      await e.page.waitForTimeout(120);
      empty.push(...(await clean(e.page, `empty ${path}`)));
    }
    assert.deepEqual(empty, []);
    await e.close();
  });
}
