/**
 * The app kept for offline use, and newer versions of it: fetched quietly, offered when they are there, never put in place by
 * themselves, and not while a bench run is open in any tab.
 */
import { useEffect, useState } from "react";

/** ms after the page is there before the rest of the app is fetched for offline use: the first view comes first */
const AFTER_MS = 6000;
/** held, shared, by every tab that runs a bench */
export const BENCH_LOCK = "richlayer.bench";

/** Held as long as a component is on screen. */
export function useBenchLock(): void {
  useEffect(() => {
    const gone = new AbortController();
    let release = (): void => {};
    const until = new Promise<void>((r) => (release = r));
    navigator.locks?.request(BENCH_LOCK, { mode: "shared", signal: gone.signal }, () => until).catch(() => {});
    return () => {
      gone.abort();
      release();
    };
  }, []);
}

const benchIsOpen = async (): Promise<boolean> =>
  ((await navigator.locks?.query())?.held ?? []).some((l) => l.name === BENCH_LOCK);

/** A line that offers the newer version, when there is one. */
export function UpdateOffer() {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    if (!("serviceWorker" in navigator) || import.meta.env.DEV) return;
    let stopped = false;
    const start = async (): Promise<void> => {
      const reg = await navigator.serviceWorker.register("/sw.js").catch(() => null);
      if (!reg || stopped) return;
      const look = (): void => {
        if (reg.waiting && navigator.serviceWorker.controller) setWaiting(reg.waiting);
      };
      look();
      reg.addEventListener("updatefound", () => reg.installing?.addEventListener("statechange", look));
    };
    const timer = setTimeout(() => void start(), AFTER_MS);
    return () => {
      stopped = true;
      clearTimeout(timer);
    };
  }, []);
  if (!waiting) return null;
  const take = async (): Promise<void> => {
    if (await benchIsOpen()) return setBusy(true);
    navigator.serviceWorker.addEventListener("controllerchange", () => location.reload(), { once: true });
    waiting.postMessage({ type: "SKIP_WAITING" });
  };
  return (
    <p role="status" className="flex flex-wrap items-center gap-3 border-b border-line bg-lifted px-5 py-2">
      A newer Rich Layer is ready. What you have stored stays.{" "}
      <button type="button" className="btn" onClick={() => void take()}>
        Change to it now
      </button>
      <button type="button" className="btn btn-quiet" onClick={() => setWaiting(null)}>
        Later
      </button>
      {busy && (
        <span className="text-waiting">
          A bench run is open in a tab. Finish or leave it first, so that nothing changes under your hands.
        </span>
      )}
    </p>
  );
}
