/** A recipe for one picture, as the door takes it: how it is laid, toned and burnt. */
import "reflect-metadata";
import { Flag, Maybe, Num, NumList, OneOf, OrNull, SubList, Whole } from "../../core/records/fields";
import { FITS, type Render, RENDERS, ToneStep } from "../../core/records/picture";
import { check, sayFaults } from "../../core/records/parse";
import { EDGE_AS_DRAWN } from "../../core/tone/gain";
import { SCREEN } from "../../core/tone/kernels";
import { filledIn } from "../../core/tone/steps";
import { LUMINANCE, type Mix } from "../../core/tone/source";
import type { Recipe } from "../../core/tone/render";
import { BadInput } from "./brief";

class PictureRecipe {
  @Whole(1, 1) picture!: number;
  @Num(0.1, 5000, "mm") widthMm!: number;
  @Num(0.1, 5000, "mm") heightMm!: number;
  @Num(0.01, 5, "mm") intervalMm!: number;
  @Maybe() @OneOf(FITS) fit?: (typeof FITS)[number];
  @Maybe() @OneOf([0, 90, 180, 270]) turn?: number;
  @Maybe() @Flag() mirror?: boolean;
  @Maybe() @SubList(() => ToneStep, 40) tone?: ToneStep[];
  @Maybe() @OneOf(RENDERS) render?: Render;
  @Maybe() @Flag() serpentine?: boolean;
  @Maybe() @Flag() invert?: boolean;
  @Maybe() @OrNull() @Num(0.005, 5, "mm") spotMm?: number | null;
  @Maybe() @OneOf(["none", "spot"]) gain?: "none" | "spot";
  @Maybe() @Num(0, 1) colourY?: number;
  @Maybe() @Num(0, 1) topY?: number;
  @Maybe() @NumList(3) mix?: number[];
  @Maybe() @Num(1, 200) perCm?: number;
  @Maybe() @Num(-180, 180) angle?: number;
}

/** Points may come in pairs, as one writes them by hand. */
const flat = (v: unknown): unknown => {
  const r = v as { tone?: unknown };
  if (v === null || typeof v !== "object" || !Array.isArray(r.tone)) return v;
  return {
    ...r,
    tone: r.tone.map((s: unknown) => {
      if (s === null || typeof s !== "object") return s;
      const step = s as Record<string, unknown>;
      const list = (k: string): object => (Array.isArray(step[k]) ? { [k]: (step[k] as unknown[]).flat() } : {});
      return { ...step, ...list("points"), ...list("region") };
    }),
  };
};

/** Shares of red, green and blue out of what was typed, so that they sum to 1; null: luminance. @throws BadInput where they can’t */
export function mixOf(typed: readonly number[] | undefined): Mix | null {
  if (!typed) return null;
  const sum = typed.reduce((a, b) => a + b, 0);
  if (typed.length !== 3 || typed.some((x) => x < 0) || !(sum > 0))
    throw new BadInput("The mix must be three shares of red, green and blue, none below 0.");
  return typed.map((x) => x / sum) as unknown as Mix;
}

/** @throws BadInput what is wrong with it, and where */
export function readRecipe(value: unknown, exif: number): Recipe {
  const got = check(PictureRecipe, flat(value), "", "default");
  if (!got.ok) throw new BadInput(`The recipe: ${sayFaults(got.faults)}.`);
  const r = got.value;
  if (r.gain === "spot" && (r.spotMm ?? null) === null)
    throw new BadInput("The recipe: gain by the spot needs spotMm, the width of the spot.");
  return {
    widthMm: r.widthMm,
    heightMm: r.heightMm,
    intervalMm: r.intervalMm,
    fit: r.fit ?? "cover",
    quarters: (r.turn ?? 0) / 90,
    exif,
    flip: false,
    crop: null,
    mix: mixOf(r.mix) ?? LUMINANCE,
    ground: 1,
    tone: (r.tone ?? []).map(filledIn),
    render: r.render ?? "floyd-steinberg",
    dots: { serpentine: r.serpentine ?? false, perCm: r.perCm ?? SCREEN.perCm, angle: r.angle ?? SCREEN.angle },
    invert: r.invert ?? false,
    mirror: r.mirror ?? false,
    spot: r.gain === "spot" && r.spotMm ? { mm: r.spotMm, threshold: EDGE_AS_DRAWN } : null,
    colourY: r.colourY ?? 1,
    topY: r.topY ?? 0,
    layOn: false,
  };
}
