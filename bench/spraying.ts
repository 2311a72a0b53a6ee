/** Spraying by hand in the real app: how long frames are while the can is open and moved, and how much of each the app itself takes. */
import { existsSync } from "node:fs";
import { MONDAY, open } from "../e2e/browser";
import { serve } from "../scripts/serve.mjs";
import { forget, longest, watch } from "./watch";

const STROKES = 12;
type Row = { name: string; n: number; value: number; unit: string };

export async function sprayingInBrowser(): Promise<Row[]> {
  if (!existsSync("build/client/index.html")) return [];
  const { server, url } = (await serve(0)) as { server: { close(): void }; url: string };
  const o = await open(url, { at: MONDAY, width: 1280, height: 800 });
  const p = o.page;
  await watch(p);
  await p.goto(url);
  await p.getByRole("button", { name: "Start an empty shop" }).click();
  await p.getByText("Nothing is under way").waitFor();
  await p.goto(new URL("practice/spray?level=3&seed=2", url).href);
  const pad = p.locator("[data-spray-pad]");
  await pad.waitFor();
  const box = (await pad.boundingBox())!;
  await forget(p);
  await p.evaluate(`
    window.frames_ = [];
    let last = performance.now();
    requestAnimationFrame(function next(t) {
      window.frames_.push(t - last);
      last = t;
      requestAnimationFrame(next);
    });
  `);
  await p.mouse.move(box.x + 20, box.y + 20);
  await p.mouse.down();
  for (let k = 0; k < STROKES; k++)
    for (let i = 0; i <= 30; i++) {
      const x = k % 2 ? 30 - i : i;
      await p.mouse.move(box.x + 20 + (x / 30) * (box.width - 40), box.y + 20 + (k / STROKES) * (box.height - 40));
    }
  await p.mouse.up();
  const frames = ((await p.evaluate("window.frames_")) as number[]).sort((a, b) => a - b);
  const at = (share: number): number => frames[Math.min(frames.length - 1, Math.floor(share * frames.length))] ?? 0;
  const most = await longest(p);
  await o.close();
  server.close();
  const n = frames.length;
  return [
    { name: "a frame while spraying by hand, half of them within", n, value: at(0.5), unit: "ms" },
    { name: "a frame while spraying by hand, nine in ten within", n, value: at(0.9), unit: "ms" },
    { name: "longest script in a frame of over 50 ms (0: there was none)", n, value: most.script, unit: "ms" },
  ];
}
