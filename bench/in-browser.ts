/** A picture of 39 megapixels made in the real app: how long it takes, and the longest task of the page's own thread meanwhile. */
import { existsSync } from "node:fs";
import { MONDAY, open, openSample } from "../e2e/browser";
import { serve } from "../scripts/serve.mjs";
import { forget, longest, watch } from "./watch";

const PIXELS = 39e6;
type Row = { name: string; n: number; value: number; unit: string };

export async function pictureInBrowser(): Promise<Row[]> {
  if (!existsSync("build/client/index.html")) return [];
  const { server, url } = (await serve(0)) as { server: { close(): void }; url: string };
  const o = await open(url, { at: MONDAY, width: 1280, height: 800 });
  const p = o.page;
  await watch(p);
  await openSample(p);
  await p.goto(new URL("jobs/evening-jetty/picture", url).href);
  const made = p.locator("[data-made]");
  await made.waitFor();
  const field = (name: RegExp) => p.getByRole("textbox", { name });
  const [w, h] = (await made.getAttribute("data-made"))!.split(" ").map(Number);
  const k = Math.sqrt(PIXELS / (w * h));
  const wider = async (name: RegExp): Promise<void> => {
    const mm = parseFloat(await field(name).inputValue());
    await field(name).fill(`${(mm * k).toFixed(1)} mm`);
    await p.keyboard.press("Enter");
  };
  await wider(/^High/);
  await p.waitForTimeout(5000);
  const begun = performance.now();
  await wider(/^Wide/);
  // what is stored and planned by then is not counted: from here on it is made
  await p.waitForTimeout(700);
  await forget(p);
  await made.waitFor({ timeout: 600_000 });
  const seconds = (performance.now() - begun) / 1000;
  const most = (await longest(p)).task;
  const [mw, mh] = (await made.getAttribute("data-made"))!.split(" ").map(Number);
  await o.close();
  server.close();
  return [
    { name: "a picture in the browser, until it is seen", n: mw * mh, value: Math.round(seconds * 10) / 10, unit: "s" },
    {
      name: "longest task of the page meanwhile (0: none over 50)",
      n: mw * mh,
      value: Math.round(most),
      unit: "ms",
    },
  ];
}
