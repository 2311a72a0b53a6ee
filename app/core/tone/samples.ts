/** Ways of making the same place of a picture, to be looked at side by side: kinds of dots, interval, screen angle, direction of lines. */
import type { DotKind, Render } from "../records/picture";
import type { DotOptions } from "./kernels";
import { DOT_MAKERS, dotMaker } from "./kernels";
import type { Recipe } from "./render";

export const MATTERS = ["dots", "interval", "screen", "lines"] as const;
export type Matter = (typeof MATTERS)[number];
export interface Sample {
  name: string;
  /** what it does to the piece, in a sentence */
  says: string;
  render: Render;
  dots: Omit<DotOptions, "intervalMm">;
  /** interval against the one in force */
  times: number;
  /** the beam runs up and down instead of left and right */
  upright: boolean;
  /** it is a setting of the picture, and not the one in force */
  other: boolean;
}

const SCREENS: readonly DotKind[] = ["line-screen", "dot-screen"];
/** An interval beyond this share of the spot leaves stripes (M3). */
const STRIPES = 0.6;

/** What to look at beside one another. @param spotMm the spot’s width; null: not known */
export function samplesOf(matter: Matter, r: Recipe, spotMm: number | null): Sample[] {
  const base: Sample = { name: "", says: "", render: r.render, dots: r.dots, times: 1, upright: false, other: false };
  if (matter === "dots")
    return [
      ...DOT_MAKERS.map((m) => ({
        ...base,
        name: m.name,
        says: m.says,
        render: m.id as Render,
        other: m.id !== r.render,
      })),
      {
        ...base,
        name: "Power, no dots",
        says: "Each tone has its own power: no grain, but only as many tones as the window holds.",
        render: "grey",
        other: r.render !== "grey",
      },
    ];
  if (matter === "interval")
    return [0.5, 1, 1.5, 2].map((times) => {
      const mm = Math.round(r.intervalMm * times * 1e4) / 1e4;
      const wide = spotMm !== null && mm > STRIPES * spotMm;
      return {
        ...base,
        times,
        name: `${mm} mm between lines${times === 1 ? ", as it is" : ""}`,
        says:
          (spotMm === null
            ? "The spot is not known: dots are drawn as wide as the interval."
            : wide
              ? `Wider than ${STRIPES} of the spot of ${spotMm} mm: full areas come out in stripes.`
              : `Lines of a spot of ${spotMm} mm lie over one another: full areas are even.`) +
          ` ${times < 1 ? "Twice the time." : times > 1 ? `${Math.round(100 / times)} % of the time.` : ""}`.trimEnd(),
      };
    });
  if (matter === "screen") {
    const kind: DotKind = SCREENS.includes(r.render as DotKind) ? (r.render as DotKind) : "line-screen";
    return [0, 15, 45, 75].map((angle) => ({
      ...base,
      name: `${dotMaker(kind).name} at ${angle}°`,
      says:
        angle === 0
          ? "Along the lines of the beam: few starts and stops, but rows that miss one another show at once."
          : angle === 45
            ? "The eye sees slanting rows least."
            : "A few degrees off the lines of the beam keep the two from beating against one another.",
      render: kind,
      dots: { ...r.dots, angle },
      other: r.render !== kind || r.dots.angle !== angle,
    }));
  }
  return [
    {
      ...base,
      name: "Lines left and right",
      says: "A dot is drawn out along the line by as much as the beam moves while it is on.",
    },
    {
      ...base,
      upright: true,
      name: "Lines up and down",
      says: "Dots drawn out the other way: what stands upright stays crisp, what lies softens. A matter of the machine, not of the file.",
    },
    ...(r.render !== "grey" && dotMaker(r.render).diffuses
      ? [
          {
            ...base,
            name: r.dots.serpentine ? "Rows decided one way" : "Rows decided there and back",
            says: r.dots.serpentine
              ? "Rows all decided from the left: worms may run down to the right."
              : "Rows decided by turns from left and right: fewer worms. The beam runs as before.",
            dots: { ...r.dots, serpentine: !r.dots.serpentine },
            other: true,
          },
        ]
      : []),
  ];
}
