/** Rule 41: a window for tones. */
import { own } from "../../process/kinds";
import { colourWay } from "../../catalogue/routes";
import type { Rule } from "../snag";
import { window } from "../../models/film/reveal";
import { cutsOf, greyTones } from "../../process/kinds/laser-work";
import { zoneOf } from "../../piece/state";
import { round, uncoverIndex } from "../ask";
import { jobFix } from "../fixes";

/** hi/lo that tones laid by power need */
const TONES = 2;

export const rule41: Rule = {
  id: 41,
  severity: "risk",
  title: "A window for tones",
  find: (f) => {
    const c = f.context;
    const at = uncoverIndex(f);
    if (!greyTones(c) || at < 0 || !c.filled[0]) return [];
    const p = f.placed[at];
    const set = own(p.step, "laser");
    // Colours that are stacked are chosen by power: there are no tones besides.
    if (!set || colourWay(c.route) === "stack") return [];
    const w = window(cutsOf(zoneOf(p.before, p.step.zones[0]), c, set.interval, set.passes));
    if (!w || w.ratio >= TONES) return [];
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { ratio: round(w.ratio, 2), wanted: TONES },
        why:
          `Power by tone wants a window ${TONES} times as wide as narrow; this stack has ${round(w.ratio, 2)}: ` +
          "pale tones would leave dark specks or dark ones eat the colour.",
        fixes: [
          jobFix("dots", "Shade by dots of one power", (j) => ({
            ...(j.picture ? { picture: { ...j.picture, render: "floyd-steinberg" as const } } : {}),
            choices: {
              ...j.choices,
              schools: [...(j.choices.schools ?? []).filter((x) => !x.startsWith("shading:")), "shading:dither"],
            },
          })),
        ],
      },
    ];
  },
};
