/** Headless Chromium on a fresh profile, closed to every host but loopback, with a test clock. */
import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, type BrowserContext, type Page } from "@playwright/test";

export interface Opened {
  context: BrowserContext;
  page: Page;
  /** every address asked for that is not this machine */
  strays: string[];
  /** sets the test clock, ms since 1970 */
  setTime(ms: number): Promise<void>;
  close(): Promise<void>;
}

export interface Look {
  /** let the service worker keep the app for offline use; off where a journey is not about that */
  keeps?: boolean;
  /** a profile that outlives the browser; a fresh one when not given */
  profile?: string;
  width?: number;
  height?: number;
  touch?: boolean;
  theme?: "day" | "night";
  /** local ISO at which the test clock stands; UTC */
  at?: string;
}

/** Debian's Chromium; built without windows where there is one, since that starts in half the time. */
const BROWSER =
  process.env.CHROMIUM ?? ["/usr/bin/chromium-headless-shell", "/usr/bin/chromium"].find((path) => existsSync(path));

/** Monday, in working hours, away from any change of the clock. */
export const MONDAY = "2027-01-11T10:00:00Z";

export async function open(url: string, look: Look = {}): Promise<Opened> {
  const profile = look.profile ?? mkdtempSync(join(tmpdir(), "richlayer-"));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: BROWSER,
    headless: true,
    serviceWorkers: look.keeps ? "allow" : "block",
    viewport: { width: look.width ?? 1280, height: look.height ?? 800 },
    hasTouch: look.touch ?? false,
    isMobile: look.touch ?? false,
    timezoneId: "UTC",
    locale: "en-GB",
    reducedMotion: "reduce",
    args: [
      "--lang=en-US",
      "--no-sandbox",
      "--disable-gpu",
      "--disable-quic",
      "--no-first-run",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
      "--host-resolver-rules=MAP * ~NOTFOUND, EXCLUDE 127.0.0.1",
    ],
  });
  const strays: string[] = [];
  const here = new URL(url).host;
  context.on("request", (r) => {
    const u = new URL(r.url());
    if (u.protocol.startsWith("http") && u.host !== here) strays.push(r.url());
  });
  await context.addInitScript(`{
    const k = "richlayer.testclock";
    if (!sessionStorage.getItem(k)) sessionStorage.setItem(k, String(Date.parse(${JSON.stringify(look.at ?? MONDAY)})));
    const begun = performance.now();
    window.__richLayerClock = () => Number(sessionStorage.getItem(k)) + (performance.now() - begun);
    if (${JSON.stringify(look.theme ?? "")}) localStorage.setItem("richlayer.theme", ${JSON.stringify(look.theme ?? "")});
  }`);
  const page = context.pages()[0] ?? (await context.newPage());
  last = page;
  page.on("filechooser", () => {}); // from now on choosers are caught, so that none opens before a journey listens
  page.setDefaultTimeout(90000); // nothing is timed here; a busy machine must not fail a journey
  const errors: string[] = [];
  page.on("pageerror", (e) => errors.push(e.message));
  page.on("console", (m) => {
    if (m.type() === "error") errors.push(m.text());
  });
  (page as unknown as { faults: string[] }).faults = errors;
  await page.goto(url);
  return {
    context,
    page,
    strays,
    setTime: async (ms) => {
      await page.evaluate((t) => sessionStorage.setItem("richlayer.testclock", String(t)), ms);
      await page.reload();
    },
    close: async () => {
      await context.close();
      if (!look.profile) rmSync(profile, { recursive: true, force: true });
    },
  };
}

let last: Page | null = null;
/** A picture of where the newest page stands, for a journey that failed. */
export const snapshot = async (): Promise<string> => {
  const path = join(tmpdir(), "richlayer-failed.png");
  await last?.screenshot({ path, fullPage: true }).catch(() => {});
  return path;
};

export const faults = (p: Page): string[] => (p as unknown as { faults: string[] }).faults;

/** Opens the sample shop from the first screen. */
export async function openSample(p: Page): Promise<void> {
  await p.getByRole("button", { name: "Open the sample shop" }).click();
  await p.getByRole("heading", { name: "Today", level: 1 }).waitFor({ timeout: 90000 });
}
