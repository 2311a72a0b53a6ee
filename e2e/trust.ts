/** Offline, newer versions, the content security policy, what paper and files say, quota, two tabs at one thing. */
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { serve } from "../scripts/serve.mjs";
import { root } from "../scripts/setup.mjs";
import { faults, open, openSample } from "./browser";
import { RADISH, svgFile } from "./support/drawing";
import { assert, journey } from "./support/suite";

const WEDNESDAY = "2027-01-13T11:20:00Z";
/** The page is controlled by a service worker that has everything. */
const kept = (p: import("playwright-core").Page): Promise<void> =>
  p.evaluate(async () => {
    await navigator.serviceWorker.ready;
    for (let i = 0; i < 100 && !navigator.serviceWorker.controller; i++) await new Promise((r) => setTimeout(r, 100));
  });

journey("offline after the first load: the server gone, every path opens and all still works", async () => {
  const { server, url } = await serve(0);
  const o = await open(url, { at: WEDNESDAY });
  const p = o.page;
  await kept(p);
  await new Promise((r) => (server.closeAllConnections(), server.close(r)));
  await o.context.setOffline(true);
  await p.reload();
  await openSample(p);
  for (const path of ["", "jobs", "jobs/new", "jobs/bed-markers/brief", "jobs/bed-markers/artwork", "jobs/bed-markers/route", "jobs/splash-tiles/layers", "jobs/bed-markers/calendar", "jobs/bed-markers/bench", "jobs/first-markers/wrap-up", "shelf", "workshop", "bench-log"]) {
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
  assert.equal(readFileSync(await (await card).path()).subarray(0, 5).toString(), "%PDF-");
  await o.close();
});

journey("a newer version is offered, never forced, and not while a bench run is open", async () => {
  const dir = mkdtempSync(join(tmpdir(), "richlayer-build-"));
  cpSync(join(root, "build/client"), dir, { recursive: true });
  const first = await serve(0, dir);
  const port = Number(new URL(first.url).port);
  const o = await open(first.url, { at: WEDNESDAY });
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
  assert.ok(loose.length > 0 && loose.every((x) => x.startsWith("/assets/zones.worker")), loose.join(", "));
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
