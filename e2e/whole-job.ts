/** Empty shop, a job of one's own, bench, wrap-up: by keyboard alone at 1280, by touch alone at 390. */
import type { Page } from "@playwright/test";
import { choose } from "./support/choose";
import { faults, MONDAY, open, type Opened } from "./browser";
import { fingers, keyboard, tabTo, type Hands } from "./support/hands";
import { RADISH, svgFile } from "./support/drawing";
import { assert, journey } from "./support/suite";

async function brief(page: Page, h: Hands, pieces: number): Promise<void> {
  await h.press("button", "Start an empty shop");
  await page.getByText("Nothing is under way").waitFor();
  await h.press("link", "New job");
  await h.fill("What is it called?", "Radish markers");
  await h.fill("Who is it for?", "A neighbour");
  await h.press("button", "Begin the job");
  await page.getByRole("heading", { name: "The piece" }).waitFor();
  await h.fill("How many", String(pieces));
  await h.fill("Due", "2027-02-20T16:00");
  await h.fill("Wide", "80 mm");
  await h.fill("High", "4 cm");
  await h.fill("Thick", "5/16 in");
  await h.press("checkbox", "only looked at");
  assert.equal(await page.getByLabel("Wide").inputValue(), "80 mm");
  assert.equal(await page.getByLabel("High").inputValue(), "40 mm");
  assert.equal(await page.getByLabel("Thick").inputValue(), "7.94 mm");
  assert.equal(await page.getByLabel("Due").inputValue(), "Sat 20 Feb 2027, 16:00");
  assert.ok(await page.getByText("Hours: Mon-Fri 09:00 to 18:00").isVisible());
  await h.fill("Watts", "40");
  await h.press("button", "Add machine");
  await page.getByLabel("Machine").first().waitFor();
  // Hours, air and the machine's own figures are set where the job asks for them.
  await h.open("Hours:");
  await h.press("checkbox", "Saturday");
  await page.getByText("Hours: Mon-Sat 09:00 to 18:00").waitFor();
  await h.open("Climate:");
  await h.fill("Temperature", "18");
  await page.getByText("Climate: 18 °C, 50 % humidity").waitFor();
  await h.open("40 W, bed");
  await h.fill("Top speed", "18 in/s");
  await page.getByText("1080 in/min").first().waitFor();
  // nobody has said yet whether it is safe to stand beside
  for (const fact of ["Enclosed, its window rated for this beam", "Extraction fitted and used"])
    await h.pick(fact, "yes");
}

async function artworkAndRoute(page: Page, h: Hands): Promise<void> {
  await h.press("link", "Next: artwork");
  await page.getByText("Drop an SVG file here").waitFor();
  await h.file("Choose an SVG file", svgFile("radish.svg", RADISH));
  await page.locator("li[data-zone='z-a8235a']").waitFor();
  assert.match((await page.locator("li[data-zone='z-a8235a']").textContent()) ?? "", /2\.54 cm², edge 57 mm/);
  for (const name of ["Beet", "Kale"]) {
    if (!(await page.getByRole("button", { name: "Add paint" }).isVisible()))
      await h.open("Put a further paint on the Shelf");
    await h.fill("Name", name);
    await h.press("button", "Add paint");
    await page.waitForFunction(
      (n) => [...document.querySelectorAll("main [role='combobox']")].some((o) => o.textContent?.startsWith(n)),
      name,
    );
  }
  await h.press("link", "Next: route");
  await page.getByRole("heading", { name: "Ways to the colour" }).waitFor();
  // what does not go here is not offered, and says why
  await page.locator("[data-route='E1']").waitFor();
  assert.equal(await page.locator("[data-route='A1']").count(), 0);
  await h.open("not go here");
  assert.match((await page.locator("[data-not='A1']").textContent()) ?? "", /does not go on/);
  await h.press("button", "Choose Engrave, seal, fill, sand back");
  await page.getByRole("heading", { name: "To buy" }).waitFor();
  // planned and drawn with what is not bought yet; the bench is shut until it is
  await h.press("link", "Layers");
  await page.locator("main[data-view='layers']").getByText("To buy first: Shellac, Clear acrylic.").waitFor();
  await page.locator("[data-layer]").first().waitFor();
  await h.press("link", "Bench");
  await page.getByRole("heading", { name: "Not ready for the bench" }).waitFor();
  await page.goBack();
  await h.press("link", "What you have goes on the Shelf there");
  await page.getByRole("heading", { name: "To buy" }).waitFor();
  for (const add of ["Put shellac on the Shelf", "Put clear acrylic on the Shelf"]) await h.press("button", add);
  await page.getByRole("heading", { name: "To buy" }).waitFor({ state: "hidden" });
  await h.press("button", "Next: layers");
  await page.locator("main[data-view='layers']").waitFor();
}

/**
 * Every step at the bench; waits end by touch check and by time in turn.
 * @returns the steps that the piece which goes first went through alone, and whether the batch was held for it
 */
async function bench(o: Opened, h: Hands): Promise<{ alone: string[]; held: boolean }> {
  const { page } = o;
  await h.press("link", "Go to the bench");
  await page.locator("main[data-view='bench']").waitFor();
  const alone = new Set<string>();
  let held = false;
  let byTime = false;
  let taps = 0;
  for (let guard = 0; guard < 200; guard++) {
    const title = await page.locator("#bench-step").textContent();
    if (title === "All steps are done") return { alone: [...alone], held };
    if (await page.locator("[data-first]").count()) alone.add(title ?? "");
    held ||= (await page.locator("[data-gate='proof']").count()) > 0;
    // what has to be answered before a step begins: nothing else can be pressed until then
    for (let n = await page.locator("[data-gate]").count(); n > 0; n--) {
      assert.equal(await page.getByRole("button", { name: /Start this step/ }).count(), 0);
      await h.press("button", /^(Read and accepted|Yes, it is so|Accepted just now)$/);
      await page.waitForFunction((left) => document.querySelectorAll("[data-gate]").length === left, n - 1);
    }
    const main = page.locator("footer button").first();
    const word = (await main.textContent())?.replace("space", "").trim() ?? "";
    if (word === "It passes by touch") {
      if (byTime) {
        const opens = Number(await page.locator("main [data-opens]").first().getAttribute("data-opens"));
        assert.ok(opens > 0, "a wait has its opening");
        await o.setTime((opens + 1) * 60000);
        await page.locator("#bench-step").waitFor();
      } else {
        await h.press("button", "It passes by touch");
        await h.press("button", "Checked just so: it passes");
      }
      byTime = !byTime;
      await page.waitForFunction(() => !document.querySelector("footer button")?.textContent?.includes("touch"));
      continue;
    }
    const count = (await page.locator("[data-bench-count]").count())
      ? await page.locator("[data-bench-count]").textContent()
      : "";
    if (h.how === "keyboard") await page.keyboard.press("Space");
    else await h.press("button", new RegExp(`^${word}`));
    taps++;
    await page.waitForFunction(
      ([t, w, c]) =>
        document.querySelector("#bench-step")?.textContent !== t ||
        document.querySelector("footer button")?.textContent?.replace("space", "").trim() !== w ||
        document.querySelector("[data-bench-count]")?.textContent !== c,
      [title, word, count] as const,
    );
  }
  throw new Error(`the bench never came to an end after ${taps} taps`);
}

async function wrapUp(page: Page, h: Hands, good: number, taps: RegExp): Promise<void> {
  await h.press("link", "Wrap it up");
  await page.getByRole("heading", { name: "What came of it" }).waitFor();
  await h.fill(/^Good, of/, String(good));
  await h.pick("How it looks", "4 of 5");
  await h.fill("What to do otherwise next time", "A finer brush for the leaf.");
  await h.press("button", "Wrap up the job");
  await page.getByText(/^Wrapped up \w{3} \d+ \w{3} 2027/).waitFor();
  await page.goto(new URL("/jobs", page.url()).href);
  assert.match(
    (await page.locator("table").textContent()) ?? "",
    new RegExp(`Radish markers.*Wrapped up, ${good} good`),
  );
  await page.goto(new URL("/bench-log", page.url()).href);
  await page.getByText("How long things take here").waitFor();
  assert.match((await page.locator("table").textContent()) ?? "", taps);
  // of one job alone: its list is filled when it is gone to
  await choose(page, "Job", "Radish markers");
  await page.waitForFunction(() =>
    [...document.querySelectorAll("tbody tr td:nth-child(2)")].every((td) => td.textContent === "Radish markers"),
  );
}

journey("a whole job by keyboard alone", async (url) => {
  const o = await open(url, { at: MONDAY });
  const h = keyboard(o.page);
  await brief(o.page, h, 2);
  await artworkAndRoute(o.page, h);
  // [ and ] walk the steps; the list, the card and the sample move together
  const before = await o.page.locator("#step-title").textContent();
  await o.page.keyboard.press("[");
  await o.page.waitForFunction((t) => document.querySelector("#step-title")?.textContent !== t, before);
  await o.page.keyboard.press("]");
  // a step is lifted and moved with the keyboard
  await tabTo(o.page, o.page.getByRole("button", { name: "Move Label the pieces" }));
  const order = (): Promise<(string | null)[]> =>
    o.page.locator("ol[aria-label='Steps'] > li").evaluateAll((l) => l.map((x) => x.getAttribute("data-step")));
  const was = await order();
  await o.page.keyboard.press("Space");
  await o.page.waitForTimeout(150);
  await o.page.keyboard.press("ArrowDown");
  await o.page.waitForTimeout(150);
  await o.page.keyboard.press("Space");
  await o.page.waitForFunction(
    (a) =>
      [...document.querySelectorAll("ol[aria-label='Steps'] > li")].map((x) => x.getAttribute("data-step")).join() !==
      a,
    was.join(),
  );
  assert.equal((await order()).indexOf("label"), was.indexOf("label") + 1);
  await o.page.keyboard.press("Control+Z");
  await o.page.waitForFunction(
    (a) =>
      [...document.querySelectorAll("ol[aria-label='Steps'] > li")].map((x) => x.getAttribute("data-step")).join() ===
      a,
    was.join(),
  );
  assert.deepEqual(await bench(o, h), { alone: [], held: false });
  await wrapUp(o.page, h, 2, /piece done 2/);
  assert.deepEqual(faults(o.page), []);
  assert.deepEqual(o.strays, []);
  await o.close();
});

journey("a whole job by touch alone, 390 wide, one of three pieces first", async (url) => {
  const o = await open(url, { at: MONDAY, width: 390, height: 844, touch: true });
  const h = fingers(o.page);
  await brief(o.page, h, 3);
  await artworkAndRoute(o.page, h);
  // of three pieces and more one goes the whole way first, and the rest wait until it is accepted
  const { alone, held } = await bench(o, h);
  assert.ok(alone.some((t) => /^Engrave/.test(t)) && alone.some((t) => /^Beet/.test(t)), alone.join());
  assert.ok(alone.includes("Sand the face back") && held, alone.join());
  await wrapUp(o.page, h, 3, /piece done 1/);
  assert.deepEqual(faults(o.page), []);
  assert.deepEqual(o.strays, []);
  await o.close();
});

journey("first steps in an empty shop: a laser, the air, a job; each can wait, and the list goes away", async (url) => {
  const o = await open(url, { at: MONDAY });
  const p = o.page;
  await p.getByRole("button", { name: "Start an empty shop" }).click();
  const steps = p.locator("[data-first-steps]");
  await steps.getByText("First steps, 1 of 3").waitFor();
  await steps.getByLabel("Watts").fill("lots");
  await steps.getByRole("button", { name: "Add machine" }).click();
  await steps.getByText("“lots” is not a number.").waitFor();
  await choose(p, steps.getByLabel("Beam"), /diode/i);
  await steps.getByLabel("Watts").fill("7.5");
  await steps.getByLabel("Name").fill("Bench diode");
  await steps.getByRole("button", { name: "Add machine" }).click();
  await steps.getByText("First steps, 2 of 3").waitFor();
  await steps.getByLabel("Temperature").fill("cold");
  await steps.getByLabel("Temperature").blur();
  await steps.getByRole("alert").waitFor();
  await choose(p, steps.getByLabel("Units"), "inch, °F");
  await p.getByText("Shop (default) 68 °F").waitFor();
  await steps.getByLabel("Temperature").fill("59");
  await steps.getByLabel("Temperature").press("Enter");
  await p.waitForFunction(() => !document.querySelector("[data-first-steps] .tag"));
  assert.equal(await steps.getByLabel("Temperature").inputValue(), "59 °F");
  await steps.getByRole("button", { name: "Next" }).click();
  await steps.getByText("First steps, 3 of 3").waitFor();
  await steps.getByRole("button", { name: "Begin the job" }).click();
  await steps.getByText("A job needs a title that tells it from others.").waitFor();
  await steps.getByLabel("What is it called?").fill("Peg board");
  await steps.getByRole("button", { name: "Begin the job" }).click();
  await p.locator("main[data-view='brief']").waitFor();
  assert.match((await p.locator("main").textContent()) ?? "", /Bench diode/);
  await p.goto(url);
  await p.locator("[data-first-steps='list']").waitFor();
  assert.equal(await steps.getByLabel("done").count(), 3);
  await steps.getByRole("link", { name: "Paints on the Shelf" }).click();
  await p.getByRole("button", { name: /Begin with four plain ones/ }).click();
  await p.getByRole("table", { name: "On the Shelf" }).waitFor();
  await p.goto(url);
  await p.locator("[data-first-steps='list']").waitFor();
  assert.equal(await steps.getByLabel("done").count(), 4);
  await steps.getByRole("button", { name: "Put this list away" }).click();
  await steps.waitFor({ state: "detached" });
  await p.reload();
  await p.locator("main[data-view='today']").waitFor();
  await p.getByText("Peg board").waitFor();
  assert.equal(await steps.count(), 0);
  assert.deepEqual(faults(p), []);
  await o.close();
  // all three can wait
  const e = await open(url, { at: MONDAY });
  await e.page.getByRole("button", { name: "Start an empty shop" }).click();
  for (let k = 1; k <= 3; k++) {
    await e.page.getByText(`First steps, ${k} of 3`).waitFor();
    await e.page.getByRole("button", { name: "Later" }).click();
  }
  await e.page.locator("[data-first-steps='list']").waitFor();
  assert.equal(await e.page.locator("[data-first-steps]").getByLabel("open").count(), 6);
  await e.close();
});
