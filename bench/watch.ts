/** The longest task of a page’s own thread, as the browser tells of it. */
import type { Page } from "@playwright/test";

type Watched = Window & { longest: number };

/** Begins to watch every page that is opened from now on. */
export async function watch(p: Page): Promise<void> {
  await p.addInitScript(() => {
    const w = window as unknown as Watched;
    w.longest = 0;
    new PerformanceObserver((l) =>
      l.getEntries().forEach((e) => {
        w.longest = Math.max(w.longest, e.duration);
      }),
    ).observe({ entryTypes: ["longtask"] });
  });
}
/** What was before counts no more. */
export const forget = (p: Page): Promise<void> => p.evaluate(() => void ((window as unknown as Watched).longest = 0));
/** ms; 0: none took over 50 */
export const longest = (p: Page): Promise<number> => p.evaluate(() => (window as unknown as Watched).longest);
