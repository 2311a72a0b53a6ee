/** What a drawing is cut along, whatever its lines and fills look like: every shape's own line, in mm. */
import type { Ring } from "./clip";
import { maxScale, multiply, type Matrix } from "./matrix";
import type { Line } from "./outline";
import { length, linesOf, mapRings, pageOf, SHAPES, transformOf, viewMatrix } from "./shapes";
import { nameOf, readSvg, SvgError, type SvgElement } from "./svg";

/** furthest a flattened curve may stray, mm */
const FLAT_MM = 0.01;
const SKIPPED = new Set([
  "defs",
  "symbol",
  "clipPath",
  "mask",
  "pattern",
  "marker",
  "style",
  "title",
  "desc",
  "metadata",
]);
/** shapes that may be repeated */
const MOST_USES = 2000;

/** @param text the SVG file @throws SvgError in one sentence */
export function readLines(text: string): Line[] {
  const { root, byId } = readSvg(text);
  const page = pageOf(root);
  const out: Line[] = [];
  let uses = 0;
  const walk = (e: SvgElement, parent: Matrix, view: [number, number]): void => {
    if (SKIPPED.has(e.tag) || (e.style.display ?? e.attributes.display) === "none") return;
    if (e.tag === "text") throw new SvgError(`${nameOf(e)} is text; an outline is drawn with lines.`);
    const m = multiply(parent, transformOf(e));
    if (SHAPES.has(e.tag)) {
      const lines = linesOf(e, view, FLAT_MM / maxScale(m));
      const rings = mapRings(
        e,
        lines.map((l): Ring => l.points),
        m,
      );
      out.push(...rings.map((points, i) => ({ points, closed: lines[i].closed })));
      return;
    }
    const at = multiply(m, [1, 0, 0, 1, length(e, "x", view[0]), length(e, "y", view[1])]);
    if (e.tag === "use") {
      const to = byId.get((e.attributes.href ?? "").trim().replace(/^#/, ""));
      if (++uses > MOST_USES) throw new SvgError(`The drawing repeats shapes more than ${MOST_USES} times.`);
      if (to && SHAPES.has(to.tag)) walk(to, at, view);
      return;
    }
    if (e.tag === "svg" && e.parent) {
      const v = viewMatrix(e, length(e, "width", view[0], view[0]), length(e, "height", view[1], view[1]));
      for (const c of e.children) walk(c, multiply(at, v.matrix), [v.box[2], v.box[3]]);
    } else for (const c of e.children) walk(c, m, view);
  };
  for (const c of root.children) walk(c, page.matrix, page.view);
  return out;
}
