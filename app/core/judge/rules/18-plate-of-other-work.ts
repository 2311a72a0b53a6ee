/** Rule 18: the setting that was found is another work’s: other films, machine, interval, can or body. */
import { otherPlate, workOf } from "../../process/force";
import { listWords } from "../../units/show";
import type { Rule } from "../snag";
import { isSet } from "../../process/kinds";
import { jobFix } from "../fixes";

export const rule18: Rule = {
  id: 18,
  severity: "risk",
  title: "The plate’s setting is this stack’s",
  find: (f) => {
    const c = f.context;
    const { plate } = c.job;
    if (!plate?.work) return [];
    const beams = f.placed.filter((p) => isSet(p.step));
    // One that serves some step is no other work’s; the rest are computed, and say so on their cards.
    if (!beams.length || beams.some((p) => workOf(p.step, p.before, c) === plate.work)) return [];
    const first = beams.find((p) => otherPlate(p.step, p.before, c)) ?? beams[0];
    const words = (key: string): string[] => key.split("|");
    const [was, is] = [words(plate.work), words(workOf(first.step, first.before, c))];
    const what = ["the machine", "the beam", "the interval", "the material", "the kind of work"];
    const differs = what.filter((_w, i) => was[i] !== is[i]);
    if (was.slice(what.length).join() !== is.slice(what.length).join()) differs.push("the films or their cans");
    return [
      {
        step: first.step.id,
        zone: null,
        numbers: { plate: plate.at, differs: differs.length },
        why:
          `The setting found on ${plate.at.replace("T", " at ")} was for other work; not the same: ${listWords(differs)}. ` +
          `“${first.step.title}” goes by a computed setting, a start for a test.`,
        fixes: [jobFix("forget", "Forget that setting", () => ({ plate: null }))],
      },
    ];
  },
};
