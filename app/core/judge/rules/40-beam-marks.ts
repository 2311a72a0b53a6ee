/** Rule 40: this beam does not mark this surface. */
import { beamOn, BEAM_KINDS } from "../../catalogue/beams";
import { absorbs } from "../../process/kinds/laser-work";
import { topDown, zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { Machine } from "../../records/machine";
import { cutIndex, round, uncoverIndex } from "../ask";
import { machineFix } from "../fixes";

/** share of the beam that a film must take up to be lifted */
const TAKES = 0.5;

export const rule40: Rule = {
  id: 40,
  severity: "risk",
  title: "The beam marks the surface",
  find: (f) => {
    const c = f.context;
    const at = Math.max(uncoverIndex(f), cutIndex(f));
    if (at < 0 || !c.machine || !c.filled[0]) return [];
    const p = f.placed[at];
    const top = topDown(zoneOf(p.before, c.filled[0].id))[0];
    const works = (m: Machine): boolean =>
      top ? absorbs(c, m.beam, top.productId) >= TAKES : beamOn(m.beam, c.substrate) === "marks";
    if (works(c.machine)) return [];
    const takes = top ? absorbs(c, c.machine.beam, top.productId) : null;
    const other = c.world.machines.find(works);
    const plain: Machine = {
      ...new Machine(),
      id: c.world.machines.some((m) => m.id === "co2-40") ? "co2-40-more" : "co2-40",
      name: "CO2 laser, 40 W",
      beam: "co2",
      watts: 40,
      maxSpeed: 500,
      rapid: 500,
      bedW: 600,
      bedH: 400,
      extraction: true,
      enclosed: true,
    };
    const body = c.substrate.name.toLowerCase();
    const says = {
      marks: `marks ${body}`,
      passes: `passes through ${body}`,
      refuses: `does not mark ${body}`,
      poor: `marks ${body} poorly`,
      unknown: `is not known to mark ${body}`,
    }[beamOn(c.machine.beam, c.substrate)];
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { takesUp: takes === null ? null : round(takes, 2), beam: c.machine.beam },
        why: top
          ? `${BEAM_KINDS[c.machine.beam].name} is taken up by ${c.paintOf(top.productId).product.name} only ` +
            `to ${round((takes ?? 0) * 100)} %; the film stays.`
          : `${BEAM_KINDS[c.machine.beam].name} ${says}.`,
        fixes: other
          ? [machineFix("machine", `Use ${other.name}`, other)]
          : works(plain)
            ? [machineFix("machine", "Use a CO2 laser, 40 W (default figures)", plain)]
            : [],
      },
    ];
  },
};
