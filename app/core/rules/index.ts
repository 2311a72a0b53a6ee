/** All rules, one a file, and how their findings become snags. A new rule is one file and one row here. */
import type { Facts, Fix, Rule, Snag } from "../plan/facts";
import { whereOf } from "../plan/facts";
import { rule1 } from "./01-clean-before-paint";
import { rule2 } from "./02-seal-after-engraving";
import { rule3 } from "./03-fills-before-sanding";
import { rule4 } from "./04-lightest-first";
import { rule7 } from "./07-dry-before-sanding";
import { rule10 } from "./10-touch-up-on-bare-wood";
import { rule11 } from "./11-label-first";
import { rule13 } from "./13-proof-before-batch";
import { rule14 } from "./14-every-zone-has-its-colour";
import { rule20 } from "./20-laser-safe";
import { rule21 } from "./21-recoat-window";
import { rule22 } from "./22-too-cold";
import { rule23 } from "./23-blush";
import { rule24 } from "./24-sun-or-hot-air";
import { rule26 } from "./26-cold-night";
import { rule30 } from "./30-coats-to-hide";
import { rule31 } from "./31-top-film-window";
import { rule32 } from "./32-can";
import { rule33 } from "./33-finishes-that-attack";
import { rule35 } from "./35-scuff-metal";
import { rule37 } from "./37-white-over-char";
import { rule38 } from "./38-stack-too-thick";
import { rule40 } from "./40-beam-marks";
import { rule43 } from "./43-polarity";
import { rule46 } from "./46-piece-smaller-than-picture";
import { rule48 } from "./48-run-too-long";
import { rule50 } from "./50-depth-short";
import { rule51 } from "./51-stroke-narrower-than-tool";
import { rule58 } from "./58-veneer";
import { rule59 } from "./59-open-grain";
import { rule65 } from "./65-change-over";
import { rule70 } from "./70-chlorine";
import { rule71 } from "./71-breathing";
import { rule72 } from "./72-rags";
import { rule73 } from "./73-laser-alone";
import { rule78 } from "./78-old-paint";
import { rule81 } from "./81-drying-in-enclosure";
import { rule83 } from "./83-chlorinated-cleaner";
import { rule86 } from "./86-waste";

export const RULES: Rule[] = [rule1, rule2, rule3, rule4, rule7, rule10, rule11, rule13, rule14, rule20, rule21, rule22, rule23, rule24, rule26, rule30, rule31, rule32, rule33, rule35, rule37, rule38, rule40, rule43, rule46, rule48, rule50, rule51, rule58, rule59, rule65, rule70, rule71, rule72, rule73, rule78, rule81, rule83, rule86];

const ORDER = { never: 0, stop: 1, hazard: 2, risk: 3, advice: 4 };

/** Hazards are read once a job. */
const accept = (rule: number): Fix => ({ id: "accept", label: "Read and accepted", apply: (w) => ({ ...w, job: { ...w.job, acknowledged: [...new Set([...w.job.acknowledged, rule])] } }) });

/** Everything that stands against a plan, worst first. Waived ones stay, marked with their reason. */
export function judge(f: Facts): Snag[] {
  const { waivers, acknowledged } = f.context.job;
  const out: Snag[] = [];
  for (const r of RULES) {
    for (const found of r.find(f)) {
      const severity = found.severity ?? r.severity;
      const where = whereOf(found);
      const waived =
        severity === "never" ? null : severity === "hazard" ? (acknowledged.includes(r.id) ? "accepted" : null) : (waivers.find((w) => w.rule === r.id && w.where === where)?.reason ?? null);
      out.push({ ...found, rule: r.id, severity, fixes: severity === "hazard" ? [accept(r.id)] : found.fixes, waived });
    }
  }
  return out.sort((a, b) => Number(a.waived !== null) - Number(b.waived !== null) || ORDER[a.severity] - ORDER[b.severity] || a.rule - b.rule);
}
