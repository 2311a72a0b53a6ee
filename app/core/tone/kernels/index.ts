/** All ways of making tones out of dots of one power, as rows. */
import type { DotKind } from "../../records/picture";
import { blueNoise } from "./blue-noise";
import { diffuser, DIFFUSIONS, type Diffusion, type RowMaker } from "./diffusion";
import { dotScreen, lineScreen, ranked, square, type Threshold } from "./ordered";

export type { RowMaker };

/** Lines a cm and angle of a screen that says none: seen as grey from arm’s length. */
export const SCREEN = { perCm: 20, angle: 45 };

/** What a kernel may be told besides. */
export interface DotOptions {
  serpentine: boolean;
  /** screens: lines a cm, and their angle in degrees */
  perCm: number;
  angle: number;
  intervalMm: number;
}
export interface DotMaker {
  id: DotKind;
  name: string;
  says: string;
  /** its rows may run there and back */
  diffuses: boolean;
  /** it has lines a cm and an angle */
  screens: boolean;
  /** tones that it has besides none at all; absent: as many as one likes */
  tones?: number;
  threshold?: (o: DotOptions) => Threshold;
  diffusion?: Diffusion;
}

const patterns: DotMaker[] = [
  {
    id: "ordered-4",
    name: "Squares of 4",
    says: "A woven grid of 16 tones: calm on the machine, seen as a pattern.",
    diffuses: false,
    screens: false,
    tones: 16,
    threshold: () => ranked(square(4)),
  },
  {
    id: "ordered-8",
    name: "Squares of 8",
    says: "A finer woven grid of 64 tones.",
    diffuses: false,
    screens: false,
    threshold: () => ranked(square(8)),
  },
  {
    id: "blue-noise",
    name: "Blue noise",
    says: "Even grain without worms or grid; every place by itself.",
    diffuses: false,
    screens: false,
    threshold: () => ranked(blueNoise()),
  },
  {
    id: "line-screen",
    name: "Swelling lines",
    says: "Lines that swell with the tone: bears a wide spot and a patchy top.",
    diffuses: false,
    screens: true,
    threshold: (o) => lineScreen(o.perCm, o.angle, o.intervalMm),
  },
  {
    id: "dot-screen",
    name: "Growing dots",
    says: "Dots that grow into one another: the surest where single pixels do not hold.",
    diffuses: false,
    screens: true,
    threshold: (o) => dotScreen(o.perCm, o.angle, o.intervalMm),
  },
];
export const DOT_MAKERS: readonly DotMaker[] = [
  ...DIFFUSIONS.map((d) => ({ id: d.id, name: d.name, says: d.says, diffuses: true, screens: false, diffusion: d })),
  ...patterns,
];
export const dotMaker = (id: DotKind): DotMaker => DOT_MAKERS.find((m) => m.id === id)!;

/**
 * Rows of dots of one kind, from the top.
 * @param allowed of a row, 1 where it may be burnt; null: everywhere
 */
export function rowsOf(
  id: DotKind,
  w: number,
  o: DotOptions,
  allowed: ((y: number) => Uint8Array | null) | null = null,
): RowMaker {
  const m = dotMaker(id);
  if (m.diffusion) return diffuser(m.diffusion, w, o.serpentine, allowed);
  const t = m.threshold!(o);
  let y = 0;
  return (share, out) => {
    const mask = allowed?.(y) ?? null;
    for (let x = 0; x < w; x++) out[x] = (mask === null || mask[x] === 1) && share[x] > t(x, y) ? 1 : 0;
    y++;
  };
}
