/** Rule 47: a blue beam through a mask on wood. */
import { asSafeAs } from "../../records/machine";
import { does } from "../ask";
import type { Rule } from "../snag";
import { machineFix } from "../fixes";
import { defaultMachine } from "../../catalogue/starter";
export const rule47: Rule = {
  id: 47,
  severity: "risk",
  title: "A blue beam through a mask on wood",
  find: (f) => {
    const c = f.context;
    if (c.machine?.beam !== "blue" || c.substrate.family !== "wood") return [];
    const p = f.placed.find((x) => does(x).beam === "body" && x.before.zones.some((z) => z.mask));
    if (!p) return [];
    const other =
      c.world.machines.find((m) => m.beam === "co2") ??
      asSafeAs(defaultMachine("co2", 40, "co2-40-default"), c.machine!);
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { watts: c.machine.watts },
        why: `A blue beam of ${c.machine.watts} W chars the wood under the edge of the mask; the halo shows beside pale colours.`,
        fixes: [machineFix("co2", `Use ${other.name}`, other)],
      },
    ];
  },
};
