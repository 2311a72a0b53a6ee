/** Rule 40: this beam does not mark this surface. */
import { beamOn, BEAM_KINDS, marksSays } from "../../catalogue/beams";
import { absorbs } from "../../process/kinds/laser-work";
import { beamWork, ROUTES } from "../../catalogue/routes";
import { cutE } from "../../process/beam";
import { kneeOf } from "../../process/settings";
import type { Facts } from "../../plan/facts";
import type { Placed } from "../../plan/placed";
import type { SubstrateKind } from "../../catalogue/substrates";
import { topDown, zoneOf } from "../../piece/state";
import type { Rule } from "../snag";
import { asSafeAs, Machine } from "../../records/machine";
import { does, round } from "../ask";
import { machineFix } from "../fixes";

/** share of the beam that a film must take up to be lifted */
const TAKES = 0.5;

/** Is it a skin that whatever marks the body takes off? */
const marksIt = (skin: SubstrateKind["skin"]): boolean => skin?.kind === "coating" || skin?.kind === "cap";

interface Met {
  p: Placed;
  /** the film that the beam is to lift; null: the body or its skin is what it works on */
  top: string | null;
  works: (m: Machine) => boolean;
}
/** What the beam of a step meets in each of its zones, and which machines would work on it; empty: it is no such step. */
function meets(f: Facts, p: Placed): Met[] {
  const c = f.context;
  const { beam } = does(p);
  if (beam === "film")
    return p.step.zones.flatMap((id) => {
      const top = topDown(zoneOf(p.before, id))[0]?.productId;
      return top === undefined ? [] : [{ p, top, works: (m: Machine) => absorbs(c, m.beam, top) >= TAKES }];
    });
  // pigment and skin: by the routes that do it; a body by what the beam does to it
  if (beam === "skin" || beam === "pigment") {
    const kind = beam === "skin" ? "open-skin" : "burn-in";
    const ways = ROUTES.filter((r) => beamWork(r) === kind && r.families.includes(c.substrate.family));
    const opened = beam === "skin" && marksIt(c.substrate.skin);
    return [
      {
        p,
        top: null,
        works: (m) => ways.some((r) => r.beams.includes(m.beam)) || (opened && beamOn(m.beam, c.substrate) === "marks"),
      },
    ];
  }
  if (beam === "face") return [{ p, top: null, works: (m) => kneeOf({ machine: m, substrate: c.substrate }) !== null }];
  if (beam === "body") return [{ p, top: null, works: (m) => beamOn(m.beam, c.substrate) === "marks" }];
  if (beam === "outline") return [{ p, top: null, works: (m) => cutE(m, c.substrate) !== null }];
  return [];
}

export const rule40: Rule = {
  id: 40,
  severity: "risk",
  title: "The beam marks the surface",
  find: (f) => {
    const c = f.context;
    if (!c.machine) return [];
    const { machine } = c;
    const met = f.placed.flatMap((p) => meets(f, p)).find((x) => !x.works(machine));
    if (!met) return [];
    const { p, top, works } = met;
    const takes = top === null ? null : absorbs(c, c.machine.beam, top);
    const other = c.world.machines.find(works);
    const bare: Machine = {
      ...new Machine(),
      id: c.world.machines.some((m) => m.id === "co2-40") ? "co2-40-more" : "co2-40",
      name: "CO2 laser, 40 W",
      beam: "co2",
      watts: 40,
      maxSpeed: 500,
      rapid: 500,
      bedW: 600,
      bedH: 400,
    };
    const plain = asSafeAs(bare, c.machine);
    const body = c.substrate.name.toLowerCase();
    const says = marksSays(beamOn(c.machine.beam, c.substrate), body);
    return [
      {
        step: p.step.id,
        zone: null,
        numbers: { takesUp: takes === null ? null : round(takes, 2), beam: c.machine.beam },
        why: top
          ? `${BEAM_KINDS[c.machine.beam].name} is taken up by ${c.paintOf(top).product.name} only ` +
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
