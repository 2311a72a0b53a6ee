/**
 * Every route through the interface: the field guide's live plans, visits, reverse work, schools, the Workshop's
 * ovens, a new job by a further route.
 */
import { choose } from "./support/choose";
import { faults, open, openSample } from "./browser";
import { clean } from "./support/axe";
import { RADISH, svgFile } from "./support/drawing";
import { assert, journey } from "./support/suite";

/** Waits for something to become true, twenty seconds at most. */
async function until(test: () => Promise<boolean>): Promise<void> {
  for (let n = 0; n < 200; n++) {
    if (await test()) return;
    await new Promise((r) => setTimeout(r, 100));
  }
  throw new Error("it did not come true in twenty seconds");
}
const AT = "2027-01-13T11:20:00Z";

journey("the field guide draws every route from a plan of its own, and can be leafed through", async (url) => {
  const o = await open(url, { at: AT });
  await openSample(o.page);
  const p = o.page;
  await p.getByRole("link", { name: "Field guide" }).first().click();
  await p.locator("main[data-view='guide']").waitFor();
  const routes = await p
    .locator("section[aria-labelledby='g-route'] a")
    .evaluateAll((l) => l.map((a) => a.getAttribute("href")!));
  assert.equal(routes.length, 21);
  for (const r of routes) {
    await p.goto(new URL(r, url).href);
    await p.locator("main[data-topic]").waitFor();
    await p.locator("[data-layer][data-top-um]").first().waitFor();
    const slider = p.getByRole("slider");
    const last = Number(await slider.getAttribute("aria-valuemax"));
    assert.ok(last >= 6, `${r}: ${last + 1} steps`);
    await slider.focus();
    await p.keyboard.press("Home");
    for (let k = 0; k < Math.floor(last / 2); k++) await p.keyboard.press("ArrowRight");
    await p.getByText(`Step ${Math.floor(last / 2) + 1} of ${last + 1}`).waitFor();
  }
  for (const page of [
    "guide/school-melt",
    "guide/finish-powder",
    "guide/step-mask-lift",
    "guide/idea-beams",
    "guide/idea-figure-ground",
    "guide/idea-origin",
    "guide/flaw-scorch-halo",
    "guide/nothing-here",
  ]) {
    await p.goto(new URL(page, url).href);
    await p.locator("main[data-view='guide-page'] :is(h1,h2)").first().waitFor();
    assert.deepEqual(await clean(p, page), []);
  }
  // what a page speaks of, tried on a job: planned beside the way it goes now, taken in one press, undone in one
  await p.goto(new URL("guide/school-coats", url).href);
  await choose(p, p.getByRole("combobox", { name: "Job" }), "Sowing panel");
  const tried = p.getByRole("table", { name: "Tried on the job" });
  await tried.waitFor();
  assert.deepEqual(await clean(p, "tried on a job"), []);
  const taken = async (): Promise<string> =>
    (await tried.getByRole("row").filter({ hasText: "as it is now" }).textContent()) ?? "";
  const was = await taken();
  assert.match(was, /Several light coats/);
  await tried.getByRole("button", { name: /^Take it for this job: One heavy/ }).click();
  await tried.getByRole("row").filter({ hasText: "One heavy crossed coat" }).getByText("as it is now").waitFor();
  assert.notEqual(await taken(), was);
  await p.getByRole("button", { name: /^Undo: / }).click();
  await tried.getByRole("row").filter({ hasText: "Several light coats" }).getByText("as it is now").waitFor();
  assert.equal(await taken(), was);
  assert.deepEqual(faults(p), []);
  await o.close();
});

journey(
  "reverse work: visits mirrored, the front unmirrored; two paints swapped change the front, and are put back in one",
  async (url) => {
    const o = await open(url, { at: AT });
    await openSample(o.page);
    const p = o.page;
    await p.goto(new URL("jobs/door-sign/artwork", url).href);
    await p.locator("[data-visit]").first().waitFor();
    assert.ok((await p.locator("[data-visit]").count()) >= 6);
    assert.ok((await p.getByText(", mirrored").count()) >= 1);
    assert.deepEqual(await clean(p, p.url()), []);
    await p.goto(new URL("jobs/door-sign/layers?step=final-check", url).href);
    const front = (): Promise<string[]> =>
      p.locator("figure svg path[data-zone]").evaluateAll((l) => l.map((x) => x.getAttribute("fill")!));
    await p.locator("figure svg path[data-zone]").first().waitFor();
    const before = await front();
    // every coat of a colour moved behind the coats of the next one, last coat first
    const ids = (): Promise<string[]> =>
      p.locator("ol[aria-label='Steps'] > li").evaluateAll((l) => l.map((x) => x.getAttribute("data-step")!));
    const plum = (await ids()).filter((x) => x.startsWith("coat.colour.plum-spray"));
    const last = (all: string[], what: string): number => all.reduce((k, x, i) => (x.startsWith(what) ? i : k), -1);
    for (const step of plum.reverse()) {
      await p.goto(new URL(`jobs/door-sign/layers?step=${step}`, url).href);
      await p.getByRole("button", { name: /^Acts on/ }).waitFor();
      for (let all = await ids(); all.indexOf(step) < last(all, "coat.colour.meadow"); all = await ids()) {
        const was = all.indexOf(step);
        await p.getByRole("button", { name: /^Acts on/ }).click();
        await p.getByRole("menuitem", { name: "Move one later" }).click();
        await p.waitForFunction(
          ([id, at]) =>
            [...document.querySelectorAll("ol[aria-label='Steps'] > li")].findIndex(
              (x) => x.getAttribute("data-step") === id,
            ) ===
            Number(at) + 1,
          [step, String(was)] as const,
        );
      }
    }
    await p
      .getByText(/is the first film behind/)
      .first()
      .waitFor();
    await p.goto(new URL("jobs/door-sign/layers?step=final-check", url).href);
    await p.locator("figure svg path[data-zone]").first().waitFor();
    assert.notDeepEqual(await front(), before);
    await p.getByRole("button", { name: /Go back to the plan’s own steps \(/ }).click();
    await p.waitForFunction(
      (was) =>
        JSON.stringify(
          [...document.querySelectorAll("figure svg path[data-zone]")].map((x) => x.getAttribute("fill")),
        ) === was,
      JSON.stringify(before),
    );
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

journey(
  "an oven is put into the Workshop and measured, a slip told; a school picked there changes plans, undone in one",
  async (url) => {
    const o = await open(url, { at: AT });
    await openSample(o.page);
    const p = o.page;
    await p.goto(new URL("workshop/gear", url).href);
    await p.locator("[data-gear]").first().waitFor();
    const had = await p.locator("[data-gear]").count();
    await p.getByRole("button", { name: "Add it" }).click();
    await p.waitForFunction((n) => document.querySelectorAll("[data-gear]").length === n + 1, had);
    const tray = p.locator("[data-gear='oven-2']").getByLabel("Tray wide");
    await tray.fill("broad");
    await tray.press("Enter");
    await p.getByRole("alert").first().waitFor();
    await tray.fill("16 in");
    await tray.press("Enter");
    await until(async () => (await tray.inputValue()) === "406.4 mm");
    await p.getByRole("link", { name: "Where makers disagree" }).click();
    await choose(p, "One heavy coat or several light ones", /heavy/i);
    await p.waitForTimeout(200);
    await p.waitForFunction(() => !document.querySelector("[aria-busy='true']"));
    assert.deepEqual(await clean(p, p.url()), []);
    await p.goto(new URL("jobs/blue-tiles/layers", url).href);
    await p.locator("ol[aria-label='Steps'] > li").first().waitFor();
    await p.goto(new URL("jobs/blue-tiles/layers?step=coat.colour.harbour.1", url).href);
    await p
      .getByText(/dries to 24 µm/)
      .first()
      .waitFor();
    await p.getByRole("button", { name: /^Undo/ }).first().click();
    await p
      .getByText(/dries to 12 µm/)
      .first()
      .waitFor();
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

journey(
  "a job of a newcomer goes by a further route: chosen with its reasons, told what it lacks, planned, its figures opened",
  async (url) => {
    const o = await open(url, { at: AT });
    await openSample(o.page);
    const p = o.page;
    // an earlier job once more, thirty of it; and one from a drawing that is dropped
    await p.goto(new URL("jobs/new", url).href);
    await choose(p, "Which one", /^Trial tiles, blue/);
    await p.getByLabel("Pieces").fill("30");
    await p.getByLabel("Due").fill("in 60 days");
    await p.getByRole("button", { name: "Make it again" }).click();
    await p.locator("main[data-view='layers']").waitFor();
    assert.match(p.url(), /jobs\/trial-tiles-blue\/layers/);
    await p.goto(new URL("jobs/new", url).href);
    await p.getByRole("heading", { name: "An earlier job again" }).waitFor();
    assert.deepEqual(await clean(p, p.url()), []);
    const asked = p.waitForEvent("filechooser");
    await p.getByRole("button", { name: "Choose a file" }).click();
    await (await asked).setFiles(svgFile("pea-shoots.svg", RADISH));
    await p.getByRole("heading", { name: "The piece" }).waitFor();
    assert.equal(await p.getByLabel("Called").inputValue(), "Pea shoots");
    await p.goto(new URL("jobs/blue-tiles/route", url).href);
    await p.locator("[data-route='A1']").waitFor();
    await p.getByText(/ways? that do(es)? not go here, and why/).click();
    await p
      .getByText(/It goes on|It takes|It does not go on/)
      .first()
      .waitFor();
    // two of them laid open beside one another, sorted by when they are ready
    await p.getByRole("checkbox", { name: "Lay open Colour under a dark top" }).click();
    await p.getByRole("checkbox", { name: "Lay open Blended bands under a dark top" }).click();
    await until(async () => (await p.locator("[data-way-open]").count()) === 2);
    await p.getByRole("button", { name: "Ready", exact: true }).click();
    await p.locator("th[aria-sort='ascending']", { hasText: "Ready" }).waitFor();
    await p.getByRole("button", { name: "Choose Colours side by side under one dark top" }).click();
    await p.locator("[data-route='A3']").getByText("chosen").waitFor();
    assert.deepEqual(await clean(p, p.url()), []);
    // trial cards: varied, voted out
    await p.getByText("Trial cards: a few ways side by side on scraps").click();
    await p
      .getByLabel("also several light ones")
      .or(p.getByLabel(/also one heavy crossed coat/))
      .first()
      .click();
    await until(async () => (await p.locator("[data-trial]").count()) === 2);
    await p.getByRole("button", { name: "Vote out card 2" }).click();
    await p.getByRole("button", { name: "Take back in card 2" }).waitFor();
    // a swatch kept on the Shelf says at what thickness the paint hides, and the paint goes by it
    await p.goto(new URL("shelf?product=harbour", url).href);
    await p.locator("input[name='over']").evaluate((x: HTMLInputElement) => (x.value = "#000000"));
    await p.locator("input[name='seen']").evaluate((x: HTMLInputElement) => (x.value = "#1f4f78"));
    await p.getByRole("button", { name: "Keep this swatch" }).click();
    await p
      .locator("[data-swatch]")
      .getByText(/by it hides|it hides at/)
      .waitFor();
    await p.locator("[data-swatch]").getByRole("button", { name: "Go by it" }).click();
    await until(async () => (await p.getByLabel(/^Hides at µm/).inputValue()) !== "");
    assert.deepEqual(await clean(p, p.url()), []);
    await p.goto(new URL("jobs/blue-tiles/layers?step=reveal", url).href);
    await p.locator("[data-figures='window'] [data-fold]").click();
    await p
      .locator("[data-figures='window']")
      .getByText(/J\/mm²/)
      .first()
      .waitFor();
    await p.getByRole("link", { name: /^Colours side by side/ }).click();
    await p.locator("main[data-topic='route-A3']").waitFor();
    // sheet metal by its gauge
    await p.goto(new URL("jobs/drawer-tags/brief", url).href);
    await p.getByLabel("Thick").fill("16 ga");
    await p.getByLabel("Thick").press("Enter");
    await until(async () => (await p.getByLabel("Thick").inputValue()).startsWith("1.29"));
    await p.locator("[data-begin]").waitFor();
    assert.ok(Number(await p.locator("[data-begin]").getAttribute("data-begin")) > 40);
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

/** A board with round corners and a hole, in inches, as a drawing program saves it. */
const BOARD_DXF = [
  ...["0", "SECTION", "2", "HEADER", "9", "$INSUNITS", "70", "1", "0", "ENDSEC", "0", "SECTION", "2", "ENTITIES"],
  ...["0", "LWPOLYLINE", "8", "0", "90", "4", "70", "1", "10", "0", "20", "0", "10", "4", "20", "0"],
  ...["10", "4", "20", "2", "10", "0", "20", "2", "0", "CIRCLE", "8", "0", "10", "0.5", "20", "1.5", "40", "0.125"],
  ...["0", "ENDSEC", "0", "EOF"],
].join("\n");

journey(
  "a blank of its own outline; the drawing is laid on it by keys, pulled, turned, told where it hangs over",
  async (url) => {
    const o = await open(url, { at: AT });
    await openSample(o.page);
    const p = o.page;
    await p.goto(new URL("jobs/new", url).href);
    await p.getByLabel("Drawing or picture").setInputFiles(svgFile("radish.svg", RADISH));
    await p.locator("main[data-view='brief']").waitFor();
    await choose(p, p.getByRole("combobox", { name: "Made of" }), "Slate");
    const field = (label: string) => p.getByRole("textbox", { name: new RegExp(`^${label}`) });
    const type = async (label: string, value: string): Promise<void> => {
      await field(label).fill(value);
      await p.keyboard.press("Enter");
    };
    await type("Wide", "90 mm");
    await type("High", "90 mm");
    await p.getByText("Its outline: rounded, oval").click();
    await choose(p, p.getByRole("combobox", { name: "Outline" }), "round");
    await p.getByText("slate 90 mm × 90 mm, round").waitFor();
    // nonsense is told where it was typed, and stands there
    for (const [typed, why] of [
      ["two", "is no hole"],
      ["4 mm at 10 mm, 800 mm", "does not lie within the piece"],
      ["-4 at 10, 20", "needs some width"],
    ]) {
      await type("Round holes", typed);
      await p.getByText(why).waitFor();
      assert.equal(await field("Round holes").inputValue(), typed);
    }
    await type("Round holes", "4 mm at 45 mm, 8 mm");
    await p.getByText("90 mm × 90 mm, round, 1 hole").waitFor();
    await type("Margin kept free", "5");
    await p.getByRole("link", { name: "Artwork", exact: true }).click();
    const lies = p.locator("[data-over]");
    await p.getByText(/lies within the piece, .* from the margin that is kept free/).waitFor();
    const at = async (): Promise<string | null> => p.locator("[data-placing]").getAttribute("data-placing");
    await p.locator("[data-placing]").focus();
    for (const key of ["ArrowRight", "Shift+ArrowRight", "Shift+ArrowRight", "Alt+ArrowUp"])
      await p.keyboard.press(key);
    await until(async () => (await field("Right of the middle").inputValue()) === "21 mm");
    assert.equal(await at(), "21 -0.1");
    // on a disc with a margin of five it reaches farther than it may
    await p.getByText(/hangs .* over the edge of the piece or into what stays free/).waitFor();
    assert.ok(Number(await lies.getAttribute("data-over")) > 0);
    await p.getByRole("link", { name: "Layers", exact: true }).click();
    await p.locator("main[data-view='layers']").waitFor();
    await p.getByRole("link", { name: "Artwork", exact: true }).click();
    // pulled back by hand, and undone in one press
    const box = (await p.locator("[data-placing] svg").boundingBox())!;
    await p.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await p.mouse.down();
    await p.mouse.move(box.x + box.width / 2 - 60, box.y + box.height / 2, { steps: 4 });
    await p.mouse.up();
    await until(async () => (await at()) !== "21 -0.1");
    const pulled = Number((await at())!.split(" ")[0]);
    assert.ok(pulled < 21, String(pulled));
    await until(async () => (await field("Right of the middle").inputValue()) === `${pulled} mm`);
    await p.getByRole("button", { name: /^Undo/ }).click();
    await until(async () => (await at()) === "21 -0.1");
    await p.getByRole("button", { name: "Back to the middle" }).click();
    await until(async () => (await at()) === "0 0");
    await p.getByRole("button", { name: "A quarter turn" }).click();
    await until(async () => (await field("Turned clockwise").inputValue()) === "90°");
    await p.getByText(/lies within the piece/).waitFor();
    assert.deepEqual(await clean(p, "placing"), []);
    // an outline out of a file, in the file's own inches
    await p.getByRole("link", { name: "Brief", exact: true }).click();
    await p
      .getByLabel("Outline file")
      .setInputFiles({ name: "board.dxf", mimeType: "image/vnd.dxf", buffer: Buffer.from(BOARD_DXF) });
    await p.getByText("slate 101.6 mm × 50.8 mm, of its own outline, 1 hole").waitFor();
    assert.equal(await field("Wide").inputValue(), "101.6 mm");
    await p
      .getByLabel("Outline file")
      .setInputFiles({ name: "open.dxf", mimeType: "image/vnd.dxf", buffer: Buffer.from("0\nSECTION\n0\nEOF") });
    await p.getByText(/“open.dxf”: The file holds no line that comes round/).waitFor();
    await p.getByText("slate 101.6 mm × 50.8 mm").waitFor();
    assert.deepEqual(await clean(p, "outline"), []);
    // a drawing let go on a page that takes no files begins a job; what is no drawing is refused in a sentence
    await p.getByRole("link", { name: "Shelf", exact: true }).first().click();
    await p.locator("main[data-view='shelf']").waitFor();
    const letGo = async (name: string, type: string, text: string): Promise<void> => {
      const dataTransfer = await p.evaluateHandle(
        ([n, t, x]) => {
          const d = new DataTransfer();
          d.items.add(new File([x], n, { type: t }));
          return d;
        },
        [name, type, text],
      );
      for (const event of ["dragenter", "dragover", "drop"])
        await p.dispatchEvent("main[data-view='shelf']", event, { dataTransfer });
    };
    await letGo("notes.txt", "text/plain", "beets");
    await p
      .getByText("“notes.txt” was not taken in: an SVG drawing or a picture, which begins a new job, is wanted.")
      .waitFor();
    await p.getByRole("button", { name: "All right" }).click();
    await letGo("kohlrabi.svg", "image/svg+xml", RADISH.toString());
    await p.locator("main[data-view='brief']").waitFor();
    assert.match(await field("Called").inputValue(), /kohlrabi/i);
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);
