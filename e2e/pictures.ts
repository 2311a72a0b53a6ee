/** A photo from the maker's disk to the PNG for the laser: in an empty shop, on slate, in bands, by keys and by finger. */
import { readFileSync } from "node:fs";
import { decode, encode } from "fast-png";
import { choose, chooseByKeys } from "./support/choose";
import { faults, open } from "./browser";
import { clean } from "./support/axe";
import { assert, journey } from "./support/suite";

const AT = "2027-01-13T11:20:00Z";
/** Hills and a bright disc: grey, with a note on where it was taken. */
function hills(w: number, h: number): Buffer {
  const data = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const disc = Math.hypot(x / w - 0.7, y / h - 0.3) < 0.15;
      data[y * w + x] = disc ? 235 : 110 + 70 * Math.sin(x / 70 + Math.cos(y / 60) * 2) - (60 * y) / h;
    }
  return Buffer.from(encode({ width: w, height: h, data, channels: 1, text: { Place: "behind the glasshouse" } }));
}
const png = (name: string, buffer: Buffer) => ({ name, mimeType: "image/png", buffer });

journey(
  "a photo is laid on slate, toned, made into dots and saved as it is to be burnt; nonsense is told",
  async (url) => {
    const o = await open(url, { at: AT });
    const p = o.page;
    await p.getByRole("button", { name: "Start an empty shop" }).click();
    await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
    await p.goto(new URL("jobs/new", url).href);
    await p.getByLabel("What is it called?").fill("Slate by the pond");
    await p.getByRole("button", { name: "Begin the job" }).click();
    await p.locator("main[data-view='brief']").waitFor();
    await choose(p, p.getByRole("combobox", { name: "Made of" }), "Slate");
    const field = (label: string) => p.getByRole("textbox", { name: new RegExp(`^${label}`) });
    const type = async (label: string, value: string): Promise<void> => {
      await field(label).first().fill(value);
      await p.keyboard.press("Enter");
    };
    await type("Wide", "90 mm");
    await type("High", "60 mm");
    await p.getByText("slate 90 mm × 60 mm").waitFor();
    await p.getByRole("link", { name: "Picture", exact: true }).click();
    const file = p.getByLabel("Picture file");
    // what is no picture, and what is cut off, is told and nothing is lost
    await file.setInputFiles(png("pond.png", Buffer.from("not a picture")));
    await p.getByText(/“pond.png” was not taken in\. It is no PNG, JPEG or WebP/).waitFor();
    const photo = hills(1500, 1000);
    await file.setInputFiles(png("pond.png", photo.subarray(0, 4000)));
    await p.getByText(/cut off before its end/).waitFor();
    await file.setInputFiles(png("pond.png", photo));
    await p.getByText("1500 × 1000 pixels").waitFor();
    await p.getByText("How it will look depends on the way").waitFor();
    // an empty shop has no laser: the ways say so, and one is chosen all the same
    await p.getByRole("link", { name: "choose one" }).click();
    await p.locator("[data-route='A1']").first().waitFor();
    await p
      .locator("[data-route='A1']")
      .getByRole("button", { name: /^Choose/ })
      .click();
    await p.locator("[data-route='A1'][data-chosen]").waitFor();
    await p.getByRole("link", { name: "Picture", exact: true }).click();
    const made = p.locator("[data-made]");
    await made.waitFor();
    const before = await made.getAttribute("data-made");
    assert.ok(before);
    assert.match(await p.locator("main").innerText(), /It runs 1 mm over/);
    const burnt = Number(/(\d+) % of it is burnt/.exec(await p.locator("main").innerText())![1]);
    assert.ok(burnt > 5 && burnt < 95, `${burnt} %`);
    await p.getByText("No machine is chosen, so its setting is not known").waitFor();
    assert.deepEqual(await clean(p, "picture"), []);
    // tones by keyboard alone
    await chooseByKeys(p, p.getByRole("combobox", { name: "A further step" }), "Curve");
    await p.getByRole("button", { name: "Add it" }).focus();
    await p.keyboard.press("Enter");
    await p.locator("[data-tone='curve']").waitFor();
    const point = p.getByRole("slider", { name: "Point 2 of the curve" });
    await point.focus();
    await p.keyboard.press("ArrowUp");
    await p.locator("[role='slider'][aria-valuetext='50 % becomes 52 %']").waitFor();
    // the steps are kept by name, let go, and used again
    await p.getByRole("textbox", { name: "Keep these steps as" }).fill("Slate by night");
    await p.getByRole("button", { name: "Keep them" }).click();
    await p.locator("[data-tone-lists='1']").waitFor();
    await p.getByRole("button", { name: "Take curve away" }).click();
    await p.locator("[data-tone='curve']").waitFor({ state: "detached" });
    await p.getByRole("button", { name: "Slate by night", exact: true }).click();
    await p.locator("[role='slider'][aria-valuetext='50 % becomes 52 %']").waitFor();
    // the same place in every way, one of them taken; in other light; two densities that beat
    await made.waitFor();
    await p.getByRole("button", { name: "Side by side on this picture" }).click();
    await p.locator("[data-sample='Power, no dots'] canvas").waitFor();
    await p.getByRole("button", { name: "Use this: Atkinson" }).click();
    await p.getByText("Hands on three quarters only").first().waitFor();
    await p.getByRole("button", { name: "Use this: Atkinson" }).waitFor({ state: "detached" });
    await p.getByRole("button", { name: "By a lamp in the evening" }).click();
    await p.getByRole("button", { name: "By a lamp in the evening", pressed: true }).waitFor();
    await p.getByRole("button", { name: "Changed in another program?" }).click();
    await p.getByLabel("Lines an inch in the laser’s program").fill("300");
    await p.getByText(/a line is left out or doubled every/).waitFor();
    assert.deepEqual(await clean(p, "picture, side by side"), []);
    await p.getByRole("button", { name: "Side by side on this picture" }).click();
    await choose(p, "Tones are made by", "Growing dots");
    await p.getByText("Lines a cm").waitFor();
    await type("Lines a cm", "soon");
    await p.getByRole("alert").filter({ hasText: /soon/ }).waitFor();
    await type("Lines a cm", "16");
    await choose(p, "Tones are made by", "Stucki");
    await type("Over each edge", "2 mm");
    await p.getByText(/It runs 2 mm over/).waitFor();
    await made.waitFor();
    // as it is to be burnt: size and density exact, no place in it
    await p.getByRole("button", { name: "Save the PNG for the laser" }).waitFor();
    const [down] = await Promise.all([
      p.waitForEvent("download"),
      p.getByRole("button", { name: "Save the PNG for the laser" }).click(),
    ]);
    assert.match(down.suggestedFilename(), /^slate-by-the-pond_94x64mm_.*mm_stucki\.png$/);
    const out = decode(readFileSync(await down.path()), { checkCrc: true });
    const [w, h] = (await made.getAttribute("data-made"))!.split(" ").map(Number);
    assert.deepEqual([out.width, out.height, out.depth], [w, h, 1]);
    assert.equal(out.resolution!.unit, 1);
    assert.ok(Math.abs((out.width / out.resolution!.x) * 1000 - 94) < 0.2, String(out.width / out.resolution!.x));
    // taken away, and back by undo
    await p.getByRole("button", { name: "Leave the picture away" }).click();
    await p.getByText("Drop a photo or a logo here").waitFor();
    await p.getByRole("button", { name: /^Undo/ }).click();
    await made.waitFor();
    assert.deepEqual(faults(p), []);
    assert.deepEqual(o.strays, []);
    await o.close();
  },
);

/** Colours from a deep blue to a pale sun. */
function dusk(w: number, h: number): Buffer {
  const data = new Uint8Array(w * h * 3);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const sun = Math.hypot(x / w - 0.6, y / h - 0.4) < 0.2;
      const up = 1 - y / h;
      data.set(sun ? [250, 226, 180] : [40 + 190 * up, 25 + 120 * up, 150 - 90 * up], 3 * (y * w + x));
    }
  return Buffer.from(encode({ width: w, height: h, data, channels: 3 }));
}

journey(
  "colours dug out of a stack by power; the same photo with no paint at all, on wood of its own colour",
  async (url) => {
    const o = await open(url, { at: AT });
    const p = o.page;
    await p.getByRole("button", { name: "Open the sample shop" }).click();
    await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
    await p.goto(new URL("jobs/new", url).href);
    await p.getByLabel("What is it called?").fill("Gull over the weir");
    await p.getByRole("button", { name: "Begin the job" }).click();
    await p.locator("main[data-view='brief']").waitFor();
    await choose(p, p.getByRole("combobox", { name: "Made of" }), "MDF");
    await p.getByText("of mdf").waitFor();
    await p.getByRole("link", { name: "Picture", exact: true }).click();
    await p.getByLabel("Picture file").setInputFiles(png("weir.png", dusk(600, 600)));
    await p.getByText("600 × 600 pixels").waitFor();
    await p.getByRole("button", { name: "Over one another" }).click();
    await p.getByRole("button", { name: "A further colour" }).waitFor();
    const take = async (route: string): Promise<void> => {
      await p.getByRole("navigation", { name: "Job" }).getByRole("link", { name: "Route", exact: true }).click();
      await p
        .locator(`[data-route='${route}']`)
        .getByRole("button", { name: /^Choose/ })
        .click();
      await p.locator(`[data-route='${route}'][data-chosen]`).waitFor();
      await p.getByRole("link", { name: "Picture", exact: true }).click();
    };
    await take("A2");
    // one tone over a stack hides the others, and says so
    await p.getByRole("button", { name: "Dig them by power" }).click();
    await p.locator("[data-level='area-1']").waitFor();
    const levels = await p.locator("[data-level]").allInnerTexts();
    assert.equal(levels.length, 3);
    const shares = levels.map((t) => Number(/([\d.]+) % of the power/.exec(t)![1]));
    assert.ok(shares[0] < shares[1] && shares[1] < shares[2], levels.join("; "));
    await p.locator("[data-beyond^='#']").first().waitFor();
    assert.deepEqual(await clean(p, "picture, dug"), []);
    await p.locator("[data-made]").waitFor();
    const [down] = await Promise.all([
      p.waitForEvent("download"),
      p.getByRole("button", { name: "Save the PNG for the laser" }).click(),
    ]);
    assert.match(down.suggestedFilename(), /_levels\.png$/);
    const out = decode(readFileSync(await down.path()), { checkCrc: true });
    const greys = levels.map((t) => Number(/grey (\d+)/.exec(t)![1]));
    assert.deepEqual(
      [...new Set(out.data)].sort((a, b) => a - b),
      [...new Set([255, ...greys])].sort((a, b) => a - b),
    );
    // no paint: the board itself, then another body with a colour of its own
    await p.getByRole("button", { name: "One colour all over" }).click();
    await p
      .getByRole("button", { name: "Draw it in dots" })
      .or(p.getByRole("button", { name: "Lay them over one another" }))
      .first()
      .waitFor();
    await choose(p, "Tones are made by", "Stucki");
    await take("N");
    await p.locator("[data-made]").waitFor();
    await p.getByRole("link", { name: "Brief", exact: true }).click();
    await choose(p, p.getByRole("combobox", { name: "Made of" }), "Walnut");
    await p.getByText("of walnut").waitFor();
    await p.getByLabel(/^Its colour/).fill("#d8b890");
    await p.getByLabel(/^Its colour/).blur();
    await p.getByRole("button", { name: /^Undo/ }).waitFor();
    await p.goto(new URL("jobs/gull-over-the-weir/layers", url).href);
    await p.getByText("Mark the wood").first().waitFor();
    assert.doesNotMatch(await p.locator("main").innerText(), /Uncover|dark film/);
    await p.goto(new URL("jobs/gull-over-the-weir/brief", url).href);
    assert.equal(await p.getByLabel(/^Its colour/).inputValue(), "#d8b890");
    assert.deepEqual(faults(p), []);
    assert.deepEqual(o.strays, []);
    await o.close();
  },
);

journey("blended bands beneath a picture, a gap between them found and closed, by finger on a phone", async (url) => {
  const o = await open(url, { at: AT, width: 390, height: 844, touch: true });
  const p = o.page;
  await p.getByRole("button", { name: "Open the sample shop" }).tap();
  await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
  await p.goto(new URL("jobs/new", url).href);
  await p.getByLabel("What is it called?").fill("Evening");
  await p.getByRole("button", { name: "Begin the job" }).tap();
  await p.locator("main[data-view='brief']").waitFor();
  await choose(p, p.getByRole("combobox", { name: "Made of" }), "Stretched canvas");
  await p.getByText("of stretched canvas").waitFor();
  await p.getByRole("link", { name: "Picture", exact: true }).tap();
  await p.getByLabel("Picture file").setInputFiles(png("evening.png", hills(1200, 1200)));
  await p.getByText("1200 × 1200 pixels").waitFor();
  await p.getByRole("button", { name: "Blended bands" }).tap();
  await p.locator("[data-thin='']").waitFor();
  await p.getByRole("link", { name: "choose one" }).tap();
  await p.locator("[data-route='A4']").first().waitFor();
  await p
    .locator("[data-route='A4']")
    .getByRole("button", { name: /^Choose/ })
    .tap();
  await p.locator("[data-route='A4'][data-chosen]").waitFor();
  await p.getByRole("link", { name: "Picture", exact: true }).tap();
  await p.locator("[data-made]").waitFor();
  const second = p.locator("[data-zone='area-2']");
  const from = second.getByRole("textbox", { name: /^From/ });
  const was = await from.inputValue();
  await from.fill("42 mm");
  await from.press("Enter");
  await p.locator("[data-thin]:not([data-thin=''])").waitFor();
  assert.match(await p.locator("[data-thin]").first().innerText(), /No colour from|% of a coat from/);
  await from.fill(was);
  await from.press("Enter");
  await p.locator("[data-thin='']").waitFor();
  await p.locator("[data-made]").waitFor();
  assert.ok(await p.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth), "it scrolls sideways");
  const small = await p
    .locator("main :is(button, a, input:not([type=file]), [role=combobox])")
    .evaluateAll((l) =>
      l
        .filter((e) => e.getClientRects().length && e.getBoundingClientRect().height < 23)
        .map((e) => e.outerHTML.slice(0, 80)),
    );
  assert.deepEqual(small, []);
  assert.deepEqual(await clean(p, "bands"), []);
  // the piece shows it in every view, once it is burnt and not before
  const job = p.url().split("/").at(-2);
  await p.goto(new URL(`jobs/${job}/layers?step=coat.top.1`, url).href);
  await p.locator("main[data-view='layers'] figure svg").first().waitFor();
  assert.equal(await p.locator("mask image").count(), 0);
  await p.goto(new URL(`jobs/${job}/layers?step=final-check`, url).href);
  await p.locator("main[data-view='layers'] mask image").waitFor({ state: "attached" });
  assert.deepEqual(faults(p), []);
  assert.deepEqual(o.strays, []);
  await o.close();
});

journey("a flat logo dropped under Artwork becomes zones, what was too small is told", async (url) => {
  const o = await open(url, { at: AT });
  const p = o.page;
  await p.getByRole("button", { name: "Start an empty shop" }).click();
  await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
  await p.goto(new URL("jobs/new", url).href);
  await p.getByLabel("What is it called?").fill("Ring sign");
  await p.getByRole("button", { name: "Begin the job" }).click();
  await p.locator("main[data-view='brief']").waitFor();
  await p.getByRole("link", { name: "Artwork", exact: true }).click();
  const [w, h] = [240, 240];
  const data = new Uint8Array(w * h * 3).fill(255);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const r = Math.hypot(x - 120, y - 120);
      if (r < 40) data.set([243, 182, 31], (y * w + x) * 3);
      else if (r < 90) data.set([43, 111, 166], (y * w + x) * 3);
      else if (Math.hypot(x - 20, y - 20) < 1.2) data.set([20, 20, 20], (y * w + x) * 3);
    }
  const logo = Buffer.from(encode({ width: w, height: h, data, channels: 3 }));
  await p.getByLabel("SVG file").setInputFiles(png("ring.png", logo));
  const form = p.getByRole("form", { name: "Zones out of a flat picture" });
  await form.getByLabel("Colours").fill("forty");
  await form.getByRole("button", { name: "Make zones of it" }).click();
  await p.getByText("“forty” is no number of colours").waitFor();
  await form.getByLabel("Colours").fill("4");
  await form.getByLabel(/Smallest part/).fill("2");
  await form.getByRole("button", { name: "Make zones of it" }).click();
  await p.locator("[data-traced='3']").waitFor();
  await p.getByText(/1 part smaller than that, .* went to the neighbour/).waitFor();
  await p.locator("[data-zone='z-2b6fa6']").first().waitFor();
  assert.equal(await p.locator("li[data-zone]").count(), 3);
  assert.deepEqual(await clean(p, "tracing"), []);
  // two of its colours put together are one zone
  await choose(p, p.getByRole("combobox", { name: "#f3b61f goes with" }), "with #2b6fa6");
  await form.getByRole("button", { name: "Make them anew" }).click();
  await p.locator("[data-traced='2']").waitFor();
  await p.locator("li[data-zone='z-f3b61f']").waitFor({ state: "detached" });
  await form.getByRole("button", { name: "All right" }).click();
  await form.waitFor({ state: "detached" });
  assert.deepEqual(faults(p), []);
  await o.close();
});
