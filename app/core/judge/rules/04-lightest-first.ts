/** Rule 4: lightest first under a dark top. */
import { own } from "../../process/kinds";
import { lab, linear } from "../../models/film/colour";
import { GROUND, zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { uncoverIndex, isCoat, lastIndex, round } from "../ask";
import { editFix, choiceFix } from "../fixes";

const lightness = (hex: string): number => lab(linear(hex))[0];

export const rule4: Rule = {
  id: 4,
  severity: "risk",
  title: "Lightest film first",
  find: (f) => {
    const at = uncoverIndex(f);
    if (at < 0) return [];
    const c = f.context;
    const films = zoneOf(f.placed[at].before, GROUND).films.filter((x) => !c.paintOf(x.productId).clear);
    const wrong = films.findIndex(
      (x, i) =>
        i > 0 &&
        lightness(c.paintOf(x.productId).product.colour) >
          lightness(c.paintOf(films[i - 1].productId).product.colour) + 1,
    );
    if (wrong < 0) return [];
    const upper = c.paintOf(films[wrong].productId).product;
    const lower = c.paintOf(films[wrong - 1].productId).product;
    const darker = c.world.products
      .filter((p) => !c.paintOf(p.id).clear && lightness(p.colour) < lightness(lower.colour) - 10)
      .sort((a, b) => lightness(a.colour) - lightness(b.colour))[0];
    const tops = f.placed.filter(
      (p) => isCoat(p) && own(p.step, "productId") === lower.id && own(p.step, "role") === "top",
    );
    const behind = lastIndex(f, (p) => isCoat(p) && own(p.step, "productId") === upper.id && f.placed.indexOf(p) < at);
    return [
      {
        step: films[wrong].step,
        zone: null,
        numbers: { lightnessAbove: round(lightness(upper.colour)), lightnessBelow: round(lightness(lower.colour)) },
        why:
          `${upper.name} (lightness ${round(lightness(upper.colour))}) lies over ${lower.name} (${round(lightness(lower.colour))}); ` +
          "the laser uncovers from dark to light, not the other way.",
        fixes: [
          ...(tops.length && behind >= 0
            ? [
                editFix("dark-last", `Lay ${lower.name} after ${upper.name}`, () =>
                  tops.map((p, k) => ({
                    op: "move" as const,
                    step: p.step.id,
                    after: k === 0 ? f.placed[behind].step.id : tops[k - 1].step.id,
                  })),
                ),
              ]
            : []),
          ...(darker && !tops.length
            ? [choiceFix("darker-top", `Use ${darker.name} as the top`, { topId: darker.id })]
            : []),
        ],
      },
    ];
  },
};
