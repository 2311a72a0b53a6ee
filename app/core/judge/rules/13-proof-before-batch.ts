/** Rule 13: a proof piece before the batch. */
import { PROOF_FROM } from "../../plan/builder";
import type { Rule } from "../snag";
import { burns, does, firstIndex, idBefore, lastIndex } from "../ask";
import { addStep, editFix, choiceFix, restoreOrAdd } from "../fixes";

export const rule13: Rule = {
  id: 13,
  severity: "advice",
  title: "Proof piece before the batch",
  find: (f) => {
    const n = f.context.pieces;
    const i = firstIndex(f, burns);
    if (f.context.job.quantity < PROOF_FROM || i < 0 || f.placed[i].before.proofed) return [];
    const late = lastIndex(f, (p) => does(p).tries === "piece");
    return [
      {
        step: f.placed[i].step.id,
        zone: null,
        numbers: { pieces: n },
        why: `All ${n} pieces go under the laser with no proof piece before them; one mistake is made ${n} times.`,
        fixes: [
          f.context.job.choices.proof === false
            ? choiceFix("proof", "Make a proof piece first", { proof: null })
            : late >= 0
              ? editFix("proof-first", "Do the proof before the batch", () => [
                  { op: "move", step: f.placed[late].step.id, after: idBefore(f, i) },
                ])
              : restoreOrAdd(
                  "proof",
                  "Make a proof piece first",
                  (e) => e.step.startsWith("proof"),
                  () => [addStep("proof", "proof.first", idBefore(f, i))],
                ),
        ],
      },
    ];
  },
};
