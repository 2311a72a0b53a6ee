/**
 * A large shop in the real browser: so many jobs with drawings, so many log entries. Prints how long each view takes to answer after
 * the page is loaded, how long the start takes, and the longest frame while lists are scrolled, and how that grows.
 */
import { build } from "../scripts/setup.mjs";
import { serve } from "../scripts/serve.mjs";
import { open, openSample } from "../e2e/browser";
import type { Page } from "@playwright/test";

export interface ScaleRow {
  name: string;
  n: number;
  value: number;
  unit: string;
}

/** Fills the store with copies of the sample's jobs: nine in ten wrapped up, twenty under way, the log spread over all. */
export const fill = (p: Page, jobs: number, entries: number): Promise<void> =>
  p.evaluate(
    ([n, e]) =>
      new Promise<void>((done, no) => {
        const r = indexedDB.open("rich-layer");
        r.onerror = () => no(r.error);
        r.onsuccess = () => {
          const db = r.result;
          const tx = db.transaction(["jobs", "heads", "log"], "readwrite");
          tx.oncomplete = () => (db.close(), done());
          tx.onerror = () => no(tx.error);
          const all = tx.objectStore("jobs").getAll();
          all.onsuccess = () => {
            const base = all.result as {
              id: string;
              title: string;
              wrapUp: object;
              due: string | null;
              zones: { productId: string }[];
              substrate: { id: string };
            }[];
            const hs = tx.objectStore("heads").getAll();
            hs.onsuccess = () => {
              const heads = new Map((hs.result as { id: string }[]).map((h) => [h.id, h]));
              const plain = base.filter((j) => j.zones.length && (j as unknown as { route: string }).route);
              for (let i = 0; i < n; i++) {
                const from = plain[i % plain.length];
                const open = i % 10 === 0;
                const id = `bulk-${i}`;
                const title = `${from.title} ${i}`;
                tx.objectStore("jobs").put({
                  ...from,
                  id,
                  title,
                  wrapUp: { ...from.wrapUp, closedAt: open ? null : "2027-01-05T10:00" },
                });
                tx.objectStore("heads").put({
                  ...heads.get(from.id),
                  id,
                  title,
                  open: open ? 1 : 0,
                  closedAt: open ? null : "2027-01-05T10:00",
                  entries: open && i >= 200 ? 0 : Math.round(e / n),
                });
              }
              const closed = Array.from({ length: n }, (_, i) => i).filter((i) => i % 10 !== 0 || i < 200);
              for (let k = 0; k < e; k++) {
                const job = closed[k % closed.length];
                const step = Math.floor(k / closed.length) % 9;
                const kind = k % 6 === 5 ? "done" : "piece";
                tx.objectStore("log").put({
                  version: 1,
                  id: `bulk-${job}.${String(k).padStart(7, "0")}`,
                  jobId: `bulk-${job}`,
                  kind,
                  step: ["inspect-blank", "label", "dust"][step % 3],
                  at: 29000000 + k,
                  piece: kind === "piece" ? (k % 24) + 1 : null,
                  answer: null,
                  of: null,
                  predicted: kind === "done" ? 10 : null,
                  actual: kind === "done" ? 8 + (k % 7) : null,
                  stepKind: kind === "done" ? ["inspect-blank", "label", "dust"][step % 3] : "",
                  ml: null,
                  productId: null,
                  c: 18,
                  rh: 0.5,
                  note: "",
                });
              }
            };
          };
        };
      }),
    [jobs, entries] as const,
  );

/** ms from asking for a view by its link until it has painted. */
async function answer(p: Page, path: string, view: string): Promise<number> {
  return p.evaluate(
    ([to, want]) =>
      new Promise<number>((done) => {
        const begun = performance.now();
        history.pushState({ usr: null, key: String(begun), idx: (history.state?.idx ?? 0) + 1 }, "", to);
        window.dispatchEvent(new PopStateEvent("popstate", { state: history.state }));
        const look = (): void => {
          if (document.querySelector(`main[data-view='${want}']`) && !document.querySelector("[data-pending]"))
            requestAnimationFrame(() => done(performance.now() - begun));
          else setTimeout(look, 2);
        };
        setTimeout(look, 0);
      }),
    [path, view] as const,
  );
}
const longestFrame = (p: Page): Promise<number> =>
  p.evaluate(
    () =>
      new Promise<number>((done) => {
        let last = performance.now();
        let worst = 0;
        let n = 0;
        const tick = (): void => {
          const now = performance.now();
          if (n > 2) worst = Math.max(worst, now - last);
          last = now;
          document.scrollingElement!.scrollTop += 180;
          if (++n < 60) requestAnimationFrame(tick);
          else done(worst);
        };
        requestAnimationFrame(tick);
      }),
  );

const VIEWS: [string, string, string][] = [
  ["/", "today", "today"],
  ["/jobs", "jobs", "jobs"],
  ["/bench-log", "bench-log", "bench log"],
  ["/shelf", "shelf", "shelf"],
  ["/workshop", "workshop", "workshop"],
  ["/jobs/bulk-0/brief", "brief", "brief"],
  ["/jobs/bulk-0/artwork", "artwork", "artwork"],
  ["/jobs/bulk-0/route", "route", "route"],
  ["/jobs/bulk-0/layers", "layers", "layers"],
  ["/jobs/bulk-0/calendar", "calendar", "calendar"],
  ["/jobs/bulk-0/wrap-up", "wrap-up", "wrap-up"],
  ["/jobs/bulk-0/bench", "bench", "bench"],
];

export async function scale(sizes: [number, number][]): Promise<ScaleRow[]> {
  build();
  const { server, url } = await serve(0);
  const rows: ScaleRow[] = [];
  for (const [jobs, entries] of sizes) {
    const o = await open(url, { at: "2027-01-13T11:20:00Z" });
    const p = o.page;
    // The runner names inner functions by a helper of its own, which the page does not have.
    await o.context.addInitScript("globalThis.__name = (f) => f");
    await p.reload();
    await openSample(p);
    await fill(p, jobs, entries);
    const started: number[] = [];
    for (let i = 0; i < 3; i++) {
      const begun = Date.now();
      await p.goto(url);
      await p.locator("main[data-view='today']").waitFor();
      started.push(Date.now() - begun);
    }
    rows.push({ name: "start, to Today", n: jobs, value: started.sort((a, b) => a - b)[1], unit: "ms" });
    for (const [path, view, name] of VIEWS) {
      const took: number[] = [];
      for (let i = 0; i < 4; i++) {
        await answer(p, view === "shelf" ? "/workshop" : "/shelf", view === "shelf" ? "workshop" : "shelf");
        took.push(await answer(p, path, view));
      }
      // the first asks for the view's own code as well; what is told is what it takes once that is there
      rows.push({ name: `view: ${name}`, n: jobs, value: took.slice(1).sort((a, b) => a - b)[1], unit: "ms" });
      if (view === "jobs" || view === "bench-log" || view === "today")
        rows.push({ name: `longest frame while scrolled: ${name}`, n: jobs, value: await longestFrame(p), unit: "ms" });
    }
    await o.close();
  }
  server.close();
  return rows;
}
