/** A section drawn small: columns from left to right, their films and cuts on a scale on which both a film and a cut can be seen. */
import { simulate } from "./report";
import type { Plan } from "../plan/plan";
import { GROUND } from "../piece/state";

export interface SmallSection {
  /** the body of the piece */
  body: string;
  bodyName: string;
  columns: {
    /** 0 at the top of the picture, 1 at its foot: where the body begins */
    cut: number;
    /** where the beam has changed the face and no film but a clear one lies on it: what is seen */
    mark: string | null;
    films: { colour: string; clear: boolean; top: number; bottom: number }[];
  }[];
}

/** µm that a film and a cut are drawn by: roots, so that 20 µm beside 1,500 µm can still be seen */
const drawn = (um: number): number => Math.sign(um) * Math.sqrt(Math.abs(um));
/** share of the picture left for the body under the deepest cut, and above the highest film */
const [FOOT, HEAD] = [0.3, 0.08];

/** The piece as it lies at the end of a plan: the bare rest at both sides, the zones between. Null: nothing was planned. */
export function smallSection(plan: Plan): SmallSection | null {
  const last = plan.placed[plan.placed.length - 1];
  if (!last) return null;
  const c = plan.context;
  const all = simulate(plan, last);
  const rest = all.filter((z) => z.zone === GROUND);
  const zones = [...rest, ...all.filter((z) => z.zone !== GROUND), ...rest];
  const high = Math.min(0, ...zones.flatMap((z) => z.layers.map((l) => drawn(l.topUm))));
  const deep = Math.max(0, ...zones.map((z) => drawn(z.depthUm)));
  const span = Math.max(1e-9, deep - high);
  const at = (um: number): number => HEAD + ((drawn(um) - high) / span) * (1 - HEAD - FOOT);
  return {
    body: c.substrate.colour,
    bodyName: c.substrate.name,
    columns: zones.map((z) => ({
      cut: at(z.depthUm),
      mark:
        z.layers.some((l) => l.product !== null && l.left > 0.01 && !c.paintOf(l.product).clear) ||
        z.front === c.substrate.colour
          ? null
          : z.front,
      films: z.layers
        .filter((l) => l.left > 0.01 && l.product !== null)
        .map((l) => {
          const paint = c.paintOf(l.product!);
          return { colour: paint.product.colour, clear: paint.clear, top: at(l.topUm), bottom: at(l.bottomUm) };
        })
        .filter((f) => f.bottom > f.top),
    })),
  };
}
