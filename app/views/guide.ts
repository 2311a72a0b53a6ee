/** The field guide's pages: which there are, and which speak of a step. */
import { FLAW_KINDS } from "../core/catalogue/flaws";
import { FINISHES } from "../core/catalogue/finishes";
import { ROUTES } from "../core/catalogue/routes";
import { SCHOOLS } from "../core/catalogue/schools";
import { ALL_KINDS, kindOf, own } from "../core/process/kinds";
import type { Plan } from "../core/plan/plan";

export interface GuidePage {
  id: string;
  name: string;
  kind: "route" | "school" | "finish" | "step" | "idea" | "flaw";
}

export const GUIDE: GuidePage[] = [
  ...ROUTES.map((r) => ({ id: `route-${r.id}`, name: r.name, kind: "route" as const })),
  { id: "idea-beams", name: "Which beam marks what", kind: "idea" },
  { id: "idea-figure-ground", name: "Figure and ground", kind: "idea" },
  { id: "idea-origin", name: "Where the burn begins", kind: "idea" },
  ...SCHOOLS.map((s) => ({ id: `school-${s.id}`, name: s.matter, kind: "school" as const })),
  ...FINISHES.map((f) => ({ id: `finish-${f.id}`, name: f.name, kind: "finish" as const })),
  ...FLAW_KINDS.map((f) => ({ id: `flaw-${f.id}`, name: f.name, kind: "flaw" as const })),
  ...ALL_KINDS.map((k) => ({ id: `step-${k.id}`, name: k.name, kind: "step" as const })),
];

/** Pages that speak of a step: its route, what is done, what goes on, where makers disagree about it. */
export function guideOf(plan: Plan, index: number): { to: string; name: string }[] {
  const s = plan.placed[index].step;
  const c = plan.context;
  const paint = c.paint(own(s, "productId"));
  const pages = [
    ...(c.route ? [`route-${c.route.id}`] : []),
    `step-${s.kind}`,
    ...(paint ? [`finish-${paint.finish.id}`] : []),
    ...(kindOf(s.kind).matters ?? []).map((m) => `school-${m}`),
  ];
  return pages.flatMap((id) => {
    const p = GUIDE.find((x) => x.id === id);
    return p ? [{ to: `/guide/${id}`, name: p.name }] : [];
  });
}
