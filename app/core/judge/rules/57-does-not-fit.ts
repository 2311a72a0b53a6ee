/** Rule 57: the piece fits bed, jig and oven. */
import { RETURN_MM } from "../../geometry/registration";
import { keptOut } from "../../process/on-bed";
import type { Facts } from "../../plan/facts";
import type { Finding, Rule } from "../snag";
import { ovenOf } from "../../process/kinds/melt";
import { melts, round, usesLaser } from "../ask";
import { choiceFix, editFix, machineFix } from "../fixes";

/** What keeps the pieces out of the jig that they are placed by. */
function inJig(f: Facts): Finding[] {
  const out = usesLaser(f) ? keptOut(f.context) : null;
  if (!out) return [];
  const corner = { placedBy: "corner", emptyPockets: undefined };
  return [
    { step: null, zone: null, ...out, fixes: [choiceFix("no-jig", `Put it by ${RETURN_MM.corner.name}`, corner)] },
  ];
}
export const rule57: Rule = {
  id: 57,
  severity: "risk",
  title: "The piece fits bed, jig and oven",
  find: (f) => {
    const c = f.context;
    const { w, h } = c.job.substrate;
    const fits = (a: number, b: number): boolean => (w <= a && h <= b) || (h <= a && w <= b);
    const out: Finding[] = [];
    const m = c.machine;
    if (m && usesLaser(f) && !fits(m.bedW, m.bedH)) {
      const other = c.world.machines.find((x) => x.beam === m.beam && fits(x.bedW, x.bedH)) ?? {
        ...m,
        id: `${m.id}-larger`.slice(0, 100),
        name: `${m.name}, larger bed`,
        bedW: Math.max(w, h) + 50,
        bedH: Math.max(w, h) + 50,
      };
      out.push({
        step: null,
        zone: null,
        numbers: { pieceW: round(w), pieceH: round(h), bedW: m.bedW, bedH: m.bedH },
        why: `The piece is ${round(w)} × ${round(h)} mm; the bed of ${m.name} holds ${m.bedW} × ${m.bedH} mm.`,
        fixes: [machineFix("machine", `Use ${other.name}`, other)],
      });
    }
    out.push(...inJig(f));
    const oven = ovenOf(c);
    const baked = f.placed.filter((p) => melts(p, "oven"));
    if (baked.length && oven?.trayW && oven.trayH && !fits(oven.trayW, oven.trayH))
      out.push({
        step: baked[0].step.id,
        zone: null,
        numbers: { pieceW: round(w), pieceH: round(h), trayW: oven.trayW, trayH: oven.trayH },
        why: `The piece is ${round(w)} × ${round(h)} mm; the tray of ${oven.name} holds ${oven.trayW} × ${oven.trayH} mm.`,
        fixes: [
          editFix("gun", "Melt with a heat gun", () =>
            baked.map((p) => ({ op: "set" as const, step: p.step.id, field: "method", value: "gun" })),
          ),
        ],
      });
    return out;
  },
};
