/** The pictures in docs/screenshots, made anew from the sample shop at a fixed moment. */
import { build } from "../scripts/setup.mjs";
import { serve } from "../scripts/serve.mjs";
import { open, openSample } from "./browser";

const SHOTS: [
  string,
  string,
  {
    width?: number;
    height?: number;
    touch?: boolean;
    theme?: "day" | "night";
    opened?: string;
    pressed?: string;
    made?: string;
  }?,
][] = [
  ["today", ""],
  ["layers-engraved", "jobs/bed-markers/layers?step=coat.colour.beet.2"],
  ["picture", "jobs/evening-jetty/picture", { made: "[data-made]" }],
  ["layers-night", "jobs/blue-tiles/layers?step=coat.top.1", { theme: "night" }],
  ["brief", "jobs/bed-markers/brief"],
  ["artwork", "jobs/bed-markers/artwork"],
  ["route", "jobs/bed-markers/route"],
  ["calendar", "calendar", { made: "main[data-laid='whole']" }],
  ["why", "jobs/splash-tiles/layers?step=coat.top.1", { opened: "[data-why='wait']" }],
  ["bench", "jobs/bed-markers/bench"],
  ["cost", "jobs/bed-markers/cost", { made: "[data-pays]" }],
  ["wrap-up", "jobs/first-markers/wrap-up"],
  ["shelf", "shelf?product=poppy"],
  ["workshop", "workshop"],
  ["bench-log", "bench-log"],
  ["files", "jobs/bed-markers/files", { made: "[data-packet]" }],
  ["practice", "practice/spray?level=1&seed=4", { pressed: "Do it", made: "[data-verdict='false']" }],
  ["layers-390", "jobs/splash-tiles/layers?step=coat.top.1", { width: 390, height: 844, touch: true }],
  ["bench-390", "jobs/bed-markers/bench", { width: 390, height: 844, touch: true }],
];

build();
const { server, url } = await serve(0);
for (const [name, path, look] of SHOTS) {
  if (process.argv[2] && !name.includes(process.argv[2])) continue;
  const o = await open(url, { at: "2027-01-13T11:20:00Z", theme: "day", ...look });
  await openSample(o.page);
  await o.page.goto(new URL(path, url).href);
  await o.page.locator("main[data-view]:not([data-view='loading'])").waitFor();
  if (look?.pressed) await o.page.getByRole("button", { name: look.pressed }).click();
  if (look?.made) await o.page.locator(look.made).waitFor();
  if (look?.opened) {
    await o.page.locator(`section ${look.opened}`).first().click();
    await o.page.locator("[data-moves]").waitFor();
  }
  await o.page.waitForTimeout(500);
  await o.page.screenshot({ path: `docs/screenshots/${name}.png` });
  await o.close();
}
server.close();
