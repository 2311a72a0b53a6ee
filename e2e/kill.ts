/** The browser killed with SIGKILL at random moments of a bench run: what was acknowledged is there, and nothing twice. */
import { mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import type { Page } from "@playwright/test";
import { randomOf } from "../app/core/units/random";
import { faults, open, openSample } from "./browser";
import { assert, journey } from "./support/suite";

/** `verify` makes a share of the seeded trials, as of all others */
const KILLS = Number(process.env.MANY ?? 1) < 1 ? 20 : 50;
const WEDNESDAY = "2027-01-13T11:20:00Z";

/** SIGKILL for every process that was started with this text on its command line. */
function killAll(text: string): void {
  for (const pid of readdirSync("/proc").filter((d) => /^\d+$/.test(d))) {
    try {
      if (Number(pid) !== process.pid && readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(text))
        process.kill(Number(pid), "SIGKILL");
    } catch {
      // gone already
    }
  }
}

const count = async (p: Page): Promise<number> =>
  Number(await p.locator("[data-bench-count]").getAttribute("data-bench-count"));

/** Pieces of the running step as the store has them, straight from it. */
const stored = (p: Page): Promise<number[]> =>
  p.evaluate(
    () =>
      new Promise<number[]>((ok) => {
        const r = indexedDB.open("rich-layer");
        r.onsuccess = () => {
          const all = r.result.transaction("log").objectStore("log").index("jobId").getAll("bed-markers");
          all.onsuccess = () => {
            r.result.close();
            const log = all.result as { kind: string; step: string; piece: number; at: number }[];
            // the step that runs is the one begun last
            const running = log.filter((e) => e.kind === "start").sort((a, b) => b.at - a.at)[0]?.step;
            ok(log.filter((e) => e.kind === "piece" && e.step === running).map((e) => e.piece));
          };
        };
      }),
  );

journey(
  `the browser killed ${KILLS} times in a bench run: nothing acknowledged is lost, nothing is doubled`,
  async (url) => {
    const profile = mkdtempSync(join(tmpdir(), "richlayer-kill-"));
    const rnd = randomOf(50).next;
    const bench = new URL("jobs/bed-markers/bench", url).href;
    {
      const o = await open(url, { at: WEDNESDAY, profile });
      await openSample(o.page);
      await o.page.goto(new URL("jobs/bed-markers/brief", url).href);
      await o.page.getByLabel("How many").fill("800");
      await o.page.getByLabel("How many").press("Enter");
      await o.page.getByText("800 of hard maple").waitFor();
      await o.close();
    }
    let acknowledged = 0;
    let sent = Infinity;
    const stuck: string[] = [];
    for (let k = 0; k <= KILLS; k++) {
      const o = await open(bench, { at: WEDNESDAY, profile });
      // As a maker would after a crash: a page that does not come is loaded again, once, and the journey says what stood there.
      await o.page
        .locator("[data-bench-count]")
        .waitFor({ timeout: 30000 })
        .catch(async () => {
          stuck.push(
            `start ${k}: ${(await o.page.locator("body").innerText()).slice(0, 300)} ${faults(o.page).join("; ")}`,
          );
          console.log(`       a page that did not come, ${stuck[stuck.length - 1]}`);
          await o.page.reload();
          await o.page.locator("[data-bench-count]").waitFor();
        });
      const now = await count(o.page);
      const pieces = await stored(o.page);
      assert.ok(now >= acknowledged, `kill ${k}: ${acknowledged} acknowledged, ${now} there`);
      assert.ok(now <= sent, `kill ${k}: ${sent} sent, ${now} there`);
      assert.deepEqual(pieces, [...new Set(pieces)], `kill ${k}: a piece twice`);
      assert.equal(pieces.length, now);
      if (k === KILLS) {
        await o.close();
        break;
      }
      acknowledged = sent = now;
      let alive = true;
      const killed = new Promise<void>((done) =>
        setTimeout(
          () => {
            alive = false;
            killAll(profile);
            done();
          },
          40 + rnd() * 450,
        ),
      );
      while (alive) {
        try {
          sent++;
          await o.page.keyboard.press("Space");
          await o.page.waitForFunction(
            (n) => Number(document.querySelector("[data-bench-count]")?.getAttribute("data-bench-count")) >= n,
            sent,
            { polling: 5, timeout: 30000 },
          );
          acknowledged = sent;
        } catch (e) {
          if (alive) throw e;
        }
      }
      await killed;
      await o.context.close().catch(() => {});
    }
    rmSync(profile, { recursive: true, force: true });
    assert.ok(stuck.length <= 1, stuck.join("\n"));
  },
);
