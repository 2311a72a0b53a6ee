/** What a figure is called on its panel. */
import { own } from "../../process/kinds";
import { planFor, type Plan } from "../../plan/plan";
import { indexOf, type FigureRef, type StepFigure } from "./figure";

const NAMES: Record<StepFigure, (title: string) => string> = {
  minutes: (t) => `Minutes of “${t}”`,
  modelled: (t) => `Planned minutes of “${t}”`,
  load: (t) => `Paint for “${t}”`,
  wait: (t) => `The wait after “${t}”`,
  opens: (t) => `The wait before “${t}”`,
  shuts: (t) => `The window for “${t}”`,
  begins: (t) => `Beginning of “${t}”`,
  latest: (t) => `Latest beginning of “${t}”`,
  slack: (t) => `Slack of “${t}”`,
  energy: (t) => `The laser’s setting for “${t}”`,
  level: (t) => `Depth and level after “${t}”`,
};

export function titleOf(whole: Plan, f: FigureRef): string {
  const plan = "step" in f ? planFor(whole, f.step) : whole;
  if (f.of === "ready") return "When it is ready";
  if (f.of === "hands") return "Work in all";
  if (f.of === "painting") return "Painting in all";
  if (f.of === "spares") return "Pieces to begin with";
  if (f.of === "margin") return "Against the due date";
  const product = (id: string | null | undefined): string =>
    plan.context.hasPaint(id ?? null) ? plan.context.paintOf(id as string).product.name : "this layer";
  if (f.of === "coats") return `Coats of ${product(f.product)}, ${f.over === "ground" ? "straight on" : "over white"}`;
  if (f.of === "amount") return `Paint: ${product(f.product)}`;
  const p = plan.placed[indexOf(plan, f.step)];
  if (f.of === "layer")
    return `Thickness of ${product(own(plan.placed.find((x) => x.step.id === f.film)?.step, "productId"))}`;
  if (f.of === "panel") return `What moves it most, ${p?.step.title ?? f.step}`;
  return NAMES[f.of](p?.step.title ?? f.step);
}
