/** The longest task of a page’s own thread, and the longest script in it, as the browser tells of them. */
import type { Page } from "@playwright/test";

interface Longest {
  /** ms; 0: none took over 50. Layout, painting and waiting for a processor that others have are in it */
  task: number;
  /** ms of one script: what the app itself does */
  script: number;
}
type Watched = Window & { longest: Longest };

/** Begins to watch every page that is opened from now on. */
export async function watch(p: Page): Promise<void> {
  await p.addInitScript(() => {
    const w = window as unknown as Watched;
    w.longest = { task: 0, script: 0 };
    const of = (type: string, ms: (e: PerformanceEntry) => number, as: keyof Longest): void =>
      new PerformanceObserver((l) =>
        l.getEntries().forEach((e) => {
          w.longest[as] = Math.max(w.longest[as], ms(e));
        }),
      ).observe({ type });
    of("longtask", (e) => e.duration, "task");
    of(
      "long-animation-frame",
      (e) => Math.max(0, ...(e as unknown as { scripts: { duration: number }[] }).scripts.map((x) => x.duration)),
      "script",
    );
  });
}
/** What was before counts no more. */
export const forget = (p: Page): Promise<void> =>
  p.evaluate(() => void ((window as unknown as Watched).longest = { task: 0, script: 0 }));
export const longest = (p: Page): Promise<Longest> => p.evaluate(() => (window as unknown as Watched).longest);
