/** Hazard 80: an unknown coating under the beam. */
import { own } from "../../process/kinds";
import type { FinishId } from "../../catalogue/finishes";
import type { Facts } from "../../plan/facts";
import type { Placed } from "../../plan/placed";
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";
import { maskOf } from "../../process/masks";

/** a can of which nobody knows what is in it */
const UNKNOWN: FinishId = "unknown-spray";

/** What the beam of a step goes through or burns of which nobody has said what it gives off: of all the stack, and the mask. */
function unknown(f: Facts, p: Placed): string[] {
  const c = f.context;
  const { beam } = does(p);
  if (own(p.step, "laser") === null || beam === undefined || beam === "trial") return [];
  const burnt = p.before.zones.filter((z) => beam === "outline" || p.step.zones.includes(z.zone));
  const tape = p.before.zones.some((z) => z.mask && maskOf(z.mask.productId, c).chlorinated === null);
  const powder = burnt.some((z) =>
    z.films.some((x) => x.phase === "fused" && c.paintOf(x.productId).product.chlorinated === null),
  );
  const paint = burnt.some((z) =>
    z.films.some(
      (x) =>
        x.left > 0 &&
        c.paintOf(x.productId).finish.id === UNKNOWN &&
        c.paintOf(x.productId).product.chlorinated === null,
    ),
  );
  const through = beam === "skin" || beam === "body" || beam === "outline";
  return [
    ...(through && c.substrate.skin?.kind === "coating" ? ["coating"] : []),
    ...(tape ? ["tape"] : []),
    ...(powder ? ["powder"] : []),
    ...(paint ? ["paint"] : []),
  ];
}

export const rule80: Rule = {
  id: 80,
  severity: "hazard",
  title: "An unknown coating under the beam",
  find: (f) => {
    const at = firstIndex(f, (p) => unknown(f, p).length > 0);
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { step: at + 1 },
            why:
              `What is burnt here is not known: ask the maker of the ${unknown(f, f.placed[at]).join(" and the ")} what it ` +
              "gives off under a beam before you begin. Extraction on; vinyl never.",
            fixes: [],
          },
        ];
  },
};
