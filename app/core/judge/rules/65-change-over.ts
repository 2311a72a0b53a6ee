/** Rule 65: a machine that was changed over (rotary, lens, bed height) with its checklist still open. */
import { CHANGE_OVER } from "../../records/machine";
import type { Rule } from "../snag";
import { does, usesLaser } from "../ask";

export const rule65: Rule = {
  id: 65,
  severity: "risk",
  title: "Change-over checked",
  find: (f) => {
    const m = f.context.machine;
    if (!m?.changeOver || !usesLaser(f)) return [];
    const left = CHANGE_OVER.filter((x) => !m.changeOver!.includes(x));
    const step = f.placed.find((p) => does(p).places !== undefined || does(p).beam !== undefined)?.step.id ?? null;
    return [
      {
        step,
        zone: null,
        numbers: { left: left.length },
        why:
          `${m.name} was changed over and ${left.length} of ${CHANGE_OVER.length} points are not checked yet: ` +
          `${left.slice(0, 2).join("; ")}${left.length > 2 ? " …" : ""}.`,
        fixes: [
          {
            id: "checked",
            label: "All of it is checked now",
            apply: (w) => ({
              ...w,
              machines: w.machines.map((x) => (x.id === m.id ? (({ changeOver: _done, ...rest }) => rest)(x) : x)),
            }),
          },
        ],
      },
    ];
  },
};
