/** 200 open jobs on the shop's calendar in the real app: how long it takes to lay them, the longest task of the page's thread meanwhile. */
import { existsSync } from "node:fs";
import type { Page } from "@playwright/test";
import { open, openSample } from "../e2e/browser";
import { serve } from "../scripts/serve.mjs";
import { forget, longest, watch } from "./watch";
import { fill } from "./scale";

type Row = { name: string; n: number; value: number; unit: string };
/** one job in ten of those is open */
const OF = 10;
const SCROLLS = 120;

/** Scrolls up and down, frame by frame, while the calendar is laid. */
const scroll = (p: Page): Promise<number> =>
  p.evaluate(
    (times) =>
      new Promise<number>((done) => {
        let n = 0;
        let [last, worst] = [performance.now(), 0];
        const tick = (): void => {
          const now = performance.now();
          worst = Math.max(worst, now - last);
          last = now;
          document.scrollingElement!.scrollTop += n % 40 < 20 ? 120 : -120;
          if (++n < times) requestAnimationFrame(tick);
          else done(worst);
        };
        requestAnimationFrame(tick);
      }),
    SCROLLS,
  );

/** changes of one job each that are tried */
const CHANGES = 12;
/** The calendar is gone by; then one job after another is given another weight. @returns ms until it was told, the shortest first */
async function laidAgain(p: Page): Promise<number[]> {
  const whole = p.locator("main[data-laid='whole']");
  await p.getByRole("button", { name: "Go by this" }).click();
  await p.getByText("The jobs go by this calendar.").waitFor({ timeout: 60_000 });
  await whole.waitFor();
  const out: number[] = [];
  for (let k = 0; k < CHANGES; k++) {
    const job = p.locator("[data-among]").nth(k);
    await job.getByText("Its place").click();
    await p.evaluate(() => performance.clearMeasures());
    await job.getByLabel("Being late weighs").fill("2");
    await job.getByLabel("Being late weighs").press("Enter");
    await p.waitForFunction(() => performance.getEntriesByName("shop laid").length > 0, null, { timeout: 60_000 });
    out.push(await p.evaluate(() => performance.getEntriesByName("shop found")[0].duration));
    await whole.waitFor();
  }
  return out.sort((a, b) => a - b);
}

/** @param sizes open jobs */
export async function calendarInBrowser(sizes: number[]): Promise<Row[]> {
  if (!existsSync("build/client/index.html")) return [];
  const { server, url } = (await serve(0)) as { server: { close(): void }; url: string };
  const rows: Row[] = [];
  for (const n of sizes) {
    const o = await open(url, { at: "2027-01-13T11:20:00Z" });
    const p = o.page;
    await o.context.addInitScript("globalThis.__name = (f) => f");
    await watch(p);
    await p.reload();
    await openSample(p);
    await fill(p, n * OF, 0);
    await p.goto(new URL("shelf", url).href);
    await p.locator("main[data-view='shelf']").waitFor();
    const nav = p.getByRole("navigation", { name: "Places" }).first();
    const begun = performance.now();
    await nav.getByRole("link", { name: "Calendar" }).click();
    await p.locator("main[data-view='shop-calendar']").waitFor();
    await forget(p);
    const laying = scroll(p);
    await p.locator("[data-chart]").waitFor({ timeout: 600_000 });
    const seen = (performance.now() - begun) / 1000;
    const before = await laying;
    const shown = await scroll(p);
    await p.locator("main[data-laid='whole']").waitFor({ timeout: 600_000 });
    const most = await longest(p);
    const again = await laidAgain(p);
    await o.close();
    const ms = (x: number): number => Math.round(x);
    rows.push(
      { name: "calendar in the browser, until it is seen", n, value: Math.round(seen * 10) / 10, unit: "s" },
      { name: "calendar: longest task of the page (0: none over 50)", n, value: ms(most.task), unit: "ms" },
      { name: "calendar: longest script in it", n, value: ms(most.script), unit: "ms" },
      { name: "calendar: longest frame while it is laid and scrolled", n, value: ms(before), unit: "ms" },
      { name: "calendar: longest frame, laid and scrolled", n, value: ms(shown), unit: "ms" },
      {
        name: "calendar laid again after a change, half of them told within",
        n,
        value: ms(again[CHANGES / 2]),
        unit: "ms",
      },
      { name: "calendar laid again after a change, slowest told within", n, value: ms(again[CHANGES - 1]), unit: "ms" },
    );
  }
  server.close();
  return rows;
}
