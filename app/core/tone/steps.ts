/**
 * Tone steps: an ordered list of what is done to a picture's tones, kept as data and run anew from the original each time. They work on
 * screen values 0-1, where a maker's eye sees even steps; distances are mm on the piece, so that a list does the same in any size.
 */
import { type CurvePoint, curveOf } from "./curve";
import { edgeKeeping, soft } from "./blur";
import type { ToneStep as KeptStep } from "../records/picture";

export type ToneStep = { off?: boolean } & (
  | { do: "levels"; black: number; white: number; gamma: number }
  | { do: "curve"; points: CurvePoint[] }
  | { do: "light"; shadows: number; highlights: number; radiusMm: number }
  | { do: "local-contrast"; amount: number; radiusMm: number }
  | { do: "sharpen"; amount: number; radiusMm: number }
  | { do: "brighten"; amount: number; region: readonly (readonly [number, number])[]; featherMm: number }
  | { do: "invert" }
  | { do: "threshold"; at: number }
  | { do: "clean"; within: number }
);
export type ToneKind = ToneStep["do"];

const pairs = (list: readonly number[]): [number, number][] =>
  Array.from({ length: Math.floor(list.length / 2) }, (_v, i) => [list[2 * i], list[2 * i + 1]]);
/** A step as it is kept, what it leaves out as it begins with. */
export function filledIn(s: KeptStep): ToneStep {
  const { points, region, ...rest } = s;
  return {
    ...TONE_KINDS[s.do].start,
    ...rest,
    ...(points && s.do === "curve" ? { points: pairs(points) } : {}),
    ...(region && s.do === "brighten" ? { region: pairs(region) } : {}),
  } as ToneStep;
}

/** Tones of a picture as it lies on the grid of the laser. */
export interface Tones {
  w: number;
  h: number;
  /** screen values 0-1 */
  v: Float32Array;
}

const clip = (x: number): number => (x < 0 ? 0 : x > 1 ? 1 : x);
const FINE = 4096;
/** The same for every pixel of a tone: by a fine table, straight between its entries. */
function through(t: Tones, f: (x: number) => number): void {
  const table = Float32Array.from({ length: FINE + 2 }, (_x, i) => f(Math.min(1, i / FINE)));
  const { v } = t;
  for (let i = 0; i < v.length; i++) {
    const x = clip(v[i]) * FINE;
    const k = x | 0;
    v[i] = table[k] + (table[k + 1] - table[k]) * (x - k);
  }
}

/** Even-odd inside of a ring, row by row, as a field of 0 and 1. @param region shares of width and height */
export function inRegion(region: readonly (readonly [number, number])[], w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  const ring = region.map(([x, y]) => [x * w, y * h] as const);
  for (let y = 0; y < h; y++) {
    const at = y + 0.5;
    const cuts: number[] = [];
    ring.forEach((p, i) => {
      const q = ring[(i + 1) % ring.length];
      if (p[1] <= at !== q[1] <= at) cuts.push(p[0] + ((at - p[1]) / (q[1] - p[1])) * (q[0] - p[0]));
    });
    cuts.sort((a, b) => a - b);
    for (let k = 0; k + 1 < cuts.length; k += 2)
      out.fill(
        1,
        y * w + Math.max(0, Math.ceil(cuts[k] - 0.5)),
        y * w + Math.max(0, Math.min(w, Math.ceil(cuts[k + 1] - 0.5))),
      );
  }
  return out;
}

/** What hangs together with the border and is nearly as light as the lightest becomes white. */
function cleaned(t: Tones, within: number): void {
  const { w, h, v } = t;
  const seen = new Uint8Array(w * h);
  const stack: number[] = [];
  const least = 1 - within;
  const put = (i: number): void => {
    if (!seen[i] && v[i] >= least) {
      seen[i] = 1;
      stack.push(i);
    }
  };
  for (let x = 0; x < w; x++) {
    put(x);
    put((h - 1) * w + x);
  }
  for (let y = 0; y < h; y++) {
    put(y * w);
    put(y * w + w - 1);
  }
  while (stack.length) {
    const i = stack.pop()!;
    v[i] = 1;
    const x = i % w;
    if (x > 0) put(i - 1);
    if (x < w - 1) put(i + 1);
    if (i >= w) put(i - w);
    if (i < w * (h - 1)) put(i + w);
  }
}

type Work = { [K in ToneKind]: (t: Tones, s: Extract<ToneStep, { do: K }>, pxPerMm: number) => void };
const WORK: Work = {
  levels: (t, s) => {
    const span = Math.max(1e-6, s.white - s.black);
    through(t, (x) => clip((x - s.black) / span) ** (1 / s.gamma));
  },
  curve: (t, s) => {
    const f = curveOf(s.points);
    through(t, (x) => clip(f(x)));
  },
  light: (t, s, px) => {
    const mean = edgeKeeping(t.v, t.w, t.h, Math.round(s.radiusMm * px));
    const [up, down] = [s.shadows / 200, s.highlights / 200];
    for (let i = 0; i < mean.length; i++) {
      const m = clip(mean[i]);
      // weights of how dark and how light it is thereabouts; the detail upon it stays
      t.v[i] = clip(
        t.v[i] + up * (1 - m) ** 2 * 4 * m + up * (1 - m) ** 4 * 0.5 + down * m * m * 4 * (1 - m) + down * m ** 4 * 0.5,
      );
    }
  },
  "local-contrast": (t, s, px) => {
    const mean = edgeKeeping(t.v, t.w, t.h, Math.round(s.radiusMm * px));
    for (let i = 0; i < mean.length; i++) t.v[i] = clip(mean[i] + (t.v[i] - mean[i]) * (1 + s.amount / 100));
  },
  sharpen: (t, s, px) => {
    const mean = soft(t.v, t.w, t.h, Math.max(0.7, s.radiusMm * px));
    for (let i = 0; i < mean.length; i++) t.v[i] = clip(t.v[i] + ((t.v[i] - mean[i]) * s.amount) / 100);
  },
  brighten: (t, s, px) => {
    const inside = soft(inRegion(s.region, t.w, t.h), t.w, t.h, s.featherMm * px);
    const gamma = 2 ** (-s.amount / 100);
    for (let i = 0; i < inside.length; i++) {
      const k = inside[i];
      if (k > 1e-4) t.v[i] += k * (clip(t.v[i]) ** gamma - t.v[i]);
    }
  },
  invert: (t) => {
    for (let i = 0; i < t.v.length; i++) t.v[i] = 1 - t.v[i];
  },
  threshold: (t, s) => {
    for (let i = 0; i < t.v.length; i++) t.v[i] = t.v[i] >= s.at ? 1 : 0;
  },
  clean: (t, s) => cleaned(t, s.within),
};

/** The list run over a picture's tones, in place; steps that are switched off are passed over. @param pxPerMm pixels a mm */
export function tones(t: Tones, list: readonly ToneStep[], pxPerMm: number, after?: (done: number) => void): Tones {
  list.forEach((s, i) => {
    if (!s.off) (WORK[s.do] as (t: Tones, s: ToneStep, px: number) => void)(t, s, pxPerMm);
    after?.((i + 1) / list.length);
  });
  return t;
}

/** What each does, its fields with their limits, and what it begins with. */
export const TONE_KINDS: {
  [K in ToneKind]: { name: string; does: string; start: Extract<ToneStep, { do: K }> };
} = {
  levels: {
    name: "Black and white point",
    does: "What is darker than one tone becomes black, what is lighter than another white; the middle is bent between them.",
    start: { do: "levels", black: 0, white: 1, gamma: 1 },
  },
  curve: {
    name: "Curve",
    does: "Each tone is sent to another along a smooth line through points.",
    start: {
      do: "curve",
      points: [
        [0, 0],
        [0.5, 0.5],
        [1, 1],
      ],
    },
  },
  light: {
    name: "Shadows and lights",
    does: "Lifts or sinks what lies in the shade or in the light, and leaves the detail upon it.",
    start: { do: "light", shadows: 30, highlights: 0, radiusMm: 4 },
  },
  "local-contrast": {
    name: "Local contrast",
    does: "What stands out from its surroundings stands out more; edges get no halo.",
    start: { do: "local-contrast", amount: 40, radiusMm: 3 },
  },
  sharpen: {
    name: "Sharpen",
    does: "Edges against the width of the spot: what it will round off is drawn steeper beforehand.",
    start: { do: "sharpen", amount: 80, radiusMm: 0.15 },
  },
  brighten: {
    name: "Brighten a region",
    does: "A marked part, a face say, is made lighter or darker, softly towards its border.",
    start: { do: "brighten", amount: 30, region: [], featherMm: 4 },
  },
  invert: {
    name: "Turn the tones over",
    does: "Light becomes dark; not for the route’s sake, which does that by itself.",
    start: { do: "invert" },
  },
  threshold: {
    name: "Two tones",
    does: "What is as light as this becomes white, all else black.",
    start: { do: "threshold", at: 0.5 },
  },
  clean: {
    name: "Clean background",
    does: "What is nearly white and hangs together with the border becomes white.",
    start: { do: "clean", within: 0.12 },
  },
};
