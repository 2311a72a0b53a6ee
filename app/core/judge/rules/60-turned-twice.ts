/** Rule 60: turned over in two places: polarity and mirror have one home, here. */
import { burntBy } from "../../process/polarity";
import { mirrored } from "../../process/setup";
import type { Rule } from "../snag";
import { burns, usesLaser } from "../ask";
import { choiceFix } from "../fixes";

const SAYS = { inverted: "inverts", mirrored: "mirrors" } as const;

export const rule60: Rule = {
  id: 60,
  severity: "risk",
  title: "Turned over in one place only",
  find: (f) => {
    const c = f.context;
    const there = c.job.choices.inProgram ?? [];
    if (!usesLaser(f)) return [];
    return (["inverted", "mirrored"] as const)
      .filter((x) => there.includes(x))
      .map((x) => {
        const twice = "so does the file: twice is not at all";
        const here = x === "mirrored" ? mirrored(c) : (c.job.choices.inverted ?? burntBy(c).inverted);
        return {
          step: f.placed.find(burns)?.step.id ?? null,
          zone: null,
          numbers: { here: String(here), there: "true" },
          why:
            `The laser program ${SAYS[x]} the picture, and ${here ? twice : "the file is right as it is"}. ` +
            "Files come out of here the way they are to be burnt; the program’s own switches stay off.",
          fixes: [choiceFix(x, "It is switched off in the program now", { inProgram: there.filter((y) => y !== x) })],
        };
      });
  },
};
