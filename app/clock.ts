/** The one place that reads the clock. A test clock may stand in by setting `__richLayerClock` on the window. */
declare global {
  var __richLayerClock: (() => number) | undefined;
}

/** ms since 1970 */
export const nowMs = (): number => globalThis.__richLayerClock?.() ?? Date.now();
/** minutes since 1970, with seconds as a fraction */
export const nowMinutes = (): number => Math.round(nowMs() / 10) / 6000;
