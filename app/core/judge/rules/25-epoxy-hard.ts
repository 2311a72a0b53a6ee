/** Rule 25: epoxy is hard before it is handled. */
import { own } from "../../process/kinds";
import type { Rule } from "../snag";
import { readiness } from "../../process/ready";
import { GROUND, zoneOf } from "../../piece/state";
import { showMinutes } from "../../units/show";
import { does, idBefore } from "../ask";
import { setFix } from "../fixes";
export const rule25: Rule = {
  id: 25,
  severity: "stop",
  title: "Epoxy is hard before it is handled",
  find: (f) => {
    const c = f.context;
    return f.placed
      .flatMap((p, i) => {
        const films = zoneOf(p.before, GROUND).films.filter((x) => c.paintOf(x.productId).finish.family === "epoxy");
        if (
          !films.length ||
          p.start === null ||
          (does(p).lays === "film" && films.every((x) => x.productId === own(p.step, "productId")))
        )
          return [];
        const hard = readiness({ state: "touch", stacks: [{ zone: GROUND, films }], why: "" }, c).opens;
        if (hard === null || p.start >= hard) return [];
        return [
          {
            step: p.step.id,
            zone: null,
            numbers: { minutesShort: hard - p.start },
            why:
              `“${p.step.title}” handles the piece ${showMinutes(hard - p.start)} before the epoxy is hard; ` +
              "it keeps every fingerprint.",
            fixes: p.actual
              ? []
              : [setFix("hard", "Wait until it is hard", idBefore(f, i) ?? p.step.id, { waitMin: null })],
          },
        ];
      })
      .slice(0, 1);
  },
};
