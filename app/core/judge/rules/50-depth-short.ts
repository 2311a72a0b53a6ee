/** Rule 50: what the setting digs against what sanding, sealer, coats and what must stay ask for (M10), and against what was wanted. */
import { own } from "../../process/kinds";
import { depthNeeded, residualMm } from "../../models/depth/depth";
import { showLength } from "../../units/show";
import type { Finding, Rule } from "../snag";
import type { Facts } from "../../plan/facts";
import type { Placed } from "../../plan/placed";
import { zoneOf } from "../../piece/state";
import { does, finalPiece, round } from "../ask";
import { setFix } from "../fixes";

/** share by which a cut may miss what was wanted */
const MISSES = 0.15;
const AS_COMPUTED = { power: null, speed: null, interval: null, passes: null };

/** What a fill in this cut asks for, mm; null: it is filled with powder, which rises level and sinks (rule 55), or not at all. */
function needed(
  f: Facts,
  p: Placed,
): { mm: number; zone: string | null; sandUm: number; coatsUm: number; stays: number } | null {
  const end = finalPiece(f);
  if (!end || p.step.zones.some((z) => zoneOf(end, z).films.some((x) => x.phase))) return null;
  const stays = residualMm(
    f.context.substrate.family,
    f.placed.some((x) => x.before.zones.some((z) => z.mask)),
  );
  let coatsUm = 0;
  let zone: string | null = null;
  for (const z of p.step.zones) {
    const um = zoneOf(end, z)
      .films.filter((x) => x.role !== "clear")
      .reduce((a, x) => a + x.dryUm, 0);
    if (um > coatsUm) [coatsUm, zone] = [um, z];
  }
  return { mm: depthNeeded(end.sandedUm, 0, coatsUm, stays), zone, sandUm: end.sandedUm, coatsUm, stays };
}

function findingOf(f: Facts, p: Placed): Finding[] {
  const [dug, wish, set] = [own(p.step, "depthMm"), own(p.step, "wishMm"), own(p.step, "laser")];
  if (dug === null || wish === null || !set) return [];
  const need = needed(f, p);
  const short = need !== null && dug < need.mm - 0.005;
  const misses = Math.abs(dug - wish) > MISSES * wish;
  if (!short && !misses) return [];
  const to = Math.max(wish, need ? Math.ceil(need.mm * 10) / 10 : 0);
  const typed = set.from === "typed";
  const says = `“${p.step.title}”: this setting (${set.from}) digs ${showLength(dug)}`;
  return [
    {
      step: p.step.id,
      zone: need?.zone ?? null,
      numbers: {
        depthMm: round(dug, 2),
        wantedMm: wish,
        neededMm: need ? round(need.mm, 2) : null,
        sandedUm: need ? round(need.sandUm) : null,
        coatsUm: need ? round(need.coatsUm) : null,
        residualMm: need?.stays ?? null,
      },
      why:
        short && need
          ? `${says}; sanding takes ${round(need.sandUm)} µm, sealer and coats fill ${round(need.coatsUm)} µm, and ${need.stays} mm ` +
            `must stay: ${round(need.mm, 2)} mm.`
          : `${says}, and ${showLength(wish)} are wanted.`,
      fixes: [
        ...(short && to > wish + 1e-9
          ? [setFix("deeper", `Cut ${to} mm`, p.step.id, { depthMm: to, ...(typed ? AS_COMPUTED : {}) })]
          : []),
        ...(typed ? [setFix("computed", "Go by the computed setting", p.step.id, AS_COMPUTED)] : []),
        ...(misses && !short
          ? [setFix("wish", `Want ${round(dug, 2)} mm`, p.step.id, { depthMm: round(dug, 2) })]
          : []),
      ],
    },
  ];
}

export const rule50: Rule = {
  id: 50,
  severity: "risk",
  title: "Deep enough to hold the fill",
  find: (f) => f.placed.filter((p) => does(p).beam === "body").flatMap((p) => findingOf(f, p)),
};
