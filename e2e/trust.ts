/** Offline, newer versions, the content security policy, what paper and files say, quota, two tabs at one thing. */
import type { Page } from "@playwright/test";
import { goOn } from "./support/bench";
import { execFileSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { serve } from "../scripts/serve.mjs";
import { root } from "../scripts/setup.mjs";
import { faults, open, openSample } from "./browser";
import { RADISH, svgFile } from "./support/drawing";
import { clean } from "./support/axe";
import { randomOf } from "../app/core/units/random";
import { absent } from "../app/testing/readers";
import { assert, journey } from "./support/suite";

const WEDNESDAY = "2027-01-13T11:20:00Z";
/** A picture that hardly packs: 24-bit BMP of seeded noise. */
function noise(w: number, h: number, seed: number): Buffer {
  const row = Math.ceil((w * 3) / 4) * 4;
  const b = Buffer.alloc(54 + row * h);
  b.write("BM");
  b.writeUInt32LE(b.length, 2);
  b.writeUInt32LE(54, 10);
  b.writeUInt32LE(40, 14);
  b.writeInt32LE(w, 18);
  b.writeInt32LE(h, 22);
  b.writeUInt16LE(1, 26);
  b.writeUInt16LE(24, 28);
  let x = seed * 7919 + 1;
  for (let i = 54; i < b.length; i++) b[i] = (x = (Math.imul(x, 1103515245) + 12345) >>> 0) >>> 16;
  return b;
}

/** The page is controlled by a service worker that has everything. */
const kept = (p: Page): Promise<void> =>
  p.evaluate(async () => {
    await navigator.serviceWorker.ready;
    for (let i = 0; i < 100 && !navigator.serviceWorker.controller; i++) await new Promise((r) => setTimeout(r, 100));
  });

/** Until no more pages than that hold such a lock: one that is closed lets go of its own a moment later. Run in the page. */
async function letGo({ name, most }: { name: string; most: number }): Promise<void> {
  for (;;) {
    const held = ((await navigator.locks.query()).held ?? []).filter((l) => l.name?.startsWith(name));
    if (held.length <= most) return;
    await new Promise((r) => setTimeout(r, 50));
  }
}

journey("offline after the first load: the server gone, every path opens and all still works", async () => {
  const { server, url } = await serve(0);
  const o = await open(url, { at: WEDNESDAY, keeps: true });
  const p = o.page;
  await kept(p);
  await new Promise((r) => (server.closeAllConnections(), server.close(r)));
  await o.context.setOffline(true);
  await p.reload();
  await openSample(p);
  for (const path of [
    "",
    "jobs",
    "jobs/new",
    "jobs/bed-markers/brief",
    "jobs/bed-markers/artwork",
    "jobs/bed-markers/route",
    "jobs/splash-tiles/layers",
    "jobs/bed-markers/calendar",
    "jobs/bed-markers/bench",
    "jobs/first-markers/wrap-up",
    "shelf",
    "workshop",
    "bench-log",
  ]) {
    await p.goto(new URL(path, url).href);
    await p.locator("main[data-view]:not([data-view='loading'])").waitFor();
    assert.notEqual(await p.locator("main").getAttribute("data-view"), "error", path);
  }
  await p.goto(new URL("jobs/kale-markers/artwork", url).href);
  await p.getByLabel("SVG file", { exact: true }).setInputFiles(svgFile("radish.svg", RADISH));
  await p.locator("li[data-zone='z-2f6b3a']").waitFor();
  await p.goto(new URL("jobs/bed-markers/calendar", url).href);
  const card = p.waitForEvent("download");
  await p.getByRole("button", { name: "Work card, PDF" }).click();
  assert.equal(
    readFileSync(await (await card).path())
      .subarray(0, 5)
      .toString(),
    "%PDF-",
  );
  // a figure opens, and what moves it is tried
  await p.locator("[data-why='ready']").first().click();
  await p.getByRole("dialog").locator("[data-moves]").waitFor();
  assert.deepEqual(faults(p), []);
  await o.close();
});

journey("a newer version is offered, never forced, and not while a bench run is open", async () => {
  const dir = mkdtempSync(join(tmpdir(), "richlayer-build-"));
  cpSync(join(root, "build/client"), dir, { recursive: true });
  const first = await serve(0, dir);
  const port = Number(new URL(first.url).port);
  const o = await open(first.url, { at: WEDNESDAY, keeps: true });
  const p = o.page;
  await openSample(p);
  await kept(p);
  const bench = await o.context.newPage();
  await bench.goto(new URL("jobs/bed-markers/bench", first.url).href);
  await bench.locator("#bench-step").waitFor();
  await new Promise((r) => (first.server.closeAllConnections(), first.server.close(r)));
  rmSync(join(dir, "sw.js.gz"));
  writeFileSync(join(dir, "sw.js"), `${readFileSync(join(dir, "sw.js"), "utf8")}\n// a newer version`);
  const second = await serve(port, dir);
  await p.evaluate(() => navigator.serviceWorker.getRegistration().then((r) => r?.update()));
  await p.getByText("A newer Rich Layer is ready").waitFor();
  await p.evaluate(() => ((window as unknown as { mark: number }).mark = 1));
  await p.getByRole("button", { name: "Change to it now" }).click();
  await p.getByText(/A bench run is open in a tab/).waitFor();
  assert.equal(await p.evaluate(() => (window as unknown as { mark?: number }).mark), 1, "nothing was loaded anew");
  await bench.close();
  // a page that is gone lets go of its lock a moment later
  await p.evaluate(letGo, { name: "richlayer.bench", most: 0 });
  await p.getByRole("button", { name: "Change to it now" }).click();
  await p.waitForFunction(() => (window as unknown as { mark?: number }).mark === undefined);
  await p.getByRole("heading", { name: "Today", level: 1 }).waitFor();
  await o.close();
  second.server.close();
  rmSync(dir, { recursive: true, force: true });
});

journey("the policy: own sources only, scripts by hash, more only for the worker that needs it", async (url) => {
  const page = await fetch(url);
  const policy = page.headers.get("content-security-policy") ?? "";
  assert.match(policy, /^default-src 'self';/);
  assert.match(policy, /script-src 'self' 'sha256-/);
  assert.ok(!/script-src[^;]*unsafe/.test(policy), policy);
  const html = await page.text();
  assert.ok(!/\son[a-z]+=/i.test(html), "no inline event");
  const o = await open(url, { at: WEDNESDAY });
  const loose: string[] = [];
  o.page.on("response", (r) => {
    const csp = r.headers()["content-security-policy"] ?? "";
    if (/unsafe-eval/.test(csp)) loose.push(new URL(r.url()).pathname);
  });
  await openSample(o.page);
  await o.page.goto(new URL("jobs/bed-markers/artwork", url).href);
  await o.page
    .locator("input[type=file]")
    .first()
    .setInputFiles({
      name: "square.svg",
      mimeType: "image/svg+xml",
      buffer: Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm" viewBox="0 0 40 40"><rect width="20" ' +
          'height="20" fill="#a8235a"/></svg>',
      ),
    });
  await o.page.getByText("square.svg").first().waitFor();
  assert.ok(loose.length > 0 && loose.every((x) => /^\/assets\/(zones|packets)\.worker/.test(x)), loose.join(", "));
  for (const path of ["jobs/bed-markers/layers", "jobs/bed-markers/calendar", "jobs/bed-markers/bench", "workshop"]) {
    await o.page.goto(new URL(path, url).href);
    await o.page.locator("main[data-view]:not([data-view='loading'])").waitFor();
  }
  await o.page.goto(new URL("jobs/bed-markers/layers", url).href);
  await o.page.getByRole("button", { name: "Go to…" }).click();
  await o.page.keyboard.press("Escape");
  assert.deepEqual(faults(o.page), []);
  await o.close();
});

journey("storage full: said plainly, nothing lost, a spare copy can still be saved", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  // Before anything is stored: the browser asks for its room once and then believes it for a while. Room for the sample with its two
  // pictures, and for a few photos.
  const cdp = await o.context.newCDPSession(p);
  await cdp.send("Storage.overrideQuotaForOrigin", { origin: new URL(url).origin, quotaSize: 2_500_000 });
  await openSample(p);
  await p.goto(new URL("jobs/kale-markers/wrap-up", url).href);
  let said = "";
  let kept = 0;
  for (let i = 0; i < 40 && !said; i++) {
    await p
      .locator("input[type='file']")
      .first()
      .setInputFiles({ name: `noise${i}.bmp`, mimeType: "image/bmp", buffer: noise(420, 280, i) });
    await p.waitForFunction(
      (n) =>
        document.querySelectorAll("main figure img, main img").length > n || document.querySelector("[role='alert']"),
      kept,
    );
    said = (await p.getByRole("alert").allTextContents()).join(" ");
    kept = await p.locator("main img").count();
  }
  assert.match(said, /storage for this page is full/);
  assert.match(said, /what was there is still there/);
  await p.goto(new URL("workshop", url).href);
  const waiting = p.waitForEvent("download");
  await p.getByRole("button", { name: "Save the whole shop as a file" }).click();
  const file = JSON.parse(readFileSync(await (await waiting).path(), "utf8")) as {
    jobs: { id: string; wrapUp: { photos: string[] } }[];
    photos: { jobId: string }[];
  };
  assert.equal(file.jobs.length, 17);
  assert.ok(kept > 0, "some photos fitted");
  assert.equal(file.photos.filter((x) => x.jobId === "kale-markers").length, kept);
  assert.equal(file.jobs.find((j) => j.id === "kale-markers")!.wrapUp.photos.length, kept);
  await o.close();
});

journey(
  "a private window, a newer store and a waiting upgrade are each told, and what is there can be saved",
  async (url) => {
    const shut = await open(url, { at: WEDNESDAY });
    await shut.context.addInitScript("indexedDB.open = () => { throw new DOMException('denied', 'SecurityError'); }");
    await shut.page.reload();
    await shut.page.getByText(/does not let the page keep anything/).waitFor();
    await shut.close();

    // Another tab holds the store at an older version and does not let go.
    const o = await open(new URL("icon.svg", url).href, { at: WEDNESDAY });
    await o.page.evaluate(
      () =>
        new Promise<void>((ok) => {
          const r = indexedDB.open("rich-layer", 20);
          r.onupgradeneeded = () => {
            for (const s of ["shop", "machines", "products", "jobs"]) r.result.createObjectStore(s, { keyPath: "id" });
            for (const s of ["log", "photos"])
              r.result.createObjectStore(s, { keyPath: "id" }).createIndex("jobId", "jobId");
            r.result
              .createObjectStore("history", { keyPath: "seq", autoIncrement: true })
              .createIndex("undone", "undone");
          };
          r.onsuccess = () => {
            (window as unknown as { held: IDBDatabase }).held = r.result;
            ok();
          };
        }),
    );
    const app = await o.context.newPage();
    await app.goto(url);
    await app.getByText(/waits its turn: close or reload the other tab/).waitFor();
    await o.page.close();
    await app.getByRole("button", { name: "Start an empty shop" }).waitFor();
    await app.getByRole("button", { name: "Start an empty shop" }).click();
    await app.getByText("Nothing is under way").waitFor();
    // A newer Rich Layer opens the store in another tab: this one lets go and says so.
    const newer = await o.context.newPage();
    await newer.goto(new URL("icon.svg", url).href);
    await newer.evaluate(
      () =>
        new Promise<void>((ok, no) => {
          const r = indexedDB.open("rich-layer", 990);
          r.onsuccess = () => (r.result.close(), ok());
          r.onerror = () => no(r.error);
        }),
    );
    await app.getByText(/A newer Rich Layer is open in another tab/).waitFor();
    await app.reload();
    await app.getByText(/written by a newer Rich Layer/).waitFor();
    const saved = app.waitForEvent("download");
    await app.getByRole("button", { name: "Save what can be read" }).click();
    const raw = JSON.parse(readFileSync(await (await saved).path(), "utf8")) as {
      version: number;
      stores: { shop: unknown[] };
    };
    assert.equal(raw.version, 990);
    assert.equal(raw.stores.shop.length, 1);
    await o.close();
  },
);

journey(
  "installable; the screen kept awake at the bench; printed pages say all and show no buttons; reminded of a spare copy by its date",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    const p = o.page;
    await p.addInitScript(`{
    const log = (globalThis.wakes = []);
    const release = () => (log.push("release"), Promise.resolve());
    const request = (kind) => (log.push("ask " + kind), Promise.resolve({ release }));
    Object.defineProperty(navigator, "wakeLock", { value: { request } });
  }`);
    await p.reload();
    await openSample(p);
    // what a browser asks of an app before it offers to install it
    const manifest = (await (await p.request.get(new URL("manifest.webmanifest", url).href)).json()) as {
      name: string;
      start_url: string;
      display: string;
      icons: { src: string; sizes: string; type: string }[];
    };
    assert.equal(manifest.name, "Rich Layer");
    assert.equal(manifest.display, "standalone");
    assert.ok(
      manifest.icons.some((i) => i.sizes.includes("512")) && manifest.icons.some((i) => i.sizes.includes("192")),
      JSON.stringify(manifest.icons),
    );
    for (const i of manifest.icons) {
      const got = await p.request.get(new URL(i.src, url).href);
      assert.equal(got.headers()["content-type"]?.split(";")[0], i.type);
      assert.ok((await got.body()).length > 100, i.src);
    }
    const cdp = await o.context.newCDPSession(p);
    assert.deepEqual((await cdp.send("Page.getAppManifest")).errors, []);
    await p.getByText("The shop has never been saved as a file from this browser").waitFor();

    // asked for at the bench, asked for anew when the page is seen again, let go with the bench
    const wakes = (): Promise<string[]> => p.evaluate(() => (globalThis as unknown as { wakes: string[] }).wakes);
    const woken = (n: number): Promise<unknown> =>
      p.waitForFunction((k) => (globalThis as unknown as { wakes: string[] }).wakes.length === k, n);
    await p.getByRole("link", { name: "Go to the bench" }).first().click();
    await p.locator("main[data-view='bench']").waitFor();
    await woken(1);
    await p.evaluate(() => void document.dispatchEvent(new Event("visibilitychange")));
    await woken(2);
    await p.getByRole("link", { name: "Leave the bench" }).click();
    await woken(3);
    assert.deepEqual(await wakes(), ["ask screen", "ask screen", "release"]);

    // on paper: every step with its times, no places, no buttons
    await p.goto(new URL("jobs/bed-markers/calendar", url).href);
    await p.getByText("counted back from the due date").waitFor();
    const titles = (await p.locator("tr[data-step] td:first-child").allTextContents()).map((t) => t.trim());
    assert.equal(titles.length, 17);
    // in order, with whatever other columns a reader puts between the lines of a wrapped one
    const inOrder = (title: string): RegExp => new RegExp(title.split(/[^\p{L}\p{N}.]+/u).join(".{0,80}?"));
    const unread = absent("pdftotext");
    if (unread.length) console.warn(`printed pages passed over, for want of ${unread.join()}`);
    for (const path of ["jobs/bed-markers/calendar", "jobs/bed-markers/layers", "jobs/bed-markers/wrap-up"]) {
      await p.goto(new URL(path, url).href);
      await p
        .locator(`main[data-view='${path.split("/")[2]}'] [data-step]`)
        .first()
        .waitFor();
      if (unread.length) continue;
      const dir = mkdtempSync(join(tmpdir(), "richlayer-print-"));
      writeFileSync(join(dir, "page.pdf"), await p.pdf({ format: "A4" }));
      const words = execFileSync("pdftotext", ["-layout", join(dir, "page.pdf"), "-"], { encoding: "utf8" }).replace(
        /\s+/g,
        " ",
      );
      rmSync(dir, { recursive: true, force: true });
      for (const t of titles) assert.match(words, inOrder(t), path);
      for (const t of ["Take it away", "Go to the bench", "why this number", "Bench log", "Choose a photo"])
        assert.ok(!words.includes(t), `${t} is on the printed page ${path}`);
    }

    // saved, the reminder goes; after a week it is back and says when
    await p.goto(new URL("workshop", url).href);
    const file = p.waitForEvent("download");
    await p.getByRole("button", { name: "Save the whole shop as a file" }).click();
    await file;
    await p.getByText("Last saved from here Wed 13 Jan").waitFor();
    await p.goto(url);
    await p.locator("main[data-view='today']").waitFor();
    assert.equal(await p.getByText(/saved as a file/).count(), 0);
    await o.setTime(Date.parse("2027-01-21T11:20:00Z"));
    await p.goto(url);
    await p.getByText("The shop was last saved as a file on Wed 13 Jan, 8 days ago.").waitFor();
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

journey(
  "two tabs at one field: the later is told, keeps what was typed, and can put it again; each takes back its own",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    await openSample(o.page);
    const [a, b] = [o.page, await o.context.newPage()];
    for (const p of [a, b]) await p.goto(new URL("jobs/kale-markers/brief", url).href);
    await b.getByLabel("How many").fill("31");
    await a.getByLabel("How many").fill("29");
    await a.getByLabel("How many").press("Enter");
    await a.getByText("29 of hard maple").waitFor();
    await b.getByText("Another tab has set this to “29” meanwhile").waitFor();
    await b.getByLabel("How many").press("Enter");
    await b.waitForTimeout(200);
    assert.equal(await b.getByText("29 of hard maple").count(), 1, "nothing is overwritten unseen");
    assert.equal(await b.getByLabel("How many").inputValue(), "31", "what was typed stays");
    await b.getByRole("button", { name: "Put mine in its place" }).click();
    await b.getByText("31 of hard maple").waitFor();
    await a.getByText("31 of hard maple").waitFor();
    // the first tab goes on with something else; undo in the second takes back what the second did
    await a.getByLabel("For", { exact: true }).fill("Nettle Row");
    await a.getByLabel("For", { exact: true }).press("Enter");
    await b.getByText("for Nettle Row").waitFor();
    const undo = (p: Page): Promise<void> => p.getByRole("button", { name: /^Undo: / }).click();
    await undo(b);
    for (const p of [a, b]) await p.getByText("29 of hard maple").waitFor();
    assert.equal(await b.getByText("for Nettle Row").count(), 1, "what the other tab did stays");
    // and what stands upon another's is told, not torn out
    await b.getByLabel("For", { exact: true }).fill("Sedge Hall");
    await b.getByLabel("For", { exact: true }).press("Enter");
    await a.getByText("for Sedge Hall").waitFor();
    await undo(a);
    await a.getByText(/was not taken back: another open tab has changed the same since/).waitFor();
    assert.equal(await a.getByText("for Sedge Hall").count(), 1);
    // the second gone, its acts are anybody's
    await b.close();
    await a.evaluate(letGo, { name: "richlayer.tab.", most: 1 });
    await undo(a);
    await a.getByText("for Nettle Row").waitFor();
    // an act that takes its time leads where it leads, whatever another tab stores meanwhile
    const c = await o.context.newPage();
    c.setDefaultTimeout(90000);
    await c.goto(new URL("jobs/door-sign/brief", url).href);
    let stored = (): void => {};
    const meanwhile = new Promise<void>((on) => (stored = on));
    await c.route(/\/assets\/do-.*\.js$/, async (r) => {
      await meanwhile;
      await r.continue();
    });
    await c.getByRole("button", { name: "Delete this job" }).click();
    await a.getByLabel("For", { exact: true }).fill("Sedge Hall");
    await a.getByLabel("For", { exact: true }).press("Enter");
    await a.getByText("for Sedge Hall").waitFor();
    await a.waitForTimeout(300);
    stored();
    await c.getByRole("heading", { name: "Jobs", level: 1 }).waitFor();
    await c.getByRole("link", { name: "Kale markers" }).waitFor();
    assert.equal(await c.getByRole("link", { name: "Door sign" }).count(), 0);
    assert.deepEqual(faults(a), []);
    await o.close();
  },
);

journey("told when a wait is over, with the tab hidden", async (url) => {
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await o.context.addInitScript(`
    window.__told = [];
    window.Notification = class {
      static permission = "granted";
      static requestPermission() { return Promise.resolve("granted"); }
      constructor(title, options) { window.__told.push(title + " | " + options.body); }
    };
  `);
  await p.reload();
  await openSample(p);
  await p.goto(new URL("jobs/splash-tiles/bench", url).href);
  const opens = Number(await p.locator("main [data-opens]").first().getAttribute("data-opens"));
  await p.getByRole("button", { name: "Tell me when ready or closing" }).click();
  await p.getByRole("button", { name: "Tells you when ready or closing" }).waitFor();
  // another tab comes to the front, and the time comes
  const other = await o.context.newPage();
  await other.bringToFront();
  await p.evaluate(
    (t) => {
      const begun = performance.now();
      (window as unknown as { __richLayerClock: () => number }).__richLayerClock = () =>
        t + (performance.now() - begun);
    },
    opens * 60000 - 2000,
  );
  await p.waitForFunction(() => (window as unknown as { __told: string[] }).__told.length > 0, undefined, {
    timeout: 60000,
  });
  assert.deepEqual(await p.evaluate(() => (window as unknown as { __told: string[] }).__told), [
    "Splash tiles: ready | Test plate on the same stack can be done now.",
  ]);
  await o.close();
});

journey(
  "a date that can't be kept says what would keep it; done in one press, undone in one; counted back where it can",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    const p = o.page;
    await openSample(p);
    await p.goto(new URL("jobs/blue-tiles/brief", url).href);
    await p.getByLabel("Due").fill("2027-01-16T12:00");
    await p.getByLabel("Due").blur();
    await p.getByText(/after it is due/).waitFor();
    await p.getByRole("navigation", { name: "Job" }).getByRole("link", { name: "Calendar", exact: true }).click();
    const way = p.locator("[data-way-out]").first();
    await way.waitFor();
    await p.getByRole("heading", { name: "What would keep it" }).waitFor();
    await way.getByRole("button", { name: "Do so" }).click();
    await p.getByText(/ before due/).waitFor();
    await p.getByRole("columnheader", { name: "At the latest" }).waitFor();
    assert.ok((await p.locator("tr[data-step] td:nth-child(3)").allTextContents()).every((t) => /\d\d:\d\d/.test(t)));
    await p.getByRole("button", { name: /^Undo:/ }).click();
    await p.getByText(/after it is due/).waitFor();
    const saved = p.waitForEvent("download");
    await p.getByRole("button", { name: "Calendar with alarms, .ics" }).click();
    assert.match(readFileSync(await (await saved).path(), "utf8"), /UID:inspect-blank\.blue-tiles@richlayer\.invalid/);
    const labels = p.waitForEvent("download");
    await p.getByRole("button", { name: "Labels for the pieces, PDF" }).click();
    assert.equal(
      readFileSync(await (await labels).path())
        .subarray(0, 5)
        .toString(),
      "%PDF-",
    );
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

journey(
  "at the bench: a missed window's way out, a reading that moves the wait, a tap put right, a photo without its place",
  async (url) => {
    const o = await open(url, { at: "2027-01-13T10:00:00Z" });
    const p = o.page;
    await openSample(p);
    await p.goto(new URL("jobs/splash-tiles/bench", url).href);
    const opens = async (): Promise<number> =>
      Number(await p.locator("[data-wait-for='laser-safe']").first().getAttribute("data-opens"));
    await p.locator("[data-wait-for='laser-safe']").first().waitFor();
    const before = await opens();
    await p.getByRole("button", { name: /type in a reading/ }).click();
    await p.getByLabel("Temperature").fill("28");
    await p.getByLabel("Humidity, %").fill("40");
    await p.getByRole("button", { name: "Take this reading" }).click();
    await p.waitForFunction(
      (b) => Number(document.querySelector("[data-wait-for='laser-safe']")?.getAttribute("data-opens")) < b - 20,
      before,
    );
    assert.match((await p.getByRole("button", { name: /type in a reading/ }).textContent()) ?? "", /^28/);
    // a photo with a place in it comes out without
    const withPlace = Buffer.concat([
      Buffer.from([0xff, 0xd8, 0xff, 0xe1, 0, 30]),
      Buffer.from("Exif\0\0GPSLatitude 38.7N"),
      (await jpeg(p)).subarray(2),
    ]);
    await p
      .getByLabel("Photo from the bench")
      .setInputFiles({ name: "a.jpg", mimeType: "image/jpeg", buffer: withPlace });
    await p
      .getByRole("button", { name: "Leave the bench" })
      .or(p.getByRole("link", { name: "Leave the bench" }))
      .first()
      .waitFor();
    await p.waitForFunction(
      () =>
        new Promise<boolean>((ok) => {
          const r = indexedDB.open("rich-layer");
          r.onsuccess = () => {
            const q = r.result.transaction("photos").objectStore("photos").getAll();
            q.onsuccess = () => {
              r.result.close();
              const photo = (q.result as { data: string; jobId: string }[]).find((x) => x.jobId === "splash-tiles");
              ok(photo !== undefined && !atob(photo.data).includes("GPS"));
            };
          };
        }),
    );
    // a tap put right, and taken into account
    await p.goto(new URL("jobs/bed-markers/bench", url).href);
    await p.locator("[data-bench-count]").waitFor();
    await p.keyboard.press("n");
    await p.getByRole("button", { name: "drip" }).click();
    await p.getByText("Note: drip").waitFor();
    await p.keyboard.press("n");
    await p.getByRole("button", { name: "The last tap was earlier…" }).click();
    await p.getByLabel(/When was “note” really/).fill("2027-01-13T09:58");
    await p.getByRole("button", { name: "Put it right" }).click();
    await p.getByLabel(/When was/).waitFor({ state: "detached" });
    await p.getByText("Note: drip").waitFor();
    // the window of a coat shuts while nobody is there
    await p.goto(new URL("jobs/blue-tiles/bench", url).href);
    // a space on a button that Tab has reached, or in an open panel, is that button's own and taps nothing
    await p.getByRole("button", { name: "Start this step" }).waitFor();
    await p.getByRole("button", { name: /^Note/ }).focus();
    await p.keyboard.press("Space");
    await p.getByRole("textbox", { name: "Note" }).waitFor();
    await p.keyboard.press("Escape");
    await p.locator("[data-why='minutes']").first().click();
    await p.getByRole("dialog").getByRole("button", { name: "Close" }).focus();
    await p.keyboard.press("Space");
    await p.getByRole("dialog").waitFor({ state: "detached" });
    await p.getByRole("button", { name: "Start this step" }).waitFor();
    await p.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    for (let guard = 0; guard < 60; guard++) {
      const title = await p.locator("#bench-step").textContent();
      if (title?.includes("second coat")) break;
      await goOn(p);
    }
    await o.setTime(Date.parse("2027-01-13T14:30:00Z"));
    await p.getByText(/The window for this coat shut/).waitFor();
    assert.deepEqual(await p.locator("[data-way]").evaluateAll((l) => l.map((x) => x.getAttribute("data-way"))), [
      "wait",
      "scuff",
      "strip",
    ]);
    assert.deepEqual(await clean(p, "bench, missed window"), []);
    // what shut it is said, with what moves it
    await p.locator("[data-why='shuts']").first().click();
    await p.getByRole("dialog").getByText("Window shuts").waitFor();
    await p.getByRole("dialog").locator("[data-moves]").waitFor();
    await p.keyboard.press("Escape");
    await p.getByRole("button", { name: "Scuff and recoat", exact: true }).click();
    await p.getByRole("heading", { name: "Scuff the film", level: 2 }).waitFor();
    await p.getByText(/Wait until it is dry right through/).waitFor();
    assert.deepEqual(faults(p), []);
    await o.close();
  },
);

/** A small picture made by the browser itself. */
async function jpeg(p: Page): Promise<Buffer> {
  const text = await p.evaluate(`(async () => {
    const c = new OffscreenCanvas(60, 40);
    c.getContext("2d").fillRect(5, 5, 20, 20);
    const b = new Uint8Array(await (await c.convertToBlob({ type: "image/jpeg" })).arrayBuffer());
    return btoa(String.fromCharCode(...b));
  })()`);
  return Buffer.from(text as string, "base64");
}

journey(
  "fifty damaged photos: each is told or taken in as a plain picture; the store holds nothing else",
  async (url) => {
    const o = await open(url, { at: WEDNESDAY });
    const p = o.page;
    await openSample(p);
    await p.goto(new URL("jobs/bed-markers/bench", url).href);
    await p.locator("[data-bench-count]").waitFor();
    const good = await jpeg(p);
    const rnd = randomOf(3).next;
    const damage: ((b: Buffer) => Buffer)[] = [
      (b) => b.subarray(0, Math.floor(rnd() * b.length)),
      (b) =>
        ((c) => (Array.from({ length: 6 }, () => (c[Math.floor(rnd() * c.length)] ^= 1 + Math.floor(rnd() * 255))), c))(
          Buffer.from(b),
        ),
      () =>
        Buffer.from(
          '<svg xmlns="http://www.w3.org/2000/svg" onload="window.hit=1"><script>window.hit=1</script></svg>',
        ),
      () => Buffer.from("<html><script>window.hit=1</script></html>"),
      () => Buffer.alloc(Math.floor(rnd() * 64)),
    ];
    const photos = (): Promise<string[]> =>
      p.evaluate(
        () =>
          new Promise<string[]>((ok) => {
            const r = indexedDB.open("rich-layer");
            r.onsuccess = () => {
              const q = r.result.transaction("photos").objectStore("photos").getAll();
              q.onsuccess = () => (
                r.result.close(),
                ok(
                  (q.result as { id: string; data: string }[])
                    .filter((x) => !x.id.startsWith("picture."))
                    .map((x) => x.data),
                )
              );
            };
          }),
      );
    let [told, before] = [0, (await photos()).length];
    for (let i = 0; i < 50; i++) {
      await p
        .getByLabel("Photo from the bench")
        .setInputFiles({ name: `d${i}.jpg`, mimeType: "image/jpeg", buffer: damage[i % damage.length](good) });
      for (let wait = 0; wait < 80; wait++) {
        if (await p.getByText(`“d${i}.jpg” was not taken in`).count()) {
          told++;
          break;
        }
        const now = (await photos()).length;
        if (now > before) {
          before = now;
          break;
        }
        assert.ok(wait < 79, `photo ${i} neither told nor taken in`);
        await p.waitForTimeout(25);
      }
    }
    assert.ok(told > 15, `${told} told`);
    assert.ok(
      (await photos()).every((d) => d.startsWith("/9j/")),
      "only JPEG drawn anew",
    );
    assert.equal(await p.evaluate(() => (window as unknown as { hit?: number }).hit), undefined);
    await o.close();
  },
);
