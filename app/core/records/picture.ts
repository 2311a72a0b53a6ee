/** The picture that the beam draws: where its pixels are kept, how it lies on the blank, what is done to its tones, how it is burnt. */
import { Flag, Id, Maybe, Num, NumList, OneOf, Since, Sub, SubList, Text, Whole } from "./fields";

export const TONE_IDS = [
  "levels",
  "curve",
  "light",
  "local-contrast",
  "sharpen",
  "brighten",
  "invert",
  "threshold",
  "clean",
] as const;
export const DOT_KINDS = [
  "floyd-steinberg",
  "jarvis-judice-ninke",
  "stucki",
  "atkinson",
  "sierra",
  "sierra-lite",
  "burkes",
  "ordered-4",
  "ordered-8",
  "blue-noise",
  "line-screen",
  "dot-screen",
] as const;
export type DotKind = (typeof DOT_KINDS)[number];
/** by dots of one power, or by power alone */
export const RENDERS = ["grey", ...DOT_KINDS] as const;
export type Render = (typeof RENDERS)[number];
export const FITS = ["cover", "contain", "stretch"] as const;

/** One step of the tones; what it does not need stays away, what is absent is as it begins with. */
export class ToneStep {
  @OneOf(TONE_IDS) do!: (typeof TONE_IDS)[number];
  /** passed over, to compare */
  @Maybe() @Flag() off?: boolean;
  @Maybe() @Num(0, 1) black?: number;
  @Maybe() @Num(0, 1) white?: number;
  @Maybe() @Num(0.1, 10) gamma?: number;
  /** curve: x, y by turns, 0-1 */
  @Maybe() @NumList(64) points?: number[];
  /** % */
  @Maybe() @Num(-100, 500, "%") amount?: number;
  @Maybe() @Num(-100, 100) shadows?: number;
  @Maybe() @Num(-100, 100) highlights?: number;
  @Maybe() @Num(0, 100, "mm") radiusMm?: number;
  /** corners x, y by turns, as shares of the picture as it lies */
  @Maybe() @NumList(400) region?: number[];
  @Maybe() @Num(0, 100, "mm") featherMm?: number;
  @Maybe() @Num(0, 1) at?: number;
  @Maybe() @Num(0, 1) within?: number;
}
/** Part of the picture that is used, as shares of its upright width and height. */
export class Crop {
  @Num(0, 1) x!: number;
  @Num(0, 1) y!: number;
  @Num(0.001, 1) w!: number;
  @Num(0.001, 1) h!: number;
}
/** Corners, x and y by turns, as shares of the picture as it lies. */
export class Region {
  @Text(60) name: string = "";
  @NumList(400) ring!: number[];
}

export class Picture {
  @Text(200) name: string = "";
  /** id of the kept original */
  @Id() photo!: string;
  /** upright size in pixels */
  @Whole(1, 60_000_000) pxW!: number;
  @Whole(1, 60_000_000) pxH!: number;
  /** how it is turned in its file, 1-8 as cameras write it; absent: it stands upright */
  @Maybe() @Whole(1, 8) exif?: number;
  /** a small one of it, grey, upright, as base64 of a byte a pixel, row by row */
  @Text(60_000) small: string = "";
  @Whole(0, 400) smallW: number = 0;
  /** mm, as it lies */
  @Num(0.1, 5000, "mm") w!: number;
  @Num(0.1, 5000, "mm") h!: number;
  @OneOf(FITS) fit: (typeof FITS)[number] = "cover";
  /** mm from the middle of the blank, right and down; absent: in the middle */
  @Maybe() @Num(-5000, 5000, "mm") dx?: number;
  @Maybe() @Num(-5000, 5000, "mm") dy?: number;
  /** quarters, clockwise */
  @Maybe() @OneOf([0, 1, 2, 3]) quarters?: 0 | 1 | 2 | 3;
  /** left for right, as it is looked at; what the route asks for besides is not said here */
  @Maybe() @Flag() flip?: boolean;
  @Maybe() @Sub(() => Crop) crop?: Crop;
  /** shares of red, green, blue in its grey; absent: luminance */
  @Maybe() @NumList(3) mix?: number[];
  @SubList(() => ToneStep, 40) tone: ToneStep[] = [];
  /** its black and white are not laid on the paints’ own */
  @Maybe() @Flag() unlaid?: boolean;
  @OneOf(RENDERS) render: Render = "floyd-steinberg";
  @Maybe() @Flag() serpentine?: boolean;
  /** screens: lines a cm, and their angle */
  @Maybe() @Num(1, 200) perCm?: number;
  @Maybe() @Num(-180, 180, "°") angle?: number;
  /** its colours are dug out of the stack beneath, each by its own power; else tones of one colour are drawn */
  @Since(6) @Flag() dig?: boolean;
  /** dots are not corrected by the spot’s own width; dug colours are not mixed with their neighbours */
  @Maybe() @Flag() plain?: boolean;
  /** a face, say: its share of dark dots is watched */
  @Maybe() @Sub(() => Region) watched?: Region;
}
