/** Rule 69: a wet film past what it bears before it runs (M7). */
import { own } from "../../process/kinds";
import { showUm } from "../../units/show";
import type { Rule } from "../snag";
import { isCoat, round } from "../ask";
import { editFix } from "../fixes";

/** µm wet that stand upright, and that lie flat */
const [UPRIGHT_UM, FLAT_UM] = [75, 150];

export const rule69: Rule = {
  id: 69,
  severity: "risk",
  title: "No film so wet that it runs",
  find: (f) =>
    f.placed.flatMap((p, i) => {
      const wet = f.uses[i]?.wetUm ?? null;
      const dry = own(p.step, "dryUm");
      if (!isCoat(p) || p.actual || wet === null || dry === null || wet <= FLAT_UM + 0.05) return [];
      const paint = f.context.paintOf(p.step.productId);
      if (paint.finish.by !== "spray" && paint.finish.by !== "airbrush") return [];
      const n = Math.ceil(wet / FLAT_UM);
      const each = Math.floor((dry / n) * 10) / 10;
      return [
        {
          step: p.step.id,
          zone: null,
          numbers: { wetUm: round(wet), flatUm: FLAT_UM, uprightUm: UPRIGHT_UM },
          why:
            `“${p.step.title}” lies ${showUm(wet)} wet; lying flat ${FLAT_UM} µm hold, upright ${UPRIGHT_UM} µm: it runs. ` +
            `${n} coats of ${showUm(each)} dry make the same film.`,
          fixes: [
            editFix("in-coats", `Lay it in ${n} coats`, () => [
              { op: "set" as const, step: p.step.id, field: "dryUm", value: each },
              ...Array.from({ length: n - 1 }, (_, k) => ({
                op: "duplicate" as const,
                step: p.step.id,
                after: p.step.id,
                field: `${p.step.id}.thin.${k + 1}`,
              })),
            ]),
          ],
        },
      ];
    }),
};
