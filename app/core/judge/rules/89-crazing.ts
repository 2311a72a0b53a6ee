/** Hazard 89: solvent or heat on clear sheet. */
import type { Rule } from "../snag";
import { does, firstIndex } from "../ask";

export const rule89: Rule = {
  id: 89,
  severity: "hazard",
  title: "Solvent or heat on clear sheet",
  find: (f) => {
    const at =
      f.context.substrate.family === "acrylic"
        ? firstIndex(
            f,
            (p) =>
              does(p).wets === "solvent" ||
              does(p).heats === true ||
              (p.step.kind === "coat" &&
                f.context.hasPaint(p.step.productId) &&
                ["solvent", "alcohol"].includes(f.context.paintOf(p.step.productId).base)),
          )
        : -1;
    return at < 0
      ? []
      : [
          {
            step: f.placed[at].step.id,
            zone: null,
            numbers: { step: at + 1 },
            why:
              `Solvent or heat crazes acrylic, most of all near a cut edge, sometimes days later: ` +
              `try “${f.placed[at].step.title}” on an offcut first.`,
            fixes: [],
          },
        ];
  },
};
